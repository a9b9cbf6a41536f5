"""A drawer: what a button opens over the page, so that nothing beneath it moves."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QObject, QPoint, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QAbstractButton, QApplication, QFrame, QVBoxLayout, QWidget

__all__ = ["Drawer"]


class Drawer(QFrame):
    """Lies over `page` beneath the checkable button that opens it, as wide as the page, until the button is clicked
    again, Esc is pressed in it, or the button or the page goes."""

    opened = pyqtSignal(bool)

    def __init__(self, content: QWidget, opener: QAbstractButton, page: QWidget) -> None:
        super().__init__(page)
        self.setObjectName("drawer")
        self.content, self._opener, self._page = content, opener, page
        layout = QVBoxLayout(self)
        layout.setContentsMargins(10, 8, 10, 8)
        layout.addWidget(content)
        opener.setCheckable(True)
        opener.toggled.connect(self._toggled)
        page.installEventFilter(self)
        opener.installEventFilter(self)
        self.hide()

    def close_it(self) -> None:
        """Close it, and give the focus back to its button."""
        focus = QApplication.focusWidget()
        inside = focus is not None and self.isAncestorOf(focus)
        self._opener.setChecked(False)
        if inside:
            self._opener.setFocus()

    def place(self) -> None:
        """Lie beneath the button, or at the head of the page where the button isn't on it."""
        within = self._page.isAncestorOf(self._opener)
        below = self._opener.mapTo(self._page, QPoint(0, self._opener.height() + 2)).y() if within else 0
        width = self._page.width()
        layout = self.layout()
        wanted = layout.heightForWidth(width) if layout and layout.hasHeightForWidth() else self.sizeHint().height()
        self.setGeometry(
            0, below, width, min(max(wanted, self.minimumSizeHint().height()), self._page.height() - below)
        )
        self.raise_()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Esc closes it."""
        if event and event.key() == Qt.Key.Key_Escape:
            self.close_it()
        else:
            super().keyPressEvent(event)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Keep to its place, and go with its button."""
        if event is None:
            return False
        if watched is self._page and event.type() in (QEvent.Type.Resize, QEvent.Type.LayoutRequest):
            if self.isVisible():
                self.place()
        elif watched is self._opener and event.type() == QEvent.Type.Hide and self._opener.isHidden():
            self._opener.setChecked(False)
        return False

    def event(self, event: QEvent | None) -> bool:
        """What is in it has grown or shrunk."""
        if event is not None and event.type() == QEvent.Type.LayoutRequest and self.isVisible():
            self.place()
        return super().event(event)

    def _toggled(self, on: bool) -> None:
        if on:
            self.place()
            self.show()
            self.place()
        else:
            self.hide()
        self.opened.emit(on)
