"""The follower on a loop, programs and windows that a test sets."""

from __future__ import annotations

import os
import shutil
import subprocess
import time
from collections.abc import Callable, Collection, Iterator
from pathlib import Path
from typing import Any

import pytest

from nakrel.backends.processes import ProcessWatch
from nakrel.backends.protocols import BackendLost, WindowInfo
from nakrel.core.model.profile import EVERYDAY, MatchBy, Profile, ProgramRule
from nakrel.core.model.programs import Choice, Front, Icon, Program
from nakrel.service.loop import Loop
from nakrel.service.observers.follower import GONE_US, Follower
from tests.support import wait_for

EVERY = Profile(id=EVERYDAY, name="Everyday")
KELP = Profile(id="kelp", name="Kelp", programs=(ProgramRule(MatchBy.WINDOW, "org.example.Kelp"),))
KILN = Profile(id="kiln", name="Kiln", programs=(ProgramRule(MatchBy.NAME, "kiln"),))


class FakeLoop:
    """Keeps timers until a test lets them come."""

    def __init__(self) -> None:
        self.timers: dict[str, tuple[int, Callable[[], object]]] = {}

    def watch(self, handle: Any, call: Callable[[], object]) -> None:
        pass

    def forget(self, handle: Any) -> None:
        pass

    def at(self, name: str, when_us: int | None, call: Callable[[], object], *, early_us: int = 0) -> None:
        self.timers.pop(name, None)
        if when_us is not None:
            self.timers[name] = (when_us, call)

    def pending(self, name: str) -> bool:
        return name in self.timers

    def come(self, name: str) -> None:
        self.timers.pop(name)[1]()


class FakePrograms:
    def __init__(self) -> None:
        self.programs: dict[int, Program] = {}
        self.unsettled = False

    def scan(self, *, all_of_them: bool = False, by_application: bool = True) -> bool:
        return True

    def look(self, pids: Collection[int], wanted: Callable[[Program], object], *, by_application: bool = True) -> bool:
        for pid in pids:
            if not wanted(self.programs[pid]):
                del self.programs[pid]
        return True

    def watch(self, pids: Collection[int]) -> tuple[list[int], list[int]]:
        return [], []

    def ended(self, handle: int) -> None:
        pass

    def close(self) -> None:
        pass


class FakeWindows:
    def __init__(self) -> None:
        self.active = Front()
        self.all: list[tuple[int, WindowInfo]] = []
        self.gone = False

    def fileno(self) -> int:
        return -1

    def changed(self) -> bool:
        if self.gone:
            raise BackendLost("gone")
        return True

    def front(self) -> Front:
        return self.active

    def shown(self) -> list[tuple[int, WindowInfo]]:
        return self.all

    def icon(self, pid: int) -> Icon | None:
        return None

    def close(self) -> None:
        pass


class Scene:
    def __init__(self) -> None:
        self.loop, self.programs, self.windows = FakeLoop(), FakePrograms(), FakeWindows()
        self.choices: list[Choice] = []
        self.follower = Follower(self.loop, self.programs, self.windows, self.choices.append)  # type: ignore[arg-type]
        self.follower.set_profiles((EVERY, KELP, KILN), "")

    @property
    def live(self) -> str:
        return self.choices[-1].profile

    def front(self, front: Front, *shown: tuple[int, WindowInfo]) -> None:
        self.windows.active, self.windows.all = front, list(shown)
        self.follower._window_event()


@pytest.fixture
def scene() -> Iterator[Scene]:
    made = Scene()
    yield made
    made.follower.close()


WINDOW = (0, WindowInfo("Kelp", "org.example.Kelp"))


def test_a_window_without_a_process_counts_as_long_as_it_is_there(scene: Scene):
    scene.front(Front(0, "org.example.Kelp"), WINDOW)
    assert scene.live == "kelp"
    # Nothing is in front for a moment, or the desktop itself is.
    scene.front(Front(), WINDOW)
    assert scene.live == "kelp"
    assert "gone" not in scene.loop.timers
    scene.front(Front())
    scene.loop.come("gone")
    assert scene.live == EVERYDAY


def test_a_program_that_comes_back_in_time_was_never_gone(scene: Scene):
    scene.programs.programs = {7: Program(7, "kiln")}
    scene.follower._look()
    assert scene.live == "kiln"
    before = list(scene.choices)
    scene.programs.programs = {}
    scene.follower._look()
    assert scene.choices == before
    when_us, _ = scene.loop.timers["gone"]
    assert when_us > GONE_US
    scene.programs.programs = {8: Program(8, "kiln")}
    scene.follower._look()
    assert scene.live == "kiln"
    assert "gone" not in scene.loop.timers
    assert EVERYDAY not in [choice.profile for choice in scene.choices[1:]]


