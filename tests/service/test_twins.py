"""Virtual devices are made known to the X server one process after the other, and nothing waits for it in vain."""

from __future__ import annotations

import os
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest

from nakrel.service.loop import Loop, monotonic_us
from nakrel.service.twins import Twins
from nakrel.service.worker import Worker
from tests.support import LIMIT_S

# In the place of Python: says what it was asked for, and waits to be told.
_PROGRAM = """#!/bin/sh
echo "$@" >> {said}
[ -e {fails} ] && exit 1
read line < {gate}
"""


class Desk:
    def __init__(self, folder: Path, display: str = ":7") -> None:
        self.loop = Loop(pytest.fail)
        self.worker = Worker(self.loop, "worker")
        self.twins = Twins(self.loop, self.worker, display)
        self.said, self.fails, self.gate = (folder / name for name in ("said", "fails", "gate"))
        self.program = folder / "program"
        self.program.write_text(_PROGRAM.format(said=self.said, fails=self.fails, gate=self.gate))
        self.program.chmod(0o755)
        self.told: list[str] = []

    def introduce(self, twin: str, *like: str) -> None:
        self.twins.introduce(twin, like, lambda: self.told.append(twin))

    def asked(self) -> list[str]:
        lines = self.said.read_text().splitlines() if self.said.exists() else []
        return [line.partition("nakrel.backends.x11.twins ")[2] for line in lines]

    def run_until(self, condition: object) -> None:
        def look() -> None:
            if condition():  # type: ignore[operator]
                self.loop.stop()
            else:
                self.loop.at("look", monotonic_us() + 5_000, look)

        self.loop.at("end", monotonic_us() + int(LIMIT_S * 1_000_000), self.loop.stop)
        look()
        self.loop.run()
        assert condition()  # type: ignore[operator]


@pytest.fixture
def desk(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[Desk]:
    made = Desk(tmp_path)
    monkeypatch.setattr(sys, "executable", str(made.program))
    yield made
    made.twins.close()
    made.worker.close()
    # What was killed is collected as in the service: when it is seen to have ended.
    made.run_until(lambda: made.twins._process is None)
    made.loop.close()


def test_without_a_server_there_is_nothing_to_be_done(tmp_path: Path):
    desk = Desk(tmp_path, "")
    desk.introduce("event20", "event3")
    assert desk.told == ["event20"]
    desk.twins.close()
    desk.loop.close()


def test_without_a_keyboard_it_is_what_all_keyboards_have_in_common(desk: Desk):
    os.mkfifo(desk.gate)
    desk.introduce("event20", "")
    desk.run_until(lambda: desk.asked() == [":7 core event20"])
    assert desk.told == []
    desk.gate.write_text("\n")
    desk.run_until(lambda: desk.told == ["event20"])


def test_what_comes_while_one_is_at_work_is_for_the_next(desk: Desk, tmp_path: Path):

    os.mkfifo(desk.gate)
    desk.introduce("event20", "event3", "event4")
    desk.run_until(lambda: desk.asked() == [":7 event3 event20 event4 event20"])
    desk.introduce("event21", "event3")
    desk.introduce("event22", "event4")
    assert desk.told == []
    desk.gate.write_text("\n")
    desk.run_until(lambda: desk.told == ["event20"])
    desk.run_until(lambda: desk.asked()[1:] == [":7 event3 event21 event4 event22"])
    desk.gate.write_text("\n")
    desk.run_until(lambda: desk.told == ["event20", "event21", "event22"])


def test_where_it_fails_devices_are_known_as_they_are(desk: Desk):
    desk.fails.touch()
    desk.introduce("event20", "event3")
    desk.run_until(lambda: desk.told == ["event20"])
    desk.program.unlink()
    desk.introduce("event21", "event3")
    desk.run_until(lambda: desk.told == ["event20", "event21"])


def test_the_end_waits_for_nobody(desk: Desk):

    os.mkfifo(desk.gate)
    desk.introduce("event20", "event3")
    desk.introduce("event21", "event3")
    desk.run_until(lambda: len(desk.asked()) == 1)
    desk.run_until(lambda: desk.twins._process is not None)
    desk.twins.close()
    desk.run_until(lambda: desk.twins._process is None)
    desk.introduce("event22", "event3")
    assert desk.told == ["event22"]
    assert len(desk.asked()) == 1
