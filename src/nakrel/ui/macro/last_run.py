"""The last run: how late its events went out, and its record to take away."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.model.runs import RunRecord
from nakrel.core.model.units import shown_ms
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.theme import SMALL_PX, font, palette
from nakrel.ui.widgets.basics import button, form_row, label
from nakrel.words import counted, plain, shown_number, tr

if TYPE_CHECKING:
    from nakrel.core.analysis.lateness import Lateness

__all__ = ["LastRun"]

_LEFT = 52


class _Histogram(QWidget):
    """How many events were how late, on steps that grow; bars of counts."""

    def __init__(self) -> None:
        super().__init__()
        self.counts: tuple[int, ...] = ()
        self.bounds_us: tuple[int, ...] = ()
        self.setAccessibleName(tr("How many events were how late"))
        self.setFixedHeight(62)

    def sizeHint(self) -> QSize:
        """Wide and low."""
        return QSize(240, 62)

    def speak(self) -> None:
        """Tell screen readers what is drawn."""
        bounds = (
            *(tr("up to {value} ms late").format(value=plain(bound / 1000)) for bound in self.bounds_us),
            tr("later"),
        )
        told = [f"{count} {words}" for count, words in zip(self.counts, bounds, strict=False) if count]
        self.setAccessibleDescription("; ".join(told))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw a bar a step, and the steps' bounds."""
        if not self.counts:
            return
        painter, p = QPainter(self), palette()
        painter.setFont(font(SMALL_PX))
        field = QRectF(_LEFT, 6, self.width() - _LEFT - 14, self.height() - 24)
        width, most = field.width() / len(self.counts), max(self.counts)
        painter.setPen(QColor(p.line))
        painter.drawLine(field.bottomLeft(), field.bottomRight())
        for n, count in enumerate(self.counts):
            height = field.height() * count / most
            if count:
                bar = QRectF(
                    field.left() + n * width + 1, field.bottom() - max(1.5, height), width - 2, max(1.5, height)
                )
                painter.fillRect(bar, QColor(p.key))
        painter.setPen(QColor(p.soft))
        right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        painter.drawText(QRectF(0, field.top() - 6, _LEFT - 6, 14), right, str(most))
        for n, bound in enumerate(self.bounds_us):
            if n % 3 == 1:
                x = field.left() + n * width
                painter.drawLine(QPointF(x, field.bottom()), QPointF(x, field.bottom() + 3))
                place = QRectF(x - 30, field.bottom() + 3, 60, 14)
                painter.drawText(place, Qt.AlignmentFlag.AlignHCenter, tr("{time} ms").format(time=shown_ms(bound)))


class LastRun(QWidget):
    """Asks for the record of the macro shown when it is shown, and when a run of it ends.

    `told` gives the record, and the standard deviation of its lateness in microseconds; None and None for no run.
    """

    measured = pyqtSignal(object, object)
    save_wanted = pyqtSignal(object)

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self._key = ""
        self.record: RunRecord | None = None
        self.median, self.p99, self.most = label(), label(), label()
        self.message = label("", "soft", wrap=True)
        self.histogram = _Histogram()
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2)
        layout.addWidget(self.message)
        for text, field in (
            (tr("late by, median"), self.median),
            (tr("late by, 99 %"), self.p99),
            (tr("late by, at most"), self.most),
        ):
            layout.addWidget(form_row(text, field))
        layout.addWidget(self.histogram)
        save = button(
            tr("Save its events…"), lambda: self.save_wanted.emit(self.record), "link", tr("As a table or a dump")
        )
        layout.addWidget(save, 0, Qt.AlignmentFlag.AlignLeft)
        store.status_changed.connect(self._status)
        shown.macro_changed.connect(self.refresh)
        self.refresh()
        self._runs = self._is_running()

    def _is_running(self) -> bool:
        key = self._shown.macro.id if self._shown.macro else ""
        return any(run.macro == key for run in self._store.status.running)

    def _status(self) -> None:
        runs = self._is_running()
        if self._runs and not runs:
            self.refresh()
        self._runs = runs

    def refresh(self) -> None:
        """Fetch the record anew."""
        macro = self._shown.macro
        key = macro.id if macro else ""
        if key != self._key:
            self._key = key
            self._show(None)
        if key:
            self._store.ask(m.GetRun(key), lambda answer: self._answered(key, answer))

    def _answered(self, key: str, answer: m.AnswerBody) -> None:
        if key == self._key and isinstance(answer, m.RunIs):
            self._show(answer.record)

    def _show(self, record: RunRecord | None) -> None:
        self.record = record
        late = _lateness(record) if record else None
        if late is None or record is None:
            self.measured.emit(None, None)
            return
        for field, micros in ((self.median, late.median_us), (self.p99, late.p99_us), (self.most, late.most_us)):
            field.setText(tr("{value} ms").format(value=shown_number(micros / 1000, 3)))
        runs = counted(record.runs, "{n} run", "{n} runs") if record.runs else tr("no full run")
        if record.left_out:
            told = tr("{runs}, {events} events, {left_out} more not kept; ended: {reason}")
        else:
            told = tr("{runs}, {events} events; ended: {reason}")
        self.message.setText(
            told.format(
                runs=runs,
                events=shown_number(late.events),
                left_out=shown_number(record.left_out),
                reason=record.reason or tr("still running"),
            )
        )
        self.histogram.counts, self.histogram.bounds_us = late.counts, late.bounds_us
        self.histogram.speak()
        self.histogram.update()
        self.measured.emit(record, max(1.0, late.spread_us))


def _lateness(record: RunRecord) -> Lateness | None:
    # Not when the window opens: NumPy takes a tenth of a second to load.
    from nakrel.core.analysis.lateness import lateness_of

    return lateness_of(record)
