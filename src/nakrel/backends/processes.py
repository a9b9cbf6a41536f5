"""The programs that run: looked at when there is a reason, and told of an end by the kernel."""

from __future__ import annotations

import contextlib
import os
from collections.abc import Callable, Collection

import msgspec

from nakrel.backends import proc
from nakrel.core.model.programs import Program

__all__ = ["ProcessWatch"]

# A process changes its name and program shortly after it starts (fork, exec, prctl); until it is this old, it is
# looked at again.
SETTLES_AFTER_S = 3.0
_SETTLES_US = int(SETTLES_AFTER_S * 1_000_000)
# In so many scans each known process is looked at, whether it is still the same one.
_ROUNDS = 64


class ProcessWatch:
    """This user's processes. `scan` finds what started; `pidfd`s of watched ones become readable at their end.

    Ages are counted from the machine's start: a clock that is set makes no process young.
    """

    def __init__(self) -> None:
        self.programs: dict[int, Program] = {}
        # Processes that are none of ours: another user's, the kernel's, ended ones.
        self._foreign: set[int] = set()
        # Those that were young when they were looked at last: few, where hundreds run for hours.
        self._young: set[int] = set()
        self._round = 0
        self._uid = os.getuid()
        self._pidfds: dict[int, int] = {}

    @property
    def unsettled(self) -> bool:
        """Whether a young process should be looked at again soon."""
        self._grow_up()
        return bool(self._young)

    def _grow_up(self) -> None:
        since_us = proc.now_us() - _SETTLES_US
        self._young = {pid for pid in self._young if pid in self.programs and self.programs[pid].started_us > since_us}

    def scan(self, *, all_of_them: bool = False, by_application: bool = True) -> bool:
        """Look which programs run; True when something changed. Of those that were there before a few are looked at
        each time, whether they are the same, or with `all_of_them` every one, for all that can be told of it."""
        now = proc.pids()
        self._round += 1
        self._foreign -= {pid for pid in self._foreign if (pid + self._round) % _ROUNDS == 0}
        gone = (self.programs.keys() | self._foreign) - now
        self._foreign -= gone
        ended = [self.programs.pop(pid, None) for pid in gone]
        changed = any(program is not None for program in ended)
        self._grow_up()
        old = set() if all_of_them else self.programs.keys() - self._young
        for pid in now - self._foreign - old:
            changed = self._look(pid, self.programs.get(pid), all_of_them or by_application) or changed
        for pid in [pid for pid in old if (pid + self._round) % _ROUNDS == 0]:
            known = self.programs[pid]
            if proc.started_us(pid) != known.started_us:
                # Its number is another process's by now, or it has ended and nobody has collected it.
                changed = self._look(pid, known, by_application) or changed
        return changed

    def look(self, pids: Collection[int], wanted: Callable[[Program], object], *, by_application: bool = True) -> bool:
        """Look at these processes alone, and keep those that are wanted; True when something changed.
        `by_application` says whether their application's id bears on that: finding it takes as long as all else."""
        changed = False
        for pid in pids:
            found = proc.read_program(pid, self._uid, application=by_application)
            if found is None or not wanted(found):
                changed = self.programs.pop(pid, None) is not None or changed
            else:
                self._foreign.discard(pid)
                changed = self._keep(found, self.programs.get(pid)) or changed
        return changed

    def watch(self, pids: Collection[int]) -> tuple[list[int], list[int]]:
        """Watch the ends of exactly these processes; returns the descriptors that are new and those that are gone."""
        gone = [self._pidfds.pop(pid) for pid in list(self._pidfds) if pid not in pids]
        new = []
        for pid in pids:
            if pid not in self._pidfds:
                with contextlib.suppress(OSError):
                    self._pidfds[pid] = os.pidfd_open(pid)
                    new.append(self._pidfds[pid])
        return new, gone

    def ended(self, handle: int) -> None:
        """The process of this descriptor has ended; it may stay in the table of processes for long."""
        pid = next((pid for pid, each in self._pidfds.items() if each == handle), None)
        if pid in self.programs:
            del self.programs[pid]
            self._foreign.add(pid)

    def close(self) -> None:
        """Close all descriptors."""
        for handle in self._pidfds.values():
            os.close(handle)
        self._pidfds.clear()

    def _look(self, pid: int, known: Program | None, by_application: bool) -> bool:
        """Look at a process; True when it is another program than was known."""
        found = proc.read_program(pid, self._uid, application=by_application)
        if found is None:
            # One that is just becoming another program (exec) has no command for a moment: it's ours soon.
            if proc.started_us(pid) <= proc.now_us() - _SETTLES_US:
                self._foreign.add(pid)
            return self.programs.pop(pid, None) is not None
        return self._keep(found, known)

    def _keep(self, found: Program, known: Program | None) -> bool:
        if known is not None and known.application and not found.application:
            # It wasn't looked for.
            found = msgspec.structs.replace(found, application=known.application)
        self._young.add(found.pid)
        if found == known:
            return False
        self.programs[found.pid] = found
        return True
