"""Notices on the desktop (freedesktop.org, Desktop Notifications Specification 1.2)."""

from __future__ import annotations

import threading
from typing import Any

__all__ = ["Notices"]

_NAME, _PATH = "org.freedesktop.Notifications", "/org/freedesktop/Notifications"
_SHOWN_MS = 3_000
_LIMIT_S = 2.0
_LOW = 0


class Notices:
    """Each notice takes the place of the one before, so that they never pile up. For threads that may wait for the
    desktop's answer, several at once."""

    def __init__(self) -> None:
        self._number = 0
        self._lock = threading.Lock()

    def show(self, summary: str, body: str = "") -> bool:
        """Show it for a few seconds; False where this desktop shows none."""
        with self._lock:
            return self._show(summary, body)

    def _show(self, summary: str, body: str) -> bool:
        # Only who shows notices pays for the bus.
        from jeepney import DBusAddress, new_method_call
        from jeepney.io.blocking import open_dbus_connection

        hints = {"urgency": ("y", _LOW), "transient": ("b", True)}
        arguments: tuple[Any, ...] = ("Nakrel", self._number, "", summary, body, [], hints, _SHOWN_MS)
        server = DBusAddress(_PATH, bus_name=_NAME, interface=_NAME)
        try:
            connection = open_dbus_connection("SESSION")
            try:
                message = new_method_call(server, "Notify", "susssasa{sv}i", arguments)
                answer = connection.send_and_get_reply(message, timeout=_LIMIT_S)
            finally:
                connection.close()
        except Exception:
            # No bus, no notification server, or one that misbehaves: none of that matters to a game.
            return False
        if answer.header.message_type.name != "method_return":
            return False
        self._number = int(answer.body[0])
        return True
