"""What a game does, and what it sees of a macro, in figures.

The service and the command line may load this: it needs no NumPy.
"""

from __future__ import annotations

import math
from typing import NamedTuple

__all__ = ["IN_ORDER", "Game", "Seen", "low_of_spread", "spread_of_low"]

IN_ORDER = 0.0


class Seen(NamedTuple):
    """Shares of all presses, each from 0 to 1, adding up to 1; the presses seen as such in a second; and the standard
    error of `seen` where chance was drawn, 0 where it is exact."""

    fps: float
    seen: float
    merged: float
    lost: float
    per_second: float
    error: float = 0.0


class Game(NamedTuple):
    """What a game does: it looks at its input `fps` times a second, its frame times `spread_us` apart (one standard
    deviation); with `tick` its server looks at what it has seen so many times a second. With `IN_ORDER` for `fps` it
    takes its events in order and has no frames. `jitter_us` is the normal timing error of each edge of the macro."""

    fps: float
    jitter_us: float = 0.0
    spread_us: float = 0.0
    tick: float = 0.0

    @property
    def frame_us(self) -> float:
        """The mean frame time."""
        return 1_000_000 / self.fps

    @property
    def deviation_us(self) -> float:
        """The standard deviation of a frame against two edges."""
        return math.hypot(self.spread_us, math.sqrt(2) * self.jitter_us)


# The 1 % quantile of a normal distribution, in standard deviations (statistics.NormalDist().inv_cdf(0.99)).
_ONE_PERCENT = 2.3263478740408408


def spread_of_low(fps: float, low_fps: float) -> float:
    """The spread of frame times whose slowest hundredth is that of a `low_fps` ("1 % low") at `fps` on average, in
    microseconds; 0 where that isn't below the average. Common practice, no published source: benchmarks tell the 99th
    percentile of the frame times as a rate."""
    return max(0.0, (1_000_000 / low_fps - 1_000_000 / fps) / _ONE_PERCENT)


def low_of_spread(fps: float, spread_us: float) -> float:
    """The 1 % low rate of a game at `fps` with such a spread."""
    return 1_000_000 / (1_000_000 / fps + _ONE_PERCENT * spread_us)
