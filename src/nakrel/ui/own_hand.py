"""One's own hand where the service doesn't see it: what reaches the window is told.

So it is where no real device is read, as in the demo, and under Wayland without the kernel's input: there the service
hears of presses in windows under Xwayland alone, and Nakrel's is none of them.
"""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QGuiApplication, QKeyEvent, QMouseEvent, QWheelEvent, QWindow

from nakrel import protocol as m
from nakrel.core.model.devices import OWN_WINDOW
from nakrel.ui.store import Store
from nakrel.ui.widgets.shield import shielded
from nakrel.window_events import button_of, key_of, notches_of, watch_instead

__all__ = ["OwnHand"]

_PRESSES = (QEvent.Type.MouseButtonPress, QEvent.Type.MouseButtonDblClick)


class OwnHand(QObject):
    """Tells the service what is meant for a recording or for choosing by a press, and of Stop everything's key,
    whatever that is meant for. Nothing else that is typed or clicked in the window gets out."""

    def __init__(self, store: Store, parent: QObject) -> None:
        super().__init__(parent)
        self._store = store
        # What it holds down.
        self._down: set[str] = set()
        # The window that has the keyboard, where it has to be watched.
        self._watched: QWindow | None = None
        store.status_changed.connect(self._look)
        store.gone.connect(self._down.clear)
        if isinstance(app := QGuiApplication.instance(), QGuiApplication):
            app.focusWindowChanged.connect(self._look)
            app.applicationStateChanged.connect(self._left)

    @property
    def needed(self) -> bool:
        """Whether the service doesn't see what a hand does in the window."""
        route = self._store.status.backend
        return route == "standin" or (route == "xwayland" and QGuiApplication.platformName() != "xcb")

    def press(self, control: str, value: int) -> None:
        """A control has gone down (1) or up (0), or a wheel has turned by `value` notches."""
        if not value:
            if control in self._down:
                self._down.discard(control)
                self._store.ask(m.PressStandIn(OWN_WINDOW, control, 0))
        elif self.needed and control not in self._down:
            if not control.startswith("WHEEL"):
                self._down.add(control)
            self._store.ask(m.PressStandIn(OWN_WINDOW, control, value))

    def let_go(self) -> None:
        """Let go all that is down: its releases may come elsewhere."""
        for control in list(self._down):
            self.press(control, 0)

    def _look(self) -> None:
        """Watch the window that has the keyboard, if that is needed."""
        window = QGuiApplication.focusWindow() if self.needed else None
        if window is self._watched:
            return
        before, self._watched = self._watched, window
        watch_instead(self, before, window)

    def _left(self, state: Qt.ApplicationState) -> None:
        if state is not Qt.ApplicationState.ApplicationActive:
            self.let_go()

    def _is_meant(self, key: str) -> bool:
        return shielded() or key == self._store.settings.stop_key

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Take notice of it as it comes to the window, before any part of that; it goes on in any case."""
        if isinstance(event, QKeyEvent):
            key = None if event.isAutoRepeat() else key_of(event)
            if key and event.type() == QEvent.Type.KeyRelease:
                self.press(key.code, 0)
            elif key and event.type() == QEvent.Type.KeyPress and self._is_meant(key.code):
                self.press(key.code, 1)
        elif isinstance(event, QMouseEvent):
            button = button_of(event)
            if button and event.type() == QEvent.Type.MouseButtonRelease:
                self.press(button, 0)
            elif button and event.type() in _PRESSES and shielded():
                self.press(button, 1)
        elif isinstance(event, QWheelEvent) and shielded():
            for control, notches in notches_of(event):
                self.press(control, notches)
        return False
