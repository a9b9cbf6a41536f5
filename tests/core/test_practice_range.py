"""The Range's counts, against plain references and the practice game's own sampler."""

from __future__ import annotations

import csv
import statistics

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.analysis.practice_range import (
    FINGER,
    Came,
    Lane,
    Range,
    bins_of,
    histogram,
    suggested_us,
    to_csv,
    to_steps,
)
from nakrel.core.model.steps import Press, Release, Wait, Wheel
from nakrel.practice.sampler import Sampler

MS = 1_000
Q = Lane("KEY_Q", FINGER)


def tapped(pairs: list[tuple[int, int]], start_us: int = 0) -> list[Came]:
    """Taps: each is a gap and a hold, in microseconds."""
    events, now = [], start_us
    for gap, hold in pairs:
        now += gap
        events.append(Came(FINGER, "KEY_Q", 1, now))
        now += hold
        events.append(Came(FINGER, "KEY_Q", 0, now))
    return events


taps = st.lists(st.tuples(st.integers(1, 60_000), st.integers(1, 60_000)), min_size=1, max_size=60)


@given(taps, st.sampled_from([30, 60, 144]))
def test_a_game_sees_what_the_practice_games_sampler_sees(pairs: list[tuple[int, int]], fps: int):
    events = tapped(pairs)
    found = Range(0, fps)
    for event in events:
        found.feed(event)
    sampler, at = Sampler(), 0
    for frame in range(int(events[-1].at_us * fps / 1e6) + 3):
        look_us = frame * 1e6 / fps
        while at < len(events) and events[at].at_us <= look_us:
            sampler.change("Q", bool(events[at].value))
            at += 1
        sampler.frame()
    assert found.rows(events[-1].at_us)[0].seen == sampler.seen["Q"]


@given(taps)
def test_rates_holds_and_gaps_are_those_of_plain_counting(pairs: list[tuple[int, int]]):
    events = tapped(pairs)
    found = Range(0)
    for event in events:
        found.feed(event)
    downs = [e.at_us for e in events if e.value]
    ups = [e.at_us for e in events if not e.value]
    now = ups[-1]
    row = found.rows(now)[0]
    assert row.presses == len(downs)
    assert row.now == sum(now - 1_000_000 < each <= now for each in downs)
    assert row.best == max(sum(end - 1_000_000 < each <= end for each in downs) for end in downs)
    holds = [up - down for down, up in zip(downs, ups, strict=True)]
    gaps = [down - up for up, down in zip(ups, downs[1:], strict=False)]
    assert (row.hold_us, row.shortest_hold_us) == (statistics.median(holds), min(holds))
    assert (row.gap_us, row.shortest_gap_us) == ((statistics.median(gaps), min(gaps)) if gaps else (None, None))
    assert sum(histogram(holds)) == len(holds)
    assert found.spans(Q, 0, now) == list(zip(downs, ups, strict=True))


def test_fingers_and_macros_are_counted_apart_and_what_is_down_shows():
    found = Range(0)
    for event in (Came(FINGER, "KEY_Q", 1, 5), Came("reel", "KEY_Q", 1, 6), Came("reel", "KEY_Q", 0, 9)):
        found.feed(event)
    assert [(row.lane.by, row.presses, row.hold_us) for row in found.rows(10)] == [(FINGER, 1, None), ("reel", 1, 3)]
    assert found.spans(Q, 0, 10) == [(5, 10)]
    assert found.rows(20 * MS)[0].seen == 1
    # A second press of what is down is no press, and a release of what is up is none.
    for event in (Came(FINGER, "KEY_Q", 1, 11), Came(FINGER, "KEY_Q", 0, 12), Came(FINGER, "KEY_Q", 0, 13)):
        found.feed(event)
    assert found.rows(20)[0].presses == 1


def test_a_second_press_within_25_ms_is_a_bounce():
    """The limit is libinput's ("Button debouncing" in its documentation)."""
    found = Range(0)
    for event in tapped([(9, 40 * MS), (25 * MS, 60 * MS), (25 * MS + 1, 60 * MS), (4 * MS, 50 * MS)]):
        found.feed(event)
        found.feed(event._replace(by="reel"))
    assert [(row.lane.by, row.bounces) for row in found.rows(10**6)] == [(FINGER, 2), ("reel", 0)]


@pytest.mark.parametrize(
    ("gaps_ms", "wanted_ms"),
    [
        ([90, 120], None),
        ([4.2, 90, 120], 5),
        ([4.2, 11, 90], 12),
        # The fastest second press that was meant stays possible.
        ([24.5, 26], 25),
        ([25, 25.9], None),
    ],
)
def test_the_suggested_debounce_is_the_shortest_that_does(gaps_ms: list[float], wanted_ms: int | None):
    found = suggested_us([round(each * MS) for each in gaps_ms])
    assert found == (wanted_ms and wanted_ms * MS)


def test_notches_of_the_wheel_are_presses():
    found = Range(0)
    found.feed(Came(FINGER, "WHEEL_UP", 3, 5))
    assert found.rows(10)[0][1:4] == (3, 3, 3)


def test_a_histogram_has_a_bin_for_each_bound_and_one_beyond():
    assert histogram([900, 1_000, 1_001, 5_000_000]) == [2, 1, *[0] * (len(bins_of()) - 2), 1]


def test_old_spans_are_forgotten_and_not_what_is_counted():
    found = Range(0)
    for event in tapped([(10, 10), (10, 10)]):
        found.feed(event)
    assert found.spans(Q, 25, 50) == [(30, 40)]
    assert found.rows(50)[0].presses == 2


def test_it_is_saved_as_a_table_and_as_a_recording():
    events = [
        Came(FINGER, "KEY_A", 0, 1_000),
        *tapped([(4 * MS, 20 * MS)]),
        Came("reel", "KEY_R", 1, 30 * MS),
        Came(FINGER, "WHEEL_DOWN", 2, 40 * MS),
        Came(FINGER, "KEY_B", 1, 50 * MS),
    ]
    table = list(csv.DictReader(to_csv(events, 1_000).splitlines()))
    assert table[1] == {"time_us": "3000", "by": "in", "control": "KEY_Q", "value": "1"}
    assert len(table) == len(events)
    assert to_steps(events) == (
        Press(control="KEY_Q"),
        Wait(wait_us=20 * MS),
        Release(control="KEY_Q"),
        Wait(wait_us=16 * MS),
        Wheel(control="WHEEL_DOWN", notches=2),
    )


def test_what_a_thumb_button_or_a_second_keyboard_sends_is_what_is_pressed():
    events = [
        Came(FINGER, "BTN_TRIGGER_HAPPY5", 1, 1_000, "KEY_5"),
        Came(FINGER, "SECOND:KEY_Q", 1, 1_000, "KEY_Q"),
        # Where the window loses the keyboard it lets go by itself, and knows no more than the control.
        Came(FINGER, "SECOND:KEY_Q", 0, 1_000),
        Came(FINGER, "BTN_TRIGGER_HAPPY5", 0, 1_000),
    ]
    presses = (Press(control="KEY_5"), Press(control="KEY_Q"))
    assert to_steps(events) == (*presses, Release(control="KEY_Q"), Release(control="KEY_5"))
