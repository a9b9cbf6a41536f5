"""Edits of a macro's steps: pure changes from one macro to the next.

`row` is the number of a step or branch as the step list shows it (`rows`).
"""

from __future__ import annotations

import itertools
from bisect import bisect_right
from collections.abc import Callable, Collection, Mapping, Sequence
from typing import Any

import msgspec

from nakrel.core.edit.rows import Inside, Place, Row, first_rows_of, numbered_rows, row_of, steps_in
from nakrel.core.model.controls import Kind, control
from nakrel.core.model.lengths import length_us
from nakrel.core.model.limits import MAX_WAIT_US
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.steps import (
    Block,
    Chord,
    If,
    Line,
    Note,
    Option,
    Otherwise,
    PickOne,
    Press,
    Release,
    Repeat,
    Step,
    Tap,
    Wait,
    Wheel,
    branches,
)

__all__ = [
    "change",
    "delete",
    "duplicate",
    "insert",
    "move",
    "rebind",
    "retime",
    "steps_of",
    "to_chord",
    "to_pairs",
    "to_taps",
    "trim",
    "with_steps_in",
    "wrap",
]

# A step where a step was and a branch where a branch was: what goes in a row's place is of the row's own kind.
SameKind = Any


def with_steps_in(macro: Macro, section: Section, inside: Inside, steps: tuple[Step, ...]) -> Macro:
    """The macro with other steps in a section, or in a branch inside it."""

    def put(into: tuple[Step, ...], option: Inside) -> tuple[Step, ...]:
        if not option:
            return steps
        at, branch = option[0]
        lists = list(branches(into[at]))
        lists[branch] = put(lists[branch], option[1:])
        return (*into[:at], _with_lists(into[at], lists), *into[at + 1 :])

    return _with(macro, section, put(macro.section(section), inside))


def insert(macro: Macro, place: Place, steps: Sequence[Step]) -> Macro:
    """Put steps into a gap."""
    into = steps_in(macro, place.section, place.inside)
    return with_steps_in(macro, place.section, place.inside, (*into[: place.at], *steps, *into[place.at :]))


def delete(macro: Macro, chosen: Collection[int]) -> Macro:
    """Take rows out, blocks with all that is inside; a pick-one block goes with its last branch."""
    return _map(macro, lambda row, line: () if row in chosen else (line,), chosen)


def change(macro: Macro, row: int, step: Line) -> Macro:
    """Put another step in a row's place; a block brings its own steps."""
    return _map(macro, lambda at, old: (step,) if at == row else (old,), (row,))


def duplicate(macro: Macro, chosen: Collection[int]) -> Macro:
    """Repeat each of the rows after itself."""
    return _map(macro, lambda row, line: (line, line) if row in chosen and not _is_otherwise(line) else (line,), chosen)


def _is_otherwise(line: Line) -> bool:
    return isinstance(line, Otherwise)


def retime(macro: Macro, chosen: Collection[int], time_of: Callable[[int], int]) -> Macro:
    """Change every wait and every hold among the rows, in microseconds; what comes out is kept within bounds.

    Times that are formulas stay as they are.
    """

    def bounded(micros: int) -> int:
        return max(0, min(MAX_WAIT_US, time_of(micros)))

    def timed(row: int, line: SameKind) -> tuple[SameKind, ...]:
        if row not in chosen:
            return (line,)
        if isinstance(line, Wait):
            given = [end for end in (line.wait_us, line.most_us) if end is not None]
            plain = [end for end in given if isinstance(end, int)]
            if len(plain) < len(given):
                return (line,)
            ends = sorted(map(bounded, plain))
            most = ends[-1] if line.most_us is not None and ends[-1] != ends[0] else None
            return (msgspec.structs.replace(line, wait_us=ends[0], most_us=most),)
        if isinstance(line, Tap | Chord) and isinstance(line.hold_us, int):
            return (msgspec.structs.replace(line, hold_us=bounded(line.hold_us)),)
        return (line,)

    return _map(macro, timed, chosen)


def trim(macro: Macro) -> Macro:
    """Take out the waits at the loop's beginning and end, which recording leaves there."""
    first = next((n for n, step in enumerate(macro.loop) if not isinstance(step, Wait)), len(macro.loop))
    last = next((n for n, step in enumerate(reversed(macro.loop)) if not isinstance(step, Wait)), 0)
    return _with(macro, Section.LOOP, macro.loop[first : len(macro.loop) - last])


