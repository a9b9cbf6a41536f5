"""Work on a thread of its own: the engine waits for no disk, no window server and no other process."""

from __future__ import annotations

import logging
import queue
import threading
from collections.abc import Callable
from typing import Any, Generic, NamedTuple, TypeVar

from nakrel.service.loop import Loop

__all__ = ["Outcome", "Worker"]

log = logging.getLogger(__name__)

T = TypeVar("T")


class Outcome(NamedTuple, Generic[T]):
    """What came of a piece of work: its result, or the exception that ended it."""

    result: T | None
    error: Exception | None = None

    def get(self) -> T:
        """The result; raises what ended the work."""
        if self.error is not None:
            raise self.error
        return self.result  # type: ignore[return-value]


def _ignore(outcome: Outcome[Any]) -> None:
    if outcome.error is not None:
        log.error("unexpected in the background", exc_info=outcome.error)


class Worker:
    """Does the work in the order it came; what comes of it is handed over on the loop's thread. Work comes from that
    thread, too, and the first of it starts the worker's: many a service needs no keyring."""

    def __init__(self, loop: Loop, name: str) -> None:
        self._loop = loop
        self._queue: queue.SimpleQueue[tuple[Callable[[], Any], Callable[[Outcome[Any]], object]] | None]
        self._queue = queue.SimpleQueue()
        self._thread = threading.Thread(target=self._run, name=name, daemon=True)

    def do(self, work: Callable[[], T], finished: Callable[[Outcome[T]], object] = _ignore) -> None:
        """Do `work` on the thread, then call `finished` with its outcome on the loop's."""
        self._queue.put((work, finished))
        if self._thread.ident is None:
            self._thread.start()

    def close(self, limit_s: float | None = None) -> None:
        """Finish all work and end the thread; wait so many seconds for it at most. What came of it is handed over with
        the loop's next turn, or by `Loop.collect`."""
        self._queue.put(None)
        if self._thread.ident is not None:
            self._thread.join(limit_s)

    def _run(self) -> None:
        while (job := self._queue.get()) is not None:
            work, finished = job
            try:
                outcome: Outcome[Any] = Outcome(work())
            except Exception as error:
                outcome = Outcome(None, error)
            self._loop.post(lambda finished=finished, outcome=outcome: finished(outcome))  # type: ignore[misc]