def test_other_programs_that_start_put_the_return_to_everyday_off_no_further(scene: Scene):
    """While something is being compiled, programs start all the time."""
    scene.programs.programs = {7: Program(7, "kiln")}
    scene.follower._look()
    scene.programs.programs = {}
    scene.follower._look()
    at = scene.loop.timers["gone"]
    for pid in range(20, 30):
        scene.programs.programs = {pid: Program(pid, "cc1")}
        scene.follower._look()
    assert scene.loop.timers["gone"] is at
    scene.loop.come("gone")
    assert scene.live == EVERYDAY


def test_between_two_windows_the_game_stays(scene: Scene):
    scene.programs.programs = {7: Program(7, "kiln", started_us=5), 9: Program(9, "kelp", started_us=9)}
    kelp, kiln = (9, WindowInfo("Kelp", "org.example.Kelp")), (7, WindowInfo("Kiln", "kiln"))
    scene.front(Front(7, "kiln"), kelp, kiln)
    assert scene.live == "kiln"
    scene.front(Front(), kelp, kiln)
    assert scene.live == "kiln"
    # Its window is closed though it runs on, so the one started last counts.
    scene.front(Front(), kelp)
    assert scene.live == "kelp"


def test_without_word_of_windows_programs_are_followed(scene: Scene):
    scene.programs.programs = {7: Program(7, "kiln")}
    scene.windows.gone = True
    scene.follower._window_event()
    assert not scene.follower.sees_windows
    scene.follower._look()
    assert scene.live == "kiln"


def test_a_game_that_nobody_collects_is_gone_with_its_end_and_costs_nothing(tmp_path: Path):
    """A launcher may leave its child as a zombie for hours; its descriptor stays readable all the while."""
    program = tmp_path / "kiln"
    program.symlink_to(shutil.which("sleep") or "/bin/sleep")
    game = subprocess.Popen([str(program), "60"])
    faults: list[Exception] = []
    loop = Loop(faults.append)
    choices: list[Choice] = []
    follower = Follower(loop, ProcessWatch(), None, choices.append)

    def turns(seconds: float) -> int:
        """How many turns the loop takes in that time."""
        before = loop._turns
        loop.at("end", time.monotonic_ns() // 1_000 + int(seconds * 1_000_000), loop.stop)
        loop.run()
        return loop._turns - before

    try:
        follower.set_profiles((EVERY, KILN), "")
        wait_for(lambda: turns(0.05) and choices[-1].profile == "kiln", "the game's profile")
        game.kill()
        os.waitid(os.P_PID, game.pid, os.WEXITED | os.WNOWAIT)
        wait_for(lambda: turns(0.05) and choices[-1].profile == EVERYDAY, "Everyday", 3)
        assert follower.running_profiles() == ()
        assert game.pid not in {program.pid for program in follower.programs()}
        assert turns(0.5) < 20
    finally:
        follower.close()
        game.wait()
    assert faults == []
    loop.close()


def test_a_screen_locker_is_told_even_while_an_ended_game_is_waited_for(monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr("nakrel.service.observers.follower.shutil.which", lambda name: name == "swaylock")
    scene = Scene()
    scene.programs.programs = {5: Program(5, "kiln", "/games/kiln")}
    scene.loop.come("scan")
    assert scene.live == "kiln"
    told = len(scene.choices)
    scene.programs.programs = {7: Program(7, "swaylock", "/usr/bin/swaylock")}
    scene.loop.come("scan")
    assert (scene.live, scene.follower.locked, len(scene.choices)) == ("kiln", True, told + 1)
    scene.programs.programs = {}
    scene.loop.come("scan")
    assert (scene.live, scene.follower.locked, len(scene.choices)) == ("kiln", False, told + 2)
    scene.follower.close()


def test_without_a_link_and_a_screen_locker_nobody_looks_for_programs(monkeypatch: pytest.MonkeyPatch):
    for installed, looks in (("none", False), ("i3lock", True)):
        monkeypatch.setattr(
            "nakrel.service.observers.follower.shutil.which", lambda name, installed=installed: name == installed
        )
        scene = Scene()
        scene.follower.set_profiles((EVERY,), "")
        assert scene.loop.pending("scan") == looks
        scene.follower.close()


def test_a_game_that_is_linked_by_its_window_stays_while_the_kernel_tells_of_its_start(scene: Scene):
    scene.programs.programs = {9: Program(9, "python"), 10: Program(10, "cat")}
    scene.front(Front(9, "org.example.Kelp"), (9, WindowInfo("Kelp Harbour", "org.example.Kelp")))
    assert scene.live == "kelp"
    # It has become another program since, as an interpreter does, and something else has started.
    scene.follower._young = {9, 10}
    scene.follower._look_at_young()
    assert set(scene.programs.programs) == {9}
    assert scene.live == "kelp"
    assert not scene.loop.pending("gone")
