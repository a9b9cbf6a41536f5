"""Hard kills of the service on a real kernel's input, in the test machine: tests/kernel/test_kills.py, many times."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

from soak.part import Found, Tell

__all__ = ["kernel_kills"]

_ROOT = Path(__file__).parent.parent
# The test machine is slow, and each boot of it has a limit.
_AT_ONCE = 20


def kernel_kills(count: int, seed: int, tell: Tell) -> Found:
    """So many kills, some with each boot of the machine."""
    subprocess.run([_ROOT / "scripts" / "setup", "kernel"], check=True, stdout=subprocess.DEVNULL)
    failures = []
    for first in range(0, count, _AT_ONCE):
        rounds = min(_AT_ONCE, count - first)
        arguments = [".cache/test-machine", "-k", "test_kills_at_random", "--kills", str(rounds)]
        command = [sys.executable, "-m", "tests.vm", *arguments, "--kills-seed", str(seed + first)]
        done = subprocess.run(command, cwd=_ROOT, capture_output=True, text=True)
        if done.returncode or "1 passed" not in done.stdout:
            failures.append(f"kills {first} to {first + rounds}: {done.stdout[-2_000:]}")
        tell(first + rounds)
    return Found(failures)
