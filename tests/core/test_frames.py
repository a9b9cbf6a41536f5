"""The frame check, against geometry, against a slow simulation, and against how the practice game looks."""

from __future__ import annotations

import random
import statistics
from unittest.mock import patch

import msgspec
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nakrel.core.analysis import presses as presses_module
from nakrel.core.analysis.frame_answer import answer_for
from nakrel.core.analysis.frames import check, in_order, over_holds, over_rates, safe_us, same_frame, with_hold
from nakrel.core.analysis.lateness import lateness_of
from nakrel.core.analysis.presses import ENDLESS_RUNS, Presses, presses_of
from nakrel.core.analysis.seen import Game, Seen, low_of_spread, spread_of_low
from nakrel.core.edit.rows import rows
from nakrel.core.edit.safe import make_safe
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.runs import RunEvent, RunRecord
from nakrel.core.model.steps import (
    Branch,
    Chord,
    If,
    Note,
    Otherwise,
    PickOne,
    Pointer,
    Press,
    Release,
    Repeat,
    Tap,
    Text,
    Wait,
    Wheel,
)
from nakrel.core.model.units import FRAME_RATES
from nakrel.core.play.simulate import planned
from nakrel.practice.sampler import Sampler

MS = 1_000
# Places of the frame clock that the slow simulations try.
PHASES = 512


def fire(hold_us: int, gap_us: int, runs: int = 40) -> Macro:
    """A rapid fire."""
    play = Play(Mode.COUNTED, runs=runs, pause_us=gap_us)
    return Macro(id="m", name="M", play=play, loop=(Tap(control="KEY_Q", hold_us=hold_us),))


def alone(spans: np.ndarray) -> Presses:
    """These presses of one control, played once."""
    none = {"Q": np.zeros(len(spans), int)}
    return Presses({"Q": spans}, {"Q": np.ones(len(spans))}, none, none, none, float(spans[-1, 1]))


def seen_by(presses: Presses, fps: float, jitter_us: float = 0, spread_us: float = 0, tick: float = 0) -> Seen:
    return check(presses, Game(fps, jitter_us, spread_us, tick))


@pytest.mark.parametrize("hold_ms", [1, 5, 10, 16, 17, 40])
@pytest.mark.parametrize("fps", FRAME_RATES)
def test_a_press_alone_is_seen_with_hold_over_frame(hold_ms: int, fps: int):
    """min(1, h / T): a sample every T falls into a span of h (geometry)."""
    found = seen_by(presses_of(fire(hold_ms * MS, 500 * MS)), fps)
    assert found.seen == pytest.approx(min(1, hold_ms * fps / 1_000))
    assert found.merged == pytest.approx(0)
    assert found.lost == pytest.approx(1 - found.seen)


def test_long_presses_with_short_gaps_are_merged():
    """A gap of g is found with probability g / T, so 1 - g / T of the presses after the first are merged."""
    frame_us = 1_000_000 / 60
    found = seen_by(presses_of(fire(40 * MS, 5 * MS, 200)), 60)
    assert found.lost == pytest.approx(0, abs=1e-12)
    assert found.merged == pytest.approx((1 - 5 * MS / frame_us) * 199 / 200)


def planned_spans(macro: Macro) -> dict[str, np.ndarray]:
    """When each control is down, straight from the plan."""
    down: dict[str, int] = {}
    spans: dict[str, list[tuple[int, int]]] = {}
    for row in planned(macro, macro.play).rows:
        if row.text or row.control.startswith("WHEEL"):
            continue
        if row.value:
            down[row.control] = row.time_us
        else:
            spans.setdefault(row.control, []).append((down.pop(row.control), row.time_us))
    return {control: np.array(found, float) for control, found in spans.items()}


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
    found = seen_by(alone(np.array(spans)), fps)
    total = PHASES * len(spans)
    shares = np.array([found.seen, found.merged, found.lost])
    # The simulation tries so many places of the clock, and an edge lies between two of them.
    assert np.abs(shares - np.array(slowly(spans, 1_000_000 / fps)) / total).max() <= 2 / PHASES


