"""The sheet's page: device, filter, table."""

from __future__ import annotations

from PyQt6.QtCore import QItemSelectionModel, QPoint, QRect, QSize, Qt
from PyQt6.QtGui import QFocusEvent, QKeyEvent, QKeySequence, QResizeEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QAbstractSpinBox,
    QApplication,
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QInputDialog,
    QLineEdit,
    QPlainTextEdit,
    QTextEdit,
    QVBoxLayout,
    QWidget,
)

from nakrel import protocol as m
from nakrel.core.edit.offers import Beginning
from nakrel.core.model.cells import Cell, ToControl
from nakrel.core.model.controls import CONTROLS, Kind
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.devices import Device
from nakrel.core.model.profile import FairPlay
from nakrel.ui import commands
from nakrel.ui.sheet.assign import Assign
from nakrel.ui.sheet.board import BoardView
from nakrel.ui.sheet.cell_edits import CellEdits
from nakrel.ui.sheet.layer_tabs import LayerTabs
from nakrel.ui.sheet.model import CODE, PLAIN, SheetModel, cell_text
from nakrel.ui.sheet.setups import SetUps
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.theme import ROW_PX
from nakrel.ui.widgets.basics import Segments, button, choice, label
from nakrel.ui.widgets.nothing import NothingHere, nothing_matches
from nakrel.ui.widgets.rows import Table
from nakrel.ui.widgets.search_field import SearchField
from nakrel.ui.widgets.shield import shielded
from nakrel.words import tr

__all__ = ["SheetPage"]

# How much of its list the field shows at least.
# The widths of groups and buttons, with a little for the scroll bar.
_FIRST_COLUMNS_PX = 246


class _SheetTable(Table):
    """Enter and letters open the field at the cell, Delete leaves the button unchanged."""

    def __init__(self, page: SheetPage) -> None:
        super().__init__(tr("Buttons"))
        self._page = page
        self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.setAcceptDrops(True)
        self.setDragEnabled(True)
        self.setDragDropMode(QAbstractItemView.DragDropMode.DragDrop)
        self.setDefaultDropAction(Qt.DropAction.MoveAction)
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.setDropIndicatorShown(True)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Select the row whose details are shown: a list of several marks it and selects none by itself."""
        super().focusInEvent(event)
        chosen, model = self.selectionModel(), self.model()
        if chosen and model and model.rowCount() and not chosen.hasSelection():
            self.choose(model.index(max(0, self.currentIndex().row()), PLAIN))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Handle the sheet's own keys."""
        if event is None:
            return
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._page.open_field()
        elif event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self._page.cells.clear()
        elif event.matches(QKeySequence.StandardKey.Copy):
            self._page.cells.copy()
        elif event.matches(QKeySequence.StandardKey.Cut):
            self._page.cells.copy(cut=True)
        elif event.matches(QKeySequence.StandardKey.Paste):
            self._page.cells.paste()
        elif event.text().isprintable() and event.text().strip() and not event.modifiers() & ~_SHIFT:
            self._page.open_field(event.text())
        else:
            super().keyPressEvent(event)


def _is_editor() -> bool:
    """Whether something is being typed."""
    field = QApplication.focusWidget()
    typed = isinstance(field, QLineEdit | QTextEdit | QPlainTextEdit | QAbstractSpinBox)
    return typed or (isinstance(field, QComboBox) and field.isEditable())


_SHIFT = Qt.KeyboardModifier.ShiftModifier | Qt.KeyboardModifier.KeypadModifier


