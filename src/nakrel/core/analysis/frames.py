"""The frame check: what a game that looks at its input once a frame sees of a macro.

The model. The game samples its input at the ends of frames. Frame times are independent and normal, with the mean T
(the frame time) and a standard deviation, the spread; where a macro begins within a frame, nobody knows, so every
moment counts alike (a stationary renewal process). A press that is down over [a, b) is *seen* when a sample falls into
that span and the sample before it found the control up. It is *lost* when no sample falls into it, and *merged* into an
earlier one when the sample before its first one fell into that: the game never found the control up.

With X a frame time and G(y) = E[max(y - X, 0)], for a press of length h = b - a, and an earlier press over [c, d):

    P(some sample in [a, b))                  = (h - G(h)) / T
    P(merged into it)                         = (G(b - c) - G(b - d) - G(a - c) + G(a - d)) / T

The first is the chance that the frame that a stationary process is in at `a` ends before `b`, the second that of a
sample in [c, d) whose next one is in [a, b): samples come at the rate 1 / T, so it is the integral of F(b - t) - F(a -
t) over t in [c, d), divided by T, with F the distribution of X. A normal timing error of each edge widens the
distribution of every difference of two edges alike, so it adds twice its variance to that of X. For a normal X is
G(y) = s (phi(u) + u Phi(u)) with u = (y - T) / s; without spread and error G(y) = max(y - T, 0), which gives the
well-known min(1, h / T) for a press that stands alone. D. R. Cox, Renewal Theory (1962), chapters 4 and 5, has the
stationary renewal process; the rest is worked out here and compared with a simulation in the tests.

A game with a server that ticks looks at itself: the server finds at each tick, at even times D, what the game found at
its last frame. A press that frames have seen is a whole number of them long, and is then sampled once more by the same
formula with D for T and no spread. That holds for given frames, so these are drawn; their phases are spread evenly.

The service never loads this module: it needs NumPy.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from nakrel.core.analysis.presses import Floats, Presses, Whole
from nakrel.core.analysis.seen import Game, Seen
from nakrel.core.model.units import FRAME_RATES

__all__ = [
    "Chances",
    "SameFrame",
    "Worst",
    "chances",
    "check",
    "in_order",
    "over_holds",
    "over_rates",
    "safe_us",
    "same_frame",
    "summary",
    "worst",
]

# How many standard deviations of the timing's error a safe timing leaves room for: then fewer than one press in a
# million is missed.
ROOM = 6
# Standard deviations beyond which a normal distribution is taken to have ended.
_FAR = 8.0
# Draws of the frames of a game with ticks, for an answer and for a point of a curve: as many as keep to so many
# presses, but in these limits.
_TICK_PRESSES = 1_000_000
_MANY, _FEW = (24, 256), (2, 32)


def _beyond(y: Floats, frame_us: float, deviation_us: float) -> Floats:
    """G(y): how far a frame ends before `y` on average, nothing where it ends later."""
    if deviation_us <= 0:
        return np.maximum(y - frame_us, 0.0)
    u = (y - frame_us) / deviation_us
    # Many differences are alike, and NumPy has no error function.
    few, which = np.unique(u, return_inverse=True)
    below = np.array([0.5 * math.erfc(-each / math.sqrt(2)) for each in few.tolist()])[which]
    beyond: Floats = deviation_us * (np.exp(-u * u / 2) / math.sqrt(2 * math.pi) + u * below)
    return beyond


def _one_by_one(spans: Floats, draws: Whole, frame_us: float, deviation_us: float) -> tuple[Floats, Floats]:
    """For each press of one control the chance that it is seen, and that it is merged into one before it."""
    downs, ups = spans[:, 0], spans[:, 1]
    some = _some(ups - downs, frame_us, deviation_us)
    merged = np.zeros(len(spans))
    reach = frame_us + _FAR * deviation_us
    # Presses before it, nearest first, until none is near enough to be the one before.
    for back in range(1, len(spans)):
        a, b, c, d = downs[back:], ups[back:], downs[:-back], ups[:-back]
        near = (a - d < reach) & (draws[back:] == draws[:-back])
        if not near.any():
            break
        a, b, c, d = a[near], b[near], c[near], d[near]
        g = [_beyond(y, frame_us, deviation_us) for y in (b - c, b - d, a - c, a - d)]
        merged[back:][near] += (g[0] - g[1] - g[2] + g[3]) / frame_us
    merged = np.clip(merged, 0.0, some)
    return some - merged, merged


def _some(time_us: Floats, frame_us: float, deviation_us: float) -> Floats:
    """The chance that a sample falls into such a time."""
    some: Floats = np.clip((time_us - _beyond(time_us, frame_us, deviation_us)) / frame_us, 0.0, 1.0)
    return some


class Chances(NamedTuple):
    """For each press, by control as in `Presses`, the chance that it is seen and that it is merged into one before it.
    `totals` has for each draw how many presses there were, were seen, and were merged."""

    seen: dict[str, Floats]
    merged: dict[str, Floats]
    totals: Floats


def chances(presses: Presses, game: Game, limits: tuple[int, int] = _MANY) -> Chances:
    """What becomes of each press; exact but for a game with ticks, whose frames are drawn."""
    draws = presses.draw_count
    if game.tick:
        share = _TICK_PRESSES * limits[1] // _MANY[1]
        wanted = share // max(1, sum(map(len, presses.spans.values())))
        draws *= -(-min(limits[1], max(limits[0], wanted)) // draws)
    totals = np.zeros((draws, 3))
    found = Chances({}, {}, totals)
    for control, spans in presses.spans.items():
        if game.tick:
            seen, merged = _ticked(presses, control, game, draws)
            of = np.arange(draws)[:, None] % presses.draw_count == presses.draws[control][None, :]
            weights = presses.weights[control] * of
            for column, each in enumerate((np.ones_like(seen), seen, merged)):
                totals[:, column] += (each * weights).sum(axis=1)
            times = of.sum(axis=0)
            found.seen[control], found.merged[control] = (seen * of).sum(axis=0) / times, (merged * of).sum(0) / times
            continue
        seen, merged = _one_by_one(spans, presses.draws[control], game.frame_us, game.deviation_us)
        found.seen[control], found.merged[control] = seen, merged
        for column, each in enumerate((np.ones(len(spans)), seen, merged)):
            weighed = each * presses.weights[control]
            totals[:, column] += np.bincount(presses.draws[control], weighed, presses.draw_count)
    return found


def _ticked(presses: Presses, control: str, game: Game, draws: int) -> tuple[Floats, Floats]:
    """For each draw of frames (a line) and each press the chance that it is seen and that it is merged, where a server
    looks at what the game has seen: the frames are drawn, and the ticks, whose phase nobody knows, are worked out."""
    chance = np.random.default_rng(1)
    spans, mine = presses.spans[control], presses.draws[control]
    seen, merged = np.zeros((draws, len(spans))), np.zeros((draws, len(spans)))
    until = float(spans[:, 1].max()) + 20 * game.frame_us
    count = int(until / game.frame_us * 1.1) + 20
    for draw in range(draws):
        # Evenly over a frame, so that few draws stand for all.
        phase = (draw + 0.5) / draws * game.frame_us
        frames = phase + np.cumsum(np.maximum(chance.normal(game.frame_us, game.spread_us, count), 1.0)) - game.frame_us
        which = np.flatnonzero(mine == draw % presses.draw_count)
        edges = spans[which] + chance.normal(0, game.jitter_us, (len(which), 2))
        first, last = np.searchsorted(frames, edges[:, 0]), np.searchsorted(frames, edges[:, 1])
        visible = np.flatnonzero(first < last)
        if not len(visible):
            continue
        first, last, which = first[visible], last[visible], which[visible]
        # What goes down in the frame in which the one before went up was never found up.
        begins = np.flatnonzero(np.concatenate(([True], first[1:] > last[:-1])))
        ends = np.concatenate((begins[1:], [len(first)])) - 1
        groups = np.stack((frames[first[begins]], frames[np.minimum(last[ends], count - 1)]), axis=1)
        its_seen, its_merged = _one_by_one(groups, np.zeros(len(groups), int), 1_000_000 / game.tick, 0.0)
        seen[draw, which[begins]] = its_seen
        group = np.repeat(np.arange(len(begins)), ends - begins + 1)
        merged[draw, which] = (its_seen + its_merged)[group]
        merged[draw, which[begins]] = its_merged
    return seen, merged


def check(presses: Presses, game: Game, limits: tuple[int, int] = _MANY) -> Seen:
    """What such a game sees. Without a press all shares are 0."""
    return summary(presses, game, chances(presses, game, limits))


def summary(presses: Presses, game: Game, found: Chances) -> Seen:
    """What these chances make together."""
    total = found.totals
    count = float(total[:, 0].sum())
    if not count:
        return Seen(game.fps, 0, 0, 0, 0)
    seen_share, merged_share = float(total[:, 1].sum()) / count, float(total[:, 2].sum()) / count
    rate = seen_share * presses.amount / (presses.length_us / 1_000_000) if presses.length_us else 0.0
    lost = max(0.0, 1 - seen_share - merged_share)
    return Seen(game.fps, seen_share, merged_share, lost, rate, _error(total, seen_share))


class Worst(NamedTuple):
    """The press of a control that is seen least: the row of its step, and its chance to be seen."""

    control: str
    row: int
    seen: float


def worst(presses: Presses, found: Chances) -> list[Worst]:
    """The worst press of each control, the worst of all first."""
    made = []
    for control, seen in found.seen.items():
        at = int(seen.argmin())
        made.append(Worst(control, int(presses.rows[control][at]), float(seen[at])))
    return sorted(made, key=lambda each: each.seen)


class SameFrame(NamedTuple):
    """Two controls that are down together, the `first` a little before the other, and the chance that the game finds
    both going down in one frame, so that it can't tell their order. `row` is that of the second's step."""

    first: str
    second: str
    row: int
    chance: float


def same_frame(presses: Presses, game: Game) -> SameFrame | None:
    """The pair with the greatest chance of it; None where no two controls are pressed together."""
    names = list(presses.spans)
    if len(names) < 2:
        return None
    which = np.concatenate([np.full(len(presses.spans[name]), n) for n, name in enumerate(names)])
    spans = np.concatenate([presses.spans[name] for name in names])
    draws, rows, orders = (
        np.concatenate([each[name] for name in names]) for each in (presses.draws, presses.rows, presses.orders)
    )
    # Of those that go down at the same moment, in the order of the steps.
    order = np.lexsort((orders, spans[:, 0], draws))
    which, spans, draws, rows = which[order], spans[order], draws[order], rows[order]
    pairs = (draws[1:] == draws[:-1]) & (which[1:] != which[:-1]) & (spans[:-1, 1] > spans[1:, 0])
    at = np.flatnonzero(pairs)
    if not len(at):
        return None
    chance = 1 - _some(spans[at + 1, 0] - spans[at, 0], game.frame_us, game.deviation_us)
    best = int(chance.argmax())
    first = int(at[best])
    return SameFrame(names[which[first]], names[which[first + 1]], int(rows[first + 1]), float(chance[best]))


def _error(total: Floats, share: float) -> float:
    """The standard error of a ratio over the draws (the usual linear estimate; Cochran, Sampling Techniques, 1977,
    section 6.3), its variance from the differences of neighbours, since draws of frames go evenly over a frame (J. von
    Neumann, Distribution of the ratio of the mean square successive difference, 1941)."""
    count = len(total)
    if count < 2:
        return 0.0
    residuals = total[:, 1] - share * total[:, 0]
    variance = float((np.diff(residuals) ** 2).mean()) / 2
    return float(np.sqrt(variance / count) / total[:, 0].mean())


def in_order(presses: Presses) -> Seen:
    """What a game sees that takes its events in order, however fast they come: all of them. Its rate has no limit."""
    rate = presses.amount / (presses.length_us / 1_000_000) if presses.length_us else 0.0
    return Seen(float("inf"), 1.0 if presses.amount else 0.0, 0.0, 0.0, rate)


def with_hold(presses: Presses, hold_us: float) -> Presses:
    """The same presses, each held for `hold_us`, with the gaps between them as they were."""
    changed = {}
    for control, spans in presses.spans.items():
        gaps = np.diff(spans.ravel())[1::2]
        downs = spans[0, 0] + np.concatenate(([0.0], np.cumsum(gaps + hold_us)))
        changed[control] = np.stack((downs, downs + hold_us), axis=1)
    return presses._replace(spans=changed)


def over_holds(presses: Presses, game: Game, holds_us: Sequence[float]) -> list[Seen]:
    """What the game sees of the macro with all its holds set to each of these."""
    return [check(with_hold(presses, hold_us), game, _FEW) for hold_us in holds_us]


def safe_us(game: Game) -> int:
    """The shortest hold, and the shortest gap, that such a game hardly ever misses: a frame, and room for its spread
    and for the error of both edges; with ticks, one of them more, since what the game has seen of a press may be
    shorter than the press by a frame. In microseconds, rounded up."""
    tick_us = 1_000_000 / game.tick if game.tick else 0.0
    return int(np.ceil(tick_us + game.frame_us + ROOM * game.deviation_us))


def over_rates(presses: Presses, game: Game, rates: Sequence[float] = FRAME_RATES) -> list[Seen]:
    """What games of all these frame rates see."""
    return [check(presses, game._replace(fps=fps), _FEW) for fps in rates]
