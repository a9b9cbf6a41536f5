"""Playing a macro from the window: as a preview here, or in a few seconds to whatever is in front then."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QSize, QTimer
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from nakrel import protocol as m
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button
from nakrel.ui.widgets.elided import Elided
from nakrel.words import tr

__all__ = ["PlayNow"]

_LATER_S = 3


class _Later(QPushButton):
    """The button that says one of two things, as wide as the longer one."""

    def __init__(self, *texts: str) -> None:
        super().__init__(texts[0])
        self._texts = texts
        self.setAutoDefault(False)
        self.setToolTip(tr("Bring the game to the front meanwhile"))

    def sizeHint(self) -> QSize:
        """Room for either."""
        hint, width = super().sizeHint(), self.fontMetrics().horizontalAdvance
        hint.setWidth(hint.width() - width(self.text()) + max(map(width, self._texts)))
        return hint


class PlayNow(QWidget):
    """*Preview* plays for the window, where nothing else gets it; *Play in 3 s* counts down, so that the game can be
    brought to the front; *Stop* ends what runs, and has its place also while nothing does: the others would go from
    under the hand. `what` gives the request, None where there is no macro."""

    def __init__(self, store: Store, what: Callable[[], m.Play_ | None]) -> None:
        super().__init__()
        self._store, self._what = store, what
        self._left = 0
        self._wanted: m.Play_ | None = None
        self._timer = QTimer(self)
        self._timer.setInterval(1_000)
        self._timer.timeout.connect(self._second)
        self.preview = button(tr("Preview"), self._play, tip=tr("Play it here: nothing reaches a game"))
        self.later = _Later(tr("Play in 3 s"), tr("Cancel ({left})").format(left=_LATER_S))
        self.later.clicked.connect(lambda: self._count_down())
        self.stop = button(tr("Stop"), self._stop)
        self.run = Elided("soft")
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        for made in (self.preview, self.later, self.stop):
            layout.addWidget(made)
        layout.addWidget(self.run, 1)
        for changed in (store.status_changed, store.progress_changed):
            changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show whether the macro runs, and how far it is."""
        what = self._what()
        macro = self._store.macros.get(what.macro) if what else None
        can_play = macro is not None and not macro.is_empty
        self.preview.setEnabled(can_play)
        # What counts down already can be called off, as what runs can be stopped, whatever has been done to it since.
        self.later.setEnabled(can_play or self._timer.isActive())
        running = [run for run in self._store.status.running if what and run.macro == what.macro]
        self.stop.setEnabled(bool(running))
        far = running[0] if running and running[0].of > 1 else None
        self.run.set_text(tr("run {run} of {of}").format(run=far.run, of=far.of) if far else "")

    def _play(self) -> None:
        if what := self._what():
            self._store.ask(what)

    def _stop(self) -> None:
        if what := self._what():
            self._store.ask(m.Stop(what.macro))

    def _count_down(self) -> None:
        if self._timer.isActive():
            self._end()
            return
        self._wanted, self._left = self._what(), _LATER_S
        if self._wanted is not None:
            self._show()
            self._timer.start()

    def _second(self) -> None:
        self._left -= 1
        if self._left:
            self._show()
            return
        self._end()
        if self._wanted is not None:
            self._store.ask(self._wanted)

    def _show(self) -> None:
        self.later.setText(tr("Cancel ({left})").format(left=self._left))

    def _end(self) -> None:
        self._timer.stop()
        self.later.setText(tr("Play in 3 s"))
        self.refresh()
