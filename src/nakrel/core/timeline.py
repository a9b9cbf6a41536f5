"""A macro laid out in time, one run of it: when each step starts, and when each control is down."""

from __future__ import annotations

from typing import NamedTuple

from nakrel.core.macro import Macro, Section
from nakrel.core.steps import Chord, PickOne, Press, Release, Repeat, Step, Tap, Wait, Wheel, length_us, turn_us

__all__ = ["Timeline", "Zone", "lay_out"]

# How long a wheel notch is drawn; it has no length of its own.
NOTCH_US = 3_000
# A repeat is unrolled no further than this, nor a macro drawn in more spans: nobody could tell them apart.
MOST_REPEATS = 2_000
MOST_SPANS = 50_000


class Zone(NamedTuple):
    """A section's stretch of time, in microseconds."""

    section: Section
    start_us: int
    end_us: int


class Timeline(NamedTuple):
    """`starts_us` has one entry a row; `spans` the down times of each control, in the order of first use. A control
    that is still down at the end is let go there, as the engine does it. `unsure` are the stretches of random waits,
    drawn at their mean, and of pick-one blocks, drawn as their likeliest branch."""

    starts_us: list[int]
    zones: list[Zone]
    spans: dict[str, list[tuple[int, int]]]
    length_us: int
    unsure: list[tuple[int, int]]


class _Layout:
    """Lays steps out one after the other; `now` is where the next one starts."""

    def __init__(self) -> None:
        self.now = 0
        self.starts: list[int] = []
        self.spans: dict[str, list[tuple[int, int]]] = {}
        self.unsure: list[tuple[int, int]] = []
        self._down: dict[str, int] = {}
        self._drawn = 0

    def lay(self, steps: tuple[Step, ...], *, drawn: bool = True, counted: bool = True) -> None:
        """`drawn` steps leave spans; `counted` ones have a row."""
        for step in steps:
            if counted:
                self.starts.append(self.now)
            on = drawn and not step.off
            if isinstance(step, Repeat):
                self._repeat(step, on, counted)
            elif isinstance(step, PickOne):
                self._pick(step, on, counted)
            else:
                if on:
                    self._draw(step)
                self.now += length_us(step)

    def finish(self) -> None:
        """Let go of what is down."""
        for control, since in self._down.items():
            self.spans[control].append((since, self.now))

    def _repeat(self, step: Repeat, drawn: bool, counted: bool) -> None:
        start, once = self.now, turn_us(step)
        self.lay(step.steps, drawn=drawn, counted=counted)
        # Of pick-one blocks inside the likeliest branch is drawn, which may take longer than they do on average.
        once = max(once, self.now - start)
        for turn in range(1, min(step.times, MOST_REPEATS) if drawn and once else 0):
            if self._drawn > MOST_SPANS:
                break
            self.now = start + turn * once
            self.lay(step.steps, counted=False)
        self.now = start if step.off else start + once * step.times

    def _pick(self, step: PickOne, drawn: bool, counted: bool) -> None:
        start = self.now
        likeliest = max(step.branches, key=lambda branch: branch.weight)
        end = start
        for branch in step.branches:
            self.now = start
            if counted:
                self.starts.append(start)
            self.lay(branch.steps, drawn=drawn and branch is likeliest, counted=counted)
            if branch is likeliest:
                end = self.now
        self.now = start if step.off else end
        if drawn and len(step.branches) > 1:
            self.unsure.append((start, end))

    def _draw(self, step: Step) -> None:
        now = self.now
        self._drawn += 1
        match step:
            case Press(control=control):
                self.spans.setdefault(control, [])
                self._down.setdefault(control, now)
            case Release(control=control) if control in self._down:
                self.spans[control].append((self._down.pop(control), now))
            case Tap(control=control, hold_us=hold_us):
                self._hold(control, now, hold_us)
            case Chord(controls=controls, hold_us=hold_us):
                for control in controls:
                    self._hold(control, now, hold_us)
            case Wheel(control=control):
                self.spans.setdefault(control, []).append((now, now + NOTCH_US))
            case Wait(most_us=most_us) if most_us is not None:
                self.unsure.append((now, now + length_us(step)))

    def _hold(self, control: str, now: int, hold_us: int) -> None:
        # A tap of a control that is down already lets it go at its end.
        since = self._down.pop(control, now)
        self.spans.setdefault(control, []).append((since, now + hold_us))


def lay_out(macro: Macro) -> Timeline:
    """Lay out one run of each section, repeats unrolled as far as anybody could see them."""
    layout = _Layout()
    ends: dict[Section, int] = {}
    for section in Section:
        layout.lay(macro.section(section))
        ends[section] = layout.now
    layout.finish()
    return Timeline(layout.starts, _zones(macro, ends), layout.spans, layout.now, layout.unsure)


def _zones(macro: Macro, ends: dict[Section, int]) -> list[Zone]:
    zones, start = [], 0
    for section in Section:
        if macro.section(section):
            zones.append(Zone(section, start, ends[section]))
            start = ends[section]
    return zones
