"""Works with the window in German, and prints as JSON what came of it.

    LANG=de_DE.UTF-8 python -m tests.ui.german HOME

A process of its own, since texts are looked up when the parts of the window are loaded.
"""

from __future__ import annotations

import json
import os
import sys
from pathlib import Path

os.environ["QT_QPA_PLATFORM"] = "offscreen"

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QFileDialog, QLineEdit

from nakrel.client.connection import ServiceConnection
from nakrel.core.analysis.practice_range import Lane, Row
from nakrel.core.model.steps import walk
from nakrel.ui import commands
from nakrel.ui.app import leave, open_window
from nakrel.ui.language import translate_qt
from nakrel.ui.macro.steps_model import TIME
from nakrel.ui.store import Store
from nakrel.ui.window.main_window import MainWindow

# What is written for each kind of step that is told in words.
_WORDS = {
    "random wait": "200 to 600 ms", "pointer": "640, 400", "text": "Moin", "open": "true", "if": "run > 3",
    "set": "count to count + 1",
}  # fmt: skip


def steps_of_all_kinds(window: MainWindow, store: Store) -> list[str]:
    """Add a step of each kind by the fields, in the order in which they are offered."""
    macro = commands.new_macro(store, "Alle Arten")
    window.shown.show_macro(macro.id)
    window.shown.show_page("macro")
    fields = window.macro.add_step
    for index in range(fields.kind.count()):
        fields.kind.setCurrentIndex(index)
        fields.typed.setText(_WORDS.get(fields.kind.currentData(), ""))
        fields.add()
    # What comes after a block is added inside it.
    return [type(step).__name__ for step in walk(store.macros[macro.id].loop)]


def typed_times(window: MainWindow, store: Store) -> list[tuple[int, int | None]]:
    """Type times as people write them in German into the step list: a plain one, and a random one."""
    macro = commands.new_macro(store, "Zeiten")
    window.shown.show_macro(macro.id)
    fields = window.macro.add_step
    fields.kind.setCurrentIndex(fields.kind.findData("wait"))
    fields.time.selectAll()
    QTest.keyClicks(fields.time, "17,5")
    fields.add()
    found = [store.macros[macro.id].loop[0]]
    table = window.macro.steps
    for text in ("0,25s", "180 bis 420 ms"):
        table.edit(window.macro.model.index(0, TIME))
        editor = table.findChildren(QLineEdit)[-1]
        editor.setText(text)
        QTest.keyClick(editor, Qt.Key.Key_Return)
        QApplication.processEvents()
        found.append(store.macros[macro.id].loop[0])
    return [(step.wait_us, step.most_us) for step in found]  # type: ignore[union-attr, misc]


def main(home: Path) -> None:
    """Work with it."""
    app = QApplication([])
    translate_qt()
    store = Store(lambda: ServiceConnection.connect(home / "run" / "service.sock", "german"))
    store.open()
    window = open_window(app, store)
    window.resize(1280, 800)
    window.show()
    result: dict[str, object] = {
        "kinds": steps_of_all_kinds(window, store),
        "times": typed_times(window, store),
        "shown": window.macro.model.index(0, TIME).data(),
    }
    window.range.model.show_rows([Row(Lane("KEY_Q", "in"), 3, 1, 2, 26_500.0, 12_250, 1_240_000.0, 30_000, 3)], {})
    result["range"] = [window.range.model.index(0, column).data() for column in range(4, 8)]
    # A beginning is known by its key, whatever it is called.
    macro = commands.new_macro(store, "Anfang")
    window.shown.show_macro(macro.id)
    began: list[str] = []
    beginnings = window.macro.beginnings
    beginnings.record_wanted.connect(lambda: began.append("record"))
    beginnings.steps_wanted.connect(lambda: began.append("steps"))
    beginnings.text_wanted.connect(lambda: began.append("text"))
    for row in beginnings.rows.values():
        if not row.kind.builder:
            row.clicked.emit()
    result["began"] = began
    dialog = QFileDialog(window)
    dialog.setOption(QFileDialog.Option.DontUseNativeDialog)
    result["of_qt"] = dialog.labelText(QFileDialog.DialogLabel.Reject)
    window.close()
    json.dump(result, sys.stdout)
    leave(app, 0)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
