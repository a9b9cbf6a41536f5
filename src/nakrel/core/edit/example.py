"""A finger's press and the runs that follow it, as an example of how a macro plays."""

from __future__ import annotations

from typing import NamedTuple

from nakrel.core.model.macro import LetGo, Mode, Play, StartOn

__all__ = ["Example", "Span", "example"]

Span = tuple[int, int]
# The engine gives every run of a loop at least this (`player`).
_LEAST_RUN_US = 1_000
# A short press: 50 to 100 ms are common (common practice, no published source). Beside runs of seconds it is drawn
# longer, so that it can be seen.
_PRESS_US = 70_000
# More runs than this are too small to be told apart.
_MOST_RUNS = 4


class Example(NamedTuple):
    """When the finger is down and when the loop runs, in microseconds from the first press; how long it all takes, and
    whether runs were left out, since there are too many."""

    finger: tuple[Span, ...]
    runs: tuple[Span, ...]
    end_us: int
    more: bool = False


def example(run_us: int, play: Play) -> Example:
    """What happens where a run of the loop takes `run_us` microseconds and the finger does the usual."""
    run_us = max(run_us, _LEAST_RUN_US)
    cycle_us = run_us + play.pause_us
    press_us = min(max(_PRESS_US, run_us // 4), max(cycle_us // 2, run_us // 2))
    match play.mode:
        case Mode.SINGLE | Mode.COUNTED:
            start = press_us if play.start_on is StartOn.RELEASE else 0
            count = 1 if play.mode is Mode.SINGLE else play.runs
            runs = _runs(start, min(count, _MOST_RUNS), run_us, cycle_us)
            return _whole(((0, press_us),), runs, cycle_us, count > _MOST_RUNS)
        case Mode.HELD:
            held_us = 2 * cycle_us + run_us * 2 // 5
            runs = _runs(0, 3, run_us, cycle_us)
            if play.let_go is LetGo.AT_ONCE:
                runs = _until(runs, held_us)
            return _whole(((0, held_us),), runs, cycle_us, more=False)
        case Mode.TOGGLE:
            again_us = 3 * cycle_us + run_us * 2 // 5
            limit = min(play.limit_runs or _MOST_RUNS, -(-play.limit_us // cycle_us) if play.limit_us else _MOST_RUNS)
            runs = _runs(0, min(limit, _MOST_RUNS), run_us, cycle_us)
            if limit < _MOST_RUNS:
                return _whole(((0, press_us),), runs, cycle_us, more=False)
            return _whole(
                ((0, press_us), (again_us, again_us + press_us)), _until(runs, again_us), cycle_us, more=False
            )


def _runs(start_us: int, count: int, run_us: int, cycle_us: int) -> tuple[Span, ...]:
    return tuple((start_us + n * cycle_us, start_us + n * cycle_us + run_us) for n in range(count))


def _until(runs: tuple[Span, ...], end_us: int) -> tuple[Span, ...]:
    return tuple((start, min(end, end_us)) for start, end in runs if start < end_us)


def _whole(finger: tuple[Span, ...], runs: tuple[Span, ...], cycle_us: int, more: bool) -> Example:
    end_us = max(end for _, end in (*finger, *runs))
    return Example(finger, runs, end_us + max(cycle_us // 3, end_us // 12), more)
