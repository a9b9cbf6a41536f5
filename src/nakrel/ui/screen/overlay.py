"""A window over a whole monitor, in the pixels that programs count in."""

from __future__ import annotations

from collections.abc import Iterable

from PyQt6.QtCore import QPoint, QPointF, QRect, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QGuiApplication, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPixmap, QScreen
from PyQt6.QtWidgets import QWidget

from nakrel.core.model.places import Monitor
from nakrel.ui.screen.pictures import is_wayland
from nakrel.words import tr

__all__ = ["SETTLE_MS", "Overlay", "give_back", "area_of", "monitors_of"]

_DIM = 0.42
# The windows that were in the way need a moment to be gone from the picture.
SETTLE_MS = 180


def monitors_of(monitors: tuple[Monitor, ...]) -> dict[QScreen, QRect]:
    """Each screen, and its place among all of them in pixels: as the X server tells it by the output's name, else as Qt
    does, which keeps the corner in pixels and divides the size by its scale factor."""
    by_name = {monitor.name: monitor for monitor in monitors}
    found = {}
    for screen in QGuiApplication.screens():
        monitor = by_name.get(screen.name())
        if monitor is not None:
            found[screen] = QRect(monitor.x, monitor.y, monitor.width, monitor.height)
        else:
            size = screen.geometry().size() * screen.devicePixelRatio()
            found[screen] = QRect(screen.geometry().topLeft(), size)
    return found


def area_of(monitors: dict[QScreen, QRect]) -> QRect:
    """The smallest rectangle around all monitors, in pixels."""
    whole = QRect()
    for place in monitors.values():
        whole = whole.united(place)
    return whole


class Overlay(QWidget):
    """Shows what was on the monitor before, dimmed. Places are told in pixels of all monitors together.

    The window manager is not asked where it may be: on X11 it stands above everything, also above a game's window. On
    Wayland, where no window knows its place, it fills its monitor; what is beneath isn't to be seen then, so without a
    `picture` it lies somewhere on it and is seen through.
    """

    moved = pyqtSignal(QPoint)
    clicked = pyqtSignal(QPoint)
    left = pyqtSignal()
    key = pyqtSignal(QKeyEvent)

    def __init__(self, screen: QScreen, place: QRect, picture: QPixmap) -> None:
        super().__init__()
        self.place = place
        self.picture = picture
        flags = Qt.WindowType.FramelessWindowHint | Qt.WindowType.WindowStaysOnTopHint | Qt.WindowType.Tool
        fills = is_wayland() and not picture.isNull()
        if QGuiApplication.platformName() == "xcb":
            flags |= Qt.WindowType.X11BypassWindowManagerHint
        self.setWindowFlags(Qt.WindowType.Window | Qt.WindowType.FramelessWindowHint if fills else flags)
        if self.picture.isNull():
            self.setAttribute(Qt.WidgetAttribute.WA_TranslucentBackground)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.setScreen(screen)
        self.setGeometry(screen.geometry())
        if fills:
            self.setWindowState(Qt.WindowState.WindowFullScreen)
        self.setMouseTracking(True)
        self.setAccessibleName(tr("The screen, to pick a place on"))

    def local(self, spot: QPoint) -> QPointF:
        """A pixel of the screens as a point of this window."""
        scale = self.place.width() / max(1, self.width())
        return QPointF((spot.x() - self.place.x()) / scale, (spot.y() - self.place.y()) / scale)

    def pixel(self, spot: QPointF) -> QPoint:
        """A point of this window as a pixel of the screens."""
        scale = self.place.width() / max(1, self.width())
        x, y = int(spot.x() * scale), int(spot.y() * scale)
        return QPoint(
            self.place.x() + max(0, min(self.place.width() - 1, x)),
            self.place.y() + max(0, min(self.place.height() - 1, y)),
        )

    def draw_over(self, painter: QPainter) -> None:
        """What else is drawn; nothing here."""

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw what was there, dimmed, and what is drawn over it."""
        painter = QPainter(self)
        if not self.picture.isNull():
            painter.drawPixmap(self.rect(), self.picture)
        dim = QColor("#0B1014")
        dim.setAlphaF(_DIM)
        painter.fillRect(self.rect(), dim)
        self.draw_over(painter)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Say which pixel the pointer is on."""
        if event:
            self.moved.emit(self.pixel(event.position()))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """The left button takes the place, any other one leaves."""
        if event and event.button() == Qt.MouseButton.LeftButton:
            self.clicked.emit(self.pixel(event.position()))
        else:
            self.left.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Hand the keys on."""
        if event:
            self.key.emit(event)


def give_back(views: Iterable[Overlay], hidden: QWidget | None) -> None:
    """Take the overlays away, and show the window that was hidden for them.

    The window first: the application ends with the last one that is closed.
    """
    if hidden is not None:
        hidden.show()
    for view in views:
        view.releaseKeyboard()
        view.close()
    if hidden is not None:
        hidden.activateWindow()