@pytest.mark.parametrize(
    ("hold_us", "gap_us"), [(5 * MS, 5 * MS), (12 * MS, 20 * MS), (20 * MS, 9 * MS), (17 * MS, 17 * MS)]
)
def test_it_agrees_with_what_the_practice_game_sees(hold_us: int, gap_us: int):
    """The game's own way of looking, at random phases, fed with the macro's plan."""
    macro, frame_us, chance = fire(hold_us, gap_us), 1_000_000 / 60, random.Random(3)
    spans = planned_spans(macro)["KEY_Q"]
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
    found = seen_by(presses_of(macro), 60)
    assert found.seen == pytest.approx(seen / (rounds * len(spans)), abs=0.02)


def test_timing_errors_lose_what_was_just_safe_and_a_safe_timing_leaves_room_for_them():
    just = presses_of(fire(16_667, 16_667))
    assert seen_by(just, 60).seen == pytest.approx(1)
    assert seen_by(just, 60, 500).seen < 0.98
    for spread_us in (0, 2_000):
        roomy = safe_us(Game(60, 500, spread_us))
        assert 1 - seen_by(presses_of(fire(roomy, roomy)), 60, 500, spread_us).seen < 1e-6


def renewal(spans: np.ndarray, frame_us: float, spread_us: float, error_us: float) -> tuple[float, float]:
    """Shares seen and merged in a game with normal frame times, played out many times: the independent simulation."""
    chance, rounds = np.random.default_rng(7), 6_000
    seen = merged = 0
    for _ in range(rounds):
        edges = spans + chance.normal(0, error_us, spans.shape) if error_us else spans
        times = np.cumsum(chance.normal(frame_us, spread_us, int(spans[-1, 1] / frame_us) + 20))
        times += spans[0, 0] - chance.uniform(6, 9) * frame_us
        at = np.searchsorted(edges[:, 0], times, side="right") - 1
        which = np.where((at >= 0) & (times < edges[at, 1]), at, -1)
        down, before = which[1:], which[:-1]
        seen += int(((down >= 0) & (before < 0)).sum())
        merged += int(((down >= 0) & (before >= 0) & (down != before)).sum())
    return seen / rounds / len(spans), merged / rounds / len(spans)


@pytest.mark.parametrize(
    ("hold_ms", "gap_ms", "spread_us", "error_us"),
    [(17.5, 17.5, 2_000, 0), (5, 5, 2_000, 200), (40, 5, 1_000, 0), (17, 17, 0, 500), (3, 2, 1_500, 100)],
)
def test_it_agrees_with_frame_times_that_are_played_out(
    hold_ms: float, gap_ms: float, spread_us: float, error_us: float
):
    starts = 50_000 + 1_000 * (hold_ms + gap_ms) * np.arange(30)
    spans = np.stack((starts, starts + 1_000 * hold_ms), axis=1)
    found = seen_by(alone(spans), 60, error_us, spread_us)
    seen, merged = renewal(spans, 1_000_000 / 60, spread_us, error_us)
    # 180,000 presses, not all independent: half a percent is some four standard errors.
    assert found.seen == pytest.approx(seen, abs=0.005)
    assert found.merged == pytest.approx(merged, abs=0.005)


def test_uneven_frames_lose_what_even_ones_see():
    """Worked out with the loss function of the normal distribution: E[max(X - 17.5, 0)] = 0.4495 ms for X of 16.667
    and 2 ms; as much again is merged."""
    found = seen_by(presses_of(fire(17_500, 17_500, 400)), 60, 0, 2_000)
    assert found.lost == pytest.approx(0.4495 / 16.667, abs=1e-4)
    assert found.merged == pytest.approx(found.lost * 399 / 400, abs=1e-4)


