"""Where the service's log goes: to systemd's journal where that started it, else to a file that never grows large."""

from __future__ import annotations

import logging
import os
import sys
from io import TextIOWrapper
from logging.handlers import RotatingFileHandler
from pathlib import Path
from typing import IO

from nakrel.private import open_private

__all__ = ["MOST_BYTES", "goes_to_journal", "open_log", "start_logging"]

# A file that has grown so large is put aside, in the place of the one before; there are two at most.
MOST_BYTES = 1_000_000


def goes_to_journal() -> bool:
    """Whether systemd reads what is written to standard error (systemd.exec(5), $JOURNAL_STREAM)."""
    try:
        found = os.fstat(2)
    except OSError:
        return False
    return os.environ.get("JOURNAL_STREAM") == f"{found.st_dev}:{found.st_ino}"


def open_log(path: Path) -> IO[str]:
    """What tracebacks that no handler writes go to. Raises `OSError`."""
    return sys.stderr if goes_to_journal() else open(path, "a", encoding="utf-8", opener=open_private)


def start_logging(path: Path) -> None:
    """Let the service's messages go where they belong. Raises `OSError`."""
    handler = logging.StreamHandler() if goes_to_journal() else _Rotated(path, maxBytes=MOST_BYTES, backupCount=1)
    # The journal has its own times.
    times = "" if goes_to_journal() else "%(asctime)s "
    handler.setFormatter(logging.Formatter(f"{times}%(levelname)s %(message)s"))
    logging.basicConfig(handlers=[handler], level=logging.INFO)


class _Rotated(RotatingFileHandler):
    """For the user's eyes alone."""

    def _open(self) -> TextIOWrapper:
        return open(self.baseFilename, "a", encoding="utf-8", opener=open_private)
