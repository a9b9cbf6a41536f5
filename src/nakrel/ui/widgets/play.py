"""The fields of a way to play: the mode, and what goes with it."""

from __future__ import annotations

from typing import Any

import msgspec
from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QComboBox, QSpinBox, QVBoxLayout, QWidget

from nakrel.core.model.limits import MAX_COUNT
from nakrel.core.model.macro import MODE_LABELS, Again, LetGo, Mode, Play, StartOn
from nakrel.ui.widgets.basics import Segments, TimeEdit, choice, form_row

__all__ = ["PlayFields"]

_MODES = [(mode.value, text) for mode, text in MODE_LABELS.items()]
_WORDS: dict[str, list[tuple[Any, str]]] = {
    "start_on": [(StartOn.PRESS, "press"), (StartOn.RELEASE, "release")],
    "let_go": [(LetGo.AT_ONCE, "ends at once"), (LetGo.AFTER_RUN, "after the run")],
    "again": [
        (Again.IGNORE, "ignore"),
        (Again.STOP, "stop"),
        (Again.RESTART, "start anew"),
        (Again.QUEUE, "once more after"),
    ],
}
_LIMIT_MOST_US = 86_400_000_000


class PlayFields(QWidget):
    """Shows a `Play` and gives out each change of it, with a word for what was changed."""

    changed = pyqtSignal(object, str)

    def __init__(self) -> None:
        super().__init__()
        self._play = Play()
        self.mode = Segments(_MODES, "Plays")
        self.runs = self._count(1)
        self.limit_runs = self._count(0)
        self.limit_runs.setSpecialValueText("no limit")
        self.pause = TimeEdit()
        self.limit_time = TimeEdit(most_us=_LIMIT_MOST_US)
        self.start_on, self.let_go, self.again = (self._combo(name) for name in _WORDS)
        self._rows = {
            "start_on": form_row("starts on", self.start_on),
            "runs": form_row("runs in all", self.runs),
            "let_go": form_row("when let go", self.let_go),
            "pause": form_row("pause between runs", self.pause),
            "again": form_row("pressed again", self.again),
            "limit_runs": form_row("ends after runs", self.limit_runs),
            "limit_time": form_row("ends after (0: never)", self.limit_time),
        }
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(2)
        layout.addWidget(self.mode)
        layout.addSpacing(4)
        for row in self._rows.values():
            layout.addWidget(row)
        self.mode.chosen.connect(lambda mode: self._set("mode", Mode(mode)))
        self.pause.changed.connect(lambda us: self._set("pause_us", us))
        self.limit_time.changed.connect(lambda us: self._set("limit_us", max(us, 1_000) if us else None))
        self.runs.valueChanged.connect(lambda n: self._set("runs", n))
        self.limit_runs.valueChanged.connect(lambda n: self._set("limit_runs", n or None))

    def set_play(self, play: Play) -> None:
        """Show this way to play, with only the fields that matter to it."""
        self._play = play
        self.mode.set_value(play.mode)
        for box, value in ((self.runs, play.runs), (self.limit_runs, play.limit_runs or 0)):
            box.blockSignals(True)
            box.setValue(value)
            box.blockSignals(False)
        for time, micros in ((self.pause, play.pause_us), (self.limit_time, play.limit_us or 0)):
            if not time.hasFocus() or not time.isModified():
                time.set_value(micros)
        for name, texts in _WORDS.items():
            getattr(self, name).setCurrentIndex([value for value, _ in texts].index(getattr(play, name)))
        some = play.mode in (Mode.SINGLE, Mode.COUNTED)
        visible = {
            "start_on": some,
            "again": some,
            "runs": play.mode is Mode.COUNTED,
            "let_go": play.mode is Mode.HELD,
            "pause": play.mode is not Mode.SINGLE,
            "limit_runs": play.mode is Mode.TOGGLE,
            "limit_time": play.mode is Mode.TOGGLE,
        }
        for name, row in self._rows.items():
            row.setVisible(visible[name])

    def _set(self, field: str, value: Any) -> None:
        if getattr(self._play, field) != value:
            self._play = msgspec.structs.replace(self._play, **{field: value})
            self.changed.emit(self._play, field.removesuffix("_us").replace("_", " "))

    def _combo(self, name: str) -> QComboBox:
        box = choice()
        box.addItems([text for _, text in _WORDS[name]])
        box.activated.connect(lambda index: self._set(name, _WORDS[name][index][0]))
        return box

    def _count(self, least: int) -> QSpinBox:
        box = QSpinBox()
        box.setRange(least, MAX_COUNT)
        box.setFixedWidth(96)
        # A number is taken when it's typed to its end, not at each digit.
        box.setKeyboardTracking(False)
        return box
