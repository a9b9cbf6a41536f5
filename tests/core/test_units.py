"""Times as people write them."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import MAX_WAIT_US
from nakrel.core.model.units import format_ms, format_rate, format_runs, parse_span, parse_time
from tests.strategies import waits_us


@pytest.mark.parametrize(
    ("text", "micros"),
    [
        ("25", 25_000),
        ("25ms", 25_000),
        (" 0.4 s ", 400_000),
        ("0,4s", 400_000),
        ("3f@60", 50_000),
        # One frame at 60 frames/s is 16.67 ms, 20 and 40 a second are 50 and 25 ms (common practice, no published
        # source).
        ("1f@60", 16_667),
        ("20/s", 50_000),
        ("40/s", 25_000),
        ("250us", 250),
        ("10min", MAX_WAIT_US),
        ("0", 0),
    ],
)
def test_what_people_write(text: str, micros: int):
    assert parse_time(text) == micros


@pytest.mark.parametrize("text", ["", "ms", "-5", "1e3", "0/s", "3f@0", "10.1min", "nan", "1 2", "5 f", "٣x"])
def test_anything_else_is_an_error_that_names_it(text: str):
    with pytest.raises(DataError, match=r"not a time|divides by zero|longer than"):
        parse_time(text)


@given(waits_us)
def test_what_is_shown_reads_back_the_same(micros: int):
    assert parse_time(format_ms(micros)) == micros


def test_rates():
    assert format_rate(30_000) == "33.3/s"
    assert format_rate(50_000) == "20/s"
    assert format_rate(500) == "2000/s"
    assert format_rate(0) == ""


def test_what_comes_seldom_is_told_by_the_minute_or_the_hour():
    assert format_rate(1_200_000) == "0.8/s"
    assert format_rate(10_000_000) == "0.1/s"
    # Each of 12 s and half of 1 to 30 s more (common practice, no published source).
    assert format_rate(27_500_000) == "2.2/min"
    assert format_rate(3_600_000_000) == "1/h"
    assert format_rate(400 * 3_600_000_000) == "<0.1/h"
    assert format_runs(27_500_000) == "2.2 runs a minute, one every 27500 ms"
    assert format_runs(3_600_000_000) == "one run every 3600000 ms"


@given(st.integers(1, 10 * 3_600_000_000))
def test_no_rate_is_told_as_none(cycle_us: int):
    number, per = format_rate(cycle_us).split("/")
    exact = {"s": 1, "min": 60, "h": 3_600}[per] * 1_000_000 / cycle_us
    assert float(number) > 0
    assert float(number) == pytest.approx(exact, abs=0.5 if exact >= 999.95 else 0.0501)


@pytest.mark.parametrize("text", ["200 to 600", "200-600", "200 – 600 ms", "0.2s-0.6s", "200ms—0.6s"])
def test_two_times_are_read_with_to_or_a_dash_between_them(text: str):
    assert parse_span(text) == (200_000, 600_000)


@pytest.mark.parametrize("text", ["600-200", "200-", "-200", "200 to", "1-2-3"])
def test_what_is_no_pair_of_times_is_refused(text: str):
    with pytest.raises(DataError):
        parse_span(text)
