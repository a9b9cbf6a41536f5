"""The guard: a small process that lets go what the service held, when the service can no longer do it.

The X server keeps injected keys down after their client has died. The guard (`guarding.py`) sleeps on a pipe whose
other end only the service has; when that end closes without a word, it releases everything that a shared page of memory
says is down. It is in a session of its own, so that who kills the service's group doesn't kill it as well; and the page
is a file, where the disk has room for it, so that where all of them were killed the next service does the guard's work.
"""

from __future__ import annotations

import fcntl
import logging
import os
import select
import signal
import subprocess
import sys
import time
from pathlib import Path

from nakrel.backends.x11 import guarding
from nakrel.backends.x11.holds import Holds, Page

__all__ = ["Guard"]

# How long a guard before this one may take, and what a killed service has left.
_EARLIER_S = 2.0


class Guard(Holds):
    """Starts the guarding process; make it before any thread is started.

    The process holds a lock on the file `lock` as long as it lives: a guard before this one, whose service has just
    been killed, is let finish first, so that it takes back nothing of ours.
    """

    def __init__(self, display: str | None, folder: Path) -> None:
        try:
            self._page = Page.of_file(folder / "holds")
        except OSError as error:
            logging.info("what is down is kept without a file: %s", error)
            self._page = Page.without_file()
        held = os.open(folder / "guard.lock", os.O_RDWR | os.O_CREAT | os.O_CLOEXEC | os.O_NOFOLLOW, 0o600)
        _wait_for(held)
        left = self._page.read()
        read_fd, self._alive = os.pipe()
        ready, ready_fd = os.pipe()
        given = (read_fd, ready_fd)
        # Without `site` and the environment's wishes: it is as small as a Python can be.
        command = [
            sys.executable,
            "-S",
            "-E",
            guarding.__file__,
            *map(str, (*given, self._page.fd)),
            left.noted.hex() if left else "",
            display or "",
        ]
        self._process = subprocess.Popen(
            [*command, *sys.path],
            pass_fds=(*given, self._page.fd, held),
            start_new_session=True,
            preexec_fn=_ignore_signals,
        )
        # The lock is the guard's now: it goes with the last of its copies.
        for fd in (*given, held):
            os.close(fd)
        if left:
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
        left = self._page.read()
        done = not left.down
        if done:
            self._page.forget(left)
            os.write(self._alive, guarding.HOME)
        os.close(self._alive)
        if done:
            self._process.wait()
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


def _ignore_signals() -> None:
    """Who ends the session's processes one by one doesn't end the guard before its work is done."""
    for number in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(number, signal.SIG_IGN)
