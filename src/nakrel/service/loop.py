"""The loop: descriptors and timers. Without a timer it sleeps until something happens."""

from __future__ import annotations

import contextlib
import os
import select
import time
from collections import deque
from collections.abc import Callable
from typing import Any, Protocol

__all__ = ["Loop", "monotonic_us", "spin_until"]


# So much of what is ready is taken with one turn; the rest with the next.
_AT_ONCE = 64
# How old an alarm may be when a turn begins; a younger one will do for that turn, too. That is less than it takes to
# go off.
_REARM_US = 500_000
# How long before a timer the loop stops sleeping by whole milliseconds.
_EXACT_S = 0.01
# Much happens where a turn follows on another so soon; a timer that is so far off needs no exact time then. Otherwise
# the loop would wake once more for each timer.
_LIVELY_US, _LIVELY_S = 2_000, 0.05
# A turn that follows on the one before it without any sleep. Motion of the fastest mice leaves some sleep between its
# turns; so many without any are a callback that leaves its descriptor readable, or a timer that sets itself anew.
_SLEPT_US = 20
_RESTLESS = 20_000
# What a turn with sleep takes back: some, since one in a few hundred only looks so, where the machine had other work.
_REST = 50
_TOLD = -(1 << 60)


def monotonic_us() -> int:
    """CLOCK_MONOTONIC in microseconds."""
    return time.monotonic_ns() // 1_000


def spin_until(when_us: int) -> None:
    """Wait a very short stretch exactly, without sleeping."""
    when_ns = when_us * 1_000
    while time.monotonic_ns() < when_ns:
        pass


class Alarm(Protocol):
    """What becomes suspicious of a turn that takes too long."""

    def arm(self) -> None:
        """Become suspicious in a while, if a turn is being taken then."""


