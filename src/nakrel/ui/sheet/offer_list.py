"""The lines beneath the field: offers under their headings, each with its glyph, a macro with its small trace."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from PyQt6.QtCore import QAbstractListModel, QModelIndex, QPersistentModelIndex, QRectF, QSize, Qt
from PyQt6.QtGui import QIcon, QPainter
from PyQt6.QtWidgets import QFrame, QListView, QStyle, QStyledItemDelegate, QStyleOptionViewItem, QWidget

from nakrel.core.edit.offers import Beginning, Offer
from nakrel.core.edit.timeline import lay_out
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro
from nakrel.ui.programs import Programs
from nakrel.ui.sheet.model import cell_text
from nakrel.ui.store import Store
from nakrel.ui.theme import BODY_PX, SMALL_PX, colour
from nakrel.ui.widgets import glyphs
from nakrel.ui.widgets.lettering import fitted, width_of, write
from nakrel.ui.widgets.traces import draw_trace
from nakrel.words import tr

__all__ = ["OfferList"]

_OFFER = Qt.ItemDataRole.UserRole + 50
_LINE_PX, _HEAD_PX = 26, 22
_TEXT_PX = 62
# How much of a macro its small trace shows: enough to tell rapid fire from a slow one.
_TRACE_US = 400_000

AnyIndex = QModelIndex | QPersistentModelIndex


class _Model(QAbstractListModel):
    def __init__(self) -> None:
        super().__init__()
        self.lines: list[str | Offer] = []

    def show(self, offers: Sequence[Offer]) -> None:
        self.beginResetModel()
        self.lines = []
        for offer in offers:
            if not self.lines or not isinstance(last := self.lines[-1], Offer) or last.group != offer.group:
                self.lines.append(tr(offer.group, "heading"))
            self.lines.append(offer)
        self.endResetModel()

    def rowCount(self, parent: AnyIndex = QModelIndex()) -> int:  # noqa: B008 - Qt's own signature
        return 0 if parent.isValid() else len(self.lines)

    def flags(self, index: AnyIndex) -> Qt.ItemFlag:
        taken = index.isValid() and isinstance(self.lines[index.row()], Offer)
        return (
            Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
            if taken
            # A heading is read, and never chosen.
            else Qt.ItemFlag.NoItemFlags
        )

    def data(self, index: AnyIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if not index.isValid():
            return None
        line = self.lines[index.row()]
        if role == _OFFER:
            return line if isinstance(line, Offer) else None
        if role in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole):
            if not isinstance(line, Offer):
                return line
            return (
                line.text
                if role == Qt.ItemDataRole.DisplayRole
                else f"{tr(line.group, 'heading')}: {line.text} {line.soft}".strip()
            )
        return None


class _Delegate(QStyledItemDelegate):
    def __init__(self, store: Store, programs: Programs, parent: QWidget) -> None:
        super().__init__(parent)
        self._store, self._programs = store, programs

    def sizeHint(self, option: QStyleOptionViewItem, index: AnyIndex) -> QSize:
        return QSize(200, _LINE_PX if index.data(_OFFER) else _HEAD_PX)

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: AnyIndex) -> None:
        if painter is None:
            return
        area, offer = QRectF(option.rect), index.data(_OFFER)
        if offer is None:
            painter.setPen(colour("soft"))
            write(painter, area.left() + 8, area.center().y() + 1, str(index.data()), SMALL_PX)
            return
        if bool(option.state & QStyle.StateFlag.State_Selected):
            painter.fillRect(option.rect, colour("shade"))
            painter.fillRect(QRectF(area.left(), area.top(), 3, area.height()), colour("brass"))
        self._sign(painter, area, offer)
        soft = fitted(offer.soft, int(area.width() * 0.45), SMALL_PX)
        right = area.right() - 8 - width_of(soft, SMALL_PX)
        text = fitted(offer.text, int(right - area.left() - _TEXT_PX - 10), BODY_PX)
        painter.setPen(colour("ink"))
        write(painter, area.left() + _TEXT_PX, area.center().y(), text, BODY_PX)
        painter.setPen(colour("soft"))
        write(painter, right, area.center().y(), soft, SMALL_PX)

    def _sign(self, painter: QPainter, area: QRectF, offer: Offer) -> None:
        place = QRectF(area.left() + 12, area.top(), 40, area.height())
        if isinstance(offer.does, Beginning):
            painter.setPen(colour("brass"))
            write(painter, place.center().x() - 3, place.center().y(), "+", BODY_PX, bold=True)
            return
        icon = self._programs.icon(offer.program) if offer.program else QIcon()
        macro = self._store.macros.get(offer.does.macro) if isinstance(offer.does, RunMacro) else None
        if macro is not None:
            _small_trace(painter, place.adjusted(0, 7, 0, -7), macro)
        elif not icon.isNull():
            icon.paint(painter, place.toRect())
        elif glyph := cell_text(self._store, offer.does)[0]:
            glyphs.draw(painter, glyph, place)


def _small_trace(painter: QPainter, area: QRectF, macro: Macro) -> None:
    """The first moments of the loop, all that is pressed on one line."""
    line = lay_out(Macro(id="trace", name="trace", loop=macro.loop[:40]))
    spans = sorted((s.start_us, s.end_us) for each in line.spans.values() for s in each)
    end = max(1, min(_TRACE_US, max((end for _, end in spans), default=1)))
    draw_trace(painter, area, spans, 0, end, colour("brass"), 1)


class OfferList(QListView):
    """Shows offers; one of them is always the chosen one, and headings are skipped."""

    def __init__(self, store: Store, programs: Programs) -> None:
        super().__init__()
        self.setObjectName("offered")
        self.setAccessibleName(tr("What it could do"))
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._model = _Model()
        self.setModel(self._model)
        self.setItemDelegate(_Delegate(store, programs, self))

    def show_offers(self, offers: Sequence[Offer], chosen: object = None) -> None:
        """Show these, with the one chosen that does this, else the first."""
        self._model.show(offers)
        rows = [row for row, line in enumerate(self._model.lines) if isinstance(line, Offer)]
        wanted = next((row for row in rows if chosen is not None and self.offer(row).does == chosen), None)
        first = rows[0] if rows else 0
        self._choose(first if wanted is None else wanted)
        if self.currentIndex().row() <= 1:
            self.scrollToTop()

    def offer(self, row: int | None = None) -> Offer:
        """The chosen offer, or that of a row."""
        index = self.currentIndex() if row is None else self._model.index(row, 0)
        found = index.data(_OFFER)
        assert isinstance(found, Offer)
        return found

    def texts(self) -> list[str]:
        """All lines, headings included."""
        return [line.text if isinstance(line, Offer) else line for line in self._model.lines]

    def height_of_all(self) -> int:
        """How high it would be to show everything."""
        return sum(_LINE_PX if isinstance(line, Offer) else _HEAD_PX for line in self._model.lines) + 8

    def step(self, by: int) -> None:
        """Choose the next line (1), the one before (-1), or so many further."""
        rows = [row for row, line in enumerate(self._model.lines) if isinstance(line, Offer)]
        if rows:
            here = rows.index(self.currentIndex().row()) if self.currentIndex().row() in rows else 0
            self._choose(rows[max(0, min(here + by, len(rows) - 1))])

    def _choose(self, row: int) -> None:
        index = self._model.index(row, 0)
        self.setCurrentIndex(index)
        # With its heading, where it is the first beneath one.
        if row and not isinstance(self._model.lines[row - 1], Offer):
            self.scrollTo(self._model.index(row - 1, 0))
        self.scrollTo(index)
