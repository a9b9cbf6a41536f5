"""Whatever fingers, profiles, edits and stops do: when no finger holds anything and no macro runs, nothing is down."""

from __future__ import annotations

from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, rule

from nakrel.core.model.cells import Cell, ChangeSpeed, HoldLayer, Nothing, RunMacro, ToChord, ToControl, TypeText
from nakrel.core.model.macro import Macro, Play
from nakrel.core.model.profile import Layer
from nakrel.core.model.steps import Text, Wait
from nakrel.core.play.acts import AskText, Stroke
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import (
    Emit,
    Event,
    InputsLost,
    PlayMacro,
    Pressed,
    Released,
    SetSheet,
    SideEffect,
    SpeedHeld,
    StopAll,
    StopMacro,
    TextReady,
    Turned,
    Wake,
)
from nakrel.core.play.operations import compile_macro
from nakrel.core.play.player import NEVER
from nakrel.core.play.sheet import Sheet
from tests.strategies import plays, steps

# Two thumb buttons send keys that a keyboard has, too.
SENDS = {"BTN_TRIGGER_HAPPY1": "KEY_Q", "BTN_TRIGGER_HAPPY2": "KEY_LEFTSHIFT"}
FINGERS = ["KEY_Q", "KEY_W", "KEY_LEFTSHIFT", "BTN_LEFT", "BTN_SIDE", "BTN_EXTRA", *SENDS]
KEYS = ["a", "b", "c"]
STROKES = [
    Stroke(""),
    Stroke("KEY_W"),
    Stroke("KEY_Q", ("KEY_LEFTSHIFT",)),
    Stroke("KEY_E", ("KEY_LEFTSHIFT", "KEY_RIGHTALT")),
]
short = st.lists(steps(["KEY_Q", "KEY_W", "KEY_E", "BTN_LEFT"], st.integers(0, 15_000)), max_size=5).map(tuple)
routes = plays(st.integers(0, 15_000), st.integers(1, 4))
macros = st.builds(
    Macro, id=st.sampled_from(KEYS), name=st.just("M"), play=routes, lead_in=short, loop=short, lead_out=short
)
cells = st.dictionaries(
    st.sampled_from([*FINGERS, "WHEEL_UP"]),
    st.one_of(
        st.just(Nothing()),
        st.builds(ToControl, st.sampled_from(["KEY_W", "KEY_E", "KEY_LEFTSHIFT"])),
        st.just(ToChord(("KEY_LEFTCTRL", "KEY_E"))),
        st.just(TypeText("ab", 250)),
        st.builds(ChangeSpeed, st.sampled_from(["Slow", "Fast"]), held=st.just(True)),
        st.builds(RunMacro, st.sampled_from(KEYS), st.none() | routes),
    ),
)


def put_down(fingers: set[str]) -> set[str]:
    """What these fingers put down by themselves."""
    return {SENDS.get(control, control) for control in fingers}


