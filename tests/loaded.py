"""A service that is forked from a process which has loaded it: that is most of what its start takes.

What is forked goes on as one that was started by itself does, down to its end by a signal. It can't start itself anew,
so tests of that start it by itself.
"""

from __future__ import annotations

import functools
import multiprocessing
import os
import signal
import subprocess
import sys
from multiprocessing.context import ForkServerContext, ForkServerProcess

from nakrel.service import start
from tests.support import PROGRAM, ServiceProcess

__all__ = ["LoadedService"]


@functools.cache
def _loaded() -> ForkServerContext:
    context = multiprocessing.get_context("forkserver")
    context.set_forkserver_preload(["tests.preloaded"])
    return context


def _serve(arguments: list[str], environment: dict[str, str]) -> None:
    os.environ.clear()
    os.environ.update(environment)
    sys.exit(start.main(arguments))


class _Forked:
    """As much of `subprocess.Popen` as tests need."""

    def __init__(self, process: ForkServerProcess) -> None:
        self._process = process
        process.start()
        assert process.pid
        self.pid: int = process.pid

    def poll(self) -> int | None:
        return self._process.exitcode

    def send_signal(self, number: int) -> None:
        if self.poll() is None:
            os.kill(self.pid, number)

    def kill(self) -> None:
        self.send_signal(signal.SIGKILL)

    def wait(self, timeout: float | None = None) -> int:
        self._process.join(timeout)
        if (code := self.poll()) is None:
            raise subprocess.TimeoutExpired("the service", timeout or 0)
        return code


class LoadedService(ServiceProcess):
    """The service, forked; where it is to be another program or in a group of its own, it is started by itself."""

    def _begin(self, arguments: list[str], environment: dict[str, str]) -> subprocess.Popen[bytes] | _Forked:
        if self._program != PROGRAM or self._own_group:
            return super()._begin(arguments, environment)
        return _Forked(_loaded().Process(target=_serve, args=(arguments, environment), daemon=True))
