"""All shortcuts on one sheet."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QDialog, QGridLayout, QHBoxLayout, QWidget

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
    (tr("Down or Enter in a search"), tr("to what was found")),
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

# What takes more than this goes on in a second line.
_MOST_PX = 300


class ShortcutSheet(QDialog):
    """Made from the actions themselves, so that it is never out of date."""

    def __init__(self, groups: Mapping[str, Sequence[QAction]], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Shortcuts"))
        # Two columns of groups, so that all of it fits on a small screen.
        columns = QHBoxLayout(self)
        columns.setContentsMargins(24, 18, 24, 18)
        columns.setSpacing(28)
        ours = [
            (tr(group, "menu"), [(_keys_of(action), action.statusTip() or action.text()) for action in actions])
            for group, actions in groups.items()
        ]
        columns.addLayout(_table([(group, [line for line in lines if line[0]]) for group, lines in ours]))
        columns.addLayout(
            _table(
                (group, [(_native(keys), text) for keys, text in lines])
                for group, lines in ((tr("In lists"), _IN_LISTS), (tr("In the diagram"), _IN_THE_DIAGRAM))
            )
        )


def _table(groups: Iterable[tuple[str, Sequence[tuple[str, str]]]]) -> QGridLayout:
    """A line for each key and what it does, under their groups."""
    grid = QGridLayout()
    grid.setHorizontalSpacing(28)
    grid.setVerticalSpacing(6)
    row = 0
    for group, lines in groups:
        if lines:
            grid.addWidget(label(group, "heading"), row, 0, Qt.AlignmentFlag.AlignTop)
        for keys, text in lines:
            grid.addWidget(label(keys), row, 1, Qt.AlignmentFlag.AlignTop)
            does = label(text)
            if does.sizeHint().width() > _MOST_PX:
                does.setWordWrap(True)
                does.setFixedWidth(_MOST_PX)
                does.setFixedHeight(does.heightForWidth(_MOST_PX))
            grid.addWidget(does, row, 2, Qt.AlignmentFlag.AlignTop)
            row += 1
    grid.setRowStretch(row, 1)
    return grid


def _keys_of(action: QAction) -> str:
    return action.shortcut().toString(QKeySequence.SequenceFormat.NativeText)


def _native(keys: str) -> str:
    """Keys as this language has them on its keyboards; words are what they are."""
    found = [QKeySequence(each).toString(QKeySequence.SequenceFormat.NativeText) for each in keys.split(", ")]
    return ", ".join(found) if all(found) else keys