def test_every_press_is_examined_and_all_means_all():
    good, bad = Tap(control="KEY_Q", hold_us=30 * MS), Tap(control="KEY_Q", hold_us=MS)
    rest = Wait(wait_us=30 * MS)
    steps = (Repeat(times=401, steps=(good, rest)), Repeat(times=600, steps=(bad, rest)))
    macro = Macro(id="m", name="M", loop=steps)
    # Worked by hand: 401 of 1001 are seen, and of the others 1 ms of 16.667 each.
    share = (401 + 600 * 0.06) / 1001
    assert seen_by(presses_of(macro), 60).seen == pytest.approx(share)
    assert "sees 44 % of" in answer_for(macro, Game(60), "rate").answer
    late = If(condition="run > 25", steps=(bad,), otherwise=Otherwise(steps=(good,)))
    held = Macro(id="m", name="M", play=Play(Mode.COUNTED, runs=200, pause_us=30 * MS), loop=(late,))
    assert seen_by(presses_of(held), 60).seen == pytest.approx((25 + 175 * 0.06) / 200)
    # One of a thousand, and one of twenty thousand: not all.
    one = Macro(id="m", name="M", loop=(Repeat(times=999, steps=(good, rest)), bad))
    assert "99.9 %" in answer_for(one, Game(60), "rate").answer
    one = Macro(id="m", name="M", loop=(Repeat(times=19_000, steps=(good, rest)), bad))
    assert "all but 1 in 20,000 of the presses" in answer_for(one, Game(60), "rate").answer
    assert "sees all of" in answer_for(fire(30 * MS, 30 * MS), Game(60), "rate").answer


def test_runs_that_are_alike_stand_for_each_other():
    lead_in = (Press(control="KEY_LEFTSHIFT"), Wait(wait_us=3 * MS), Tap(control="KEY_Q", hold_us=2 * MS))
    loop = (Tap(control="KEY_Q", hold_us=4 * MS), Wait(wait_us=9 * MS), Tap(control="KEY_W", hold_us=20 * MS))
    end = (Wait(wait_us=7 * MS), Tap(control="KEY_Q", hold_us=MS), Release(control="KEY_LEFTSHIFT"))
    play = Play(Mode.COUNTED, runs=150, pause_us=6 * MS)
    macro = Macro(id="m", name="M", play=play, lead_in=lead_in, loop=loop, lead_out=end)
    found, slow = presses_of(macro), planned_spans(macro)
    assert found.amount == sum(map(len, slow.values())) == 303
    each = {control: seen_by(alone(spans), 60, 200) for control, spans in slow.items()}
    seen = sum(part.seen * len(slow[control]) for control, part in each.items()) / 303
    assert seen_by(found, 60, 200).seen == pytest.approx(seen, abs=1e-9)
    assert found.length_us == planned(macro, play).end_us + 6 * MS


@pytest.mark.parametrize(
    ("hold_us", "gap_us", "fps"), [(5_000, 5_000, 30), (2_000, 1_000, 60), (700, 300, 30), (400, 100, 144), (1, 2, 60)]
)
def test_runs_much_shorter_than_a_frame_stand_for_each_other_as_well(hold_us: int, gap_us: int, fps: int):
    macro = fire(hold_us, gap_us, 3_000)
    found, slow = seen_by(presses_of(macro), fps, 50), seen_by(alone(planned_spans(macro)["KEY_Q"]), fps, 50)
    assert found == pytest.approx(slow, rel=1e-3, abs=1e-9)


TIMES = st.integers(0, 60_000)
STEPS = st.one_of(
    st.builds(lambda c, h: Tap(control=c, hold_us=h), st.sampled_from(("KEY_Q", "KEY_W")), TIMES),
    st.builds(lambda h: Chord(controls=("KEY_LEFTCTRL", "KEY_Q"), hold_us=h), TIMES),
    st.builds(lambda c: Press(control=c), st.sampled_from(("KEY_Q", "KEY_E"))),
    st.builds(lambda c: Release(control=c), st.sampled_from(("KEY_Q", "KEY_E"))),
    st.builds(lambda t: Wait(wait_us=t), TIMES),
    st.builds(lambda t: Text(text=t, rate=200), st.text("abc", min_size=1, max_size=3)),
    st.builds(lambda o: Pointer(x=3, y=4, over_us=o), TIMES),
    st.builds(lambda n: Wheel(control="WHEEL_UP", notches=n), st.integers(1, 3)),
    st.builds(lambda n, h: Repeat(times=n, steps=(Tap(control="KEY_W", hold_us=h),)), st.integers(1, 3), TIMES),
)
LINES = st.lists(STEPS, max_size=4).map(tuple)


