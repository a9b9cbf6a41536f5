"""What holds for the shown profile as a whole."""

from __future__ import annotations

import msgspec
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QCheckBox, QColorDialog, QHBoxLayout, QVBoxLayout, QWidget

from nakrel.core.model.fair_play import FAIR_PLAY_WORDS
from nakrel.core.model.profile import EVERYDAY, FairPlay
from nakrel.ui import commands
from nakrel.ui.sheet.game_keys import GameKeys
from nakrel.ui.sheet.pointer import PointerDialog
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, choice, label
from nakrel.ui.widgets.paragraph import Paragraph
from nakrel.words import tr

__all__ = ["ProfileDetails"]

_RULES = list(FAIR_PLAY_WORDS)


class ProfileDetails(QWidget):
    """The profile's fair-play rule, whether it falls through to Everyday, its game keys, pointer, colour and note."""

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self.rule = choice(tr("Fair play: how much a press may do"))
        self.rule.addItems([tr(FAIR_PLAY_WORDS[rule]) for rule in _RULES])
        self.rule.setMinimumWidth(176)
        self.falls = QCheckBox(tr("unchanged buttons do what Everyday says"))
        self.keys_button = button("", self.open_keys, "link", tr("What the game calls its keys"))
        self.pointer_button = button("", self.open_pointer, "link", tr("How fast the pointer moves"))
        self.colour_button = button(tr("Colour…"), self._choose_colour, "link")
        self.note = Paragraph(tr("Note on the profile"), tr("A note for yourself"))
        self.keys_dialog: GameKeys | None = None
        self.pointer_dialog: PointerDialog | None = None
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(4)
        row = QHBoxLayout()
        row.setSpacing(12)
        row.addWidget(label(tr("fair play"), "soft"))
        row.addWidget(self.rule)
        row.addWidget(self.falls)
        row.addStretch(1)
        layout.addLayout(row)
        row = QHBoxLayout()
        for part in (self.keys_button, self.pointer_button, self.colour_button):
            row.addWidget(part)
        row.addStretch(1)
        layout.addLayout(row)
        layout.addWidget(self.note)
        self.rule.activated.connect(self._rule_chosen)
        self.falls.clicked.connect(self._falls_clicked)
        self.note.committed.connect(lambda note: self._change(tr("note"), note=note))
        for signal in (store.library_changed, shown.profile_changed):
            signal.connect(self.refresh)
        store.profile_changed.connect(lambda key: self.refresh())
        self.refresh()

    def refresh(self) -> None:
        """Show the profile as it is now."""
        profile = self._shown.profile
        if profile is None:
            return
        self.rule.setCurrentIndex(_RULES.index(profile.fair_play))
        self.falls.setChecked(profile.falls_through)
        self.falls.setVisible(profile.id != EVERYDAY)
        count = len(profile.keys)
        self.keys_button.setText(tr("Game keys ({count})…").format(count=count) if count else tr("Game keys…"))
        stages = len(profile.pointer.stages)
        self.pointer_button.setText(
            tr("Pointer speed ({stages})…").format(stages=stages) if stages else tr("Pointer speed…")
        )
        self.note.show_text(profile.note)

    def open_keys(self) -> None:
        """Show the profile's game keys."""
        if profile := self._shown.profile:
            self.keys_dialog = GameKeys(self._store, profile.id, self.window())
            self.keys_dialog.open()

    def open_pointer(self) -> None:
        """Show how the profile has the pointer move."""
        if profile := self._shown.profile:
            self.pointer_dialog = PointerDialog(self._store, profile.id, self.window())
            self.pointer_dialog.open()

    def _rule_chosen(self, number: int) -> None:
        self._change(tr("fair play"), fair_play=_RULES[number])

    def _falls_clicked(self, on: bool) -> None:
        self._change(tr("falling through"), falls_through=on)

    def _choose_colour(self) -> None:
        profile = self._shown.profile
        if not profile:
            return
        dialog = QColorDialog(QColor(profile.colour), self)
        dialog.setWindowTitle(tr("Colour of {name}").format(name=profile.name))
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.setOption(QColorDialog.ColorDialogOption.DontUseNativeDialog)
        dialog.colorSelected.connect(lambda colour: self._change(tr("colour"), colour=colour.name()))
        dialog.open()

    def _change(self, text: str, **values: str | bool | FairPlay) -> None:
        if profile := self._shown.profile:
            after = msgspec.structs.replace(profile, **values)
            commands.edit_profile(self._store, tr("{value} of {name}").format(value=text, name=profile.name), after)
