"""Notices on the desktop (freedesktop.org, Desktop Notifications Specification 1.2)."""

from __future__ import annotations

import contextlib
import queue
import socket
import threading
from collections.abc import Callable, Sequence
from typing import Any

from nakrel.words import tr

__all__ = ["Notices"]

_NAME, _PATH = "org.freedesktop.Notifications", "/org/freedesktop/Notifications"
_SHOWN_MS = 3_000
_LIMIT_S = 2.0
_LOW = 0


class Notices:
    """Each notice takes the place of the one before, so that they never pile up. For threads that may wait for the
    desktop's answer, several at once.

    `icon` is a name or an address of a file, `entry` the name of the desktop entry. `pressed` gets the key of the
    button of a notice that somebody pressed, on a thread of its own.
    """

    def __init__(self, icon: str = "", entry: str = "", pressed: Callable[[str], object] = lambda key: None) -> None:
        self._icon, self._entry, self._pressed = icon, entry, pressed
        self._number = 0
        self._lock = threading.Lock()
        # The connection is kept: desktops tell what is pressed only to whom the notice came from.
        self._connection: Any = None
        self._answers: queue.Queue[Any] = queue.Queue()

    def show(self, summary: str, body: str = "", buttons: Sequence[tuple[str, str]] = ()) -> bool:
        """Show it for a few seconds, with buttons of a key and a text each; False where this desktop shows none."""
        with self._lock:
            for _ in range(2):
                try:
                    return self._show(summary, body, buttons)
                except Exception:
                    # No bus, no notification server, or one that misbehaves: none of that matters to a game. The bus
                    # may have been started anew, so it is tried once more.
                    if not self._close():
                        return False
            return False

    def close(self) -> None:
        """Leave the bus."""
        with self._lock:
            self._close()

    def _close(self) -> bool:
        """Whether there was a connection to close."""
        connection, self._connection = self._connection, None
        if connection is None:
            return False
        with contextlib.suppress(Exception):
            # Its thread ends by it.
            connection.interrupt()
            connection.sock.shutdown(socket.SHUT_RDWR)
        self._number = 0
        return True

    def _show(self, summary: str, body: str, buttons: Sequence[tuple[str, str]]) -> bool:
        # Only who shows notices pays for the bus.
        from jeepney import DBusAddress, new_method_call

        if self._connection is None:
            self._open()
        hints: dict[str, tuple[str, Any]] = {"urgency": ("y", _LOW), "transient": ("b", True)}
        if self._entry:
            hints["desktop-entry"] = ("s", self._entry)
        actions = [part for button in buttons for part in button]
        arguments: tuple[Any, ...] = ("Nakrel", self._number, self._icon, summary, body, actions, hints, _SHOWN_MS)
        server = DBusAddress(_PATH, bus_name=_NAME, interface=_NAME)
        answer = self._ask(new_method_call(server, "Notify", "susssasa{sv}i", arguments))
        if answer.header.message_type.name != "method_return":
            return False
        self._number = int(answer.body[0])
        return True

    def _open(self) -> None:
        from jeepney import MatchRule
        from jeepney.bus_messages import message_bus
        from jeepney.io.threading import open_dbus_connection

        self._connection = connection = open_dbus_connection("SESSION")
        self._answers = answers = queue.Queue[Any]()
        threading.Thread(target=self._receive, args=(connection, answers), name="notices", daemon=True).start()
        self._ask(message_bus.AddMatch(MatchRule(type="signal", interface=_NAME, member="ActionInvoked", path=_PATH)))

    def _ask(self, message: Any) -> Any:
        """The answer to a call. Raises `OSError` where none comes."""
        from jeepney import HeaderFields

        serial = next(self._connection.outgoing_serial)
        self._connection.send(message, serial=serial)
        while True:
            try:
                answer = self._answers.get(timeout=_LIMIT_S)
            except queue.Empty:
                raise TimeoutError(tr("the desktop doesn't answer")) from None
            if answer is None:
                raise ConnectionError(tr("the bus has ended"))
            # One that came too late for an earlier call is passed over.
            if answer.header.fields.get(HeaderFields.reply_serial) == serial:
                return answer

    def _receive(self, connection: Any, answers: queue.Queue[Any]) -> None:
        """Hand out what comes in, until the connection ends."""
        from jeepney import HeaderFields

        try:
            while True:
                message = connection.receive()
                if message.header.fields.get(HeaderFields.member) == "ActionInvoked":
                    number, key = message.body
                    if number == self._number:
                        self._pressed(key)
                elif HeaderFields.reply_serial in message.header.fields:
                    answers.put(message)
        except Exception:
            answers.put(None)
            with contextlib.suppress(Exception):
                connection.close()
