"""How fast the machine is just now: what the same work takes on a shared one changes fourfold within the hour."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import NamedTuple, TypeVar

__all__ = ["At", "measured_at", "pace"]

T = TypeVar("T")
_TURNS = 3_000_000
# How often it is looked at while it is too slow.
_LOOK_S = 2.0


class At(NamedTuple):
    """The pace before and after a measurement, and how often it was taken until that would do."""

    before: float
    after: float
    tries: int = 1

    def __str__(self) -> str:
        tries = f", try {self.tries}" if self.tries > 1 else ""
        return f"{self.before:.2f} and {self.after:.2f} s{tries}"


def pace() -> float:
    """The seconds that three million turns of an empty Python loop take now. Short loops would tell less: a processor
    that has rested is faster at first, on a shared machine by half."""
    start, turns = time.perf_counter(), 0
    while turns < _TURNS:
        turns += 1
    return time.perf_counter() - start


def measured_at(measure: Callable[[], T], slowest: float | None = None, limit_s: float = 0.0) -> tuple[T, At]:
    """What is measured, and at which pace. With `slowest` (s) it is measured once the machine is no slower than that,
    and again where it became so meanwhile; after `limit_s` it is taken as it comes."""
    end, tries = time.monotonic() + limit_s, 0
    while True:
        before = pace()
        while slowest and before > slowest and time.monotonic() < end:
            time.sleep(_LOOK_S)
            before = pace()
        tries += 1
        found, after = measure(), pace()
        if not slowest or max(before, after) <= slowest or time.monotonic() >= end:
            return found, At(before, after, tries)
