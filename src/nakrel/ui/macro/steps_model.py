"""The step list's rows."""

from __future__ import annotations

from collections.abc import Collection
from typing import Any

import msgspec
from PyQt6.QtCore import QMimeData, QModelIndex, QPersistentModelIndex, Qt

from nakrel.core import edits
from nakrel.core.errors import DataError
from nakrel.core.macro import Macro, Section
from nakrel.core.steps import Branch, Chord, Note, Repeat, Step, Tap, Wait, Wheel, describe
from nakrel.core.timeline import lay_out
from nakrel.core.units import MAX_COUNT, format_ms, parse_span
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.ui.widgets.rows import DEPTH, GLYPH, LIT, WEAK, HeadedModel

__all__ = ["ROWS_MIME", "SECTION_WORDS", "StepsModel"]

SECTION, NUMBER, WHAT, TIME, STARTS, REMARK = range(6)
_HEADS = ("", "no", "step", "hold / wait", "starts at, ms", "remark")
SECTION_WORDS = {Section.LEAD_IN: "lead-in", Section.LOOP: "loop", Section.LEAD_OUT: "lead-out"}
# Rows that are no action of their own have no number.
_UNNUMBERED = (Wait, Note, Branch)
_QUIET = (SECTION, NUMBER, STARTS, REMARK)
ROWS_MIME = "application/x-nakrel-step-rows"
AnyIndex = QModelIndex | QPersistentModelIndex


