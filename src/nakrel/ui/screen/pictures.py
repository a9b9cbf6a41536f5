"""What is on the screens, to be picked on: by Qt, on Wayland by grim or by the desktop's portal."""

from __future__ import annotations

import contextlib
import os
import shutil
import subprocess

from PyQt6 import sip
from PyQt6.QtCore import QEventLoop, QObject, QRect, QTimer, QUrl, pyqtSlot
from PyQt6.QtDBus import QDBusConnection, QDBusMessage
from PyQt6.QtGui import QGuiApplication, QPixmap, QScreen

__all__ = ["is_wayland", "pictures"]

# How long grim may take, and how long people may think about whether the portal may take a picture.
_GRIM_S, _PORTAL_MS = 2.0, 60_000
_NAME, _PATH = "org.freedesktop.portal.Desktop", "/org/freedesktop/portal/desktop"
_SCREENSHOT, _REQUEST = "org.freedesktop.portal.Screenshot", "org.freedesktop.portal.Request"
_TAKEN = 0


def is_wayland() -> bool:
    """Whether the windows are a Wayland compositor's, which tells them neither where they are nor what is beneath."""
    return QGuiApplication.platformName().startswith("wayland")


def pictures() -> dict[QScreen, QPixmap]:
    """What each screen shows now; a null picture where nobody gives one."""
    screens = QGuiApplication.screens()
    found = {screen: screen.grabWindow(sip.voidptr(0)) for screen in screens}
    if is_wayland() and any(picture.isNull() for picture in found.values()):
        found = {screen: _by_grim(screen) for screen in screens}
        if any(picture.isNull() for picture in found.values()):
            found = _by_portal(screens)
    return found


def _by_grim(screen: QScreen) -> QPixmap:
    """sway and its relatives let it take one."""
    picture = QPixmap()
    if grim := shutil.which("grim"):
        with contextlib.suppress(OSError, subprocess.SubprocessError):
            command = [grim, "-o", screen.name(), "-"]
            taken = subprocess.run(command, stdin=subprocess.DEVNULL, capture_output=True, timeout=_GRIM_S)
            picture.loadFromData(taken.stdout)
    return picture


def _by_portal(screens: list[QScreen]) -> dict[QScreen, QPixmap]:
    """The desktop takes one of all screens, and may ask first."""
    whole = QPixmap(path) if (path := _Portal().take()) else QPixmap()
    with contextlib.suppress(OSError):
        # It is a file among the user's own pictures.
        if path:
            os.unlink(path)
    area = QRect()
    for screen in screens:
        area = area.united(screen.geometry())
    scale = whole.width() / max(1, area.width())

    def part(place: QRect) -> QPixmap:
        corner = (place.topLeft() - area.topLeft()) * scale
        return whole.copy(QRect(corner, place.size() * scale)) if not whole.isNull() else QPixmap()

    return {screen: part(screen.geometry()) for screen in screens}


class _Portal(QObject):
    """One request to the portal (XDG Desktop Portal documentation, Screenshot and Request)."""

    def __init__(self) -> None:
        super().__init__()
        self._loop = QEventLoop()
        self._path = ""

    def take(self) -> str:
        """The picture's file, '' for none."""
        bus = QDBusConnection.sessionBus()
        if not bus.isConnected():
            return ""
        token = f"nakrel{os.getpid()}"
        sender = bus.baseService().removeprefix(":").replace(".", "_")
        answers = f"{_PATH}/request/{sender}/{token}"
        bus.connect(_NAME, answers, _REQUEST, "Response", self.answered)
        try:
            asks = QDBusMessage.createMethodCall(_NAME, _PATH, _SCREENSHOT, "Screenshot")
            asks.setArguments(["", {"handle_token": token, "interactive": False}])
            if bus.call(asks).type() is not QDBusMessage.MessageType.ReplyMessage:
                return ""
            QTimer.singleShot(_PORTAL_MS, self._loop.quit)
            self._loop.exec()
        finally:
            bus.disconnect(_NAME, answers, _REQUEST, "Response", self.answered)
        return self._path

    @pyqtSlot(QDBusMessage)
    def answered(self, message: QDBusMessage) -> None:
        """It was taken, or refused."""
        code, found = message.arguments()
        if code == _TAKEN:
            self._path = QUrl(str(found.get("uri", ""))).toLocalFile()
        self._loop.quit()
