"""The frame check: what a game sees of the macro, and the fastest timing that it can't miss."""

from __future__ import annotations

import re

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QTimer
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from nakrel import worker_process
from nakrel.core.analysis.frame_answer import IN_ORDER, JITTER_US, FrameAnswer
from nakrel.core.edit.safe import make_safe
from nakrel.core.model.macro import Macro
from nakrel.core.model.units import FRAME_RATES, format_ms, parse_time
from nakrel.ui import commands
from nakrel.ui.background import Background, rest_ms
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.theme import SMALL_PX, font, palette
from nakrel.ui.widgets.basics import Segments, button, label, searchable
from nakrel.ui.widgets.sentence import Figure, Sentence

__all__ = ["FrameCheck"]

_LEAST_FPS, _MOST_FPS = 10, 1_000
_MOST_SPREAD_US = 50_000


class _Plot(QWidget):
    """Presses seen, in percent, against the frame rate or against the hold; where the macro is, is marked."""

    def __init__(self) -> None:
        super().__init__()
        self.result = FrameAnswer("")
        self.setFixedHeight(84)

    def sizeHint(self) -> QSize:
        """Wide and low."""
        return QSize(240, 84)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw the lines of reference, the curve and the mark."""
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
        points = self.result.points
        if len(points) < 2:
            return
        by_rate = self.result.against == "rate"
        first, last = points[0][0], points[-1][0]

        def x_of(n: int, value: float) -> float:
            part = n / (len(points) - 1) if by_rate else (value - first) / (last - first)
            return field.left() + part * field.width()

        for n, (value, _) in enumerate(points):
            shown = (n % 2 == 1 or value == self.result.mark) if by_rate else n % 8 == 7 or n == 0
            if shown:
                painter.setPen(QColor(p.ink if value == self.result.mark else p.soft))
                number = f"{value:g}" if by_rate else f"{value / 1_000:.0f}" + (" ms" if n == len(points) - 1 else "")
                where = QRectF(x_of(n, value) - 24, field.bottom() + 4, 48, 14)
                painter.drawText(where, Qt.AlignmentFlag.AlignHCenter, number)
        line = QPolygonF(
            [
                QPointF(x_of(n, value), field.bottom() - share * field.height())
                for n, (value, share) in enumerate(points)
            ]
        )
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QColor(p.ink), 1.3))
        painter.drawPolyline(line)
        if self.result.mark is None:
            return
        nearest = min(range(len(points)), key=lambda n: abs(points[n][0] - (self.result.mark or 0)))
        painter.setBrush(QColor(p.brass))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.drawEllipse(line[nearest], 4, 4)


def _read_spread(text: str) -> int:
    return parse_time(text, most_us=_MOST_SPREAD_US)


class FrameCheck(QWidget):
    """Answers two questions: how many of my presses does a game at F frames see? What is the fastest safe timing?

    It is worked out beside the window; what has been asked meanwhile is worked out anew.
    """

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self._macro: Macro | None = None
        self._least_us: int | None = None
        self._background = Background(self)
        self._measured_us: float | None = None
        self.rate = searchable("Frames a second")
        for fps in FRAME_RATES:
            self.rate.addItem(f"{fps} frames/s", fps)
        self.rate.addItem("events, no frames", IN_ORDER)
        self.rate.setCurrentIndex(FRAME_RATES.index(60))
        self.against = Segments((("rate", "frame rate"), ("hold", "hold")), "Presses seen against")
        self.against.set_value("rate")
        self._against = "rate"
        self.plot = _Plot()
        self.answer, self.advice = label("", "", wrap=True), label("", "soft", wrap=True)
        # One standard deviation, in microseconds.
        self._spread_us = 0
        self.spread = Figure("how much frame times vary", _read_spread, lambda us: f"{format_ms(us)} ms")
        self.jitter = Sentence()
        self.jitter.may_say(self.spread)
        self.use_button = button("Use it", self._use, "act")
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self.refresh)
        self.rate.currentIndexChanged.connect(lambda index: self._rate_chosen())
        self.against.chosen.connect(self._against_chosen)
        shown.frames_changed.connect(self._frames_changed)
        if line := self.rate.lineEdit():
            line.editingFinished.connect(self._rate_typed)
        self.spread.changed.connect(self._spread_changed)
        self._build()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(6)
        # What to do about it stands where it is seen without scrolling.
        layout.addWidget(self.answer)
        layout.addWidget(self.advice)
        layout.addWidget(self.use_button, 0, Qt.AlignmentFlag.AlignLeft)
        for part in (self.against, self.plot, self.jitter):
            layout.addWidget(part)

    def _rate_chosen(self) -> None:
        if fps := self.rate.currentData():
            self._shown.set_frames(fps)
        self.refresh()

    def _rate_typed(self) -> None:
        """Take a rate that isn't in the list, too."""
        text = self.rate.currentText()
        if self.rate.findText(text, Qt.MatchFlag.MatchFixedString) >= 0:
            return
        found = re.search(r"\d+", text)
        if found and _LEAST_FPS <= int(found.group()) <= _MOST_FPS:
            self._choose_rate(int(found.group()))
        else:
            self._store.fault.emit(f"A frame rate is a number from {_LEAST_FPS} to {_MOST_FPS}.")
            self.rate.setEditText(self.rate.itemText(self.rate.currentIndex()))

    def _choose_rate(self, fps: int) -> None:
        if self.rate.findData(fps) < 0:
            rates = [self.rate.itemData(n) for n in range(self.rate.count() - 1)]
            self.rate.insertItem(sum(rate < fps for rate in rates), f"{fps} frames/s", fps)
        self.rate.setCurrentIndex(self.rate.findData(fps))

    def _spread_changed(self, us: int) -> None:
        self._spread_us = us
        self.refresh()

    def _frames_changed(self) -> None:
        self._choose_rate(self._shown.frames)
        self.refresh()

    def _against_chosen(self, against: str) -> None:
        self._against = against
        self.refresh()

    def set_macro(self, macro: Macro | None) -> None:
        """Look at this macro, once edits rest."""
        if macro is not self._macro:
            self._macro = macro
            self._timer.start(rest_ms(self._shown.line.size))

    def set_jitter(self, spread_us: float | None) -> None:
        """Go by the timing that a run showed: its standard deviation in microseconds; None for the usual."""
        if spread_us != self._measured_us:
            self._measured_us = spread_us
            self._timer.start(rest_ms(self._shown.line.size))

    @property
    def jitter_us(self) -> float:
        """The timing's jitter that is reckoned with, in microseconds."""
        return JITTER_US if self._measured_us is None else self._measured_us

    def refresh(self) -> None:
        """Work it out anew."""
        fps = float(self.rate.currentData())
        job = worker_process.CheckFrames(self._macro, fps, self.jitter_us, self._against, self._spread_us)
        self._background.start(lambda: worker_process.ask(job, FrameAnswer), self._show_answer)

    def _show_answer(self, result: FrameAnswer) -> None:
        self._least_us = result.least_us
        self.plot.result = result
        self.plot.setAccessibleName(f"Presses seen against {'frame rate' if result.against == 'rate' else 'hold'}")
        self.plot.update()
        self.answer.setText(result.answer)
        self.advice.setText(result.advice)
        source = "typical" if self._measured_us is None else "as the last run showed"
        self.spread.set_value(self._spread_us)
        error = f"and the macro's timing by {format_ms(round(self.jitter_us))} ms, {source}"
        self.jitter.say("frame times vary by", self.spread, error)
        self.jitter.setAccessibleName(f"frame times vary by {format_ms(self._spread_us)} ms {error}")
        for part in (self.plot, self.against, self.jitter):
            part.setVisible(bool(result.points))
        self.advice.setVisible(bool(result.advice))
        self.use_button.setVisible(result.least_us is not None)

    def _use(self) -> None:
        if self._macro is not None and self._least_us is not None:
            safe = make_safe(self._macro, self._least_us)
            commands.edit_macro(self._store, f"timing of {safe.name} for its game", safe)
