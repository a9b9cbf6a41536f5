"""Building a macro from two or three figures, with the result seen before it is made."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from nakrel.core import notation
from nakrel.core.builders import BUILDERS, build
from nakrel.core.errors import DataError
from nakrel.core.macro import Macro, cycle_us, describe_play
from nakrel.core.names import name_of
from nakrel.core.units import format_ms, format_rate
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, choice, label
from nakrel.ui.widgets.capture import Capture

__all__ = ["BuilderRow"]


class BuilderRow(QWidget):
    """The kind, its controls and its figure; `made` gives the macro that they make."""

    made = pyqtSignal(object, str)

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._macro: Macro | None = None
        self._result: Macro | None = None
        self.kind = choice("What to build")
        for builder in BUILDERS:
            self.kind.addItem(builder.name)
        self.controls = QLineEdit("Q")
        self.controls.setAccessibleName("Controls")
        self.controls.setToolTip("Names, separated by commas")
        self.figure = QLineEdit(BUILDERS[0].example)
        self.figure.setFixedWidth(78)
        self._figure_name = label("", "soft")
        self.capture = Capture(store)
        self.make_button = button(
            "Make it", self._make, "act", "Takes the place of the macro's steps; undo brings them back"
        )
        self.preview = label("", "soft", wrap=True)
        self._build()
        self.kind.activated.connect(lambda index: self._kind_chosen(index))
        self.controls.textChanged.connect(lambda text: self.refresh())
        self.figure.textChanged.connect(lambda text: self.refresh())
        self.capture.captured.connect(self._captured)
        self._kind_chosen(0)

    def _build(self) -> None:
        row = QHBoxLayout()
        row.setSpacing(6)
        press = button("Press it…", self.capture.arm, tip="Add a control by pressing it")
        for each in (label("build", "soft"), self.kind, label("with", "soft"), self.controls, press):
            row.addWidget(each)
        for each in (self._figure_name, self.figure, self.make_button):
            row.addWidget(each)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(4)
        layout.addLayout(row)
        layout.addWidget(self.capture)
        layout.addWidget(self.preview)

    def set_macro(self, macro: Macro | None) -> None:
        """Build in this macro's place."""
        self._macro = macro
        self.refresh()

    def refresh(self) -> None:
        """Work out what would be made, and show it."""
        self._result = None
        if self._macro is None:
            return
        builder = BUILDERS[self.kind.currentIndex()]
        try:
            self._result = build(self._macro, builder, self.controls.text(), self.figure.text())
        except DataError as error:
            words = str(error)
        else:
            made = self._result
            steps = " · ".join(line.strip() for line in notation.write(made).splitlines())
            rate = format_rate(cycle_us(made, made.play)) if builder.most == 1 else ""
            pause = f"pause {format_ms(made.play.pause_us)} ms" if made.play.pause_us else ""
            words = "   ".join(filter(None, (describe_play(made.play), rate, steps, pause)))
        self.preview.setObjectName("soft" if self._result else "alarm")
        self.preview.setText(words)
        if style := self.preview.style():
            style.polish(self.preview)
        self.make_button.setEnabled(self._result is not None)

    def _kind_chosen(self, index: int) -> None:
        builder = BUILDERS[index]
        self.figure.setText(builder.example)
        self.figure.setVisible(bool(builder.example))
        self._figure_name.setText(builder.figure)
        self.figure.setAccessibleName(builder.figure)
        self.refresh()

    def _captured(self, code: str) -> None:
        builder, name = BUILDERS[self.kind.currentIndex()], name_of(code)
        before = self.controls.text().strip() if builder.most > 1 else ""
        self.controls.setText(f"{before}, {name}" if before else name)

    def _make(self) -> None:
        if self._result is not None:
            self.made.emit(self._result, self.kind.currentText())