def steps_of(macro: Macro, chosen: Collection[int]) -> list[Step]:
    """The steps of the rows in order, without those that are inside another one of them."""
    numbered = numbered_rows(macro, chosen)
    return list(_steps(numbered, _outermost(numbered, chosen)))


def move(macro: Macro, chosen: Collection[int], to: Place) -> Macro:
    """Move rows into a gap, in their order; the gap is counted with the rows still in place.

    A block that is to go inside itself stays, and all else with it.
    """
    mark = Note(text="")
    marked = insert(macro, to, [mark])
    gap = row_of(marked, to)
    shifted = {row if row < gap else row + 1 for row in chosen}
    numbered = numbered_rows(marked, {gap, *shifted})
    outer = _outermost(numbered, shifted)
    if any(_is_inside(numbered[gap], numbered[row]) for row in outer):
        return macro
    moved = _steps(numbered, outer)

    def carried(row: int, line: SameKind) -> tuple[SameKind, ...]:
        if line is mark:
            return moved
        return () if row in outer else (line,)

    return _map(marked, carried, {gap, *outer})


def wrap(macro: Macro, chosen: Collection[int], block: Callable[[tuple[Step, ...]], Step]) -> Macro:
    """Put the rows into a new block, made by `block`, where the first of them was."""
    numbered = numbered_rows(macro, chosen)
    outer = _outermost(numbered, chosen)
    if not outer:
        return macro
    inner = _steps(numbered, outer)

    def wrapped(row: int, line: SameKind) -> tuple[SameKind, ...]:
        if row == outer[0]:
            return (block(inner),)
        return () if row in outer else (line,)

    return _map(macro, wrapped, outer)


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
            lists = [joined(inner) for inner in branches(step)]
            found.append(_with_lists(step, lists) if lists else step)
        return tuple(found)

    for section in Section:
        macro = _with(macro, section, joined(macro.section(section)))
    return macro


def to_pairs(macro: Macro, chosen: Collection[int]) -> Macro:
    """Turn taps and combinations among the rows into presses, a wait and releases; the times of all events stay as they
    were."""

    def parted(row: int, line: SameKind) -> tuple[SameKind, ...]:
        if row not in chosen or not isinstance(line, Tap | Chord):
            return (line,)
        controls = _held(line)
        first = Press(control=controls[0], remark=line.remark, off=line.off)
        return (
            first,
            *(Press(control=control, off=line.off) for control in controls[1:]),
            Wait(wait_us=line.hold_us, off=line.off),
            *(Release(control=control, off=line.off) for control in reversed(controls)),
        )

    return _map(macro, parted, chosen)


def rebind(macro: Macro, chosen: Collection[int], code: str) -> Macro:
    """Give the steps among the rows another control: taps, presses and releases a key or button, wheel steps a
    direction. Steps that can't have it stay as they are."""
    wheel = control(code).kind is Kind.WHEEL

    def rebound(row: int, line: SameKind) -> tuple[SameKind, ...]:
        fits = isinstance(line, Wheel) if wheel else isinstance(line, Tap | Press | Release)
        if row not in chosen or not fits:
            return (line,)
        return (msgspec.structs.replace(line, control=code),)

    return _map(macro, rebound, chosen)


def to_chord(macro: Macro, chosen: Collection[int]) -> Macro:
    """Make one combination of the taps among the rows, held as long as the longest; the waits among them go.

    The macro stays as it is where there are not two controls to press together.
    """
    numbered = numbered_rows(macro, chosen)
    taps = [(row, numbered[row].step) for row in sorted(chosen)]
    pressed = [(row, step) for row, step in taps if isinstance(step, Tap | Chord)]
    controls = dict.fromkeys(code for _, step in pressed for code in _held(step))
    if not 2 <= len(controls) <= 8:
        return macro
    longest = max(pressed, key=lambda found: length_us(found[1]))[1]
    chord = Chord(controls=tuple(controls), hold_us=longest.hold_us)
    gone = {row for row, step in taps if isinstance(step, Tap | Chord | Wait)}
    first = pressed[0][0]

    def chorded(row: int, line: SameKind) -> tuple[SameKind, ...]:
        if row == first:
            return (chord,)
        return () if row in gone else (line,)

    return _map(macro, chorded, {first, *gone})


