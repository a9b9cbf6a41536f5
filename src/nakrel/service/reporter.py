"""What the user is told: in the journal, and in every window that is open."""

from __future__ import annotations

import logging
from collections.abc import Callable

from nakrel.protocol import Fault
from nakrel.service.feed import Feed
from nakrel.service.journal import Journal
from nakrel.service.server import Server
from nakrel.words import tr

__all__ = ["Reporter"]

log = logging.getLogger(__name__)


class Reporter:
    """Every part of the service tells by it what happened."""

    def __init__(self, journal: Journal, feed: Feed) -> None:
        self._journal, self._feed = journal, feed
        self._server: Server | None = None
        self._told: set[str] = set()
        # Who wants to know of faults at once, besides clients and journal.
        self.on_fault: Callable[[str], object] = lambda error: None

    def open(self, server: Server) -> None:
        """Tell this server's clients from now on."""
        self._server = server

    def add(self, kind: str, what: str, why: str = "") -> None:
        """Write an entry into the journal."""
        self._journal.add(kind, what, why)

    def status_changed(self) -> None:
        """Tell the clients the status with the next flush."""
        self._feed.status_changed()

    def fault(self, error: str) -> None:
        """Write a fault into the journal and tell the clients."""
        self._journal.add("fault", error)
        self.on_fault(error)
        if self._server:
            self._server.broadcast(Fault(error))

    def fault_once(self, error: str) -> None:
        """The same, unless the same words were told before."""
        if error not in self._told:
            self._told.add(error)
            self.fault(error)

    def unexpected(self, error: Exception) -> str:
        """A fault of ours: to the log with its traceback, and to the user; returns what the user is told."""
        log.error("unexpected", exc_info=error)
        message = tr(
            "Something unexpected happened inside Nakrel ({reason!r}); the service log has the details"
        ).format(reason=error)
        self.fault(message)
        return message

    def restless(self, what: str) -> None:
        """The loop finds no rest: tell of it once, with what keeps it busy."""
        self.fault_once(
            tr(
                "Nakrel's service is busy without end, which should never happen ({what}). Please report it; "
                "nakrel shutdown ends it, and it starts again with the window"
            ).format(what=what)
        )
