"""Shaping a macro in time: moving the edges that its timing diagram shows.

An *edge* is a control going down or up, or the moment of a wheel, pointer, text or open step. Moving edges changes
waits and holds and nothing else: the times of all other edges, counted from the beginning of their section, stay as
they were. What moves past other edges gets its new place among the steps; a tap or combination with another edge inside
becomes a press and a release.

Waits that are left to chance, formulas in times, and blocks are walls: their time isn't known, so no edge moves past
them. A section grows when an edge moves past its end; a block doesn't.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import NamedTuple

import msgspec

from nakrel.core.edit.edits import with_steps_in
from nakrel.core.edit.pieces import OTHERS_BY_STEP
from nakrel.core.edit.rows import Inside, Row, steps_in
from nakrel.core.edit.timeline import Span, Timeline
from nakrel.core.model.controls import OTHERS, Kind, label
from nakrel.core.model.controls import control as named
from nakrel.core.model.errors import DataError
from nakrel.core.model.lengths import length_us
from nakrel.core.model.limits import MAX_WAIT_US
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.steps import (
    Block,
    Chord,
    Note,
    Option,
    Pointer,
    Press,
    Release,
    Set,
    Step,
    Tap,
    Text,
    Wait,
    formulas_of,
)
from nakrel.core.model.units import shown_ms
from nakrel.words import tr

__all__ = ["Edge", "Moment", "edge_at", "edges_of", "moment_of", "shift", "snapped", "widen"]


class Edge(NamedTuple):
    """Where a row's control goes down, or up. A release has an up edge only, a tap and a combination have
    both, everything else has a down edge."""

    row: int
    down: bool


def edges_of(control: str, span: Span) -> frozenset[Edge]:
    """The edges of a hold of a control that are steps of their own: what the end of the macro lets go has no up edge,
    and a wheel notch, like all that isn't held, has one edge in all."""
    if control in OTHERS or named(control).kind is Kind.WHEEL:
        return frozenset({Edge(span.down, True)} if span.down >= 0 else ())
    return frozenset(Edge(row, down) for row, down in ((span.down, True), (span.up, False)) if row >= 0)


class Moment(NamedTuple):
    """An edge by its control, its way, and its time in microseconds: it is found again by these after an edit."""

    control: str
    down: bool
    at_us: int


def moment_of(line: Timeline, edge: Edge) -> Moment:
    """When an edge is; of a combination, its first control."""
    step = _row(line, edge).step
    control = OTHERS_BY_STEP.get(type(step)) or getattr(step, "control", "") or getattr(step, "controls", ("",))[0]
    ends = isinstance(step, Tap | Chord) and not edge.down
    return Moment(control, edge.down, line.end_us(edge.row) if ends else line.start_us(edge.row))


def edge_at(line: Timeline, moment: Moment) -> tuple[Edge, Span] | None:
    """The edge of that control and way at that time, and the hold it belongs to; None where there is none."""
    for span in line.spans_between(moment.at_us, moment.at_us).get(moment.control, ()):
        if (span.start_us if moment.down else span.end_us) == moment.at_us:
            whole = line.hold_at(moment.control, moment.at_us, span.down) if moment.down else span
            span = whole if whole and whole.start_us == span.start_us else span
            for edge in edges_of(moment.control, span):
                if edge.down == moment.down:
                    return edge, span
    return None


def snapped(at_us: float, grid_us: float) -> int:
    """The nearest line of a grid, in microseconds; a `grid_us` of 0 is no grid."""
    return round(round(at_us / grid_us) * grid_us) if grid_us else round(at_us)


