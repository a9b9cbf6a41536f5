"""Bundles in the window: writing one, and looking through one before anything of it lands."""

from __future__ import annotations

import shlex
from collections.abc import Callable, Sequence
from pathlib import Path

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QCheckBox, QDialog, QFileDialog, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from nakrel.client.ids import new_id
from nakrel.core.edit.bundle import Bundle, Clash, Contents, bundle_of, look_through, merge, visible
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.storage.bundles import read_bundle, write_bundle
from nakrel.storage.files import StorageError
from nakrel.ui import commands
from nakrel.ui.background import Background
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import Segments, button, hairline, label, literal
from nakrel.words import counted, tr

__all__ = ["BundleDialog", "Bundles"]

_FILTER = tr("Profile file (*.nakrel.zip)")
_CLASHES = ((Clash.KEEP, tr("Keep both")), (Clash.REPLACE, tr("Replace")), (Clash.SKIP, tr("Skip")))


class BundleDialog(QDialog):
    """What is inside, in words; each program that it would open is allowed by itself, or stays off."""

    def __init__(self, bundle: Bundle, contents: Contents, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Look inside {name}").format(name=name))
        self.resize(640, 520)
        self.bundle = bundle
        self.clash = Clash.KEEP
        self.allowed: dict[tuple[str, ...], QCheckBox] = {}
        self.live: dict[str, QCheckBox] = {}
        self.clashes = Segments([(each.value, text) for each, text in _CLASHES], tr("If it exists already"))
        self.take_button = button(tr("Import"), self.accept, "act")
        self._inside = QVBoxLayout()
        self._inside.setContentsMargins(0, 0, 12, 0)
        self._inside.setSpacing(3)
        self._list(tr("Profiles"), contents.profiles)
        self._list(tr("Macros"), contents.macros)
        self._list(tr("Linked to"), contents.programs)
        self._opens(contents)
        self._list(tr("It types"), [f"{macro}: {text}" for macro, text in contents.types])
        self._list(tr("Runs until stopped"), [f"{macro} {text}" for macro, text in contents.unattended])
        self._list(tr("Controls the desktop"), [f"{where} {what}" for where, what in contents.desktop])
        self._list(tr("Exists already"), contents.clashes)
        self._lives(bundle)
        self._inside.addStretch(1)
        self._build(bool(contents.clashes))
        self.clashes.set_value(Clash.KEEP.value)
        self.clashes.chosen.connect(self._clash_chosen)

    def _build(self, clashes: bool) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(18, 14, 18, 14)
        layout.addWidget(label(tr("Nothing is imported yet. This is what is inside:"), "soft"))
        body = QWidget()
        body.setLayout(self._inside)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(body)
        layout.addWidget(scroll, 1)
        layout.addWidget(hairline())
        if clashes:
            layout.addWidget(label(tr("If it exists already:"), "soft"))
            layout.addWidget(self.clashes)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(button(tr("Cancel"), self.reject))
        row.addWidget(self.take_button)
        layout.addLayout(row)

    def _list(self, head: str, lines: object) -> None:
        shown = list(lines)  # type: ignore[call-overload]
        if shown:
            self._inside.addSpacing(6)
            self._inside.addWidget(label(f"{head} ({len(shown)})", "heading"))
            for line in shown:
                self._inside.addWidget(label(line, wrap=True))

    def _opens(self, contents: Contents) -> None:
        if not contents.opens:
            return
        self._inside.addSpacing(6)
        self._inside.addWidget(
            label(tr("It would open programs ({count})").format(count=len(contents.opens)), "heading")
        )
        self._inside.addWidget(label(tr("These steps come turned off. Allow only what you know."), "soft", wrap=True))
        for each in contents.opens:
            if each.command not in self.allowed:
                allowed = tr("Allow {value}  ({where})")
                box = QCheckBox(literal(allowed.format(value=visible(shlex.join(each.command)), where=each.where)))
                self.allowed[each.command] = box
                self._inside.addWidget(box)

    def _lives(self, bundle: Bundle) -> None:
        linked = [profile for profile in bundle.profiles if profile.programs or profile.id == EVERYDAY]
        if not linked:
            return
        self._inside.addSpacing(6)
        self._inside.addWidget(label(tr("Live with their programs"), "heading"))
        message = tr("A profile from outside goes live only once you allow it, here or later at its head.")
        self._inside.addWidget(label(message, "soft", wrap=True))
        for profile in linked:
            box = QCheckBox(literal(tr("Let {value} go live").format(value=visible(profile.name))))
            self.live[profile.id] = box
            self._inside.addWidget(box)

    def _clash_chosen(self, value: str) -> None:
        self.clash = Clash(value)


class Bundles(QObject):
    """Asks for files, and reads and writes them off the window's thread."""

    def __init__(self, store: Store, shown: Shown, of: QWidget, chosen: Callable[[], list[Profile]]) -> None:
        super().__init__(of)
        self._chosen = chosen
        self._store, self._shown, self._of = store, shown, of
        self._background = Background(self)
        self.dialog: BundleDialog | None = None

    def ask_export(self) -> None:
        """Ask for a file, and write the chosen profiles with their macros to it."""
        if chosen := self._chosen():
            self._ask_for(chosen)

    def ask_export_of(self, profile: Profile) -> None:
        """The same for one profile."""
        self._ask_for([profile])

    def _ask_for(self, chosen: list[Profile]) -> None:
        if len(chosen) == 1:
            text = chosen[0].name
            title = tr("Write {name} and its macros").format(name=text)
        else:
            text = counted(len(chosen), "{n} profile", "{n} profiles")
            title = tr("Write {profiles} and their macros").format(profiles=text)
        name, _ = QFileDialog.getSaveFileName(self._of, title, f"{text}.nakrel.zip", _FILTER)
        if name:
            self.write(Path(name), chosen)

    def ask_import(self) -> None:
        """Ask for a file, and show what is inside."""
        name, _ = QFileDialog.getOpenFileName(
            self._of, tr("Look inside a profile file"), "", tr("{kinds};;All files (*)").format(kinds=_FILTER)
        )
        if name:
            self.read(Path(name))

    def write(self, path: Path, profiles: Sequence[Profile] = ()) -> None:
        """Write these profiles, or the chosen ones, with their macros."""
        made = bundle_of(profiles or self._chosen(), dict(self._store.macros))

        def work() -> str:
            try:
                write_bundle(path, made)
            except StorageError as error:
                return str(error)
            return ""

        self._background.start(work, lambda error: self._store.fault.emit(error) if error else None)

    def read(self, path: Path) -> None:
        """Show what is inside a bundle; it lands only when that is wanted."""

        def work() -> Bundle | str:
            try:
                return read_bundle(path)
            except StorageError as error:
                return str(error)

        def then(found: Bundle | str) -> None:
            if isinstance(found, str):
                self._store.fault.emit(found)
                return
            contents = look_through(found, self._store.profiles, self._store.macros)
            self.dialog = BundleDialog(found, contents, path.name, self._of)
            self.dialog.accepted.connect(self._import)
            self.dialog.open()

        self._background.start(work, then)

    def _import(self) -> None:
        dialog = self.dialog
        if dialog is None:
            return
        allowed = [command for command, box in dialog.allowed.items() if box.isChecked()]
        live = [key for key, box in dialog.live.items() if box.isChecked()]
        merged = merge(dialog.bundle, self._store.profiles, self._store.macros, dialog.clash, new_id, allowed, live)
        commands.import_merged(self._store, merged)
        if merged.profiles:
            self._shown.show_profile(merged.profiles[0].id)
