"""A switch that bounces, made one that doesn't. It reads no clock and touches no device.

A press or a release that is told opens a time in which all further edges are dropped. When that is over and the switch
has ended up the other way, that edge is told late: so a tap that is shorter than the time gets its release at its end.
A press that comes later than that time after the last edge is never late.
"""

from __future__ import annotations

__all__ = ["Debounce"]


class Debounce:
    """One switch; `within_us` is the time in which edges are dropped, in microseconds."""

    def __init__(self, within_us: int, *, down: bool = False) -> None:
        self.within_us = within_us
        # What was told last, and what the switch says.
        self.told = self._is = down
        self._free_us: int | None = None
        # How many edges were dropped that were told at no later time either.
        self.dropped = 0

    @property
    def due_us(self) -> int | None:
        """When `due` is to be asked; None while nothing waits."""
        return self._free_us if self._is != self.told else None

    def edge(self, down: bool, at_us: int) -> list[bool]:
        """The switch goes down or up: what is to be told now, in order; most often that, or nothing. Times never go
        back."""
        # What is taken back at the very moment at which it would be told isn't told.
        late = self.due(at_us - 1)
        turned, self._is = down != self._is, down
        if down != self.told and (self._free_us is None or at_us >= self._free_us):
            self._tell(down, at_us)
            return [*late, down]
        self.dropped += turned
        return late

    def due(self, now_us: int) -> list[bool]:
        """What has waited until now."""
        if self.due_us is None or now_us < self.due_us:
            return []
        # The edge that led there was counted as dropped.
        self.dropped -= 1
        self._tell(self._is, self.due_us)
        return [self.told]

    def _tell(self, down: bool, at_us: int) -> None:
        self.told, self._free_us = down, at_us + self.within_us

    def follow(self, down: bool) -> None:
        """It goes this way, and others tell it."""
        self.told = self._is = down
        self._free_us = None
