"""A window on a service of its own, without a screen."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from PyQt6.QtCore import QEvent, QPoint, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel, QLineEdit, QWidget
from pytestqt.qtbot import QtBot

from nakrel.client.connection import ServiceConnection
from nakrel.demo.seed import seed
from nakrel.storage.home import Home
from nakrel.ui.app import open_window
from nakrel.ui.store import Store
from tests.loaded import LoadedService


class Ui:
    """A window with its store, and the service behind it."""

    def __init__(self, qtbot: QtBot, folder: Path, qapp: QApplication) -> None:
        self._qtbot = qtbot
        self.service = LoadedService(folder, "--backend", "stand-in")
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
    type_letters(field.line, typed)
    if line:
        texts = field.list.texts()
        assert line in texts, texts
        field.list.setCurrentIndex(field.list.model().index(texts.index(line), 0))
    QTest.keyClick(field.line, Qt.Key.Key_Return)


def type_letters(widget: QWidget, text: str) -> None:
    """Type letters of any alphabet, which QTest's own hand can't."""
    for letter in text:
        for kind in (QEvent.Type.KeyPress, QEvent.Type.KeyRelease):
            QApplication.sendEvent(widget, QKeyEvent(kind, 0, Qt.KeyboardModifier.NoModifier, letter))


def checks_shown(ui: Ui) -> str:
    """What the checks of the macro that is shown say."""
    fold = ui.window.macro_details.checks_fold
    return " ".join(label.text() for label in fold.findChildren(QLabel)) if fold.isVisible() else ""


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
def fresh(qtbot: QtBot, tmp_path: Path, qapp: QApplication) -> Iterator[Ui]:
    """A window on an empty home."""
    made = Ui(qtbot, tmp_path / "home", qapp)
    yield made
    made.window.close()
    made.window.deleteLater()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
    assert made.service.end() == 0


class Hand:
    """Clicks and keys, counted: what a new user needs for something."""

    def __init__(self) -> None:
        self.clicks = self.keys = 0

    def click(self, widget: QWidget, spot: QPoint | None = None) -> None:
        assert widget.isVisible(), widget
        self.clicks += 1
        QTest.mouseClick(widget, Qt.MouseButton.LeftButton, pos=spot or widget.rect().center())
        QApplication.processEvents()

    def cell(self, ui: Ui, code: str) -> QPoint:
        """Where the cell of a button is in the list."""
        sheet = ui.window.sheet
        index = sheet.model.index(sheet.model.row_of(code), 2)
        sheet.table.scrollTo(index)
        return sheet.table.visualRect(index).center()

    def double_click(self, ui: Ui, code: str) -> None:
        """Open the field at a button's cell."""
        spot, ground = self.cell(ui, code), ui.window.sheet.table.viewport()
        assert ground
        self.clicks += 2
        QTest.mouseClick(ground, Qt.MouseButton.LeftButton, pos=spot)
        QTest.mouseDClick(ground, Qt.MouseButton.LeftButton, pos=spot)
        QApplication.processEvents()

    def line(self, ui: Ui, text: str) -> None:
        """Click a line beneath the field."""
        offers = ui.window.sheet.assign.field.list
        index = offers.model().index(offers.texts().index(text), 0)
        offers.scrollTo(index)
        ground = offers.viewport()
        assert ground
        self.click(ground, offers.visualRect(index).center())

    def type(self, widget: QWidget, text: str) -> None:
        self.keys += len(text)
        QTest.keyClicks(widget, text)

    def key(self, widget: QWidget, key: Qt.Key) -> None:
        self.keys += 1
        QTest.keyClick(widget, key)


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
