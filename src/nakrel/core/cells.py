"""Cells: what a control can do in a sheet."""

from __future__ import annotations

from typing import Annotated

import msgspec

from nakrel.core.controls import Code, Kind, control
from nakrel.core.errors import DataError
from nakrel.core.macro import Id, Name, Play
from nakrel.core.steps import MAX_RATE

__all__ = [
    "Cell",
    "HoldLayer",
    "Nothing",
    "RunMacro",
    "StartProgram",
    "ToChord",
    "ToControl",
    "TypeText",
]

AsPlay = Play | None


class _Cell(msgspec.Struct, frozen=True, tag_field="does", omit_defaults=True, forbid_unknown_fields=True):
    """What a control does in a sheet; a control without a cell does what the device has it do."""


class Nothing(_Cell, frozen=True, tag="nothing"):
    """The control is switched off."""


class ToControl(_Cell, frozen=True, tag="control"):
    """The control acts as another key or button."""

    control: Code

    def __post_init__(self) -> None:
        if control(self.control).kind is Kind.WHEEL:
            raise DataError(f"a control can act as a key or a button, and {self.control} is a wheel direction")


class RunMacro(_Cell, frozen=True, tag="macro"):
    """The control plays a macro, in the macro's own way or, where `play` is set, in this cell's."""

    macro: Id
    play: AsPlay = None


class ToChord(_Cell, frozen=True, tag="chord"):
    """The control holds several keys and buttons down, in this order, as long as it is held itself."""

    controls: Annotated[tuple[Code, ...], msgspec.Meta(min_length=2, max_length=8)]

    def __post_init__(self) -> None:
        for code in self.controls:
            if control(code).kind is Kind.WHEEL:
                raise DataError(f"a chord is made of keys and buttons, and {code} is a wheel direction")
        if len(set(self.controls)) != len(self.controls):
            raise DataError("a chord holds each control once; take out the one that is there twice")


class TypeText(_Cell, frozen=True, tag="text"):
    """The control types a text, `rate` characters a second."""

    text: Annotated[str, msgspec.Meta(min_length=1, max_length=10_000)]
    rate: Annotated[int, msgspec.Meta(ge=1, le=MAX_RATE)] = 30


class StartProgram(_Cell, frozen=True, tag="open"):
    """The control starts a program, or brings its window to the front. `command` is the program and its arguments."""

    command: Annotated[
        tuple[Annotated[str, msgspec.Meta(min_length=1)], ...], msgspec.Meta(min_length=1, max_length=64)
    ]


class HoldLayer(_Cell, frozen=True, tag="layer"):
    """A layer of the set-up is there as long as the control is held."""

    layer: Name


Cell = Nothing | ToControl | ToChord | RunMacro | TypeText | StartProgram | HoldLayer
