"""Long work on macros, in a process beside the window.

Python lets one thread of a process work at a time, so work on a thread of the window's own would make it stand. The
process is started when there is first something to do, does one job after the other, and ends with the window.
"""

from __future__ import annotations

import atexit
import contextlib
import gc
import os
import select
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator
from typing import IO, TypeVar

import msgspec

from nakrel.core.analysis.frame_answer import answer_for
from nakrel.core.analysis.seen import Game
from nakrel.core.analysis.takes import Aligned
from nakrel.core.edit.checks import check_by_parts
from nakrel.core.edit.findings import NO_FACTS, Attached, Facts, Finding
from nakrel.core.edit.sketch import sketch
from nakrel.core.model.controls import labels_in_use, use_labels
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Step
from nakrel.core.model.takes import Take
from nakrel.core.model.tuning import Question, Trial
from nakrel.language import use
from nakrel.words import tr

__all__ = [
    "CheckFrames",
    "CompareTakes",
    "Compared",
    "Job",
    "LookForSlips",
    "SketchLoop",
    "Slips",
    "Unwanted",
    "WorkOutTrials",
    "ask",
    "end",
]

T = TypeVar("T")
_END_S = 2.0
# How often it is asked whether an answer is still wanted, and how long a job has gone on before it is given up for
# that: the process has to be started anew then, which takes some tenths of a second.
_ASK_S, _GIVE_UP_S = 0.05, 0.5


# What an answer begins with: whether another one follows.
_LAST, _SO_FAR = b"\1", b"\0"


class Unwanted(Exception):  # noqa: N818
    """Nobody wants the answer any more."""


class LookForSlips(msgspec.Struct, frozen=True, tag="slips"):
    """What `check_macro` finds, the first `most` of it."""

    macro: Macro
    most: int
    triggers: tuple[str, ...] = ()
    facts: Facts = NO_FACTS
    attached: tuple[Attached, ...] = ()


class Slips(msgspec.Struct, frozen=True):
    """How many there are, and the first of them; `whole` unless more is still being looked for."""

    count: int
    first: tuple[Finding, ...]
    whole: bool = True


class CheckFrames(msgspec.Struct, frozen=True, tag="frames"):
    """The frame check's answer."""

    macro: Macro | None
    game: Game
    against: str


class WorkOutTrials(msgspec.Struct, frozen=True, tag="trials"):
    """What the trials of a time tell."""

    question: Question
    trials: tuple[Trial, ...]


class CompareTakes(msgspec.Struct, frozen=True, tag="takes"):
    """Takes of the same thing side by side."""

    takes: tuple[Take, ...]


class SketchLoop(msgspec.Struct, frozen=True, tag="sketch"):
    """A long loop as a small picture shows it."""

    loop: tuple[Step, ...]


class Compared(msgspec.Struct, frozen=True):
    """They, or why they can't be compared."""

    aligned: Aligned | None
    error: str = ""


Job = LookForSlips | CheckFrames | WorkOutTrials | CompareTakes | SketchLoop


class _Asked(msgspec.Struct, frozen=True):
    """A job, and what the window calls keys."""

    job: Job
    labels: dict[str, str]


