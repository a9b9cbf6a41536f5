"""Undo while a field has the focus."""

from __future__ import annotations

import contextlib

from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtGui import QKeyEvent, QKeySequence
from PyQt6.QtWidgets import QAbstractSpinBox, QApplication, QLineEdit, QWidget

__all__ = ["FieldUndo"]


class FieldUndo(QObject):
    """A field takes Ctrl+Z for itself even where it has nothing to undo. With this it is the field's only as long as
    something is being typed in it; then it undoes the last edit, wherever the focus is."""

    def __init__(self, app: QApplication) -> None:
        super().__init__(app)
        app.focusChanged.connect(self._focus_changed)

    def _focus_changed(self, old: QWidget | None, new: QWidget | None) -> None:
        # Only the field with the focus is watched: an event filter for all would see every event there is.
        if old is not None and (before := _field(old)) is not None:
            old.removeEventFilter(self)
            with contextlib.suppress(TypeError):
                before.editingFinished.disconnect(self._committed)
        if new is not None and (now := _field(new)) is not None:
            new.installEventFilter(self)
            now.editingFinished.connect(self._committed)

    def _committed(self) -> None:
        """What was typed has been taken: it is an edit now."""
        if isinstance(field := self.sender(), QLineEdit):
            field.setModified(False)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Keep the field from claiming the shortcut where it has nothing to undo or redo."""
        field = _field(watched) if isinstance(watched, QWidget) else None
        if (
            field is not None
            and isinstance(event, QKeyEvent)
            and event.type() == QEvent.Type.ShortcutOverride
            and not field.isModified()
            and (event.matches(QKeySequence.StandardKey.Undo) or event.matches(QKeySequence.StandardKey.Redo))
        ):
            event.ignore()
            return True
        return False


def _field(widget: QWidget) -> QLineEdit | None:
    # A spin box has the focus itself, and hands its keys on to a field of its own. lineEdit() would be that, but isn't
    # for us where Qt made the box, as in its colour dialog.
    if isinstance(widget, QAbstractSpinBox):
        return widget.findChild(QLineEdit)
    return widget if isinstance(widget, QLineEdit) else None
