"""What a running macro does and asks for."""

from __future__ import annotations

from typing import NamedTuple, Protocol

from nakrel.core.model.steps import Origin

__all__ = [
    "Act",
    "AskPlace",
    "AskPointer",
    "AskText",
    "MovePointer",
    "OpenProgram",
    "Other",
    "Stroke",
    "Surroundings",
    "Whereabouts",
]


class Stroke(NamedTuple):
    """A key that types something, and the keys that are held meanwhile; without a key only its time passes."""

    control: str
    held: tuple[str, ...] = ()


class Whereabouts(NamedTuple):
    """Where a pointer step leads: from where the pointer is (None where nobody knows) to `target`, both pixels of a
    screen of `screen` (width, height). With `screen` None nobody knows of a screen, and `target` is how far to go."""

    pointer: tuple[int, int] | None
    target: tuple[int, int]
    screen: tuple[int, int] | None


class MovePointer(NamedTuple):
    """The pointer goes to (`x`, `y`), a pixel of a screen of `screen`; with None it goes by so much."""

    x: int
    y: int
    screen: tuple[int, int] | None


class AskPlace(NamedTuple):
    """The run wants to know where a pointer step to (`x`, `y`) leads; see `Pointer`."""

    x: int
    y: int
    origin: Origin
    size: tuple[int, int] | None
    ticket: int


class AskPointer(NamedTuple):
    """The run wants to know where the pointer is, for a formula."""

    ticket: int


class AskText(NamedTuple):
    """The run wants the keys that type a text; see `Text`."""

    text: str
    secret: str
    ticket: int


class OpenProgram(NamedTuple):
    """A program is to be started or brought to the front; see `Open`."""

    command: tuple[str, ...]


Other = MovePointer | AskPlace | AskPointer | AskText | OpenProgram


class Act(NamedTuple):
    """What a run wants now: `value` 1 down, 0 up, or notches for a wheel direction; due at `due_us`.

    What is no event of a control is in `other`. A `quiet` one types a secret: nobody is to be told of it.
    """

    control: str
    value: int
    due_us: int
    other: Other | None = None
    quiet: bool = False


class Surroundings(Protocol):
    """What formulas can ask about the world."""

    def is_down(self, code: str) -> bool:
        """Whether the control is down for the programs."""

    def settle(self, acts: list[Act]) -> None:
        """Let these acts happen: what is asked next sees what they have done."""
