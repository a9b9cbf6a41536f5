"""How a recording is made."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

import msgspec

from nakrel.core.model.controls import CONTROLS, Kind
from nakrel.core.model.limits import MAX_SECONDS, WaitUs
from nakrel.core.model.value import Value

__all__ = ["Moves", "Waits", "RecordingSettings", "Where"]


Seconds = Annotated[int, msgspec.Meta(ge=0, le=MAX_SECONDS)]


class Waits(StrEnum):
    """How the times between inputs are kept."""

    PERFORMED = "performed"
    EVEN = "even"
    NONE = "none"


class Where(StrEnum):
    """Where in the macro a recording goes."""

    CURSOR = "cursor"
    END = "end"
    REPLACE = "replace"


class Moves(StrEnum):
    """What of the pointer is recorded: nothing, its place at each click, or its path."""

    NONE = "none"
    CLICKS = "clicks"
    PATH = "path"


class RecordingSettings(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What is caught, how waits are kept, where the steps go, how long after the button it begins, and for how long it
    goes on at most (seconds; 0 for no countdown and no limit). With `from_now` the time before the first input is kept
    as a wait, else it begins with that input. A path is thinned as far as it stays within
    `tolerance_px` pixels of what was recorded. With `taps` a press and its release become one step."""

    keys: bool = True
    buttons: bool = True
    wheel: bool = True
    waits: Waits = Waits.PERFORMED
    even_us: WaitUs = 25_000
    where: Where = Where.CURSOR
    countdown_s: Seconds = 0
    limit_s: Seconds = 0
    moves: Moves = Moves.NONE
    tolerance_px: Annotated[int, msgspec.Meta(ge=0, le=100)] = 3
    from_now: bool = False
    taps: bool = False

    def catches(self, control: str) -> bool:
        """Whether this control is recorded."""
        return {Kind.KEY: self.keys, Kind.BUTTON: self.buttons, Kind.WHEEL: self.wheel}[CONTROLS[control].kind]
