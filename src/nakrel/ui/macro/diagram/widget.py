"""The timing diagram as a widget: what the mouse and the keys do to it."""

from __future__ import annotations

import time
from collections.abc import Iterable
from typing import NamedTuple

from PyQt6.QtCore import QPointF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QResizeEvent, QWheelEvent
from PyQt6.QtWidgets import QAbstractScrollArea, QFrame

from nakrel.core.edit.shaping import Edge, Moment, edge_at, edges_of, moment_of, shift, snapped, widen
from nakrel.core.edit.timeline import NOTHING, Timeline, lay_out
from nakrel.core.model.controls import label
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.runs import RunRecord
from nakrel.core.model.units import format_ms
from nakrel.protocol import SeenEvent
from nakrel.ui.macro.diagram.paint import Signs, draw
from nakrel.ui.macro.diagram.pen import Pen
from nakrel.ui.macro.diagram.view import LANE, LEFT, RULER, TOP, TRACE, Found, View

__all__ = ["Diagram"]

_MOST_TRACES = 8
_WORDS = "Nothing yet. Press Record and do it once, or add a step below."
_PEN_MS = 33
# A press that moves no further than this is a click, in pixels.
_CLICK_PX = 3


class _Drag(NamedTuple):
    """What the mouse has hold of: edges of a macro as it was, the edge that snaps, where it began."""

    kind: str
    x: float
    line: Timeline
    found: Found | None
    trace: int = -1


