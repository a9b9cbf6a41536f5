"""The recorder: input events in, steps out, with the times between them as they were performed."""

from __future__ import annotations

from collections.abc import Collection
from enum import StrEnum

import msgspec

from nakrel.core.controls import CONTROLS, Kind
from nakrel.core.events import Pressed, Released, Turned
from nakrel.core.steps import Press, Release, Step, Wait, Wheel
from nakrel.core.units import MAX_WAIT_US, WaitUs

__all__ = ["Recorder", "Waits", "WayToRecord", "Where", "tidy"]


class Waits(StrEnum):
    """How the times between inputs are kept."""

    PERFORMED = "performed"
    EVEN = "even"
    NONE = "none"


class Where(StrEnum):
    """Where in the macro a recording goes."""

    CURSOR = "cursor"
    END = "end"
    REPLACE = "replace"


class WayToRecord(msgspec.Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What is caught, how waits are kept, where the steps go, how long after the button it begins, and for how long it
    goes on at most (seconds; 0 for no countdown and no limit)."""

    keys: bool = True
    buttons: bool = True
    wheel: bool = True
    waits: Waits = Waits.PERFORMED
    even_us: WaitUs = 25_000
    where: Where = Where.CURSOR
    countdown_s: int = 0
    limit_s: int = 0

    def catches(self, control: str) -> bool:
        """Whether this control is recorded."""
        return {Kind.KEY: self.keys, Kind.BUTTON: self.buttons, Kind.WHEEL: self.wheel}[CONTROLS[control].kind]


def tidy(steps: tuple[Step, ...] | list[Step], way: WayToRecord) -> list[Step]:
    """The recorded steps with their waits as performed, all alike, or left out."""
    if way.waits is Waits.PERFORMED:
        return list(steps)
    if way.waits is Waits.NONE:
        return [step for step in steps if not isinstance(step, Wait)]
    return [Wait(wait_us=way.even_us) if isinstance(step, Wait) else step for step in steps]


_COMPLETED = "completed: was still down at the end"


class Recorder:
    """Feed it every event with its time in microseconds; `steps` grows with each.

    It catches the kinds of controls that `way` names; waits are kept as performed, see `tidy`. A release whose press
    came before the beginning is left out (it belongs to the gesture that began the recording), and so is a repeated
    press of a control that is down already (key auto-repeat).
    """

    def __init__(self, way: WayToRecord = WayToRecord()) -> None:  # noqa: B008 - frozen
        self._way = way
        self.steps: list[Step] = []
        self._down: dict[str, int] = {}
        self._last_us: int | None = None

    def feed(self, event: Pressed | Released | Turned, at_us: int) -> bool:
        """Take one event; True when it became a step. A time that goes backward counts as standing still."""
        if not self._way.catches(event.control):
            return False
        match event:
            case Pressed(control):
                if control in self._down:
                    return False
                self._wait_until(at_us)
                self._down[control] = len(self.steps)
                self.steps.append(Press(control=control))
            case Released(control):
                if control not in self._down:
                    return False
                del self._down[control]
                self._wait_until(at_us)
                self.steps.append(Release(control=control))
            case Turned(control, notches):
                self._wait_until(at_us)
                self.steps.append(Wheel(control=control, notches=notches))
        return True

    def finish(self, gesture: Collection[str] = ()) -> tuple[Step, ...]:
        """End, and return all steps.

        `gesture` is what was pressed to end the recording (the click on the Stop button, or the keys of a
        shortcut): the last press of each and all that came after are taken out. What is still down is completed
        by a release at the end, with a remark that says so.
        """
        self._take_out(gesture)
        for control in reversed(self._down):
            self.steps.append(Release(control=control, remark=_COMPLETED))
        self._down.clear()
        return tuple(self.steps)

    def _wait_until(self, at_us: int) -> None:
        last = at_us if self._last_us is None else self._last_us
        if at_us > last:
            self.steps.append(Wait(wait_us=min(at_us - last, MAX_WAIT_US)))
        self._last_us = max(at_us, last)

    def _take_out(self, gesture: Collection[str]) -> None:
        last = {s.control: n for n, s in enumerate(self.steps) if isinstance(s, Press) and s.control in gesture}
        if not last:
            return
        start = min(last.values())
        if any(getattr(s, "control", s) not in gesture for s in self.steps[start:] if not isinstance(s, Wait)):
            # Something else was recorded after that press: it wasn't the one that ended the recording.
            return
        if start and isinstance(self.steps[start - 1], Wait):
            start -= 1
        del self.steps[start:]
        for control in gesture:
            self._down.pop(control, None)
