"""A macro laid out in time, one run of it: when each step starts, and when each control is down.

A timeline is made of *pieces*, one a step outside of all blocks. After an edit only the pieces that changed are laid
out anew, and what is drawn is asked for by its stretch of time, so that a macro of ten thousand steps is as quick to
work on as a short one.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Callable, Iterable, Iterator, Sequence
from functools import cached_property, partial
from itertools import accumulate
from operator import itemgetter
from typing import Any, NamedTuple

from nakrel.core.edit.pieces import UNNUMBERED, Budget, Piece, piece_of
from nakrel.core.edit.rows import Place, Row, rows_of
from nakrel.core.model.alike import in_common, shared
from nakrel.core.model.formulas import Estimate
from nakrel.core.model.lengths import length_us
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.steps import Option

__all__ = ["NOTHING", "Span", "Timeline", "Zone", "is_cut", "lay_out"]

# The variables of a macro, by name.
Values = dict[str, float]
# Which controls are down is remembered once in so many pieces.
_EVERY = 256


class Span(NamedTuple):
    """A control is down from `start_us` to `end_us`. `down` and `up` are the rows that press it and let it go; -1 for a
    later turn of a repeat, and for a control that the end of the macro lets go."""

    start_us: int
    end_us: int
    down: int = -1
    up: int = -1


# One of its fields, in half the time: a long macro has tens of thousands.
_span: Callable[[tuple[int, int, int, int]], Span] = partial(tuple.__new__, Span)


class Zone(NamedTuple):
    """A section's stretch of time, in microseconds."""

    section: Section
    start_us: int
    end_us: int


def is_cut(line: Timeline) -> bool:
    """Whether repeats go on for so long that not all of them is worked out."""
    return any(map(_field("cut"), line._pieces))


def _field(name: str) -> Callable[[Piece], Any]:
    """One field of each piece, as fast as it can be read."""
    return itemgetter(Piece._fields.index(name))


