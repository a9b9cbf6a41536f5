"""A profile: what a game needs, and the programs it belongs to."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from enum import StrEnum
from typing import Annotated

import msgspec

from nakrel.core.model.cells import Cell, ChangeSpeed, HoldLayer, ToControl
from nakrel.core.model.conditioning import Pointing
from nakrel.core.model.controls import CONTROLS, Code, Kind, control, game_key, label, pressable
from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import (
    COLOUR,
    COLOUR_OR_NONE,
    MAX_ARGUMENT,
    MAX_GAME_KEYS,
    MAX_LAYERS,
    MAX_PROGRAMS,
    MAX_SETUPS,
    Id,
    Name,
    Note,
)
from nakrel.core.model.value import Value
from nakrel.words import tr

__all__ = [
    "EVERYDAY",
    "FairPlay",
    "GameKey",
    "Layer",
    "MatchBy",
    "Profile",
    "ProgramRule",
    "SetUp",
    "keeps_left_click",
    "new_everyday",
]

# The id of the profile that is live when no linked program runs; it always exists.
EVERYDAY = "everyday"

Colour = Annotated[str, msgspec.Meta(pattern=COLOUR)]


class FairPlay(StrEnum):
    """How much a game's rules let one press do."""

    ANYTHING = "anything"
    WHILE_HELD = "while_held"
    ONE_ACTION = "one_action"
    NO_MACROS = "no_macros"


class GameKey(Value, frozen=True, forbid_unknown_fields=True):
    """What the game calls something it does (`name`), and the key or button that it has for it."""

    name: Annotated[str, msgspec.Meta(min_length=1, max_length=40)]
    control: Code

    def __post_init__(self) -> None:
        super().__post_init__()
        game_key(self.name)
        if self.control not in CONTROLS:
            control(self.control)
            raise DataError(
                tr("the game key {name!r} must be a key or button, not another game key").format(name=self.name)
            )


class MatchBy(StrEnum):
    """What of a running program a rule compares."""

    PATH = "path"
    NAME = "name"
    COMMAND = "command"
    WINDOW = "window"
    WINDOWS_PROGRAM = "windows_program"
    APPLICATION = "application"


class ProgramRule(Value, frozen=True, forbid_unknown_fields=True):
    """A program that the profile belongs to: `path` is its executable, `name` its process or file name,
    `command` a part of its command line, `window` the class of its window, `windows_program` the .exe file that a
    compatibility layer runs, and `application` an application id in its environment (`FLATPAK_ID=org.example.Game`)."""

    match: MatchBy
    value: Annotated[str, msgspec.Meta(min_length=1, max_length=MAX_ARGUMENT)]


