"""The key that begins and ends a recording while a game is in front."""

from __future__ import annotations

from nakrel.core.model.controls import label
from nakrel.core.model.steps import Step, Wait
from nakrel.protocol import RecordingAsked
from nakrel.service.live import Live
from nakrel.service.server import Server
from nakrel.words import tr

__all__ = ["RecordKey"]


class RecordKey:
    """A window begins the recording, into the macro that it shows; notices on the desktop say so."""

    def __init__(self, server: Server, live: Live) -> None:
        self._server, self._live = server, live

    def pressed(self, control: str) -> None:
        """It was pressed, and nothing is recorded."""
        if any(client.subscribed for client in self._server.connections):
            self._server.broadcast(RecordingAsked(control))
            self._live.notify(tr("Recording"), tr("{control} ends it").format(control=label(control)))
        else:
            self._live.notify(
                tr("Nothing is recorded"), tr("Open Nakrel's window first: it shows the macro to record into")
            )

    def ended(self, steps: tuple[Step, ...]) -> None:
        """A recording was ended by a key."""
        events = sum(not isinstance(step, Wait) for step in steps)
        self._live.notify(tr("Recorded"), tr("{events} events; Nakrel's window has them").format(events=events))
