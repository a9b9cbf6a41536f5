"""Labels, hairlines, segmented choices and rows of a form, so that every place makes them alike."""

from __future__ import annotations

import contextlib
from collections.abc import Callable, Iterator, Sequence
from functools import partial

from PyQt6.QtCore import QEvent, Qt, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QKeyEvent, QPaintEvent, QWheelEvent
from PyQt6.QtWidgets import (
    QAbstractButton,
    QButtonGroup,
    QComboBox,
    QCompleter,
    QFrame,
    QHBoxLayout,
    QLabel,
    QLayout,
    QLineEdit,
    QPushButton,
    QSpinBox,
    QStyle,
    QStyleOptionComboBox,
    QStylePainter,
    QWidget,
)

from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import MAX_WAIT_US
from nakrel.core.model.units import parse_time, shown_ms
from nakrel.words import tr

__all__ = [
    "NamedCombo",
    "NumberField",
    "Segments",
    "TimeEdit",
    "button",
    "choice",
    "clear_layout",
    "form_row",
    "hairline",
    "label",
    "literal",
    "refilling",
    "restyle",
    "searchable",
    "style_anew",
]


def label(text: str = "", name: str = "", *, wrap: bool = False) -> QLabel:
    """A label; `name` picks its style (title, heading, soft, alarm, live)."""
    made = QLabel(text)
    made.setObjectName(name)
    made.setWordWrap(wrap)
    made.setTextFormat(Qt.TextFormat.PlainText)
    return made


def restyle(widget: QWidget, name: str) -> None:
    """Give a widget the style of this name."""
    if widget.objectName() != name:
        widget.setObjectName(name)
        style_anew(widget)


def style_anew(widget: QWidget) -> None:
    """Style a widget by what has changed of it; one that was never shown is styled when it is."""
    if widget.testAttribute(Qt.WidgetAttribute.WA_WState_Polished) and (style := widget.style()):
        style.unpolish(widget)
        style.polish(widget)


def hairline(vertical: bool = False) -> QFrame:
    """A line of one pixel."""
    made = QFrame()
    made.setObjectName("hairline")
    (made.setFixedWidth if vertical else made.setFixedHeight)(1)
    return made


def button(text: str, clicked: Callable[[], object], name: str = "", tip: str = "") -> QPushButton:
    """A push button; `name` picks its style (act, stop, link, tab)."""
    made = QPushButton(literal(text))
    made.setObjectName(name)
    made.setToolTip(tip)
    made.setAutoDefault(False)
    made.clicked.connect(lambda: clicked())
    return made


def literal(text: str) -> str:
    """A text with names in it, for buttons and menus: Qt takes an & for the mark of a shortcut, and leaves it out."""
    return text.replace("&", "&&")


def form_row(text: str, field: QWidget) -> QWidget:
    """A field with its name to the left."""
    row = QWidget()
    layout = QHBoxLayout(row)
    layout.setContentsMargins(0, 2, 0, 2)
    name = QLabel(text)
    name.setBuddy(field)
    field.setAccessibleName(text)
    layout.addWidget(name)
    layout.addStretch(1)
    layout.addWidget(field)
    return row


def clear_layout(layout: QLayout) -> None:
    """Take everything out of a layout and delete it."""
    for widget in _taken_out_of(layout):
        widget.hide()
        widget.deleteLater()


@contextlib.contextmanager
def refilling(layout: QLayout) -> Iterator[None]:
    """Take everything out of a layout, and have it filled within. The keyboard's focus stays: with what is called as
    what had it, else with what has its place. Qt would give it to some other part of the window."""
    owner = layout.parentWidget()
    window = owner.window() if owner else None
    focused = window.focusWidget() if window else None
    reached = _reached_by_tab(layout)
    place = reached.index(focused) if focused in reached else None
    old = _taken_out_of(layout)
    try:
        yield
        if focused and place is not None and (after := _reached_by_tab(layout)):
            there = after[min(place, len(after) - 1)]
            same = next((each for each in (there, *after) if _called(each) == _called(focused)), there)
            # The layout shows it with the next turn only, and what isn't shown takes no focus.
            same.show()
            same.setFocus()
    finally:
        for each in old:
            each.hide()
            each.deleteLater()


def _reached_by_tab(layout: QLayout) -> list[QWidget]:
    found: list[QWidget] = []
    for at in range(layout.count()):
        item = layout.itemAt(at)
        if item and (inner := item.layout()) is not None:
            found += _reached_by_tab(inner)
        elif item and (widget := item.widget()) is not None and not _is_put_away(widget):
            each = (widget, *widget.findChildren(QWidget))
            found += [one for one in each if one.focusPolicy() & Qt.FocusPolicy.TabFocus and not _is_put_away(one)]
    return found


def _is_put_away(widget: QWidget) -> bool:
    """Whether it was hidden, and not only hasn't been shown yet."""
    return widget.isHidden() and widget.testAttribute(Qt.WidgetAttribute.WA_WState_ExplicitShowHide)


def _taken_out_of(layout: QLayout) -> list[QWidget]:
    found = []
    while (item := layout.takeAt(0)) is not None:
        if (widget := item.widget()) is not None:
            found.append(widget)
        elif (inner := item.layout()) is not None:
            found += _taken_out_of(inner)
    return found


def _called(widget: QWidget) -> str:
    return widget.accessibleName() or (widget.text() if isinstance(widget, QAbstractButton) else "")


