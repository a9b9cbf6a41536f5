"""Lines and buttons that take the room there is, and tell all of their text as a tip where that isn't enough."""

from __future__ import annotations

import math
from collections.abc import Callable

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QFontMetricsF, QResizeEvent
from PyQt6.QtWidgets import QLabel, QPushButton, QSizePolicy, QStyle, QStyleOptionButton

from nakrel.ui.widgets.basics import literal

__all__ = ["Elided", "ElidedButton"]

# Less than this is no text any more.
_LEAST_PX, _LEAST_BUTTON_PX = 20, 60


class Elided(QLabel):
    """A label of one line; `text` is what is seen, `full_text` all of it. As `wide` as its text if it can be, else as
    the layout has it."""

    def __init__(self, name: str = "", *, wide: bool = False) -> None:
        super().__init__()
        self.setObjectName(name)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self._wide = wide
        self.setSizePolicy(
            QSizePolicy.Policy.Preferred if wide else QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed
        )
        self.full_text = ""

    def set_text(self, text: str) -> None:
        """Show this."""
        if text != self.full_text:
            self.full_text = text
            self.setAccessibleName(text)
            self.updateGeometry()
            self._fit()

    def sizeHint(self) -> QSize:
        """Room for all of the text."""
        hint = super().sizeHint()
        if self._wide:
            self.ensurePolished()
            hint.setWidth(self.fontMetrics().horizontalAdvance(self._one_line()) + 4)
        return hint

    def minimumSizeHint(self) -> QSize:
        """Any width will do."""
        return QSize(_LEAST_PX, super().minimumSizeHint().height())

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Show what fits."""
        super().resizeEvent(event)
        self._fit()

    def _one_line(self) -> str:
        return " ".join(self.full_text.split("\n"))

    def _fit(self) -> None:
        one_line = self._one_line()
        shown = self.fontMetrics().elidedText(one_line, Qt.TextElideMode.ElideRight, max(0, self.width() - 2))
        if shown != self.text():
            self.setText(shown)
        self.setToolTip(self.full_text if shown != one_line else "")


class ElidedButton(QPushButton):
    """A push button whose text is cut where there is no room for it, at its right or in the middle, though not its
    `end`; `name` picks its style."""

    CUT = Qt.TextElideMode.ElideRight

    def __init__(self, text: str, clicked: Callable[[], object], name: str = "", tip: str = "", end: str = "") -> None:
        super().__init__()
        self._tip, self._end = tip, end
        self.setObjectName(name)
        self.setAutoDefault(False)
        self.clicked.connect(lambda: clicked())
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        self.full_text = ""
        self.set_text(text)

    def set_text(self, text: str, end: str | None = None) -> None:
        """Show this, with another end where one is given."""
        self._end = self._end if end is None else end
        self.full_text = text
        self.setAccessibleName(text + self._end)
        self.updateGeometry()
        self._fit()

    def sizeHint(self) -> QSize:
        """Room for all of the text."""
        self.ensurePolished()
        return QSize(self._around_px() + self._width(self.full_text + self._end), super().sizeHint().height())

    def minimumSizeHint(self) -> QSize:
        """Room for the beginning of it."""
        hint = self.sizeHint()
        return QSize(min(_LEAST_BUTTON_PX, hint.width()), hint.height())

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Show what fits."""
        super().resizeEvent(event)
        self._fit()

    def _width(self, text: str) -> int:
        # Letters don't end at whole pixels, and cutting looks at the parts.
        return math.ceil(QFontMetricsF(self.font()).horizontalAdvance(text)) + 1

    def _around_px(self) -> int:
        """What there is beside the text: the style's frame, asked for with a text that needs no least width, and the
        icon with its gap (QPushButton::sizeHint)."""
        option, text = QStyleOptionButton(), QSize(1_000, self.fontMetrics().height())
        self.initStyleOption(option)
        style = self.style()
        assert style
        whole = style.sizeFromContents(QStyle.ContentsType.CT_PushButton, option, text, self)
        icon = 0 if self.icon().isNull() else self.iconSize().width() + 4
        return whole.width() - text.width() + icon

    def _fit(self) -> None:
        room = max(0, self.width() - self._around_px() - self._width(self._end))
        shown = self.fontMetrics().elidedText(self.full_text, self.CUT, room) + self._end
        if literal(shown) != self.text():
            self.setText(literal(shown))
        self.setToolTip(self.full_text if shown != self.full_text + self._end else self._tip)
