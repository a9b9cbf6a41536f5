"""Picking places on the screen: a crosshair, a magnifier, coordinates, and the keys for single pixels."""

from __future__ import annotations

from PyQt6.QtCore import QObject, QPoint, QPointF, QRect, QRectF, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QColor, QCursor, QKeyEvent, QPainter, QPen, QPixmap, QScreen
from PyQt6.QtWidgets import QWidget

from nakrel import protocol as m
from nakrel.core.model.places import Window
from nakrel.core.model.steps import Origin, Pointer
from nakrel.ui.screen.overlay import SETTLE_MS, Overlay, area_of, give_back, monitors_of
from nakrel.ui.screen.pictures import pictures
from nakrel.ui.theme import SMALL_PX, font, palette
from nakrel.window_events import letter_of
from nakrel.words import tr

__all__ = ["Picker"]

# The magnifier: so many pixels across, each drawn so large.
_AROUND, _LARGE = 17, 8
# Nobody is left before a dimmed screen for ever.
_LIMIT_MS = 180_000
_STEPS = {
    Qt.Key.Key_Left: (-1, 0),
    Qt.Key.Key_Right: (1, 0),
    Qt.Key.Key_Up: (0, -1),
    Qt.Key.Key_Down: (0, 1),
}


class _View(Overlay):
    """One monitor while places are picked on it."""

    def __init__(self, screen: QScreen, place: QRect, picture: QPixmap, picker: Picker) -> None:
        super().__init__(screen, place, picture)
        self._picker = picker
        self.setCursor(Qt.CursorShape.BlankCursor)

    def draw_over(self, painter: QPainter) -> None:
        """The crosshair, the magnifier, the words, and what has been taken."""
        picker, p = self._picker, palette()
        brass = QColor("#D9A24A")
        painter.setFont(font(SMALL_PX))
        if (window := picker.window) is not None and picker.by_window:
            corner = self.local(QPoint(window.x, window.y))
            far = self.local(QPoint(window.x + window.width, window.y + window.height))
            painter.setPen(QPen(brass, 1, Qt.PenStyle.DashLine))
            painter.drawRect(QRectF(corner, far))
        for number, taken in enumerate(picker.taken_at, 1):
            _mark(painter, self.local(taken), str(number))
        if not self.place.contains(picker.spot):
            return
        at = self.local(picker.spot)
        painter.setPen(QPen(brass, 1))
        painter.drawLine(QPointF(at.x(), 0), QPointF(at.x(), self.height()))
        painter.drawLine(QPointF(0, at.y()), QPointF(self.width(), at.y()))
        side = _AROUND * _LARGE
        lines = picker.lines()
        width = max(side, *(painter.fontMetrics().horizontalAdvance(line) for line in lines)) + 20
        height = side + 16 + 17 * len(lines)
        left = at.x() + 24 if at.x() + 24 + width < self.width() else at.x() - 24 - width
        top = at.y() + 24 if at.y() + 24 + height < self.height() else at.y() - 24 - height
        card = QRectF(left, top, width, height)
        painter.setPen(QColor(p.line))
        painter.setBrush(QColor(p.paper))
        painter.drawRect(card)
        lens = QRectF(card.left() + 10, card.top() + 10, side, side)
        self._magnify(painter, lens)
        for n, line in enumerate(lines):
            painter.setPen(QColor(p.ink if n == 0 else p.soft))
            painter.setFont(font(bold=n == 0) if n == 0 else font(SMALL_PX))
            painter.drawText(QPointF(card.left() + 10, lens.bottom() + 18 + 17 * n), line)

    def _magnify(self, painter: QPainter, lens: QRectF) -> None:
        half = _AROUND // 2
        spot = self._picker.spot - self.place.topLeft()
        painter.save()
        painter.setClipRect(lens)
        painter.fillRect(lens, QColor(palette().shade))
        if not self.picture.isNull():
            ratio = self.picture.width() / max(1, self.place.width())
            source = QRectF((spot.x() - half) * ratio, (spot.y() - half) * ratio, _AROUND * ratio, _AROUND * ratio)
            painter.drawPixmap(lens, self.picture, source)
        painter.setPen(QPen(QColor("#D9A24A"), 1))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        middle = QRectF(lens.left() + half * _LARGE, lens.top() + half * _LARGE, _LARGE, _LARGE)
        painter.drawRect(middle)
        painter.restore()


def _mark(painter: QPainter, at: QPointF, lines: str) -> None:
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(QPen(QColor("#D9A24A"), 2))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawEllipse(at, 7, 7)
    painter.drawText(at + QPointF(11, -8), lines)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)


