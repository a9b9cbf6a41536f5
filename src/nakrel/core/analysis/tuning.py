"""The shortest time that works in a game, found by trying: a Bayesian adaptive method.

The model. A time of x works with the chance

    p(x) = (1 - lapse) F((x - threshold) / width),    F(z) = 1 / (1 + exp(-1.702 z)),

a psychometric function that rises with x. F is the logistic function, stretched so that its width is about the
standard deviation of a normal one (the constant 1.702 of item response theory; G. Camilli, 1994). A lapse is a trial
that fails for another reason. What is known is a distribution over thresholds, widths and lapses on a grid. Each trial
multiplies it by the chance of what came out (QUEST: A. B. Watson, D. G. Pelli, 1983; with the width unknown as well,
the psi method: L. L. Kontsevich, C. W. Tyler, 1999). The threshold may stand still, or move steadily while it is looked
for: either way by some 5 ms over 40 trials; which it does is told by the trials as well.

The wanted point is the time at which F is the wanted share, such as 0.95. The next time to try is the one after whose
trial the variance of that point is least on average. (The psi method takes the entropy of all parameters instead; here
the others don't matter.) What is suggested is the upper end of the interval that holds the wanted point with 90 %.

This module needs NumPy: the service never loads it.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from functools import lru_cache
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from nakrel.core.analysis.trials import Found
from nakrel.core.model.tuning import Question, Trial

__all__ = [
    "DRIFTS",
    "THRESHOLDS",
    "Grid",
    "best_next",
    "game_grid",
    "interval",
    "known_after",
    "make_grid",
    "move",
    "wanted_points",
    "work_out",
]

Floats = NDArray[np.float64]

# Everything is worked out in units: a range of 195 of them, like that from 5 to 200 ms.
_UNITS = 195.0
_CELL = 0.5
THRESHOLDS = np.arange(-10.0, _UNITS + 0.01, _CELL)
_WIDTHS = (0.02, 0.35, 0.7, 1.4, 2.5, 4.0, 6.5, 10.0, 16.0)
# How likely they are before the first trial: games that hardly mind the time are rare.
_WIDTH_ODDS = (0.5, 1.0, 1.0, 1.0, 1.0, 1.0, 0.6, 0.3, 0.15)
_LAPSES = (0.0, 0.02, 0.05)
# Between two thresholds of the grid, so that each trial tells them apart.
_TRIED = np.arange(_CELL / 2, _UNITS, _CELL)
# A threshold that moves goes by one cell each so many trials, up or down; and how likely that is.
DRIFTS = ((0, 0.75), (4, 0.125), (-4, 0.125))
# The ends of the interval by how sure the time must be, set so that it holds about nine of ten simulated games and its
# upper end works in 95 of 100 (docs/figures.md): the model is not quite the games, the less so the further out.
_ENDS = {0.9: (0.058, 0.935), 0.95: (0.075, 0.938), 0.99: (0.088, 0.926)}
# Those of the curve's band.
_LOW, _HIGH = 0.05, 0.95
_STRETCH = 1.702
# Nobody wants a time with more figures than a tenth of a millisecond has.
_STEP_US = 100
# No result is impossible: a finger slips.
_LEAST_CHANCE = 1e-4
# A share of the likeliest that a float of 32 bits doesn't tell from nothing.
_NOTHING = 1e-9
# Points of the fitted curve that is drawn.
_POINTS = 49
# Parts of a cell by which the quantiles of the wanted point are found.
_PARTS = 10


class Grid(NamedTuple):
    """All that may be true, for each point a threshold, a width and a lapse, and how likely it is before the first
    trial; the times to try; and the chance that each of these works at each point. Thresholds come one after the
    other, `cell` apart, each with all widths and lapses. `guess` is the chance to work by luck alone."""

    thresholds: Floats
    widths: Floats
    lapses: Floats
    odds: Floats
    guess: float
    cell: float
    tried: Floats
    works: NDArray[np.float32]

    def chance(self, at: float, points: NDArray[np.intp] | slice = slice(None)) -> Floats:
        """The chance that a time works, for each point."""
        rising = _rises((at - self.thresholds[points]) / self.widths[points])
        return self.guess + (1 - self.guess - self.lapses[points]) * rising


def make_grid(
    thresholds: Floats,
    widths: Sequence[float],
    lapses: Sequence[float],
    tried: Floats,
    odds: Sequence[float],
    guess: float = 0.0,
) -> Grid:
    """All combinations of these; `odds` are those of the widths."""
    parts = np.meshgrid(thresholds, np.array(widths), np.array(lapses), indexing="ij")
    flat = [each.ravel() for each in parts]
    weights = np.broadcast_to(np.array(odds)[None, :, None], parts[0].shape).ravel()
    cell = float(thresholds[1] - thresholds[0])
    grid = Grid(flat[0], flat[1], flat[2], weights / weights.sum(), guess, cell, tried, np.empty(0, np.float32))
    works = np.array([np.clip(grid.chance(at), _LEAST_CHANCE, 1 - _LEAST_CHANCE) for at in tried], np.float32)
    return grid._replace(works=works)


def _rises(z: Floats) -> Floats:
    rising: Floats = 1 / (1 + np.exp(-np.clip(_STRETCH * z, -60, 60)))
    return rising


@lru_cache(maxsize=1)
def game_grid() -> Grid:
    """What may be true of a game, in units."""
    return make_grid(THRESHOLDS, _WIDTHS, _LAPSES, _TRIED, _WIDTH_ODDS)


def known_after(
    grid: Grid, trials: Sequence[tuple[float, bool]], drifts: Sequence[tuple[int, float]] = DRIFTS
) -> Floats:
    """What is known after trials at these times (in units), of the threshold as it is then."""
    known = np.array([share * grid.odds for _, share in drifts])
    count = round((grid.thresholds[-1] - grid.thresholds[0]) / grid.cell) + 1
    # A search comes back to the same few times.
    chances = {at: np.clip(grid.chance(at), _LEAST_CHANCE, 1 - _LEAST_CHANCE) for at in {at for at, _ in trials}}
    for number, (at, worked) in enumerate(trials, 1):
        chance = chances[at]
        known *= chance if worked else 1 - chance
        for way, (every, _) in enumerate(drifts):
            if every and number % abs(every) == 0:
                move(known[way].reshape(count, -1), up=every > 0)
        known /= known.sum()
    after: Floats = known.sum(axis=0)
    return after


def move(by_threshold: NDArray[np.floating], *, up: bool) -> None:
    """All thresholds become one cell larger or smaller; none leaves the grid."""
    ordered = by_threshold if up else by_threshold[::-1]
    last = ordered[-1].copy()
    ordered[1:] = ordered[:-1].copy()
    ordered[0] = 0
    ordered[-1] += last


def best_next(grid: Grid, known: Floats, wanted: Floats) -> float:
    """The time to try for which the wanted point's variance is expected to be least."""
    moments = np.stack((known, known * wanted, known * wanted**2), axis=1)
    # What is this unlikely is less than the rounding of these products, and soon nearly all of it.
    likely = np.flatnonzero(known > known.max() * _NOTHING)
    used = likely if 2 * len(likely) < len(known) else slice(None)
    if_works = (grid.works[:, used] @ moments[used].astype(np.float32)).astype(float)
    if_not = moments.sum(axis=0) - if_works
    variance = np.zeros(len(grid.tried))
    for mass, mean, square in (if_works.T, if_not.T):
        variance += square - mean**2 / np.maximum(mass, 1e-12)
    return float(grid.tried[int(variance.argmin())])


