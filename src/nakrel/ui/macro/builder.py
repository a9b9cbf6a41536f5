"""Building a macro from two or three figures, with the result seen before it is made."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from nakrel.core.edit.builders import BUILDERS, Asks, build, controls_of
from nakrel.core.edit.row_words import list_text
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, cycle_us, describe_play
from nakrel.core.model.names import shown_name
from nakrel.core.model.steps import Pointer
from nakrel.core.model.units import shown_ms, shown_rate
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, choice, label, restyle
from nakrel.ui.widgets.capture import Capture
from nakrel.words import sentence, tr

__all__ = ["BuilderRow"]

_MOST_FIGURES = max(len(builder.figures) for builder in BUILDERS)


class BuilderRow(QWidget):
    """The kind, its controls and its figure; `made` gives the macro that they make."""

    made = pyqtSignal(object, str)
    pick_wanted = pyqtSignal()

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._macro: Macro | None = None
        self._result: Macro | None = None
        self._asked = Asks.CONTROLS
        # It is chosen in the rows of beginnings, and isn't seen itself.
        self.kind = choice(tr("What to build"))
        self.kind.setParent(self)
        self.kind.hide()
        for builder in BUILDERS:
            self.kind.addItem(tr(builder.name, "builder"), builder.name)
        self.controls = QLineEdit("Q")
        self.controls.setAccessibleName(tr("Keys"))
        self.controls.setToolTip(tr("Names, separated by commas"))
        self.figures = [QLineEdit() for _ in range(_MOST_FIGURES)]
        self._figure_names = [label("", "soft") for _ in range(_MOST_FIGURES)]
        self.places: list[Pointer] = []
        self.pick_button = button(tr("Pick on the screen…"), self._pick, tip=tr("Choose the places by clicking there"))
        self.capture = Capture(store, to_be_sent=True)
        self.make_button = button(
            tr("Replace the steps"), self._make, "act", tr("Replaces the macro's steps; undo restores them")
        )
        self.preview = label("", "soft", wrap=True)
        self._build()
        self.kind.activated.connect(lambda index: self._kind_chosen(index))
        self.controls.textChanged.connect(lambda text: self.refresh())
        for figure in self.figures:
            figure.setFixedWidth(78)
            figure.textChanged.connect(lambda text: self.refresh())
        self.capture.captured.connect(self._captured)
        self._kind_chosen(0)

    def _build(self) -> None:
        row = QHBoxLayout()
        row.setSpacing(6)
        self.press_button = button(tr("Press to add"), self.capture.arm, tip=tr("Press a key to add it"))
        row.addWidget(self.controls)
        row.addWidget(self.press_button)
        row.addWidget(self.pick_button)
        for pair in zip(self._figure_names, self.figures, strict=True):
            for each in pair:
                row.addWidget(each)
        row.addStretch(1)
        row.addWidget(self.make_button)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(4)
        layout.addLayout(row)
        layout.addWidget(self.capture)
        layout.addWidget(self.preview)

    def choose(self, name: str) -> None:
        """Build with the builder of this name."""
        index = self.kind.findData(name)
        self.kind.setCurrentIndex(index)
        self._kind_chosen(index)
        first = self.pick_button if self._asked is Asks.PLACES else self.controls
        first.setFocus()
        self.controls.selectAll()

    def set_macro(self, macro: Macro | None) -> None:
        """Build in this macro's place; another macro's controls are what one most likely builds with."""
        empty = macro is not None and macro.is_empty
        self.make_button.setText(tr("Make the steps") if empty else tr("Replace the steps"))
        fresh = macro is not None and (self._macro is None or macro.id != self._macro.id)
        self._macro = macro
        if fresh:
            self._suggest()
        self.refresh()

    def _suggest(self) -> None:
        builder = BUILDERS[self.kind.currentIndex()]
        if self._macro is not None and builder.asks is Asks.CONTROLS:
            used = controls_of(self._macro)[: builder.most]
            self.controls.setText(", ".join(map(shown_name, used)) or shown_name("KEY_Q"))

    def refresh(self) -> None:
        """Work out what would be made, and show it."""
        self._result = None
        if self._macro is None:
            return
        builder = BUILDERS[self.kind.currentIndex()]
        try:
            figures = [figure.text() for figure in self.figures]
            self._result = build(self._macro, builder, self.controls.text(), figures, self.places)
        except DataError as error:
            message = sentence(str(error))
        else:
            made = self._result
            steps = " · ".join(line.strip() for line in list_text(made).splitlines())
            one = builder.most == 1 and builder.asks is Asks.CONTROLS
            rate = shown_rate(cycle_us(made, made.play)) if one else ""
            pause = tr("pause {time} ms").format(time=shown_ms(made.play.pause_us)) if made.play.pause_us else ""
            message = "   ".join(filter(None, (describe_play(made.play), rate, steps, pause)))
        # What has not been given yet is no fault.
        missing = not (self.places if self._asked is Asks.PLACES else self.controls.text().strip())
        restyle(self.preview, "soft" if self._result or missing else "alarm")
        self.preview.setText(message)
        self.make_button.setEnabled(self._result is not None)

    def _kind_chosen(self, index: int) -> None:
        builder = BUILDERS[index]
        for n, (name, figure) in enumerate(zip(self._figure_names, self.figures, strict=True)):
            there = n < len(builder.figures)
            name.setVisible(there)
            figure.setVisible(there)
            if there:
                name.setText(tr(builder.figures[n].name, "builder"))
                figure.setAccessibleName(tr(builder.figures[n].name, "builder"))
                figure.setText(builder.figures[n].example)
        self.controls.setVisible(builder.asks is not Asks.PLACES)
        self.controls.setAccessibleName(tr("Text") if builder.asks is Asks.TEXT else tr("Keys"))
        self.controls.setToolTip("" if builder.asks is Asks.TEXT else tr("Names, separated by commas"))
        before = self._asked
        self._asked = builder.asks
        if before is not builder.asks and builder.asks is not Asks.PLACES:
            self.controls.setText("")
            self._suggest()
        self.press_button.setVisible(builder.asks is Asks.CONTROLS)
        self.pick_button.setVisible(builder.asks is Asks.PLACES)
        self.places = []
        self.refresh()

    def _pick(self) -> None:
        self.places = []
        self.pick_wanted.emit()

    def add_place(self, place: Pointer) -> None:
        """A place was picked."""
        self.places.append(place)
        self.refresh()

    def _captured(self, code: str) -> None:
        builder, name = BUILDERS[self.kind.currentIndex()], shown_name(code)
        before = self.controls.text().strip() if builder.most > 1 else ""
        self.controls.setText(f"{before}, {name}" if before else name)

    def _make(self) -> None:
        if self._result is not None:
            self.made.emit(self._result, self.kind.currentText())
