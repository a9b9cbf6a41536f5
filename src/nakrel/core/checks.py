"""Checks: what looks like a slip in a macro, each pointing at the row that it is about."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import NamedTuple

from nakrel.core.controls import label
from nakrel.core.edits import Row, rows
from nakrel.core.macro import Macro, Mode, Section, cycle_us
from nakrel.core.steps import Branch, Chord, PickOne, Press, Release, Repeat, Step, Tap, Wait
from nakrel.core.units import format_ms

__all__ = ["Finding", "check_macro"]

# Press, 5 ms, release works in most games, and 1 ms is too fast for many (common practice, no published source).
SHORT_US = 2_000


class Finding(NamedTuple):
    """Something to look at: the row of the step list that it is about, None for the macro as a whole, and words."""

    row: int | None
    words: str


def check_macro(macro: Macro, triggers: Collection[str] = ()) -> tuple[Finding, ...]:
    """Everything found, in the order of the rows. `triggers` are the controls that start the macro."""
    numbered = list(enumerate(rows(macro)))
    on = [(at, row) for at, row in numbered if not _is_off(row, macro)]
    found = [
        *_whole(macro),
        *_pairs(on),
        *(finding for at, row in on for finding in _each(at, row.step)),
        *_feedback(on, triggers),
    ]
    return tuple(sorted(found, key=lambda finding: -1 if finding.row is None else finding.row))


def _is_off(row: Row, macro: Macro) -> bool:
    """Whether the row or a block around it is switched off."""
    steps: tuple[Step, ...] = macro.section(row.section)
    for at, branch in row.inside:
        block = steps[at]
        if block.off:
            return True
        steps = block.branches[branch].steps if isinstance(block, PickOne) else getattr(block, "steps", ())
    return not isinstance(row.step, Branch) and row.step.off


def _whole(macro: Macro) -> Iterable[Finding]:
    if not any((macro.lead_in, macro.loop, macro.lead_out)):
        return
    if macro.play.mode is not Mode.SINGLE and macro.loop and cycle_us(macro, macro.play) == 0:
        yield Finding(None, "The loop has no time in it: it runs a thousand times a second. Give it a pause or a wait.")
    if macro.play.mode is not Mode.SINGLE and not macro.loop:
        yield Finding(None, "There is nothing in the loop to repeat.")


def _pairs(on: list[tuple[int, Row]]) -> Iterable[Finding]:
    """Presses without a release, and releases without a press, as one run of the three sections goes."""
    down: dict[str, tuple[int, Section]] = {}
    for at, row in on:
        step = row.step
        if isinstance(step, Press):
            if step.control in down:
                yield Finding(at, f"{label(step.control)} is down already: this press does nothing.")
            else:
                down[step.control] = at, row.section
        elif isinstance(step, Release):
            if down.pop(step.control, None) is None:
                yield Finding(at, f"{label(step.control)} is let go, but nothing before it presses it.")
        elif isinstance(step, Tap | Chord):
            for control in step.controls if isinstance(step, Chord) else (step.control,):
                if down.pop(control, None) is not None:
                    yield Finding(at, f"{label(control)} is down already: this tap lets it go.")
    for control, (at, section) in down.items():
        if section is Section.LEAD_IN:
            words = "is held until the macro ends. If that is meant, let it go in the lead-out, where it can be seen."
        else:
            words = "is never let go here; that happens only when the macro ends."
        yield Finding(at, f"{label(control)} {words}")


def _each(at: int, step: Step | Branch) -> Iterable[Finding]:
    if isinstance(step, Tap | Chord) and step.hold_us < SHORT_US:
        held = "not at all" if step.hold_us == 0 else f"for {format_ms(step.hold_us)} ms only"
        yield Finding(at, f"It is held {held}: many games miss that.")
    elif isinstance(step, Repeat) and not step.steps:
        yield Finding(at, "There is nothing inside to repeat.")
    elif isinstance(step, PickOne) and len(step.branches) == 1:
        yield Finding(at, "There is one way only, so nothing is left to chance.")
    elif isinstance(step, Wait) and step.most_us is None and step.wait_us == 0:
        yield Finding(at, "This wait takes no time.")


def _feedback(on: list[tuple[int, Row]], triggers: Collection[str]) -> Iterable[Finding]:
    for at, row in on:
        pressed = getattr(row.step, "controls", None) or (getattr(row.step, "control", ""),)
        if isinstance(row.step, Press | Tap | Chord) and (own := [code for code in pressed if code in triggers]):
            yield Finding(at, f"{label(own[0])} starts this very macro. Only your finger starts it, not its own press.")
