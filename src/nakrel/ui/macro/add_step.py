"""Adding steps by hand: what recording could not catch."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from nakrel.core.controls import CONTROLS, Kind
from nakrel.core.steps import Branch, Chord, Note, PickOne, Press, Release, Repeat, Step, Tap, Wait, Wheel
from nakrel.core.units import MAX_WAIT_US
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import TimeEdit, button, choice, label, searchable
from nakrel.ui.widgets.capture import Capture

__all__ = ["AddStep"]

_KINDS = ("tap", "press", "release", "chord", "wait", "random wait", "wheel", "repeat", "pick one", "note")
_WITH_CONTROL = ("tap", "press", "release", "chord", "wheel")
_WITH_TIME = ("tap", "chord", "wait", "random wait")
# A recorded click lasts around 50 to 150 ms (common practice, no published source).
_HOLD_US = 50_000
_WAIT_US = 25_000


class AddStep(QWidget):
    """A row of fields: the kind of step, its control (chosen from a list or pressed), its time, and Add."""

    added = pyqtSignal(object)

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.kind = choice("Kind of step")
        self.kind.addItems(_KINDS)
        self.control = searchable("Control of the step")
        self.control.setMinimumWidth(150)
        self.second = searchable("The control that it is pressed together with")
        self.second.setMinimumWidth(120)
        self.time = TimeEdit(_HOLD_US)
        self.time.setAccessibleName("Hold or wait")
        self.capture = Capture(store)
        self._press = button("Press it…", self.capture.arm, tip="Choose the control by pressing it")
        self.add_button = button("Add step", self._add)
        self._build()
        self.kind.currentTextChanged.connect(self._kind_chosen)
        self.capture.captured.connect(self._captured)
        self._fill(Kind.KEY, Kind.BUTTON)
        for known in CONTROLS.values():
            if known.kind is not Kind.WHEEL:
                self.second.addItem(known.label, known.code)
        self._kind_chosen("tap")

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 6, 0, 2)
        layout.setSpacing(0)
        row = QHBoxLayout()
        row.setSpacing(6)
        row.addWidget(label("add", "soft"))
        for field in (self.kind, self.control, self._press, self.second, self.time, self.add_button):
            row.addWidget(field)
        row.addStretch(1)
        layout.addLayout(row)
        layout.addWidget(self.capture)

    def _fill(self, *kinds: Kind) -> None:
        before = self.control.currentData()
        self.control.clear()
        for known in CONTROLS.values():
            if known.kind in kinds:
                self.control.addItem(known.label, known.code)
        self.control.setCurrentIndex(max(0, self.control.findData(before or "KEY_Q")))

    def _kind_chosen(self, kind: str) -> None:
        self.control.setVisible(kind in _WITH_CONTROL)
        self._press.setVisible(kind in _WITH_CONTROL)
        self.second.setVisible(kind == "chord")
        self.time.setVisible(kind in _WITH_TIME)
        self.time.set_value(_WAIT_US if "wait" in kind else _HOLD_US)
        self._fill(*([Kind.WHEEL] if kind == "wheel" else [Kind.KEY, Kind.BUTTON]))

    def _captured(self, code: str) -> None:
        if (CONTROLS[code].kind is Kind.WHEEL) != (self.kind.currentText() == "wheel"):
            self.kind.setCurrentText("wheel" if CONTROLS[code].kind is Kind.WHEEL else "tap")
        self.control.setCurrentIndex(self.control.findData(code))

    def _add(self) -> None:
        code, second, micros = self.control.currentData(), self.second.currentData(), self.time.micros
        kind = self.kind.currentText()
        if (code is None and kind in _WITH_CONTROL) or (kind == "chord" and second in (None, code)):
            return
        make: dict[str, Callable[[], Step]] = {
            "tap": lambda: Tap(control=code, hold_us=micros),
            "press": lambda: Press(control=code),
            "release": lambda: Release(control=code),
            "chord": lambda: Chord(controls=(code, second), hold_us=micros),
            "wait": lambda: Wait(wait_us=micros),
            "random wait": lambda: Wait(wait_us=micros, most_us=min(2 * micros, MAX_WAIT_US)),
            "wheel": lambda: Wheel(control=code),
            "repeat": lambda: Repeat(times=2),
            "pick one": lambda: PickOne(branches=(Branch(), Branch())),
            "note": lambda: Note(text=""),
        }
        self.added.emit(make[kind]())
