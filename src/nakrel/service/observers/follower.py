"""Following games: which programs run, which is in front, and so which profile is live."""

from __future__ import annotations

import logging
import os
import shutil
from collections.abc import Callable, Iterable
from functools import partial
from typing import TypeVar

import msgspec

from nakrel.backends.process_events import ProcessEvents
from nakrel.backends.protocols import BackendLost, BackendUnavailable, ProgramWatch, WindowInfo, WindowWatch
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.core.model.programs import LOCKERS, Choice, Front, Icon, Links, Program, choose
from nakrel.service.loop import Loop, monotonic_us

__all__ = ["Follower"]

log = logging.getLogger(__name__)

T = TypeVar("T")
# How often programs are looked for while nothing says that one started; more often while one is young. Where the kernel
# tells of starts, looking is only for what may have been missed.
SCAN_US = 1_000_000
SCAN_TOLD_US = 30_000_000
SCAN_YOUNG_US = 200_000
STARTS_US = 80_000
# A game that starts anew, or that hands over to another process of its own, isn't gone in between.
GONE_US = 700_000


class Follower:
    """Calls `decided` with the choice each time something that bears on it has changed, or a screen locker has started
    or ended: `locked`."""

    def __init__(
        self, loop: Loop, processes: ProgramWatch, windows: WindowWatch | None, decided: Callable[[Choice], None]
    ) -> None:
        self._loop = loop
        self._windows = windows
        self._decided = decided
        self._processes = processes
        self._profiles: tuple[Profile, ...] = ()
        self._links = Links({})
        self._linked_now: list[tuple[str, Program]] | None = None
        # The profiles of each program that has no window, worked out once.
        self._links_of: dict[int, tuple[Program, list[str]]] = {}
        # Programs that have just started, of which the kernel told.
        self._young: set[int] = set()
        self._pinned = ""
        self._shown: list[tuple[int, WindowInfo]] = []
        self._last_front = Front()
        self._last = Choice(EVERYDAY, "", 0)
        self._events: ProcessEvents | None = None
        self._refused = False
        self._patient = False
        self.locked = False
        # Where there is none nobody looks for one.
        self._has_lockers = any(map(shutil.which, LOCKERS))
        if windows:
            self._shown = self._ask(windows.shown, [])
            loop.watch(windows, self._window_event)

    @property
    def sees_windows(self) -> bool:
        """Whether it is told which window is in front."""
        return self._windows is not None

    def set_profiles(self, profiles: Iterable[Profile], pinned: str) -> None:
        """Go by these profiles and this pin from now on, and decide anew."""
        self._profiles = tuple(profiles)
        self._links = Links({profile.id: profile.live_with for profile in self._profiles})
        self._linked_now = None
        self._links_of.clear()
        self._pinned = pinned
        self._scan()
        # What was changed here is meant, so nothing is waited for.
        self._patient = False
        self._decide()

    def programs(self) -> tuple[Program, ...]:
        """Every program of this user that runs, with its window's title and class where it has one."""
        self._processes.scan(all_of_them=True)
        self._linked_now = None
        if self._windows:
            self._shown = self._ask(self._windows.shown, [])
            self._look_for_window_events()
        return tuple(map(self._with_window(), self._processes.programs.values()))

    def icons(self) -> dict[int, Icon]:
        """The pictures of the windows that there are, by process."""
        found: dict[int, Icon] = {}
        for pid in {pid for pid, _ in self._shown if pid}:
            windows = self._windows
            if windows and (icon := self._ask(partial(windows.icon, pid), None)):
                found[pid] = icon
        return found

    def running_profiles(self) -> tuple[str, ...]:
        """The profiles that have a linked program running."""
        return tuple(sorted({key for key, _ in self._linked()}))

    def pids_of(self, profile: str) -> set[int]:
        """The processes of the programs that the profile is linked to."""
        return {program.pid for key, program in self._linked() if key == profile}

    def known(self) -> tuple[Program, ...]:
        """Every program of this user, looked at now."""
        if self._processes.scan(all_of_them=True):
            self._linked_now = None
        return tuple(self._processes.programs.values())

    def close(self) -> None:
        """Give everything back."""
        for name in ("scan", "gone", "windows"):
            self._loop.at(name, None, self._look)
        self._listen(False)
        self._processes.close()
        self._lose_windows()

    def _with_window(self) -> Callable[[Program], Program]:
        """What gives a program its window's title and class, where it has one."""
        owned: dict[int, WindowInfo] = {}
        named: dict[str, WindowInfo] = {}
        for pid, shown in self._shown:
            if pid:
                owned.setdefault(pid, shown)
            elif shown.window_class:
                # Nobody tells whose it is; applications mostly bear their program's name (org.example.Game, game).
                named.setdefault(shown.window_class.rpartition(".")[2].casefold(), shown)

        def whole(program: Program) -> Program:
            own = owned.get(program.pid) or (named and named.get(program.name.casefold()))
            if not own:
                return program
            return msgspec.structs.replace(program, title=own.title, window_class=own.window_class)

        return whole

    def _window_event(self) -> None:
        if self._windows and self._ask(self._windows.changed, False):
            self._scan()
            if self._windows:
                self._shown = self._ask(self._windows.shown, [])
            self._linked_now = None
            self._decide()

    def _look_for_window_events(self) -> None:
        """Events that came while we waited for an answer of the window server are read already, so that its descriptor
        tells nothing of them."""
        if self._windows:
            self._loop.at("windows", monotonic_us(), self._window_event)

    def _look(self) -> None:
        before = self._linked_now
        if self._scan() and (self._linked() != before or self.locked != bool(self._lockers())):
            self._decide()

    def _started(self) -> None:
        """The kernel tells that programs have started. They are looked at together in a moment: most of them have ended
        by then where something is being compiled, and the others have their names."""
        if self._events:
            self._loop.forget(self._events)
            self._take_young()
            self._loop.at("starts", monotonic_us() + STARTS_US, self._look_at_young)

    def _take_young(self) -> None:
        pids = self._events.started() if self._events else set()
        if pids is None:
            # Some were missed.
            self._loop.at("scan", monotonic_us(), self._look)
        else:
            self._young |= pids

    def _look_at_young(self) -> None:
        young, self._young = self._young, set()
        whole = self._with_window()

        def counts(program: Program) -> bool:
            # One that is linked by its window has no other sign.
            return program.name in LOCKERS or bool(self._links.of(whole(program)))

        if self._processes.look(young, counts, by_application=self._links.by_application):
            self._linked_now = None
            self._decide()
        self._take_young()
        if self._young:
            self._loop.at("starts", monotonic_us() + STARTS_US, self._look_at_young)
        elif self._events:
            self._loop.watch(self._events, self._started)

    def _scan(self) -> bool:
        """Look which programs run, and say whether that changed; without a link and a screen locker there is nothing to
        look for."""
        wanted = self._has_lockers or any(profile.live_with for profile in self._profiles)
        self._listen(wanted)
        if not wanted:
            self._loop.at("scan", None, self._look)
            return False
        changed = self._processes.scan(by_application=self._links.by_application)
        if changed:
            self._linked_now = None
        self._plan_scan()
        return changed

    def _plan_scan(self) -> None:
        rest_us = SCAN_TOLD_US if self._events else SCAN_US
        # A program changes its name and its window after it has started, of which nobody tells.
        wait_us = SCAN_YOUNG_US if self._processes.unsettled and not self._events else rest_us
        self._loop.at("scan", monotonic_us() + wait_us, self._look)

    def _listen(self, wanted: bool) -> None:
        """Have the kernel tell of programs that start, where it does."""
        if wanted and self._events is None and not self._refused:
            try:
                self._events = ProcessEvents()
            except BackendUnavailable:
                # It won't while this process lives.
                self._refused = True
            else:
                self._loop.watch(self._events, self._started)
        elif not wanted and self._events is not None:
            self._loop.at("starts", None, self._look_at_young)
            self._young.clear()
            self._loop.forget(self._events)
            self._events.close()
            self._events = None

    def _decide(self) -> None:
        self._watch_ends()
        was_locked, self.locked = self.locked, bool(self._lockers())
        choice = choose(self._links, self._linked(), self._front(), self._pinned)
        falls = choice.profile == EVERYDAY and self._last.profile != EVERYDAY and not self._pinned
        if falls and self._patient:
            # Still the same one, unless nothing of it comes back. What else starts meanwhile puts that off no further.
            if not self._loop.pending("gone"):
                self._loop.at("gone", monotonic_us() + GONE_US, self._give_up)
            self._look_for_window_events()
            if self.locked != was_locked:
                self._decided(self._last)
            return
        self._loop.at("gone", None, self._give_up)
        self._patient = True
        self._last = choice
        self._look_for_window_events()
        self._decided(choice)

    def _give_up(self) -> None:
        self._patient = False
        self._decide()

    def _watch_ends(self) -> None:
        """Let the kernel tell the end of every linked program, and of a screen locker, at once."""
        new, gone = self._processes.watch({program.pid for _, program in self._linked()} | self._lockers())
        for handle in gone:
            self._loop.forget(handle)
            os.close(handle)
        for handle in new:
            self._loop.watch(handle, partial(self._ended, handle))

    def _lockers(self) -> set[int]:
        """The screen lockers that run."""
        if not self._has_lockers:
            return set()
        return {pid for pid, program in self._processes.programs.items() if program.name in LOCKERS}

    def _ended(self, handle: int) -> None:
        self._processes.ended(handle)
        self._linked_now = None
        # What it left in its place, if anything, is looked for, too.
        self._scan()
        self._decide()

    def _linked(self) -> list[tuple[str, Program]]:
        """The linked programs that run, with the profiles of each; worked out anew when something has changed."""
        if self._linked_now is None:
            whole, known = self._with_window(), self._links_of
            self._linked_now, self._links_of = [], {}
            for program in self._processes.programs.values():
                shown = whole(program)
                if shown is not program:
                    keys = self._links.of(shown)
                else:
                    before = known.get(program.pid)
                    entry = before if before and before[0] is program else (program, self._links.of(program))
                    self._links_of[program.pid] = entry
                    keys = entry[1]
                self._linked_now += [(key, shown) for key in keys]
        return self._linked_now

    def _front(self) -> Front:
        """What is in front; while nothing is (between two windows, on an empty desktop), what was, as long as its
        window is there."""
        found = self._ask(self._windows.front, Front()) if self._windows else Front()
        last = self._last_front
        there = any(last == (pid, shown.window_class if not pid else last.window_class) for pid, shown in self._shown)
        if found != Front() or not there:
            self._last_front = found
        return self._last_front

    def _ask(self, question: Callable[[], T], otherwise: T) -> T:
        """What the windows' watch answers; when its server is gone, nobody is asked any more."""
        try:
            return question()
        except BackendLost as error:
            log.info("no word of the windows any more: %s", error)
            self._lose_windows()
            return otherwise

    def _lose_windows(self) -> None:
        if self._windows:
            self._loop.forget(self._windows)
            self._windows.close()
            self._windows = None
            self._shown, self._last_front, self._linked_now = [], Front(), None
