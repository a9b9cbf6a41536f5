"""The left column."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from PyQt6.QtCore import (
    QItemSelection,
    QItemSelectionModel,
    QModelIndex,
    QPersistentModelIndex,
    QPoint,
    QRectF,
    QSize,
    Qt,
    pyqtSignal,
)
from PyQt6.QtGui import QColor, QKeySequence, QPainter, QPaintEvent, QResizeEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QLabel,
    QListView,
    QMenu,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from nakrel.core.model.cells import RunMacro
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.ui import commands
from nakrel.ui.profiles.history import History
from nakrel.ui.profiles.models import COLOUR, KEY, LIVE, MacroList, ProfileList
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.theme import SMALL_PX, font, palette
from nakrel.ui.widgets.basics import button, hairline, label, restyle
from nakrel.ui.widgets.nothing import NothingHere
from nakrel.ui.widgets.rows import SOFT, KeepingDelegate, RowDelegate, draw_lines_above, saw_current
from nakrel.ui.widgets.search_field import SearchField
from nakrel.ui.widgets.switch import Switch
from nakrel.words import tr

__all__ = ["ProfilesColumn"]

AnyIndex = QModelIndex | QPersistentModelIndex
_PROFILE_ROW = 46
_NO_MACROS = tr("No macro here yet. Make one with + New, then press Record.")


class _ProfileDelegate(KeepingDelegate):
    """A spine in the profile's colour, its name, its state, and a dot where it is live."""

    def sizeHint(self, option: QStyleOptionViewItem, index: AnyIndex) -> QSize:
        return QSize(100, _PROFILE_ROW)

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: AnyIndex) -> None:
        if painter is None:
            return
        p, area = palette(), QRectF(option.rect)
        painter.save()
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(area, QColor(p.field))
            painter.setPen(QColor(p.brass))
            painter.drawLine(option.rect.topLeft(), option.rect.topRight())
            painter.drawLine(option.rect.bottomLeft(), option.rect.bottomRight())
        # Lines would be blurred by it, and reach into the rows beside.
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(index.data(COLOUR)))
        painter.drawRoundedRect(QRectF(area.left() + 12, area.top() + 8, 4, area.height() - 16), 1.5, 1.5)
        live = bool(index.data(LIVE))
        if live:
            painter.setBrush(QColor(p.brass))
            painter.drawEllipse(QRectF(area.right() - 22, area.center().y() - 4, 9, 9))
        text = area.adjusted(26, 6, -28, -5)
        painter.setFont(font(bold=bool(option.state & QStyle.StateFlag.State_Selected)))
        painter.setPen(QColor(p.ink))
        name = painter.fontMetrics().elidedText(index.data(), Qt.TextElideMode.ElideRight, int(text.width()))
        painter.drawText(text, Qt.AlignmentFlag.AlignTop, name)
        painter.setFont(font(SMALL_PX))
        painter.setPen(QColor(p.soft))
        state = painter.fontMetrics().elidedText(index.data(SOFT), Qt.TextElideMode.ElideRight, int(text.width()))
        painter.drawText(text, Qt.AlignmentFlag.AlignBottom, state)
        if option.state & QStyle.StateFlag.State_HasFocus:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QColor(p.brass))
            painter.drawRect(area.adjusted(1, 1, -2, -2))
        painter.restore()

    def updateEditorGeometry(self, editor: QWidget | None, option: QStyleOptionViewItem, index: AnyIndex) -> None:
        if editor:
            # The line of its state stays in sight beneath.
            editor.setGeometry(option.rect.adjusted(17, 1, -8, -19))


class _MacroDelegate(RowDelegate):
    def updateEditorGeometry(self, editor: QWidget | None, option: QStyleOptionViewItem, index: AnyIndex) -> None:
        if editor:
            editor.setGeometry(option.rect.adjusted(20, 1, -8, -1))


