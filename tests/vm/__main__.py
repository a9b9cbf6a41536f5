"""Run the kernel tests in the test machine: `python -m tests.vm CACHE [pytest arguments]`."""

from __future__ import annotations

import shlex
import sys
import time
from pathlib import Path

from tests.vm.machine import Machine

LIMIT_S = 20 * 60


def main() -> int:
    """Boot, run, print, and return pytest's exit code."""
    cache, *arguments = sys.argv[1:]
    root = Path(__file__).parents[2]
    script = root / "tests" / "vm" / "guest"
    console = Path(cache).with_suffix(".console")
    console.parent.mkdir(parents=True, exist_ok=True)
    if root.is_relative_to("/tmp"):
        sys.stdout.write("The test machine has a /tmp of its own and doesn't see this checkout: put it elsewhere.\n")
        return 2
    started = time.monotonic()
    machine = Machine(Path(cache), shlex.join([str(script), sys.executable, *arguments]), console)
    try:
        code = machine.run(LIMIT_S)
    finally:
        machine.close()
    if code == 255:
        sys.stdout.write(
            f"The test machine gave no result; its console:\n{console.read_text(errors='replace')[-4000:]}\n"
        )
    sys.stdout.write(f"kernel tests: {'passed' if code == 0 else 'FAILED'} in {time.monotonic() - started:.0f} s\n")
    return code


if __name__ == "__main__":
    sys.exit(main())
