"""What a part of the soak is."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

__all__ = ["Found", "Part", "Tell"]

# Called with how many rounds are done.
Tell = Callable[[int], None]


class Found(NamedTuple):
    """A line for each failure, with what repeats it, and what else was measured."""

    failures: list[str]
    note: str = ""


class Part(NamedTuple):
    """What is counted, how often at full counts, and what runs so many rounds from a seed."""

    name: str
    what: str
    full: int
    run: Callable[[int, int, Tell], Found]
