"""A macro: steps in three sections and a way to play them."""

from __future__ import annotations

from collections.abc import Callable
from enum import StrEnum
from typing import Annotated

import msgspec

from nakrel.core.model.amounts import amount
from nakrel.core.model.errors import LimitError
from nakrel.core.model.formulas import check_amount, compiled
from nakrel.core.model.lengths import length_us
from nakrel.core.model.limits import MAX_LIMIT_US, MAX_STEPS, Count, Id, Name, Note, WaitUs
from nakrel.core.model.steps import If, PickOne, Repeat, Step
from nakrel.core.model.value import Value
from nakrel.words import noted, shown_number, tr

__all__ = [
    "MODE_LABELS",
    "Again",
    "LetGo",
    "Macro",
    "Mode",
    "Play",
    "Section",
    "StartOn",
    "cycle_us",
    "describe_play",
    "with_each",
]


class Mode(StrEnum):
    """When a macro starts and what ends it."""

    SINGLE = "single"
    COUNTED = "counted"
    HELD = "held"
    TOGGLE = "toggle"


# What people call them.
MODE_LABELS = {
    Mode.SINGLE: noted("Once"),
    Mode.COUNTED: noted("N times"),
    Mode.HELD: noted("While held"),
    Mode.TOGGLE: noted("Toggle"),
}


class Again(StrEnum):
    """What another press does while a Single or Counted macro runs."""

    IGNORE = "ignore"
    STOP = "stop"
    RESTART = "restart"
    QUEUE = "queue"


class StartOn(StrEnum):
    """Which edge of the trigger starts a Single or Counted macro."""

    PRESS = "press"
    RELEASE = "release"


class LetGo(StrEnum):
    """When a Held macro ends after its button is let go."""

    AT_ONCE = "at_once"
    AFTER_RUN = "after_run"


class Section(StrEnum):
    """The three sections of a macro, in the order in which they play."""

    LEAD_IN = "lead_in"
    LOOP = "loop"
    LEAD_OUT = "lead_out"


class Play(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """How a macro plays.

    `runs` is the total for Counted (5 means five runs). `pause_us` lies between runs. `limit_runs` and `limit_us`
    end a Toggle by themselves.
    """

    mode: Mode = Mode.SINGLE
    runs: Count = 5
    pause_us: WaitUs = 0
    start_on: StartOn = StartOn.PRESS
    let_go: LetGo = LetGo.AT_ONCE
    again: Again = Again.IGNORE
    limit_runs: Count | None = None
    limit_us: Annotated[int, msgspec.Meta(ge=1_000, le=MAX_LIMIT_US)] | None = None


class Macro(Value, frozen=True, kw_only=True, omit_defaults=True, forbid_unknown_fields=True):
    """A named macro. `id` never changes, so renaming it breaks no attachment."""

    id: Id
    name: Name
    note: Note = ""
    play: Play = Play()
    lead_in: tuple[Step, ...] = ()
    loop: tuple[Step, ...] = ()
    lead_out: tuple[Step, ...] = ()

    def __post_init__(self) -> None:
        super().__post_init__()
        formulas: set[str] = set()
        steps = sum(amount(section, formulas) for section in (self.lead_in, self.loop, self.lead_out))
        if steps > MAX_STEPS:
            raise LimitError(
                "loop",
                steps,
                tr("and what is around it have {steps} steps; {most} at most").format(
                    steps=shown_number(steps), most=shown_number(MAX_STEPS)
                ),
            )
        if formulas:
            check_amount(sum(map(len, formulas)), sum(compiled(each).nodes for each in formulas))

    @property
    def is_empty(self) -> bool:
        """Whether it has no step at all."""
        return not (self.lead_in or self.loop or self.lead_out)

    def section(self, which: Section) -> tuple[Step, ...]:
        """The steps of one section."""
        if which is Section.LOOP:
            return self.loop
        return self.lead_in if which is Section.LEAD_IN else self.lead_out


def with_each(macro: Macro, change_of: Callable[[Step], Step]) -> Macro:
    """The macro with `change_of` in place of each step, inside blocks too; a block comes to it with its steps already
    changed."""

    def changed(steps: tuple[Step, ...]) -> tuple[Step, ...]:
        return tuple(change_of(_inside(step)) for step in steps)

    def _inside(step: Step) -> Step:
        match step:
            case PickOne():
                options = tuple(msgspec.structs.replace(each, steps=changed(each.steps)) for each in step.branches)
                return msgspec.structs.replace(step, branches=options)
            case Repeat():
                return msgspec.structs.replace(step, steps=changed(step.steps))
            case If():
                otherwise = step.otherwise and msgspec.structs.replace(
                    step.otherwise, steps=changed(step.otherwise.steps)
                )
                return msgspec.structs.replace(step, steps=changed(step.steps), otherwise=otherwise)
        return step

    sections = {section.value: changed(macro.section(section)) for section in Section}
    return msgspec.structs.replace(macro, **sections)


def cycle_us(macro: Macro, play: Play) -> int:
    """Microseconds from the start of one run of the loop to the start of the next."""
    return sum(length_us(step) for step in macro.loop) + play.pause_us


def describe_play(play: Play) -> str:
    """The way to play in a word or two: '5 times', 'While held'."""
    return tr("{runs} times").format(runs=play.runs) if play.mode is Mode.COUNTED else tr(MODE_LABELS[play.mode])
