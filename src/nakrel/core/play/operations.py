"""A macro compiled for playing: its sections as flat operations, blocks as jumps."""

from __future__ import annotations

from collections.abc import Iterable
from enum import IntEnum
from typing import NamedTuple

from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import (
    Chord,
    If,
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


class Op(NamedTuple):
    """One operation. `value` is notches for a wheel, microseconds for a wait, how often for a repeat, and the place to
    go to for a jump and for the end of a repeat; `more` is the longest time of a random wait, the end of a repeat, and
    for a pick the weights with the place of each branch. Numbers that are texts are formulas."""

    code: OpCode
    control: str = ""
    value: int | str = 0
    more: int | str = 0
    weights: tuple[int | str, ...] = ()
    places: tuple[int, ...] = ()
    step: Step | None = None


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
                ops.append(Op(OpCode.DOWN, step.control))
            case Release():
                ops.append(Op(OpCode.UP, step.control))
            case Wait(most_us=None):
                ops.append(Op(OpCode.WAIT, "", step.wait_us))
            case Wait():
                ops.append(Op(OpCode.RANDOM, "", step.wait_us, step.most_us or 0))
            case Wheel():
                ops.append(Op(OpCode.WHEEL, step.control, step.notches))
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
                ops.append(Op(OpCode.SET, step.variable, step.value))
            case Pointer():
                ops.append(Op(OpCode.POINTER, step=step))
            case Text():
                ops.append(Op(OpCode.TEXT, step=step))
            case Open():
                ops.append(Op(OpCode.OPEN, step=step))
            case Note():
                pass


def _append_hold(controls: tuple[str, ...], hold_us: int | str, ops: list[Op]) -> None:
    ops += [Op(OpCode.TAP_DOWN, control) for control in controls]
    ops.append(Op(OpCode.WAIT, "", hold_us))
    ops += [Op(OpCode.TAP_UP, control) for control in reversed(controls)]


def _append_repeat(step: Repeat, ops: list[Op]) -> None:
    start = len(ops)
    ops.append(Op(OpCode.REPEAT, "", step.times))
    _append(step.steps, ops)
    if len(ops) == start + 1:
        ops.pop()
    else:
        ops.append(Op(OpCode.AGAIN, "", start + 1))
        ops[start] = Op(OpCode.REPEAT, "", step.times, len(ops))


def _append_if(step: If, ops: list[Op]) -> None:
    start = len(ops)
    ops.append(Op(OpCode.UNLESS))
    _append(step.steps, ops)
    if step.otherwise and step.otherwise.steps:
        end = len(ops)
        ops.append(Op(OpCode.JUMP))
        ops[start] = Op(OpCode.UNLESS, step.condition, len(ops))
        _append(step.otherwise.steps, ops)
        ops[end] = Op(OpCode.JUMP, "", len(ops))
    else:
        ops[start] = Op(OpCode.UNLESS, step.condition, len(ops))


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
    ops[start] = Op(OpCode.PICK, weights=tuple(branch.weight for branch in step.branches), places=tuple(places))


def compile_macro(macro: Macro) -> Plan:
    """Flatten a macro's sections; steps that are switched off are left out."""
    return Plan(macro.id, _compile(macro.lead_in), _compile(macro.loop), _compile(macro.lead_out))
