"""What is done with the cells that are chosen: copied, cut, pasted, cleared, and their menu."""

from __future__ import annotations

from msgspec.structs import replace
from PyQt6.QtCore import QModelIndex, QObject, QPoint, pyqtSignal
from PyQt6.QtWidgets import QMenu, QWidget

from nakrel.core.model.cells import Cell, StartProgram
from nakrel.ui import commands
from nakrel.ui.sheet.model import CODE, SheetModel
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.rows import Table
from nakrel.words import tr

__all__ = ["CellEdits"]


class CellEdits(QObject):
    """Works on the rows that are selected in the list, in the layer that is shown. `change_wanted`: the field."""

    change_wanted = pyqtSignal()

    def __init__(self, store: Store, shown: Shown, table: Table, model: SheetModel, over: QWidget) -> None:
        super().__init__(over)
        self._store, self._shown, self._table, self._model, self._over = store, shown, table, model, over
        # The layer and the control that were copied, and whether they were cut.
        self._carried: tuple[str, str, bool] | None = None

    def chosen_codes(self) -> list[str]:
        """The controls of the selected rows."""
        chosen = self._table.selectionModel()
        rows = {index.row() for index in chosen.selectedRows()} if chosen else set()
        return [self._model.index(row, 0).data(CODE) for row in sorted(rows)]

    def clear(self) -> None:
        """Give the chosen controls back to the device, in the layer that is chosen."""
        profile, setup, layer = self._shown.profile, self._shown.setup, self._shown.layer
        codes = self.chosen_codes()
        if profile and setup and codes:
            cells: dict[tuple[str, str], Cell | None] = dict.fromkeys((layer, code) for code in codes)
            text = tr("detach") if len(codes) == 1 else tr("clear {count} buttons").format(count=len(codes))
            if refused := commands.set_cells(self._store, profile, setup.name, cells, text):
                self._store.fault.emit(refused)

    def copy(self, *, cut: bool = False) -> None:
        """Remember what the chosen control does; a cut one is taken from it when it is put elsewhere."""
        if self._shown.control:
            self._carried = (self._shown.layer, self._shown.control, cut)

    def paste(self) -> None:
        """Let the chosen control do what was copied or cut."""
        if self._carried and self._shown.control:
            layer, code, cut = self._carried
            self._model.carry((layer, code), (self._shown.layer, self._shown.control), copy=not cut)
            self._carried = None if cut else self._carried

    def clear_shown(self) -> None:
        """Leave the button that is shown unchanged."""
        self._table.choose(self._shown_index())
        self.clear()

    def menu_of_shown(self, spot: QPoint) -> None:
        """The menu of the button that is shown, at a spot of the screen."""
        self._table.choose(self._shown_index())
        self._popup(spot)

    def menu_at(self, spot: QPoint) -> None:
        """The menu of the row at a spot of the list."""
        index, ground = self._table.indexAt(spot), self._table.viewport()
        if index.isValid() and ground is not None:
            self._popup(ground.mapToGlobal(spot))

    def _shown_index(self) -> QModelIndex:
        return self._model.index(self._model.row_of(self._shown.control), self._model.column_of(self._shown.layer))

    def _popup(self, spot: QPoint) -> None:
        menu = QMenu(self._over)
        menu.addAction(tr("Change…\tEnter"), self.change_wanted.emit)
        menu.addAction(tr("Copy\tCtrl+C"), self.copy)
        menu.addAction(tr("Cut\tCtrl+X"), lambda: self.copy(cut=True))
        if paste := menu.addAction(tr("Paste\tCtrl+V"), self.paste):
            paste.setEnabled(self._carried is not None)
        if isinstance(cell := self._cell(), StartProgram) and cell.off:
            menu.addAction(tr("Allow the program"), lambda: self._allow(cell))
        menu.addSeparator()
        count = len(self.chosen_codes())
        menu.addAction(
            tr("Clear {count} buttons\tDel").format(count=count) if count > 1 else tr("Detach\tDel"), self.clear
        )
        menu.popup(spot)

    def _cell(self) -> Cell | None:
        setup = self._shown.setup
        return setup.of_layer(self._shown.layer).get(self._shown.control) if setup else None

    def _allow(self, cell: StartProgram) -> None:
        shown, after = self._shown, replace(cell, off=False)
        if shown.profile and shown.setup:
            commands.set_cell(self._store, shown.profile, shown.setup.name, shown.control, after, shown.layer)