class SheetPage(QWidget):
    """What each button does in the shown profile."""

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__()
        self._store, self._shown = store, shown
        self._down: set[str] = set()
        # The row that was selected last, and whether one is being chosen in the table.
        self._at, self._choosing = 0, False
        self.model = SheetModel(store, shown)
        self.device = choice(tr("Device"))
        self.device.setMinimumWidth(170)
        self.search = SearchField(tr("Find a button or what it does"))
        self.only_changed = QCheckBox(tr("changed only"))
        self.table = _SheetTable(self)
        self.board = BoardView(store, shown, self.model)
        self.cells = CellEdits(store, shown, self.table, self.model, self)
        self.view = Segments((("list", tr("List")), ("board", tr("Board"))), tr("Shown as"))
        self.layers = LayerTabs(shown)
        self._kind = label("", "soft")
        self.board_more = button("", self._show_more, "link", tr("Keys that hardly any keyboard has, as a list"))
        self.more_button = button("", self._show_more, "link", tr("Keys that hardly any keyboard has"))
        self.setups = SetUps(store, shown)
        self._empty = label("", "soft", wrap=True)
        self.nothing = NothingHere(self._show_all)
        self.assign = Assign(store, shown, self)
        self.layer_button = button(
            tr("+ Layer"), self._new_layer, "link", tr("What buttons do while another one is held: a column of its own")
        )
        self._build()
        self.search.lead_to(self.table, self.board)
        self.device.currentIndexChanged.connect(self._device_chosen)
        self.search.textChanged.connect(self._filter)
        self.only_changed.toggled.connect(self._filter)
        store.devices_changed.connect(self._fill_devices)
        store.seen.connect(self._seen)
        self.model.modelReset.connect(self._select_shown)
        self.model.modelReset.connect(self._share_width)
        if chosen := self.table.selectionModel():
            chosen.currentChanged.connect(self._row_chosen)
            chosen.selectionChanged.connect(self._keep_together)
        self.table.customContextMenuRequested.connect(self.cells.menu_at)
        shown.profile_changed.connect(self._show_notes)
        store.profile_changed.connect(lambda key: self._show_notes())
        self.table.doubleClicked.connect(lambda index: self.open_field())
        self.assign.done.connect(self._field_gone)
        if heads := self.table.horizontalHeader():
            heads.sectionDoubleClicked.connect(self._head_clicked)
            heads.setToolTip(tr("Double click the head of a layer to rename it"))
        self.view.chosen.connect(self.show_view)
        self.board.field_wanted.connect(self.open_field)
        self.cells.change_wanted.connect(self.open_field)
        self.board.cleared.connect(self.cells.clear_shown)
        self.board.menu_wanted.connect(self.cells.menu_of_shown)
        self._fill_devices()
        self.show_view("board" if shown.as_board else "list")

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 8, 0, 0)
        layout.setSpacing(6)
        layout.addWidget(self.setups)
        bar = QHBoxLayout()
        bar.addWidget(self.search, 1)
        bar.addSpacing(12)
        bar.addWidget(self.device)
        bar.addSpacing(6)
        self.view.setFixedWidth(120)
        bar.addWidget(self.view)
        bar.addSpacing(6)
        bar.addWidget(self.only_changed)
        bar.addWidget(self.layer_button)
        layout.addLayout(bar)
        self.table.setModel(self.model)
        self.table.set_widths(86, 150)
        over = QHBoxLayout()
        over.addWidget(self.layers, 1)
        over.addWidget(self._kind)
        over.addWidget(self.board_more)
        layout.addLayout(over)
        layout.addWidget(self.table, 1)
        layout.addWidget(self.board, 1)
        found = QHBoxLayout()
        found.addWidget(self.nothing)
        found.addWidget(self.more_button)
        found.addStretch(1)
        layout.addLayout(found)
        layout.addWidget(self._empty)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Share the width out anew."""
        super().resizeEvent(event)
        self._share_width()

    # The field

    def open_field(self, typed: str = "") -> None:
        """Ask at the chosen cell what its button should do."""
        if self._shown.control and (self._as_board or self.model.row_of(self._shown.control) >= 0):
            self.assign.open(self._place_of(self._shown.control), typed)

    def begin_rapid_fire(self) -> None:
        """Ask which button should fire, by pressing it, and then at its cell which key it fires."""
        place = QRect(self.table.geometry().topLeft() + QPoint(_FIRST_COLUMNS_PX, ROW_PX), QSize(430, ROW_PX))
        self.assign.open_for_holder(place, tr("Which button should fire? Press it"), self._fires)

    def _fires(self, does: Cell | Beginning | None) -> None:
        if not isinstance(does, ToControl):
            self._store.fault.emit(tr("Rapid fire is on one key or button; press only that one."))
            return
        self.show_control(does.control)
        if self.model.row_of(does.control) >= 0:
            self.assign.open_rapid_fire(self._place_of(does.control))

    def _place_of(self, code: str) -> QRect:
        """Where the field goes: at the button's cell of the layer that is shown."""
        if self._as_board:
            key = self.board.place_of(code).translated(self.board.pos())
            return QRect(key.left(), key.top() + 14, 460, key.height() - 14)
        ground = self.table.viewport()
        assert ground
        index = self.model.index(self.model.row_of(code), self.model.column_of(self._shown.layer))
        self.table.scrollTo(index)
        cell = self.table.visualRect(index)
        return QRect(ground.mapTo(self, cell.topLeft()), QSize(ground.width() - cell.left(), cell.height()))

    def _field_gone(self) -> None:
        (self.board if self._as_board else self.table).setFocus()

    @property
    def _as_board(self) -> bool:
        return self.view.value == "board"

    def show_view(self, view: str) -> None:
        """Show the buttons as a `list` or as a `board`."""
        self._shown.as_board = view == "board"
        self.view.set_value(view)
        self.table.setVisible(view == "list")
        self.board.setVisible(view == "board")
        self.layers.setVisible(view == "board")
        self.setFocusProxy(self.board if view == "board" else self.table)
        self._show_notes()

    def _show_more(self) -> None:
        self.model.show_more(self._as_board or self.model.folded_away > 0)
        self.show_view("list")

    def _new_layer(self) -> None:
        """Ask which button holds it."""
        place = QRect(self.layer_button.geometry().bottomRight() - QPoint(430, 0), QSize(430, ROW_PX))
        self.assign.open_for_holder(place, tr("Which button should hold the layer? Press it"), self._holder_chosen)

    def _holder_chosen(self, does: Cell | Beginning | None) -> None:
        if not isinstance(does, ToControl):
            self._store.fault.emit(tr("A layer is held by one key or button; press only that one."))
        elif CONTROLS[does.control].kind is Kind.WHEEL:
            self._store.fault.emit(tr("A turn of the wheel can't be held; press a key or a button for the layer."))
        elif name := self.assign.hold_new_layer(does.control):
            self._shown.show_control(does.control, name)

    def _head_clicked(self, column: int) -> None:
        profile, setup, old = self._shown.profile, self._shown.setup, self.model.layer_of(column)
        if not (profile and setup and old):
            return
        dialog = QInputDialog(self)
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.setWindowTitle(tr("Rename {old}").format(old=old))
        dialog.setLabelText(tr("Name of the layer"))
        dialog.setTextValue(old)

        def renamed(name: str) -> None:
            if name.strip() and name.strip() != old:
                refused = commands.edit_setup(
                    self._store,
                    profile,
                    setup.name,
                    tr("rename {old}").format(old=old),
                    lambda s: s.with_layer_named(old, name.strip()),
                )
                if refused:
                    self._store.fault.emit(refused)

        dialog.textValueSelected.connect(renamed)
        dialog.open()

    def _show_all(self) -> None:
        self.search.clear()
        self.only_changed.setChecked(False)

    def _show_notes(self) -> None:
        """Say beneath the table what isn't in it."""
        profile, setup = self._shown.profile, self._shown.setup
        notes = []
        if profile and profile.fair_play is FairPlay.NO_MACROS:
            notes.append(
                tr("This game allows no macros: while the profile is live, everything passes through as it is.")
            )
        text = self.search.text().strip()
        if text and profile and setup:
            found = [
                tr("{button} in {name}").format(button=control_label(code, layer), name=other.name)
                for other, layer, code, cell in profile.cells()
                if other.name != setup.name
                and text.casefold() in f"{control_label(code)} {' '.join(cell_text(self._store, cell)[1:])}".casefold()
            ]
            if found:
                told = (
                    tr("Found in other variants, too: {places} and more.")
                    if len(found) > 5
                    else tr("Found in other variants, too: {places}.")
                )
                notes.append(told.format(places=", ".join(found[:5])))
        if not self._store.devices:
            notes.append(tr("No device found. Plug in a mouse or keyboard; the Devices page says more."))
        filtered = bool(text) or self.only_changed.isChecked()
        nothing = filtered and not self.model.size() and bool(self._store.devices)
        what = nothing_matches(text) if text else tr("No button is changed yet.")
        board, more = self.board.board, self.model.folded_away
        self._kind.setText(board.kind)
        self.board_more.setText(tr("More keys ({count})").format(count=len(board.more)))
        self._kind.setVisible(self._as_board)
        self.board_more.setVisible(self._as_board and bool(board.more))
        self.more_button.setText(tr("More keys ({more})").format(more=more) if more else tr("Fewer keys"))
        self.more_button.setVisible(not self._as_board and (more > 0 or self.model.more_shown))
        self.nothing.say(what if nothing else "")
        self._empty.setText(" ".join(notes))
        self._empty.setVisible(bool(notes))

    def _share_width(self) -> None:
        """Every layer a column that can be read."""
        columns = self.model.columnCount() - 2
        if columns > 1:
            # By the page's width and not by the table's, which follows only when the page has been laid out.
            width = max(170, (self.width() - _FIRST_COLUMNS_PX) // columns)
            self.table.set_widths(86, 150, *(width for _ in range(columns - 1)))

    def show_control(self, code: str) -> None:
        """Choose the control's row, on a device that has it, filters or not. What a button of another device does has
        its row in the list, too."""
        device = next((n for n, d in enumerate(self._store.devices) if code in d.controls), -1)
        shown = self._device()
        there = shown is not None and code in shown.controls
        if device >= 0 and not there and (self._as_board or self.model.row_of(code) < 0):
            self.device.setCurrentIndex(device)
        if self.model.row_of(code) < 0:
            self.search.clear()
            self.only_changed.setChecked(False)
        self._shown.show_control(code, self._shown.layer if code == self._shown.control else "")
        self._select_shown()

    def _device(self) -> Device | None:
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
        self._show_notes()

    def _filter(self) -> None:
        self.model.set_filter(self.search.text(), self.only_changed.isChecked())
        self._show_notes()

    def _row_chosen(self) -> None:
        current = self.table.currentIndex()
        if code := current.siblingAtColumn(0).data(CODE):
            self._choosing = True
            self._shown.show_control(code, self.model.layer_of(current.column()))
            self._choosing = False

    def _keep_together(self) -> None:
        """A row that is taken out of several leaves the one that stands out then the one that details tell of."""
        rows, current = {each.row() for each in self.table.selectedIndexes()}, self.table.currentIndex()
        if len(rows) == 1 and current.row() not in rows and (chosen := self.table.selectionModel()):
            at = self.model.index(rows.pop(), current.column())
            chosen.setCurrentIndex(at, QItemSelectionModel.SelectionFlag.NoUpdate)

    def _select_shown(self) -> None:
        row, current = self.model.row_of(self._shown.control), self.table.currentIndex()
        column = self.model.column_of(self._shown.layer)
        if row >= 0 and (row != current.row() or self.model.layer_of(current.column()) != self._shown.layer):
            self.table.choose(self.model.index(row, column))
        if row >= 0:
            self._at = row
            # The table scrolls by itself to what is chosen in it, but not before a second click has had the time to
            # come: a row must not go away from under the hand.
            if not self._choosing:
                self.table.scrollTo(self.model.index(row, column))
        elif self._shown.control and self.model.size():
            # Its row has gone: details never tell of another control than the one that is selected.
            self.table.choose(self.model.index(min(self._at, self.model.size() - 1), PLAIN))

    def _seen(self, notice: m.Seen) -> None:
        for event in notice.events:
            if event.by != "in" or event.control.startswith("WHEEL"):
                continue
            if event.value:
                self._down.add(event.control)
                if self._follows(event.control):
                    self.show_control(event.control)
            else:
                self._down.discard(event.control)
        self.model.set_pressed(self._down)

    def _follows(self, code: str) -> bool:
        """Whether pressing it is to move the selection to its row: a mouse button does, but for those that the window
        is worked with, while the page is in front and nothing else is being done. It lights its row anyway."""
        known = CONTROLS.get(code)
        if known is None or known.kind is not Kind.BUTTON or code in ("BTN_LEFT", "BTN_RIGHT"):
            return False
        if not (self.isVisible() and self.isActiveWindow()) or shielded():
            return False
        return not (QApplication.activePopupWidget() or QApplication.activeModalWidget() or _is_editor())
