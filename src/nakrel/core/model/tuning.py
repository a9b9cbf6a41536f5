"""Tuning: the shortest time that works in a game is looked for by trying."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

import msgspec

from nakrel.core.model.controls import Code
from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import WaitUs
from nakrel.core.model.value import Value
from nakrel.words import tr

__all__ = ["LEAST_RANGE_US", "MOST_TRIALS", "Question", "Target", "Trial", "Tuning"]

LEAST_RANGE_US = 1_000
MOST_TRIALS = 500


class Question(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Which time from `least_us` to `most_us` is the shortest that works `sure` of the time? It is asked until the
    answer lies within `narrow_us`, or `most_trials` times. Raises `DataError` for a range of less than
    `LEAST_RANGE_US`."""

    least_us: WaitUs = 5_000
    most_us: WaitUs = 200_000
    sure: Annotated[float, msgspec.Meta(ge=0.5, le=0.999)] = 0.95
    narrow_us: WaitUs = 4_000
    most_trials: Annotated[int, msgspec.Meta(ge=1, le=MOST_TRIALS)] = 40

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.most_us - self.least_us < LEAST_RANGE_US:
            raise DataError(tr("the times to try go from the shorter one to the longer one, 1 ms apart at least"))


class Trial(Value, frozen=True, array_like=True):
    """A time that was tried, and whether it worked."""

    time_us: WaitUs
    worked: bool


class Target(StrEnum):
    """Which time of the macro is tried: that of one step, or all waits together."""

    STEP = "step"
    WAITS = "waits"


class Tuning(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A search that can be left and taken up again: what is asked of which time (`row` is that of the step), the
    buttons that say how a trial went, and the trials so far."""

    question: Question = Question()
    target: Target = Target.STEP
    row: Annotated[int, msgspec.Meta(ge=0)] = 0
    worked: Code = "BTN_EXTRA"
    failed: Code = "BTN_SIDE"
    trials: Annotated[tuple[Trial, ...], msgspec.Meta(max_length=MOST_TRIALS)] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.worked == self.failed:
            raise DataError(tr("one button says that it worked and another that it didn't; choose two"))
