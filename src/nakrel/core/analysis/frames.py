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

The service never loads this module: it needs NumPy.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from nakrel.core.analysis.seen import Seen
from nakrel.core.model.macro import Macro, Mode
from nakrel.core.model.macro import cycle_us as cycle_us_of
from nakrel.core.model.steps import PickOne, Wait, formulas_of, walk
from nakrel.core.model.units import FRAME_RATES
from nakrel.core.play.player import MIN_CYCLE_US
from nakrel.core.play.simulate import PlanRow, planned

__all__ = [
    "Presses",
    "check",
    "in_order",
    "over_holds",
    "over_rates",
    "presses_of",
    "safe_us",
]

# How many standard deviations of the timing's error a safe timing leaves room for: then fewer than one press in a
# million is missed.
ROOM = 6
# Events that are played for a check, some two seconds' work; twice that is four runs of 10,000 taps.
MOST_EVENTS = 45_000
# Runs of a macro without an end that stand for all of them.
ENDLESS_RUNS = 1_000
# What lies further back than this is merged with nothing: a frame at 10 a second with the widest spread and error.
REACH_US = 1_000_000
# Plays of a macro with chance in it.
DRAWS = 20
# Standard deviations beyond which a normal distribution is taken to have ended.
_FAR = 8.0

Floats = NDArray[np.float64]
Whole = NDArray[np.int64]


class Presses(NamedTuple):
    """The presses of a macro by control. `spans` has a row (down, up) in microseconds for each that was examined,
    `weights` how many presses it stands for, `draws` in which play of the macro it came. `length_us` is how long all
    runs take, `draw_count` how often the macro was played (1 where nothing is left to chance), and `left_out` how many
    runs weren't examined."""

    spans: dict[str, Floats]
    weights: dict[str, Floats]
    draws: dict[str, Whole]
    length_us: float
    draw_count: int = 1
    left_out: int = 0

    @property
    def amount(self) -> float:
        """All presses, per play."""
        return float(sum(each.sum() for each in self.weights.values())) / self.draw_count


# From a macro to its presses


