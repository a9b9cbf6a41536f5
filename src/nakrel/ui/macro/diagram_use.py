"""What the diagram of a macro's page is used for: shaping, measuring, and following a run."""

from __future__ import annotations

from PyQt6.QtCore import QObject

from nakrel import protocol as m
from nakrel.core.model.macro import Macro
from nakrel.ui import commands
from nakrel.ui.macro.diagram import Diagram, DiagramBar
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.words import tr

__all__ = ["DiagramUse"]


class DiagramUse(QObject):
    """Joins the diagram and its bar with the macro that is shown and its runs."""

    def __init__(self, store: Store, shown: Shown, diagram: Diagram, bar: DiagramBar) -> None:
        super().__init__(diagram)
        self._store, self._shown = store, shown
        self._diagram, self._bar = diagram, bar
        diagram.edited.connect(self._shaped)
        diagram.message.connect(lambda message, wrong: bar.say(message, wrong=wrong))
        diagram.measured.connect(bar.measure)
        diagram.distance_wanted.connect(self._type_distance)
        bar.distance.connect(self._set_distance)
        bar.snap_chosen.connect(lambda grid_us: diagram.set_rate(shown.frames, grid_us))
        bar.zoomed.connect(diagram.zoom)
        bar.fitted.connect(diagram.fit)
        shown.frames_changed.connect(self._frames_changed)
        store.status_changed.connect(self.follow_run)
        store.seen.connect(self._seen)

    def follow_run(self) -> None:
        """Let the pen go while this macro runs."""
        key = self._shown.macro.id if self._shown.macro else ""
        since = next((run.since_us for run in self._store.status.running if run.macro == key), None)
        self._diagram.follow(since)

    def _shaped(self, macro: Macro, message: str) -> None:
        commands.edit_macro(self._store, tr("{message} in {name}").format(message=message, name=macro.name), macro)

    def _type_distance(self) -> None:
        if self._bar.field.isVisible():
            self._bar.field.setFocus()
            self._bar.field.selectAll()

    def _set_distance(self, gap_us: int) -> None:
        self._diagram.setFocus()
        self._diagram.set_distance(gap_us)

    def _frames_changed(self) -> None:
        self._bar.set_rate(self._shown.frames)
        self._diagram.set_rate(self._shown.frames, self._bar.grid_us)

    def _seen(self, notice: m.Seen) -> None:
        key = self._shown.macro.id if self._shown.macro else ""
        self._diagram.show_events([event for event in notice.events if event.by == key])
