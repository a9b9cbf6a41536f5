"""The first steps in an empty home: the first page, and what each of its ways leads to."""

from __future__ import annotations

from typing import Protocol

from PyQt6.QtCore import QObject, QTimer

from nakrel.ui import commands
from nakrel.ui.profiles.column import ProfilesColumn
from nakrel.ui.sheet.page import SheetPage
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.window.program import Program
from nakrel.ui.window.welcome import Welcome, is_empty
from nakrel.words import tr

__all__ = ["FirstSteps"]


class Window(Protocol):
    """What is asked of the window."""

    sheet: SheetPage
    column: ProfilesColumn
    shown: Shown
    program: Program

    def show_page_again(self) -> None: ...
    def record(self) -> None: ...
    def open_link(self) -> None: ...


class FirstSteps(QObject):
    """`active` while the first page is to be seen: until something is made, or the window is asked for."""

    def __init__(self, store: Store, window: Window, parent: QObject) -> None:
        super().__init__(parent)
        self._store, self._window = store, window
        self.page = Welcome(store, window.program)
        self.active = is_empty(store)
        for signal, does in (
            (self.page.rapid_fire_wanted, self._rapid_fire),
            (self.page.recording_wanted, self._record),
            (self.page.game_wanted, self._link_game),
            (self.page.demo_wanted, self._look_at_demo),
            (self.page.left, self.end),
            (store.library_changed, self._made),
        ):
            signal.connect(does)
        for told in (store.profile_changed, store.macro_changed):
            told.connect(lambda key: self._made())

    def end(self) -> None:
        """Show the window as it usually is."""
        self.active = False
        self._window.show_page_again()

    def _made(self) -> None:
        """Something was made elsewhere: the first page has done its work."""
        if self.active and not is_empty(self._store):
            self.end()

    def _rapid_fire(self) -> None:
        """Ask for the button by pressing it, then for the key at its cell."""
        self.end()
        # It stands in the page, which has its size with the next events.
        QTimer.singleShot(0, self._window.sheet.begin_rapid_fire)

    def _record(self) -> None:
        self.end()
        self._window.column.new_macro()
        self._window.record()

    def _link_game(self) -> None:
        self.end()
        self._window.column.new_profile()
        self._window.open_link()

    def _look_at_demo(self) -> None:
        from nakrel.demo.data import MACROS, PROFILES

        commands.add_all(self._store, tr("add the demo"), PROFILES, MACROS)
        self.end()
        self._window.shown.show_profile("tidewardens")
