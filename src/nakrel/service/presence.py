"""While nobody can be at the session, nothing is played: the keys would go to the lock screen, or to somebody else."""

from __future__ import annotations

import threading
from collections.abc import Callable

from nakrel.backends import presence
from nakrel.backends.presence import Absence
from nakrel.service.loop import Loop
from nakrel.words import tr

__all__ = ["Presence"]


class Presence:
    """Watches what tells of it; `changed` is called when `absent`, why nobody can be there, has become another."""

    def __init__(self, loop: Loop, changed: Callable[[], object]) -> None:
        self._loop, self._changed = loop, changed
        self._watched: list[presence.Presence] = []
        self._closed = self._locker_runs = False
        self.absent = ""

    def watch(self) -> None:
        """Begin to watch."""
        # On a thread of its own: a bus that doesn't answer must keep nothing else waiting.
        threading.Thread(target=self._open, name="presence", daemon=True).start()

    def see_locker(self, runs: bool) -> None:
        """A screen locker of which no bus tells runs, or none does."""
        self._locker_runs = runs
        self._decide()

    def close(self) -> None:
        """Watch no longer."""
        self._closed = True
        for each in self._watched:
            self._loop.forget(each)
            each.close()
        self._watched = []

    def _open(self) -> None:
        found = presence.open_all()
        self._loop.post(lambda: self._opened(found))

    def _opened(self, found: list[presence.Presence]) -> None:
        for each in found:
            if self._closed:
                each.close()
                continue
            self._watched.append(each)
            self._loop.watch(each, lambda each=each: self._read(each))  # type: ignore[misc]
            # What came while it was opened has been read from the socket already.
            self._read(each)

    def _read(self, watched: presence.Presence) -> None:
        if not watched.read():
            # A bus that has ended tells nothing, and must not keep anything from anybody.
            self._loop.forget(watched)
            watched.close()
            self._watched.remove(watched)
        self._decide()

    def _decide(self) -> None:
        absences = {Absence.LOCKED} if self._locker_runs else set()
        absences.update(*(each.absences for each in self._watched))
        why = next((_why(each) for each in Absence if each in absences), "")
        if why != self.absent:
            self.absent = why
            self._changed()


def _why(absence: Absence) -> str:
    match absence:
        case Absence.LOCKED:
            return tr("the screen is locked")
        case Absence.ANOTHER:
            return tr("somebody else is using the computer")
        case Absence.ASLEEP:
            return tr("the computer goes to sleep")
