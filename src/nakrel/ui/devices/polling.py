"""Polling: how often a mouse reports."""

from __future__ import annotations

from PyQt6.QtCore import QCoreApplication, QRectF, QSize, Qt, QTimer
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.analysis.polling import Polling, polling
from nakrel.core.model.devices import Device
from nakrel.core.model.errors import DataError
from nakrel.ui.store import Store
from nakrel.ui.theme import SMALL_PX, colour, font
from nakrel.ui.widgets.basics import button, label
from nakrel.words import plain, sentence, shown_number, tr

__all__ = ["PollingDialog"]

_SECONDS = 3
_EXACT = tr("The times are the kernel's own, to the microsecond.")
_COARSE = tr(
    "The times are the X server's, whose clock has milliseconds: rates above 1,000 can't be told, and single times not "
    "at all. Where Nakrel reads devices through the kernel they are exact."
)
_COMPRESSED = Qt.ApplicationAttribute.AA_CompressHighFrequencyEvents


class _Field(QWidget):
    """Where to move the mouse; afterwards the histogram of the times between its reports."""

    def __init__(self) -> None:
        super().__init__()
        self.times_us: list[int] | None = None
        self.found: Polling | None = None
        self.setMouseTracking(True)
        self.setMinimumSize(QSize(420, 190))
        self.setAccessibleName(tr("Move the mouse here"))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """A report, by the window's own clock."""
        if event and self.times_us is not None:
            self.times_us.append(event.timestamp() * 1_000)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw it."""
        painter = QPainter(self)
        painter.setFont(font(SMALL_PX))
        area = QRectF(0, 0, self.width() - 1, self.height() - 1)
        painter.fillRect(area, colour("field"))
        painter.setPen(colour("line"))
        painter.drawRect(area)
        if (found := self.found) is None:
            painter.setPen(colour("soft"))
            text = tr("Move the mouse in circles here.") if self.times_us is not None else ""
            painter.drawText(area, Qt.AlignmentFlag.AlignCenter, text)
            return
        field = area.adjusted(14, 14, -14, -24)
        step, most = field.width() / len(found.counts), max(1, *found.counts)
        for place, count in enumerate(found.counts):
            if count:
                height = max(2.0, field.height() * count / most)
                bar = QRectF(field.left() + place * step, field.bottom() - height, max(1.0, step - 1), height)
                painter.fillRect(bar, colour("key"))
        painter.setPen(colour("line"))
        painter.drawLine(field.bottomLeft(), field.bottomRight())
        painter.setPen(colour("soft"))
        for part in range(4):
            x = field.left() + part / 3 * (len(found.counts) - 1) * step
            spot = QRectF(x - 40, field.bottom() + 3, 80, 16)
            painter.drawText(spot, Qt.AlignmentFlag.AlignHCenter, plain(found.top_us * part / 3_000))
        painter.drawText(area.adjusted(0, 4, -10, 0), Qt.AlignmentFlag.AlignRight, tr("ms between reports"))


class PollingDialog(QDialog):
    """Measures for three seconds: by the kernel's times where the device is read through it, else by the window's."""

    def __init__(self, store: Store, device: Device, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store, self._device = store, device
        self._exact = device.how == "kernel"
        self.setWindowTitle(tr("Polling: {name}").format(name=device.name))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(480, 380)
        self.field = _Field()
        self.answer = label(tr("Press Measure, and move the mouse in circles for three seconds."), "", wrap=True)
        self.start_button = button(tr("Measure"), self.start, "act")
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._over)
        layout = QVBoxLayout(self)
        layout.addWidget(self.field, 1)
        layout.addWidget(self.answer)
        layout.addWidget(label(_EXACT if self._exact else _COARSE, "soft", wrap=True))
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(button(tr("Close"), self.reject))
        row.addWidget(self.start_button)
        layout.addLayout(row)
        self.finished.connect(lambda code: self._stop())

    def start(self) -> None:
        """Begin to measure."""
        self.field.found, self.field.times_us = None, []
        self.field.update()
        self.start_button.setEnabled(False)
        self.answer.setText(tr("Move the mouse in circles…"))
        if self._exact:
            self._store.ask(m.MeasureMotion(self._device.id, _SECONDS), self._answered)
        else:
            # Qt makes one of several motions otherwise.
            QCoreApplication.setAttribute(_COMPRESSED, False)
            self._timer.start(_SECONDS * 1_000)

    def _stop(self) -> None:
        self._timer.stop()
        QCoreApplication.setAttribute(_COMPRESSED, True)

    def _over(self) -> None:
        self._stop()
        self.show_times(self.field.times_us or [])

    def _answered(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.MotionTimes):
            self.show_times(list(answer.times_us))
        elif isinstance(answer, m.Refused):
            self._say(answer.error)

    def show_times(self, times_us: list[int]) -> None:
        """Tell what these reports show."""
        try:
            found = polling(times_us, coarse=not self._exact)
        except DataError as error:
            self._say(str(error))
            return
        self.field.found = found
        usual = shown_number(found.median_us / 1_000, 3) if self._exact else plain(found.median_us / 1_000)
        text = tr(
            "{rate_hz} reports a second: a mouse of {nearest_hz} Hz. One every {usual} ms, half of them within "
            "{value} ms of each other; "
        ).format(
            rate_hz=shown_number(found.rate_hz),
            nearest_hz=shown_number(found.nearest_hz),
            usual=usual,
            value=shown_number(found.spread_us / 1000, 3),
        )
        missing = (
            tr("{missing} of {value} are missing").format(
                missing=shown_number(found.missing), value=shown_number(found.reports + found.missing)
            )
            if found.missing
            else tr("none is missing")
        )
        self._say(f"{text}{missing}.")

    def _say(self, text: str) -> None:
        text = sentence(text)
        self.field.times_us = None
        self.answer.setText(text)
        self.field.setAccessibleDescription(text)
        self.start_button.setEnabled(True)
        self.start_button.setText(tr("Measure again"))
        self.field.update()
