"""A switch: on or off, at once."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import QAbstractButton

from nakrel.ui.theme import palette

__all__ = ["Switch"]


class Switch(QAbstractButton):
    """A switch that is brass while on."""

    def __init__(self, name: str) -> None:
        super().__init__()
        self.setCheckable(True)
        self.setAccessibleName(name)
        self.setFixedSize(self.sizeHint())

    def sizeHint(self) -> QSize:
        """The size of the slot and its knob."""
        return QSize(32, 18)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw the slot, the knob, and a ring while it has the focus."""
        p = palette()
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        area = QRectF(self.rect()).adjusted(1, 1, -1, -1)
        painter.setPen(QColor(p.ink) if self.hasFocus() else Qt.PenStyle.NoPen)
        painter.setBrush(QColor(p.brass if self.isChecked() else p.soft))
        painter.drawRoundedRect(area, area.height() / 2, area.height() / 2)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(p.field))
        size = area.height() - 4
        left = area.right() - size - 2 if self.isChecked() else area.left() + 2
        painter.drawEllipse(QRectF(left, area.top() + 2, size, size))
