"""The sheet's page: device, filter, table."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeyEvent, QResizeEvent
from PyQt6.QtWidgets import QAbstractItemView, QCheckBox, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from nakrel.core import messages as m
from nakrel.core.controls import CONTROLS, Kind
from nakrel.ui import commands
from nakrel.ui.sheet.model import CODE, SheetModel
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, choice, label
from nakrel.ui.widgets.rows import Table

__all__ = ["SheetPage"]


class _SheetTable(Table):
    """Enter goes to the details, Delete gives the control back to the device, letters search."""

    def __init__(self, page: SheetPage) -> None:
        super().__init__("Button sheet")
        self._page = page
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.setAcceptDrops(True)
        self.setDragDropMode(QAbstractItemView.DragDropMode.DropOnly)
        self.setDropIndicatorShown(True)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Handle the sheet's own keys."""
        if event is None:
            return
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._page.edit_requested()
        elif event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self._page.clear_cell()
        elif event.text().isprintable() and event.text().strip() and not event.modifiers() & ~_SHIFT:
            self._page.search.setFocus()
            self._page.search.setText(event.text())
        else:
            super().keyPressEvent(event)


_SHIFT = Qt.KeyboardModifier.ShiftModifier | Qt.KeyboardModifier.KeypadModifier


class SheetPage(QWidget):
    """The shown profile's sheet. `edit_requested` is set by the window to go to the details column."""

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self._down: set[str] = set()
        self.edit_requested = lambda: None
        self.model = SheetModel(store, shown)
        self.device = choice("Device")
        self.device.setMinimumWidth(170)
        self.search = QLineEdit()
        self.search.setPlaceholderText("Find a control or what it does")
        self.search.setAccessibleName("Find a control or what it does")
        self.search.setClearButtonEnabled(True)
        self.only_changed = QCheckBox("only what is changed")
        self.table = _SheetTable(self)
        self._empty = label("", "soft", wrap=True)
        self.layer_button = button(
            "+ Layer", self._new_layer, "link", "What controls do while another one is held: a column of its own"
        )
        self._build()
        self.device.currentIndexChanged.connect(self._device_chosen)
        self.search.textChanged.connect(self._filter)
        self.only_changed.toggled.connect(self._filter)
        store.devices_changed.connect(self._fill_devices)
        store.seen.connect(self._seen)
        self.model.modelReset.connect(self._select_shown)
        self.model.modelReset.connect(self._share_width)
        if chosen := self.table.selectionModel():
            chosen.currentChanged.connect(self._row_chosen)
        self.table.doubleClicked.connect(lambda index: self.edit_requested())
        self._fill_devices()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 8, 0, 0)
        layout.setSpacing(6)
        bar = QHBoxLayout()
        bar.addWidget(self.search, 1)
        bar.addSpacing(12)
        bar.addWidget(self.device)
        bar.addSpacing(12)
        bar.addWidget(self.only_changed)
        bar.addWidget(self.layer_button)
        layout.addLayout(bar)
        self.table.setModel(self.model)
        self.table.set_widths(86, 150)
        layout.addWidget(self.table, 1)
        layout.addWidget(self._empty)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Share the width out anew."""
        super().resizeEvent(event)
        self._share_width()

    def clear_cell(self) -> None:
        """Give the chosen control back to the device."""
        if self._shown.profile and self._shown.control:
            refused = commands.set_cell(self._store, self._shown.profile, self._shown.control, None, self._shown.layer)
            if refused:
                self._store.fault.emit(refused)

    def _new_layer(self) -> None:
        if profile := self._shown.profile:
            commands.new_layer(self._store, profile)

    def _share_width(self) -> None:
        """Every layer a column that can be read."""
        columns = self.model.columnCount() - 2
        if columns > 1:
            # By the page's width and not by the table's, which follows only when the page has been laid out.
            width = max(170, (self.width() - 246) // columns)
            self.table.set_widths(86, 150, *(width for _ in range(columns - 1)))

    def show_control(self, code: str) -> None:
        """Choose the control's row, on a device that has it, filters or not."""
        device = next((n for n, d in enumerate(self._store.devices) if code in d.controls), -1)
        shown = self._device()
        if device >= 0 and (shown is None or code not in shown.controls):
            self.device.setCurrentIndex(device)
        if self.model.row_of(code) < 0:
            self.search.clear()
            self.only_changed.setChecked(False)
        self._shown.show_control(code, self._shown.layer if code == self._shown.control else "")
        self._select_shown()

    def _device(self) -> m.Device | None:
        index = self.device.currentIndex()
        return self._store.devices[index] if 0 <= index < len(self._store.devices) else None

    def _fill_devices(self) -> None:
        before = self.device.currentText()
        self.device.blockSignals(True)
        self.device.clear()
        self.device.addItems([d.name for d in self._store.devices])
        if (found := self.device.findText(before)) >= 0:
            self.device.setCurrentIndex(found)
        elif self._store.devices:
            self.device.setCurrentIndex(self._best_device())
        self.device.blockSignals(False)
        self._device_chosen()

    def _best_device(self) -> int:
        """The mouse with the most buttons: that is where functions go."""
        buttons = [
            sum(CONTROLS[c].kind is Kind.BUTTON for c in d.controls if c in CONTROLS) for d in self._store.devices
        ]
        return buttons.index(max(buttons))

    def _device_chosen(self) -> None:
        self.model.set_device(self._device())
        self._empty.setText(
            ""
            if self._store.devices
            else "No device is there. Plug in a mouse or keyboard; the Devices page says more."
        )

    def _filter(self) -> None:
        self.model.set_filter(self.search.text(), self.only_changed.isChecked())

    def _row_chosen(self) -> None:
        current = self.table.currentIndex()
        if code := current.siblingAtColumn(0).data(CODE):
            self._shown.show_control(code, self.model.layer_of(current.column()))

    def _select_shown(self) -> None:
        row, current = self.model.row_of(self._shown.control), self.table.currentIndex()
        column = self.model.column_of(self._shown.layer)
        if row >= 0 and (row != current.row() or self.model.layer_of(current.column()) != self._shown.layer):
            self.table.setCurrentIndex(self.model.index(row, column))
        if row >= 0:
            self.table.scrollTo(self.model.index(row, column))

    def _seen(self, notice: m.Seen) -> None:
        for event in notice.events:
            if event.by != "in" or event.control.startswith("WHEEL"):
                continue
            if event.value:
                self._down.add(event.control)
                # A plain click is how the window itself is used; it lights its row but moves nothing.
                if event.control not in ("BTN_LEFT", "BTN_RIGHT") and self._from_button(event.control):
                    self.show_control(event.control)
            else:
                self._down.discard(event.control)
        self.model.set_pressed(self._down)

    def _from_button(self, code: str) -> bool:
        """Whether pressing it means a row: mouse buttons always, keys only where they aren't typing in the window."""
        known = CONTROLS.get(code)
        return self.isVisible() and known is not None and (known.kind is Kind.BUTTON or not self.isActiveWindow())
