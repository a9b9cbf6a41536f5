"""The sheet's rows."""

from __future__ import annotations

import shlex
from typing import Any, NamedTuple

from PyQt6.QtCore import QMimeData, QModelIndex, QPersistentModelIndex, Qt

from nakrel.core.cells import Cell, HoldLayer, Nothing, RunMacro, StartProgram, ToChord, ToControl, TypeText
from nakrel.core.controls import CONTROLS, OPEN, TEXT, label
from nakrel.core.macro import cycle_us, describe_play
from nakrel.core.messages import Device
from nakrel.core.profile import Layer
from nakrel.core.units import format_rate
from nakrel.ui import commands
from nakrel.ui.profiles.models import MACRO_MIME
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets import glyphs
from nakrel.ui.widgets.rows import GLYPH, LIT, SOFT, WEAK, HeadedModel

__all__ = ["CODE", "SheetModel", "cell_words"]

CODE = Qt.ItemDataRole.UserRole + 30
PART, CONTROL, PLAIN = range(3)
_HEADS = ("", "control", "plain")
_PARTS = ("main", "wheel", "thumb", "side", "keys", "function", "navigation", "keypad", "media")
_PART_WORDS = {
    "main": "Main",
    "wheel": "Wheel",
    "thumb": "Thumb",
    "side": "Side",
    "keys": "Keys",
    "function": "Function",
    "navigation": "Navigation",
    "keypad": "Keypad",
    "media": "Media",
    "away": "Elsewhere",
}
AnyIndex = QModelIndex | QPersistentModelIndex


class Row(NamedTuple):
    """One control in the part of the device it belongs to."""

    part: str
    code: str


def cell_words(store: Store, cell: Cell | None) -> tuple[str, str, str]:
    """A cell's glyph, its words, and the softer addition (way to play and rate)."""
    match cell:
        case Nothing():
            return glyphs.NOTHING, "nothing", ""
        case ToControl(control=code):
            return code, label(code), ""
        case ToChord(controls=codes):
            return codes[0], " + ".join(map(label, codes)), ""
        case TypeText(text=text):
            return TEXT, f"types “{' '.join(text.split())[:40]}”", ""
        case StartProgram(command=command):
            return OPEN, f"opens {command[0].rpartition('/')[2]}", f" {shlex.join(command[1:])}"
        case HoldLayer(layer=name):
            return glyphs.LAYER, f"holds {name}", ""
        case RunMacro(macro=key, play=own):
            macro = store.macros.get(key)
            if macro is None:
                return glyphs.NOTHING, "a macro that is gone", ""
            play = own or macro.play
            rate = format_rate(cycle_us(macro, play)) if play.mode in ("held", "toggle") else ""
            return glyphs.MACRO, macro.name, f" {describe_play(play)}" + (f" · {rate}" if rate else "")
    return "", "as the device has it", ""


