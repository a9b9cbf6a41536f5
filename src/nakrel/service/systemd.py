"""Telling systemd how the service is, where that started it (sd_notify(3); nothing happens elsewhere)."""

from __future__ import annotations

import contextlib
import os
import socket

from nakrel.service.loop import Loop, monotonic_us

__all__ = ["Systemd"]


class Systemd:
    """Tells when the service is ready and when it ends, and now and then that its loop still turns."""

    def __init__(self, loop: Loop) -> None:
        self._loop = loop
        self._address = os.environ.get("NOTIFY_SOCKET", "")
        # Half of the time after which systemd takes it for hung (sd_watchdog_enabled(3)).
        mine = os.environ.get("WATCHDOG_PID", str(os.getpid())) == str(os.getpid())
        wanted = os.environ.get("WATCHDOG_USEC", "")
        self._every_us = int(wanted) // 2 if mine and wanted.isdigit() else 0

    def ready(self) -> None:
        """The service answers from now on."""
        self._tell("READY=1")
        self._alive()

    def ending(self) -> None:
        """The service ends."""
        self._tell("STOPPING=1")

    def _alive(self) -> None:
        if self._address and self._every_us:
            self._tell("WATCHDOG=1")
            self._loop.at("systemd", monotonic_us() + self._every_us, self._alive)

    def _tell(self, message: str) -> None:
        if self._address:
            _send(self._address, message)


def _send(address: str, message: str) -> None:
    """A socket whose name begins with @ is an abstract one. A systemd that doesn't listen must not end the service."""
    name = f"\0{address[1:]}" if address.startswith("@") else address
    with contextlib.suppress(OSError), socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM | socket.SOCK_CLOEXEC) as sock:
        sock.setblocking(False)
        sock.sendto(message.encode(), name)
