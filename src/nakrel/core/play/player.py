"""One running macro as a state machine over a compiled plan.

Theory. A run has one cursor, `due_us`, the absolute time at which the next act is due. Waits move the cursor and
nothing else does, so a late act never delays the ones after it: loops don't drift. The phases and their transitions:

    LEAD_IN  --steps done-->  LOOP
    LOOP     --run done, more wanted-->  LOOP (cursor moved by the pause)
    LOOP     --run done, was the last--> LEAD_OUT
    LEAD_IN, LOOP  --finish()-->  LEAD_OUT (at once) or at the end of the run
    LEAD_OUT --steps done-->  DONE
    any      --cut()-->  DONE (the end's releases only, no waits)

Blocks are flattened to jumps, so the cursor's place in a section is one number and a stack of counters.

A run waits for nothing but answers, each under the ticket that it was asked with: for the keys that type a text, for
where a pointer step goes, and for where the pointer is when a formula asks. An answer with another ticket is for what
isn't played any more. Time spent on waiting for a place isn't part of the plan, which catches up; a text is typed from
the moment on at which its keys are there. A formula without a result ends the run as `finish` does, and says so in
`failed`.
"""

from __future__ import annotations

import bisect
import itertools
import random
from collections.abc import Callable, Iterator, Sequence
from enum import IntEnum
from typing import NamedTuple

from nakrel.core.model.formulas import Formula, FormulaError, count, micros, pixels
from nakrel.core.model.lengths import LEAST_TURN_US
from nakrel.core.model.limits import MAX_NOTCHES, MAX_RATE, MAX_WEIGHT
from nakrel.core.model.macro import Mode, Play
from nakrel.core.model.steps import Open, Pointer, Text
from nakrel.core.play.acts import (
    Act,
    AskPlace,
    AskPointer,
    AskText,
    MovePointer,
    OpenProgram,
    Other,
    Stroke,
    Surroundings,
    Whereabouts,
)
from nakrel.core.play.operations import Op, OpCode, Plan
from nakrel.words import tr

__all__ = [
    "AT_ONCE",
    "NEVER",
    "Phase",
    "Player",
]

# When a run goes on: as soon as somebody looks, and not before something else happens.
AT_ONCE, NEVER = -1, 1 << 62

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
_CAPS_LOCK = "KEY_CAPSLOCK"


class Phase(IntEnum):
    """Where a run is."""

    LEAD_IN = 0
    LOOP = 1
    LEAD_OUT = 2
    DONE = 3


class _Scope:
    """What the formulas of a run see."""

    def __init__(self, player: Player, chance: random.Random, around: Surroundings | None) -> None:
        self.variables: dict[str, float] = {}
        self.chance: random.Random | None = chance
        self.place = (0, 0)
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
        """Where the pointer was when it was looked for last."""
        return self.place

    def held(self, code: str) -> bool:
        """Whether the control is down."""
        if self._around is None:
            return False
        if acts := self._player.unsettled:
            # What the run does at this instant comes before what it asks at this instant.
            self._around.settle(list(acts))
            acts.clear()
        return self._around.is_down(code)


class _Glide(NamedTuple):
    """A move over a time: when it began, how long it takes, in how many parts, and how many of them are made."""

    began_us: int
    over_us: int
    parts: int
    made: int
    where: Whereabouts


