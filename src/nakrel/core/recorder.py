"""The recorder: input events in, steps out, with the times between them as they were performed."""

from __future__ import annotations

from collections.abc import Collection

from nakrel.core.events import Pressed, Released, Turned
from nakrel.core.steps import Press, Release, Step, Wait, Wheel
from nakrel.core.units import MAX_WAIT_US

__all__ = ["Recorder"]

_COMPLETED = "completed: was still down at the end"


class Recorder:
    """Feed it every event with its time in microseconds; `steps` grows with each.

    A release whose press came before the beginning is left out (it belongs to the gesture that began the
    recording), and so is a repeated press of a control that is down already (key auto-repeat).
    """

    def __init__(self) -> None:
        self.steps: list[Step] = []
        self._down: dict[str, int] = {}
        self._last_us: int | None = None

    def feed(self, event: Pressed | Released | Turned, at_us: int) -> bool:
        """Take one event; True when it became a step. A time that goes backward counts as standing still."""
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
