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
    grid = tuning.game_grid()
    count = len(games.thresholds)
    wanted = tuning.wanted_points(grid, sure)
    moments = np.stack((np.ones_like(wanted), wanted, wanted**2)).astype(np.float32)
    shares = np.array([share for _, share in tuning.DRIFTS])
    # For each game, each way to move and each point of the grid.
    known = np.tile(shares[:, None] * grid.odds, (count, 1, 1)).astype(np.float32)
    for trial in range(TRIALS):
        tried = _tried(grid, known.sum(axis=1), moments)
        # The window's range begins at 5 ms.
        worked = chance.random(count) < SHAPES[shape](games, grid.tried[tried] + 5, trial)
        works = grid.works[tried]
        known *= np.where(worked[:, None], works, 1 - works)[:, None]
        for way, (every, _) in enumerate(tuning.DRIFTS):
            if every and trial < TRIALS - 1 and (trial + 1) % abs(every) == 0:
                ways = known[:, way].reshape(count, len(tuning.THRESHOLDS), -1)
                for game in ways:
                    tuning.move(game, up=every > 0)
                known[:, way] = ways.reshape(count, -1)
        known /= known.sum(axis=(1, 2), keepdims=True)
    after = known.sum(axis=1).astype(float)
    # Told to a tenth of a millisecond, outward, as the window tells it.
    found = np.array([tuning.interval(grid, each, wanted, sure) for each in after]) + 5
    low, high = np.floor(found[:, 0] * 10) / 10, np.ceil(found[:, 1] * 10) / 10
    estimate = after @ wanted + 5
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


def _tried(grid: tuning.Grid, known: NDArray[np.float32], moments: NDArray[np.float32]) -> NDArray[np.intp]:
    """For each game the number of the time to try: that of `best_next` for one."""
    weighed = [known * each for each in moments]
    if_works = [(each @ grid.works.T).astype(float) for each in weighed]
    totals = [each.sum(axis=1, dtype=float)[:, None] for each in weighed]
    if_not = [total - each for total, each in zip(totals, if_works, strict=True)]
    variance = np.zeros((len(known), len(grid.tried)))
    for mass, mean, square in (if_works, if_not):
        variance += square - mean**2 / np.maximum(mass, 1e-12)
    best: NDArray[np.intp] = variance.argmin(axis=1)
    return best


def outcomes(count: int, seed: int = 1) -> Iterator[Outcome]:
    """`count` games of each shape, for each wanted share."""
    for sure in (0.9, 0.95, 0.99):
        for shape in SHAPES:
            chance = np.random.default_rng([seed, round(sure * 100), list(SHAPES).index(shape)])
            games = _Games(
                chance.uniform(20, 150, count), chance.uniform(1, 4, count), chance.choice([-1.0, 1.0], count)
            )
            yield _searched(shape, games, sure, chance)
