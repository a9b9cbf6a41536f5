"""Macros on the simulated clock: what they emit, when, and how the four ways to play end."""

from __future__ import annotations

import itertools
import statistics

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.model.cells import Cell, RunMacro, ToControl
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Again, LetGo, Macro, Mode, Play, StartOn
from nakrel.core.model.steps import Branch, Chord, Note, PickOne, Press, Repeat, Tap, Wait, Wheel
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import (
    Emit,
    InputsLost,
    PlayMacro,
    Pressed,
    Released,
    RunEnded,
    SetSheet,
    StopAll,
    Turned,
    Wake,
)
from nakrel.core.play.operations import compile_macro
from nakrel.core.play.player import MIN_CYCLE_US
from nakrel.core.play.sheet import Sheet
from nakrel.core.play.simulate import Simulator, plan
from tests.strategies import plays, steps

MS = 1_000
TRIGGER = "BTN_SIDE"


def tap(code: str = "KEY_Q", hold_ms: int = 5) -> Tap:
    return Tap(control=code, hold_us=hold_ms * MS)


def wait(ms: int) -> Wait:
    return Wait(wait_us=ms * MS)


def bench(macro: Macro, play: Play, **cells: Cell) -> Simulator:
    """A simulator whose sheet has the macro on the trigger."""
    simulator = Simulator(Engine())
    plan_ = compile_macro(macro)
    sheet = Sheet.build("game", {TRIGGER: RunMacro(macro.id), **cells}, lambda key: (plan_, play))
    simulator.send(SetSheet(sheet))
    return simulator


def presses(simulator: Simulator, code: str = "KEY_Q") -> list[int]:
    return [row.time_us for row in simulator.emitted() if row.control == code and row.value == 1]


SHOT = Macro(id="shot", name="Shot", loop=(tap(),))


def test_counted_plays_exactly_that_many_runs():
    simulator = bench(SHOT, Play(Mode.COUNTED, runs=5, pause_us=25 * MS))
    simulator.send(Pressed(TRIGGER))
    simulator.run(10_000 * MS)
    # A repeat every 30 ms: 5 ms down, 25 ms pause.
    assert presses(simulator) == [0, 30_000, 60_000, 90_000, 120_000]
    assert simulator.engine.running == {}


def test_a_press_every_25_ms_is_40_a_second():
    """Common practice, no published source."""
    simulator = bench(SHOT, Play(Mode.HELD, pause_us=20 * MS))
    simulator.send(Pressed(TRIGGER))
    simulator.run(999 * MS)
    assert len(presses(simulator)) == 40


def test_held_ends_at_once_when_let_go_and_the_open_tap_goes_up():
    simulator = bench(Macro(id="long", name="Long", loop=(tap(hold_ms=500),)), Play(Mode.HELD))
    simulator.send(Pressed(TRIGGER))
    simulator.run(120 * MS)
    simulator.send(Released(TRIGGER))
    assert [(r.time_us, r.value) for r in simulator.emitted()] == [(0, 1), (120_000, 0)]
    assert simulator.engine.running == {}


def test_held_can_end_after_the_present_run():
    macro = Macro(id="long", name="Long", loop=(tap(hold_ms=500),))
    simulator = bench(macro, Play(Mode.HELD, let_go=LetGo.AFTER_RUN))
    simulator.send(Pressed(TRIGGER))
    simulator.run(120 * MS)
    simulator.send(Released(TRIGGER))
    simulator.run(10_000 * MS)
    assert [(r.time_us, r.value) for r in simulator.emitted()] == [(0, 1), (500_000, 0)]


def test_toggle_ends_on_the_next_press_or_at_its_limits():
    simulator = bench(SHOT, Play(Mode.TOGGLE, pause_us=5 * MS))
    for _ in range(2):
        simulator.send(Pressed(TRIGGER))
        simulator.send(Released(TRIGGER))
        simulator.run(99 * MS)
    assert len(presses(simulator)) == 10
    for limit in (
        Play(Mode.TOGGLE, pause_us=5 * MS, limit_runs=7),
        Play(Mode.TOGGLE, pause_us=5 * MS, limit_us=70 * MS),
    ):
        simulator = bench(SHOT, limit)
        simulator.send(Pressed(TRIGGER))
        simulator.run(10_000 * MS)
        assert len(presses(simulator)) == 7
        assert simulator.engine.running == {}


