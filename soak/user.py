"""The hand of somebody who clicks, drags and types anything anywhere in a window; run as a process of its own.

What it finds is printed as JSON, a list of lines: faults of ours, actions that keep the window busy for long, what the
service has otherwise than the window, and undo and redo that don't lead to where they should.
"""

from __future__ import annotations

import json
import os
import random
import sys
import time
import traceback
from collections import deque
from pathlib import Path
from types import TracebackType
from typing import Any, NamedTuple

import numpy
from PyQt6.QtCore import QModelIndex, QPoint, QPointF, QProcess, QRect, Qt, QTimer, qInstallMessageHandler
from PyQt6.QtGui import QContextMenuEvent, QImage, QWheelEvent
from PyQt6.QtTest import QTest as _QTest
from PyQt6.QtWidgets import (
    QAbstractButton,
    QAbstractItemView,
    QAbstractSpinBox,
    QApplication,
    QComboBox,
    QLineEdit,
    QListView,
    QMenu,
    QTableView,
    QWidget,
)

from nakrel import protocol as m
from nakrel.client.connection import ServiceConnection
from nakrel.client.launch import ensure_service
from nakrel.core.model.errors import DataError
from nakrel.demo.seed import seed
from nakrel.storage.home import Home
from nakrel.ui.app import leave, open_window, spare_the_collector
from nakrel.ui.devices import fix, page
from nakrel.ui.own_hand import OWN_WINDOW
from nakrel.ui.range.pad import Pad
from nakrel.ui.sheet.model import CODE
from nakrel.ui.shown import PAGES
from nakrel.ui.store import Store
from nakrel.ui.widgets.rows import Table
from nakrel.ui.widgets.shield import shielded
from nakrel.ui.window.strip import LiveStrip

# PyQt's stubs take its functions for methods.
QTest: Any = _QTest
# Processor time, which a busy machine doesn't lengthen.
_LONG_S = 2.0
_SETTLE_MS = 1_000
# How many actions there are from one look at the screen to the next, and how long drawing may take on a busy machine.
_LOOKS, _DRAWN_S = 10, 5.0
_TEXTS = (
    *("tap Q 20", "wait 10", "wait 5-20", "hold W 30", "repeat 3", "if run > 3", "chord ctrl c", "type hello", "F13"),
    *("scroll down 3", "move 10 5", "note a", "set x = x + 1", "random(1,6)", "open xyzzy", "q", "reel", "thumb"),
    *("1000000", "-5", "9999", "0", "50 ms", "1 s", "'", "a b", "macro 1, 2", "x" * 50),
)  # fmt: skip
_NAMED = ("Return", "Escape", "Tab", "Backspace", "Delete", "Space", "Up", "Down", "Left", "Right", "Home", "End")
_KEYS = [
    getattr(Qt.Key, f"Key_{name}")
    for name in (*"ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789", *_NAMED, "PageUp", "PageDown", "F1", "F2", "Insert", "Menu")
]
_NONE, _SHIFT = Qt.KeyboardModifier.NoModifier, Qt.KeyboardModifier.ShiftModifier
_CTRL, _ALT = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.AltModifier
_HELD = (*(_NONE,) * 6, *(_CTRL,) * 3, *(_SHIFT,) * 2, _ALT, _CTRL | _SHIFT)
_THUMB = ("BTN_SIDE", "BTN_EXTRA", "BTN_TRIGGER_HAPPY1", "BTN_TRIGGER_HAPPY3")
_PRESSED = (*_THUMB, "BTN_LEFT", "KEY_F13", "KEY_SCROLLLOCK")
_LEFT, _RIGHT = Qt.MouseButton.LeftButton, Qt.MouseButton.RightButton
# What ends the program is no use here.
_QUIT = ("Quit", "Shut down")
# What the hand does, and how often.
_ACTS = {
    "click": 40, "double": 6, "right": 6, "key": 22, "text": 10, "drag": 6, "wheel": 5, "press": 6, "resize": 1,
    "escape": 4,
}  # fmt: skip


