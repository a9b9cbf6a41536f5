"""The pen: where in its diagram a running macro is."""

from __future__ import annotations

from collections.abc import Iterable

from nakrel.core.edit.timeline import Timeline
from nakrel.core.model.macro import Section
from nakrel.core.model.runs import RunRecord
from nakrel.protocol import SeenEvent

__all__ = ["Pen"]

# How far ahead the next edge is looked for, in steps outside of blocks' worth of spans.
_AHEAD_US = 60_000_000


class Pen:
    """Follows a run: time carries it on, and each edge that is sent puts it where that edge is planned.

    So it keeps to the drawing also where chance makes the run longer or shorter than what is drawn.
    """

    def __init__(self) -> None:
        self._line: Timeline | None = None
        self._us = 0.0
        self._since_us = 0

    def start(self, line: Timeline, since_us: int) -> None:
        """A run began at a monotonic time, in microseconds."""
        self._line, self._us, self._since_us = line, 0.0, since_us

    def stop(self) -> None:
        """The run has ended."""
        self._line = None

    @property
    def running(self) -> bool:
        """Whether there is a run to follow."""
        return self._line is not None

    def follow(self, events: Iterable[SeenEvent]) -> None:
        """Go by the edges that were sent."""
        for event in events:
            if self._line is not None and (found := self._next(event)) is not None:
                self._us, self._since_us = float(found), event.at_us

    def at_us(self, now_us: int) -> float | None:
        """Where the pen is at a monotonic time; None while no macro runs."""
        if self._line is None:
            return None
        first, last = self._loop()
        at = self._us + (now_us - self._since_us)
        return min(at, float(last)) if last > first else at

    def _loop(self) -> tuple[int, int]:
        assert self._line
        zone = next((zone for zone in self._line.zones if zone.section is Section.LOOP), None)
        return (zone.start_us, zone.end_us) if zone else (0, self._line.length_us)

    def _next(self, event: SeenEvent) -> int | None:
        """The first such edge after the pen; else the first one of the loop, which has begun anew."""
        assert self._line
        first, _ = self._loop()
        for since in (int(self._us), first):
            spans = self._line.spans_between(since, since + _AHEAD_US).get(event.control, ())
            times = (span.start_us if event.value else span.end_us for span in spans)
            if (found := min((at for at in times if at >= since), default=None)) is not None:
                return found
        return None


def actual_spans(record: RunRecord, line: Timeline) -> dict[str, list[tuple[int, int]]]:
    """What a run really held down and for how long, as far as one run of the macro is drawn."""
    found: dict[str, list[tuple[int, int]]] = {}
    down: dict[str, int] = {}
    for event in record.events:
        if event.due_us + bool(event.value) > line.length_us:
            # What is pressed at the very end belongs to the next run.
            break
        spans = found.setdefault(event.control, [])
        if event.control.startswith("WHEEL") or event.control not in line.controls:
            spans.append((event.at_us, event.at_us + 3_000))
        elif event.value:
            down[event.control] = event.at_us
        elif event.control in down:
            spans.append((down.pop(event.control), event.at_us))
    for control, since in down.items():
        found[control].append((since, line.length_us))
    return found
