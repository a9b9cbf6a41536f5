"""Choosing a control by pressing it."""

from __future__ import annotations

import time

from PyQt6.QtCore import QEvent, QObject, QTimer, pyqtSignal
from PyQt6.QtGui import QCursor
from PyQt6.QtWidgets import QApplication, QHBoxLayout, QPushButton, QWidget

from nakrel import protocol as m
from nakrel.core.model.controls import CONTROLS
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import button, label

__all__ = ["Capture"]

LIMIT_S = 15
# The cancel button is reached by the mouse, so a left click on it is not the answer.
_SWALLOWED = {
    QEvent.Type.KeyPress,
    QEvent.Type.KeyRelease,
    QEvent.Type.ShortcutOverride,
    QEvent.Type.MouseButtonPress,
    QEvent.Type.MouseButtonRelease,
    QEvent.Type.MouseButtonDblClick,
    QEvent.Type.Wheel,
    QEvent.Type.ContextMenu,
}


class Capture(QWidget):
    """Shows "press the key or button", takes the next control that is pressed on any device, and gives it out.

    Attachments rest meanwhile. Cancel ends it by mouse, and so does waiting too long.
    """

    captured = pyqtSignal(str)
    ended = pyqtSignal()

    def __init__(self, store: Store, text: str = "Press the key or button…") -> None:
        super().__init__()
        self._store = store
        self._armed = False
        self._left = LIMIT_S
        self._since_us = 0
        self._timer = QTimer(self)
        self._timer.setInterval(1000)
        self._timer.timeout.connect(self._second)
        self._text = text
        self._label = label(text, "live", wrap=True)
        self.cancel_button: QPushButton = button("Cancel", self.cancel)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 4, 0, 4)
        layout.addWidget(self._label, 1)
        layout.addWidget(self.cancel_button)
        self.hide()

    @property
    def armed(self) -> bool:
        """Whether it waits for a press."""
        return self._armed

    def arm(self) -> None:
        """Wait for a press from now on; until then nothing else in the window takes keys or clicks."""
        if self._armed:
            return
        self._armed, self._left = True, LIMIT_S
        self._since_us = time.monotonic_ns() // 1_000
        self._store.seen.connect(self._seen)
        self._store.ask(m.Listen(LIMIT_S))
        if app := QApplication.instance():
            app.installEventFilter(self)
        self._second()
        self._timer.start()
        self.show()

    def cancel(self) -> None:
        """Wait no longer."""
        if self._armed:
            self._armed = False
            self._timer.stop()
            self._store.seen.disconnect(self._seen)
            self._store.ask(m.Listen(0))
            # The press itself is still on its way through Qt's queue; it isn't meant for the window.
            QTimer.singleShot(150, self._let_go)
            self.hide()
            self.ended.emit()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Keep the press from the window, besides on Cancel."""
        if event is None or event.type() not in _SWALLOWED or watched is self.cancel_button:
            return False
        if not isinstance(watched, QObject) or not watched.isWidgetType():
            return False
        # An accepted override makes a key a plain key press, which then ends here and not in a shortcut.
        event.accept()
        return True

    def _let_go(self) -> None:
        if not self._armed and (app := QApplication.instance()):
            app.removeEventFilter(self)

    def _second(self) -> None:
        self._label.setText(f"{self._text} {self._left} s")
        self._left -= 1
        if self._left < 0:
            self.cancel()

    def _seen(self, notice: m.Seen) -> None:
        for event in notice.events:
            # Notices come gathered: the click or key that armed it may arrive only now.
            if event.at_us <= self._since_us:
                continue
            if self._armed and event.by == "in" and event.value and event.control in CONTROLS:
                if event.control == "BTN_LEFT" and self._on_cancel():
                    continue
                self.cancel()
                self.captured.emit(event.control)

    def _on_cancel(self) -> bool:
        spot = self.cancel_button.mapFromGlobal(QCursor.pos())
        return self.cancel_button.isVisible() and self.cancel_button.rect().contains(spot)
