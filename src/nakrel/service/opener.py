"""Opening programs: their window comes to the front, or they are started.

Looking for a window and starting a program take their time, so both are done on other threads. A program that has
just been started has no window yet; it is looked for again for a while, so that an impatient press doesn't start it
twice. What hasn't started when everything is stopped never starts. A program that was opened is collected when it ends,
whatever it was.
"""

from __future__ import annotations

import contextlib
import enum
import os
import shutil
import subprocess
from collections import deque
from collections.abc import Callable, Iterable
from pathlib import Path

from nakrel.backends import proc
from nakrel.core.model.limits import MAX_OPENED
from nakrel.core.model.programs import Program
from nakrel.core.play.acts import OpenProgram
from nakrel.service.loop import Loop, monotonic_us
from nakrel.service.observers.desktop import Desktop
from nakrel.service.worker import Outcome, Worker
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["Opener", "missing_program"]

_SECOND_US = 1_000_000
# How long the window of a program that was just started is waited for, and how often it is looked for.
_YOUNG_US = 3_000_000
_LOOK_AGAIN_US = 100_000
# select(2) takes descriptors below 1024.
_MOST_HANDLE = 800


def missing_program(program: str) -> str:
    """Why the program can't be started; '' where it can."""
    if shutil.which(program):
        return ""
    if "/" not in program:
        return tr("there is no program {program!r} among the installed ones; write where its file is").format(
            program=program
        )
    if not Path(program).is_file():
        return tr("there is no file {program}; choose the program again").format(program=program)
    return tr("{program} is not marked as a program; make it one with: chmod +x {program}").format(program=program)


class _Found(enum.Enum):
    """What there is of a program."""

    SHOWN = enum.auto()  # its window has come to the front, or it isn't wanted any more
    STARTING = enum.auto()  # it has just been started, and has no window yet
    NOT_SHOWN = enum.auto()  # it has no window
    UNKNOWN = enum.auto()  # nobody tells which windows there are


class _NotOpenedError(Exception):
    """A program can't be opened; its text tells the user why."""


