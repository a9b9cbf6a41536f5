"""The live sheet: what each control does, ready for the engine."""

from __future__ import annotations

import functools
import re
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping
from typing import NamedTuple

import msgspec

from nakrel.core.model.cells import (
    ACTION_COMMANDS,
    ACTION_KEYS,
    Cell,
    ChangeSpeed,
    HoldLayer,
    Nothing,
    RunMacro,
    RunSystemAction,
    StartProgram,
    ToChord,
    ToControl,
    TypeText,
)
from nakrel.core.model.controls import label
from nakrel.core.model.game_keys import resolve_cell
from nakrel.core.model.limits import MAX_NAME
from nakrel.core.model.macro import Macro, Mode, Play, StartOn
from nakrel.core.model.profile import Layer
from nakrel.core.model.steps import Chord, Open, Step, Tap, Text, Wait
from nakrel.core.play.operations import OpCode, Plan, compile_macro

__all__ = ["NOTCH_US", "Action", "Sheet", "button_that_plays"]

# Two frames of a game at 60 frames a second.
NOTCH_US = 33_000


class Action(NamedTuple):
    """A cell made ready: what plays a macro, types a text or opens a program has a plan and a way to play. `layer` is
    the layer it is in, '' for none. `first` is the control that a press puts down before all else, at once; '' where it
    does something else first."""

    cell: Cell
    plan: Plan | None = None
    play: Play = Play()
    layer: str = ""
    first: str = ""


class Sheet(NamedTuple):
    """The live profile's sheet, ready for the engine."""

    profile: str
    actions: dict[str, Action]
    layers: dict[str, dict[str, Action]] = {}

    def every(self) -> Iterator[tuple[str, Action]]:
        """All actions with their controls, those of layers too."""
        yield from self.actions.items()
        for actions in self.layers.values():
            yield from actions.items()

    def without(self, controls: Collection[str]) -> Sheet:
        """The same sheet, in which these controls do nothing of their own."""

        def left(actions: dict[str, Action]) -> dict[str, Action]:
            return {code: action for code, action in actions.items() if code not in controls}

        return Sheet(self.profile, left(self.actions), {name: left(actions) for name, actions in self.layers.items()})

    def controls(self) -> frozenset[str]:
        """The controls that do something of their own, with a layer or without."""
        return frozenset(code for code, _ in self.every())

    def repeats_itself(self) -> frozenset[str]:
        """The controls that may come out as the very same control, by their macro or since they are themselves while no
        layer is held, and those that hold a layer or a speed: others of their device are pressed meanwhile."""
        found = {
            code
            for code, action in self.every()
            if isinstance(action.cell, HoldLayer)
            or (isinstance(action.cell, ChangeSpeed) and action.cell.held)
            or (action.plan and any(op.control == code for section in action.plan[1:] for op in section))
        }
        return frozenset(found | (self.controls() - self.actions.keys()))

    @staticmethod
    def build(
        profile: str,
        cells: dict[str, Cell],
        plan_of: Callable[[str], tuple[Plan, Play] | None],
        layers: Iterable[Layer] = (),
        keys: Mapping[str, str] = {},  # noqa: B006 - never changed
        notch_us: int = NOTCH_US,
    ) -> Sheet:
        """Resolve the cells, with `keys` for game keys; a cell whose macro or game key isn't there takes its control
        out and does nothing. `notch_us` is for how long a notch of the wheel presses what it acts as.

        `plan_of` gives a macro's plan and its own way to play by the macro's id. It should give the same plan
        object while the macro is unchanged, since the engine goes by that.
        """

        def ready(cells: Mapping[str, Cell], layer: str) -> dict[str, Action]:
            return {
                code: _ready(code, resolve_cell(cell, keys), plan_of, layer, notch_us) for code, cell in cells.items()
            }

        return Sheet(profile, ready(cells, ""), {layer.name: ready(layer.cells, layer.name) for layer in layers})


