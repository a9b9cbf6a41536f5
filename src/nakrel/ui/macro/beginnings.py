"""How a macro can begin: rows with a picture of each, and the few fields of the chosen one."""

from __future__ import annotations

from typing import NamedTuple

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QAbstractButton, QGridLayout, QVBoxLayout, QWidget

from nakrel.core.edit.builders import BUILDERS, Asks, build
from nakrel.core.edit.timeline import lay_out
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Pointer
from nakrel.ui.macro.builder import BuilderRow
from nakrel.ui.theme import BODY_PX, SMALL_PX, colour, hue
from nakrel.ui.widgets.lettering import fitted, width_of, write
from nakrel.ui.widgets.traces import draw_trace
from nakrel.words import tr

__all__ = ["Beginnings"]

_ROW_PX, _BRIEF_PX = 34, 27
_PICTURE_PX = 108


class _Kind(NamedTuple):
    """One beginning: its key in the code, its name, what it makes, and the builder that makes it; '' for those that
    need none."""

    key: str
    name: str
    says: str
    builder: str = ""


_KINDS = (
    _Kind("record", tr("Record"), tr("do it once, and edit it afterwards")),
    _Kind("rapid fire", tr("Rapid fire"), tr("one key or button, again and again while you hold"), "rapid fire"),
    _Kind("rhythm", tr("Rhythm"), tr("a short tap at a steady pace"), "rhythm"),
    _Kind(
        "hold",
        tr("Hold until pressed again"),
        tr("keys that stay down until the next press"),
        "hold until pressed again",
    ),
    _Kind("combination", tr("Combination"), tr("several keys down together"), "combination"),
    _Kind("row", tr("Keys in a row"), tr("one after the other, with a wait between"), "keys in a row"),
    _Kind("text", tr("Type a text"), tr("typed as fast as you say"), "text"),
    _Kind(
        "places", tr("Click through places"), tr("a click at each place that you pick on the screen"), "click sequence"
    ),
    _Kind("steps", tr("Step by step"), tr("add each step yourself")),
    _Kind("notation", tr("Write it as text"), tr("a step a line")),
)
# What the pictures are made of.
_SAMPLES = {Asks.CONTROLS: "Q, W, E", Asks.TEXT: "Good tide"}


class _Row(QAbstractButton):
    def __init__(self, kind: _Kind, height: int, brief: bool) -> None:
        super().__init__()
        self.kind, self._brief = kind, brief
        self.setToolTip(kind.says)
        self.setCheckable(bool(kind.builder))
        self.setText(kind.name)
        self.setAccessibleName(kind.name)
        self.setAccessibleDescription(kind.says)
        self.setFixedHeight(height)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._lines = _picture(kind)

    def sizeHint(self) -> QSize:
        return QSize(200 if self._brief else 420, self.height())

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, area = QPainter(self), QRectF(self.rect())
        if self.isChecked() or self.underMouse():
            painter.fillRect(area, colour("field"))
        if self.isChecked():
            painter.fillRect(QRectF(0, 0, 3, area.height() - 1), colour("brass"))
        painter.setPen(colour("line"))
        painter.drawLine(area.bottomLeft(), area.bottomRight())
        if self.hasFocus():
            painter.setPen(colour("brass"))
            painter.drawRect(area.adjusted(0, 0, -1, -2))
        self._draw(painter, QRectF(12, 5, _PICTURE_PX, area.height() - 11))
        left = 12.0 + _PICTURE_PX + 18
        painter.setPen(colour("ink"))
        write(painter, left, area.center().y(), self.text(), BODY_PX, bold=True)
        if self._brief:
            return
        left += width_of(self.text(), BODY_PX, bold=True) + 12
        painter.setPen(colour("soft"))
        text = fitted(self.kind.says, int(area.width() - left - 8), SMALL_PX)
        write(painter, left, area.center().y() + 1, text, SMALL_PX)

    def _draw(self, painter: QPainter, place: QRectF) -> None:
        if not self._lines:
            painter.setPen(colour("brass" if self.kind.key == "record" else "soft"))
            if self.kind.key == "record":
                painter.setBrush(colour("brass"))
                painter.drawEllipse(place.center(), 5, 5)
            else:
                for n, width in enumerate((46, 62, 38)):
                    y = int(place.top() + 4 + n * 8)
                    painter.drawLine(int(place.left() + 22), y, int(place.left() + 22 + width), y)
            return
        height = place.height() / len(self._lines)
        for n, (code, spans, end) in enumerate(self._lines):
            area = QRectF(place.left(), place.top() + n * height, place.width(), max(4.0, height - 3))
            draw_trace(painter, area, spans, 0, end, hue(code), 1)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.click()
        else:
            super().keyPressEvent(event)


def _picture(kind: _Kind) -> list[tuple[str, list[tuple[int, int]], int]]:
    """Traces of a sample of what it makes: a control, when it is down, and how long all takes."""
    builder = next((each for each in BUILDERS if each.name == kind.builder), None)
    if builder is None:
        return []
    what = _SAMPLES.get(builder.asks, "")
    if builder.most == 1 and builder.asks is Asks.CONTROLS:
        what = "Q"
    places = [Pointer(x=10, y=10), Pointer(x=400, y=200)]
    try:
        made = build(Macro(id="s", name="s"), builder, what, [f.example for f in builder.figures], places)
    except DataError:
        return []
    line = lay_out(made)
    cycle = line.loop_us + made.play.pause_us
    again = 4 if made.play.mode == "held" else 1
    end = max(1, cycle * again if again > 1 else line.length_us)
    lines = []
    for code, spans in list(line.spans.items())[:3]:
        own = [(s.start_us + n * cycle, s.end_us + n * cycle) for n in range(again) for s in spans]
        lines.append((code, own, end))
    return lines


class Beginnings(QWidget):
    """The rows, and the fields of what is chosen; `record_wanted`, `steps_wanted` and `text_wanted` are those that need
    none. In two columns they are brief."""

    record_wanted = pyqtSignal()
    text_wanted = pyqtSignal()
    steps_wanted = pyqtSignal()

    def __init__(self, builder: BuilderRow, columns: int = 1) -> None:
        super().__init__()
        self.builder = builder
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        height = _ROW_PX if columns == 1 else _BRIEF_PX
        self.rows = {kind.name: _Row(kind, height, columns > 1) for kind in _KINDS}
        grid = QGridLayout()
        grid.setSpacing(0)
        grid.setHorizontalSpacing(18)
        layout.addLayout(grid)
        deep = -(-len(self.rows) // columns)
        for number, row in enumerate(self.rows.values()):
            grid.addWidget(row, number % deep, number // deep)
            row.clicked.connect(lambda on, r=row: self._clicked(r))
        self.setFocusProxy(next(iter(self.rows.values())))
        layout.addSpacing(6)
        layout.addWidget(builder)
        builder.hide()

    def choose(self, name: str) -> None:
        """Choose a beginning."""
        self.rows[name].click()

    def forget(self) -> None:
        """Nothing is chosen."""
        for row in self.rows.values():
            row.setChecked(False)
        self.builder.hide()

    def _clicked(self, row: _Row) -> None:
        for other in self.rows.values():
            other.setChecked(other is row and row.isCheckable())
        self.builder.setVisible(bool(row.kind.builder))
        if row.kind.builder:
            self.builder.choose(row.kind.builder)
        else:
            wanted = {"record": self.record_wanted, "steps": self.steps_wanted}
            wanted.get(row.kind.key, self.text_wanted).emit()
