"""The few settings of what a button does: of its text, its program, its layer, its pointer speed."""

from __future__ import annotations

import shlex

from msgspec.structs import replace
from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QCheckBox, QLineEdit, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.model.cells import Cell, ChangeSpeed, HoldLayer, StartProgram, TypeText
from nakrel.core.model.controls import CONTROLS, Kind
from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import MAX_RATE, MAX_TEXT
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import NumberField, button, form_row, label
from nakrel.ui.widgets.paragraph import Paragraph
from nakrel.words import sentence, tr

__all__ = ["CellSettings"]


class CellSettings(QWidget):
    """Shows those of one cell; `changed` gives the cell as it is to be, `refused` why something can't be."""

    changed = pyqtSignal(object)
    refused = pyqtSignal(str)
    layer_renamed = pyqtSignal(str, str)
    layer_deleted = pyqtSignal(str)

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        self._cell: Cell | None = None
        self.text = Paragraph(tr("Text"), tr("what it types"), MAX_TEXT)
        self.rate = NumberField()
        self.rate.setRange(1, MAX_RATE)
        self.rate.setKeyboardTracking(False)
        self.rate.setFixedWidth(96)
        self._rate_row = form_row(tr("characters a second"), self.rate)
        self.secret = QCheckBox(tr("secret: kept in the keyring, in no file"))
        self.secret_name, self.secret_text = QLineEdit(), QLineEdit()
        self.secret_text.setEchoMode(QLineEdit.EchoMode.Password)
        self.secret_text.setPlaceholderText(tr("the text; Enter keeps it"))
        self._name_row = form_row(tr("name of the secret"), self.secret_name)
        self._text_row = form_row(tr("secret text"), self.secret_text)
        self.command = QLineEdit()
        self.command.setAccessibleName(tr("Program and arguments"))
        self.command.setPlaceholderText(tr("program and arguments"))
        self.missing = label("", "alarm", wrap=True)
        self.allow = button(tr("Allow the program"), self._allow, "act")
        self.layer_name = QLineEdit()
        self.layer_name.setAccessibleName(tr("Name of the layer"))
        self.delete_layer = button(tr("Delete the layer"), self._delete_layer, "link")
        self.held = QCheckBox(tr("only while the button is held"))
        self._asked = ""
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(4)
        for part in (
            *(self.text, self._rate_row, self.secret, self._name_row, self._text_row),
            *(self.command, self.missing, self.allow, self.layer_name, self.delete_layer, self.held),
        ):
            layout.addWidget(part)
        self.text.committed.connect(self._text_typed)
        self.rate.valueChanged.connect(self._rate_chosen)
        self.secret.clicked.connect(lambda on: self.show_cell(self._cell, self._control))
        self.secret_text.returnPressed.connect(self._keep_secret)
        self.command.editingFinished.connect(self._command_typed)
        self.layer_name.editingFinished.connect(self._layer_typed)
        self.held.clicked.connect(self._held_clicked)
        self._control = ""
        self.show_cell(None, "")

    def show_cell(self, cell: Cell | None, control: str) -> None:
        """Show the settings of what this button does."""
        if cell != self._cell or control != self._control:
            self.secret.setChecked(isinstance(cell, TypeText) and bool(cell.secret))
        self._cell, self._control = cell, control
        typed, program = isinstance(cell, TypeText), isinstance(cell, StartProgram)
        secret = typed and self.secret.isChecked()
        self.text.setVisible(typed and not secret)
        self._rate_row.setVisible(typed)
        self.secret.setVisible(typed)
        self._name_row.setVisible(secret)
        self._text_row.setVisible(secret)
        self.command.setVisible(program)
        self.allow.setVisible(isinstance(cell, StartProgram) and cell.off)
        self.missing.setVisible(False)
        for part in (self.layer_name, self.delete_layer):
            part.setVisible(isinstance(cell, HoldLayer))
        turns = control in CONTROLS and CONTROLS[control].kind is Kind.WHEEL
        self.held.setVisible(isinstance(cell, ChangeSpeed) and bool(cell.to) and not turns)
        self._fill(cell)
        self.setVisible(isinstance(cell, TypeText | StartProgram | HoldLayer) or self.held.isVisibleTo(self))

    def _fill(self, cell: Cell | None) -> None:
        match cell:
            case TypeText(text=text, rate=rate, secret=name):
                self.text.show_text(text)
                self.rate.blockSignals(True)
                self.rate.setValue(rate)
                self.rate.blockSignals(False)
                if not self.secret_name.hasFocus():
                    self.secret_name.setText(name or self.secret_name.text())
            case StartProgram(command=command):
                if not self.command.hasFocus():
                    self.command.setText(shlex.join(command))
                    self.command.setCursorPosition(0)
                self._ask_about(command[0])
            case HoldLayer(layer=name):
                if not self.layer_name.hasFocus():
                    self.layer_name.setText(name)
            case ChangeSpeed(held=held):
                self.held.setChecked(held)

    def _ask_about(self, program: str) -> None:
        """Say when the program isn't there."""
        self._asked = program

        def answered(answer: m.AnswerBody) -> None:
            if isinstance(answer, m.Facts) and program == self._asked:
                wrong = answer.programs.get(program, "")
                self.missing.setText(sentence(wrong))
                self.missing.setVisible(bool(wrong))

        self._store.ask(m.GetFacts((), (program,), ()), answered)

    def _change(self, cell: Cell) -> None:
        if cell != self._cell:
            self.changed.emit(cell)

    def _text_typed(self, text: str) -> None:
        if isinstance(self._cell, TypeText):
            try:
                self._change(replace(self._cell, text=text, secret=""))
            except DataError as error:
                self.refused.emit(str(error))

    def _rate_chosen(self, rate: int) -> None:
        if isinstance(self._cell, TypeText):
            self._change(replace(self._cell, rate=rate))

    def _keep_secret(self) -> None:
        """Give the text to the keyring, and have the button type what is kept there."""
        name, text, cell = self.secret_name.text().strip(), self.secret_text.text(), self._cell
        if not isinstance(cell, TypeText):
            return
        if not name or not text:
            self.refused.emit(tr("A secret needs a text, and a name by which the button asks for it."))
            return

        def answered(answer: m.AnswerBody) -> None:
            if isinstance(answer, m.Refused):
                self.refused.emit(answer.error)
            else:
                self.secret_text.clear()
                self._change(TypeText(rate=cell.rate, secret=name))

        self._store.ask(m.PutSecret(name, text), answered)

    def _command_typed(self) -> None:
        if not self.command.isModified() or not isinstance(self._cell, StartProgram):
            return
        self.command.setModified(False)
        try:
            self._change(StartProgram(tuple(shlex.split(self.command.text()))))
        except ValueError as error:
            # A `DataError`, or a quote that isn't closed.
            self.refused.emit(str(error))

    def _allow(self) -> None:
        if isinstance(self._cell, StartProgram):
            self._change(replace(self._cell, off=False))

    def _layer_typed(self) -> None:
        name = self.layer_name.text().strip()
        if isinstance(self._cell, HoldLayer) and name and name != self._cell.layer:
            self.layer_renamed.emit(self._cell.layer, name)

    def _delete_layer(self) -> None:
        if isinstance(self._cell, HoldLayer):
            self.layer_deleted.emit(self._cell.layer)

    def _held_clicked(self, held: bool) -> None:
        if isinstance(self._cell, ChangeSpeed):
            self._change(replace(self._cell, held=held))
