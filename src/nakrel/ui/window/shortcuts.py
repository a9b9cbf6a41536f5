"""All shortcuts on one sheet."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QDialog, QGridLayout, QWidget

from nakrel.ui.widgets.basics import label

__all__ = ["ShortcutSheet"]

_IN_LISTS = (
    ("Enter", "edit"),
    ("Delete", "delete, or leave the button unchanged"),
    ("F2", "rename; in steps, type the step anew"),
    ("Alt+Up, Alt+Down", "move steps"),
    ("Ctrl+C, Ctrl+X, Ctrl+V", "copy, cut and paste steps (as text), and what buttons do"),
    ("Ctrl+Space in the text", "complete"),
    ("a figure in a step's row", "type its time"),
    ("a letter on the button list", "search"),
)
_IN_THE_DIAGRAM = (
    ("arrows", "to the next edge, to another trace"),
    ("Alt+Left, Alt+Right", "move what is picked by a step of the grid; with Ctrl by ten"),
    ("Shift+Left, Shift+Right", "pick one more edge"),
    ("H", "the whole hold, or its edge"),
    ("C", "measure from here"),
    ("Enter", "type the distance measured"),
    ("Ctrl+A, Esc", "pick all, nothing"),
    ("Alt+Up, Alt+Down", "move the trace"),
    ("+, -, 0, wheel", "zoom in, out, show all"),
)


class ShortcutSheet(QDialog):
    """Made from the actions themselves, so that it is never out of date."""

    def __init__(self, groups: Mapping[str, Sequence[QAction]], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Shortcuts")
        grid = QGridLayout(self)
        grid.setContentsMargins(24, 18, 24, 18)
        grid.setHorizontalSpacing(28)
        row = 0
        for group, actions in groups.items():
            keyed = [action for action in actions if not action.shortcut().isEmpty()]
            grid.addWidget(label(group, "heading"), row, 0)
            for action in keyed:
                keys = action.shortcut().toString(QKeySequence.SequenceFormat.NativeText)
                grid.addWidget(label(keys), row, 1)
                grid.addWidget(label(action.statusTip() or action.text()), row, 2)
                row += 1
        # A second column of groups, so that all of it fits on a small screen.
        row = 0
        for group, lines in (("In lists", _IN_LISTS), ("In the diagram", _IN_THE_DIAGRAM)):
            grid.addWidget(label(group, "heading"), row, 3)
            for keys, text in lines:
                grid.addWidget(label(keys), row, 4)
                grid.addWidget(label(text), row, 5)
                row += 1
