"""While nobody can be at the session, nothing is played: the keys would go to the lock screen, or to somebody else."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable
from functools import partial

from nakrel.backends import presence
from nakrel.backends.presence import Absence
from nakrel.service.loop import Loop
from nakrel.words import tr

__all__ = ["Presence"]

log = logging.getLogger(__name__)

# How long the end of the service waits for a bus that doesn't answer.
_END_S = 1.0


class Presence:
    """Watches what tells of it; `changed` is called when `absent`, why nobody can be there, has become another.

    The buses are read on a thread of their own: what is said there, and how much, must not be the engine's matter.
    """

    def __init__(self, main: Loop, changed: Callable[[], object]) -> None:
        self._main, self._changed = main, changed
        self._thread: threading.Thread | None = None
        self._loop: Loop | None = None
        self._told: frozenset[Absence] = frozenset()
        self._locker_runs = False
        self.absent = ""

    def watch(self) -> None:
        """Begin to watch."""
        self._loop = loop = Loop(lambda error: log.error("unexpected while watching the session", exc_info=error))
        self._thread = threading.Thread(target=self._watch, args=(loop,), name="presence", daemon=True)
        self._thread.start()

    def see_locker(self, runs: bool) -> None:
        """A screen locker of which no bus tells runs, or none does."""
        self._locker_runs = runs
        self._decide()

    def close(self) -> None:
        """Watch no longer; a thread that a bus keeps waiting is left behind."""
        if self._loop and self._thread:
            self._loop.post(self._loop.stop)
            self._thread.join(_END_S)

    def _hear(self, told: frozenset[Absence]) -> None:
        self._told = told
        self._decide()

    def _decide(self) -> None:
        absences = self._told | {Absence.LOCKED} if self._locker_runs else self._told
        why = next((_why(each) for each in Absence if each in absences), "")
        if why != self.absent:
            self.absent = why
            self._changed()

    # On the thread

    def _watch(self, loop: Loop) -> None:
        watched = presence.open_all()

        def read(each: presence.Presence) -> None:
            if not each.read():
                # A bus that has ended tells nothing, and must not keep anything from anybody.
                loop.forget(each)
                each.close()
                watched.remove(each)
            told = frozenset[Absence]().union(*(each.absences for each in watched))
            self._main.post(lambda: self._hear(told))

        for each in list(watched):
            loop.watch(each, partial(read, each))
            # What came while it was opened has been read from the socket already.
            read(each)
        loop.run()
        for each in watched:
            each.close()
        loop.close()


def _why(absence: Absence) -> str:
    match absence:
        case Absence.LOCKED:
            return tr("the screen is locked")
        case Absence.ANOTHER:
            return tr("somebody else is using the computer")
        case Absence.ASLEEP:
            return tr("the computer goes to sleep")
