"""Traces: a control over time as a thin line that steps up where it goes down and falls where it is let go."""

from __future__ import annotations

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
    points = [QPointF(area.left(), low)]
    for down, up in spans:
        if up < start or down > end:
            continue
        left = area.left() + (max(down, start) - start) * scale
        # A hold too short to be drawn still has its two edges apart.
        right = max(left + 1, area.left() + (min(up, end) - start) * scale)
        points += [QPointF(left, low), QPointF(left, high), QPointF(right, high)]
        if up <= end:
            points.append(QPointF(right, low))
    points.append(QPointF(area.right(), points[-1].y()))
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
    painter.setPen(QPen(colour, 1))
    line = QPolygonF(points)
    painter.drawPolyline(line)
    if width > 1 and len(points) <= _MOST_STRONG:
        # A strong line is drawn as thin ones side by side: that is twenty times as fast as a wide pen. Where many edges
        # stand together nobody sees more.
        for aside in ((1, 0), (0, 1)):
            painter.drawPolyline(line.translated(*aside))
    painter.restore()
