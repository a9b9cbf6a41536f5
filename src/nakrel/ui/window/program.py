"""Nakrel as a program of the desktop, from within its window: its place in the menu, and its start at login."""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QWidget

from nakrel.desktop import login
from nakrel.desktop.install import Installed, InstallError, install, is_installed
from nakrel.desktop.login import LoginError
from nakrel.ui.background import Background
from nakrel.ui.devices.fix import Fix
from nakrel.ui.store import Store
from nakrel.words import tr

__all__ = ["Program"]


class Program(QObject):
    """`changed` tells that the menu or the start at login is another now."""

    changed = pyqtSignal()

    def __init__(self, store: Store, parent: QWidget) -> None:
        super().__init__(parent)
        self.take_back = Fix(parent, back=True)
        self.take_back.ended.connect(lambda failed: store.fault.emit(failed) if failed else None)
        self._store = store
        self._background = Background(self)

    @property
    def in_menu(self) -> bool:
        """Whether the desktop's menu has Nakrel."""
        return is_installed()

    @property
    def at_login(self) -> bool:
        """Whether the service starts at login."""
        return login.is_on()

    def install(self) -> None:
        """Put Nakrel into the desktop's menu; tools that keep its lists take a moment."""

        def work() -> Installed | str:
            try:
                return install()
            except InstallError as error:
                return str(error)

        def then(done: Installed | str) -> None:
            if isinstance(done, str):
                self._store.fault.emit(tr("Not added to the menu: {done}.").format(done=done))
            else:
                notes = "".join(tr(" Note: {note}.").format(note=note) for note in done.notes)
                message = tr("Nakrel is in the desktop's menu. `nakrel uninstall` takes it out again.{notes}").format(
                    notes=notes
                )
                self._store.offer.emit(message, "", lambda: None)
            self.changed.emit()

        self._background.start(work, then)

    def set_login(self, on: bool) -> None:
        """Let the service start at login, or not."""

        def work() -> str:
            try:
                if on:
                    login.turn_on()
                else:
                    login.turn_off()
            except LoginError as error:
                return str(error)
            return ""

        def then(error: str) -> None:
            if error:
                self._store.fault.emit(tr("Not changed: {error}.").format(error=error))
            self.changed.emit()

        self._background.start(work, then)
