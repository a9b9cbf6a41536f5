"""Minutes of play in real time: every event of a macro of 500 taps a second is sent, once, and at its planned time.

A plan that is more than 20 ms late is moved rather than caught up with, as is meant for a machine that stood still.
So a program in C watches each processor beside the service, before which it comes: where it was kept, too, the
machine stood still, and where it wasn't, the service is at fault.
"""

from __future__ import annotations

import contextlib
import os
import subprocess
import tempfile
import time
from pathlib import Path
from typing import NamedTuple

from tests.support import ServiceProcess

from nakrel import protocol as m
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.runs import RunEvent, RunRecord
from nakrel.core.model.steps import Tap, Wait
from nakrel.core.play.player import CATCH_UP_US
from nakrel.service.runs import LAST
from soak.part import Found, Tell

__all__ = ["night_in_real_time"]

_SOURCE = Path(__file__).parent.parent / "bench" / "reference.c"
_HALF_US = 1_000
_TAP = Macro(
    id="tap", name="Tap", play=Play(Mode.TOGGLE), loop=(Tap(control="KEY_Q", hold_us=_HALF_US), Wait(wait_us=_HALF_US))
)
# This long brings half of the events of a run that the service keeps.
_LOOK_S = LAST / 2 * _HALF_US / 1_000_000
# Above what the service asks for: time that the service itself takes must not look like the machine's.
_PRIORITY = 10


class _Stall(NamedTuple):
    """A processor ran nothing between these, in monotonic microseconds."""

    from_us: int
    to_us: int


class _Watched:
    """A program in C on each processor that tells when that one stood still."""

    def __init__(self, folder: Path, seconds: int) -> None:
        reference = folder / "reference"
        subprocess.run(["gcc", "-O2", "-o", reference, _SOURCE, "-lm"], check=True)
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


def night_in_real_time(count: int, seed: int, tell: Tell) -> Found:
    """So many real minutes."""
    with tempfile.TemporaryDirectory() as folder:
        service = ServiceProcess(Path(folder) / "home", "--backend", "stand-in")
        service.call(m.PutMacro(_TAP))
        watched = _Watched(Path(folder), count * 60 + 5)
        service.call(m.Play_("tap"))
        began = time.monotonic()
        events: list[RunEvent] = []
        while (now := time.monotonic()) < began + count * 60:
            time.sleep(min(_LOOK_S, began + count * 60 - now))
            _add(events, service)
            tell(int(time.monotonic() - began) // 60)
        service.call(m.Stop("tap"))
        record = _add(events, service)
        service.end()
        stalls = watched.stalls()
    return _judged(events, record, stalls, count)


def _add(events: list[RunEvent], service: ServiceProcess) -> RunRecord:
    """Add the events that are new."""
    answer = service.call(m.GetRun("tap"))
    assert isinstance(answer, m.RunIs)
    assert answer.record
    record = answer.record
    new = record.left_out + len(record.events) - len(events)
    if record.left_out and new > LAST:
        raise RuntimeError("events were left out between two looks")
    events += record.events[len(record.events) - new :]
    return record


def _judged(events: list[RunEvent], record: RunRecord, stalls: list[_Stall], minutes: int) -> Found:
    """Every event follows on the one before by the plan, or after a time in which the machine stood still."""
    failures: list[str] = []
    moved_us, moves, before = 0, 0, events[0]
    for n, event in enumerate(events):
        if event.value != (n + 1) % 2 or event.control != "KEY_Q":
            failures.append(f"event {n} is {event.control} {event.value}")
        if not n:
            continue
        planned_us = before.due_us + _HALF_US
        shift_us = event.due_us - planned_us
        if shift_us:
            moves += 1
            moved_us += shift_us
            from_us = record.began_us + planned_us
            still_us = _shared_us(from_us, from_us + shift_us, stalls)
            if not CATCH_UP_US < shift_us <= still_us + CATCH_UP_US:
                still = f"the machine stood still for {still_us / 1_000:.1f}"
                failures.append(f"event {n} was moved by {shift_us / 1_000:.1f} ms; {still}")
        if event.at_us < event.due_us:
            failures.append(f"event {n} was sent {event.due_us - event.at_us} µs early")
        before = event
    if events[-1].due_us < (minutes * 60 - 1) * 1_000_000:
        failures.append(f"the macro ended after {events[-1].due_us / 1_000_000:.0f} s: {record.reason}")
    late = sorted(event.at_us - event.due_us for event in events)
    note = (
        f"{len(events):,} events, late by {late[len(late) // 2]} µs (median), {late[len(late) * 99 // 100]} µs (99 %); "
        f"the plan was moved by {moved_us / 1_000:.0f} ms in {moves} times the machine stood still, of {len(stalls)}"
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
