"""Programs that macros open: so many a second, none after Stop, and collected when they end."""

from __future__ import annotations

import stat
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import psutil
import pytest

from nakrel import protocol as m
from nakrel.backends import proc
from nakrel.core.edit.checks import check_macro
from nakrel.core.model.limits import MAX_OPENED
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.programs import Program
from nakrel.core.model.steps import Open, Repeat, Wait
from nakrel.core.play.acts import OpenProgram
from nakrel.service.loop import Loop
from nakrel.service.opener import Opener
from nakrel.service.worker import Outcome, Worker
from tests.loaded import LoadedService
from tests.support import ServiceProcess, pause, wait_for


@pytest.fixture
def program(tmp_path: Path) -> tuple[str, Path]:
    """A program that notes each of its starts."""
    log, path = tmp_path / "starts", tmp_path / "lantern"
    path.write_text(f"#!/bin/sh\necho started >> {log}\n")
    path.chmod(path.stat().st_mode | stat.S_IXUSR)
    return str(path), log


def starts(log: Path) -> int:
    return len(log.read_text().splitlines()) if log.exists() else 0


@pytest.fixture
def service(tmp_path: Path) -> Iterator[ServiceProcess]:
    made = LoadedService(tmp_path / "home", "--backend", "stand-in")
    yield made
    assert made.end() == 0


class SlowDesktop:
    """Answers when the test lets it."""

    def __init__(self) -> None:
        self.waiting: list[tuple[Callable[[], Any], Callable[[Outcome[Any]], object]]] = []

    def ask(self, question: Callable[[], Any], answered: Callable[[Outcome[Any]], object]) -> None:
        self.waiting.append((question, answered))

    def answer(self) -> None:
        for question, answered in self.waiting:
            answered(Outcome(question()))
        self.waiting.clear()

    def known_programs(self) -> tuple[()]:
        return ()

    def about_screens(self, question: object) -> None:
        return None


