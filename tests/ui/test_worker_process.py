"""Long work is done in a process beside the window's."""

from __future__ import annotations

import signal
import subprocess
import sys
import threading
from typing import IO

import pytest

from nakrel import worker_process
from nakrel.core.analysis.frame_answer import JITTER_US, FrameAnswer, answer_for
from nakrel.core.analysis.seen import Game
from nakrel.core.edit.checks import check_macro
from nakrel.core.edit.findings import Attached, Facts
from nakrel.core.model.controls import use_labels
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import FairPlay
from nakrel.core.model.steps import Press, Tap, Text, Wait

MACRO = Macro(
    id="reel-in",
    name="Reel in",
    play=Play(Mode.HELD),
    loop=(Tap(control="KEY_R", hold_us=4_000), Wait(wait_us=3_000), Press(control="KEY_Q"), Text(text="字")),
)


# It takes seconds.
LONG = worker_process.CheckFrames(
    Macro(
        id="long",
        name="Long",
        play=Play(Mode.TOGGLE),
        loop=(Tap(control="KEY_R", hold_us=4_000), Wait(wait_us=3_000)) * 20_000,
    ),
    Game(60.0, JITTER_US, 2_000, 64.0),
    "rate",
)


def still() -> bool:
    return True


@pytest.fixture
def process():
    made = worker_process._Process()
    yield made
    made.close()


def test_it_finds_what_the_checks_find():
    facts = Facts({"字": "the layout has no 字"}, {}, {}, (1920, 1080))
    place = Attached("Tidewardens", FairPlay.ONE_ACTION, {}, MACRO.play, {"KEY_R": MACRO})
    job = worker_process.LookForSlips(MACRO, 3, ("BTN_SIDE", "KEY_R"), facts, (place,))
    found = check_macro(MACRO, ("BTN_SIDE", "KEY_R"), facts, [place])
    assert worker_process.ask(job, worker_process.Slips) == worker_process.Slips(len(found), found[:3])
    assert len(found) > 3
    assert any("字" in finding.message for finding in found)


def test_what_it_knows_of_a_long_macro_comes_before_the_answer():
    macro = Macro(id="long", name="Long", loop=(Tap(control="KEY_Q", hold_us=1_000), Wait(wait_us=1_000)) * 9_000)
    told: list[worker_process.Slips] = []
    found = worker_process.ask(worker_process.LookForSlips(macro, 1), worker_process.Slips, so_far=told.append)
    assert [(slips.count, slips.whole) for slips in (*told, found)] == [
        (0, False),
        (9_000, False),
        (17_999, True),
    ]


def test_what_is_known_and_the_answer_may_come_in_one_piece(process: worker_process._Process):
    """A window that was busy finds both in the pipe."""
    answers = (worker_process._SO_FAR + b"so far", worker_process._LAST + b"all")
    both = b"".join(len(each).to_bytes(4, "big") + each for each in answers)
    code = f"import os, sys; os.write(1, {both!r}); sys.stdin.read()"
    pipe = subprocess.PIPE
    process._process = subprocess.Popen([sys.executable, "-c", code], stdin=pipe, stdout=pipe)
    told: list[bytes] = []
    wanted = iter([True] * 200)
    assert process.ask(b"", lambda: next(wanted, False), told.append) == b"all"
    assert told == [b"so far"]


@pytest.mark.parametrize("against", ["rate", "hold"])
def test_it_gives_the_frame_checks_answer(against: str):
    found = worker_process.ask(worker_process.CheckFrames(MACRO, Game(60.0, JITTER_US), against), FrameAnswer)
    assert found == answer_for(MACRO, Game(60.0, JITTER_US), against)
    assert found.least_us


def test_it_calls_keys_as_the_window_does():
    told = []
    for labels in ({}, {"KEY_Q": "A"}, {}):
        use_labels(labels)
        found = worker_process.ask(worker_process.LookForSlips(MACRO, 99), worker_process.Slips)
        assert found.first == check_macro(MACRO)
        told.append({word for finding in found.first for word in finding.message.split()} & {"A", "Q"})
    assert told == [{"Q"}, {"A"}, {"Q"}]


def test_a_process_that_has_ended_is_started_again(process: worker_process._Process):
    data = b"\xa5slips"
    assert process._process is None
    with pytest.raises(OSError, match="as soon as it starts"):
        # No job at all ends it, twice.
        process.ask(data, still)
    job = worker_process._written(worker_process.LookForSlips(MACRO, 5))
    first = process.ask(job, still)
    assert process._process
    process._process.kill()
    process._process.wait(10)
    assert process.ask(job, still) == first


def test_after_its_end_nothing_starts_it_again(process: worker_process._Process):
    job = worker_process._written(worker_process.LookForSlips(MACRO, 5))
    process.ask(job, still)
    process.close()
    with pytest.raises(worker_process.Unwanted):
        process.ask(job, still)
    assert process._process is None


def test_what_waits_for_it_as_the_window_closes_gets_no_answer_and_no_error(process: worker_process._Process):
    job = worker_process._written(worker_process.LookForSlips(MACRO, 5))
    process.ask(job, still)
    assert process._process
    process._process.send_signal(signal.SIGSTOP)
    outcome: list[type[BaseException]] = []

    def wait() -> None:
        try:
            process.ask(job, still)
        except BaseException as error:
            outcome.append(type(error))

    waiting = threading.Thread(target=wait)
    asked = threading.Event()
    real = worker_process._write

    def write(into: IO[bytes], data: bytes) -> None:
        real(into, data)
        asked.set()

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(worker_process, "_write", write)
        waiting.start()
        assert asked.wait(10)
        process.close()
        waiting.join(10)
    assert outcome == [worker_process.Unwanted]


def test_where_no_process_can_be_started_the_work_is_done_here(monkeypatch: pytest.MonkeyPatch):
    def refused(*command: object, **options: object) -> None:
        raise OSError("no process more")

    monkeypatch.setattr(worker_process, "_process", worker_process._Process())
    monkeypatch.setattr(worker_process.subprocess, "Popen", refused)
    job, found = worker_process.LookForSlips(MACRO, 99), check_macro(MACRO)
    assert worker_process.ask(job, worker_process.Slips) == worker_process.Slips(len(found), found)


def test_a_job_whose_answer_nobody_wants_is_not_begun(process: worker_process._Process):
    with pytest.raises(worker_process.Unwanted):
        process.ask(b"", lambda: False)
    assert process._process is None


def test_a_long_job_is_given_up_once_nobody_wants_its_answer(process: worker_process._Process):
    wanted = iter((True, *(False for _ in range(1_000))))
    with pytest.raises(worker_process.Unwanted):
        process.ask(worker_process._written(LONG), lambda: next(wanted))
    # The next one has a process of its own.
    assert process._process is None
    job = worker_process._written(worker_process.LookForSlips(MACRO, 5))
    assert worker_process.msgspec.msgpack.decode(process.ask(job, still), type=worker_process.Slips).count