def _held(step: Tap | Chord) -> tuple[str, ...]:
    return step.controls if isinstance(step, Chord) else (step.control,)


def _fits(press: Press, hold: Wait, release: Release) -> bool:
    plain = hold.most_us is None and not (press.off or hold.off or release.off)
    return press.control == release.control and plain


def _outermost(numbered: Mapping[int, Row], chosen: Collection[int]) -> list[int]:
    """The chosen rows that are steps and not inside another chosen one."""
    found: list[int] = []
    for row in sorted(chosen):
        is_step = not isinstance(numbered[row].step, Option)
        if is_step and not any(_is_inside(numbered[row], numbered[outer]) for outer in found):
            found.append(row)
    return found


def _steps(numbered: Mapping[int, Row], chosen: Sequence[int]) -> tuple[Step, ...]:
    return tuple(step for row in chosen if not isinstance(step := numbered[row].step, Option))


def _is_inside(row: Row, block: Row) -> bool:
    deep = len(block.inside)
    return (
        row.section is block.section
        and len(row.inside) > deep
        and row.inside[:deep] == block.inside
        and row.inside[deep][0] == block.at
    )


def _map(macro: Macro, each: Callable[[int, Any], tuple[Any, ...]], chosen: Collection[int] | None = None) -> Macro:
    """Put what `each` makes of a row in its place; a block comes to it with its steps already changed. With `chosen`,
    rows that are not among them stay as they are."""
    numbers = itertools.count()

    def over(steps: tuple[Step, ...]) -> tuple[Step, ...]:
        found: list[Step] = []
        for step in steps:
            row = next(numbers)
            if isinstance(step, Block):
                changed = _options(step)
                if changed is None:
                    continue
                step = changed
            found += each(row, step)
        return tuple(found)

    def _options(step: Block) -> Block | None:
        """The block with all that is inside changed; None where its last branch is gone."""
        if isinstance(step, PickOne):
            options = tuple(option for branch in step.branches for option in one(branch))
            return msgspec.structs.replace(step, branches=options) if options else None
        inner = over(step.steps)
        if inner != step.steps:
            step = msgspec.structs.replace(step, steps=inner)
        if isinstance(step, If) and step.otherwise:
            options = one(step.otherwise)
            step = msgspec.structs.replace(step, otherwise=options[0] if options else None)
        return step

    def one(option: Any) -> tuple[Any, ...]:
        row = next(numbers)
        inner = over(option.steps)
        return each(row, msgspec.structs.replace(option, steps=inner))

    def picked(steps: tuple[Step, ...], which: Collection[int]) -> tuple[Step, ...]:
        """The same where only the steps in which some rows lie are looked at."""
        nonlocal numbers
        first, first_rows = next(numbers), first_rows_of(steps)
        rows_here = (row - first for row in which if 0 <= row - first < first_rows[-1])
        found: list[Step] = []
        done = 0
        for at in sorted({bisect_right(first_rows, row) - 1 for row in rows_here}):
            found += steps[done:at]
            numbers = itertools.count(first + first_rows[at])
            found += over((steps[at],))
            done = at + 1
        numbers = itertools.count(first + first_rows[-1])
        return (*found, *steps[done:])

    for section in Section:
        before = macro.section(section)
        if not before:
            continue
        steps = over(before) if chosen is None else picked(before, chosen)
        if steps != before:
            macro = _with(macro, section, steps)
    return macro


def _with_lists(block: Step, lists: Sequence[tuple[Step, ...]]) -> Step:
    match block:
        case Repeat():
            return msgspec.structs.replace(block, steps=lists[0])
        case PickOne():
            pairs = zip(block.branches, lists, strict=True)
            options = tuple(msgspec.structs.replace(branch, steps=steps) for branch, steps in pairs)
            return msgspec.structs.replace(block, branches=options)
        case If(otherwise=None):
            return msgspec.structs.replace(block, steps=lists[0])
        case If():
            return msgspec.structs.replace(block, steps=lists[0], otherwise=Otherwise(steps=lists[1]))
    return block


def _with(macro: Macro, section: Section, steps: tuple[Step, ...]) -> Macro:
    return msgspec.structs.replace(macro, **{section.value: steps})
