"""How the window's tables and lists draw a row: a glyph, the text, a softer addition, hairlines, the lit ones."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, NamedTuple

from PyQt6.QtCore import (
    QAbstractTableModel,
    QItemSelection,
    QItemSelectionModel,
    QModelIndex,
    QPersistentModelIndex,
    QPoint,
    QRect,
    QRectF,
    QSize,
    Qt,
    pyqtSignal,
)
from PyQt6.QtGui import QIcon, QKeyEvent, QPainter, QPaintEvent, QResizeEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QLineEdit,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
    QWidget,
)

from nakrel.ui.theme import BODY_PX, ROW_PX, SMALL_PX, colour
from nakrel.ui.widgets import glyphs
from nakrel.ui.widgets.lettering import fitted, width_of, write

__all__ = [
    "DEPTH",
    "GLYPH",
    "LIT",
    "SOFT",
    "WEAK",
    "Drawn",
    "EditedTable",
    "HeadedModel",
    "KeepingDelegate",
    "RowDelegate",
    "draw_lines_above",
    "saw_current",
    "Table",
]

# Roles besides Qt's own: a glyph's name, a softer addition, whether the row is lit, whether the text is weak, and how
# deep the row lies in blocks.
GLYPH = Qt.ItemDataRole.UserRole + 1
SOFT = Qt.ItemDataRole.UserRole + 2
LIT = Qt.ItemDataRole.UserRole + 3
WEAK = Qt.ItemDataRole.UserRole + 4
DEPTH = Qt.ItemDataRole.UserRole + 5
_INDENT_PX, _ICON_PX = 18, 18

AnyIndex = QModelIndex | QPersistentModelIndex


class Drawn(NamedTuple):
    """How a cell is drawn: see the roles of the same names."""

    text: str = ""
    glyph: str | None = None
    soft: str = ""
    lit: bool = False
    weak: bool = False
    depth: int = 0
    icon: QIcon | None = None


def _drawn(index: AnyIndex) -> Drawn:
    """How a cell is drawn, from a model that answers role by role."""
    text = str(index.data(Qt.ItemDataRole.DisplayRole) or "")
    answers = [index.data(role) for role in (GLYPH, SOFT, LIT, WEAK, DEPTH)]
    icon = index.data(Qt.ItemDataRole.DecorationRole)
    return Drawn(text, answers[0], answers[1] or "", bool(answers[2]), bool(answers[3]), answers[4] or 0, icon)


class HeadedModel(QAbstractTableModel):
    """A table with a head to each column; `size` says how many rows there are."""

    def __init__(self, heads: tuple[str, ...]) -> None:
        super().__init__()
        self._heads = heads

    def size(self) -> int:
        """The number of rows."""
        raise NotImplementedError

    def drawn(self, row: int, column: int) -> Drawn:
        """How a cell is drawn."""
        return _drawn(self.index(row, column))

    def rowCount(self, parent: AnyIndex = QModelIndex()) -> int:  # noqa: B008 - Qt's own signature
        """The number of rows; a row has none beneath it."""
        return 0 if parent.isValid() else self.size()

    def columnCount(self, parent: AnyIndex = QModelIndex()) -> int:  # noqa: B008 - Qt's own signature
        """A column a head."""
        return 0 if parent.isValid() else len(self._heads)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        """The columns' heads."""
        if orientation == Qt.Orientation.Horizontal and role == Qt.ItemDataRole.DisplayRole:
            return self._heads[section]
        return None


class KeepingDelegate(QStyledItemDelegate):
    """Leaves what is being typed as it is, whatever changes behind it meanwhile: a game that starts, another client."""

    def setEditorData(self, editor: QWidget | None, index: QModelIndex) -> None:
        """Put the cell's text into the field, unless something was typed there. What is selected to be typed over stays
        selected: notices come at any time, also between a click and the first key."""
        if not isinstance(editor, QLineEdit):
            super().setEditorData(editor, index)
        elif not editor.isModified() and editor.text() != index.data(Qt.ItemDataRole.EditRole):
            whole = editor.selectedText() == editor.text()
            super().setEditorData(editor, index)
            if whole:
                editor.selectAll()


