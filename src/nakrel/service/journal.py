"""The journal: what happened, when and why, kept on the disk."""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Callable

import msgspec

from nakrel.core.model.value import readable_text
from nakrel.private import open_private
from nakrel.protocol import Entry
from nakrel.service.worker import Worker
from nakrel.storage import files
from nakrel.storage.home import Home

__all__ = ["Journal"]

# Entries kept in memory and shown.
KEPT = 2_000
# When the file grows beyond this, only the kept entries stay in it.
MAX_BYTES = 4 * 1024 * 1024
# Seldom, and what one looks for after a service has ended unexpectedly.
_AT_ONCE = ("service", "fault")


class Journal:
    """Entries go to `added` at once. To the file they go on the saver's thread, with the next `write` or, where they
    are rare, at once as well."""

    def __init__(self, home: Home, saver: Worker, added: Callable[[Entry], None]) -> None:
        self._path = home.journal
        self._saver = saver
        self._added = added
        self._unwritten: list[Entry] = []
        self.entries: deque[Entry] = deque(self._read(), maxlen=KEPT)

    def add(self, kind: str, what: str, why: str = "") -> None:
        """Write an entry: `kind` is switch, run, fault, edit or service."""
        entry = Entry(time.time(), kind, readable_text(what), readable_text(why))
        self.entries.append(entry)
        self._unwritten.append(entry)
        self._added(entry)
        if kind in _AT_ONCE:
            self.write()

    def write(self) -> None:
        """Hand what is new to the saver; gathered, since every job of its thread costs the engine's a little."""
        entries, self._unwritten = self._unwritten, []
        if entries:
            lines = b"".join(msgspec.json.encode(entry) + b"\n" for entry in entries)
            self._saver.do(lambda: self._append(lines))

    def _append(self, lines: bytes) -> None:
        self._path.parent.mkdir(parents=True, exist_ok=True)
        with open(self._path, "ab", opener=open_private) as file:
            file.write(lines)
            full = file.tell() > MAX_BYTES
        if full:
            kept = self._path.read_bytes().splitlines(keepends=True)[-KEPT:]
            files.write(self._path, b"".join(kept))

    def _read(self) -> list[Entry]:
        try:
            lines = self._path.read_bytes().splitlines()[-KEPT:]
        except OSError:
            return []
        found = []
        for line in lines:
            try:
                found.append(msgspec.json.decode(line, type=Entry))
            except msgspec.DecodeError:
                continue
        return found
