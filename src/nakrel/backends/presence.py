"""Whether the user can be at the session: told by logind (org.freedesktop.login1(5)), and by screen lockers on the
session bus."""

from __future__ import annotations

import contextlib
import enum
import os
from collections.abc import Mapping
from typing import Any

from nakrel.backends.bus import Bus
from nakrel.backends.protocols import BackendUnavailable

__all__ = ["Absence", "Presence", "open_all"]

_LOGIN = "org.freedesktop.login1"
_PROPERTIES = "org.freedesktop.DBus.Properties"
# Lockers of desktops that may not tell logind, each on an interface of its own name; GNOME and Plasma tell it. From
# memory, except for the first (the idle-inhibition specification of freedesktop.org).
_LOCKERS = tuple(f"org.{name}.ScreenSaver" for name in ("freedesktop", "cinnamon", "mate", "xfce"))
_GRAPHICAL = ("x11", "wayland", "mir")


class Absence(enum.Enum):
    """Why nobody can be there."""

    LOCKED = "locked"
    ANOTHER = "another"
    ASLEEP = "asleep"


class Presence:
    """One bus and what it tells. `fileno` is readable when `read` may have news; for a thread that may wait. Raises
    `BackendUnavailable` where the bus tells nothing of this session."""

    def __init__(self, which: str) -> None:
        self.absences: frozenset[Absence] = frozenset()
        self._bus = Bus(which, self._take_message)
        try:
            self._begin()
        except Exception as error:
            self.close()
            raise BackendUnavailable(str(error)) from None

    def _begin(self) -> None:
        """Have the bus tell what it knows, and ask how things stand."""
        raise NotImplementedError

    def _take(self, interface: str, member: str, path: str, body: Any) -> None:
        """A signal has come."""
        raise NotImplementedError

    def fileno(self) -> int:
        """The bus's socket."""
        return self._bus.fileno()

    def read(self) -> bool:
        """Take in what has come, without waiting; False where the bus is gone."""
        return self._bus.read()

    def close(self) -> None:
        """Leave the bus; never raises."""
        self._bus.close()

    def _note(self, absence: Absence, so: bool) -> None:
        self.absences = self.absences | {absence} if so else self.absences - {absence}

    def _take_message(self, message: Any) -> None:
        from jeepney import HeaderFields, MessageType

        if message.header.message_type is MessageType.signal:
            fields = message.header.fields
            interface, member = fields.get(HeaderFields.interface, ""), fields.get(HeaderFields.member, "")
            self._take(interface, member, fields.get(HeaderFields.path, ""), message.body)


class Seat(Presence):
    """The system bus: logind tells of the session in which the service's windows are."""

    def __init__(self, environment: Mapping[str, str] = os.environ) -> None:
        self._environment = environment
        self._session = ""
        self._graphical = False
        super().__init__("SYSTEM")

    def _begin(self) -> None:
        manager = f"{_LOGIN}.Manager"
        self._bus.listen(sender=_LOGIN, interface=manager, member="PrepareForSleep")
        self._session = self._find()
        self._bus.listen(sender=_LOGIN, interface=_PROPERTIES, member="PropertiesChanged", path=self._session)
        known = f"{_LOGIN}.Session"
        self._changed({name: self._get(self._session, known, name) for name in ("LockedHint", "Active")})

    def _find(self) -> str:
        """The path of our session: the one that we were started in, unless that has no windows and another has."""
        from jeepney import DBusAddress, new_method_call

        found = []
        manager = DBusAddress("/org/freedesktop/login1", _LOGIN, f"{_LOGIN}.Manager")
        if own := self._environment.get("XDG_SESSION_ID"):
            with contextlib.suppress(OSError):
                found.append(self._bus.ask(new_method_call(manager, "GetSession", "s", (own,)))[0])
        with contextlib.suppress(OSError):
            (user,) = self._bus.ask(new_method_call(manager, "GetUser", "u", (os.getuid(),)))
            name, path = self._get(user, f"{_LOGIN}.User", "Display")
            found += [path] if name else []
        for path in found:
            if self._get(path, f"{_LOGIN}.Session", "Type") in _GRAPHICAL:
                self._graphical = True
                return str(path)
        if not found:
            raise OSError("logind knows no session of ours")
        return str(found[0])

    def _get(self, path: str, interface: str, of: str) -> Any:
        """The value of a property."""
        from jeepney import DBusAddress, Properties

        return self._bus.ask(Properties(DBusAddress(path, _LOGIN, interface)).get(of))[0][1]

    def _take(self, interface: str, member: str, path: str, body: Any) -> None:
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

        for name in _LOCKERS:
            self._bus.listen(interface=name, member="ActiveChanged")
            self._bus.tell_owner(name)
            if self._bus.has(name):
                path = "/" + name.replace(".", "/")
                with contextlib.suppress(OSError):
                    self._set(name, bool(self._bus.ask(new_method_call(DBusAddress(path, name, name), "GetActive"))[0]))

    def _take(self, interface: str, member: str, path: str, body: Any) -> None:
        if member == "ActiveChanged" and interface in _LOCKERS:
            self._set(interface, bool(body[0]))
        elif member == "NameOwnerChanged" and not body[2]:
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
