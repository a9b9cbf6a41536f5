"""Presses on the kernel's route whose first event leaves before they are taken apart, in the whole service."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.backend import KernelBackend
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from nakrel.core.model.steps import Press, Tap, Wait
from nakrel.service.options import Options
from nakrel.service.service import Service
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from tests.backends.fake_kernel import KEYBOARD, MOUSE, FakeFinder, FakeNode, FakeVirtual
from tests.support import wait_for

KEY, SIDE, Q, W, SHIFT = abi.EV_KEY, 0x113, 16, 17, 42
HOLD = Macro(
    id="hold",
    name="Hold",
    play=Play(Mode.HELD),
    loop=(Press(control="KEY_Q"), Press(control="KEY_LEFTSHIFT"), Wait(wait_us=600_000_000)),
)
# It presses what starts it.
ECHO = Macro(
    id="echo", name="Echo", play=Play(Mode.HELD), loop=(Tap(control="KEY_W", hold_us=1_000), Wait(wait_us=600_000_000))
)


class Playing:
    """A service on a mouse and a keyboard, each of them grabbed, and what its macros send."""

    def __init__(self, folder: Path) -> None:
        self.mouse = FakeNode("/dev/input/event3", MOUSE, "Halyard")
        self.keyboard = FakeNode("/dev/input/event4", KEYBOARD, "Bollard", "usb-0000:00:14.0-2/input0")
        nodes = {node.path: node for node in (self.mouse, self.keyboard)}
        self._finder = FakeFinder(nodes)
        virtuals: list[FakeVirtual] = []

        def virtual(name: str, abilities: object, phys: str) -> FakeVirtual:
            virtuals.append(FakeVirtual(name, abilities, phys))  # type: ignore[arg-type]
            return virtuals[-1]

        home = Home.find(folder)
        library = Library(home)
        for macro in (HOLD, ECHO):
            library.put_macro(macro)
        cells = {"BTN_SIDE": RunMacro("hold"), "KEY_W": RunMacro("echo")}
        library.put_profile(Profile(id=EVERYDAY, name="Everyday", setups=(SetUp("Main", cells),)))
        options = Options("kernel", kernel=lambda host: KernelBackend(host, self._finder, nodes.__getitem__, virtual))
        self.service = Service(home, options)
        self.service.refresh_sheet()
        self.hands = virtuals[0]
        self.until(lambda: self.mouse.grabbed and self.keyboard.grabbed, "the grabs")

    def until(self, condition: Callable[[], object], what: str) -> None:
        """Let the service take its turns until the condition holds."""

        def turned() -> object:
            self.service.loop.at("test", self.service.routes.now_us() + 1_000, lambda: None)
            self.service.loop._turn()
            return condition()

        wait_for(turned, what)

    def do(self, node: FakeNode, *events: tuple[int, int, int], reports: int) -> list[list[tuple[int, int, int]]]:
        """Something happens on the node; the reports that come of it, which are so many."""
        before = len(self.hands.reports)
        node.happen(*events)
        self.until(lambda: not node.queue and len(self.hands.reports) - before >= reports, "what comes of it")
        return self.hands.reports[before:]

    def close(self) -> None:
        self.service.close()
        self._finder.close()
        for node in (self.mouse, self.keyboard):
            node.close()


@pytest.fixture
def playing(tmp_path: Path) -> Iterator[Playing]:
    made = Playing(tmp_path)
    yield made
    made.close()


def test_a_macro_answers_at_once_and_every_event_is_sent_once(playing: Playing):
    engine = playing.service.playback.engine
    worked: list[bool] = []
    write = playing.hands.write
    playing.hands.write = lambda data: (worked.append(bool(engine.running)), write(data))  # type: ignore[method-assign]
    for _ in range(3):
        assert playing.do(playing.mouse, (KEY, SIDE, 1), reports=2) == [[(KEY, Q, 1)], [(KEY, SHIFT, 1)]]
        assert worked[-2:] == [False, True]
        assert list(playing.service.playback.running) == ["hold"]
        released = playing.do(playing.mouse, (KEY, SIDE, 0), reports=2)
        assert sorted(event for report in released for event in report) == [(KEY, Q, 0), (KEY, SHIFT, 0)]
        assert not playing.service.playback.engine.held()
    record = playing.service.playback.run_of("hold")
    assert record
    assert [(each.control, each.value) for each in record.events[:2]] == [("KEY_Q", 1), ("KEY_LEFTSHIFT", 1)]
    assert all(each.at_us >= each.due_us for each in record.events)


def test_while_a_macro_runs_the_engine_decides(playing: Playing):
    playing.do(playing.keyboard, (KEY, W, 1), reports=2)
    assert playing.service.playback.first_of("BTN_SIDE") == ""
    assert playing.do(playing.mouse, (KEY, SIDE, 1), reports=2) == [[(KEY, Q, 1)], [(KEY, SHIFT, 1)]]


def test_a_press_that_may_be_an_echo_is_looked_at_first(playing: Playing):
    assert playing.service.playback.first_of("KEY_W") == "KEY_W"
    for _ in range(2):
        assert playing.do(playing.keyboard, (KEY, W, 1), reports=2) == [[(KEY, W, 1)], [(KEY, W, 0)]]
        playing.do(playing.keyboard, (KEY, W, 0), reports=0)
        assert playing.service.playback.first_of("KEY_W") == ""


def test_nothing_is_sent_while_our_own_window_is_in_front(playing: Playing):
    playing.service.playback.set_front("window", True, reaches_programs=True)
    playing.do(playing.mouse, (KEY, SIDE, 1), reports=0)
    playing.do(playing.mouse, (KEY, SIDE, 0), reports=0)
    assert playing.hands.reports == []
