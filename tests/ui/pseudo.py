"""Opens the window in the pseudo-language on the demo's data, goes through every page and dialog, and prints as JSON
what isn't translatable, what is cut off or takes more room than the window, and what was looked up though no table can
have it.

    python -m tests.ui.pseudo HOME

A process of its own, since texts are looked up when the parts of the window are loaded.
"""
# ruff: noqa: E402 - the table has to be there before those are loaded

from __future__ import annotations

import json
import os
import re
import sys
import xml.etree.ElementTree as ET
from collections.abc import Iterator
from pathlib import Path

import nakrel.language

os.environ |= {"NAKREL_LANGUAGE": "pseudo", "QT_QPA_PLATFORM": "offscreen"}
# All that is looked up, from the first module that is loaded on.
LOOKED_UP: set[tuple[str, str]] = set()
_pseudo = nakrel.language._pseudo


def _noting(text: str, about: str, count: int | None) -> str:
    LOOKED_UP.add((text, about))
    return _pseudo(text, about, count)


nakrel.language._pseudo = _noting

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeySequence
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import (
    QAbstractButton,
    QAbstractItemView,
    QApplication,
    QComboBox,
    QDialog,
    QLabel,
    QLineEdit,
    QPushButton,
    QTableView,
    QWidget,
)

from nakrel.client.connection import ServiceConnection
from nakrel.core.edit.bundle import bundle_of, look_through
from nakrel.core.model.controls import CONTROLS
from nakrel.core.model.macro import Section
from nakrel.core.model.steps import Text, walk
from nakrel.ui.app import leave, open_window
from nakrel.ui.devices.debounce import DebounceDialog
from nakrel.ui.devices.polling import PollingDialog
from nakrel.ui.help.documents import documents
from nakrel.ui.profiles.bundle import BundleDialog
from nakrel.ui.profiles.history import History
from nakrel.ui.profiles.link import LinkDialog
from nakrel.ui.sheet.game_keys import GameKeys
from nakrel.ui.sheet.pointer import PointerDialog
from nakrel.ui.store import Store
from nakrel.ui.widgets.elided import Elided, ElidedButton
from nakrel.ui.window.cues_dialog import CuesDialog
from nakrel.ui.window.main_window import MainWindow
from nakrel.ui.window.shortcuts import ShortcutSheet

# What the pseudo-language marks every text with.
MARK = "⟦"
# Sentences are put together of single words, which have its accents.
_MARKED = re.compile(f"[{MARK}áçéíłñóŕšťúýž·]")
_WORD = re.compile(r"[A-Za-z]{2}")


def texts(root: QWidget) -> Iterator[tuple[QWidget, str]]:
    """All that is shown in a window as text of a widget or in a cell, and what screen readers are told."""
    for each in (root, *root.findChildren(QWidget)):
        if not each.isVisible():
            continue
        # The names of keys on the sheet of shortcuts are Qt's.
        is_key = isinstance(root, ShortcutSheet) and isinstance(each, QLabel) and _is_keys(each.text())
        if isinstance(each, QLabel | QAbstractButton) and not is_key:
            yield each, each.text()
        if isinstance(each, QLineEdit):
            yield each, each.placeholderText()
        if isinstance(each, QComboBox):
            for index in range(each.count()):
                yield each, each.itemText(index)
        if isinstance(each, QTableView) and (model := each.model()):
            for column in range(model.columnCount()):
                yield each, str(model.headerData(column, Qt.Orientation.Horizontal) or "")
        # What runs on this machine has names of its own.
        if isinstance(each, QAbstractItemView) and not isinstance(root, LinkDialog) and (model := each.model()):
            for row in range(model.rowCount()):
                for column in range(model.columnCount() if isinstance(each, QTableView) else 1):
                    yield each, str(model.index(row, column).data() or "")
        if isinstance(each, QWidget) and not isinstance(each, QComboBox):
            yield each, each.toolTip()
            yield each, each.accessibleName()


def _is_keys(text: str) -> bool:
    return all(QKeySequence(each).toString() for each in text.split(", "))


def made_elsewhere(store: Store) -> set[str]:
    """What has no language: names, codes, and what stands on keys as a letter, a figure or a number."""
    found = {control.label for control in CONTROLS.values() if not re.search("[A-Za-z]{2}", control.label)} | set(
        CONTROLS
    )
    for profile in store.profiles.values():
        found |= {profile.name, *(setup.name for setup in profile.setups), *(rule.value for rule in profile.programs)}
        found |= {layer.name for setup in profile.setups for layer in setup.layers} | {key.name for key in profile.keys}
    found |= {macro.name for macro in store.macros.values()}
    # What a bundle is linked to, and what it types.
    found |= {f"{profile.name}: {rule.value}" for profile in store.profiles.values() for rule in profile.programs}
    steps = ((macro, step) for macro in store.macros.values() for part in Section for step in walk(macro.section(part)))
    found |= {f"{macro.name}: {step.text}" for macro, step in steps if isinstance(step, Text)}
    found |= {text for device in store.devices for text in (device.name, device.id)}
    found |= {step.remark for macro in store.macros.values() for part in Section for step in walk(macro.section(part))}
    found |= {document.title for document in documents()} | {"Nakrel", "px", "nakrel doctor --fix"}
    return found


