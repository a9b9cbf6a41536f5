"""The recording bar, and what a recording does to the macro."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QObject, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent
from PyQt6.QtWidgets import QHBoxLayout, QWidget

from nakrel.core import edits
from nakrel.core import messages as m
from nakrel.core.controls import label as control_label
from nakrel.core.macro import Macro
from nakrel.core.steps import Step
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label

__all__ = ["RecordingBar"]


class RecordingBar(QWidget):
    """Record and Stop. `live` gives the macro with the steps recorded so far and the rows that are new."""

    live = pyqtSignal(object, object)
    ended = pyqtSignal(object)

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        self._macro: Macro | None = None
        self._place: edits.Place | None = None
        self._steps: list[Step] = []
        self._pressed_by: tuple[str, ...] = ("BTN_LEFT",)
        self.button = button("●  Record", self._clicked, "act", "Record what you press, in any window (Ctrl+R)")
        self.button.installEventFilter(self)
        self._words = label("", "soft")
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 8, 0, 6)
        layout.addWidget(self.button)
        layout.addSpacing(8)
        layout.addWidget(self._words)
        layout.addStretch(1)
        self.row_after: int | None = None
        store.recorded.connect(self._recorded)
        store.settings_changed.connect(self._show)
        self._show()

    @property
    def recording(self) -> bool:
        """Whether a recording goes on for this bar."""
        return self._macro is not None

    def set_macro(self, macro: Macro | None) -> None:
        """Record into this macro."""
        self._target = macro
        self.button.setEnabled(macro is not None)
        self._show()

    def toggle_by_shortcut(self) -> None:
        """Begin or end by the keyboard's shortcut, which is not part of the recording."""
        if self._target is not None or self.recording:
            self._pressed_by = ("KEY_LEFTCTRL", "KEY_RIGHTCTRL", "KEY_R")
            self._clicked()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Note what presses the button: that is the gesture which isn't part of the recording."""
        if isinstance(event, QMouseEvent) and event.type() == QEvent.Type.MouseButtonPress:
            self._pressed_by = ("BTN_LEFT",)
        elif isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            self._pressed_by = ("KEY_SPACE", "KEY_ENTER", "KEY_KPENTER")
        return False

    def _clicked(self) -> None:
        if self.recording:
            self._store.ask(m.StopRecording(self._pressed_by), self._stopped)
        elif self._target:
            self._macro, self._steps = self._target, []
            self._place = edits.place_after(self._target, self.row_after)
            self._store.ask(m.StartRecording(), self._started)
        self._show()

    def _started(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.Refused):
            self._macro = None
            self._store.fault.emit(answer.error)
            self._show()

    def _stopped(self, answer: m.AnswerBody) -> None:
        if isinstance(answer, m.Refused):
            # It had ended by the stop key in the same moment; its steps came with the notice.
            self._show()

    def _recorded(self, recorded: m.Recorded) -> None:
        if self._macro is None or self._place is None:
            return
        if not recorded.done:
            self._steps[recorded.first :] = recorded.steps
            preview = edits.insert(self._macro, self._place, self._steps)
            self.live.emit(preview, self._new_rows(len(self._steps)))
            self._show()
            return
        macro, self._macro = self._macro, None
        if recorded.steps:
            commands.edit_macro(
                self._store, f"recording into {macro.name}", edits.insert(macro, self._place, recorded.steps)
            )
        self.ended.emit(self._new_rows(len(recorded.steps)))
        self._show()

    def _new_rows(self, count: int) -> range:
        assert self._place
        macro = self._macro or self._target
        if macro is None:
            return range(0)
        before = {"lead_in": 0, "loop": len(macro.lead_in), "lead_out": len(macro.lead_in) + len(macro.loop)}
        first = before[self._place.section] + self._place.at
        return range(first, first + count)

    def _show(self) -> None:
        stop_key = control_label(self._store.settings.record_stop_key)
        if self.recording:
            self.button.setText("■  Stop")
            count = len(self._steps)
            self._words.setText(f"recording in all windows · {count} steps · {stop_key} ends it")
        else:
            self.button.setText("●  Record")
            where = "after the selected step" if self.row_after is not None else "at the end of the loop"
            self._words.setText(f"keys, buttons, wheel · waits as performed · {where} · {stop_key} ends it")

    _target: Macro | None = None

    def set_cursor(self, row: int | None) -> None:
        """The next recording goes in after this row; None is the end of the loop."""
        self.row_after = row
        if not self.recording:
            self._show()