@given(LINES, LINES, LINES, st.integers(0, 30_000), st.integers(2, 90))
@settings(max_examples=60, deadline=None)
def test_a_few_runs_stand_for_all_whatever_is_in_them(start: tuple, loop: tuple, end: tuple, pause_us: int, runs: int):
    """The same as with every run played."""
    play = Play(Mode.COUNTED, runs=runs, pause_us=pause_us)
    macro = Macro(id="m", name="M", play=play, lead_in=start, loop=loop, lead_out=end)
    # Shorter than in earnest, so that every run can be played; at 60 frames nothing reaches that far back.
    with patch.object(presses_module, "REACH_US", 40_000):
        few = presses_of(macro)
    # Here each key counts by itself.
    parts = np.array([len(each.step.controls) if isinstance(each.step, Chord) else 1 for each in rows(macro)] or [1])
    few = few._replace(weights={each: few.weights[each] * parts[few.rows[each]] for each in few.weights})
    every = planned(macro, play)
    slow = planned_spans(macro)
    assert few.amount == pytest.approx(sum(map(len, slow.values())))
    assert few.length_us == every.end_us + pause_us
    if slow:
        ones = {control: np.ones(len(spans)) for control, spans in slow.items()}
        zeros = {control: np.zeros(len(spans), int) for control, spans in slow.items()}
        assert seen_by(few, 60, 300) == pytest.approx(
            seen_by(Presses(slow, ones, zeros, zeros, zeros, few.length_us), 60, 300), abs=1e-9
        )


def test_a_long_end_is_played_once():
    """Its presses come after the runs, and stand for nothing but themselves."""
    end = (Repeat(times=40, steps=(Wait(wait_us=20 * MS), Tap(control="KEY_Q", hold_us=MS))),)
    tap = Tap(control="KEY_Q", hold_us=30 * MS)
    play = Play(Mode.COUNTED, runs=160, pause_us=30 * MS)
    found = presses_of(Macro(id="m", name="M", play=play, loop=(tap,), lead_out=end))
    assert found.amount == 200
    # Worked by hand: 160 of 30 ms are seen, and of 1 ms each of the 40 once in 16.667.
    assert seen_by(found, 60).seen == pytest.approx((160 + 40 * 0.06) / 200)


def test_a_toggle_is_examined_as_far_as_its_time_limit_lets_it():
    tap = Tap(control="KEY_Q", hold_us=30 * MS)
    macro = Macro(id="m", name="M", play=Play(Mode.TOGGLE, pause_us=30 * MS, limit_us=590 * MS), loop=(tap,))
    found = presses_of(macro)
    assert found.amount == 10
    assert found.left_out == 0


def test_a_macro_without_an_end_is_looked_at_in_the_long_run():
    macro = Macro(
        id="m", name="M", play=Play(Mode.HELD, pause_us=50 * MS), loop=(Tap(control="KEY_Q", hold_us=5 * MS),)
    )
    found = presses_of(macro)
    assert found.amount == ENDLESS_RUNS
    assert seen_by(found, 60).per_second == pytest.approx(0.3 / 0.055)


def test_where_chance_decides_the_answer_has_an_error_that_holds():
    options = tuple(Branch(weight=w, steps=(Tap(control="KEY_Q", hold_us=h),)) for w, h in ((3, 2 * MS), (1, 12 * MS)))
    loop = (PickOne(branches=options), Wait(wait_us=40 * MS, most_us=90 * MS))
    macro = Macro(id="m", name="M", play=Play(Mode.COUNTED, runs=300), loop=loop)
    found = seen_by(presses_of(macro), 60)
    # Worked by hand: each press stands alone, so it is the mean of h / T by weight.
    assert 0 < found.error < 0.01
    assert found.seen == pytest.approx((0.75 * 2 + 0.25 * 12) / (1_000 / 60), abs=4 * found.error)
    assert "(±" in answer_for(macro, Game(60), "rate").answer


def test_what_a_budget_leaves_out_is_said():
    macro = Macro(id="m", name="M", play=Play(Mode.COUNTED, runs=500), loop=(Tap(control="KEY_Q", hold_us="10 + run"),))
    found = presses_of(macro, most=400)
    # It is played for a second of its own time at once.
    assert found.left_out == pytest.approx(300, abs=10)
    assert presses_of(macro).left_out == 0
    endless = Macro(id="m", name="M", play=Play(Mode.COUNTED, runs=30_000), loop=macro.loop)
    assert "runs weren't examined" in answer_for(endless, Game(60), "rate").answer


