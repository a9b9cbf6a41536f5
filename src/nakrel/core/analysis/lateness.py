"""How late a run's events went out, against their plan.

The service never loads this module: it needs NumPy.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from nakrel.core.model.runs import RunRecord

__all__ = ["BOUNDS_US", "Lateness", "lateness_of"]

# The histogram's bounds in microseconds: what is later than the last one counts there, too.
BOUNDS_US = (0, 10, 20, 50, 100, 200, 500, 1_000, 2_000, 5_000, 10_000)


class Lateness(NamedTuple):
    """Times in microseconds: the median, what 99 of 100 events keep to, the latest, and the standard deviation; and how
    many events lie between each two of `BOUNDS_US` (the last count: later than all of them)."""

    events: int
    median_us: float
    p99_us: float
    most_us: float
    spread_us: float
    counts: tuple[int, ...]
    bounds_us: tuple[int, ...] = BOUNDS_US


def lateness_of(record: RunRecord) -> Lateness | None:
    """The lateness of a run's events; None for a run without any."""
    if not record.events:
        return None
    late = np.array([event.at_us - event.due_us for event in record.events], dtype=float)
    counts, _ = np.histogram(late, bins=[*BOUNDS_US, np.inf])
    median, p99 = np.percentile(late, [50, 99])
    return Lateness(
        len(late), float(median), float(p99), float(late.max()), float(late.std()), tuple(int(n) for n in counts)
    )
