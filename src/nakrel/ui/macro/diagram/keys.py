"""What the keys do to the timing diagram: along the edges, from trace to trace, pick, move, measure and zoom."""

from __future__ import annotations

from typing import Protocol

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent

from nakrel.core.edit.shaping import Edge, Moment, snapped
from nakrel.ui.macro.diagram.selection import Found, Selection
from nakrel.ui.macro.diagram.view import View
from nakrel.window_events import letter_of

__all__ = ["Host", "Keys"]


class Host(Protocol):
    """The diagram, as the keys need it."""

    view: View
    selection: Selection
    grid_us: float

    def pick(self, edges: frozenset[Edge]) -> None: ...
    def go_to(self, found: Found | None) -> None: ...
    def nudge(self, by_us: int) -> None: ...
    def drop(self) -> bool: ...
    def measure(self) -> None: ...
    def zoom(self, factor: float, x: float | None = None) -> None: ...
    def fit(self) -> None: ...
    def show_trace(self, trace: int) -> None: ...
    def ask_distance(self) -> None: ...


class Keys:
    """Goes by what is selected."""

    def __init__(self, host: Host) -> None:
        self._host, self._view, self._selection = host, host.view, host.selection

    def begin(self) -> None:
        """Put the keyboard's mark at the first edge, where there is none."""
        if self._selection.here is None and self._view.order:
            self._host.go_to(self._selection.first_of(self._moments(self._view.order[0])))

    def press(self, event: QKeyEvent) -> bool:
        """Do what a key says; False for one that says nothing here."""
        key, alt = event.key(), bool(event.modifiers() & Qt.KeyboardModifier.AltModifier)
        control = bool(event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        sideways = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(key))
        upright = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(key))
        host, here, letter = self._host, self._selection.here, letter_of(event)
        if sideways and alt:
            host.nudge(self._snapped_step(sideways * (10 if control else 1)))
        elif sideways:
            self._step(sideways, add=bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier))
        elif upright and alt:
            self._move_trace(upright)
        elif upright:
            self._change_trace(upright)
        elif key == Qt.Key.Key_A and control:
            host.pick(self._view.between(self._selection.line, 0, self._selection.line.length_us))
        elif key == Qt.Key.Key_Escape:
            self._escape()
        elif letter == "H" and here:
            host.go_to(self._selection.other_extent())
        elif letter == "C" and here and not control:
            self._selection.measure_from(here)
            host.measure()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            host.ask_distance()
        elif key in (Qt.Key.Key_Plus, Qt.Key.Key_Equal):
            host.zoom(1 / 1.5, self._view.x_of(here.at_us) if here else None)
        elif key == Qt.Key.Key_Minus:
            host.zoom(1.5, self._view.x_of(here.at_us) if here else None)
        elif key == Qt.Key.Key_0:
            host.fit()
        else:
            return False
        return True

    def _snapped_step(self, steps: int) -> int:
        """How far the keyboard moves what is picked, so that its edge comes to a line of the grid."""
        at = self._selection.here.at_us if self._selection.here else 0
        grid = self._host.grid_us or 1.0
        return snapped(at + steps * grid, grid) - at or round(steps * grid)

    def _escape(self) -> None:
        if not self._host.drop():
            self._selection.calipers = []
            self._host.pick(frozenset())
            self._host.measure()

    def _moments(self, control: str) -> list[Moment]:
        """The edges of a control in what is in view and about it."""
        view = self._view
        return self._selection.moments(
            control, int(view.since_us - view.length_us), int(view.until_us + view.length_us)
        )

    def _step(self, step: int, *, add: bool = False) -> None:
        """To the next edge of the trace, or the one before it."""
        here = self._selection.here
        if here is None:
            self.begin()
            return
        if found := self._selection.beside(self._moments(here.control), step):
            before = self._selection.picks
            self._host.go_to(found)
            if add:
                self._host.pick(before | self._selection.picks)

    def _change_trace(self, step: int) -> None:
        """To the nearest edge of the trace above or below."""
        order, here = self._view.order, self._selection.here
        if here is None or here.control not in order:
            return
        trace = order.index(here.control) + step
        if 0 <= trace < len(order) and (found := self._selection.nearest(self._moments(order[trace]))):
            self._host.go_to(found)
            self._host.show_trace(trace)

    def _move_trace(self, step: int) -> None:
        """Move the trace up or down among the others."""
        order, here = self._view.order, self._selection.here
        if here and here.control in order:
            at = order.index(here.control)
            order.insert(max(0, min(len(order) - 1, at + step)), order.pop(at))
            self._host.pick(self._selection.picks)