def test_the_rate_counts_a_wait_at_the_end():
    for mode, runs in ((Mode.SINGLE, 1), (Mode.COUNTED, 4)):
        steps = (Tap(control="KEY_Q", hold_us=30 * MS), Wait(wait_us=70 * MS))
        macro = Macro(id="m", name="M", play=Play(mode, runs=runs, pause_us=0), loop=steps)
        assert in_order(presses_of(macro)).per_second == pytest.approx(10)


def test_rapid_fire_of_5_ms_is_too_fast_for_60_frames_and_the_safe_one_is_not():
    """Common practice, no published source: a game that looks once a frame can't count more presses than that."""
    fast = fire(5 * MS, 5 * MS)
    found = seen_by(presses_of(fast), 60)
    assert found.seen < 0.6
    assert found.per_second <= 60
    safe = make_safe(fast, safe_us(Game(60)))
    assert safe.loop[0].hold_us == safe.play.pause_us == 16_667
    best = seen_by(presses_of(safe), 60)
    assert best.seen == pytest.approx(1)
    assert best.per_second == pytest.approx(30, abs=0.5)


def test_a_text_is_said_not_to_be_counted():
    text, tap = Text(text="gg", rate=30), Tap(control="KEY_Q", hold_us=30 * MS)
    answers = {
        parts: answer_for(Macro(id="m", name="M", loop=parts), Game(60), "rate").answer
        for parts in ((text,), (tap, text), (tap, If(condition="run", steps=(text,))), (tap,))
    }
    told = ["isn't counted" in answer for answer in answers.values()]
    assert told == [True, True, True, False]


def test_a_macro_without_presses_has_nothing_to_see():
    presses = presses_of(Macro(id="m", name="M", loop=(Wait(wait_us=5),)))
    assert over_rates(presses, Game(60))[0][1:] == (0, 0, 0, 0, 0)


def test_a_game_that_takes_events_in_order_sees_all():
    found = in_order(presses_of(fire(1 * MS, 1 * MS, runs=20)))
    assert (found.seen, found.merged, found.lost) == (1, 0, 0)
    assert found.per_second == pytest.approx(500)


def test_holds_are_set_and_gaps_kept():
    changed = with_hold(presses_of(fire(5 * MS, 7 * MS, runs=4)), 20 * MS).spans["KEY_Q"]
    assert changed[:, 1] - changed[:, 0] == pytest.approx(20 * MS)
    assert changed[1:, 0] - changed[:-1, 1] == pytest.approx(7 * MS)


def test_over_holds_each_share_is_hold_over_frame():
    """min(1, h / T) for presses that stand alone (geometry)."""
    holds = [4 * MS, 8 * MS, 16 * MS, 40 * MS]
    found = over_holds(presses_of(fire(5 * MS, 500 * MS)), Game(60), holds)
    assert [each.seen for each in found] == pytest.approx([min(1, h * 60 / 1e6) for h in holds])


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


def at_ticks(spans: np.ndarray, game: Game, plays: int, seed: int) -> tuple[float, float]:
    """The shares seen and merged, played out: the game's state follows the control at its frames, the server's state
    follows the game's at its ticks, and each press is looked for in what the server found."""
    chance = random.Random(seed)
    seen = merged = 0
    for _ in range(plays):
        frame = -chance.uniform(0, 3) * game.frame_us
        tick = -chance.random() * 1e6 / game.tick
        state = server = False
        latest = -1
        found: list[tuple[bool, int]] = []
        while tick < spans[-1][1] + 5e6 / game.tick:
            if frame <= tick:
                state = any(down <= frame < up for down, up in spans)
                latest = int(np.searchsorted(spans[:, 0], frame, "right")) - 1
                frame += max(1.0, chance.gauss(game.frame_us, game.spread_us))
                continue
            if state and not server:
                found.append((True, latest))
            elif state and latest != found[-1][1]:
                found.append((False, latest))
            server = state
            tick += 1e6 / game.tick
        seen += sum(new for new, _ in found)
        merged += len({number for new, number in found if not new})
    count = plays * len(spans)
    return seen / count, merged / count


