"""Coming to the front when Nakrel is started once more, and doing what that start asked for."""

from __future__ import annotations

import os
from collections.abc import Sequence
from pathlib import Path

from PyQt6.QtCore import QEvent, QObject, Qt, QTimer

from nakrel import protocol as m
from nakrel.ui.window.main_window import MainWindow

__all__ = ["ToFront"]

# As long as a window that is being put away may take to hear of it.
_SETTLED_MS = 300


class ToFront(QObject):
    """Shows the window, whatever it is hidden by."""

    def __init__(self, window: MainWindow) -> None:
        super().__init__(window)
        self.window = window
        window.store.window_asked.connect(self._asked)
        window.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Events are told only while there is a window to show them."""
        if event and event.type() in (QEvent.Type.Show, QEvent.Type.Hide) and not event.spontaneous():
            self.window.store.set_seen(event.type() == QEvent.Type.Show)
        return False

    def _asked(self, notice: m.WindowAsked) -> None:
        self.show(notice.token)
        self.do(notice.files, record=notice.record)

    def show(self, token: str = "") -> None:
        """Bring the window to the front. Under Wayland the token of who asks is what allows it (XDG Activation)."""
        if token:
            # Qt takes it from here when the window is activated.
            os.environ["XDG_ACTIVATION_TOKEN"] = token
        self._show()
        # A window that is asked for just as it is minimized may not know yet that it is, and would stay so.
        QTimer.singleShot(_SETTLED_MS, self._show_again)

    def _show_again(self) -> None:
        if self.window.isVisible() and self.window.isMinimized():
            self._show()

    def _show(self) -> None:
        window = self.window
        window.setWindowState(window.windowState() & ~Qt.WindowState.WindowMinimized)
        window.show()
        window.raise_()
        window.activateWindow()

    def do(self, files: Sequence[str], *, record: bool = False) -> None:
        """Look through profile files, and begin a recording."""
        for name in files:
            self.window.bundles.read(Path(name))
        if record and not self.window.macro.recording.recording:
            self.window.record()