class Loop:
    """One thread's loop. Callbacks get no arguments; a callback's exception goes to `on_error` and ends nothing.

    Motion through a grabbed mouse makes thousands of turns a second, so a turn does as little as it can.
    """

    def __init__(self, on_error: Callable[[Exception], None]) -> None:
        self._handles: dict[int, tuple[Callable[[], object], Callable[[], object] | None]] = {}
        self._readers: list[int] = []
        self._writers: list[int] = []
        # The same descriptors, for where no time has to be exact; None where there is one that it can't watch.
        self._epoll: select.epoll | None = select.epoll()
        self._timers: dict[str, tuple[int, Callable[[], object]]] = {}
        # The time of the earliest timer, or earlier; None for no timer.
        self._soonest_us: int | None = None
        self._on_error = on_error
        self._stopped = False
        self._alarm: Alarm | None = None
        self._guarded = False
        self._armed_us = 0
        # Whether the turns follow on each other fast.
        self._lively = False
        # How many turns there were without any sleep, and what is told of too many.
        self._restless = 0
        self._on_restless: Callable[[str], object] = lambda what: None
        # The number of the turn that is being taken, 0 while the loop sleeps; other threads may read it.
        self.turn = 0
        self._turns = 0
        # What has time, each until when.
        self._idle: deque[tuple[int, Callable[[], object]]] = deque()
        # What other threads want done here.
        self._posted: deque[Callable[[], object]] = deque()
        self._wake_fd = os.eventfd(0, os.EFD_NONBLOCK | os.EFD_CLOEXEC)
        self.watch(self._wake_fd, self.collect)

    def set_alarm(self, alarm: Alarm | None) -> None:
        """Have turns that take too long noticed, while `guard` is on."""
        self._alarm = alarm

    def on_restless(self, call: Callable[[str], object]) -> None:
        """Have it told, once, when the loop finds no rest: `call` gets what keeps it busy."""
        self._on_restless = call

    def guard(self, on: bool) -> None:
        """Whether a turn that takes too long does harm: it does while devices are grabbed or anything is held."""
        self._guarded = on

    def post(self, call: Callable[[], object]) -> None:
        """Have something called with the next turn; from any thread."""
        self._posted.append(call)
        with contextlib.suppress(BlockingIOError, OSError, ValueError):
            # A loop that has been closed has none, and what is posted then is never called.
            os.eventfd_write(self._wake_fd, 1)

    def collect(self) -> None:
        """Call what has been posted."""
        with contextlib.suppress(BlockingIOError):
            os.eventfd_read(self._wake_fd)
        for _ in range(len(self._posted)):
            self._call(self._posted.popleft())

    def watch(self, handle: Any, readable: Callable[[], object], writable: Callable[[], object] | None = None) -> None:
        """Call back when the descriptor is readable, or writable where a callback for that is given."""
        number = _number(handle)
        self._poll(number)
        self._handles[number] = readable, writable
        self._sort_handles()

    def forget(self, handle: Any) -> None:
        """Watch the descriptor no longer; one that isn't watched is fine."""
        number = _number(handle)
        if self._handles.pop(number, None):
            if self._epoll is not None:
                # One that was closed is forgotten already.
                with contextlib.suppress(OSError, ValueError):
                    self._epoll.unregister(number)
            self._sort_handles()

    def _poll(self, number: int) -> None:
        """Have epoll watch it as well, or do without that where it can't, as with files."""
        if self._epoll is None:
            return
        try:
            self._epoll.register(number, select.EPOLLIN)
        except FileExistsError:
            # It is watched already, with other callbacks.
            return
        except OSError:
            self._epoll.close()
            self._epoll = None

    def at(self, name: str, when_us: int | None, call: Callable[[], object], *, early_us: int = 0) -> None:
        """Set the timer of this name to `when_us`, or with None take it away.

        With `early_us` the call comes so much before its time, for work that prepares what has to happen then.
        """
        if when_us is None:
            self._timers.pop(name, None)
            return
        when_us -= early_us
        self._timers[name] = (when_us, call)
        if self._soonest_us is None or when_us < self._soonest_us:
            self._soonest_us = when_us

    def pending(self, name: str) -> bool:
        """Whether the timer of this name is set."""
        return name in self._timers

    def when_idle(self, call: Callable[[], object], by_us: int) -> None:
        """Have something called, once, when nothing else is to be done; from `by_us` on it doesn't wait for that."""
        self._idle.append((by_us, call))

    def run(self) -> None:
        """Go on until `stop`; one that came before it counts: a service may be told to end while it starts."""
        while not self._stopped:
            self._turn()
        self._stopped = False
        while self._idle:
            self._call(self._idle.popleft()[1])

    def stop(self) -> None:
        """End `run` after the present callback."""
        self._stopped = True

    def close(self) -> None:
        """Forget all descriptors; what is posted from now on is never called."""
        self._handles.clear()
        self._sort_handles()
        wake_fd, self._wake_fd = self._wake_fd, -1
        os.close(wake_fd)
        if self._epoll is not None:
            self._epoll.close()

    def _turn(self) -> None:
        before_us = time.monotonic_ns() // 1_000
        if self._idle:
            before_us = self._use_idle(before_us)
            if self._stopped:
                return
        ready, writable = self._wait(before_us)
        woke_us = time.monotonic_ns() // 1_000
        if self._guarded and self._alarm is not None and woke_us - self._armed_us > _REARM_US:
            self._alarm.arm()
            self._armed_us = woke_us
        for handle in writable:
            if (entry := self._handles.get(handle)) and entry[1]:
                self._call(entry[1])
        for handle in ready:
            # A callback before this one may have put an end to it.
            if (entry := self._handles.get(handle)) and handle not in writable:
                self._call(entry[0])
        if self._soonest_us is not None and self._soonest_us <= time.monotonic_ns() // 1_000:
            self._fire()
        # What is waited for is answered by now: a press must not wait for this.
        self._note_pace(woke_us - before_us, ready)

    def _wait(self, now_us: int) -> tuple[list[int], list[int]]:
        """Sleep until something is ready or due.

        select, whose timeout has microseconds, where a timer is near or something is to be written. While nothing is,
        and while much happens long before the next timer, epoll: it takes half as long, but counts in milliseconds.
        """
        limit_s = None if self._soonest_us is None else max(0, self._soonest_us - now_us) / 1_000_000
        self.turn = 0
        writable: list[int] = []
        if (
            self._epoll is not None
            and not self._writers
            and (limit_s is None or (self._lively and limit_s > _LIVELY_S))
        ):
            sleep_s = None if limit_s is None else limit_s - _EXACT_S
            ready = [handle for handle, _ in self._epoll.poll(sleep_s, _AT_ONCE)]
        else:
            ready, writable, _ = select.select(self._readers, self._writers, (), limit_s)
        self._turns += 1
        self.turn = self._turns
        return ready, writable

    def _is_busy(self, now_us: int) -> bool:
        """Whether something is ready or due."""
        if self._soonest_us is not None and self._soonest_us <= now_us:
            return True
        if self._epoll is not None:
            return bool(self._epoll.poll(0, 1))
        return bool(select.select(self._readers, (), (), 0)[0])

    def _use_idle(self, now_us: int) -> int:
        """Call what has time, while nothing else is to be done, and one that had to wait too long in any case. Returns
        when that ended."""
        while self._idle:
            late = self._idle[0][0] <= now_us
            if not late and self._is_busy(now_us):
                break
            self._call(self._idle.popleft()[1])
            now_us = monotonic_us()
            if late and self._is_busy(now_us):
                break
        return now_us

    def _note_pace(self, slept_us: int, ready: list[int]) -> None:
        """How long it slept before this turn tells whether much happens, or something keeps it from sleeping."""
        self._lively = slept_us < _LIVELY_US
        if slept_us > _SLEPT_US:
            if self._restless > 0:
                self._restless -= _REST
            return
        self._restless += 1
        if self._restless == _RESTLESS:
            self._restless = _TOLD
            calls = [self._handles[handle][0] for handle in ready if handle in self._handles]
            names = [getattr(getattr(call, "func", call), "__qualname__", "?") for call in calls]
            self._on_restless(f"descriptors of {names}, timers {sorted(self._timers)}")

    def _fire(self) -> None:
        now_us = monotonic_us()
        due = [(timer[0], name, timer) for name, timer in self._timers.items() if timer[0] <= now_us]
        # In the order of their times, however late it is; by then a call may have moved or taken away a later one.
        for _, name, timer in sorted(due, key=lambda entry: entry[0]):
            if self._timers.get(name) is timer:
                del self._timers[name]
                self._call(timer[1])
        self._soonest_us = min((when_us for when_us, _ in self._timers.values()), default=None)

    def _call(self, call: Callable[[], object]) -> None:
        try:
            call()
        except Exception as error:
            self._on_error(error)

    def _sort_handles(self) -> None:
        self._readers = list(self._handles)
        self._writers = [handle for handle, (_, writable) in self._handles.items() if writable]


def _number(handle: Any) -> int:
    return handle if isinstance(handle, int) else handle.fileno()