class Timeline:
    """One run of each section of a macro.

    A control that is still down at the end is let go there, as the engine does it. Pointer, text and open steps are
    spans of `POINTER`, `TEXT` and `OPEN`. `unsure` are the stretches that chance or a formula decides: random waits are
    drawn at their mean, pick-one blocks as their likeliest branch, formulas as they come out in a first run.

    `before` is the timeline of the macro before an edit: what it shares with it isn't laid out again.
    """

    def __init__(self, macro: Macro, before: Timeline | None = None) -> None:
        self.macro = macro
        # With one section these are its steps themselves, for which what they share with others is known already.
        self._steps = macro.lead_in + macro.loop + macro.lead_out
        same, same_end = shared(before._steps, self._steps) if before else (0, 0)
        old: list[Piece] = before._pieces if before else []
        budget = Budget()
        made = [piece_of(step, budget) for step in self._steps[same : len(self._steps) - same_end]]
        # The variables after each piece that gives one another value.
        self._values: list[tuple[int, Values]] = before._values[: before._valued(same)] if before else []
        made, same_end = self._with_formulas(made, before, same, same_end)
        gone = old[same : len(old) - same_end]
        self._pieces: list[Piece] = [*old[:same], *made, *old[len(old) - same_end :]]
        # How many pieces go by formulas, and how many have more rows than one.
        self._loose: int = (before._loose if before else 0) + _loose(made) - _loose(gone)
        self._blocks: int = (before._blocks if before else 0) + _blocks(made) - _blocks(gone)
        # What is known of the rows' numbers, and of what is down, before some pieces.
        self._numbers: dict[int, int] = {}
        self._down: dict[int, dict[str, tuple[int, int]]] = {}
        if before:
            self._numbers = {at: number for at, number in before._numbers.items() if at <= same}
            self._down = {at: down for at, down in before._down.items() if at <= same}
            counts = same, len(made), len(before._pieces) - same_end
            self.first_uses = _first_uses(before.first_uses, len(before._pieces), self._pieces, counts)
        self._times: list[int] = _sums("length_us", before._times if before else None, same, made, same_end)
        # Without blocks there is a row a piece.
        self._first_rows: Sequence[int] = range(len(self._pieces) + 1)
        if self._blocks:
            known = list(before._first_rows) if before else None
            self._first_rows = _sums("rows", known, same, made, same_end)
        self._opened: dict[int, list[Row]] = {}
        self._known: dict[int, Row] = {}

    def _with_formulas(
        self, made: list[Piece], before: Timeline | None, same: int, same_end: int
    ) -> tuple[list[Piece], int]:
        """The new pieces with what formulas give, which goes by all that was set before them; and how many old ones at
        the end stay: none where one of them goes by a variable that comes to it with another value."""
        scope, budget = Estimate(), Budget()
        scope.variables = dict(self._values[-1][1]) if self._values else {}
        made = self._laid_out(made, same, scope, budget)
        if before is None:
            return made, same_end
        first = len(before._pieces) - same_end
        old = before._pieces[first:]
        if scope.variables != before._variables(first) and _loose(old):
            return [*made, *self._laid_out(old, same + len(made), scope, budget)], 0
        shift = same + len(made) - first
        self._values += [(at + shift, values) for at, values in before._values[before._valued(first) :]]
        return made, same_end

    def _laid_out(self, pieces: list[Piece], first: int, scope: Estimate, budget: Budget) -> list[Piece]:
        """The pieces from number `first` on, those that go by formulas laid out as they come out in `scope`."""
        if all(map(_field("fixed"), pieces)):
            return pieces
        found = []
        values = dict(scope.variables)
        for at, piece in enumerate(pieces, first):
            if not piece.fixed:
                piece = piece_of(self._steps[at], budget, scope)
                if scope.variables != values:
                    values = dict(scope.variables)
                    self._values.append((at, values))
            found.append(piece)
        return found

    def _valued(self, piece: int) -> int:
        """How many pieces before this one give a variable another value."""
        return bisect_left(self._values, piece, key=itemgetter(0))

    def _variables(self, piece: int) -> Values:
        """The variables before a piece."""
        count = self._valued(piece)
        return self._values[count - 1][1] if count else {}

    # Rows

    @property
    def size(self) -> int:
        """The number of rows."""
        return self._first_rows[-1]

    @property
    def length_us(self) -> int:
        """How long one run of all sections takes."""
        return self._times[-1]

    @property
    def loop_us(self) -> int:
        """How long one run of the loop takes."""
        first = len(self.macro.lead_in)
        return self._times[first + len(self.macro.loop)] - self._times[first]

    @property
    def loop_rows(self) -> range:
        """The rows of the loop."""
        first = len(self.macro.lead_in)
        return range(self._first_rows[first], self._first_rows[first + len(self.macro.loop)])

    def row(self, row: int) -> Row:
        """The step or branch of a row, and where it is."""
        if (known := self._known.get(row)) is None:
            known = self._known[row] = self._row(row)
        return known

    def _row(self, row: int) -> Row:
        piece = self._piece_of(row)
        section, at = self._section_of(piece)
        step = self._steps[piece]
        if self._pieces[piece].rows == 1:
            return Row(section, step, (), at, 0)
        if piece not in self._opened:
            self._opened[piece] = rows_of(section, step, at)
        return self._opened[piece][row - self._first_rows[piece]]

    def row_of(self, place: Place) -> int:
        """The row of the step at a place; the number of all rows where there is none."""
        at = place.inside[0][0] if place.inside else place.at
        piece = at
        for section in Section:
            if section is place.section:
                break
            piece += len(self.macro.section(section))
        if piece >= len(self._pieces):
            return self.size
        rows = range(self._first_rows[piece], self._first_rows[piece + 1])
        found = (row for row in rows if self.row(row).inside == place.inside and self.row(row).at == place.at)
        return next(found, self.size)

    def rows(self) -> Iterator[Row]:
        """All rows."""
        return map(self.row, range(self.size))

    def number(self, row: int) -> int:
        """The row's number as people count steps: waits, notes and branches are not counted."""
        piece = self._piece_of(row)
        numbered = (type(self.row(each).step) not in UNNUMBERED for each in range(self._first_rows[piece], row + 1))
        return self._number_before(piece) + sum(numbered)

    def _number_before(self, piece: int) -> int:
        """How many numbered rows there are before a piece."""
        known = piece // _EVERY * _EVERY
        while known and known not in self._numbers:
            known -= _EVERY
        number = self._numbers.get(known, 0)
        for at in range(known, piece):
            if at % _EVERY == 0:
                self._numbers[at] = number
            number += self._pieces[at].numbered
        return number

    def start_us(self, row: int) -> int:
        """When the row's step starts."""
        piece = self._piece_of(row)
        return self._times[piece] + self._pieces[piece].starts_us[row - self._first_rows[piece]]

    def end_us(self, row: int) -> int:
        """When the row's step is over; for a branch, when the last of its steps would be."""
        step = self.row(row).step
        inside = sum(map(length_us, step.steps)) if isinstance(step, Option) else length_us(step)
        piece = self._piece_of(row)
        return self._times[piece + 1] if self._first_rows[piece] == row else self.start_us(row) + inside

    def row_at(self, at_us: int) -> int:
        """The row of the step, outside of all blocks, that a time falls into."""
        return self._first_rows[max(0, min(len(self._pieces) - 1, bisect_right(self._times, at_us) - 1))]

    def replaced(self, before: Timeline) -> tuple[int, int, int]:
        """The first row that may differ from those of another timeline, and in that one and in this the row from which
        on all are the same again, but for when they start and their numbers."""
        same, same_end = self._looks_alike(before)
        return self._first_rows[same], before._first_rows[-1 - same_end], self._first_rows[-1 - same_end]

    def changed_from(self, before: Timeline) -> tuple[int, int]:
        """The first and the last row that may differ from those of another timeline with as many rows, but for when
        they start."""
        same, same_end = self._looks_alike(before)
        if _sizes(self.macro) != _sizes(before.macro):
            return 0, self.size - 1
        first, last = self._first_rows[min(same, len(self._pieces) - 1)], self._first_rows[-1 - same_end] - 1
        return first, max(first, last)

    def _looks_alike(self, before: Timeline) -> tuple[int, int]:
        """How many pieces are the same as in another timeline at the beginning and at the end, what formulas give
        included."""
        same, same_end = shared(before._steps, self._steps)
        if not self._loose:
            return same, same_end
        first, _ = in_common(tuple(before._pieces[:same]), tuple(self._pieces[:same]))
        old, new = before._pieces[len(before._pieces) - same_end :], self._pieces[len(self._pieces) - same_end :]
        alike, last = in_common(tuple(old), tuple(new))
        return first, same_end if alike == same_end else last

    def _section_of(self, piece: int) -> tuple[Section, int]:
        """The section of a piece, and its number there."""
        macro = self.macro
        if (at := piece - len(macro.lead_in)) < 0:
            return Section.LEAD_IN, piece
        return (Section.LOOP, at) if at < len(macro.loop) else (Section.LEAD_OUT, at - len(macro.loop))

    def _piece_of(self, row: int) -> int:
        return bisect_right(self._first_rows, row) - 1

    # Time

    @cached_property
    def zones(self) -> list[Zone]:
        """The sections that have steps."""
        found, at = [], 0
        for section in Section:
            size = len(self.macro.section(section))
            if size:
                found.append(Zone(section, self._times[at], self._times[at + size]))
                at += size
        return found

    @property
    def controls(self) -> list[str]:
        """What has a trace, in the order of first use."""
        return list(self.first_uses)

    @cached_property
    def first_uses(self) -> dict[str, int]:
        """What has a trace, with the piece that uses it first, in their order."""
        return _uses(self._pieces, range(len(self._pieces)))

    @cached_property
    def starts_us(self) -> list[int]:
        """When each row starts."""
        pairs = zip(self._times, self._pieces, strict=False)
        return [at + start for at, piece in pairs for start in piece.starts_us]

    @cached_property
    def spans(self) -> dict[str, list[Span]]:
        """The down times of each control."""
        return self.spans_between(0, self.length_us)

    @cached_property
    def unsure(self) -> list[tuple[int, int]]:
        """What chance or a formula decides."""
        return self.unsure_between(0, self.length_us)

    def unsure_between(self, since_us: int, until_us: int) -> list[tuple[int, int]]:
        """The stretches between two times that chance or a formula decides."""
        return [
            (self._times[at] + start, self._times[at] + end)
            for at in self._between(since_us, until_us)
            for start, end in self._pieces[at].unsure
        ]

    def count_between(self, since_us: int, until_us: int) -> int:
        """How many steps outside of blocks there are between two times."""
        return len(self._between(since_us, until_us))

    def spans_between(self, since_us: int, until_us: int) -> dict[str, list[Span]]:
        """The down times of each control that reach into a stretch of time; the end of one that goes on after it may be
        told too early, though not inside the stretch."""
        between = self._between(since_us, until_us)
        down = dict(self._down_before(between.start))
        found: dict[str, list[Span]] = {control: [] for control in self.controls}
        for at in between:
            self._play(at, down, found)
        end = self.length_us if between.stop == len(self._pieces) else max(until_us + 1, self._times[between.stop])
        for control, (since, row) in down.items():
            found[control].append(Span(since, end, row))
        return found

    def hold_at(self, control: str, at_us: int, row: int | None = None) -> Span | None:
        """The whole stretch in which the control is down at a time: where several meet there, the one that begins with
        this row, or the first."""
        first = self._between(at_us, at_us).start
        down = dict(self._down_before(first))
        found: dict[str, list[Span]] = {each: [] for each in self.controls}
        for at in range(first, len(self._pieces)):
            self._play(at, down, found)
            for span in found[control]:
                if span.start_us <= at_us <= span.end_us and row in (None, span.down):
                    return span
            if control not in down and self._times[at + 1] > at_us:
                return None
        since, begun = down.get(control, (at_us + 1, -1))
        return Span(since, self.length_us, begun) if since <= at_us and row in (None, begun) else None

    def _between(self, since_us: int, until_us: int) -> range:
        first = max(0, bisect_left(self._times, since_us) - 1)
        return range(first, min(len(self._pieces), bisect_right(self._times, until_us)))

    def _play(self, at: int, down: dict[str, tuple[int, int]], found: dict[str, list[Span]] | None) -> None:
        """Carry on over a piece: `down` is what is down before it and then after it."""
        start, first = self._times[at], self._first_rows[at]
        for at_us, control, value, row_in, end_us in self._pieces[at].marks:
            row = first + row_in if row_in >= 0 else -1
            if end_us >= 0:
                if found is not None:
                    found[control].append(Span(start + at_us, start + end_us, row, row))
            elif value:
                # A tap of a control that is down already lets it go at its end.
                down.setdefault(control, (start + at_us, row))
            elif control in down:
                since, pressed = down.pop(control)
                if found is not None:
                    found[control].append(_span((since, start + at_us, pressed, row)))

    def _down_before(self, piece: int) -> dict[str, tuple[int, int]]:
        known = piece // _EVERY * _EVERY
        while known and known not in self._down:
            known -= _EVERY
        down = dict(self._down.get(known, {}))
        for at in range(known, piece):
            if at % _EVERY == 0:
                self._down.setdefault(at, dict(down))
            self._play(at, down, None)
        return down