def shift(line: Timeline, edges: Collection[Edge], by_us: int) -> Macro:
    """Move edges by so many microseconds. Raises `DataError` where something is in the way."""
    lists: dict[tuple[Section, Inside], list[tuple[int, bool]]] = {}
    for edge in edges:
        row = _row(line, edge)
        lists.setdefault((row.section, row.inside), []).append((row.at, edge.down))
    macro = line.macro
    # The innermost lists first: an edge that gets another place among the steps changes the places of blocks after it.
    for (section, inside), chosen in sorted(lists.items(), key=lambda each: -len(each[0][1])):
        steps = steps_in(macro, section, inside)
        steps = _shifted(steps, _with_partners(steps, chosen), by_us, grows=not inside)
        macro = with_steps_in(macro, section, inside, steps)
    return macro


def widen(line: Timeline, edge: Edge, by_us: int) -> Macro:
    """Change the time before an edge by so much; everything after it in its list goes along. Raises `DataError`."""
    row = _row(line, edge)
    steps = steps_in(line.macro, row.section, row.inside)
    step = steps[row.at]
    if isinstance(step, Tap | Chord) and not edge.down:
        hold = _fixed_us(step)
        if hold is None or hold + by_us <= 0:
            raise DataError(tr("a hold needs some time, and this one of {hold} would get none").format(hold=_ms(hold)))
        changed: tuple[Step, ...] = (msgspec.structs.replace(step, hold_us=hold + by_us),)
        return with_steps_in(line.macro, row.section, row.inside, (*steps[: row.at], *changed, *steps[row.at + 1 :]))
    first = row.at
    while first and (_is_fixed_wait(steps[first - 1]) or _is_rider(steps[first - 1])):
        first -= 1
    lead = list(steps[first : row.at])
    room = sum(map(length_us, lead))
    if room + by_us < 0:
        wall = first and isinstance(steps[first - 1], Wait)
        if wall:
            why = tr("it can come {room} earlier at most; then a random wait is in the way")
        else:
            why = tr("it can come {room} earlier at most; then the edge before it is in the way")
        raise DataError(why.format(room=_ms(room)))
    made = (*steps[:first], *_lead(lead, room + by_us), *steps[row.at :])
    return with_steps_in(line.macro, row.section, row.inside, made)


def _row(line: Timeline, edge: Edge) -> Row:
    row = line.row(edge.row)
    if isinstance(row.step, Option | Block):
        raise DataError(tr("a block has no edges of its own; move those inside it"))
    return row


def _ms(micros: int | None) -> str:
    return tr("unknown length") if micros is None else f"{shown_ms(micros)} ms"


class _Event:
    """An edge among its neighbours: the steps before it that only take time or none, when it is, what it is of."""

    __slots__ = ("at_us", "busy_us", "down", "index", "lead", "order", "step")

    def __init__(self, order: int, at_us: int, index: int, step: Step, down: bool, lead: list[Step]) -> None:
        self.order, self.at_us, self.index, self.step, self.down, self.lead = order, at_us, index, step, down, lead
        # What takes time and can't be taken apart.
        self.busy_us = length_us(step) if isinstance(step, Pointer | Text) else 0

    def controls(self) -> tuple[str, ...]:
        """The controls that go down or up."""
        match self.step:
            case Chord(controls=controls):
                return controls
            case Tap(control=control) | Press(control=control) | Release(control=control):
                return (control,)
        return ()


def _with_partners(steps: tuple[Step, ...], chosen: Collection[tuple[int, bool]]) -> set[tuple[int, bool]]:
    """The chosen edges, and those that belong to them: controls that go down one right after the other and come up
    right after each other in reverse order are a combination that something else happens in, and move as one."""
    found = set(chosen)
    for index, _ in chosen:
        if isinstance(steps[index], Press | Release):
            first, last = _run(steps, index)
            for partners in _chord_in_pieces(steps, first, last):
                if index in partners:
                    found |= {(partner, isinstance(steps[index], Press)) for partner in partners}
    return found


