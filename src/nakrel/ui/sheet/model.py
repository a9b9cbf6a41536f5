"""The sheet's rows."""

from __future__ import annotations

import shlex
from typing import Any, NamedTuple

from PyQt6.QtCore import QMimeData, QModelIndex, QPersistentModelIndex, Qt

from nakrel.core.model.board import is_usual
from nakrel.core.model.cells import (
    ACTION_KEYS,
    ACTION_LABELS,
    Cell,
    ChangeSpeed,
    GoTo,
    HoldLayer,
    Nothing,
    RunMacro,
    RunSystemAction,
    StartProgram,
    ToChord,
    ToControl,
    TypeText,
    What,
)
from nakrel.core.model.controls import KNOWN, OPEN, TEXT, label
from nakrel.core.model.devices import Device
from nakrel.core.model.fair_play import cell_beyond
from nakrel.core.model.macro import cycle_us, describe_play
from nakrel.core.model.profile import Layer, Profile, SetUp
from nakrel.core.model.units import shown_rate
from nakrel.core.play.live import fall_through, falling
from nakrel.ui import commands
from nakrel.ui.dragged import CELL_MIME, MACRO_MIME
from nakrel.ui.shown import Shown
from nakrel.ui.store import Store
from nakrel.ui.widgets import glyphs
from nakrel.ui.widgets.rows import GLYPH, LIT, SOFT, WEAK, Drawn, HeadedModel
from nakrel.words import order_of, tr

__all__ = ["CODE", "SheetModel", "cell_text", "falling_in", "holder_of", "layer_head", "off_hint"]

CODE = Qt.ItemDataRole.UserRole + 30
PART, CONTROL, PLAIN = range(3)
_HEADS = ("", tr("button"), tr("base"))
_PARTS = ("main", "wheel", "thumb", "side", "macro", "keys", "function", "navigation", "keypad", "media")
_PART_WORDS = {
    "main": tr("Main"),
    "wheel": tr("Wheel"),
    "thumb": tr("Thumb"),
    "side": tr("Side"),
    "keys": tr("Keys"),
    "macro": tr("Macro keys"),
    "function": tr("Function"),
    "navigation": tr("Navigation"),
    "keypad": tr("Keypad"),
    "media": tr("Media"),
    "away": tr("Elsewhere"),
}
# A cell on its way to another: its set-up, layer and control.
AnyIndex = QModelIndex | QPersistentModelIndex


class Row(NamedTuple):
    """One control in the part of the device it belongs to."""

    part: str
    code: str


def cell_text(store: Store, cell: Cell | None) -> tuple[str, str, str]:
    """A cell's glyph, its words, and the softer addition (way to play and rate)."""
    match cell:
        case Nothing():
            return glyphs.NOTHING, tr("nothing"), ""
        case ToControl(control=code):
            return code, label(code), ""
        case ToChord(controls=codes):
            return codes[0], " + ".join(map(label, codes)), ""
        case TypeText(secret=name) if name:
            return TEXT, tr("types the secret {name}").format(name=name), ""
        case TypeText(text=text):
            return TEXT, tr("types “{value}”").format(value=" ".join(text.split())[:40]), ""
        case StartProgram(command=command, off=True):
            return (
                OPEN,
                tr("off until allowed: {value}").format(value=command[0].rpartition("/")[2]),
                f" {shlex.join(command[1:])}",
            )
        case StartProgram(command=command):
            return OPEN, tr("opens {value}").format(value=command[0].rpartition("/")[2]), f" {shlex.join(command[1:])}"
        case HoldLayer(layer=name):
            return glyphs.LAYER, tr("holds {name}").format(name=name), ""
        case GoTo(what=What.SETUP, to=name, by=by):
            return (
                glyphs.GO,
                tr("goes to {name}").format(name=name)
                if name
                else tr("goes to the next variant")
                if by == 1
                else tr("goes to the previous variant"),
                "",
            )
        case GoTo(to=key, by=by):
            known = store.profiles.get(key)
            where = (
                known.name
                if known
                else tr("a deleted profile")
                if key
                else tr("the next profile")
                if by == 1
                else tr("the previous profile")
            )
            return glyphs.GO, tr("goes to {where}").format(where=where), ""
        case ChangeSpeed(to=name, by=by, held=held):
            speed = (
                tr("{name} while held").format(name=name)
                if held
                else tr("speed {name}").format(name=name)
                if name
                else tr("next speed")
                if by == 1
                else tr("previous speed")
            )
            return glyphs.SPEED, tr("pointer: {speed}").format(speed=speed), ""
        case RunSystemAction(action=action):
            return ACTION_KEYS.get(action, glyphs.GO), tr(ACTION_LABELS[action]), ""
        case RunMacro(macro=key, play=own):
            macro = store.macros.get(key)
            if macro is None:
                return glyphs.NOTHING, tr("a deleted macro"), ""
            play = own or macro.play
            rate = shown_rate(cycle_us(macro, play)) if play.mode in ("held", "toggle") else ""
            return glyphs.MACRO, macro.name, f" {describe_play(play)}" + (f" · {rate}" if rate else "")
    return "", tr("unchanged"), ""


