"""A profile: what a game needs, and the programs it belongs to."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

import msgspec

from nakrel.core.controls import Code, Kind, control
from nakrel.core.errors import DataError
from nakrel.core.macro import Id, Name, Play

__all__ = [
    "EVERYDAY",
    "AsPlay",
    "Cell",
    "MatchBy",
    "Nothing",
    "Profile",
    "ProgramRule",
    "RunMacro",
    "SetUp",
    "ToControl",
    "keeps_left_click",
]

# The id of the profile that is live when no linked program runs; it always exists.
EVERYDAY = "everyday"

Colour = Annotated[str, msgspec.Meta(pattern=r"^#[0-9A-Fa-f]{6}$")]
AsPlay = Play | None


class MatchBy(StrEnum):
    """What of a running program a rule compares."""

    PATH = "path"
    NAME = "name"
    COMMAND = "command"


class ProgramRule(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A program that the profile belongs to: `path` is its executable, `name` its process or file name,
    `command` a part of its command line."""

    match: MatchBy
    value: Annotated[str, msgspec.Meta(min_length=1, max_length=4096)]


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


Cell = Nothing | ToControl | RunMacro


def keeps_left_click(cells: dict[str, Cell]) -> bool:
    """Whether some control still clicks: Left as it is, or another that acts as Left."""
    return "BTN_LEFT" not in cells or any(
        isinstance(cell, ToControl) and cell.control == "BTN_LEFT" for cell in cells.values()
    )


class SetUp(msgspec.Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """One button sheet: which control does what while no layer is held."""

    name: Name
    cells: dict[str, Cell] = {}

    def __post_init__(self) -> None:
        for code in self.cells:
            control(code)
        if not keeps_left_click(self.cells):
            raise DataError(
                f"set-up {self.name!r} leaves no way to click: give Left its click back, or let another control "
                "act as Left first"
            )


class Profile(msgspec.Struct, frozen=True, kw_only=True, omit_defaults=True, forbid_unknown_fields=True):
    """A profile with its set-ups; the first one is in use. `id` never changes, so renaming it breaks nothing."""

    id: Id
    name: Name
    note: str = ""
    colour: Colour = "#77726A"
    programs: tuple[ProgramRule, ...] = ()
    setups: Annotated[tuple[SetUp, ...], msgspec.Meta(min_length=1)] = (SetUp("Main"),)

    @property
    def sheet(self) -> SetUp:
        """The set-up in use."""
        return self.setups[0]
