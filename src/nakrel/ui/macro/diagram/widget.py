"""The timing diagram as a widget: what the mouse and the keys do to it."""

from __future__ import annotations

import time
from collections.abc import Iterable, Sequence

from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent

from nakrel.core.edit.shaping import Edge
from nakrel.core.edit.timeline import Timeline
from nakrel.core.model.errors import DataError
from nakrel.core.model.runs import RunRecord
from nakrel.core.model.steps import Wait
from nakrel.core.model.units import shown_ms
from nakrel.protocol import SeenEvent
from nakrel.ui.macro.diagram.keys import Keys
from nakrel.ui.macro.diagram.mouse import Mouse
from nakrel.ui.macro.diagram.paint import Signs, draw
from nakrel.ui.macro.diagram.pen import Pen, actual_spans
from nakrel.ui.macro.diagram.scrolled import Scrolled
from nakrel.ui.macro.diagram.selection import describe
from nakrel.ui.macro.diagram.spoken import spoken
from nakrel.ui.macro.diagram.view import Found
from nakrel.ui.widgets.frames import Frames
from nakrel.words import tr

__all__ = ["Diagram"]

_EMPTY = tr("Nothing yet. Press Record and do it once, or begin below.")
_RECORDING = tr("Press what the macro should play.")
_PEN_MS = 33
_TELL_MS = 200