class Layer(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What controls do while the layer is held; a control without a cell here does what it does without the layer."""

    name: Name
    cells: dict[str, Cell] = {}


def keeps_left_click(cells: dict[str, Cell]) -> bool:
    """Whether some control still clicks: Left as it is, or another that acts as Left."""
    return "BTN_LEFT" not in cells or any(
        isinstance(cell, ToControl) and cell.control == "BTN_LEFT" for cell in cells.values()
    )


class SetUp(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """One button sheet: which control does what while no layer is held, and what while one is. `colour` is its mark,
    '' for none."""

    name: Name
    cells: dict[str, Cell] = {}
    layers: Annotated[tuple[Layer, ...], msgspec.Meta(max_length=MAX_LAYERS)] = ()
    colour: Annotated[str, msgspec.Meta(pattern=COLOUR_OR_NONE)] = ""

    def __post_init__(self) -> None:
        super().__post_init__()
        names = [layer.name for layer in self.layers]
        if len(set(names)) != len(names):
            raise DataError(
                tr("variant {name!r} has two layers of the same name; rename one of them").format(name=self.name)
            )
        for cells in (self.cells, *(layer.cells for layer in self.layers)):
            for code, cell in cells.items():
                kind = pressable(code).kind
                if isinstance(cell, HoldLayer) and cell.layer not in names:
                    raise DataError(
                        tr("variant {name!r} has no layer {layer!r}, which {code} should hold").format(
                            name=self.name, layer=cell.layer, code=label(code)
                        )
                    )
                if isinstance(cell, HoldLayer) and kind is Kind.WHEEL:
                    raise DataError(
                        tr("a layer is held by a key or a button, and {code} is a wheel direction").format(
                            code=label(code)
                        )
                    )
                if isinstance(cell, ChangeSpeed) and cell.held and kind is Kind.WHEEL:
                    raise DataError(
                        tr("a speed is held by a key or a button, and {code} is a wheel direction").format(
                            code=label(code)
                        )
                    )
        if not keeps_left_click(self.cells):
            raise DataError(
                tr(
                    "variant {name!r} leaves no way to click: give Left its click back, or let another button "
                    "act as Left first"
                ).format(name=self.name)
            )

    def of_layer(self, name: str) -> dict[str, Cell]:
        """The cells of a layer, and with '' those without one; none for a layer that isn't there."""
        if not name:
            return self.cells
        return next((layer.cells for layer in self.layers if layer.name == name), {})

    def with_cell(self, name: str, code: str, cell: Cell | None) -> SetUp:
        """The variant with another cell in a layer, or with '' without one; None takes the cell out.

        Raises `DataError` where that would leave no way to click.
        """
        cells = {key: old for key, old in self.of_layer(name).items() if key != code}
        if cell is not None:
            cells[code] = cell
        if not name:
            return msgspec.structs.replace(self, cells=cells)
        layers = tuple(Layer(each.name, cells) if each.name == name else each for each in self.layers)
        return msgspec.structs.replace(self, layers=layers)

    def every(self) -> Iterator[tuple[str, str, Cell]]:
        """All cells with their layer ('' for none) and control."""
        for name, cells in (("", self.cells), *((layer.name, layer.cells) for layer in self.layers)):
            for code, cell in cells.items():
                yield name, code, cell

    def with_each(self, change: Callable[[Cell], Cell | None]) -> SetUp:
        """The variant with what `change` makes of each cell; None takes the cell out."""

        def changed(cells: dict[str, Cell]) -> dict[str, Cell]:
            found = {code: change(cell) for code, cell in cells.items()}
            return {code: cell for code, cell in found.items() if cell is not None}

        layers = tuple(Layer(each.name, changed(each.cells)) for each in self.layers)
        return msgspec.structs.replace(self, cells=changed(self.cells), layers=layers)

    def with_moved(self, moves: Mapping[str, str]) -> SetUp:
        """The variant with the cells of some controls at others, in every layer, one move after the other; what already
        has a cell keeps its own."""

        def moved(cells: dict[str, Cell]) -> dict[str, Cell]:
            cells = dict(cells)
            for old, new in moves.items():
                if old in cells and new not in cells:
                    cells[new] = cells.pop(old)
            return cells

        layers = tuple(Layer(each.name, moved(each.cells)) for each in self.layers)
        return msgspec.structs.replace(self, cells=moved(self.cells), layers=layers)

    def without_layer(self, name: str) -> SetUp:
        """The variant without a layer, and without the cells that hold it."""
        free = self.with_each(lambda cell: None if cell == HoldLayer(name) else cell)
        return msgspec.structs.replace(free, layers=tuple(each for each in free.layers if each.name != name))

    def with_layer_named(self, old: str, new: str) -> SetUp:
        """The variant with a layer under another name, and its cells following. Raises `DataError` for a name that
        another layer has."""

        def named(cells: dict[str, Cell]) -> dict[str, Cell]:
            return {c: HoldLayer(new) if cell == HoldLayer(old) else cell for c, cell in cells.items()}

        layers = tuple(Layer(new if each.name == old else each.name, named(each.cells)) for each in self.layers)
        return msgspec.structs.replace(self, cells=named(self.cells), layers=layers)


class Profile(Value, frozen=True, kw_only=True, omit_defaults=True, forbid_unknown_fields=True):
    """A profile with its variants, of which one is in use at a time. `id` never changes, so renaming it breaks nothing.

    With `falls_through` a control without a cell does what it does in Everyday. One that isn't `allowed` came from
    somebody else, and goes live with no program until its user allows that.
    """

    id: Id
    name: Name
    note: Note = ""
    colour: Colour = "#77726A"
    programs: Annotated[tuple[ProgramRule, ...], msgspec.Meta(max_length=MAX_PROGRAMS)] = ()
    setups: Annotated[tuple[SetUp, ...], msgspec.Meta(min_length=1, max_length=MAX_SETUPS)] = (SetUp("Main"),)
    keys: Annotated[tuple[GameKey, ...], msgspec.Meta(max_length=MAX_GAME_KEYS)] = ()
    pointer: Pointing = Pointing()
    fair_play: FairPlay = FairPlay.ANYTHING
    falls_through: bool = False
    allowed: bool = True

    def __post_init__(self) -> None:
        super().__post_init__()
        for what, names in (
            ("variants", [setup.name for setup in self.setups]),
            (tr("game keys"), [key.name for key in self.keys]),
            (tr("pointer speeds"), [stage.name for stage in self.pointer.stages]),
        ):
            twice = next((name for n, name in enumerate(names) if name in names[:n]), "")
            if twice:
                raise DataError(
                    tr("profile {name!r} has two {what} named {twice!r}; rename one of them").format(
                        name=self.name, what=what, twice=twice
                    )
                )

    def setup(self, name: str) -> SetUp:
        """The variant of this name; the first one where there is none."""
        return next((setup for setup in self.setups if setup.name == name), self.setups[0])

    @property
    def live_with(self) -> tuple[ProgramRule, ...]:
        """The programs that it goes live with."""
        return self.programs if self.allowed else ()

    def key_table(self) -> dict[str, str]:
        """The control of each game key, by the code that stands for it."""
        return {game_key(key.name): key.control for key in self.keys}

    def cells(self) -> Iterator[tuple[SetUp, str, str, Cell]]:
        """All cells of all variants, with their layer ('' for none) and control."""
        for setup in self.setups:
            for layer, code, cell in setup.every():
                yield setup, layer, code, cell


def new_everyday() -> Profile:
    """Everyday as it is in an empty home."""
    return Profile(id=EVERYDAY, name="Everyday")
