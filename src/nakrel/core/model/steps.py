"""The steps that a macro is made of: frozen values, checked when they are made.

A block is a step with steps inside. Steps inside lie in *branches*: a repeat block has one, a pick-one block several,
an if block one or two.

A number in a step may be a formula instead, a text: what it gives is a number of milliseconds where a time is wanted.
"""

from __future__ import annotations

from collections.abc import Iterator
from enum import StrEnum
from typing import Annotated

import msgspec

from nakrel.core.model.controls import CONTROLS, Code, Kind, control, label
from nakrel.core.model.errors import DataError
from nakrel.core.model.formulas import (
    BUILT_IN,
    FUNCTIONS,
    FormulaError,
    FormulaText,
    VariableName,
    check_readable,
    compiled,
)
from nakrel.core.model.limits import (
    MAX_CHORD,
    MAX_DEPTH,
    MAX_NOTCHES,
    MAX_OPTIONS,
    MAX_PIXELS,
    MAX_SIDE,
    MAX_WAIT_US,
    MAX_WEIGHT,
    Command,
    Comment,
    Count,
    LongText,
    Rate,
    SecretName,
    WaitUs,
)
from nakrel.core.model.units import shown_ms
from nakrel.core.model.value import Value
from nakrel.words import tr

__all__ = [
    "BLOCKS",
    "FORMULAS",
    "Branch",
    "Chord",
    "If",
    "Line",
    "Note",
    "Open",
    "Otherwise",
    "PickOne",
    "Pointer",
    "Press",
    "Release",
    "Repeat",
    "Set",
    "Step",
    "Tap",
    "Text",
    "Wait",
    "Option",
    "Origin",
    "Wheel",
    "branches",
    "formulas_of",
    "walk",
]

Notches = Annotated[int, msgspec.Meta(ge=1, le=MAX_NOTCHES)] | FormulaText
Weight = Annotated[int, msgspec.Meta(ge=1, le=MAX_WEIGHT)] | FormulaText
Times = Count | FormulaText
Us = WaitUs | FormulaText
Pixels = Annotated[int, msgspec.Meta(ge=-MAX_PIXELS, le=MAX_PIXELS)] | FormulaText
Side = Annotated[int, msgspec.Meta(ge=1, le=MAX_SIDE)]


class _Base(
    Value,
    frozen=True,
    kw_only=True,
    tag_field="step",
    omit_defaults=True,
    forbid_unknown_fields=True,
):
    """What every step carries: a remark, and `off` for a step that is kept but not played."""

    remark: Comment = ""
    off: bool = False


def _read_formulas(line: Line) -> None:
    """Raise `FormulaError` for a formula that can't be read; one with names of the session's language gets those that
    are read in all of them."""
    for name in FORMULAS[type(line)]:
        if isinstance(number := getattr(line, name), str) and (kept := check_readable(number)) != number:
            msgspec.structs.force_setattr(line, name, kept)


def _needs_switch(code: str, step: str) -> None:
    if control(code).kind is Kind.WHEEL:
        raise DataError(
            tr("a {step} needs a key or a button, and {code} is a wheel direction; use a wheel step").format(
                step=step, code=label(code)
            )
        )


# A long macro is made of presses, releases, taps and waits, and is made anew from what each edit sends: these four see
# at a glance that nothing is wrong.
_SWITCHES = frozenset(code for code, each in CONTROLS.items() if each.kind is not Kind.WHEEL)


def _is_time(number: int | str) -> bool:
    return type(number) is int and 0 <= number <= MAX_WAIT_US


class Press(_Base, frozen=True, tag="press", kw_only=True):
    """The control goes down."""

    control: Code

    def __post_init__(self) -> None:
        if self.control not in _SWITCHES or self.remark:
            super().__post_init__()
            _needs_switch(self.control, "press")


class Release(_Base, frozen=True, tag="release", kw_only=True):
    """The control goes up."""

    control: Code

    def __post_init__(self) -> None:
        if self.control not in _SWITCHES or self.remark:
            super().__post_init__()
            _needs_switch(self.control, "release")


class Tap(_Base, frozen=True, tag="tap", kw_only=True):
    """The control goes down, is held for `hold_us`, and goes up; it takes that long."""

    control: Code
    hold_us: Us

    def __post_init__(self) -> None:
        if not _is_time(self.hold_us) or self.control not in _SWITCHES or self.remark:
            super().__post_init__()
            _needs_switch(self.control, "tap")
            _read_formulas(self)


