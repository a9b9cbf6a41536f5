"""Whether the user can be at the session: told by logind (org.freedesktop.login1(5)), and by screen lockers on the
session bus."""

from __future__ import annotations

import contextlib
import enum
import os
import socket
from collections.abc import Mapping
from typing import Any

from nakrel.backends.protocols import BackendUnavailable

__all__ = ["Absence", "Presence", "open_all"]

_LOGIN = "org.freedesktop.login1"
_PROPERTIES = "org.freedesktop.DBus.Properties"
# Lockers of desktops that may not tell logind, each on an interface of its own name; GNOME and Plasma tell it. From
# memory, except for the first (the idle-inhibition specification of freedesktop.org).
_LOCKERS = tuple(f"org.{name}.ScreenSaver" for name in ("freedesktop", "cinnamon", "mate", "xfce"))
_GRAPHICAL = ("x11", "wayland", "mir")
# How long a bus may take to answer; while it is opened only, on a thread that may wait.
_LIMIT_S = 2.0


class Absence(enum.Enum):
    """Why nobody can be there."""

    LOCKED = "locked"
    ANOTHER = "another"
    ASLEEP = "asleep"


class Presence:
    """One bus and what it tells. `fileno` is readable when `read` may have news; made on a thread that may wait, then
    used on one that doesn't. Raises `BackendUnavailable` where the bus tells nothing of this session."""

    def __init__(self, bus: str) -> None:
        from jeepney.io.blocking import open_dbus_connection

        self.absences: frozenset[Absence] = frozenset()
        try:
            self._connection = open_dbus_connection(bus, auth_timeout=_LIMIT_S)
        except Exception as error:
            raise BackendUnavailable(str(error)) from None
        try:
            self._begin()
        except Exception as error:
            self.close()
            raise BackendUnavailable(str(error)) from None

    def _begin(self) -> None:
        """Have the bus tell what it knows, and ask how things stand."""
        raise NotImplementedError

    def _take(self, member: str, path: str, body: Any) -> None:
        """A signal has come."""
        raise NotImplementedError

    def fileno(self) -> int:
        """The bus's socket."""
        return int(self._connection.sock.fileno())

    def read(self) -> bool:
        """Take in what has come, without waiting; False where the bus is gone."""
        try:
            while True:
                self._take_message(self._connection.receive(timeout=0))
        except TimeoutError:
            return True
        except Exception:
            return False

    def close(self) -> None:
        """Leave the bus; never raises."""
        with contextlib.suppress(Exception):
            self._connection.sock.shutdown(socket.SHUT_RDWR)
        with contextlib.suppress(Exception):
            self._connection.close()

    def _note(self, absence: Absence, so: bool) -> None:
        self.absences = self.absences | {absence} if so else self.absences - {absence}

    def _take_message(self, message: Any) -> None:
        from jeepney import HeaderFields, MessageType

        if message.header.message_type is MessageType.signal:
            fields = message.header.fields
            self._take(fields.get(HeaderFields.member, ""), fields.get(HeaderFields.path, ""), message.body)

    def _listen(self, **rule: Any) -> None:
        from jeepney import MatchRule
        from jeepney.bus_messages import message_bus

        wanted = MatchRule(type="signal", **{key: value for key, value in rule.items() if key != "arg0"})
        if arg0 := rule.get("arg0"):
            wanted.add_arg_condition(0, arg0)
        self._call(message_bus.AddMatch(wanted))

    def _get(self, name: str, path: str, interface: str, of: str) -> Any:
        """The value of a property."""
        from jeepney import DBusAddress, Properties

        return self._call(Properties(DBusAddress(path, name, interface)).get(of))[0][1]

    def _call(self, message: Any) -> Any:
        """The body of the answer; what comes before it is taken in. Raises `OSError` for an error."""
        from jeepney import HeaderFields, MessageFlag, MessageType

        # Nothing is started by being asked.
        message.header.flags |= MessageFlag.no_auto_start
        serial = next(self._connection.outgoing_serial)
        self._connection.send(message, serial=serial)
        while True:
            answer = self._connection.receive(timeout=_LIMIT_S)
            if answer.header.fields.get(HeaderFields.reply_serial) != serial:
                self._take_message(answer)
            elif answer.header.message_type is MessageType.error:
                raise OSError(str(answer.body[0] if answer.body else answer.header.fields))
            else:
                return answer.body


