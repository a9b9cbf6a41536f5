"""The Range: presses as they come, counted, timed, and looked at as a game would. Without NumPy and without a clock."""

from __future__ import annotations

import bisect
import csv
import io
import math
from collections import deque
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from nakrel.core.analysis.takes import quantile
from nakrel.core.model.limits import MAX_WAIT_US
from nakrel.core.model.steps import Press, Release, Step, Wait, Wheel

__all__ = [
    "BOUNCE_US",
    "FINGER",
    "MOST_EVENTS",
    "Came",
    "Lane",
    "Range",
    "Row",
    "bins_of",
    "histogram",
    "suggested_us",
    "to_csv",
    "to_steps",
]

FINGER = "in"
SECOND_US = 1_000_000
# So many events are kept to be saved.
MOST_EVENTS = 20_000
# A second press so soon is taken for a bouncing switch by libinput, too ("Button debouncing" in its documentation).
BOUNCE_US = 25_000
# The bounds of the histograms, in milliseconds: each some 1.4 times the one before.
_BOUNDS_MS = (1, 2, 3, 5, 7, 10, 14, 20, 28, 40, 57, 80, 113, 160, 226, 320, 453, 640, 905, 1_280)


class Came(NamedTuple):
    """An event: what it comes from (`FINGER`, or a macro's id), the control, 1 for down, 0 for up, notches of a wheel,
    and when, in microseconds of any clock; and the key that a device sends for the control, '' for that itself."""

    by: str
    control: str
    value: int
    at_us: int
    sent: str = ""


class Lane(NamedTuple):
    """What is counted together: a control, and what presses it."""

    control: str
    by: str


class Row(NamedTuple):
    """What is known of a lane. Presses (or notches) in all, in the last second, and in the best second; median and
    shortest hold and gap in microseconds, None where there is none yet; how many presses a game has seen that looks
    once a frame; and how many presses of a finger came within `BOUNCE_US` after a release."""

    lane: Lane
    presses: int
    now: int
    best: int
    hold_us: float | None
    shortest_hold_us: int | None
    gap_us: float | None
    shortest_gap_us: int | None
    seen: int
    bounces: int = 0


class _Counts:
    """One lane's events."""

    def __init__(self) -> None:
        self.presses = self.best = self.seen = 0
        self.downs: deque[int] = deque()
        self.holds: list[int] = []
        self.gaps: list[int] = []
        self.spans: deque[tuple[int, int]] = deque()
        self.down_us: int | None = None
        self.up_us: int | None = None
        # The number of the frame that found it up last after a press that was seen.
        self.free_from = -math.inf

    def press(self, at_us: int, count: int) -> None:
        self.presses += count
        self.downs.extend([at_us] * count)
        while self.downs and self.downs[0] <= at_us - SECOND_US:
            self.downs.popleft()
        self.best = max(self.best, len(self.downs))


