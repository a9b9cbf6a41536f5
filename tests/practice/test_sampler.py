"""How the practice game sees its input, against the closed form for a game that looks once a frame."""

from __future__ import annotations

import random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.practice.sampler import Sampler


def seen_share(hold_ms: float, frame_ms: float, presses: int, chance: random.Random) -> float:
    """Press again and again at random phases of the frame clock; the share of presses that a frame sees."""
    sampler = Sampler()
    # Far enough apart that every press stands alone.
    starts = [n * 10 * frame_ms + chance.uniform(0, frame_ms) for n in range(presses)]
    edges = sorted([(start, True) for start in starts] + [(start + hold_ms, False) for start in starts])
    frame = 0
    for at, down in edges:
        while frame * frame_ms <= at:
            sampler.frame()
            frame += 1
        sampler.change("Q", down)
    sampler.frame()
    assert sampler.arrived["Q"] == presses
    return sampler.seen["Q"] / presses


@pytest.mark.parametrize("hold_ms", [1, 5, 10, 16, 17, 40])
def test_the_share_of_presses_seen_is_hold_over_frame(hold_ms: int):
    """A press of length h is seen with probability min(1, h / T): a sample every T falls into it (geometry)."""
    frame_ms = 1000 / 60
    share = seen_share(hold_ms, frame_ms, 4_000, random.Random(7))
    expected = min(1.0, hold_ms / frame_ms)
    # Four standard deviations of a binomial share.
    assert abs(share - expected) <= 4 * (expected * (1 - expected) / 4_000) ** 0.5 + 1e-9


changes = st.lists(st.tuples(st.sampled_from(["Q", "W"]), st.booleans(), st.booleans()), max_size=60)


@given(changes)
def test_a_game_never_sees_more_than_arrived_and_sees_all_when_it_looks_after_each_change(moves: list):
    lazy, eager = Sampler(), Sampler()
    for control, down, look in moves:
        for sampler in (lazy, eager):
            sampler.change(control, down)
        if look:
            lazy.frame()
        eager.frame()
    assert all(lazy.seen[c] <= lazy.arrived[c] for c in lazy.arrived)
    assert eager.seen == eager.arrived


def test_two_presses_between_two_frames_are_one():
    sampler = Sampler()
    for down in (True, False, True):
        sampler.change("Q", down)
    assert sampler.frame() == (["Q"], [])
    assert (sampler.arrived["Q"], sampler.seen["Q"]) == (2, 1)
