"""The macro's page."""

from __future__ import annotations

from collections.abc import Mapping
from functools import partial
from itertools import groupby

from PyQt6.QtCore import QItemSelection, QItemSelectionModel, QModelIndex, QPoint, Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QApplication, QHBoxLayout, QSplitter, QVBoxLayout, QWidget

from nakrel.core.edit.builders import CLICK_SEQUENCE, build
from nakrel.core.edit.recorded import gap_after, row_before
from nakrel.core.edit.timeline import lay_out
from nakrel.core.model.controls import labels_in_use
from nakrel.core.model.game_keys import unused
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import GameKey
from nakrel.core.model.steps import Pointer, Step
from nakrel.ui import commands
from nakrel.ui.macro.add_step import AddStep
from nakrel.ui.macro.beginnings import Beginnings
from nakrel.ui.macro.builder import BuilderRow
from nakrel.ui.macro.diagram import Diagram, DiagramBar
from nakrel.ui.macro.diagram_use import DiagramUse
from nakrel.ui.macro.exchange import Exchange
from nakrel.ui.macro.notation_view import NotationView
from nakrel.ui.macro.recording import RecordingBar
from nakrel.ui.macro.screen_places import ScreenPlaces
from nakrel.ui.macro.step_actions import StepActions
from nakrel.ui.macro.steps_model import REMARK, TIME, StepsModel
from nakrel.ui.macro.steps_table import StepsTable
from nakrel.ui.macro.take_strip import TakeStrip
from nakrel.ui.macro.timing import TimingRow
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import Segments, button, label
from nakrel.ui.widgets.capture import Capture
from nakrel.ui.widgets.drawer import Drawer
from nakrel.words import tr

__all__ = ["MacroPage"]

# The diagram has three traces at first, and one at least; the list beneath it a few rows.
_DIAGRAM_PX, _LEAST_DIAGRAM_PX, _LEAST_LIST_PX = 226, 146, 190


