"""A service that was started at login ends with that session."""

from __future__ import annotations

import os
from collections.abc import Callable
from pathlib import Path

from nakrel.service.loop import Loop, monotonic_us
from nakrel.service.worker import Outcome, Worker
from nakrel.session import Session

__all__ = ["LoginSession"]

_EVERY_US = 30_000_000
# Where logind and elogind keep a file for each session that goes on.
_SESSIONS = Path("/run/systemd/sessions")


class LoginSession:
    """Looks now and then whether the session goes on in which the service was started; where nobody knows, whether its
    display answers."""

    def __init__(self, loop: Loop, worker: Worker, ended: Callable[[], object], every_us: int = _EVERY_US) -> None:
        self._loop, self._worker, self._ended, self._every_us = loop, worker, ended, every_us
        self._file = _SESSIONS / (os.environ.get("XDG_SESSION_ID") or "none")
        # A file that never was there tells nothing.
        self._known = self._file.exists()
        self._session = Session.of(os.environ)
        # How often in a row it wasn't there: an X server that is started anew is away for a moment.
        self._missed = 0

    def watch(self) -> None:
        """Begin to look."""
        if self._known or self._session != Session():
            self._loop.at("login session", monotonic_us() + self._every_us, self._look)

    def _look(self) -> None:
        self._worker.do(self._goes_on, self._looked)

    def _goes_on(self) -> bool:
        if self._known:
            return self._file.exists()
        return self._session.answers(os.environ.get("XDG_RUNTIME_DIR", ""))

    def _looked(self, outcome: Outcome[bool]) -> None:
        self._missed = 0 if outcome.result else self._missed + 1
        if self._missed >= 2:
            self._ended()
        else:
            self.watch()
