"""The watchdog: it ends a service that hangs while it has devices grabbed, and only such a one.

Theory. The loop sets a timer anew as it takes its turns, now and then (`Loop.guard`). Once it sleeps for long, the
timer runs out a last time, and an idle service has none. When it runs out in the midst of a turn, that may have taken
suspiciously long, and no more is known: the process may have been stopped (SIGSTOP, a debugger), the machine may have
slept or be overloaded. So the watchdog's own thread looks on for a while. It counts the looks that it really takes,
which it can't while the process is stopped, and asks the kernel what the loop's thread is at (proc(5)): what counts is
the processor time that it has used (schedstat), and the time in which it was blocked (the state in stat). Waiting for
a processor doesn't. Only a turn that is still the same after `HUNG_S` seconds of running or being blocked hangs.
"""

from __future__ import annotations

import contextlib
import ctypes
import faulthandler
import os
import threading
import time
from collections.abc import Callable
from typing import IO

__all__ = ["HUNG_S", "Watchdog"]

# So long after the timer was set the watchdog begins to look, if a turn is being taken.
SUSPICIOUS_S = 1.5
# So long a turn must have run or been blocked, while it was looked at, to hang.
HUNG_S = 2.0
_LOOK_S = 0.1
# A look that took longer than this was one of a thread that was kept from looking: it says nothing.
_LONGEST_LOOK_S = 0.3

# timerfd_create(2)
_CLOCK_MONOTONIC, _TFD_CLOEXEC = 1, 0o2000000


class _Timespec(ctypes.Structure):
    _fields_ = [("seconds", ctypes.c_long), ("nanoseconds", ctypes.c_long)]


class _Itimerspec(ctypes.Structure):
    _fields_ = [("interval", _Timespec), ("value", _Timespec)]


class Watchdog:
    """Watches the thread that makes it. `hung` is called on the watchdog's own thread; it should end the process."""

    def __init__(self, turn: Callable[[], int], hung: Callable[[], None], log: IO[str]) -> None:
        self._turn, self._hung, self._log = turn, hung, log
        self._thread_id = threading.get_native_id()
        self._libc = ctypes.CDLL(None, use_errno=True)
        self._timer = self._libc.timerfd_create(_CLOCK_MONOTONIC, _TFD_CLOEXEC)
        if self._timer < 0:
            raise OSError(ctypes.get_errno(), "timerfd_create")
        self._closed = False
        self._on = _spec(SUSPICIOUS_S)
        self._thread = threading.Thread(target=self._run, name="watchdog", daemon=True)
        self._thread.start()

    def arm(self) -> None:
        """Become suspicious in a while, if a turn is being taken then."""
        self._libc.timerfd_settime(self._timer, 0, ctypes.byref(self._on), None)

    def close(self) -> None:
        """Watch no longer."""
        self._closed = True
        # Something to read, so that the thread wakes and ends.
        soon = _spec(0.000_001)
        self._libc.timerfd_settime(self._timer, 0, ctypes.byref(soon), None)
        self._thread.join()
        os.close(self._timer)

    def _run(self) -> None:
        while True:
            os.read(self._timer, 8)
            if self._closed:
                return
            if self._hangs():
                with contextlib.suppress(OSError):
                    faulthandler.dump_traceback(self._log, all_threads=True)
                self._hung()

    def _hangs(self) -> bool:
        """Whether the turn stays the same through `HUNG_S` seconds in which the loop's thread ran or was blocked."""
        turn, counted_s = self._turn(), 0.0
        before_s, used_before_s = time.monotonic(), _used_s(self._thread_id)
        while not self._closed and turn and self._turn() == turn:
            if counted_s >= HUNG_S:
                return True
            threading.Event().wait(_LOOK_S)
            now_s, used_s = time.monotonic(), _used_s(self._thread_id)
            took_s = now_s - before_s
            if took_s <= _LONGEST_LOOK_S:
                counted_s += took_s if _is_blocked(self._thread_id) else used_s - used_before_s
            before_s, used_before_s = now_s, used_s
        return False


def _spec(seconds: float) -> _Itimerspec:
    whole = int(seconds)
    return _Itimerspec(_Timespec(0, 0), _Timespec(whole, int((seconds - whole) * 1_000_000_000)))


def _used_s(thread: int) -> float:
    """The processor time that the thread has used, in seconds (the first number of schedstat)."""
    try:
        with open(f"/proc/self/task/{thread}/schedstat", "rb") as file:
            return int(file.read().split()[0]) / 1_000_000_000
    except (OSError, IndexError, ValueError):
        return 0.0


def _is_blocked(thread: int) -> bool:
    """Whether the thread waits for something else than a processor (the state in stat: S or D)."""
    try:
        with open(f"/proc/self/task/{thread}/stat", "rb") as file:
            return file.read().rpartition(b")")[2].split()[0] in (b"S", b"D")
    except (OSError, IndexError):
        return False
