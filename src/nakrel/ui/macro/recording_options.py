"""What is recorded, and how: choices that are kept with the settings."""

from __future__ import annotations

from typing import Any

import msgspec
from PyQt6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QVBoxLayout, QWidget

from nakrel.core.model.recording import Moves, Waits, Where
from nakrel.core.model.settings import SettingsPatch
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import NumberField, TimeEdit, choice, label
from nakrel.words import tr

__all__ = ["RecordingOptions"]

_WAITS = ((Waits.PERFORMED, tr("as recorded")), (Waits.EVEN, tr("one value")), (Waits.NONE, tr("none")))
_WHERE = (
    (Where.CURSOR, tr("after the selected step")),
    (Where.END, tr("at the end")),
    (Where.REPLACE, tr("replace all steps")),
)
_MOVES = ((Moves.NONE, tr("none")), (Moves.CLICKS, tr("at clicks")), (Moves.PATH, tr("path")))
_BEGINS = ((False, tr("with the first press")), (True, tr("at once")))
_CAUGHT = (("keys", tr("keys")), ("buttons", tr("buttons")), ("wheel", tr("wheel")))


class RecordingOptions(QWidget):
    """Shows the way to record and takes each change of it at once."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        self.caught = {name: QCheckBox(word) for name, word in _CAUGHT}
        self.waits = self._choice("waits", _WAITS)
        self.even = TimeEdit(25_000)
        self.even.setAccessibleName(tr("Every wait"))
        self.even.setFixedWidth(78)
        self.where = self._choice("where", _WHERE)
        self.moves = self._choice("moves", _MOVES)
        self.begins = self._choice("from_now", _BEGINS)
        self.tolerance = NumberField()
        self.tolerance.setAccessibleName(tr("Tolerance of the path in pixels"))
        self.tolerance.setToolTip(tr("The path is thinned as far as it stays so near to what you did"))
        self.tolerance.setRange(0, 100)
        self.tolerance.setPrefix(tr("within "))
        self.tolerance.setSuffix(" px")
        self.tolerance.setFixedWidth(96)
        self.countdown = self._seconds(tr("Begins after"), tr("no countdown"))
        self.limit = self._seconds(tr("Ends after"), tr("no limit"))
        self._build()
        for name, box in self.caught.items():
            box.clicked.connect(lambda on, n=name: self._change(n, on))
        self.even.changed.connect(lambda micros: self._change("even_us", micros))
        self.countdown.valueChanged.connect(lambda value: self._change("countdown_s", value))
        self.tolerance.valueChanged.connect(lambda value: self._change("tolerance_px", value))
        self.limit.valueChanged.connect(lambda value: self._change("limit_s", value))
        store.settings_changed.connect(self.refresh)
        self.refresh()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(4)
        for fields in (
            (*self.caught.values(), label(tr("pointer"), "soft"), self.moves, self.tolerance),
            (label(tr("waits"), "soft"), self.waits, self.even, label(tr("steps"), "soft"), self.where),
            (label(tr("begins"), "soft"), self.begins, self.countdown, label(tr("ends"), "soft"), self.limit),
        ):
            row = QHBoxLayout()
            row.setSpacing(8)
            for field in fields:
                row.addWidget(field)
            row.addStretch(1)
            layout.addLayout(row)

    def refresh(self) -> None:
        """Show the settings as they are."""
        options = self._store.settings.recording
        for name, box in self.caught.items():
            box.setChecked(getattr(options, name))
        self.waits.setCurrentIndex(self.waits.findData(options.waits))
        self.where.setCurrentIndex(self.where.findData(options.where))
        self.even.set_value(options.even_us)
        self.even.setVisible(options.waits is Waits.EVEN)
        self.begins.setCurrentIndex(self.begins.findData(options.from_now))
        self.moves.setCurrentIndex(self.moves.findData(options.moves))
        self.tolerance.setVisible(options.moves is Moves.PATH)
        for field, value in (
            (self.countdown, options.countdown_s),
            (self.limit, options.limit_s),
            (self.tolerance, options.tolerance_px),
        ):
            before = field.blockSignals(True)
            field.setValue(value)
            field.blockSignals(before)

    def _choice(self, name: str, options: Any) -> QComboBox:
        made = choice(name)
        made.setMinimumContentsLength(max(len(text) for _, text in options) - 2)
        for value, text in options:
            made.addItem(text, value)
        made.activated.connect(lambda index: self._change(name, made.itemData(index)))
        return made

    def _seconds(self, name: str, never: str) -> NumberField:
        made = NumberField()
        made.setAccessibleName(name)
        made.setRange(0, 600)
        made.setSpecialValueText(never)
        made.setPrefix(tr("after "))
        made.setSuffix(" s")
        made.setFixedWidth(112)
        return made

    def _change(self, name: str, value: Any) -> None:
        settings = self._store.settings
        options = msgspec.structs.replace(settings.recording, **{name: value})
        if options != settings.recording:
            commands.change_settings(self._store, tr("recording settings"), SettingsPatch(recording=options))
