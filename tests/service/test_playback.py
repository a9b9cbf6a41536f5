"""Playback in the service: when what it sends to is gone in the midst of a run, and when another profile comes."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any, cast

import pytest

from nakrel.backends.protocols import BackendLost
from nakrel.backends.standin.sink import Sink
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.core.model.programs import Choice
from nakrel.core.model.steps import Press, Tap, Wait
from nakrel.core.play.events import Emit, Event, PlayMacro, Pressed, Released, RunStarted, SetSheet, StopMacro
from nakrel.core.play.operations import compile_macro
from nakrel.core.play.sheet import Sheet
from nakrel.service.loop import monotonic_us
from nakrel.service.observers.desktop import Seen
from nakrel.service.options import Options
from nakrel.service.service import Service
from nakrel.storage.home import Home
from tests.support import wait_for

# Two controls are down at once, and one run ends by itself within the very turn in which the route is lost.
HOLD = Macro(
    id="hold",
    name="Hold",
    play=Play(Mode.TOGGLE),
    loop=(Press(control="KEY_W"), Press(control="KEY_LEFTSHIFT"), Wait(wait_us=600_000_000)),
)
ONCE = Macro(id="once", name="Once", play=Play(Mode.SINGLE), loop=(Tap(control="KEY_Q", hold_us=0),))


class LostRoute(Sink):
    """A route to the programs that ends after so many calls."""

    def __init__(self, calls: int) -> None:
        super().__init__()
        self.calls = calls

    def fileno(self) -> int:
        return -1

    def emit(self, events: Sequence[Emit]) -> None:
        if not self.calls:
            raise BackendLost("the X server ended")
        self.calls -= 1
        super().emit(events)


@pytest.fixture
def service(tmp_path: Path) -> Iterator[Service]:
    made = Service(Home.find(tmp_path), Options("stand-in"))
    yield made
    made.close()


def lose_after(service: Service, calls: int) -> LostRoute:
    route = LostRoute(calls)
    service.routes.real = cast(Any, route)
    service.routes.output = route
    return route


def play(service: Service, macro: Macro) -> None:
    service.playback.step(PlayMacro(compile_macro(macro), macro.play))


def what_ended(service: Service) -> list[str]:
    return [entry.what for entry in service.journal.entries if entry.kind == "run"]


@pytest.mark.parametrize("calls", [0, 1])
@pytest.mark.parametrize("macro", [HOLD, ONCE], ids=lambda macro: macro.id)
def test_a_macro_whose_route_is_lost_ends_and_is_told_once(service: Service, macro: Macro, calls: int):
    route = lose_after(service, calls)
    play(service, macro)
    play(service, HOLD)
    if service.playback.running:
        # The route held so long: it is lost when the macro lets go.
        service.playback.step(StopMacro("hold"))
    assert not service.playback.running
    assert not service.playback.engine.held()
    assert service.routes.real is None
    assert not route.down
    faults = [entry.what for entry in service.journal.entries if entry.kind == "fault"]
    assert faults == ["the X server ended; all macros were stopped"]


def test_after_the_loss_macros_play_on_into_the_stand_in(service: Service):
    lose_after(service, 0)
    play(service, HOLD)
    play(service, HOLD)
    sink = cast(Sink, service.routes.output)
    assert list(service.playback.running) == ["hold"]
    assert sink.down == {"KEY_W", "KEY_LEFTSHIFT"}
    service.playback.stop_all()
    assert not sink.down
    assert service.loop.pending("reconnect")
    assert len(what_ended(service)) == 2


def test_a_profile_is_told_live_once_its_buttons_play(service: Service):
    """Its sheet is made ready on a thread: until the engine has it, a press would still be the old profile's."""
    given: list[Event] = []
    step = service.playback.step
    service.playback.step = lambda event: (given.append(event), step(event))  # type: ignore[method-assign,assignment]
    service.state.profiles["kiln"] = Profile(id="kiln", name="Kiln Race")
    service.live.see(Seen(Choice("kiln", "kiln runs", 0), running=("kiln",), sees_windows=True))
    assert service.status().live == EVERYDAY
    assert not [entry for entry in service.journal.entries if entry.kind == "switch"]
    wait_for(lambda: service.loop.collect() or service.status().live == "kiln", "the sheet")
    assert [event.sheet.profile for event in given if isinstance(event, SetSheet)] == ["kiln Main"]
    assert [entry.what for entry in service.journal.entries if entry.kind == "switch"] == ["Kiln Race is live"]
    assert service.status().reason == "kiln runs"