class Diagram(QAbstractScrollArea):
    """Draws one run of a macro. Edges and holds are dragged, or moved with the keys.

    `edited` gives a changed macro and words for the edit; `picked` the rows of what is picked; `said` what is picked
    in words, or why something can't be, and whether that is an error; `measured` the calipers' distance in
    microseconds, None for no distance.
    """

    edited = pyqtSignal(object, str)
    picked = pyqtSignal(list)
    message = pyqtSignal(str, bool)
    measured = pyqtSignal(object)
    distance_wanted = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.view = View()
        self.line = NOTHING
        self.grid_us, self.fps = 1_000.0, 60.0
        self.most_traces = _MOST_TRACES
        self.picks: frozenset[Edge] = frozenset()
        self.here: Found | None = None
        self.calipers: list[Moment] = []
        self.actual: dict[str, list[tuple[int, int]]] = {}
        self._marked: tuple[int, int] | None = None
        self._rubber: tuple[float, float] | None = None
        self._drag: _Drag | None = None
        self._preview: Timeline | None = None
        self._refused = False
        self._fitting = False
        self._by_us = 0
        self._pen = Pen()
        self._timer = QTimer(self)
        self._timer.setInterval(_PEN_MS)
        self._timer.timeout.connect(self._repaint)
        self.setAccessibleName("Timing diagram")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setMouseTracking(True)
        if ground := self.viewport():
            ground.setMouseTracking(True)
            # All of it is drawn each time, so nothing behind it needs to be.
            ground.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        for bar in (self.horizontalScrollBar(), self.verticalScrollBar()):
            if bar is not None:
                bar.valueChanged.connect(self._scrolled)
        self.setMinimumHeight(TOP + TRACE + LANE + RULER)

    def sizeHint(self) -> QSize:
        """Room for its traces."""
        count = min(self.most_traces, max(1, len(self.line.controls)))
        bar = self.horizontalScrollBar()
        low = bar.sizeHint().height() if bar is not None and not self.view.fitted else 0
        return QSize(400, TOP + count * TRACE + LANE + RULER + low)

    # What it shows

    def show_line(self, line: Timeline) -> None:
        """Draw this macro. A macro of another name begins with all of it in view."""
        if line.macro.id != self.line.macro.id:
            self.picks, self.here, self.calipers, self.view.order = frozenset(), None, [], []
            self.actual = {}
            self.view.fitted = True
            self._pen.stop()
            self.measured.emit(None)
            self.message.emit("", False)
        else:
            self.picks = frozenset(edge for edge in self.picks if edge.row < line.size)
        self.line, self._preview, self._refused = line, None, False
        self.view.show(line)
        self._measure()
        self._fit_bars()

    def mark(self, span_us: tuple[int, int] | None) -> None:
        """Mark a stretch of time, and bring it into view."""
        self._marked = span_us
        if span_us and not self.hasFocus():
            self.view.reveal(self.line, span_us[0])
            self._fit_bars()
        self._repaint()

    def give_room(self, height: int) -> None:
        """Show as many traces at once as fit into so many pixels; the others are scrolled to."""
        most = max(2, min(_MOST_TRACES, (height - TOP - LANE - RULER) // TRACE))
        if most != self.most_traces:
            self.most_traces = most
            self._fit_bars()

    def set_rate(self, fps: float, grid_us: float) -> None:
        """Draw frames at this rate, and snap to this grid in microseconds (0 for none)."""
        self.fps, self.grid_us = fps, grid_us
        self._repaint()

    def zoom(self, factor: float, x: float | None = None) -> None:
        """Show less time (a factor below 1) or more."""
        self.view.zoom(self._shown, factor, x)
        self._fit_bars()

    def fit(self) -> None:
        """Bring all of it into view."""
        self.view.fit(self._shown)
        self._fit_bars()

    def follow(self, since_us: int | None) -> None:
        """A run of this macro began at a monotonic time in microseconds; None for its end."""
        if since_us is None:
            self._pen.stop()
            self._timer.stop()
        elif not self._pen.running:
            self._pen.start(self.line, since_us)
            self._timer.start()
        self._repaint()

    def take(self, events: Iterable[SeenEvent]) -> None:
        """Let the pen go by what the run has sent."""
        self._pen.take(events)

    def show_run(self, record: RunRecord | None) -> None:
        """Draw what a run really sent under what was planned, as far as one run of the macro is drawn."""
        self.actual = {}
        down: dict[str, int] = {}
        for event in record.events if record else ():
            if event.due_us + bool(event.value) > self.line.length_us:
                # What is pressed at the very end belongs to the next run.
                break
            spans = self.actual.setdefault(event.control, [])
            if event.control.startswith("WHEEL") or event.control not in self.line.controls:
                spans.append((event.at_us, event.at_us + 3_000))
            elif event.value:
                down[event.control] = event.at_us
            elif event.control in down:
                spans.append((down.pop(event.control), event.at_us))
        for control, since in down.items():
            self.actual[control].append((since, self.line.length_us))
        self._repaint()

    @property
    def _shown(self) -> Timeline:
        return self._preview or self.line

    def _signs(self) -> Signs:
        return Signs(
            self._marked,
            self._rubber,
            self.picks,
            (self.here.control, self.here.at_us) if self.here else None,
            [each.at_us for each in self.calipers],
            self._pen.at_us(time.monotonic_ns() // 1_000),
            self.fps,
            self._refused,
            self.actual,
            self.hasFocus(),
        )

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw it."""
        draw(QPainter(self.viewport()), self.view, self._shown, self._signs(), _WORDS)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Keep to the room there is."""
        super().resizeEvent(event)
        self._fit_bars()

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Put the keyboard's mark at the first edge, where there is none."""
        super().focusInEvent(event)
        if self.here is None:
            self._go_to(self._first())
        self._repaint()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        """Take the keyboard's mark away."""
        super().focusOutEvent(event)
        self._repaint()

    def _repaint(self) -> None:
        if ground := self.viewport():
            ground.update()

    def _fit_bars(self) -> None:
        ground, across, down = self.viewport(), self.horizontalScrollBar(), self.verticalScrollBar()
        if ground is None or across is None or down is None:
            return
        view = self.view
        wanted = self.sizeHint().height()
        if self.height() != wanted:
            self.setFixedHeight(wanted)
        view.width, view.height = ground.width(), ground.height()
        self._fitting = True
        whole = max(view.length_us, self._shown.length_us * 1.03)
        # A bar counts in thousandths of what is in view.
        unit = view.length_us / 1_000
        across.setRange(0, max(0, round((whole - view.length_us) / unit)))
        across.setPageStep(1_000)
        across.setSingleStep(50)
        across.setValue(round(view.since_us / unit))
        down.setRange(0, max(0, len(view.order) - self.most_traces) * TRACE)
        down.setPageStep(self.most_traces * TRACE)
        down.setSingleStep(TRACE)
        view.scroll = down.value()
        self._fitting = False
        self._repaint()

    def _scrolled(self) -> None:
        across, down = self.horizontalScrollBar(), self.verticalScrollBar()
        if across is not None and down is not None and not self._fitting:
            self.view.look(self._shown, across.value() * self.view.length_us / 1_000, self.view.length_us)
            self.view.scroll = down.value()
        self._repaint()

    # The mouse

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Zoom about the pointer; with Shift, or a wheel that turns sideways, move along."""
        if event is None:
            return
        turn, side = event.angleDelta().y(), event.angleDelta().x()
        if side or event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            move = -(side or turn) / 120 * 0.15 * self.view.length_us
            self.view.look(self._shown, self.view.since_us + move, self.view.length_us)
            self._fit_bars()
        else:
            self.zoom(0.8 ** (turn / 120), event.position().x())
        event.accept()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take hold of what is there: an edge, a hold, a trace by its name, or a stretch of time."""
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        x, y = event.position().x(), event.position().y()
        trace = self.view.trace_at(y)
        if x < LEFT - 6:
            self._drag = _Drag("trace", y, self.line, None, -1 if trace is None else trace)
            return
        found = self.view.find(self.line, x, y)
        if found is None:
            self._drag = _Drag("rubber", x, self.line, None)
            return
        self.here = found
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self._pick(self.picks ^ found.edges)
        elif not found.edges <= self.picks:
            self._pick(found.edges)
        self._drag = _Drag("move", x, self.line, found)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Carry along what is held; else show what could be taken hold of."""
        if event is None:
            return
        x, drag = event.position().x(), self._drag
        if drag is None:
            self._show_hand(event.position())
        elif drag.kind == "rubber":
            first, last = sorted((self.view.us_at(drag.x), self.view.us_at(x)))
            self._rubber = (first, last) if abs(x - drag.x) > _CLICK_PX else None
            self._repaint()
        elif drag.kind == "trace":
            self._carry_trace(drag, event.position().y())
        elif drag.found and abs(x - drag.x) > _CLICK_PX:
            at = drag.found.at_us
            pulled = at + (x - drag.x) * self.view.length_us / self.view.field.width()
            self._try(drag.line, snapped(pulled, self.grid_us) - at)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Let go: what was carried becomes an edit, a click measures."""
        drag, self._drag = self._drag, None
        if event is None or drag is None:
            return
        moved = abs(event.position().x() - drag.x) > _CLICK_PX
        if drag.kind == "rubber":
            rubber, self._rubber = self._rubber, None
            if rubber:
                self._pick(self.view.between(self.line, *rubber))
            else:
                self._pick(frozenset())
                self.calipers = []
                self._measure()
        elif drag.kind == "move" and drag.found and not moved:
            if drag.found.down is not None:
                self._set_caliper(drag.found)
        elif drag.kind == "move":
            self._keep()
        self._repaint()

    def _show_hand(self, place: QPointF) -> None:
        ground, found = self.viewport(), self.view.find(self.line, place.x(), place.y())
        if ground is not None:
            shape = Qt.CursorShape.ArrowCursor
            if found:
                shape = Qt.CursorShape.SizeAllCursor if found.down is None else Qt.CursorShape.SplitHCursor
            elif place.x() < LEFT - 6 and self.view.trace_at(place.y()) is not None:
                shape = Qt.CursorShape.SizeVerCursor
            ground.setCursor(shape)
            ground.setToolTip(_words(found, self.line) if found else "")

    def _carry_trace(self, drag: _Drag, y: float) -> None:
        over, order = self.view.trace_at(y), self.view.order
        if over is not None and 0 <= drag.trace < len(order) and over != drag.trace:
            order.insert(over, order.pop(drag.trace))
            self._drag = drag._replace(trace=over)
            self._repaint()

    # Moving

    def _pick(self, edges: frozenset[Edge]) -> None:
        self.picks, self._refused = edges, False
        self.picked.emit(sorted({edge.row for edge in edges}))
        self.message.emit(self._picked_words(), False)
        self._repaint()

    def _picked_words(self) -> str:
        if self.here and self.here.edges == self.picks:
            return _words(self.here, self.line)
        return f"{len(self.picks)} edges picked" if self.picks else ""

    def _try(self, line: Timeline, by_us: int) -> None:
        """Show what a move would make of the macro; where it can't be, say why and keep what could be."""
        try:
            self._preview = lay_out(shift(line, self.picks, by_us), line) if by_us else None
        except DataError as error:
            self._refused = True
            self.message.emit(f"Not further: {error}.", True)
        else:
            self._refused, self._by_us = False, by_us
            if by_us:
                self.message.emit(f"moved by {'+' if by_us > 0 else '−'}{format_ms(abs(by_us))} ms", False)
        self._repaint()

    def _keep(self) -> None:
        """Make what is shown the macro."""
        preview, self._preview, self._refused = self._preview, None, False
        if preview is not None:
            picked = [moment_of(self.line, edge) for edge in self.picks]
            self._edit(
                preview.macro, "move in time", [each._replace(at_us=each.at_us + self._by_us) for each in picked]
            )

    def _edit(self, macro: Macro, words: str, picked: list[Moment]) -> None:
        """Hand an edit out; what was picked is picked again, where it is then."""
        moved = dict(zip(map(self._before, picked), picked, strict=True))
        self.calipers = [moved.get(each, each) for each in self.calipers]
        self.edited.emit(macro, words)
        found = [edge_at(self.line, moment) for moment in picked]
        self.picks = frozenset(each[0] for each in found if each)
        if self.here and picked:
            wanted = self.here.down is not False
            moment = next((each for each in picked if each.down == wanted and each.control == self.here.control), None)
            self.here = self._found(moment, self.here.down) if moment else self.here
        self._measure()
        self.picked.emit(sorted({edge.row for edge in self.picks}))
        self._repaint()

    def _before(self, moment: Moment) -> Moment:
        return moment._replace(at_us=moment.at_us - self._by_us)

    def _found(self, moment: Moment, down: bool | None) -> Found | None:
        """What is at a moment: the edge, or with None for `down` its hold."""
        found = edge_at(self.line, moment)
        if found is None:
            return None
        edge, span = found
        return Found(moment.control, span, down, edges_of(moment.control, span) if down is None else frozenset({edge}))

    def nudge(self, by_us: int) -> None:
        """Move what is picked by so much."""
        if self.picks:
            self._try(self.line, by_us)
            self._keep()

    # Calipers

    def _set_caliper(self, found: Found) -> None:
        """Measure from the edge clicked before to this one."""
        moment = Moment(found.control, found.down is not False, found.at_us)
        self.calipers = [*[each for each in self.calipers if each != moment][-1:], moment]
        self._measure()

    def _measure(self) -> None:
        self.calipers = [each for each in self.calipers if edge_at(self.line, each) is not None]
        times = [each.at_us for each in self.calipers]
        self.measured.emit(abs(times[0] - times[1]) if len(times) == 2 else None)
        self._repaint()

    def set_distance(self, gap_us: int) -> None:
        """Set the distance between the calipers: the later edge moves, and all after it goes along."""
        if len(self.calipers) < 2:
            return
        first, last = sorted(self.calipers, key=lambda each: each.at_us)
        found = edge_at(self.line, last)
        by_us = gap_us - (last.at_us - first.at_us)
        if found is None or by_us == 0:
            return
        try:
            macro = widen(self.line, found[0], by_us)
        except DataError as error:
            self.message.emit(f"It can't be: {error}.", True)
            return
        self._by_us = by_us
        self.calipers = [first, last._replace(at_us=last.at_us + by_us)]
        self.edited.emit(macro, "distance in time")
        self._measure()

    # The keys

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Go along the edges, pick, move, measure and zoom."""
        if event is None or not self._pressed(event):
            super().keyPressEvent(event)

    def _pressed(self, event: QKeyEvent) -> bool:
        key, alt = event.key(), bool(event.modifiers() & Qt.KeyboardModifier.AltModifier)
        control = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        sideways = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(key))
        upright = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(key))
        if sideways and alt:
            self.nudge(self._snapped_step(sideways * (10 if control else 1)))
        elif sideways:
            self._step(sideways, add=bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier))
        elif upright and alt:
            self._move_trace(upright)
        elif upright:
            self._change_trace(upright)
        elif key == Qt.Key.Key_A and control:
            self._pick(self.view.between(self.line, 0, self.line.length_us))
        elif key == Qt.Key.Key_Escape:
            self._escape()
        elif key == Qt.Key.Key_H and self.here:
            self._toggle_hold()
        elif key == Qt.Key.Key_C and self.here and not control:
            self._set_caliper(self.here)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.distance_wanted.emit()
        elif key in (Qt.Key.Key_Plus, Qt.Key.Key_Equal):
            self.zoom(1 / 1.5, self.view.x_of(self.here.at_us) if self.here else None)
        elif key == Qt.Key.Key_Minus:
            self.zoom(1.5, self.view.x_of(self.here.at_us) if self.here else None)
        elif key == Qt.Key.Key_0:
            self.fit()
        else:
            return False
        return True

    def _snapped_step(self, steps: int) -> int:
        """How far the keyboard moves what is picked, so that its edge comes to a line of the grid."""
        at = self.here.at_us if self.here else 0
        grid = self.grid_us or 1.0
        return snapped(at + steps * grid, grid) - at or round(steps * grid)

    def _escape(self) -> None:
        if self._drag:
            self._drag = None
            self._preview, self._refused, self._rubber = None, False, None
            self.message.emit("", False)
        else:
            self.calipers = []
            self._pick(frozenset())
            self._measure()

    def _toggle_hold(self) -> None:
        """From an edge to its whole hold, and back."""
        assert self.here
        found = self.here
        moment = Moment(found.control, found.down is not False, found.at_us)
        self._go_to(self._found(moment, True if found.down is None else None))

    def _first(self) -> Found | None:
        moments = self._moments(self.view.order[0]) if self.view.order else []
        return self._found(moments[0], moments[0].down) if moments else None

    def _moments(self, control: str) -> list[Moment]:
        """The edges of a control in what is in view and about it."""
        view = self.view
        since, until = int(view.since_us - view.length_us), int(view.until_us + view.length_us)
        found: set[Moment] = set()
        for span in self.line.spans_between(max(0, since), until).get(control, ()):
            for edge in edges_of(control, span):
                found.add(Moment(control, edge.down, span.start_us if edge.down else span.end_us))
        return sorted(found, key=lambda each: (each.at_us, each.down))

    def _step(self, way: int, *, add: bool = False) -> None:
        """To the next edge of the trace, or the one before it."""
        if self.here is None:
            self._go_to(self._first())
            return
        moments = self._moments(self.here.control)
        here = Moment(self.here.control, self.here.down is not False, self.here.at_us)
        at = moments.index(here) + way if here in moments else 0
        if 0 <= at < len(moments):
            before = self.picks
            self._go_to(self._found(moments[at], moments[at].down))
            if add:
                self._pick(before | self.picks)

    def _change_trace(self, way: int) -> None:
        """To the nearest edge of the trace above or below."""
        order = self.view.order
        if self.here is None or self.here.control not in order:
            return
        trace = order.index(self.here.control) + way
        moments = self._moments(order[trace]) if 0 <= trace < len(order) else []
        if moments:
            nearest = min(moments, key=lambda each: abs(each.at_us - self.here.at_us if self.here else 0))
            self._go_to(self._found(nearest, nearest.down))
            if (bar := self.verticalScrollBar()) is not None and not (
                0 <= trace * TRACE - bar.value() < self.most_traces * TRACE
            ):
                bar.setValue(trace * TRACE)

    def _move_trace(self, way: int) -> None:
        """Move the trace up or down among the others."""
        order = self.view.order
        if self.here and self.here.control in order:
            at = order.index(self.here.control)
            order.insert(max(0, min(len(order) - 1, at + way)), order.pop(at))
            self._repaint()

    def _go_to(self, found: Found | None) -> None:
        if found is not None:
            self.here = found
            self.view.reveal(self.line, found.at_us)
            self._fit_bars()
            self._pick(found.edges)


def _words(found: Found, line: Timeline) -> str:
    """What is there, in words."""
    name, span = label(found.control), found.span
    if found.down is not None:
        return f"{name} {'goes down' if found.down else 'is let go'} at {format_ms(found.at_us)} ms"
    return f"{name} from {format_ms(span.start_us)} ms, for {format_ms(span.end_us - span.start_us)} ms"