class _Clicked(NamedTuple):
    """A row of so many that is clicked, and what stands in it."""

    table: Table
    row: int
    of: int
    told: str
    top: int


class _Never(QProcess):
    """Starts nothing: permissions and the practice game are left alone."""

    def start(self, *asked: object) -> None:
        """Leave it."""

    @staticmethod
    def startDetached(*asked: object) -> tuple[bool, int]:
        """Say that it was started."""
        return True, 0


class _User:
    """Acts until it has done so often, or until the first fault of ours."""

    def __init__(self, app: QApplication, store: Store, count: int, number: int) -> None:
        self._app, self._store, self._left = app, store, count
        self._chance = random.Random(number)
        self.failures: list[str] = []
        self._trail: deque[str] = deque(maxlen=8)
        self.window = open_window(app, store)
        self.window.resize(1280, 800)
        self.window.show()
        # As the program does it.
        spare_the_collector()
        self.window.make_ahead()
        self._first = self._library(store)
        self._turned = time.process_time()

    def go(self) -> None:
        """Act, with as much time between as a loop needs, or as a hand does."""
        QTimer.singleShot(300, self._turn)
        self._app.exec()

    def fault(self, kind: type[BaseException], error: BaseException | None, trace: TracebackType | None) -> None:
        """A fault of ours; what can't be typed is none."""
        if not isinstance(error, DataError):
            self._fail("".join(traceback.format_exception(kind, error, trace)))

    def compare(self, home: str) -> None:
        """Look whether the service has what the window has, and whether all can be undone and done again."""
        QTest.qWait(_SETTLE_MS)
        last, stack = self._library(self._store), self._store.undo_stack
        self._alike(last, self._fetched(home), "the service has otherwise")
        at = stack.index()
        while stack.canUndo():
            stack.undo()
            self._app.processEvents()
        self._alike(self._first, self._library(self._store), "all undone, this is otherwise than before")
        while stack.canRedo() and stack.index() < at:
            stack.redo()
            self._app.processEvents()
        QTest.qWait(_SETTLE_MS)
        self._alike(last, self._library(self._store), "undone and redone, this is otherwise")
        self._alike(last, self._fetched(home), "undone and redone, the service has otherwise")

    def _turn(self) -> None:
        if self._left <= 0 or self.failures:
            self._end()
            return
        if self._left % _LOOKS == 0:
            self._compare_screen()
            self._turned = time.process_time()
        # Menus and dialogs run loops of their own: the next turn comes there, too.
        QTimer.singleShot(self._chance.choice((0, 0, 0, 5, 30)), self._turn)
        self._left -= 1
        now = time.process_time()
        if (took := now - self._turned) > _LONG_S:
            self._fail(f"busy for {took:.1f} s")
        self._turned = now
        self._compare_parts()
        self._act()

    def _compare_parts(self) -> None:
        """Look whether all parts of the window tell of the same profile, macro and button."""
        window, shown = self.window, self.window.shown
        column, sheet, details = window.column, window.sheet, window.sheet_details
        chosen = sheet.table.currentIndex()
        pairs: dict[str, tuple[object, object]] = {
            "profile": (column.profile_view.key(), shown.profile and shown.profile.id)
        }
        if window.macro.isVisible():
            pairs["macro"] = column.macro_view.key(), shown.macro and shown.macro.id
            # While something is recorded its own macro stays.
            if not window.macro.recording.recording:
                pairs["steps"] = window.macro.model.line.macro.id, shown.macro and shown.macro.id
        if sheet.table.isVisible() and chosen.isValid():
            pairs["row"] = chosen.siblingAtColumn(0).data(CODE), shown.control
            pairs["layer"] = sheet.model.layer_of(chosen.column()), shown.layer
        if details.isVisible() and shown.control:
            pairs["title"] = details._code.text(), shown.control
        if differs := [f"{name}: {one!r}, {other!r}" for name, (one, other) in pairs.items() if one and one != other]:
            self._fail(f"parts of the window tell of different things: {'; '.join(differs)}")

    def _compare_screen(self) -> None:
        """Look whether the screen has what a fresh picture of the window has: nothing is left of what was there."""
        window = QApplication.activeModalWidget() or self.window
        screen = window.screen()
        # What is drawn by the clock is drawn otherwise each time.
        lives = [QRect(each.mapTo(window, QPoint(0, 0)), each.size()) for each in window.findChildren((LiveStrip, Pad))]
        if screen is None or QApplication.activePopupWidget():
            return
        differs, end = QRect(), time.monotonic() + _DRAWN_S
        while time.monotonic() < end:
            # What is still to be drawn is drawn first, and what is worked out meanwhile.
            QTest.qWait(20)
            if not window.isVisible():
                return
            differs = _difference(screen.grabWindow(window.winId()).toImage(), window.grab().toImage(), lives)
            if differs.isNull():
                return
        part = window.childAt(differs.center())
        self._fail(f"{_name(part or window)} isn't drawn as it is, at {differs.getRect()}")

    def _row_at(self, widget: QWidget, spot: QPoint) -> _Clicked | None:
        """The row of a table of ours that a click there is on."""
        table = widget.parent()
        # While something is chosen by a press, or recorded, clicks are for that.
        if (
            shielded()
            or table not in (self.window.sheet.table, self.window.macro.steps)
            or not isinstance(table, Table)
        ):
            return None
        index, model = table.indexAt(spot), table.model()
        if model is None or not index.isValid():
            return None
        return _Clicked(table, index.row(), model.rowCount(), _told(index), table.visualRect(index).top())

    def _compare_row(self, clicked: _Clicked) -> None:
        """Look whether the row that was clicked is the one that stands out."""
        table, model = clicked.table, clicked.table.model()
        # What was being typed may have been taken with the click, and have added rows or taken some away.
        if model is None or model.rowCount() != clicked.of or not table.isVisible():
            return
        rows = {each.row() for each in (*table.selectedIndexes(), table.currentIndex())}
        top = table.visualRect(model.index(clicked.row, 0)).top()
        if rows != {clicked.row}:
            self._fail(f"row {clicked.row} ({clicked.told}) was clicked, and chosen are {rows}")
        elif top != clicked.top:
            self._fail(f"row {clicked.row} ({clicked.told}) was clicked, and moved by {top - clicked.top} pixels")

    def _end(self) -> None:
        over = QApplication.activePopupWidget() or QApplication.activeModalWidget()
        if over is None:
            self._app.quit()
            return
        over.close()
        QTimer.singleShot(20, self._end)

    def _act(self) -> None:
        where = self._top()
        act = self._chance.choices(list(_ACTS), list(_ACTS.values()))[0]
        focus = QApplication.focusWidget() or where
        match act:
            case "key" | "text" | "escape":
                self._type(act, focus)
            case "press":
                devices = [device.id for device in self._store.devices]
                control, value = self._chance.choice(_PRESSED), self._chance.randrange(2)
                self._trail.append(f"{control} {value} on a simulated device")
                device = self._chance.choice(devices) if devices else OWN_WINDOW
                self._store.ask(m.PressStandIn(device, control, value), lambda answer: None)
            case "resize":
                self.window.resize(self._chance.randrange(700, 1_700), self._chance.randrange(450, 1_000))
            case _:
                self._point(act, where)

    def _top(self) -> QWidget:
        """What the hand is over: the menu or dialog that is open, or a window, often a part of ours where edits are."""
        if over := QApplication.activePopupWidget() or QApplication.activeModalWidget():
            return over
        window = self.window
        part = self._chance.choice((window, window, window.macro, window.macro, window.sheet, window.column))
        if part is window.macro and not part.isVisible() and self._store.macros and self._chance.random() < 0.3:
            window.shown.show_macro(self._chance.choice(sorted(self._store.macros)))
        if part is window.sheet and not part.isVisible() and self._chance.random() < 0.3:
            window.shown.show_page(self._chance.choice(("sheet", "sheet", *PAGES)))
        tops = [each for each in QApplication.topLevelWidgets() if each.isVisible()]
        return part if part is not window and part.isVisible() else self._chance.choice(tops or [window])

    def _type(self, act: str, focus: QWidget) -> None:
        if act == "text":
            text = self._chance.choice(_TEXTS)
            self._trail.append(f"types {text!r} into {_name(focus)}")
            if isinstance(focus, QLineEdit) and self._chance.random() < 0.6:
                focus.selectAll()
            QTest.keyClicks(focus, text)
            focus, key, held = QApplication.focusWidget() or focus, Qt.Key.Key_Return, _NONE
        elif act == "escape":
            key, held = Qt.Key.Key_Escape, _NONE
        else:
            key, held = self._chance.choice(_KEYS), self._chance.choice(_HELD)
        if key != Qt.Key.Key_Q or held == _NONE:
            self._trail.append(f"{key.name} with {held} on {_name(focus)}")
            QTest.keyClick(focus, key, held)

    def _point(self, act: str, where: QWidget) -> None:
        if isinstance(where, QMenu):
            self._choose(where)
            return
        shown = [each for each in (where, *where.findChildren(QWidget)) if each.isVisible() and each.isEnabled()]
        lively = [each for each in shown if _is_lively(each)]
        widget = self._chance.choice(lively if lively and self._chance.random() < 0.85 else shown or [where])
        spot = self._spot(widget)
        # A real hand hits what lies on top there.
        if widget is not where and (hit := where.childAt(widget.mapTo(where, spot))) not in (None, widget):
            assert hit is not None
            widget, spot = hit, hit.mapFrom(where, widget.mapTo(where, spot))
        if any(word in _name(widget) for word in _QUIT):
            return
        self._trail.append(f"{act} on {_name(widget)} at {spot.x()}, {spot.y()}")
        match act:
            case "click":
                held, clicked = self._chance.choice(_HELD), self._row_at(widget, spot)
                QTest.mouseClick(widget, _LEFT, held, spot)
                if clicked and held == _NONE:
                    self._compare_row(clicked)
            case "double":
                QTest.mouseClick(widget, _LEFT, pos=spot)
                QTest.mouseDClick(widget, _LEFT, pos=spot)
            case "right":
                QTest.mouseClick(widget, _RIGHT, pos=spot)
                asked = QContextMenuEvent(QContextMenuEvent.Reason.Mouse, spot, widget.mapToGlobal(spot))
                # Posted, it would be Qt's to delete, of which PyQt doesn't always hear.
                self._app.sendEvent(widget, asked)
            case "drag":
                QTest.mousePress(widget, _LEFT, pos=spot)
                for _ in range(4):
                    spot = self._spot(widget)
                    QTest.mouseMove(widget, spot)
                QTest.mouseRelease(widget, _LEFT, pos=spot)
            case "wheel":
                turned = QPoint(0, self._chance.choice((-120, 120, 240)))
                at, overall = QPointF(spot), QPointF(widget.mapToGlobal(spot))
                no_button, phase = Qt.MouseButton.NoButton, Qt.ScrollPhase.NoScrollPhase
                held = self._chance.choice(_HELD)
                self._app.sendEvent(widget, QWheelEvent(at, overall, QPoint(), turned, no_button, held, phase, False))

    def _choose(self, menu: QMenu) -> None:
        usable = [each for each in menu.actions() if each.isEnabled() and not each.isSeparator()]
        usable = [each for each in usable if not any(word in each.text() for word in _QUIT)]
        if not usable or self._chance.random() < 0.2:
            menu.close()
            return
        action = self._chance.choice(usable)
        self._trail.append(f"chooses {action.text()!r}")
        QTest.mouseClick(menu, _LEFT, pos=menu.actionGeometry(action).center())

    def _spot(self, widget: QWidget) -> QPoint:
        view = widget.parent()
        # People scroll to what they want.
        if isinstance(view, QTableView | QListView) and (model := view.model()) and self._chance.random() < 0.5:
            columns = model.columnCount() if isinstance(view, QTableView) else 1
            index = model.index(self._chance.randrange(max(1, model.rowCount())), self._chance.randrange(columns or 1))
            view.scrollTo(index)
            there = view.visualRect(index).center()
            if widget.rect().contains(there):
                return there
        return QPoint(self._chance.randrange(max(1, widget.width())), self._chance.randrange(max(1, widget.height())))

    def _fail(self, what: str) -> None:
        self.failures.append(" | ".join((what.strip(), "after", *self._trail)))

    def _alike(self, wanted: dict[str, object], found: dict[str, object], what: str) -> None:
        if differs := [key for key in sorted({*wanted, *found}) if wanted.get(key) != found.get(key)]:
            told = (f"{key} ({_first_difference(wanted.get(key), found.get(key))})" for key in differs)
            self._fail(f"{what}: {', '.join(told)}; not saved: {self._store.not_saved or 'nothing'}")

    @staticmethod
    def _library(store: Store) -> dict[str, object]:
        return {**{f"profile {key}": value for key, value in store.profiles.items()}, **store.macros}

    def _fetched(self, home: str) -> dict[str, object]:
        other = Store(lambda: ServiceConnection.connect(Home.find(home).socket, "look"))
        other.open()
        found = self._library(other)
        other.close()
        return found


