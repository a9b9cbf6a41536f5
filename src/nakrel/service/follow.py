"""Following games: which programs run, which is in front, and so which profile is live."""

from __future__ import annotations

import os
from collections.abc import Callable, Iterable

from nakrel.backends.protocols import BackendLost, ProgramWatch, WindowWatch
from nakrel.core.profile import Profile
from nakrel.core.programs import Choice, Program, choose, matches
from nakrel.service.loop import Loop, monotonic_us

__all__ = ["Follower"]

# How often programs are looked for while nothing says that one started; more often while one is young.
SCAN_US = 1_000_000
SCAN_YOUNG_US = 200_000


class Follower:
    """Calls `decided` with the choice each time something that bears on it has changed."""

    def __init__(
        self, loop: Loop, processes: ProgramWatch, windows: WindowWatch | None, decided: Callable[[Choice], None]
    ) -> None:
        self._loop = loop
        self._windows = windows
        self._decided = decided
        self._processes = processes
        self._profiles: tuple[Profile, ...] = ()
        self._pinned = ""
        if windows:
            loop.watch(windows, self._window_event)

    def set_profiles(self, profiles: Iterable[Profile], pinned: str) -> None:
        """Go by these profiles and this pin from now on, and decide anew."""
        self._profiles = tuple(profiles)
        self._pinned = pinned
        self._scan()
        self._decide()

    def programs(self) -> tuple[Program, ...]:
        """Every program of this user that runs, with its window's title where it has one."""
        self._processes.scan()
        titles = self._titles()
        known = self._processes.programs.values()
        return tuple(Program(p.pid, p.name, p.path, p.command, p.started_us, titles.get(p.pid, "")) for p in known)

    def running_profiles(self) -> tuple[str, ...]:
        """The profiles that have a linked program running."""
        return tuple(sorted({key for key, _ in self._linked()}))

    def pids_of(self, profile: str) -> set[int]:
        """The processes of the programs that the profile is linked to."""
        return {program.pid for key, program in self._linked() if key == profile}

    def known(self) -> tuple[Program, ...]:
        """Every program of this user, looked at now."""
        self._processes.scan()
        return tuple(self._processes.programs.values())

    def close(self) -> None:
        """Give everything back."""
        self._loop.at("scan", None, self._look)
        self._processes.close()
        if self._windows:
            self._loop.forget(self._windows)
            self._windows.close()
            self._windows = None

    def _window_event(self) -> None:
        try:
            if self._windows and self._windows.changed():
                self._scan()
                self._decide()
        except BackendLost:
            self._lose_windows()

    def _look(self) -> None:
        if self._scan():
            self._decide()

    def _scan(self) -> bool:
        """Look which programs run, and say whether that changed; without a link there is nothing to look for."""
        if not any(profile.programs for profile in self._profiles):
            self._loop.at("scan", None, self._look)
            return False
        changed = self._processes.scan()
        wait_us = SCAN_YOUNG_US if self._processes.unsettled else SCAN_US
        self._loop.at("scan", monotonic_us() + wait_us, self._look)
        return changed

    def _decide(self) -> None:
        self._watch_ends()
        rules = {p.id: p.programs for p in self._profiles}
        self._decided(choose(rules, self._processes.programs.values(), self._front_pid(), self._pinned))

    def _watch_ends(self) -> None:
        """Let the kernel tell the end of every linked program at once."""
        new, gone = self._processes.watch({program.pid for _, program in self._linked()})
        for handle in gone:
            self._loop.forget(handle)
            os.close(handle)
        for handle in new:
            self._loop.watch(handle, self._look)

    def _linked(self) -> list[tuple[str, Program]]:
        return [
            (profile.id, program)
            for profile in self._profiles
            for program in self._processes.programs.values()
            if any(matches(rule, program) for rule in profile.programs)
        ]

    def _front_pid(self) -> int:
        try:
            return self._windows.front_pid() if self._windows else 0
        except BackendLost:
            self._lose_windows()
            return 0

    def _titles(self) -> dict[int, str]:
        try:
            return self._windows.titles() if self._windows else {}
        except BackendLost:
            self._lose_windows()
            return {}

    def _lose_windows(self) -> None:
        if self._windows:
            self._loop.forget(self._windows)
            self._windows.close()
            self._windows = None
