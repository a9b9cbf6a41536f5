"""Glyphs: each kind of thing has its own sign besides its colour and its word."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

from nakrel.core.controls import CONTROLS, GAME, OPEN, POINTER, TEXT, Kind
from nakrel.ui.theme import hue, palette

__all__ = ["GO", "LAYER", "MACRO", "NOTHING", "WAIT", "draw"]

# Glyph names besides a control's code.
GO, LAYER, MACRO, NOTHING, WAIT = "go", "layer", "macro", "nothing", "wait"


def draw(painter: QPainter, name: str, area: QRectF) -> None:
    """Draw the glyph of a control's code, or one of the names above, centred in the area."""
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    x, y = area.center().x(), area.center().y()
    colour = hue(name)
    known = CONTROLS.get(name)
    if name == MACRO:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(palette().brass))
        painter.drawPolygon(QPolygonF([QPointF(x - 4, y + 4), QPointF(x + 4, y + 4), QPointF(x + 4, y - 4)]))
    elif name == LAYER:
        painter.setPen(QPen(QColor(palette().brass), 1.3))
        for n in range(3):
            painter.drawLine(QPointF(x - 5 + n, y + 4 - 4 * n), QPointF(x + 3 + n, y + 4 - 4 * n))
    elif name == NOTHING:
        painter.setPen(QPen(QColor(palette().soft), 1.4))
        painter.drawLine(QPointF(x - 4, y), QPointF(x + 4, y))
    elif name == POINTER:
        painter.setPen(QPen(colour, 1.3))
        painter.drawLine(QPointF(x - 5, y), QPointF(x + 5, y))
        painter.drawLine(QPointF(x, y - 5), QPointF(x, y + 5))
    elif name == TEXT:
        painter.setPen(QPen(colour, 1.3))
        for n, width in enumerate((10, 7, 9)):
            painter.drawLine(QPointF(x - 5, y - 3.5 + 3.5 * n), QPointF(x - 5 + width, y - 3.5 + 3.5 * n))
    elif name == OPEN:
        painter.setPen(QPen(colour, 1.3))
        painter.drawRect(QRectF(x - 5, y - 4.5, 10, 9))
        painter.drawLine(QPointF(x - 5, y - 1.5), QPointF(x + 5, y - 1.5))
    elif name == GO:
        painter.setPen(QPen(QColor(palette().brass), 1.4))
        painter.drawLine(QPointF(x - 5, y), QPointF(x + 4, y))
        painter.drawLine(QPointF(x + 4, y), QPointF(x + 1, y - 3))
        painter.drawLine(QPointF(x + 4, y), QPointF(x + 1, y + 3))
    elif name.startswith(GAME) or (known is not None and known.kind is Kind.KEY):
        painter.setPen(QPen(colour, 1.2))
        painter.drawRoundedRect(QRectF(x - 5, y - 3.5, 10, 7), 1.5, 1.5)
    elif known is not None and known.kind is Kind.BUTTON:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour)
        painter.drawPie(QRectF(x - 4.5, y - 4.5, 9, 9), 90 * 16, 180 * 16)
    elif known is not None:
        painter.setPen(QPen(colour, 1.4))
        painter.drawLine(QPointF(x, y - 4.5), QPointF(x, y + 4.5))
        for end in (-1, 1):
            painter.drawLine(QPointF(x, y + end * 4.5), QPointF(x - 2.5, y + end * 2))
            painter.drawLine(QPointF(x, y + end * 4.5), QPointF(x + 2.5, y + end * 2))
    painter.restore()
