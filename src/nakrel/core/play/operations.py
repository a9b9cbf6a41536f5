"""A macro compiled for playing: its sections as flat operations, blocks as jumps."""

from __future__ import annotations

from collections.abc import Iterable
from enum import IntEnum
from typing import NamedTuple

from nakrel.core.model.formulas import Formula, compiled
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import (
    Chord,
    If,
    Line,
    Note,
    Open,
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
    Wheel,
    formulas_of,
)

__all__ = ["OpCode", "Op", "Plan", "compile_macro"]


class OpCode(IntEnum):
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
    UNLESS = 11
    SET = 12
    POINTER = 13
    TEXT = 14
    OPEN = 15
    LOOK = 16


# A number, or the formula that gives it.
Number = int | Formula


def _number(number: int | str) -> Number:
    return compiled(number) if isinstance(number, str) else number


class Op(NamedTuple):
    """One operation. `value` is notches for a wheel, microseconds for a wait, how often for a repeat, and the place to
    go to for a jump and for the end of a repeat; `more` is the longest time of a random wait, the end of a repeat, and
    for a pick the weights with the place of each branch. `value` is the formula of a set and of an if, and `numbers`
    are those of a pointer step (x, y, time) and of a text (rate). Formulas have been read: the
    engine's thread reads none."""

    code: OpCode
    control: str = ""
    value: Number = 0
    more: Number = 0
    weights: tuple[Number, ...] = ()
    places: tuple[int, ...] = ()
    step: Step | None = None
    numbers: tuple[Number, ...] = ()


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
        if _asks_pointer(step):
            ops.append(Op(OpCode.LOOK))
        match step:
            case Press():
                ops.append(Op(OpCode.DOWN, step.control))
            case Release():
                ops.append(Op(OpCode.UP, step.control))
            case Wait(most_us=None):
                ops.append(Op(OpCode.WAIT, "", _number(step.wait_us)))
            case Wait():
                ops.append(Op(OpCode.RANDOM, "", _number(step.wait_us), _number(step.most_us or 0)))
            case Wheel():
                ops.append(Op(OpCode.WHEEL, step.control, _number(step.notches)))
            case Tap():
                _append_hold((step.control,), step.hold_us, ops)
            case Chord():
                _append_hold(step.controls, step.hold_us, ops)
            case Repeat():
                _append_repeat(step, ops)
            case PickOne():
                _append_pick(step, ops)
            case If():
                _append_if(step, ops)
            case Set():
                ops.append(Op(OpCode.SET, step.variable, _number(step.value)))
            case Pointer():
                numbers = (_number(step.x), _number(step.y), _number(step.over_us))
                ops.append(Op(OpCode.POINTER, step=step, numbers=numbers))
            case Text():
                ops.append(Op(OpCode.TEXT, step=step, numbers=(_number(step.rate),)))
            case Open():
                ops.append(Op(OpCode.OPEN, step=step))
            case Note():
                pass


def _asks_pointer(step: Step) -> bool:
    """Whether a formula of the step asks where the pointer is: that is found out first."""
    lines: tuple[Line, ...] = (step, *step.branches) if isinstance(step, PickOne) else (step,)
    return any(compiled(text).asks_pointer for line in lines for text in formulas_of(line))


def _append_hold(controls: tuple[str, ...], hold_us: int | str, ops: list[Op]) -> None:
    ops += [Op(OpCode.TAP_DOWN, control) for control in controls]
    ops.append(Op(OpCode.WAIT, "", _number(hold_us)))
    ops += [Op(OpCode.TAP_UP, control) for control in reversed(controls)]


def _append_repeat(step: Repeat, ops: list[Op]) -> None:
    start = len(ops)
    ops.append(Op(OpCode.REPEAT, "", _number(step.times)))
    _append(step.steps, ops)
    if len(ops) == start + 1:
        ops.pop()
    else:
        ops.append(Op(OpCode.AGAIN, "", start + 1))
        ops[start] = Op(OpCode.REPEAT, "", _number(step.times), len(ops))


def _append_if(step: If, ops: list[Op]) -> None:
    start = len(ops)
    ops.append(Op(OpCode.UNLESS))
    _append(step.steps, ops)
    if step.otherwise and step.otherwise.steps:
        end = len(ops)
        ops.append(Op(OpCode.JUMP))
        ops[start] = Op(OpCode.UNLESS, value=compiled(step.condition), places=(len(ops),))
        _append(step.otherwise.steps, ops)
        ops[end] = Op(OpCode.JUMP, "", len(ops))
    else:
        ops[start] = Op(OpCode.UNLESS, value=compiled(step.condition), places=(len(ops),))


def _append_pick(step: PickOne, ops: list[Op]) -> None:
    start = len(ops)
    ops.append(Op(OpCode.PICK))
    places, ends = [], []
    for branch in step.branches:
        places.append(len(ops))
        _append(branch.steps, ops)
        ends.append(len(ops))
        ops.append(Op(OpCode.JUMP))
    for end in ends:
        ops[end] = Op(OpCode.JUMP, "", len(ops))
    weights = tuple(_number(branch.weight) for branch in step.branches)
    ops[start] = Op(OpCode.PICK, weights=weights, places=tuple(places))


def compile_macro(macro: Macro) -> Plan:
    """Flatten a macro's sections; steps that are switched off are left out."""
    return Plan(macro.id, _compile(macro.lead_in), _compile(macro.loop), _compile(macro.lead_out))
