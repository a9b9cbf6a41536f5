"""A macro's loop as a small picture shows it: its first controls, in no more detail than that can have."""

from __future__ import annotations

import msgspec

from nakrel.core.edit.timeline import lay_out
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Step

__all__ = ["Sketch", "sketch"]

# More stretches than that in a loop can't be told apart: the picture is some 300 pixels wide.
_MOST_STRETCHES = 300


class Sketch(msgspec.Struct, frozen=True):
    """How long a run of the loop takes, and when each control is down, in microseconds from the run's start."""

    loop_us: int
    traces: tuple[tuple[str, tuple[tuple[int, int], ...]], ...] = ()


def sketch(loop: tuple[Step, ...], controls: int = 3) -> Sketch:
    """The loop with so many of its controls, those that come first."""
    line = lay_out(Macro(id="sketch", name="sketch", loop=loop))
    least_us = line.loop_us // _MOST_STRETCHES
    first = list(line.spans.items())[:controls]
    return Sketch(
        line.loop_us,
        tuple((code, _joined([(span.start_us, span.end_us) for span in spans], least_us)) for code, spans in first),
    )


def _joined(stretches: list[tuple[int, int]], least_us: int) -> tuple[tuple[int, int], ...]:
    """Stretches that begin within so short a time of each other are one."""
    found: list[tuple[int, int]] = []
    for start, end in stretches:
        if found and start - found[-1][0] < least_us:
            found[-1] = found[-1][0], max(found[-1][1], end)
        else:
            found.append((start, end))
    return tuple(found)
