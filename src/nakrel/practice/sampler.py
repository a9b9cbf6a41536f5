"""How a game sees its input: it looks once a frame, or it takes every event in order."""

from __future__ import annotations

from collections import Counter

__all__ = ["Sampler"]


class Sampler:
    """Feed it what arrives; once a frame it says which presses the game saw.

    A press is seen when a frame finds the control down that the frame before found up; whatever happens between two
    frames is lost. `arrived` counts presses as they came, `seen` as the game saw them.
    """

    def __init__(self) -> None:
        self.arrived: Counter[str] = Counter()
        self.seen: Counter[str] = Counter()
        self.down: set[str] = set()
        self._before: set[str] = set()

    def change(self, control: str, down: bool) -> None:
        """A control went down or up."""
        if down and control not in self.down:
            self.arrived[control] += 1
            self.down.add(control)
        elif not down:
            self.down.discard(control)

    def frame(self) -> tuple[list[str], list[str]]:
        """Look once: the presses and the releases that the game sees in this frame."""
        pressed = sorted(self.down - self._before)
        released = sorted(self._before - self.down)
        self.seen.update(pressed)
        self._before = set(self.down)
        return pressed, released

    def clear(self) -> None:
        """Start the counts anew."""
        self.arrived.clear()
        self.seen.clear()