def holder_of(setup: SetUp, layer: str) -> str:
    """The button that holds a layer, in words; '' where none does."""
    return next(
        (label(code) for code, cell in setup.cells.items() if isinstance(cell, HoldLayer) and cell.layer == layer), ""
    )


def layer_head(setup: SetUp | None, layer: str) -> str:
    """What stands over a layer's column."""
    holder = holder_of(setup, layer) if setup else ""
    if not holder:
        return tr("{layer} · held by no button").format(layer=layer)
    return (
        tr("while {holder} is held").format(holder=holder)
        if layer == tr("{button} held").format(button=holder)
        else tr("{layer} · while {holder} is held").format(layer=layer, holder=holder)
    )


def _layers(setup: SetUp | None) -> tuple[Layer, ...]:
    return setup.layers if setup else ()


def _control_data(code: str, role: int) -> str | None:
    if role == Qt.ItemDataRole.DisplayRole:
        return label(code)
    return code if role == Qt.ItemDataRole.ToolTipRole else None


def _speed(profile: Profile | None, cell: Cell | None) -> str:
    """How fast the stage is that the cell names."""
    if profile is None or not isinstance(cell, ChangeSpeed):
        return ""
    return next((f" {stage.describe()}" for stage in profile.pointer.stages if stage.name == cell.to), "")


def off_hint(cell: Cell | None) -> str:
    """What is to be done for a cell that is off to do something, '' for any other."""
    off = isinstance(cell, StartProgram) and cell.off
    return tr("It is off, since it came from outside: allow the program in the row's menu.") if off else ""


def falling_in(store: Store, shown: Shown) -> dict[str, Cell]:
    """What comes from Everyday in the shown profile's empty cells."""
    profile, setup = shown.profile, shown.setup
    if profile is None or setup is None or not profile.falls_through:
        return {}
    return fall_through(setup, falling(profile, store.status.setups, store.profiles))


def _changed(setup: SetUp | None) -> list[str]:
    """The controls that do something of their own, in whatever layer."""
    if setup is None:
        return []
    cells = (setup.cells, *(layer.cells for layer in setup.layers))
    return list(dict.fromkeys(code for each in cells for code in each))


