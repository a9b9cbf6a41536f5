"""Minutes of play in real time: every event of a macro of 500 taps a second is sent, once, and at its planned time.

A plan that is more than 20 ms late is moved rather than caught up with, as is meant for a machine that stood still.
So a program in C watches each processor beside the service, before which it comes: where it was kept, too, the
machine stood still, and where it wasn't, the service is at fault.
"""

from __future__ import annotations

import contextlib
import fcntl
import os
import subprocess
import time
from array import array
from pathlib import Path
from typing import NamedTuple

from bench.rig import Rig, build_reference

from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Tap, Wait
from nakrel.core.play.player import CATCH_UP_US
from soak.part import Found, Tell

__all__ = ["night_in_real_time"]

_HALF_US = 1_000
_TAP = Macro(
    id="tap", name="Tap", play=Play(Mode.TOGGLE), loop=(Tap(control="KEY_Q", hold_us=_HALF_US), Wait(wait_us=_HALF_US))
)
# Above what the service asks for: time that the service itself takes must not look like the machine's.
_PRIORITY = 10
# How often what came is taken, and the room for what comes meanwhile: a reader that is kept for long must not hold the
# service up.
_LOOK_S, _ROOM = 0.5, 1 << 20


class _Stall(NamedTuple):
    """A processor ran nothing between these, in monotonic microseconds."""

    from_us: int
    to_us: int


class _Watched:
    """A program in C on each processor that tells when that one stood still."""

    def __init__(self, reference: Path, seconds: int) -> None:
        self._each: list[subprocess.Popen[str]] = []
        for processor in sorted(os.sched_getaffinity(0)):
            watch = subprocess.Popen([reference, "stalls", str(seconds)], stdout=subprocess.PIPE, text=True)
            os.sched_setaffinity(watch.pid, {processor})
            # Where this isn't granted, the service hasn't got it either.
            with contextlib.suppress(PermissionError):
                os.sched_setscheduler(watch.pid, os.SCHED_FIFO, os.sched_param(_PRIORITY))
            self._each.append(watch)

    def stalls(self) -> list[_Stall]:
        """What they saw, once they have ended."""
        told = "".join(watch.communicate()[0] for watch in self._each)
        return sorted(_Stall(*map(int, line.split())) for line in told.splitlines())


class _Sent:
    """What came of the macro, event by event, against its plan."""

    def __init__(self) -> None:
        self.count = 0
        self.late_us = array("q")
        # Where the plan was moved: the event's number, when it should have been sent, and when it was planned then.
        self.moves: list[tuple[int, int, int]] = []
        self.failures: list[str] = []
        self._planned_us = 0

    def add(self, due_ns: int, at_ns: int, value: int) -> None:
        """The next event came."""
        due_us = due_ns // 1_000
        if value != (self.count + 1) % 2:
            self.failures.append(f"event {self.count} is {'a press' if value else 'a release'}")
        if at_ns < due_ns:
            self.failures.append(f"event {self.count} was sent {due_ns - at_ns} ns early")
        if self.count and due_us != self._planned_us:
            self.moves.append((self.count, self._planned_us, due_us))
        self.late_us.append((at_ns - due_ns) // 1_000)
        self._planned_us = due_us + _HALF_US
        self.count += 1


def night_in_real_time(count: int, seed: int, tell: Tell) -> Found:
    """So many real minutes."""
    rig, sent = Rig(_TAP), _Sent()
    fcntl.fcntl(rig.out_fd, fcntl.F_SETPIPE_SZ, _ROOM)
    watched = _Watched(build_reference(), count * 60 + 5)
    (button,) = rig.buttons(1)
    began = time.monotonic()
    _tap(rig, button)
    while (now := time.monotonic()) < began + count * 60:
        time.sleep(min(_LOOK_S, began + count * 60 - now))
        _take(rig, sent)
        tell(int(time.monotonic() - began) // 60)
    _tap(rig, button)
    played_us = (time.monotonic() - began) * 1_000_000
    time.sleep(_LOOK_S)
    _take(rig, sent)
    rig.end()
    return _judged(sent, watched.stalls(), played_us)


def _tap(rig: Rig, button: str) -> None:
    for value in (1, 0):
        rig.press(button, value)


def _take(rig: Rig, sent: _Sent) -> None:
    while came := rig.read(0):
        for event in came:
            sent.add(*event)


def _judged(sent: _Sent, stalls: list[_Stall], played_us: float) -> Found:
    """Every event follows on the one before by the plan, or after a time in which the machine stood still."""
    failures, moved_us = sent.failures, 0
    for number, planned_us, due_us in sent.moves:
        shift_us = due_us - planned_us
        if number == sent.count - 1 and -_HALF_US <= shift_us < 0:
            # The end, in the midst of a press: it is let go at once.
            continue
        still_us = _shared_us(planned_us, due_us, stalls)
        moved_us += shift_us
        if not CATCH_UP_US < shift_us <= still_us + CATCH_UP_US:
            still = f"the machine stood still for {still_us / 1_000:.1f}"
            failures.append(f"event {number} was moved by {shift_us / 1_000:.1f} ms; {still}")
    wanted = (played_us - moved_us) / _HALF_US
    if abs(sent.count - wanted) > CATCH_UP_US / _HALF_US:
        failures.append(f"{sent.count:,} events instead of {wanted:,.0f}")
    late = sorted(sent.late_us)
    still_us = sum(stall.to_us - stall.from_us for stall in stalls)
    note = (
        f"{sent.count:,} events, late by {late[len(late) // 2]} µs (median), {late[len(late) * 99 // 100]} µs (99 %); "
        f"the plan was moved {len(sent.moves)} times, by {moved_us / 1_000:,.0f} ms in all; processors stood still for "
        f"{still_us / 1_000:,.0f} ms"
    )
    return Found(failures, note)


def _shared_us(from_us: int, to_us: int, stalls: list[_Stall]) -> int:
    """How much of this time processors stood still, all the same which."""
    shared, so_far = 0, from_us
    for stall in stalls:
        start, end = max(stall.from_us, so_far), min(stall.to_us, to_us)
        if end > start:
            shared += end - start
            so_far = end
    return shared
