"""The game's own names for its keys: the list, who uses each, in and out as CSV."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from PyQt6.QtCore import QModelIndex, QPersistentModelIndex, Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import QDialog, QFileDialog, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from nakrel.core.model.controls import CONTROLS, game_key
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.errors import DataError
from nakrel.core.model.game_keys import read_csv, unused, uses_of, write_csv
from nakrel.core.model.names import read_shown, shown_name
from nakrel.core.model.profile import GameKey, Profile
from nakrel.reading import NotReadable, read_limited
from nakrel.storage import files
from nakrel.storage.files import StorageError
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label
from nakrel.ui.widgets.capture import Capture
from nakrel.ui.widgets.control_choice import ControlChoice
from nakrel.ui.widgets.rows import GLYPH, WEAK, EditedTable, HeadedModel
from nakrel.words import counted, sentence, tr

__all__ = ["GameKeys"]

_NAME, _CONTROL, _USED = range(3)
# A list of game keys is a page of text.
_MOST_BYTES = 1_000_000
AnyIndex = QModelIndex | QPersistentModelIndex


class _Keys(HeadedModel):
    """A row a game key; its name and its control are changed in place."""

    message = pyqtSignal(str)

    def __init__(self, store: Store, profile: str) -> None:
        super().__init__((tr("the game's name"), tr("key or button"), tr("used by")))
        self._store, self._profile = store, profile

    @property
    def profile(self) -> Profile | None:
        """The profile whose keys they are."""
        return self._store.profiles.get(self._profile)

    @property
    def keys(self) -> tuple[GameKey, ...]:
        """The game keys."""
        return self.profile.keys if self.profile else ()

    def size(self) -> int:
        """A row a key."""
        return len(self.keys)

    def refresh(self) -> None:
        """Show them as they are now."""
        self.beginResetModel()
        self.endResetModel()

    def flags(self, index: AnyIndex) -> Qt.ItemFlag:
        """Name and control can be typed."""
        shown = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
        return shown | Qt.ItemFlag.ItemIsEditable if index.isValid() and index.column() != _USED else shown

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """What a cell shows."""
        if not index.isValid() or self.profile is None:
            return None
        key, column = self.keys[index.row()], index.column()
        if role == GLYPH:
            return key.control if column == _CONTROL else None
        if role == WEAK:
            return column == _USED
        if role not in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole):
            return None
        if column == _NAME:
            return key.name
        if column == _CONTROL:
            return shown_name(key.control) if role == Qt.ItemDataRole.EditRole else control_label(key.control)
        macros, cells = uses_of(game_key(key.name), self.profile, self._store.macros)
        message = [macro.name for macro in macros]
        message += [counted(cells, "on {n} button", "on {n} buttons")] if cells else []
        return ", ".join(message) or tr("nothing yet")

    def setData(self, index: AnyIndex, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        """Take what was typed; what can't be read leaves all as it is, and `told` gives its reason."""
        if self.profile is None or role != Qt.ItemDataRole.EditRole:
            return False
        key, text = self.keys[index.row()], str(value).strip()
        if index.column() == _NAME:
            refused = commands.rename_key(self._store, self.profile, key.name, text) if text != key.name else ""
        else:
            try:
                refused = self.bind(index.row(), read_shown(text))
            except DataError as error:
                refused = str(error)
        self.message.emit(refused)
        return not refused

    def bind(self, row: int, code: str) -> str:
        """The game has this key on another control; returns the reason where that is refused."""
        profile = self.profile
        if profile is None:
            return ""
        try:
            changed = GameKey(self.keys[row].name, code)
        except DataError as error:
            return str(error)
        keys = tuple(changed if n == row else key for n, key in enumerate(self.keys))
        return commands.set_keys(self._store, profile, keys, f"{changed.name}")


