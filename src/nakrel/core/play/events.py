"""What goes into the engine and what comes out of it. All times are microseconds of one monotonic clock."""

from __future__ import annotations

from typing import NamedTuple

from nakrel.core.model.cells import (
    ChangeSpeed,
    GoTo,
    RunSystemAction,
)
from nakrel.core.model.macro import Mode, Play
from nakrel.core.play.acts import AskPlace, AskPointer, AskText, MovePointer, OpenProgram, Stroke, Whereabouts
from nakrel.core.play.operations import Plan
from nakrel.core.play.sheet import Sheet

__all__ = [
    "Asked",
    "SideEffect",
    "Emit",
    "Event",
    "InputsLost",
    "Output",
    "PlaceReady",
    "PlayMacro",
    "PointerReady",
    "Pressed",
    "Released",
    "RunEnded",
    "RunStarted",
    "SetSheet",
    "SpeedHeld",
    "StopAll",
    "StopMacro",
    "TextReady",
    "Turned",
    "Wake",
]


class Pressed(NamedTuple):
    """A finger put the control down; `passed` says that the programs have it already, since nobody kept it back, and
    `sent` is the key that its device sends for it, '' for the control itself."""

    control: str
    passed: bool = False
    sent: str = ""


class Released(NamedTuple):
    """A finger let the control go; it went the way its press went. `sent` as in `Pressed`."""

    control: str
    sent: str = ""


class Turned(NamedTuple):
    """A finger turned the wheel by `notches` in the direction `control` names; `passed` as in `Pressed`."""

    control: str
    notches: int = 1
    passed: bool = False


class Wake(NamedTuple):
    """A deadline has come (or may have)."""


class SetSheet(NamedTuple):
    """Another profile goes live, or the live one was edited; `why` is the reason for which its macros end,
    in the reader's words."""

    sheet: Sheet
    why: str = "profile switched"


class PlayMacro(NamedTuple):
    """Start a macro without a trigger (from the window or the command line)."""

    plan: Plan
    play: Play


class StopMacro(NamedTuple):
    """End one macro, its end included."""

    macro: str


class TextReady(NamedTuple):
    """The keys that type the text which a macro asked for with this ticket; or why they can't be had."""

    macro: str
    ticket: int
    strokes: tuple[Stroke, ...]
    refusal_reason: str = ""


class PlaceReady(NamedTuple):
    """Where the pointer step leads for which a macro asked with this ticket; or why it leads nowhere."""

    macro: str
    ticket: int
    where: Whereabouts | None


class PointerReady(NamedTuple):
    """Where the pointer is, for which a macro asked with this ticket."""

    macro: str
    ticket: int
    place: tuple[int, int]


class StopAll(NamedTuple):
    """Stop everything: all macros end this instant and every hold of theirs goes."""

    why: str = "Stop everything"


class InputsLost(NamedTuple):
    """Devices are gone or can't be read: whatever fingers held there counts as let go, and what was started there
    and could be ended only there, ends. `controls` are those that no other device has; None stands for all."""

    controls: frozenset[str] | None = None


Event = (
    Pressed
    | Released
    | Turned
    | Wake
    | SetSheet
    | PlayMacro
    | StopMacro
    | TextReady
    | PlaceReady
    | PointerReady
    | StopAll
    | InputsLost
)


class Emit(NamedTuple):
    """The control goes down (1) or up (0), or the wheel turns by `value` notches; planned for `due_us`.

    `by` is the macro's id, or 'finger' for what passes through. A `quiet` one types a secret: nobody is to be told of
    it. Where a release `lifts`, a finger is on the control whose press has passed, and it goes up all the same, on
    whichever device it is down.
    """

    control: str
    value: int
    due_us: int
    by: str
    quiet: bool = False
    lifts: bool = False


class SideEffect(NamedTuple):
    """Something else than an event of a control, planned for `due_us`, for the macro `by`. An `AskText` is answered
    with `TextReady`, an `AskPlace` with `PlaceReady` and an `AskPointer` with `PointerReady`."""

    what: MovePointer | AskPlace | AskPointer | AskText | OpenProgram
    due_us: int
    by: str


class Asked(NamedTuple):
    """A finger asked, by its control, for what the engine can't do by itself."""

    cell: GoTo | ChangeSpeed | RunSystemAction
    control: str


class SpeedHeld(NamedTuple):
    """A control that is held asks for the pointer speed of this name; '' says that none does any more."""

    stage: str


class RunStarted(NamedTuple):
    """A macro began to run at `at_us`; `trigger` is the control that started it, or '' for none; `mode` how it
    plays."""

    macro: str
    trigger: str
    mode: Mode = Mode.SINGLE
    at_us: int = 0


class RunEnded(NamedTuple):
    """A macro ended after `runs` complete runs; `schedule_shift_us` is how much of its plan moved because the computer
    was busy, and `failed` why it could not go on, '' where it could."""

    macro: str
    runs: int
    reason: str
    schedule_shift_us: int
    failed: str = ""


Output = Emit | SideEffect | Asked | SpeedHeld | RunStarted | RunEnded
