"""Showing where pointer steps go, on the screen itself."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QObject, QPoint, QPointF, QRect, QRectF, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QPainter, QPen, QPixmap, QScreen
from PyQt6.QtWidgets import QWidget

from nakrel import protocol as m
from nakrel.core.model.errors import DataError
from nakrel.core.model.formulas import Estimate, FormulaError, pixels
from nakrel.core.model.places import place_of
from nakrel.core.model.steps import Origin, Pointer
from nakrel.ui.screen.overlay import SETTLE_MS, Overlay, area_of, give_back, monitors_of
from nakrel.ui.screen.pictures import pictures
from nakrel.ui.theme import font
from nakrel.words import tr

__all__ = ["Pointing", "spots_of"]

_SHOWN_MS = 5_000


def spots_of(steps: Sequence[Pointer], places: m.Places, size: tuple[int, int]) -> list[QPoint]:
    """The pixels that the steps go to one after the other, from where the pointer is; formulas as in a first run.

    Raises `DataError` for a place in a window that isn't there, and for a formula without a result.
    """
    at = QPoint(*(places.pointer or (size[0] // 2, size[1] // 2)))
    scope, spots = Estimate(), []
    for step in steps:
        try:
            x, y = pixels(step.x, scope), pixels(step.y, scope)
        except FormulaError as error:
            raise DataError(tr("the place can't be worked out: {error}").format(error=error)) from None
        if step.origin is Origin.POINTER:
            at = at + QPoint(x, y)
        else:
            at = QPoint(*place_of(x, y, step.origin, step.size, places.size or size, places.window))
        spots.append(at)
    return spots


class _View(Overlay):
    def __init__(self, screen: QScreen, place: QRect, picture: QPixmap, spots: list[QPoint]) -> None:
        super().__init__(screen, place, picture)
        self._spots = spots

    def draw_over(self, painter: QPainter) -> None:
        """The way from place to place, a ring at each, its number and coordinates."""
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        brass = QColor("#D9A24A")
        for before, after in zip(self._spots, self._spots[1:], strict=False):
            painter.setPen(QPen(brass, 1, Qt.PenStyle.DashLine))
            painter.drawLine(self.local(before), self.local(after))
        painter.setFont(font(14, bold=True))
        for number, spot in enumerate(self._spots, 1):
            at = self.local(spot)
            painter.setPen(QPen(brass, 3))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawEllipse(at, 16, 16)
            painter.drawLine(at - QPointF(5, 0), at + QPointF(5, 0))
            painter.drawLine(at - QPointF(0, 5), at + QPointF(0, 5))
            text = f"{number}:  {spot.x()}, {spot.y()}"
            width = painter.fontMetrics().horizontalAdvance(text)
            right = at.x() + 30 + width < self.width()
            place = QRectF(at.x() + 22 if right else at.x() - 34 - width, at.y() - 12, width + 12, 24)
            painter.fillRect(place, QColor("#171D22"))
            painter.drawText(place, Qt.AlignmentFlag.AlignCenter, text)


class Pointing(QObject):
    """Draws where pointer steps will go; any key or click, or a few seconds, end it."""

    ended = pyqtSignal()

    def __init__(self, hidden: QWidget | None = None) -> None:
        super().__init__()
        self._hidden = hidden
        self.views: list[_View] = []
        self.spots: list[QPoint] = []
        self._limit = QTimer(self)
        self._limit.setSingleShot(True)
        self._limit.timeout.connect(self.end)

    def start(self, steps: Sequence[Pointer], places: m.Places) -> None:
        """Show it. Raises `DataError` where a place can't be told."""
        area = area_of(monitors_of(places.monitors))
        self.spots = spots_of(steps, places, (area.width(), area.height()))
        if self._hidden is not None:
            self._hidden.hide()
            QTimer.singleShot(SETTLE_MS, lambda: self._show(places))
        else:
            self._show(places)

    def _show(self, places: m.Places) -> None:
        monitors = monitors_of(places.monitors)
        taken = pictures()
        for screen, place in monitors.items():
            view = _View(screen, place, taken.get(screen, QPixmap()), self.spots)
            view.clicked.connect(lambda spot: self.end())
            view.left.connect(self.end)
            view.key.connect(self._key)
            self.views.append(view)
            view.show()
            view.raise_()
        self.views[0].activateWindow()
        self.views[0].grabKeyboard()
        self._limit.start(_SHOWN_MS)

    def _key(self, event: QKeyEvent) -> None:
        self.end()

    def end(self) -> None:
        """Give the screens back."""
        self._limit.stop()
        views, self.views = self.views, []
        if not views:
            return
        give_back(views, self._hidden)
        self.ended.emit()