class GameKeys(QDialog):
    """A profile's game keys. A key that is changed in the game is changed here once, and every macro follows."""

    def __init__(self, store: Store, profile: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self.model = _Keys(store, profile)
        found = self.model.profile
        self.setWindowTitle(tr("Game keys of {value}").format(value=found.name if found else profile))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(620, 460)
        self.table = EditedTable(tr("Game keys"))
        self.table.setModel(self.model)
        self.table.set_widths(180, 150)
        self.name = QLineEdit()
        self.name.setPlaceholderText(tr("Reload"))
        self.name.setAccessibleName(tr("The game's name for a new key"))
        self.control = ControlChoice(tr("Key of the new name"))
        self.capture = Capture(store, tr("Press the key or button that the game has for it…"), to_be_sent=True)
        self._message = label("", "alarm", wrap=True)
        self._free = label("", "soft", wrap=True)
        self._bound: int | None = None
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.timeout.connect(self._follow)
        self._build()
        self.capture.captured.connect(self._pressed)
        self.table.delete_asked.connect(self.delete)
        self.name.returnPressed.connect(self.add)
        store.profile_changed.connect(self._changed)
        self.model.message.connect(self._say)
        self._show_free()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        message = tr("What the game calls its keys. Macros and buttons that name one follow when it changes here.")
        layout.addWidget(label(message, "soft", wrap=True))
        layout.addWidget(self.table, 1)
        layout.addWidget(self.capture)
        layout.addWidget(self._message)
        row = QHBoxLayout()
        row.addWidget(self.name, 2)
        self._offer()
        self._store.keyboard.renamed.connect(self._offer)
        self.control.refused.connect(self._say)
        row.addWidget(self.control, 2)
        self.add_button = button(tr("Add"), self.add, "act")
        row.addWidget(self.add_button)
        self.press_button = button(tr("Press to choose"), self._arm, tip=tr("Press the key to choose it"))
        row.addWidget(self.press_button)
        layout.addLayout(row)
        layout.addWidget(self._free)
        foot = QHBoxLayout()
        foot.addWidget(button(tr("Import CSV…"), self._ask_import))
        foot.addWidget(button(tr("Export CSV…"), self._ask_export))
        foot.addWidget(button(tr("Delete"), self.delete, tip=tr("Remove the selected keys (Del)")))
        foot.addStretch(1)
        foot.addWidget(button(tr("Close"), self.accept))
        layout.addLayout(foot)

    def _offer(self) -> None:
        """Offer every control by what it is called now."""
        self.control.set_items((shown_name(code), code) for code in CONTROLS)
        self.control.show_code("")

    def add(self) -> None:
        """Add a key of the typed name on the chosen control."""
        profile = self.model.profile
        if profile is None:
            return
        try:
            key = GameKey(self.name.text().strip(), self.control.code())
        except (DataError, ValueError) as error:
            self._say(str(error))
            return
        refused = commands.set_keys(self._store, profile, (*profile.keys, key))
        self._say(refused)
        if not refused:
            self.name.clear()
            self.control.setCurrentIndex(-1)
            self.name.setFocus()

    def delete(self) -> None:
        """Take the selected keys out; what named them says that they are missing."""
        profile, chosen = self.model.profile, self.table.selectionModel()
        if profile and chosen:
            gone = {index.row() for index in chosen.selectedRows()}
            keys = tuple(key for n, key in enumerate(profile.keys) if n not in gone)
            self._say(commands.set_keys(self._store, profile, keys))

    def read(self, path: Path) -> None:
        """Take the keys of a CSV file: those of the same name get its control, and new ones are added."""
        profile = self.model.profile
        if profile is None:
            return
        try:
            found = {key.name: key for key in read_csv(read_limited(path, _MOST_BYTES).decode())}
        except (NotReadable, UnicodeDecodeError, DataError) as error:
            self._say(f"{path.name}: {error}")
            return
        kept = [found.pop(key.name, key) for key in profile.keys]
        self._say(commands.set_keys(self._store, profile, (*kept, *found.values()), tr("import game keys")))

    def write(self, path: Path) -> None:
        """Write the keys to a CSV file."""
        try:
            files.write(path, write_csv(self.model.keys).encode())
        except StorageError as error:
            self._say(str(error))

    def _ask_import(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("Import game keys"), "", tr("Tables (*.csv);;All files (*)"))
        if name:
            self.read(Path(name))

    def _ask_export(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self, tr("Export game keys"), "game-keys.csv", tr("Tables (*.csv)"))
        if name:
            self.write(Path(name))

    def _arm(self) -> None:
        chosen = self.table.selectionModel()
        rows = [index.row() for index in chosen.selectedRows()] if chosen else []
        self._bound = rows[0] if len(rows) == 1 and not self.name.text().strip() else None
        self.capture.arm()

    def _pressed(self, code: str) -> None:
        if self._bound is not None:
            self._say(self.model.bind(self._bound, code))
        else:
            self.control.show_code(code)

    def _changed(self, key: str) -> None:
        if self.model.profile and key == self.model.profile.id:
            # A cell's editor hands its text over now, and rows must not go away under it.
            self._later.start(0)

    def _follow(self) -> None:
        if self.model.profile:
            now = self.table.currentIndex()
            self.model.refresh()
            if self.model.size():
                row, column = min(max(now.row(), 0), self.model.size() - 1), max(now.column(), 0)
                self.table.setCurrentIndex(self.model.index(row, column))
            self._show_free()

    def _show_free(self) -> None:
        profile = self.model.profile
        free = [control_label(code) for code in unused(profile)] if profile else []
        self._free.setText(
            (
                tr("Free for other things: {keys} and more") if len(free) > 24 else tr("Free for other things: {keys}")
            ).format(keys=", ".join(free[:24]))
        )

    def _say(self, message: str) -> None:
        self._message.setText(sentence(message))
