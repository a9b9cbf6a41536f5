"""The frame check's picture: presses seen against the frame rate or the hold."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget

from nakrel.core.analysis.frame_answer import FrameAnswer
from nakrel.ui.theme import SMALL_PX, font, palette
from nakrel.words import plain, shown_number, tr

__all__ = ["FramePlot"]


class FramePlot(QWidget):
    """Presses seen, in percent, against the frame rate or against the hold; where the macro is, is marked."""

    def __init__(self) -> None:
        super().__init__()
        self.result = FrameAnswer("")
        self.setFixedHeight(84)

    def sizeHint(self) -> QSize:
        """Wide and low."""
        return QSize(240, 84)

    def show_result(self, result: FrameAnswer) -> None:
        """Draw this answer."""
        self.result = result
        by_rate = result.against == "rate"
        told = [
            tr("{value} frames: {share} %").format(value=plain(value), share=shown_number(share * 100))
            if by_rate
            else tr("{value} ms: {share} %").format(value=plain(value / 1000), share=shown_number(share * 100))
            for value, share in result.points[:: 1 if by_rate else 4]
        ]
        self.setAccessibleName(tr("Presses seen, by frame rate") if by_rate else tr("Presses seen, by hold"))
        self.setAccessibleDescription("; ".join(told))
        self.update()

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
                number = plain(value) if by_rate else f"{value / 1_000:.0f}" + (" ms" if n == len(points) - 1 else "")
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
