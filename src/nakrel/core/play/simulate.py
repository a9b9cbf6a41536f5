"""A simulated clock for the engine: it jumps from deadline to deadline, so an hour plays in milliseconds."""

from __future__ import annotations

import functools
import random
import shlex
from collections.abc import Sequence
from typing import Any, NamedTuple

import msgspec

from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Origin
from nakrel.core.model.units import shown_ms
from nakrel.core.play.acts import Act, AskPlace, AskPointer, AskText, MovePointer, OpenProgram, Stroke, Whereabouts
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import (
    Emit,
    Event,
    Output,
    PlaceReady,
    PlayMacro,
    PointerReady,
    RunEnded,
    SideEffect,
    TextReady,
    Wake,
)
from nakrel.core.play.operations import Op, OpCode, compile_macro
from nakrel.core.play.player import Player
from nakrel.words import tr

# The screen of a place that doesn't say which it was picked on.
_SCREEN = (1_920, 1_080)
# A plan is made as a whole; what is longer is no plan that anybody reads.
MOST_ROWS = 1_000_000
# Moments at which something is due: a repeat of nothing but formulas makes no rows.
MOST_WAKES = 2_000_000
# Such moments one after the other from which nothing comes.
MOST_EMPTY = 20_000

__all__ = ["PlanRow", "Planned", "Simulator", "Trace", "plan", "planned"]


class PlanRow(NamedTuple):
    """One emitted event: `value` 1 down, 0 up, notches for the wheel; `time_us` from the start.

    What is no event of a control has one of `OTHERS` for its control, and a `text` that says what is done.
    """

    time_us: int
    control: str
    value: int
    text: str = ""


