"""A message bus (D-Bus Specification): what it tells is taken in without waiting, and questions are asked where waiting
is no harm."""

from __future__ import annotations

import contextlib
import socket
from collections.abc import Callable
from typing import Any

from nakrel.backends.protocols import BackendUnavailable

__all__ = ["Bus"]

# How long a bus, or who is on it, may take to answer.
_LIMIT_S = 2.0


class Bus:
    """`which` is SYSTEM or SESSION; `take` gets every message that answers no question. Raises `BackendUnavailable`
    where there is none; what is asked raises `OSError`, and whatever else comes of a bus that misbehaves."""

    def __init__(self, which: str, take: Callable[[Any], object]) -> None:
        # Only who uses a bus pays for it.
        from jeepney.io.blocking import open_dbus_connection

        self._take = take
        try:
            self._connection = open_dbus_connection(which, auth_timeout=_LIMIT_S)
        except Exception as error:
            raise BackendUnavailable(str(error)) from None

    @property
    def name(self) -> str:
        """Our own on the bus."""
        return str(self._connection.unique_name)

    def fileno(self) -> int:
        """The socket."""
        return int(self._connection.sock.fileno())

    def read(self) -> bool:
        """Take in what has come, without waiting; False where the bus is gone."""
        while True:
            try:
                message = self._connection.receive(timeout=0)
            except TimeoutError:
                return True
            except Exception:
                return False
            # Anybody may say anything; what has another shape is passed over.
            with contextlib.suppress(LookupError, TypeError, ValueError):
                self._take(message)

    def wait(self) -> None:
        """Take in the next message. Raises `TimeoutError` where none comes."""
        self._take(self._connection.receive(timeout=_LIMIT_S))

    def send(self, message: Any) -> None:
        """Send it; no answer is waited for."""
        self._connection.send(message)

    def ask(self, message: Any) -> Any:
        """The body of the answer; what comes before it is taken in. Raises `OSError` for an error."""
        from jeepney import HeaderFields, MessageFlag, MessageType

        # Nothing is started by being asked.
        message.header.flags |= MessageFlag.no_auto_start
        serial = next(self._connection.outgoing_serial)
        self._connection.send(message, serial=serial)
        while True:
            answer = self._connection.receive(timeout=_LIMIT_S)
            if answer.header.fields.get(HeaderFields.reply_serial) != serial:
                self._take(answer)
            elif answer.header.message_type is MessageType.error:
                raise OSError(str(answer.body[0] if answer.body else answer.header.fields))
            else:
                return answer.body

    def listen(self, arg0: str = "", **rule: str) -> None:
        """Have these signals told, with this for their first argument where that is given."""
        from jeepney import MatchRule
        from jeepney.bus_messages import message_bus

        wanted = MatchRule(type="signal", **rule)
        if arg0:
            wanted.add_arg_condition(0, arg0)
        self.ask(message_bus.AddMatch(wanted))

    def has(self, name: str) -> bool:
        """Whether somebody of this name is on the bus."""
        from jeepney.bus_messages import message_bus

        return bool(self.ask(message_bus.NameHasOwner(name))[0])

    def tell_owner(self, name: str) -> None:
        """Have it told when somebody takes or leaves this name: `NameOwnerChanged`."""
        self.listen(name, sender="org.freedesktop.DBus", member="NameOwnerChanged")

    def close(self) -> None:
        """Leave the bus; never raises."""
        with contextlib.suppress(Exception):
            self._connection.sock.shutdown(socket.SHUT_RDWR)
        with contextlib.suppress(Exception):
            self._connection.close()