class RowDelegate(KeepingDelegate):
    """Paints a cell of a table."""

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: AnyIndex) -> None:
        """Draw ground, hairline, bar, glyph, text and addition."""
        if painter is None:
            return
        selected = bool(option.state & QStyle.StateFlag.State_Selected)
        current = bool(option.state & QStyle.StateFlag.State_HasFocus)
        chosen = option.widget.selectionModel() if isinstance(option.widget, QAbstractItemView) else None
        above = chosen is not None and chosen.isSelected(index.sibling(index.row() + 1, index.column()))
        self.draw(painter, option.rect, _drawn(index), index.column(), selected, current, above)

    def draw(
        self,
        painter: QPainter,
        place: QRect,
        drawn: Drawn,
        column: int,
        selected: bool = False,
        current: bool = False,
        above: bool = False,
    ) -> None:
        """Draw a cell at its place; `above` says that the row below it is selected."""
        area = QRectF(place)
        if selected or drawn.lit:
            painter.fillRect(place, colour("field"))
        # White on paper is told by few: lines of brass above and below say that a row is selected.
        # Each row draws its lower one, so that what is drawn of a row alone is right.
        painter.setPen(colour("brass" if selected or above else "line"))
        painter.drawLine(place.bottomLeft(), place.bottomRight())
        if column == 0 and (selected or drawn.lit):
            painter.fillRect(place.left(), place.top(), 3, place.height() - 1, colour("brass"))
        if current:
            painter.setPen(colour("brass"))
            painter.drawRect(area.adjusted(0, 0, -1, -2))
        self._text(painter, area.adjusted(8, 0, -6, 0), drawn, column)

    def sizeHint(self, option: QStyleOptionViewItem, index: AnyIndex) -> QSize:
        """Every row is of one height."""
        return QSize(80, ROW_PX)

    def _text(self, painter: QPainter, area: QRectF, drawn: Drawn, column: int) -> None:
        for _ in range(drawn.depth):
            painter.setPen(colour("line"))
            painter.drawLine(int(area.left()) + 2, int(area.top()), int(area.left()) + 2, int(area.bottom()) - 1)
            area.setLeft(area.left() + _INDENT_PX)
        if drawn.glyph:
            glyphs.draw(painter, drawn.glyph, QRectF(area.left() - 2, area.top(), 14, area.height()))
            area.setLeft(area.left() + 17)
        if drawn.icon and not drawn.icon.isNull():
            top = round(area.center().y() - _ICON_PX / 2)
            drawn.icon.paint(painter, QRect(int(area.left()), top, _ICON_PX, _ICON_PX))
            area.setLeft(area.left() + _ICON_PX + 6)
        if not drawn.text:
            return
        pixels, bold = BODY_PX, drawn.lit and column <= 1
        painter.setPen(colour("soft" if drawn.weak else "ink"))
        shown = fitted(drawn.text, int(area.width()), pixels, bold)
        write(painter, area.left(), area.center().y(), shown, pixels, bold=bold)
        if soft := drawn.soft:
            area.setLeft(area.left() + width_of(shown + " ", pixels, bold))
            painter.setPen(colour("soft"))
            text = fitted(soft, int(area.width()), SMALL_PX)
            write(painter, area.left(), area.center().y(), text, SMALL_PX)


def draw_lines_above(view: QAbstractItemView, *changed: QItemSelection) -> None:
    """Draw the lines above rows anew that are selected now, or no longer: they are of the rows above."""
    ground, model = view.viewport(), view.model()
    if ground is None or model is None:
        return
    for selection in changed:
        for number in range(len(selection)):
            rows = selection[number]
            ground.update(0, view.visualRect(model.index(rows.top(), rows.left())).top() - 1, ground.width(), 1)


def saw_current(view: QAbstractItemView, event: QResizeEvent | None) -> bool:
    """Whether the current entry was all in sight until the view got another size: then it stays so."""
    current = view.currentIndex()
    return event is not None and QRect(QPoint(), event.oldSize()).contains(view.visualRect(current))


