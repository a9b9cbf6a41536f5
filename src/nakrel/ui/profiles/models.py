"""The lists of the left column."""

from __future__ import annotations

from typing import Any

import msgspec
from PyQt6.QtCore import QAbstractListModel, QMimeData, QModelIndex, QPersistentModelIndex, Qt, QTimer

from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, cycle_us, describe_play
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.core.model.programs import describe_rule
from nakrel.core.model.units import shown_rate
from nakrel.ui import commands
from nakrel.ui.dragged import MACRO_MIME
from nakrel.ui.store import Store
from nakrel.ui.widgets import glyphs
from nakrel.ui.widgets.rows import GLYPH, SOFT
from nakrel.words import order_of, tr

__all__ = ["COLOUR", "KEY", "LIVE", "MacroList", "ProfileList", "profile_state"]

COLOUR = Qt.ItemDataRole.UserRole + 10
LIVE = Qt.ItemDataRole.UserRole + 11
KEY = Qt.ItemDataRole.UserRole + 12

AnyIndex = QModelIndex | QPersistentModelIndex
_EDITABLE = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable | Qt.ItemFlag.ItemIsEditable


def profile_state(store: Store, profile: Profile) -> str:
    """The line of state beneath a profile's name."""
    status = store.status
    if profile.id == status.pinned:
        return tr("pinned")
    if profile.id == status.live and profile.id != EVERYDAY:
        return tr("in front") if status.program_in_front else tr("running")
    if profile.id == EVERYDAY:
        return tr("when no linked program runs")
    if not profile.programs:
        return tr("no program linked")
    return tr("running in the background") if profile.id in status.running_profiles else tr("not running")


class _NamedList(QAbstractListModel):
    """Named things in alphabetical order, filtered by a text."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        self._filter = ""
        self.items: list[Any] = []
        store.library_changed.connect(self.refresh)

    def set_filter(self, text: str) -> None:
        """Show only what has this text in its name."""
        self._filter = text.strip().casefold()
        self.refresh()

    def row_of(self, key: str) -> int:
        """The row of the thing with this id, -1 for none."""
        return next((n for n, item in enumerate(self.items) if item.id == key), -1)

    def refresh(self) -> None:
        """Take everything from the store anew, keeping rows that stay."""
        wanted = self._wanted()
        if [x.id for x in wanted] == [x.id for x in self.items]:
            self.items = wanted
            if wanted:
                self.dataChanged.emit(self.index(0), self.index(len(wanted) - 1))
            return
        self.beginResetModel()
        self.items = wanted
        self.endResetModel()

    def rowCount(self, parent: AnyIndex = QModelIndex()) -> int:  # noqa: B008 - Qt's own signature
        """The number of things shown."""
        return 0 if parent.isValid() else len(self.items)

    def flags(self, index: AnyIndex) -> Qt.ItemFlag:
        """Names can be edited in place."""
        return _EDITABLE if index.isValid() else Qt.ItemFlag.NoItemFlags

    def setData(self, index: AnyIndex, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        """Rename the thing."""
        name = str(value).strip()
        if role != Qt.ItemDataRole.EditRole or not name:
            return False
        key = self.items[index.row()].id
        try:
            msgspec.structs.replace(self.items[index.row()], name=name)
        except DataError as error:
            self._store.fault.emit(tr("Not renamed: {error}.").format(error=error))
            return False
        # A new name can move its row, and a row must not move while its editor hands the name over.
        QTimer.singleShot(0, lambda: self._rename(key, name))
        return True

    def _rename(self, key: str, name: str) -> None:
        """Rename what has this id as it is now: it may have changed since the name was typed, or gone, since an editor
        closes with the undo of what it stands on, too."""
        raise NotImplementedError

    def _matches(self, name: str) -> bool:
        return self._filter in name.casefold()

    def _wanted(self) -> list[Any]:
        raise NotImplementedError


class ProfileList(_NamedList):
    """The profiles, Everyday first."""

    def __init__(self, store: Store) -> None:
        super().__init__(store)
        store.profile_changed.connect(lambda key: self.refresh())
        store.status_changed.connect(self.refresh)
        self.refresh()

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """The profile's name, state, colour, and whether it is live."""
        if not index.isValid():
            return None
        profile: Profile = self.items[index.row()]
        match role:
            case Qt.ItemDataRole.DisplayRole | Qt.ItemDataRole.EditRole:
                return profile.name
            case Qt.ItemDataRole.ToolTipRole:
                return "\n".join(filter(None, [profile.note, *map(describe_rule, profile.programs)])) or None
            case Qt.ItemDataRole.AccessibleTextRole:
                live = tr(", live") if profile.id == self._store.status.live else ""
                return f"{profile.name}, {profile_state(self._store, profile)}{live}"
        return {
            SOFT: lambda: profile_state(self._store, profile),
            COLOUR: lambda: profile.colour,
            LIVE: lambda: profile.id == self._store.status.live,
            KEY: lambda: profile.id,
        }.get(role, lambda: None)()

    def _rename(self, key: str, name: str) -> None:
        if profile := self._store.profiles.get(key):
            after = msgspec.structs.replace(profile, name=name)
            commands.edit_profile(self._store, tr("rename {name}").format(name=profile.name), after)

    def _wanted(self) -> list[Profile]:
        found = [p for p in self._store.profiles.values() if self._matches(p.name)]
        return sorted(found, key=lambda p: (p.id != EVERYDAY, order_of(p.name)))


class MacroList(_NamedList):
    """All macros; each can be dragged onto the sheet."""

    def __init__(self, store: Store) -> None:
        super().__init__(store)
        store.macro_changed.connect(lambda key: self.refresh())
        self.refresh()

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """The macro's name and how it plays."""
        if not index.isValid():
            return None
        macro: Macro = self.items[index.row()]
        match role:
            case Qt.ItemDataRole.DisplayRole | Qt.ItemDataRole.EditRole:
                return macro.name
            case Qt.ItemDataRole.ToolTipRole:
                rate = shown_rate(cycle_us(macro, macro.play))
                return "\n".join(filter(None, [macro.note, f"{describe_play(macro.play)}, {rate}".rstrip(", ")]))
        if role == GLYPH:
            return glyphs.MACRO
        return macro.id if role == KEY else None

    def _rename(self, key: str, name: str) -> None:
        if macro := self._store.macros.get(key):
            after = msgspec.structs.replace(macro, name=name)
            commands.edit_macro(self._store, tr("rename {name}").format(name=macro.name), after)

    def flags(self, index: AnyIndex) -> Qt.ItemFlag:
        """Macros can be dragged, too."""
        base = super().flags(index)
        return base | Qt.ItemFlag.ItemIsDragEnabled if index.isValid() else base

    def mimeTypes(self) -> list[str]:
        """What a dragged macro is."""
        return [MACRO_MIME]

    def mimeData(self, indexes: Any) -> QMimeData:
        """The dragged macro's id."""
        data = QMimeData()
        data.setData(MACRO_MIME, self.items[next(iter(indexes)).row()].id.encode())
        return data

    def _wanted(self) -> list[Macro]:
        found = [x for x in self._store.macros.values() if self._matches(x.name)]
        return sorted(found, key=lambda x: order_of(x.name))