class Chord(_Base, frozen=True, tag="chord", kw_only=True):
    """The controls go down in order, are held for `hold_us`, and go up in reverse order; it takes that long."""

    controls: Annotated[tuple[Code, ...], msgspec.Meta(min_length=2, max_length=MAX_CHORD)]
    hold_us: Us

    def __post_init__(self) -> None:
        super().__post_init__()
        _read_formulas(self)
        for code in self.controls:
            _needs_switch(code, "chord")
        if len(set(self.controls)) != len(self.controls):
            raise DataError(tr("a combination holds each key once; take out the one that is there twice"))


class Wait(_Base, frozen=True, tag="wait", kw_only=True):
    """Nothing happens for `wait_us`; with `most_us` for a random time between both, each as likely as any other."""

    wait_us: Us
    most_us: Us | None = None

    def __post_init__(self) -> None:
        if self.most_us is None and _is_time(self.wait_us) and not self.remark:
            return
        super().__post_init__()
        _read_formulas(self)
        if isinstance(self.most_us, int) and isinstance(self.wait_us, int) and self.most_us < self.wait_us:
            raise DataError(
                tr(
                    "a random wait goes from the shorter time to the longer one, not from {wait_us} ms to {most_us} ms"
                ).format(wait_us=shown_ms(self.wait_us), most_us=shown_ms(self.most_us))
            )


class Wheel(_Base, frozen=True, tag="wheel", kw_only=True):
    """The wheel turns by `notches` in the direction that `control` names (WHEEL_UP, ...)."""

    control: Code
    notches: Notches = 1

    def __post_init__(self) -> None:
        super().__post_init__()
        _read_formulas(self)
        if control(self.control).kind is not Kind.WHEEL:
            raise DataError(
                tr("a turn needs Wheel up, Wheel down, Wheel left or Wheel right, not {control}").format(
                    control=label(self.control)
                )
            )


class Origin(StrEnum):
    """Where a pointer step's place is counted from: the screen's top left corner, that of the window in front, or where
    the pointer is."""

    SCREEN = "screen"
    WINDOW = "window"
    POINTER = "pointer"


class Pointer(_Base, frozen=True, tag="pointer", kw_only=True):
    """The pointer goes to (`x`, `y`) in pixels, over `over_us`.

    `size` is the width and height of the screen or window that the place was picked on; on one of another size the
    place is scaled. Without it the pixels count as they are.
    """

    x: Pixels
    y: Pixels
    # Files have kept this key since their first version.
    origin: Origin = msgspec.field(default=Origin.SCREEN, name="whence")
    size: tuple[Side, Side] | None = None
    over_us: Us = 0

    def __post_init__(self) -> None:
        super().__post_init__()
        _read_formulas(self)
        if self.size and self.origin is Origin.POINTER:
            raise DataError(tr("an offset is not scaled; leave the size out"))


class Text(_Base, frozen=True, tag="text", kw_only=True):
    """A text is typed at `rate` characters a second. With `secret` it is the one that the desktop's keyring keeps under
    this name, and stands nowhere else."""

    text: LongText = ""
    rate: Rate | FormulaText = 30
    secret: SecretName = ""

    def __post_init__(self) -> None:
        super().__post_init__()
        _read_formulas(self)
        if self.secret and self.text:
            raise DataError(tr("a secret text stands in the keyring and not in the macro; leave the text out"))


class Open(_Base, frozen=True, tag="open", kw_only=True):
    """A program is started, or where it has a window already, that comes to the front. `command` is the program and
    its arguments; no shell reads it."""

    command: Command


class Set(_Base, frozen=True, tag="set", kw_only=True):
    """A variable gets what the formula gives. It lasts as long as the macro runs; before it is set it is 0."""

    variable: VariableName
    value: FormulaText

    def __post_init__(self) -> None:
        super().__post_init__()
        _read_formulas(self)
        if self.variable in BUILT_IN or self.variable in FUNCTIONS:
            raise DataError(
                tr("{variable!r} has a meaning already; choose another name for the variable").format(
                    variable=self.variable
                )
            )
        try:
            names = compiled(self.variable).names
        except FormulaError:
            names = set()
        if names != {self.variable}:
            raise DataError(
                tr("{variable!r} is a word of formulas; choose another name for the variable").format(
                    variable=self.variable
                )
            )


