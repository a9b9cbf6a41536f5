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

A text is the only thing that a run waits for: it asks for the keys that type it and stands still until `type` brings
them. A formula without a result ends the run as `finish` does, and says so in `failed`.
"""

from __future__ import annotations

import bisect
import itertools
import random
from collections.abc import Sequence
from enum import IntEnum
from typing import NamedTuple, Protocol

from nakrel.core.model.formulas import FormulaError, compiled, count, micros, pixels
from nakrel.core.model.limits import MAX_NOTCHES, MAX_RATE, MAX_WEIGHT
from nakrel.core.model.macro import Mode, Play
from nakrel.core.model.steps import LEAST_TURN_US, Open, Origin, Pointer, Step, Text
from nakrel.core.play.operations import Op, OpCode, Plan

__all__ = [
    "Act",
    "AskText",
    "MovePointer",
    "OpenProgram",
    "Phase",
    "Player",
    "Stroke",
    "Surroundings",
]

# A loop without any time in it would never let the machine go; it repeats this often at most (1,000 runs/s).
MIN_CYCLE_US = 1_000
# Acts later than this are not caught up with (the machine slept, the process was stopped): the plan moves instead,
# since a burst of old presses would reach the game at one instant.
CATCH_UP_US = 20_000
# Acts handed out in one go, so that a macro without waits can't keep Stop everything from being heard.
MAX_ACTS = 256
# Operations worked off in one go: blocks of nothing but notes make no acts.
MAX_OPS = 10_000
# How often a pointer that moves over a time is moved: as often as a mouse at 125 Hz tells its motion.
GLIDE_US = 8_000
# A typed key is held long enough for every program, and briefly enough that a busy desktop doesn't repeat it.
MOST_TYPED_US = 20_000


class Phase(IntEnum):
    """Where a run is."""

    LEAD_IN = 0
    LOOP = 1
    LEAD_OUT = 2
    DONE = 3


class Stroke(NamedTuple):
    """A key that types something, and the keys that are held meanwhile; without a key only its time passes."""

    control: str
    held: tuple[str, ...] = ()


class MovePointer(NamedTuple):
    """The pointer goes to (`x`, `y`) as `origin` and `size` say; see `Pointer`. Of a move over a time this is one of
    `parts` that are left, and makes its share of the way."""

    x: int
    y: int
    origin: Origin
    size: tuple[int, int] | None
    parts: int = 1


class AskText(NamedTuple):
    """The run wants the keys that type a text; see `Text`."""

    text: str
    secret: str


class OpenProgram(NamedTuple):
    """A program is to be started or brought to the front; see `Open`."""

    command: tuple[str, ...]


class Act(NamedTuple):
    """What a run wants now: `value` 1 down, 0 up, or notches for a wheel direction; due at `due_us`.

    What is no event of a control is in `other`. A `quiet` one types a secret: nobody is to be told of it.
    """

    control: str
    value: int
    due_us: int
    other: MovePointer | AskText | OpenProgram | None = None
    quiet: bool = False


class Surroundings(Protocol):
    """What formulas can ask about the world."""

    def pointer(self) -> tuple[int, int]:
        """The pointer's place on the screen, in pixels; (0, 0) where nobody knows."""

    def is_down(self, code: str) -> bool:
        """Whether the control is down for the programs."""


class _Scope:
    """What the formulas of a run see."""

    def __init__(self, player: Player, chance: random.Random, around: Surroundings | None) -> None:
        self.variables: dict[str, float] = {}
        self.chance: random.Random | None = chance
        self._player = player
        self._around = around

    @property
    def run(self) -> int:
        """The number of the present run, from 1."""
        return self._player.runs + 1

    @property
    def elapsed_us(self) -> int:
        """Microseconds since the macro started."""
        return self._player.due_us - self._player.start_us

    def pointer(self) -> tuple[int, int]:
        """The pointer's place."""
        return self._around.pointer() if self._around else (0, 0)

    def held(self, code: str) -> bool:
        """Whether the control is down."""
        return bool(self._around and self._around.is_down(code))


class _Glide(NamedTuple):
    """A move over a time: when it began, how long it takes, in how many parts, and how many of them are made."""

    began_us: int
    over_us: int
    parts: int
    made: int
    x: int
    y: int
    step: Pointer


