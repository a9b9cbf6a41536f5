"""Traces: a control over time as a thin line that steps up where it goes down and falls where it is let go."""

from __future__ import annotations

from array import array
from collections.abc import Iterable

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QColor, QPainter, QPen, QPolygonF

__all__ = ["draw_trace"]

_MOST_STRONG = 120


def draw_trace(
    painter: QPainter,
    area: QRectF,
    spans: Iterable[tuple[float, float]],
    start: float,
    end: float,
    colour: QColor,
    width: float = 1.5,
) -> None:
    """Draw one trace over the time from `start` to `end` (any one unit); `spans` are its high stretches in order."""
    if end <= start:
        return
    scale = area.width() / (end - start)
    low, high = area.bottom(), area.top()
    # Points as figures in a row: making an object of each takes longer than drawing the line.
    last = low
    points = [area.left(), low]
    for down, up in spans:
        if up < start or down > end:
            continue
        left = area.left() + (max(down, start) - start) * scale
        # A hold too short to be drawn still has its two edges apart.
        right = max(left + 1, area.left() + (min(up, end) - start) * scale)
        points += (left, low, left, high, right, high)
        last = high
        if up <= end:
            points += (right, low)
            last = low
    points += (area.right(), last)
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
    painter.setPen(QPen(colour, 1))
    line = _polygon(points)
    painter.drawPolyline(line)
    if width > 1 and len(points) <= 2 * _MOST_STRONG:
        # A strong line is drawn as thin ones side by side: that is twenty times as fast as a wide pen. Where many edges
        # stand together nobody sees more.
        for aside in ((1, 0), (0, 1)):
            painter.drawPolyline(line.translated(*aside))
    painter.restore()


def _polygon(figures: list[float]) -> QPolygonF:
    """The line through points, of which x and y follow each other."""
    line = QPolygonF()
    line.fill(QPointF(), len(figures) // 2)
    place = line.data()
    assert place is not None
    place.setsize(len(figures) * 8)
    memoryview(place).cast("B")[:] = array("d", figures).tobytes()  # type: ignore[arg-type]
    return line