class NamedCombo(QComboBox):
    """A list whose name screen readers tell. Under Linux they take it from a label that belongs to the list, and not
    from its accessible name: where none can be seen there is one that can't."""

    _label: QLabel | None = None

    def __init__(self) -> None:
        super().__init__()
        # Qt would have the wheel bring the focus.
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def event(self, event: QEvent | None) -> bool:
        """It has got its place: the label stands beside it."""
        if event and event.type() in (QEvent.Type.ParentChange, QEvent.Type.Polish):
            if (field := self.lineEdit()) and not field.accessibleName():
                field.setAccessibleName(self.accessibleName())
            if (parent := self.parentWidget()) is not None and self.accessibleName():
                self._label = self._label or QLabel(self.accessibleName())
                self._label.setParent(parent)
                self._label.setBuddy(self)
                self._label.hide()
        return super().event(event)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Leave the wheel to what scrolls: who reads on with the pointer over a list is not choosing from it."""
        if event:
            event.ignore()


class NumberField(QSpinBox):
    """A whole number that is typed, or turned with the wheel where the field has the focus: anywhere else the wheel
    scrolls."""

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Turn it, or leave the wheel to what scrolls."""
        if self.hasFocus():
            super().wheelEvent(event)
        elif event:
            event.ignore()


class _Choice(NamedCombo):
    """Cuts a long text off with a sign; it is all there in the list."""

    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self.isEditable() or (style := self.style()) is None:
            super().paintEvent(event)
            return
        option = QStyleOptionComboBox()
        self.initStyleOption(option)
        whole, part = QStyle.ComplexControl.CC_ComboBox, QStyle.SubControl.SC_ComboBoxEditField
        # The style leaves a little air at both ends.
        room = style.subControlRect(whole, option, part, self).width() - 4
        option.currentText = self.fontMetrics().elidedText(option.currentText, Qt.TextElideMode.ElideRight, room)
        painter = QStylePainter(self)
        painter.drawComplexControl(whole, option)
        painter.drawControl(QStyle.ControlElement.CE_ComboBoxLabel, option)


def choice(name: str = "") -> QComboBox:
    """A choice from a list that takes the room there is instead of the room its longest entry would like."""
    made = _Choice()
    made.setAccessibleName(name)
    made.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
    made.setMinimumContentsLength(10)
    return made


def searchable(name: str) -> QComboBox:
    """A choice that is found by any part of its text."""
    made = choice(name)
    made.setEditable(True)
    made.setInsertPolicy(QComboBox.InsertPolicy.NoInsert)
    if completer := made.completer():
        completer.setCompletionMode(QCompleter.CompletionMode.PopupCompletion)
        completer.setFilterMode(Qt.MatchFlag.MatchContains)
        completer.setCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
    return made


def tab_lands_on_chosen(group: QButtonGroup) -> None:
    """Of a group of which one is chosen, Tab lands on that one; the arrows go to the others."""

    def show(button: QAbstractButton, on: bool) -> None:
        button.setFocusPolicy(Qt.FocusPolicy.StrongFocus if on else Qt.FocusPolicy.ClickFocus)

    for each in group.buttons():
        show(each, each.isChecked())
    group.buttonToggled.connect(show)


class Segments(QWidget):
    """One choice of a few, side by side."""

    chosen = pyqtSignal(str)

    def __init__(self, options: Sequence[tuple[str, str]], name: str) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self._group = QButtonGroup(self)
        self.buttons: dict[str, QPushButton] = {}
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        for value, text in options:
            made = button(text, partial(self.chosen.emit, value), "segment")
            made.setCheckable(True)
            made.setAccessibleName(f"{name}: {text}")
            self._group.addButton(made)
            self.buttons[value] = made
            layout.addWidget(made, 1)
        tab_lands_on_chosen(self._group)

    @property
    def value(self) -> str:
        """The chosen one, '' for none."""
        return next((value for value, made in self.buttons.items() if made.isChecked()), "")

    def set_value(self, value: str) -> None:
        """Show which is chosen."""
        self.buttons[value].setChecked(True)


class TimeEdit(QLineEdit):
    """A field for a time: takes 25, 25ms, 0.4s, 3f@60 and 40/s, and shows milliseconds.

    `changed` gives microseconds. What can't be read stays in the field, marked, with the reason as its tip.
    """

    changed = pyqtSignal(int)

    def __init__(self, micros: int = 0, most_us: int = MAX_WAIT_US) -> None:
        super().__init__()
        self._most_us = most_us
        self._micros = micros
        self._marked: str | None = None
        self.setFixedWidth(96)
        self.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.set_value(micros)
        self.editingFinished.connect(self._commit)

    @property
    def micros(self) -> int:
        """The time shown, in microseconds; the last good one while something unreadable is typed."""
        return self._micros

    def read(self) -> int:
        """The time that stands in the field, in microseconds. Raises `DataError` for what is none."""
        return parse_time(self.text(), most_us=self._most_us) if self.isModified() else self._micros

    def set_value(self, micros: int) -> None:
        """Show this time."""
        self._micros = micros
        self.setText(tr("{time} ms").format(time=shown_ms(micros)))
        self._mark("")

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        """Select all, so that typing replaces."""
        super().focusInEvent(event)
        self.selectAll()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Esc brings the time back that was there."""
        if event and event.key() == Qt.Key.Key_Escape and self.isModified():
            self.set_value(self._micros)
        else:
            super().keyPressEvent(event)

    def _commit(self) -> None:
        if not self.isModified():
            return
        try:
            micros = self.read()
        except DataError as error:
            self._mark(str(error))
            return
        changed = micros != self._micros
        self.set_value(micros)
        if changed:
            self.changed.emit(micros)

    def _mark(self, reason: str) -> None:
        if self._marked == reason:
            # Styling anew takes its time.
            return
        self._marked = reason
        self.setToolTip(reason or tr("A time: 25, 25ms, 0.4s, 3f@60 (frames) or 40/s"))
        self.setProperty("wrong", bool(reason))
        style_anew(self)