@pytest.mark.parametrize(("again", "runs"), [(Again.IGNORE, 1), (Again.STOP, 0), (Again.RESTART, 1), (Again.QUEUE, 2)])
def test_another_press_while_it_runs(again: Again, runs: int):
    macro = Macro(id="slow", name="Slow", loop=(tap(), wait(100), tap("KEY_W")))
    simulator = bench(macro, Play(Mode.SINGLE, again=again))
    simulator.send(Pressed(TRIGGER))
    simulator.send(Released(TRIGGER))
    simulator.run(50 * MS)
    simulator.send(Pressed(TRIGGER))
    simulator.send(Released(TRIGGER))
    simulator.run(1_000 * MS)
    assert len(presses(simulator, "KEY_W")) == runs


def test_single_can_start_on_release():
    simulator = bench(SHOT, Play(start_on=StartOn.RELEASE))
    simulator.send(Pressed(TRIGGER))
    simulator.run(70 * MS)
    assert presses(simulator) == []
    simulator.send(Released(TRIGGER))
    assert presses(simulator) == [70_000]


def test_two_triggers_of_one_macro_do_not_pile_up():
    simulator = bench(SHOT, Play(Mode.HELD, pause_us=5 * MS), BTN_EXTRA=RunMacro("shot"))
    simulator.send(Pressed(TRIGGER))
    simulator.send(Pressed("BTN_EXTRA"))
    simulator.run(50 * MS)
    simulator.send(Released(TRIGGER))
    simulator.run(45 * MS)
    simulator.send(Released("BTN_EXTRA"))
    simulator.run(50 * MS)
    # One run every 10 ms, for as long as either is held.
    assert presses(simulator) == list(range(0, 95_001, 10_000))


def test_lead_in_once_lead_out_always_and_holds_released_in_reverse():
    macro = Macro(
        id="m",
        name="M",
        lead_in=(Press(control="KEY_LEFTSHIFT"), Press(control="KEY_LEFTCTRL")),
        loop=(tap(),),
        lead_out=(Wheel(control="WHEEL_UP", notches=2),),
    )
    simulator = bench(macro, Play(Mode.HELD, pause_us=5 * MS))
    simulator.send(Pressed(TRIGGER))
    simulator.run(12 * MS)
    simulator.send(Released(TRIGGER))
    assert [(r.control, r.value) for r in simulator.emitted()] == [
        ("KEY_LEFTSHIFT", 1),
        ("KEY_LEFTCTRL", 1),
        *[("KEY_Q", 1), ("KEY_Q", 0)],
        *[("KEY_Q", 1), ("KEY_Q", 0)],
        ("WHEEL_UP", 2),
        ("KEY_LEFTCTRL", 0),
        ("KEY_LEFTSHIFT", 0),
    ]


def test_stop_everything_ends_within_the_instant_and_skips_the_lead_outs_waits():
    macro = Macro(id="m", name="M", loop=(Press(control="KEY_W"), wait(9_000)), lead_out=(wait(5_000), tap("KEY_E")))
    simulator = bench(macro, Play(Mode.TOGGLE))
    simulator.send(Pressed(TRIGGER))
    simulator.run(100 * MS)
    simulator.send(StopAll())
    assert simulator.engine.running == {}
    assert [(r.time_us, r.control, r.value) for r in simulator.emitted()] == [(0, "KEY_W", 1), (100_000, "KEY_W", 0)]


def test_a_control_held_by_finger_and_macro_stays_down_until_the_last_lets_go():
    macro = Macro(id="m", name="M", loop=(tap("KEY_W", 50),))
    simulator = bench(macro, Play())
    simulator.send(Pressed("KEY_W"))
    simulator.send(Pressed(TRIGGER))
    simulator.run(20 * MS)
    simulator.send(Released("KEY_W"))
    simulator.run(100 * MS)
    assert [(r.time_us, r.value) for r in simulator.emitted()] == [(0, 1), (50_000, 0)]


def test_a_macros_hold_outlives_a_finger_whose_press_had_passed():
    macro = Macro(id="m", name="M", loop=(tap("KEY_W", 50),))
    simulator = bench(macro, Play())
    simulator.send(Pressed("KEY_W", passed=True))
    simulator.send(Pressed(TRIGGER))
    simulator.run(20 * MS)
    assert simulator.emitted() == []
    # The desktop takes the key up with the finger; the macro presses it anew for the rest of its hold.
    simulator.send(Released("KEY_W"))
    simulator.run(100 * MS)
    assert [(r.time_us, r.value) for r in simulator.emitted()] == [(20_000, 1), (50_000, 0)]


