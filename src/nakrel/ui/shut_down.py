"""After the service was shut down: nothing starts it by itself, and whoever does is followed."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.words import tr

__all__ = ["ShutDown"]

# How often it is looked whether somebody has started the service.
_LOOK_MS = 2_000
_SAID = tr("The service was shut down: no macro plays, and nothing is saved.")


class Connects(Protocol):
    """What connects again."""

    def open(self, connection: ServiceConnection | None = None) -> None:
        """Go on with a connection, or one of its own making. Raises `ClientError`."""


class ShutDown(QObject):
    """`is_so` from the shutdown until the service runs again; `say` gives what to tell, the text of a button, and what
    that does; `ended` tells that the service is back."""

    say = pyqtSignal(str, str, object)
    ended = pyqtSignal()

    def __init__(self, store: Connects, parent: QObject, find: Callable[[], ServiceConnection] | None) -> None:
        super().__init__(parent)
        self._store, self._find = store, find
        self.is_so = False
        self._timer = QTimer(self)
        self._timer.setInterval(_LOOK_MS)
        self._timer.timeout.connect(self._look)

    def begin(self) -> None:
        """The service has ended, as somebody wanted."""
        self.tell()
        self._timer.start()

    def stop(self) -> None:
        """Look for a service no longer: the window closes."""
        self._timer.stop()

    def tell(self) -> None:
        """Say it, and how it starts again."""
        self.say.emit(_SAID, tr("Start"), self.start)

    def start(self) -> None:
        """Start the service."""
        self._go_on(None)

    def _look(self) -> None:
        """Go on with a service that somebody else has started."""
        if self._find is None:
            return
        try:
            found = self._find()
        except ClientError:
            return
        self._go_on(found)

    def _go_on(self, connection: ServiceConnection | None) -> None:
        if not self.is_so:
            return
        try:
            self._store.open(connection)
        except ClientError:
            self.tell()
            return
        self.is_so = False
        self._timer.stop()
        self.ended.emit()
