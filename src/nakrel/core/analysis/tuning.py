"""The shortest time that works in a game, found by trying: a Bayesian adaptive method.

The model. A time of x works with the chance

    p(x) = (1 - lapse) F((x - threshold) / width),    F(z) = 1 / (1 + exp(-1.702 z)),

a psychometric function that rises with x. F is the logistic function, stretched so that its width is about the
standard deviation of a normal one (the constant 1.702 of item response theory; G. Camilli, 1994). A lapse is a trial
that fails for another reason. What is known is a distribution over thresholds, widths and lapses on a grid, all equally
likely at first. Each trial multiplies it by the chance of what came out (QUEST: A. B. Watson, D. G. Pelli, 1983; with
the width unknown as well, the psi method: L. L. Kontsevich, C. W. Tyler, 1999). Between two trials the threshold may
have moved a little: its distribution is smoothed by `_DRIFT`.

The wanted point is the time at which F is the wanted share, such as 0.95. The next time to try is the one after whose
trial the variance of that point is least on average. (The psi method takes the entropy of all parameters instead; here
the others don't matter.) What is suggested is the upper end of the interval that holds the wanted point with 90 %.

This module needs NumPy: the service never loads it.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from nakrel.core.analysis.trials import Found
from nakrel.core.model.tuning import Question, Trial

__all__ = ["work_out"]

Floats = NDArray[np.float64]

# Everything is worked out in units: a range of 195 of them, like that from 5 to 200 ms.
_UNITS = 195.0
_THRESHOLDS = np.arange(-10.0, _UNITS + 0.01, 0.5)
_WIDTHS = np.array([0.1, 0.35, 0.7, 1.4, 2.5, 4.0, 6.5, 10.0, 16.0])
_LAPSES = np.array([0.0, 0.02, 0.05])
_TRIED = np.arange(0.0, _UNITS + 0.01, 1.0)
# The standard deviation of what a threshold moves from trial to trial.
_DRIFT = 0.25
_STRETCH = 1.702
# Nobody wants a time with more figures than a tenth of a millisecond has.
_STEP_US = 100
# No result is impossible: a finger slips.
_LEAST_CHANCE = 1e-4
# Points of the fitted curve that is drawn.
_POINTS = 49


class _Grid(NamedTuple):
    """All that may be true: for each a threshold and a width, and the chance that each time to try works with it."""

    thresholds: Floats
    widths: Floats
    lapses: Floats
    works: NDArray[np.float32]


def _rises(z: Floats) -> Floats:
    rising: Floats = 1 / (1 + np.exp(-np.clip(_STRETCH * z, -60, 60)))
    return rising


@lru_cache(maxsize=1)
def _grid() -> _Grid:
    parts = np.meshgrid(_THRESHOLDS, _WIDTHS, _LAPSES, indexing="ij")
    thresholds, widths, lapses = (each.ravel() for each in parts)
    works = (1 - lapses) * _rises((_TRIED[:, None] - thresholds) / widths)
    return _Grid(thresholds, widths, lapses, np.clip(works, _LEAST_CHANCE, 1 - _LEAST_CHANCE).astype(np.float32))


def _known(trials: Sequence[tuple[float, bool]]) -> Floats:
    """What is known after trials at these times (in units)."""
    grid = _grid()
    known = np.full(len(grid.thresholds), 1 / len(grid.thresholds))
    moves = (_DRIFT / (_THRESHOLDS[1] - _THRESHOLDS[0])) ** 2 / 2
    for at, worked in trials:
        chance = (1 - grid.lapses) * _rises((at - grid.thresholds) / grid.widths)
        chance = np.clip(chance, _LEAST_CHANCE, 1 - _LEAST_CHANCE)
        known = known * (chance if worked else 1 - chance)
        by_threshold = known.reshape(len(_THRESHOLDS), -1)
        flow = moves * np.diff(by_threshold, axis=0)
        by_threshold[:-1] += flow
        by_threshold[1:] -= flow
        known = by_threshold.ravel() / by_threshold.sum()
    return known


def _next(known: Floats, wanted: Floats) -> float:
    """The time to try for which the wanted point's variance is expected to be least."""
    works = _grid().works
    moments = np.stack((known, known * wanted, known * wanted**2), axis=1)
    if_works = (works @ moments.astype(np.float32)).astype(float)
    if_not = moments.sum(axis=0) - if_works
    variance = np.zeros(len(_TRIED))
    for mass, mean, square in (if_works.T, if_not.T):
        variance += square - mean**2 / np.maximum(mass, 1e-12)
    return float(_TRIED[int(variance.argmin())])


def _quantiles(known: Floats, values: Floats, shares: Sequence[float]) -> list[float]:
    order = np.argsort(values)
    below = np.cumsum(known[order])
    return [float(each) for each in np.interp(shares, below, values[order])]


def work_out(question: Question, trials: Sequence[Trial]) -> Found:
    """What the trials tell of the question, and what to try next."""
    grid = _grid()
    unit_us = (question.most_us - question.least_us) / _UNITS
    known = _known([((each.time_us - question.least_us) / unit_us, each.worked) for each in trials])
    # Nothing shorter is asked for.
    reach = math.log(question.sure / (1 - question.sure)) / _STRETCH
    wanted = np.maximum(grid.thresholds + grid.widths * reach, 0.0)

    def us(units: float) -> int:
        return round(question.least_us + units * unit_us)

    low, high = _quantiles(known, wanted, (0.05, 0.95))
    return Found(
        next_us=max(question.least_us, us(_next(known, wanted)) // _STEP_US * _STEP_US),
        estimate_us=us(float(known @ wanted)),
        low_us=us(low) // _STEP_US * _STEP_US,
        high_us=min(-(-us(high) // _STEP_US) * _STEP_US, question.most_us),
        reached=high <= _UNITS,
        curve=_curve(known, us),
    )


def _curve(known: Floats, us: object) -> tuple[tuple[int, float, float, float], ...]:
    """For times over the range, the chance to work and its band: time in microseconds, mean, 5 % and 95 %."""
    assert callable(us)
    grid = _grid()
    # What is hardly possible isn't drawn, and takes most of the time.
    likely = np.flatnonzero(known > known.max() * 1e-4)
    weights = known[likely] / known[likely].sum()
    points = []
    for at in np.linspace(0, _UNITS, _POINTS):
        chance = (1 - grid.lapses[likely]) * _rises((at - grid.thresholds[likely]) / grid.widths[likely])
        low, high = _quantiles(weights, chance, (0.05, 0.95))
        points.append((us(float(at)), float(weights @ chance), low, high))
    return tuple(points)
