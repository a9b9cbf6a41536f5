"""The step list's rows."""

from __future__ import annotations

import re
from collections.abc import Collection
from typing import Any

import msgspec
from PyQt6.QtCore import QMimeData, QModelIndex, QPersistentModelIndex, Qt

from nakrel.core import notation
from nakrel.core.edit import edits
from nakrel.core.edit.pieces import UNNUMBERED
from nakrel.core.edit.row_words import SECTION_NAMES, in_words, is_off, remark_of, time_words
from nakrel.core.edit.rows import Place, place_after
from nakrel.core.edit.timeline import NOTHING, Timeline
from nakrel.core.model.controls import OTHERS
from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import MAX_COUNT, MAX_NOTCHES, MAX_RATE, MAX_WEIGHT
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.names import typed_formula
from nakrel.core.model.steps import (
    Block,
    Branch,
    Chord,
    If,
    Line,
    Note,
    Option,
    PickOne,
    Pointer,
    Repeat,
    Step,
    Tap,
    Text,
    Wait,
    Wheel,
)
from nakrel.core.model.units import plain_span, shown_ms
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.ui.widgets.rows import DEPTH, GLYPH, LIT, WEAK, Drawn, HeadedModel
from nakrel.words import tr

__all__ = ["ROWS_MIME", "SECTION_WORDS", "StepsModel"]