class Picker(QObject):
    """Picks one place after the other, on all monitors; `taken` gives a pointer step for each, `ended` says that it is
    over, and whether any was taken.

    A place inside the window of the linked program is counted from that window's corner, unless W says otherwise.
    """

    taken = pyqtSignal(object)
    ended = pyqtSignal(bool)

    def __init__(self, hidden: QWidget | None = None, *, single: bool = False) -> None:
        super().__init__()
        self._hidden, self._single = hidden, single
        self.views: list[_View] = []
        self.spot = QPoint(0, 0)
        self.size = (1, 1)
        self.window: Window | None = None
        self.by_window = False
        self._from_screen = False
        self.taken_at: list[QPoint] = []
        self._area = QRect()
        self._limit = QTimer(self)
        self._limit.setSingleShot(True)
        self._limit.timeout.connect(self.end)

    def start(self, places: m.Places) -> None:
        """Dim the screens and pick, given what the service knows of them."""
        self._places = places
        if self._hidden is not None:
            self._hidden.hide()
            QTimer.singleShot(SETTLE_MS, self._show)
        else:
            self._show()

    def _show(self) -> None:
        monitors = monitors_of(self._places.monitors)
        self._area = area_of(monitors)
        self.size = self._places.size or (self._area.width(), self._area.height())
        self.window = self._places.window
        spot = self._places.pointer
        self.spot = QPoint(*spot) if spot else QCursor.pos()
        taken = pictures()
        for screen, place in monitors.items():
            view = _View(screen, place, taken.get(screen, QPixmap()), self)
            view.moved.connect(self._move_to)
            view.clicked.connect(self._click)
            view.left.connect(self.end)
            view.key.connect(self.press)
            self.views.append(view)
        for view in self.views:
            view.show()
            view.raise_()
        first = next((view for view in self.views if view.place.contains(self.spot)), self.views[0])
        first.activateWindow()
        first.setFocus()
        first.grabKeyboard()
        self._limit.start(_LIMIT_MS)
        self._move_to(self.spot)

    def lines(self) -> list[str]:
        """What stands beside the crosshair."""
        step = self.step()
        if step.origin is Origin.WINDOW and self.window:
            title = f"“{self.window.title[:30]}”" if self.window.title else tr("of the linked program")
            where, switch = tr("in the window {title}").format(title=title), tr("W: count from the screen")
        else:
            where = tr("on the screen of {width} x {height}").format(width=self.size[0], height=self.size[1])
            switch = tr("W: count from the game's window") if self.window else ""
        count = len(self.taken_at)
        took = tr("Esc: done, {count} taken").format(count=count) if count else tr("Esc: leave")
        keys = tr("click or Enter: take   arrows: by a pixel")
        return [f"{step.x}, {step.y}", where, keys, f"{took}   {switch}".rstrip()]

    def step(self) -> Pointer:
        """The pointer step for the place under the crosshair."""
        x, y = self.spot.x(), self.spot.y()
        if self.by_window and self.window is not None:
            window = self.window
            size = (window.width, window.height)
            return Pointer(x=x - window.x, y=y - window.y, origin=Origin.WINDOW, size=size)
        return Pointer(x=x, y=y, size=self.size)

    def _move_to(self, spot: QPoint) -> None:
        self.spot = QPoint(
            max(self._area.left(), min(self._area.right(), spot.x())),
            max(self._area.top(), min(self._area.bottom(), spot.y())),
        )
        window = self.window
        inside = window is not None and QRect(window.x, window.y, window.width, window.height).contains(self.spot)
        self.by_window = inside and not self._from_screen
        for view in self.views:
            view.update()

    def _click(self, spot: QPoint) -> None:
        self._move_to(spot)
        self.accept()

    def accept(self) -> None:
        """Take the place under the crosshair, and go on to the next one."""
        step = self.step()
        self.taken_at.append(QPoint(self.spot))
        self.taken.emit(step)
        if self._single:
            self.end()
        else:
            self._move_to(self.spot)

    def press(self, event: QKeyEvent) -> None:
        """Handle a key."""
        key = Qt.Key(event.key())
        if key in _STEPS:
            pixels = 10 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
            across, down = _STEPS[key]
            self._move_to(self.spot + QPoint(across * pixels, down * pixels))
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.accept()
        elif letter_of(event) == "W":
            self._from_screen = not self._from_screen
            self._move_to(self.spot)
        elif key == Qt.Key.Key_Escape:
            self.end()

    def end(self) -> None:
        """Give the screens back."""
        self._limit.stop()
        if not self.views:
            return
        views, self.views = self.views, []
        give_back(views, self._hidden)
        self.ended.emit(bool(self.taken_at))
