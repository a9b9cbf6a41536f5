"""Edits of a macro's steps: pure changes from one macro to the next.

A macro's steps are numbered through its three sections, as the step list shows them: `row` 0 is the first step of
the lead-in, or of the loop where there is no lead-in.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Sequence
from typing import NamedTuple

import msgspec

from nakrel.core.macro import Macro, Section
from nakrel.core.steps import Press, Release, Step, Tap, Wait

__all__ = ["Place", "change", "delete", "duplicate", "insert", "move", "place_after", "rows", "set_times", "to_taps"]


class Place(NamedTuple):
    """A gap between steps: before the step `at` of a section."""

    section: Section
    at: int


def rows(macro: Macro) -> list[tuple[Section, Step]]:
    """All steps in playing order with the section each is in."""
    return [(section, step) for section in Section for step in macro.section(section)]


def place_after(macro: Macro, row: int | None) -> Place:
    """The gap after a row; with None the end of the loop."""
    if row is None or not 0 <= row < len(rows(macro)):
        return Place(Section.LOOP, len(macro.loop))
    for section in Section:
        size = len(macro.section(section))
        if row < size:
            return Place(section, row + 1)
        row -= size
    raise AssertionError("a row lies in one of the sections")


def insert(macro: Macro, place: Place, steps: Sequence[Step]) -> Macro:
    """Put steps into a gap."""
    old = macro.section(place.section)
    return _with(macro, place.section, (*old[: place.at], *steps, *old[place.at :]))


def delete(macro: Macro, chosen: Collection[int]) -> Macro:
    """Take rows out."""
    return _map(macro, lambda row, step: () if row in chosen else (step,))


def change(macro: Macro, row: int, step: Step) -> Macro:
    """Put another step in a row's place."""
    return _map(macro, lambda at, old: (step,) if at == row else (old,))


def duplicate(macro: Macro, chosen: Collection[int]) -> Macro:
    """Repeat each of the rows after itself."""
    return _map(macro, lambda row, step: (step, step) if row in chosen else (step,))


def set_times(macro: Macro, chosen: Collection[int], micros: int) -> Macro:
    """Give every wait among the rows this length, and every tap this hold, in microseconds."""

    def timed(row: int, step: Step) -> tuple[Step, ...]:
        if row not in chosen:
            return (step,)
        if isinstance(step, Wait):
            return (msgspec.structs.replace(step, wait_us=micros),)
        return (msgspec.structs.replace(step, hold_us=micros),) if isinstance(step, Tap) else (step,)

    return _map(macro, timed)


def move(macro: Macro, chosen: Collection[int], to: Place) -> Macro:
    """Move rows into a gap, in their order; the gap is counted with the rows still in place."""
    numbered = rows(macro)
    moved = [numbered[row][1] for row in sorted(chosen)]
    first = sum(len(macro.section(s)) for s in Section if list(Section).index(s) < list(Section).index(to.section))
    before = sum(1 for row in chosen if first <= row < first + to.at)
    return insert(delete(macro, chosen), Place(to.section, to.at - before), moved)


def to_taps(macro: Macro) -> Macro:
    """Turn each press, wait, release of one control into a tap; the times of all events stay as they were."""

    def joined(steps: tuple[Step, ...]) -> tuple[Step, ...]:
        found: list[Step] = []
        for step in steps:
            if isinstance(step, Release) and len(found) >= 2:
                press, hold = found[-2:]
                if isinstance(press, Press) and isinstance(hold, Wait) and _fits(press, hold, step):
                    found[-2:] = [Tap(control=press.control, hold_us=hold.wait_us, remark=press.remark)]
                    continue
            found.append(step)
        return tuple(found)

    for section in Section:
        macro = _with(macro, section, joined(macro.section(section)))
    return macro


def _fits(press: Press, hold: Wait, release: Release) -> bool:
    return press.control == release.control and not (press.off or hold.off or release.off)


def _map(macro: Macro, each: Callable[[int, Step], tuple[Step, ...]]) -> Macro:
    row = 0
    for section in Section:
        steps: list[Step] = []
        for step in macro.section(section):
            steps += each(row, step)
            row += 1
        if tuple(steps) != macro.section(section):
            macro = _with(macro, section, tuple(steps))
    return macro


def _with(macro: Macro, section: Section, steps: tuple[Step, ...]) -> Macro:
    return msgspec.structs.replace(macro, **{section.value: steps})
