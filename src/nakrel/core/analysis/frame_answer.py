"""The frame check's answer in words: how many presses a game sees, and the fastest timing that it can't miss."""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple

from nakrel.core.analysis.seen import Seen
from nakrel.core.edit.safe import make_safe
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.units import FRAME_RATES, format_ms, format_rate

if TYPE_CHECKING:
    from nakrel.core.analysis.frames import Presses

__all__ = ["IN_ORDER", "JITTER_US", "FrameAnswer", "answer_for"]

# A quiet machine's timing: what the benchmark shows at its 99th percentile is a tenth of this.
JITTER_US = 200.0
# What is missed less often than this is said to be seen, all of it.
_HARDLY_EVER = 1e-6
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
    seen: Seen | None = None


def answer_for(macro: Macro | None, fps: float, jitter_us: float, against: str, spread_us: float = 0.0) -> FrameAnswer:
    """Answer for a game at `fps` frames a second whose frame times are `spread_us` apart (a standard deviation), or
    `IN_ORDER` for one that takes events in order; the plot goes `against` the frame rate ("rate") or the hold
    ("hold")."""
    # Whoever only shows an answer doesn't load NumPy.
    from nakrel.core.analysis import frames

    try:
        presses = frames.presses_of(macro) if macro else None
    except DataError as error:
        return FrameAnswer(str(error))
    if macro is None or presses is None or not presses.spans:
        return FrameAnswer("There is no press in it that a game could see.")
    if fps == IN_ORDER:
        seen = frames.in_order(presses)
        message = f"A game that takes events in order sees all of the presses, {seen.per_second:.1f} a second."
        return FrameAnswer(message, _not_examined(presses), seen=seen)
    mine = frames.check(presses, fps, jitter_us, spread_us)
    if against == "hold":
        holds = [part * 1_000_000 / fps for part in _HOLDS]
        over = frames.over_holds(presses, fps, holds, jitter_us, spread_us)
        points = tuple((hold_us, seen.seen) for hold_us, seen in zip(holds, over, strict=True))
        mark: float | None = min(float((spans[:, 1] - spans[:, 0]).min()) for spans in presses.spans.values())
    else:
        found = frames.over_rates(presses, jitter_us, spread_us, sorted({*FRAME_RATES, fps}))
        points, mark = tuple((seen.fps, seen.seen) for seen in found), fps
    words = " ".join(filter(None, (_answer(mine), _not_examined(presses))))
    if 1 - mine.seen <= _HARDLY_EVER:
        return FrameAnswer(words, "No press is missed.", None, points, mark, against, mine)
    least_us = frames.safe_us(fps, jitter_us, spread_us)
    each = f"{format_ms(least_us)} ms down, {format_ms(least_us)} ms up, {format_rate(2 * least_us)} a key"
    advice = f"Fastest safe timing: {each}."
    least = least_us if make_safe(macro, least_us) != macro else None
    return FrameAnswer(words, advice, least, points, mark, against, mine)


def _not_examined(presses: Presses) -> str:
    if not presses.left_out:
        return ""
    return (
        f"Its last {presses.left_out:,} run{'s' * (presses.left_out != 1)} weren't examined: it has too many presses."
    )


def _answer(seen: Seen) -> str:
    about = f" (±{_percent(2 * seen.error)})" if seen.error > 0.0005 else ""
    parts = [f"A game at {seen.fps:g} frames sees {_share(seen.seen)} of the presses{about}"]
    parts[0] += f", {seen.per_second:.1f} a second"
    for share, words in ((seen.merged, "merged with the one before"), (seen.lost, "lost")):
        if share > _HARDLY_EVER:
            parts.append(f"{_percent(share) if share > 0.0005 else f'1 in {_about(1 / share)}'} are {words}")
    return "; ".join(parts) + "."


def _share(share: float) -> str:
    """All means all: what is missed now and then has its number."""
    missed = 1 - share
    if missed <= _HARDLY_EVER:
        return "all"
    return _percent(share) if missed > 0.0005 else f"all but 1 in {_about(1 / missed)}"


def _about(number: float) -> str:
    """To two figures: 64660 -> '65,000'."""
    return f"{int(float(f'{number:.1e}')):,}"


def _percent(share: float) -> str:
    return f"{share * 100:.1f} %" if share < 0.1 or share > 0.9 else f"{share * 100:.0f} %"
