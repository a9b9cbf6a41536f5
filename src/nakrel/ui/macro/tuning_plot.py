"""The picture of a search: its trials, how likely each time works, and the time that is suggested."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget

from nakrel.core.analysis.trials import Found
from nakrel.core.model.tuning import Question, Tuning
from nakrel.core.model.units import shown_ms
from nakrel.ui.theme import SMALL_PX, font, palette
from nakrel.words import plain, tr

__all__ = ["TuningPlot"]

_LEFT, _RIGHT = 40, 14
# Trials stand in two rows, what worked above the curve and what didn't below it.
_ABOVE, _BELOW = 14, 30
_DOT = 2.6
# Where a time and a chance are drawn.
Place = Callable[[float, float], QPointF]


class TuningPlot(QWidget):
    """Times from left to right, chances to work from below to above."""

    def __init__(self) -> None:
        super().__init__()
        self._tuning: Tuning | None = None
        self._found: Found | None = None
        self.setFixedHeight(136)

    def sizeHint(self) -> QSize:
        """Wide and low."""
        return QSize(240, 136)

    def show_search(self, tuning: Tuning | None, found: Found | None) -> None:
        """Draw this search."""
        self._tuning, self._found = tuning, found
        self.update()
        if tuning and found:
            worked = sum(trial.worked for trial in tuning.trials)
            self.setAccessibleName(
                tr("{worked} of {count} trials worked; the shortest time lies between {time} and {time2} ms").format(
                    worked=worked,
                    count=len(tuning.trials),
                    time=shown_ms(found.low_us),
                    time2=shown_ms(found.high_us),
                )
            )

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw the band, the curve, the trials and what is suggested."""
        if self._tuning is None or self._found is None:
            return
        painter = QPainter(self)
        painter.setFont(font(SMALL_PX))
        field = QRectF(_LEFT, _ABOVE + 6, self.width() - _LEFT - _RIGHT, self.height() - _ABOVE - _BELOW - 12)
        question = self._tuning.question

        def place(time_us: float, share: float) -> QPointF:
            part = (time_us - question.least_us) / (question.most_us - question.least_us)
            return QPointF(field.left() + part * field.width(), field.bottom() - share * field.height())

        _scale(painter, field, question)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        _curve(painter, field, self._found, place)
        _trials(painter, field, self._tuning, place)


def _scale(painter: QPainter, field: QRectF, question: Question) -> None:
    p = palette()
    right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
    for share, text in ((1.0, "100 %"), (0.5, "50"), (0.0, "0")):
        y = field.bottom() - share * field.height()
        painter.setPen(QColor(p.line))
        painter.drawLine(QPointF(field.left(), y), QPointF(field.right(), y))
        painter.setPen(QColor(p.soft))
        painter.drawText(QRectF(0, y - 8, _LEFT - 5, 16), right, text)
    y = field.bottom() + 18
    painter.drawText(QRectF(field.left(), y, 60, 14), Qt.AlignmentFlag.AlignLeft, _ms(question.least_us))
    painter.drawText(QRectF(field.right() - 50, y, 60, 14), right, tr("{value} ms").format(value=_ms(question.most_us)))


def _curve(painter: QPainter, field: QRectF, found: Found, place: Place) -> None:
    """How likely each time works, with its band, and the interval that the wanted time lies in: its upper end is
    suggested."""
    p = palette()
    ends = [place(found.low_us, 0).x(), place(found.high_us, 1).x()]
    painter.fillRect(QRectF(ends[0], field.top(), max(1.0, ends[1] - ends[0]), field.height()), _faint(p.brass, 0.16))
    band = [place(at, high) for at, _, _, high in found.curve]
    band += [place(at, low) for at, _, low, _ in reversed(found.curve)]
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(_faint(p.ink, 0.10))
    painter.drawPolygon(QPolygonF(band))
    painter.setPen(QPen(QColor(p.ink), 1.3))
    painter.drawPolyline(QPolygonF([place(at, mean) for at, mean, _, _ in found.curve]))
    painter.setPen(QPen(QColor(p.brass), 1.6))
    painter.drawLine(QPointF(ends[1], field.top() - 4), QPointF(ends[1], field.bottom() + 4))


def _trials(painter: QPainter, field: QRectF, tuning: Tuning, place: Place) -> None:
    p = palette()
    for number, trial in enumerate(tuning.trials):
        y = field.top() - 10 if trial.worked else field.bottom() + 10
        latest = number == len(tuning.trials) - 1
        painter.setPen(QPen(QColor(p.ink if trial.worked else p.alarm), 1.2))
        painter.setBrush(QColor(p.ink) if trial.worked else QColor(p.paper))
        size = _DOT + (1.2 if latest else 0)
        painter.drawEllipse(QPointF(place(trial.time_us, 0).x(), y), size, size)


def _faint(name: str, share: float) -> QColor:
    made = QColor(name)
    made.setAlphaF(share)
    return made


def _ms(us: int) -> str:
    return plain(us / 1_000)
