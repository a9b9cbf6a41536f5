"""The practice game's window: it tells Nakrel of every attempt."""

from __future__ import annotations

import sys
from pathlib import Path

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
