"""The Range: press here, by finger or by macro, and see what came, how fast, and what a game would have seen."""

from __future__ import annotations

import time
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QModelIndex, QPersistentModelIndex, Qt, QTimer
from PyQt6.QtGui import QHideEvent, QResizeEvent, QShowEvent
from PyQt6.QtWidgets import QFileDialog, QHBoxLayout, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.analysis.practice_range import (
    FINGER,
    MOST_EVENTS,
    Came,
    Lane,
    Range,
    Row,
    suggested_us,
    to_csv,
    to_steps,
)
from nakrel.core.analysis.typed_text import TypedText
from nakrel.core.model.controls import KNOWN, Kind
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.storage import files
from nakrel.storage.files import StorageError
from nakrel.ui import commands
from nakrel.ui.own_hand import OwnHand
from nakrel.ui.range.histograms import Histograms
from nakrel.ui.range.pad import Pad, lane_name
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.widgets.elided import Elided, ElidedButton
from nakrel.ui.widgets.frames import Frames
from nakrel.ui.widgets.rows import HeadedModel, Table
from nakrel.ui.widgets.sentence import Figure, Sentence
from nakrel.words import sentence, shown_number, tr

__all__ = ["RangePage"]

AnyIndex = QModelIndex | QPersistentModelIndex
_HEADS = (
    tr("button"),
    tr("presses"),
    tr("now"),
    tr("best second"),
    tr("held, ms"),
    tr("shortest"),
    tr("gap, ms"),
    tr("shortest"),
    tr("seen by the game"),
)
_FRAME_MS, _ROWS_MS = 33, 250
_WITH_HISTOGRAMS_PX = 360
# What comes from a finger and goes out again as it came.
_PASSED = "finger"
# So much of a text fits beside the rest; the last of it is what one has just typed.
_MOST_TEXT = 48


def _now_us() -> int:
    return time.monotonic_ns() // 1_000


def _read_fps(text: str) -> int:
    figure = text.strip().split(" ")[0]
    if not figure.isdigit() or not 10 <= int(figure) <= 1_000:
        raise DataError(tr("a frame rate is a number from 10 to 1000"))
    return int(figure)


def _bounce_words(row: Row) -> str:
    """What a worn switch does, with its numbers."""
    return tr(
        "{bounces} of {presses} presses of {button} came within 25 ms after a release (the soonest after {shortest} "
        "ms): its switch looks worn."
    ).format(
        bounces=row.bounces,
        presses=row.presses,
        button=control_label(row.lane.control),
        shortest=shown_number((row.shortest_gap_us or 0) / 1_000, 1),
    )


class _Rows(HeadedModel):
    """What is known of each lane."""

    def __init__(self) -> None:
        super().__init__(_HEADS)
        self.rows: list[Row] = []
        self.names: dict[str, str] = {}

    def show_rows(self, rows: list[Row], names: dict[str, str]) -> None:
        """Show these; rows only come, but for a new beginning."""
        self.names = names
        if len(rows) < len(self.rows):
            self.beginResetModel()
            self.rows = rows
            self.endResetModel()
            return
        if len(rows) > len(self.rows):
            self.beginInsertRows(QModelIndex(), len(self.rows), len(rows) - 1)
            self.rows = rows
            self.endInsertRows()
        self.rows = rows
        if rows:
            self.dataChanged.emit(self.index(0, 0), self.index(len(rows) - 1, len(_HEADS) - 1))

    def size(self) -> int:
        """A row a lane."""
        return len(self.rows)

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """What a cell shows."""
        if not index.isValid() or role != Qt.ItemDataRole.DisplayRole:
            return None
        row = self.rows[index.row()]
        times = (row.hold_us, row.shortest_hold_us, row.gap_us, row.shortest_gap_us)
        shown = ["" if us is None else shown_number(us / 1_000, 1) for us in times]
        seen = tr("{seen} of {presses}").format(seen=row.seen, presses=row.presses)
        cells = (lane_name(row.lane, self.names), row.presses, f"{row.now}/s", f"{row.best}/s", *shown, seen)
        return cells[index.column()]