class Simulator:
    """An engine with a clock that is moved by hand; `log` holds every output with the time it came at, and `run_ends`
    when the runs of each macro were complete."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine
        self.now_us = 0
        self.log: list[tuple[int, Output]] = []
        self.run_ends: dict[str, list[int]] = {}
        self.wakes = self._empty = 0
        self._deadline_us: int | None = None
        self._pointer = (0, 0)

    def send(self, event: Event) -> None:
        """Hand the engine an event at the present time."""
        outputs, self._deadline_us = self.engine.step(event, self.now_us)
        self.log += [(self.now_us, output) for output in outputs]
        for macro, runs in self.engine.running.items():
            ends = self.run_ends.setdefault(macro, [])
            ends += [self.now_us] * (runs - len(ends))
        for output in outputs:
            if isinstance(output, SideEffect) and (answer := self._answer(output)):
                self.send(answer)

    def _answer(self, asked: SideEffect) -> Event | None:
        """What a desktop would answer: the pointer starts in the top left corner of a screen that fits."""
        match asked.what:
            case AskText(text=text, ticket=ticket):
                # Which keys type it depends on the keyboard layout of the day; the time that it takes doesn't.
                return TextReady(asked.by, ticket, (Stroke(""),) * len(text))
            case AskPointer(ticket=ticket):
                return PointerReady(asked.by, ticket, self._pointer)
            case AskPlace(x=x, y=y, origin=Origin.POINTER, ticket=ticket):
                return PlaceReady(asked.by, ticket, Whereabouts(self._pointer, (x, y), None))
            case AskPlace(x=x, y=y, size=size, ticket=ticket):
                return PlaceReady(asked.by, ticket, Whereabouts(self._pointer, (x, y), size or _SCREEN))
            case MovePointer(x=x, y=y, screen=screen):
                self._pointer = (x, y) if screen else (self._pointer[0] + x, self._pointer[1] + y)
        return None

    def run(self, for_us: int) -> None:
        """Let `for_us` microseconds pass, waking the engine at each deadline on the way. Raises `DataError` where there
        are more than `MOST_WAKES` of them."""
        end_us = self.now_us + for_us
        while self._deadline_us is not None and self._deadline_us <= end_us:
            self.now_us = max(self.now_us, self._deadline_us)
            self.wakes += 1
            if self.wakes > MOST_WAKES:
                raise DataError(
                    tr("more than {most} moments at which something is due; repeat less in it").format(most=MOST_WAKES)
                )
            before = len(self.log)
            self.send(Wake())
            self._empty = self._empty + 1 if len(self.log) == before else 0
            if self._empty > MOST_EMPTY:
                raise DataError(tr("it works out formulas on and on and nothing comes of it; repeat less in it"))
        self.now_us = end_us

    def emitted(self) -> list[PlanRow]:
        """Everything that went out, with the times it was planned for."""
        rows = []
        origins: dict[str, Origin] = {}
        for _, out in self.log:
            if isinstance(out, Emit):
                rows.append(PlanRow(out.due_us, out.control, out.value))
            elif isinstance(out, SideEffect) and isinstance(out.what, AskPlace):
                origins[out.by] = out.what.origin
            elif isinstance(out, SideEffect) and not isinstance(out.what, AskPointer):
                rows.append(_other_row(out, origins.get(out.by, Origin.SCREEN)))
        return rows


def _other_row(out: SideEffect, origin: Origin) -> PlanRow:
    match out.what:
        case MovePointer(x=x, y=y):
            return PlanRow(out.due_us, "POINTER", 1, f"move to {x}, {y}" + " in the window" * (origin is Origin.WINDOW))
        case AskText(text=text, secret=secret):
            return PlanRow(out.due_us, "TEXT", 1, f"type the secret {secret}" if secret else f"type {text!r}")
    assert isinstance(out.what, OpenProgram)
    return PlanRow(out.due_us, "OPEN", 1, f"open {shlex.join(out.what.command)}")


class Planned(NamedTuple):
    """A plan, and why it ended before its last run: a formula or a weight (`failed`), or the time limit; '' where it
    didn't. `runs` are the complete ones; all but the last have in `run_ends` when their loop was done. `end_us` is when
    the last wait was over."""

    rows: list[PlanRow]
    runs: int
    ended: str
    failed: bool
    end_us: int
    run_ends: Sequence[int]


class Trace:
    """What each press of a plan came from: `presses` has it by control and moment, `plan` all that there is."""

    def __init__(self, macro: Macro) -> None:
        self.plan = compile_macro(macro)
        self.presses: dict[tuple[str, int], Op] = {}


class _Traced(Player):
    """A player that keeps a trace."""

    def __init__(self, trace: Trace, *rest: Any) -> None:
        super().__init__(*rest)
        self._trace = trace.presses

    def _act(self, op: Op, acts: list[Act]) -> None:
        if op.code in (OpCode.DOWN, OpCode.TAP_DOWN):
            self._trace.setdefault((op.control, self.due_us), op)
        super()._act(op, acts)


def plan(macro: Macro, play: Play, runs: int | None = None, seed: int = 0, most: int | None = None) -> list[PlanRow]:
    """The events of `planned`."""
    return planned(macro, play, runs, seed, most).rows


def planned(
    macro: Macro,
    play: Play,
    runs: int | None = None,
    seed: int = 0,
    most: int | None = None,
    trace: Trace | None = None,
) -> Planned:
    """What the macro will emit, played by the same engine as in earnest.

    `runs` sets the number of runs; without it, it is what the way to play says, and one for Held and for a Toggle
    without a limit, which only a finger ends. `seed` fixes what is left to chance. With `most` it stops when it has so
    many events or a few more; a `trace` of the macro gets what they come from. Raises `DataError` for more than
    `MOST_ROWS` events.
    """
    if play.mode is Mode.TOGGLE and play.limit_us:
        counted = msgspec.structs.replace(play, limit_runs=runs or play.limit_runs)
    else:
        if runs is None:
            runs = {Mode.COUNTED: play.runs, Mode.TOGGLE: play.limit_runs or 1}.get(play.mode, 1)
        counted = msgspec.structs.replace(play, mode=Mode.COUNTED, runs=runs)
    # A generator of its own takes a negative number for its amount.
    make_player = functools.partial(_Traced, trace) if trace else Player
    simulator = Simulator(Engine(random.Random(seed if seed >= 0 else str(seed)), make_player))
    simulator.send(PlayMacro(trace.plan if trace else compile_macro(macro), counted))
    while simulator.engine.running and not (most and len(simulator.log) > most):
        simulator.run(1_000_000 if most else 60_000_000)
        if len(simulator.log) > MOST_ROWS:
            raise DataError(
                tr("this plan has more than {most} events; ask for fewer runs, or repeat less in it").format(
                    most=MOST_ROWS
                )
            )
    rows = simulator.emitted()
    end_us, end = next(((at, out) for at, out in simulator.log if isinstance(out, RunEnded)), (0, None))
    done = end.runs if end else simulator.engine.running.get(macro.id, 0)
    reason = end.failed if end else ""
    if end and not reason and counted.mode is Mode.TOGGLE and (counted.limit_runs is None or done < counted.limit_runs):
        reason = tr("its time limit of {limit} ms").format(limit=shown_ms(counted.limit_us or 0))
    last_us = end_us if end else rows[-1].time_us if rows else 0
    ends = simulator.run_ends.get(macro.id, ())[: max(0, done - 1)]
    return Planned(rows, done, reason, bool(end and end.failed), last_us, ends)
