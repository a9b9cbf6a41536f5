"""The macro as text, to be read and typed."""

from __future__ import annotations

import msgspec
from PyQt6.QtCore import QStringListModel, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QColor, QFocusEvent, QKeyEvent, QResizeEvent, QTextCharFormat, QTextCursor
from PyQt6.QtWidgets import QCompleter, QPlainTextEdit, QTextEdit, QVBoxLayout, QWidget

from nakrel.core import notation
from nakrel.core.edit.builders import controls_of
from nakrel.core.model.controls import labels_in_use
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.names import name_of
from nakrel.core.model.steps import Repeat, Tap, Wait
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.ui.theme import palette
from nakrel.ui.widgets.basics import label, restyle
from nakrel.words import sentence, tr

__all__ = ["NotationView"]

# How long nothing is typed before what stands there is taken.
_PAUSE_MS = 700
# Longer macros would make each pause in the typing a long one.
MOST_STEPS = 20_000
_HELP = tr("One step a line; Ctrl+Space completes. What you type is taken as soon as it can be read.")
# What is shown where nothing is written yet.
_EXAMPLE = (
    Tap(control="KEY_Q", hold_us=30_000),
    Wait(wait_us=20_000),
    Repeat(times=3, steps=(Tap(control="KEY_E", hold_us=30_000), Wait(wait_us=50_000))),
)
_LINE_PX = 16
# So many keys are told that have another name here than on the keyboard.
_MOST_KEYS = 4


def _help_for(macro: Macro | None) -> str:
    """What can be done here, and which keys have other names here than on the keyboard in use: those of the macro,
    else one for all."""
    if not (others := labels_in_use()):
        return _HELP
    used = [code for code in controls_of(macro) if code in others] if macro else []
    found = [
        tr("{printed} is {name}").format(printed=others[code], name=name_of(code))
        for code in (used or list(others)[:1])[:_MOST_KEYS]
    ]
    us = tr("In text keys have the names of the US layout, here and in files: {keys}.").format(keys=", ".join(found))
    return f"{_HELP} {us}"


class _Editor(QPlainTextEdit):
    """Indents like the line before, completes on Ctrl+Space, and says when it is left."""

    left = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName(tr("Text"))
        self.setPlaceholderText(f"{tr('For example:')}\n{notation.write_steps(_EXAMPLE)}")
        self.setTabChangesFocus(True)
        self.setLineWrapMode(QPlainTextEdit.LineWrapMode.NoWrap)
        self.completer = QCompleter()
        self.completer.setWidget(self)
        self.completer.setCompletionMode(QCompleter.CompletionMode.UnfilteredPopupCompletion)
        self.completer.activated.connect(self._complete)

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        """Say so."""
        super().focusOutEvent(event)
        self.left.emit()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Keep the line that is typed in sight."""
        super().resizeEvent(event)
        if self.hasFocus():
            self.ensureCursorVisible()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Handle the keys that indent and complete."""
        if event is None:
            return
        popup = self.completer.popup()
        if popup and popup.isVisible() and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Escape):
            event.ignore()
        elif event.key() == Qt.Key.Key_Space and event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.offer()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            line = self._line_so_far()
            indent = len(line) - len(line.lstrip(" "))
            deeper = 4 if line.partition("#")[0].rstrip().endswith(":") else 0
            self.insertPlainText("\n" + " " * (indent + deeper))
            self.ensureCursorVisible()
        else:
            super().keyPressEvent(event)

    def offer(self) -> None:
        """Show what could stand here; take it at once where it is the only thing."""
        found = notation.completions(self._line_so_far())
        if len(found) == 1:
            self._complete(found[0])
        elif found:
            self.completer.setModel(QStringListModel(found, self.completer))
            place = self.cursorRect()
            place.setWidth(220)
            self.completer.complete(place)

    def _line_so_far(self) -> str:
        cursor = self.textCursor()
        return cursor.block().text()[: cursor.positionInBlock()]

    def _complete(self, text: str) -> None:
        line = self._line_so_far()
        cursor = self.textCursor()
        cursor.movePosition(cursor.MoveOperation.Left, cursor.MoveMode.KeepAnchor, len(line))
        cursor.insertText(notation.completed(line, text))


class NotationView(QWidget):
    """Shows a macro's text; what is typed becomes one undoable edit for each pause in the typing."""

    typed = pyqtSignal()

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        self._macro: Macro | None = None
        self.editor = _Editor()
        self.message = label(_HELP, "soft", wrap=True)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(_PAUSE_MS)
        self._timer.timeout.connect(self.apply)
        self.editor.left.connect(self.apply)
        self.editor.textChanged.connect(self._typed)
        self._showing = False
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.editor, 1)
        layout.addWidget(self.message)
        # Most errors have room there: the text stands still while one comes and goes.
        self.message.setMinimumHeight(2 * _LINE_PX)
        self.message.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignLeft)

    def set_macro(self, macro: Macro | None) -> None:
        """Show this macro; what is being typed of the same macro stays as it is typed."""
        same = macro is not None and self._macro is not None and macro.id == self._macro.id
        self._macro = macro
        if same and not self.editor.isReadOnly() and not self.editor.extraSelections():
            # What the macro presses, and what that is called, may have changed.
            self.message.setText(_help_for(macro))
        if macro is None or (same and not self.editor.isReadOnly() and self._reads_as(macro)):
            return
        self._showing = True
        size = sum(len(macro.section(section)) for section in Section)
        self.editor.setReadOnly(size > MOST_STEPS)
        self.editor.setPlainText("" if size > MOST_STEPS else notation.write(macro))
        self._showing = False
        self._fault(None)
        if size > MOST_STEPS:
            self.message.setText(
                tr(
                    "This macro has {size} steps, more than the {most} that can be worked on as text. Work on it in "
                    "the list, or export it (Ctrl+E)."
                ).format(size=size, most=MOST_STEPS)
            )

    def apply(self) -> None:
        """Make what stands there the macro's steps, or say where it can't be read."""
        self._timer.stop()
        if self._macro is None or self.editor.isReadOnly():
            return
        try:
            found = notation.read(self.editor.toPlainText())
        except notation.NotationError as error:
            self._fault(error)
            return
        self._fault(None)
        after = msgspec.structs.replace(self._macro, **{section.value: steps for section, steps in found.items()})
        if after != self._macro:
            commands.edit_macro(self._store, tr("notation of {name}").format(name=self._macro.name), after)

    def _reads_as(self, macro: Macro) -> bool:
        try:
            found = notation.read(self.editor.toPlainText())
        except notation.NotationError:
            return self.editor.hasFocus()
        return all(macro.section(section) == steps for section, steps in found.items())

    def _typed(self) -> None:
        if not self._showing:
            self._timer.start()
            self.typed.emit()

    def _fault(self, error: notation.NotationError | None) -> None:
        restyle(self.message, "alarm" if error else "soft")
        self.message.setText(sentence(str(error), stop=False) if error else _help_for(self._macro))
        marks = []
        if error:
            cursor = QTextCursor(self.editor.document())
            cursor.movePosition(cursor.MoveOperation.Down, n=error.line - 1)
            mark, form = QTextEdit.ExtraSelection(), QTextCharFormat()
            ground = QColor(palette().alarm)
            ground.setAlphaF(0.14)
            form.setBackground(ground)
            form.setProperty(QTextCharFormat.Property.FullWidthSelection, True)
            mark.cursor, mark.format = cursor, form
            marks.append(mark)
        self.editor.setExtraSelections(marks)
