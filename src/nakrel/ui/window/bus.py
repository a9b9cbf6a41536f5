"""Nakrel on the session bus (Desktop Entry Specification 1.5, D-Bus Activation): menus, file managers and the desktop
entry's actions reach the window that is open, or start it."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QUrl, pyqtClassInfo, pyqtSlot
from PyQt6.QtDBus import QDBusAbstractAdaptor, QDBusConnection, QDBusMessage
from PyQt6.QtWidgets import QApplication

from nakrel import protocol as m
from nakrel.desktop.names import APP_ID, BUS_PATH
from nakrel.ui.window.to_front import ToFront

__all__ = ["Bus"]

_BUS = "org.freedesktop.DBus"
_FINISH_MS = 1_000


class Bus:
    """`is_there` where the session has a bus and nobody else has the name."""

    def __init__(self, front: ToFront) -> None:
        self._adaptor = _Application(front)
        bus = QDBusConnection.sessionBus()
        self.is_there = bus.isConnected() and bus.registerObject(BUS_PATH, front) and bus.registerService(APP_ID)

    def finish(self) -> None:
        """Wait until what was answered last has left: it does so on another thread, which ends with the process."""
        if self.is_there:
            question = QDBusMessage.createMethodCall(_BUS, "/org/freedesktop/DBus", _BUS, "GetId")
            QDBusConnection.sessionBus().call(question, timeout=_FINISH_MS)


@pyqtClassInfo("D-Bus Interface", "org.freedesktop.Application")  # type: ignore[func-returns-value]
class _Application(QDBusAbstractAdaptor):  # type: ignore[misc]
    """The interface that the specification gives programs."""

    def __init__(self, front: ToFront) -> None:
        super().__init__(front)
        self._front = front
        self._store = front.window.store

    @pyqtSlot("QVariantMap")
    def Activate(self, platform: dict[str, object]) -> None:  # noqa: N802 - the specification's name
        """Show the window."""
        self._front.show(_token(platform))

    @pyqtSlot("QStringList", "QVariantMap")
    def Open(self, addresses: Sequence[str], platform: dict[str, object]) -> None:  # noqa: N802
        """Look through files."""
        self._front.show(_token(platform))
        self._front.do([QUrl(each).toLocalFile() for each in addresses])

    @pyqtSlot(str, "QVariantList", "QVariantMap")
    def ActivateAction(  # noqa: N802
        self, name: str, arguments: Sequence[object], platform: dict[str, object]
    ) -> None:
        """Do one of the desktop entry's actions."""
        if name == "record":
            self._front.show(_token(platform))
            self._front.do((), record=True)
            return
        if name == "stop-everything":
            self._store.ask(m.Stop())
        elif name == "load-with-games":
            self._store.pin("")
        elif name == "no-loading":
            self._store.pin(self._store.status.live)
        if not self._front.window.isVisible() and (app := QApplication.instance()):
            # Started for this alone.
            app.quit()


def _token(platform: dict[str, object]) -> str:
    return str(platform.get("activation-token") or platform.get("desktop-startup-id") or "")
