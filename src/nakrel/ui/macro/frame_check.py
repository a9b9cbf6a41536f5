"""The frame check: what a game sees of the macro, and the fastest timing that it can't miss."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QTimer
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from nakrel.core.errors import DataError
from nakrel.core.macro import Macro
from nakrel.core.units import FRAME_RATES, format_ms, format_rate
from nakrel.ui import commands
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.theme import SMALL_PX, font, palette
from nakrel.ui.widgets.basics import button, choice, label

__all__ = ["FrameCheck"]

# A quiet machine's timing: what the benchmark shows at its 99th percentile is a tenth of this.
JITTER_US = 200.0
# From this share on it is said to be all.
_ALL = 0.9995
# Edits come fast while something is typed or dragged; what they lead to is worked out when they rest.
_REST_MS = 150


class _Plot(QWidget):
    """Presses seen, in percent, against the frame rate; the chosen rate is marked."""

    def __init__(self) -> None:
        super().__init__()
        self.seen: list[tuple[float, float]] = []
        self.fps = 60.0
        self.setAccessibleName("Presses seen against frame rate")
        self.setFixedHeight(84)

    def sizeHint(self) -> QSize:
        """Wide and low."""
        return QSize(240, 84)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw two lines of reference, the curve and the mark."""
        painter, p = QPainter(self), palette()
        painter.setFont(font(SMALL_PX))
        field = QRectF(52, 8, self.width() - 66, self.height() - 28)
        for share, text in ((1.0, "100 %"), (0.5, "50"), (0.0, "0")):
            y = field.bottom() - share * field.height()
            painter.setPen(QColor(p.line))
            painter.drawLine(QPointF(field.left(), y), QPointF(field.right(), y))
            painter.setPen(QColor(p.soft))
            right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
            painter.drawText(QRectF(0, y - 8, field.left() - 6, 16), right, text)
        if not self.seen:
            return
        places = {fps: field.left() + n * field.width() / (len(self.seen) - 1) for n, (fps, _) in enumerate(self.seen)}
        for n, (fps, _) in enumerate(self.seen):
            painter.setPen(QColor(p.ink if fps == self.fps else p.soft))
            if n % 2 == 1 or fps == self.fps:
                where = QRectF(places[fps] - 20, field.bottom() + 4, 40, 14)
                painter.drawText(where, Qt.AlignmentFlag.AlignHCenter, f"{fps:g}")
        line = QPolygonF([QPointF(places[fps], field.bottom() - share * field.height()) for fps, share in self.seen])
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QColor(p.ink), 1.3))
        painter.drawPolyline(line)
        for fps, share in self.seen:
            if fps == self.fps:
                painter.setBrush(QColor(p.brass))
                painter.setPen(Qt.PenStyle.NoPen)
                painter.drawEllipse(QPointF(places[fps], field.bottom() - share * field.height()), 4, 4)


class FrameCheck(QWidget):
    """Answers two questions: how many of my presses does a game at F frames see? What is the fastest safe timing?"""

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self._macro: Macro | None = None
        self._safe: Macro | None = None
        self.rate = choice("Frames a second")
        for fps in FRAME_RATES:
            self.rate.addItem(f"{fps} frames/s", fps)
        self.rate.setCurrentIndex(FRAME_RATES.index(60))
        self.plot = _Plot()
        self.answer, self.advice = label("", "", wrap=True), label("", "soft", wrap=True)
        self.use_button = button("Use that timing", self._use, "act")
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(_REST_MS)
        self._timer.timeout.connect(self.refresh)
        self.rate.currentIndexChanged.connect(lambda index: shown.set_frames(self.rate.itemData(index)))
        shown.frames_changed.connect(self._frames_changed)
        self._build()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(6)
        row = QHBoxLayout()
        row.addWidget(label("Frame check", "heading"))
        row.addStretch(1)
        row.addWidget(self.rate)
        layout.addLayout(row)
        for part in (self.answer, self.plot, self.advice):
            layout.addWidget(part)
        layout.addWidget(self.use_button, 0, Qt.AlignmentFlag.AlignLeft)

    def _frames_changed(self) -> None:
        self.rate.setCurrentIndex(self.rate.findData(self._shown.frames))
        self.refresh()

    def set_macro(self, macro: Macro | None) -> None:
        """Look at this macro, once edits rest."""
        if macro is not self._macro:
            self._macro = macro
            self._timer.start()

    def refresh(self) -> None:
        """Work it out anew."""
        # Not when the window opens: NumPy takes a tenth of a second to load.
        from nakrel.core import frames

        fps = float(self.rate.currentData())
        found: list[Any] = []
        if self._macro is not None:
            try:
                presses, length_us = frames.presses_of(self._macro)
            except DataError as error:
                self._say(str(error), "", None)
                return
            found = frames.over_rates(presses, length_us, JITTER_US) if presses else []
        self.plot.fps = fps
        self.plot.seen = [(seen.fps, seen.seen) for seen in found]
        self.plot.update()
        if self._macro is None or not found:
            self._say("There is no press in it that a game could see.", "", None)
            return
        mine = next(seen for seen in found if seen.fps == fps)
        if mine.seen >= _ALL:
            self._say(_answer(mine), "Such a game can't miss any of them.", None)
            return
        least_us = frames.safe_us(fps, JITTER_US)
        safe = frames.make_safe(self._macro, least_us)
        each = f"{format_ms(least_us)} ms down, {format_ms(least_us)} ms up, {format_rate(2 * least_us)} a control"
        self._say(_answer(mine), f"Fastest timing that none is lost of: {each}.", safe if safe != self._macro else None)

    def _say(self, answer: str, advice: str, safe: Macro | None) -> None:
        self._safe = safe
        self.answer.setText(answer)
        self.advice.setText(advice)
        self.advice.setVisible(bool(advice))
        self.plot.setVisible(bool(self.plot.seen))
        self.use_button.setVisible(safe is not None)

    def _use(self) -> None:
        if self._safe is not None:
            commands.edit_macro(self._store, f"timing of {self._safe.name} for its game", self._safe)


def _answer(seen: Any) -> str:
    parts = [f"A game at {seen.fps:g} frames sees {_percent(seen.seen)} of the presses, {seen.per_second:.1f} a second"]
    parts += [f"{_percent(seen.merged)} are merged with the one before"] if seen.merged > 0.0005 else []
    parts += [f"{_percent(seen.lost)} are lost"] if seen.lost > 0.0005 else []
    return "; ".join(parts) + "."


def _percent(share: float) -> str:
    if share >= _ALL:
        return "all"
    return f"{share * 100:.1f} %" if share < 0.01 or share > 0.99 else f"{share * 100:.0f} %"
