"""What macros do besides pressing controls: the pointer goes somewhere, a text is typed, a program is opened."""

from __future__ import annotations

import shutil
import subprocess
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import TypeVar

from nakrel.backends.layout import find_layout
from nakrel.backends.protocols import BackendLost, BackendUnavailable, CannotEmit, OutputBackend, Screens
from nakrel.backends.typist import Typist
from nakrel.core.model.errors import DataError
from nakrel.core.model.places import Monitor, Window, place_of
from nakrel.core.model.programs import Program
from nakrel.core.model.steps import Origin
from nakrel.core.play.events import TextReady
from nakrel.core.play.player import AskText, MovePointer, OpenProgram, Stroke
from nakrel.service.loop import monotonic_us
from nakrel.service.worker import Worker
from nakrel.storage import secrets
from nakrel.storage.secrets import SecretError

T = TypeVar("T")

__all__ = ["SideEffects", "UnknownCharacters", "missing_program", "strokes_of"]


# A server that is busy takes a move up within this time; a finger gets hardly anywhere in it.
_BELIEVED_US = 30_000


class UnknownCharacters(Exception):
    """The layout has no keys for some characters; the message names them and what would help."""


def strokes_of(text: str, setting: str = "") -> tuple[Stroke, ...]:
    """The keys that type the text, for the layout in use. `setting` is the user's own choice of a layout.

    Raises `UnknownCharacters`, and `BackendUnavailable` for a layout that can't be had.
    """
    typist = Typist(find_layout(setting))
    strokes, missing = typist.strokes(text)
    if missing:
        raise UnknownCharacters(_unknown(typist, missing))
    return tuple(strokes)


def _unknown(typist: Typist, missing: str) -> str:
    return (
        f"the keyboard layout {typist.layout.layout!r} (from {typist.layout.source}) has no keys for "
        f"{' '.join(missing)}; switch to a layout that has them, or set one on the Devices page"
    )


def missing_program(program: str) -> str:
    """Why the program can't be started; '' where it can."""
    if shutil.which(program):
        return ""
    if "/" not in program:
        return f"there is no program {program!r} among the installed ones; write where its file is"
    if not Path(program).is_file():
        return f"there is no file {program}; choose the program anew"
    return f"{program} is not marked as a program; make it one with: chmod +x {program}"


