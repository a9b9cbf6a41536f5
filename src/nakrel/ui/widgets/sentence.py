"""A sentence whose values are clicked, or reached by Tab, and edited where they stand."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from functools import partial
from typing import Any

from PyQt6.QtCore import QEvent, QObject, QPoint, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QLabel, QLineEdit, QMenu, QPushButton, QSizePolicy, QStackedLayout, QWidget

from nakrel.core.model.errors import DataError
from nakrel.ui.widgets.basics import clear_layout, style_anew
from nakrel.ui.widgets.flow import FlowLayout

__all__ = ["Figure", "OneOf", "Sentence", "value_button"]

_LINE_PX = 22


def value_button(name: str) -> QPushButton:
    """A value that something else than typing or a list chooses."""
    made = QPushButton()
    made.setObjectName("value")
    made.setAutoDefault(False)
    made.setCursor(Qt.CursorShape.PointingHandCursor)
    made.setAccessibleName(name)
    made.setFixedHeight(_LINE_PX)
    made.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)
    return made


class OneOf(QPushButton):
    """A value that is one of a few; clicking lists them. `chosen` gives the value."""

    chosen = pyqtSignal(object)

    def __init__(self, name: str, options: Sequence[tuple[Any, str]]) -> None:
        super().__init__()
        self._name, self._options = name, options
        self.setObjectName("value")
        self.setAutoDefault(False)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setFixedHeight(_LINE_PX)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)
        self.clicked.connect(self._list)
        self.menu_shown: QMenu | None = None

    def set_options(self, options: Sequence[tuple[Any, str]]) -> None:
        """These are what can be chosen from now on."""
        self._options = options

    def set_value(self, value: object) -> None:
        """Show this one."""
        text = next(text for each, text in self._options if each == value)
        if text != self.text():
            self.setText(text)
            self.setAccessibleName(f"{self._name}: {text}")
            self.updateGeometry()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Return lists them as well, and Up and Down go through them."""
        if event and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._list()
        elif event and event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            here = [text for _, text in self._options].index(self.text())
            there = here + (1 if event.key() == Qt.Key.Key_Down else -1)
            if 0 <= there < len(self._options):
                self.chosen.emit(self._options[there][0])
        else:
            super().keyPressEvent(event)

    def _list(self) -> None:
        menu = QMenu(self)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        for value, text in self._options:
            action = menu.addAction(text, partial(self.chosen.emit, value))
            if action and text == self.text():
                menu.setActiveAction(action)
        self.menu_shown = menu
        menu.popup(self.mapToGlobal(QPoint(0, self.height())))


class Figure(QWidget):
    """A value that is typed. `read` turns the text into it or raises `DataError`, `write` is the way back; `changed`
    gives a new value."""

    changed = pyqtSignal(object)

    def __init__(self, name: str, read: Callable[[str], Any], write: Callable[[Any], str]) -> None:
        super().__init__()
        self._name, self._read, self._write = name, read, write
        self._now: Any = None
        self.shown = value_button(name)
        self.line = QLineEdit()
        self.line.setAccessibleName(name)
        self.line.setFixedSize(84, _LINE_PX)
        self._stack = QStackedLayout(self)
        self._stack.addWidget(self.shown)
        self._stack.addWidget(self.line)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)
        self.setFocusProxy(self.shown)
        self.shown.clicked.connect(self.edit)
        self.line.editingFinished.connect(self._take)
        for each in (self.shown, self.line):
            each.installEventFilter(self)

    def set_value(self, value: object) -> None:
        """Show this value, unless another is being typed."""
        self._now = value
        text = self._write(value)
        if text != self.shown.text():
            self.shown.setText(text)
            self.shown.setAccessibleName(f"{self._name}: {text}")
        if self._stack.currentIndex() == 0:
            self._fit()

    def edit(self) -> None:
        """Type it."""
        self.line.setText(self._write(self._now))
        self.line.setModified(False)
        self._mark("")
        self._stack.setCurrentIndex(1)
        self._fit()
        self.line.setFocus()
        self.line.selectAll()

    @property
    def editing(self) -> bool:
        """Whether it is being typed."""
        return self._stack.currentIndex() == 1

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Return or a figure begins to type it; Esc leaves the value as it was."""
        if not isinstance(event, QKeyEvent) or event.type() != QEvent.Type.KeyPress:
            return False
        if watched is self.line and event.key() == Qt.Key.Key_Escape and self.editing:
            self._close()
            self.shown.setFocus()
            return True
        if watched is self.shown and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.edit()
            return True
        if watched is self.shown and event.text().isdecimal():
            self.edit()
            self.line.setText(event.text())
            self.line.setModified(True)
            return True
        return False

    def _take(self) -> None:
        if not self.editing:
            return
        text, had_focus = self.line.text().strip(), self.line.hasFocus()
        try:
            value = self._read(text) if self.line.isModified() else self._now
        except DataError as error:
            self._mark(str(error))
            return
        self._close()
        if had_focus:
            self.shown.setFocus()
        if value != self._now:
            self.changed.emit(value)

    def _mark(self, reason: str) -> None:
        self.line.setToolTip(reason)
        self.line.setProperty("wrong", bool(reason))
        style_anew(self.line)

    def _close(self) -> None:
        self._stack.setCurrentIndex(0)
        self._fit()

    def _fit(self) -> None:
        shown = self._stack.currentWidget()
        assert shown
        self.setFixedSize(shown.sizeHint().width() if shown is self.shown else self.line.width(), _LINE_PX)


class Sentence(QWidget):
    """Words and values in a row."""

    def __init__(self) -> None:
        super().__init__()
        self._layout = FlowLayout(self)
        self._said: object = None
        policy = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Preferred)
        policy.setHeightForWidth(True)
        self.setSizePolicy(policy)

    def may_say(self, *values: QWidget) -> None:
        """These values belong to it, whether they stand in the sentence or not: a widget without a parent would be
        ended by whatever thread collects it."""
        for value in values:
            value.setParent(self)
            value.hide()

    def say(self, *parts: str | QWidget) -> None:
        """Say this: texts, and values, of which each may stand in many sentences."""
        if parts == self._said:
            return
        self._said = parts
        for each in self.findChildren(QWidget, options=Qt.FindChildOption.FindDirectChildrenOnly):
            if isinstance(each, QPushButton | Figure):
                self._layout.removeWidget(each)
                each.hide()
        clear_layout(self._layout)
        for part in parts:
            if isinstance(part, str):
                self._words(part)
            else:
                self._layout.add(part)
                part.show()
        values = [part for part in parts if not isinstance(part, str)]
        for before, after in zip(values, values[1:], strict=False):
            QWidget.setTabOrder(before, after)
        self.updateGeometry()

    def fill(self, text: str, **values: QWidget) -> None:
        """Say this text, with values where their names stand in braces: each language has its own order."""
        parts = re.split(r"\{(\w+)\}", text)
        self.say(*(values[part] if at % 2 else part for at, part in enumerate(parts)))

    def _words(self, text: str) -> None:
        for word in text.split():
            made = QLabel(word)
            made.setFixedHeight(_LINE_PX)
            self._layout.add(made, glued=word[0] in ",;.")
            made.show()
