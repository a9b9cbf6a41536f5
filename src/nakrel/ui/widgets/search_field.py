"""The field above a list that looks for something in it."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QAbstractItemView, QLineEdit, QWidget

__all__ = ["SearchField"]


class SearchField(QLineEdit):
    """Down or Enter goes on to what was found, Esc shows all again."""

    def __init__(self, says: str) -> None:
        super().__init__()
        self.setPlaceholderText(says)
        self.setAccessibleName(says)
        self.setClearButtonEnabled(True)
        self._places: tuple[QWidget, ...] = ()

    def lead_to(self, *places: QWidget) -> None:
        """Where what is found stands: it goes to the first of these that is seen and has anything."""
        self._places = places

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Handle the keys that leave it; a dialog would take Enter and Esc for its own end."""
        if event is None:
            return
        if event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._go_on()
        elif event.key() == Qt.Key.Key_Escape and self.text():
            self.clear()
        else:
            super().keyPressEvent(event)

    def _go_on(self) -> None:
        for place in self._places:
            if not place.isVisible():
                continue
            if isinstance(place, QAbstractItemView) and not _choose_some(place):
                continue
            place.setFocus()
            return


def _choose_some(view: QAbstractItemView) -> bool:
    """Have an entry current, the first where there was none; whether there is one."""
    model = view.model()
    if model is None or not model.rowCount():
        return False
    if not view.currentIndex().isValid():
        view.setCurrentIndex(model.index(0, 0))
    view.scrollTo(view.currentIndex())
    return view.currentIndex().isValid()
