"""How long a control was held, and how long its gaps were."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent
from PyQt6.QtWidgets import QWidget

from nakrel.core.analysis.practice_range import bins_of, histogram
from nakrel.ui.theme import SMALL_PX, colour, font
from nakrel.words import shown_number, tr

__all__ = ["Histograms"]

_HEIGHT, _HEAD, _FOOT = 96, 16, 16
_BETWEEN = 36
_MARKED = (1, 5, 20, 80, 320, 1_280)


class Histograms(QWidget):
    """Two histograms side by side, on steps that grow."""

    def __init__(self) -> None:
        super().__init__()
        self._parts: list[tuple[str, list[int]]] = []
        self.setFixedHeight(_HEIGHT)

    def sizeHint(self) -> QSize:
        """Wide and low."""
        return QSize(560, _HEIGHT)

    def show_times(self, name: str, holds_us: list[int], gaps_us: list[int]) -> None:
        """Show the times of a control; '' for none."""
        parts = ((tr("held, ms"), holds_us), (tr("gaps, ms"), gaps_us)) if name else ()
        self._parts = [(f"{name} · {what}", histogram(times)) for what, times in parts]
        self.setAccessibleName(
            tr("How long {name} was held, and its gaps").format(name=name) if name else tr("No button is selected")
        )
        self.setAccessibleDescription("; ".join(f"{title}: {_spoken(counts)}" for title, counts in self._parts))
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw both."""
        painter = QPainter(self)
        painter.setFont(font(SMALL_PX))
        if not self._parts:
            return
        width = (self.width() - _BETWEEN) / 2
        for number, (title, counts) in enumerate(self._parts):
            left = number * (width + _BETWEEN)
            painter.setPen(colour("soft"))
            painter.drawText(QRectF(left, 0, width, _HEAD), Qt.AlignmentFlag.AlignLeft, title)
            field = QRectF(left, _HEAD + 4, width, _HEIGHT - _HEAD - _FOOT - 8)
            painter.setPen(colour("line"))
            painter.drawLine(field.bottomLeft(), field.bottomRight())
            step, most = field.width() / len(counts), max(1, *counts)
            for place, count in enumerate(counts):
                if count:
                    height = max(2.0, field.height() * count / most)
                    bar = QRectF(field.left() + place * step + 1, field.bottom() - height, step - 2, height)
                    painter.fillRect(bar, colour("key"))
            painter.setPen(colour("soft"))
            for place, bound in enumerate(bins_of()):
                if bound in _MARKED:
                    spot = QRectF(field.left() + (place + 1) * step - 20, field.bottom() + 2, 40, _FOOT)
                    painter.drawText(spot, Qt.AlignmentFlag.AlignHCenter, shown_number(bound))


def _spoken(counts: list[int]) -> str:
    """The bars that there are, with the milliseconds that each ends at."""
    ends = [tr("up to {bound}").format(bound=shown_number(bound)) for bound in bins_of()] + [tr("longer")]
    return ", ".join(f"{count} {end}" for count, end in zip(counts, ends, strict=False) if count) or tr("none yet")
