"""What a list says when it is empty, with the way back."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QAbstractItemModel
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QWidget

from nakrel.ui.widgets.basics import button, label
from nakrel.words import tr

__all__ = ["NothingHere", "nothing_matches"]


def nothing_matches(typed: str) -> str:
    """The sentence for a search without a result."""
    return tr("Nothing here matches “{value}”.").format(value=typed.strip())


class NothingHere(QWidget):
    """Says that nothing is there, and why, beside a button that shows everything again."""

    def __init__(self, show_all: Callable[[], object]) -> None:
        super().__init__()
        self.text = label("", "soft", wrap=True)
        self.all_button = button(tr("Show all"), show_all, "link")
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.text, 1)
        layout.addWidget(self.all_button)
        self.hide()

    def say(self, what: str) -> None:
        """Show the sentence, or nothing when it is empty."""
        self.text.setText(what)
        self.setVisible(bool(what))

    def follow(self, search: QLineEdit, *models: QAbstractItemModel) -> NothingHere:
        """Speak while something is searched for and none of the models has a row."""

        def look() -> None:
            typed = search.text().strip()
            self.say(nothing_matches(typed) if typed and not any(model.rowCount() for model in models) else "")

        for model in models:
            model.modelReset.connect(look)
            model.rowsInserted.connect(look)
            model.rowsRemoved.connect(look)
        search.textChanged.connect(look)
        return self
