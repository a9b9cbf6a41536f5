"""Changing many times at once: of the selected steps, or of all."""

from __future__ import annotations

import re
from collections.abc import Callable

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QWidget

from nakrel.core.model.errors import DataError
from nakrel.core.model.units import parse_time
from nakrel.ui.widgets.basics import button, choice, label
from nakrel.words import sentence, tr

__all__ = ["TimingRow", "time_change"]

_KINDS = (
    ("set", tr("set all to"), "25 ms"),
    ("scale", tr("scale by"), "1.5"),
    ("round", tr("round to"), "1f@60"),
    ("least", tr("make at least"), "20 ms"),
)
_FACTOR = re.compile(r"\s*(\d+(?:[.,]\d+)?)\s*(%|x|×)?\s*")


def time_change(kind: str, text: str) -> Callable[[int], int]:
    """What to make of a time in microseconds. Raises `DataError` for what can't be read."""
    if kind == "scale":
        found = _FACTOR.fullmatch(text)
        factor = float(found[1].replace(",", ".")) / (100 if found[2] == "%" else 1) if found else 0
        if not 0 < factor <= 1_000:
            raise DataError(tr("{value!r} is not a factor; write it as 1.5 or 150 %").format(value=text.strip()))
        return lambda micros: round(micros * factor)
    given_us = parse_time(text)
    if kind == "round":
        if not given_us:
            raise DataError(tr("a grid of 0 ms has no lines; write a time, or frames as 1f@60"))
        return lambda micros: (micros + given_us // 2) // given_us * given_us
    if kind == "least":
        return lambda micros: max(micros, given_us)
    return lambda micros: given_us


class TimingRow(QWidget):
    """The kind of change, its figure, and the button; `chosen` gives the change and words for it."""

    chosen = pyqtSignal(object, str)
    trimmed = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.kind = choice(tr("Change of times"))
        for value, text, _ in _KINDS:
            self.kind.addItem(text, value)
        self.figure = QLineEdit(_KINDS[0][2])
        self.figure.setAccessibleName(tr("Time or factor"))
        self.figure.setFixedWidth(86)
        self.apply_button = button(tr("Change"), self._apply)
        self.trim_button = button(
            tr("Trim both ends"), self.trimmed.emit, tip=tr("Take out the waits at the loop's ends")
        )
        self.message = label("", "alarm", wrap=True)
        self.scope = label("", "soft")
        self.kind.activated.connect(lambda index: self.figure.setText(_KINDS[index][2]))
        self.figure.returnPressed.connect(self._apply)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(6)
        for each in (
            label(tr("times"), "soft"),
            self.kind,
            self.figure,
            self.apply_button,
            self.scope,
            self.trim_button,
        ):
            row.addWidget(each)
        row.addWidget(self.message, 1)

    def set_scope(self, selected: int) -> None:
        """Say which steps are changed."""
        self.scope.setText(tr("of {selected} selected").format(selected=selected) if selected else tr("of all steps"))

    def _apply(self) -> None:
        try:
            change = time_change(self.kind.currentData(), self.figure.text())
        except DataError as error:
            self.message.setText(sentence(str(error)))
            return
        self.message.setText("")
        self.chosen.emit(change, f"{self.kind.currentText()} {self.figure.text().strip()}")
