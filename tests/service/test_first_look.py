"""What is live just after the start: whoever asks waits for the first look at the desktop, and not forever."""

from __future__ import annotations

import os
import subprocess
import sys
import threading
from collections.abc import Iterator
from pathlib import Path

import pytest

from nakrel.core.model.profile import EVERYDAY, MatchBy, Profile, ProgramRule
from nakrel.service.loop import Loop
from nakrel.service.observers import desktop
from nakrel.service.observers.desktop import Desktop, Finders, Seen
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from tests.service.test_follow import FakePrograms
from tests.support import LIMIT_S

EVERY = Profile(id=EVERYDAY, name="Everyday")


class Slow:
    """A desktop whose window server lets a test decide when it answers."""

    def __init__(self) -> None:
        self.answers = threading.Event()
        self.heard: list[str] = []
        self.loop = Loop(pytest.fail)
        finders = Finders(self._programs, lambda: None, lambda: None)
        self.desktop = Desktop(self.loop, finders, self._see)
        self.desktop.follow([EVERY], "")

    def _programs(self) -> FakePrograms:
        assert self.answers.wait(LIMIT_S)
        return FakePrograms()

    def _see(self, seen: Seen) -> None:
        assert seen.choice.profile == EVERYDAY
        self.heard.append("seen")
        self.loop.stop()

    def asks(self) -> None:
        self.desktop.first_look(lambda outcome: self.heard.append("answered"))


@pytest.fixture
def slow() -> Iterator[Slow]:
    made = Slow()
    yield made
    made.answers.set()
    made.desktop.close()


def test_who_asks_first_is_answered_by_what_is_seen(slow: Slow):
    slow.asks()
    slow.asks()
    slow.answers.set()
    slow.loop.run()
    slow.loop.collect()
    assert slow.heard == ["seen", "answered", "answered"]
    slow.asks()
    assert slow.heard[3:] == ["answered"]


def test_a_window_server_that_never_answers_leaves_nobody_waiting(slow: Slow, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr(desktop, "_LOOK_US", 1_000)
    slow.desktop.first_look(lambda outcome: slow.loop.stop())
    slow.loop.run()
    assert slow.heard == []


def test_the_first_question_knows_the_game_that_runs_already(tmp_path: Path):
    game = tmp_path / "tide game"
    game.symlink_to("/bin/sleep")
    home = tmp_path / "home"
    library = Library(Home.find(str(home)))
    library.load()
    library.put_profile(Profile(id="tide", name="Tide", programs=(ProgramRule(MatchBy.NAME, "tide game"),)))
    command = [sys.executable, "-m", "nakrel", "--home", str(home)]
    playing = subprocess.Popen([str(game), "60"])
    try:
        said = subprocess.run([*command, "live"], env=os.environ, capture_output=True, text=True, timeout=LIMIT_S)
        assert said.stdout.startswith("Tide is live: tide game "), said
    finally:
        subprocess.run([*command, "shutdown"], capture_output=True, timeout=LIMIT_S)
        playing.kill()
        playing.wait()
