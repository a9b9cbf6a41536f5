"""How the pointer moves while a profile is live: its pointer speeds, the wheel's speed, straight lines."""

from __future__ import annotations

from typing import Any

import msgspec
from PyQt6.QtCore import QModelIndex, QPersistentModelIndex, Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import QAbstractItemView, QDialog, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from nakrel.core.model.conditioning import MAX_PERCENT, MAX_STRAIGHT, Pointing, SpeedStage
from nakrel.core.model.errors import DataError
from nakrel.core.model.profile import Profile
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import NumberField, button, form_row, label
from nakrel.ui.widgets.rows import EditedTable, HeadedModel
from nakrel.words import sentence, tr

__all__ = ["PointerDialog"]

_HEADS = (tr("speed"), tr("horizontal"), tr("vertical"), "")
_NAME, _ACROSS, _DOWN, _NOW = range(4)
_FIELDS = {_NAME: "name", _ACROSS: "across", _DOWN: "down"}
_NO_EFFECT = tr("No effect yet: this needs kernel input (see Devices).")
AnyIndex = QModelIndex | QPersistentModelIndex


def read_percent(text: str) -> int:
    """A speed as people write it: `40`, `40 %`, `0.4x`. Raises `DataError`."""
    message = text.strip().casefold().replace(",", ".")
    try:
        found = round(float(message[:-1]) * 100) if message.endswith(("x", "×")) else round(float(message.rstrip("% ")))
    except (ValueError, OverflowError):
        raise DataError(
            tr("{value!r} is no speed; write percent of the device's own, as in 40 or 0.4x").format(value=text.strip())
        ) from None
    if not 1 <= found <= MAX_PERCENT:
        raise DataError(
            tr("a speed is 1 to {most} percent of the device's own, not {found}").format(most=MAX_PERCENT, found=found)
        )
    return found


