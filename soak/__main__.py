"""Count what must never happen.

A tenth of the full counts takes under a quarter of an hour, all of them some hours. A report file adds up over many
runs, so the full counts can be reached part by part. A failure is told with the line that repeats it.
"""

from __future__ import annotations

import argparse
import json
import platform
import random
import signal
import sys
import time
from functools import partial
from pathlib import Path
from typing import Any

from soak.events import events
from soak.fronts import fronts
from soak.hands import hands
from soak.kernel import kernel_kills
from soak.kills import KINDS, kills
from soak.night import simulated_night
from soak.part import Found, Part
from soak.readers import readers
from soak.real_time import night_in_real_time
from soak.requests import requests
from soak.saves import saves
from soak.sequences import sequences
from soak.starts import starts
from soak.switches import switches

PARTS = (
    Part("sequences", "event and edit sequences after which more is held than fingers hold", 100_000, sequences),
    Part("saves", "saves stopped at a call, after which neither old nor new is there", 1_000, saves),
    Part("readers", "damaged and hostile files that are no clear error", 100_000, readers),
    Part("requests", "requests without exactly one answer", 100_000, requests),
    Part("events", "events (grown by more than 1 MB, or by a descriptor)", 10_000_000, events),
    Part("night", "simulated minutes of play with an event out of place", 480, simulated_night),
    Part("real-night", "real minutes of play with an event lost, or shifted by the service", 10, night_in_real_time),
    *(Part(f"kills-{kind.split()[0]}", f"hard kills under X, {kind}: a control stays down, or an edit is lost", 170,
           partial(kills, kind)) for kind in KINDS),
    Part("hands", "random actions in the window that break it, hold it up, or lose an edit", 20_000, hands),
    Part("switches", "switches between profiles in motion that stick", 2_000, switches),
    Part("fronts", "windows that came to the front whose profile didn't go live", 10_000, fronts),
    Part("kernel", "hard kills on a real kernel: a control stays down, or an edit is lost", 200, kernel_kills),
    Part("starts", "seconds of 300 program starts each, which made a macro later", 60, starts),
)  # fmt: skip
_TENTH, _SHORT = 10, 400


class _Progress:
    """A line that says how far a part has come."""

    def __init__(self, part: Part, count: int) -> None:
        self._part, self._count, self._told = part, count, 0.0

    def tell(self, done: int) -> None:
        """So many rounds are done."""
        now = time.monotonic()
        if sys.stderr.isatty() and now - self._told > 0.2:
            self._told = now
            sys.stderr.write(f"\r\x1b[K{self._part.name}: {done:,} of {self._count:,}")
            sys.stderr.flush()

    def end(self) -> None:
        """The line goes."""
        if sys.stderr.isatty():
            sys.stderr.write("\r\x1b[K")


def _run(part: Part, count: int, seed: int) -> dict[str, Any]:
    """Run a part; what is to be reported of it."""
    progress, began = _Progress(part, count), time.monotonic()
    found: Found = part.run(count, seed, progress.tell)
    progress.end()
    took = time.monotonic() - began
    sys.stdout.write(f"{len(found.failures):>5} of {count:>10,}  {part.what}  ({took:.0f} s, seed {seed})\n")
    if found.note:
        sys.stdout.write(f"{'':21}{found.note}\n")
    for line in found.failures[:20]:
        sys.stdout.write(f"{'':21}{line}\n")
    if found.failures:
        sys.stdout.write(f"{'':21}again:  scripts/soak --only {part.name} --count {count} --seed {seed}\n")
    sys.stdout.flush()
    return {
        "part": part.name,
        "count": count,
        "failures": found.failures,
        "note": found.note,
        "seed": seed,
        "seconds": round(took),
        "date": time.strftime("%Y-%m-%d"),
        "machine": f"{platform.machine()}, {platform.release()}",
    }


def _report(path: Path, done: list[dict[str, Any]]) -> None:
    """Add to what the file has, and say how far each part has come in all."""
    before = json.loads(path.read_text()) if path.exists() else []
    path.write_text(json.dumps([*before, *done], indent=2) + "\n")
    sys.stdout.write(f"\nIn all, with {path}:\n")
    for part in PARTS:
        runs = [each for each in (*before, *done) if each["part"] == part.name]
        count, failures = sum(each["count"] for each in runs), sum(len(each["failures"]) for each in runs)
        sys.stdout.write(f"{failures:>5} of {count:>10,} (full: {part.full:,})  {part.what}\n")


def main() -> int:
    """Run what is asked for; 1 where something failed."""
    parser = argparse.ArgumentParser(prog="scripts/soak", description=__doc__)
    parser.add_argument("--counts", choices=["tenth", "full"], default="tenth")
    parser.add_argument("--minutes", type=float, help="short rounds of every part, for so long")
    parser.add_argument("--only", metavar="PART", help=f"one of {', '.join(part.name for part in PARTS)}")
    parser.add_argument("--count", type=int, help="so many rounds, with --only")
    parser.add_argument("--seed", type=int, default=random.randrange(1_000_000))
    parser.add_argument("--report", type=Path, metavar="FILE", help="add what comes of it to this file (JSON)")
    chosen = parser.parse_args()
    # What was started, an X server say, ends with it.
    signal.signal(signal.SIGTERM, lambda number, frame: sys.exit(128 + number))
    parts = [part for part in PARTS if not chosen.only or part.name.startswith(chosen.only)]
    if not parts:
        parser.error(f"there is no part {chosen.only!r}; there are {', '.join(part.name for part in PARTS)}")
    done: list[dict[str, Any]] = []
    if chosen.minutes:
        end, seed = time.monotonic() + chosen.minutes * 60, chosen.seed
        while time.monotonic() < end:
            for part in parts:
                # What takes minutes by itself is none for a short while.
                if part.name not in ("real-night", "starts", "fronts", "kernel") and time.monotonic() < end:
                    done.append(_run(part, max(1, part.full // _SHORT), seed))
            seed += 1
    else:
        share = 1 if chosen.counts == "full" else _TENTH
        done = [_run(part, chosen.count or max(1, part.full // share), chosen.seed) for part in parts]
    if chosen.report:
        _report(chosen.report, done)
    return int(any(each["failures"] for each in done))


if __name__ == "__main__":
    sys.exit(main())
