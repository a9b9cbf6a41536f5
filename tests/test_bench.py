"""The benchmark waits for a fast moment, and says at which pace it measured."""

from __future__ import annotations

import itertools
import time

import pytest
from bench import pace


@pytest.mark.parametrize(
    ("paces", "wanted", "found"),
    [
        # Without a wish it is measured as it comes.
        ([0.5, 0.6], None, (1, pace.At(0.5, 0.6, 1))),
        # It waits until the machine is fast, and measures anew where it became slow meanwhile.
        ([0.5, 0.4, 0.2, 0.2], 0.3, (1, pace.At(0.2, 0.2, 1))),
        ([0.2, 0.5, 0.4, 0.1, 0.3], 0.3, (2, pace.At(0.1, 0.3, 2))),
    ],
)
def test_a_figure_is_measured_at_the_pace_that_is_wanted(
    monkeypatch: pytest.MonkeyPatch, paces: list[float], wanted: float | None, found: tuple[int, pace.At]
):
    given, counted = iter(paces), itertools.count(1)
    monkeypatch.setattr(pace, "pace", lambda: next(given))
    monkeypatch.setattr(time, "sleep", lambda seconds: None)
    assert pace.measured_at(lambda: next(counted), wanted, 60) == found
    assert not list(given)


def test_after_the_limit_it_is_taken_as_it_comes(monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr(pace, "pace", lambda: 9.0)
    assert pace.measured_at(lambda: "figure", 0.1, 0) == ("figure", pace.At(9.0, 9.0, 1))
    assert str(pace.At(0.25, 0.5, 3)) == "0.25 and 0.50 s, try 3"
