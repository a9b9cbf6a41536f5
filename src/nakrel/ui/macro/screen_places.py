"""Pointer steps and the screen: picking their places, and showing where they go."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QWidget

from nakrel import protocol as m
from nakrel.core.model.errors import DataError
from nakrel.core.model.steps import Pointer
from nakrel.ui.screen import Picker, Pointing
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.words import tr

__all__ = ["ScreenPlaces"]


class ScreenPlaces(QObject):
    """Asks the service where things are, then dims the screens; one picker at a time."""

    ended = pyqtSignal()

    def __init__(self, store: Store, shown: Shown, of: QWidget) -> None:
        super().__init__(of)
        self._store, self._shown, self._of = store, shown, of
        self.picker: Picker | None = None
        self.pointing: Pointing | None = None

    def pick(self, taken: Callable[[Pointer], None], *, single: bool = False) -> None:
        """Pick one place, or several in a row; `taken` gets a pointer step for each."""
        if self.picker is not None:
            return
        self.picker = picker = Picker(self._of.window(), single=single)
        picker.taken.connect(taken)
        picker.ended.connect(self._ended)
        self._ask(picker.start)

    def _ended(self) -> None:
        self.picker = None
        self.ended.emit()

    def show(self, steps: Sequence[Pointer]) -> None:
        """Draw on the screen where these steps go."""

        def start(places: m.Places) -> None:
            self.pointing = Pointing(self._of.window())
            try:
                self.pointing.start(steps, places)
            except DataError as error:
                self._store.fault.emit(tr("It can't be shown: {error}.").format(error=error))

        if steps:
            self._ask(start)

    def _ask(self, then: Callable[[m.Places], None]) -> None:
        """Ask where the screens, the pointer and the window of the shown profile's program are."""

        def answered(answer: m.AnswerBody) -> None:
            if isinstance(answer, m.Places):
                then(answer)
            elif isinstance(answer, m.Refused):
                self.picker = None
                self._store.fault.emit(answer.error)

        self._store.ask(m.GetPlaces(self._shown.profile.id if self._shown.profile else ""), answered)