@pytest.mark.parametrize(
    ("hold_ms", "gap_ms", "fps", "tick", "spread_ms"), [(20, 25, 60, 30, 0), (30, 40, 60, 64, 2), (9, 50, 144, 20, 1)]
)
def test_a_server_with_ticks_sees_what_playing_it_out_shows(
    hold_ms: int, gap_ms: int, fps: int, tick: int, spread_ms: int
):
    downs = np.arange(60) * (hold_ms + gap_ms) * MS * 1.0
    spans = np.stack((downs, downs + hold_ms * MS), axis=1)
    game = Game(fps, 0, spread_ms * MS, tick)
    found = check(alone(spans), game)
    seen, _ = at_ticks(spans, game, 120, seed=4)
    assert found.seen == pytest.approx(seen, abs=0.02)
    assert found.seen + found.merged + found.lost == pytest.approx(1)


def test_with_no_frames_worth_speaking_of_a_tick_is_all_that_counts():
    """A press alone that lasts h is seen with h over the tick's time, whatever the (very fast) frames."""
    found = check(alone(np.array([[0.0, 10_000.0]])), Game(1_000, tick=20))
    assert found.seen == pytest.approx(10 / 50, abs=0.005)


def test_a_combination_is_one_press_however_many_keys_it_has():
    keys = tuple(f"KEY_{letter}" for letter in "QWERTZUI")
    chord = Macro(
        id="m",
        name="M",
        play=Play(Mode.COUNTED, runs=10, pause_us=80 * MS),
        loop=(Chord(controls=keys, hold_us=20 * MS),),
    )
    assert in_order(presses_of(chord)).per_second == pytest.approx(10)
    assert seen_by(presses_of(chord), 60).per_second == pytest.approx(10)


def test_the_worst_press_of_each_control_is_named_with_its_row():
    slow, fast = Tap(control="KEY_Q", hold_us=40 * MS), Tap(control="KEY_Q", hold_us=2 * MS)
    other = Tap(control="KEY_W", hold_us=8 * MS)
    wait = Wait(wait_us=50 * MS)
    rare = If(condition="run > 25", steps=(Note(text="now"), fast, wait))
    off = msgspec.structs.replace(fast, off=True)
    inner = Repeat(times=3, steps=(other, wait))
    macro = Macro(
        id="m",
        name="M",
        play=Play(Mode.COUNTED, runs=30),
        loop=(off, slow, wait, rare, inner),
    )
    answer = answer_for(macro, Game(60), "rate")
    assert [(each.control, each.row, each.step) for each in answer.worst] == [("KEY_Q", 5, 4), ("KEY_W", 8, 6)]
    assert answer.worst[0].seen == pytest.approx(2 * 60 / 1_000)
    assert answer.worst[1].seen == pytest.approx(8 * 60 / 1_000)


def test_two_keys_in_one_frame_have_no_order():
    """Worked by hand: the second comes d after the first, so no frame ends between them with 1 - d / T."""
    shift, key = "KEY_LEFTSHIFT", "KEY_E"
    steps = (Press(control=shift), Wait(wait_us=5 * MS), Tap(control=key, hold_us=30 * MS), Release(control=shift))
    macro = Macro(id="m", name="M", loop=steps)
    found = same_frame(presses_of(macro), Game(60))
    assert found is not None
    assert (found.first, found.second, found.row) == (shift, key, 2)
    assert found.chance == pytest.approx(1 - 5 * 60 / 1_000)
    assert (
        "Left Shift and E (step 2) go down in the same frame in 70 % of the plays"
        in answer_for(macro, Game(60), "rate").order
    )
    late = Macro(id="m", name="M", loop=(steps[0], Wait(wait_us=17 * MS), *steps[2:]))
    assert answer_for(late, Game(60), "rate").order == ""
    apart = Macro(id="m", name="M", loop=(Tap(control=shift, hold_us=9 * MS), Tap(control=key, hold_us=9 * MS)))
    assert same_frame(presses_of(apart), Game(60)) is None


def test_a_one_percent_low_rate_is_the_99th_percentile_of_the_frame_times():
    frames_us = np.random.default_rng(3).normal(1e6 / 60, 2_000, 400_000)
    low = 1e6 / np.percentile(frames_us, 99)
    assert spread_of_low(60, low) == pytest.approx(2_000, rel=0.01)
    assert low_of_spread(60, spread_of_low(60, 45)) == pytest.approx(45)
    assert spread_of_low(60, 70) == 0
