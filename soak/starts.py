"""Programs that start three hundred times a second beside a macro: is its timing the same as without them?"""

from __future__ import annotations

import subprocess
import tempfile
from pathlib import Path

from bench.following import starts_beside

from soak.part import Found, Tell

__all__ = ["starts"]

_RATIO, _STILL_US = 1.2, 100
_SOURCE = Path(__file__).parent.parent / "bench" / "reference.c"


def _p99(late: list[float]) -> float:
    return sorted(late)[len(late) * 99 // 100]


def starts(count: int, seed: int, tell: Tell) -> Found:
    """So many seconds each, in turns with and without: the 99th percentile of how late events are, in µs. What is
    within a tenth of a millisecond counts as the same."""
    with_them: list[float] = []
    without: list[float] = []
    with tempfile.TemporaryDirectory() as folder:
        reference = Path(folder) / "reference"
        subprocess.run(["gcc", "-O2", "-o", reference, _SOURCE, "-lm"], check=True)
        turns = max(1, count // 10)
        for turn in range(turns):
            for late, rate in ((without, 0), (with_them, 300)):
                _, found = starts_beside(reference, 10, "yes", linked=True, rate=rate)
                late += found
            tell((turn + 1) * 10)
    quiet, busy = _p99(without), _p99(with_them)
    note = f"late by {busy:.0f} µs (99 %) beside them, {quiet:.0f} µs without"
    failures = [note] if busy > quiet * _RATIO and busy > quiet + _STILL_US else []
    return Found(failures, note)
