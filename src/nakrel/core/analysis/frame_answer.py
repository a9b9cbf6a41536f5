"""The frame check's answer in words: how many presses a game sees, and the fastest timing that it can't miss."""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple

from nakrel.core.edit.edits import make_safe
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.units import format_ms, format_rate

if TYPE_CHECKING:
    from nakrel.core.analysis.frames import Seen

__all__ = ["IN_ORDER", "JITTER_US", "FrameAnswer", "answer_for"]

# A quiet machine's timing: what the benchmark shows at its 99th percentile is a tenth of this.
JITTER_US = 200.0
# From this share on it is said to be all.
_ALL = 0.9995
# The holds that are tried, as parts of a frame.
_HOLDS = tuple((n + 1) / 16 for n in range(32))
IN_ORDER = 0


class FrameAnswer(NamedTuple):
    """What was worked out: words, the plot's points (x, share seen), and how long every hold and gap must last at least
    so that no press is lost, in microseconds; None where nothing has to change for that."""

    answer: str
    advice: str = ""
    least_us: int | None = None
    points: tuple[tuple[float, float], ...] = ()
    mark: float | None = None
    against: str = ""


def answer_for(macro: Macro | None, fps: float, jitter_us: float, against: str) -> FrameAnswer:
    """Answer for a game at `fps` frames a second, or `IN_ORDER` for one that takes events in order; the plot goes
    `against` the frame rate ("rate") or the hold ("hold")."""
    # Whoever only shows an answer doesn't load NumPy.
    from nakrel.core.analysis import frames

    try:
        presses, length_us = frames.presses_of(macro) if macro else ({}, 0.0)
    except DataError as error:
        return FrameAnswer(str(error))
    if macro is None or not presses:
        return FrameAnswer("There is no press in it that a game could see.")
    if fps == IN_ORDER:
        seen = frames.in_order(presses, length_us)
        message = f"A game that takes events in order sees all of the presses, {seen.per_second:.1f} a second."
        return FrameAnswer(message)
    found = frames.over_rates(presses, length_us, jitter_us)
    mine = next(seen for seen in found if seen.fps == fps)
    if against == "hold":
        holds = [part * 1_000_000 / fps for part in _HOLDS]
        over = frames.over_holds(presses, length_us, fps, jitter_us, holds)
        points = tuple((hold_us, seen.seen) for hold_us, seen in zip(holds, over, strict=True))
        mark: float | None = min(float((spans[:, 1] - spans[:, 0]).min()) for spans in presses.values())
    else:
        points, mark = tuple((seen.fps, seen.seen) for seen in found), fps
    if mine.seen >= _ALL:
        return FrameAnswer(_answer(mine), "No press is missed.", None, points, mark, against)
    least_us = frames.safe_us(fps, jitter_us)
    each = f"{format_ms(least_us)} ms down, {format_ms(least_us)} ms up, {format_rate(2 * least_us)} a key"
    advice = f"Fastest safe timing: {each}."
    return FrameAnswer(
        _answer(mine), advice, least_us if make_safe(macro, least_us) != macro else None, points, mark, against
    )


def _answer(seen: Seen) -> str:
    parts = [f"A game at {seen.fps:g} frames sees {_percent(seen.seen)} of the presses, {seen.per_second:.1f} a second"]
    parts += [f"{_percent(seen.merged)} are merged with the one before"] if seen.merged > 0.0005 else []
    parts += [f"{_percent(seen.lost)} are lost"] if seen.lost > 0.0005 else []
    return "; ".join(parts) + "."


def _percent(share: float) -> str:
    if share >= _ALL:
        return "all"
    return f"{share * 100:.1f} %" if share < 0.01 or share > 0.99 else f"{share * 100:.0f} %"
