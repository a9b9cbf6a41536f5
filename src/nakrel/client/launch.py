"""Finding the service, and starting it when there is none."""

from __future__ import annotations

import os
import select
import sys
import time
from pathlib import Path

from nakrel.client.connection import ClientError, ServiceConnection, ServiceGone
from nakrel.rights import refusal_reason

__all__ = ["Launch", "ensure_service"]

# A cold start on a busy machine takes a few seconds at most.
START_LIMIT_S = 15.0
_RETRY_S = 0.01
# The exit code of a service that found another one running, which is as good.
_OTHER_RUNS = 3


class Launch:
    """A connection in the making: the service starts beside whatever the caller does until `finish`.

    Raises `ClientError` where it mustn't be started.
    """

    def __init__(self, socket: Path, home: str | None, client: str) -> None:
        self._socket, self._client = socket, client
        self._connection = self._try()
        if self._connection is None and (refused := refusal_reason()):
            raise ClientError(refused)
        self._pid = _start(home) if self._connection is None else 0

    def finish(self) -> ServiceConnection:
        """Wait for the service; raises `ClientError`."""
        end = time.monotonic() + START_LIMIT_S
        while (connection := self._connection or self._try()) is None:
            if self._pid and (code := _ended(self._pid)) not in (None, _OTHER_RUNS):
                raise ClientError(f"the service ended while starting (exit code {code}); see its log")
            if time.monotonic() > end:
                raise ClientError(f"the service did not answer within {START_LIMIT_S:g} s of its start; see its log")
            select.select([], [], [], _RETRY_S)
        return connection

    def _try(self) -> ServiceConnection | None:
        try:
            return ServiceConnection.connect(self._socket, self._client)
        except ServiceGone:
            return None


def ensure_service(socket: Path, home: str | None, client: str) -> ServiceConnection:
    """Connect to the service at `socket`, starting one (for `home`) when none answers; raises `ClientError`."""
    return Launch(socket, home, client).finish()


def _start(home: str | None) -> int:
    """Start the service in a session of its own, so that it outlives the window and its terminal; its process id."""
    command = [sys.executable, "-m", "nakrel.service", *(["--home", home] if home else [])]
    silent = [(os.POSIX_SPAWN_OPEN, number, os.devnull, os.O_RDWR, 0) for number in range(3)]
    return os.posix_spawn(sys.executable, command, os.environ, file_actions=silent, setsid=True)


def _ended(pid: int) -> int | None:
    """The exit code of a child that has ended, None while it runs."""
    try:
        found, status = os.waitpid(pid, os.WNOHANG)
    except ChildProcessError:
        return None
    return os.waitstatus_to_exitcode(status) if found else None
