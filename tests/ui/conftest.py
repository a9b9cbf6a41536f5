"""A window on a service of its own, without a screen."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLineEdit
from pytestqt.qtbot import QtBot

from nakrel.client.connection import ServiceConnection
from nakrel.demo.seed import seed
from nakrel.storage.home import Home
from nakrel.ui.app import open_window
from nakrel.ui.store import Store
from tests.support import ServiceProcess


class Ui:
    """A window with its store, and the service behind it."""

    def __init__(self, qtbot: QtBot, folder: Path, qapp: QApplication) -> None:
        self._qtbot = qtbot
        self.service = ServiceProcess(folder, "--backend", "stand-in")
        self.store = Store(lambda: ServiceConnection.connect(self.service.home.socket, "window"))
        self.store.open()
        self.window = open_window(qapp, self.store)
        qtbot.addWidget(self.window)
        # The screen that Qt makes up is smaller than the usual window.
        self.window.resize(1280, 800)
        self.window.show()

    def wait(self, condition: Callable[[], object], what: str = "") -> None:
        """Let the window work until the condition holds."""

        def holds() -> None:
            assert condition(), what

        self._qtbot.waitUntil(holds, timeout=10_000)

    def undo(self) -> None:
        self.store.undo_stack.undo()

    def redo(self) -> None:
        self.store.undo_stack.redo()


def assign(ui: Ui, typed: str, line: str = "") -> None:
    """Open the field at the button that is shown, type, and take the line of that text, or what is offered first."""
    ui.window.sheet.open_field()
    field = ui.window.sheet.assign.field
    assert field.isVisible()
    QTest.keyClicks(field.line, typed)
    if line:
        texts = field.list.texts()
        assert line in texts, texts
        field.list.setCurrentIndex(field.list.model().index(texts.index(line), 0))
    QTest.keyClick(field.line, Qt.Key.Key_Return)


def type_into(dialog: Any, row: int, column: int, text: str) -> None:
    """Type into a cell of a dialog's table, and press Return."""
    dialog.table.setCurrentIndex(dialog.model.index(row, column))
    QTest.keyClick(dialog.table, Qt.Key.Key_F2)
    editor = dialog.table.findChildren(QLineEdit)[-1]
    editor.setText(text)
    QTest.keyClick(editor, Qt.Key.Key_Return)
    # The editor hands its text over with the next events.
    QApplication.processEvents()


@pytest.fixture(scope="session")
def seeded(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A home with the demo's data, to be copied: writing it takes longer than a test."""
    folder = tmp_path_factory.mktemp("seeded") / "home"
    seed(Home.find(folder))
    return folder


@pytest.fixture
def ui(qtbot: QtBot, seeded: Path, tmp_path: Path, qapp: QApplication) -> Iterator[Ui]:
    shutil.copytree(seeded, tmp_path / "home")
    made = Ui(qtbot, tmp_path / "home", qapp)
    yield made
    made.window.close()
    # Each new window's style is worked out for all that are left, so none may be.
    made.window.deleteLater()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
    assert made.service.end() == 0
