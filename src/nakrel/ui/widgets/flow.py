"""Layouts: parts that follow each other like words, and columns that scroll."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QRect, QSize, Qt
from PyQt6.QtWidgets import QLayout, QLayoutItem, QVBoxLayout, QWidget

__all__ = ["FlowLayout", "ScrolledColumn"]

_SPACE_PX = 4


class FlowLayout(QLayout):
    """Lays its widgets out as a text; `glue` says which follow the one before without a space."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self._items: list[QLayoutItem] = []
        self._glued: set[QWidget] = set()
        self.setContentsMargins(0, 0, 0, 0)

    def add(self, widget: QWidget, *, glued: bool = False) -> None:
        """Add one; a glued one stands close to what is before it, as a comma does."""
        if glued:
            self._glued.add(widget)
        self.addWidget(widget)

    def addItem(self, item: QLayoutItem | None) -> None:
        """Qt adds."""
        if item is not None:
            self._items.append(item)

    def count(self) -> int:
        """How many there are."""
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        """The item of that number; None for none."""
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        """Take an item out."""
        if not 0 <= index < len(self._items):
            return None
        item = self._items.pop(index)
        if (widget := item.widget()) is not None:
            self._glued.discard(widget)
        return item

    def expandingDirections(self) -> Qt.Orientation:
        """It takes the room it is given."""
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:
        """A narrower one is higher."""
        return True

    def heightForWidth(self, width: int) -> int:
        """How high it is at that width."""
        return self._put(QRect(0, 0, width, 0), move=False)

    def sizeHint(self) -> QSize:
        """As small as its largest part allows."""
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        """The largest part's."""
        size = QSize()
        for item in self._items:
            size = size.expandedTo(item.minimumSize())
        return size

    def setGeometry(self, place: QRect) -> None:
        """Put every part at its place."""
        super().setGeometry(place)
        self._put(place, move=True)

    def _put(self, place: QRect, *, move: bool) -> int:
        x, y, height = place.x(), place.y(), 0
        for item in self._items:
            widget = item.widget()
            if widget is None or widget.isHidden():
                continue
            size = item.sizeHint()
            glued = widget in self._glued
            space = 0 if x == place.x() or glued else _SPACE_PX
            if x + space + size.width() > place.right() + 1 and x > place.x() and not glued:
                x, y, height, space = place.x(), y + height + 1, 0, 0
            if move:
                item.setGeometry(QRect(QPoint(x + space, y), size))
            x += space + size.width()
            height = max(height, size.height())
        return y + height - place.y()


class ScrolledColumn(QVBoxLayout):
    """A column inside of what scrolls. When something in it appears it is laid out before the scroll area gives it the
    room: nothing is squeezed meanwhile, which would make all of it jump."""

    def setGeometry(self, place: QRect) -> None:
        """Give every part its height."""
        super().setGeometry(place.adjusted(0, 0, 0, max(0, self.heightForWidth(place.width()) - place.height())))