class EngineMachine(RuleBasedStateMachine):
    """Drives one engine with random events and times, and keeps the books from its outputs alone."""

    def __init__(self) -> None:
        super().__init__()
        self.engine = Engine()
        self.now_us = 0
        self.fingers: set[str] = set()
        # The fingers whose press has passed by itself, what our outputs hold, and what the programs see as down.
        self.native_fingers: set[str] = set()
        self.ours: set[str] = set()
        self.down: set[str] = set()
        self.speed = ""
        # The texts that are asked for.
        self.asked: list[SideEffect] = []
        self.macros = {key: Macro(id=key, name=key) for key in KEYS}
        self.cells: dict[str, Cell] = {}
        self.layers: tuple[Layer, ...] = ()
        self.profile = "one"

    @property
    def native(self) -> set[str]:
        return put_down(self.native_fingers)

    def send(self, event: Event) -> None:
        first = self.engine.first_of(*event) if isinstance(event, Pressed) else ""
        outputs, self.deadline_us = self.engine.step(event, self.now_us)
        if first:
            # What may be sent before the engine has worked is what it puts out first.
            emitted = next(output for output in outputs if isinstance(output, Emit))
            assert (emitted.control, emitted.value, emitted.due_us) == (first, 1, self.now_us)
        for output in outputs:
            if isinstance(output, SpeedHeld):
                assert output.stage != self.speed
                self.speed = output.stage
            if isinstance(output, SideEffect) and isinstance(output.what, AskText):
                self.asked.append(output)
            if isinstance(output, Emit) and not output.control.startswith("WHEEL"):
                # A control never goes down twice or up twice, so what went out says what is down.
                assert (output.control in self.ours) != bool(output.value) or output.lifts
                lifts = not output.value and output.control in self.native
                # Of several that are lost at once, one goes after the other.
                assert output.lifts == lifts or isinstance(event, InputsLost)
                (self.ours.add if output.value else self.ours.discard)(output.control)
                # The strict desktop: a release by one device takes the control up for all.
                (self.down.add if output.value else self.down.discard)(output.control)

    @rule(control=st.sampled_from(FINGERS), passed=st.booleans())
    def press(self, control: str, passed: bool) -> None:
        if passed and control not in self.fingers:
            self.native_fingers.add(control)
            self.down.add(SENDS.get(control, control))
        self.fingers.add(control)
        self.send(Pressed(control, passed, SENDS.get(control, "")))

    @rule(control=st.sampled_from(FINGERS))
    def let_go(self, control: str) -> None:
        if control in self.native_fingers:
            # The desktop takes the control up, whoever else holds it.
            self.native_fingers.discard(control)
            self.down.discard(SENDS.get(control, control))
        self.fingers.discard(control)
        self.send(Released(control, SENDS.get(control, "")))

    @rule(notches=st.integers(1, 3), passed=st.booleans())
    def turn(self, notches: int, passed: bool) -> None:
        self.send(Turned("WHEEL_UP", notches, passed))

    @rule(strokes=st.lists(st.sampled_from(STROKES), max_size=3).map(tuple), waits=st.booleans())
    def type_text(self, strokes: tuple[Stroke, ...], waits: bool) -> None:
        """Start a macro that types, and let the desktop answer it and all others that wait for their keys."""
        loop = (Text(text="ab", rate=100), Wait(wait_us=20_000 * waits))
        self.send(PlayMacro(compile_macro(Macro(id="types", name="types", loop=loop)), Play()))
        asked, self.asked = self.asked, []
        for each in asked:
            assert isinstance(each.what, AskText)
            self.send(TextReady(each.by, each.what.ticket, strokes))

    @rule(us=st.integers(0, 60_000), on_time=st.booleans())
    def pass_time(self, us: int, on_time: bool) -> None:
        end = self.now_us + us
        while on_time and (due_us := self.deadline()) is not None and due_us <= end:
            self.now_us = max(self.now_us, due_us)
            self.send(Wake())
        self.now_us = end
        self.send(Wake())

    def deadline(self) -> int | None:
        return getattr(self, "deadline_us", None)

    @rule(macro=macros)
    def edit_macro(self, macro: Macro) -> None:
        self.macros[macro.id] = macro
        self.set_sheet()

    @rule(new=cells)
    def edit_sheet(self, new: dict[str, Cell]) -> None:
        self.cells = new
        self.set_sheet()

    @rule(profile=st.sampled_from(["one", "two"]), new=cells)
    def switch(self, profile: str, new: dict[str, Cell]) -> None:
        self.profile, self.cells = profile, new
        self.set_sheet()

    def set_sheet(self) -> None:
        plans = {key: (compile_macro(macro), macro.play) for key, macro in self.macros.items()}
        held: dict[str, Cell] = {"BTN_EXTRA": HoldLayer("above")} if self.layers else {}
        self.send(SetSheet(Sheet.build(self.profile, {**self.cells, **held}, plans.get, self.layers)))

    @rule(new=st.none() | cells)
    def edit_layer(self, new: dict[str, Cell] | None) -> None:
        self.layers = () if new is None else (Layer("above", new),)
        self.set_sheet()

    @rule(key=st.sampled_from(KEYS), play=routes)
    def play(self, key: str, play: Play) -> None:
        self.send(PlayMacro(compile_macro(self.macros[key]), play))

    @rule(key=st.sampled_from(KEYS))
    def stop_macro(self, key: str) -> None:
        self.send(StopMacro(key))

    @rule()
    def stop_all(self) -> None:
        self.send(StopAll())
        assert self.engine.running == {}
        assert self.down <= put_down(self.fingers)

    @rule(controls=st.none() | st.frozensets(st.sampled_from(FINGERS)))
    def devices_vanish(self, controls: frozenset[str] | None) -> None:
        gone = set(FINGERS) if controls is None else controls
        self.fingers -= gone
        self.down -= put_down(self.native_fingers & gone)
        self.native_fingers -= gone
        self.send(InputsLost(controls))

    @invariant()
    def nothing_is_stuck(self) -> None:
        assert self.down == self.engine.down()
        if not self.fingers:
            assert not self.speed
        if not self.fingers and not self.engine.running:
            assert self.down == self.ours == set()
        if not self.engine.running:
            # What was set aside for a text has come back.
            assert self.native <= self.down

    @invariant()
    def each_run_knows_when_it_goes_on(self) -> None:
        players = [run.player for run in self.engine._runs.values()]
        known = [player.next_us for player in players]
        for player in players:
            # What it keeps is what working it out anew gives.
            player._note_next()
        assert known == [player.next_us for player in players]
        due = min((max(0, next_us) for next_us in known), default=NEVER)
        assert self.deadline() == (None if due == NEVER else due)

    def teardown(self) -> None:
        for control in list(self.fingers):
            self.let_go(control)
        self.send(StopAll())
        assert self.down == set()


TestEngine = EngineMachine.TestCase
TestEngine.settings = settings(stateful_step_count=40)
