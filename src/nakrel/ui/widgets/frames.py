"""Frames of what moves: as many as the eye wants where the window is in front, fewer behind a game."""

from __future__ import annotations

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QWidget

__all__ = ["Frames"]

# Who looks at it beside a game sees no less, and the game keeps the processor.
_BEHIND_MS = 100


class Frames(QTimer):
    """A timer whose `timeout` says that a frame of `of` is due."""

    def __init__(self, of: QWidget, every_ms: int) -> None:
        super().__init__(of)
        self._of, self._every_ms = of, every_ms
        self.setInterval(every_ms)
        self.timeout.connect(self._keep_pace)

    @property
    def in_front(self) -> bool:
        """Whether frames come one after the other."""
        return self._of.isActiveWindow()

    def _keep_pace(self) -> None:
        wanted = self._every_ms if self.in_front else _BEHIND_MS
        if wanted != self.interval():
            self.setInterval(wanted)
