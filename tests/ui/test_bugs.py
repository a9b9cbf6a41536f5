"""A fault of ours doesn't end the window."""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path

SCRIPT = """
import sys
from pathlib import Path
from PyQt6.QtCore import QThreadPool, QTimer
from PyQt6.QtWidgets import QApplication
from nakrel.ui.app import tell_of_bugs
from nakrel.ui.store import Store

app = QApplication([])
store, told = Store(lambda: None), []
store.alarm.connect(told.append)
tell_of_bugs(store, Path(sys.argv[1]))
QTimer.singleShot(0, lambda: 1 // 0)
begun = []
def look():
    # One after the other: PyQt drops one that comes while another is being told.
    if len(told) == 1 and not begun:
        begun.append(True)
        QThreadPool.globalInstance().start(lambda: [][1])
    if len(told) == 2:
        print("\\n".join(told))
        app.exit(7)
timer = QTimer()
timer.timeout.connect(look)
timer.start(10)
QTimer.singleShot(20_000, app.quit)
sys.exit(app.exec())
"""


def test_what_goes_wrong_is_logged_and_told_and_the_window_goes_on(tmp_path: Path):
    log = tmp_path / "state" / "window.log"
    done = subprocess.run(
        [sys.executable, "-c", SCRIPT, str(log)],
        env={**os.environ, "QT_QPA_PLATFORM": "offscreen"},
        capture_output=True,
        text=True,
        timeout=60,
    )
    assert done.returncode == 7, done.stderr
    assert "Something unexpected happened in the window (ZeroDivisionError" in done.stdout
    assert "IndexError" in done.stdout
    written = log.read_text()
    assert written.count("Traceback (most recent call last)") == 2
