"""A line over a borderless game: a window of our own that takes no input and no focus (X11)."""

from __future__ import annotations

from PyQt6.QtCore import QRect, Qt, QTimer
from PyQt6.QtGui import QColor, QCursor, QFontMetrics, QGuiApplication, QPainter, QPaintEvent
from PyQt6.QtWidgets import QWidget

from nakrel.core.model.cues import Cue
from nakrel.ui import theme
from nakrel.words import tr

__all__ = ["Overlay"]

_SHOWN_MS = 1_600
_HEIGHT, _PAD, _FROM_TOP, _BAR = 34, 16, 48, 5
_PAPER, _INK = QColor(246, 244, 238, 236), QColor("#212a31")
_BARS = {
    Cue.LIVE: "#2f5a8f",
    Cue.RECORDING: "#b3261e",
    Cue.RECORDED: "#2f5a8f",
    Cue.ON: "#925c0d",
    Cue.OFF: "#6d6a62",
    Cue.STOP: "#b3261e",
    Cue.FAULT: "#b3261e",
}


class Overlay(QWidget):
    """The newest line, for a moment, at the head of the screen that the pointer is on."""

    def __init__(self) -> None:
        kind = Qt.WindowType
        super().__init__(
            None,
            kind.Tool
            | kind.FramelessWindowHint
            | kind.WindowStaysOnTopHint
            | kind.WindowTransparentForInput
            | kind.WindowDoesNotAcceptFocus
            | kind.BypassWindowManagerHint,
        )
        self.setWindowTitle(tr("Nakrel says"))
        self.setAttribute(Qt.WidgetAttribute.WA_TranslucentBackground)
        self.setAttribute(Qt.WidgetAttribute.WA_ShowWithoutActivating)
        self.text, self._bar = "", QColor(_INK)
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self.hide)

    def say(self, cue: str, text: str) -> None:
        """Show a line in place of the one before."""
        self.text, self._bar = text, QColor(_BARS.get(Cue(cue), "#212a31"))
        # The screen's own metrics, which may be a little wider than those of no device.
        width = QFontMetrics(theme.font(bold=True), self).horizontalAdvance(text) + 2 * _PAD + _BAR + 2
        screen = QGuiApplication.screenAt(QCursor.pos()) or QGuiApplication.primaryScreen()
        area = screen.geometry() if screen else QRect(0, 0, 1280, 800)
        width = min(width, area.width() - 2 * _PAD)
        self.setGeometry(area.center().x() - width // 2, area.top() + _FROM_TOP, width, _HEIGHT)
        self.show()
        self.raise_()
        self.update()
        self._timer.start(_SHOWN_MS)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Ink on a strip of paper, with a bar whose colour tells what it is about."""
        painter = QPainter(self)
        painter.fillRect(self.rect(), _PAPER)
        painter.fillRect(0, 0, _BAR, self.height(), self._bar)
        painter.setPen(_INK)
        painter.setFont(theme.font(bold=True))
        place = self.rect().adjusted(_BAR + _PAD, 0, -_PAD, 0)
        text = painter.fontMetrics().elidedText(self.text, Qt.TextElideMode.ElideRight, place.width())
        painter.drawText(place, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft, text)
