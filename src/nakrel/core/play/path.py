"""Thinning the pointer's path: fewer places that, passed at an even pace from one to the next, keep to it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

__all__ = ["Spot", "thinned"]


class Spot(NamedTuple):
    """Where the pointer was: microseconds and pixels."""

    at_us: int
    x: int
    y: int


def thinned(path: Sequence[Spot], tolerance_px: float) -> list[Spot]:
    """The first and the last spot, and of those between as few as keep every left out one within `tolerance_px` of
    where the pointer is at its time when it goes evenly from spot to spot.

    That is the Ramer-Douglas-Peucker algorithm (Ramer 1972, Douglas and Peucker 1973) with the distance at the same
    time in place of that to the line, so that the pace is kept as well as the way.
    """
    if len(path) < 3:
        return list(path)
    kept = {0, len(path) - 1}
    stretches = [(0, len(path) - 1)]
    while stretches:
        first, last = stretches.pop()
        worst, far = tolerance_px, -1
        for at in range(first + 1, last):
            away = _away(path[first], path[last], path[at])
            if away > worst:
                worst, far = away, at
        if far >= 0:
            kept.add(far)
            stretches += [(first, far), (far, last)]
    return [path[at] for at in sorted(kept)]


def _away(first: Spot, last: Spot, spot: Spot) -> float:
    time = last.at_us - first.at_us
    part = (spot.at_us - first.at_us) / time if time else 0.0
    return math.hypot(first.x + (last.x - first.x) * part - spot.x, first.y + (last.y - first.y) * part - spot.y)
