"""The shortest timing with which a game can't miss a press.

Two rules: what a macro presses stays down for at least L, and stays up for at least L before it goes down again. They
hold for each control by itself, so all that passes between a release and the next press of the same control counts,
whatever happens meanwhile.

The macro is gone through once in the order in which it plays, and with it, for each control, the least time since it
went down or up over all ways that lead there. What is missing is added just before the event that would come too early:
to the hold of its tap, to the wait before it, or as a new wait. So late it also serves every rule that has begun
before, and no shorter timing keeps them all (the greedy answer to the stabbing of intervals by points: M. C. Golumbic,
Algorithmic Graph Theory and Perfect Graphs, 1980, chapter 8). Steps that repeat are gone through as if all before them
was long ago; what their first events need is then seen to at their end, for the next turn, and before them, for the
first. At the end of the macro's loop that is its pause.

On a circle the greedy answer can be longer than it must be: a wait before the loop's first events can serve another
rule, too, where the pause doesn't. So shorter pauses are tried, and the shortest whole is taken. The tests compare it
with linear programming.
"""

from __future__ import annotations

import ast
from collections.abc import Sequence

import msgspec

from nakrel.core.model.limits import MAX_FORMULA
from nakrel.core.model.macro import Macro, Mode
from nakrel.core.model.steps import (
    Chord,
    If,
    Note,
    Otherwise,
    PickOne,
    Pointer,
    Press,
    Release,
    Repeat,
    Set,
    Step,
    Tap,
    Text,
    Wait,
)
from nakrel.core.model.units import format_ms

__all__ = ["make_safe"]


# Pauses that are tried for a loop.
_MOST_PAUSES = 8
# How often a loop is gone through again for what its first run needs.
_MOST_ROUNDS = 4


class _Since(msgspec.Struct):
    """When a control last went down and up in the steps that are gone through, by the clock of the pass: the latest
    that can be, None where it can't have been the last event. `was_down`, `was_up`: it may be as it was before them."""

    down: int | None = None
    up: int | None = None
    was_down: bool = False
    was_up: bool = False


class _State:
    """Where a pass is: its clock, which shows the least time since the steps began, and what it knows of each control.

    `presses` and `releases` are how long after that moment the first ones of each control come at least.
    """

    def __init__(self, controls: dict[str, _Since] | None = None) -> None:
        self.now = 0
        self.controls: dict[str, _Since] = controls or {}
        self.presses: dict[str, int] = {}
        self.releases: dict[str, int] = {}

    def copy(self) -> _State:
        """Another that goes on from here; what comes first is known to both."""
        made = _State({key: msgspec.structs.replace(each) for key, each in self.controls.items()})
        made.now, made.presses, made.releases = self.now, self.presses, self.releases
        return made

    def of(self, control: str) -> _Since:
        """What is known of a control."""
        return self.controls.setdefault(control, _Since(was_up=True))

    def join(self, other: _State) -> None:
        """Either has come about."""
        now = min(self.now, other.now)
        for control in {*self.controls, *other.controls}:
            mine, its = self.of(control), other.of(control)
            mine.down = _later(mine.down, now - self.now, its.down, now - other.now)
            mine.up = _later(mine.up, now - self.now, its.up, now - other.now)
            mine.was_down |= its.was_down
            mine.was_up |= its.was_up
        self.now = now


def _later(mine: int | None, mine_by: int, its: int | None, its_by: int) -> int | None:
    known = [at + by for at, by in ((mine, mine_by), (its, its_by)) if at is not None]
    return max(known, default=None)


