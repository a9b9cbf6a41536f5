"""One line of text that takes the room there is, and tells all of it as its tip where that isn't enough."""

from __future__ import annotations

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QLabel, QSizePolicy

__all__ = ["Elided"]


class Elided(QLabel):
    """A label; `text` is what is seen, `full_text` all of it."""

    def __init__(self, name: str = "") -> None:
        super().__init__()
        self.setObjectName(name)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.full_text = ""

    def set_text(self, text: str) -> None:
        """Show this."""
        if text != self.full_text:
            self.full_text = text
            self.setAccessibleName(text)
            self._fit()

    def minimumSizeHint(self) -> QSize:
        """Any width will do."""
        return QSize(20, super().minimumSizeHint().height())

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Show what fits."""
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        one_line = " ".join(self.full_text.split("\n"))
        shown = self.fontMetrics().elidedText(one_line, Qt.TextElideMode.ElideRight, max(0, self.width() - 2))
        if shown != self.text():
            self.setText(shown)
        self.setToolTip(self.full_text if shown != one_line else "")