class Range:
    """Feed it events in the order in which they came; ask it for `rows` and `spans` at any time.

    The game looks at the ends of frames that begin when the Range does, `fps` a second: a press is seen when a look
    finds the control down that has found it up since the press before.
    """

    def __init__(self, start_us: int, fps: float = 60.0) -> None:
        self.start_us, self.fps = start_us, fps
        self.events: list[Came] = []
        self.left_out = 0
        self._lanes: dict[Lane, _Counts] = {}

    def feed(self, event: Came) -> None:
        """One more event."""
        if len(self.events) < MOST_EVENTS:
            self.events.append(event)
        else:
            self.left_out += 1
        counts = self._lanes.setdefault(Lane(event.control, event.by), _Counts())
        if event.control.startswith("WHEEL"):
            if event.value:
                counts.press(event.at_us, abs(event.value))
                counts.seen += abs(event.value)
                counts.spans.append((event.at_us, event.at_us))
        elif event.value:
            self._down(counts, event.at_us)
        else:
            self._up(counts, event.at_us)

    def _down(self, counts: _Counts, at_us: int) -> None:
        if counts.down_us is not None:
            return
        counts.down_us = at_us
        counts.press(at_us, 1)
        if counts.up_us is not None:
            counts.gaps.append(at_us - counts.up_us)

    def _up(self, counts: _Counts, at_us: int) -> None:
        if (down_us := counts.down_us) is None:
            return
        counts.down_us, counts.up_us = None, at_us
        counts.holds.append(at_us - down_us)
        counts.spans.append((down_us, at_us))
        first, after = self._frame(down_us), self._frame(at_us)
        # No look falls into it; or none has found it up since the one before.
        if first < after:
            if first > counts.free_from:
                counts.seen += 1
            counts.free_from = after

    def _frame(self, at_us: int) -> int:
        """The number of the first look from a time on."""
        return math.ceil((at_us - self.start_us) * self.fps / SECOND_US)

    def down(self, by: str) -> list[str]:
        """The controls that are down by a finger or a macro."""
        return [lane.control for lane, counts in self._lanes.items() if lane.by == by and counts.down_us is not None]

    def rows(self, now_us: int) -> list[Row]:
        """All lanes, in the order in which they came."""
        return [self._row(lane, counts, now_us) for lane, counts in self._lanes.items()]

    def _row(self, lane: Lane, counts: _Counts, now_us: int) -> Row:
        now = len(counts.downs) - bisect.bisect_right(counts.downs, now_us - SECOND_US)
        holds, gaps = counts.holds, counts.gaps
        found_down = counts.down_us is not None and counts.free_from < self._frame(counts.down_us) < self._frame(now_us)
        return Row(
            lane,
            counts.presses,
            now,
            counts.best,
            quantile(holds, 0.5) if holds else None,
            min(holds, default=None),
            quantile(gaps, 0.5) if gaps else None,
            min(gaps, default=None),
            counts.seen + found_down,
            sum(gap <= BOUNCE_US for gap in gaps) if lane.by == FINGER else 0,
        )

    def spans(self, lane: Lane, since_us: int, now_us: int) -> list[tuple[int, int]]:
        """When the lane's control was down since a time; what ended before that is forgotten."""
        counts = self._lanes[lane]
        while counts.spans and counts.spans[0][1] < since_us:
            counts.spans.popleft()
        found = list(counts.spans)
        return [*found, (counts.down_us, now_us)] if counts.down_us is not None else found

    def times(self, lane: Lane) -> tuple[list[int], list[int]]:
        """The holds and the gaps of a lane, in microseconds."""
        counts = self._lanes[lane]
        return counts.holds, counts.gaps


def suggested_us(gaps_us: Sequence[int]) -> int | None:
    """The shortest debounce that drops what bounced, in whole milliseconds, and keeps the fastest true second press;
    None where nothing bounced, and where no time does both."""
    bounced = [us for us in gaps_us if us <= BOUNCE_US]
    meant = [us for us in gaps_us if us > BOUNCE_US]
    if not bounced:
        return None
    wanted = (max(bounced) // 1_000 + 1) * 1_000
    return wanted if wanted < min(meant, default=BOUNCE_US + wanted) else None


def bins_of() -> tuple[int, ...]:
    """The bounds of the histograms, in milliseconds: a time falls under the first that it doesn't exceed."""
    return _BOUNDS_MS


def histogram(times_us: Iterable[int]) -> list[int]:
    """How many times fall under each bound; the last is for what is longer than all of them."""
    counts = [0] * (len(_BOUNDS_MS) + 1)
    for us in times_us:
        counts[bisect.bisect_left(_BOUNDS_MS, us / 1_000)] += 1
    return counts


def to_csv(events: Sequence[Came], start_us: int) -> str:
    """The events as a table: microseconds since the start, what they come from, control and value."""
    out = io.StringIO()
    table = csv.writer(out, lineterminator="\n")
    table.writerow(("time_us", "by", "control", "value"))
    table.writerows((each.at_us - start_us, each.by, each.control, each.value) for each in events)
    return out.getvalue()


def to_steps(events: Sequence[Came]) -> tuple[Step, ...]:
    """What fingers did, as the steps of a recording; without presses whose end or beginning isn't in it."""
    mine = [each for each in events if each.by == FINGER]
    down: dict[str, int] = {}
    whole: list[tuple[int, Came]] = []
    for number, event in enumerate(mine):
        if event.control.startswith("WHEEL"):
            whole.append((number, event))
        elif event.value:
            down.setdefault(event.control, number)
        elif (since := down.pop(event.control, None)) is not None:
            whole += [(since, mine[since]), (number, event)]
    steps: list[Step] = []
    last_us: int | None = None
    sent: dict[str, str] = {}
    for _, event in sorted(whole):
        if last_us is not None and event.at_us > last_us:
            steps.append(Wait(wait_us=min(MAX_WAIT_US, event.at_us - last_us)))
        last_us = event.at_us
        if event.control.startswith("WHEEL"):
            steps.append(Wheel(control=event.control, notches=max(1, abs(event.value))))
        else:
            if event.value:
                sent[event.control] = event.sent or event.control
            code = sent[event.control]
            steps.append(Press(control=code) if event.value else Release(control=code))
    return tuple(steps)