class RangePage(QWidget):
    """Counts what fingers do while the pad has the focus, and what macros send while the page is in front."""

    def __init__(self, store: Store, shown: Shown, hand: OwnHand) -> None:
        super().__init__()
        self._store, self._shown, self._hand = store, shown, hand
        self.counts = Range(_now_us(), shown.frames)
        self.paused = self._fingers = False
        self._typed_text, self._macros_text, self._moves, self._moved_px = "", "", 0, 0.0
        # What the keys of macros make, once it is known.
        self._typing = TypedText(store.keyboard.levels)
        self.model = _Rows()
        self.pad = Pad(lambda: self.counts, lambda lane: lane_name(lane, self._names()))
        self.text, self.histograms = Elided("soft"), Histograms()
        self.table = Table(tr("What came"))
        self.table.setModel(self.model)
        self.table.set_widths(190, 70, 60, 90, 80, 70, 80, 70)
        self.rate = Figure(tr("frames a second"), _read_fps, lambda fps: tr("{fps} frames a second").format(fps=fps))
        self.sentence = Sentence()
        self.sentence.may_say(self.rate)
        self.bounce = label("", "error", wrap=True)
        self.debounce_button = button(
            tr("Debounce…"), lambda: shown.show_page("devices"), "link", tr("On the Devices page")
        )
        self.pause_button = button(tr("Pause"), self.pause)
        self.reset_button = button(tr("Start over"), self.reset)
        self.csv_button = ElidedButton(tr("Save as CSV…"), self.ask_table)
        self.macro_button = ElidedButton(tr("Make a macro of it"), self.make_macro)
        self._frames, self._rows_timer = Frames(self, _FRAME_MS), QTimer(self)
        self._build()
        self._rows_timer.setInterval(_ROWS_MS)
        self._frames.timeout.connect(self.pad.move_on)
        self._rows_timer.timeout.connect(self.refresh)
        self.pad.typed.connect(self._typed)
        self.pad.changed.connect(hand.press)
        self.pad.focused.connect(self._focused)
        self.pad.moved.connect(self._moved)
        self.rate.changed.connect(shown.set_frames)
        shown.frames_changed.connect(self._frames_changed)
        store.seen.connect(self._see)
        store.keyboard.changed.connect(self._learn)
        if chosen := self.table.selectionModel():
            chosen.currentRowChanged.connect(lambda now, before: self._show_times())
        self._frames_changed()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 8, 0, 8)
        layout.setSpacing(8)
        layout.addWidget(self.pad)
        layout.addWidget(self.text)
        row = QHBoxLayout()
        row.addWidget(self.sentence, 1)
        for each in (self.pause_button, self.reset_button, self.csv_button, self.macro_button):
            each.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            row.addWidget(each)
        layout.addLayout(row)
        layout.addWidget(self.table, 1)
        # Below the table, so that its rows stay where they are.
        worn = QHBoxLayout()
        worn.addWidget(self.bounce, 1)
        worn.addWidget(self.debounce_button, 0, Qt.AlignmentFlag.AlignTop)
        layout.addLayout(worn)
        layout.addWidget(self.histograms)

    def _names(self) -> dict[str, str]:
        return {key: macro.name for key, macro in self._store.macros.items()}

    # What comes

    def _learn(self) -> None:
        """The keys make something else than before."""
        self._typing = TypedText(self._store.keyboard.levels)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """In a low window the list has the room of the histograms."""
        super().resizeEvent(event)
        self.histograms.setVisible(self.height() >= _WITH_HISTOGRAMS_PX)

    def showEvent(self, event: QShowEvent | None) -> None:
        """Run while it is seen."""
        self._frames.start()
        self._rows_timer.start()
        self.refresh()

    def hideEvent(self, event: QHideEvent | None) -> None:
        """Nothing counts while it isn't."""
        self._frames.stop()
        self._rows_timer.stop()

    def _focused(self, on: bool) -> None:
        self._fingers = on
        if not on:
            self._hand.let_go()
            # Their releases don't count any more, and nothing stays down here for ever.
            for control in self.counts.down(FINGER):
                self.counts.feed(Came(FINGER, control, 0, _now_us()))

    def _typed(self, text: str) -> None:
        if not self.paused:
            self._typed_text = f"{self._typed_text}{text}"[-_MOST_TEXT - 1 :]
            self._show_text()

    def _moved(self, px: float) -> None:
        if not self.paused:
            self._moves += 1
            self._moved_px += px

    def _show_text(self) -> None:
        """The text as a program gets it, and the pointer's way."""
        parts = []
        if self._typed_text:
            parts.append(tr("text as it arrived: {typed_text}").format(typed_text=_end_of(self._typed_text)))
        if self._macros_text:
            parts.append(tr("macros typed: {macros_text}").format(macros_text=_end_of(self._macros_text)))
        if self._moves:
            parts.append(
                tr("the pointer went {moved_px} px in {moves} moves").format(
                    moved_px=shown_number(self._moved_px), moves=shown_number(self._moves)
                )
            )
        text = " · ".join(parts)
        self.text.set_text(sentence(text, stop=False))

    def _see(self, seen: m.Seen) -> None:
        if self.paused or not self.isVisible():
            return
        for event in seen.events:
            if event.by == _PASSED:
                continue
            if event.by != FINGER:
                typed = self._typing.feed(event.control, event.value)
                self._macros_text = f"{self._macros_text}{typed}"[-_MOST_TEXT - 1 :]
            if event.by != FINGER or (self._fingers and event.control != "KEY_ESC"):
                self.counts.feed(Came(event.by, event.control, event.value, event.at_us, event.sent))
        self.pad.show_lanes([row.lane for row in self.counts.rows(_now_us())])

    def _frames_changed(self) -> None:
        self.rate.set_value(self._shown.frames)
        self.sentence.fill(tr("Seen by a game at {rate}."), rate=self.rate)
        # What has come is looked at again.
        before, self.counts = self.counts, Range(self.counts.start_us, self._shown.frames)
        for event in before.events:
            self.counts.feed(event)
        self.refresh()

    def refresh(self) -> None:
        """Show the counts as they are now."""
        now = self.pad.held_us if self.pad.held_us is not None else _now_us()
        self.model.show_rows(self.counts.rows(now), self._names())
        if self.model.rows and not self.table.currentIndex().isValid():
            self.table.selectRow(0)
        self._show_times()
        self._show_text()
        worn = [row for row in self.model.rows if row.bounces and KNOWN[row.lane.control].kind is Kind.BUTTON]
        self.bounce.setText("\n".join(_bounce_words(row) for row in worn))
        self.bounce.setVisible(bool(worn))
        self.debounce_button.setVisible(bool(worn))
        some = bool(self.counts.events)
        self.csv_button.setEnabled(some)
        self.reset_button.setEnabled(some or bool(self._typed_text or self._macros_text or self._moves))
        self.macro_button.setEnabled(any(event.by == FINGER for event in self.counts.events))

    def _show_times(self) -> None:
        at = self.table.currentIndex().row()
        if 0 <= at < len(self.model.rows):
            lane: Lane = self.model.rows[at].lane
            self.histograms.show_times(lane_name(lane, self._names()), *self.counts.times(lane))
        else:
            self.histograms.show_times("", [], [])

    def suggested(self) -> dict[str, int]:
        """The shortest debounce of each button that bounced, in microseconds."""
        found = {
            row.lane.control: suggested_us(self.counts.times(row.lane)[1]) for row in self.model.rows if row.bounces
        }
        return {control: us for control, us in found.items() if us}

    # What is done with it

    def pause(self) -> None:
        """Stand still, or go on."""
        self.paused = not self.paused
        self.pad.held_us = _now_us() if self.paused else None
        self.pause_button.setText(tr("Go on") if self.paused else tr("Pause"))
        self.refresh()
        self.pad.update()

    def reset(self) -> None:
        """Begin with nothing."""
        self.counts = Range(_now_us(), self._shown.frames)
        self.pad.show_lanes([])
        self._typed_text, self._macros_text, self._moves, self._moved_px = "", "", 0, 0.0
        self.refresh()

    def ask_table(self) -> None:
        """Ask where to, and save the events as a table."""
        name, _ = QFileDialog.getSaveFileName(self, tr("Save as CSV"), "range.csv", tr("CSV (*.csv)"))
        if name:
            self.save_table(Path(name))

    def save_table(self, path: Path) -> None:
        """Save the events as CSV."""
        try:
            files.write(path, to_csv(self.counts.events, self.counts.start_us).encode())
        except StorageError as error:
            self._store.fault.emit(str(error))
        else:
            self._say_left_out()

    def _say_left_out(self) -> None:
        """Nothing is left out in silence."""
        if late := self.counts.left_out:
            self._store.fault.emit(
                tr("Only the first {most} events are in it; {late} more were counted alone.").format(
                    most=shown_number(MOST_EVENTS), late=shown_number(late)
                )
            )

    def make_macro(self) -> None:
        """What fingers did becomes a macro."""
        if steps := to_steps(self.counts.events):
            macro = commands.add_macro(self._store, Macro(id="range", name=tr("From the Range"), loop=steps))
            self._shown.show_macro(macro.id)
            self._say_left_out()
        else:
            self._store.fault.emit(tr("There is no whole press in it yet."))


def _end_of(text: str) -> str:
    return f"…{text[-_MOST_TEXT:]}" if len(text) > _MOST_TEXT else text