def lay_out(macro: Macro, before: Timeline | None = None) -> Timeline:
    """Lay out one run of each section, repeats unrolled as far as anybody could see them."""
    return Timeline(macro, before)


def _sizes(macro: Macro) -> list[int]:
    return [len(macro.section(section)) for section in Section]


def _uses(pieces: list[Piece], numbers: Iterable[int]) -> dict[str, int]:
    """The first of these pieces in which each control is used."""
    found: dict[str, int] = {}
    for at in numbers:
        for control in pieces[at].controls:
            found.setdefault(control, at)
    return found


def _first_uses(uses: dict[str, int], before: int, pieces: list[Piece], counts: tuple[int, int, int]) -> dict[str, int]:
    """The first uses as they come out of those before an edit.

    `before` is how many pieces there were; `counts` are how many are the same at the beginning, how many were made
    after those, and where the old ones end whose place they took.
    """
    same, made, old_end = counts
    shift = len(pieces) - before
    found = {control: at for control, at in uses.items() if at < same}
    new = _uses(pieces, range(same, same + made))
    gone = {control for control, at in uses.items() if same <= at < old_end} - new.keys()
    later = {control: at + shift for control, at in uses.items() if at >= old_end}
    for control in gone:
        holders = (at for at in range(same + made, len(pieces)) if control in pieces[at].controls)
        if (at := next(holders, None)) is not None:
            later[control] = at
    for control, at in (*new.items(), *_uses(pieces, sorted({*later.values()})).items()):
        found.setdefault(control, at)
    return found


def _blocks(pieces: list[Piece]) -> int:
    return sum(piece.rows > 1 for piece in pieces)


def _loose(pieces: list[Piece]) -> int:
    return sum(not piece.fixed for piece in pieces)


def _sums(name: str, old: list[int] | None, same: int, made: list[Piece], same_end: int) -> list[int]:
    """The sum of a field over all pieces before each, and over all: as `old` has it for the pieces that stayed at the
    beginning and at the end."""
    if old is None:
        return list(accumulate(map(_field(name), made), initial=0))
    sums = old[: same + 1]
    sums += accumulate(map(_field(name), made), initial=sums.pop())
    shift, rest = sums[-1] - old[-1 - same_end], old[len(old) - same_end :]
    sums += [at + shift for at in rest] if shift else rest
    return sums


NOTHING = lay_out(Macro(id="none", name="none"))
