"""Lines of text as they are drawn often: measured once, and written without laying out an area."""

from __future__ import annotations

from functools import lru_cache

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter

from nakrel.ui.theme import BODY_PX, font

__all__ = ["fitted", "width_of", "write"]


def write(
    painter: QPainter, left: float, middle: float, text: str, pixels: float = BODY_PX, *, bold: bool = False
) -> None:
    """Write one line of text from `left` on, with its middle at a height, in the pen's colour. It is several times as
    fast as writing into an area, and what is drawn anew at each edit is mostly text."""
    painter.setFont(font(pixels, bold=bold))
    painter.drawText(QPointF(left, round(middle + _drop(pixels, bold))), text)


@lru_cache(maxsize=4096)
def fitted(text: str, width: int, pixels: float = BODY_PX, bold: bool = False) -> str:
    """The text as it fits into a width: a table asks for the same ones again and again."""
    metrics = QFontMetricsF(font(pixels, bold=bold))
    return metrics.elidedText(text, Qt.TextElideMode.ElideRight, width)


@lru_cache(maxsize=4096)
def width_of(text: str, pixels: float = BODY_PX, bold: bool = False) -> float:
    """How wide the text is, in pixels."""
    return QFontMetricsF(font(pixels, bold=bold)).horizontalAdvance(text)


@lru_cache
def _drop(pixels: float, bold: bool) -> float:
    """How far the foot of the letters is below the middle of a line."""
    metrics = QFontMetricsF(font(pixels, bold=bold))
    return metrics.ascent() - metrics.height() / 2