class StepsModel(HeadedModel):
    """The steps of one macro. What is typed becomes one undoable edit; `selected` says which rows go with it."""

    def __init__(self, store: Store) -> None:
        super().__init__(_HEADS)
        self._store = store
        self.macro: Macro | None = None
        self.selected: Collection[int] = ()
        self.refused = ""
        self._rows: list[edits.Row] = []
        self._starts: list[int] = []
        self._numbers: list[int] = []
        self._new: range = range(0)

    def set_macro(self, macro: Macro | None, new: range = range(0)) -> None:
        """Show this macro; the rows in `new` are being recorded and lit."""
        rows = edits.rows(macro) if macro else []
        same_shape = len(rows) == len(self._rows)
        if not same_shape:
            self.beginResetModel()
        self.macro, self._rows, self._new = macro, rows, new
        self._starts = lay_out(macro).starts_us if macro else []
        self._number()
        if not same_shape:
            self.endResetModel()
        elif rows:
            self.dataChanged.emit(self.index(0, 0), self.index(len(rows) - 1, REMARK))

    def _number(self) -> None:
        count, self._numbers = 0, []
        for row in self._rows:
            count += not isinstance(row.step, _UNNUMBERED)
            self._numbers.append(count)

    def size(self) -> int:
        """A row a step."""
        return len(self._rows)

    def step(self, row: int) -> Step | Branch:
        """The step or branch of a row."""
        return self._rows[row].step

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """What a cell shows."""
        if not index.isValid():
            return None
        row, column = index.row(), index.column()
        section, step = self._rows[row][:2]
        if role == Qt.ItemDataRole.DisplayRole:
            return self._text(row, column, section, step)
        if role == Qt.ItemDataRole.EditRole:
            return self._text(row, column, section, step).removesuffix(" ms")
        if role == Qt.ItemDataRole.AccessibleTextRole and column == WHAT:
            return f"{SECTION_WORDS[section]}: {self._words(row)}{', switched off' if _off(step) else ''}"
        if role == GLYPH and column == WHAT:
            return step.controls[0] if isinstance(step, Chord) else getattr(step, "control", None)
        if role == DEPTH and column == WHAT:
            return self._rows[row].depth
        if role == LIT:
            return row in self._new
        if role == WEAK:
            return _off(step) or column in _QUIET or (column == WHAT and isinstance(step, _UNNUMBERED))
        return None

    def _words(self, row: int) -> str:
        """The step in words; what has a column of its own isn't said twice."""
        step = self.step(row)
        match step:
            case Wait():
                return "wait" if step.most_us is None else "wait, at random"
            case Note():
                return "note"
            case Repeat():
                return "repeat"
            case Branch():
                return f"way {self._rows[row].inside[-1][1] + 1}"
        return describe(step)

    def _text(self, row: int, column: int, section: Section, step: Step | Branch) -> str:
        if column == SECTION:
            first = row == 0 or self._rows[row - 1].section is not section
            return SECTION_WORDS[section] if first else ""
        if column == NUMBER:
            return "" if isinstance(step, _UNNUMBERED) else str(self._numbers[row])
        if column == WHAT:
            return f"{self._words(row)}  (off)" if _off(step) else self._words(row)
        if column == TIME:
            return _time_text(step)
        return format_ms(self._starts[row]) if column == STARTS else _remark(step)

    def flags(self, index: AnyIndex) -> Qt.ItemFlag:
        """Times and remarks are edited in place; rows are dragged."""
        if not index.isValid():
            return Qt.ItemFlag.ItemIsDropEnabled
        base = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable | Qt.ItemFlag.ItemIsDragEnabled
        step = self.step(index.row())
        timed = index.column() == TIME and isinstance(step, Wait | Tap | Chord | Wheel | Repeat | Branch)
        remarked = index.column() == REMARK and not isinstance(step, Branch)
        return base | Qt.ItemFlag.ItemIsEditable if timed or remarked else base

    def setData(self, index: AnyIndex, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        """Take a typed time or remark; what can't be read leaves all as it is and its reason in `refused`."""
        if role != Qt.ItemDataRole.EditRole or self.macro is None:
            return False
        self.refused = ""
        row, step = index.row(), self.step(index.row())
        try:
            after = self._typed(index.column(), row, step, str(value).strip())
        except DataError as error:
            self.refused = str(error)
            self._store.fault.emit(self.refused)
            return False
        commands.edit_macro(self._store, f"{_HEADS[index.column()]} in {self.macro.name}", after)
        return True

    def _typed(self, column: int, row: int, step: Step | Branch, text: str) -> Macro:
        """The macro with what was typed in it. Raises `DataError`."""
        assert self.macro
        replace = msgspec.structs.replace
        if column == REMARK:
            name = "text" if isinstance(step, Note) else "remark"
            return edits.change(self.macro, row, replace(step, **{name: text}))
        match step:
            case Wheel():
                return edits.change(self.macro, row, replace(step, notches=_count(text, "number of notches", 1_000)))
            case Repeat():
                times = _count(text.removesuffix("times"), "number of times", MAX_COUNT)
                return edits.change(self.macro, row, replace(step, times=times))
            case Branch():
                weight = _count(text.removeprefix("weight"), "weight", 1_000)
                return edits.change(self.macro, row, replace(step, weight=weight))
        # With several steps selected, all their times become this one.
        chosen = [r for r in self.selected if type(self.step(r)) is type(step)]
        rows = chosen if row in chosen else [row]
        least, most = parse_span(text)
        if most is None:
            return edits.set_times(self.macro, rows, least)
        if not isinstance(step, Wait):
            raise DataError(f"only a wait can be random; write one time for this step, not {text!r}")
        macro = self.macro
        for each in rows:
            macro = edits.change(macro, each, replace(self.step(each), wait_us=least, most_us=most))
        return macro

    def supportedDropActions(self) -> Qt.DropAction:
        """Rows are moved."""
        return Qt.DropAction.MoveAction

    def mimeTypes(self) -> list[str]:
        """What dragged rows are."""
        return [ROWS_MIME]

    def mimeData(self, indexes: Any) -> QMimeData:
        """The numbers of the dragged rows."""
        data = QMimeData()
        rows = sorted({index.row() for index in indexes})
        data.setData(ROWS_MIME, ",".join(map(str, rows)).encode())
        return data

    def dropMimeData(self, data: QMimeData | None, action: Any, row: int, column: int, parent: AnyIndex) -> bool:
        """Move the dragged rows into the gap they were dropped on."""
        if data is None or self.macro is None or not data.hasFormat(ROWS_MIME):
            return False
        chosen = [int(part) for part in bytes(data.data(ROWS_MIME).data()).decode().split(",")]
        gap = parent.row() if parent.isValid() else (row if row >= 0 else len(self._rows))
        self.move(chosen, gap)
        # The rows were moved in the macro itself; the view must not remove anything.
        return False

    def move(self, chosen: Collection[int], gap: int) -> None:
        """Move rows into the gap before row `gap`; a gap between sections belongs to the section above it."""
        if self.macro is None:
            return
        if gap > 0:
            place = edits.place_after(self.macro, gap - 1)
        else:
            place = edits.Place(self._rows[0][0] if self._rows else Section.LOOP, 0)
        commands.edit_macro(self._store, f"move steps in {self.macro.name}", edits.move(self.macro, chosen, place))


def _time_text(step: Step | Branch) -> str:
    match step:
        case Wait(wait_us=least, most_us=most) if most is not None:
            return f"{format_ms(least)} to {format_ms(most)} ms"
        case Wait():
            return f"{format_ms(step.wait_us)} ms"
        case Tap() | Chord():
            return f"{format_ms(step.hold_us)} ms"
        case Wheel():
            return str(step.notches)
        case Repeat():
            return f"{step.times} times"
        case Branch():
            return f"weight {step.weight}"
    return ""


def _off(step: Step | Branch) -> bool:
    return not isinstance(step, Branch) and step.off


def _remark(step: Step | Branch) -> str:
    if isinstance(step, Branch):
        return ""
    return step.text if isinstance(step, Note) else step.remark


def _count(text: str, what: str, most: int) -> int:
    text = text.strip()
    if not text.isdecimal() or not 1 <= int(text) <= most:
        raise DataError(f"{text!r} is not a {what}; write 1 to {most}")
    return int(text)