class _Stages(HeadedModel):
    """The stages, and which of them the pointer has now; `told` gives the reason where an edit was refused."""

    message = pyqtSignal(str)

    def __init__(self, store: Store, profile: str) -> None:
        super().__init__(_HEADS)
        self._store, self._key = store, profile
        self.pointer = Pointing()
        self.refresh()

    @property
    def profile(self) -> Profile | None:
        """The profile as it is now."""
        return self._store.profiles.get(self._key)

    def refresh(self) -> None:
        """Show the stages as they are now."""
        pointer = self.profile.pointer if self.profile else Pointing()
        if pointer == self.pointer and self.size():
            self.dataChanged.emit(self.index(0, 0), self.index(self.size() - 1, _NOW))
            return
        self.beginResetModel()
        self.pointer = pointer
        self.endResetModel()

    def size(self) -> int:
        """A row a stage."""
        return len(self.pointer.stages)

    def flags(self, index: AnyIndex) -> Qt.ItemFlag:
        """Names and speeds can be typed."""
        shown = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
        return shown | Qt.ItemFlag.ItemIsEditable if index.isValid() and index.column() != _NOW else shown

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """What a cell shows."""
        if not index.isValid() or role not in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole):
            return None
        stage, column = self.pointer.stages[index.row()], index.column()
        if column == _NOW:
            status = self._store.status
            now = status.live == self._key and status.stage == stage.name
            first = tr("at first") if index.row() == 0 else ""
            return ", ".join(filter(None, (first, "now" if now else "")))
        value = getattr(stage, _FIELDS[column])
        return f"{value} %" if column in (_ACROSS, _DOWN) else value

    def setData(self, index: AnyIndex, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        """Take what was typed; what can't be read leaves all as it is."""
        if self.profile is None or role != Qt.ItemDataRole.EditRole:
            return False
        row, column, text = index.row(), index.column(), str(value).strip()
        old = self.pointer.stages[row]
        try:
            new = {_FIELDS[column]: text if column == _NAME else read_percent(text)}
            if column == _NAME and not text:
                raise DataError(tr("a pointer speed needs a name"))
            stages = tuple(
                msgspec.structs.replace(each, **new) if n == row else each for n, each in enumerate(self.stages)
            )
            named = {old.name: text} if column == _NAME else {}
            refused = self.put(tr("speed {name}").format(name=old.name), named, stages=stages)
        except DataError as error:
            refused = str(error)
        self.message.emit(refused)
        return not refused

    def put(self, message: str, named: dict[str, str] | None = None, **values: object) -> str:
        """Give the profile other stages or speeds; returns the reason where that is refused."""
        if self.profile is None:
            return ""
        # What is shown may be an edit behind.
        after = msgspec.structs.replace(self.profile.pointer, **values)
        return commands.set_pointer(self._store, self.profile, after, message, named or {})

    @property
    def stages(self) -> tuple[SpeedStage, ...]:
        """The stages as they are now, shown already or not."""
        return self.profile.pointer.stages if self.profile else ()


class PointerDialog(QDialog):
    """The pointer of a profile. Everything typed is there with the next motion, where the profile is live."""

    def __init__(self, store: Store, profile: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._store = store
        self.model = _Stages(store, profile)
        found = self.model.profile
        self.setWindowTitle(tr("Pointer speed of {value}").format(value=found.name if found else profile))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(560, 440)
        self.table = EditedTable(tr("Pointer speeds"))
        self.table.setModel(self.model)
        self.table.set_widths(170, 120, 110)
        self.name, self.speed = QLineEdit(), QLineEdit()
        self.name.setPlaceholderText(tr("Aim"))
        self.name.setAccessibleName(tr("Name of a new pointer speed"))
        self.speed.setPlaceholderText("40 %")
        self.speed.setAccessibleName(tr("Speed of the new one, in percent of the device's own"))
        self.wheel, self.straight = NumberField(), NumberField()
        self.wheel.setRange(1, MAX_PERCENT)
        self.wheel.setSuffix(" %")
        self.wheel.setSingleStep(10)
        self.straight.setRange(0, MAX_STRAIGHT)
        self.straight.setSuffix("°")
        self.straight.setSpecialValueText(tr("off"))
        self._message = label("", "alarm", wrap=True)
        self._route_note = label("", "soft", wrap=True)
        # A field's editor hands its text over now, and rows must not go away under it.
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.timeout.connect(self.refresh)
        self._build()
        self.table.delete_asked.connect(self.delete)
        self.table.move_asked.connect(self.move_stage)
        self.name.returnPressed.connect(self.add)
        self.speed.returnPressed.connect(self.add)
        self.wheel.valueChanged.connect(lambda value: self._say(self.model.put(tr("wheel speed"), wheel=value)))
        self.straight.valueChanged.connect(
            lambda value: self._say(self.model.put(tr("straight lines"), straight=value))
        )
        # Methods, which Qt disconnects when the dialog goes; a lambda would outlive it.
        store.profile_changed.connect(self._refresh_later)
        store.status_changed.connect(self._refresh_later)
        self.model.message.connect(self._say)
        self.refresh()

    def _build(self) -> None:
        layout = QVBoxLayout(self)
        message = tr(
            "How fast the pointer moves while this profile is live, in percent of the device's own speed. "
            "Let a button change it: on the Buttons page, choose a pointer speed for it."
        )
        layout.addWidget(label(message, "soft", wrap=True))
        layout.addWidget(self.table, 1)
        layout.addWidget(self._message)
        row = QHBoxLayout()
        row.addWidget(self.name, 3)
        row.addWidget(self.speed, 1)
        self.add_button = button(tr("Add"), self.add, "act")
        row.addWidget(self.add_button)
        layout.addLayout(row)
        layout.addWidget(form_row(tr("wheel speed"), self.wheel))
        layout.addWidget(form_row(tr("straighten lines within"), self.straight))
        layout.addWidget(self._route_note)
        foot = QHBoxLayout()
        foot.addWidget(button(tr("Up"), lambda: self.move_stage(-1), tip=tr("Move the selected speed up (Alt+Up)")))
        foot.addWidget(
            button(tr("Down"), lambda: self.move_stage(1), tip=tr("Move the selected speed down (Alt+Down)"))
        )
        foot.addWidget(button(tr("Delete"), self.delete, tip=tr("Remove the selected speeds (Del)")))
        foot.addStretch(1)
        foot.addWidget(button(tr("Close"), self.accept))
        layout.addLayout(foot)

    def _refresh_later(self, key: str = "") -> None:
        self._later.start(0)

    def refresh(self) -> None:
        """Show the pointer as it is now."""
        if self.table.state() != QAbstractItemView.State.EditingState:
            now = self.table.currentIndex()
            row, column = now.row(), now.column()
            self.model.refresh()
            if self.model.size():
                place = self.model.index(min(max(row, 0), self.model.size() - 1), max(column, 0))
                self.table.setCurrentIndex(place)
        for field, value in ((self.wheel, self.model.pointer.wheel), (self.straight, self.model.pointer.straight)):
            if not field.hasFocus():
                before = field.blockSignals(True)
                field.setValue(value)
                field.blockSignals(before)
        self._route_note.setText("" if self._store.status.changes_motion else _NO_EFFECT)

    def add(self) -> None:
        """Add a stage of the typed name and speed."""
        try:
            name = self.name.text().strip()
            if not name:
                raise DataError(tr("write a name for it, say Aim"))
            percent = read_percent(self.speed.text() or "100")
            stages = (*self.model.stages, SpeedStage(name, percent, percent))
            refused = self.model.put(tr("new speed {name}").format(name=name), stages=stages)
        except DataError as error:
            refused = str(error)
        self._say(refused)
        if not refused:
            self.name.clear()
            self.speed.clear()
            self.name.setFocus()

    def delete(self) -> None:
        """Take the selected stages out, and the cells that go to them."""
        gone = self._selected()
        stages = tuple(stage for n, stage in enumerate(self.model.stages) if n not in gone)
        if gone:
            self._say(self.model.put(tr("delete a speed"), stages=stages))

    def move_stage(self, by: int) -> None:
        """Move the current stage up (-1) or down (1); the first one is there at the start."""
        row, stages = self.table.currentIndex().row(), list(self.model.stages)
        if row >= 0 and 0 <= row + by < len(stages):
            stages.insert(row + by, stages.pop(row))
            self._say(self.model.put(tr("move {name}").format(name=stages[row + by].name), stages=tuple(stages)))
            self.table.setCurrentIndex(self.model.index(row + by, max(0, self.table.currentIndex().column())))

    def _selected(self) -> set[int]:
        chosen = self.table.selectionModel()
        return {index.row() for index in chosen.selectedRows()} if chosen else set()

    def _say(self, message: str) -> None:
        self._message.setText(sentence(message))