def is_ours(text: str, elsewhere: set[str]) -> bool:
    """Whether the text is one that somebody says, and no name."""
    # Times, and formulas in them, are what they are.
    plain = re.sub(r"\bms$|\(.*\)", "", text)
    return not (_MARKED.search(text) or not _WORD.search(plain) or text.strip(' ×■●·"') in elsewhere)


def is_cut(widget: QWidget) -> bool:
    """Whether a button or a line of text has less room than it needs. One that cuts a name in it tells all as its
    tip."""
    if isinstance(widget, Elided | ElidedButton) or (
        isinstance(widget, QLabel) and (widget.wordWrap() or widget.pixmap())
    ):
        return False
    shows = isinstance(widget, QLabel | QPushButton) and bool(widget.text())
    return shows and widget.sizeHint().width() > widget.width() + 1


def _dialogs(window: MainWindow, store: Store) -> Iterator[QDialog]:
    """Those that a page opens for what is shown there."""
    profile, device = store.profiles["tidewardens"], store.devices[0]
    yield GameKeys(store, profile.id, window)
    yield PointerDialog(store, profile.id, window)
    yield History(store, "macro", "weigh-the-catch", window)
    yield History(store, "profile", profile.id, window)
    bundle = bundle_of([profile], dict(store.macros))
    yield BundleDialog(bundle, look_through(bundle, store.profiles, store.macros), "tide.zip", window)
    yield CuesDialog(store, window)
    yield DebounceDialog(store, device, lambda: {"BTN_LEFT": 8_000}, window)
    yield PollingDialog(store, device, window)


def main(home: Path) -> None:
    """Go through all of it."""
    app = QApplication([])
    store = Store(lambda: ServiceConnection.connect(home / "run" / "service.sock", "pseudo"))
    store.open()
    window = open_window(app, store)
    window.resize(1280, 800)
    window.show()
    untold: dict[str, str] = {}
    cut: dict[str, str] = {}

    def look(place: str, root: QWidget) -> None:
        QTest.qWait(250)
        elsewhere = made_elsewhere(store)
        for widget, text in texts(root):
            if is_ours(text, elsewhere):
                untold.setdefault(text, f"{place}: {type(widget).__name__}")
            if is_cut(widget):
                cut.setdefault(text, f"{place}: {type(widget).__name__}")

    for page in ("sheet", "macro", "devices", "journal", "range"):
        window.shown.show_page(page)
        look(page, window)
    window.shown.show_macro("weigh-the-catch")
    window.shown.show_page("macro")
    for drawer in window.macro.drawers:
        drawer._opener.click()
        look("drawer", window)
    window.macro.show_view("notation")
    look("text", window)
    window.macro.show_view("steps")
    window.shown.show_page("sheet")
    window.sheet.show_view("board")
    look("board", window)
    for group, actions in window.actions_by_group.items():
        for action in actions:
            if MARK not in action.text():
                untold.setdefault(action.text(), f"menu {group}")
    for action in (*window.actions_by_group["Help"], window.actions_by_group["Program"][0]):
        if "…" in action.text() or action is window.actions_by_group["Help"][0]:
            action.trigger()
    window.open_link()
    window.open_shortcuts()
    for dialog in _dialogs(window, store):
        dialog.show()
    large = {}
    for dialog in app.topLevelWidgets():
        if isinstance(dialog, QDialog) and dialog.isVisible():
            if dialog.width() > window.width() or dialog.height() > window.height():
                large[type(dialog).__name__] = [dialog.width(), dialog.height()]
            look(type(dialog).__name__, dialog)
            dialog.close()
    # In the smallest window every page has the room that it needs.
    window.resize(window.minimumSize())
    for page in ("sheet", "macro", "devices", "journal", "range"):
        window.shown.show_page(page)
        QTest.qWait(250)
        part: QWidget = getattr(window, page)
        needs = part.minimumSizeHint()
        if needs.width() > part.width() or needs.height() > part.height():
            large[page] = [needs.width(), needs.height()]
    window.close()
    table = ET.parse(nakrel.language.FOLDER / "nakrel_de.ts").getroot()
    known = {(each.findtext("source", ""), each.findtext("comment", "")) for each in table.iter("message")}
    # What stands on keys as a letter, a figure or a number is the same everywhere.
    known |= {(control.label, "key") for control in CONTROLS.values() if not re.search("[A-Za-z]{2}", control.label)}
    json.dump({"untold": untold, "cut": cut, "large": large, "unknown": sorted(LOOKED_UP - known)}, sys.stdout)
    leave(app, 0)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
