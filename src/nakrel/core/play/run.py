"""A running macro with the triggers that keep it."""

from __future__ import annotations

from nakrel.core.model.macro import Play
from nakrel.core.play.operations import Plan
from nakrel.core.play.player import Player

__all__ = ["Run"]


class Run:
    """A running macro with the triggers that keep it."""

    def __init__(self, plan: Plan, play: Play, started_by: str, player: Player) -> None:
        self.key = plan.macro
        self.plan, self.play, self.player = plan, play, player
        self.started_by = started_by
        self.triggers = {started_by} if started_by else set()
        self.queued = ""
        # Notches of the wheel that came in the same report and have yet to play.
        self.notches = 0
        # Why it ends before it is finished.
        self.reason = ""
