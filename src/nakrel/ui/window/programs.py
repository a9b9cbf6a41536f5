"""The programs that the shown profile is linked with, in the line under its name."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from PyQt6.QtCore import QSize, Qt, pyqtSignal
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QHBoxLayout, QMenu, QSizePolicy, QWidget

from nakrel.core.model.profile import ProgramRule
from nakrel.core.model.programs import describe_rule
from nakrel.ui.widgets.basics import button, literal
from nakrel.ui.widgets.elided import ElidedButton
from nakrel.words import tr

__all__ = ["LinkedPrograms"]

# A name with less room than this isn't told from another.
_LEAST_PX = 120
# About what word of the others takes.
_MORE_PX = 70
_GAP_PX = 4


class _Program(ElidedButton):
    # What programs of one maker have in common stands at the beginning.
    CUT = Qt.TextElideMode.ElideMiddle


class LinkedPrograms(QWidget):
    """A button for each, which unlinks it: as many as there is room for, and a menu of the others."""

    unlink = pyqtSignal(int)

    def __init__(self, rules: Sequence[ProgramRule]) -> None:
        super().__init__()
        self._rules = [describe_rule(rule) for rule in rules]
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(_GAP_PX)
        self.buttons: list[ElidedButton] = []
        for number, rule in enumerate(self._rules):
            made = _Program(rule, partial(self.unlink.emit, number), "link", tr("Unlink this program"), "  ×")
            made.setAccessibleName(tr("Unlink {value}").format(value=rule))
            row.addWidget(made)
            self.buttons.append(made)
        self.more = button("", self._list, "link")
        row.addWidget(self.more)
        self._fit()

    def sizeHint(self) -> QSize:
        """Room for all of them."""
        hints = [each.sizeHint() for each in self.buttons]
        wanted = sum(hint.width() for hint in hints) + _GAP_PX * (len(hints) - 1)
        return QSize(wanted, max(hint.height() for hint in hints))

    def minimumSizeHint(self) -> QSize:
        """Room for one: for a short name, no more than it takes."""
        hint = self.sizeHint()
        return QSize(min(_LEAST_PX, hint.width()), hint.height())

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Show as many as fit."""
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        count = len(self.buttons)
        if self.width() < self.sizeHint().width():
            count = max(1, min(count, (self.width() - _MORE_PX) // _LEAST_PX))
        for number, each in enumerate(self.buttons):
            each.setVisible(number < count)
        others = self._rules[count:]
        self.more.setVisible(bool(others))
        self.more.setText(tr("and {value} more").format(value=len(others)))
        self.more.setToolTip("\n".join(others))

    def _list(self) -> None:
        menu = QMenu(self)
        for number, rule in enumerate(self._rules):
            if self.buttons[number].isHidden():
                menu.addAction(literal(tr("Unlink {value}").format(value=rule)), partial(self.unlink.emit, number))
        menu.popup(self.more.mapToGlobal(self.more.rect().bottomLeft()))
