"""Times as people write them. Inside, every time is an integer number of microseconds."""

from __future__ import annotations

import re
from decimal import Decimal, InvalidOperation

from nakrel.core.model.errors import DataError, cut
from nakrel.core.model.limits import MAX_WAIT_US
from nakrel.words import marks, plain, tr

__all__ = [
    "FRAME_RATES",
    "format_ms",
    "format_rate",
    "format_runs",
    "parse_span",
    "parse_time",
    "plain_span",
    "rate_of",
    "shown_ms",
    "shown_rate",
]

# The frame rates that games run at, frames a second.
FRAME_RATES = (30, 60, 75, 120, 144, 165, 240, 360)

_UNITS_US = {"us": 1, "µs": 1, "ms": 1_000, "s": 1_000_000, "min": 60_000_000, "m": 60_000_000}
_PATTERN = re.compile(
    r"\s*(?P<number>\d+(?:[.,]\d*)?|[.,]\d+)\s*"
    r"(?:(?P<unit>us|µs|ms|s|min|m)|f\s*@\s*(?P<frames>\d+(?:[.,]\d+)?)|/\s*(?P<per>s))?\s*"
)


def _decimal(text: str) -> Decimal:
    return Decimal(text.replace(",", "."))


def parse_time(text: str, *, most_us: int = MAX_WAIT_US) -> int:
    """Read a time and return it in microseconds.

    `25` and `25ms` are milliseconds, `0.4s` seconds, `2min` minutes, `3f@60` three frames at 60 frames/s, and
    `40/s` the time from one to the next at 40 a second. Raises `DataError` for anything else or out of range.
    """
    found = _PATTERN.fullmatch(text)
    if not found:
        raise DataError(
            tr("{text!r} is not a time; write it as 25, 25ms, 0.4s, 3f@60 or 40/s").format(text=cut(text.strip()))
        )
    number = _decimal(found["number"])
    try:
        if found["frames"]:
            micros = number * 1_000_000 / _decimal(found["frames"])
        elif found["per"]:
            micros = Decimal(1_000_000) / number
        else:
            micros = number * _UNITS_US[found["unit"] or "ms"]
        result = int(micros.to_integral_value())
    except (InvalidOperation, ZeroDivisionError):
        raise DataError(tr("{text!r} divides by zero; a rate must be above 0").format(text=cut(text.strip()))) from None
    if result > most_us:
        most = f"{plain(most_us / 1_000_000)} s" if most_us >= 10_000_000 else f"{plain(most_us / 1_000)} ms"
        raise DataError(tr("{text!r} is longer than the {most} allowed here").format(text=cut(text.strip()), most=most))
    return result


# Between the times of a random wait.
_TO = re.compile(r"\s+to\s+|(?<=[\w.])\s*[-–—]\s*(?=[\d.])")


def plain_span(text: str) -> str:
    """Two times as they are typed, with `to` for the word that the reader's language has between them."""
    between = tr("{least} to {most} ms").removeprefix("{least}").removesuffix("{most} ms")
    return text.replace(between, " to ")


def parse_span(text: str) -> tuple[int, int | None]:
    """Read a time, or two with `to` or a dash between them for a random one: `12s to 42s`, `200-600`. The first takes
    the second's unit where it has none of its own. Raises `DataError`."""
    if len(parts := _TO.split(plain_span(text.strip()))) != 2:
        return parse_time(text), None
    least, most = parts
    unit = re.search(r"[^\d.,\s].*$", most)
    if unit and re.fullmatch(r"\s*[\d.,]+\s*", least):
        least += unit.group()
    first, last = parse_time(least), parse_time(most)
    if last < first:
        raise DataError(tr("{text!r} is backwards; write the shorter time first").format(text=cut(text.strip())))
    return first, last


def format_ms(micros: int) -> str:
    """Microseconds as milliseconds with up to three decimals and no trailing zeros: 16667 -> '16.667'."""
    whole, part = divmod(abs(micros), 1_000)
    sign = "-" if micros < 0 else ""
    return f"{sign}{whole}" + (f".{part:03d}".rstrip("0") if part else "")


def shown_ms(micros: int) -> str:
    """The same for people's eyes, with the decimal mark that they are used to; `parse_time` reads both."""
    return format_ms(micros).replace(".", marks().decimal)


# A rate is told per the shortest of these, in seconds, in which there is at least a tenth of a repeat.
_PER = {"s": 1, "min": 60, "h": 3_600}
_LEAST_RATE = 0.095


def rate_of(per_second: float) -> tuple[float, str]:
    """A rate as it is best told: a number, and whether that is per `s`, `min` or `h`."""
    rates = ((per_second * seconds, per) for per, seconds in _PER.items())
    return next((rate for rate in rates if rate[0] >= _LEAST_RATE), (per_second * _PER["h"], "h"))


def format_runs(cycle_us: int) -> str:
    """A repeat every `cycle_us` in words: '8.5 runs a second, one every 118 ms'; '' where there is no cycle."""
    if cycle_us <= 0:
        return ""
    runs, per = shown_rate(cycle_us).split("/")
    words = {
        "s": tr("{runs} runs a second, one every {cycle} ms"),
        "min": tr("{runs} runs a minute, one every {cycle} ms"),
        "h": tr("{runs} runs an hour, one every {cycle} ms"),
    }
    told = tr("one run every {cycle} ms") if runs == "1" else words[per]
    return told.format(runs=runs, cycle=shown_ms(cycle_us))


def format_rate(cycle_us: int) -> str:
    """A repeat every `cycle_us` as a rate, '33.3/s', '2.4/min' or '1.5/h'; '' where there is no cycle."""
    if cycle_us <= 0:
        return ""
    rate, per = rate_of(1_000_000 / cycle_us)
    if rate < _LEAST_RATE:
        return "<0.1/h"
    return (f"{rate:.0f}" if rate >= 1000 else f"{rate:.1f}".removesuffix(".0")) + f"/{per}"


def shown_rate(cycle_us: int) -> str:
    """The same for people's eyes."""
    return format_rate(cycle_us).replace(".", marks().decimal)
