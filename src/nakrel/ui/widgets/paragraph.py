"""A field for a text of several lines, which is as high as what stands in it."""

from __future__ import annotations

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QKeyEvent
from PyQt6.QtWidgets import QPlainTextEdit

__all__ = ["Paragraph"]

_LEAST_LINES, _MOST_LINES = 1, 8


class Paragraph(QPlainTextEdit):
    """`committed` gives the text when the field is left, or with Ctrl+Enter; Esc brings back what was there."""

    committed = pyqtSignal(str)

    def __init__(self, name: str, example: str = "", most: int = 4_000) -> None:
        super().__init__()
        self._shown, self._most = "", most
        self.setAccessibleName(name)
        self.setPlaceholderText(example)
        self.setTabChangesFocus(True)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.textChanged.connect(self._fit)
        self._fit()

    def show_text(self, text: str) -> None:
        """Show this text, unless another is being typed."""
        if not self.hasFocus() and text != self.toPlainText():
            self.setPlainText(text)
        if not self.hasFocus():
            self._shown = text

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """What stands here now is what Esc brings back."""
        super().focusInEvent(event)
        self._shown = self.toPlainText()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        """Take what was typed."""
        super().focusOutEvent(event)
        self._commit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Ctrl+Enter takes it, Esc doesn't."""
        if event and event.key() == Qt.Key.Key_Escape and self.toPlainText() != self._shown:
            self.setPlainText(self._shown)
        elif (
            event
            and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter)
            and event.modifiers() & Qt.KeyboardModifier.ControlModifier
        ):
            self._commit()
        else:
            super().keyPressEvent(event)

    def _commit(self) -> None:
        text = self.toPlainText()[: self._most]
        if text != self._shown:
            self._shown = text
            self.committed.emit(text)

    def _fit(self) -> None:
        document = self.document()
        lines = max(_LEAST_LINES, min(_MOST_LINES, int(document.size().height()) if document else 1))
        self.setFixedHeight(lines * self.fontMetrics().lineSpacing() + 18)
        more = document is not None and int(document.size().height()) > _MOST_LINES
        policy = Qt.ScrollBarPolicy.ScrollBarAsNeeded if more else Qt.ScrollBarPolicy.ScrollBarAlwaysOff
        self.setVerticalScrollBarPolicy(policy)
