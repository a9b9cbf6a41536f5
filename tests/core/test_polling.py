"""The rate of a mouse, from reports that are made with a known rate."""

from __future__ import annotations

import numpy as np
import pytest

from nakrel.core.analysis.polling import LEAST_REPORTS, STANDARD_HZ, polling
from nakrel.core.model.errors import DataError


def reports(hz: float, count: int = 3_000, jitter_us: float = 0, seed: int = 1) -> list[int]:
    chance = np.random.default_rng(seed)
    at = np.arange(count) * 1e6 / hz + chance.normal(0, jitter_us, count)
    return np.sort(np.round(at)).astype(int).tolist()


@pytest.mark.parametrize("hz", STANDARD_HZ)
def test_each_standard_rate_is_known_with_the_jitter_of_a_real_bus(hz: int):
    times = reports(hz, jitter_us=0.08 * 1e6 / hz)
    found = polling(times)
    assert found.nearest_hz == hz
    assert found.rate_hz == pytest.approx(hz, rel=0.02)
    gaps = np.diff(times)
    assert found.median_us == pytest.approx(float(np.median(gaps)))
    assert found.spread_us == pytest.approx(float(np.subtract(*np.percentile(gaps, [75, 25]))))
    assert found.missing == 0
    assert sum(found.counts) == len(times) - 1


def test_missing_reports_are_counted():
    times = reports(1_000)
    for at in (100, 500, 501, 900):
        times[at] = -1
    assert polling([each for each in times if each >= 0]).missing == 4


def test_a_mouse_that_rests_misses_nothing():
    first = reports(500, 200)
    again = [each + first[-1] + 400_000 for each in reports(500, 200)]
    found = polling(first + again)
    assert (found.nearest_hz, found.missing) == (500, 0)


@pytest.mark.parametrize("hz", [125, 250, 500, 1_000])
def test_on_a_clock_of_milliseconds_the_mean_tells(hz: int):
    times = [round(each / 1_000) * 1_000 for each in reports(hz, jitter_us=100)]
    found = polling(times, coarse=True)
    assert found.nearest_hz == hz
    assert found.coarse


def test_too_few_reports_say_so():
    with pytest.raises(DataError, match="move the mouse in circles"):
        polling(reports(1_000, LEAST_REPORTS))
    with pytest.raises(DataError, match="same time"):
        polling([5_000] * 100, coarse=True)
