"""What goes into the engine and what comes out of it. All times are microseconds of one monotonic clock."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import msgspec

from nakrel.core.macro import Mode, Play
from nakrel.core.operations import Plan
from nakrel.core.player import AskText, MovePointer, OpenProgram, Stroke
from nakrel.core.profile import Cell, Nothing, RunMacro

__all__ = [
    "Action",
    "Do",
    "Emit",
    "Event",
    "FingersGone",
    "Output",
    "PlayMacro",
    "Pressed",
    "Released",
    "RunEnded",
    "RunStarted",
    "SetSheet",
    "Sheet",
    "StopAll",
    "StopMacro",
    "TextReady",
    "Turned",
    "Wake",
]


class Pressed(NamedTuple):
    """A finger put the control down; `passed` says that the programs have it already, since nobody kept it back."""

    control: str
    passed: bool = False


class Released(NamedTuple):
    """A finger let the control go; it went the way its press went."""

    control: str


class Turned(NamedTuple):
    """A finger turned the wheel by `notches` in the direction `control` names; `passed` as in `Pressed`."""

    control: str
    notches: int = 1
    passed: bool = False


class Wake(NamedTuple):
    """A deadline has come (or may have)."""


class Action(NamedTuple):
    """A cell made ready: for a macro cell the compiled macro and its way to play."""

    cell: Cell
    plan: Plan | None = None
    play: Play = Play()


class Sheet(NamedTuple):
    """The live profile's sheet, ready for the engine."""

    profile: str
    actions: dict[str, Action]

    def repeats_itself(self) -> frozenset[str]:
        """The controls whose macro presses the very same control."""
        return frozenset(
            code
            for code, action in self.actions.items()
            if action.plan and any(op.control == code for section in action.plan[1:] for op in section)
        )

    @staticmethod
    def build(profile: str, cells: dict[str, Cell], plan_of: Callable[[str], tuple[Plan, Play] | None]) -> Sheet:
        """Resolve the cells; a cell whose macro is gone takes its control out and does nothing.

        `plan_of` gives a macro's plan and its own way to play by the macro's id. It should give the same plan
        object while the macro is unchanged, since the engine goes by that.
        """
        actions = {}
        for code, cell in cells.items():
            ready = plan_of(cell.macro) if isinstance(cell, RunMacro) else None
            if not isinstance(cell, RunMacro):
                actions[code] = Action(cell)
            elif ready is None:
                actions[code] = Action(Nothing())
            else:
                actions[code] = Action(cell, ready[0], _playable(code, cell.play or ready[1]))
        return Sheet(profile, actions)


def _playable(code: str, play: Play) -> Play:
    """A wheel notch has no length to hold, so a Held macro on a wheel direction plays one run a notch."""
    if code.startswith("WHEEL") and play.mode is Mode.HELD:
        return msgspec.structs.replace(play, mode=Mode.SINGLE)
    return play


class SetSheet(NamedTuple):
    """Another profile goes live, or the live one was edited; `why` is the reason for which its macros end."""

    sheet: Sheet
    why: str = "profile switched"


class PlayMacro(NamedTuple):
    """Start a macro without a trigger (from the window or the command line)."""

    plan: Plan
    play: Play


class StopMacro(NamedTuple):
    """End one macro, its lead-out included."""

    macro: str


class TextReady(NamedTuple):
    """The keys that type the text which a macro asked for; or why they can't be had."""

    macro: str
    strokes: tuple[Stroke, ...]
    why_not: str = ""


class StopAll(NamedTuple):
    """Stop everything: all macros end this instant and every hold of theirs goes."""


class FingersGone(NamedTuple):
    """Devices are gone or can't be read: whatever fingers held there counts as let go, and what was started there
    and could be ended only there, ends. `controls` are those that no other device has; None stands for all."""

    controls: frozenset[str] | None = None


Event = Pressed | Released | Turned | Wake | SetSheet | PlayMacro | StopMacro | TextReady | StopAll | FingersGone


class Emit(NamedTuple):
    """The control goes down (1) or up (0), or the wheel turns by `value` notches; planned for `due_us`.

    `by` is the macro's id, or 'finger' for what passes through. A `quiet` one types a secret: nobody is to be told of
    it.
    """

    control: str
    value: int
    due_us: int
    by: str
    quiet: bool = False


class Do(NamedTuple):
    """Something else than an event of a control, planned for `due_us`, for the macro `by`. An `AskText` is answered
    with `TextReady`."""

    what: MovePointer | AskText | OpenProgram
    due_us: int
    by: str


class RunStarted(NamedTuple):
    """A macro began to run; `trigger` is the control that started it, or '' for none."""

    macro: str
    trigger: str


class RunEnded(NamedTuple):
    """A macro ended after `runs` complete runs; `slipped_us` is how much of its plan moved since the machine stood, and
    `failed` why it could not go on, '' where it could."""

    macro: str
    runs: int
    reason: str
    slipped_us: int
    failed: str = ""


Output = Emit | Do | RunStarted | RunEnded
