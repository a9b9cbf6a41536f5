"""What the clients are told: notices, gathered so that a fast macro doesn't become a flood of messages."""

from __future__ import annotations

from collections.abc import Callable

from nakrel.core.play.recorder import Recorder
from nakrel.protocol import Entry, Journal, Recorded, Seen, SeenEvent, Status, StatusIs
from nakrel.service.loop import Loop, monotonic_us
from nakrel.service.server import Client, Server

__all__ = ["Feed"]

# Notices are gathered for this long; 30 a second is as much as a window can show.
FLUSH_US = 33_000
# Input and output events kept for a flush; a macro at full speed makes some 33.
MAX_SEEN = 5_000


def _time_of(event: SeenEvent) -> int:
    return event.at_us


class Feed:
    """Gathers, and sends with the next flush; nothing is gathered that nobody asked for."""

    def __init__(self, loop: Loop, status: Callable[[], Status]) -> None:
        self._loop = loop
        self._status = status
        self._server: Server | None = None
        self._write_journal: Callable[[], None] = lambda: None
        self._seen: list[SeenEvent] = []
        self._entries: list[Entry] = []
        self._status_changed = False
        self._recorder: Recorder | None = None
        self._record_owner: Client | None = None
        self._recorded_sent = 0

    def open(self, server: Server, write_journal: Callable[[], None]) -> None:
        """Send to this server's clients from now on."""
        self._server = server
        self._write_journal = write_journal

    def seen(self, event: SeenEvent) -> None:
        """An event came in or went out."""
        if self._server and len(self._seen) < MAX_SEEN and any(c.wants_seen for c in self._server.connections):
            self._seen.append(event)
            self.soon()

    def journalled(self, entry: Entry) -> None:
        """The journal has a new entry."""
        self._entries.append(entry)
        self.soon()

    def status_changed(self) -> None:
        """The status isn't what it was."""
        self._status_changed = True
        self.soon()

    def recording(self, recorder: Recorder | None, owner: Client | None) -> None:
        """Send the steps of this recording to its owner as they come; None ends that."""
        self._recorder, self._record_owner, self._recorded_sent = recorder, owner, 0

    def soon(self) -> None:
        """Flush before long."""
        if not self._loop.pending("flush"):
            self._loop.at("flush", monotonic_us() + FLUSH_US, self.flush)

    def flush(self) -> None:
        """Send what was gathered."""
        # What macros do is told when there is time, so a finger may be told before what it answered.
        seen, self._seen = tuple(sorted(self._seen, key=_time_of)), []
        entries, self._entries = tuple(self._entries), []
        changed, self._status_changed = self._status_changed, False
        self._write_journal()
        if self._server is None:
            return
        if changed:
            self._server.broadcast(StatusIs(self._status()))
        if entries:
            self._server.broadcast(Journal(entries))
        self._send_recorded()
        if seen:
            for connection in list(self._server.connections):
                if connection.wants_seen:
                    connection.notify(Seen(seen))

    def _send_recorded(self) -> None:
        if self._recorder and self._record_owner and len(self._recorder.steps) > self._recorded_sent:
            new = tuple(self._recorder.steps[self._recorded_sent :])
            self._record_owner.notify(Recorded(new, False, self._recorded_sent))
            self._recorded_sent += len(new)
