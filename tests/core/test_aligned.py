"""Takes side by side: the distance against a plain reference and published values, and what is told of the takes."""

from __future__ import annotations

import statistics
from functools import cache

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.analysis.aligned import MOST_EVENTS, align, distance, pairs
from nakrel.core.analysis.takes import events_of, quantile
from nakrel.core.model.errors import DataError
from nakrel.core.model.steps import Press, Release, Step, Tap, Wait, Wheel
from nakrel.core.model.takes import Take

MS = 1_000
texts = st.text("abc", max_size=9)


def plain(a: str, b: str) -> int:
    """The definition, by recursion."""

    @cache
    def of(i: int, j: int) -> int:
        if not i or not j:
            return i + j
        return min(of(i - 1, j) + 1, of(i, j - 1) + 1, of(i - 1, j - 1) + (a[i - 1] != b[j - 1]))

    return of(len(a), len(b))


@given(texts, texts)
def test_the_distance_is_that_of_its_definition(a: str, b: str):
    assert distance(a, b) == plain(a, b)


@pytest.mark.parametrize(
    ("a", "b", "wanted"),
    [("kitten", "sitting", 3), ("saturday", "sunday", 3), ("intention", "execution", 5), ("", "abc", 3)],
)
def test_known_distances(a: str, b: str, wanted: int):
    """Jurafsky and Martin, Speech and Language Processing, chapter 2, has intention and execution (5 where an exchange
    costs one); the others are the usual examples of the field, from memory."""
    assert distance(a, b) == distance(b, a) == wanted


@given(texts, texts)
def test_the_pairs_are_in_order_and_cost_the_distance(a: str, b: str):
    found = pairs(a, b)
    assert [i for i, _ in found if i is not None] == list(range(len(a)))
    assert [j for _, j in found if j is not None] == list(range(len(b)))
    assert sum(i is None or j is None or a[i] != b[j] for i, j in found) == distance(a, b)


def take(number: int, *parts: Step | int) -> Take:
    """Steps, with waits in milliseconds between them."""
    return Take(number, 0.0, tuple(Wait(wait_us=each * MS) if isinstance(each, int) else each for each in parts))


Q, Q_UP, W, W_UP = Press(control="KEY_Q"), Release(control="KEY_Q"), Press(control="KEY_W"), Release(control="KEY_W")
SAME = [
    take(1, 9, Q, 30, Q_UP, 50, W, 40, W_UP),
    take(2, Q, 34, Q_UP, 58, W, 44, W_UP),
    take(3, Q, 35, Q_UP, 51, W, 39, W_UP),
]


def test_medians_are_those_of_the_reference_library():
    found = align(SAME)
    assert [each.median_us for each in found.gaps[1:]] == [
        statistics.median(each) * MS for each in ([30, 34, 35], [50, 58, 51], [40, 44, 39])
    ]
    low, _, high = statistics.quantiles([30, 34, 35], n=4, method="inclusive")
    assert found.gaps[1].spread_us == round((high - low) * MS)
    assert found.differences == ()
    assert found.complete == [1, 3, 2]
    assert found.steps() == take(9, Q, 34, Q_UP, 51, W, 40, W_UP).steps
    assert found.steps(1.0) == take(9, Q, 35, Q_UP, 58, W, 44, W_UP).steps


@given(st.lists(st.integers(0, 10**6), min_size=1, max_size=9), st.floats(0, 1))
def test_quantiles_are_those_of_numpy(values: list[int], share: float):
    assert quantile(values, share) == pytest.approx(float(np.quantile(values, share)))


def test_an_outlier_is_told_with_its_take():
    takes = [take(n, Q, 30 + n, Q_UP, 50, W, 40, W_UP) for n in range(1, 6)]
    found = align([*takes, take(6, Q, 33, Q_UP, 260, W, 40, W_UP)])
    assert found.gaps[2].outliers == (6,)
    assert found.gaps[1].outliers == found.gaps[3].outliers == ()
    assert found.gaps[2].median_us == 50 * MS


def test_what_is_missing_more_or_elsewhere_is_told():
    lost = take(4, Q, 30, Q_UP)
    more = take(5, Q, 30, Q_UP, 50, W, 40, W_UP, 5, Tap(control="KEY_E", hold_us=9 * MS))
    order = take(6, W, 40, W_UP, 50, Q, 30, Q_UP)
    found = align([*SAME, lost, more, order])
    told = [(each.take, each.message) for each in found.differences]
    assert told[:2] == [(4, "press W is missing"), (4, "release W is missing")]
    assert told[2:4] == [(5, "press E is there as well"), (5, "release E is there as well")]
    assert {take for take, _ in told[4:]} == {6}
    assert all("earlier" in message or "later" in message for _, message in told[4:])
    assert found.times[4] == (0, 30 * MS, None, None)
    assert found.complete == [1, 3, 2]


def test_the_wheel_counts_and_a_take_begins_with_its_first_event():
    wheel = Wheel(control="WHEEL_UP", notches=2)
    assert [each[:] for each in events_of(take(1, 40, wheel, 10, Q).steps)] == [
        ("WHEEL_UP", 2, 0),
        ("KEY_Q", 1, 10 * MS),
    ]
    assert align([take(1, wheel, 10, Q), take(2, wheel, 20, Q)]).steps() == take(9, wheel, 15, Q).steps


def test_one_take_or_a_huge_one_is_refused():
    with pytest.raises(DataError, match="fewer than two takes"):
        align([SAME[0], take(2, 40)])
    huge = Take(7, 0.0, (Q, Q_UP) * (MOST_EVENTS // 2 + 1))
    with pytest.raises(DataError, match="take 7 has 3,002 events"):
        align([SAME[0], huge])


def test_takes_are_put_beside_each_other_by_their_first_common_event():
    q, w = (Press(control="KEY_Q"), Release(control="KEY_Q")), (Press(control="KEY_W"), Release(control="KEY_W"))
    whole = take(1, q[0], 30, q[1], 20, w[0], 40, w[1])
    again = take(2, q[0], 35, q[1], 25, w[0], 45, w[1])
    # It lacks the first key: its W stands where the others have theirs.
    late = take(3, w[0], 44, w[1])
    aligned = align([whole, again, late])
    assert aligned.centre in (1, 2)
    centre = aligned.beside_others(aligned.centre)
    assert centre == {"KEY_Q": [(0, [30, 35][aligned.centre - 1] * MS)], "KEY_W": centre["KEY_W"]}
    begin = centre["KEY_W"][0][0]
    assert aligned.beside_others(3) == {"KEY_W": [(begin, begin + 44 * MS)]}
    other = 3 - aligned.centre
    assert aligned.beside_others(other)["KEY_Q"][0][0] == 0
