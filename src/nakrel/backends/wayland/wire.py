"""Wayland's wire format, by the protocol's specification (chapter 4)."""

from __future__ import annotations

import array
import contextlib
import os
import select
import socket
import struct
import time
from collections.abc import Callable
from pathlib import Path

from nakrel.backends.protocols import BackendLost, BackendUnavailable
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["Wire", "read_text"]

_DISPLAY, _REGISTRY, _FIRST_FREE = 1, 2, 3
_SYNC, _GET_REGISTRY, _BIND = 0, 1, 0
_LIMIT_S = 3.0
_MOST_BYTES = 1 << 16
# As many as libwayland sends with one write (MAX_FDS_OUT).
_MOST_FILES = 28


class Wire:
    """A connection to a compositor. Raises `BackendUnavailable` where none answers; what comes in later than at the
    start may raise `BackendLost`.

    `hear` gets every event of an object that was made by `new` or `bind`, or by the compositor: its id, the event's
    number and the arguments; what can't be read it says by `struct.error`. Files that came with events are in `files`,
    the oldest first; who takes one closes it.
    """

    def __init__(self, display: str | None, hear: Callable[[int, int, bytes], None]) -> None:
        name = display or os.environ.get("WAYLAND_DISPLAY") or "wayland-0"
        path = Path(os.environ.get("XDG_RUNTIME_DIR") or "/run/user", name)
        self._hear = hear
        self._sock = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM | socket.SOCK_CLOEXEC)
        self._buffer = b""
        # By interface: its name for `bind`, and its version.
        self._globals: dict[str, tuple[int, int]] = {}
        self._callback = 0
        self._synced = False
        self._next = _FIRST_FREE
        self.files: list[int] = []
        try:
            self._sock.connect(os.fspath(path))
            self.send(_DISPLAY, _GET_REGISTRY, struct.pack("=I", _REGISTRY))
            self.round_trip()
        except (OSError, BackendLost) as error:
            self.close()
            raise BackendUnavailable(
                tr("no Wayland compositor answers at {path}: {reason}").format(path=path, reason=reason_of(error))
            ) from None

    def fileno(self) -> int:
        """The connection's socket."""
        return self._sock.fileno()

    def close(self) -> None:
        """Disconnect; never raises."""
        with contextlib.suppress(OSError):
            self._sock.close()
        while self.files:
            os.close(self.files.pop())

    def new(self) -> int:
        """The id for an object that is made by the next request."""
        self._next += 1
        return self._next - 1

    def bind(self, interface: str, version: int) -> int:
        """Bind a global in this version or the lower one that there is; 0 where there is none of it."""
        if interface not in self._globals:
            return 0
        number, offered = self._globals[interface]
        made = self.new()
        body = struct.pack("=I", number) + _text(interface) + struct.pack("=II", min(version, offered), made)
        self.send(_REGISTRY, _BIND, body)
        return made

    def send(self, target: int, opcode: int, body: bytes = b"") -> None:
        """Make a request of an object."""
        self._sock.sendall(struct.pack("=II", target, (8 + len(body)) << 16 | opcode) + body)

    def round_trip(self) -> None:
        """Wait until the compositor has answered all that was asked."""
        self._synced, self._callback = False, self.new()
        self.send(_DISPLAY, _SYNC, struct.pack("=I", self._callback))
        end = time.monotonic() + _LIMIT_S
        while not self._synced:
            left = end - time.monotonic()
            if left <= 0 or not select.select([self._sock], [], [], left)[0]:
                raise BackendLost(tr("it doesn't answer"))
            self._take()

    def receive(self) -> None:
        """Take what has come, without waiting for more."""
        while select.select([self._sock], [], [], 0)[0]:
            try:
                self._take()
            except OSError as error:
                raise BackendLost(
                    tr("the Wayland compositor is gone: {reason}").format(reason=reason_of(error))
                ) from None

    def _take(self) -> None:
        data, more, _, _ = self._sock.recvmsg(_MOST_BYTES, socket.CMSG_SPACE(_MOST_FILES * 4), socket.MSG_CMSG_CLOEXEC)
        for level, kind, brought in more:
            if (level, kind) == (socket.SOL_SOCKET, socket.SCM_RIGHTS):
                found = array.array("i")
                found.frombytes(brought[: len(brought) // found.itemsize * found.itemsize])
                self.files += found
        if not data:
            raise BackendLost(tr("the Wayland compositor is gone"))
        self._buffer += data
        while len(self._buffer) >= 8:
            source, head = struct.unpack_from("=II", self._buffer)
            size, opcode = head >> 16, head & 0xFFFF
            if size < 8:
                raise BackendLost(tr("the Wayland compositor sent what can't be read"))
            if len(self._buffer) < size:
                return
            body, self._buffer = self._buffer[8:size], self._buffer[size:]
            try:
                self._event(source, opcode, body)
            except (struct.error, UnicodeDecodeError):
                raise BackendLost(tr("the Wayland compositor sent what can't be read")) from None

    def _event(self, source: int, opcode: int, body: bytes) -> None:
        if source == _DISPLAY:
            if opcode == 0:
                raise BackendLost(
                    tr("the Wayland compositor refused us: {read_text}").format(read_text=read_text(body, 8)[0])
                )
        elif source == _REGISTRY:
            if opcode == 0:
                name = struct.unpack_from("=I", body)[0]
                interface, at = read_text(body, 4)
                self._globals[interface] = (name, struct.unpack_from("=I", body, at)[0])
        elif source == self._callback:
            self._synced = True
        else:
            self._hear(source, opcode, body)


def _text(text: str) -> bytes:
    """A string as an argument: its length with the closing zero, and padding to four bytes."""
    data = text.encode() + b"\0"
    return struct.pack("=I", len(data)) + data + b"\0" * (-len(data) % 4)


def read_text(body: bytes, at: int) -> tuple[str, int]:
    """The string at a place, and the place after it. Raises `struct.error`."""
    length = struct.unpack_from("=I", body, at)[0]
    if at + 4 + length > len(body):
        raise struct.error("a string goes on beyond its message")
    text = body[at + 4 : at + 4 + max(0, length - 1)].decode("utf-8", "replace")
    return text, at + 4 + length + (-length % 4)
