"""A macro laid out in time, one run of it: when each step starts, and when each control is down."""

from __future__ import annotations

from typing import NamedTuple

from nakrel.core.edits import rows
from nakrel.core.macro import Macro, Section
from nakrel.core.steps import Press, Release, Tap, Wheel, length_us

__all__ = ["Timeline", "Zone", "lay_out"]

# How long a wheel notch is drawn; it has no length of its own.
NOTCH_US = 3_000


class Zone(NamedTuple):
    """A section's stretch of time, in microseconds."""

    section: Section
    start_us: int
    end_us: int


class Timeline(NamedTuple):
    """`starts_us` has one entry a row; `spans` the down times of each control, in the order of first use. A control
    that is still down at the end is let go there, as the engine does it."""

    starts_us: list[int]
    zones: list[Zone]
    spans: dict[str, list[tuple[int, int]]]
    length_us: int


def lay_out(macro: Macro) -> Timeline:
    """Lay out one run of each section."""
    starts: list[int] = []
    spans: dict[str, list[tuple[int, int]]] = {}
    down: dict[str, int] = {}
    ends: dict[Section, int] = {}
    now = 0
    for section, step in rows(macro):
        starts.append(now)
        if not step.off:
            if isinstance(step, Press):
                spans.setdefault(step.control, [])
                down.setdefault(step.control, now)
            elif isinstance(step, Release) and step.control in down:
                spans[step.control].append((down.pop(step.control), now))
            elif isinstance(step, Tap):
                # A tap of a control that is down already lets it go at its end.
                since = down.pop(step.control, now)
                spans.setdefault(step.control, []).append((since, now + step.hold_us))
            elif isinstance(step, Wheel):
                spans.setdefault(step.control, []).append((now, now + NOTCH_US))
        now += length_us(step)
        ends[section] = now
    for control, since in down.items():
        spans[control].append((since, now))
    return Timeline(starts, _zones(macro, ends), spans, now)


def _zones(macro: Macro, ends: dict[Section, int]) -> list[Zone]:
    zones, start = [], 0
    for section in Section:
        if macro.section(section):
            zones.append(Zone(section, start, ends[section]))
            start = ends[section]
    return zones
