"""Whether the machine stood still while a test ran.

Tests of real time need a machine that goes on. A shared one may stand still for tenths of a second, and what a test saw
then tells nothing about Nakrel, so one that failed is tried again, at most twice (pytest-rerunfailures). A test that
fails while the machine went on has failed.
"""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path

import pytest

__all__ = ["Standstill", "tries_again"]

# Where tests look at what happens in real time. Not in these: the scenarios in a window are tried again one by one,
# inside, and of kills each one counts.
_REAL_TIME = ("backends", "desktop", "end_to_end", "kernel", "practice", "service", "ui")
_ONCE = ("end_to_end/test_window.py", "kernel/test_kills.py")
# Wakes a hundred times a second, and writes down each time that it did so much too late.
_WITNESS = """
import os, time
parent = os.getppid()
while os.getppid() == parent:
    before = time.monotonic()
    time.sleep(0.01)
    late = time.monotonic() - before - 0.01
    if late > 0.05:
        os.write(1, b"%d ms " % (late * 1000))
"""


def tries_again(item: pytest.Item) -> bool:
    """Whether this test looks at real time."""
    path = item.path.relative_to(Path(__file__).parent)
    return path.parts[0] in _REAL_TIME and path.as_posix() not in _ONCE


class Standstill:
    """A witness of the machine's standing still, started when it is first needed."""

    def __init__(self) -> None:
        self._process: subprocess.Popen[bytes] | None = None

    def forget(self) -> None:
        """Count from now on."""
        if self._process is None:
            command = [sys.executable, "-I", "-S", "-c", _WITNESS]
            self._process = subprocess.Popen(command, stdout=subprocess.PIPE)
            assert self._process.stdout
            os.set_blocking(self._process.stdout.fileno(), False)
        self._said()

    def excuses(self, error: BaseException | None) -> bool:
        """Whether it stood still since this was asked last, for a test that failed with `error`; None for none."""
        stood = self._said()
        if error is None or not stood:
            return False
        sys.stderr.write(f"The machine stood still meanwhile: {stood}\n")
        return True

    def _said(self) -> str:
        if self._process is None:
            return ""
        assert self._process.stdout
        return (self._process.stdout.read() or b"").decode().strip()

    def end(self) -> None:
        """End the witness."""
        if self._process is not None:
            self._process.kill()
            self._process.wait()
            assert self._process.stdout
            self._process.stdout.close()
            self._process = None
