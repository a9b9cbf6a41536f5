"""The head of the page: what is shown, in words, and the way to the other pages."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from nakrel.core.model.cells import RunMacro
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.profile import EVERYDAY
from nakrel.ui import commands
from nakrel.ui.shown import PAGE_LABELS, PAGES, Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label, refilling, tab_lands_on_chosen
from nakrel.ui.widgets.elided import Elided
from nakrel.ui.window.programs import LinkedPrograms
from nakrel.words import tr

__all__ = ["Head"]

# Of the places where a macro is attached, so many are named.
_MOST_PLACES = 3


class Head(QWidget):
    """The title with a line of words or programs under it, the pages' tabs, and the menu.

    With `welcome` set it is the first page that stands below in place of the sheet.
    """

    link_wanted = pyqtSignal()
    details_wanted = pyqtSignal()
    menu_wanted = pyqtSignal()

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self.welcome = False
        # What `_says` told last.
        self._said: object = None
        self.title = Elided("title", wide=True)
        self.profile_button = button(tr("Settings"), lambda: None, "link", tr("What holds for the whole profile"))
        self.profile_button.setAccessibleName(tr("Settings of the profile"))
        self.programs: LinkedPrograms | None = None
        self._place = QHBoxLayout()
        self.tabs: dict[str, QPushButton] = {}
        self.details_button = button(tr("Details"), self.details_wanted.emit, "tab", tr("Show or hide the details"))
        self.menu_button = button("≡", self.menu_wanted.emit, "tab", tr("Menu (F10)"))
        self.menu_button.setAccessibleName(tr("Menu"))
        self._build()
        for signal in (shown.page_changed, shown.profile_changed, shown.macro_changed, store.library_changed):
            signal.connect(self.show_all)
        for changed in (store.profile_changed, store.macro_changed):
            changed.connect(lambda key: self._show_edited())
        store.status_changed.connect(self._show_edited)

    def _build(self) -> None:
        named = QHBoxLayout()
        named.addWidget(self.title)
        named.addWidget(self.profile_button)
        named.addStretch(1)
        place = QWidget()
        place.setFixedHeight(24)
        place.setLayout(self._place)
        self._place.setContentsMargins(0, 0, 0, 0)
        self._place.setSpacing(4)
        titles = QVBoxLayout()
        titles.setSpacing(0)
        titles.addLayout(named)
        titles.addWidget(place)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addLayout(titles, 1)
        group = QButtonGroup(self)
        for page in PAGES:
            tab = button(PAGE_LABELS[page], partial(self._shown.show_page, page), "tab")
            tab.setCheckable(True)
            tab.setAccessibleName(tr("{page} page").format(page=PAGE_LABELS[page]))
            group.addButton(tab)
            self.tabs[page] = tab
        tab_lands_on_chosen(group)
        for each in (*self.tabs.values(), self.details_button, self.menu_button):
            layout.addWidget(each, 0, Qt.AlignmentFlag.AlignBottom)

    def show_details_button(self, there: bool, folded: bool) -> None:
        """Whether there are details that can be folded, and are."""
        self.details_button.setVisible(there)
        self.details_button.setText(tr("Details «") if folded else tr("Details »"))

    def keep_tabs(self, beside: int, with_details: bool) -> None:
        """Leave the pages' tabs where they are on all pages: `beside` are the pixels that details would take, and
        `with_details` says that their button has its place among the tabs."""
        if layout := self.layout():
            layout.setContentsMargins(0, 0, beside, 0)
        policy = self.details_button.sizePolicy()
        if policy.retainSizeWhenHidden() != with_details:
            policy.setRetainSizeWhenHidden(with_details)
            self.details_button.setSizePolicy(policy)

    def show_all(self) -> None:
        """Show what the page shows, in words."""
        self._said = self._says()
        with refilling(self._place):
            self._fill()

    def _fill(self) -> None:
        page, profile, macro = self._shown.page, self._shown.profile, self._shown.macro
        self.programs = None
        self.tabs[page].setChecked(True)
        said = ""
        self.profile_button.setVisible(page == "sheet" and profile is not None)
        if page == "sheet" and self.welcome:
            self.title.set_text(tr("Welcome to Nakrel"))
            self.profile_button.hide()
        elif page == "sheet" and profile:
            self.title.set_text(profile.name)
            if profile.id == EVERYDAY:
                said = tr("live when no linked program runs")
            else:
                self._show_programs()
        elif page == "macro":
            self.title.set_text(macro.name if macro else tr("No macro"))
            said = self.attached_words() if macro else ""
        elif page == "devices":
            self.title.set_text(tr("Devices"))
            said = tr("what is attached, and how it is read")
        elif page == "journal":
            self.title.set_text(tr("Journal"))
            said = tr("what happened, and why")
        elif page == "range":
            self.title.set_text(tr("Range"))
            said = tr("how fast, how long, and what a game would have seen")
        if said:
            line = Elided("soft")
            line.set_text(said)
            self._place.addWidget(line, 1)
        else:
            self._place.addStretch(1)

    def _show_edited(self) -> None:
        """Show it anew where an edit has changed what it says."""
        if self._says() != self._said:
            self.show_all()

    def _says(self) -> object:
        """What is told by the words, as far as edits can change it."""
        page, profile, macro = self._shown.page, self._shown.profile, self._shown.macro
        if page == "sheet":
            return page, profile and (profile.id, profile.name, profile.programs, profile.allowed)
        if page == "macro":
            return page, macro and (macro.id, macro.name, self.attached_words())
        return page

    def _show_programs(self) -> None:
        profile = self._shown.profile
        assert profile
        if profile.programs:
            self.programs = LinkedPrograms(profile.programs)
            self.programs.unlink.connect(self._unlink)
            self._place.addWidget(self.programs)
        if not profile.programs:
            self._place.addWidget(label(tr("no program linked"), "soft"))
        if profile.programs and not profile.allowed:
            self._place.addWidget(label(tr("from outside, waits:"), "alarm"))
            self._place.addWidget(
                button(tr("let it go live"), partial(commands.allow, self._store, profile.id), "link")
            )
        self.link_button = button(
            tr("+ link"), self.link_wanted.emit, "link", tr("Link the game that this profile is for (Ctrl+L)")
        )
        self.link_button.setAccessibleName(tr("Link a program"))
        self._place.addWidget(self.link_button)

    def attached_words(self) -> str:
        """Where the macro that is shown is attached."""
        macro = self._shown.macro
        places = [
            f"{control_label(code, layer)} ({profile.name}{f', {setup.name}' if len(profile.setups) > 1 else ''})"
            for profile in self._store.profiles.values()
            for setup, layer, code, cell in profile.cells()
            if macro and isinstance(cell, RunMacro) and cell.macro == macro.id
        ]
        if not places:
            return tr("on no button yet")
        told = tr("on {places} and more") if len(places) > _MOST_PLACES else tr("on {places}")
        return told.format(places=", ".join(places[:_MOST_PLACES]))

    def _unlink(self, number: int) -> None:
        if profile := self._shown.profile:
            rest = tuple(rule for n, rule in enumerate(profile.programs) if n != number)
            commands.set_programs(self._store, profile, rest)