class Player:
    """One run of a plan, begun at `start_us`; the caller asks `advance` again at `deadline_us` or later.

    `chance` decides where a step leaves something to it, and `around` answers formulas.
    """

    def __init__(
        self, plan: Plan, play: Play, start_us: int, chance: random.Random, around: Surroundings | None = None
    ) -> None:
        self.phase = Phase.LEAD_IN
        self.runs = 0
        self.start_us = start_us
        self.due_us = start_us
        self.schedule_shift_us = 0
        self.failed = ""
        self._sections = (plan.lead_in, plan.loop, plan.lead_out)
        self._pause_us = play.pause_us
        self._runs_wanted = _runs_wanted(play)
        self._end_us = start_us + play.limit_us if play.mode is Mode.TOGGLE and play.limit_us else None
        self._index = 0
        self._run_start_us = start_us
        self._chance = chance
        self._scope = _Scope(self, chance, around)
        # The controls of a tap or chord that are down; of each open repeat, the turns left and when this one began.
        self._open: list[str] = []
        self._turns: list[tuple[int, int]] = []
        self._last_run = False
        self._glide: _Glide | None = None
        # The time between two characters of the text that was asked for; None while none was.
        self._typing_us: int | None = None
        # What types the text; it comes before the section's own operations.
        self._typed: list[Op] = []
        self._secret = False

    @property
    def done(self) -> bool:
        """Whether nothing is left to do."""
        return self.phase is Phase.DONE

    @property
    def ending(self) -> bool:
        """Whether it has been told to end or is in its lead-out."""
        return self._last_run or self.phase >= Phase.LEAD_OUT

    @property
    def deadline_us(self) -> int | None:
        """When `advance` is wanted next; None while it waits for a text's keys."""
        due_us = None if self._typing_us is not None else self.due_us
        if self._end_us is not None and self.phase < Phase.LEAD_OUT:
            return self._end_us if due_us is None else min(due_us, self._end_us)
        return due_us

    def advance(self, now_us: int) -> list[Act]:
        """Return every act due by `now_us`, in order; `MAX_ACTS` at most, the rest stays due."""
        if self._typing_us is not None:
            self.due_us = max(self.due_us, now_us)
        elif now_us - self.due_us > CATCH_UP_US:
            self.schedule_shift_us += now_us - self.due_us
            self.due_us = now_us
        acts: list[Act] = []
        for _ in range(MAX_OPS):
            if self._rests(now_us) or len(acts) >= MAX_ACTS:
                break
            try:
                self._next(acts)
            except FormulaError as error:
                self._fail(str(error), acts)
        if self._end_us is not None and self._end_us <= now_us and self.phase < Phase.LEAD_OUT:
            acts += self.finish(self._end_us)
            acts += self.advance(now_us)
        return acts

    def type(self, strokes: Sequence[Stroke], now_us: int) -> None:
        """Go on with the keys of the text that was asked for."""
        if self._typing_us is None:
            return
        self.due_us = now_us
        hold_us = min(self._typing_us // 2, MOST_TYPED_US)
        for stroke in strokes:
            controls = (*stroke.held, stroke.control) if stroke.control else ()
            self._typed += [Op(OpCode.TAP_DOWN, control) for control in controls]
            self._typed.append(Op(OpCode.WAIT, "", hold_us))
            self._typed += [Op(OpCode.TAP_UP, control) for control in reversed(controls)]
            self._typed.append(Op(OpCode.WAIT, "", self._typing_us - hold_us))
        self._typed.reverse()
        self._typing_us = None

    def give_up(self, reason: str, now_us: int) -> list[Act]:
        """End as `finish` does, since something that it needs can't be had."""
        self.due_us = max(self.due_us, now_us)
        acts: list[Act] = []
        self._fail(reason, acts)
        return acts

    def _rests(self, now_us: int) -> bool:
        waits = self.phase is Phase.DONE or self._typing_us is not None or self.due_us > now_us
        return waits or (self._end_us is not None and self.phase < Phase.LEAD_OUT and self.due_us >= self._end_us)

    def _next(self, acts: list[Act]) -> None:
        """Do one operation."""
        if self._typed:
            before = len(acts)
            self._perform(self._typed.pop(), acts)
            if self._secret:
                acts[before:] = [act._replace(quiet=True) for act in acts[before:]]
        elif self._glide:
            self._move_on(self._glide, acts)
        elif self._index < len(ops := self._sections[self.phase]):
            self._index += 1
            self._perform(ops[self._index - 1], acts)
        else:
            self._end_section()

    def _fail(self, reason: str, acts: list[Act]) -> None:
        self.failed = self.failed or reason
        if self.phase < Phase.LEAD_OUT:
            acts += self.finish(self.due_us)
        else:
            self._drop()
            acts += self._close_tap(self.due_us)

    def _drop(self) -> None:
        """Forget what is going on in a step."""
        self._glide, self._typing_us = None, None
        self._typed.clear()

    def finish(self, now_us: int) -> list[Act]:
        """End at once: an open tap goes up, then the lead-out begins."""
        if self.phase >= Phase.LEAD_OUT:
            return []
        acts = self._close_tap(now_us)
        self._drop()
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
        acts += [Act(op.control, 0, now_us) for op in rest if op.code in (OpCode.UP, OpCode.TAP_UP)]
        self._drop()
        self.phase = Phase.DONE
        return acts

    def _close_tap(self, now_us: int) -> list[Act]:
        held, self._open = self._open, []
        return [Act(control, 0, now_us) for control in reversed(held)]

    def _perform(self, op: Op, acts: list[Act]) -> None:
        match op.code:
            case OpCode.WAIT:
                self.due_us += micros(op.value, self._scope)
            case OpCode.RANDOM:
                least = micros(op.value, self._scope)
                self.due_us += self._chance.randint(least, max(least, micros(op.more, self._scope)))
            case OpCode.REPEAT:
                if times := count(op.value, self._scope):
                    self._turns.append((times, self.due_us))
                else:
                    self._index = int(op.more)
            case OpCode.AGAIN:
                self._turn(int(op.value))
            case OpCode.PICK:
                self._pick(op)
            case OpCode.JUMP:
                self._index = int(op.value)
            case OpCode.UNLESS:
                if not compiled(op.control).value(self._scope):
                    self._index = int(op.value)
            case OpCode.SET:
                self._scope.variables[op.control] = compiled(str(op.value)).value(self._scope)
            case OpCode.POINTER | OpCode.TEXT | OpCode.OPEN:
                self._other(op.step, acts)
            case _:
                self._act(op, acts)

    def _pick(self, op: Op) -> None:
        weights = list(itertools.accumulate(count(weight, self._scope, MAX_WEIGHT) for weight in op.weights))
        if not weights[-1]:
            raise FormulaError(str(op.weights[0]), 0, "and the others leave no way to go: every weight is 0")
        self._index = op.places[bisect.bisect_right(weights, self._chance.randrange(weights[-1]))]

    def _other(self, step: Step | None, acts: list[Act]) -> None:
        match step:
            case Pointer():
                x, y = pixels(step.x, self._scope), pixels(step.y, self._scope)
                over_us = micros(step.over_us, self._scope)
                if over_us < 2 * GLIDE_US:
                    move = MovePointer(x, y, step.origin, step.size)
                    self.due_us += over_us
                    self._glide = _Glide(self.due_us, 0, 1, 0, x, y, step) if over_us else None
                    if not over_us:
                        acts.append(Act("", 0, self.due_us, move))
                else:
                    parts = over_us // GLIDE_US
                    self._glide = _Glide(self.due_us, over_us, parts, 0, x, y, step)
                    self.due_us += over_us // parts
            case Text():
                self._typing_us = 1_000_000 // max(1, count(step.rate, self._scope, MAX_RATE))
                self._secret = bool(step.secret)
                acts.append(Act("", 0, self.due_us, AskText(step.text, step.secret)))
            case Open():
                acts.append(Act("", 0, self.due_us, OpenProgram(step.command)))

    def _move_on(self, glide: _Glide, acts: list[Act]) -> None:
        """Make the next part of a move over a time."""
        made, parts, step = glide.made + 1, glide.parts, glide.step
        x, y = glide.x, glide.y
        if step.origin is Origin.POINTER:
            # Each part by itself, so that none of a pixel is lost on the way.
            x, y = (side * made // parts - side * (made - 1) // parts for side in (x, y))
        left = 1 if step.origin is Origin.POINTER else parts - made + 1
        acts.append(Act("", 0, self.due_us, MovePointer(x, y, step.origin, step.size, left)))
        if made < parts:
            self._glide = glide._replace(made=made)
            self.due_us = glide.began_us + glide.over_us * (made + 1) // parts
        else:
            self._glide = None

    def _turn(self, start: int) -> None:
        left, began_us = self._turns.pop()
        self.due_us = max(self.due_us, began_us + LEAST_TURN_US)
        if left > 1:
            self._index = start
            self._turns.append((left - 1, self.due_us))

    def _act(self, op: Op, acts: list[Act]) -> None:
        if op.code is OpCode.TAP_DOWN:
            self._open.append(op.control)
        elif op.code is OpCode.TAP_UP:
            self._open.remove(op.control)
        if op.code is OpCode.WHEEL:
            if value := count(op.value, self._scope, MAX_NOTCHES):
                acts.append(Act(op.control, value, self.due_us))
        else:
            acts.append(Act(op.control, int(op.code in (OpCode.DOWN, OpCode.TAP_DOWN)), self.due_us))

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
