"""One running macro as a state machine over a compiled plan.

Theory. A run has one cursor, `due_us`, the absolute time at which the next act is due. Waits move the cursor and
nothing else does, so a late act never delays the ones after it: loops don't drift. The phases and their transitions:

    LEAD_IN  --steps done-->  LOOP
    LOOP     --run done, more wanted-->  LOOP (cursor moved by the pause)
    LOOP     --run done, was the last--> LEAD_OUT
    LEAD_IN, LOOP  --finish()-->  LEAD_OUT (at once) or at the end of the run
    LEAD_OUT --steps done-->  DONE
    any      --cut()-->  DONE (the lead-out's releases only, no waits)

Blocks are flattened to jumps, so the cursor's place in a section is one number and a stack of counters.
"""

from __future__ import annotations

import bisect
import itertools
import random
from collections.abc import Iterable
from enum import IntEnum
from typing import NamedTuple

from nakrel.core.macro import Macro, Mode, Play
from nakrel.core.steps import LEAST_TURN_US, Chord, Note, PickOne, Press, Release, Repeat, Step, Tap, Wait, Wheel

__all__ = ["Act", "Phase", "Plan", "Player", "compile_macro"]

# A loop without any time in it would never let the machine go; it repeats this often at most (1,000 runs/s).
MIN_CYCLE_US = 1_000
# Acts later than this are not caught up with (the machine slept, the process was stopped): the plan moves instead,
# since a burst of old presses would reach the game at one instant.
CATCH_UP_US = 20_000
# Acts handed out in one go, so that a macro without waits can't keep Stop everything from being heard.
MAX_ACTS = 256
# Operations worked off in one go: blocks of nothing but notes make no acts.
MAX_OPS = 10_000


class Do(IntEnum):
    """What a compiled operation does."""

    UP = 0
    DOWN = 1
    WHEEL = 2
    WAIT = 3
    TAP_DOWN = 4
    TAP_UP = 5
    RANDOM = 6
    REPEAT = 7
    AGAIN = 8
    PICK = 9
    JUMP = 10


class Phase(IntEnum):
    """Where a run is."""

    LEAD_IN = 0
    LOOP = 1
    LEAD_OUT = 2
    DONE = 3


class Op(NamedTuple):
    """One operation. `value` is notches for a wheel, microseconds for a wait, how often for a repeat, and the place to
    go to for a jump and for the end of a repeat; `more` is the longest time of a random wait, the end of a repeat, and
    for a pick the summed weights with the place of each branch."""

    do: Do
    control: str = ""
    value: int = 0
    more: int = 0
    weights: tuple[int, ...] = ()
    places: tuple[int, ...] = ()


class Act(NamedTuple):
    """What a run wants now: `value` 1 down, 0 up, or notches for a wheel direction; due at `due_us`."""

    control: str
    value: int
    due_us: int


class Plan(NamedTuple):
    """A macro compiled for playing: its id, and its three sections as flat operations."""

    macro: str
    lead_in: tuple[Op, ...]
    loop: tuple[Op, ...]
    lead_out: tuple[Op, ...]


def _compile(steps: Iterable[Step]) -> tuple[Op, ...]:
    ops: list[Op] = []
    _append(steps, ops)
    return tuple(ops)


def _append(steps: Iterable[Step], ops: list[Op]) -> None:
    for step in steps:
        if step.off:
            continue
        match step:
            case Press():
                ops.append(Op(Do.DOWN, step.control))
            case Release():
                ops.append(Op(Do.UP, step.control))
            case Wait(most_us=None):
                ops.append(Op(Do.WAIT, "", step.wait_us))
            case Wait():
                ops.append(Op(Do.RANDOM, "", step.wait_us, step.most_us or 0))
            case Wheel():
                ops.append(Op(Do.WHEEL, step.control, step.notches))
            case Tap():
                _append_hold((step.control,), step.hold_us, ops)
            case Chord():
                _append_hold(step.controls, step.hold_us, ops)
            case Repeat():
                _append_repeat(step, ops)
            case PickOne():
                _append_pick(step, ops)
            case Note():
                pass


def _append_hold(controls: tuple[str, ...], hold_us: int, ops: list[Op]) -> None:
    ops += [Op(Do.TAP_DOWN, control) for control in controls]
    ops.append(Op(Do.WAIT, "", hold_us))
    ops += [Op(Do.TAP_UP, control) for control in reversed(controls)]


def _append_repeat(step: Repeat, ops: list[Op]) -> None:
    start = len(ops)
    ops.append(Op(Do.REPEAT, "", step.times))
    _append(step.steps, ops)
    if len(ops) == start + 1:
        ops.pop()
    else:
        ops.append(Op(Do.AGAIN, "", start + 1))


def _append_pick(step: PickOne, ops: list[Op]) -> None:
    start = len(ops)
    ops.append(Op(Do.PICK))
    places, ends = [], []
    for branch in step.branches:
        places.append(len(ops))
        _append(branch.steps, ops)
        ends.append(len(ops))
        ops.append(Op(Do.JUMP))
    for end in ends:
        ops[end] = Op(Do.JUMP, "", len(ops))
    weights = tuple(itertools.accumulate(branch.weight for branch in step.branches))
    ops[start] = Op(Do.PICK, weights=weights, places=tuple(places))


def compile_macro(macro: Macro) -> Plan:
    """Flatten a macro's sections; steps that are switched off are left out."""
    return Plan(macro.id, _compile(macro.lead_in), _compile(macro.loop), _compile(macro.lead_out))