class SideEffects:
    """Does it. What may take time is done on a thread of its own; `answer` then gets the engine's answer."""

    def __init__(self, worker: Worker, answer: Callable[[TextReady], None], fault: Callable[[str], None]) -> None:
        self._worker = worker
        self._answer = answer
        self._fault = fault
        self._started: list[subprocess.Popen[bytes]] = []
        self.screens: Screens | None = None
        # Where the pointer was put last, and how long that is believed.
        self._put: tuple[tuple[int, int] | None, int] = (None, 0)

    # Where things are

    def pointer(self) -> tuple[int, int] | None:
        """Where the pointer is; None where nobody knows.

        Moves go to the X server by another connection than questions: for a moment after a move the answer may still
        be where the pointer was before.
        """
        place, until_us = self._put
        if place is not None and monotonic_us() < until_us:
            return place
        return self._ask(lambda screens: screens.pointer())

    def screen(self) -> tuple[int, int] | None:
        """The size of all screens together; None where nobody knows."""
        return self._ask(lambda screens: screens.size())

    def monitors(self) -> tuple[Monitor, ...]:
        """The monitors; none where nobody knows."""
        return self._ask(lambda screens: screens.monitors()) or ()

    def window_of(self, pids: Iterable[int]) -> Window | None:
        """The window of one of these processes."""
        return self._ask(lambda screens: screens.window_of(set(pids)))

    def _ask(self, question: Callable[[Screens], T]) -> T | None:
        if self.screens is None:
            return None
        try:
            return question(self.screens)
        except BackendLost:
            self.screens.close()
            self.screens = None
            return None

    # The pointer

    def move(self, move: MovePointer, output: OutputBackend) -> None:
        """Move the pointer, or this part of the way; what can't be done is told once. Raises `BackendLost`."""
        try:
            self._move(move, output)
        except (DataError, CannotEmit) as error:
            self._fault(f"The pointer was not moved: {error}.")

    def _move(self, move: MovePointer, output: OutputBackend) -> None:
        screen = self.screen()
        place = self.pointer()
        if move.origin is Origin.POINTER:
            if place is None or screen is None:
                output.move_by(move.x, move.y)
            else:
                self._put_at(_within(place[0] + move.x, place[1] + move.y, screen), screen, output)
            return
        size = screen or (move.size if move.origin is Origin.SCREEN else None)
        if size is None:
            raise DataError("nobody tells how large the screen is here; pick the place anew, so that the step knows it")
        window = self._ask(lambda screens: screens.front_window()) if move.origin is Origin.WINDOW else None
        x, y = place_of(move.x, move.y, move.origin, move.size, screen, window)
        if (x, y) != _within(x, y, size):
            self._fault(
                f"A pointer step goes to {x}, {y}, off the screen of {size[0]} x {size[1]}; it went to the edge."
            )
        if move.parts > 1:
            if place is None:
                # Where it starts from is not known here: it jumps at the end.
                return
            x, y = (now + round((there - now) / move.parts) for now, there in zip(place, (x, y), strict=True))
        self._put_at(_within(x, y, size), size, output)

    def _put_at(self, place: tuple[int, int], size: tuple[int, int], output: OutputBackend) -> None:
        output.move_to(*place, *size)
        self._put = (place, monotonic_us() + _BELIEVED_US) if self.screens else (None, 0)

    # Texts

    def type(self, macro: str, ask: AskText, layout: str, spare: Callable[[str], dict[str, str]] | None) -> None:
        """Find the keys that type the text, and answer. `spare` makes keys for characters that the layout lacks."""
        found: list[TextReady] = []

        def work() -> None:
            try:
                text = secrets.get(ask.secret) if ask.secret else ask.text
                found.append(TextReady(macro, _strokes(text, layout, spare)))
            except (SecretError, UnknownCharacters, BackendUnavailable, BackendLost) as error:
                found.append(TextReady(macro, (), f"a text was not typed: {error}"))

        self._worker.do(work, lambda error: self._answer(found[0] if found else TextReady(macro, (), error)))

    # Programs

    def open(self, command: OpenProgram, programs: Callable[[], Iterable[Program]]) -> None:
        """Bring the program's window to the front, or start it."""
        program = command.command[0]
        if wrong := missing_program(program):
            self._fault(f"A program was not opened: {wrong}.")
            return
        pids = _running(program, programs())
        there = self._ask(lambda screens: screens.bring_to_front(pids))
        if there:
            return
        told: list[str] = []
        self._worker.do(
            lambda: told.append(self._start(command.command)),
            lambda error: self._fault(error or told[0]) if error or told[0] else None,
        )

    def _start(self, command: tuple[str, ...]) -> str:
        """Start the program, and return what went wrong."""
        self._started = [process for process in self._started if process.poll() is None]
        try:
            nothing = subprocess.DEVNULL
            started = subprocess.Popen(
                command, stdin=nothing, stdout=nothing, stderr=nothing, start_new_session=True, cwd=Path.home()
            )
        except OSError as error:
            return f"{command[0]} was not opened: {error.strerror}."
        self._started.append(started)
        return ""


def _within(x: int, y: int, size: tuple[int, int]) -> tuple[int, int]:
    return max(0, min(x, size[0] - 1)), max(0, min(y, size[1] - 1))


def _strokes(text: str, layout: str, spare: Callable[[str], dict[str, str]] | None) -> tuple[Stroke, ...]:
    if spare is None:
        return strokes_of(text, layout)
    typist = Typist(find_layout(layout))
    missing = typist.strokes(text)[1]
    if not missing:
        return tuple(typist.strokes(text)[0])
    made = spare(missing)
    if any(char not in made for char in missing):
        raise UnknownCharacters(_unknown(typist, "".join(char for char in missing if char not in made)))
    return tuple(
        stroke for char in text for stroke in ([Stroke(made[char])] if char in made else typist.strokes(char)[0])
    )


def _running(program: str, programs: Iterable[Program]) -> set[int]:
    """The processes of this program: its file is what runs, or what an interpreter runs."""
    path = Path(shutil.which(program) or program).resolve()
    found = set()
    for each in programs:
        files = [Path(part) for part in (each.path, *each.command[:3]) if part.startswith("/")]
        if any(file == path or (file.name == path.name and file.resolve() == path) for file in files):
            found.add(each.pid)
    return found
