"""The variants of the shown profile: which is shown, which is in use, and what can be done with them."""

from __future__ import annotations

from functools import partial

import msgspec
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QColor, QIcon, QPainter, QPixmap
from PyQt6.QtWidgets import QHBoxLayout, QInputDialog, QMenu, QPushButton, QWidget

from nakrel import protocol as m
from nakrel.core.library import free_name
from nakrel.core.model.profile import Profile, SetUp
from nakrel.ui import commands
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.theme import palette
from nakrel.ui.widgets.basics import button, label, literal, refilling
from nakrel.ui.widgets.elided import ElidedButton
from nakrel.words import noted, tr

__all__ = ["SetUps"]

# A set-up's mark, by name.
_COLOURS = {
    noted("Slate", "colour"): "#4A6FA5",
    noted("Clay", "colour"): "#B4583B",
    noted("Moss", "colour"): "#6B8E4E",
    noted("Plum", "colour"): "#7D5A8C",
    noted("Sand", "colour"): "#B07A2A",
    noted("Teal", "colour"): "#3E7C8C",
}


def _mark(colour: str, in_use: bool) -> QIcon:
    """A square in the variant's colour, and a dot where it is the one in use."""
    picture = QPixmap((6 if colour else 0) + (12 if in_use else 0) or 1, 12)
    picture.fill(Qt.GlobalColor.transparent)
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(Qt.PenStyle.NoPen)
    if colour:
        painter.setBrush(QColor(colour))
        painter.drawRoundedRect(0, 1, 4, 10, 1.5, 1.5)
    if in_use:
        painter.setBrush(QColor(palette().brass))
        painter.drawEllipse(picture.width() - 10, 2, 8, 8)
    painter.end()
    return QIcon(picture)


