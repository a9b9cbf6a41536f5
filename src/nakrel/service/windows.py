"""One window at a time: whoever starts another one brings the first to the front."""

from __future__ import annotations

from nakrel import protocol as m
from nakrel.service.server import Client

__all__ = ["Windows"]


class Windows:
    """Remembers which client is the window."""

    def __init__(self) -> None:
        self._window: Client | None = None

    def open(self, client: Client, number: int, body: m.OpenWindow) -> m.WindowIs:
        """Hand what is asked for to the window, or make this client it."""
        window = self._window
        if window is None or window.closed or window is client:
            self._window = client
            return m.WindowIs(open_already=False)
        window.notify(m.WindowAsked(body.files, body.record, body.token))
        return m.WindowIs(open_already=True)