def test_a_fingers_hold_that_passed_outlives_the_macros():
    macro = Macro(id="m", name="M", loop=(tap("KEY_W", 50),))
    simulator = bench(macro, Play())
    simulator.send(Pressed(TRIGGER))
    simulator.run(20 * MS)
    simulator.send(Pressed("KEY_W", passed=True))
    # The macro's release at 50 ms would take the key from under the finger; it goes out with the finger's own.
    simulator.run(100 * MS)
    assert [(r.time_us, r.value) for r in simulator.emitted()] == [(0, 1)]
    simulator.send(Released("KEY_W"))
    assert [(r.time_us, r.value) for r in simulator.emitted()] == [(0, 1), (120_000, 0)]


def test_what_was_started_on_a_device_that_is_gone_ends():
    macro = Macro(id="m", name="M", loop=(Press(control="KEY_W"), wait(9_000)))
    simulator = bench(macro, Play(Mode.TOGGLE))
    simulator.send(Pressed(TRIGGER))
    simulator.send(Released(TRIGGER))
    simulator.send(InputsLost(frozenset({"BTN_EXTRA"})))
    assert list(simulator.engine.running) == ["m"]
    simulator.send(InputsLost(frozenset({TRIGGER})))
    assert simulator.engine.running == {}
    assert simulator.engine.down() == set()


def test_a_profile_switch_ends_its_macros_and_frees_their_holds():
    macro = Macro(id="m", name="M", loop=(Press(control="KEY_W"), wait(9_000)))
    simulator = bench(macro, Play(Mode.TOGGLE), BTN_EXTRA=ToControl("KEY_E"))
    simulator.send(Pressed(TRIGGER))
    simulator.send(Pressed("BTN_EXTRA"))
    simulator.run(10 * MS)
    simulator.send(SetSheet(Sheet("other", {})))
    assert simulator.engine.down() == set()
    # The fingers that are still on the triggers let go under the new profile; their releases go nowhere.
    before = len(simulator.log)
    simulator.send(Released(TRIGGER))
    simulator.send(Released("BTN_EXTRA"))
    assert simulator.log[before:] == []


def test_an_edit_ends_the_edited_macro_and_no_other():
    keep, edit = Macro(id="keep", name="K", loop=(tap("KEY_W"),)), Macro(id="edit", name="E", loop=(tap("KEY_E"),))
    plans = {m.id: (compile_macro(m), Play(Mode.TOGGLE, pause_us=5 * MS)) for m in (keep, edit)}
    cells: dict[str, Cell] = {TRIGGER: RunMacro("keep"), "BTN_EXTRA": RunMacro("edit")}
    simulator = Simulator(Engine())
    simulator.send(SetSheet(Sheet.build("game", cells, plans.get)))
    simulator.send(Pressed(TRIGGER))
    simulator.send(Pressed("BTN_EXTRA"))
    plans["edit"] = (compile_macro(edit), plans["edit"][1])
    simulator.send(SetSheet(Sheet.build("game", cells, plans.get)))
    assert list(simulator.engine.running) == ["keep"]
    assert [out.reason for _, out in simulator.log if isinstance(out, RunEnded)] == ["edited"]


def test_a_wheel_notch_plays_one_run_even_of_a_held_macro():
    plan_ = compile_macro(SHOT)
    simulator = Simulator(Engine())
    simulator.send(SetSheet(Sheet.build("g", {"WHEEL_UP": RunMacro("shot")}, lambda key: (plan_, Play(Mode.HELD)))))
    simulator.send(Turned("WHEEL_UP"))
    simulator.run(1_000 * MS)
    assert presses(simulator) == [0]


def test_a_loop_without_time_repeats_once_a_millisecond_and_can_be_stopped():
    macro = Macro(id="m", name="M", loop=(tap(hold_ms=0),))
    simulator = bench(macro, Play(Mode.TOGGLE))
    simulator.send(Pressed(TRIGGER))
    simulator.run(10 * MS)
    assert presses(simulator) == list(range(0, 10 * MS + 1, MIN_CYCLE_US))
    simulator.send(StopAll())
    assert simulator.engine.down() == set()


