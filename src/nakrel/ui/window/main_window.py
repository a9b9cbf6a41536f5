"""The main window: it puts the places together and holds the shortcuts."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property
from typing import TYPE_CHECKING, Literal

from PyQt6.QtCore import QEventLoop, QPoint, QRect, QSize, Qt, QTimer
from PyQt6.QtGui import QAction, QCloseEvent, QGuiApplication, QKeySequence, QResizeEvent
from PyQt6.QtWidgets import (
    QApplication,
    QDialog,
    QHBoxLayout,
    QLineEdit,
    QMainWindow,
    QMenu,
    QScrollArea,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from nakrel.core.model.profile import EVERYDAY
from nakrel.core.model.settings import SettingsPatch
from nakrel.ui import commands, theme
from nakrel.ui.background import wait_for_work
from nakrel.ui.own_hand import OwnHand
from nakrel.ui.profiles.bundle import Bundles
from nakrel.ui.profiles.column import ProfilesColumn
from nakrel.ui.profiles.link import LinkDialog
from nakrel.ui.sheet.details import SheetDetails
from nakrel.ui.sheet.page import SheetPage
from nakrel.ui.sheet.profile_details import ProfileDetails
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import hairline
from nakrel.ui.widgets.drawer import Drawer
from nakrel.ui.window.actions import actions_of
from nakrel.ui.window.field_undo import FieldUndo
from nakrel.ui.window.first_steps import FirstSteps
from nakrel.ui.window.head import Head
from nakrel.ui.window.messages import Messages
from nakrel.ui.window.program import Program
from nakrel.ui.window.room import Room
from nakrel.ui.window.shortcuts import ShortcutSheet
from nakrel.ui.window.strip import LiveStrip
from nakrel.ui.window.tab_order import tab_order
from nakrel.words import tr

if TYPE_CHECKING:
    from nakrel.ui.devices.page import DevicesPage
    from nakrel.ui.journal.page import JournalPage
    from nakrel.ui.macro.details import MacroDetails
    from nakrel.ui.macro.page import MacroPage
    from nakrel.ui.range.page import RangePage

__all__ = ["MainWindow"]

_DETAILS_PX = 304

# What a window manager's frame takes of the height, at most.
_FRAME_PX = 40
_LEAST_WIDTH, _LEAST_HEIGHT = 900, 500
# The click on a title bar's button, which a recording has seen.
_CLOSING = ("BTN_LEFT",)
_ONLY_TIMERS = QEventLoop.ProcessEventsFlag.ExcludeUserInputEvents | QEventLoop.ProcessEventsFlag.ExcludeSocketNotifiers
# So long after each other, what wasn't shown yet is made ahead, the window having its turn in between.
_AHEAD_MS = 250
_AHEAD = ("macro", "macro_details", "devices", "journal", "range")
# From these widths on there is room for the details beside the page, and for the profiles beside both.
_DETAILS_FROM, _COLUMN_FROM = 1200, 1060


class MainWindow(QMainWindow):
    """Profiles to the left, a page in the middle, its details to the right, the live strip at the foot.

    All pages but the sheet are loaded and made when they are first shown or used, and the window is there sooner.
    """

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.store = store
        self.shown = Shown(store)
        self.column = ProfilesColumn(store, self.shown)
        self.sheet = SheetPage(store, self.shown)
        self.sheet_details = SheetDetails(store, self.shown)
        self.hand = OwnHand(store, self)
        self.profile_details = ProfileDetails(store, self.shown)
        self.strip = LiveStrip(store)
        self.head = Head(store, self.shown)
        self._pages, self._details = QStackedWidget(), QStackedWidget()
        self._scrolled: dict[QWidget, QScrollArea] = {}
        self.messages = Messages(store, self.shown)
        self.link_dialog: LinkDialog | None = None
        self.bundles = Bundles(store, self.shown, self, self.column.chosen_profiles)
        # Whether the program goes on although the window is closed.
        self.closed_by_user: Callable[[], bool] = lambda: False
        self._left = False
        self.program = Program(store, self)
        self.first_steps = FirstSteps(store, self, self)
        self._details_folded = self._details_wanted = False
        self._ahead = QTimer(self)
        self._ahead.setInterval(_AHEAD_MS)
        self._ahead.timeout.connect(self._make_next)
        self.setWindowTitle("Nakrel")
        self.setMinimumSize(_LEAST_WIDTH, _LEAST_HEIGHT)
        self._take_place()
        self._build()
        self._make_actions()
        self._connect()
        self.show_page_again()
        self.sheet.table.setFocus()
        if isinstance(app := QApplication.instance(), QApplication):
            app.applicationStateChanged.connect(self._front_changed)
            self._front_changed(app.applicationState())
            self._field_undo = FieldUndo(app)

    # Pages that are made when they are needed

    def make_ahead(self) -> None:
        """Make those that aren't there yet one at a time from now on: nobody is to wait for one, least of all a key
        that begins a recording in a game."""
        self._ahead.start()

    def _make_next(self) -> None:
        missing = next((name for name in _AHEAD if name not in vars(self)), "")
        if missing:
            getattr(self, missing)
        else:
            self._ahead.stop()

    @cached_property
    def macro(self) -> MacroPage:
        """The page of a macro."""
        from nakrel.ui.macro.page import MacroPage

        made = MacroPage(self.store, self.shown)
        made.new_button.clicked.connect(self.column.new_macro)
        self._pages.addWidget(made)
        return made

    @cached_property
    def macro_details(self) -> MacroDetails:
        """What stands beside it."""
        from nakrel.ui.macro.details import MacroDetails

        made = MacroDetails(self.store, self.shown)
        made.selected = self.macro.selected
        made.show_row.connect(self.macro.show_row)
        made.frame_check.worst_changed.connect(self.macro.diagram.show_worst)
        made.last_run.measured.connect(lambda record, spread_us: self.macro.diagram.show_run(record))
        made.last_run.save_wanted.connect(self.macro.exchange.ask_run)
        self._add_details(made)
        return made

    @cached_property
    def devices(self) -> DevicesPage:
        """The page of the devices."""
        from nakrel.ui.devices.page import DevicesPage

        made = DevicesPage(self.store)
        made.suggested = lambda: self.range.suggested()
        self._pages.addWidget(made)
        return made

    @cached_property
    def journal(self) -> JournalPage:
        """The journal."""
        from nakrel.ui.journal.page import JournalPage

        made = JournalPage(self.store)
        self._pages.addWidget(made)
        return made

    @cached_property
    def range(self) -> RangePage:
        """The Range."""
        from nakrel.ui.range.page import RangePage

        made = RangePage(self.store, self.shown, self.hand)
        self._pages.addWidget(made)
        return made

    # Its place

    def _take_place(self) -> None:
        """Stand where it stood, as far as that is on a screen; at first in the middle, as large as usual."""
        screens = QGuiApplication.screens()
        free = screens[0].availableGeometry() if screens else QRect(0, 0, 1280, 800)
        self.resize(min(1280, free.width()), min(800, free.height() - _FRAME_PX))
        if self.shown.place:
            before = QRect(*self.shown.place)
            if screen := QGuiApplication.screenAt(before.center()):
                # As it was remembered: without the frame, which `move` would count in.
                self.setGeometry(_within(before, screen.availableGeometry()))
        if self.shown.maximized:
            self.setWindowState(Qt.WindowState.WindowMaximized)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """A narrow window folds the columns at its sides, the details first; they come back with the room."""
        super().resizeEvent(event)
        self._fold()

    def _fold(self) -> None:
        width = self.width()
        self._details_folded = width < _DETAILS_FROM and not self._details_wanted
        self._side.setVisible(self._has_details() and not self._details_folded)
        narrow = width < _DETAILS_FROM
        self.head.show_details_button(self._has_details() and narrow, self._details_folded)
        self.head.keep_tabs(0 if narrow or self._has_details() else _DETAILS_PX, narrow)
        self.column.setVisible(width >= _COLUMN_FROM or self._details_folded)

    def _has_details(self) -> bool:
        page = self.shown.page
        if self.first_steps.active and page == "sheet":
            return False
        return page == "sheet" or (page == "macro" and self.shown.macro is not None)

    def _toggle_details(self) -> None:
        self._details_wanted = self._details_folded
        self._fold()

    # Building

    def _build(self) -> None:
        whole = QWidget()
        whole.setObjectName("page")
        outer = QVBoxLayout(whole)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        body = QHBoxLayout()
        body.setSpacing(0)
        for part, stretch in (
            (self.column, 0),
            (hairline(vertical=True), 0),
            (self._middle(), 1),
            (hairline(vertical=True), 0),
            (self._right(), 0),
        ):
            body.addWidget(part, stretch)
        outer.addLayout(body, 1)
        outer.addWidget(hairline())
        outer.addWidget(self.strip)
        self.setCentralWidget(Room(whole, QSize(_LEAST_WIDTH, _LEAST_HEIGHT)))

    def _middle(self) -> QWidget:
        made = QWidget()
        layout = QVBoxLayout(made)
        layout.setContentsMargins(18, 12, 18, 8)
        layout.setSpacing(0)
        layout.addWidget(self.head)
        layout.addWidget(hairline())
        layout.addWidget(self.messages)
        for widget in (self.sheet, self.first_steps.page):
            self._pages.addWidget(widget)
        layout.addWidget(self._pages, 1)
        self.profile_drawer = Drawer(self.profile_details, self.head.profile_button, self._pages)
        return made

    def _right(self) -> QWidget:
        self._side = QWidget()
        self._side.setObjectName("side")
        self._side.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._side.setFixedWidth(_DETAILS_PX)
        layout = QVBoxLayout(self._side)
        layout.setContentsMargins(0, 0, 0, 0)
        self._add_details(self.sheet_details)
        layout.addWidget(self._details)
        return self._side

    def _add_details(self, details: QWidget) -> None:
        scroll = self._scrolled[details] = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        scroll.setWidget(details)
        self._details.addWidget(scroll)

    def _make_actions(self) -> None:
        self.actions_by_group = actions_of(self, self._action)
        for actions in self.actions_by_group.values():
            self.addActions(actions)

    def _action(self, text: str, does: Callable[[], object], keys: str = "") -> QAction:
        action = QAction(text, self)
        action.triggered.connect(lambda: does())
        if keys:
            action.setShortcut(QKeySequence(keys))
        return action

    def _connect(self) -> None:
        self.sheet_details.edit_requested = self.sheet.open_field
        assign = self.sheet.assign
        assign.recording_wanted.connect(lambda: self.macro.recording.toggle_by_shortcut())
        assign.clicks_wanted.connect(lambda: self.macro.build_clicks())
        self.store.recording_asked.connect(lambda control: self.macro.recording.begin_by_key(control))
        assign.speeds_wanted.connect(self.profile_details.open_pointer)
        self.sheet_details.finder.captured.connect(self.sheet.show_control)
        self.shown.page_changed.connect(self._show_page)
        self.shown.macro_changed.connect(self._show_page)
        self.shown.control_changed.connect(lambda: self.sheet.show_control(self.shown.control))
        self.head.link_wanted.connect(self.open_link)
        self.head.details_wanted.connect(self._toggle_details)
        self.head.menu_wanted.connect(self.open_menu)
        self.store.settings_changed.connect(self._apply_look)
        theme.follow_desktop(self._apply_look)
        self.store.settings_changed.connect(self._show_notices)
        self._show_notices()
        self.store.keyboard.renamed.connect(self._show_names)
        self.column.export_wanted.connect(self.bundles.ask_export_of)

    def focusNextPrevChild(self, next: bool) -> bool:
        """Tab goes from the column through head, page and details to the strip; with Shift, back."""
        order = tab_order(self, (self.column, self._pages, self._side, self.strip), self._side)
        focus = QApplication.focusWidget()
        if focus not in order:
            return super().focusNextPrevChild(next)
        reason = Qt.FocusReason.TabFocusReason if next else Qt.FocusReason.BacktabFocusReason
        order[(order.index(focus) + (1 if next else -1)) % len(order)].setFocus(reason)
        return True

    # Showing

    def _show_names(self) -> None:
        """Show everything anew, since keys are called otherwise than before."""
        for changed in (
            *(self.store.library_changed, self.store.settings_changed, self.store.devices_changed),
            *(self.store.status_changed, self.store.journal_changed),
            *(self.shown.profile_changed, self.shown.macro_changed, self.shown.control_changed),
        ):
            changed.emit()

    def show_page_again(self) -> None:
        """Show the page and its head as they are to be now."""
        self.head.welcome = self.first_steps.active
        self._show_page()
        self.head.show_all()

    def _show_page(self) -> None:
        page = self.shown.page
        first = self.first_steps.active and page == "sheet"
        self._pages.setCurrentWidget(self.first_steps.page if first else getattr(self, page))
        self._fold()
        if page in ("sheet", "macro"):
            self._details.setCurrentWidget(self._scrolled[getattr(self, f"{page}_details")])

    # Doing

    def open_link(self) -> None:
        """Let a program be linked to the shown profile."""
        profile = self.shown.profile
        if profile is None or profile.id == EVERYDAY:
            self.messages.tell(
                tr("Everyday is for when no linked program runs. Choose or make another profile to link.")
            )
            return
        self.link_dialog = dialog = LinkDialog(self.store, profile.id, self)
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)

        def linked(rule: object) -> None:
            now = self.store.profiles.get(profile.id)
            if now and rule not in now.programs:
                commands.set_programs(self.store, now, (*now.programs, rule))  # type: ignore[arg-type]

        dialog.linked.connect(linked)
        dialog.finished.connect(lambda: setattr(self, "link_dialog", None))
        dialog.open()

    def open_shortcuts(self) -> QDialog:
        """Show every shortcut on one sheet."""
        sheet = ShortcutSheet(self.actions_by_group, self)
        sheet.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        sheet.open()
        return sheet

    def set_look(self, look: Literal["light", "night", "system"]) -> None:
        """Choose the look: light, night or system."""
        commands.change_settings(self.store, "look", SettingsPatch(look=look))

    def toggle_notices(self) -> None:
        """Have the desktop tell what is live, or not."""
        commands.change_settings(self.store, "notices", SettingsPatch(notices=not self.store.settings.notices))

    def _show_notices(self) -> None:
        told = tr("Tell me when a profile goes live")
        action = next(each for each in self.actions_by_group["Profile"] if each.text() == told)
        action.setCheckable(True)
        action.setChecked(self.store.settings.notices)

    def _apply_look(self, *_: object) -> None:
        app = QApplication.instance()
        # Where nothing of it has changed, as with most settings, the whole window needn't be styled anew.
        if isinstance(app, QApplication) and not theme.is_current(self.store.settings.look):
            theme.apply(app, self.store.settings.look)

    def _front_changed(self, state: Qt.ApplicationState) -> None:
        self.store.set_front(state == Qt.ApplicationState.ApplicationActive)
        self._apply_look()

    def record(self) -> None:
        """Begin or end a recording into the macro that is shown."""
        self.shown.show_page("macro")
        self.macro.recording.toggle_by_shortcut()

    def find_here(self) -> None:
        """Go to the search of the page that is shown."""
        page = self.shown.page
        field: QLineEdit = getattr(self, page).search if page in ("sheet", "journal") else self.column.search
        field.setFocus()
        field.selectAll()

    def open_menu(self) -> None:
        """Open the menu."""
        _, login, install, back = self.actions_by_group["Program"]
        back.setVisible(self.store.status.backend == "kernel")
        login.setCheckable(True)
        login.setChecked(self.program.at_login)
        install.setVisible(not self.program.in_menu)
        menu = QMenu(self)
        for group, actions in self.actions_by_group.items():
            sub = menu.addMenu(tr(group, "menu"))
            if sub:
                sub.addActions(actions)
        spot = self.head.menu_button.mapToGlobal(self.head.menu_button.rect().bottomLeft())
        menu.popup(spot)

    def keep(self) -> None:
        """Have the service keep what is shown and every edit, now, with what is being typed."""
        if focus := QApplication.focusWidget():
            focus.clearFocus()
            # A new name is taken once its field is gone.
            QApplication.processEvents(_ONLY_TIMERS)
        place = self.normalGeometry()
        self.shown.place = (place.x(), place.y(), place.width(), place.height())
        self.shown.maximized = self.isMaximized()
        self.shown.remember()
        self.store.flush()

    def finish(self, gesture: tuple[str, ...] = ()) -> None:
        """End a recording that goes on, without this gesture, and keep it with all else."""
        if "macro" in vars(self):
            self.macro.recording.keep(gesture)
        self.keep()

    def leave(self) -> None:
        """Close for good, tray or not."""
        self.closed_by_user = lambda: False
        if not self._left:
            self.close()

    def closeEvent(self, event: QCloseEvent | None) -> None:
        """Close the window; everything is saved already, and the service goes on. Where there is a tray, so does the
        program: the window is only hidden."""
        if self.closed_by_user() and event:
            self.keep()
            event.ignore()
            self.hide()
            return
        self._left = True
        self.finish(_CLOSING if event and event.spontaneous() else ())
        if isinstance(app := QApplication.instance(), QApplication):
            app.applicationStateChanged.disconnect(self._front_changed)
        wait_for_work()
        self.store.leave()
        super().closeEvent(event)


def _within(before: QRect, room: QRect) -> QRect:
    """Where a window stands whose middle stood on this screen: just there, or where it is too large for it now, or its
    title bar was above it, as much of it as there is room for."""
    if before.width() <= room.width() and before.height() <= room.height() and before.top() >= room.top():
        return before
    size = before.size().boundedTo(QSize(room.width(), room.height() - _FRAME_PX))
    left = max(room.left(), min(before.left(), room.right() + 1 - size.width()))
    top = max(room.top() + _FRAME_PX, min(before.top(), room.bottom() + 1 - size.height()))
    return QRect(QPoint(left, top), size)