class SheetModel(HeadedModel):
    """The controls of one device, and those that do something though the device lacks them."""

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__(_HEADS)
        self._store, self._shown = store, shown
        self._device: Device | None = None
        self._filter, self._only_changed = "", False
        self._rows: list[Row] = []
        self._pressed: set[str] = set()
        for signal in (store.library_changed, shown.profile_changed):
            signal.connect(self.refresh)
        store.profile_changed.connect(lambda key: self.refresh())
        store.macro_changed.connect(lambda key: self._repaint())

    def set_device(self, device: Device | None) -> None:
        """Show this device's controls."""
        self._device = device
        self.refresh()

    def set_filter(self, text: str, only_changed: bool) -> None:
        """Show rows with this text in their control or cell; or only those that do something of their own."""
        self._filter, self._only_changed = text.strip().casefold(), only_changed
        self.refresh()

    def set_pressed(self, pressed: set[str]) -> None:
        """Light the rows of the controls that are down."""
        changed, self._pressed = self._pressed ^ pressed, set(pressed)
        for code in changed:
            row = self.row_of(code)
            if row >= 0:
                self.dataChanged.emit(self.index(row, 0), self.index(row, PLAIN))

    def row_of(self, code: str) -> int:
        """The row of a control, -1 where it isn't shown."""
        return next((n for n, row in enumerate(self._rows) if row.code == code), -1)

    def refresh(self) -> None:
        """Work the rows out anew."""
        rows = self._wanted()
        heads = (*_HEADS, *(layer.name for layer in self._layers()))
        if rows == self._rows and heads == self._heads:
            self._repaint()
            return
        self.beginResetModel()
        self._rows, self._heads = rows, heads
        self.endResetModel()

    def _layers(self) -> tuple[Layer, ...]:
        return self._shown.profile.sheet.layers if self._shown.profile else ()

    def layer_of(self, column: int) -> str:
        """The layer of a column; '' for those without one."""
        layers = self._layers()
        return layers[column - PLAIN - 1].name if PLAIN < column <= PLAIN + len(layers) else ""

    def column_of(self, layer: str) -> int:
        """The column of a layer; that of no layer for one that isn't there."""
        return next((PLAIN + n for n, each in enumerate(self._layers(), 1) if each.name == layer), PLAIN)

    def size(self) -> int:
        """A row a control."""
        return len(self._rows)

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """What a cell shows."""
        if not index.isValid():
            return None
        row = self._rows[index.row()]
        if role == CODE:
            return row.code
        if role == LIT:
            return row.code in self._pressed
        if index.column() == PART:
            return self._part(index.row(), role)
        if index.column() == CONTROL:
            return self._control(row.code, role)
        return self._cell(row.code, self.layer_of(index.column()), role)

    def flags(self, index: AnyIndex) -> Qt.ItemFlag:
        """Macros can be dropped on any row."""
        if not index.isValid():
            return Qt.ItemFlag.NoItemFlags
        return Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable | Qt.ItemFlag.ItemIsDropEnabled

    def mimeTypes(self) -> list[str]:
        """What may be dropped."""
        return [MACRO_MIME]

    def supportedDropActions(self) -> Qt.DropAction:
        """A drop attaches; the macro stays where it is."""
        return Qt.DropAction.CopyAction

    def dropMimeData(self, data: QMimeData | None, action: Any, row: int, column: int, parent: AnyIndex) -> bool:
        """Attach the dropped macro to the row's control."""
        profile = self._shown.profile
        if data is None or not parent.isValid() or profile is None or not data.hasFormat(MACRO_MIME):
            return False
        macro = self._store.macros.get(bytes(data.data(MACRO_MIME).data()).decode())
        if macro is None:
            return False
        layer = self.layer_of(parent.column())
        refused = commands.attach(self._store, profile, self._rows[parent.row()].code, macro, layer)
        if refused:
            self._store.fault.emit(refused)
        return not refused

    def _cells(self, layer: str = "") -> dict[str, Cell]:
        return self._shown.profile.sheet.of_layer(layer) if self._shown.profile else {}

    def _changed(self) -> list[str]:
        """The controls that do something of their own, in whatever layer."""
        cells = (self._cells(), *(layer.cells for layer in self._layers()))
        return list(dict.fromkeys(code for each in cells for code in each))

    def _wanted(self) -> list[Row]:
        changed = self._changed()
        own = self._device.controls if self._device else ()
        rows = [Row(CONTROLS[code].part, code) for code in own if code in CONTROLS]
        rows.sort(key=lambda row: _PARTS.index(row.part))
        rows += [Row("away", code) for code in changed if code not in own]
        return [row for row in rows if self._passes(row, changed)]

    def _passes(self, row: Row, changed: list[str]) -> bool:
        if self._only_changed and row.code not in changed:
            return False
        if not self._filter:
            return True
        found = [f"{label(row.code)} {row.code}"]
        for layer in ("", *(each.name for each in self._layers())):
            if (cell := self._cells(layer).get(row.code)) is not None:
                found += cell_words(self._store, cell)[1:]
        return self._filter in " ".join(found).casefold()

    def _repaint(self) -> None:
        if self._rows:
            self.dataChanged.emit(self.index(0, 0), self.index(len(self._rows) - 1, len(self._heads) - 1))

    def _part(self, number: int, role: int) -> Any:
        part = self._rows[number].part
        if role == Qt.ItemDataRole.DisplayRole:
            first = number == 0 or self._rows[number - 1].part != part
            return _PART_WORDS[part] if first else ""
        return True if role == WEAK else None

    def _control(self, code: str, role: int) -> Any:
        if role == Qt.ItemDataRole.DisplayRole:
            return label(code)
        return code if role == Qt.ItemDataRole.ToolTipRole else None

    def _cell(self, code: str, layer: str, role: int) -> Any:
        cell = self._cells(layer).get(code)
        glyph, words, soft = cell_words(self._store, cell)
        if layer and cell is None:
            words = "as without it"
        match role:
            case Qt.ItemDataRole.DisplayRole:
                return words
            case Qt.ItemDataRole.AccessibleTextRole:
                return f"{label(code)}{f' with {layer}' if layer else ''}: {words}{soft}"
        return {GLYPH: glyph, SOFT: soft, WEAK: cell is None}.get(role)
