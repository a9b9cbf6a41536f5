"""What the X server holds down for us, written where a process that outlives us reads it.

A control counts as down from before its press is sent until the server has handled its release: a server may drop what
a client that died had written, and may handle it late.
"""

from __future__ import annotations

import mmap
import os
import struct

from nakrel.backends.x11.codes import spare_key
from nakrel.core.model.controls import CONTROLS

__all__ = ["Holds", "Left", "Page"]

_CODES = (*CONTROLS, *map(spare_key, range(8, 256)))
_INDEX = {code: n for n, code in enumerate(_CODES)}
# A byte a control: 0 is up, _XTEST down by XTEST's own device, another number down by that device.
_XTEST = 255
# Behind them a window of the client that injects, and what is written on it.
_CLIENT = struct.Struct("=II")
_SIZE = len(_CODES) + _CLIENT.size


class Left:
    """What a page said at some time: a service that has ended left it so."""

    def __init__(self, noted: bytes) -> None:
        # A file of before may be longer.
        self.noted = noted[:_SIZE]

    def __bool__(self) -> bool:
        """Whether there is anything."""
        return any(self.noted)

    @property
    def client(self) -> tuple[int, int]:
        """The window of the client that injects, 0 for none, and its number."""
        window, token = _CLIENT.unpack_from(self.noted, len(_CODES))
        return window, token

    @property
    def down(self) -> dict[str, int]:
        """What may be down, with the device of each; 0 for XTEST's."""
        noted = self.noted
        return {code: 0 if noted[n] == _XTEST else noted[n] for n, code in enumerate(_CODES) if noted[n]}


class Holds:
    """Where nobody is to know."""

    def note(self, code: str, device: int) -> None:
        """A control goes down by this device (-1 for XTEST's), or with 0 is up."""

    def note_client(self, window: int, token: int) -> None:
        """A window of the client that injects, by which the server knows it, and the number that is written on it: the
        server gives the window's id to others when the client has gone."""


class Page(Holds):
    """Memory that other processes map by the same descriptor, `fd`; as a file it is there for others after a kill."""

    def __init__(self, fd: int) -> None:
        self.fd = fd
        self._memory = mmap.mmap(fd, _SIZE)

    @classmethod
    def of_file(cls, path: str | os.PathLike[str]) -> Page:
        """A file, with what it says already. Raises `OSError`, on a full disk too: to write into memory that the disk
        has no room for would end the process (SIGBUS)."""
        fd = os.open(path, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC | os.O_NOFOLLOW, 0o600)
        try:
            os.posix_fallocate(fd, 0, _SIZE)
            return cls(fd)
        except OSError:
            os.close(fd)
            raise

    @classmethod
    def without_file(cls) -> Page:
        """Memory that goes with the last of the processes that have it."""
        fd = os.memfd_create("nakrel-holds")
        os.ftruncate(fd, _SIZE)
        return cls(fd)

    def note(self, code: str, device: int) -> None:
        """A control goes down by this device (-1 for XTEST's), or with 0 is up."""
        self._memory[_INDEX[code]] = device if 0 <= device < _XTEST else _XTEST

    def note_client(self, window: int, token: int) -> None:
        """A window of the client that injects, and the number that is written on it."""
        _CLIENT.pack_into(self._memory, len(_CODES), window, token)

    def read(self) -> Left:
        """What it says now."""
        return Left(self._memory[:])

    def forget(self, left: Left) -> None:
        """Nothing of that is down any more. What others have noted since stays."""
        memory, before = self._memory, left.noted
        for n in range(len(_CODES)):
            if memory[n] == before[n]:
                memory[n] = 0
        if memory[len(_CODES) :] == before[len(_CODES) :]:
            self.note_client(0, 0)

    def close(self) -> None:
        """Close it; what a file says stays."""
        self._memory.close()
        os.close(self.fd)
