"""Takes of the same thing side by side, as they were aligned. Without NumPy; see `aligned`."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

from nakrel.core.model.controls import label
from nakrel.core.model.lengths import length_us
from nakrel.core.model.limits import MAX_WAIT_US
from nakrel.core.model.steps import Chord, Press, Release, Step, Tap, Wait, Wheel
from nakrel.words import tr

__all__ = ["Aligned", "Difference", "Event", "Gap", "event_words", "events_of", "gaps_of", "quantile"]


def quantile(values: Sequence[float], share: float) -> float:
    """The value that a share of them don't exceed, by straight lines between them (R. J. Hyndman, Y. Fan, Sample
    quantiles in statistical packages, 1996, definition 7, as NumPy has it)."""
    ordered = sorted(values)
    at = (len(ordered) - 1) * share
    low = math.floor(at)
    high = min(low + 1, len(ordered) - 1)
    return ordered[low] + (ordered[high] - ordered[low]) * (at - low)


class Event(NamedTuple):
    """What happened: the control, 1 for down, 0 for up, notches of a wheel; and when, in microseconds from the first
    one."""

    control: str
    value: int
    at_us: int

    @property
    def what(self) -> tuple[str, int]:
        """All but the time."""
        return self.control, self.value


class Gap(NamedTuple):
    """The time before an event over all takes that have it and the one before: median, the spread (interquartile
    range), in microseconds, and the numbers of the takes in which it is far off."""

    median_us: int
    spread_us: int
    outliers: tuple[int, ...] = ()


class Difference(NamedTuple):
    """Something that a take has otherwise than the one that all are compared with."""

    take: int
    message: str


class Aligned(NamedTuple):
    """Takes side by side. `centre` is the number of the take that all are compared with, `events` are its events, and
    `times` has for each take when each of these was, in microseconds from its first event; None for one that is
    missing. `gaps` has the time before each event."""

    centre: int
    events: tuple[Event, ...]
    times: dict[int, tuple[int | None, ...]]
    gaps: tuple[Gap, ...]
    differences: tuple[Difference, ...]

    @property
    def complete(self) -> list[int]:
        """The numbers of the takes with the same events in the same order, the fastest first."""
        differ = {each.take for each in self.differences}
        return sorted((each for each in self.times if each not in differ), key=lambda each: self.times[each][-1] or 0)

    def spans(self, times: Sequence[int | None]) -> dict[str, list[tuple[int, int]]]:
        """When each control is down, in microseconds, with these times for the events. What lacks an end is left
        out."""
        down: dict[str, int] = {}
        found: dict[str, list[tuple[int, int]]] = {}
        for event, at in zip(self.events, times, strict=True):
            if at is None:
                down.pop(event.control, None)
            elif event.value:
                down.setdefault(event.control, at)
            elif (since := down.pop(event.control, None)) is not None:
                found.setdefault(event.control, []).append((since, at))
        return found

    def beside_others(self, take: int) -> dict[str, list[tuple[int, int]]]:
        """When each control was down in a take, put so that its first event stands where all others have it."""
        times = self.times[take]
        first = next((n for n, at in enumerate(times) if at is not None), None)
        if first is None:
            return {}
        aside = self.events[first].at_us - (times[first] or 0)
        return self.spans([None if at is None else at + aside for at in times])

    def steps(self, share: float = 0.5) -> tuple[Step, ...]:
        """The centre's events, each with the time before it that `share` of the takes don't exceed: 0.5 is the
        median."""
        made: list[Step] = []
        for number, event in enumerate(self.events):
            if number and (gap_us := self.gap_us(number, share)):
                made.append(Wait(wait_us=min(gap_us, MAX_WAIT_US)))
            made.append(_step(event))
        return tuple(made)

    def gap_us(self, number: int, share: float) -> int:
        """The time before an event that `share` of the takes don't exceed, in microseconds; 0 before the first."""
        if not number:
            return 0
        return round(quantile(gaps_of(self.times, number)[1], share))


def events_of(steps: Sequence[Step]) -> list[Event]:
    """The presses, releases and turns of a take, from its first one on."""
    found: list[Event] = []
    now = 0
    for step in steps:
        match step:
            case Press(control=control):
                found.append(Event(control, 1, now))
            case Release(control=control):
                found.append(Event(control, 0, now))
            case Tap(control=control):
                found += [Event(control, 1, now), Event(control, 0, now + length_us(step))]
            case Chord(controls=controls):
                found += [Event(each, 1, now) for each in controls]
                found += [Event(each, 0, now + length_us(step)) for each in reversed(controls)]
            case Wheel(control=control, notches=int(notches)):
                found.append(Event(control, notches, now))
        now += length_us(step)
    first = found[0].at_us if found else 0
    return [each._replace(at_us=each.at_us - first) for each in found]


def _step(event: Event) -> Step:
    if event.control.startswith("WHEEL"):
        return Wheel(control=event.control, notches=event.value)
    return Press(control=event.control) if event.value else Release(control=event.control)


def gaps_of(times: dict[int, tuple[int | None, ...]], number: int) -> tuple[list[int], list[int]]:
    """The takes that have an event and the one before it, and the time between these."""
    found = [
        (take, after - before)
        for take, at in times.items()
        if (before := at[number - 1]) is not None and (after := at[number]) is not None
    ]
    return [take for take, _ in found], [us for _, us in found]


def event_words(what: tuple[str, int]) -> str:
    """An event in words: 'press Q', 'Wheel up, 2'."""
    control, value = what
    if control.startswith("WHEEL"):
        return f"{label(control)}, {value}"
    return (tr("press {control}") if value else tr("release {control}")).format(control=label(control))