def test_ten_minutes_of_loop_do_not_drift():
    rows = plan(SHOT, Play(Mode.COUNTED, pause_us=25 * MS), runs=20_000)
    assert [r.time_us for r in rows if r.value] == [n * 30_000 for n in range(20_000)]


def test_a_machine_that_slept_gets_no_burst():
    simulator = bench(SHOT, Play(Mode.TOGGLE, pause_us=5 * MS))
    simulator.send(Pressed(TRIGGER))
    simulator.run(20 * MS)
    before = len(presses(simulator))
    simulator.now_us += 60_000 * MS
    simulator.send(Wake())
    assert len(presses(simulator)) - before <= 1


def test_time_that_goes_backward_counts_as_standing_still():
    simulator = bench(SHOT, Play(Mode.TOGGLE, pause_us=5 * MS))
    simulator.now_us = 50 * MS
    simulator.send(Pressed(TRIGGER))
    simulator.now_us = 10 * MS
    simulator.send(Wake())
    assert [r.time_us for r in simulator.emitted()] == [50_000]


short_steps = steps(["KEY_Q", "KEY_W", "BTN_LEFT"], st.integers(0, 20_000))
short_sections = st.lists(short_steps, max_size=5).map(tuple)
short_macros = st.builds(
    Macro, id=st.just("m"), name=st.just("M"), lead_in=short_sections, loop=short_sections, lead_out=short_sections
)
short_plays = plays(st.integers(0, 20_000), st.integers(1, 4))


@given(short_macros, short_plays, st.integers(1, 4))
def test_presses_and_releases_balance_and_times_never_fall(macro: Macro, play: Play, runs: int):
    down: set[str] = set()
    last = 0
    for row in plan(macro, play, runs):
        assert row.time_us >= last
        last = row.time_us
        if not row.control.startswith("WHEEL") and not row.text:
            assert (row.control in down) != bool(row.value)
            (down.add if row.value else down.discard)(row.control)
    assert down == set()


def test_a_formula_that_fails_in_a_tap_at_the_end_lets_it_go_once():
    """The end goes on after a failure; what was let go then isn't let go again."""
    tap = Tap(control="KEY_Q", hold_us="run / elapsed")
    macro = Macro(id="m", name="M", lead_out=(tap, Tap(control="KEY_W", hold_us=5_000)))
    rows = [(row.control, row.value) for row in plan(macro, Play(), 1)]
    assert rows == [("KEY_Q", 1), ("KEY_Q", 0), ("KEY_W", 1), ("KEY_W", 0)]


@given(short_macros, short_plays, st.integers(0, 10**12), st.lists(st.integers(1, 30_000), max_size=6))
def test_a_shifted_clock_shifts_the_outputs_and_extra_wake_ups_change_nothing(
    macro: Macro, play: Play, shift_us: int, naps_us: list[int]
):
    def played(start_us: int, naps: list[int]) -> list[tuple[int, str, int]]:
        simulator = Simulator(Engine())
        simulator.now_us = start_us
        simulator.send(PlayMacro(compile_macro(macro), play))
        for nap in naps:
            simulator.run(nap)
            simulator.send(Wake())
        # Long enough for some runs of the longest macro there is here; each millisecond of it costs its time.
        simulator.run(200_000 - sum(naps))
        simulator.send(StopAll())
        return [(out.due_us - start_us, out.control, out.value) for _, out in simulator.log if isinstance(out, Emit)]

    assert played(0, []) == played(shift_us, naps_us)


def test_a_chord_goes_down_in_order_and_up_in_reverse():
    chord = Chord(controls=("KEY_LEFTCTRL", "KEY_LEFTSHIFT", "KEY_X"), hold_us=40 * MS)
    rows = [(r.time_us, r.control, r.value) for r in plan(Macro(id="m", name="M", loop=(chord,)), Play())]
    down = [(0, code, 1) for code in chord.controls]
    assert rows == [*down, *[(40_000, code, 0) for code in reversed(chord.controls)]]


def test_a_chord_that_is_cut_short_is_let_go_in_reverse():
    macro = Macro(id="m", name="M", loop=(Chord(controls=("KEY_LEFTCTRL", "KEY_X"), hold_us=900 * MS),))
    simulator = bench(macro, Play(Mode.HELD))
    simulator.send(Pressed(TRIGGER))
    simulator.run(10 * MS)
    simulator.send(Released(TRIGGER))
    assert [(r.control, r.value) for r in simulator.emitted()][2:] == [("KEY_X", 0), ("KEY_LEFTCTRL", 0)]


