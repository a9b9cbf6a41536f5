"""The layers in a row, to choose which the board shows."""

from __future__ import annotations

from functools import partial

from PyQt6.QtWidgets import QButtonGroup, QHBoxLayout, QWidget

from nakrel.ui.sheet.model import layer_head
from nakrel.ui.shown import Shown
from nakrel.ui.widgets.basics import refilling, tab_lands_on_chosen
from nakrel.ui.widgets.elided import ElidedButton
from nakrel.words import tr

__all__ = ["LayerTabs"]


class LayerTabs(QWidget):
    """The base, and each layer of the variant that is shown."""

    def __init__(self, shown: Shown) -> None:
        super().__init__()
        self._shown = shown
        self._listed: object = None
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(0, 0, 0, 0)
        self.setAccessibleName(tr("Layer"))
        self._group = QButtonGroup(self)
        for signal in (shown.profile_changed, shown.control_changed):
            signal.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Show the layers as they are now."""
        setup = self._shown.setup
        heads = [
            ("", tr("base")),
            *((layer.name, layer_head(setup, layer.name)) for layer in (setup.layers if setup else ())),
        ]
        listed = (heads, self._shown.layer)
        if listed == self._listed:
            return
        self._listed = listed
        with refilling(self._row):
            self._group = QButtonGroup(self)
            for name, text in heads:
                made = ElidedButton(text, partial(self._choose, name), "tab")
                made.setCheckable(True)
                made.setChecked(name == self._shown.layer)
                self._group.addButton(made)
                self._row.addWidget(made)
            tab_lands_on_chosen(self._group)
            self._row.addStretch(1)

    def _choose(self, layer: str) -> None:
        self._shown.show_control(self._shown.control, layer)