class _Pass:
    """One way through a macro, which makes it anew with what is missing at each place."""

    def __init__(self, least_us: int) -> None:
        self.least_us = least_us

    # What is missing before an event

    def lack(self, state: _State, controls: Sequence[str], after: int = 0, *, press: bool) -> int:
        """How much too early the controls would go down (or up) if they went `after` from now."""
        lack = 0
        for control in controls:
            since = state.of(control)
            last, was = (since.up, since.was_up) if press else (since.down, since.was_down)
            if was:
                first = state.presses if press else state.releases
                first[control] = min(state.now + after, first.get(control, state.now + after))
            if last is not None:
                lack = max(lack, self.least_us - (state.now + after - last))
        return lack

    def _go(self, state: _State, controls: Sequence[str], *, press: bool) -> None:
        for control in controls:
            since = state.of(control)
            # What is down already stays down, since when it was.
            if press and (since.up is not None or since.was_up):
                state.controls[control] = _Since(down=state.now)
            elif not press and (since.down is not None or since.was_down):
                state.controls[control] = _Since(up=state.now)

    def wait(self, done: list[Step], state: _State, lack: int) -> None:
        """Have that much more time pass after the steps that are done."""
        if lack <= 0:
            return
        state.now += lack
        for place in range(len(done) - 1, -1, -1):
            step = done[place]
            if isinstance(step, Wait) and not step.off:
                if longer := _longer_wait(step, lack):
                    done[place] = longer
                    return
                break
            if not (step.off or isinstance(step, Note | Set)):
                break
        done.append(Wait(wait_us=lack))

    # Steps

    def over(self, steps: Sequence[Step], state: _State) -> list[Step]:
        """The steps with what is missing; the state goes along."""
        done: list[Step] = []
        for step in steps:
            match step:
                case _ if not _plays(step):
                    done.append(step)
                case Wait(wait_us=us):
                    state.now += _least(us)
                    done.append(step)
                case Press(control=control) | Release(control=control):
                    press = isinstance(step, Press)
                    self.wait(done, state, self.lack(state, (control,), press=press))
                    self._go(state, (control,), press=press)
                    done.append(step)
                case Tap(control=control):
                    self._hold(done, state, step, (control,))
                case Chord(controls=controls):
                    self._hold(done, state, step, controls)
                case Repeat():
                    self._repeat(done, state, step)
                case PickOne() | If():
                    done.append(self._options(step, state))
                case _:
                    state.now += _least_length_us(step)
                    done.append(step)
        return done

    def _hold(self, done: list[Step], state: _State, step: Tap | Chord, controls: Sequence[str]) -> None:
        self.wait(done, state, self.lack(state, controls, press=True))
        self._go(state, controls, press=True)
        hold_us = _least(step.hold_us)
        lack = max(0, self.lack(state, controls, hold_us, press=False))
        state.now += hold_us + lack
        self._go(state, controls, press=False)
        done += _held_longer(step, controls, lack)

    def _options(self, step: PickOne | If, state: _State) -> Step:
        """Each option by itself; after it, whichever leaves the least time."""
        before = state.copy()
        ends: list[_State] = []

        def option(steps: tuple[Step, ...]) -> tuple[Step, ...]:
            ends.append(before.copy())
            return tuple(self.over(steps, ends[-1]))

        made: Step
        if isinstance(step, PickOne):
            options = tuple(msgspec.structs.replace(each, steps=option(each.steps)) for each in step.branches)
            made = msgspec.structs.replace(step, branches=options)
        else:
            # What a new wait changes in an option leaves its condition as it was.
            otherwise = Otherwise(steps=option(step.otherwise.steps)) if step.otherwise else None
            made = msgspec.structs.replace(step, steps=option(step.steps), otherwise=otherwise)
            if not otherwise:
                ends.append(before)
        first, *rest = ends
        for each in rest:
            first.join(each)
        state.now, state.controls = first.now, first.controls
        return made

    def _repeat(self, done: list[Step], state: _State, step: Repeat) -> None:
        again = not isinstance(step.times, int) or step.times > 1
        before = state.copy()
        inside, end = self.turn(step.steps, state, again=again)
        if again:
            self.wait(inside, end, self.missing(end, end))
        self.wait(done, state, self.missing(state, end))
        done.append(msgspec.structs.replace(step, steps=tuple(inside)))
        self.after(state, end, step.times if isinstance(step.times, int) else 2)
        if not isinstance(step.times, int):
            # It may be left out as a whole.
            state.join(before)

    def turn(self, steps: Sequence[Step], state: _State, *, again: bool) -> tuple[list[Step], _State]:
        """The steps gone through by themselves, and how they end. At their beginning each control is down or up as in
        `state`, or (`again`) as at their end."""
        entry = {
            key: _Since(was_down=each.was_down or each.down is not None, was_up=each.was_up or each.up is not None)
            for key, each in state.controls.items()
        }
        while True:
            end = _State({key: msgspec.structs.replace(each) for key, each in entry.items()})
            made = self.over(steps, end)
            changed = False
            for key, each in end.controls.items() if again else ():
                mine = entry.setdefault(key, _Since(was_up=True))
                down, up = mine.was_down or each.down is not None, mine.was_up or each.up is not None
                changed |= (down, up) != (mine.was_down, mine.was_up)
                mine.was_down, mine.was_up = down, up
            if not changed:
                return made, end

    def lacks(self, state: _State, begun: _State) -> list[int]:
        """How much time is missing before steps whose first events are those of `begun`, for each of these."""
        presses = [self.lack(state, (control,), after, press=True) for control, after in list(begun.presses.items())]
        return presses + [
            self.lack(state, (control,), after, press=False) for control, after in list(begun.releases.items())
        ]

    def missing(self, state: _State, begun: _State) -> int:
        """How much time is missing before steps whose first events are those of `begun`."""
        return max(self.lacks(state, begun), default=0)

    def after(self, state: _State, end: _State, turns: int) -> None:
        """Go on after steps that have played so many times and end so."""
        state.now += end.now * turns
        back = state.now - end.now
        for control, each in end.controls.items():
            mine = state.of(control)
            touched = turns > 1 and (each.down is not None or each.up is not None)
            down = None if each.down is None else each.down + back
            up = None if each.up is None else each.up + back
            # What only some turns touch may be since an earlier one as it is.
            if each.was_down:
                down = max((at for at in (down, mine.down, back if touched else None) if at is not None), default=None)
            if each.was_up:
                up = max((at for at in (up, mine.up, back if touched else None) if at is not None), default=None)
            was_down, was_up = each.was_down and mine.was_down, each.was_up and mine.was_up
            state.controls[control] = _Since(down, up, was_down, was_up)


