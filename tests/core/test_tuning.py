"""The search for the shortest time that works: simulated games whose answer is known."""

from __future__ import annotations

import math
import statistics
from collections.abc import Callable

import numpy as np
import pytest
from scipy.stats import norm

from nakrel.core.analysis.trials import Found, is_done
from nakrel.core.analysis.tuning import best_next, known_after, make_grid, work_out
from nakrel.core.edit.tuned import has_time, target_words, with_time
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Chord, Press, Tap, Wait
from nakrel.core.model.tuning import Question, Target, Trial, Tuning

MS = 1_000
# The chance that a time works in the nth of 40 trials, and the shortest time that works with a chance, in milliseconds.
Game = tuple[Callable[[float, int], float], Callable[[float], float]]


def logistic(threshold: float, width: float, lapse: float = 0.0) -> Game:
    scale = width * math.sqrt(3) / math.pi
    return (
        lambda x, n: (1 - lapse) / (1 + math.exp(-(x - threshold) / scale)),
        lambda q: threshold + scale * math.log(q / (1 - q)),
    )


def step(threshold: float, width: float) -> Game:
    return lambda x, n: float(x >= threshold), lambda q: threshold


def normal(threshold: float, width: float) -> Game:
    spread = norm(threshold, width)
    return lambda x, n: float(spread.cdf(x)), lambda q: float(spread.ppf(q))


def lapsing(threshold: float, width: float) -> Game:
    return logistic(threshold, width, 0.03)


def drifting(threshold: float, width: float) -> Game:
    last = logistic(threshold, width)
    return lambda x, n: last[0](x + 5 * (1 - n / 39), n), last[1]


def searched(game: Game, question: Question, chance: np.random.Generator, most: int = 40) -> Found:
    trials: list[Trial] = []
    for number in range(most):
        time_us = work_out(question, trials).next_us
        trials.append(Trial(time_us, bool(chance.random() < game[0](time_us / MS, number))))
    return work_out(question, trials)


@pytest.mark.parametrize(("sure", "games"), [(0.9, 1), (0.95, 2), (0.99, 1)])
def test_forty_trials_find_it_in_any_game(sure: float, games: int):
    """A few games of each of five shapes; `scripts/bench --only tuning` has a thousand of each."""
    chance = np.random.default_rng(int(sure * 100))
    errors, held, works = [], [], []
    for shape in (logistic, step, normal, lapsing, drifting):
        for _ in range(games):
            game = shape(chance.uniform(20, 150), chance.uniform(1, 4))
            found = searched(game, Question(sure=sure), chance)
            truth = game[1](sure)
            errors.append(abs(found.estimate_us / MS - truth))
            held.append(found.low_us - 500 <= truth * MS <= found.high_us + 500)
            works.append(found.high_us / MS >= game[1](max(0.5, sure - 0.01)) - 0.5)
    assert statistics.median(errors) < {0.9: 1.5, 0.95: 1.8, 0.99: 3.0}[sure]
    # Each holds in some nine of ten; the games are always the same.
    assert sum(held) > len(held) / 2
    assert sum(works) > len(works) / 2


def test_a_game_with_a_fixed_rule_is_pinned_down_and_then_it_ends():
    question, trials = Question(), []
    found = work_out(question, trials)
    while not is_done(question, len(trials), found):
        trials.append(Trial(found.next_us, found.next_us >= 40 * MS))
        found = work_out(question, trials)
    assert len(trials) < 40
    assert 40 * MS <= found.high_us <= 46 * MS
    assert found.low_us <= 40 * MS