def presses_of(macro: Macro, most: int = MOST_EVENTS) -> Presses:
    """When each control of the macro is down. All runs are examined; a macro without an end counts as
    `ENDLESS_RUNS`. Where all runs after the first are alike, a few of them stand for the rest. Where chance decides,
    the macro is played `DRAWS` times. When `most` events have been played, the later runs are left out. Raises
    `DataError` where the macro can't be played."""
    wanted = _runs_of(macro)
    steps = [*walk(macro.lead_in), *walk(macro.loop), *walk(macro.lead_out)]
    chance = any(_has_chance(step) for step in steps)
    changes = chance or any(formulas_of(step) for step in steps)
    timed = macro.play.mode is Mode.TOGGLE and macro.play.limit_us is not None
    if not changes and not timed and (few := _alike(macro, wanted, most)):
        return few
    draw_count = DRAWS if chance else 1
    spans: dict[str, list[Floats]] = {}
    draws: dict[str, list[Whole]] = {}
    length_us, left_out = 0.0, 0
    for draw in range(draw_count):
        made = planned(macro, macro.play, wanted, draw, most=most // draw_count)
        left_out = max(left_out, wanted - made.runs if len(made.rows) >= most // draw_count else 0)
        for control, found in _spans(made.rows).items():
            spans.setdefault(control, []).append(found)
            draws.setdefault(control, []).append(np.full(len(found), draw))
        pause_us = macro.play.pause_us if made.runs > 1 else 0
        length_us += (made.end_us + pause_us) / draw_count
    return Presses(
        {control: np.concatenate(found) for control, found in spans.items()},
        {control: np.ones(sum(map(len, found))) for control, found in spans.items()},
        {control: np.concatenate(found) for control, found in draws.items()},
        length_us,
        draw_count,
        left_out,
    )


def _runs_of(macro: Macro) -> int:
    play = macro.play
    return {Mode.SINGLE: 1, Mode.COUNTED: play.runs, Mode.TOGGLE: play.limit_runs or ENDLESS_RUNS}.get(
        play.mode, ENDLESS_RUNS
    )


def _has_chance(step: object) -> bool:
    if isinstance(step, PickOne) or (isinstance(step, Wait) and step.most_us is not None):
        return True
    return any("random" in text for text in formulas_of(step))  # type: ignore[arg-type]


def _spans(rows: Sequence[PlanRow]) -> dict[str, Floats]:
    down: dict[str, int] = {}
    spans: dict[str, list[tuple[int, int]]] = {}
    for at, control, value, text in rows:
        if text or control.startswith("WHEEL"):
            continue
        if value:
            down.setdefault(control, at)
        elif control in down:
            spans.setdefault(control, []).append((down.pop(control), at))
    return {control: np.array(found, dtype=float) for control, found in spans.items()}


def _alike(macro: Macro, wanted: int, most: int) -> Presses | None:
    """Play as many runs as it takes until one has the same before and after it as all later ones but the last, and let
    it stand for those; None where all that are wanted are no more."""
    cycle_us = max(cycle_us_of(macro, macro.play), MIN_CYCLE_US)
    while True:
        # One more than reach back that far: what the first run leaves down isn't pressed again.
        warm = REACH_US // cycle_us + 2
        runs = warm + 2
        if runs >= wanted:
            return None
        # One play of this is all there is, so it may be twice as long.
        made = planned(macro, macro.play, runs, most=2 * most)
        spans = _spans(made.rows)
        weights = {control: np.ones(len(found)) for control, found in spans.items()}
        if made.runs < runs:
            return Presses(spans, weights, _no_draws(spans), float(made.end_us), 1, wanted - made.runs)
        since, until = made.run_ends[warm - 1], made.run_ends[warm]
        # How long a text takes is known only now.
        if (warm - 1) * (until - since) > REACH_US:
            break
        cycle_us = until - since
    for control, found in spans.items():
        weights[control][(found[:, 0] >= since) & (found[:, 0] < until)] = 1 + wanted - runs
    length_us = made.end_us + (wanted - runs) * (until - since) + macro.play.pause_us
    return Presses(spans, weights, _no_draws(spans), float(length_us))


def _no_draws(spans: dict[str, Floats]) -> dict[str, Whole]:
    return {control: np.zeros(len(found), dtype=int) for control, found in spans.items()}


# What a game sees of them


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


def _chances(spans: Floats, draws: Whole, frame_us: float, deviation_us: float) -> tuple[Floats, Floats]:
    """For each press of one control the chance that it is seen, and that it is merged into one before it."""
    downs, ups = spans[:, 0], spans[:, 1]
    hold = ups - downs
    some = np.clip((hold - _beyond(hold, frame_us, deviation_us)) / frame_us, 0.0, 1.0)
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


def check(presses: Presses, fps: float, jitter_us: float = 0.0, spread_us: float = 0.0) -> Seen:
    """What a game at `fps` frames a second sees, its frame times `spread_us` apart (one standard deviation), with a
    normal timing error of `jitter_us` on each edge. Without a press all shares are 0."""
    frame_us = 1_000_000 / fps
    deviation_us = float(np.hypot(spread_us, np.sqrt(2) * jitter_us))
    total = np.zeros((presses.draw_count, 3))
    for control, spans in presses.spans.items():
        seen, merged = _chances(spans, presses.draws[control], frame_us, deviation_us)
        for column, each in enumerate((np.ones(len(spans)), seen, merged)):
            weighed = each * presses.weights[control]
            total[:, column] += np.bincount(presses.draws[control], weighed, presses.draw_count)
    count = float(total[:, 0].sum())
    if not count:
        return Seen(fps, 0, 0, 0, 0)
    seen_share, merged_share = float(total[:, 1].sum()) / count, float(total[:, 2].sum()) / count
    rate = seen_share * presses.amount / (presses.length_us / 1_000_000) if presses.length_us else 0.0
    lost = max(0.0, 1 - seen_share - merged_share)
    return Seen(fps, seen_share, merged_share, lost, rate, _error(total, seen_share))


def _error(total: Floats, share: float) -> float:
    """The standard error of a ratio over the draws (the usual linear estimate; Cochran, Sampling Techniques, 1977,
    section 6.3)."""
    count = len(total)
    if count < 2:
        return 0.0
    residuals = total[:, 1] - share * total[:, 0]
    return float(np.sqrt(residuals.var(ddof=1) / count) / total[:, 0].mean())


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


def over_holds(
    presses: Presses, fps: float, holds_us: Sequence[float], jitter_us: float = 0.0, spread_us: float = 0.0
) -> list[Seen]:
    """What a game at `fps` sees of the macro with all its holds set to each of these."""
    return [check(with_hold(presses, hold_us), fps, jitter_us, spread_us) for hold_us in holds_us]


def safe_us(fps: float, jitter_us: float = 0.0, spread_us: float = 0.0) -> int:
    """The shortest hold, and the shortest gap, that such a game hardly ever misses: a frame, and room for its spread
    and for the error of both edges. In microseconds, rounded up."""
    return int(np.ceil(1_000_000 / fps + ROOM * np.hypot(spread_us, np.sqrt(2) * jitter_us)))


def over_rates(
    presses: Presses, jitter_us: float = 0.0, spread_us: float = 0.0, rates: Sequence[float] = FRAME_RATES
) -> list[Seen]:
    """What games of all these frame rates see."""
    return [check(presses, fps, jitter_us, spread_us) for fps in rates]
