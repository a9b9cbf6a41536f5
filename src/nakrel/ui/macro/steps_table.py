"""The step list as it is worked with: its keys, and typing in its rows."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol

from PyQt6.QtCore import QAbstractItemModel, QEvent, QItemSelectionModel, QModelIndex, QObject, QStringListModel, Qt
from PyQt6.QtGui import QKeyEvent, QKeySequence
from PyQt6.QtWidgets import QAbstractItemView, QCompleter, QLineEdit, QPlainTextEdit, QStyleOptionViewItem, QWidget

from nakrel.core import notation
from nakrel.ui.macro.steps_model import REMARK, TIME, WHAT
from nakrel.ui.widgets.rows import RowDelegate, Table
from nakrel.words import tr

__all__ = ["StepsTable"]

_COMMENT_PX = (240, 76)


class Host(Protocol):
    """What the list's own keys do."""

    def copy_selected(self) -> None: ...
    def cut_selected(self) -> None: ...
    def paste(self) -> None: ...
    def delete_selected(self) -> None: ...
    def move_selected(self, by: int) -> None: ...


class _StepDelegate(RowDelegate):
    """Completes the names of controls, and the words of the notation, while a step is typed."""

    def createEditor(self, parent: QWidget | None, option: QStyleOptionViewItem, index: QModelIndex) -> QWidget | None:
        """A field; for a step one that completes."""
        if index.column() == REMARK:
            return _Comment(parent)
        editor = super().createEditor(parent, option, index)
        if index.column() == WHAT and isinstance(editor, QLineEdit):
            completer = QCompleter(editor)
            completer.setModel(QStringListModel(completer))
            completer.setCompletionMode(QCompleter.CompletionMode.UnfilteredPopupCompletion)
            completer.setMaxVisibleItems(12)
            if popup := completer.popup():
                popup.setObjectName("offered")
            editor.setCompleter(completer)
            editor.textEdited.connect(lambda text: _offer(completer, text))
        return editor

    def setEditorData(self, editor: QWidget | None, index: QModelIndex) -> None:
        """Put a comment into its field, unless something was typed there."""
        if isinstance(editor, _Comment):
            if not editor.typed:
                editor.setPlainText(str(index.data(Qt.ItemDataRole.EditRole) or ""))
                editor.selectAll()
                editor.typed = False
        else:
            super().setEditorData(editor, index)

    def setModelData(self, editor: QWidget | None, model: QAbstractItemModel | None, index: QModelIndex) -> None:
        """Take the comment that was typed."""
        if isinstance(editor, _Comment) and model is not None:
            model.setData(index, editor.toPlainText().rstrip())
        else:
            super().setModelData(editor, model, index)

    def updateEditorGeometry(self, editor: QWidget | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        """A comment's field is as high as a few lines, over the rows below."""
        super().updateEditorGeometry(editor, option, index)
        if isinstance(editor, _Comment) and (ground := editor.parentWidget()):
            place = option.rect
            left = min(place.left(), ground.width() - _COMMENT_PX[0])
            top = max(0, min(place.top(), ground.height() - _COMMENT_PX[1]))
            editor.setGeometry(left, top, max(place.width(), _COMMENT_PX[0]), _COMMENT_PX[1])

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Enter takes a comment, Shift+Enter begins a new line of it."""
        enter = isinstance(event, QKeyEvent) and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter)
        if isinstance(watched, _Comment) and isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            watched.typed = True
            if enter and event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
                return False
            if enter:
                self.commitData.emit(watched)
                self.closeEditor.emit(watched)
                return True
        return super().eventFilter(watched, event)


class _Comment(QPlainTextEdit):
    """A field for a comment of several lines; `typed` says that something was typed there."""

    def __init__(self, parent: QWidget | None) -> None:
        super().__init__(parent)
        self.typed = False
        self.setAccessibleName(tr("Comment; Shift+Enter begins a new line"))
        self.setTabChangesFocus(True)


def _offer(completer: QCompleter, line: str) -> None:
    """Offer the lines that what stands there could become."""
    lines = [notation.completed(line, each) for each in notation.completions(line)]
    model = completer.model()
    assert isinstance(model, QStringListModel)
    model.setStringList([each for each in lines if each != line])


class StepsTable(Table):
    """The step list: Enter edits the time, Delete deletes, rows are dragged."""

    def __init__(self, host: Host, edit_row: Callable[[QModelIndex], object]) -> None:
        super().__init__(tr("Steps"))
        self._host, self._edit_row = host, edit_row
        self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.setDragDropOverwriteMode(False)
        self.setEditTriggers(
            QAbstractItemView.EditTrigger.DoubleClicked
            | QAbstractItemView.EditTrigger.EditKeyPressed
            | QAbstractItemView.EditTrigger.AnyKeyPressed
        )
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.setItemDelegate(_StepDelegate(self))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Handle the list's own keys; typing a figure anywhere in a row types its time."""
        if event is None:
            return
        index = self.currentIndex()
        if self.state() == QAbstractItemView.State.EditingState:
            # A key that the field being edited has passed on; Enter has just ended it.
            super().keyPressEvent(event)
        elif event.matches(QKeySequence.StandardKey.Copy):
            self._host.copy_selected()
        elif event.matches(QKeySequence.StandardKey.Cut):
            self._host.cut_selected()
        elif event.matches(QKeySequence.StandardKey.Paste):
            self._host.paste()
        elif event.matches(QKeySequence.StandardKey.Delete) or event.key() == Qt.Key.Key_Backspace:
            self._host.delete_selected()
        elif event.key() == Qt.Key.Key_F2 and index.isValid():
            self._edit_row(index.siblingAtColumn(WHAT))
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and index.isValid():
            self.setFocus()
            self._edit_row(index)
        elif event.text().isdecimal() and index.isValid() and index.column() < TIME:
            self.selectionModel().setCurrentIndex(  # type: ignore[union-attr]
                index.siblingAtColumn(TIME), QItemSelectionModel.SelectionFlag.NoUpdate
            )
            super().keyPressEvent(event)
        elif event.modifiers() & Qt.KeyboardModifier.AltModifier and event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self._host.move_selected(-1 if event.key() == Qt.Key.Key_Up else 1)
        else:
            super().keyPressEvent(event)
