"""Run the counts and print them as a table: `python -m soak [--counts tenth|full] [--only PART] [--seed N]`."""

from __future__ import annotations

import argparse
import json
import random
import sys
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

from soak.kills import KINDS, kills
from soak.switches import switches

# Each part: what is counted, how often at full counts, and what runs it and gives a line for each failure.
Part = tuple[str, int, Callable[[int, int], list[str]]]
PARTS: dict[str, list[Part]] = {
    "kills": [(f"hard kills under X, {kind}: a control stays down", 500, partial(kills, kind)) for kind in KINDS],
    "switches": [("switches between profiles in motion: one sticks", 2_000, switches)],
}


def main() -> int:
    """Run what is asked for; 1 where something failed."""
    parser = argparse.ArgumentParser(prog="scripts/soak", description=__doc__)
    parser.add_argument("--counts", choices=["tenth", "full"], default="tenth")
    parser.add_argument("--only", help=f"one part: {', '.join(PARTS)}")
    parser.add_argument("--seed", type=int, default=random.randrange(1_000_000))
    parser.add_argument("--json", type=Path, help="write the report to this file, too")
    chosen = parser.parse_args()
    report, failed = [], False
    for name, parts in PARTS.items():
        if chosen.only and not name.startswith(chosen.only):
            continue
        for what, full, run in parts:
            count = full if chosen.counts == "full" else max(1, full // 10)
            sys.stdout.write(f"{what}: {count} rounds…\n")
            sys.stdout.flush()
            began = time.monotonic()
            failures = run(count, chosen.seed)
            failed = failed or bool(failures)
            sys.stdout.write(
                f"    {len(failures)} of {count} in {time.monotonic() - began:.0f} s, seed {chosen.seed}\n"
            )
            sys.stdout.write("".join(f"    {line}\n" for line in failures))
            report.append({"what": what, "count": count, "failures": failures, "seed": chosen.seed})
    if chosen.json:
        chosen.json.write_text(json.dumps(report, indent=2))
    return int(failed)


if __name__ == "__main__":
    sys.exit(main())
