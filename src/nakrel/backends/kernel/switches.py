"""The keys and buttons of a node whose bounces are dropped."""

from __future__ import annotations

from collections.abc import Mapping

from nakrel.core.play.debounce import Debounce

__all__ = ["Switches"]


class Switches:
    """Each by its number. While the node isn't grabbed all programs have its edges, and nothing is dropped."""

    def __init__(self) -> None:
        self._all: dict[int, Debounce] = {}
        # Those that are no longer debounced, and of whose last edge nobody was told.
        self._left_over: dict[int, bool] = {}
        self._dropped_before = 0

    def __bool__(self) -> bool:
        return bool(self._all)

    def want(self, times_us: Mapping[int, int], down: set[int]) -> None:
        """Drop what bounces within these times, by number; `down` is what is down by the node's books."""
        for number, switch in list(self._all.items()):
            if times_us.get(number) != switch.within_us:
                if switch.due_us is not None:
                    self._left_over[number] = not switch.told
                self._dropped_before += switch.dropped
                del self._all[number]
        for number, us in times_us.items():
            self._all.setdefault(number, Debounce(us, down=number in down))

    @property
    def dropped(self) -> int:
        """How many edges were dropped."""
        before = self._dropped_before
        return before + sum(switch.dropped for switch in self._all.values()) if self._all else before

    @property
    def late_us(self) -> int | None:
        """When `due` has something; None while nothing waits."""
        if self._left_over or not self._all:
            return 0 if self._left_over else None
        return min((us for each in self._all.values() if (us := each.due_us) is not None), default=None)

    def due(self, now_us: int) -> list[tuple[int, bool]]:
        """The edges that have waited until now."""
        left, self._left_over = list(self._left_over.items()), {}
        return left + [(number, down) for number, switch in self._all.items() for down in switch.due(now_us)]

    def edge(self, number: int, down: bool, at_us: int, *, grabbed: bool) -> list[bool]:
        """What is to be told of an edge, in order."""
        if (switch := self._all.get(number)) is None:
            return [down]
        if grabbed:
            return switch.edge(down, at_us)
        switch.follow(down)
        return [down]

    def lose(self) -> None:
        """The node is gone, and nothing on it is down."""
        self._left_over.clear()
        for switch in self._all.values():
            switch.follow(False)