SECTION, NUMBER, WHAT, TIME, STARTS, REMARK = range(6)
_HEADS = ("", "#", tr("step"), tr("time"), tr("starts at, ms"), tr("comment"))
SECTION_WORDS = {section: tr(name) for section, name in SECTION_NAMES.items()}
# What has a figure in the column of times.
_TIMED = (Wait, Tap, Chord, Wheel, Pointer, Text, Repeat, Branch)
_SHOWN = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable | Qt.ItemFlag.ItemIsDragEnabled
_EDITED = _SHOWN | Qt.ItemFlag.ItemIsEditable
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
        self.line = NOTHING
        self._new: range = range(0)

    def set_line(self, line: Timeline, new: range = range(0)) -> None:
        """Show this macro; the rows in `new` are being recorded and lit."""
        macro = None if line is NOTHING else line.macro
        before, same_shape = self.line, line.size == self.line.size
        one_macro = macro is not None and self.macro is not None and macro.id == self.macro.id
        if not same_shape and one_macro and before.size and line.size:
            self._replace(macro, line, new)
            return
        if not same_shape:
            self.beginResetModel()
        self.macro, self.line, self._new = macro, line, new
        if not same_shape:
            self.endResetModel()
        elif line.size:
            first, last = line.changed_from(before)
            # What comes after the edit starts at another time, and is else as it was: cells take their time to draw.
            self.dataChanged.emit(self.index(first, 0), self.index(last, REMARK))
            self.dataChanged.emit(self.index(last, STARTS), self.index(line.size - 1, STARTS))

    def _replace(self, macro: Macro | None, line: Timeline, new: range) -> None:
        """Show the macro with more rows or fewer: those come or go alone, and views keep the others."""
        first, old_end, new_end = line.replaced(self.line)
        at = min(old_end, new_end)
        if new_end > old_end:
            self.beginInsertRows(QModelIndex(), at, at + new_end - old_end - 1)
        else:
            self.beginRemoveRows(QModelIndex(), at, at + old_end - new_end - 1)
        grown = new_end > old_end
        self.macro, self.line, self._new = macro, line, new
        (self.endInsertRows if grown else self.endRemoveRows)()
        # All that follow start at another time and bear another number; the first of a section names it.
        self.dataChanged.emit(self.index(min(first, line.size - 1), 0), self.index(line.size - 1, REMARK))

    def size(self) -> int:
        """A row a step."""
        return self.line.size

    def step(self, row: int) -> Line:
        """The step or branch of a row."""
        return self.line.row(row).step

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """What a cell shows."""
        if not index.isValid():
            return None
        row, column = index.row(), index.column()
        section, step = self.line.row(row)[:2]
        if role == Qt.ItemDataRole.DisplayRole:
            return self._text(row, column, section, step)
        if role == Qt.ItemDataRole.ToolTipRole and column in (WHAT, TIME, REMARK):
            return self._text(row, column, section, step)
        if role == Qt.ItemDataRole.EditRole:
            return _line_text(step) if column == WHAT else self._text(row, column, section, step).removesuffix(" ms")
        if role == Qt.ItemDataRole.AccessibleTextRole and column == WHAT:
            words = in_words(self.line.row(row))
            words = tr("{step}, off").format(step=words) if is_off(step) else words
            return f"{SECTION_WORDS[section]}: {words}"
        if role == GLYPH and column == WHAT:
            return _glyph(step)
        if role == DEPTH and column == WHAT:
            return self.line.row(row).depth
        if role == LIT:
            return row in self._new
        if role == WEAK:
            return is_off(step) or column in _QUIET or (column == WHAT and type(step) in UNNUMBERED)
        return None

    def drawn(self, row: int, column: int) -> Drawn:
        """How a cell is drawn."""
        section, step, _, _, depth = self.line.row(row)
        what = column == WHAT
        return Drawn(
            self._text(row, column, section, step),
            _glyph(step) if what else None,
            "",
            row in self._new,
            column in _QUIET or is_off(step) or (what and type(step) in UNNUMBERED),
            depth if what else 0,
        )

    def _text(self, row: int, column: int, section: Section, step: Line) -> str:
        if column == SECTION:
            first = row == 0 or self.line.row(row - 1).section is not section
            return SECTION_WORDS[section] if first else ""
        if column == NUMBER:
            return "" if type(step) in UNNUMBERED else str(self.line.number(row))
        if column == WHAT:
            words = in_words(self.line.row(row))
            return tr("{value}  (off)").format(value=words) if is_off(step) else words
        if column == TIME:
            return time_words(step)
        return shown_ms(self.line.start_us(row)) if column == STARTS else remark_of(step)

    def flags(self, index: AnyIndex) -> Qt.ItemFlag:
        """Steps, times and remarks are edited in place; rows are dragged."""
        if not index.isValid():
            return Qt.ItemFlag.ItemIsDropEnabled
        return _EDITED if self.is_editable(index.row(), index.column()) else _SHOWN

    def is_editable(self, row: int, column: int) -> bool:
        """Whether something can be typed there."""
        step = self.step(row)
        if column == WHAT:
            return not isinstance(step, Option | Note)
        return isinstance(step, _TIMED) if column == TIME else column == REMARK and not isinstance(step, Option)

    def best_column(self, row: int) -> int:
        """The column in which the row is changed most: its time, or what it says where it has none."""
        return next((column for column in (TIME, WHAT, REMARK) if self.is_editable(row, column)), TIME)

    def setData(self, index: AnyIndex, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        """Take what was typed; what can't be read leaves all as it is and its reason in `refused`."""
        if role != Qt.ItemDataRole.EditRole or self.macro is None:
            return False
        self.refused = ""
        row, column, text = index.row(), index.column(), str(value).strip()
        if text == self.data(index, Qt.ItemDataRole.EditRole):
            return True
        try:
            after = self._typed(column, row, self.step(row), text)
        except DataError as error:
            self.refused = error.message if isinstance(error, notation.NotationError) else str(error)
            self._store.fault.emit(self.refused)
            return False
        commands.edit_macro(
            self._store, tr("{value} in {name}").format(value=_HEADS[column], name=self.macro.name), after
        )
        return True

    def _typed(self, column: int, row: int, step: Line, text: str) -> Macro:
        """The macro with what was typed in it. Raises `DataError`."""
        assert self.macro
        replace = msgspec.structs.replace
        if column == REMARK:
            name = "text" if isinstance(step, Note) else "remark"
            return edits.change(self.macro, row, replace(step, **{name: text}))
        if column == WHAT:
            return edits.change(self.macro, row, _retyped(step, text))
        if isinstance(step, Wheel | Repeat | Text | Branch):
            return edits.change(self.macro, row, _with_figure(step, text))
        # With several steps selected, all their times become this one.
        chosen = [r for r in self.selected if type(self.step(r)) is type(step)]
        least, most = notation.read_span(typed_formula(plain_span(text)))
        if most is not None and not isinstance(step, Wait):
            raise DataError(
                tr("only a wait can be random; write one time for this step, not {value!r}").format(value=text)
            )
        macro = self.macro
        for each in chosen if row in chosen else [row]:
            macro = edits.change(macro, each, _with_time(self.step(each), least, most))
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
        gap = parent.row() if parent.isValid() else (row if row >= 0 else self.size())
        self.move(chosen, gap)
        # The rows were moved in the macro itself; the view must not remove anything.
        return False

    def move(self, chosen: Collection[int], gap: int) -> None:
        """Move rows into the gap before row `gap`; a gap between sections belongs to the section above it."""
        if self.macro is None:
            return
        if gap > 0:
            place = place_after(self.macro, gap - 1)
        else:
            place = Place(self.line.row(0).section if self.size() else Section.LOOP, 0)
        commands.edit_macro(
            self._store, tr("move steps in {name}").format(name=self.macro.name), edits.move(self.macro, chosen, place)
        )


def _line_text(step: Line) -> str:
    """The step as it is typed: its line of the notation."""
    return "" if isinstance(step, Option) else notation.shown_line(step)


def _glyph(step: Line) -> str | None:
    name = type(step).__name__.upper()
    if name in OTHERS:
        return name
    return step.controls[0] if isinstance(step, Chord) else getattr(step, "control", None)


def _retyped(step: Line, text: str) -> Step:
    """The step that a typed line says, with the remark and the inside of the one before. Raises `DataError`."""
    assert not isinstance(step, Option)
    if isinstance(step, PickOne) and text.rstrip(": ").lower() == "random choice":
        return step
    if isinstance(step, Repeat | If) and not text.endswith(":"):
        text += ":"
    found = notation.read_shown_steps(text)
    if len(found) != 1:
        raise DataError(tr("write one step here; the notation takes several at once"))
    new = found[0]
    kept: dict[str, Any] = {"off": step.off, "remark": new.remark or step.remark}
    if isinstance(step, Repeat | If) and isinstance(new, Repeat | If):
        kept["steps"] = step.steps
        if isinstance(step, If) and isinstance(new, If):
            kept["otherwise"] = step.otherwise
        elif isinstance(step, If) and step.otherwise:
            raise DataError(tr("only an if block has an else; delete that first"))
    elif isinstance(step, Block):
        raise DataError(tr("this block has steps inside; take them out before you make another step of it"))
    return msgspec.structs.replace(new, **kept)


def _with_figure(step: Wheel | Repeat | Text | Branch, text: str) -> Line:
    """The step with the number typed; raises `DataError`."""
    replace = msgspec.structs.replace
    match step:
        case Wheel():
            return replace(
                step,
                notches=_count(
                    text,
                    tr("{value!r} is not a number of notches; write 1 to {most}, or a formula in parentheses"),
                    MAX_NOTCHES,
                ),
            )
        case Repeat():
            return replace(
                step,
                times=_count(
                    _figure(text),
                    tr("{value!r} is not a number of times; write 1 to {most}, or a formula in parentheses"),
                    MAX_COUNT,
                ),
            )
        case Text():
            return replace(
                step,
                rate=_count(
                    text.removesuffix("/s"),
                    tr("{value!r} is not a rate a second; write 1 to {most}, or a formula in parentheses"),
                    MAX_RATE,
                ),
            )
        case Branch():
            return replace(
                step,
                weight=_count(
                    _figure(text),
                    tr("{value!r} is not a weight; write 1 to {most}, or a formula in parentheses"),
                    MAX_WEIGHT,
                ),
            )


def _with_time(step: Line, least: int | str, most: int | str | None) -> Line:
    replace = msgspec.structs.replace
    match step:
        case Wait():
            return replace(step, wait_us=least, most_us=most)
        case Tap() | Chord():
            return replace(step, hold_us=least)
        case Pointer():
            return replace(step, over_us=least)
    return step


def _figure(text: str) -> str:
    """The number or formula that is left without the words beside it, in any language."""
    return text if "(" in text else re.sub(r"-?[^\W\d]+", " ", text)


def _count(text: str, wrong: str, most: int) -> int | str:
    text = text.strip()
    if text.startswith("(") and text.endswith(")"):
        return typed_formula(text[1:-1].strip())
    if not text.isdecimal() or not 1 <= int(text) <= most:
        raise DataError(wrong.format(value=text, most=most))
    return int(text)
