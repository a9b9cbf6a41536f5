"""A sink: output that reaches no program."""

from __future__ import annotations

from collections.abc import Sequence

from nakrel.core.play.events import Emit
from nakrel.words import tr

__all__ = ["Sink"]


class Sink:
    """Implements `OutputBackend`; `down` is what is held."""

    name = "standin"
    moves_by_pixels = True

    def __init__(self, note: str = "") -> None:
        self.note = note or tr("Nothing reaches other windows: macros play to the simulated devices only.")
        self.down: set[str] = set()
        # Where the pointer was moved to last, from the top left corner.
        self.pointer = (0, 0)

    def emit(self, events: Sequence[Emit]) -> None:
        """Take the events."""
        for event in events:
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
