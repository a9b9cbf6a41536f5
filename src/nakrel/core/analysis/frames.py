"""The frame check: what a game that looks at its input once a frame sees of a macro.

The model. The game samples at the times phase + k T, k whole and T the frame time; where the phase lies in a frame,
nobody knows, so every phase counts alike. A press that is down over [a, b) is *seen* when a sample falls into that
span, and *lost* when none does. Of two presses that are seen, the later is *merged* into the earlier when no sample
falls between them: the game never found the control up. For a press of length h that stands alone it follows that it
is seen with probability min(1, h / T).

The service never loads this module: it needs NumPy.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from nakrel.core.model.macro import Macro, Mode
from nakrel.core.model.units import FRAME_RATES
from nakrel.core.play.simulate import plan

__all__ = ["Seen", "check", "in_order", "over_holds", "over_rates", "presses_of", "safe_us", "with_hold"]

# Phases of the frame clock that are tried, evenly over one frame.
PHASES = 256
# How many standard deviations of the timing's jitter a safe timing leaves room for.
ROOM = 4
# Presses looked at: a macro's later runs tell nothing new.
MOST_PRESSES = 400
MOST_AT_HOLDS = 60

Spans = NDArray[np.float64]


class Seen(NamedTuple):
    """Shares of all presses, each from 0 to 1, adding up to 1; and the presses seen as such in a second."""

    fps: float
    seen: float
    merged: float
    lost: float
    per_second: float


def presses_of(macro: Macro, runs: int = 20) -> tuple[dict[str, Spans], float]:
    """When each control of the macro is down over some runs, as rows of (down, up) in microseconds, and how long the
    runs take. A mode that ends after one run is looked at for one."""
    runs = (
        1 if macro.play.mode is Mode.SINGLE else min(runs, macro.play.runs if macro.play.mode is Mode.COUNTED else runs)
    )
    down: dict[str, int] = {}
    spans: dict[str, list[tuple[int, int]]] = {}
    end = 0
    count = 0
    for at, control, value, text in plan(macro, macro.play, runs, most=3 * MOST_PRESSES):
        end = max(end, at)
        if text or control.startswith("WHEEL") or count > MOST_PRESSES:
            continue
        if value:
            down[control] = at
        elif control in down:
            spans.setdefault(control, []).append((down.pop(control), at))
            count += 1
    pause = macro.play.pause_us if runs > 1 else 0
    return {control: np.array(found, dtype=float) for control, found in spans.items()}, float(end + pause)


def check(
    presses: dict[str, Spans], length_us: float, fps: float, jitter_us: float, chance: np.random.Generator
) -> Seen:
    """What a game at `fps` frames a second sees, over all phases of its clock, with a normal timing error of
    `jitter_us` on each edge. Without a press all shares are 0."""
    frame_us = 1_000_000 / fps
    phases = (np.arange(PHASES) + 0.5) / PHASES * frame_us
    total = seen = merged = 0
    for spans in presses.values():
        edges = spans + chance.normal(0, jitter_us, (PHASES, *spans.shape)) if jitter_us else spans[None, :, :]
        # The number of the first sample at or after each edge.
        samples = np.ceil((edges - phases[:, None, None]) / frame_us)
        first, past = samples[..., 0], samples[..., 1]
        visible = past > first
        # The last sample at which the control was found down before each press.
        last = np.maximum.accumulate(np.where(visible, past - 1, -np.inf), axis=1)
        before = np.concatenate((np.full((last.shape[0], 1), -np.inf), last[:, :-1]), axis=1)
        joined = visible & (first <= before + 1)
        total += visible.size
        seen += int(visible.sum() - joined.sum())
        merged += int(joined.sum())
    if not total:
        return Seen(fps, 0, 0, 0, 0)
    count = sum(len(spans) for spans in presses.values())
    rate = seen / total * count / (length_us / 1_000_000) if length_us else 0.0
    return Seen(fps, seen / total, merged / total, 1 - (seen + merged) / total, rate)


def in_order(presses: dict[str, Spans], length_us: float) -> Seen:
    """What a game sees that takes its events in order, however fast they come: all of them. Its rate has no limit."""
    count = sum(len(spans) for spans in presses.values())
    rate = count / (length_us / 1_000_000) if length_us else 0.0
    return Seen(float("inf"), 1.0 if count else 0.0, 0.0, 0.0, rate)


def with_hold(presses: dict[str, Spans], hold_us: float) -> dict[str, Spans]:
    """The same presses, each held for `hold_us`, with the gaps between them as they were."""
    changed = {}
    for control, spans in presses.items():
        gaps = np.diff(spans.ravel())[1::2]
        downs = spans[0, 0] + np.concatenate(([0.0], np.cumsum(gaps + hold_us)))
        changed[control] = np.stack((downs, downs + hold_us), axis=1)
    return changed


def over_holds(
    presses: dict[str, Spans], length_us: float, fps: float, jitter_us: float, holds_us: Sequence[float], seed: int = 0
) -> list[Seen]:
    """What a game at `fps` sees of the macro with all its holds set to each of these; the same seed gives the same
    figures."""
    chance = np.random.default_rng(seed)
    few = {control: spans[:MOST_AT_HOLDS] for control, spans in presses.items()}
    return [check(with_hold(few, hold_us), length_us, fps, jitter_us, chance) for hold_us in holds_us]


def safe_us(fps: float, jitter_us: float) -> int:
    """The shortest hold, and the shortest gap, that such a game can't miss: a frame, and room for the jitter of both
    edges. In microseconds, rounded up."""
    return int(np.ceil(1_000_000 / fps + ROOM * jitter_us))


def over_rates(
    presses: dict[str, Spans], length_us: float, jitter_us: float, rates: Sequence[float] = FRAME_RATES, seed: int = 0
) -> list[Seen]:
    """What games of all these frame rates see; the same seed gives the same figures."""
    chance = np.random.default_rng(seed)
    return [check(presses, length_us, fps, jitter_us, chance) for fps in rates]