def _run(steps: tuple[Step, ...], index: int) -> tuple[int, int]:
    """From and up to which step the presses, or the releases, around one stand without anything between them."""
    kind, first, last = type(steps[index]), index, index + 1
    while first and type(steps[first - 1]) is kind and not steps[first - 1].off:
        first -= 1
    while last < len(steps) and type(steps[last]) is kind and not steps[last].off:
        last += 1
    return first, last


def _chord_in_pieces(steps: tuple[Step, ...], first: int, last: int) -> list[range]:
    """The places of the edges in a run of presses or of releases that come together at both ends of their holds."""
    found: list[range] = []
    at = first
    while at < last:
        ends = [_other_end(steps, index) for index in range(at, last)]
        size = 1
        # The other ends stand in reverse order, one right beside the other.
        while at + size < last and None not in ends[: size + 1] and ends[size] == ends[size - 1] - 1:  # type: ignore[operator]
            size += 1
        if size > 1:
            found.append(range(at, at + size))
        at += size
    return found


def _other_end(steps: tuple[Step, ...], index: int) -> int | None:
    """Where the control of a press is released, or that of a release was pressed; None where it isn't in this list."""
    step = steps[index]
    assert isinstance(step, Press | Release)
    pressed = isinstance(step, Press)
    others = range(index + 1, len(steps)) if pressed else range(index - 1, -1, -1)
    for other in others:
        each = steps[other]
        if isinstance(each, Press | Release) and each.control == step.control and not each.off:
            return other if isinstance(each, Press) is not pressed else None
    return None


def _shifted(
    steps: tuple[Step, ...], chosen: Collection[tuple[int, bool]], by_us: int, *, grows: bool
) -> tuple[Step, ...]:
    """The list with the chosen edges moved: only the part of it that they pass is taken apart."""
    first, last = _part(steps, chosen, by_us)
    events, lead, end_us = _events(steps[first:last])
    moved = {(index - first, down) for index, down in chosen}
    for event in events:
        if (event.index, event.down) in moved:
            event.at_us += by_us
    ordered = sorted(events, key=lambda event: (event.at_us, event.order))
    if ordered and ordered[0].at_us < 0:
        raise DataError(_refusal_reason(steps[:first], "before"))
    _refuse_overlap(ordered)
    made, now = _written(ordered)
    if now > end_us:
        if last < len(steps) or not grows:
            raise DataError(_refusal_reason(steps[last:], "after"))
        end_us = now
    return (*steps[:first], *made, *_lead(lead, end_us - now), *steps[last:])


def _part(steps: tuple[Step, ...], chosen: Collection[tuple[int, bool]], by_us: int) -> tuple[int, int]:
    """From and up to which step the moved edges can reach."""
    first = min(index for index, _ in chosen)
    last = max(index for index, _ in chosen) + 1
    if any(_fixed_us(step) is None for step in steps[first:last]):
        raise DataError(tr("between these edges is a random wait, a formula or a block; move less at once"))
    room = by_us
    while first and _fixed_us(steps[first - 1]) is not None and (room < 0 or _takes_no_event(steps[first - 1])):
        first -= 1
        room += length_us(steps[first])
    room = -by_us
    while last < len(steps) and _fixed_us(steps[last]) is not None and (room < 0 or _takes_no_event(steps[last])):
        room += length_us(steps[last])
        last += 1
    return first, last


def _events(steps: Iterable[Step]) -> tuple[list[_Event], list[Step], int]:
    """The edges of steps of known length, what stands after the last of them, and how long all take."""
    events: list[_Event] = []
    lead: list[Step] = []
    now = 0
    for index, step in enumerate(steps):
        if _takes_no_event(step):
            lead.append(step)
        elif isinstance(step, Tap | Chord):
            events.append(_Event(len(events), now, index, step, True, lead))
            events.append(_Event(len(events), now + length_us(step), index, step, False, []))
            lead = []
        else:
            events.append(_Event(len(events), now, index, step, not isinstance(step, Release), lead))
            lead = []
        now += length_us(step)
    return events, lead, now