class Table(QTableView):
    """A table without a grid, with rows of one height, whose whole rows are selected."""

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self.setShowGrid(False)
        self.setItemDelegate(RowDelegate(self))
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.setHorizontalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setTabKeyNavigation(False)
        self.setWordWrap(False)
        if ground := self.viewport():
            # All of it is drawn, so nothing behind it needs to be.
            ground.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        # Not by its truth: an empty header counts as false.
        if (rows := self.verticalHeader()) is not None:
            rows.hide()
            rows.setDefaultSectionSize(ROW_PX)
            rows.setMinimumSectionSize(ROW_PX)
        if (heads := self.horizontalHeader()) is not None:
            heads.setHighlightSections(False)
            heads.setFixedHeight(24)
            heads.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft)
            heads.setStretchLastSection(True)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Keep the current cell in sight."""
        seen = saw_current(self, event)
        super().resizeEvent(event)
        if seen:
            self.scrollTo(self.currentIndex())

    def choose(self, index: QModelIndex) -> None:
        """Make this cell the current one and its row the only one selected, whatever keys are held."""
        if chosen := self.selectionModel():
            flags = QItemSelectionModel.SelectionFlag
            chosen.setCurrentIndex(index, flags.ClearAndSelect | flags.Rows)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Draw the cells that are asked for in one go: with each on its own, most of the time goes to asking the model
        in Python what state they are in."""
        model, ground, delegate = self.model(), self.viewport(), self.itemDelegate()
        dragging = self.state() == QAbstractItemView.State.DraggingState
        if event is None or ground is None:
            return
        painter = QPainter(ground)
        # A pixel more: at 150 % the edges lie between pixels of the screen.
        painter.fillRect(event.rect().adjusted(-1, -1, 1, 1), colour("paper"))
        if dragging or not isinstance(model, HeadedModel):
            painter.end()
            super().paintEvent(event)
            return
        assert isinstance(delegate, RowDelegate)
        first, last = (self.rowAt(y) for y in (event.rect().top(), event.rect().bottom()))
        if first < 0:
            return
        chosen, current = self.selectionModel(), self.currentIndex()
        here = (current.row(), current.column()) if self.hasFocus() else (-1, -1)
        columns = [
            (column, self.columnViewportPosition(column), self.columnWidth(column))
            for column in range(model.columnCount())
            if not self.isColumnHidden(column)
        ]
        for row in range(first, (model.rowCount() - 1 if last < 0 else last) + 1):
            top, height = self.rowViewportPosition(row), self.rowHeight(row)
            # Rows are selected whole.
            selected, above = (chosen is not None and chosen.isSelected(model.index(row + n, 0)) for n in (0, 1))
            for column, left, width in columns:
                place = QRect(left, top, width, height)
                at = here == (row, column)
                delegate.draw(painter, place, model.drawn(row, column), column, selected, at, above)

    def selectionChanged(self, now: QItemSelection, before: QItemSelection) -> None:
        """Draw what stands out anew."""
        super().selectionChanged(now, before)
        draw_lines_above(self, now, before)

    def dataChanged(self, first: QModelIndex, last: QModelIndex, roles: Iterable[int] = ()) -> None:
        """Draw the cells between two anew, and not all that is to be seen, as a view does by itself."""
        ground = self.viewport()
        if ground is None or self.state() == QAbstractItemView.State.EditingState:
            # The editor is to have what is new, too.
            super().dataChanged(first, last, roles)
            return
        ground.update(self.visualRect(first).united(self.visualRect(last)).intersected(ground.rect()))
        for column in range(first.column(), last.column() + 1):
            # Screen readers hear of the first row's cells: of a single cell's change the view draws that cell only.
            cell = first.siblingAtColumn(column)
            super().dataChanged(cell, cell, roles)

    def set_widths(self, *widths: int) -> None:
        """Set the columns' widths in pixels; the last column takes the rest."""
        for column, width in enumerate(widths):
            self.setColumnWidth(column, width)


class EditedTable(Table):
    """A short list that is typed into: Enter edits a cell, Delete asks for the end of the chosen rows, Alt+Up and
    Alt+Down ask for the current one to be moved."""

    delete_asked = pyqtSignal()
    move_asked = pyqtSignal(int)

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(name, parent)
        self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.setEditTriggers(QAbstractItemView.EditTrigger.DoubleClicked | QAbstractItemView.EditTrigger.EditKeyPressed)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Handle the table's own keys; those of a field belong to the field."""
        if event is None or self.state() == QAbstractItemView.State.EditingState:
            super().keyPressEvent(event)
        elif event.key() in (Qt.Key.Key_Delete, Qt.Key.Key_Backspace):
            self.delete_asked.emit()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.edit(self.currentIndex())
        elif event.modifiers() & Qt.KeyboardModifier.AltModifier and event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self.move_asked.emit(-1 if event.key() == Qt.Key.Key_Up else 1)
        else:
            super().keyPressEvent(event)
