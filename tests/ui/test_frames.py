"""How often what moves is drawn."""

from __future__ import annotations

from PyQt6.QtWidgets import QWidget
from pytestqt.qtbot import QtBot

from nakrel.ui.widgets.frames import Frames


def test_behind_another_window_fewer_frames_are_drawn(qtbot: QtBot):
    ours, game = QWidget(), QWidget()
    for window in (ours, game):
        qtbot.addWidget(window)
        window.show()
    frames = Frames(ours, 10)
    ours.activateWindow()
    qtbot.waitUntil(ours.isActiveWindow)
    with qtbot.waitSignal(frames.timeout):
        frames.start()
    assert frames.in_front
    assert frames.interval() == 10
    game.activateWindow()
    qtbot.waitUntil(lambda: frames.interval() == 100)
    ours.activateWindow()
    qtbot.waitUntil(lambda: frames.interval() == 10)
