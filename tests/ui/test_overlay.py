"""The window over a whole monitor on which places are picked, where Wayland keeps its place from it."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, QPointF, QRect, QSize, Qt
from PyQt6.QtGui import QColor, QGuiApplication, QPainter, QPixmap
from PyQt6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from nakrel.ui.screen.overlay import Overlay, monitors_of
from nakrel.ui.screen.pictures import pictures
from nakrel.ui.window.room import Room
from tests.support import LIMIT_S, start_bus

LEFT, RIGHT = QColor("#204060"), QColor("#c08040")


@pytest.fixture
def wayland(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> Path:
    """A platform whose screens give no picture; the folder is where programs are, and nobody is on the bus."""
    monkeypatch.setattr(QGuiApplication, "platformName", lambda: "wayland")
    monkeypatch.setattr("PyQt6.QtGui.QScreen.grabWindow", lambda screen, window: QPixmap())
    monkeypatch.setenv("PATH", f"{tmp_path}:/usr/bin:/bin")
    put(tmp_path, "exit 1")
    return tmp_path


def put(folder: Path, does: str) -> None:
    """A grim that does this."""
    (folder / "grim").write_text(f"#!/bin/sh\n{does}\n")
    (folder / "grim").chmod(0o755)


def shot(folder: Path, width: int, height: int) -> Path:
    """A picture whose right half has another colour."""
    picture = QPixmap(width, height)
    picture.fill(LEFT)
    painter = QPainter(picture)
    painter.fillRect(QRect(width // 2, 0, width, height), RIGHT)
    painter.end()
    assert picture.save(str(folder / "shot.png"))
    return folder / "shot.png"


def _overlay(qtbot: QtBot) -> Overlay:
    ((screen, place),) = monitors_of(()).items()
    made = Overlay(screen, place, pictures()[screen])
    qtbot.addWidget(made)
    made.show()
    return made


def test_without_a_picture_what_is_beneath_is_seen_through(qtbot: QtBot, wayland: Path):
    """A window that fills the screen has nothing beneath it that is to be seen (xdg-shell, set_fullscreen)."""
    overlay = _overlay(qtbot)
    assert not overlay.windowState() & Qt.WindowState.WindowFullScreen
    assert overlay.testAttribute(Qt.WidgetAttribute.WA_TranslucentBackground)


def test_with_a_picture_by_grim_it_fills_its_monitor(qtbot: QtBot, wayland: Path):
    picture, name = shot(wayland, 40, 30), QGuiApplication.screens()[0].name()
    # Like the real one: the picture of the output that is named, on its own output.
    put(wayland, f'[ "$*" = "-o {name} -" ] && cat "{picture}"')
    overlay = _overlay(qtbot)
    assert (overlay.picture.width(), overlay.picture.height()) == (40, 30)
    assert overlay.picture.toImage().pixelColor(30, 3) == RIGHT
    assert overlay.windowState() & Qt.WindowState.WindowFullScreen
    assert overlay.windowType() == Qt.WindowType.Window
    assert not overlay.testAttribute(Qt.WidgetAttribute.WA_TranslucentBackground)
    # Its points are the screen's.
    assert overlay.pixel(QPointF(500, 400)) == overlay.place.topLeft() + QPoint(500, 400)


_PORTAL = """
import sys
from jeepney import DBusAddress, HeaderFields, MessageType, new_method_return, new_signal
from jeepney.bus_messages import message_bus
from jeepney.io.blocking import open_dbus_connection
bus = open_dbus_connection("SESSION")
bus.send_and_get_reply(message_bus.RequestName("org.freedesktop.portal.Desktop"))
print("ready", flush=True)
while True:
    asked = bus.receive()
    if asked.header.fields.get(HeaderFields.member) != "Screenshot":
        continue
    assert asked.header.fields[HeaderFields.signature] == "sa{sv}"
    parent, options = asked.body
    assert parent == "" and options["interactive"] == ("b", False)
    sender = asked.header.fields[HeaderFields.sender].lstrip(":").replace(".", "_")
    path = f"/org/freedesktop/portal/desktop/request/{sender}/{options['handle_token'][1]}"
    bus.send(new_method_return(asked, "o", (path,)))
    answer = (0, {"uri": ("s", "file://" + sys.argv[1])}) if len(sys.argv) > 1 else (1, {})
    where = DBusAddress(path, interface="org.freedesktop.portal.Request")
    bus.send(new_signal(where, "Response", "ua{sv}", answer))
"""

_ASKS = """
import sys
from PyQt6.QtGui import QGuiApplication, QPixmap, QScreen
app = QGuiApplication([])
QGuiApplication.platformName = lambda: "wayland"
QScreen.grabWindow = lambda screen, window: QPixmap()
from nakrel.ui.screen.pictures import pictures
(picture,) = pictures().values()
image = picture.toImage()
print(picture.width(), picture.height(), image.pixelColor(0, 0).name() if picture.width() else "")
"""


@pytest.mark.parametrize("allowed", [True, False])
def test_the_portal_is_asked_where_nobody_else_gives_a_picture(wayland: Path, allowed: bool):
    """Its documentation, org.freedesktop.portal.Screenshot and Request; Qt has one session bus for each process, so
    this is another one."""
    if not shutil.which("dbus-daemon"):
        pytest.skip("needs dbus-daemon")
    address = f"unix:path={wayland / 'bus'}"
    environment = {**os.environ, "DBUS_SESSION_BUS_ADDRESS": address}
    picture, bus = shot(wayland, 40, 30), start_bus(address)
    portal = subprocess.Popen(
        [sys.executable, "-c", _PORTAL, *([str(picture)] if allowed else [])],
        env=environment, stdout=subprocess.PIPE,
    )  # fmt: skip
    try:
        assert portal.stdout
        assert portal.stdout.readline() == b"ready\n"
        command = [sys.executable, "-c", _ASKS]
        told = subprocess.run(command, env=environment, capture_output=True, text=True, timeout=LIMIT_S, check=True)
        assert told.stdout.split() == (["40", "30", LEFT.name()] if allowed else ["0", "0"])
        # It isn't left among the user's pictures.
        assert picture.exists() is not allowed
    finally:
        for each in (portal, bus):
            each.terminate()
            each.wait(LIMIT_S)
        if portal.stdout:
            portal.stdout.close()


def test_a_window_that_is_made_too_small_is_scrolled_and_otherwise_is_as_large_as_it_is(qtbot: QtBot):
    whole = QLabel("word " * 400)
    whole.setWordWrap(True)
    room = Room(whole, QSize(900, 500))
    qtbot.addWidget(room)
    room.resize(640, 400)
    room.show()
    assert whole.geometry() == QRect(0, 0, 900, 500)
    assert room.horizontalScrollBar().maximum() > 0
    # However high its texts would like to be, there is nothing to scroll where it has its least size.
    room.resize(901, 501)
    assert whole.geometry() == QRect(0, 0, 901, 501)
    assert room.horizontalScrollBar().maximum() == room.verticalScrollBar().maximum() == 0