class SetUps(QWidget):
    """A button a variant; the one that is in use bears a dot, and can be another than the one shown."""

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(4)
        self._drawn: object = None
        self.buttons: dict[str, QPushButton] = {}
        self.use_button: QPushButton | None = None
        for signal in (store.library_changed, store.status_changed, shown.profile_changed):
            signal.connect(self.refresh)
        store.profile_changed.connect(lambda key: self.refresh())
        self.refresh()

    def refresh(self) -> None:
        """Show the profile's variants as they are now."""
        profile, setup = self._shown.profile, self._shown.setup
        if profile is None or setup is None:
            return
        in_use = self._in_use(profile)
        drawn = (profile.id, [(s.name, s.colour) for s in profile.setups], setup.name, in_use, palette())
        if drawn == self._drawn:
            return
        self._drawn = drawn
        with refilling(self._row):
            self.buttons.clear()
            self._row.addWidget(label(tr("variant"), "soft"))
            for each in profile.setups:
                used = each.name == in_use
                tip = tr("in use when the profile is live") if used else ""
                made = ElidedButton(each.name, partial(self._shown.show_setup, each.name), "tab", tip)
                made.setCheckable(True)
                made.setChecked(each.name == setup.name)
                if each.colour or used:
                    mark = _mark(each.colour, used)
                    made.setIcon(mark)
                    made.setIconSize(mark.availableSizes()[0])
                made.setAccessibleName(
                    tr("Variant {name}{value}").format(name=each.name, value=tr(", in use") if used else "")
                )
                made.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
                made.customContextMenuRequested.connect(partial(self._menu, each.name, made))
                self.buttons[each.name] = made
                self._row.addWidget(made)
            more = button(
                "…", lambda: self._menu(setup.name, more, more.rect().bottomLeft()), "link", tr("Variant menu")
            )
            more.setAccessibleName(tr("Variant menu"))
            self._row.addWidget(more)
            self._row.addStretch(1)
            self.use_button = None
            if setup.name != in_use:
                self.use_button = ElidedButton(
                    tr("Switch to {name}").format(name=setup.name), partial(self.use, setup.name), "act"
                )
                self._row.addWidget(self.use_button)

    def _in_use(self, profile: Profile) -> str:
        return profile.setup(self._store.status.setups.get(profile.id, "")).name

    def use(self, name: str) -> None:
        """Put this variant in use."""
        if profile := self._shown.profile:
            self._store.ask(m.UseSetUp(profile.id, name))

    def add(self) -> None:
        """Make an empty variant and show it."""
        if profile := self._shown.profile:
            name = free_name(tr("New variant"), (each.name for each in profile.setups))
            self._put(profile, tr("new variant {name}").format(name=name), (*profile.setups, SetUp(name)))
            self._shown.show_setup(name)

    def duplicate(self, name: str) -> None:
        """Make a copy of a variant beside it and show that."""
        if profile := self._shown.profile:
            copy = msgspec.structs.replace(
                profile.setup(name), name=free_name(name, (each.name for each in profile.setups))
            )
            setups = [each for old in profile.setups for each in ((old, copy) if old.name == name else (old,))]
            self._put(profile, tr("duplicate {name}").format(name=name), tuple(setups))
            self._shown.show_setup(copy.name)

    def rename(self, old: str, new: str) -> None:
        """Give a variant another name."""
        profile, new = self._shown.profile, new.strip()
        if profile and new and new != old:
            if refused := commands.rename_setup(self._store, profile, old, new):
                self._store.fault.emit(refused)
            else:
                self._shown.follow_rename(old, new)
                self.refresh()

    def shift(self, name: str, by: int) -> None:
        """Move a variant to the left (-1) or right (1)."""
        if profile := self._shown.profile:
            setups = list(profile.setups)
            at = next(n for n, each in enumerate(setups) if each.name == name)
            setups.insert(max(0, min(len(setups) - 1, at + by)), setups.pop(at))
            self._put(profile, tr("move {name}").format(name=name), tuple(setups))

    def paint(self, name: str, colour: str) -> None:
        """Give a variant its mark, '' for none."""
        if profile := self._shown.profile:
            mark = lambda setup: msgspec.structs.replace(setup, colour=colour)  # noqa: E731
            commands.edit_setup(self._store, profile, name, tr("colour of {name}").format(name=name), mark)

    def delete(self, name: str) -> None:
        """Take a variant away; the last one stays."""
        profile = self._shown.profile
        if profile and len(profile.setups) > 1:
            self._put(
                profile,
                tr("delete {name}").format(name=name),
                tuple(each for each in profile.setups if each.name != name),
            )

    def _put(self, profile: Profile, text: str, setups: tuple[SetUp, ...]) -> None:
        if refused := commands.edit_setups(self._store, profile, text, setups):
            self._store.fault.emit(refused)

    def _menu(self, name: str, at: QPushButton, spot: QPoint) -> None:
        profile = self._shown.profile
        if profile is None:
            return
        menu = QMenu(self)
        menu.addAction(tr("New variant"), self.add)
        menu.addAction(literal(tr("Duplicate {name}").format(name=name)), partial(self.duplicate, name))
        menu.addAction(literal(tr("Rename {name}…").format(name=name)), partial(self._ask_name, name))
        menu.addAction(literal(tr("Switch to {name}").format(name=name)), partial(self.use, name))
        if marks := menu.addMenu(tr("Colour")):
            for word, colour in {noted("None", "colour"): "", **_COLOURS}.items():
                if action := marks.addAction(tr(word, "colour"), partial(self.paint, name, colour)):
                    action.setIcon(_mark(colour, False))
        at_first, at_last = profile.setups[0].name == name, profile.setups[-1].name == name
        for text, by, ends in ((tr("Move left"), -1, at_first), (tr("Move right"), 1, at_last)):
            if action := menu.addAction(text, partial(self.shift, name, by)):
                action.setEnabled(not ends)
        menu.addSeparator()
        if gone := menu.addAction(literal(tr("Delete {name}").format(name=name)), partial(self.delete, name)):
            gone.setEnabled(len(profile.setups) > 1)
        menu.popup(at.mapToGlobal(spot))

    def _ask_name(self, old: str) -> None:
        dialog = QInputDialog(self)
        dialog.setWindowTitle(tr("Rename {old}").format(old=old))
        dialog.setLabelText(tr("Name of the variant"))
        dialog.setTextValue(old)
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.textValueSelected.connect(partial(self.rename, old))
        dialog.open()
