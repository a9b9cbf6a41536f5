"""What the kernel tests share: whether they can run here, a service on the kernel's input, and the witness."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest

from nakrel import protocol as m
from nakrel.core.model.cells import Cell, RunMacro
from nakrel.core.model.macro import Macro, Play
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from nakrel.core.model.steps import Tap
from tests.kernel.injector import HidKeyboard, HidMouse, UsbKeyboard, UsbMouse, outside
from tests.kernel.witness import Witness
from tests.loaded import LoadedService
from tests.support import ServiceProcess

MS = 1_000


def missing() -> str:
    """What is missing here for these tests, '' for nothing. They press keys: nowhere without being told to."""
    if not outside() and not os.environ.get("NAKREL_TEST_HERE"):
        return "they press keys on real devices: run scripts/test-kernel"
    for path in ("/dev/uinput", "/dev/uhid"):
        if not os.access(path, os.W_OK):
            return f"no access to {path}: run scripts/test-kernel"
    return ""


def pytest_addoption(parser: pytest.Parser) -> None:
    """How often test_kills.py kills, and by which chance; which part of the tests runs, as 1/2."""
    parser.addoption("--kills", type=int, default=2)
    parser.addoption("--kills-seed", type=int, default=1)
    parser.addoption("--part", default="1/1")


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """Without the kernel's input there is nothing to test on."""
    part, parts = map(int, config.getoption("--part", "1/1").split("/"))
    mine = items[part - 1 :: parts]
    if parts > 1:
        config.hook.pytest_deselected(items=[item for item in items if item not in mine])
        items[:] = mine
    if why := missing():
        for item in items:
            if Path(__file__).parent in item.path.parents:
                item.add_marker(pytest.mark.skip(reason=why))


@pytest.fixture(scope="session", autouse=True)
def mended() -> str:
    """In the test machine: what `nakrel doctor --fix` said, before anything else was done there."""
    if not outside() or missing():
        return ""
    command = [sys.executable, "-m", "nakrel", "doctor", "--fix", "--yes"]
    return subprocess.run(command, capture_output=True, text=True).stdout


@pytest.fixture
def mouse() -> Iterator[UsbMouse | HidMouse]:
    """A mouse with a hand: the test machine's USB mouse, or one made here."""
    made = UsbMouse() if outside() else HidMouse()
    yield made
    made.unplug()


@pytest.fixture
def keyboard() -> Iterator[UsbKeyboard | HidKeyboard]:
    """A keyboard with a hand."""
    made = UsbKeyboard() if outside() else HidKeyboard()
    yield made
    made.unplug()


@pytest.fixture
def witness() -> Iterator[Witness]:
    """What programs see."""
    made = Witness()
    yield made
    made.end()


class Bench:
    """The service on the kernel's input, with macros on controls of Everyday."""

    def __init__(self, folder: Path, *program: str) -> None:
        options = folder, "--backend", "kernel"
        self.service = ServiceProcess(*options, program=program) if program else LoadedService(*options)
        self.call, self.devices = self.service.call, self.service.devices

    def attach(self, cells: dict[str, Cell], *macros: Macro) -> None:
        """Put the macros on the sheet, and wait until the devices that have the controls are grabbed."""
        for macro in macros:
            self.call(m.PutMacro(macro))
        self.call(m.PutProfile(Profile(id=EVERYDAY, name="Everyday", setups=(SetUp("Main", cells),))))
        self.settled(set(cells))

    def settled(self, controls: set[str]) -> None:
        """Wait until just the devices with these controls are grabbed."""

        def done() -> bool:
            devices = [d for d in self.devices() if d.controls]
            if not controls <= {code for device in devices for code in device.controls}:
                return False
            return all(d.note.startswith("captured") == bool(controls & set(d.controls)) for d in devices)

        self.service.hear(done, "the grabs")

    def idle(self) -> None:
        self.service.hear(lambda: not self.service.status().running, "the end of all runs")


@pytest.fixture
def start(tmp_path: Path) -> Iterator[Callable[..., Bench]]:
    """Starts the service, or Python with other arguments; devices that the test needs are plugged in before."""
    made: list[Bench] = []

    def begin(*program: str) -> Bench:
        made.append(Bench(tmp_path / "home", *program))
        return made[-1]

    yield begin
    for bench in made:
        bench.service.tell()
        if bench.service.process.poll() is None:
            bench.service.end(signal.SIGTERM)


def shot(play: Play, hold_ms: int = 5, control: str = "KEY_Q", key: str = "shot") -> Macro:
    """A macro that taps one control."""
    return Macro(id=key, name=key.title(), play=play, loop=(Tap(control=control, hold_us=hold_ms * MS),))


def on(**cells: str) -> dict[str, Cell]:
    """Controls and the macros on them."""
    return {control: RunMacro(key) for control, key in cells.items()}
