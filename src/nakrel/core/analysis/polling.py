"""How often a mouse reports, from the times of its reports. Without NumPy."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

from nakrel.core.analysis.takes import quantile
from nakrel.core.model.errors import DataError
from nakrel.words import tr

__all__ = ["LEAST_REPORTS", "STANDARD_HZ", "Polling", "polling"]

# What mice are made for. Full speed USB asks once a millisecond at most (USB 2.0, section 5.7.4), high speed eight
# times.
STANDARD_HZ = (125, 250, 500, 1_000, 2_000, 4_000, 8_000)
LEAST_REPORTS = 50
# A mouse that says nothing for so long wasn't moved.
_REST_US = 50_000
# The histogram has so many bins, up to this many periods.
_BINS, _PERIODS = 36, 3.0


class Polling(NamedTuple):
    """Of the reports of a mouse that was moved: how many there were, the median time between two, the rate that makes
    and the standard one nearest to it, the spread of the times (interquartile range), how many reports are missing
    for that rate, and a histogram of the times up to `top_us`. Times are in microseconds; with `coarse` the clock that
    told them has milliseconds, and the rate is the mean."""

    reports: int
    median_us: float
    rate_hz: float
    nearest_hz: int
    spread_us: float
    missing: int
    counts: tuple[int, ...]
    top_us: float
    coarse: bool


def polling(times_us: Sequence[int], *, coarse: bool = False) -> Polling:
    """Go through the times of reports, in microseconds. Raises `DataError` for fewer than `LEAST_REPORTS` while the
    mouse moved."""
    gaps = [after - before for before, after in zip(times_us, times_us[1:], strict=False)]
    moving = [us for us in gaps if us < _REST_US]
    if len(moving) < LEAST_REPORTS:
        raise DataError(
            tr("only {moving} reports came one after the other; move the mouse in circles all the time").format(
                moving=len(moving)
            )
        )
    median = quantile(moving, 0.5)
    period = sum(moving) / len(moving) if coarse else median
    if period <= 0:
        raise DataError(tr("all reports have the same time, so nothing can be told of their rate"))
    rate = 1_000_000 / period
    nearest = min(STANDARD_HZ, key=lambda each: abs(math.log(rate / each)))
    usual = 1_000_000 / nearest
    # On a coarse clock a report may seem to be late by a whole tick.
    slack = 1_000 if coarse else usual / 2
    missing = sum(round(us / usual) - 1 for us in moving if us > usual + slack)
    top = usual * _PERIODS
    counts = [0] * (_BINS + 1)
    for us in moving:
        counts[min(_BINS, int(us / top * _BINS))] += 1
    spread = quantile(moving, 0.75) - quantile(moving, 0.25)
    return Polling(len(times_us), median, rate, nearest, spread, missing, tuple(counts), top, coarse)
