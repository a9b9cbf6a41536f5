"""Debouncing against a table of edges, and what holds for any edges."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.play.debounce import Debounce

MS = 1_000
DOWN, UP = True, False


def told(within_ms: int, edges: list[tuple[float, bool]]) -> list[tuple[float, bool]]:
    """What is told of edges, with the time of each in milliseconds."""
    switch = Debounce(within_ms * MS)
    found: list[tuple[float, bool]] = []

    def wait(until_us: float) -> None:
        while (due := switch.due_us) is not None and due <= until_us:
            found.extend((due / MS, each) for each in switch.due(due))

    for at, down in edges:
        wait(at * MS - 1)
        found += [(at, each) for each in switch.edge(down, round(at * MS))]
    wait(float("inf"))
    return found


@pytest.mark.parametrize(
    ("edges", "wanted"),
    [
        # A clean tap is told as it comes.
        ([(0, DOWN), (60, UP)], [(0, DOWN), (60, UP)]),
        # A bounce after the press, and one after the release.
        ([(0, DOWN), (2, UP), (4, DOWN), (60, UP)], [(0, DOWN), (60, UP)]),
        ([(0, DOWN), (60, UP), (63, DOWN), (66, UP)], [(0, DOWN), (60, UP)]),
        # Several on both sides.
        ([(0, DOWN), (1, UP), (2, DOWN), (3, UP), (4, DOWN), (50, UP), (51, DOWN), (52, UP)], [(0, DOWN), (50, UP)]),
        # A tap shorter than the time: its release is told when that is over.
        ([(0, DOWN), (6, UP)], [(0, DOWN), (10, UP)]),
        ([(0, DOWN), (2, UP), (3, DOWN), (6, UP)], [(0, DOWN), (10, UP)]),
        # A true second click after the time counts at once.
        ([(0, DOWN), (40, UP), (50, DOWN), (90, UP)], [(0, DOWN), (40, UP), (50, DOWN), (90, UP)]),
        # A press within the time after a release that stays is told when it is over: it isn't lost.
        ([(0, DOWN), (40, UP), (46, DOWN), (90, UP)], [(0, DOWN), (40, UP), (50, DOWN), (90, UP)]),
        # Edges at the very end of the time count.
        ([(0, DOWN), (10, UP), (20, DOWN)], [(0, DOWN), (10, UP), (20, DOWN)]),
        # One told twice is told once.
        ([(0, DOWN), (30, DOWN), (60, UP)], [(0, DOWN), (60, UP)]),
    ],
)
def test_ten_milliseconds(edges: list[tuple[float, bool]], wanted: list[tuple[float, bool]]):
    assert told(10, edges) == wanted


gaps = st.lists(st.integers(1, 60), min_size=1, max_size=40)


@given(gaps, st.integers(0, 50))
def test_whatever_comes_it_alternates_keeps_its_distance_and_ends_as_the_switch_does(each: list[int], within: int):
    edges, now = [], 0
    for number, gap in enumerate(each):
        now += gap
        edges.append((now, number % 2 == 0))
    found = told(within, edges)
    assert [down for _, down in found] == [number % 2 == 0 for number in range(len(found))]
    assert all(after - before >= within for (before, _), (after, _) in zip(found, found[1:], strict=False))
    assert found[-1][1] == edges[-1][1]
    # A press is told at once, but for one that comes in the time after an edge that was told.
    times = [at for at, _ in found]
    for at, down in edges:
        before = [each for each in found if each[0] < at]
        if down and (not before or (before[-1][1] is UP and at >= before[-1][0] + within)):
            assert (at, DOWN) in found
    assert all(at in {edge for edge, _ in edges} or at - within in times for at, _ in found)


@given(gaps)
def test_without_a_time_nothing_changes(each: list[int]):
    now, edges = 0, []
    for number, gap in enumerate(each):
        now += gap
        edges.append((float(now), number % 2 == 0))
    assert told(0, edges) == edges


def test_what_is_dropped_is_counted_and_what_is_told_late_is_not():
    switch = Debounce(10 * MS)
    for at, down in ((0, DOWN), (2, UP), (4, DOWN), (60, UP)):
        switch.edge(down, at * MS)
    assert switch.dropped == 2
    switch = Debounce(10 * MS)
    switch.edge(DOWN, 0)
    switch.edge(UP, 6 * MS)
    assert (switch.dropped, switch.due_us) == (1, 10 * MS)
    assert switch.due(10 * MS) == [UP]
    assert (switch.dropped, switch.due_us) == (0, None)


def test_while_others_tell_it_it_only_follows():
    switch = Debounce(10 * MS)
    switch.follow(DOWN)
    assert switch.edge(UP, 1) == [UP]
