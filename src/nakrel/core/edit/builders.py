"""Builders: whole macros for what is wanted most, made from two or three figures."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from enum import StrEnum
from typing import Any, NamedTuple

import msgspec

from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import MAX_RATE
from nakrel.core.model.macro import Macro, Mode, Play, Section
from nakrel.core.model.names import read_shown
from nakrel.core.model.steps import Chord, Pointer, Press, Release, Step, Tap, Text, Wait, walk
from nakrel.core.model.units import parse_time
from nakrel.words import noted, tr

__all__ = ["BUILDERS", "CLICK_SEQUENCE", "RAPID_FIRE", "Asks", "Builder", "Figure", "build", "controls_of"]

# A tap in a rhythm or a row: short beside the time between taps, and long enough for a game at 60 frames a second.
_TAP_US = 20_000
_LEAST_CYCLE_US = 2_000
# A recorded click lasts around 50 to 150 ms (common practice, no published source).
_CLICK_US = 50_000


class Asks(StrEnum):
    """What a builder needs besides its figures."""

    CONTROLS = "controls"
    TEXT = "text"
    PLACES = "places"


class Figure(NamedTuple):
    """A time or rate that a builder takes: the words before its field, and an example."""

    name: str
    example: str


class Builder(NamedTuple):
    """What it makes, what it asks for, its figures, and how many controls or places it takes at most."""

    name: str
    asks: Asks
    figures: tuple[Figure, ...]
    most: int
    make: Callable[[Macro, Sequence[Any], Sequence[int]], Macro]


def build(macro: Macro, builder: Builder, what: str, figures: Sequence[str], places: Sequence[Pointer] = ()) -> Macro:
    """The macro with its steps and its way to play made anew. `what` are names of controls, separated by commas, or a
    text; `places` where places are asked for.

    Raises `DataError` for what can't be read.
    """
    times = [parse_time(figure) for figure in figures[: len(builder.figures)]]
    if builder.asks is Asks.TEXT:
        if not what:
            raise DataError(tr("which text? Write it in the field"))
        return builder.make(macro, [what], times)
    if builder.asks is Asks.PLACES:
        if not places:
            raise DataError(tr("which places? Pick them on the screen"))
        return builder.make(macro, places, times)
    codes = [read_shown(name) for name in what.split(",") if name.strip()]
    if not codes:
        raise DataError(tr("which key or button? Write its name, or press it"))
    if len(codes) > builder.most:
        raise DataError(
            tr("this takes one key or button")
            if builder.most == 1
            else tr("this takes {most} keys and buttons at most").format(most=builder.most)
        )
    return builder.make(macro, codes, times)


def controls_of(macro: Macro) -> list[str]:
    """The keys and buttons that the macro presses, in the order of first use."""
    found: dict[str, None] = {}
    for section in Section:
        for step in walk(macro.section(section)):
            match step:
                case Press(control=control) | Tap(control=control):
                    found[control] = None
                case Chord(controls=controls):
                    found.update(dict.fromkeys(controls))
    return list(found)


def _with(macro: Macro, play: Play, **sections: tuple[Step, ...]) -> Macro:
    plain: dict[str, tuple[Step, ...]] = {"lead_in": (), "loop": (), "lead_out": ()}
    return msgspec.structs.replace(macro, play=play, **{**plain, **sections})


def _cycle(cycle_us: int) -> int:
    if cycle_us < _LEAST_CYCLE_US:
        raise DataError(tr("that is faster than 500 a second, which is the fastest there is"))
    return cycle_us


def _rapid_fire(macro: Macro, codes: Sequence[str], figures: Sequence[int]) -> Macro:
    (cycle_us,) = figures
    half = _cycle(cycle_us) // 2
    return _with(macro, Play(Mode.HELD, pause_us=cycle_us - half), loop=(Tap(control=codes[0], hold_us=half),))


def _rhythm(macro: Macro, codes: Sequence[str], figures: Sequence[int]) -> Macro:
    (cycle_us,) = figures
    hold = min(_TAP_US, _cycle(cycle_us) // 2)
    return _with(macro, Play(Mode.HELD, pause_us=cycle_us - hold), loop=(Tap(control=codes[0], hold_us=hold),))


def _hold(macro: Macro, codes: Sequence[str], figures: Sequence[int]) -> Macro:
    return _with(
        macro,
        Play(Mode.TOGGLE),
        lead_in=tuple(Press(control=code) for code in codes),
        loop=(Wait(wait_us=1_000_000),),
        lead_out=tuple(Release(control=code) for code in reversed(codes)),
    )


def _in_a_row(macro: Macro, codes: Sequence[str], figures: Sequence[int]) -> Macro:
    (between_us,) = figures
    steps: list[Step] = []
    for code in codes:
        steps += [Tap(control=code, hold_us=_TAP_US), Wait(wait_us=between_us)]
    return _with(macro, Play(Mode.SINGLE), loop=tuple(steps[:-1]))


def _combination(macro: Macro, codes: Sequence[str], figures: Sequence[int]) -> Macro:
    (hold_us,) = figures
    step = Chord(controls=tuple(codes), hold_us=hold_us) if len(codes) > 1 else Tap(control=codes[0], hold_us=hold_us)
    return _with(macro, Play(Mode.SINGLE), loop=(step,))


def _text(macro: Macro, texts: Sequence[str], figures: Sequence[int]) -> Macro:
    (each_us,) = figures
    rate = round(1_000_000 / max(1, each_us))
    if not 1 <= rate <= MAX_RATE:
        raise DataError(tr("a text is typed at 1 to {most} characters a second").format(most=MAX_RATE))
    return _with(macro, Play(Mode.SINGLE), loop=(Text(text=texts[0], rate=rate),))


def _places(macro: Macro, places: Sequence[Pointer], figures: Sequence[int]) -> Macro:
    settle_us, after_us = figures
    steps: list[Step] = []
    for place in places:
        steps += [place, Wait(wait_us=settle_us), Tap(control="BTN_LEFT", hold_us=_CLICK_US), Wait(wait_us=after_us)]
    return _with(macro, Play(Mode.SINGLE), loop=tuple(steps))


RAPID_FIRE = Builder(
    noted("rapid fire", "builder"), Asks.CONTROLS, (Figure(noted("at", "builder"), "20/s"),), 1, _rapid_fire
)
CLICK_SEQUENCE = Builder(
    noted("click sequence", "builder"),
    Asks.PLACES,
    (Figure(noted("click after", "builder"), "200 ms"), Figure(noted("then wait", "builder"), "1 s")),
    100,
    _places,
)
BUILDERS = (
    RAPID_FIRE,
    Builder(noted("rhythm", "builder"), Asks.CONTROLS, (Figure(noted("every", "builder"), "500 ms"),), 1, _rhythm),
    Builder(noted("hold until pressed again", "builder"), Asks.CONTROLS, (), 8, _hold),
    Builder(
        noted("combination", "builder"), Asks.CONTROLS, (Figure(noted("held", "builder"), "50 ms"),), 8, _combination
    ),
    Builder(
        noted("keys in a row", "builder"),
        Asks.CONTROLS,
        (Figure(noted("with waits of", "builder"), "60 ms"),),
        20,
        _in_a_row,
    ),
    Builder(noted("text", "builder"), Asks.TEXT, (Figure(noted("at", "builder"), "30/s"),), 1, _text),
    CLICK_SEQUENCE,
)