class _List(QListView):
    """A list whose entries are renamed with F2 or a second click, and deleted with Delete."""

    def __init__(self, name: str, empty: str, delegate: QStyledItemDelegate, delete: Callable[[str], None]) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setItemDelegate(delegate)
        self.setEditTriggers(QAbstractItemView.EditTrigger.EditKeyPressed)
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self._delete = delete
        self.empty = empty

    def key(self) -> str:
        """The id of the current entry, '' for none."""
        return str(self.currentIndex().data(KEY) or "")

    def selectionChanged(self, now: QItemSelection, before: QItemSelection) -> None:
        super().selectionChanged(now, before)
        draw_lines_above(self, now, before)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        seen = saw_current(self, event)
        super().resizeEvent(event)
        if seen:
            self.scrollTo(self.currentIndex())

    def paintEvent(self, event: QPaintEvent | None) -> None:
        super().paintEvent(event)
        ground, model = self.viewport(), self.model()
        if ground and model and not model.rowCount():
            painter = QPainter(ground)
            painter.setFont(font(SMALL_PX))
            painter.setPen(QColor(palette().soft))
            flags = Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap
            painter.drawText(ground.rect().adjusted(14, 6, -14, 0), flags, self.empty)

    def keyPressEvent(self, event: object) -> None:
        if event.matches(QKeySequence.StandardKey.Delete) and self.key():  # type: ignore[attr-defined]
            self._delete(self.key())
            return
        super().keyPressEvent(event)  # type: ignore[arg-type]


