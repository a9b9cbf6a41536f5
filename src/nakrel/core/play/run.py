"""A running macro with the triggers that keep it."""

from __future__ import annotations

import random
from collections.abc import Iterator

from nakrel.core.model.macro import Play
from nakrel.core.play.acts import Surroundings
from nakrel.core.play.operations import Plan
from nakrel.core.play.player import Player

__all__ = ["Run"]


class Run:
    """A running macro with the triggers that keep it."""

    def __init__(
        self,
        plan: Plan,
        play: Play,
        started_by: str,
        now_us: int,
        chance: random.Random,
        around: Surroundings,
        tickets: Iterator[int],
    ) -> None:
        self.key = plan.macro
        self.plan = plan
        self.play = play
        self.player = Player(plan, play, now_us, chance, around, tickets)
        self.started_by = started_by
        self.triggers = {started_by} if started_by else set()
        self.queued = ""
        # Notches of the wheel that came in the same report and have yet to play.
        self.notches = 0
        self.reason = "finished"
