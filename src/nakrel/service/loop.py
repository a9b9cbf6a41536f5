"""The loop: descriptors and timers. Without a timer it sleeps until something happens."""

from __future__ import annotations

import contextlib
import selectors
import time
from collections.abc import Callable
from typing import Any

__all__ = ["Loop", "monotonic_us", "spin_until"]


def monotonic_us() -> int:
    """CLOCK_MONOTONIC in microseconds."""
    return time.monotonic_ns() // 1_000


def spin_until(when_us: int) -> None:
    """Wait a very short stretch exactly, without sleeping."""
    when_ns = when_us * 1_000
    while time.monotonic_ns() < when_ns:
        pass


class Loop:
    """One thread's loop. Callbacks get no arguments; a callback's exception goes to `on_error` and ends nothing."""

    def __init__(self, on_error: Callable[[Exception], None]) -> None:
        # select and not epoll: its timeout has microseconds, epoll's is in whole milliseconds.
        self._selector = selectors.SelectSelector()
        self._timers: dict[str, tuple[int, Callable[[], object]]] = {}
        self._on_error = on_error
        self._running = False

    def watch(self, handle: Any, readable: Callable[[], object], writable: Callable[[], object] | None = None) -> None:
        """Call back when the descriptor is readable, or writable where a callback for that is given."""
        events = selectors.EVENT_READ | (selectors.EVENT_WRITE if writable else 0)
        try:
            self._selector.modify(handle, events, (readable, writable))
        except KeyError:
            self._selector.register(handle, events, (readable, writable))

    def forget(self, handle: Any) -> None:
        """Watch the descriptor no longer; one that isn't watched is fine."""
        with contextlib.suppress(KeyError, ValueError):
            self._selector.unregister(handle)

    def at(self, name: str, when_us: int | None, call: Callable[[], object], *, early_us: int = 0) -> None:
        """Set the timer of this name to `when_us`, or with None take it away.

        With `early_us` the call comes so much before its time, for work that prepares what has to happen then.
        """
        if when_us is None:
            self._timers.pop(name, None)
        else:
            self._timers[name] = (when_us - early_us, call)

    def pending(self, name: str) -> bool:
        """Whether the timer of this name is set."""
        return name in self._timers

    def run(self) -> None:
        """Go on until `stop`."""
        self._running = True
        while self._running:
            self._turn()

    def stop(self) -> None:
        """End `run` after the present callback."""
        self._running = False

    def close(self) -> None:
        """Close the selector."""
        self._selector.close()

    def _turn(self) -> None:
        for key, events in self._selector.select(self._timeout()):
            readable, writable = key.data
            if events & selectors.EVENT_WRITE and writable:
                self._call(writable)
            elif events & selectors.EVENT_READ:
                self._call(readable)
        self._fire()

    def _timeout(self) -> float | None:
        if not self._timers:
            return None
        return max(0, min(when_us for when_us, _ in self._timers.values()) - monotonic_us()) / 1_000_000

    def _fire(self) -> None:
        now_us = monotonic_us()
        due = [(timer[0], name, timer) for name, timer in self._timers.items() if timer[0] <= now_us]
        # In the order of their times, however late it is; by then a call may have moved or taken away a later one.
        for _, name, timer in sorted(due, key=lambda entry: entry[0]):
            if self._timers.get(name) is timer:
                del self._timers[name]
                self._call(timer[1])

    def _call(self, call: Callable[[], object]) -> None:
        try:
            call()
        except Exception as error:
            self._on_error(error)