class Diagram(Scrolled):
    """Draws one run of a macro. Edges and holds are dragged, or moved with the keys.

    `edited` gives a changed macro and a text for the edit; `picked` the rows of what is picked; `message` what is
    picked, or why something can't be, and whether that is an error; `measured` the calipers' distance in microseconds,
    None for no distance.
    """

    edited = pyqtSignal(object, str)
    picked = pyqtSignal(list)
    message = pyqtSignal(str, bool)
    measured = pyqtSignal(object)
    distance_wanted = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.grid_us, self.fps = 1_000.0, 60.0
        self.actual: dict[str, list[tuple[int, int]]] = {}
        self._worst: dict[int, float] = {}
        self._takes: list[dict[str, list[tuple[int, int]]]] = []
        self._marked: tuple[int, int] | None = None
        # What stands there while there is nothing to draw.
        self.says = _EMPTY
        self._mouse = Mouse(self.view, self.selection)
        self._keys = Keys(self)
        self._pen = Pen()
        self._frames = Frames(self, _PEN_MS)
        self._frames.timeout.connect(self.repaint_all)
        # What screen readers are told is put in words once edits rest.
        self._telling = QTimer(self)
        self._telling.setSingleShot(True)
        self._telling.setInterval(_TELL_MS)
        self._telling.timeout.connect(lambda: self.setAccessibleDescription(spoken(self.line)))
        self.setAccessibleName(tr("Timing diagram"))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        if ground := self.viewport():
            ground.setMouseTracking(True)
            # All of it is drawn each time, so nothing behind it needs to be.
            ground.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)

    # What it shows

    def show_recording(self, on: bool) -> None:
        """Whether steps come by being pressed now."""
        says = _RECORDING if on else _EMPTY
        if says != self.says:
            self.says = says
            self.repaint_all()

    def show_line(self, line: Timeline) -> None:
        """Draw this macro. A macro of another name begins with all of it in view."""
        if self.selection.show(line):
            self.view.order, self.view.fitted = [], True
            self.actual, self._worst, self._takes = {}, {}, []
            self._pen.stop()
            self.measured.emit(None)
            self.message.emit("", False)
        self.view.show(line)
        self._telling.start()
        self.measure()
        self.fit_bars()

    def mark(self, span_us: tuple[int, int] | None) -> None:
        """Mark a stretch of time, and bring it into view."""
        self._marked = span_us
        if span_us and not self.hasFocus():
            self.view.reveal(self.line, span_us[0])
            self.fit_bars()
        self.repaint_all()

    def set_rate(self, fps: float, grid_us: float) -> None:
        """Draw frames at this rate, and snap to this grid in microseconds (0 for none)."""
        self.fps, self.grid_us = fps, grid_us
        self.repaint_all()

    def follow(self, since_us: int | None) -> None:
        """A run of this macro began at a monotonic time in microseconds; None for its end."""
        if since_us is None:
            self._pen.stop()
            self._frames.stop()
        elif not self._pen.running:
            self._pen.start(self.line, since_us)
            self._frames.start()
        self.repaint_all()

    def show_events(self, events: Iterable[SeenEvent]) -> None:
        """Let the pen go by what the run has sent."""
        self._pen.follow(events)

    def show_run(self, record: RunRecord | None) -> None:
        """Draw what a run really sent under what was planned, as far as one run of the macro is drawn."""
        self.actual = actual_spans(record, self.line) if record else {}
        self.repaint_all()

    def show_worst(self, worst: dict[int, float]) -> None:
        """Mark the presses of these rows, each with its chance to be seen by the game that is thought of."""
        self._worst = worst
        self.repaint_all()

    def show_takes(self, takes: Sequence[dict[str, list[tuple[int, int]]]], first: int = 0) -> None:
        """Draw takes faintly beneath the macro, beginning with the first press from a row on. Each has for its controls
        when they were down, in microseconds from the beginning of the take."""
        # A wait may stand between what was there and what was recorded.
        first = next((row for row in range(first, self.line.size) if not isinstance(self.line.row(row).step, Wait)), 0)
        begin = self.line.start_us(first) if self.line.size else 0
        self._takes = [
            {control: [(begin + down, begin + up) for down, up in spans] for control, spans in take.items()}
            for take in takes
        ]
        drawn = [trace for trace, control in enumerate(self.view.order) if any(control in take for take in takes)]
        if drawn:
            self.show_trace(drawn[0])
        self.repaint_all()

    @property
    def line(self) -> Timeline:
        """The macro that is drawn, laid out in time."""
        return self.selection.line

    def _signs(self) -> Signs:
        chosen = self.selection
        return Signs(
            self._marked,
            self._mouse.rubber,
            chosen.picks,
            (chosen.here.control, chosen.here.at_us) if chosen.here else None,
            [each.at_us for each in chosen.calipers],
            self._pen.at_us(time.monotonic_ns() // 1_000),
            self.fps,
            chosen.refused,
            self.actual,
            self.hasFocus(),
            self._worst,
            self._takes,
        )

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw it."""
        draw(QPainter(self.viewport()), self.view, self.selection.shown, self._signs(), self.says)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Put the keyboard's mark at the first edge, where there is none."""
        super().focusInEvent(event)
        self._keys.begin()
        self.repaint_all()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        """Take the keyboard's mark away."""
        super().focusOutEvent(event)
        self.repaint_all()

    # The mouse

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take hold of what is there: an edge, a hold, a trace by its name, or a stretch of time."""
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        adds = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        if (edges := self._mouse.press(event.position(), adds=adds)) is not None:
            self.pick(edges)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Carry along what is held; else show what could be taken hold of."""
        ground = self.viewport()
        if event is None or ground is None:
            return
        if not self._mouse.holds:
            shape, found = self._mouse.shape_at(event.position())
            ground.setCursor(shape)
            ground.setToolTip(describe(found) if found else "")
        elif pull := self._mouse.move(event.position(), self.grid_us):
            self._try(*pull)
        else:
            self.repaint_all()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Let go: what was carried becomes an edit, a click measures."""
        if event is None or not self._mouse.holds:
            return
        becomes, edges = self._mouse.release(event.position())
        if becomes in ("pick", "clear"):
            self.pick(edges)
        if becomes == "clear":
            self.selection.calipers = []
        if becomes in ("clear", "measure"):
            self.measure()
        elif becomes == "keep":
            self._keep()
        self.repaint_all()

    # Moving

    def pick(self, edges: frozenset[Edge]) -> None:
        """Pick these edges."""
        self.selection.pick(edges)
        self.picked.emit(self.selection.rows)
        self.message.emit(self.selection.text, False)
        self.repaint_all()

    def _try(self, line: Timeline, by_us: int) -> None:
        """Show what a move would make of the macro; where it can't be, say why and keep what could be."""
        if refusal := self.selection.try_move(line, by_us):
            self.message.emit(tr("Stops here: {refusal}.").format(refusal=refusal), True)
        elif by_us:
            self.message.emit(
                tr("moved by {time} ms").format(time=f"{'+' if by_us > 0 else '−'}{shown_ms(abs(by_us))}"),
                False,
            )
        self.repaint_all()

    def _keep(self) -> None:
        """Make what is shown the macro; what was picked is picked again, where it is then."""
        if kept := self.selection.keep_move():
            macro, picked = kept
            self.edited.emit(macro, tr("move in time"))
            self.selection.pick_again(picked)
            self.measure()
            self.picked.emit(self.selection.rows)
            self.repaint_all()

    def nudge(self, by_us: int) -> None:
        """Move what is picked by so much."""
        if self.selection.picks:
            self._try(self.line, by_us)
            self._keep()

    def drop(self) -> bool:
        """Let go of what the mouse holds, without an edit; False where it holds nothing."""
        if not self._mouse.holds:
            return False
        self._mouse.drop()
        self.selection.drop_move()
        self.message.emit("", False)
        return True

    # Calipers

    def measure(self) -> None:
        """Say the distance between the calipers."""
        self.measured.emit(self.selection.distance_us())
        self.repaint_all()

    def set_distance(self, gap_us: int) -> None:
        """Set the distance between the calipers: the later edge moves, and all after it goes along."""
        try:
            macro = self.selection.widened(gap_us)
        except DataError as error:
            self.message.emit(tr("Not possible: {error}.").format(error=error), True)
            return
        if macro is not None:
            self.edited.emit(macro, tr("distance in time"))
            self.measure()

    # The keys

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Go along the edges, pick, move, measure and zoom."""
        if event is None or not self._keys.press(event):
            super().keyPressEvent(event)

    def go_to(self, found: Found | None) -> None:
        """Put the keyboard's mark there, and pick it."""
        if found is not None:
            self.selection.here = found
            self.view.reveal(self.line, found.at_us)
            self.fit_bars()
            self.pick(found.edges)

    def ask_distance(self) -> None:
        """Have the distance typed."""
        self.distance_wanted.emit()