class Player:
    """One run of a plan, begun at `start_us`; the caller asks `advance` again at `next_us` or later.

    `chance` decides where a step leaves something to it, and `around` answers formulas.
    """

    def __init__(
        self,
        plan: Plan,
        play: Play,
        start_us: int,
        chance: random.Random,
        around: Surroundings | None = None,
        tickets: Iterator[int] | None = None,
    ) -> None:
        self.phase = Phase.LEAD_IN
        self.runs = 0
        self.start_us = start_us
        self.due_us = start_us
        self.schedule_shift_us = 0
        self.failed = ""
        self._sections = (plan.lead_in, plan.loop, plan.lead_out)
        self._pause_us = play.pause_us
        self.runs_wanted = _runs_wanted(play)
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
        # What it waits for: the ticket of the answer, and what to do with that; 0 for nothing.
        self._ticket = 0
        self._tickets = itertools.count(1) if tickets is None else tickets
        self._typing_us: int | None = None
        self._over_us = 0
        # What was done at this instant and hasn't been handed out.
        self.unsettled: list[Act] = []
        # Whether the last `advance` ended since it had worked off so much, and not since nothing more was due.
        self.breathless = False
        # What types the text; it comes before the section's own operations.
        self._typed: list[Op] = []
        self._secret = False
        # When `advance` is wanted next: `AT_ONCE` when nothing is left to do, `NEVER` while it waits for an answer.
        # Fifty runs are asked for it at each event, so it is kept up to date here.
        self.next_us = start_us
        self._note_next()

    @property
    def done(self) -> bool:
        """Whether nothing is left to do."""
        return self.phase is Phase.DONE

    @property
    def ending(self) -> bool:
        """Whether it has been told to end or is in its end."""
        return self._last_run or self.phase >= Phase.LEAD_OUT

    @property
    def types(self) -> bool:
        """Whether it is in the midst of typing a text."""
        return bool(self._typed)

    def _note_next(self) -> None:
        """To be called after whatever changes when it goes on."""
        if self.phase is Phase.DONE:
            self.next_us = AT_ONCE
            return
        due_us = NEVER if self._ticket else self.due_us
        if self._end_us is not None and self.phase < Phase.LEAD_OUT:
            due_us = min(due_us, self._end_us)
        self.next_us = due_us

    def advance(self, now_us: int, until_us: int | None = None) -> list[Act]:
        """Return every act due by `until_us`, by default `now_us`, in order: `MAX_ACTS` or a few more at most, the rest
        stays due."""
        if self._ticket:
            if self._typing_us is not None:
                self.due_us = max(self.due_us, now_us)
        elif now_us - self.due_us > CATCH_UP_US:
            self.schedule_shift_us += now_us - self.due_us
            self.due_us = now_us
        until_us = now_us if until_us is None else until_us
        self.breathless = False
        acts = self.unsettled
        self._work_off(until_us, acts)
        if self._end_us is not None and self._end_us <= until_us and self.phase < Phase.LEAD_OUT:
            acts += self.finish(self._end_us)
            self._work_off(until_us, acts)
        self.unsettled = []
        self._note_next()
        return acts

    def _work_off(self, until_us: int, acts: list[Act]) -> None:
        for _ in range(MAX_OPS):
            if self._rests(until_us) or len(acts) >= MAX_ACTS:
                return
            try:
                self._next(acts)
            except FormulaError as error:
                self._fail(str(error), acts)
        self.breathless = True

    def _ask(self, other: Callable[[int], Other], acts: list[Act]) -> None:
        """Ask for something, and wait for the answer with its ticket."""
        self._ticket = next(self._tickets)
        acts.append(Act("", 0, self.due_us, other(self._ticket)))

    def awaits(self, ticket: int) -> bool:
        """Whether an answer with this ticket is waited for."""
        return bool(ticket) and ticket == self._ticket

    def look(self, place: tuple[int, int]) -> None:
        """Go on with where the pointer is; for what `awaits` it."""
        self._scope.place = place
        self._ticket = 0
        self._note_next()

    def go(self, where: Whereabouts | None) -> None:
        """Go on with where a pointer step leads, None for nowhere; for what `awaits` it."""
        self._ticket = 0
        over_us = self._over_us
        if where is None:
            self.due_us += over_us
        else:
            parts = max(1, over_us // GLIDE_US) if where.pointer or where.screen is None else 1
            self._glide = _Glide(self.due_us, over_us, parts, 0, where)
            self.due_us += over_us // parts
        self._note_next()

    def type(self, strokes: Sequence[Stroke], now_us: int) -> None:
        """Go on with the keys of the text that was asked for; for what `awaits` them."""
        if self._typing_us is None:
            return
        self._ticket = 0
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
        self._note_next()

    def give_up(self, reason: str, now_us: int) -> list[Act]:
        """End as `finish` does, since something that it needs can't be had."""
        self.due_us = max(self.due_us, now_us)
        acts: list[Act] = []
        self._fail(reason, acts)
        self._note_next()
        return acts

    def _rests(self, now_us: int) -> bool:
        waits = self.phase is Phase.DONE or bool(self._ticket) or self.due_us > now_us
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
            acts += self._close_tap(self.due_us)
            self._drop()

    def _drop(self) -> None:
        """Forget what is going on in a step."""
        self._glide, self._typing_us, self._ticket = None, None, 0
        self._typed.clear()

    def finish(self, now_us: int) -> list[Act]:
        """End at once: an open tap goes up, then the end begins."""
        if self.phase >= Phase.LEAD_OUT:
            return []
        acts = self._close_tap(now_us)
        self._drop()
        self.phase, self._index, self.due_us = Phase.LEAD_OUT, 0, now_us
        self._turns.clear()
        self._note_next()
        return acts

    def finish_after_run(self) -> None:
        """Let the present run be the last one."""
        self._last_run = True

    def go_on(self) -> bool:
        """Take back `finish_after_run`; False where the end has begun."""
        if self.phase >= Phase.LEAD_OUT:
            return False
        self._last_run = False
        return True

    def cut(self, now_us: int) -> list[Act]:
        """End this instant: of the end only its releases are made."""
        acts = self._close_tap(now_us)
        start = self._index if self.phase is Phase.LEAD_OUT else 0
        rest = self._sections[Phase.LEAD_OUT][start:]
        acts += [Act(op.control, 0, now_us) for op in rest if op.code in (OpCode.UP, OpCode.TAP_UP)]
        self._drop()
        self.phase = Phase.DONE
        self._note_next()
        return acts

    def _close_tap(self, now_us: int) -> list[Act]:
        held, self._open = self._open, []
        acts = [Act(control, 0, now_us) for control in reversed(held)]
        # A text that switched Caps Lock off for a character leaves it as it was.
        if sum(op.code is OpCode.TAP_DOWN and op.control == _CAPS_LOCK for op in self._typed) % 2:
            acts += [Act(_CAPS_LOCK, 1, now_us), Act(_CAPS_LOCK, 0, now_us)]
        return acts

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
                    self._index = _place(op.more)
            case OpCode.AGAIN:
                self._turn(_place(op.value))
            case OpCode.PICK:
                self._pick(op)
            case OpCode.JUMP:
                self._index = _place(op.value)
            case OpCode.UNLESS:
                assert isinstance(op.value, Formula)
                if not op.value.value(self._scope):
                    self._index = op.places[0]
            case OpCode.SET:
                assert isinstance(op.value, Formula)
                self._scope.variables[op.control] = op.value.value(self._scope)
            case OpCode.LOOK:
                self._ask(AskPointer, acts)
            case OpCode.POINTER | OpCode.TEXT | OpCode.OPEN:
                self._other(op, acts)
            case _:
                self._act(op, acts)

    def _pick(self, op: Op) -> None:
        weights = list(itertools.accumulate(count(weight, self._scope, MAX_WEIGHT) for weight in op.weights))
        if not weights[-1]:
            first = op.weights[0]
            text = first.text if isinstance(first, Formula) else str(first)
            raise FormulaError(text, 0, tr("and the others leave no option: every weight is 0"))
        self._index = op.places[bisect.bisect_right(weights, self._chance.randrange(weights[-1]))]

    def _other(self, op: Op, acts: list[Act]) -> None:
        match op.step:
            case Pointer(origin=origin, size=size):
                x, y, over_us = op.numbers
                self._over_us = micros(over_us, self._scope)
                there = pixels(x, self._scope), pixels(y, self._scope)
                self._ask(lambda ticket: AskPlace(*there, origin, size, ticket), acts)
            case Text(text=text, secret=secret):
                self._typing_us = 1_000_000 // max(1, count(op.numbers[0], self._scope, MAX_RATE))
                self._secret = bool(secret)
                self._ask(lambda ticket: AskText(text, secret, ticket), acts)
            case Open(command=command):
                acts.append(Act("", 0, self.due_us, OpenProgram(command)))

    def _move_on(self, glide: _Glide, acts: list[Act]) -> None:
        """Make the next part of a move."""
        made, parts, where = glide.made + 1, glide.parts, glide.where
        if where.screen is None:
            # Each part by itself, so that none of a pixel is lost on the way.
            x, y = (side * made // parts - side * (made - 1) // parts for side in where.target)
        else:
            start = where.pointer or where.target
            x, y = (a + round((b - a) * made / parts) for a, b in zip(start, where.target, strict=True))
        acts.append(Act("", 0, self.due_us, MovePointer(x, y, where.screen)))
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
            if op.control not in self._open:
                # A formula failed in the midst of a tap at the end, and it was let go then.
                return
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
        if self._last_run or (self.runs_wanted is not None and self.runs >= self.runs_wanted):
            self.phase = Phase.LEAD_OUT
            return
        self.due_us += self._pause_us
        if self.due_us - self._run_start_us < MIN_CYCLE_US:
            self.due_us = self._run_start_us + MIN_CYCLE_US
        self._run_start_us = self.due_us


def _place(value: object) -> int:
    assert isinstance(value, int)
    return value


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
