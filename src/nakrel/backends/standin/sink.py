"""A sink: output that reaches no program and is only remembered."""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Sequence
from typing import NamedTuple

from nakrel.core.play.events import Emit
from nakrel.words import tr

__all__ = ["Arrival", "Sink"]

_KEPT = 200_000


class Arrival(NamedTuple):
    """An event at the sink: when it was planned, and when it came (monotonic microseconds)."""

    control: str
    value: int
    due_us: int
    came_us: int


class Sink:
    """Implements `OutputBackend`; `arrivals` holds the newest events and `down` what is held."""

    name = "standin"

    def __init__(self, note: str = "") -> None:
        self.note = note or tr("Nothing reaches other windows: macros play to the simulated devices only.")
        self.arrivals: deque[Arrival] = deque(maxlen=_KEPT)
        self.down: set[str] = set()
        # Where the pointer was moved to last, from the top left corner.
        self.pointer = (0, 0)

    def emit(self, events: Sequence[Emit]) -> None:
        """Take the events and note when they came."""
        now_us = time.monotonic_ns() // 1_000
        for event in events:
            self.arrivals.append(Arrival(event.control, event.value, event.due_us, now_us))
            if not event.control.startswith("WHEEL"):
                (self.down.add if event.value else self.down.discard)(event.control)

    def move_by(self, dx: int, dy: int) -> None:
        """Move the simulated pointer."""
        self.pointer = (self.pointer[0] + dx, self.pointer[1] + dy)

    def move_to(self, x: int, y: int, width: int, height: int) -> None:
        """Move the simulated pointer to a place."""
        self.pointer = (x, y)

    def close(self) -> None:
        """Let go of everything."""
        self.down.clear()