class ProfilesColumn(QWidget):
    """Search, profiles, macros, and the switch that follows games."""

    export_wanted = pyqtSignal(object)

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self.setObjectName("side")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(216)
        self._store, self._shown = store, shown
        self.search = SearchField(tr("Find a profile or macro"))
        self.profiles, self.macros = ProfileList(store), MacroList(store)
        self.profile_view = _List(tr("Profiles"), "", _ProfileDelegate(self), self._delete_profile)
        self.macro_view = _List(tr("Macros"), _NO_MACROS, _MacroDelegate(self), self._delete_macro)
        self.search.lead_to(self.profile_view, self.macro_view)
        self.nothing = NothingHere(self.search.clear).follow(self.search, self.profiles, self.macros)
        self.follow = Switch(tr("Load with games"))
        self._follow_note = label("", "soft", wrap=True)
        self.saved = label("", "soft")
        self._build()
        self._connect()
        self._select_shown()

    def new_profile(self) -> None:
        """Make a profile and let its name be typed."""
        self.search.clear()
        self._shown.show_profile(commands.new_profile(self._store).id)
        self._rename(self.profile_view)

    def new_macro(self) -> None:
        """Make a macro, show it and let its name be typed."""
        self.search.clear()
        self._shown.show_macro(commands.new_macro(self._store).id)
        self._rename(self.macro_view)

    def chosen_profiles(self) -> list[Profile]:
        """The selected profiles, the shown one at least."""
        chosen = self.profile_view.selectionModel()
        keys = [str(index.data(KEY)) for index in sorted(chosen.selectedIndexes())] if chosen else []
        found = [self._store.profiles[key] for key in keys if key in self._store.profiles]
        return found or ([self._shown.profile] if self._shown.profile else [])

    def open_history(self, kind: Literal["profile", "macro"], key: str = "") -> History:
        """Show the versions of a profile or macro, or without an id what was deleted."""
        dialog = History(self._store, kind, key, self.window())
        dialog.open()
        return dialog

    def _rename(self, view: _List) -> None:
        view.setFocus()
        view.edit(view.currentIndex())

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 10, 0, 10)
        layout.setSpacing(4)
        head = QHBoxLayout()
        head.setContentsMargins(14, 0, 8, 4)
        head.addWidget(label(tr("Profiles"), "heading"))
        head.addStretch(1)
        self.new_profile_button = button(tr("+ New"), self.new_profile, "link", tr("A new profile (Ctrl+N)"))
        self.new_profile_button.setAccessibleName(tr("New profile"))
        head.addWidget(self.new_profile_button)
        layout.addLayout(head)
        find = QHBoxLayout()
        find.setContentsMargins(12, 0, 12, 4)
        find.addWidget(self.search)
        layout.addLayout(find)
        layout.addWidget(self.nothing)
        self.profile_view.setModel(self.profiles)
        # With Ctrl and Shift several, to be exported together.
        self.profile_view.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        layout.addWidget(self.profile_view, 5)
        macros = QHBoxLayout()
        macros.setContentsMargins(14, 6, 8, 0)
        macros.addWidget(label(tr("Macros"), "heading"))
        macros.addStretch(1)
        self.new_macro_button = button(tr("+ New"), self.new_macro, "link", tr("A new macro (Ctrl+M)"))
        self.new_macro_button.setAccessibleName(tr("New macro"))
        macros.addWidget(self.new_macro_button)
        layout.addLayout(macros)
        self.macro_view.setModel(self.macros)
        self.macro_view.setDragEnabled(True)
        layout.addWidget(self.macro_view, 6)
        layout.addWidget(hairline())
        layout.addLayout(self._foot())

    def _foot(self) -> QVBoxLayout:
        foot = QVBoxLayout()
        foot.setContentsMargins(14, 6, 14, 0)
        row = QHBoxLayout()
        name = QLabel(tr("Load with games"))
        name.setBuddy(self.follow)
        row.addWidget(name)
        row.addStretch(1)
        row.addWidget(self.follow)
        foot.addLayout(row)
        foot.addWidget(self._follow_note)
        foot.addWidget(self.saved)
        return foot

    def _connect(self) -> None:
        self.search.textChanged.connect(self.profiles.set_filter)
        self.search.textChanged.connect(self.macros.set_filter)
        self.search.textChanged.connect(self._say_what_is_missing)
        for model in (self.profiles, self.macros):
            model.modelReset.connect(self._select_shown)
        self._shown.profile_changed.connect(self._select_shown)
        self._shown.macro_changed.connect(self._select_shown)
        self._shown.page_changed.connect(self._select_shown)
        if chosen := self.profile_view.selectionModel():
            chosen.currentChanged.connect(lambda now, before: self._shown.show_profile(str(now.data(KEY) or "")))
        if picked := self.macro_view.selectionModel():
            picked.currentChanged.connect(lambda now, before: self._macro_reached(str(now.data(KEY) or "")))
        self.macro_view.clicked.connect(lambda index: self._shown.show_macro(index.data(KEY)))
        self.macro_view.activated.connect(lambda index: self._shown.show_macro(index.data(KEY)))
        self.profile_view.clicked.connect(lambda index: self._shown.show_page("sheet"))
        self.profile_view.activated.connect(lambda index: self._shown.show_page("sheet"))
        self.profile_view.customContextMenuRequested.connect(self._profile_menu)
        self.macro_view.customContextMenuRequested.connect(self._macro_menu)
        self.follow.toggled.connect(self._follow_toggled)
        self._store.status_changed.connect(self._show_follow)
        self._store.settings_changed.connect(self._show_follow)
        self._store.saving_changed.connect(self._show_saving)
        self._show_follow()

    def _macro_reached(self, key: str) -> None:
        """Where a macro is shown it is the one that stands out in the list, however that was reached."""
        if self._shown.page == "macro":
            self._shown.show_macro(key, open_page=False)

    def _say_what_is_missing(self, typed: str) -> None:
        """In each list what it lacks; NothingHere speaks when both are empty."""
        typed = typed.strip()
        both = bool(typed) and not self.profiles.items and not self.macros.items
        for view, missing in (
            (self.profile_view, tr("No profile matches “{typed}”.")),
            (self.macro_view, tr("No macro matches “{typed}”.")),
        ):
            view.empty = "" if both else missing.format(typed=typed) if typed else _NO_MACROS
            view.update()

    def _select_shown(self) -> None:
        if profile := self._shown.profile:
            self._select(self.profile_view, self.profiles.row_of(profile.id))
        if macro := self._shown.macro:
            self._select(self.macro_view, self.macros.row_of(macro.id))

    def _select(self, view: _List, row: int) -> None:
        model, chosen = view.model(), view.selectionModel()
        if row < 0 and chosen:
            # What is shown isn't in the list: nothing in it stands out as if it were.
            chosen.clear()
        elif model and chosen and view.currentIndex().row() != row:
            chosen.setCurrentIndex(model.index(row, 0), QItemSelectionModel.SelectionFlag.ClearAndSelect)

    def _show_saving(self) -> None:
        """Say whether what is shown is on the disk."""
        reason = self._store.not_saved
        self.saved.setText(tr("not saved") if reason else tr("saving…") if self._store.saving else tr("saved"))
        self.saved.setToolTip(reason)
        restyle(self.saved, "alarm" if reason else "soft")

    def _show_follow(self) -> None:
        pinned = self._store.profiles.get(self._store.status.pinned)
        self.follow.blockSignals(True)
        self.follow.setChecked(pinned is None)
        self.follow.blockSignals(False)
        note = tr("the game in front counts") if self._store.status.sees_windows else tr("the game started last counts")
        self._follow_note.setText(tr("{name} is pinned").format(name=pinned.name) if pinned else note)
        self._follow_note.setToolTip(
            ""
            if self._store.status.sees_windows
            else tr("This desktop doesn't tell programs which window is in front.")
        )

    def _follow_toggled(self, on: bool) -> None:
        self._store.pin("" if on else self._store.status.live)

    def _delete_profile(self, key: str) -> None:
        if key != EVERYDAY and key in self._store.profiles:
            commands.delete_profile(self._store, self._store.profiles[key])

    def _delete_macro(self, key: str) -> None:
        if key in self._store.macros:
            commands.delete_macro(self._store, self._store.macros[key])

    def _profile_menu(self, spot: QPoint) -> None:
        key = str(self.profile_view.indexAt(spot).data(KEY) or "")
        if profile := self._store.profiles.get(key):
            pinned = self._store.status.pinned == key
            menu = QMenu(self)
            menu.addAction(tr("Rename\tF2"), lambda: self._rename(self.profile_view))
            menu.addAction(tr("Duplicate"), lambda: self.duplicate_profile(profile))
            menu.addAction(tr("Export…"), lambda: self.export_wanted.emit(profile))
            menu.addAction(tr("Empty this profile…"), lambda: self._reset(key))
            menu.addAction(tr("Versions…"), lambda: self.open_history("profile", key))
            menu.addAction(
                tr("Load with games again") if pinned else tr("Pin"), lambda: self._store.pin("" if pinned else key)
            )
            menu.addSeparator()
            gone = menu.addAction(tr("Delete\tDel"), lambda: self._delete_profile(key))
            if gone:
                gone.setEnabled(key != EVERYDAY)
            self._pop_up(menu, self.profile_view, spot)

    def duplicate_profile(self, profile: Profile) -> None:
        """Make a copy, show it, and say that it shares its macros."""
        copy = commands.duplicate_profile(self._store, profile)
        self._shown.show_profile(copy.id)
        if any(isinstance(cell, RunMacro) for *_, cell in copy.cells()):
            self._store.offer.emit(
                tr("{copy} plays the same macros as {name}: an edit of one changes both.").format(
                    copy=copy.name, name=profile.name
                ),
                tr("Give it copies"),
                lambda: commands.copy_macros(self._store, copy.id),
            )

    def rename_shown(self) -> None:
        """Rename the profile that is shown, in its list."""
        self._rename(self.profile_view)

    def delete_shown(self) -> None:
        """Delete the profile that is shown; Everyday stays."""
        if profile := self._shown.profile:
            self._delete_profile(profile.id)

    def empty_shown(self) -> None:
        """Empty the profile that is shown."""
        if profile := self._shown.profile:
            self._reset(profile.id)

    def _reset(self, key: str) -> None:
        if profile := self._store.profiles.get(key):
            commands.reset_profile(self._store, profile)

    def _macro_menu(self, spot: QPoint) -> None:
        key = str(self.macro_view.indexAt(spot).data(KEY) or "")
        if macro := self._store.macros.get(key):
            menu = QMenu(self)
            menu.addAction(tr("Rename\tF2"), lambda: self._rename(self.macro_view))
            menu.addAction(
                tr("Duplicate"), lambda: self._shown.show_macro(commands.duplicate_macro(self._store, macro).id)
            )
            menu.addAction(tr("Versions…"), lambda: self.open_history("macro", key))
            menu.addSeparator()
            menu.addAction(tr("Delete\tDel"), lambda: self._delete_macro(key))
            self._pop_up(menu, self.macro_view, spot)

    def _pop_up(self, menu: QMenu, view: _List, spot: QPoint) -> None:
        if ground := view.viewport():
            menu.popup(ground.mapToGlobal(spot))
