"""Builders: whole macros for what is wanted most, made from two or three figures."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

import msgspec

from nakrel.core.errors import DataError
from nakrel.core.macro import Macro, Mode, Play
from nakrel.core.names import read_control
from nakrel.core.steps import Press, Release, Step, Tap, Wait
from nakrel.core.units import parse_time

__all__ = ["BUILDERS", "Builder", "build"]

# A tap in a rhythm or a combo: short beside the time between taps, and long enough for a game at 60 frames a second.
_TAP_US = 20_000
_LEAST_CYCLE_US = 2_000


class Builder(NamedTuple):
    """What it makes, what its figure is, an example of it ('' for none), and how many controls it takes at most."""

    name: str
    figure: str
    example: str
    most: int
    make: Callable[[Macro, Sequence[str], int], Macro]


def build(macro: Macro, builder: Builder, controls: str, figure: str) -> Macro:
    """The macro with its steps and its way to play made anew. `controls` are names, separated by commas.

    Raises `DataError` for what can't be read.
    """
    codes = [read_control(name) for name in controls.split(",") if name.strip()]
    if not codes:
        raise DataError("which control? Write its name, or press it")
    if len(codes) > builder.most:
        raise DataError(f"{builder.name} takes {'one control' if builder.most == 1 else f'{builder.most} at most'}")
    return builder.make(macro, codes, parse_time(figure) if builder.example else 0)


def _with(macro: Macro, play: Play, **sections: tuple[Step, ...]) -> Macro:
    plain: dict[str, tuple[Step, ...]] = {"lead_in": (), "loop": (), "lead_out": ()}
    return msgspec.structs.replace(macro, play=play, **{**plain, **sections})


def _cycle(cycle_us: int) -> int:
    if cycle_us < _LEAST_CYCLE_US:
        raise DataError("that is faster than 500 a second, which is the fastest there is")
    return cycle_us


def _rapid_fire(macro: Macro, codes: Sequence[str], cycle_us: int) -> Macro:
    half = _cycle(cycle_us) // 2
    return _with(macro, Play(Mode.HELD, pause_us=cycle_us - half), loop=(Tap(control=codes[0], hold_us=half),))


def _rhythm(macro: Macro, codes: Sequence[str], cycle_us: int) -> Macro:
    hold = min(_TAP_US, _cycle(cycle_us) // 2)
    return _with(macro, Play(Mode.HELD, pause_us=cycle_us - hold), loop=(Tap(control=codes[0], hold_us=hold),))


def _hold(macro: Macro, codes: Sequence[str], _: int) -> Macro:
    return _with(
        macro,
        Play(Mode.TOGGLE),
        lead_in=tuple(Press(control=code) for code in codes),
        loop=(Wait(wait_us=1_000_000),),
        lead_out=tuple(Release(control=code) for code in reversed(codes)),
    )


def _combo(macro: Macro, codes: Sequence[str], between_us: int) -> Macro:
    steps: list[Step] = []
    for code in codes:
        steps += [Tap(control=code, hold_us=_TAP_US), Wait(wait_us=between_us)]
    return _with(macro, Play(Mode.SINGLE), loop=tuple(steps[:-1]))


BUILDERS = (
    Builder("rapid fire", "at", "20/s", 1, _rapid_fire),
    Builder("rhythm", "every", "500 ms", 1, _rhythm),
    Builder("hold until pressed again", "", "", 8, _hold),
    Builder("combo", "with waits of", "60 ms", 20, _combo),
)