def _difference(seen: QImage, fresh: QImage, without: list[QRect]) -> QRect:
    """The part in which two pictures differ, these places left out."""
    shape = (fresh.height(), fresh.width())
    if seen.size() != fresh.size():
        return fresh.rect()
    pixels = []
    for picture in (seen, fresh):
        bits = picture.convertToFormat(QImage.Format.Format_RGB32).constBits()
        assert bits
        pixels.append(numpy.frombuffer(bits.asstring(shape[0] * shape[1] * 4), numpy.uint32).reshape(shape))
    other = pixels[0] != pixels[1]
    for each in without:
        other[max(0, each.top()) : max(0, each.bottom() + 1), max(0, each.left()) : max(0, each.right() + 1)] = False
    if not other.any():
        return QRect()
    rows, columns = numpy.nonzero(other)
    return QRect(QPoint(int(columns.min()), int(rows.min())), QPoint(int(columns.max()), int(rows.max())))


def _first_difference(one: object, other: object) -> str:
    """Where the words for two things begin to differ."""
    first, second = repr(one), repr(other)
    at = next((n for n, pair in enumerate(zip(first, second, strict=False)) if len({*pair}) > 1), 0)
    return f"{first[max(0, at - 40) : at + 60]!r} and {second[max(0, at - 40) : at + 60]!r}"


