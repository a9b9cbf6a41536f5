"""Cues: of what a sound is to be heard or a line to be seen while a game fills the screen."""

from __future__ import annotations

from functools import partial

import msgspec
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QCheckBox, QDialog, QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from nakrel import protocol as m
from nakrel.core.model.cues import CUE_LABELS, Cue, CueSettings
from nakrel.core.model.errors import DataError
from nakrel.core.model.settings import SettingsPatch
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.widgets.sentence import Figure, OneOf, Sentence
from nakrel.words import tr

__all__ = ["CuesDialog"]

_WORDS = tr(
    "While a game fills the screen, a sound or a line over it can tell what Nakrel does. While this window is in "
    "front, nothing of it is heard or seen."
)
_LIGHTS = (("", tr("nothing")), ("recording", tr("that a recording goes on")), ("toggle", tr("that a Toggle is on")))


def _read_percent(text: str) -> int:
    figure = text.strip().removesuffix("%").strip()
    if not figure.isdigit() or not 0 <= int(figure) <= 100:
        raise DataError(tr("how loud sounds are is a percentage from 0 to 100"))
    return int(figure)


class CuesDialog(QDialog):
    """What is chosen here counts at once."""

    def __init__(self, store: Store, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self.setWindowTitle(tr("Cues"))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(520, 420)
        self.sounds: dict[Cue, QCheckBox] = {}
        self.lines: dict[Cue, QCheckBox] = {}
        self.volume = Figure(tr("how loud sounds are"), _read_percent, lambda percent: f"{percent} %")
        self.light = OneOf(tr("the light of Scroll Lock shows"), _LIGHTS)
        self.sentence = Sentence()
        self.sentence.may_say(self.volume, self.light)
        layout = QVBoxLayout(self)
        layout.addWidget(label(_WORDS, "soft", wrap=True))
        layout.addSpacing(8)
        layout.addLayout(self._grid())
        layout.addSpacing(8)
        layout.addWidget(self.sentence)
        layout.addStretch(1)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(button(tr("Close"), self.accept))
        layout.addLayout(row)
        self.volume.changed.connect(lambda percent: self._change(volume=percent))
        self.light.chosen.connect(lambda light: self._change(light=light))
        store.settings_changed.connect(self.refresh)
        self.refresh()

    def _grid(self) -> QGridLayout:
        grid = QGridLayout()
        grid.setColumnStretch(3, 1)
        grid.setHorizontalSpacing(24)
        grid.setVerticalSpacing(7)
        for column, text in ((1, tr("hear")), (2, tr("see"))):
            grid.addWidget(label(text, "soft"), 0, column)
        for row, (cue, event) in enumerate(CUE_LABELS.items(), 1):
            text = tr(event)
            grid.addWidget(label(f"{text[0].upper()}{text[1:]}"), row, 0)
            for column, (boxes, what) in enumerate(
                ((self.sounds, tr("Hear: {event}")), (self.lines, tr("See: {event}"))), 1
            ):
                box = QCheckBox()
                box.setAccessibleName(what.format(event=text))
                box.clicked.connect(self._chosen)
                boxes[cue] = box
                grid.addWidget(box, row, column)
            attempt = button(
                tr("Try"), partial(self._store.ask, m.TryCue(cue)), "link", tr("Play the sound, and show the line")
            )
            attempt.setAccessibleName(tr("Try: {value}").format(value=text))
            grid.addWidget(attempt, row, 3, Qt.AlignmentFlag.AlignLeft)
        return grid

    def refresh(self) -> None:
        """Show what is chosen now."""
        cues = self._store.settings.cues
        for boxes, chosen in ((self.sounds, cues.sounds), (self.lines, cues.lines)):
            for cue, box in boxes.items():
                box.setChecked(cue in chosen)
        self.volume.set_value(cues.volume)
        self.light.set_value(cues.light)
        self.sentence.fill(
            tr("Sounds play at {volume} · the light of Scroll Lock shows {light}."),
            volume=self.volume,
            light=self.light,
        )

    def _chosen(self) -> None:
        ticked = lambda boxes: tuple(cue for cue, box in boxes.items() if box.isChecked())  # noqa: E731
        self._change(sounds=ticked(self.sounds), lines=ticked(self.lines))

    def _change(self, **values: object) -> None:
        cues: CueSettings = msgspec.structs.replace(self._store.settings.cues, **values)
        commands.change_settings(self._store, tr("cues"), SettingsPatch(cues=cues))
