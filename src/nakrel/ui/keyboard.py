"""The keyboard in use: what is printed on its keys and what they make, as the service finds it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject, pyqtSignal

from nakrel import protocol as m
from nakrel.core.model.controls import Levels, use_labels
from nakrel.core.model.keyboard import labels_by

__all__ = ["Keyboard"]


class Keyboard(QObject):
    """From what it learns on, the window calls keys by what is printed on them."""

    # Something else is printed on keys than was known; `renamed` where keys are called otherwise, too.
    changed = pyqtSignal()
    renamed = pyqtSignal()

    def __init__(self, of: QObject, ask: Callable[[m.Body, Callable[[m.AnswerBody], None]], None]) -> None:
        super().__init__(of)
        self._ask = ask
        self.layout = ""
        self.legends: dict[str, str] = {}
        self.levels: dict[str, Levels] = {}

    def look(self, layout: str | None = None) -> None:
        """Learn of the layout in use: the one of the settings, '' for the desktop's; None for the one as before."""
        self.layout = self.layout if layout is None else layout
        self._ask(m.GetLegends(self.layout), self._learn)

    def follow(self, layout: str) -> None:
        """The settings may have another layout now."""
        if layout != self.layout:
            self.look(layout)

    def _learn(self, answer: m.AnswerBody) -> None:
        if not isinstance(answer, m.Legends) or (answer.legends, answer.levels) == (self.legends, self.levels):
            return
        self.legends, self.levels = dict(answer.legends), dict(answer.levels)
        self.changed.emit()
        if use_labels(labels_by(self.legends, self.levels)):
            self.renamed.emit()
