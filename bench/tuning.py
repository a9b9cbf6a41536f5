"""How well the search for the shortest time does: simulated games of five shapes, many at once, by the same grid and
the same rules as `core/analysis/tuning.py`, which takes one game at a time."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from statistics import NormalDist
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from nakrel.core.analysis import tuning

__all__ = ["LIMITS_MS", "Outcome", "outcomes"]

Floats = NDArray[np.float64]
TRIALS = 40
# What the median error is to be at most, by the wanted share.
LIMITS_MS = {0.9: 1.2, 0.95: 1.4, 0.99: 2.4}


class Outcome(NamedTuple):
    """Of games of one shape: the median error of the estimate and of the interval's width in milliseconds, how often
    the interval held the truth, and how often what was suggested works at least a point less than wanted."""

    shape: str
    sure: float
    error_ms: float
    held: float
    works: float
    width_ms: float


class _Games(NamedTuple):
    thresholds: Floats
    widths: Floats
    # Which way the threshold goes where it drifts.
    ways: Floats

    @property
    def scales(self) -> Floats:
        """Of logistic functions whose standard deviation is the width."""
        return self.widths * math.sqrt(3) / math.pi


def _logistic(games: _Games, x: Floats, trial: int) -> Floats:
    rising: Floats = 1 / (1 + np.exp(-(x - games.thresholds) / games.scales))
    return rising


def _step(games: _Games, x: Floats, trial: int) -> Floats:
    return (x >= games.thresholds).astype(float)


_below = np.vectorize(NormalDist().cdf)


def _normal(games: _Games, x: Floats, trial: int) -> Floats:
    below: Floats = _below((x - games.thresholds) / games.widths)
    return below


def _lapses(games: _Games, x: Floats, trial: int) -> Floats:
    return 0.97 * _logistic(games, x, trial)


def _drift(games: _Games, x: Floats, trial: int) -> Floats:
    """It ends at the threshold, and began 5 ms from there."""
    return _logistic(games, x + games.ways * 5 * (1 - trial / (TRIALS - 1)), trial)


SHAPES: dict[str, Callable[[_Games, Floats, int], Floats]] = {
    "logistic": _logistic,
    "step": _step,
    "normal": _normal,
    "lapses": _lapses,
    "drift": _drift,
}


def _truth(shape: str, games: _Games, sure: float) -> Floats:
    if shape == "step":
        return games.thresholds
    if shape == "normal":
        return games.thresholds + games.widths * NormalDist().inv_cdf(sure)
    return games.thresholds + games.scales * math.log(sure / (1 - sure))


def _searched(shape: str, games: _Games, sure: float, chance: np.random.Generator) -> Outcome:
    grid = tuning._grid()
    count = len(games.thresholds)
    reach = math.log(sure / (1 - sure)) / tuning._STRETCH
    wanted = np.maximum(grid.thresholds + grid.widths * reach, 0.0)
    moments = np.stack((np.ones_like(wanted), wanted, wanted**2)).astype(np.float32)
    moves = np.float32((tuning._DRIFT / (tuning._THRESHOLDS[1] - tuning._THRESHOLDS[0])) ** 2 / 2)
    known = np.full((count, len(wanted)), 1 / len(wanted), dtype=np.float32)
    for trial in range(TRIALS):
        variance = np.zeros((count, len(tuning._TRIED)))
        weighed = [known * each for each in moments]
        if_works = [(each @ grid.works.T).astype(float) for each in weighed]
        totals = [each.sum(axis=1, dtype=float)[:, None] for each in weighed]
        if_not = [total - each for total, each in zip(totals, if_works, strict=True)]
        for mass, mean, square in (if_works, if_not):
            variance += square - mean**2 / np.maximum(mass, 1e-12)
        tried = variance.argmin(axis=1)
        # The window's range begins at 5 ms.
        times = tuning._TRIED[tried] + 5
        worked = chance.random(count) < SHAPES[shape](games, times, trial)
        works = grid.works[tried]
        known *= np.where(worked[:, None], works, 1 - works)
        by_threshold = known.reshape(count, len(tuning._THRESHOLDS), -1)
        flow = moves * np.diff(by_threshold, axis=1)
        by_threshold[:, :-1] += flow
        by_threshold[:, 1:] -= flow
        known /= known.sum(axis=1, keepdims=True)
    order = np.argsort(wanted)
    below = np.cumsum(known[:, order], axis=1, dtype=float)
    low, high = (np.array([np.interp(share, each, wanted[order]) for each in below]) + 5 for share in (0.05, 0.95))
    estimate = known.astype(float) @ wanted + 5
    truth = _truth(shape, games, sure)
    reached = "logistic" if shape in ("lapses", "drift") else shape
    works_enough = SHAPES[reached](games, high, TRIALS - 1) >= sure - 0.01 - 1e-9
    return Outcome(
        shape,
        sure,
        float(np.median(np.abs(estimate - truth))),
        float(((low <= truth) & (truth <= high)).mean()),
        float(works_enough.mean()),
        float(np.median(high - low)),
    )


def outcomes(count: int, seed: int = 1) -> Iterator[Outcome]:
    """`count` games of each shape, for each wanted share."""
    for sure in (0.9, 0.95, 0.99):
        for shape in SHAPES:
            chance = np.random.default_rng([seed, round(sure * 100), list(SHAPES).index(shape)])
            games = _Games(
                chance.uniform(20, 150, count), chance.uniform(1, 4, count), chance.choice([-1.0, 1.0], count)
            )
            yield _searched(shape, games, sure, chance)