class SheetModel(HeadedModel):
    """The controls of one device, and those that do something though the device lacks them."""

    def __init__(self, store: Store, shown: Shown) -> None:
        super().__init__(_HEADS)
        self._store, self._shown = store, shown
        self._device: Device | None = None
        # As of the last refresh: a cell is asked for often.
        self._setup: SetUp | None = shown.setup
        self._fallen: dict[str, Cell] = {}
        # Whose list the rows are, a device's, a profile's and a variant's, and by which filters.
        self._list_of: object = None
        self._filter, self._only_changed = "", False
        self._rows: list[Row] = []
        # Whether keys are listed that hardly any keyboard has, and how many of the device's aren't.
        self.more_shown = False
        self.folded_away = 0
        self.pressed: set[str] = set()
        for signal in (store.library_changed, shown.profile_changed):
            signal.connect(self.refresh)
        store.profile_changed.connect(lambda key: self.refresh())
        store.macro_changed.connect(lambda key: self._repaint())
        store.status_changed.connect(self._follow_everyday)

    def set_device(self, device: Device | None) -> None:
        """Show this device's controls."""
        self._device = device
        self.refresh()

    def set_filter(self, text: str, only_changed: bool) -> None:
        """Show rows with this text in their control or cell; or only those that do something of their own."""
        self._filter, self._only_changed = text.strip().casefold(), only_changed
        self.refresh()

    def matches(self, code: str) -> bool:
        """Whether the control passes the filter."""
        return self._passes(Row("", code), _changed(self._setup))

    def show_more(self, on: bool) -> None:
        """List keys as well that hardly any keyboard has, or fold them away."""
        self.more_shown = on
        self.refresh()

    def set_pressed(self, pressed: set[str]) -> None:
        """Light the rows of the controls that are down."""
        changed, self.pressed = self.pressed ^ pressed, set(pressed)
        for code in changed:
            row = self.row_of(code)
            if row >= 0:
                self.dataChanged.emit(self.index(row, 0), self.index(row, len(self._heads) - 1))

    def row_of(self, code: str) -> int:
        """The row of a control, -1 where it isn't shown."""
        return next((n for n, row in enumerate(self._rows) if row.code == code), -1)

    def refresh(self) -> None:
        """Work the rows out anew."""
        self._setup = self._shown.setup
        self._fallen = falling_in(self._store, self._shown)
        rows = self._wanted()
        heads = (*_HEADS, *(layer_head(self._setup, layer.name) for layer in _layers(self._setup)))
        if rows == self._rows and heads == self._heads:
            self._repaint()
            return
        self.beginResetModel()
        self._rows, self._heads = rows, heads
        self.endResetModel()

    def _follow_everyday(self) -> None:
        if self._shown.profile and self._shown.profile.falls_through:
            self.refresh()

    def layer_of(self, column: int) -> str:
        """The layer of a column; '' for those without one."""
        layers = _layers(self._setup)
        return layers[column - PLAIN - 1].name if PLAIN < column <= PLAIN + len(layers) else ""

    def column_of(self, layer: str) -> int:
        """The column of a layer; that of no layer for one that isn't there."""
        return next((PLAIN + n for n, each in enumerate(_layers(self._setup), 1) if each.name == layer), PLAIN)

    def device_controls(self) -> tuple[str, ...]:
        """The controls of the device shown, filtered or not."""
        return self._device.controls if self._device else ()

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
            return row.code in self.pressed
        if index.column() == PART:
            return self._part(index.row(), role)
        if index.column() == CONTROL:
            return _control_data(row.code, role)
        return self._cell(row.code, self.layer_of(index.column()), role)

    def flags(self, index: AnyIndex) -> Qt.ItemFlag:
        """Macros and cells can be dropped on any row, and cells be dragged."""
        if not index.isValid():
            return Qt.ItemFlag.NoItemFlags
        return (
            Qt.ItemFlag.ItemIsEnabled
            | Qt.ItemFlag.ItemIsSelectable
            | Qt.ItemFlag.ItemIsDropEnabled
            | Qt.ItemFlag.ItemIsDragEnabled
        )

    def mimeTypes(self) -> list[str]:
        """What may be dropped."""
        return [MACRO_MIME, CELL_MIME]

    def mimeData(self, indexes: Any) -> QMimeData:
        """The dragged cell: that of the control shown, in the layer shown."""
        data = QMimeData()
        data.setData(CELL_MIME, f"{self._shown.layer}\n{self._shown.control}".encode())
        return data

    def supportedDropActions(self) -> Qt.DropAction:
        """A macro that is dropped stays where it is; a cell is moved, or copied with Ctrl."""
        return Qt.DropAction.CopyAction | Qt.DropAction.MoveAction

    def supportedDragActions(self) -> Qt.DropAction:
        """A cell is moved, or copied with Ctrl."""
        return Qt.DropAction.CopyAction | Qt.DropAction.MoveAction

    def dropMimeData(self, data: QMimeData | None, action: Any, row: int, column: int, parent: AnyIndex) -> bool:
        """Attach the dropped macro to the row's control, or take the dropped cell there."""
        profile, setup = self._shown.profile, self._shown.setup
        if data is None or not parent.isValid() or profile is None or setup is None:
            return False
        layer, code = self.layer_of(parent.column()), self._rows[parent.row()].code
        refused = ""
        if data.hasFormat(CELL_MIME):
            from_layer, _, from_code = bytes(data.data(CELL_MIME).data()).decode().partition("\n")
            self.carry((from_layer, from_code), (layer, code), copy=action == Qt.DropAction.CopyAction)
            # The cell was moved in the profile itself; the view must not remove anything.
            return False
        macro = self._store.macros.get(bytes(data.data(MACRO_MIME).data()).decode())
        if macro is None:
            return False
        refused = commands.attach(self._store, profile, setup.name, code, macro, layer)
        if refused:
            self._store.fault.emit(refused)
        else:
            self._shown.show_control(code, layer)
        return not refused

    def carry(self, source: tuple[str, str], target: tuple[str, str], *, copy: bool) -> None:
        """Move or copy what a control does to another; both are told by layer and control."""
        profile, setup = self._shown.profile, self._shown.setup
        cell = self._cells(source[0]).get(source[1])
        if profile is None or setup is None or cell is None or source == target:
            return
        cells: dict[tuple[str, str], Cell | None] = {target: cell}
        if not copy:
            cells[source] = None
        text = tr("{value} {button} to {button2}").format(
            value="copy" if copy else "move", button=label(source[1]), button2=label(target[1])
        )
        if refused := commands.set_cells(self._store, profile, setup.name, cells, text):
            self._store.fault.emit(refused)

    def _cells(self, layer: str = "") -> dict[str, Cell]:
        return self._setup.of_layer(layer) if self._setup else {}

    def _wanted(self) -> list[Row]:
        profile, device, setup = self._shown.profile, self._device, self._setup
        whose = (device and device.id, profile and profile.id, setup and setup.name)
        list_of = (*whose, self._filter, self._only_changed, self.more_shown)
        # A row that has come stays for as long as the same list is shown: it would go from under the hand, and the next
        # one take what was meant for it.
        listed = {row.code: None for row in self._rows} if list_of == self._list_of else {}
        self._list_of = list_of
        changed = _changed(self._setup)
        own = device.controls if device else ()
        shown = {*changed, *self._fallen, *listed, self._shown.control}
        unusual = [] if self._filter else [code for code in own if not is_usual(code) and code not in shown]
        folded = set() if self.more_shown else set(unusual)
        self.folded_away = len(folded)
        rows = [Row(KNOWN[code].part, code) for code in own if code in KNOWN and code not in folded]
        rows.sort(key=lambda row: _PARTS.index(row.part))
        away = [code for code in dict.fromkeys((*changed, *self._fallen, *listed)) if code not in own]
        rows += [Row("away", code) for code in sorted(away, key=lambda code: order_of(label(code)))]
        return [row for row in rows if self._passes(row, changed)]

    def _passes(self, row: Row, changed: list[str]) -> bool:
        if self._only_changed and row.code not in changed:
            return False
        if not self._filter:
            return True
        found = [f"{label(row.code)} {row.code}"]
        for layer in ("", *(each.name for each in _layers(self._setup))):
            if (cell := self._cells(layer).get(row.code)) is not None:
                found += cell_text(self._store, cell)[1:]
        if row.code in self._fallen:
            found += cell_text(self._store, self._fallen[row.code])[1:]
        return self._filter in " ".join(found).casefold()

    def _repaint(self) -> None:
        if self._rows:
            self.dataChanged.emit(self.index(0, 0), self.index(len(self._rows) - 1, len(self._heads) - 1))

    def drawn(self, number: int, column: int) -> Drawn:
        """How a cell is drawn."""
        code = self._rows[number].code
        lit = code in self.pressed
        if column == PART:
            return Drawn(self._part(number, Qt.ItemDataRole.DisplayRole), lit=lit, weak=True)
        if column == CONTROL:
            return Drawn(label(code), lit=lit)
        glyph, text, soft, weak = self.shown_in(code, self.layer_of(column))
        return Drawn(text, glyph, soft, lit, weak)

    def _part(self, number: int, role: int) -> Any:
        part = self._rows[number].part
        if role == Qt.ItemDataRole.DisplayRole:
            first = number == 0 or self._rows[number - 1].part != part
            return _PART_WORDS[part] if first else ""
        return True if role == WEAK else None

    def _cell(self, code: str, layer: str, role: int) -> Any:
        glyph, text, soft, weak = self.shown_in(code, layer)
        match role:
            case Qt.ItemDataRole.DisplayRole:
                return text
            case Qt.ItemDataRole.ToolTipRole:
                return self.beyond(self._cells(layer).get(code)) or None
            case Qt.ItemDataRole.AccessibleTextRole:
                return f"{label(code, layer)}: {text}{soft}"
        return {GLYPH: glyph, SOFT: soft, WEAK: weak}.get(role)

    def shown_in(self, code: str, layer: str) -> tuple[str, str, str, bool]:
        """A cell's glyph, words and addition, and whether it has nothing of its own."""
        cell = self._cells(layer).get(code)
        fallen = None if cell or layer else self._fallen.get(code)
        glyph, text, soft = cell_text(self._store, cell or fallen)
        soft += _speed(self._shown.profile, cell or fallen)
        if layer and cell is None:
            text = tr("as in base")
        elif fallen:
            soft += tr(" · from Everyday")
        elif self.beyond(cell):
            soft += tr(" · against the fair-play rule")
        return glyph, text, soft, cell is None

    def beyond(self, cell: Cell | None) -> str:
        """Where a cell goes beyond the shown profile's fair-play rule, or names a game key that isn't there."""
        profile = self._shown.profile
        if cell is None or profile is None:
            return ""
        macro = self._store.macros.get(cell.macro) if isinstance(cell, RunMacro) else None
        return cell_beyond(cell, macro, profile.fair_play)
