"""Using a take: what of the pointer is taken over, whether presses are joined into taps, and how its delays count."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import msgspec

from nakrel.core.model.controls import CONTROLS, Kind
from nakrel.core.model.limits import MAX_WAIT_US
from nakrel.core.model.recording import Moves, RecordingSettings
from nakrel.core.model.steps import Pointer, Press, Release, Step, Tap, Wait
from nakrel.core.play.recorder import tidy

__all__ = ["length_us", "used"]


def used(steps: Sequence[Step], settings: RecordingSettings) -> list[Step]:
    """The steps of a take as the settings say. The time of all that stays is what it was, unless delays are to be of
    one value or left out."""
    kept = _pointer(steps, settings.moves)
    if settings.moves is not Moves.PATH:
        # The pointer's way before the first press and after the last one is nobody's wait.
        while kept and isinstance(kept[0], Wait) and not settings.from_now:
            del kept[0]
        while kept and isinstance(kept[-1], Wait):
            del kept[-1]
    kept = tidy(kept, settings)
    return _taps(kept) if settings.taps else kept


def length_us(steps: Iterable[Step]) -> int:
    """How long a take is, in microseconds."""
    total = 0
    for step in steps:
        if isinstance(step, Wait) and isinstance(step.wait_us, int):
            total += step.wait_us
        elif isinstance(step, Pointer) and isinstance(step.over_us, int):
            total += step.over_us
    return total


def _pointer(steps: Sequence[Step], moves: Moves) -> list[Step]:
    """The steps with the pointer's path, with its place before each click, or without it; waits take the time of what
    is left out."""
    if moves is Moves.PATH:
        return list(steps)
    result: list[Step] = []
    place: Pointer | None = None
    waited = 0

    def wait() -> None:
        nonlocal waited
        while waited:
            part = min(waited, MAX_WAIT_US)
            result.append(Wait(wait_us=part))
            waited -= part

    for step in steps:
        if isinstance(step, Pointer):
            place = step
            waited += step.over_us if isinstance(step.over_us, int) else 0
        elif isinstance(step, Wait) and isinstance(step.wait_us, int):
            waited += step.wait_us
        else:
            wait()
            clicks = isinstance(step, Press) and CONTROLS[step.control].kind is Kind.BUTTON
            if clicks and place is not None and moves is Moves.CLICKS:
                result.append(msgspec.structs.replace(place, over_us=0))
                place = None
            result.append(step)
    wait()
    return result


def _taps(steps: Sequence[Step]) -> list[Step]:
    """A press, its wait and its release as one tap, where nothing else is between them."""
    result: list[Step] = []
    at = 0
    while at < len(steps):
        step = steps[at]
        after = steps[at + 1 : at + 3]
        if isinstance(step, Press) and not step.remark:
            hold_us: int | None = None
            if after and isinstance(after[0], Release) and after[0].control == step.control and not after[0].remark:
                hold_us, used_up = 0, 2
            elif (
                len(after) == 2
                and isinstance(after[0], Wait)
                and isinstance(after[0].wait_us, int)
                and after[0].most_us is None
                and isinstance(after[1], Release)
                and after[1].control == step.control
                and not after[1].remark
            ):
                hold_us, used_up = after[0].wait_us, 3
            if hold_us is not None:
                result.append(Tap(control=step.control, hold_us=hold_us))
                at += used_up
                continue
        result.append(step)
        at += 1
    return result
