"""The rows of a macro, as the step list shows them.

A macro's steps are numbered through its three sections: `row` 0 is the first step of the start, or of the loop where
there is no start. A block's row comes before the rows of what is inside it; each branch of a pick-one block, and what
an if block does otherwise, has a row of its own before its steps.
"""

from __future__ import annotations

import itertools
from bisect import bisect_right
from collections.abc import Callable, Collection, Mapping, Sequence
from functools import partial
from typing import NamedTuple

from nakrel.core.model.alike import shared
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.steps import BLOCKS, If, Line, PickOne, Repeat, Step, branches

__all__ = [
    "Inside",
    "Place",
    "Row",
    "first_rows_of",
    "numbered_rows",
    "place_after",
    "row_at",
    "row_of",
    "rows",
    "rows_of",
    "size_of",
    "steps_in",
]

# The way to a list of steps inside blocks: for each block its index in the list above, and which of its branches.
Inside = tuple[tuple[int, int], ...]


class Place(NamedTuple):
    """A gap between steps: before the step `at` of a section, or of a branch inside it."""

    section: Section
    at: int
    inside: Inside = ()


class Row(NamedTuple):
    """A line of the step list: a step or a branch, where it is, and how far it is indented. A branch is `at` -1 of
    its own steps."""

    section: Section
    step: Line
    inside: Inside
    at: int
    depth: int


# A row of its fields, in half the time: a long macro has tens of thousands.
_row: Callable[[tuple[Section, Line, Inside, int, int]], Row] = partial(tuple.__new__, Row)


def rows(macro: Macro) -> list[Row]:
    """All rows in the order of the step list."""
    found: list[Row] = []
    for section in Section:
        _collect(found, section, macro.section(section), (), 0)
    return found


def rows_of(section: Section, step: Step, at: int) -> list[Row]:
    """The rows of a step that is number `at` of its section."""
    found: list[Row] = []
    _collect(found, section, (step,), (), 0, at)
    return found


def _collect(
    found: list[Row], section: Section, steps: Sequence[Step], inside: Inside, depth: int, first: int = 0
) -> None:
    for at, step in enumerate(steps, first):
        found.append(_row((section, step, inside, at, depth)))
        if type(step) not in BLOCKS:
            continue
        if isinstance(step, Repeat):
            _collect(found, section, step.steps, (*inside, (at, 0)), depth + 1)
        elif isinstance(step, PickOne):
            for number, branch in enumerate(step.branches):
                deeper = (*inside, (at, number))
                found.append(Row(section, branch, deeper, -1, depth + 1))
                _collect(found, section, branch.steps, deeper, depth + 2)
        elif isinstance(step, If):
            _collect(found, section, step.steps, (*inside, (at, 0)), depth + 1)
            if step.otherwise:
                deeper = (*inside, (at, 1))
                found.append(Row(section, step.otherwise, deeper, -1, depth))
                _collect(found, section, step.otherwise.steps, deeper, depth + 1)


def row_at(macro: Macro, row: int) -> Row | None:
    """One row; None where there is none of that number."""
    for section in Section:
        steps = macro.section(section)
        first_rows = first_rows_of(steps)
        if 0 <= row < first_rows[-1]:
            at = bisect_right(first_rows, row) - 1
            if first_rows[at + 1] - first_rows[at] == 1:
                return Row(section, steps[at], (), at, 0)
            return rows_of(section, steps[at], at)[row - first_rows[at]]
        row -= first_rows[-1]
    return None


def row_of(macro: Macro, place: Place) -> int:
    """The row of the step at a place."""
    before = 0
    for section in Section:
        steps = macro.section(section)
        if section is place.section:
            break
        before += first_rows_of(steps)[-1]
    at = place.inside[0][0] if place.inside else place.at
    inside = rows_of(place.section, steps[at], at)
    found = next(n for n, row in enumerate(inside) if row.inside == place.inside and row.at == place.at)
    return before + first_rows_of(steps)[at] + found


def size_of(step: Step) -> int:
    """How many rows a step has."""
    kind = type(step)
    if kind not in BLOCKS:
        return 1
    inside = sum(size_of(each) for branch in branches(step) for each in branch)
    if kind is PickOne:
        return 1 + len(step.branches) + inside  # type: ignore[union-attr]
    return 1 + inside + (kind is If and step.otherwise is not None)  # type: ignore[union-attr]


def first_rows_of(steps: tuple[Step, ...]) -> Sequence[int]:
    """The first row of each step, counted from the first one's, and how many rows there are in all."""
    # Bound to a name, since other threads may put another in its place.
    lately = _lately
    for known in lately:
        if known.steps is steps:
            return known.first_rows
    if BLOCKS.isdisjoint(map(type, steps)):
        # Each has one.
        return _remembered(_Rows(steps, None, range(len(steps) + 1)))
    before = next((known for known in lately if known.sizes), None)
    sizes = [size_of(step) for step in steps] if before is None else _carried_over(before, steps)
    return _remembered(_Rows(steps, sizes, list(itertools.accumulate(sizes, initial=0))))


class _Rows(NamedTuple):
    """What was found of some steps: how many rows each has, None where each has one, and the first of them."""

    steps: tuple[Step, ...]
    sizes: list[int] | None
    first_rows: Sequence[int]


def _carried_over(before: _Rows, steps: tuple[Step, ...]) -> list[int]:
    """How many rows each step has, as far as possible by what was found of others before an edit."""
    assert before.sizes
    same, same_end = shared(before.steps, steps)
    new = steps[same : len(steps) - same_end]
    return [*before.sizes[:same], *map(size_of, new), *before.sizes[len(before.sizes) - same_end :]]


def _remembered(found: _Rows) -> Sequence[int]:
    global _lately
    if len(found.steps) > _LONG:
        _lately = (found, *_lately)[:_KEPT]
    return found.first_rows


# What was found of long macros lately: an edit asks of the same steps a dozen times, and looking takes a while.
_LONG, _KEPT = 500, 6
_lately: tuple[_Rows, ...] = ()


def place_after(macro: Macro, row: int | None) -> Place:
    """The gap after a row, the first inside for a block or branch; with None the end of the loop."""
    found = None if row is None else row_at(macro, row)
    if found is None:
        return Place(Section.LOOP, len(macro.loop))
    section, step, inside, at, _ = found
    if isinstance(step, Repeat | If):
        return Place(section, 0, (*inside, (at, 0)))
    return Place(section, at + 1, inside)


def steps_in(macro: Macro, section: Section, inside: Inside) -> tuple[Step, ...]:
    """The steps of a section, or of a branch inside it."""
    steps = macro.section(section)
    for at, branch in inside:
        steps = branches(steps[at])[branch]
    return steps


# Of so many rows each is looked up; of more all are numbered, which takes less time.
_FEW = 32


def numbered_rows(macro: Macro, chosen: Collection[int]) -> Mapping[int, Row]:
    """The chosen rows, or all, by their numbers."""
    if len(chosen) > _FEW:
        return dict(enumerate(rows(macro)))
    return {number: row for number in chosen if (row := row_at(macro, number))}
