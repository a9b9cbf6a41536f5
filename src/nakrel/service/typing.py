"""Typing a text: its characters as steps, for the keyboard layout in use."""

from __future__ import annotations

from nakrel.backends.layout import find_layout
from nakrel.backends.typist import Stroke, Typist
from nakrel.core.macro import Macro
from nakrel.core.steps import Press, Release, Step, Tap, Wait

__all__ = ["TYPED", "UnknownCharacters", "typing_macro"]

# The id under which a typed text runs; the text itself is in no message and no journal.
TYPED = "typed-text"
# Long enough for every program, and short enough that a busy desktop doesn't take it for a key held down.
MOST_HELD_US = 20_000


class UnknownCharacters(Exception):
    """The layout has no keys for some characters; the message names them and what would help."""


def typing_macro(text: str, rate: int, setting: str = "") -> Macro:
    """A macro that types the text at `rate` characters a second.

    Raises `UnknownCharacters`, and `BackendUnavailable` for a layout that can't be had.
    """
    typist = Typist(find_layout(setting))
    strokes, missing = typist.strokes(text)
    if missing:
        raise UnknownCharacters(
            f"the keyboard layout {typist.layout.layout!r} (from {typist.layout.source}) has no keys for "
            f"{' '.join(missing)}; switch to a layout that has them, or set one on the Devices page"
        )
    cycle_us = 1_000_000 // rate
    steps = [step for stroke in strokes for step in _steps(stroke, cycle_us)]
    return Macro(id=TYPED, name="A typed text", loop=tuple(steps[:-1]))


def _steps(stroke: Stroke, cycle_us: int) -> list[Step]:
    """Down for half of the time or less; what is held goes down before the key and up after it."""
    hold_us = min(cycle_us // 2, MOST_HELD_US)
    return [
        *(Press(control=control) for control in stroke.held),
        Tap(control=stroke.control, hold_us=hold_us),
        *(Release(control=control) for control in reversed(stroke.held)),
        Wait(wait_us=cycle_us - hold_us),
    ]