def _ready(
    code: str, cell: Cell | None, plan_of: Callable[[str], tuple[Plan, Play] | None], layer: str, notch_us: int
) -> Action:
    match cell:
        case None:
            return Action(Nothing(), layer=layer)
        case RunSystemAction(action=action) if action in ACTION_KEYS:
            return Action(ToControl(ACTION_KEYS[action]), layer=layer)
        case RunSystemAction(action=action) if action in ACTION_COMMANDS:
            return _ready(code, StartProgram(ACTION_COMMANDS[action]), plan_of, layer, notch_us)
        case RunMacro(macro=key, play=play):
            found = plan_of(key)
            if found is None:
                return Action(Nothing(), layer=layer)
            way = _playable(code, play or found[1])
            return Action(cell, found[0], way, layer, _first(found[0], way))
        case StartProgram(off=True):
            return Action(Nothing(), layer=layer)
        case TypeText() | StartProgram():
            return Action(cell, _plan_of_cell(code, layer, cell), Play(), layer)
        case ToControl() | ToChord() if code.startswith("WHEEL") and not _turns(cell):
            return Action(cell, _plan_of_notch(code, layer, cell, notch_us), Play(), layer)
    return Action(cell, layer=layer, first=_codes(cell)[0] if isinstance(cell, ToControl | ToChord) else "")


def _first(plan: Plan, play: Play) -> str:
    """The control that a run puts down as it starts; '' where it starts with something else, or later."""
    if play.start_on is StartOn.RELEASE:
        return ""
    start = next(filter(None, plan[1:3]), ())
    return start[0].control if start and start[0].code in (OpCode.DOWN, OpCode.TAP_DOWN) else ""


def _codes(cell: ToControl | ToChord) -> tuple[str, ...]:
    return cell.controls if isinstance(cell, ToChord) else (cell.control,)


def _turns(cell: ToControl | ToChord) -> bool:
    """Whether there is a turn of the wheel in it, which has no length."""
    return any(code.startswith("WHEEL") for code in _codes(cell))


@functools.lru_cache(maxsize=1_000)
def _plan_of_notch(code: str, layer: str, cell: ToControl | ToChord, notch_us: int) -> Plan:
    """A notch has no length, and no game sees a key that is down for none: it is down for as long as a frame takes, and
    up as long before the next."""
    controls = cell.controls if isinstance(cell, ToChord) else (cell.control,)
    step = (
        Chord(controls=controls, hold_us=notch_us) if len(controls) > 1 else Tap(control=controls[0], hold_us=notch_us)
    )
    return compile_macro(_macro_of_cell(code, layer, (step, Wait(wait_us=notch_us))))


@functools.lru_cache(maxsize=1_000)
def _plan_of_cell(code: str, layer: str, cell: TypeText | StartProgram) -> Plan:
    """A macro made of the cell: the same one as long as the cell is the same."""
    if isinstance(cell, TypeText):
        step: Text | Open = Text(text=cell.text, rate=cell.rate, secret=cell.secret)
    else:
        step = Open(command=cell.command)
    return compile_macro(_macro_of_cell(code, layer, (step,)))


def _macro_of_cell(code: str, layer: str, steps: tuple[Step, ...]) -> Macro:
    key = f"what {code}, {layer} does" if layer else f"what {code} does"
    return Macro(id=key, name=label(code, layer)[:MAX_NAME], loop=steps)


_OF_CELL = re.compile(r"what (\w+)(?:, (.*))? does", re.DOTALL)


def button_that_plays(macro: str) -> str:
    """What people call the button whose text, program or notch plays under this id; '' where it is a macro's."""
    found = _OF_CELL.fullmatch(macro)
    return label(found[1], found[2] or "") if found else ""


def _playable(code: str, play: Play) -> Play:
    """A wheel notch has no length to hold, so a Held macro on a wheel direction plays one run a notch."""
    if code.startswith("WHEEL") and play.mode is Mode.HELD:
        return msgspec.structs.replace(play, mode=Mode.SINGLE)
    return play
