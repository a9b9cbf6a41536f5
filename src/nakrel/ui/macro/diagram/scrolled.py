"""The room that the timing diagram has: its scroll bars, zoom, and how many traces are seen at once."""

from __future__ import annotations

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QResizeEvent, QWheelEvent
from PyQt6.QtWidgets import QAbstractScrollArea, QFrame

from nakrel.ui.macro.diagram.selection import Selection
from nakrel.ui.macro.diagram.view import LANE, RULER, TOP, TRACE, View

__all__ = ["Scrolled"]

_USUAL_TRACES = 3


class Scrolled(QAbstractScrollArea):
    """Keeps what is in view within what there is; what it shows is the selection's macro."""

    def __init__(self) -> None:
        super().__init__()
        self.view = View()
        self.selection = Selection()
        self.most_traces = _USUAL_TRACES
        self._fitting = False
        self.setFrameShape(QFrame.Shape.NoFrame)
        for bar in (self.horizontalScrollBar(), self.verticalScrollBar()):
            if bar is not None:
                bar.valueChanged.connect(self._scrolled)
        self.setMinimumHeight(TOP + TRACE + LANE + RULER)

    def sizeHint(self) -> QSize:
        """Room for a few traces."""
        return QSize(400, TOP + _USUAL_TRACES * TRACE + LANE + RULER)

    def zoom(self, factor: float, x: float | None = None) -> None:
        """Show less time (a factor below 1) or more."""
        self.view.zoom(self.selection.shown, factor, x)
        self.fit_bars()

    def fit(self) -> None:
        """Bring all of it into view."""
        self.view.fit(self.selection.shown)
        self.fit_bars()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Keep to the room there is."""
        super().resizeEvent(event)
        self.fit_bars()

    def repaint_all(self) -> None:
        """Draw everything anew."""
        if ground := self.viewport():
            ground.update()

    def fit_bars(self) -> None:
        """Let the bars say what is in view, and of how much."""
        ground, across, down = self.viewport(), self.horizontalScrollBar(), self.verticalScrollBar()
        if ground is None or across is None or down is None:
            return
        view = self.view
        view.width, view.height = ground.width(), ground.height()
        # As many traces as fit; the others are scrolled to.
        self.most_traces = max(1, (view.height - TOP - LANE - RULER) // TRACE)
        self._fitting = True
        whole = max(view.length_us, self.selection.shown.length_us * 1.03)
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
        self.repaint_all()

    def _scrolled(self) -> None:
        across, down = self.horizontalScrollBar(), self.verticalScrollBar()
        if across is not None and down is not None and not self._fitting:
            self.view.look(self.selection.shown, across.value() * self.view.length_us / 1_000, self.view.length_us)
            self.view.scroll = down.value()
        self.repaint_all()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Zoom about the pointer; with Shift, or a wheel that turns sideways, move along."""
        if event is None:
            return
        turn, side = event.angleDelta().y(), event.angleDelta().x()
        if side or event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            move = -(side or turn) / 120 * 0.15 * self.view.length_us
            self.view.look(self.selection.shown, self.view.since_us + move, self.view.length_us)
            self.fit_bars()
        else:
            self.zoom(0.8 ** (turn / 120), event.position().x())
        event.accept()

    def show_trace(self, trace: int) -> None:
        """Scroll until this trace can be seen."""
        bar = self.verticalScrollBar()
        if bar is not None and not 0 <= trace * TRACE - bar.value() < self.most_traces * TRACE:
            bar.setValue(trace * TRACE)
