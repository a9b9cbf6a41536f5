"""What a check finds, and what it may go by besides the macro."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import partial
from typing import NamedTuple

from nakrel.core.model.macro import Macro, Play
from nakrel.core.model.profile import FairPlay

__all__ = ["NO_FACTS", "SHORT_US", "Attached", "Facts", "Finding", "finding_of"]

# Press, 5 ms, release works in most games, and 1 ms is too fast for many (common practice, no published source).
SHORT_US = 2_000


class Finding(NamedTuple):
    """Something to look at: the row of the step list that it is about, None for the macro as a whole, and words."""

    row: int | None
    message: str


# One of its fields, in half the time: of a long macro there may be tens of thousands.
finding_of: Callable[[tuple[int, str]], Finding] = partial(tuple.__new__, Finding)


class Facts(NamedTuple):
    """What checks may know of this machine: what is wrong with texts to be typed, with programs to be opened, and with
    the names of secrets. One that isn't there is fine, or nobody knows."""

    texts: Mapping[str, str] = {}
    programs: Mapping[str, str] = {}
    secrets: Mapping[str, str] = {}
    # The screen's width and height in pixels, None where nobody knows.
    screen: tuple[int, int] | None = None


NO_FACTS = Facts()


class Attached(NamedTuple):
    """Where the macro is attached: the profile's name, its fair-play rule, its game keys by code, the way the macro is
    played there, and the other macros that it plays, by the control that starts each."""

    profile: str
    rule: FairPlay
    keys: Mapping[str, str]
    play: Play
    others: Mapping[str, Macro]