def wanted_points(grid: Grid, sure: float) -> Floats:
    """For each point of the grid, the time that works with this chance but for lapses; no shorter one than 0 is asked
    for."""
    points: Floats = np.maximum(grid.thresholds + grid.widths * math.log(sure / (1 - sure)) / _STRETCH, 0.0)
    return points


def interval(grid: Grid, known: Floats, wanted: Floats, sure: float) -> tuple[float, float]:
    """The ends of the interval that holds the wanted point in nine of ten games. Each point of the grid stands for all
    of its cell."""
    ends_at = _ENDS[min(_ENDS, key=lambda each: abs(each - sure))]
    part = grid.cell / _PARTS
    least = wanted.min() - 2 * grid.cell
    places = np.round((wanted - least) / part).astype(np.intp)
    shares = np.bincount(places, weights=known, minlength=int(places.max()) + 2 * _PARTS)
    below = np.cumsum(np.convolve(shares, np.full(_PARTS + 1, 1 / (_PARTS + 1)), mode="same"))
    ends = least + (np.arange(len(below)) + 0.5) * part
    low, high = np.interp(ends_at, below / below[-1], ends)
    return float(low), float(high)


def _quantiles(known: Floats, values: Floats, shares: Sequence[float]) -> list[float]:
    order = np.argsort(values)
    below = np.cumsum(known[order])
    return [float(each) for each in np.interp(shares, below, values[order])]


def work_out(question: Question, trials: Sequence[Trial]) -> Found:
    """What the trials tell of the question, and what to try next."""
    grid = game_grid()
    unit_us = (question.most_us - question.least_us) / _UNITS
    known = known_after(grid, [((each.time_us - question.least_us) / unit_us, each.worked) for each in trials])
    wanted = wanted_points(grid, question.sure)

    def us(units: float) -> int:
        return round(question.least_us + units * unit_us)

    low, high = interval(grid, known, wanted, question.sure)
    return Found(
        next_us=max(question.least_us, us(best_next(grid, known, wanted)) // _STEP_US * _STEP_US),
        estimate_us=us(float(known @ wanted)),
        low_us=max(question.least_us, us(low) // _STEP_US * _STEP_US),
        high_us=min(-(-us(high) // _STEP_US) * _STEP_US, question.most_us),
        reached=high <= _UNITS,
        curve=_curve(grid, known, us),
    )


def _curve(grid: Grid, known: Floats, us: Callable[[float], int]) -> tuple[tuple[int, float, float, float], ...]:
    """For times over the range, the chance to work and its band: time in microseconds, mean, 5 % and 95 %."""
    # What is hardly possible isn't drawn, and takes most of the time.
    likely = np.flatnonzero(known > known.max() * 1e-4)
    weights = known[likely] / known[likely].sum()
    points = []
    for at in np.linspace(0, _UNITS, _POINTS):
        chance = grid.chance(float(at), likely)
        low, high = _quantiles(weights, chance, (_LOW, _HIGH))
        points.append((us(float(at)), float(weights @ chance), low, high))
    return tuple(points)