def test_blocks_repeat_what_is_inside_them():
    inner = Repeat(times=2, steps=(tap("KEY_W", 1), wait(4)))
    macro = Macro(id="m", name="M", loop=(Repeat(times=3, steps=(tap(), inner)), tap("KEY_E")))
    simulator = bench(macro, Play())
    simulator.send(Pressed(TRIGGER))
    simulator.run(1_000 * MS)
    # Worked by hand: a turn is 5 ms for Q and twice 5 ms for W.
    assert presses(simulator) == [0, 15_000, 30_000]
    assert presses(simulator, "KEY_W") == [5_000, 10_000, 20_000, 25_000, 35_000, 40_000]
    assert presses(simulator, "KEY_E") == [45_000]


def test_a_block_without_time_in_it_takes_a_millisecond_a_turn_and_one_without_acts_none():
    macro = Macro(id="m", name="M", loop=(Repeat(times=5, steps=(tap(hold_ms=0),)), tap("KEY_E")))
    assert [r.time_us for r in plan(macro, Play()) if r.value] == [0, 1_000, 2_000, 3_000, 4_000, 5_000]
    nothing = Repeat(times=1_000_000, steps=(Repeat(times=1_000_000, steps=(Note(text="x"),)),))
    assert [r.time_us for r in plan(Macro(id="m", name="M", loop=(nothing, tap("KEY_E"))), Play())] == [0, 5_000]


def test_a_random_wait_lies_between_its_bounds_and_goes_by_the_seed():
    """Every 12 s plus 1 to 30 s more (common practice, no published source), over 500 runs."""
    macro = Macro(id="m", name="M", loop=(tap(hold_ms=0), Wait(wait_us=13_000 * MS, most_us=42_000 * MS)))
    times = [r.time_us for r in plan(macro, Play(), 500, seed=1) if r.value]
    gaps = [after - before for before, after in itertools.pairwise(times)]
    assert min(gaps) >= 13_000_000
    assert max(gaps) <= 42_000_000
    # Uniform: the mean of 499 draws is within four of its standard errors, (b - a) / sqrt(12 n).
    assert abs(statistics.mean(gaps) - 27_500_000) < 4 * 29_000_000 / (12 * 499) ** 0.5
    assert times == [r.time_us for r in plan(macro, Play(), 500, seed=1) if r.value]
    assert times != [r.time_us for r in plan(macro, Play(), 500, seed=2) if r.value]


def test_ways_are_picked_by_their_weight():
    routes = tuple(Branch(weight=w, steps=(tap(k),)) for w, k in ((1, "KEY_Q"), (2, "KEY_W"), (5, "KEY_E")))
    rows = [
        r.control for r in plan(Macro(id="m", name="M", loop=(PickOne(branches=routes),)), Play(), 4_000) if r.value
    ]
    assert len(rows) == 4_000
    found = [rows.count(key) for key in ("KEY_Q", "KEY_W", "KEY_E")]
    # Two degrees of freedom; a chi-squared above 13.8 comes once in a thousand (scipy isn't needed for that).
    assert sum((f - e) ** 2 / e for f, e in zip(found, (500, 1_000, 2_500), strict=True)) < 13.8


def test_a_plan_that_never_ends_is_refused(monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr("nakrel.core.play.simulate.MOST_ROWS", 5_000)
    macro = Macro(id="m", name="M", loop=(Repeat(times=1_000_000, steps=(Repeat(times=1_000_000, steps=(tap(),)),)),))
    with pytest.raises(DataError, match="more than 5000 events"):
        plan(macro, Play())


def test_stop_everything_is_heard_in_a_block_of_nothing_but_presses():
    macro = Macro(id="m", name="M", loop=(Repeat(times=1_000_000, steps=(tap(hold_ms=0),) * 100),))
    simulator = bench(macro, Play())
    simulator.send(Pressed(TRIGGER))
    simulator.run(10 * MS)
    assert len(simulator.emitted()) < 3_000
    simulator.send(StopAll())
    assert simulator.engine.running == {}


def test_blocks_are_not_nested_without_end():
    block = Repeat(times=1)
    for _ in range(7):
        block = Repeat(times=1, steps=(block,))
    with pytest.raises(DataError, match="more than 8 deep"):
        Repeat(times=1, steps=(block,))
