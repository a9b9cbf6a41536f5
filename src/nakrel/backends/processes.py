"""The programs that run: looked at when there is a reason, and told of an end by the kernel."""

from __future__ import annotations

import contextlib
import os
import time
from collections.abc import Collection

import psutil

from nakrel.core.model.programs import Program
from nakrel.core.model.value import readable_text

__all__ = ["ProcessWatch"]

# A process changes its name and program shortly after it starts (fork, exec, prctl); until it is this old, it is
# looked at again.
SETTLES_AFTER_S = 3.0
# In so many scans each known process is looked at, whether it is still the same one.
_ROUNDS = 8


class ProcessWatch:
    """This user's processes. `scan` finds what started; `pidfd`s of watched ones become readable at their end.

    Ages are counted from the machine's start: a clock that is set makes no process young.
    """

    def __init__(self) -> None:
        self.programs: dict[int, Program] = {}
        # Each process that was looked at, as psutil knows it: a number that another process has got is told by it.
        self._known: dict[int, psutil.Process] = {}
        self._foreign: set[int] = set()
        self._round = 0
        self._uid = os.getuid()
        self._pidfds: dict[int, int] = {}

    @property
    def unsettled(self) -> bool:
        """Whether a young process should be looked at again soon."""
        now_us = _now_us()
        return any(now_us - p.started_us < SETTLES_AFTER_S * 1_000_000 for p in self.programs.values())

    def scan(self) -> bool:
        """Look which programs run; True when something changed."""
        now = {process.pid: process for process in psutil.process_iter()}
        self._round += 1
        # `look` finds programs, too, between two scans.
        gone = (self._known.keys() | self.programs.keys() | self._foreign) - now.keys()
        # The same number for another process: rare, and a look at each costs its time, so some are looked at each time.
        others = {pid for pid in now.keys() & self._known.keys() if (pid + self._round) % _ROUNDS == 0}
        others = {pid for pid in others if not self._known[pid].is_running()}
        ended = [self.programs.pop(pid, None) for pid in gone | others]
        changed = any(program is not None for program in ended)
        self._foreign -= gone | others
        for pid in others:
            with contextlib.suppress(psutil.Error):
                now[pid] = psutil.Process(pid)
        self._known = now
        now_us = _now_us()
        for pid in self._known.keys() - self._foreign:
            known = self.programs.get(pid)
            settled = known is not None and now_us - known.started_us > SETTLES_AFTER_S * 1_000_000
            if settled and not _is_zombie(pid):
                continue
            found = None if settled else self._look(pid)
            if found is None:
                self._foreign.add(pid)
                changed = self.programs.pop(pid, None) is not None or changed
            elif found != known:
                self.programs[pid] = found
                changed = True
        return changed

    def look(self, pids: Collection[int]) -> bool:
        """Look at these processes alone; True when something changed."""
        changed = False
        for pid in pids:
            known = self.programs.get(pid)
            found = self._look(pid) if known or _owner(pid) == self._uid else None
            if found is None:
                self.programs.pop(pid, None)
            elif found != known:
                self._foreign.discard(pid)
                self.programs[pid] = found
            changed = changed or found != known
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

    def _look(self, pid: int) -> Program | None:
        """The program with this process id; None for another user's, for the kernel's own, and for one that ended."""
        try:
            process = psutil.Process(pid)
            with process.oneshot():
                if process.uids().real != self._uid or process.status() == psutil.STATUS_ZOMBIE:
                    return None
                command = tuple(map(readable_text, process.cmdline()))
                if not command:
                    return None
                name = _comm(pid) or readable_text(process.name())
                return Program(
                    pid,
                    name,
                    _path(process),
                    command,
                    _started_us(pid),
                    parent=process.ppid(),
                    application=_application(pid),
                )
        except (psutil.Error, OSError):
            return None


def _now_us() -> int:
    """Microseconds since the machine was started, those included in which it slept."""
    return time.clock_gettime_ns(time.CLOCK_BOOTTIME) // 1_000


_TICKS = os.sysconf("SC_CLK_TCK")


def _started_us(pid: int) -> int:
    """When the process was started, in microseconds since the machine was (the 22nd field of stat, proc(5)). Raises
    `OSError`."""
    with open(f"/proc/{pid}/stat", "rb") as file:
        return int(file.read().rpartition(b")")[2].split()[19]) * 1_000_000 // _TICKS


def _is_zombie(pid: int) -> bool:
    """Whether the process has ended and only waits for its parent (the state in stat, proc(5))."""
    try:
        with open(f"/proc/{pid}/stat", "rb") as file:
            return file.read().rpartition(b")")[2].split()[0] in (b"Z", b"X")
    except (OSError, IndexError):
        return True


def _owner(pid: int) -> int:
    """The user that the process is of, -1 for one that is gone."""
    try:
        return os.stat(f"/proc/{pid}").st_uid
    except OSError:
        return -1


def _comm(pid: int) -> str:
    """The kernel's name for the process (proc(5)); psutil's may be lengthened from the command line."""
    try:
        with open(f"/proc/{pid}/comm", encoding="utf-8", errors="replace") as file:
            return file.read().rstrip("\n")
    except OSError:
        return ""


# What stores and sandboxes put into the environment of the programs that they start (from memory).
_APPLICATION_IDS = (b"FLATPAK_ID", b"SNAP_INSTANCE_NAME", b"SteamAppId")
_MOST_ENVIRONMENT = 1 << 20


def _application(pid: int) -> str:
    """The application's id in the process's environment, with its name; nothing else is kept of it."""
    try:
        with open(f"/proc/{pid}/environ", "rb") as file:
            variables = file.read(_MOST_ENVIRONMENT).split(b"\0")
    except OSError:
        return ""
    found = (each for each in variables if each.partition(b"=")[0] in _APPLICATION_IDS)
    return next((each.decode("utf-8", "replace")[:200] for each in found if not each.endswith(b"=")), "")


def _path(process: psutil.Process) -> str:
    try:
        return readable_text(str(process.exe()))
    except (psutil.Error, OSError):
        return ""