class Player:
    """One run of a plan, begun at `start_us`; the caller asks `advance` again at `due_us` or later. `chance` decides
    where a step leaves something to it."""

    def __init__(self, plan: Plan, play: Play, start_us: int, chance: random.Random) -> None:
        self.phase = Phase.LEAD_IN
        self.runs = 0
        self.due_us = start_us
        self.slipped_us = 0
        self._sections = (plan.lead_in, plan.loop, plan.lead_out)
        self._pause_us = play.pause_us
        self._runs_wanted = _runs_wanted(play)
        self._end_us = start_us + play.limit_us if play.mode is Mode.TOGGLE and play.limit_us else None
        self._index = 0
        self._run_start_us = start_us
        self._chance = chance
        # The controls of a tap or chord that are down; of each open repeat, the turns left and when this one began.
        self._open: list[str] = []
        self._turns: list[tuple[int, int]] = []
        self._last_run = False

    @property
    def done(self) -> bool:
        """Whether nothing is left to do."""
        return self.phase is Phase.DONE

    @property
    def ending(self) -> bool:
        """Whether it has been told to end or is in its lead-out."""
        return self._last_run or self.phase >= Phase.LEAD_OUT

    @property
    def deadline_us(self) -> int:
        """When `advance` is wanted next."""
        if self._end_us is not None and self.phase < Phase.LEAD_OUT:
            return min(self.due_us, self._end_us)
        return self.due_us

    def advance(self, now_us: int) -> list[Act]:
        """Return every act due by `now_us`, in order; `MAX_ACTS` at most, the rest stays due."""
        if now_us - self.due_us > CATCH_UP_US:
            self.slipped_us += now_us - self.due_us
            self.due_us = now_us
        acts: list[Act] = []
        for _ in range(MAX_OPS):
            if self.phase is Phase.DONE or self.due_us > now_us or len(acts) >= MAX_ACTS or self._time_is_up():
                break
            ops = self._sections[self.phase]
            if self._index < len(ops):
                self._index += 1
                self._perform(ops[self._index - 1], acts)
            else:
                self._end_section()
        if self._end_us is not None and self._end_us <= now_us and self.phase < Phase.LEAD_OUT:
            acts += self.finish(self._end_us)
            acts += self.advance(now_us)
        return acts

    def finish(self, now_us: int) -> list[Act]:
        """End at once: an open tap goes up, then the lead-out begins."""
        if self.phase >= Phase.LEAD_OUT:
            return []
        acts = self._close_tap(now_us)
        self.phase, self._index, self.due_us = Phase.LEAD_OUT, 0, now_us
        self._turns.clear()
        return acts

    def finish_after_run(self) -> None:
        """Let the present run be the last one."""
        self._last_run = True

    def go_on(self) -> bool:
        """Take back `finish_after_run`; False where the lead-out has begun."""
        if self.phase >= Phase.LEAD_OUT:
            return False
        self._last_run = False
        return True

    def cut(self, now_us: int) -> list[Act]:
        """End this instant: of the lead-out only its releases are made."""
        acts = self._close_tap(now_us)
        start = self._index if self.phase is Phase.LEAD_OUT else 0
        rest = self._sections[Phase.LEAD_OUT][start:]
        acts += [Act(op.control, 0, now_us) for op in rest if op.do in (Do.UP, Do.TAP_UP)]
        self.phase = Phase.DONE
        return acts

    def _time_is_up(self) -> bool:
        return self._end_us is not None and self.phase < Phase.LEAD_OUT and self.due_us >= self._end_us

    def _close_tap(self, now_us: int) -> list[Act]:
        held, self._open = self._open, []
        return [Act(control, 0, now_us) for control in reversed(held)]

    def _perform(self, op: Op, acts: list[Act]) -> None:
        match op.do:
            case Do.WAIT:
                self.due_us += op.value
            case Do.RANDOM:
                self.due_us += self._chance.randint(op.value, op.more)
            case Do.REPEAT:
                self._turns.append((op.value, self.due_us))
            case Do.AGAIN:
                self._turn(op.value)
            case Do.PICK:
                drawn = self._chance.randrange(op.weights[-1])
                self._index = op.places[bisect.bisect_right(op.weights, drawn)]
            case Do.JUMP:
                self._index = op.value
            case _:
                self._act(op, acts)

    def _turn(self, start: int) -> None:
        left, began_us = self._turns.pop()
        self.due_us = max(self.due_us, began_us + LEAST_TURN_US)
        if left > 1:
            self._index = start
            self._turns.append((left - 1, self.due_us))

    def _act(self, op: Op, acts: list[Act]) -> None:
        if op.do is Do.TAP_DOWN:
            self._open.append(op.control)
        elif op.do is Do.TAP_UP:
            self._open.remove(op.control)
        value = op.value if op.do is Do.WHEEL else int(op.do in (Do.DOWN, Do.TAP_DOWN))
        acts.append(Act(op.control, value, self.due_us))

    def _end_section(self) -> None:
        self._index = 0
        if self.phase is Phase.LEAD_IN:
            self.phase, self._run_start_us = Phase.LOOP, self.due_us
        elif self.phase is Phase.LEAD_OUT:
            self.phase = Phase.DONE
        else:
            self._end_run()

    def _end_run(self) -> None:
        self.runs += 1
        if self._last_run or (self._runs_wanted is not None and self.runs >= self._runs_wanted):
            self.phase = Phase.LEAD_OUT
            return
        self.due_us += self._pause_us
        if self.due_us - self._run_start_us < MIN_CYCLE_US:
            self.due_us = self._run_start_us + MIN_CYCLE_US
        self._run_start_us = self.due_us


def _runs_wanted(play: Play) -> int | None:
    """How many runs end the macro by themselves; None where only the trigger ends it."""
    match play.mode:
        case Mode.SINGLE:
            return 1
        case Mode.COUNTED:
            return play.runs
        case Mode.TOGGLE:
            return play.limit_runs
        case Mode.HELD:
            return None
