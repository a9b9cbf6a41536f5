"""The recorder: what fingers did becomes steps with the times between."""

from __future__ import annotations

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.model.lengths import length_us
from nakrel.core.model.recording import Moves, RecordingSettings, Waits
from nakrel.core.model.steps import Pointer, Press, Release, Tap, Wait, Wheel
from nakrel.core.play.events import Pressed, Released, Turned
from nakrel.core.play.path import Spot, thinned
from nakrel.core.play.recorder import Recorder, tidy

MS = 1_000


def recorded(*events: tuple[object, int], gesture: str = "") -> tuple[object, ...]:
    recorder = Recorder()
    for event, ms in events:
        recorder.feed(event, ms * MS)
    return recorder.finish(tuple(gesture.split()))


def test_real_times_become_waits():
    assert recorded((Pressed("KEY_Q"), 100), (Released("KEY_Q"), 183), (Turned("WHEEL_UP"), 200)) == (
        Press(control="KEY_Q"),
        Wait(wait_us=83 * MS),
        Release(control="KEY_Q"),
        Wait(wait_us=17 * MS),
        Wheel(control="WHEEL_UP"),
    )


def test_the_gestures_that_begin_and_end_it_are_not_in_it():
    click = (Pressed("BTN_LEFT"), 900), (Released("BTN_LEFT"), 980)
    assert recorded(
        (Released("BTN_LEFT"), 20), (Pressed("KEY_Q"), 100), (Released("KEY_Q"), 150), *click, gesture="BTN_LEFT"
    ) == (
        Press(control="KEY_Q"),
        Wait(wait_us=50 * MS),
        Release(control="KEY_Q"),
    )
    # A click of an earlier time stays: it was not the one that ended the recording.
    assert len(recorded(*click, (Pressed("KEY_Q"), 1000), (Released("KEY_Q"), 1050), gesture="BTN_LEFT")) == 7


def test_a_shortcut_that_ends_it_is_not_in_it():
    keys = (Pressed("KEY_LEFTCTRL"), 500), (Pressed("KEY_R"), 550)
    steps = recorded((Pressed("KEY_R"), 100), (Released("KEY_R"), 150), *keys, gesture="KEY_LEFTCTRL KEY_R")
    assert [type(step) for step in steps] == [Press, Wait, Release]


def test_key_repeat_is_no_press_and_what_is_down_at_the_end_is_completed_and_marked():
    steps = recorded((Pressed("KEY_W"), 0), (Pressed("KEY_W"), 30), (Pressed("KEY_W"), 60))
    assert [type(step) for step in steps] == [Press, Release]
    assert "completed" in steps[1].remark


fingers = st.lists(
    st.tuples(st.sampled_from(["KEY_Q", "KEY_W", "BTN_LEFT"]), st.booleans(), st.integers(-5_000, 400_000)), max_size=30
)


@given(fingers)
def test_presses_balance_and_the_whole_takes_as_long_as_it_took(moves: list[tuple[str, bool, int]]):
    recorder, now, taken = Recorder(), 0, []
    for control, press, later in moves:
        now += later
        if recorder.feed(Pressed(control) if press else Released(control), now):
            taken.append(now)
    steps = recorder.finish()
    down: set[str] = set()
    for step in steps:
        if isinstance(step, Press):
            assert step.control not in down
            down.add(step.control)
        elif isinstance(step, Release):
            down.remove(step.control)
    assert down == set()
    high = [max(taken[: n + 1]) for n in range(len(taken))]
    assert sum(map(length_us, steps)) == (high[-1] - high[0] if high else 0)


def test_only_what_is_to_be_caught_is_recorded_and_waits_run_on_without_the_rest():
    recorder = Recorder(RecordingSettings(buttons=False, wheel=False))
    for event, at in (
        (Pressed("KEY_Q"), 0),
        (Pressed("BTN_LEFT"), 5),
        (Turned("WHEEL_UP"), 7),
        (Released("BTN_LEFT"), 8),
        (Released("KEY_Q"), 9),
    ):
        recorder.feed(event, at)
    assert recorder.finish() == (Press(control="KEY_Q"), Wait(wait_us=9), Release(control="KEY_Q"))


def test_waits_are_kept_made_alike_or_left_out():
    tap = (Press(control="KEY_Q"), Wait(wait_us=9), Release(control="KEY_Q"))
    steps = (*tap, Wait(wait_us=7), Wheel(control="WHEEL_UP"))
    assert tidy(steps, RecordingSettings()) == list(steps)
    even = tidy(steps, RecordingSettings(waits=Waits.EVEN, even_us=5))
    assert [step.wait_us for step in even if isinstance(step, Wait)] == [5, 5]
    assert tidy(steps, RecordingSettings(waits=Waits.NONE)) == [steps[0], steps[2], steps[4]]


