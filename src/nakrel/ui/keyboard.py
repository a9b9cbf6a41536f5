"""The keyboard in use: what is printed on its keys and what they make, as the service finds it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QGuiApplication, QKeyEvent, QWindow

from nakrel import protocol as m
from nakrel.core.model.controls import Levels, use_labels
from nakrel.core.model.keyboard import labels_by, letters_beside
from nakrel.window_events import key_of, watch_instead

__all__ = ["Keyboard"]

# With these a key makes something else than what is printed on it.
_OTHERS = (
    Qt.KeyboardModifier.ControlModifier
    | Qt.KeyboardModifier.AltModifier
    | Qt.KeyboardModifier.MetaModifier
    | Qt.KeyboardModifier.GroupSwitchModifier
)


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
        # The window that has the keyboard, and what keys made in it that isn't printed on them as far as is known.
        self._watched: QWindow | None = None
        self._unexpected: set[tuple[str, str]] = set()
        if isinstance(app := QGuiApplication.instance(), QGuiApplication):
            app.focusWindowChanged.connect(self._watch)

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
        self._unexpected.clear()
        renamed = use_labels(labels_by(self.legends, self.levels), letters_beside(self.legends))
        self.changed.emit()
        if renamed:
            self.renamed.emit()

    def _watch(self, window: QWindow | None) -> None:
        """Watch the window that has the keyboard: a layout is changed with a key, too, while one types there."""
        before, self._watched = self._watched, window
        watch_instead(self, before, window)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Look again where a key makes another letter than is known; the event goes on in any case."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            made, key = event.text(), key_of(event)
            if key and len(made) == 1 and made.isalpha() and not event.modifiers() & _OTHERS:
                known = (key.code, made.casefold())
                if self.legends.get(key.code, "").casefold() != known[1] and known not in self._unexpected:
                    self._unexpected.add(known)
                    self.look()
        return False