def _told(index: QModelIndex) -> str:
    return " ".join(str(index.siblingAtColumn(n).data() or "") for n in range(3)).strip()


def _is_lively(widget: QWidget) -> bool:
    """Whether it answers to the hand by what it is: text alone doesn't."""
    kinds = QAbstractButton, QLineEdit, QAbstractItemView, QComboBox, QAbstractSpinBox
    return isinstance(widget, kinds) or isinstance(widget.parent(), QAbstractItemView) or _is_ours(widget)


def _is_ours(widget: QWidget) -> bool:
    return type(widget).__module__.startswith("nakrel")


def _name(widget: QWidget) -> str:
    text = getattr(widget, "text", None)
    said = text() if callable(text) else widget.accessibleName()
    return f"{type(widget).__name__} {str(said)[:30]!r}"


def _main(home: str, count: int, number: int) -> None:
    fix.QProcess = page.QProcess = _Never  # type: ignore[misc]
    # What the offscreen platform can't do is of no interest.
    qInstallMessageHandler(lambda kind, context, text: None)
    if not Path(home).exists():
        seed(Home.find(home))
    # What is exported goes where the program works.
    os.chdir(home)
    app = QApplication([])
    app.setCursorFlashTime(0)
    store = Store(lambda: ensure_service(Home.find(home).socket, home, "soak"))
    store.is_window = True
    store.open()
    user = _User(app, store, count, number)
    sys.excepthook = user.fault
    user.go()
    user.compare(home)
    user.window.close()
    print(json.dumps(user.failures))
    leave(app, 0)


if __name__ == "__main__":
    _main(sys.argv[1], int(sys.argv[2]), int(sys.argv[3]))