def test_what_is_down_at_the_beginning_is_completed_and_marked():
    recorder = Recorder(down=["KEY_W"], began_us=100 * MS)
    recorder.feed(Released("KEY_W"), 160 * MS)
    steps = recorder.finish()
    assert [type(step) for step in steps] == [Press, Wait, Release]
    assert "was down at the beginning" in steps[0].remark
    assert steps[1].wait_us == 60 * MS


def test_the_time_before_the_first_input_is_kept_where_that_is_wanted():
    for from_now, wanted in ((True, 80 * MS), (False, None)):
        recorder = Recorder(RecordingSettings(from_now=from_now), began_us=20 * MS)
        recorder.feed(Pressed("KEY_Q"), 100 * MS)
        recorder.feed(Released("KEY_Q"), 130 * MS)
        first = recorder.finish()[0]
        assert (first.wait_us if isinstance(first, Wait) else None) == wanted


def test_places_are_taken_at_clicks_and_not_twice():
    recorder = Recorder(RecordingSettings(moves=Moves.CLICKS), screen=(1280, 800))
    for n, place in enumerate([(30, 40), (30, 40), (500, 60)]):
        recorder.feed(Pressed("BTN_LEFT"), n * 100 * MS, place)
        recorder.feed(Released("BTN_LEFT"), (n * 100 + 40) * MS)
    steps = recorder.finish()
    assert [(s.x, s.y, s.size) for s in steps if isinstance(s, Pointer)] == [
        (30, 40, (1280, 800)),
        (500, 60, (1280, 800)),
    ]
    assert [type(step) for step in steps][:3] == [Pointer, Press, Wait]


def test_the_click_that_ends_it_takes_the_way_to_it_along():
    recorder = Recorder(RecordingSettings(moves=Moves.PATH))
    recorder.feed(Pressed("BTN_LEFT"), 0)
    recorder.feed(Released("BTN_LEFT"), 50 * MS)
    for n in range(20):
        recorder.move(10 * n, 0, (100 + 8 * n) * MS)
    recorder.feed(Pressed("BTN_LEFT"), 400 * MS)
    recorder.feed(Released("BTN_LEFT"), 450 * MS)
    assert [type(step) for step in recorder.finish(("BTN_LEFT",))] == [Press, Wait, Release]


def test_a_path_is_kept_with_its_pace_and_the_waits_around_it():
    recorder = Recorder(RecordingSettings(moves=Moves.PATH, tolerance_px=1))
    recorder.feed(Pressed("KEY_Q"), 0)
    recorder.feed(Released("KEY_Q"), 10 * MS)
    for n in range(60):
        # At rest until 80 ms, then 100 pixels to the right in 80 ms, then at rest again.
        recorder.move(max(0, min(100, 10 * (n - 10))), 7, 8 * n * MS)
    recorder.feed(Pressed("KEY_Q"), 600 * MS)
    steps = recorder.finish()
    moves = [s for s in steps if isinstance(s, Pointer)]
    assert [(s.x, s.y) for s in moves] == [(100, 7)]
    assert moves[0].over_us == 80 * MS
    before = sum(length_us(s) for s in steps[: steps.index(moves[0])])
    assert before == 80 * MS
    assert sum(map(length_us, steps)) == 600 * MS


spots = st.lists(st.tuples(st.integers(1, 30), st.integers(0, 900), st.integers(0, 900)), min_size=1, max_size=60)


@given(spots, st.integers(0, 60))
def test_thinning_keeps_every_spot_within_the_tolerance(found: list[tuple[int, int, int]], tolerance: int):
    path, now = [], 0
    for after, x, y in found:
        now += after
        path.append(Spot(now, x, y))
    thin = thinned(path, tolerance)
    assert (thin[0], thin[-1]) == (path[0], path[-1])
    assert set(thin) <= set(path)
    times = [spot.at_us for spot in thin]
    for spot in path:
        x, y = (np.interp(spot.at_us, times, [getattr(s, axis) for s in thin]) for axis in "xy")
        assert np.hypot(x - spot.x, y - spot.y) <= tolerance + 1e-9


def test_waits_left_out_leave_the_ways_without_their_time():
    steps = (Pointer(x=1, y=2, over_us=9), Wait(wait_us=5), Tap(control="KEY_Q", hold_us=4))
    assert tidy(steps, RecordingSettings(waits=Waits.NONE)) == [Pointer(x=1, y=2), Tap(control="KEY_Q", hold_us=4)]
