"""The practice game's rules: what counts as an attempt that worked."""

from __future__ import annotations

import pytest

from nakrel.practice.rules import Pair, Rules, Verdict, read_pair


def played(rules: Rules, *events: tuple[str, float, float]) -> Verdict | None:
    """Presses from one time to another, in milliseconds, and how they went once they are over."""
    edges = sorted([(down, 1, key) for key, down, _ in events] + [(up, 0, key) for key, _, up in events])
    for at, down, key in edges:
        (rules.press if down else rules.release)(key, at / 1_000)
        assert rules.idle(at / 1_000) is None
    return rules.idle(edges[-1][0] / 1_000 + 1)


@pytest.mark.parametrize(("hold", "worked"), [(39, False), (40, True), (60, True)])
def test_a_press_must_last(hold: int, worked: bool):
    verdict = played(Rules(hold_s=0.04), ("Q", 0, hold))
    assert verdict is not None
    assert verdict.worked is worked
    assert verdict.reason == ("" if worked else "Q was held for 39.0 ms")


@pytest.mark.parametrize(("gap", "worked"), [(39, False), (41, True), (89, True), (91, False)])
def test_the_second_counts_in_its_window_only(gap: int, worked: bool):
    verdict = played(Rules(pair=read_pair("A B 40 90")), ("A", 0, 10), ("B", gap, gap + 10))
    assert verdict is not None
    assert verdict.worked is worked


def test_half_a_pair_did_not_work():
    assert played(Rules(pair=Pair("A", "B", 0, 1)), ("A", 0, 10)) == Verdict(False, "B never came")
    assert played(Rules(pair=Pair("A", "B", 0, 1)), ("B", 0, 10)) == Verdict(False, "B came without A")


def test_nothing_counts_soon_after_a_press():
    assert played(Rules(quiet_s=0.1), ("Q", 0, 10), ("W", 60, 70)) == Verdict(False, "W came 60.0 ms after a press")
    assert played(Rules(quiet_s=0.1), ("Q", 0, 10), ("W", 110, 120)) == Verdict(True)


def test_an_attempt_lasts_until_all_is_up_and_still():
    rules = Rules(hold_s=0.01)
    assert rules.idle(5) is None
    rules.press("Q", 0)
    assert rules.idle(2) is None
    rules.release("Q", 2)
    assert rules.idle(2.2) is None
    assert rules.idle(2.4) == Verdict(True)
    assert rules.idle(3) is None


@pytest.mark.parametrize("text", ["A B 40", "A B x 90", "A B 90 40", "A B -1 4"])
def test_a_pair_that_cannot_be_is_refused(text: str):
    with pytest.raises(ValueError, match="."):
        read_pair(text)
