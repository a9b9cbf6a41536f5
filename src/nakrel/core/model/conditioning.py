"""What becomes of a device's motion and of its wheel on their way: faster or slower, each by itself, and straight.

All of it is whole numbers: what is left over of a unit is kept for the next one, so that nothing is lost however slow
the motion is. After any number of reports what has come out differs from what went in, times the factor, by less than
one unit.
"""

from __future__ import annotations

from typing import Annotated, NamedTuple

import msgspec

from nakrel.core.model.limits import MAX_STAGES, Name
from nakrel.core.model.value import Value

__all__ = ["AS_IT_IS", "MAX_PERCENT", "MAX_STRAIGHT", "Conditioner", "Motion", "Pointing", "SpeedStage", "motion_of"]

MAX_PERCENT = 1_000
# Straighter than this, and slanting motion can't be done any more.
MAX_STRAIGHT = 30
# A wheel that tells parts of notches tells them in 120ths (REL_WHEEL_HI_RES, input-event-codes.h).
_NOTCH = 120
# How much of the direction so far counts beside the newest report: a report of slow motion is one unit, and tells none.
_KEEP, _OF = 7, 8
# Tangents of whole degrees, in 10,000ths (mathematics): no floating point between a device and a game.
_TANGENTS = (
    *(0, 175, 349, 524, 699, 875, 1051, 1228, 1405, 1584, 1763, 1944, 2126, 2309, 2493, 2679),
    *(2867, 3057, 3249, 3443, 3640, 3839, 4040, 4245, 4452, 4663, 4877, 5095, 5317, 5543, 5774),
)

Percent = Annotated[int, msgspec.Meta(ge=1, le=MAX_PERCENT)]


class SpeedStage(Value, frozen=True, forbid_unknown_fields=True):
    """A speed of the pointer, in percent of the device's own, horizontal and up and down."""

    name: Name
    across: Percent = 100
    down: Percent = 100

    def describe(self) -> str:
        """The speed in words: `45 %`, or `160 × 100 %` where both ways differ."""
        return f"{self.across} %" if self.across == self.down else f"{self.across} × {self.down} %"


class Pointing(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """How a profile has the pointer move: its pointer speeds, of which the first is in use at the start, the wheel's
    speed in percent, and within how many degrees of level or upright motion becomes straight (0: it stays as it is)."""

    stages: Annotated[tuple[SpeedStage, ...], msgspec.Meta(max_length=MAX_STAGES)] = ()
    wheel: Percent = 100
    straight: Annotated[int, msgspec.Meta(ge=0, le=MAX_STRAIGHT)] = 0

    def stage(self, name: str) -> SpeedStage | None:
        """The stage of this name, else the first one; None where there is none at all."""
        return next((stage for stage in self.stages if stage.name == name), self.stages[0] if self.stages else None)


class Motion(NamedTuple):
    """What motion and wheel are to be like now."""

    across: int = 100
    down: int = 100
    wheel: int = 100
    straight: int = 0


AS_IT_IS = Motion()


def motion_of(pointing: Pointing, stage: str) -> Motion | None:
    """What a profile makes of motion in one of its stages; None where it never makes anything of it, in no stage."""
    found = [Motion(each.across, each.down, pointing.wheel, pointing.straight) for each in pointing.stages]
    found = found or [Motion(wheel=pointing.wheel, straight=pointing.straight)]
    if all(each == AS_IT_IS for each in found):
        return None
    now = pointing.stage(stage)
    return found[pointing.stages.index(now)] if now else found[0]


class Conditioner:
    """Does it for one device, in one way. Give it each report's motion, and each turn of a wheel."""

    def __init__(self, motion: Motion = AS_IT_IS) -> None:
        self.motion = motion
        self._rest_x = self._rest_y = 0
        # Where it goes: the direction of late, weighted.
        self._direction_x = self._direction_y = 0
        # What is left of a turn and of a notch, by the wheel's axis.
        self._turns: dict[int, int] = {}
        self._parts: dict[int, int] = {}

    @property
    def moves_as_it_is(self) -> bool:
        """Whether motion stays unchanged."""
        return self.motion[:2] == (100, 100) and not self.motion.straight

    @property
    def turns_as_it_is(self) -> bool:
        """Whether the wheel stays unchanged."""
        return self.motion.wheel == 100

    def move(self, dx: int, dy: int) -> tuple[int, int]:
        """What a report's motion becomes, in the device's units."""
        across, down, _, straight = self.motion
        if straight:
            dx, dy = self._straightened(dx, dy)
        # Done for each report of a mouse that sends thousands a second, so without a call of `_parted`.
        right, below = dx * across + self._rest_x, dy * down + self._rest_y
        x = right // 100 if right >= 0 else -(-right // 100)
        y = below // 100 if below >= 0 else -(-below // 100)
        self._rest_x, self._rest_y = right - 100 * x, below - 100 * y
        return x, y

    def _straightened(self, dx: int, dy: int) -> tuple[int, int]:
        # The newest report counts in whole, so that a turn by a right angle shows at once.
        self._direction_x = self._direction_x * _KEEP // _OF + abs(dx) * 1_000
        self._direction_y = self._direction_y * _KEEP // _OF + abs(dy) * 1_000
        limit = _TANGENTS[self.motion.straight]
        if self._direction_y * 10_000 <= self._direction_x * limit:
            return dx, 0
        if self._direction_x * 10_000 <= self._direction_y * limit:
            return 0, dy
        return dx, dy

    def turn(self, axis: int, value: int, fine: bool) -> tuple[int, int]:
        """What a turn of a wheel becomes: parts of notches (0 where the wheel doesn't tell them), and whole notches.

        `axis` is any number that stands for the wheel, `value` how far it turned: with `fine` in 120ths of a notch, as
        a wheel tells that has them; its own whole notches aren't to be given then.
        """
        turned, self._turns[axis] = _parted(value * self.motion.wheel + self._turns.get(axis, 0), 100)
        if not fine:
            return 0, turned
        notches, self._parts[axis] = _parted(turned + self._parts.get(axis, 0), _NOTCH)
        return turned, notches


def _parted(value: int, by: int) -> tuple[int, int]:
    """The whole units toward zero, and what is left: a motion there and back ends where it began."""
    whole = abs(value) // by
    return (whole, value - whole * by) if value >= 0 else (-whole, value + whole * by)
