"""Saving on a thread of its own: an fsync takes milliseconds, and the engine doesn't wait for a disk."""

from __future__ import annotations

import contextlib
import os
import queue
import threading
from collections import deque
from collections.abc import Callable

from nakrel.storage.files import StorageError

__all__ = ["Worker"]

Work = Callable[[], None]
Finished = Callable[[str], None]


class Worker:
    """Does the work in the order it came. `fileno` is readable when `collect` has results to deliver."""

    def __init__(self) -> None:
        self._queue: queue.SimpleQueue[tuple[Work, Finished] | None] = queue.SimpleQueue()
        self._done: deque[tuple[Finished, str]] = deque()
        self._read_fd, self._write_fd = os.pipe2(os.O_NONBLOCK | os.O_CLOEXEC)
        self._thread = threading.Thread(target=self._run, name="saver", daemon=True)
        self._thread.start()

    def fileno(self) -> int:
        """The descriptor to watch."""
        return self._read_fd

    def do(self, work: Work, finished: Finished) -> None:
        """Do `work` on the thread, then `finished` (from `collect`) with '' or what went wrong."""
        self._queue.put((work, finished))

    def collect(self) -> None:
        """Deliver the results that there are, on the caller's thread."""
        with contextlib.suppress(BlockingIOError):
            os.read(self._read_fd, 4096)
        while self._done:
            finished, error = self._done.popleft()
            finished(error)

    def close(self) -> None:
        """Finish all work, deliver the results, and end the thread."""
        self._queue.put(None)
        self._thread.join()
        self.collect()
        os.close(self._read_fd)
        os.close(self._write_fd)

    def _run(self) -> None:
        while (job := self._queue.get()) is not None:
            work, finished = job
            try:
                work()
                error = ""
            except StorageError as problem:
                error = str(problem)
            except Exception as problem:
                error = f"saving failed: {problem!r}"
            self._done.append((finished, error))
            with contextlib.suppress(BlockingIOError):
                os.write(self._write_fd, b".")
