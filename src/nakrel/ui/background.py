"""Work off the window's thread."""

from __future__ import annotations

import contextlib
from collections.abc import Callable
from typing import TypeVar

from PyQt6.QtCore import QObject, QThreadPool, pyqtSignal

__all__ = ["Background", "rest_ms", "wait_for_work"]

T = TypeVar("T")
_REST_MS = 150
_STEPS_PER_MS = 20


def rest_ms(steps: int) -> int:
    """How long edits of a macro of so many steps should rest before work on it begins: the work on a long one takes
    a while, and would hold the next edit up."""
    return _REST_MS + steps // _STEPS_PER_MS


class Background(QObject):
    """One piece of work at a time that matters: what is started later, or a cancel, makes what was started before drop
    its result."""

    _done = pyqtSignal(int, object)

    def __init__(self, of: QObject) -> None:
        super().__init__(of)
        self._number = 0
        self._then: Callable[..., object] = lambda result: None
        self._done.connect(self._take)

    def start(self, work: Callable[[], T], then: Callable[[T], object]) -> None:
        """Do the work on another thread, and call `then` with its result on this one."""
        self._number += 1
        self._then = then
        number = self._number

        def run() -> None:
            result = work()
            # The window may have gone meanwhile.
            with contextlib.suppress(RuntimeError):
                self._done.emit(number, result)

        pool = QThreadPool.globalInstance()
        if pool is not None:
            pool.start(run)

    def cancel(self) -> None:
        """Drop what comes of the work that goes on."""
        self._number += 1

    def _take(self, number: int, result: object) -> None:
        if number == self._number:
            self._then(result)


def wait_for_work(limit_ms: int = 5_000) -> None:
    """Let the work that goes on come to its end, before what it speaks to goes."""
    pool = QThreadPool.globalInstance()
    if pool is not None:
        pool.clear()
        pool.waitForDone(limit_ms)
