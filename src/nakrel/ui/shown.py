"""What is shown: the profile, the macro, the page. It never follows what is live."""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal

from nakrel.core.edit.timeline import NOTHING, Timeline, lay_out
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from nakrel.core.model.settings import SettingsPatch, WindowState
from nakrel.ui.store import Store
from nakrel.words import order_of, tr

__all__ = ["PAGES", "PAGE_LABELS", "Shown"]

PAGES = ("sheet", "macro", "devices", "journal", "range")
PAGE_LABELS = {
    "sheet": tr("Buttons"),
    "macro": tr("Macro"),
    "devices": tr("Devices"),
    "journal": tr("Journal"),
    "range": tr("Range"),
}


class Shown(QObject):
    """The window's own state; `control` is the row of the sheet whose details are shown."""

    profile_changed = pyqtSignal()
    macro_changed = pyqtSignal()
    control_changed = pyqtSignal()
    page_changed = pyqtSignal()
    frames_changed = pyqtSignal()

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        last = store.settings.shown
        self._profile, self._macro, self.control = last.profile or EVERYDAY, last.macro, ""
        self.layer = ""
        # Which set-up of a profile is shown; the one in use when the profile is shown first.
        self._setups: dict[str, str] = {}
        # The frame rate of the game that is thought of, in frames a second.
        self.frames = 60
        self._line = NOTHING
        self.diagram_px, self.place, self.maximized = last.diagram_px, last.place, last.maximized
        self.folded = set(last.folded)
        self.as_board = last.as_board
        self.page = last.page if last.page in PAGES else PAGES[0]
        store.library_changed.connect(self._check)
        store.profile_changed.connect(lambda key: self._check())
        store.macro_changed.connect(lambda key: self._check())
        self._check()

    @property
    def profile(self) -> Profile | None:
        """The profile shown."""
        return self._store.profiles.get(self._profile)

    @property
    def setup(self) -> SetUp | None:
        """The variant shown."""
        if (profile := self.profile) is None:
            return None
        name = self._setups.setdefault(profile.id, self._store.status.setups.get(profile.id, profile.setups[0].name))
        return profile.setup(name)

    @property
    def macro(self) -> Macro | None:
        """The macro shown; None where there is none."""
        return self._store.macros.get(self._macro)

    @property
    def line(self) -> Timeline:
        """The macro shown, laid out in time."""
        macro = self.macro
        if macro is None:
            return NOTHING
        if self._line.macro is not macro:
            self._line = lay_out(macro, self._line if self._line.macro.id == macro.id else None)
        return self._line

    def set_frames(self, fps: int) -> None:
        """Think of a game at this frame rate."""
        if fps != self.frames:
            self.frames = fps
            self.frames_changed.emit()

    def set_diagram(self, height: int) -> None:
        """The diagram has this height from now on, in pixels."""
        self.diagram_px = height

    def fold(self, part: str, on: bool) -> None:
        """Fold a part of the window, or unfold it."""
        (self.folded.add if on else self.folded.discard)(part)

    def remember(self) -> None:
        """Let the next window show the same."""
        now = WindowState(
            self._profile,
            self._macro,
            self.page,
            self.diagram_px,
            self.place,
            self.maximized,
            tuple(sorted(self.folded)),
            self.as_board,
        )
        if now != self._store.settings.shown:
            self._store.change_settings(SettingsPatch(shown=now))

    def show_profile(self, key: str) -> None:
        """Show this profile."""
        if key != self._profile and key in self._store.profiles:
            self._profile = key
            self.profile_changed.emit()

    def show_setup(self, name: str) -> None:
        """Show this variant of the profile shown."""
        profile, before = self.profile, self.setup
        if profile and before and name != before.name:
            self._setups[profile.id] = name
            self.layer = self.layer if any(each.name == self.layer for each in profile.setup(name).layers) else ""
            self.profile_changed.emit()

    def follow_rename(self, old: str, new: str) -> None:
        """A variant of the profile shown has got another name."""
        if self.profile and self._setups.get(self.profile.id) == old:
            self._setups[self.profile.id] = new

    def show_macro(self, key: str, *, open_page: bool = True) -> None:
        """Show this macro, on its page unless told otherwise."""
        if key in self._store.macros and key != self._macro:
            self._macro = key
            self.macro_changed.emit()
        if open_page:
            self.show_page("macro")

    def show_control(self, code: str, layer: str = "") -> None:
        """Show this control's details, in a layer or with '' without one."""
        if (code, layer) != (self.control, self.layer):
            self.control, self.layer = code, layer
            self.control_changed.emit()

    def show_page(self, page: str) -> None:
        """Show this page."""
        if page != self.page:
            self.page = page
            self.page_changed.emit()

    def _check(self) -> None:
        """Move away from what was deleted."""
        if self._profile not in self._store.profiles and EVERYDAY in self._store.profiles:
            self._profile = EVERYDAY
            self.profile_changed.emit()
        if self._macro not in self._store.macros:
            names = sorted(self._store.macros.values(), key=lambda x: order_of(x.name))
            self._macro = names[0].id if names else ""
            self.macro_changed.emit()
