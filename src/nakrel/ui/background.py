"""Work off the window's thread."""

from __future__ import annotations

import contextlib
import weakref
from collections.abc import Callable
from functools import cache
from typing import TypeVar

from PyQt6 import sip
from PyQt6.QtCore import QObject, QThreadPool, pyqtSignal

from nakrel import worker_process
from nakrel.worker_process import Job

__all__ = ["Background", "rest_ms", "wait_for_work"]

T = TypeVar("T")
_REST_MS = 150
_STEPS_PER_MS = 20
# Threads that wait for the process beside the window keep none from writing a file.
_THREADS = 8


def rest_ms(steps: int) -> int:
    """How long edits of a macro of so many steps should rest before work on it begins: the work on a long one takes
    a while, and is for nothing where another edit follows. One that was only opened needs no longer rest than a short
    one: that is of 0 steps."""
    return _REST_MS + steps // _STEPS_PER_MS


class _Relay(QObject):
    """Carries results over to the window's thread. It outlives all windows: a signal must not be sent from one thread
    while another one deletes what sends it."""

    done = pyqtSignal(object, int, object)

    def __init__(self) -> None:
        super().__init__()
        # The window closes: what only it would see is of no account any more.
        self.leaving = False
        if pool := QThreadPool.globalInstance():
            pool.setMaxThreadCount(_THREADS)
        self.done.connect(self._deliver)

    def _deliver(self, background: Callable[[], Background | None], number: int, result: object) -> None:
        if (found := background()) is not None and not sip.isdeleted(found):
            found.deliver(number, result)


@cache
def _relay() -> _Relay:
    return _Relay()


class Background(QObject):
    """One piece of work at a time that matters: what is started later, or a cancel, makes what was started before drop
    its result. Make it on the window's thread."""

    def __init__(self, of: QObject) -> None:
        super().__init__(of)
        self._number = 0
        self._then: Callable[..., object] = lambda result: None
        self._relay = _relay()

    def start(self, work: Callable[[], T], then: Callable[[T], object]) -> None:
        """Do the work on another thread, and call `then` with its result on this one."""
        self._start(lambda wanted, tell: work(), then)

    def ask(self, job: Job, answer: type[T], then: Callable[[T], object]) -> None:
        """Have a job done by the process beside the window, which gives it up once its result is of no account. `then`
        is called with what is known before, too."""
        self._start(lambda wanted, tell: worker_process.ask(job, answer, wanted, tell), then)

    def _start(
        self, work: Callable[[Callable[[], bool], Callable[[T], object]], T], then: Callable[[T], object]
    ) -> None:
        self._number += 1
        self._then = then
        number, relay, mine = self._number, self._relay, weakref.ref(self)

        def wanted() -> bool:
            found = mine()
            current = found is not None and found._number == number and not sip.isdeleted(found)
            return current and not relay.leaving

        def tell(result: T) -> None:
            relay.done.emit(mine, number, result)

        def run() -> None:
            with contextlib.suppress(worker_process.Unwanted):
                tell(work(wanted, tell))

        if pool := QThreadPool.globalInstance():
            pool.start(run)

    def cancel(self) -> None:
        """Drop what comes of the work that goes on."""
        self._number += 1

    def deliver(self, number: int, result: object) -> None:
        """The result of the work of this number has come."""
        if number == self._number:
            self._then(result)


def wait_for_work(limit_ms: int = 5_000) -> None:
    """Let the work that goes on come to its end, before what it speaks to goes; what only shows something is given
    up."""
    if (pool := QThreadPool.globalInstance()) is None:
        return
    _relay().leaving = True
    pool.clear()
    pool.waitForDone(limit_ms)
    _relay().leaving = False
