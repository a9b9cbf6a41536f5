"""Has the X server set our virtual devices as it has set those that they stand for (`backends.x11.twins`)."""

from __future__ import annotations

import contextlib
import os
import subprocess
import sys
from collections.abc import Callable, Sequence
from typing import NamedTuple

from nakrel.service.loop import Loop, monotonic_us
from nakrel.service.worker import Outcome, Worker

__all__ = ["Twins"]

# Longer than that no server takes. Grabs don't wait for it as long as that.
_LIMIT_US = 60_000_000
# What the program calls the keyboard of all keyboards together; loading that program's file would load xcffib.
_CORE = "core"


class _Pair(NamedTuple):
    """A virtual device and those that it stands for, by their event nodes, and whom to tell when it is set."""

    twin: str
    like: tuple[str, ...]
    known: Callable[[], object]


class Twins:
    """One process after the other; what comes while one is at work is all for the next. `display` is the X server's, ''
    where there is none: then there is nothing to be done."""

    def __init__(self, loop: Loop, worker: Worker, display: str) -> None:
        self._loop, self._worker, self._display = loop, worker, display
        self._waiting: list[_Pair] = []
        self._process: subprocess.Popen[bytes] | None = None
        self._busy = self._closed = False

    def introduce(self, twin: str, like: Sequence[str], known: Callable[[], object]) -> None:
        """Set a virtual device as the others ('': what all keyboards have in common), and then call `known`."""
        if not self._display or self._closed:
            known()
            return
        self._waiting.append(_Pair(twin, tuple(like), known))
        if not self._busy:
            self._start()

    def close(self) -> None:
        """Wait for nothing any more."""
        self._closed = True
        self._waiting.clear()
        if self._process is not None:
            self._process.kill()

    def _start(self) -> None:
        pairs, self._waiting, self._busy = self._waiting, [], True
        nodes = [node for pair in pairs for like in pair.like for node in (like or _CORE, pair.twin)]
        command = [sys.executable, "-m", "nakrel.backends.x11.twins", self._display, *nodes]
        nothing = subprocess.DEVNULL

        def started(outcome: Outcome[tuple[subprocess.Popen[bytes], int]]) -> None:
            # Where no process can be had, devices are as the server makes them.
            if outcome.result is None:
                self._ended(pairs)
            else:
                self._watch(*outcome.result, pairs)

        def start() -> tuple[subprocess.Popen[bytes], int]:
            process = subprocess.Popen(command, stdin=nothing, stdout=nothing, stderr=nothing)
            try:
                return process, os.pidfd_open(process.pid)
            except OSError:
                process.kill()
                process.wait()
                raise

        self._worker.do(start, started)

    def _watch(self, process: subprocess.Popen[bytes], handle: int, pairs: list[_Pair]) -> None:
        self._process = process
        if self._closed:
            process.kill()

        def ended() -> None:
            if process.poll() is None:
                return
            self._loop.at("twins", None, process.kill)
            self._loop.forget(handle)
            with contextlib.suppress(OSError):
                os.close(handle)
            self._process = None
            self._ended(pairs)

        self._loop.watch(handle, ended)
        self._loop.at("twins", monotonic_us() + _LIMIT_US, process.kill)

    def _ended(self, pairs: list[_Pair]) -> None:
        self._busy = False
        if self._closed:
            return
        for pair in pairs:
            pair.known()
        if self._waiting and not self._busy:
            self._start()
