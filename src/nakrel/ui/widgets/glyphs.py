"""Glyphs: each kind of thing has its own sign besides its colour and its word."""

from __future__ import annotations

from functools import lru_cache
from math import ceil, floor

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter, QPen, QPolygonF

from nakrel.core.model.controls import GAME, KNOWN, OPEN, POINTER, TEXT, Kind
from nakrel.ui.theme import Palette, hue, palette

__all__ = ["GO", "LAYER", "MACRO", "NOTHING", "SPEED", "WAIT", "draw"]

# Glyph names besides a control's code.
GO, LAYER, MACRO, NOTHING, SPEED, WAIT = "go", "layer", "macro", "nothing", "speed", "wait"


# A glyph has room in a square of so many pixels.
_SIDE = 16


def draw(painter: QPainter, name: str, area: QRectF) -> None:
    """Draw the glyph of a control's code, or one of the names above, centred in the area.

    Each is drawn once to a picture for its colour and its place between pixels: that is what takes long.
    """
    device = painter.device()
    scale = device.devicePixelRatio() if device else 1.0
    x, y = area.center().x() - _SIDE / 2, area.center().y() - _SIDE / 2
    left, top = floor(x), floor(y)
    picture = _picture(name, palette(), scale, round(x - left, 2), round(y - top, 2))
    painter.drawImage(QPointF(left, top), picture)


@lru_cache(maxsize=512)
def _picture(name: str, colours: Palette, scale: float, right: float, down: float) -> QImage:
    # An image and not a pixmap: one that is kept may outlive the application.
    side = ceil((_SIDE + 1) * scale)
    picture = QImage(side, side, QImage.Format.Format_ARGB32_Premultiplied)
    picture.setDevicePixelRatio(scale)
    picture.fill(Qt.GlobalColor.transparent)
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    _draw(painter, name, _SIDE / 2 + right, _SIDE / 2 + down, colours)
    painter.end()
    return picture


def _draw(painter: QPainter, name: str, x: float, y: float, colours: Palette) -> None:
    colour = hue(name)
    known = KNOWN.get(name)
    if name == MACRO:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(colours.brass))
        painter.drawPolygon(QPolygonF([QPointF(x - 4, y + 4), QPointF(x + 4, y + 4), QPointF(x + 4, y - 4)]))
    elif name == LAYER:
        painter.setPen(QPen(QColor(colours.brass), 1.3))
        for n in range(3):
            painter.drawLine(QPointF(x - 5 + n, y + 4 - 4 * n), QPointF(x + 3 + n, y + 4 - 4 * n))
    elif name == SPEED:
        painter.setPen(QPen(QColor(colours.pointer), 1.4))
        for n in range(4):
            painter.drawLine(QPointF(x - 4.5 + 3 * n, y + 4), QPointF(x - 4.5 + 3 * n, y + 2 - 2 * n))
    elif name == NOTHING:
        painter.setPen(QPen(QColor(colours.soft), 1.4))
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
        painter.setPen(QPen(QColor(colours.brass), 1.4))
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
