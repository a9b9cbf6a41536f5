"""Run the kernel tests in the test machine: `python -m tests.vm CACHE [pytest arguments]`.

All of them are shared out to two such machines where this one has the processors for it.
"""

from __future__ import annotations

import os
import shlex
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from tests.vm.machine import Machine

LIMIT_S = 40 * 60
PASSED = 0


def main() -> int:
    """Boot, run, print, and return pytest's exit code."""
    cache, *arguments = sys.argv[1:]
    root = Path(__file__).parents[2]
    if root.is_relative_to("/tmp"):
        sys.stdout.write("The test machine has a /tmp of its own and doesn't see this checkout: put it elsewhere.\n")
        return 2
    Path(cache).parent.mkdir(parents=True, exist_ok=True)
    started = time.monotonic()
    parts = 2 if not arguments and len(os.sched_getaffinity(0)) > 1 else 1
    machines: list[Machine] = []
    try:
        for part in range(1, parts + 1):
            share = [f"--part={part}/{parts}"] if parts > 1 else []
            command = shlex.join([str(root / "tests" / "vm" / "guest"), sys.executable, *share, *arguments])
            machines.append(Machine(Path(cache), command, _console(cache, part)))
        with ThreadPoolExecutor(parts) as threads:
            codes = list(threads.map(_run, machines, range(1, parts + 1)))
    finally:
        for machine in machines:
            machine.close()
    for part, code in enumerate(codes, 1):
        if code == 255:
            said = _console(cache, part).read_text(errors="replace")[-4000:]
            sys.stdout.write(f"Test machine {part} gave no result; its console:\n{said}\n")
    code = next((code for code in codes if code != PASSED), PASSED)
    sys.stdout.write(
        f"kernel tests: {'passed' if code == PASSED else 'FAILED'} in {time.monotonic() - started:.0f} s\n"
    )
    return code


def _console(cache: str, part: int) -> Path:
    return Path(f"{cache}-{part}.console")


def _run(machine: Machine, part: int) -> int:
    started = time.monotonic()

    def show(line: str) -> None:
        sys.stdout.write(f"{part}| {time.monotonic() - started:4.0f} s  {line}\n")
        sys.stdout.flush()

    return machine.run(LIMIT_S, show)


if __name__ == "__main__":
    sys.exit(main())
