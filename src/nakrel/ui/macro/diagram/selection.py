"""What is picked, measured and moved in the timing diagram; no painting, no widget."""

from __future__ import annotations

from typing import NamedTuple

from nakrel.core.edit.shaping import Edge, Moment, edge_at, edges_of, moment_of, shift, widen
from nakrel.core.edit.timeline import NOTHING, Span, Timeline, lay_out
from nakrel.core.model.controls import label
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.units import shown_ms
from nakrel.words import tr

__all__ = ["Found", "Selection", "describe"]


class Found(NamedTuple):
    """What is at a place: a hold, or one edge of it, and the edges that move with it."""

    control: str
    span: Span
    down: bool | None
    edges: frozenset[Edge]

    @property
    def at_us(self) -> int:
        """The time of the edge, or of the hold's beginning."""
        return self.span.end_us if self.down is False else self.span.start_us

    @property
    def moment(self) -> Moment:
        """The edge; of a hold, its beginning."""
        return Moment(self.control, self.down is not False, self.at_us)


def describe(found: Found) -> str:
    """What is there, in words."""
    name, span = label(found.control), found.span
    if found.down is not None:
        edge = tr("{button} goes down at {time} ms") if found.down else tr("{button} is released at {time} ms")
        return edge.format(button=name, time=shown_ms(found.at_us))
    return tr("{button} from {time} ms, for {hold} ms").format(
        button=name, time=shown_ms(span.start_us), hold=shown_ms(span.end_us - span.start_us)
    )


class Selection:
    """`picks` are the edges that move, `here` is where the keyboard is, and `calipers` what is measured between.

    A move is tried out first: `preview` is the macro as it would be, and `refused` says that it can go no further.
    """

    def __init__(self) -> None:
        self.line = NOTHING
        self.picks: frozenset[Edge] = frozenset()
        self.here: Found | None = None
        self.calipers: list[Moment] = []
        self.preview: Timeline | None = None
        self.refused = False
        self._by_us = 0

    @property
    def shown(self) -> Timeline:
        """The macro with the move that is tried out."""
        return self.preview or self.line

    @property
    def rows(self) -> list[int]:
        """The rows of what is picked."""
        return sorted({edge.row for edge in self.picks})

    @property
    def text(self) -> str:
        """What is picked, in words."""
        if self.here and self.here.edges == self.picks:
            return describe(self.here)
        return tr("{count} edges picked").format(count=len(self.picks)) if self.picks else ""

    def show(self, line: Timeline) -> bool:
        """Go by this macro; True where it is another one, and nothing is picked in it yet."""
        other = line.macro.id != self.line.macro.id
        if other:
            self.picks, self.here, self.calipers = frozenset(), None, []
        else:
            self.picks = frozenset(edge for edge in self.picks if edge.row < line.size)
        self.line, self.preview, self.refused = line, None, False
        return other

    def pick(self, edges: frozenset[Edge]) -> None:
        """Pick exactly these edges."""
        self.picks, self.refused = edges, False

    # Finding

    def found(self, moment: Moment, down: bool | None) -> Found | None:
        """What is at a moment: the edge, or with None for `down` its hold."""
        found = edge_at(self.line, moment)
        if found is None:
            return None
        edge, span = found
        return Found(moment.control, span, down, edges_of(moment.control, span) if down is None else frozenset({edge}))

    def moments(self, control: str, since_us: int, until_us: int) -> list[Moment]:
        """The edges of a control in a stretch of time."""
        found: set[Moment] = set()
        for span in self.line.spans_between(max(0, since_us), until_us).get(control, ()):
            for edge in edges_of(control, span):
                found.add(Moment(control, edge.down, span.start_us if edge.down else span.end_us))
        return sorted(found, key=lambda each: (each.at_us, each.down))

    def first_of(self, moments: list[Moment]) -> Found | None:
        """The first of these edges."""
        return self.found(moments[0], moments[0].down) if moments else None

    def beside(self, moments: list[Moment], step: int) -> Found | None:
        """The edge so many places on from where the keyboard is, among these; None for none."""
        assert self.here
        here = self.here.moment
        at = moments.index(here) + step if here in moments else 0
        return self.found(moments[at], moments[at].down) if 0 <= at < len(moments) else None

    def nearest(self, moments: list[Moment]) -> Found | None:
        """The one of these edges that is nearest in time to where the keyboard is."""
        if self.here is None or not moments:
            return None
        at_us = self.here.at_us
        moment = min(moments, key=lambda each: abs(each.at_us - at_us))
        return self.found(moment, moment.down)

    def other_extent(self) -> Found | None:
        """The whole hold where an edge is, and the edge where a hold is."""
        assert self.here
        return self.found(self.here.moment, True if self.here.down is None else None)

    # Moving

    def try_move(self, line: Timeline, by_us: int) -> str:
        """Try out what a move would make of `line`; returns why it can't be, '' where it can. What could be stays."""
        try:
            self.preview = lay_out(shift(line, self.picks, by_us), line) if by_us else None
        except DataError as error:
            self.refused = True
            return str(error)
        self.refused, self._by_us = False, by_us
        return ""

    def drop_move(self) -> None:
        """Forget the move that is tried out."""
        self.preview, self.refused = None, False

    def keep_move(self) -> tuple[Macro, list[Moment]] | None:
        """The macro after the move that is tried out, and where the picked edges are then; None for no move."""
        preview = self.preview
        self.drop_move()
        if preview is None:
            return None
        picked = [moment_of(self.line, edge) for edge in self.picks]
        moved = [each._replace(at_us=each.at_us + self._by_us) for each in picked]
        places = dict(zip(picked, moved, strict=True))
        self.calipers = [places.get(each, each) for each in self.calipers]
        return preview.macro, moved

    def pick_again(self, picked: list[Moment]) -> None:
        """Pick after an edit what was picked before it, where it is then."""
        found = [edge_at(self.line, moment) for moment in picked]
        self.picks = frozenset(each[0] for each in found if each)
        if self.here and picked:
            wanted = self.here.down is not False
            moment = next((each for each in picked if each.down == wanted and each.control == self.here.control), None)
            self.here = self.found(moment, self.here.down) if moment else self.here

    # Measuring

    def measure_from(self, found: Found) -> None:
        """Measure from the edge chosen before to this one."""
        self.calipers = [*[each for each in self.calipers if each != found.moment][-1:], found.moment]

    def distance_us(self) -> int | None:
        """The distance between the calipers; None for none. Calipers at edges that are gone go, too."""
        self.calipers = [each for each in self.calipers if edge_at(self.line, each) is not None]
        times = [each.at_us for each in self.calipers]
        return abs(times[0] - times[1]) if len(times) == 2 else None

    def widened(self, gap_us: int) -> Macro | None:
        """The macro with that distance between the calipers: the later edge moves, and all after it goes along. None
        where there is nothing to do; raises `DataError` where it can't be."""
        if len(self.calipers) < 2:
            return None
        first, last = sorted(self.calipers, key=lambda each: each.at_us)
        found = edge_at(self.line, last)
        by_us = gap_us - (last.at_us - first.at_us)
        if found is None or by_us == 0:
            return None
        macro = widen(self.line, found[0], by_us)
        self.calipers = [first, last._replace(at_us=last.at_us + by_us)]
        return macro
