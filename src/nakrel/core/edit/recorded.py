"""Where a recording goes in a macro, and how it joins what is there."""

from __future__ import annotations

from collections.abc import Sequence
from typing import cast

from nakrel.core.edit.edits import insert
from nakrel.core.edit.rows import Place, place_after, row_at, rows_of, steps_in
from nakrel.core.model.macro import Macro
from nakrel.core.model.recording import RecordingSettings, Waits
from nakrel.core.model.steps import Note, Press, Release, Step, Wait

__all__ = ["gap_after", "insert_recorded", "row_before"]

_HOLDING = frozenset({Press, Release})


def gap_after(macro: Macro, row: int | None) -> Place:
    """The gap after a row in which nothing is held: after the whole hold where the row is in the midst of one. With
    None the end of the loop."""
    place = place_after(macro, row)
    steps = steps_in(macro, place.section, place.inside)
    down: set[str] = set()

    def play(step: Press | Release) -> None:
        if not step.off:
            (down.add if isinstance(step, Press) else down.discard)(step.control)

    # Long macros often have neither kind: that is told soonest by the kinds of all steps together.
    before = steps[: place.at]
    for step in () if _HOLDING.isdisjoint(map(type, before)) else before:
        if (kind := type(step)) is Press or kind is Release:
            play(cast("Press | Release", step))
    for at in range(place.at, len(steps)):
        if not down:
            return place._replace(at=at)
        if isinstance(step := steps[at], Press | Release):
            play(step)
    # A hold that never ends has no gap after it.
    return place if down else place._replace(at=len(steps))


def row_before(macro: Macro, row: int, gap: Place) -> int:
    """The row after which the gap comes that `gap_after` found for a row."""
    first, found = place_after(macro, row), row_at(macro, row)
    start = first.at
    if found is not None and found.at >= 0 and found.inside == gap.inside:
        # The row itself counts with all that is inside it.
        start, row = found.at, row - 1
    between = steps_in(macro, gap.section, gap.inside)[start : gap.at]
    return row + sum(len(rows_of(gap.section, step, 0)) for step in between)


def insert_recorded(macro: Macro, place: Place, steps: Sequence[Step], settings: RecordingSettings) -> Macro:
    """Put recorded steps into a gap, with a wait at each end where they would follow another step at once; none where
    waits are left out."""
    return insert(macro, place, _with_joints(macro, place, steps, settings))


def _with_joints(macro: Macro, place: Place, steps: Sequence[Step], settings: RecordingSettings) -> tuple[Step, ...]:
    if not steps or settings.waits is Waits.NONE:
        return tuple(steps)
    into = steps_in(macro, place.section, place.inside)
    sides = (into[: place.at][::-1], into[place.at :])
    ends = [next((step for step in side if not isinstance(step, Note)), None) for side in sides]
    joint = Wait(wait_us=settings.even_us)
    head, tail = (
        (joint,) if there is not None and not isinstance(there, Wait) and not isinstance(ours, Wait) else ()
        for there, ours in zip(ends, (steps[0], steps[-1]), strict=True)
    )
    return (*head, *steps, *tail)
