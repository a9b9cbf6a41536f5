"""The steps that a macro is made of: frozen values, checked when they are made.

A block is a step with steps inside. Steps inside lie in *branches*: a repeat block has one, a pick-one block several.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated

import msgspec

from nakrel.core.controls import Code, Kind, control, label
from nakrel.core.errors import DataError
from nakrel.core.units import Count, WaitUs, format_ms

__all__ = [
    "Branch",
    "Chord",
    "Note",
    "PickOne",
    "Press",
    "Release",
    "Repeat",
    "Step",
    "Tap",
    "Wait",
    "Wheel",
    "branches",
    "describe",
    "length_us",
    "turn_us",
    "walk",
]

Notches = Annotated[int, msgspec.Meta(ge=1, le=1_000)]
Weight = Annotated[int, msgspec.Meta(ge=1, le=1_000)]
# Deep enough for anything that people can still read.
MAX_DEPTH = 8
# What a turn of a repeat block takes at least: one without any time in it would never let the machine go.
LEAST_TURN_US = 1_000


class _Base(
    msgspec.Struct,
    frozen=True,
    kw_only=True,
    tag_field="step",
    omit_defaults=True,
    forbid_unknown_fields=True,
):
    """What every step carries: a remark, and `off` for a step that is kept but not played."""

    remark: str = ""
    off: bool = False


def _needs_switch(code: str, step: str) -> None:
    if control(code).kind is Kind.WHEEL:
        raise DataError(f"a {step} needs a key or a button, and {code} is a wheel direction; use a wheel step")


class Press(_Base, frozen=True, tag="press", kw_only=True):
    """The control goes down."""

    control: Code

    def __post_init__(self) -> None:
        _needs_switch(self.control, "press")


class Release(_Base, frozen=True, tag="release", kw_only=True):
    """The control goes up."""

    control: Code

    def __post_init__(self) -> None:
        _needs_switch(self.control, "release")


class Tap(_Base, frozen=True, tag="tap", kw_only=True):
    """The control goes down, is held for `hold_us`, and goes up; it takes that long."""

    control: Code
    hold_us: WaitUs

    def __post_init__(self) -> None:
        _needs_switch(self.control, "tap")


class Chord(_Base, frozen=True, tag="chord", kw_only=True):
    """The controls go down in order, are held for `hold_us`, and go up in reverse order; it takes that long."""

    controls: Annotated[tuple[Code, ...], msgspec.Meta(min_length=2, max_length=8)]
    hold_us: WaitUs

    def __post_init__(self) -> None:
        for code in self.controls:
            _needs_switch(code, "chord")
        if len(set(self.controls)) != len(self.controls):
            raise DataError("a chord holds each control once; take out the one that is there twice")


class Wait(_Base, frozen=True, tag="wait", kw_only=True):
    """Nothing happens for `wait_us`; with `most_us` for a random time between both, each as likely as any other."""

    wait_us: WaitUs
    most_us: WaitUs | None = None

    def __post_init__(self) -> None:
        if self.most_us is not None and self.most_us < self.wait_us:
            raise DataError(
                f"a random wait goes from the shorter time to the longer one, not from {format_ms(self.wait_us)} ms "
                f"to {format_ms(self.most_us)} ms"
            )


class Wheel(_Base, frozen=True, tag="wheel", kw_only=True):
    """The wheel turns by `notches` in the direction that `control` names (WHEEL_UP, ...)."""

    control: Code
    notches: Notches = 1

    def __post_init__(self) -> None:
        if control(self.control).kind is not Kind.WHEEL:
            raise DataError(f"a wheel step needs WHEEL_UP, _DOWN, _LEFT or _RIGHT, not {self.control}")


class Note(_Base, frozen=True, tag="note", kw_only=True):
    """A line for people; it does nothing."""

    text: Annotated[str, msgspec.Meta(max_length=1_000)]


class Repeat(_Base, frozen=True, tag="repeat", kw_only=True):
    """The steps inside play `times` times."""

    times: Count
    steps: tuple[Step, ...] = ()

    def __post_init__(self) -> None:
        _not_too_deep(self)


class Branch(msgspec.Struct, frozen=True, kw_only=True, omit_defaults=True, forbid_unknown_fields=True):
    """One of the ways that a pick-one block may go; twice the weight is twice as likely."""

    weight: Weight = 1
    steps: tuple[Step, ...] = ()


class PickOne(_Base, frozen=True, tag="pick_one", kw_only=True):
    """One of the branches plays, at random by weight."""

    branches: Annotated[tuple[Branch, ...], msgspec.Meta(min_length=1, max_length=100)]

    def __post_init__(self) -> None:
        _not_too_deep(self)


Step = Press | Release | Tap | Chord | Wait | Wheel | Note | Repeat | PickOne


def _not_too_deep(step: Repeat | PickOne) -> None:
    if _depth(step) > MAX_DEPTH:
        raise DataError(f"blocks lie inside each other more than {MAX_DEPTH} deep; make a macro of its own of some")


def _depth(step: Step) -> int:
    inside = [_depth(each) for branch in branches(step) for each in branch if isinstance(each, Repeat | PickOne)]
    return 1 + max(inside, default=0)


def branches(step: Step) -> tuple[tuple[Step, ...], ...]:
    """The steps inside, branch by branch; none for a step that is no block."""
    if isinstance(step, Repeat):
        return (step.steps,)
    if isinstance(step, PickOne):
        return tuple(branch.steps for branch in step.branches)
    return ()


def walk(steps: tuple[Step, ...]) -> Iterator[Step]:
    """All steps that are on, blocks before what is inside them."""
    for step in steps:
        if not step.off:
            yield step
            for inside in branches(step):
                yield from walk(inside)


def length_us(step: Step) -> int:
    """How long the step takes, in microseconds; on average where chance decides, and 0 when it is switched off."""
    if step.off:
        return 0
    match step:
        case Wait(wait_us=wait_us, most_us=most_us):
            return wait_us if most_us is None else (wait_us + most_us) // 2
        case Tap(hold_us=hold_us) | Chord(hold_us=hold_us):
            return hold_us
        case Repeat(times=times):
            return times * turn_us(step)
        case PickOne(branches=ways):
            weighed = sum(way.weight * sum(map(length_us, way.steps)) for way in ways)
            return weighed // sum(way.weight for way in ways)
    return 0


def turn_us(block: Repeat) -> int:
    """How long one turn of the block takes, in microseconds; nothing where it does nothing."""
    acts = any(not isinstance(step, Note | Repeat | PickOne) for step in walk(block.steps))
    return max(LEAST_TURN_US if acts else 0, sum(map(length_us, block.steps)))


def describe(step: Step) -> str:
    """The step in words, as the step list shows it."""
    match step:
        case Press():
            return f"press {label(step.control)}"
        case Release():
            return f"release {label(step.control)}"
        case Tap():
            return f"tap {label(step.control)}"
        case Chord():
            return f"chord {' + '.join(map(label, step.controls))}"
        case Wait(most_us=None):
            return f"wait {format_ms(step.wait_us)} ms"
        case Wait():
            return f"wait {format_ms(step.wait_us)} to {format_ms(step.most_us or 0)} ms"
        case Wheel():
            return f"{label(step.control).lower()} {step.notches}"
        case Note():
            return f"note: {step.text}"
        case Repeat():
            return f"repeat {step.times} times"
        case PickOne():
            return "pick one"
