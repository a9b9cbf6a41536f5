"""The frame check, against geometry, against a slow simulation, and against how the practice game looks."""

from __future__ import annotations

import random
import statistics

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nakrel.core.analysis.frames import (
    PHASES,
    check,
    in_order,
    over_holds,
    over_rates,
    presses_of,
    safe_us,
    with_hold,
)
from nakrel.core.analysis.lateness import lateness_of
from nakrel.core.edit.edits import make_safe
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.runs import RunEvent, RunRecord
from nakrel.core.model.steps import Press, Release, Tap, Wait
from nakrel.core.model.units import FRAME_RATES
from nakrel.practice.sampler import Sampler

MS = 1_000
NONE = np.random.default_rng(0)


def fire(hold_us: int, gap_us: int, runs: int = 40) -> Macro:
    """A rapid fire."""
    play = Play(Mode.COUNTED, runs=runs, pause_us=gap_us)
    return Macro(id="m", name="M", play=play, loop=(Tap(control="KEY_Q", hold_us=hold_us),))


@pytest.mark.parametrize("hold_ms", [1, 5, 10, 16, 17, 40])
@pytest.mark.parametrize("fps", FRAME_RATES)
def test_a_press_alone_is_seen_with_hold_over_frame(hold_ms: int, fps: int):
    """min(1, h / T): a sample every T falls into a span of h (geometry)."""
    presses, length = presses_of(fire(hold_ms * MS, 500 * MS))
    found = check(presses, length, fps, 0, NONE)
    assert found.seen == pytest.approx(min(1, hold_ms * fps / 1_000), abs=1.5 / PHASES)
    assert found.merged == 0
    assert found.lost == pytest.approx(1 - found.seen)


def test_long_presses_with_short_gaps_are_merged():
    """A gap of g is found with probability g / T, so 1 - g / T of the presses after the first are merged."""
    frame_us = 1_000_000 / 60
    presses, length = presses_of(fire(40 * MS, 5 * MS, 200), 200)
    found = check(presses, length, 60, 0, NONE)
    assert found.lost == 0
    assert found.merged == pytest.approx((1 - 5 * MS / frame_us) * 199 / 200, abs=0.01)


def slowly(spans: list[tuple[float, float]], frame_us: float) -> tuple[int, int, int]:
    """Seen, merged and lost, counted sample by sample over the same phases, in plain Python."""
    seen = merged = lost = 0
    for n in range(PHASES):
        phase = (n + 0.5) / PHASES * frame_us
        at, before, found = phase, None, set()
        while at < spans[-1][1] + frame_us:
            now = next((k for k, (a, b) in enumerate(spans) if a <= at < b), None)
            if now is not None and now not in found:
                found.add(now)
                if before is None:
                    seen += 1
                else:
                    merged += 1
            before = now
            at += frame_us
        lost += len(spans) - len(found)
    return seen, merged, lost


@given(
    st.lists(st.tuples(st.integers(1, 60_000), st.integers(1, 60_000)), min_size=1, max_size=8),
    st.sampled_from(FRAME_RATES),
)
@settings(max_examples=40)
def test_it_agrees_with_a_slow_simulation(pairs: list[tuple[int, int]], fps: int):
    spans, at = [], 100_000.25
    for hold, gap in pairs:
        spans.append((at, at + hold))
        at += hold + gap
    found = check({"Q": np.array(spans)}, at, fps, 0, NONE)
    total = PHASES * len(spans)
    counts = slowly(spans, 1_000_000 / fps)
    shares = np.array([found.seen, found.merged, found.lost]) * total
    # Where an edge and a sample coincide to the last bit, the two may round differently.
    assert np.abs(shares - counts).max() <= max(2, total * 0.004)


@pytest.mark.parametrize(
    ("hold_us", "gap_us"), [(5 * MS, 5 * MS), (12 * MS, 20 * MS), (20 * MS, 9 * MS), (17 * MS, 17 * MS)]
)
def test_it_agrees_with_what_the_practice_game_sees(hold_us: int, gap_us: int):
    """The game's own way of looking, at random phases, fed with the macro's plan."""
    macro, frame_us, chance = fire(hold_us, gap_us), 1_000_000 / 60, random.Random(3)
    presses, length = presses_of(macro, 40)
    spans = presses["KEY_Q"]
    rounds, seen = 400, 0
    for _ in range(rounds):
        sampler, at = Sampler(), chance.uniform(0, frame_us)
        for moment, down in sorted((float(edge), n == 0) for span in spans for n, edge in enumerate(span)):
            while at < moment:
                sampler.frame()
                at += frame_us
            sampler.change("Q", down)
        sampler.frame()
        seen += sampler.seen["Q"]
    found = check(presses, length, 60, 0, NONE)
    assert found.seen == pytest.approx(seen / (rounds * len(spans)), abs=0.02)