def test_thirty_trials_find_a_threshold_of_a_two_choice_task_to_two_decibels():
    """Kontsevich and Tyler (1999) state for their method, with a choice of two (half of which is right by luck alone):
    30 trials for a threshold to 2 dB, that is 23 %. (From memory of the abstract.) Decibels are 20 times the decimal
    logarithm of the contrast; the observer is a Weibull function with a slope of 3.5, as usual for contrast."""
    decibels = np.arange(-30.0, 0.1, 0.5)
    grid = make_grid(decibels, (0.5, 1.0, 1.8, 3.0, 5.0), (0.02,), decibels[:-1] + 0.25, (1,) * 5, guess=0.5)
    chance = np.random.default_rng(4)
    errors = []
    for _ in range(60):
        truth = chance.uniform(-24, -6)
        trials: list[tuple[float, bool]] = []
        for _ in range(30):
            at = best_next(grid, known_after(grid, trials, ((0, 1.0),)), grid.thresholds)
            right = 1 - 0.5 * math.exp(-(10 ** ((at - truth) / 20 * 3.5)))
            trials.append((at, bool(chance.random() < right)))
        known = known_after(grid, trials, ((0, 1.0),))
        errors.append(float(known @ grid.thresholds) - truth)
    # A Weibull function's threshold is that of 1 - 1/e and not of a half: the same for all.
    assert statistics.stdev(errors) < 2.0


def test_a_threshold_that_moves_is_followed():
    """Up by 5 ms over 40 trials; it is where it is at the end."""
    chance = np.random.default_rng(2)
    ends = []
    for _ in range(5):
        game = logistic(80, 2)
        found = searched((lambda x, n, g=game: g[0](x + 5 * (1 - n / 39), n), game[1]), Question(sure=0.9), chance)
        ends.append(found.estimate_us / MS - game[1](0.9))
    assert abs(statistics.median(ends)) < 1.5


def test_what_never_works_is_not_reached():
    question = Question(5 * MS, 60 * MS)
    found = searched((lambda x, n: 0.0, lambda q: q), question, np.random.default_rng(0), 25)
    assert not found.reached
    assert found.high_us <= question.most_us
    assert not is_done(question, 25, found)
    assert is_done(question, 40, found)


def test_what_always_works_is_the_shortest_time():
    found = searched((lambda x, n: 1.0, lambda q: q), Question(), np.random.default_rng(0), 20)
    assert found.high_us < 10 * MS


def test_before_any_trial_everything_is_open_and_the_curve_has_its_band():
    question = Question(0, 100 * MS)
    found = work_out(question, [])
    assert found.low_us < 15 * MS
    assert 20 * MS < found.next_us < 90 * MS
    assert [found.curve[0][0], found.curve[-1][0]] == [0, 100 * MS]
    assert all(0 <= low <= mean <= high + 1e-9 for _, mean, low, high in found.curve if mean > low)


def test_a_range_goes_from_the_shorter_to_the_longer_time():
    with pytest.raises(DataError, match="shorter one to the longer one"):
        Question(50 * MS, 40 * MS)
    with pytest.raises(DataError, match="choose two"):
        Tuning(worked="BTN_SIDE", failed="BTN_SIDE")


STEPS = (
    Tap(control="KEY_Q", hold_us=5 * MS),
    Wait(wait_us=10 * MS),
    Chord(controls=("KEY_LEFTSHIFT", "KEY_E"), hold_us=7 * MS),
    Wait(wait_us=20 * MS),
    Wait(wait_us="run"),
    Press(control="KEY_W"),
)
MACRO = Macro(id="m", name="Volley", loop=STEPS)


def test_the_time_of_a_step_or_of_all_waits_is_tried():
    assert with_time(MACRO, Tuning(row=0), 33 * MS).loop == (Tap(control="KEY_Q", hold_us=33 * MS), *STEPS[1:])
    waits = with_time(MACRO, Tuning(target=Target.WAITS), 33 * MS).loop
    assert [each.wait_us for each in waits if isinstance(each, Wait)] == [33 * MS, 33 * MS, "run"]
    assert [has_time(MACRO, row) for row in range(7)] == [True, True, True, True, False, False, False]
    assert target_words(MACRO, Tuning(row=0)) == "the hold of tap Q"
    assert target_words(MACRO, Tuning(row=1)) == "the wait"
    assert target_words(MACRO, Tuning(target=Target.WAITS)) == "all 2 waits"


def test_a_step_without_a_time_says_so():
    with pytest.raises(DataError, match="Volley: the step that is tuned has no time of its own"):
        with_time(MACRO, Tuning(row=5), 33 * MS)
    with pytest.raises(DataError, match="no plain wait"):
        with_time(Macro(id="m", name="Volley", loop=STEPS[:1]), Tuning(target=Target.WAITS), 33 * MS)
