"""Takes: a recording is raw, and what is made of it keeps the times of all that stays."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.edit.takes import length_us, used
from nakrel.core.model.recording import Moves, RecordingSettings, Waits
from nakrel.core.model.steps import Pointer, Press, Release, Step, Tap, Wait, Wheel
from nakrel.core.model.takes import MOST_TAKES, Takes
from nakrel.core.play.events import Pressed, Released
from nakrel.core.play.recorder import Recorder

MS = 1_000
RAW: tuple[Step, ...] = (
    Pointer(x=50, y=60, over_us=30 * MS),
    Wait(wait_us=10 * MS),
    Press(control="BTN_LEFT"),
    Wait(wait_us=40 * MS),
    Release(control="BTN_LEFT"),
    Pointer(x=70, y=80, over_us=20 * MS),
    Pointer(x=90, y=99, over_us=20 * MS),
    Press(control="KEY_Q"),
    Wait(wait_us=15 * MS),
    Press(control="BTN_LEFT"),
    Release(control="BTN_LEFT"),
    Wait(wait_us=5 * MS),
    Release(control="KEY_Q"),
    Pointer(x=1, y=1, over_us=100 * MS),
)


def test_without_the_pointer_waits_take_its_time_and_its_way_in_and_out_goes():
    assert used(RAW, RecordingSettings()) == [
        Press(control="BTN_LEFT"),
        Wait(wait_us=40 * MS),
        Release(control="BTN_LEFT"),
        Wait(wait_us=40 * MS),
        Press(control="KEY_Q"),
        Wait(wait_us=15 * MS),
        Press(control="BTN_LEFT"),
        Release(control="BTN_LEFT"),
        Wait(wait_us=5 * MS),
        Release(control="KEY_Q"),
    ]


def test_at_clicks_its_place_comes_before_each_click_once():
    places = [step for step in used(RAW, RecordingSettings(moves=Moves.CLICKS)) if isinstance(step, Pointer)]
    assert places == [Pointer(x=50, y=60), Pointer(x=90, y=99)]


def test_its_path_stays_as_it_was():
    assert used(RAW, RecordingSettings(moves=Moves.PATH)) == list(RAW)


def test_presses_that_nothing_lies_between_become_taps():
    taps = used(RAW, RecordingSettings(taps=True))
    assert taps[0] == Tap(control="BTN_LEFT", hold_us=40 * MS)
    assert Tap(control="BTN_LEFT", hold_us=0) in taps
    # Q is held while something else happens: that is no tap.
    assert Press(control="KEY_Q") in taps


def test_one_value_and_none_are_of_all_delays():
    even = used(RAW, RecordingSettings(waits=Waits.EVEN, even_us=7 * MS))
    assert {step.wait_us for step in even if isinstance(step, Wait)} == {7 * MS}
    assert not any(isinstance(step, Wait) for step in used(RAW, RecordingSettings(waits=Waits.NONE)))


EVENTS = st.lists(
    st.tuples(st.integers(1, 400), st.sampled_from(["KEY_Q", "KEY_W", "BTN_LEFT"]), st.booleans()), max_size=30
)


@given(EVENTS, st.booleans(), st.sampled_from([Moves.NONE, Moves.CLICKS]))
def test_whatever_is_recorded_keeps_its_times(events: list[tuple[int, str, bool]], taps: bool, moves: Moves):
    """Every press and release comes as long after the first one as it was performed."""
    recorder, now, done = Recorder(RecordingSettings(moves=Moves.PATH)), 0, []
    for after, control, down in events:
        now += after * MS
        recorder.move(now % 700, now % 500, now - after * MS // 2)
        if recorder.feed(Pressed(control) if down else Released(control), now):
            done.append((control, down, now))
    steps = used(recorder.finish(), RecordingSettings(taps=taps, moves=moves))
    at, found = 0, []
    for step in steps:
        match step:
            case Wait(wait_us=int(us)):
                at += us
            case Press(control=control):
                found.append((control, True, at))
            case Release(control=control):
                found.append((control, False, at))
            case Tap(control=control, hold_us=int(us)):
                found += [(control, True, at), (control, False, at + us)]
                at += us
    begun = done[0][2] if done else 0
    wanted = [(control, down, when - begun) for control, down, when in done]
    assert found[: len(wanted)] == wanted
    # What was still down at the end is completed there.
    assert all(not down for _, down, _ in found[len(wanted) :])


def test_the_newest_few_stay_and_keep_their_numbers():
    takes = Takes()
    for number in range(1, MOST_TAKES + 4):
        takes = takes.with_another((Wheel(control="WHEEL_UP", notches=1),), float(number))
    assert [take.number for take in takes.takes] == list(range(4, MOST_TAKES + 4))
    assert length_us(RAW) == 240 * MS
