"""The practice game's window: it tells Nakrel of every attempt."""

from __future__ import annotations

import io
import json
import re
import sys
from pathlib import Path

from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QKeyEvent, QWheelEvent
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from nakrel.practice.rules import Rules, Verdict
from nakrel.practice.window import Game, PracticeWindow


def test_each_verdict_is_told_though_the_command_for_the_one_before_still_ends(qtbot: QtBot, tmp_path: Path):
    told = tmp_path / "told"
    # A command that has told it and takes its time to end.
    script = f"import sys, select; open({str(told)!r}, 'a').write(sys.argv[1] + ' '); select.select([], [], [], 0.2)"
    window = PracticeWindow(Game(60, 0.0, 0.0, False, Rules(), (sys.executable, "-c", script)), None, "Practice")
    qtbot.addWidget(window)
    for worked in (True, False, True):
        window._tell(Verdict(worked, "by its rule"))
    qtbot.waitUntil(lambda: told.exists() and told.read_text() == "worked failed worked ", timeout=15_000)
    window._judge.waitForFinished(15_000)


def test_keys_are_called_by_what_they_type_and_logged_by_their_place(qtbot: QtBot):
    log, rules = io.StringIO(), Rules(hold_s=60)
    window = PracticeWindow(Game(60, 0.0, 0.0, False, rules, ()), log, "Practice")
    qtbot.addWidget(window)
    window.show()

    def strike(kind: QEvent.Type, keycode: int, text: str) -> None:
        key = Qt.Key.Key_A if text else Qt.Key.Key_F13
        event = QKeyEvent(kind, key, Qt.KeyboardModifier.NoModifier, keycode, 0, 0, text)
        QApplication.sendEvent(window, event)

    # X's keycodes are the kernel's codes and 8 (xkeyboard-config, keycodes/evdev): KEY_Q is 16, KEY_F13 183.
    for number, (keycode, text) in enumerate(((24, "a"), (191, "")), 1):
        strike(QEvent.Type.KeyPress, keycode, text)
        qtbot.waitUntil(lambda number=number: log.getvalue().count('"press"') == number, timeout=5_000)
        strike(QEvent.Type.KeyRelease, keycode, text)
    qtbot.waitUntil(lambda: window._verdict is not None, timeout=5_000)
    assert window._verdict
    assert re.fullmatch(r"A was held for [\d.]+ ms; F13 was held for [\d.]+ ms", window._verdict.reason)
    arrived = [json.loads(line).get("control") for line in log.getvalue().splitlines() if '"arrived"' in line]
    assert arrived == ["Q", "Q", "F13", "F13"]


def test_a_notch_is_shown_and_is_no_press(qtbot: QtBot):
    log = io.StringIO()
    window = PracticeWindow(Game(60, 0.0, 0.0, False, Rules(), ()), log, "Practice")
    qtbot.addWidget(window)
    window.show()
    qtbot.waitExposed(window)
    none = Qt.KeyboardModifier.NoModifier
    where, still, down = QPointF(100, 100), QPoint(), QPoint(0, -120)
    event = QWheelEvent(where, where, still, down, Qt.MouseButton.NoButton, none, Qt.ScrollPhase.NoScrollPhase, False)
    QApplication.sendEvent(window, event)
    assert [name for _, name in window._ripples] == ["Wheel down"]
    qtbot.waitUntil(lambda: not window._ripples, timeout=5_000)
    assert sum(window.sampler.arrived.values()) == 0
    assert '"wheel"' in log.getvalue()