class _Process:
    """The process, started where it doesn't run; jobs of several threads come one after the other."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._process: subprocess.Popen[bytes] | None = None
        self._closed = False

    def ask(
        self, data: bytes, wanted: Callable[[], bool], so_far: Callable[[bytes], object] = lambda part: None
    ) -> bytes:
        """The answer to a job, and `so_far` gets what is known before; a process that has ended is started once more.
        Raises `OSError` where that fails, and `Unwanted`."""
        with self._lock:
            try:
                return self._exchange(data, wanted, so_far)
            except (OSError, EOFError):
                self._end()
            try:
                return self._exchange(data, wanted, so_far)
            except EOFError:
                self._end()
                raise OSError(tr("the process for long work ends as soon as it starts")) from None

    def _exchange(self, data: bytes, wanted: Callable[[], bool], so_far: Callable[[bytes], object]) -> bytes:
        if self._closed or not wanted():
            raise Unwanted
        if self._process is None:
            command = [sys.executable, "-m", "nakrel.worker_process"]
            self._process = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE)
        into, out = self._process.stdin, self._process.stdout
        assert into
        assert out
        try:
            _write(into, data)
            began = time.monotonic()
            while True:
                while not select.select([out], [], [], _ASK_S)[0]:
                    if time.monotonic() - began > _GIVE_UP_S and not wanted():
                        self._end()
                        raise Unwanted
                answer = _read(out.fileno())
                if answer[:1] == _LAST:
                    return answer[1:]
                so_far(answer[1:])
        except ValueError:
            # The other thread has closed the pipes meanwhile.
            raise Unwanted from None

    def _end(self) -> None:
        process, self._process = self._process, None
        if process is None:
            return
        process.kill()
        for pipe in (process.stdin, process.stdout):
            with contextlib.suppress(OSError):
                if pipe:
                    pipe.close()
        process.wait(_END_S)

    def close(self) -> None:
        """End the process, and what it is at with it; nothing starts it again."""
        self._closed = True
        self._end()


_process = _Process()


@atexit.register
def end() -> None:
    """End the process for good; what waits for it gets an error."""
    _process.close()


def ask(
    job: Job,
    answer: type[T],
    wanted: Callable[[], bool] = lambda: True,
    so_far: Callable[[T], object] = lambda part: None,
) -> T:
    """Have a job done, and wait for its answer, of the type that goes with it; for another thread than the window's.
    `so_far` gets what is known before, if anything is.

    Raises `Unwanted` once nobody wants the answer any more. Where no process can be started it is done here, and the
    window is slow meanwhile.
    """

    def read(data: bytes) -> T:
        return msgspec.msgpack.decode(data, type=answer)

    try:
        found = _process.ask(_written(job), wanted, lambda data: so_far(read(data)))
    except OSError:
        *_, done = _done(job)
        found = msgspec.msgpack.encode(done)
    return read(found)


def _written(job: Job) -> bytes:
    return msgspec.msgpack.encode(_Asked(job, dict(labels_in_use())))


# In the process


def _write(into: IO[bytes], data: bytes) -> None:
    into.write(len(data).to_bytes(4, "big"))
    into.write(data)
    into.flush()


def _read(fd: int) -> bytes:
    """The next message, and nothing of the one after it, for which the descriptor stays readable; raises `EOFError`
    where none comes any more."""
    return _read_bytes(fd, int.from_bytes(_read_bytes(fd, 4), "big"))


def _read_bytes(fd: int, count: int) -> bytes:
    found = bytearray()
    while len(found) < count:
        part = os.read(fd, count - len(found))
        if not part:
            raise EOFError
        found += part
    return bytes(found)


def _done(job: Job) -> Iterator[object]:
    """The answer; before it what is known so far, where it takes long."""
    match job:
        case LookForSlips():
            for found, whole in check_by_parts(job.macro, job.triggers, job.facts, job.attached):
                yield Slips(len(found), found[: job.most], whole)
        case CheckFrames():
            yield answer_for(job.macro, job.game, job.against)
        case WorkOutTrials():
            # Who tunes nothing doesn't load it.
            from nakrel.core.analysis.tuning import work_out

            yield work_out(job.question, job.trials)
        case SketchLoop():
            yield sketch(job.loop)
        case CompareTakes():
            from nakrel.core.analysis.aligned import align

            try:
                yield Compared(align(job.takes))
            except DataError as error:
                yield Compared(None, str(error))


def _serve(asked_on: int, into: IO[bytes]) -> None:
    decoder = msgspec.msgpack.Decoder(_Asked)
    # A job makes objects by the ten thousand, none of which is garbage before it is done: Python looks for it then.
    gc.disable()
    with contextlib.suppress(EOFError, BrokenPipeError):
        while True:
            asked = decoder.decode(_read(asked_on))
            use_labels(asked.labels)
            for answer in _done(asked.job):
                more = isinstance(answer, Slips) and not answer.whole
                _write(into, (_SO_FAR if more else _LAST) + msgspec.msgpack.encode(answer))
            gc.collect()


# By which of them NumPy counts depends on how it was built. More threads of it than one make nothing here faster, and
# each keeps a processor busy, which a game may need.
_THREADS = ("OPENBLAS_NUM_THREADS", "OMP_NUM_THREADS", "MKL_NUM_THREADS")


if __name__ == "__main__":
    os.environ.update(dict.fromkeys(_THREADS, "1"))
    # Ctrl+C in a terminal is for the window; when that ends there is nothing more to read.
    use()
    with contextlib.suppress(KeyboardInterrupt):
        _serve(sys.stdin.fileno(), sys.stdout.buffer)