class Rig:
    def __init__(self) -> None:
        self.loop, self.desktop, self.faults = Loop(pytest.fail), SlowDesktop(), list[str]()
        self.worker = Worker(self.loop, "worker")
        self.opener = Opener(self.loop, self.desktop, self.worker, self.faults.append)  # type: ignore[arg-type]

    def run(self, seconds: float) -> None:
        self.loop.at("end", time.monotonic_ns() // 1_000 + int(seconds * 1_000_000), self.loop.stop)
        self.loop.run()

    def collected(self) -> bool:
        """Whether all that was started has ended, after a while."""
        self.run(0.02)
        return not (self.opener._starting or any(self.opener._started.values()))


@pytest.fixture
def rig() -> Iterator[Rig]:
    made = Rig()
    yield made
    # A process that nobody has collected fails whichever test runs when Python notices.
    wait_for(made.collected, "the programs' end")
    made.worker.close(5)
    made.loop.close()


def test_what_has_not_started_when_all_is_stopped_never_starts(rig: Rig, program: tuple[str, Path]):
    path, log = program
    rig.opener.open(OpenProgram((path,)))
    rig.opener.stop()
    rig.desktop.answer()
    # The worker is busy with something else while everything is stopped.
    rig.opener.open(OpenProgram((path,)))
    gate = Path(path).with_name("gate")
    rig.worker.do(lambda: wait_for(gate.exists, "the gate"))
    rig.desktop.answer()
    rig.opener.stop()
    gate.touch()
    rig.run(0.3)
    assert starts(log) == 0
    # From now on programs start again.
    rig.opener.open(OpenProgram((path,)))
    rig.desktop.answer()
    wait_for(lambda: rig.run(0.02) or starts(log) == 1, "the program")
    assert rig.faults == []


def test_macros_open_so_many_programs_a_second_and_the_rest_is_told(rig: Rig, program: tuple[str, Path]):
    path, log = program
    for _ in range(100):
        rig.opener.open(OpenProgram((path,)))
    rig.desktop.answer()
    wait_for(lambda: rig.run(0.02) or starts(log) == MAX_OPENED, "the first few")
    rig.run(0.2)
    assert starts(log) == MAX_OPENED
    assert len(rig.faults) == 95
    assert f"macros open {MAX_OPENED} a second at most" in rig.faults[0]


def test_a_program_that_ended_is_collected_at_once(service: ServiceProcess, program: tuple[str, Path]):
    path, log = program
    service.call(m.PutMacro(Macro(id="lamp", name="Lamp", loop=(Open(command=(path,)),))))
    service.call(m.Play_("lamp"))
    wait_for(lambda: starts(log) == 1, "the program")
    wait_for(lambda: not psutil.Process(service.process.pid).children(), "it to be collected")


def test_a_toggle_of_open_ends_with_stop(service: ServiceProcess, program: tuple[str, Path]):
    path, log = program
    macro = Macro(id="lamp", name="Lamp", play=Play(Mode.TOGGLE), loop=(Open(command=(path,)), Wait(wait_us=2_000)))
    service.call(m.PutMacro(macro))
    service.call(m.Play_("lamp"))
    wait_for(lambda: starts(log) >= 2, "some")
    service.call(m.Stop())
    pause(0.3)
    count = starts(log)
    assert count <= 2 * MAX_OPENED
    pause(0.7)
    assert starts(log) == count


def findings(*loop: object, mode: Mode = Mode.TOGGLE) -> str:
    macro = Macro(id="m", name="M", play=Play(mode, limit_runs=5), loop=loop)  # type: ignore[arg-type]
    return " ".join(finding.message for finding in check_macro(macro))


def test_the_check_warns_of_more_than_can_be_opened():
    lamp, words = Open(command=("lantern",)), f"more than {MAX_OPENED} programs a second"
    assert words in findings(lamp, Wait(wait_us=100_000))
    assert words not in findings(lamp, Wait(wait_us=200_000))
    assert words in findings(Repeat(times=6, steps=(lamp,)), mode=Mode.SINGLE)
    assert words not in findings(Repeat(times=5, steps=(lamp,)), mode=Mode.SINGLE)
    assert words not in findings(Open(command=("lantern",), off=True), Wait(wait_us=1_000))


class Windows:
    """Screens that note which windows they are asked for, with a window for each program or for none."""

    def __init__(self) -> None:
        self.asked: list[tuple[set[int], set[str]]] = []
        self.there = True

    def bring_to_front(self, pids: set[int], classes: set[str]) -> bool:
        self.asked.append((set(pids), set(classes)))
        return self.there


@pytest.fixture
def windows(rig: Rig) -> Windows:
    made = Windows()
    rig.desktop.about_screens = lambda question: question(made)  # type: ignore[method-assign, assignment]
    return made


def test_a_window_is_sought_by_process_by_what_that_started_and_by_class(
    rig: Rig, windows: Windows, program: tuple[str, Path]
):
    path, _ = program
    rig.desktop.known_programs = lambda: (  # type: ignore[method-assign]
        Program(10, "lantern", path),
        Program(11, "glass", "/opt/glass", parent=77),
        Program(12, "wick", "/opt/wick", parent=11),
        Program(13, "other", "/opt/other", parent=1),
    )
    # It was started by a macro before, as a launcher that has started the rest.
    rig.opener._started[path] = {77}
    rig.opener.open(OpenProgram((path,)))
    rig.desktop.answer()
    assert windows.asked == [({10, 77, 11, 12}, {"lantern"})]
    rig.opener._started.clear()


def started_before(rig: Rig, path: str, seconds: float) -> None:
    """Have one process of the program run that started so long ago."""
    found = Program(10, "lantern", path, started_us=proc.now_us() - int(seconds * 1_000_000))
    rig.desktop.known_programs = lambda: (found,)  # type: ignore[method-assign, assignment, return-value]


def looked(rig: Rig, windows: Windows, times: int) -> None:
    """Go on until the window was looked for so many times."""
    wait_for(lambda: rig.run(0.02) or rig.desktop.answer() or len(windows.asked) >= times, "another look")


def test_a_program_that_has_just_been_started_gets_the_time_to_show_its_window(
    rig: Rig, windows: Windows, program: tuple[str, Path]
):
    path, log = program
    windows.there = False
    started_before(rig, path, 0.5)
    for _ in range(3):
        rig.opener.open(OpenProgram((path,)))
    looked(rig, windows, 6)
    windows.there = True
    looked(rig, windows, 7)
    rig.run(0.3)
    # One look answered all three of them, and was the last.
    assert rig.desktop.waiting == []
    assert (starts(log), rig.faults) == (0, [])


def test_a_program_without_a_window_is_started_again_once_it_is_no_longer_new(
    rig: Rig, windows: Windows, program: tuple[str, Path]
):
    path, log = program
    windows.there = False
    started_before(rig, path, 0.5)
    rig.opener.open(OpenProgram((path,)))
    looked(rig, windows, 2)
    assert starts(log) == 0
    started_before(rig, path, 10)
    wait_for(lambda: rig.run(0.02) or rig.desktop.answer() or starts(log) == 1, "the program")


def test_stop_ends_the_wait_for_a_window_and_the_next_press_opens(
    rig: Rig, windows: Windows, program: tuple[str, Path]
):
    path, log = program
    windows.there = False
    started_before(rig, path, 0.5)
    rig.opener.open(OpenProgram((path,)))
    looked(rig, windows, 1)
    rig.opener.stop()
    rig.run(0.3)
    assert rig.desktop.waiting == []
    started_before(rig, path, 10)
    rig.opener.open(OpenProgram((path,)))
    wait_for(lambda: rig.run(0.02) or rig.desktop.answer() or starts(log) == 1, "the program")


def test_two_presses_at_once_start_a_program_once(rig: Rig, windows: Windows, program: tuple[str, Path]):
    path, log = program
    windows.there = False
    gate = Path(path).with_name("gate")
    rig.worker.do(lambda: wait_for(gate.exists, "the gate"))
    rig.opener.open(OpenProgram((path,)))
    rig.opener.open(OpenProgram((path,)))
    rig.desktop.answer()
    # The first is about to be started, which no look at what runs can tell.
    gate.touch()
    wait_for(lambda: rig.run(0.02) or starts(log) == 1, "the program")
    started_before(rig, path, 0)
    windows.there = True
    looked(rig, windows, 3)
    rig.run(0.3)
    assert starts(log) == 1
    assert rig.desktop.waiting == []
