"""Stand-ins for what desktops tell on a bus: logind (names and types as in org.freedesktop.login1(5)), a screen locker,
and Plasma's keyboard layouts and windows."""

from __future__ import annotations

import json
import os
import re
import socket
import threading
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from jeepney import DBusAddress, HeaderFields, MessageType, new_error, new_method_call, new_method_return, new_signal
from jeepney.bus_messages import message_bus
from jeepney.io.blocking import open_dbus_connection

__all__ = ["KWin", "Locker", "Login", "Plasma"]

_NAME, _ROOT = "org.freedesktop.login1", "/org/freedesktop/login1"
_PROPERTIES = "org.freedesktop.DBus.Properties"
_TYPES = {"Type": "s", "LockedHint": "b", "Active": "b", "Display": "(so)"}


class Login:
    """logind with sessions by id: each of a `Type`, and whether it is the one at the seat. `display` is the one that it
    takes for the user's."""

    def __init__(self, bus: str, sessions: dict[str, str], display: str = "") -> None:
        self.sessions: dict[str, dict[str, Any]] = {
            self.path(key): {"Type": kind, "LockedHint": False, "Active": True} for key, kind in sessions.items()
        }
        self._display = (display, self.path(display)) if display else ("", "/")
        self._bus = open_dbus_connection(bus)
        self._bus.send_and_get_reply(message_bus.RequestName(_NAME))
        threading.Thread(target=self._serve, daemon=True).start()

    @staticmethod
    def path(key: str) -> str:
        """Where the session is, as logind writes it."""
        return f"{_ROOT}/session/_3{key}"

    def _serve(self) -> None:
        try:
            while True:
                asked = self._bus.receive()
                if asked.header.message_type is MessageType.method_call:
                    self._bus.send(self._answer(asked))
        except (OSError, ValueError):
            # The bus has ended, or it was told to leave.
            self._bus.close()

    def _answer(self, asked: Any) -> Any:
        fields = asked.header.fields
        match fields[HeaderFields.member]:
            case "GetSession" if self.path(asked.body[0]) in self.sessions:
                return new_method_return(asked, "o", (self.path(asked.body[0]),))
            case "GetUser" if asked.body[0] == os.getuid():
                return new_method_return(asked, "o", (f"{_ROOT}/user/_30",))
            case "Get":
                _, of = asked.body
                known = self.sessions.get(fields[HeaderFields.path], {"Display": self._display})
                return new_method_return(asked, "v", ((_TYPES[of], known[of]),))
        return new_error(asked, f"{_NAME}.NoSuchSession", "s", ("No session known",))

    def tell(self, key: str, **now: bool) -> None:
        """The session's properties change."""
        self.sessions[self.path(key)] |= now
        changed = {name: ("b", value) for name, value in now.items()}
        where = DBusAddress(self.path(key), interface=_PROPERTIES)
        self._bus.send(new_signal(where, "PropertiesChanged", "sa{sv}as", (f"{_NAME}.Session", changed, [])))

    def sleep(self, begins: bool) -> None:
        """The computer goes to sleep, or is awake again."""
        self._bus.send(new_signal(DBusAddress(_ROOT, interface=f"{_NAME}.Manager"), "PrepareForSleep", "b", (begins,)))


class Locker:
    """A screen locker of a desktop, by the name that it has on the bus."""

    def __init__(self, bus: str, name: str, on: bool = False) -> None:
        self._bus = open_dbus_connection(bus)
        self._bus.send_and_get_reply(message_bus.RequestName(name))
        self._where = DBusAddress("/" + name.replace(".", "/"), interface=name)
        self._on = on
        threading.Thread(target=self._serve, daemon=True).start()

    def _serve(self) -> None:
        try:
            while True:
                asked = self._bus.receive()
                if asked.header.message_type is MessageType.method_call:
                    self._bus.send(new_method_return(asked, "b", (self._on,)))
        except (OSError, ValueError):
            self._bus.close()

    def lock(self, on: bool) -> None:
        """It comes, or goes."""
        self._on = on
        self._bus.send(new_signal(self._where, "ActiveChanged", "b", (on,)))

    def babble(self) -> None:
        """It says something that has another shape than it should."""
        self._bus.send(new_signal(self._where, "ActiveChanged"))

    def leave(self) -> None:
        """It ends as it is."""
        self._bus.sock.shutdown(socket.SHUT_RDWR)


class Plasma:
    """Plasma's keyboard: `chosen` is the number of the layout that is on."""

    def __init__(self, bus: str) -> None:
        self.chosen = 0
        self._bus = open_dbus_connection(bus)
        self._bus.send_and_get_reply(message_bus.RequestName("org.kde.keyboard"))
        threading.Thread(target=self._serve, daemon=True).start()

    def _serve(self) -> None:
        try:
            while True:
                asked = self._bus.receive()
                if asked.header.fields.get(HeaderFields.member) == "getLayout":
                    self._bus.send(new_method_return(asked, "u", (self.chosen,)))
        except (OSError, ValueError):
            self._bus.close()


class KWin:
    """KWin, whose scripts are run by hand: `front` is the window in front of `shown`, each of a process, a title and a
    class; `plugins` are the scripts that are loaded."""

    def __init__(self, bus: str) -> None:
        self.plugins: dict[str, tuple[str, str, str]] = {}
        self._bus = open_dbus_connection(bus)
        self._bus.send_and_get_reply(message_bus.RequestName("org.kde.KWin"))
        self._state = self._say(None, ())
        threading.Thread(target=self._serve, daemon=True).start()

    @staticmethod
    def _say(front: tuple[int, str, str] | None, shown: Sequence[tuple[int, str, str]]) -> str:
        def told(window: tuple[int, str, str]) -> dict[str, object]:
            return dict(zip(("pid", "title", "name"), window, strict=True))

        return json.dumps({"front": told(front) if front else None, "shown": list(map(told, shown))})

    def _serve(self) -> None:
        try:
            while True:
                asked = self._bus.receive()
                if asked.header.message_type is not MessageType.method_call:
                    continue
                match asked.header.fields[HeaderFields.member], asked.body:
                    case "loadScript", (path, plugin):
                        script = Path(path).read_text(encoding="utf-8")
                        called = re.search(r'callDBus\("([^"]+)", "([^"]+)", "([^"]+)", "Told"', script)
                        assert called
                        self.plugins[plugin] = called[1], called[2], called[3]
                        self._bus.send(new_method_return(asked, "i", (len(self.plugins),)))
                    case "unloadScript", (plugin,):
                        known = self.plugins.pop(plugin, None) is not None
                        self._bus.send(new_method_return(asked, "b", (known,)))
                    case "start", _:
                        self._bus.send(new_method_return(asked))
                        self.tell(self._state)
        except (OSError, ValueError):
            self._bus.close()

    def tell(self, text: str) -> None:
        """What each script tells."""
        for to, path, interface in self.plugins.values():
            self._bus.send(new_method_call(DBusAddress(path, to, interface), "Told", "s", (text,)))

    def show(self, front: tuple[int, str, str] | None, *shown: tuple[int, str, str]) -> None:
        """Another window comes to the front, or others are there."""
        self._state = self._say(front, shown)
        self.tell(self._state)

    def leave(self) -> None:
        """It ends."""
        self._bus.sock.shutdown(socket.SHUT_RDWR)