def test_jitter_loses_what_was_just_safe_and_a_safe_timing_leaves_room_for_it():
    chance = np.random.default_rng(1)
    just, length = presses_of(fire(16_667, 16_667))
    assert check(just, length, 60, 0, chance).seen == 1
    assert check(just, length, 60, 500, chance).seen < 0.999
    roomy, length = presses_of(fire(safe_us(60, 500), safe_us(60, 500)))
    assert check(roomy, length, 60, 500, chance).seen > 0.999


def test_rapid_fire_of_5_ms_is_too_fast_for_60_frames_and_the_safe_one_is_not():
    """Common practice, no published source: a game that looks once a frame can't count more presses than that."""
    fast = fire(5 * MS, 5 * MS)
    presses, length = presses_of(fast)
    found = check(presses, length, 60, 0, NONE)
    assert found.seen < 0.6
    assert found.per_second <= 60
    safe = make_safe(fast, safe_us(60, 0))
    assert safe.loop[0].hold_us == safe.play.pause_us == 16_667
    presses, length = presses_of(safe)
    best = check(presses, length, 60, 0, NONE)
    assert best.seen == 1
    assert best.per_second == pytest.approx(30, abs=0.5)


def test_making_safe_shortens_nothing_and_is_done_once():
    steps = (
        Tap(control="KEY_Q", hold_us=90_000),
        Wait(wait_us=2_000),
        Press(control="KEY_W"),
        Wait(wait_us=1, most_us=30_000),
        Release(control="KEY_W"),
    )
    safe = make_safe(Macro(id="m", name="M", play=Play(Mode.HELD), loop=steps), 17_000)
    wanted = (steps[0], Wait(wait_us=17_000), steps[2], Wait(wait_us=17_000, most_us=30_000), steps[4])
    assert safe.loop == wanted
    assert safe.play.pause_us == 17_000
    assert make_safe(safe, 17_000) == safe


def test_a_macro_without_presses_has_nothing_to_see():
    presses, length = presses_of(Macro(id="m", name="M", loop=(Wait(wait_us=5),)))
    assert over_rates(presses, length, 0)[0][1:] == (0, 0, 0, 0)


def test_a_game_that_takes_events_in_order_sees_all():
    presses, length = presses_of(fire(1 * MS, 1 * MS, runs=20))
    found = in_order(presses, length)
    assert (found.seen, found.merged, found.lost) == (1, 0, 0)
    assert found.per_second == pytest.approx(500)


def test_holds_are_set_and_gaps_kept():
    presses, _ = presses_of(fire(5 * MS, 7 * MS, runs=4))
    changed = with_hold(presses, 20 * MS)["KEY_Q"]
    assert changed[:, 1] - changed[:, 0] == pytest.approx(20 * MS)
    assert changed[1:, 0] - changed[:-1, 1] == pytest.approx(7 * MS)


def test_over_holds_each_share_is_hold_over_frame():
    """min(1, h / T) for presses that stand alone (geometry)."""
    presses, length = presses_of(fire(5 * MS, 500 * MS))
    holds = [4 * MS, 8 * MS, 16 * MS, 40 * MS]
    found = over_holds(presses, length, 60, 0, holds)
    assert [each.seen for each in found] == pytest.approx([min(1, h * 60 / 1e6) for h in holds], abs=1.5 / PHASES)


def test_lateness_is_that_of_the_reference_library():
    late = [0, 3, 3, 8, 40, 2_500, 70_000]
    events = tuple(RunEvent("KEY_Q", n % 2, 100 * n, 100 * n + each) for n, each in enumerate(late))
    found = lateness_of(RunRecord("m", 0, events, 0, 1, ""))
    assert found is not None
    assert found.median_us == statistics.median(late)
    assert found.spread_us == pytest.approx(statistics.pstdev(late))
    assert found.p99_us == pytest.approx(statistics.quantiles(late, n=100, method="inclusive")[98])
    assert found.counts == (4, 0, 1, 0, 0, 0, 0, 0, 1, 0, 1)
    assert lateness_of(RunRecord("m", 0, (), 0, 1, "")) is None