class Note(_Base, frozen=True, tag="note", kw_only=True):
    """A line for people; it does nothing."""

    text: Comment


class Repeat(_Base, frozen=True, tag="repeat", kw_only=True):
    """The steps inside play `times` times."""

    times: Times
    steps: tuple[Step, ...] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        _read_formulas(self)
        _not_too_deep(self)


class Branch(Value, frozen=True, kw_only=True, omit_defaults=True, forbid_unknown_fields=True):
    """One of the ways that a pick-one block may go; twice the weight is twice as likely."""

    weight: Weight = 1
    steps: tuple[Step, ...] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        _read_formulas(self)


class PickOne(_Base, frozen=True, tag="pick_one", kw_only=True):
    """One of the branches plays, at random by weight."""

    branches: Annotated[tuple[Branch, ...], msgspec.Meta(min_length=1, max_length=MAX_OPTIONS)]

    def __post_init__(self) -> None:
        super().__post_init__()
        _not_too_deep(self)


class Otherwise(Value, frozen=True, kw_only=True, omit_defaults=True, forbid_unknown_fields=True):
    """What an if block plays where its condition doesn't hold."""

    steps: tuple[Step, ...] = ()


class If(_Base, frozen=True, tag="if", kw_only=True):
    """The steps inside play where the condition holds (its formula gives anything but 0), else those of `otherwise`."""

    condition: FormulaText
    steps: tuple[Step, ...] = ()
    otherwise: Otherwise | None = None

    def __post_init__(self) -> None:
        super().__post_init__()
        _read_formulas(self)
        _not_too_deep(self)


Block = Repeat | PickOne | If
BLOCKS: frozenset[type] = frozenset({Repeat, PickOne, If})
Step = Press | Release | Tap | Chord | Wait | Wheel | Pointer | Text | Open | Repeat | PickOne | If | Set | Note
# A row of its own above the steps of a branch.
Option = Branch | Otherwise
Line = Step | Option


def _not_too_deep(step: Block) -> None:
    if _depth(step) > MAX_DEPTH:
        raise DataError(
            tr("blocks are nested more than {most} deep; move some into a macro of their own").format(most=MAX_DEPTH)
        )


def _depth(step: Step) -> int:
    deepest = 0
    for branch in branches(step):
        for each in branch:
            if type(each) in BLOCKS:
                deepest = max(deepest, _depth(each))
    return 1 + deepest


def branches(step: Step) -> tuple[tuple[Step, ...], ...]:
    """The steps inside, branch by branch; none for a step that is no block."""
    # By kind: `isinstance`, by which `match` goes, takes three times as long, and long macros ask tens of thousands of
    # times.
    kind = type(step)
    if kind is If:
        otherwise = step.otherwise  # type: ignore[union-attr]
        return (step.steps, otherwise.steps) if otherwise else (step.steps,)  # type: ignore[union-attr]
    if kind is Repeat:
        return (step.steps,)  # type: ignore[union-attr]
    if kind is PickOne:
        return tuple(option.steps for option in step.branches)  # type: ignore[union-attr]
    return ()


def walk(steps: tuple[Step, ...]) -> Iterator[Step]:
    """All steps that are on, blocks before what is inside them."""
    for step in steps:
        if not step.off:
            yield step
            for inside in branches(step):
                yield from walk(inside)


_WAIT = ("wait_us", "most_us")
# Where a step or branch may have a formula.
FORMULAS: dict[type, tuple[str, ...]] = {
    Tap: ("hold_us",),
    Chord: ("hold_us",),
    Wheel: ("notches",),
    Repeat: ("times",),
    Text: ("rate",),
    Branch: ("weight",),
    If: ("condition",),
    Set: ("value",),
    Wait: _WAIT,
    Pointer: ("x", "y", "over_us"),
}


def formulas_of(line: Line) -> tuple[str, ...]:
    """The formulas of a step or branch, without those inside a block."""
    names = FORMULAS.get(type(line))
    if names is None:
        return ()
    if len(names) == 1:
        number = getattr(line, names[0])
        return (number,) if type(number) is str else ()
    if names is _WAIT and type(line.wait_us) is int and line.most_us is None:  # type: ignore[union-attr]
        return ()
    return tuple(number for name in names if type(number := getattr(line, name)) is str)
