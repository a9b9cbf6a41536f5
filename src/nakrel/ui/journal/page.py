"""What happened, when and why."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import QModelIndex, QPersistentModelIndex, QSortFilterProxyModel, Qt
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from nakrel.protocol import Entry
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import label
from nakrel.ui.widgets.moments import moment
from nakrel.ui.widgets.nothing import NothingHere
from nakrel.ui.widgets.rows import WEAK, HeadedModel, Table
from nakrel.ui.widgets.search_field import SearchField
from nakrel.words import noted, tr

__all__ = ["JournalModel", "JournalPage"]

_HEADS = (tr("when"), tr("kind"), tr("what"), tr("why"))
_KEPT = 2_000
AnyIndex = QModelIndex | QPersistentModelIndex
# The kinds of entries, as the service names them.
_KINDS = (
    noted("switch", "journal"),
    noted("run", "journal"),
    noted("fault", "journal"),
    noted("edit", "journal"),
    noted("tuning", "journal"),
    noted("service", "journal"),
)


class JournalModel(HeadedModel):
    """The entries, the newest first."""

    def __init__(self, store: Store) -> None:
        super().__init__(_HEADS)
        self._store = store
        self._entries: list[Entry] = []
        store.journal_changed.connect(self.refresh)

    def refresh(self) -> None:
        """Take the entries from the store. New ones come above the others, so that one that is being read stays chosen
        and where it is."""
        entries = self._store.journal[-_KEPT:][::-1]
        new = entries.index(self._entries[0]) if self._entries and self._entries[0] in entries else 0
        if not new or entries[new:] != self._entries[: len(entries) - new]:
            if entries != self._entries:
                self.beginResetModel()
                self._entries = entries
                self.endResetModel()
            return
        self.beginInsertRows(QModelIndex(), 0, new - 1)
        self._entries = [*entries[:new], *self._entries]
        self.endInsertRows()
        if len(self._entries) > len(entries):
            self.beginRemoveRows(QModelIndex(), len(entries), len(self._entries) - 1)
            self._entries = entries
            self.endRemoveRows()

    def size(self) -> int:
        """A row an entry."""
        return len(self._entries)

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """What a cell shows."""
        if not index.isValid():
            return None
        entry = self._entries[index.row()]
        if role == Qt.ItemDataRole.DisplayRole:
            return (moment(entry.at), tr(entry.kind, "journal"), entry.what, entry.why)[index.column()]
        if role == Qt.ItemDataRole.ToolTipRole and index.column() >= 2:
            return (entry.what, entry.why)[index.column() - 2] or None
        return index.column() != 2 if role == WEAK else None


class JournalPage(QWidget):
    """The journal with a search field."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self.model = JournalModel(store)
        self._proxy = QSortFilterProxyModel(self)
        self._proxy.setSourceModel(self.model)
        self._proxy.setFilterKeyColumn(-1)
        self._proxy.setFilterCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self.search = SearchField(tr("Find in the journal"))
        self.search.textChanged.connect(self._proxy.setFilterFixedString)
        self.table = Table(tr("Journal"))
        self.table.setModel(self._proxy)
        self.search.lead_to(self.table)
        self.table.set_widths(140, 70, 280)
        self.nothing = NothingHere(self.search.clear).follow(self.search, self._proxy)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 8, 0, 0)
        layout.setSpacing(6)
        layout.addWidget(self.search)
        layout.addWidget(self.nothing)
        layout.addWidget(self.table, 1)
        layout.addWidget(label(tr("Profile switches, runs and faults. What you type is never in it."), "soft"))
        self.model.refresh()
        self._proxy.rowsInserted.connect(self._stay)

    def _stay(self, parent: QModelIndex, first: int, last: int) -> None:
        """Who has scrolled down goes on seeing the same entries."""
        bar = self.table.verticalScrollBar()
        if bar and bar.value() > first:
            bar.setValue(bar.value() + last - first + 1)
