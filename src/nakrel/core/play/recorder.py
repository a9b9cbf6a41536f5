"""The recorder: input events in, steps out, with the times between them as they were performed."""

from __future__ import annotations

from collections.abc import Collection, Iterable

import msgspec

from nakrel.core.model.controls import CONTROLS, Kind
from nakrel.core.model.limits import MAX_WAIT_US
from nakrel.core.model.recording import Moves, RecordingSettings, Waits
from nakrel.core.model.steps import Pointer, Press, Release, Step, Wait, Wheel
from nakrel.core.play.events import Pressed, Released, Turned
from nakrel.core.play.path import Spot, thinned
from nakrel.words import noted, tr

__all__ = ["Recorder", "tidy"]


def tidy(steps: tuple[Step, ...] | list[Step], settings: RecordingSettings) -> list[Step]:
    """The recorded steps with their waits as recorded, all alike, or left out."""
    if settings.waits is Waits.PERFORMED:
        return list(steps)
    if settings.waits is Waits.NONE:
        kept = [step for step in steps if not isinstance(step, Wait)]
        return [msgspec.structs.replace(step, over_us=0) if isinstance(step, Pointer) else step for step in kept]
    return [Wait(wait_us=settings.even_us) if isinstance(step, Wait) else step for step in steps]


_COMPLETED = noted("completed: was still down at the end")
_BEGUN = noted("completed: was down at the beginning")
# Of a path that goes on and on, so much is thinned at a time.
_MOST_SPOTS = 500
# A pointer that stays for so long has come to its rest.
_REST_US = 40_000


class Recorder:
    """Feed it every event with its time in microseconds; `steps` grows with each.

    It catches the kinds of controls that `way` names; waits are kept as recorded, see `tidy`. The controls in `down`
    are held when it begins: each is completed by a press that is marked. Any other release without a press is left out
    (it belongs to the gesture that began the recording), and so is a repeated press of a control that is down already
    (key auto-repeat). Places of the pointer are on a screen of `screen` pixels, width and height.
    """

    def __init__(
        self,
        settings: RecordingSettings = RecordingSettings(),  # noqa: B008 - frozen
        down: Iterable[str] = (),
        began_us: int | None = None,
        screen: tuple[int, int] | None = None,
    ) -> None:
        self._settings = settings
        self.screen = screen
        self.steps: list[Step] = []
        self._down: dict[str, int] = {}
        self._last_us: int | None = began_us if settings.from_now else None
        self._path: list[Spot] = []
        self._place: tuple[int, int] | None = None
        for control in down:
            if settings.catches(control) and CONTROLS[control].kind is not Kind.WHEEL:
                self._down[control] = len(self.steps)
                self.steps.append(Press(control=control, remark=tr(_BEGUN)))
                self._last_us = began_us

    def move(self, x: int, y: int, at_us: int) -> bool:
        """The pointer is there now; True when steps came of it. For a path this is told every few milliseconds."""
        if self._settings.moves is not Moves.PATH:
            return False
        spot = Spot(at_us, x, y)
        if self._path and (self._path[-1].x, self._path[-1].y) == (x, y):
            if len(self._path) == 1:
                # It rests: a path begins where it rested last.
                self._path[0] = spot
                return False
            if at_us - self._path[-1].at_us < _REST_US:
                return False
            return self._flush_path()
        self._path.append(spot)
        return len(self._path) > _MOST_SPOTS and self._flush_path()

    def feed(self, event: Pressed | Released | Turned, at_us: int, place: tuple[int, int] | None = None) -> bool:
        """Take one event; True when it became a step. A time that goes backward counts as standing still. `place` is
        where the pointer is, where that is known."""
        if not self._settings.catches(event.control):
            return False
        self._flush_path(at_us)
        match event:
            case Pressed(control):
                if control in self._down:
                    return False
                self._wait_until(at_us)
                is_button = CONTROLS[control].kind is Kind.BUTTON
                if is_button and place and self._settings.moves is Moves.CLICKS and place != self._place:
                    self._place = place
                    self.steps.append(Pointer(x=place[0], y=place[1], size=self.screen))
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
        self._flush_path()
        self._remove_gesture(gesture)
        for control in reversed(self._down):
            self.steps.append(Release(control=control, remark=tr(_COMPLETED)))
        self._down.clear()
        return tuple(self.steps)

    def _flush_path(self, until_us: int | None = None) -> bool:
        """Make steps of the path so far; the spot where it ends begins the next one."""
        path = self._path if until_us is None else [spot for spot in self._path if spot.at_us <= until_us]
        if len(path) < 2:
            return False
        later = self._path[len(path) :]
        spots = thinned(path, self._settings.tolerance_px)
        self._wait_until(spots[0].at_us)
        for before, after in zip(spots, spots[1:], strict=False):
            over_us = max(0, after.at_us - (self._last_us or before.at_us))
            self.steps.append(Pointer(x=after.x, y=after.y, size=self.screen, over_us=min(over_us, MAX_WAIT_US)))
            self._last_us = max(self._last_us or 0, after.at_us)
        self._path = [path[-1], *later]
        return True

    def _wait_until(self, at_us: int) -> None:
        last = at_us if self._last_us is None else self._last_us
        if at_us > last:
            self.steps.append(Wait(wait_us=min(at_us - last, MAX_WAIT_US)))
        self._last_us = max(at_us, last)

    def _remove_gesture(self, gesture: Collection[str]) -> None:
        last = {s.control: n for n, s in enumerate(self.steps) if isinstance(s, Press) and s.control in gesture}
        if not last:
            return
        start = min(last.values())
        if any(getattr(s, "control", s) not in gesture for s in self.steps[start:] if not isinstance(s, Wait)):
            # Something else was recorded after that press: it wasn't the one that ended the recording.
            return
        # The pointer's way to the button is part of the gesture, as long as there is more in it than ways.
        before = self.steps[:start]
        keep = max((n + 1 for n, s in enumerate(before) if not isinstance(s, Wait | Pointer)), default=0)
        if keep or self._settings.moves is Moves.CLICKS:
            start = keep
        elif start and isinstance(self.steps[start - 1], Wait):
            start -= 1
        del self.steps[start:]
        for control in gesture:
            self._down.pop(control, None)