class Opener:
    """Opens what macros ask for, so many a second at most; `fault` tells the user what was not opened, and why."""

    def __init__(self, loop: Loop, desktop: Desktop, worker: Worker, fault: Callable[[str], object]) -> None:
        self._loop, self._desktop, self._worker, self._fault = loop, desktop, worker, fault
        # When programs were opened, those of the last second.
        self._opened_us: deque[int] = deque()
        # How often everything was stopped: what was asked for before is for nothing. Other threads read it.
        self._stops = 0
        # The processes that were started for each program and haven't ended.
        self._started: dict[str, set[int]] = {}
        # The programs that are being started, and the commands that wait for a window, by their timers.
        self._starting: set[str] = set()
        self._waiting: dict[tuple[str, ...], str] = {}

    def open(self, command: OpenProgram) -> None:
        """Bring the program's window to the front, or start it."""
        if self._may_open():
            self._find(command.command, self._stops, monotonic_us() + _YOUNG_US)
        else:
            self._fault(
                tr(
                    "Not every program was opened: macros open {most} a second at most. Give the macro a longer "
                    "wait, or let it play once."
                ).format(most=MAX_OPENED)
            )

    def stop(self) -> None:
        """What hasn't been opened yet never is."""
        self._stops += 1
        for timer in self._waiting.values():
            self._loop.at(timer, None, lambda: None)
        self._waiting.clear()

    def _find(self, command: tuple[str, ...], stops: int, until_us: int) -> None:
        """Look for the program's window, again and again until then where it has just been started."""
        program = command[0]
        own = frozenset(self._started.get(program, ()))

        def find() -> _Found:
            if stops != self._stops:
                return _Found.SHOWN
            if wrong := missing_program(program):
                raise _NotOpenedError(tr("A program was not opened: {wrong}.").format(wrong=wrong))
            programs = tuple(self._desktop.known_programs())
            running = _running(program, programs) | own
            classes = {Path(program).name.casefold(), Path(program).stem.casefold()}
            wanted = _with_children(running, programs)
            brought = self._desktop.about_screens(lambda screens: screens.bring_to_front(wanted, classes))
            if brought is None:
                return _Found.UNKNOWN
            since_us = proc.now_us() - _YOUNG_US
            young = any(each.pid in running and each.started_us > since_us for each in programs)
            return _Found.SHOWN if brought else _Found.STARTING if young else _Found.NOT_SHOWN

        def found(outcome: Outcome[_Found]) -> None:
            match outcome:
                case Outcome(error=_NotOpenedError() as error):
                    self._fault(str(error))
                case Outcome(error=Exception() as error):
                    self._fault(tr("A program was not opened: {reason}.").format(reason=error))
                case Outcome(result=_Found.SHOWN):
                    pass
                case Outcome(result=_Found.STARTING) if monotonic_us() < until_us:
                    self._look_again(command, stops, until_us)
                case Outcome(result=_Found.NOT_SHOWN) if program in self._starting:
                    self._look_again(command, stops, until_us)
                case _:
                    self._start(command, stops)

        self._desktop.ask(find, found)

    def _look_again(self, command: tuple[str, ...], stops: int, until_us: int) -> None:
        """In a moment; whatever else asks for the same until then is answered by it."""
        if command in self._waiting or stops != self._stops:
            return

        def again() -> None:
            del self._waiting[command]
            self._find(command, stops, until_us)

        self._waiting[command] = timer = f"open {command!r}"
        self._loop.at(timer, monotonic_us() + _LOOK_AGAIN_US, again)

    def _start(self, command: tuple[str, ...], stops: int) -> None:
        program = command[0]
        self._starting.add(program)

        def started(outcome: Outcome[subprocess.Popen[bytes] | None]) -> None:
            self._starting.discard(program)
            if outcome.error is not None:
                reason = reason_of(outcome.error)
                self._fault(tr("{program} was not opened: {reason}.").format(program=program, reason=reason))
            elif outcome.result is not None:
                self._collect(outcome.result, program)

        self._worker.do(lambda: None if stops != self._stops else _started(command), started)

    def _may_open(self) -> bool:
        now_us = monotonic_us()
        while self._opened_us and now_us - self._opened_us[0] >= _SECOND_US:
            self._opened_us.popleft()
        if len(self._opened_us) >= MAX_OPENED:
            return False
        self._opened_us.append(now_us)
        return True

    def _collect(self, process: subprocess.Popen[bytes], program: str) -> None:
        """Have it collected the moment it ends: until then it would be listed as running."""
        try:
            handle = os.pidfd_open(process.pid)
        except OSError:
            process.poll()
            return
        if handle > _MOST_HANDLE:
            # The loop can't watch any number of them; this one is collected with the next start (subprocess).
            os.close(handle)
            return

        started = self._started.setdefault(program, set())
        started.add(process.pid)

        def ended() -> None:
            if process.poll() is not None:
                started.discard(process.pid)
                self._loop.forget(handle)
                with contextlib.suppress(OSError):
                    os.close(handle)

        self._loop.watch(handle, ended)


def _started(command: tuple[str, ...]) -> subprocess.Popen[bytes]:
    nothing = subprocess.DEVNULL
    return subprocess.Popen(
        command, stdin=nothing, stdout=nothing, stderr=nothing, start_new_session=True, cwd=Path.home()
    )


def _with_children(pids: Iterable[int], programs: Iterable[Program]) -> set[int]:
    """These processes, and all that they have started: a launcher's window is often its child's."""
    found, known = set(pids), list(programs)
    while more := {each.pid for each in known if each.parent in found} - found:
        found |= more
    return found


def _running(program: str, programs: Iterable[Program]) -> set[int]:
    """The processes of this program: its file is what runs, or what an interpreter runs."""
    path = Path(shutil.which(program) or program).resolve()
    found = set()
    for each in programs:
        files = [Path(part) for part in (each.path, *each.command[:3]) if part.startswith("/")]
        if any(file == path or (file.name == path.name and file.resolve() == path) for file in files):
            found.add(each.pid)
    return found
