"""Room for all of a window where a window manager that tiles makes it smaller than it can be."""

from __future__ import annotations

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QScrollArea, QWidget

__all__ = ["Room"]


class Room(QScrollArea):
    """Gives `whole` all of itself, and where that is less than `least`, so much, to be scrolled."""

    def __init__(self, whole: QWidget, least: QSize) -> None:
        super().__init__()
        self.setFrameShape(QScrollArea.Shape.NoFrame)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setWidgetResizable(True)
        holder = _Holder(whole)
        holder.setMinimumSize(least)
        self.setWidget(holder)


class _Holder(QWidget):
    """It has no layout: with one the area would ask how high the texts in it would like to be at their width."""

    def __init__(self, whole: QWidget) -> None:
        super().__init__()
        self._whole = whole
        whole.setParent(self)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """All of it is the other's."""
        self._whole.setGeometry(self.rect())
