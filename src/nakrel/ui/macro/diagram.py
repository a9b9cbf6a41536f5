"""The timing diagram: a trace a control, as electronics draws it."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QBrush, QColor, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from nakrel.core.controls import label
from nakrel.core.macro import Macro
from nakrel.core.timeline import Timeline, lay_out
from nakrel.core.units import format_ms
from nakrel.ui.macro.steps_model import SECTION_WORDS
from nakrel.ui.theme import SMALL_PX, font, hue, palette
from nakrel.ui.widgets import glyphs
from nakrel.ui.widgets.traces import draw_trace

__all__ = ["Diagram", "nice_step"]

_LEFT, _TOP, _TRACE, _RULER = 98, 20, 40, 26
_MOST_TRACES = 6


def nice_step(length_us: int, most: int = 8) -> int:
    """The ruler's step in microseconds: 1, 2 or 5 times a power of ten, `most` of them at most."""
    step = 1_000
    while length_us / step > most:
        digit = int(str(step)[0])
        step = step * 2 if digit in (1, 5) else step * 5 // 2
    return step


class Diagram(QWidget):
    """Draws one run of a macro; the chosen rows' stretch of time is marked."""

    def __init__(self) -> None:
        super().__init__()
        self._line: Timeline = lay_out(Macro(id="none", name="none"))
        self._marked: tuple[int, int] | None = None
        self.setAccessibleName("Timing diagram")
        self.setMinimumHeight(_TOP + _TRACE + _RULER)

    def sizeHint(self) -> QSize:
        """Room for its traces."""
        count = min(_MOST_TRACES, max(1, len(self._line.spans)))
        return QSize(400, _TOP + count * _TRACE + _RULER)

    def show_macro(self, macro: Macro | None) -> None:
        """Draw this macro."""
        self._line = lay_out(macro or Macro(id="none", name="none"))
        self.setFixedHeight(self.sizeHint().height())
        self.update()

    def mark(self, span_us: tuple[int, int] | None) -> None:
        """Mark a stretch of time."""
        self._marked = span_us
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw ground, zones, traces and ruler."""
        painter, p = QPainter(self), palette()
        area = QRectF(self.rect()).adjusted(0, 0, -1, -1)
        painter.setPen(QColor(p.line))
        painter.setBrush(QColor(p.field))
        painter.drawRect(area)
        painter.setFont(font(SMALL_PX))
        if not self._line.spans:
            painter.setPen(QColor(p.soft))
            words = "Nothing yet. Press Record and do it once, or add a step below."
            painter.drawText(area, Qt.AlignmentFlag.AlignCenter, words)
            return
        field = QRectF(_LEFT, _TOP, self.width() - _LEFT - 22, self.height() - _TOP - _RULER)
        # A little time behind the end, so that the last edge is seen.
        end = max(1_000, self._line.length_us * 1.03)
        self._zones(painter, field, end)
        self._ruler(painter, field, end)
        for n, (code, spans) in enumerate(list(self._line.spans.items())[:_MOST_TRACES]):
            top = _TOP + n * _TRACE
            glyphs.draw(painter, code, QRectF(10, top + 12, 14, 16))
            painter.setPen(hue(code))
            painter.setFont(font())
            name = painter.fontMetrics().elidedText(label(code), Qt.TextElideMode.ElideRight, _LEFT - 36)
            painter.drawText(QRectF(28, top + 8, _LEFT - 32, 24), Qt.AlignmentFlag.AlignVCenter, name)
            draw_trace(painter, QRectF(field.left(), top + 9, field.width(), 23), spans, 0, end, hue(code))
        self._hatch(painter, field, end)

    def _hatch(self, painter: QPainter, field: QRectF, end: float) -> None:
        """What is left to chance: hatched, as drawings of instruments show what isn't certain."""
        scale = field.width() / end
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QBrush(QColor(palette().soft), Qt.BrushStyle.BDiagPattern))
        for start, stop in self._line.unsure:
            left, width = field.left() + start * scale, max(2.0, (stop - start) * scale)
            painter.drawRect(QRectF(left, field.bottom() - 7, width, 7))

    def _zones(self, painter: QPainter, field: QRectF, end: float) -> None:
        p, scale = palette(), field.width() / end
        for zone in self._line.zones:
            left = field.left() + zone.start_us * scale
            width = (zone.end_us - zone.start_us) * scale
            if zone.section != "loop":
                painter.fillRect(QRectF(left, field.top(), max(2, width), field.height()), QColor(p.shade))
            painter.setPen(QColor(p.soft))
            painter.drawText(
                QRectF(left, 3, max(60, width), 15), Qt.AlignmentFlag.AlignLeft, SECTION_WORDS[zone.section]
            )
        if self._marked:
            start, stop = self._marked
            left, right = field.left() + start * scale, field.left() + stop * scale
            ground = QColor(p.brass)
            ground.setAlphaF(0.13)
            painter.fillRect(QRectF(left, field.top(), max(1.0, right - left), field.height()), ground)
            painter.setPen(QPen(QColor(p.brass), 1))
            for x in {int(left), int(right)}:
                painter.drawLine(x, int(field.top()), x, int(field.bottom()))

    def _ruler(self, painter: QPainter, field: QRectF, end: float) -> None:
        p, scale = palette(), field.width() / end
        step = nice_step(int(end))
        for at in range(0, int(end) + 1, step):
            x = int(field.left() + at * scale)
            painter.setPen(QPen(QColor(p.line), 1, Qt.PenStyle.DotLine))
            painter.drawLine(x, int(field.top()), x, int(field.bottom()))
            painter.setPen(QColor(p.soft))
            painter.drawLine(x, int(field.bottom()), x, int(field.bottom()) + 4)
            if x + 24 > self.width() - 24:
                # The unit stands there.
                continue
            text = format_ms(at)
            painter.drawText(QRectF(x - 40, field.bottom() + 5, 80, 16), Qt.AlignmentFlag.AlignHCenter, text)
        painter.drawText(QRectF(self.width() - 24, field.bottom() + 5, 22, 16), Qt.AlignmentFlag.AlignLeft, "ms")
