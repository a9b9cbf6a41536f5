"""The guard: a small process that lets go what the service held, when the service can no longer do it.

The X server keeps injected keys down after their client has died. The guard sleeps on a pipe whose other end only
the service has; when that end closes without a word, it releases everything that a shared page of memory says is down.
It is in a session of its own, so that who kills the service's group doesn't kill it as well; and the page is a file, so
that where all of them were killed the next service does the guard's work.
"""

from __future__ import annotations

import contextlib
import fcntl
import os
import select
import signal
import time
from pathlib import Path

import xcffib

from nakrel.backends.protocols import BackendLost, BackendUnavailable
from nakrel.backends.x11.holds import Holds, Page
from nakrel.backends.x11.injector import Injector
from nakrel.backends.x11.wire import XConnection, read_token

__all__ = ["Guard"]

# How long a guard before this one may take, and what a killed service has left.
_EARLIER_S = 2.0
_READY, _HOME = b"r", b"."


class Guard(Holds):
    """Forks the guarding process; make it before any thread is started.

    The process holds a lock on the file `lock` as long as it lives: a guard before this one, whose service has just
    been killed, is let finish first, so that it takes back nothing of ours.
    """

    def __init__(self, display: str | None, folder: Path) -> None:
        self._page = Page(folder / "holds")
        held = os.open(folder / "guard.lock", os.O_RDWR | os.O_CREAT | os.O_CLOEXEC | os.O_NOFOLLOW, 0o600)
        _wait_for(held)
        read_fd, self._alive = os.pipe()
        ready, ready_fd = os.pipe()
        self._pid = os.fork()
        if self._pid == 0:
            try:
                _watch(read_fd, held, ready_fd, self._page, display)
            finally:
                os._exit(0)
        os.close(read_fd)
        os.close(ready_fd)
        # The lock is the child's now: it goes with the last of its copies.
        os.close(held)
        # What a service before this one left down is let go before anything new goes down.
        select.select([ready], [], [], _EARLIER_S)
        os.close(ready)

    def note(self, code: str, device: int) -> None:
        """A control goes down by this device (-1 for XTEST's), or with 0 is up."""
        self._page.note(code, device)

    def note_client(self, window: int, token: int) -> None:
        """A window of the client that injects, and the number that is written on it."""
        self._page.note_client(window, token)

    def close(self) -> None:
        """Send the guard home when all is let go; else it stays until the server has let go what is left."""
        done = not self._page.down()
        if done:
            self._page.clear()
            os.write(self._alive, _HOME)
        os.close(self._alive)
        if done:
            os.waitpid(self._pid, 0)
        self._page.close()


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


def _watch(alive: int, lock: int, ready: int, page: Page, display: str | None) -> None:
    os.setsid()
    for number in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(number, signal.SIG_IGN)
    # Nothing of the service's may be kept open here, least of all its lock.
    kept = sorted((alive, lock, ready))
    for low, high in zip((2, *kept), (*kept, os.sysconf("SC_OPEN_MAX")), strict=True):
        os.closerange(low + 1, high)
    _let_go(page, display)
    # A service that was killed meanwhile hears nothing any more.
    with contextlib.suppress(OSError):
        os.write(ready, _READY)
    os.close(ready)
    if os.read(alive, 1) != _HOME:
        _let_go(page, display)


def _let_go(page: Page, display: str | None) -> None:
    """Let go what the page says; where the server can't be reached it has nothing down for us."""
    if not page.down() and not page.client[0]:
        return
    with contextlib.suppress(BackendUnavailable, BackendLost, xcffib.XcffibException, xcffib.ConnectionException):
        _release(page, display)
    page.clear()


def _release(page: Page, display: str | None) -> None:
    conn, _, xtest = XConnection.open(display)
    _end_client(conn, *page.client)
    root = conn.get_setup().roots[conn.pref_screen].root
    injector = Injector(conn, xtest, root, lambda code: 0, Holds())
    injector.take_over(page.down())
    injector.let_all_go()
    # A round trip: the server may drop a closed connection with its last requests unread.
    conn.core.GetInputFocus().reply()
    conn.disconnect()


def _end_client(conn: XConnection, window: int, token: int) -> None:
    """End the dead client for good: what it had written may still wait to be handled, presses too, and the server
    forgets that with the client. By now its window may be another's, so the token is asked for, with nobody let in
    between."""
    if not window:
        return
    conn.core.GrabServer()
    try:
        if read_token(conn, window) == token:
            conn.core.KillClient(window, is_checked=True).check()
    except xcffib.XcffibException:
        # It has gone already.
        pass
    finally:
        conn.core.UngrabServer()
        conn.flush()
