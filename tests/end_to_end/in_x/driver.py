"""A window under a hand from outside: everything is done by real pointer and key events."""

from __future__ import annotations

import os
import subprocess
import sys
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QEvent, QObject, QPoint, QRect
from PyQt6.QtGui import QUndoStack
from PyQt6.QtWidgets import QAbstractItemView, QApplication, QComboBox, QLabel, QMenu, QWidget
from pytestqt.qtbot import QtBot

from nakrel.client.launch import ensure_service
from nakrel.demo.seed import seed
from nakrel.storage.home import Home
from nakrel.ui.app import open_window
from nakrel.ui.store import Store
from nakrel.ui.widgets.shield import shielded

LIMIT_MS = 15_000


class _Click(QObject):
    """Tells whether a mouse button was let go over a window of ours."""

    def __init__(self) -> None:
        super().__init__()
        self.ended = False

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        self.ended = self.ended or (event is not None and event.type() == QEvent.Type.MouseButtonRelease)
        return False


class Driver:
    """Opens the window on a home, with the demo's data if wanted, and works it with xdotool."""

    def __init__(self, qtbot: QtBot, home: Path, *, seeded: bool = True) -> None:
        self._qtbot = qtbot
        self.home = home
        if seeded:
            seed(Home.find(home))
        self.open()

    def open(self) -> None:
        """Open the window anew, as a start of the program does."""
        self.store = Store(lambda: ensure_service(Home.find(self.home).socket, str(self.home), "end-to-end"))
        self.store.open()
        app = QApplication.instance()
        assert isinstance(app, QApplication)
        self.window = open_window(app, self.store)
        self.window.show()
        self._qtbot.waitExposed(self.window)
        self.wait(lambda: self.window.isActiveWindow(), "the window to be active")

    def close(self) -> None:
        """Close the window."""
        self.window.close()
        self.window.deleteLater()
        self._qtbot.wait(50)

    def wait(self, condition: Callable[[], object], what: str) -> None:
        """Let the window work until the condition holds."""

        def holds() -> None:
            assert condition(), f"waited in vain for {what}"

        try:
            self._qtbot.waitUntil(holds, timeout=LIMIT_MS)
        except self._qtbot.TimeoutError:
            self._tell()
            raise

    def _tell(self) -> None:
        """Print what the window shows: pytest tells it beside what failed."""
        focus, shown, assign = QApplication.focusWidget(), self.window.shown, self.window.sheet.assign.field
        where = (shown.page, shown.profile and shown.profile.id, shown.setup and shown.setup.name, shown.control)
        sys.stdout.write(
            f"shown: {where}, layer {shown.layer!r}; in front: {QApplication.activeWindow()!r}\n"
            f"focus: {focus!r} {focus and focus.accessibleName()!r}\n"
            f"field: {assign.isVisible()} {assign.line.text()!r}; {shielded()=}\n"
            f"message: {[each.text() for each in self.window.messages.findChildren(QLabel) if each.isVisible()]}\n"
            f"cells: {shown.setup and shown.setup.cells}\n"
        )

    def let_pass(self, ms: int) -> None:
        """Let time pass that is part of the scenario."""
        self._qtbot.wait(ms)

    def injector(self, *arguments: str) -> None:
        """One movement of the hand; the window takes what came of it."""
        subprocess.run(["xdotool", *arguments], check=True, capture_output=True, env=os.environ)
        # What the server has for the window by now; what the window manager looks at first takes a while longer.
        QApplication.sync()
        self._qtbot.wait(30)

    def click(self, widget: QWidget, *, button: str = "1") -> None:
        """Click in the middle of a widget that can be seen."""
        self.wait(widget.isVisible, f"{widget.accessibleName() or widget.objectName()} to be seen")
        # What has just been shown gets its place with the next events.
        self._qtbot.wait(30)
        self._click_at(widget.mapToGlobal(widget.rect().center()), button)

    def click_row(self, view: QAbstractItemView, row: int, column: int = 0, *keys: str) -> None:
        """Click a row of a list, with keys held."""
        model, ground = view.model(), view.viewport()
        assert model is not None
        assert ground is not None
        area: QRect = view.visualRect(model.index(row, column))
        for key in keys:
            self.injector("keydown", key)
        self._click_at(ground.mapToGlobal(area.center()), "1")
        for key in keys:
            self.injector("keyup", key)

    def _click_at(self, spot: QPoint, button: str) -> None:
        """Click there, and let the window work until it has had that."""
        app, had = QApplication.instance(), _Click()
        assert app
        self.injector("mousemove", "--sync", str(spot.x()), str(spot.y()))
        app.installEventFilter(had)
        self.injector("click", button)
        self.wait(lambda: had.ended, "the click to arrive")
        app.removeEventFilter(had)

    def type(self, text: str, *keys: str) -> None:
        """Type a text, then keys by name."""
        self.injector("type", "--delay", "15", text)
        for key in keys:
            self.injector("key", key)

    def replace(self, widget: QWidget, text: str) -> None:
        """Click a field, select all of it, type over it and press Enter."""
        self.click(widget)
        self.injector("key", "ctrl+a")
        self.type(text, "Return")

    def choose(self, field: QComboBox, text: str) -> None:
        """Choose from a list by its beginning."""
        if field.isEditable():
            self.replace(field, text)
        else:
            self.click(field)
            self.type(text, "Return")
        self.wait(lambda: field.currentText() == text, f"{text} to be chosen")

    def menu(self, view: QAbstractItemView, row: int, action: str) -> None:
        """Choose an action from a row's menu."""
        model, ground = view.model(), view.viewport()
        assert model is not None
        assert ground is not None
        self._click_at(ground.mapToGlobal(view.visualRect(model.index(row, 0)).center()), "3")
        self._from_menu(action)

    def pick(self, value: QWidget, text: str) -> None:
        """Click a value of a sentence, and choose from its list."""
        self.click(value)
        self._from_menu(text)

    def _from_menu(self, action: str) -> None:
        self.wait(QApplication.activePopupWidget, "the menu")
        menu = QApplication.activePopupWidget()
        assert isinstance(menu, QMenu)
        found = next(each for each in menu.actions() if each.text().split("\t")[0] == action)
        self._click_at(menu.mapToGlobal(menu.actionGeometry(found).center()), "1")
        self.wait(lambda: QApplication.activePopupWidget() is None, "the menu to be gone")

    def drag(self, widget: QWidget, start: QPoint, end: QPoint, *, drop: bool = True) -> None:
        """Press at one point of a widget, go to another one, and let go there."""
        first, last = widget.mapToGlobal(start), widget.mapToGlobal(end)
        self.injector("mousemove", "--sync", str(first.x()), str(first.y()))
        self.injector("mousedown", "1")
        for part in (0.3, 0.6, 1.0):
            x, y = (round(a + (b - a) * part) for a, b in ((first.x(), last.x()), (first.y(), last.y())))
            self.injector("mousemove", "--sync", str(x), str(y))
        if drop:
            self.injector("mouseup", "1")

    def undo_all(self) -> None:
        """Undo until there is nothing left to undo."""
        stack = self.store.undo_stack
        while stack.canUndo():
            self._undo_one(stack)

    def _undo_one(self, stack: QUndoStack) -> None:
        before = stack.index()
        self.injector("key", "ctrl+z")
        self.wait(lambda: stack.index() < before, f"the undo with the focus in {QApplication.focusWidget()}")

    def to_front(self) -> None:
        """Bring the window to the front by a click where it does nothing."""
        if not self.window.isActiveWindow():
            spot = self.window.head.title.mapToGlobal(self.window.head.title.rect().center())
            self._click_at(spot, "1")
            self.wait(self.window.isActiveWindow, "the window to be in front")

    def screen_size(self) -> tuple[int, int]:
        """The size of all screens together, as the X server tells it."""
        told = subprocess.run(["xdotool", "getdisplaygeometry"], check=True, capture_output=True, text=True).stdout
        width, height = map(int, told.split())
        return width, height
