"""The tools beside the timing diagram: what the calipers read, frames, snapping, zoom."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QWidget

from nakrel.core.model.errors import DataError
from nakrel.core.model.units import parse_time, shown_ms
from nakrel.ui.widgets.basics import button, choice, restyle
from nakrel.ui.widgets.elided import Elided
from nakrel.words import sentence, tr

__all__ = ["DiagramBar"]

_SNAPS = (
    (tr("snap 1 ms"), 1_000.0),
    (tr("snap 0.1 ms"), 100.0),
    (tr("snap 5 ms"), 5_000.0),
    (tr("snap frames"), -1.0),
    (tr("free"), 0.0),
)
_HINT = tr("Drag an edge or a hold, or click two edges to measure. F1 lists the keys.")


class DiagramBar(QWidget):
    """`distance` gives a typed distance in microseconds, `snap_chosen` the grid in microseconds."""

    distance = pyqtSignal(int)
    snap_chosen = pyqtSignal(float)
    zoomed = pyqtSignal(float)
    fitted = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self._fps = 60
        self.message = Elided("soft")
        self.message.set_text(_HINT)
        self.field = QLineEdit()
        self.field.setAccessibleName(tr("Distance between the calipers"))
        self.field.setToolTip(tr("Type a distance: 35, 0.2s, 2f@60 or 20/s. What comes after it goes along."))
        self.field.setFixedWidth(82)
        self.snap = choice(tr("Snap to"))
        self.snap.setMinimumContentsLength(8)
        for text, grid in _SNAPS:
            self.snap.addItem(text, grid)
        out = button("−", lambda: self.zoomed.emit(1.5), "link", tr("Show more time (-)"))
        into = button("+", lambda: self.zoomed.emit(1 / 1.5), "link", tr("Show less time (+)"))
        fit = button(tr("Fit"), self.fitted.emit, "link", tr("Show all of it (0)"))
        for each, name in ((out, tr("Zoom out")), (into, tr("Zoom in"))):
            each.setAccessibleName(name)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(6)
        row.addWidget(self.message, 1)
        for part in (self.field, self.snap, out, into, fit):
            row.addWidget(part)
        self.field.hide()
        self.field.returnPressed.connect(self._typed)
        self.snap.activated.connect(lambda index: self.snap_chosen.emit(self.grid_us))

    @property
    def grid_us(self) -> float:
        """The grid that edges snap to, in microseconds; 0 for none."""
        grid = float(self.snap.currentData())
        return 1_000_000 / self._fps if grid < 0 else grid

    def set_rate(self, fps: int) -> None:
        """Snap to frames at this rate, where frames are snapped to."""
        self._fps = fps

    def measure(self, gap_us: int | None) -> None:
        """Show the calipers' distance; None while there aren't two."""
        self.field.setVisible(gap_us is not None)
        if gap_us is not None and not self.field.hasFocus():
            self.field.setText(tr("{time} ms").format(time=shown_ms(gap_us)))

    def say(self, message: str, *, wrong: bool = False) -> None:
        """Say what is picked, or why something can't be; '' for the hint."""
        self.message.set_text(sentence(message) if wrong else message or _HINT)
        restyle(self.message, "alarm" if wrong else "soft")

    def _typed(self) -> None:
        try:
            self.distance.emit(parse_time(self.field.text()))
        except DataError as error:
            self.say(str(error), wrong=True)
