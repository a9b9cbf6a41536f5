"""All shortcuts on one sheet."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QDialog, QGridLayout, QWidget

from nakrel.ui.widgets.basics import label
from nakrel.words import tr

__all__ = ["ShortcutSheet"]

_IN_LISTS = (
    ("Enter", tr("edit")),
    ("Delete", tr("delete, or leave the button unchanged")),
    ("F2", tr("rename; in steps, type the step anew")),
    ("Alt+Up, Alt+Down", tr("move steps")),
    ("Ctrl+C, Ctrl+X, Ctrl+V", tr("copy, cut and paste steps (as text), and what buttons do")),
    ("Ctrl+Space", tr("complete, in the text")),
    (tr("a figure in a step's row"), tr("type its time")),
    (tr("a letter on the button list"), tr("search")),
)
_IN_THE_DIAGRAM = (
    (tr("arrows"), tr("to the next edge, to another trace")),
    ("Alt+Left, Alt+Right", tr("move what is picked by a step of the grid; with Ctrl by ten")),
    ("Shift+Left, Shift+Right", tr("pick one more edge")),
    ("H", tr("the whole hold, or its edge")),
    ("C", tr("measure from here")),
    ("Enter", tr("type the distance measured")),
    ("Ctrl+A, Esc", tr("pick all, nothing")),
    ("Alt+Up, Alt+Down", tr("move the trace")),
    (tr("+, -, 0 or the wheel"), tr("zoom in, out, show all")),
)


class ShortcutSheet(QDialog):
    """Made from the actions themselves, so that it is never out of date."""

    def __init__(self, groups: Mapping[str, Sequence[QAction]], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Shortcuts"))
        grid = QGridLayout(self)
        grid.setContentsMargins(24, 18, 24, 18)
        grid.setHorizontalSpacing(28)
        row = 0
        for group, actions in groups.items():
            keyed = [action for action in actions if not action.shortcut().isEmpty()]
            if keyed:
                grid.addWidget(label(tr(group, "menu"), "heading"), row, 0)
            for action in keyed:
                keys = action.shortcut().toString(QKeySequence.SequenceFormat.NativeText)
                grid.addWidget(label(keys), row, 1)
                grid.addWidget(label(action.statusTip() or action.text()), row, 2)
                row += 1
        # A second column of groups, so that all of it fits on a small screen.
        row = 0
        for group, lines in ((tr("In lists"), _IN_LISTS), (tr("In the diagram"), _IN_THE_DIAGRAM)):
            grid.addWidget(label(group, "heading"), row, 3)
            for keys, text in lines:
                grid.addWidget(label(_native(keys)), row, 4)
                grid.addWidget(label(text), row, 5)
                row += 1


def _native(keys: str) -> str:
    """Keys as this language has them on its keyboards; words are what they are."""
    found = [QKeySequence(each).toString(QKeySequence.SequenceFormat.NativeText) for each in keys.split(", ")]
    return ", ".join(found) if all(found) else keys
