"""Macros made to take long: how long it takes to lay them out in the window, and to check them beside it."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable

from nakrel.core.edit.timeline import lay_out
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import If, Otherwise, Repeat, Step, Tap, Wait
from nakrel.ui.app import spare_the_collector
from nakrel.worker_process import LookForSlips, Slips, ask, end

__all__ = ["hostile_times"]

_TAP, _WAIT = Tap(control="KEY_Q", hold_us=1_000), Wait(wait_us=1_000)
_BOTH: tuple[Step, ...] = (_TAP, _WAIT)


def _nested(depth: int, inner: tuple[Step, ...]) -> tuple[Step, ...]:
    for _ in range(depth):
        inner = (Repeat(times=1_000, steps=inner),)
    return inner


_LOOPS: dict[str, tuple[Step, ...]] = {
    "six repeats of 1,000 in each other": _nested(6, _BOTH),
    "formulas in four repeats of 1,000 in each other": _nested(4, (Wait(wait_us="random(1, 5) * 2 + run"), _TAP)),
    "3,000 repeats of 10,000": tuple(Repeat(times=10_000, steps=_BOTH) for _ in range(3_000)),
    "a million taps without any time": (Repeat(times=1_000_000, steps=(Tap(control="KEY_Q", hold_us=0),)),),
    "10,000 conditions": tuple(
        If(condition="run > 3", steps=_BOTH, otherwise=Otherwise(steps=_BOTH[::-1])) for _ in range(10_000)
    ),
}


# What the process does after an answer, before edits rest again.
_REST_S = 0.5


def hostile_times(rounds: int) -> dict[str, tuple[float, float, float]]:
    """For each the medians of laying it out as the window does, and until the process beside it has told what it knows
    first and what it found; in milliseconds."""
    spare_the_collector()
    found = {}
    for name, loop in _LOOPS.items():
        macro = Macro(id="hostile", name="Hostile", loop=loop)
        # The first time starts the process.
        _check(macro)
        looked = [_check(macro) for _ in range(rounds)]
        first, last = (statistics.median(column) for column in zip(*looked, strict=True))
        found[name] = _median(rounds, lay_out, macro), first, last
    end()
    return found


def _check(macro: Macro) -> tuple[float, float]:
    """How long its first answer takes, and the whole one."""
    time.sleep(_REST_S)
    came: list[float] = []
    start = time.perf_counter()
    ask(LookForSlips(macro, 6), Slips, so_far=lambda part: came.append(time.perf_counter()))
    came.append(time.perf_counter())
    return (came[0] - start) * 1_000, (came[-1] - start) * 1_000


def _median(rounds: int, work: Callable[[Macro], object], macro: Macro) -> float:
    took = []
    for _ in range(rounds):
        time.sleep(_REST_S)
        start = time.perf_counter()
        work(macro)
        took.append((time.perf_counter() - start) * 1_000)
    return statistics.median(took)
