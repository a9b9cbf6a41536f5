"""Opens the window in the pseudo-language on the demo's data, goes through every page and dialog, and prints as JSON
what isn't translatable, and what is cut off.

    python -m tests.ui.pseudo HOME

A process of its own, since texts are looked up when the parts of the window are loaded.
"""

from __future__ import annotations

import json
import os
import re
import sys
from collections.abc import Iterator
from pathlib import Path

os.environ |= {"NAKREL_LANGUAGE": "pseudo", "QT_QPA_PLATFORM": "offscreen"}

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import (
    QAbstractButton,
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
from nakrel.core.model.controls import CONTROLS
from nakrel.core.model.controls import label as control_label
from nakrel.ui.app import open_window
from nakrel.ui.devices.permissions import Permissions
from nakrel.ui.store import Store
from nakrel.ui.window.main_window import MainWindow

# What the pseudo-language marks every text with.
MARK = "⟦"
# Sentences are put together of single words, which have its accents.
_MARKED = re.compile(f"[{MARK}áçéíłñóŕšťúýž·]")
_WORD = re.compile(r"[A-Za-z]{2}")


def texts(root: QWidget) -> Iterator[tuple[QWidget, str]]:
    """All that is shown in a window as text of a widget, and what screen readers are told; cells of tables are the
    core's words, and stand in the notation."""
    for each in (root, *root.findChildren(QWidget)):
        if not each.isVisible():
            continue
        if isinstance(each, QLabel | QAbstractButton):
            yield each, each.text()
        if isinstance(each, QLineEdit):
            yield each, each.placeholderText()
        if isinstance(each, QTableView) and (model := each.model()):
            for column in range(model.columnCount()):
                yield each, str(model.headerData(column, Qt.Orientation.Horizontal) or "")
        if isinstance(each, QWidget) and not isinstance(each, QComboBox):
            yield each, each.toolTip()
            yield each, each.accessibleName()


def made_elsewhere(store: Store) -> set[str]:
    """What isn't the window's: names, keys, and what the core and the service say."""
    found = {control_label(code) for code in CONTROLS} | set(CONTROLS)
    for profile in store.profiles.values():
        found |= {profile.name, *(setup.name for setup in profile.setups), *(rule.value for rule in profile.programs)}
        found |= {layer.name for setup in profile.setups for layer in setup.layers}
    found |= {macro.name for macro in store.macros.values()}
    found |= {text for device in store.devices for text in (device.name, device.id, device.note)}
    found |= {store.status.backend_note, store.status.reason, "Nakrel", "ms", "px"}
    return found


def of_the_core(window: MainWindow) -> set[QWidget]:
    """Where the core answers: those texts have no other language yet."""
    check, details = window.macro_details.frame_check, window.macro_details
    board = window.sheet
    return {check.answer, check.advice, check.order, details._rate, board._kind}


def is_ours(widget: QWidget, text: str, elsewhere: set[str]) -> bool:
    """Whether the text is one that the window itself says."""
    if _MARKED.search(text) or not _WORD.search(text) or text.strip(" ×■●·") in elsewhere:
        return False
    parent: QWidget | None = widget
    while parent is not None:
        # The doctor's findings, and what the core answers of frames and rates.
        if isinstance(parent, Permissions):
            return False
        parent = parent.parentWidget()
    return True


def is_cut(widget: QWidget) -> bool:
    """Whether a button or a line of text has less room than it needs."""
    if isinstance(widget, QLabel) and (widget.wordWrap() or widget.pixmap()):
        return False
    shows = isinstance(widget, QLabel | QPushButton) and bool(widget.text())
    return shows and widget.sizeHint().width() > widget.width() + 1


def main(home: Path) -> None:
    """Go through all of it."""
    app = QApplication([])
    store = Store(lambda: ServiceConnection.connect(home / "run" / "service.sock", "pseudo"))
    store.open()
    window = open_window(app, store)
    window.resize(1280, 800)
    window.show()
    core = of_the_core(window)
    untold: dict[str, str] = {}
    cut: dict[str, str] = {}

    def look(place: str, root: QWidget) -> None:
        QTest.qWait(250)
        elsewhere = made_elsewhere(store)
        for widget, text in texts(root):
            if widget not in core and is_ours(widget, text, elsewhere):
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
    for dialog in app.topLevelWidgets():
        if isinstance(dialog, QDialog) and dialog.isVisible():
            look(type(dialog).__name__, dialog)
            dialog.close()
    window.close()
    json.dump({"untold": untold, "cut": cut}, sys.stdout)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
