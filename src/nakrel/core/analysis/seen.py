"""What a game sees of a macro, in figures. The service and the command line may load this: it needs no NumPy."""

from __future__ import annotations

from typing import NamedTuple

__all__ = ["Seen"]


class Seen(NamedTuple):
    """Shares of all presses, each from 0 to 1, adding up to 1; the presses seen as such in a second; and the standard
    error of `seen` where chance was drawn, 0 where it is exact."""

    fps: float
    seen: float
    merged: float
    lost: float
    per_second: float
    error: float = 0.0