class MacroPage(QWidget):
    """Recording bar, timing diagram, step list, and the fields that add a step."""

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self.recording = RecordingBar(store)
        self.diagram, self.bar = Diagram(), DiagramBar()
        self.model = StepsModel(store)
        self.step_actions = StepActions(store, self)
        self.steps = StepsTable(self.step_actions, self.edit_row)
        self.add_step = AddStep(store)
        self.notation = NotationView(store)
        self.builder = BuilderRow(store)
        # The same list for a macro that is still empty, and for one that starts over.
        self.beginnings, self.first = Beginnings(self.builder, columns=2), Beginnings(BuilderRow(store))
        self.builder_button = button(
            tr("Start over"), lambda: None, "link", tr("Replace the steps by one of the usual macros")
        )
        self.timing = TimingRow()
        self.timing_button = button(tr("Timing"), lambda: None, "link", tr("Change many times at once"))
        self.take_strip = TakeStrip(store, self)
        self.splitter = QSplitter(Qt.Orientation.Vertical)
        self.view = Segments((("steps", tr("Steps")), ("notation", tr("Text"))), tr("Shown as"))
        self.new_button = button(tr("New macro"), lambda: None, "act")
        self.rebind = Capture(store, tr("Press the key that the selected steps should have…"), to_be_sent=True)
        self.places = ScreenPlaces(store, shown, self)
        self.exchange = Exchange(store, shown, self)
        self._empty, self._first = self._invitation(), QWidget()
        self._busy, self._busy_words = QWidget(), label("", "live")
        busy = QHBoxLayout(self._busy)
        busy.setContentsMargins(0, 0, 0, 0)
        busy.addWidget(self._busy_words, 1)
        busy.addWidget(button(tr("Cancel"), self.exchange.cancel))
        self._as_text = False
        # The macro that is made step by step although it is empty yet.
        self._by_hand = ""
        self._selecting = False
        # What was offered last: the game keys, and what keys are called.
        self._named: tuple[tuple[GameKey, ...], Mapping[str, str]] | None = None
        self._build()
        self.view.chosen.connect(self.show_view)
        self.timing.chosen.connect(self.step_actions.retime)
        self.timing.trimmed.connect(self.step_actions.trim)
        for each in (self.beginnings, self.first):
            each.builder.made.connect(self._built)
            each.builder.pick_wanted.connect(partial(self._pick_for, each.builder))
            each.record_wanted.connect(self._record)
            each.text_wanted.connect(lambda: self.show_view("notation"))
            each.steps_wanted.connect(self._step_by_step)
        shown.macro_changed.connect(self.refresh)
        store.macro_changed.connect(lambda key: self.refresh())
        self.recording.live.connect(self._live)
        self.recording.begun.connect(self._show_view)
        self.recording.ended.connect(self._recorded)
        self.take_strip.used_rows.connect(self._took)
        self.take_strip.beside.connect(self.diagram.show_takes)
        # What is wrong with what is typed stands beneath it.
        self.notation.typed.connect(self.take_strip.leave)
        self.add_step.added.connect(self.step_actions.insert)
        shown.profile_changed.connect(self._give_keys)
        store.profile_changed.connect(lambda key: self._give_keys())
        self.rebind.captured.connect(self.step_actions.rebound)
        self.add_step.pick_wanted.connect(self.step_actions.pick_places)
        self.places.ended.connect(self.steps.setFocus)
        self.exchange.busy.connect(self._show_busy)
        self.steps.customContextMenuRequested.connect(self._menu)
        self._drawing = DiagramUse(store, shown, self.diagram, self.bar)
        self.diagram.picked.connect(self._picked)
        self._give_keys()
        self._watch_selection()
        self.model.modelReset.connect(self._selection_changed)
        self.refresh()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(4)
        head = QHBoxLayout()
        head.setSpacing(4)
        head.addWidget(self.recording, 1)
        for part in (self.builder_button, self.timing_button, self.view):
            head.addWidget(part)
        layout.addLayout(head)
        layout.addWidget(self._busy)
        self._busy.hide()
        layout.addWidget(self._empty, 1)
        upper, lower = QWidget(), QWidget()
        above, beneath = QVBoxLayout(upper), QVBoxLayout(lower)
        for each in (above, beneath):
            each.setContentsMargins(0, 0, 0, 0)
            each.setSpacing(4)
        above.addWidget(self.diagram, 1)
        above.addWidget(self.bar)
        self.splitter.addWidget(upper)
        self.splitter.addWidget(lower)
        self.splitter.setChildrenCollapsible(False)
        self.splitter.setStretchFactor(1, 1)
        self.splitter.splitterMoved.connect(lambda: self._shown.set_diagram(self.splitter.sizes()[0]))
        layout.addWidget(self.splitter, 1)
        first = QVBoxLayout(self._first)
        first.setContentsMargins(0, 0, 0, 0)
        first.addWidget(label(tr("How should it begin?"), "heading"))
        first.addWidget(self.first)
        first.addStretch(1)
        layout.addWidget(self._first, 1)
        self.steps.setModel(self.model)
        self.steps.set_widths(70, 36, 190, 110, 104)
        self.view.setFixedWidth(124)
        beneath.addWidget(self.steps, 1)
        self.take_strip.lie_over(self.steps)
        beneath.addWidget(self.rebind)
        beneath.addWidget(self.add_step)
        beneath.addWidget(self.notation, 1)
        self.drawers = [
            Drawer(self.recording.options, self.recording.options_button, self),
            Drawer(self.beginnings, self.builder_button, self),
            Drawer(self.timing, self.timing_button, self),
        ]
        for drawer in self.drawers:
            drawer.opened.connect(partial(self._drawer_opened, drawer))

    def build_clicks(self) -> None:
        """Pick places on the screen, and build the macro that clicks through them."""
        taken: list[Pointer] = []

        def done() -> None:
            self.places.ended.disconnect(done)
            if taken and (macro := self._shown.macro):
                figures = [figure.example for figure in CLICK_SEQUENCE.figures]
                self._built(build(macro, CLICK_SEQUENCE, "", figures, taken), tr(CLICK_SEQUENCE.name, "builder"))

        self.places.ended.connect(done)
        self.places.pick(taken.append)

    def _built(self, macro: Macro, kind: str) -> None:
        commands.edit_macro(self._store, tr("{kind} in {name}").format(kind=kind, name=macro.name), macro)
        self.drawers[1].close_it()

    def _pick_for(self, builder: BuilderRow) -> None:
        self.places.pick(builder.add_place)

    def _step_by_step(self) -> None:
        """Show the empty list, with the fields that add a step."""
        self.drawers[1].close_it()
        self._by_hand = self._shown.macro.id if self._shown.macro else ""
        self._show_view()
        self.add_step.kind.setFocus()

    def _record(self) -> None:
        self.drawers[1].close_it()
        self.recording.toggle_by_shortcut()

    def _invitation(self) -> QWidget:
        """What stands here while there is no macro: what to do next, and the button for it."""
        made = QWidget()
        layout = QVBoxLayout(made)
        layout.addStretch(1)
        for part in (label(tr("There is no macro yet. Make one, then press Record and do it once.")), self.new_button):
            layout.addWidget(part, 0, Qt.AlignmentFlag.AlignHCenter)
        layout.addStretch(2)
        return made

    def _give_keys(self) -> None:
        """The shown profile's game keys stand among the controls, and those that its game leaves free."""
        profile = self._shown.profile
        if profile and (profile.keys, labels_in_use()) != self._named:
            self._named = profile.keys, labels_in_use()
            self.add_step.set_game_keys(profile.keys, unused(profile))

    def _picked(self, rows: list[int]) -> None:
        """Select the rows of what is picked in the diagram; that shows it by itself."""
        if rows and not self._as_text:
            self.select(rows)
            self.steps.scrollTo(self.model.index(rows[0], 0))
            self.diagram.mark(None)

    def _watch_selection(self) -> None:
        if chosen := self.steps.selectionModel():
            chosen.selectionChanged.connect(lambda now, before: self._selection_changed())
            chosen.currentChanged.connect(lambda now, before: self._selection_changed())

    def _show_busy(self, message: str) -> None:
        self._busy.setVisible(bool(message))
        self._busy_words.setText(message)

    def refresh(self) -> None:
        """Show the macro as it is now, the selection staying where it was."""
        if self.recording.recording:
            return
        macro = self._shown.macro
        rows, current = self.selected(), self.steps.currentIndex()
        place = (current.row(), current.column())
        fresh = self.model.macro is None or macro is None or macro.id != self.model.macro.id
        self.model.set_line(self._shown.line)
        self.recording.set_macro(macro)
        self.diagram.show_line(self.model.line)
        self._empty.setVisible(macro is None)
        for part in (self.recording, self.view):
            part.setVisible(macro is not None)
        self._show_view()
        self._drawing.follow_run()
        if fresh:
            # What lies over the steps of one macro says nothing of another one's.
            self.take_strip.leave()
            self.steps.scrollToTop()
            self.steps.clearSelection()
            self.steps.setCurrentIndex(self.model.index(-1, -1))
        elif rows and self.selected() != rows:
            self.select([row for row in rows if row < self.model.rowCount()], place)
        self._selection_changed()

    def show_view(self, view: str) -> None:
        """Show the macro as `steps` or as `notation`."""
        self._as_text = view == "notation"
        self._show_view()
        (self.notation.editor if self._as_text else self.steps).setFocus()

    def show_row(self, row: int) -> None:
        """Select a step in the list and scroll to it."""
        self.show_view("steps")
        self.select([row])
        self.steps.scrollTo(self.model.index(row, 0))

    def _show_view(self) -> None:
        there = self._shown.macro is not None
        self.view.set_value("notation" if self._as_text else "steps")
        for part in (self.steps, self.add_step):
            part.setVisible(there and not self._as_text)
        # What isn't seen isn't worked out.
        if self._as_text:
            self.notation.set_macro(self._shown.macro)
        self.notation.setVisible(there and self._as_text)
        self.builder_button.setVisible(there)
        macro = self._shown.macro
        # A macro without a step is asked how it should begin, unless it is being written.
        fresh = macro is not None and not self._as_text and macro.is_empty
        fresh = fresh and not self.recording.recording and macro is not None and macro.id != self._by_hand
        # The focus goes over to what takes the place of what had it.
        focus = QApplication.focusWidget()
        follows = focus is not None and (self.splitter if fresh else self._first).isAncestorOf(focus)
        self._first.setVisible(fresh)
        self.splitter.setVisible(there and not fresh)
        self.diagram.show_recording(self.recording.recording)
        if follows and there:
            (self.first if fresh else self.notation.editor if self._as_text else self.steps).setFocus()
        for each, seen in ((self.first, fresh), (self.beginnings, self.builder_button.isChecked())):
            if seen:
                each.builder.set_macro(macro)
        self.timing_button.setVisible(there and not self._as_text)

    def _drawer_opened(self, drawer: Drawer, on: bool) -> None:
        """One is open at a time."""
        for each in self.drawers:
            if on and each is not drawer:
                each.close_it()
        if on:
            self._show_view()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Share the height out: the diagram has its own, and the list what is left."""
        super().resizeEvent(event)
        whole = self.splitter.height()
        wanted = self._shown.diagram_px or _DIAGRAM_PX
        upper = max(_LEAST_DIAGRAM_PX, min(wanted, whole - _LEAST_LIST_PX))
        self.splitter.setSizes([upper, max(0, whole - upper)])

    def selected(self) -> list[int]:
        """The selected rows."""
        chosen = self.steps.selectionModel()
        if chosen is None:
            return []
        # By stretches, since there may be thousands of rows in one.
        found = chosen.selection()
        parts = (found[number] for number in range(len(found)))
        return sorted({row for part in parts for row in range(part.top(), part.bottom() + 1)})

    def edit_row(self, index: QModelIndex) -> None:
        """Type in this cell, or in the one of its row that is changed most where nothing can be typed there."""
        if index.isValid() and not self.model.is_editable(index.row(), index.column()):
            index = index.siblingAtColumn(self.model.best_column(index.row()))
        self.steps.edit(index)

    def select(self, rows: list[int], place: tuple[int, int] | None = None) -> None:
        """Select these rows; the cell in `place` becomes the current one."""
        chosen = self.steps.selectionModel()
        if chosen is None or not rows:
            return
        flags = QItemSelectionModel.SelectionFlag
        row, column = place or (rows[0], TIME)
        # What goes by the selection goes by all of it, once.
        self._selecting = True
        chosen.setCurrentIndex(self.model.index(min(row, self.model.rowCount() - 1), column), flags.NoUpdate)
        wanted = QItemSelection()
        # Rows that follow each other are one stretch, whatever their number.
        for _, stretch in groupby(enumerate(sorted(rows)), lambda pair: pair[1] - pair[0]):
            together = [row for _, row in stretch]
            wanted.select(self.model.index(together[0], 0), self.model.index(together[-1], REMARK))
        chosen.select(wanted, flags.ClearAndSelect)
        self._selecting = False
        self._selection_changed()

    def _selection_changed(self) -> None:
        if self._selecting:
            return
        rows = self.selected()
        self.model.selected = rows
        self.timing.set_scope(len(rows))
        macro = self.model.macro
        self.recording.set_cursor(*self._cursor(macro, rows))
        if macro and rows and rows[-1] < self.model.rowCount():
            line = self.model.line
            self.diagram.mark((line.start_us(rows[0]), max(map(line.end_us, {rows[0], rows[-1]}))))
        else:
            self.diagram.mark(None)

    def _cursor(self, macro: Macro | None, rows: list[int]) -> tuple[int | None, int]:
        """The row after which a recording goes, and the number of the step that comes before it."""
        if macro is None or not rows or rows[-1] >= self.model.rowCount():
            return None, 0
        before = row_before(macro, rows[-1], gap_after(macro, rows[-1]))
        return rows[-1], self.model.line.number(before)

    def _live(self, macro: Macro, new: range) -> None:
        self._first.hide()
        self.splitter.show()
        self.model.set_line(lay_out(macro, self.model.line), new)
        self.diagram.show_line(self.model.line)
        if new:
            self.steps.scrollTo(self.model.index(new[-1], 0))

    def _recorded(self, before: Macro, after: tuple[int | None, int], steps: tuple[Step, ...]) -> None:
        self.refresh()
        self.take_strip.offer(before, *after, steps)

    def use_take(self) -> None:
        """Use a take that was recorded before, at the cursor."""
        if macro := self._shown.macro:
            self.take_strip.offer_again(macro, self.recording.row_after, self.recording.number_before)

    def _took(self, new: range) -> None:
        self.refresh()
        self.steps.setFocus()
        self.select(list(new))
        if new:
            self.steps.scrollTo(self.model.index(new[0], 0))

    def _menu(self, spot: QPoint) -> None:
        if (rows := self.selected()) and (ground := self.steps.viewport()):
            self.step_actions.menu_for(rows).popup(ground.mapToGlobal(spot))
