"""The recording bar, and what a recording does to the macro."""

from __future__ import annotations

from collections.abc import Sequence

import msgspec
from PyQt6.QtCore import QEvent, QObject, QTimer, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.edit.recorded import gap_after, insert_recorded
from nakrel.core.edit.rows import Place, rows, steps_in
from nakrel.core.edit.takes import used
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.macro import Macro
from nakrel.core.model.recording import Moves, RecordingSettings, Waits, Where
from nakrel.core.model.steps import Step
from nakrel.core.model.units import shown_ms
from nakrel.ui.macro.recording_options import RecordingOptions
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button
from nakrel.ui.widgets.elided import Elided
from nakrel.ui.widgets.shield import Shield
from nakrel.words import counted, tr

__all__ = ["RecordingBar"]


class RecordingBar(QWidget):
    """Record and Stop. `live` gives the macro with the steps recorded so far and the rows that are new."""

    live = pyqtSignal(object, object)
    # It has begun, or the service has refused it after all.
    begun = pyqtSignal()
    # It is over; with the macro before it, the row it was to follow, and all that was recorded.
    ended = pyqtSignal(object, object, object)

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        self._macro: Macro | None = None
        self._place: Place | None = None
        self._steps: list[Step] = []
        self._settings = RecordingSettings()
        self._left_s = 0
        self._tick, self._limit = QTimer(self), QTimer(self)
        self._tick.setInterval(1_000)
        self._tick.timeout.connect(self._count_down)
        self._limit.setSingleShot(True)
        self._limit.timeout.connect(lambda: self._stop(()))
        self._pressed_by: tuple[str, ...] = ("BTN_LEFT",)
        self.button = button(tr("●  Record"), self._clicked, "act", tr("Record what you press, in any window (Ctrl+R)"))
        self.button.installEventFilter(self)
        self._words = Elided("soft")
        self.options = RecordingOptions(store)
        self.options_button = button(tr("Options"), lambda: None, "link", tr("What is recorded, and how"))
        row = QHBoxLayout()
        row.addWidget(self.button)
        row.addSpacing(8)
        row.addWidget(self._words, 1)
        row.addWidget(self.options_button)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 8, 0, 6)
        layout.setSpacing(4)
        layout.addLayout(row)
        self.row_after: int | None = None
        self.number_before = 0
        # The same when the recording began.
        self._began_after: tuple[int | None, int] = (None, 0)
        self._shield = Shield(self, self.button)
        store.recorded.connect(self._recorded)
        store.gone.connect(self._end_as_told)
        store.settings_changed.connect(self._show)
        self._show()

    @property
    def recording(self) -> bool:
        """Whether a recording goes on for this bar."""
        return self._macro is not None

    def set_macro(self, macro: Macro | None) -> None:
        """Record into this macro."""
        before, self._target = self._target, macro
        if before is not None and macro is not None and before.id == macro.id:
            # An edit of it changes nothing here.
            return
        self.button.setEnabled(macro is not None)
        self._show()

    def toggle_by_shortcut(self) -> None:
        """Begin or end by the keyboard's shortcut, which is not part of the recording."""
        if self._target is not None or self.recording:
            self._pressed_by = ("KEY_LEFTCTRL", "KEY_RIGHTCTRL", "KEY_R")
            self._clicked()

    def begin_by_key(self, control: str) -> None:
        """The key for it was pressed in a game: begin at once, with no countdown, and without that key."""
        if self._target is not None and not self.recording and not self._left_s:
            self._settings = self._store.settings.recording
            self._pressed_by = (control,)
            self._begin()
            self._show()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Note what presses the button: that is the gesture which isn't part of the recording."""
        if isinstance(event, QMouseEvent) and event.type() == QEvent.Type.MouseButtonPress:
            self._pressed_by = ("BTN_LEFT",)
        elif isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            self._pressed_by = ("KEY_SPACE", "KEY_ENTER", "KEY_KPENTER")
        return False

    def _clicked(self) -> None:
        if self._left_s:
            self._end_countdown()
        elif self.recording:
            self._stop(self._pressed_by)
        elif self._target:
            self._settings = self._store.settings.recording
            self._left_s = self._settings.countdown_s
            if self._left_s:
                self._tick.start()
            else:
                self._begin()
        self._show()

    def _count_down(self) -> None:
        self._left_s -= 1
        if self._left_s <= 0:
            self._end_countdown()
            self._begin()
        self._show()

    def _end_countdown(self) -> None:
        self._tick.stop()
        self._left_s = 0

    def _begin(self) -> None:
        if self._target is None:
            return
        self._steps = []
        self._macro = self._target
        self._began_after = self.row_after, self.number_before
        if self._settings.where is Where.REPLACE:
            self._macro = msgspec.structs.replace(self._target, lead_in=(), loop=(), lead_out=())
        at_end = self._settings.where is not Where.CURSOR
        self._place = gap_after(self._macro, None if at_end else self.row_after)
        # After a countdown nothing of the gesture that began it is down any more.
        gesture = () if self._settings.countdown_s else self._pressed_by
        self._store.ask(m.StartRecording(self._settings, gesture, pointer_if_told=True), self._started)
        self._shield.raise_it()
        self.begun.emit()
        if self._settings.limit_s:
            self._limit.start(self._settings.limit_s * 1_000)

    def keep(self, gesture: tuple[str, ...]) -> None:
        """The window closes, by this gesture: what was recorded stays."""
        if self._left_s:
            self._end_countdown()
        if self.recording:
            self._store.settle(m.StopRecording(gesture), lambda: not self.recording)
        self._end_as_told()

    def _stop(self, gesture: tuple[str, ...]) -> None:
        self._limit.stop()
        if self.recording:
            self._store.ask(m.StopRecording(gesture), self._stopped)

    def _started(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.Refused):
            self._macro = None
            self._shield.lower()
            self._store.fault.emit(answer.error)
            self._show()
            self.begun.emit()

    def _stopped(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.Refused):
            # It had ended by the stop key in the same moment; its steps came with the notice.
            self._show()

    def _recorded(self, recorded: m.Recorded) -> None:
        if self._macro is None or self._place is None:
            return
        if not recorded.done:
            self._steps[recorded.first :] = recorded.steps
            preview = self._with(self._macro, self._place, self._steps)
            self.live.emit(*preview)
            self._show()
            return
        self._end(recorded.steps)

    def _end_as_told(self) -> None:
        """Keep what the service has told of, where it tells no more."""
        if self.recording:
            self._end(tuple(self._steps))

    def _end(self, steps: tuple[Step, ...]) -> None:
        assert self._macro
        assert self._place
        self._limit.stop()
        self._shield.lower()
        macro, self._macro = self._macro, None
        # What was there before: with *replace all steps* the recording went into an empty one.
        before = self._store.macros.get(macro.id, macro)
        self.ended.emit(before, self._began_after, tuple(steps))
        self._show()

    def _with(self, macro: Macro, place: Place, steps: Sequence[Step]) -> tuple[Macro, range]:
        """The macro with the recorded steps in place, and their rows."""
        after = insert_recorded(macro, place, used(steps, self._settings), self._settings)
        count = len(steps_in(after, place.section, place.inside))
        count -= len(steps_in(macro, place.section, place.inside))
        return after, self._new_rows(after, count)

    def _new_rows(self, macro: Macro, count: int) -> range:
        """The rows of the recorded steps, which are no blocks and so a row each."""
        place = self._place
        numbered = enumerate(rows(macro))
        first = next((n for n, row in numbered if (row.section, row.at, row.inside) == place), 0)
        return range(first, first + count)

    def _show(self) -> None:
        stop_key = control_label(self._store.settings.record_stop_key)
        if self._left_s:
            self.button.setText(tr("Cancel"))
            self._words.set_text(tr("recording begins in {left_s} s").format(left_s=self._left_s))
        elif self.recording:
            self.button.setText(tr("■  Stop"))
            route = self._store.status.backend
            # Under Wayland without the kernel's input other programs' windows tell nobody of presses.
            where = {"standin": tr("recording in this window"), "xwayland": tr("recording here and under Xwayland")}
            parts = (
                where.get(route, tr("recording in all windows")),
                counted(len(self._steps), "{n} step", "{n} steps"),
                tr("{key} ends it").format(key=stop_key),
            )
            self._words.set_text(" · ".join(parts))
        else:
            self.button.setText(tr("●  Record"))
            self._words.set_text(self._summary(stop_key))

    def _summary(self, stop_key: str) -> str:
        """The way to record in words, what must be known first of all in front: a narrow window cuts the end off."""
        settings = self._store.settings.recording
        caught = [
            word
            for on, word in (
                (settings.keys, tr("keys")),
                (settings.buttons, tr("buttons")),
                (settings.wheel, tr("wheel")),
            )
            if on
        ]
        waits = {
            Waits.PERFORMED: tr("waits as recorded"),
            Waits.EVEN: tr("every wait {time} ms").format(time=shown_ms(settings.even_us)),
            Waits.NONE: tr("no waits"),
        }[settings.waits]
        where = tr("replaces all steps") if settings.where is Where.REPLACE else tr("at the end of the loop")
        if settings.where is Where.CURSOR and self.row_after is not None:
            where = (
                tr("after step {number}").format(number=self.number_before)
                if self.number_before
                else tr("at the selected step")
            )
        moves = {Moves.NONE: [], Moves.CLICKS: [tr("places at clicks")], Moves.PATH: [tr("pointer path")]}[
            settings.moves
        ]
        what = ", ".join([*caught, *moves]) or tr("nothing")
        return " · ".join((where, tr("{key} ends it").format(key=stop_key), what, waits))

    _target: Macro | None = None

    def set_cursor(self, row: int | None, number: int = 0) -> None:
        """The next recording goes in after this row, or after the hold that the row is in the midst of; None is the end
        of the loop. `number` is that of the step before it, 0 for none."""
        self.row_after, self.number_before = row, number
        if not self.recording:
            self._show()
