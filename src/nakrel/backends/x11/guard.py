"""The guard: a small process that lets go what the service held, when the service can no longer do it.

The X server keeps injected keys down after their client has died. The guard sleeps on a pipe whose other end only
the service has; when that end closes without a word, it releases everything that a shared page of memory says is down,
and gives the pointer its own speed back.
"""

from __future__ import annotations

import contextlib
import fcntl
import mmap
import os
import select
import signal
import time

from nakrel.backends.protocols import BackendUnavailable
from nakrel.backends.x11.codes import spare_key
from nakrel.backends.x11.injector import Injector
from nakrel.backends.x11.speed import PointerSpeed
from nakrel.backends.x11.wire import XConnection
from nakrel.core.model.controls import CONTROLS

__all__ = ["Guard"]

_CODES = (*CONTROLS, *map(spare_key, range(8, 256)))
_INDEX = {code: n for n, code in enumerate(_CODES)}
# A byte a control: 0 is up, _XTEST down by XTEST's own device, another number down by that device.
_XTEST = 255
# How long a guard before this one may take.
_EARLIER_S = 2.0


class Guard:
    """Forks the guarding process; make it before any thread is started.

    The process holds a lock on the file `lock` as long as it lives: a guard before this one, whose service has just
    been killed, is let finish first, so that it takes back nothing of ours.
    """

    def __init__(self, display: str | None, lock: str | os.PathLike[str]) -> None:
        self._memory = mmap.mmap(-1, len(_CODES))
        held = os.open(lock, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o600)
        _wait_for(held)
        read_fd, self._alive = os.pipe()
        self._pid = os.fork()
        if self._pid == 0:
            try:
                _watch(read_fd, held, self._memory, display)
            finally:
                os._exit(0)
        os.close(read_fd)
        # The lock is the child's now: it goes with the last of its copies.
        os.close(held)

    def note(self, code: str, device: int) -> None:
        """A control went down by this device (-1 for XTEST's), or with 0 up."""
        self._memory[_INDEX[code]] = device if 0 <= device < _XTEST else _XTEST

    def close(self) -> None:
        """Send the guard home; all is let go."""
        os.write(self._alive, b".")
        os.close(self._alive)
        os.waitpid(self._pid, 0)
        self._memory.close()


def _wait_for(lock: int) -> None:
    """Wait for a lock, but not for ever: a guard that a window server keeps waiting can do nothing more."""
    end = time.monotonic() + _EARLIER_S
    while time.monotonic() < end:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            select.select([], [], [], 0.02)
        else:
            return


def _watch(alive: int, lock: int, memory: mmap.mmap, display: str | None) -> None:
    for number in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(number, signal.SIG_IGN)
    # Nothing of the service's may be kept open here, least of all its lock.
    low, high = sorted((alive, lock))
    os.closerange(3, low)
    os.closerange(low + 1, high)
    os.closerange(high + 1, os.sysconf("SC_OPEN_MAX"))
    if os.read(alive, 1):
        return
    down = {code: 0 if memory[n] == _XTEST else memory[n] for n, code in enumerate(_CODES) if memory[n]}
    with contextlib.suppress(BackendUnavailable):
        _let_go(down, display)


def _let_go(down: dict[str, int], display: str | None) -> None:
    conn, xi, xtest = XConnection.open(display)
    root = conn.get_setup().roots[conn.pref_screen].root
    injector = Injector(conn, xtest, root, lambda code: 0, lambda code, device: None)
    injector.take_over(down)
    injector.let_all_go()
    PointerSpeed(conn, xi).restore(slave.id for slave in conn.slaves(xi))
    # A round trip: the server may drop a closed connection with its last requests unread.
    conn.core.GetInputFocus().reply()
    conn.disconnect()
