"""What is down by what the service told, for where it won't tell of the release."""

from __future__ import annotations

import time
from collections.abc import Sequence

import msgspec

from nakrel import protocol as m
from nakrel.core.model.controls import OTHERS

__all__ = ["SeenDown"]


class SeenDown:
    """Keeps what went down and not up again: by whom, and which control."""

    def __init__(self) -> None:
        self._down: dict[tuple[str, str], m.SeenEvent] = {}

    def take(self, events: Sequence[m.SeenEvent]) -> None:
        """These have been told of."""
        for event in events:
            if event.control.startswith("WHEEL") or event.control in OTHERS:
                continue
            if event.value:
                self._down[event.by, event.control] = event
            else:
                self._down.pop((event.by, event.control), None)

    def let_go(self) -> m.Seen:
        """The releases of all of it, now: whoever shows it as down would show that for ever."""
        now = time.monotonic_ns() // 1_000
        events = tuple(msgspec.structs.replace(event, value=0, at_us=now) for event in self._down.values())
        self._down.clear()
        return m.Seen(events)
