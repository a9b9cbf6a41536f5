"""Choosing a key or a button by its name."""

from __future__ import annotations

from collections.abc import Iterable

from PyQt6.QtCore import QStringListModel, pyqtSignal
from PyQt6.QtWidgets import QComboBox, QCompleter

from nakrel.core.model.controls import printed_beside
from nakrel.core.model.errors import DataError
from nakrel.core.model.names import rank, read_shown
from nakrel.ui.widgets.basics import NamedCombo

__all__ = ["ControlChoice"]

_MOST = 40
# What follows a name in the list stands behind this: its code, or why it is offered first.
_HINT = "  ("


class ControlChoice(NamedCombo):
    """A list that is also typed into: names that fit are offered with the best first. `chosen` gives the code, also of
    a name that was typed; `refused` says why what was typed is none."""

    chosen = pyqtSignal(str)
    refused = pyqtSignal(str)

    def __init__(self, name: str) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setEditable(True)
        self.setInsertPolicy(QComboBox.InsertPolicy.NoInsert)
        self._found = QStringListModel(self)
        completer = QCompleter(self._found, self)
        completer.setCompletionMode(QCompleter.CompletionMode.UnfilteredPopupCompletion)
        completer.setMaxVisibleItems(12)
        self.setCompleter(completer)
        completer.activated[str].connect(self._finish)
        self.activated.connect(lambda number: self.chosen.emit(str(self.itemData(number))))
        if field := self.lineEdit():
            field.textEdited.connect(self._offer)
            field.editingFinished.connect(self._finish)

    def set_items(self, items: Iterable[tuple[str, str]]) -> None:
        """Offer these, each a text and a code; a hint may follow the name in the text, in brackets."""
        self.clear()
        for text, code in items:
            self.addItem(text, code)

    def show_code(self, code: str) -> None:
        """Show this control; '' for none."""
        self.setCurrentIndex(self.findData(code) if code else -1)

    def code(self) -> str:
        """The control that stands in the field: as it was chosen, or as its name was typed. Raises `DataError`."""
        text = self.currentText().strip()
        if text and text == self.itemText(self.currentIndex()):
            return str(self.currentData())
        for number in range(self.count()):
            if text.casefold() in (self.itemText(number).casefold(), _name(self.itemText(number)).casefold()):
                return str(self.itemData(number))
        return read_shown(text)

    def _offer(self, text: str) -> None:
        """Offer what fits, the best first."""
        fits, beside = [], printed_beside(text.strip())
        for number in range(self.count()):
            item = self.itemText(number)
            found = rank(_name(item), text) if text.strip() else None
            if found is None and len(text.strip()) > 2:
                found = None if rank(str(self.itemData(number)), text) is None else 4
            if beside and self.itemData(number) == beside:
                found = 0
            if found is not None:
                fits.append((found, number, item))
        self._found.setStringList([item for _, _, item in sorted(fits)[:_MOST]])

    def _finish(self, text: str | None = None) -> None:
        """Take what was typed."""
        field = self.lineEdit()
        if field is None or (text is None and not field.isModified()):
            return
        if text is not None:
            field.setText(text)
        field.setModified(False)
        if not field.text().strip():
            return
        try:
            code = self.code()
        except DataError as error:
            self.refused.emit(str(error))
            return
        self.show_code(code)
        self.chosen.emit(code)


def _name(text: str) -> str:
    return text.partition(_HINT)[0].strip("“”")