class Seat(Presence):
    """The system bus: logind tells of the session in which the service's windows are."""

    def __init__(self, environment: Mapping[str, str] = os.environ) -> None:
        self._environment = environment
        self._session = ""
        self._graphical = False
        super().__init__("SYSTEM")

    def _begin(self) -> None:
        manager = f"{_LOGIN}.Manager"
        self._listen(sender=_LOGIN, interface=manager, member="PrepareForSleep")
        self._session = self._find()
        self._listen(sender=_LOGIN, interface=_PROPERTIES, member="PropertiesChanged", path=self._session)
        known = f"{_LOGIN}.Session"
        self._changed({name: self._get(_LOGIN, self._session, known, name) for name in ("LockedHint", "Active")})

    def _find(self) -> str:
        """The path of our session: the one that we were started in, unless that has no windows and another has."""
        from jeepney import DBusAddress, new_method_call

        found = []
        manager = DBusAddress("/org/freedesktop/login1", _LOGIN, f"{_LOGIN}.Manager")
        if own := self._environment.get("XDG_SESSION_ID"):
            with contextlib.suppress(OSError):
                found.append(self._call(new_method_call(manager, "GetSession", "s", (own,)))[0])
        with contextlib.suppress(OSError):
            (user,) = self._call(new_method_call(manager, "GetUser", "u", (os.getuid(),)))
            name, path = self._get(_LOGIN, user, f"{_LOGIN}.User", "Display")
            found += [path] if name else []
        for path in found:
            if self._get(_LOGIN, path, f"{_LOGIN}.Session", "Type") in _GRAPHICAL:
                self._graphical = True
                return str(path)
        if not found:
            raise OSError("logind knows no session of ours")
        return str(found[0])

    def _take(self, member: str, path: str, body: Any) -> None:
        if member == "PrepareForSleep":
            self._note(Absence.ASLEEP, bool(body[0]))
        elif member == "PropertiesChanged" and path == self._session:
            self._changed({name: value for name, (_, value) in body[1].items()})

    def _changed(self, now: Mapping[str, Any]) -> None:
        if "LockedHint" in now:
            self._note(Absence.LOCKED, bool(now["LockedHint"]))
        # A session without windows isn't where the keys go, whoever is at the seat.
        if "Active" in now and self._graphical:
            self._note(Absence.ANOTHER, not now["Active"])


class Locker(Presence):
    """The session bus: a screen locker tells that it is on."""

    def __init__(self) -> None:
        # Who of them is on.
        self._on: set[str] = set()
        super().__init__("SESSION")

    def _begin(self) -> None:
        from jeepney import DBusAddress, new_method_call
        from jeepney.bus_messages import message_bus

        for name in _LOCKERS:
            self._listen(interface=name, member="ActiveChanged")
            self._listen(sender="org.freedesktop.DBus", member="NameOwnerChanged", arg0=name)
            if self._call(message_bus.NameHasOwner(name))[0]:
                path = "/" + name.replace(".", "/")
                with contextlib.suppress(OSError):
                    self._set(name, bool(self._call(new_method_call(DBusAddress(path, name, name), "GetActive"))[0]))

    def _take_message(self, message: Any) -> None:
        from jeepney import HeaderFields

        fields = message.header.fields
        if fields.get(HeaderFields.member) == "ActiveChanged" and fields.get(HeaderFields.interface) in _LOCKERS:
            self._set(fields[HeaderFields.interface], bool(message.body[0]))
        else:
            super()._take_message(message)

    def _take(self, member: str, path: str, body: Any) -> None:
        if member == "NameOwnerChanged" and not body[2]:
            # One that has ended keeps nothing locked.
            self._set(body[0], False)

    def _set(self, name: str, on: bool) -> None:
        (self._on.add if on else self._on.discard)(name)
        self._note(Absence.LOCKED, bool(self._on))


def open_all() -> list[Presence]:
    """Whatever tells of our session here."""
    found: list[Presence] = []
    for kind in (Seat, Locker):
        with contextlib.suppress(BackendUnavailable):
            found.append(kind())
    return found
