"""A panel for tests, on a real session bus: the tray's watcher and host (StatusNotifierItem specification), the reader
of its menus (com.canonical.dbusmenu), and the server for notices (Desktop Notifications Specification)."""

from __future__ import annotations

import contextlib
import socket
import threading
from typing import Any

from jeepney import DBusAddress, HeaderFields, MessageType, new_method_call, new_method_return, new_signal
from jeepney.bus_messages import message_bus
from jeepney.io.blocking import DBusConnection, open_dbus_connection

from tests.support import wait_for

WATCHER, NOTICES = "org.kde.StatusNotifierWatcher", "org.freedesktop.Notifications"
ITEM, MENU, PROPERTIES = "org.kde.StatusNotifierItem", "com.canonical.dbusmenu", "org.freedesktop.DBus.Properties"


class Panel:
    """`items` are the icons that registered themselves, `notices` what was shown: number replaced, summary, body,
    actions, hints, and the icon's name."""

    def __init__(self, address: str) -> None:
        self.items: list[tuple[str, str]] = []
        self.notices: list[tuple[int, str, str, list[str], dict[str, Any], str]] = []
        self._asking = open_dbus_connection(address)
        self._serving = open_dbus_connection(address)
        for name in (WATCHER, NOTICES):
            self._serving.send_and_get_reply(message_bus.RequestName(name))
        self._thread = threading.Thread(target=self._serve, daemon=True)
        self._thread.start()

    def leave(self) -> None:
        """Leave a bus that goes on."""
        self._serving.sock.shutdown(socket.SHUT_RDWR)
        self.close()

    def close(self) -> None:
        """Leave the bus, which has ended."""
        self._thread.join(10)
        for connection in (self._asking, self._serving):
            with contextlib.suppress(OSError):
                connection.close()

    # Serving

    def _serve(self) -> None:
        while True:
            try:
                message = self._serving.receive()
            except Exception:
                return
            if message.header.message_type is MessageType.method_call:
                self._answer(self._serving, message)

    def _answer(self, connection: DBusConnection, message: Any) -> None:
        fields = message.header.fields
        member, sender = fields[HeaderFields.member], fields[HeaderFields.sender]
        if member == "RegisterStatusNotifierItem":
            (service,) = message.body
            self.items.append((sender, service if service.startswith("/") else "/StatusNotifierItem"))
            connection.send(new_method_return(message))
            emitter = DBusAddress("/StatusNotifierWatcher", interface=WATCHER)
            connection.send(new_signal(emitter, "StatusNotifierItemRegistered", "s", (service,)))
        elif member == "Get":
            value = {"IsStatusNotifierHostRegistered": ("b", True), "ProtocolVersion": ("i", 0)}
            found = value.get(message.body[1], ("as", [name for name, _ in self.items]))
            connection.send(new_method_return(message, "v", (found,)))
        elif member == "Notify":
            _, replaces, icon, summary, body, actions, hints, _ = message.body
            self.notices.append((replaces, summary, body, actions, hints, icon))
            connection.send(new_method_return(message, "u", (replaces or len(self.notices),)))
        elif member == "GetCapabilities":
            connection.send(new_method_return(message, "as", (["actions", "body"],)))
        elif member == "GetServerInformation":
            connection.send(new_method_return(message, "ssss", ("panel", "tests", "1", "1.2")))
        else:
            connection.send(new_method_return(message))

    def press_action(self, number: int, action: str) -> None:
        """Press a button of a notice."""
        emitter = DBusAddress("/org/freedesktop/Notifications", interface=NOTICES)
        self._serving.send(new_signal(emitter, "ActionInvoked", "us", (number, action)))

    # Asking

    def call(
        self, name: str, path: str, interface: str, member: str, signature: str = "", *body: Any
    ) -> tuple[Any, ...]:
        """What a method answers."""
        address = DBusAddress(path, bus_name=name, interface=interface)
        message = new_method_call(address, member, signature or None, body)
        answer = self._asking.send_and_get_reply(message, timeout=15)
        assert answer.header.message_type is MessageType.method_return, answer.body
        return tuple(answer.body)

    def has(self, name: str) -> bool:
        """Whether somebody has this name on the bus."""
        (answer,) = self._asking.send_and_get_reply(message_bus.NameHasOwner(name)).body
        return bool(answer)

    def item(self, wanted: str) -> Any:
        """A property of the newest icon."""
        name, path = self.items[-1]
        (value,) = self.call(name, path, PROPERTIES, "Get", "ss", ITEM, wanted)
        return value[1]

    def tooltip(self) -> str:
        """What the newest icon says when the pointer rests on it."""
        return str(self.item("ToolTip")[2])

    def menu(self) -> dict[str, int]:
        """The texts of the newest icon's menu, with the number of each; what is greyed has none (0), and
        what is hidden isn't there."""
        name, _ = self.items[-1]
        path = self.item("Menu")
        self.call(name, path, MENU, "AboutToShow", "i", 0)
        _, layout = self.call(name, path, MENU, "GetLayout", "iias", 0, -1, [])
        found = {}
        for _, (number, properties, _) in layout[2]:
            seen = properties.get("visible", ("b", True))[1]
            if seen and properties.get("type", ("s", ""))[1] != "separator":
                text = str(properties["label"][1]).replace("_", "")
                found[text] = number if properties.get("enabled", ("b", True))[1] else 0
        return found

    def choose(self, text: str) -> None:
        """Click an entry of the menu."""
        name, _ = self.items[-1]
        number = wait_for(lambda: self.menu().get(text), f"{text} in {list(self.menu())}")
        self.call(name, self.item("Menu"), MENU, "Event", "isvu", number, "clicked", ("s", ""), 0)
