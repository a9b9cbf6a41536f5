"""The window over a whole monitor on which places are picked, where Wayland keeps its place from it."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import QPointF, QRect, QSize, Qt
from PyQt6.QtGui import QColor, QGuiApplication, QPixmap
from PyQt6.QtWidgets import QLabel
from pytestqt.qtbot import QtBot

from nakrel.ui.screen.overlay import Overlay, monitors_of
from nakrel.ui.window.room import Room


@pytest.fixture
def wayland(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> Path:
    """A platform whose screens give no picture; the folder is where programs are."""
    monkeypatch.setattr(QGuiApplication, "platformName", lambda: "wayland")
    monkeypatch.setattr("PyQt6.QtGui.QScreen.grabWindow", lambda screen, window: QPixmap())
    monkeypatch.setenv("PATH", f"{tmp_path}:/usr/bin:/bin")
    (tmp_path / "grim").write_text("#!/bin/sh\nexit 1\n")
    (tmp_path / "grim").chmod(0o755)
    return tmp_path


def _overlay(qtbot: QtBot) -> Overlay:
    ((screen, place),) = monitors_of(()).items()
    made = Overlay(screen, place)
    qtbot.addWidget(made)
    return made


def test_on_wayland_it_fills_its_monitor_so_that_its_points_are_the_screens(qtbot: QtBot, wayland: Path):
    overlay = _overlay(qtbot)
    overlay.show()
    # xdg-shell lets a window say that it fills an output, and nothing else of its place.
    assert overlay.windowState() & Qt.WindowState.WindowFullScreen
    assert overlay.windowType() == Qt.WindowType.Window
    # Nobody gives a picture, so what is beneath is to be seen.
    assert overlay.picture.isNull()
    assert overlay.testAttribute(Qt.WidgetAttribute.WA_TranslucentBackground)
    assert overlay.pixel(QPointF(500, 400)) == overlay.place.topLeft() + QPointF(500, 400).toPoint()


def test_where_grim_takes_a_picture_of_the_output_that_is_shown(qtbot: QtBot, wayland: Path):
    shot = QPixmap(40, 30)
    shot.fill(QColor("#204060"))
    assert shot.save(str(wayland / "shot.png"))
    name = QGuiApplication.screens()[0].name()
    # Like the real one: the picture of the output that is named, on its own output.
    (wayland / "grim").write_text(f'#!/bin/sh\n[ "$*" = "-o {name} -" ] && cat "{wayland}/shot.png"\n')
    overlay = _overlay(qtbot)
    assert (overlay.picture.width(), overlay.picture.height()) == (40, 30)
    assert overlay.picture.toImage().pixelColor(3, 3) == QColor("#204060")
    assert not overlay.testAttribute(Qt.WidgetAttribute.WA_TranslucentBackground)


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