def _plays(step: Step) -> bool:
    """Whether anything comes of it: repeating nothing takes no time."""
    return (
        not step.off
        and not isinstance(step, Note)
        and not (isinstance(step, Repeat) and not any(map(_plays, step.steps)))
    )


def _least_length_us(step: Step) -> int:
    match step:
        case Pointer(over_us=us):
            return _least(us)
        case Text(text=text, rate=int(rate)):
            return len(text) * (1_000_000 // rate)
    return 0


# What becomes longer


def _least(value: int | str) -> int:
    """The least that a time can be, in microseconds; 0 for a formula that isn't the greater of something and a
    number of milliseconds."""
    if isinstance(value, int):
        return value
    call = ast.parse(value.strip(), mode="eval").body
    if not (isinstance(call, ast.Call) and isinstance(call.func, ast.Name) and call.func.id == "max"):
        return 0
    numbers = [each.value for each in call.args if isinstance(each, ast.Constant)]
    return max((round(each * 1_000) for each in numbers if isinstance(each, int | float)), default=0)


def _more(value: int | str, lack: int) -> int | str | None:
    """A time that is at least so much longer than its least; None where its text would be too long."""
    if isinstance(value, int):
        return value + lack
    longer = f"max({value}, {format_ms(_least(value) + lack)})"
    return longer if len(longer) <= MAX_FORMULA else None


def _longer_wait(step: Wait, lack: int) -> Wait | None:
    least, most = _more(step.wait_us, lack), step.most_us
    if isinstance(most, str):
        most = _more(most, lack)
    elif isinstance(most, int) and isinstance(least, int):
        most = max(most, least)
    if least is None or (most is None) != (step.most_us is None):
        return None
    return msgspec.structs.replace(step, wait_us=least, most_us=most)


def _held_longer(step: Tap | Chord, controls: Sequence[str], lack: int) -> list[Step]:
    if not lack:
        return [step]
    if (hold_us := _more(step.hold_us, lack)) is not None:
        return [msgspec.structs.replace(step, hold_us=hold_us)]
    first, *rest = [Press(control=each) for each in controls]
    waits = (Wait(wait_us=step.hold_us), Wait(wait_us=lack))
    releases = [Release(control=each) for each in reversed(controls)]
    return [msgspec.structs.replace(first, remark=step.remark), *rest, *waits, *releases]


# The macro


class _Loop(msgspec.Struct):
    """A loop with what was missing in it, the pause after it, and how it ends."""

    steps: tuple[Step, ...]
    pause_us: int
    end: _State

    @property
    def cycle_us(self) -> int:
        """From one run's start to the next."""
        return self.end.now + self.pause_us


def make_safe(macro: Macro, least_us: int) -> Macro:
    """The macro with whatever it presses down for at least `least_us`, and up for so long before it goes down again,
    in the shortest time in which that can be; no time in it becomes shorter.

    A formula's time becomes the greater of its own and what is needed. Raises `LimitError` where the macro would have
    too many steps.
    """
    walk = _Pass(least_us)
    state = _State()
    lead_in = walk.over(macro.lead_in, state)
    again = macro.play.mode is not Mode.SINGLE and not (macro.play.mode is Mode.COUNTED and macro.play.runs == 1)
    if again:
        loop = _looped(walk, macro, state)
    else:
        steps, end = walk.turn(macro.loop, state, again=False)
        loop = _Loop(tuple(steps), macro.play.pause_us, end)
    walk.wait(lead_in, state, walk.missing(state, loop.end))
    walk.after(state, loop.end, 2 if again else 1)
    lead_out = walk.over(macro.lead_out, state)
    # What is still down goes up with the macro's end.
    last = lead_out if again or lead_out else list(loop.steps)
    walk.wait(last, state, walk.lack(state, list(state.controls), press=False))
    if not again and not lead_out:
        loop.steps = tuple(last)
    return msgspec.structs.replace(
        macro,
        play=msgspec.structs.replace(macro.play, pause_us=loop.pause_us),
        lead_in=tuple(lead_in),
        loop=loop.steps,
        lead_out=tuple(lead_out),
    )


def _looped(walk: _Pass, macro: Macro, before: _State) -> _Loop:
    """The loop with the pause that the next run's first events need; or with a shorter one, and waits before those,
    where these serve other rules as well and the whole is shorter."""
    steps, end = walk.turn(macro.loop, before, again=True)
    least_us = macro.play.pause_us
    lacks = walk.lacks(_advanced(end, least_us), end)
    best = _Loop(tuple(steps), least_us + max(lacks, default=0), end)
    for lack in sorted({0, *lacks})[:_MOST_PAUSES]:
        pause_us = least_us + lack
        if pause_us >= best.pause_us:
            break
        made = walk.over(macro.loop, _advanced(end, pause_us))
        # The first run, before which all is as before the loop, may need more than those that follow on another.
        for _ in range(_MOST_ROUNDS):
            made, its_end = walk.turn(before_it := made, before, again=True)
            if made == before_it:
                more_us = walk.missing(_advanced(its_end, pause_us), its_end)
                best = min(best, _Loop(tuple(made), pause_us + more_us, its_end), key=lambda each: each.cycle_us)
                break
    return best


def _advanced(state: _State, by_us: int) -> _State:
    made = state.copy()
    made.now += by_us
    made.presses, made.releases = {}, {}
    return made
