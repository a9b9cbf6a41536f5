"""What of a macro's time is in view, and where on the widget it is; no painting, no widget."""

from __future__ import annotations

from PyQt6.QtCore import QRectF

from nakrel.core.edit.shaping import Edge, edges_of
from nakrel.core.edit.timeline import Span, Timeline
from nakrel.ui.macro.diagram.selection import Found

__all__ = ["LANE", "LEFT", "RULER", "TOP", "TRACE", "View", "nice_step"]

LEFT, TOP, TRACE, LANE, RULER, _RIGHT = 108, 20, 40, 18, 34, 22
# More steps than this aren't told apart on any screen, and take long to draw.
MOST_STEPS = 200
# Near enough to be meant, in pixels.
_NEAR = 5
_LEAST_WIDTH_US = 200


def nice_step(length_us: float, most: int = 8) -> int:
    """The ruler's step in microseconds: 1, 2 or 5 times a power of ten, `most` of them at most."""
    step = 1
    while length_us / step > most:
        digit = int(str(step)[0])
        step = step * 2 if digit in (1, 5) else step * 5 // 2
    return step


class View:
    """Time horizontal and traces from top to bottom, on a widget of a size."""

    def __init__(self) -> None:
        self.since_us, self.length_us = 0.0, 1_000.0
        self.width, self.height, self.scroll = 400, 100, 0
        self.fitted = True
        self.order: list[str] = []

    @property
    def field(self) -> QRectF:
        """The place of the traces; beneath them is a lane for what is measured and what is left to chance."""
        return QRectF(LEFT, TOP, max(1, self.width - LEFT - _RIGHT), max(1, self.height - TOP - LANE - RULER))

    @property
    def until_us(self) -> float:
        """The end of what is in view."""
        return self.since_us + self.length_us

    def x_of(self, at_us: float) -> float:
        """Where a time is, in pixels from the left."""
        return self.field.left() + (at_us - self.since_us) * self.field.width() / self.length_us

    def us_at(self, x: float) -> float:
        """The time at a place, in microseconds."""
        return self.since_us + (x - self.field.left()) * self.length_us / self.field.width()

    def top_of(self, trace: int) -> float:
        """Where a trace begins, in pixels from the top."""
        return TOP + trace * TRACE - self.scroll

    def trace_at(self, y: float) -> int | None:
        """The trace at a height."""
        trace = int((y - TOP + self.scroll) // TRACE)
        return trace if TOP <= y < self.height - RULER - LANE and 0 <= trace < len(self.order) else None

    # What is in view

    def show(self, line: Timeline) -> None:
        """Keep to a macro's length; what was fitted stays so."""
        known = set(line.controls)
        self.order = [each for each in self.order if each in known]
        self.order += [each for each in line.controls if each not in self.order]
        if self.fitted:
            self.fit(line)
        else:
            self.look(line, self.since_us, self.length_us)

    def fit(self, line: Timeline) -> None:
        """All of it in view, or as much as can be told apart."""
        self.fitted = True
        self.since_us = 0.0
        self.length_us = _whole(line)
        if line.count_between(0, line.length_us) > MOST_STEPS:
            self.fitted = False
            self.look(line, 0.0, _whole(line))

    def look(self, line: Timeline, since_us: float, length_us: float) -> None:
        """Show a stretch of time, kept within the macro and within what can be told apart."""
        whole = _whole(line)
        length_us = min(whole, max(_LEAST_WIDTH_US, length_us))
        while length_us > _LEAST_WIDTH_US and self._steps(line, since_us, length_us) > MOST_STEPS:
            length_us *= 0.7
        self.length_us = length_us
        self.since_us = max(0.0, min(whole - length_us, since_us))
        self.fitted = length_us >= whole

    def zoom(self, line: Timeline, factor: float, x: float | None = None) -> None:
        """Show less time (a factor below 1) or more; the time at `x` stays where it is."""
        x = self.field.center().x() if x is None else x
        at, part = self.us_at(x), (x - self.field.left()) / self.field.width()
        length = min(_whole(line), max(_LEAST_WIDTH_US, self.length_us * factor))
        self.look(line, at - part * length, length)

    def reveal(self, line: Timeline, at_us: float) -> None:
        """Bring a time into view where it isn't."""
        if not self.since_us <= at_us <= self.until_us:
            self.look(line, at_us - self.length_us / 3, self.length_us)

    @staticmethod
    def _steps(line: Timeline, since_us: float, length_us: float) -> int:
        return line.count_between(int(since_us), int(since_us + length_us))

    # What is under the pointer

    def spans(self, line: Timeline) -> dict[str, list[Span]]:
        """The holds that reach into what is in view."""
        return line.spans_between(int(self.since_us), int(self.until_us) + 1)

    def find(self, line: Timeline, x: float, y: float) -> Found | None:
        """The edge or hold at a place: an edge where it is near, else the hold around it."""
        trace = self.trace_at(y)
        if trace is None or x < LEFT - _NEAR:
            return None
        control = self.order[trace]
        near: list[tuple[float, Found]] = []
        for span in self.spans(line).get(control, ()):
            edges = edges_of(control, span)
            for edge in edges:
                away = abs(x - self.x_of(span.start_us if edge.down else span.end_us))
                if away <= _NEAR:
                    near.append((away, Found(control, span, edge.down, frozenset({edge}))))
            if edges and self.x_of(span.start_us) <= x <= self.x_of(span.end_us):
                near.append((_NEAR + 1, Found(control, span, None, edges)))
        if not near:
            return None
        found = min(near, key=lambda each: each[0])[1]
        # A hold that is narrow on the screen is meant as a whole by whoever points at its middle.
        left, right = self.x_of(found.span.start_us), self.x_of(found.span.end_us)
        narrow = right - left < 3 * _NEAR and left + 2 < x < right - 2
        return Found(control, found.span, None, edges_of(control, found.span)) if narrow else found

    def between(self, line: Timeline, since_us: float, until_us: float) -> frozenset[Edge]:
        """All edges in a stretch of time."""
        found: set[Edge] = set()
        for control, spans in line.spans_between(int(since_us), int(until_us)).items():
            for span in spans:
                for edge in edges_of(control, span):
                    at = span.start_us if edge.down else span.end_us
                    if since_us <= at <= until_us:
                        found.add(edge)
        return frozenset(found)


def _whole(line: Timeline) -> float:
    # A little time behind the end, so that the last edge is seen.
    return max(1_000.0, line.length_us * 1.03)
