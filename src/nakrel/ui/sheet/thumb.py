"""The thumb's buttons as they lie under the thumb: what each does, at a glance."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QFontMetrics, QHelpEvent, QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QToolTip, QWidget

from nakrel.core.model.controls import CONTROLS, label
from nakrel.ui.sheet.model import SheetModel
from nakrel.ui.shown import Shown
from nakrel.ui.theme import SMALL_PX, font, palette
from nakrel.ui.widgets import glyphs

__all__ = ["ThumbGrid"]

# Mice with twelve thumb buttons have them in four rows of three (common practice, no published source).
_ACROSS = 3
_ROW_PX = 30
_LEAST = 6


class ThumbGrid(QWidget):
    """A cell a button, in the layer that is shown; `chosen` gives the button that was clicked."""

    chosen = pyqtSignal(str)

    def __init__(self, model: SheetModel, shown: Shown) -> None:
        super().__init__()
        self._model, self._shown = model, shown
        self.codes: list[str] = []
        self.setAccessibleName("Thumb buttons")
        self.setAttribute(Qt.WidgetAttribute.WA_Hover)
        for signal in (model.modelReset, model.dataChanged, shown.control_changed, shown.profile_changed):
            signal.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show the buttons as they are now; a device with few of them needs no grid."""
        controls = self._model.device_controls()
        codes = [code for code in controls if code in CONTROLS and CONTROLS[code].part == "thumb"]
        if codes != self.codes:
            self.codes = codes
            self.updateGeometry()
        self.setVisible(len(self.codes) >= _LEAST)
        self.update()

    def sizeHint(self) -> QSize:
        """As many rows as there are buttons for."""
        return QSize(200, -(-len(self.codes) // _ACROSS) * _ROW_PX + 1)

    def minimumSizeHint(self) -> QSize:
        """The same."""
        return self.sizeHint()

    def place_of(self, code: str) -> QRectF:
        """Where a button is drawn."""
        number = self.codes.index(code)
        width = (self.width() - 1) / _ACROSS
        return QRectF(number % _ACROSS * width, number // _ACROSS * _ROW_PX, width, _ROW_PX)

    def _at(self, x: float, y: float) -> str:
        return next((code for code in self.codes if self.place_of(code).contains(x, y)), "")

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw each button's number, and beneath it what it does."""
        painter, p = QPainter(self), palette()
        small = font(SMALL_PX)
        metrics = QFontMetrics(small)
        for number, code in enumerate(self.codes, 1):
            area = self.place_of(code)
            glyph, text, _, weak = self._model.shown_in(code, self._shown.layer)
            lit = code in self._model.pressed
            painter.setBrush(QColor(p.field if code == self._shown.control or lit else p.shade))
            painter.setPen(QColor(p.line))
            painter.drawRect(area)
            if code == self._shown.control or lit:
                painter.fillRect(QRectF(area.left(), area.top(), 3, area.height()), QColor(p.brass))
            painter.setFont(small)
            painter.setPen(QColor(p.soft))
            painter.drawText(area.adjusted(7, 1, -4, -16), Qt.AlignmentFlag.AlignVCenter, str(number))
            if weak and not glyph:
                continue
            line = area.adjusted(7, 14, -3, -1)
            glyphs.draw(painter, glyph, QRectF(line.left(), line.top(), 12, line.height()))
            painter.setPen(QColor(p.soft if weak else p.ink))
            shown = metrics.elidedText(text, Qt.TextElideMode.ElideRight, int(line.width()) - 16)
            painter.drawText(line.adjusted(16, 0, 0, 0), Qt.AlignmentFlag.AlignVCenter, shown)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Choose the button under the pointer."""
        if event and (code := self._at(event.position().x(), event.position().y())):
            self.chosen.emit(code)

    def event(self, event: object) -> bool:
        """Tell what the button under the pointer does in full."""
        if isinstance(event, QHelpEvent):
            code = self._at(event.pos().x(), event.pos().y())
            text, soft = self._model.shown_in(code, self._shown.layer)[1:3] if code else ("", "")
            QToolTip.showText(event.globalPos(), f"{label(code)}: {text}{soft}" if code else "", self)
            return True
        return super().event(event)  # type: ignore[arg-type]
