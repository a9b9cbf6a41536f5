"""Finding the service, and starting it when there is none."""

from __future__ import annotations

import os
import select
import sys
import time
from pathlib import Path

from nakrel.client.connection import ClientError, ServiceConnection, ServiceGone
from nakrel.rights import refusal_reason
from nakrel.words import plain, tr

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
        self._pid, self._errors = _start(home) if self._connection is None else (0, -1)

    @property
    def ready(self) -> ServiceConnection | None:
        """The connection to a service that ran already."""
        return self._connection

    def finish(self) -> ServiceConnection:
        """Wait for the service; raises `ClientError`."""
        try:
            return self._wait()
        finally:
            if self._errors >= 0:
                os.close(self._errors)
                self._errors = -1

    def _wait(self) -> ServiceConnection:
        end = time.monotonic() + START_LIMIT_S
        while (connection := self._connection or self._try()) is None:
            if self._pid and (code := _ended(self._pid)) not in (None, _OTHER_RUNS):
                said = os.pread(self._errors, 4_096, 0).decode("utf-8", "replace").strip().removeprefix("nakrel: ")
                raise ClientError(
                    said or tr("the service ended as it started (exit code {code}); see its log").format(code=code)
                )
            if time.monotonic() > end:
                raise ClientError(
                    tr("the service did not answer within {start_limit_s} s of its start; see its log").format(
                        start_limit_s=plain(START_LIMIT_S)
                    )
                )
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


# Services that were started here, to be collected when they have ended.
_started: list[int] = []


def _start(home: str | None) -> tuple[int, int]:
    """Start the service in a session of its own, so that it outlives the window and its terminal; its process id, and
    where what it says of a failure can be read."""
    _started[:] = [pid for pid in _started if _ended(pid) is None]
    command = [sys.executable, "-m", "nakrel.service", *(["--home", home] if home else [])]
    errors = os.memfd_create("nakrel-service-errors")
    quiet = [
        *((os.POSIX_SPAWN_OPEN, number, os.devnull, os.O_RDWR, 0) for number in range(2)),
        (os.POSIX_SPAWN_DUP2, errors, 2),
    ]
    pid = os.posix_spawn(sys.executable, command, os.environ, file_actions=quiet, setsid=True)
    _started.append(pid)
    return pid, errors


def _ended(pid: int) -> int | None:
    """The exit code of a child that has ended, None while it runs."""
    try:
        found, status = os.waitpid(pid, os.WNOHANG)
    except ChildProcessError:
        return None
    return os.waitstatus_to_exitcode(status) if found else None
