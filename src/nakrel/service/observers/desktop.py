"""The desktop as the service sees it: which programs run, what is in front, where things are on the screens.

All of it lives on a thread of its own, since `/proc` and a window server may take their time. What is found is handed
over to the service's loop as finished values; nobody on that loop ever waits for it.
"""

from __future__ import annotations

import contextlib
import logging
import threading
from collections.abc import Callable, Iterable
from typing import NamedTuple, TypeVar

from nakrel.backends.protocols import BackendLost, ProgramWatch, Screens, WindowWatch
from nakrel.core.model.places import Monitor, Window
from nakrel.core.model.profile import Profile
from nakrel.core.model.programs import Choice, Icon, Program
from nakrel.service.loop import Loop, monotonic_us
from nakrel.service.observers.follower import Follower
from nakrel.service.worker import Outcome

__all__ = ["Desktop", "Finders", "Seen", "Spots"]

log = logging.getLogger(__name__)

T = TypeVar("T")
# How long the end of the service waits for a window server that doesn't answer, and who asks what is live.
_END_S = 1.0
_LOOK_US = 5_000_000


class Finders(NamedTuple):
    """How the watches are made; they are made, used and closed on the observer's thread."""

    programs: Callable[[], ProgramWatch]
    windows: Callable[[], WindowWatch | None]
    screens: Callable[[], Screens | None]


class Seen(NamedTuple):
    """What bears on the choice of the live profile: the choice, the profiles with a linked program that runs, and
    whether anybody tells which window is in front; and whether a screen locker runs."""

    choice: Choice
    running: tuple[str, ...]
    sees_windows: bool
    locked: bool = False


class Spots(NamedTuple):
    """Where things are: the monitors, the size of all of them, the pointer, and a window; None where nobody knows."""

    monitors: tuple[Monitor, ...]
    size: tuple[int, int] | None
    pointer: tuple[int, int] | None
    window: Window | None


class Desktop:
    """The observer: a thread with a loop of its own. Methods may be called from the service's loop; answers come
    there."""

    def __init__(self, main: Loop, finders: Finders, seen: Callable[[Seen], object]) -> None:
        self._main, self._finders, self._seen = main, finders, seen
        self._loop = Loop(lambda error: log.error("unexpected while looking at the desktop", exc_info=error))
        self._follower: Follower | None = None
        self._screens: Screens | None = None
        self._generation = 0
        # Who waits for the first look; None once that has come, or has taken too long.
        self._waiting: list[Callable[[Outcome[None]], object]] | None = []
        self._thread = threading.Thread(target=self._loop.run, name="desktop", daemon=True)
        self._thread.start()

    # For the service's loop

    def follow(self, profiles: Iterable[Profile], pinned: str) -> None:
        """Go by these profiles and this pin from now on."""
        given = tuple(profiles)
        self._loop.post(lambda: self._follow(given, pinned))

    def first_look(self, answered: Callable[[Outcome[None]], object]) -> None:
        """Answer once the desktop has been looked at since the start, or keeps that waiting too long."""
        if self._waiting is None:
            answered(Outcome(None))
            return
        self._waiting.append(answered)
        if not self._main.pending("first look"):
            self._main.at("first look", monotonic_us() + _LOOK_US, self._has_looked)

    def look_again(self) -> None:
        """Another window server may be there: forget what was known; the next `follow` opens everything anew."""
        self._generation += 1
        self._loop.post(self._drop)

    def programs(self, answered: Callable[[Outcome[tuple[tuple[Program, ...], dict[int, Icon]]]], object]) -> None:
        """Every program of this user, with the pictures of the windows."""
        self.ask(self._programs, answered)

    def spots(self, profile: str, answered: Callable[[Outcome[Spots]], object]) -> None:
        """Where things are, with the window of the programs that a profile is linked to ('' for no profile)."""
        self.ask(lambda: self._spots(profile), answered)

    def ask(self, question: Callable[[], T], answered: Callable[[Outcome[T]], object]) -> None:
        """Have a question answered on the observer's thread."""

        def work() -> None:
            try:
                outcome = Outcome(question())
            except Exception as error:
                outcome = Outcome(None, error)
            self._main.post(lambda: answered(outcome))

        self._loop.post(work)

    def close(self) -> None:
        """End the thread; one that a window server keeps waiting is left behind."""
        self._loop.post(self._end)
        self._thread.join(_END_S)

    def _tell(self, seen: Seen) -> None:
        self._seen(seen)
        self._has_looked()

    def _has_looked(self) -> None:
        waiting, self._waiting = self._waiting or [], None
        self._main.at("first look", None, self._has_looked)
        for answered in waiting:
            answered(Outcome(None))

    # On the observer's thread

    def screens(self) -> Screens | None:
        """What knows the screens; None where nothing does. On the observer's thread only."""
        if self._screens is None:
            self._screens = self._finders.screens()
        return self._screens

    def known_programs(self) -> tuple[Program, ...]:
        """Every program of this user, looked at now. On the observer's thread only."""
        return self._following().known()

    def about_screens(self, question: Callable[[Screens], T]) -> T | None:
        """What the screens answer; None where nobody does. On the observer's thread only."""
        if (screens := self.screens()) is None:
            return None
        try:
            return question(screens)
        except BackendLost:
            self._drop_screens()
            return None

    def _following(self) -> Follower:
        if self._follower is None:
            decided = lambda choice: self._decided(choice)  # noqa: E731, PLW0108
            self._follower = Follower(self._loop, self._finders.programs(), self._finders.windows(), decided)
        return self._follower

    def _follow(self, profiles: tuple[Profile, ...], pinned: str) -> None:
        self._following().set_profiles(profiles, pinned)

    def _decided(self, choice: Choice) -> None:
        follower, generation = self._following(), self._generation
        seen = Seen(choice, follower.running_profiles(), follower.sees_windows, follower.locked)
        self._main.post(lambda: self._tell(seen) if generation == self._generation else None)

    def _programs(self) -> tuple[tuple[Program, ...], dict[int, Icon]]:
        follower = self._following()
        return follower.programs(), follower.icons()

    def _spots(self, profile: str) -> Spots:
        pids = self._following().pids_of(profile) if profile else set()
        return Spots(
            self.about_screens(lambda screens: screens.monitors()) or (),
            self.about_screens(lambda screens: screens.size()),
            self.about_screens(lambda screens: screens.pointer()),
            self.about_screens(lambda screens: screens.window_of(pids)) if pids else None,
        )

    def _drop(self) -> None:
        if self._follower:
            self._follower.close()
            self._follower = None
        self._drop_screens()

    def _drop_screens(self) -> None:
        screens, self._screens = self._screens, None
        if screens is not None:
            with contextlib.suppress(BackendLost):
                screens.close()

    def _end(self) -> None:
        self._drop()
        self._loop.stop()
