"""How the window's tables and lists draw a row: a glyph, the text, a softer addition, hairlines, the lit ones."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QPersistentModelIndex, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
    QWidget,
)

from nakrel.ui.theme import ROW_PX, SMALL_PX, font, palette
from nakrel.ui.widgets import glyphs

__all__ = ["DEPTH", "GLYPH", "LIT", "SOFT", "WEAK", "HeadedModel", "RowDelegate", "Table"]

# Roles besides Qt's own: a glyph's name, a softer addition, whether the row is lit, whether the text is weak, and how
# deep the row lies in blocks.
GLYPH = Qt.ItemDataRole.UserRole + 1
SOFT = Qt.ItemDataRole.UserRole + 2
LIT = Qt.ItemDataRole.UserRole + 3
WEAK = Qt.ItemDataRole.UserRole + 4
DEPTH = Qt.ItemDataRole.UserRole + 5
_INDENT_PX = 18

AnyIndex = QModelIndex | QPersistentModelIndex


class HeadedModel(QAbstractTableModel):
    """A table with a head to each column; `size` says how many rows there are."""

    def __init__(self, heads: tuple[str, ...]) -> None:
        super().__init__()
        self._heads = heads

    def size(self) -> int:
        """The number of rows."""
        raise NotImplementedError

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


class RowDelegate(QStyledItemDelegate):
    """Paints a cell of a table."""

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: AnyIndex) -> None:
        """Draw ground, hairline, bar, glyph, text and addition."""
        if painter is None:
            return
        p = palette()
        area = QRectF(option.rect)
        selected = bool(option.state & QStyle.StateFlag.State_Selected)
        painter.save()
        if selected:
            painter.fillRect(area, QColor(p.field))
        if index.data(LIT):
            painter.fillRect(area, QColor(p.field))
        painter.setPen(QColor(p.line))
        painter.drawLine(option.rect.bottomLeft(), option.rect.bottomRight())
        if index.column() == 0 and (selected or index.data(LIT)):
            painter.fillRect(QRectF(area.left(), area.top(), 3, area.height() - 1), QColor(p.brass))
        current = option.state & QStyle.StateFlag.State_HasFocus
        if current:
            painter.setPen(QColor(p.brass))
            painter.drawRect(area.adjusted(0, 0, -1, -2))
        self._text(painter, area.adjusted(8, 0, -6, 0), index)
        painter.restore()

    def sizeHint(self, option: QStyleOptionViewItem, index: AnyIndex) -> QSize:
        """Every row is of one height."""
        return QSize(super().sizeHint(option, QModelIndex(index)).width() + 24, ROW_PX)

    def _text(self, painter: QPainter, area: QRectF, index: AnyIndex) -> None:
        p = palette()
        for _ in range(index.data(DEPTH) or 0):
            painter.setPen(QColor(p.line))
            painter.drawLine(int(area.left()) + 2, int(area.top()), int(area.left()) + 2, int(area.bottom()))
            area.setLeft(area.left() + _INDENT_PX)
        if name := index.data(GLYPH):
            glyphs.draw(painter, name, QRectF(area.left() - 2, area.top(), 14, area.height()))
            area.setLeft(area.left() + 17)
        text = str(index.data(Qt.ItemDataRole.DisplayRole) or "")
        painter.setFont(font(bold=bool(index.data(LIT)) and index.column() <= 1))
        painter.setPen(QColor(p.soft if index.data(WEAK) else p.ink))
        place = index.data(Qt.ItemDataRole.TextAlignmentRole) or Qt.AlignmentFlag.AlignLeft
        flags = int(Qt.AlignmentFlag.AlignVCenter | place)
        shown = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, int(area.width()))
        painter.drawText(area, flags, shown)
        if soft := index.data(SOFT):
            area.setLeft(area.left() + painter.fontMetrics().horizontalAdvance(shown + " "))
            painter.setFont(font(SMALL_PX))
            painter.setPen(QColor(p.soft))
            painter.drawText(
                area, flags, painter.fontMetrics().elidedText(soft, Qt.TextElideMode.ElideRight, int(area.width()))
            )


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

    def set_widths(self, *widths: int) -> None:
        """Set the columns' widths in pixels; the last column takes the rest."""
        for column, width in enumerate(widths):
            self.setColumnWidth(column, width)