def _refuse_overlap(ordered: list[_Event]) -> None:
    """Each control's edges keep their order, and no hold is left without any time."""
    last: dict[str, _Event] = {}
    for event in ordered:
        for control in event.controls():
            before = last.get(control)
            if before is not None and before.order > event.order:
                raise DataError(
                    tr("two holds of {control} would overlap; a key or button is down once at a time").format(
                        control=label(control)
                    )
                )
            last[control] = event
            own = before is not None and before.step is event.step and before.index == event.index
            if before is not None and own and before.at_us == event.at_us and length_us(event.step):
                raise DataError(tr("this hold of {control} would have no time left").format(control=label(control)))


def _written(ordered: list[_Event]) -> tuple[list[Step], int]:
    """The steps that make these edges, and when the last is done."""
    made: list[Step] = []
    now, at = 0, 0
    while at < len(ordered):
        event = ordered[at]
        if event.at_us < now:
            raise DataError(
                tr("the pointer's move or a text takes all the time there; nothing else can happen meanwhile")
            )
        made += _lead(event.lead, event.at_us - now)
        now = event.at_us + event.busy_us
        at += 1
        if not isinstance(event.step, Tap | Chord):
            made.append(event.step)
        elif event.down and at < len(ordered) and ordered[at].index == event.index:
            now = ordered[at].at_us
            made.append(msgspec.structs.replace(event.step, hold_us=now - event.at_us))
            at += 1
        elif event.down:
            presses = [Press(control=control) for control in event.controls()]
            made += [msgspec.structs.replace(presses[0], remark=event.step.remark), *presses[1:]]
        else:
            made += [Release(control=control) for control in reversed(event.controls())]
    return made, now


def _lead(lead: list[Step], wanted_us: int) -> list[Step]:
    """The steps before an edge with their waits changed to take so long together: the last wait changes first."""
    change = wanted_us - sum(map(length_us, lead))
    if change == 0:
        return lead
    made: list[Step] = []
    for step in reversed(lead):
        if change and _is_fixed_wait(step) and not step.off:
            length = max(0, length_us(step) + change)
            change -= length - length_us(step)
            if length == 0 and not step.remark:
                continue
            step = msgspec.structs.replace(step, wait_us=length)
        made.append(step)
    made.reverse()
    if change > 0:
        made.append(Wait(wait_us=change))
    if wanted_us > MAX_WAIT_US:
        raise DataError(tr("a wait is {most} ms long at most").format(most=shown_ms(MAX_WAIT_US)))
    return made


def _takes_no_event(step: Step) -> bool:
    return _is_fixed_wait(step) or _is_rider(step)


def _is_fixed_wait(step: Step) -> bool:
    return isinstance(step, Wait) and (step.off or (step.most_us is None and isinstance(step.wait_us, int)))


def _is_rider(step: Step) -> bool:
    """Whether it leaves no mark in the diagram: it goes along with the edge after it."""
    return step.off or isinstance(step, Note | Set)


def _fixed_us(step: Step) -> int | None:
    """How long the step takes; None where that isn't known."""
    if step.off or isinstance(step, Note | Set):
        return 0
    if isinstance(step, Block):
        return None
    if isinstance(step, Wait) and not _is_fixed_wait(step):
        return None
    if isinstance(step, Tap | Chord | Text) and formulas_of(step):
        return None
    if isinstance(step, Pointer) and isinstance(step.over_us, str):
        return None
    return length_us(step)


def _refusal_reason(steps: tuple[Step, ...], where: str) -> str:
    wall = (steps[-1] if where == "before" else steps[0]) if steps else None
    if isinstance(wall, Block):
        return tr("a block is in the way; move the edge within it, or drag the steps in the list")
    if wall is not None:
        return tr("a random wait or a formula is in the way")
    return tr("there is no time before the beginning") if where == "before" else tr("that is past the end of the block")
