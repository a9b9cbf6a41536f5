"""What the mouse does to the timing diagram: it takes hold of edges, traces and stretches of time."""

from __future__ import annotations

from typing import NamedTuple

from PyQt6.QtCore import QPointF, Qt

from nakrel.core.edit.shaping import Edge, snapped
from nakrel.core.edit.timeline import Timeline
from nakrel.ui.macro.diagram.selection import Found, Selection
from nakrel.ui.macro.diagram.view import LEFT, View

__all__ = ["Mouse", "Pull"]

# A press that moves no further than this is a click, in pixels.
_CLICK_PX = 3


class _Drag(NamedTuple):
    """What the mouse has hold of: edges of a macro as it was, the edge that snaps, where it began."""

    kind: str
    x: float
    line: Timeline
    found: Found | None
    trace: int = -1


class Pull(NamedTuple):
    """The picked edges of a macro are pulled along by so much."""

    line: Timeline
    by_us: int


class Mouse:
    """Told of presses and moves; it changes the view's order of traces and what is measured, and says what to do."""

    def __init__(self, view: View, selection: Selection) -> None:
        self._view, self._selection = view, selection
        self._drag: _Drag | None = None
        self.rubber: tuple[float, float] | None = None

    @property
    def holds(self) -> bool:
        """Whether it has hold of something."""
        return self._drag is not None

    def drop(self) -> None:
        """Let go of it without an edit."""
        self._drag, self.rubber = None, None

    def press(self, place: QPointF, *, adds: bool) -> frozenset[Edge] | None:
        """Take hold of what is there; returns the edges to be picked, None where that doesn't change."""
        x, y, line = place.x(), place.y(), self._selection.line
        trace = self._view.trace_at(y)
        if x < LEFT - 6:
            self._drag = _Drag("trace", y, line, None, -1 if trace is None else trace)
            return None
        found = self._view.find(line, x, y)
        if found is None:
            self._drag = _Drag("rubber", x, line, None)
            return None
        self._selection.here = found
        self._drag = _Drag("move", x, line, found)
        if adds:
            return self._selection.picks ^ found.edges
        return None if found.edges <= self._selection.picks else found.edges

    def move(self, place: QPointF, grid_us: float) -> Pull | None:
        """Carry along what is held; returns how far edges are pulled, None where none are."""
        x, drag = place.x(), self._drag
        if drag is None:
            return None
        if drag.kind == "rubber":
            first, last = sorted((self._view.us_at(drag.x), self._view.us_at(x)))
            self.rubber = (first, last) if abs(x - drag.x) > _CLICK_PX else None
        elif drag.kind == "trace":
            self._carry_trace(drag, place.y())
        elif drag.found and abs(x - drag.x) > _CLICK_PX:
            at = drag.found.at_us
            pulled = at + (x - drag.x) * self._view.length_us / self._view.field.width()
            return Pull(drag.line, snapped(pulled, grid_us) - at)
        return None

    def release(self, place: QPointF) -> tuple[str, frozenset[Edge]]:
        """Let go; returns what comes of it (keep, measure, pick, clear, or nothing) and the edges to be picked."""
        drag, self._drag = self._drag, None
        rubber, self.rubber = self.rubber, None
        if drag is None or drag.kind == "trace":
            return "", frozenset()
        if drag.kind == "rubber":
            picked = self._view.between(self._selection.line, *rubber) if rubber else frozenset()
            return "pick" if rubber else "clear", picked
        if abs(place.x() - drag.x) > _CLICK_PX or drag.found is None:
            return "keep", frozenset()
        if drag.found.down is not None:
            self._selection.measure_from(drag.found)
            return "measure", frozenset()
        return "", frozenset()

    def shape_at(self, place: QPointF) -> tuple[Qt.CursorShape, Found | None]:
        """What the pointer looks like there, and what is there."""
        found = self._view.find(self._selection.line, place.x(), place.y())
        if found:
            return Qt.CursorShape.SizeAllCursor if found.down is None else Qt.CursorShape.SplitHCursor, found
        if place.x() < LEFT - 6 and self._view.trace_at(place.y()) is not None:
            return Qt.CursorShape.SizeVerCursor, None
        return Qt.CursorShape.ArrowCursor, None

    def _carry_trace(self, drag: _Drag, y: float) -> None:
        over, order = self._view.trace_at(y), self._view.order
        if over is not None and 0 <= drag.trace < len(order) and over != drag.trace:
            order.insert(over, order.pop(drag.trace))
            self._drag = drag._replace(trace=over)