class Order(LostRoute):
    """Notes what is sent, and whether the engine had worked by then."""

    def __init__(self, service: Service, calls: int = 1_000) -> None:
        super().__init__(calls)
        self._engine, self.sent = service.playback.engine, []

    def emit(self, events: Sequence[Emit]) -> None:
        super().emit(events)
        self.sent += [(each.control, each.value, bool(self._engine.running)) for each in events]


def attach(service: Service, route: LostRoute, macro: Macro) -> None:
    service.routes.real = cast(Any, route)
    service.routes.output = route
    plan = compile_macro(macro)
    service.playback.step(
        SetSheet(Sheet.build("one", {"BTN_SIDE": RunMacro(macro.id)}, lambda key: (plan, macro.play)))
    )


def test_the_first_press_is_sent_before_the_engine_works_out_the_rest_and_once(service: Service):
    route = Order(service)
    attach(service, route, HOLD)
    service.playback.step(Pressed("BTN_SIDE"))
    assert route.sent == [("KEY_W", 1, False), ("KEY_LEFTSHIFT", 1, True)]
    record = service.playback.run_of("hold")
    assert record
    assert [(each.control, each.value) for each in record.events] == [("KEY_W", 1), ("KEY_LEFTSHIFT", 1)]
    # Never early, not even by the time that the engine took.
    assert all(each.at_us >= each.due_us for each in record.events)
    service.playback.step(Released("BTN_SIDE"))
    service.playback.step(Pressed("BTN_SIDE"))
    assert route.down == set()


def test_the_next_press_does_not_wait_until_the_one_before_is_told(service: Service):
    attach(service, Order(service), ONCE)
    told: list[str] = []
    service.cues.run_started = lambda run, name: told.append(f"{name} begins")  # type: ignore[method-assign]
    service.cues.run_ended = lambda run, name: told.append(f"{name} ends")  # type: ignore[method-assign]
    for _ in range(3):
        service.playback.step(Pressed("BTN_SIDE"))
        service.playback.step(Released("BTN_SIDE"))
    assert told == []
    # Who asks gets what is true now.
    assert service.playback.running == {}
    assert told == ["once begins", "once ends"] * 3
    record = service.playback.run_of("once")
    assert record
    assert [(each.control, each.value) for each in record.events] == [("KEY_Q", 1), ("KEY_Q", 0)]
    assert what_ended(service) == ["once ended after 1 run"] * 3


def test_it_is_told_in_the_next_moment_without_anything_to_do(service: Service):
    attach(service, Order(service), ONCE)
    service.playback.step(Pressed("BTN_SIDE"))
    assert what_ended(service) == []
    told: list[str] = []
    service.loop.at("look", monotonic_us() + 1_000, lambda: told.extend(what_ended(service)))
    service.loop.at("end", monotonic_us() + 1_000, service.loop.stop)
    service.loop.run()
    assert told == ["once ended after 1 run"]


def test_a_fault_in_telling_of_a_beginning_keeps_nobody_from_hearing_of_the_end(service: Service):
    attach(service, Order(service), ONCE)

    def fail(run: RunStarted, name: str) -> None:
        raise RuntimeError("a fault of ours")

    service.cues.run_started = fail  # type: ignore[method-assign]
    service.playback.step(Pressed("BTN_SIDE"))
    with pytest.raises(RuntimeError, match="of ours"):
        service.playback.tell()
    told: list[str] = []
    service.loop.at("look", monotonic_us() + 1_000, lambda: told.extend(what_ended(service)))
    service.loop.at("end", monotonic_us() + 1_000, service.loop.stop)
    service.loop.run()
    assert told == ["once ended after 1 run"]
    assert service.playback.running == {}


def test_nothing_is_sent_ahead_of_a_preview_or_of_a_run_that_goes_on(service: Service):
    route = Order(service)
    attach(service, route, HOLD)
    service.playback.set_front("window", True, reaches_programs=True)
    service.playback.step(Pressed("BTN_SIDE"))
    service.playback.step(Released("BTN_SIDE"))
    assert route.sent == []


def test_a_route_that_is_lost_with_the_first_press_is_told_once(service: Service):
    route = Order(service, calls=0)
    attach(service, route, HOLD)
    service.playback.step(Pressed("BTN_SIDE"))
    assert not service.playback.running
    assert not service.playback.engine.held()
    faults = [entry.what for entry in service.journal.entries if entry.kind == "fault"]
    assert faults == ["the X server ended; all macros were stopped"]
