"""When the controls of a macro are down, over all its runs.

The service never loads this module: it needs NumPy.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from nakrel.core.edit.rows import rows
from nakrel.core.model.macro import Macro, Mode
from nakrel.core.model.macro import cycle_us as cycle_us_of
from nakrel.core.model.steps import Chord, Option, Otherwise, PickOne, Press, Tap, Wait, formulas_of, walk
from nakrel.core.play.operations import Op, OpCode, Plan
from nakrel.core.play.player import MIN_CYCLE_US
from nakrel.core.play.simulate import Planned, Trace, planned

__all__ = ["Floats", "Presses", "Whole", "presses_of"]

# Events that are played for a check, some two seconds' work; twice that is four runs of 10,000 taps.
MOST_EVENTS = 45_000
# Runs of a macro without an end that stand for all of them.
ENDLESS_RUNS = 1_000
# What lies further back than this is merged with nothing: a frame at 10 a second with the widest spread and error.
REACH_US = 1_000_000
# Plays of a macro with chance in it.
DRAWS = 20

Floats = NDArray[np.float64]
Whole = NDArray[np.int64]


class Presses(NamedTuple):
    """The presses of a macro by control.

    `spans` has a line (down, up) in microseconds for each that was examined, `weights` how many presses it stands for
    (each key of a combination is a part of one), `draws` in which play of the macro it came, `rows` the row of the step
    that it comes from, `orders` where that stands among all that are pressed. `length_us` is how long all runs take,
    `draw_count` how often the macro was played (1 where nothing is left to chance), and `left_out` how many runs
    weren't examined.
    """

    spans: dict[str, Floats]
    weights: dict[str, Floats]
    draws: dict[str, Whole]
    rows: dict[str, Whole]
    orders: dict[str, Whole]
    length_us: float
    draw_count: int = 1
    left_out: int = 0

    @property
    def amount(self) -> float:
        """All presses, per play."""
        return float(sum(each.sum() for each in self.weights.values())) / self.draw_count


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
    found = _Found(macro)
    length_us, left_out = 0.0, 0
    for draw in range(draw_count):
        made = found.play(wanted, draw, most // draw_count)
        left_out = max(left_out, wanted - made.runs if len(made.rows) >= most // draw_count else 0)
        pause_us = macro.play.pause_us if made.runs > 1 else 0
        length_us += (made.end_us + pause_us) / draw_count
    return found.presses(length_us, draw_count, left_out)


class _Found:
    """The presses of one play of a macro after the other."""

    def __init__(self, macro: Macro) -> None:
        self._macro = macro
        self._sources = _sources(macro)
        self._lines: dict[str, list[tuple[int, int, int, int, float, int]]] = {}

    def play(self, runs: int, seed: int, most: int) -> Planned:
        """Play it, and keep its presses."""
        trace = Trace(self._macro)
        made = planned(self._macro, self._macro.play, runs, seed, most=most, trace=trace)
        orders = {id(op): order for order, op in enumerate(_pressing(trace.plan))}
        down: dict[str, int] = {}
        for at, control, value, text in made.rows:
            if text or control.startswith("WHEEL"):
                continue
            if value:
                down.setdefault(control, at)
            elif control in down:
                since = down.pop(control)
                order = orders[id(trace.presses[control, since])]
                row, share = self._sources[order]
                self._lines.setdefault(control, []).append((since, at, row, order, share, seed))
        return made

    def presses(self, length_us: float, draw_count: int = 1, left_out: int = 0) -> Presses:
        """All of them."""
        lines = {control: np.array(found, dtype=float) for control, found in self._lines.items()}
        return Presses(
            {control: each[:, :2] for control, each in lines.items()},
            {control: each[:, 4] for control, each in lines.items()},
            {control: each[:, 5].astype(int) for control, each in lines.items()},
            {control: each[:, 2].astype(int) for control, each in lines.items()},
            {control: each[:, 3].astype(int) for control, each in lines.items()},
            length_us,
            draw_count,
            left_out,
        )


def _pressing(plan: Plan) -> Iterator[Op]:
    sections = (plan.lead_in, plan.loop, plan.lead_out)
    return (op for section in sections for op in section if op.code in (OpCode.DOWN, OpCode.TAP_DOWN))


def _sources(macro: Macro) -> list[tuple[int, float]]:
    """For each press that is compiled, in their order, its step's row and which part of a press it is."""
    found: list[tuple[int, float]] = []
    off_depth: int | None = None
    for number, row in enumerate(rows(macro)):
        # The other steps of an if block stand as deep as itself.
        if off_depth is not None and (row.depth > off_depth or isinstance(row.step, Otherwise)):
            continue
        off_depth = row.depth if not isinstance(row.step, Option) and row.step.off else None
        match row.step:
            case Press(off=False) | Tap(off=False):
                found.append((number, 1.0))
            case Chord(off=False, controls=controls):
                found += [(number, 1 / len(controls))] * len(controls)
    return found


def _runs_of(macro: Macro) -> int:
    play = macro.play
    return {Mode.SINGLE: 1, Mode.COUNTED: play.runs, Mode.TOGGLE: play.limit_runs or ENDLESS_RUNS}.get(
        play.mode, ENDLESS_RUNS
    )


def _has_chance(step: object) -> bool:
    if isinstance(step, PickOne) or (isinstance(step, Wait) and step.most_us is not None):
        return True
    return any("random" in text for text in formulas_of(step))  # type: ignore[arg-type]


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
        found = _Found(macro)
        # One play of this is all there is, so it may be twice as long.
        made = found.play(runs, 0, 2 * most)
        if made.runs < runs:
            return found.presses(made.end_us, 1, wanted - made.runs)
        since, until = made.run_ends[warm - 1], made.run_ends[warm]
        # How long a text takes is known only now.
        if (warm - 1) * (until - since) > REACH_US:
            break
        cycle_us = until - since
    length_us = made.end_us + (wanted - runs) * (until - since) + macro.play.pause_us
    presses = found.presses(length_us)
    for control, spans in presses.spans.items():
        presses.weights[control][(spans[:, 0] >= since) & (spans[:, 0] < until)] *= 1 + wanted - runs
    return presses
