"""What a screen reader gets: the AT-SPI tree of the programs on the session's accessibility bus, as JSON.

    python -m tests.accessible APPLICATION

A process of its own, since the program has to answer while it is asked.
"""

from __future__ import annotations

import contextlib
import json
import sys
from typing import Any

from jeepney import DBusAddress, MessageType, new_method_call
from jeepney.io.blocking import DBusConnection, open_dbus_connection

ACCESSIBLE, PROPERTIES = "org.a11y.atspi.Accessible", "org.freedesktop.DBus.Properties"
# Of long tables the first are enough.
MOST_CHILDREN = 60
# Bits of the states (atspi-constants.h).
LABELLED_BY = 2
FOCUSABLE, SHOWING, VISIBLE = 11, 25, 30


# What Qt answers for an object that is gone, by whether it knows of that already.
_GONE = ("No such object path", "was not found in object")


class Gone(Exception):
    """The object was there when its parent was asked, and isn't any more."""


class Reader:
    """Asks the programs' objects what they are."""

    def __init__(self) -> None:
        session = open_dbus_connection("SESSION")
        (address,) = ask(session, "org.a11y.Bus", "/org/a11y/bus", "org.a11y.Bus", "GetAddress")
        session.close()
        self._bus = open_dbus_connection(address)

    def call(
        self, where: tuple[str, str], interface: str, member: str, signature: str = "", *body: Any
    ) -> tuple[Any, ...]:
        return ask(self._bus, where[0], where[1], interface, member, signature, *body)

    def text(self, where: tuple[str, str], name: str) -> str:
        (value,) = self.call(where, PROPERTIES, "Get", "ss", ACCESSIBLE, name)
        return str(value[1])

    def children(self, where: tuple[str, str]) -> list[tuple[str, str]]:
        (found,) = self.call(where, ACCESSIBLE, "GetChildren")
        return [tuple(each) for each in found[:MOST_CHILDREN]]

    def label(self, where: tuple[str, str]) -> str:
        (relations,) = self.call(where, ACCESSIBLE, "GetRelationSet")
        return " ".join(
            self.text(tuple(each), "Name") for kind, targets in relations for each in targets if kind == LABELLED_BY
        )

    def tree(self, where: tuple[str, str]) -> dict[str, Any]:
        ((low, high),) = self.call(where, ACCESSIBLE, "GetState")
        states = low | high << 32
        (role,) = self.call(where, ACCESSIBLE, "GetRoleName")
        found: dict[str, Any] = {
            "role": role,
            "name": self.text(where, "Name"),
            "says": self.text(where, "Description"),
        }
        found["focusable"], found["showing"] = bool(states >> FOCUSABLE & 1), bool(states >> SHOWING & 1)
        if role == "combo box":
            # Qt gives its value as its name; what it is for is told by the label that it belongs to.
            found["name"] = self.label(where)
        inside = self.children(where) if found["showing"] or role in ("application", "frame") else []
        found["children"] = []
        for each in inside:
            # What plays comes and goes while it is asked about.
            with contextlib.suppress(Gone):
                found["children"].append(self.tree(each))
        return found


def ask(
    bus: DBusConnection, name: str, path: str, interface: str, member: str, signature: str = "", *body: Any
) -> tuple[Any, ...]:
    """What an object answers."""
    message = new_method_call(DBusAddress(path, bus_name=name, interface=interface), member, signature or None, body)
    answer = bus.send_and_get_reply(message, timeout=20)
    if answer.header.message_type is MessageType.error and any(words in str(answer.body) for words in _GONE):
        raise Gone(path)
    assert answer.header.message_type is MessageType.method_return, (member, path, answer.body)
    return tuple(answer.body)


def main(application: str) -> None:
    """Print the tree of the application of this name."""
    reader = Reader()
    root = ("org.a11y.atspi.Registry", "/org/a11y/atspi/accessible/root")
    for each in reader.children(root):
        if reader.text(each, "Name") == application:
            json.dump(reader.tree(each), sys.stdout)
            return
    sys.exit(f"there is no {application}; there are {[reader.text(each, 'Name') for each in reader.children(root)]}")


if __name__ == "__main__":
    main(sys.argv[1])
