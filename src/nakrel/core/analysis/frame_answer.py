"""The frame check's answer in words: how many presses a game sees, and the fastest timing that it can't miss."""

from __future__ import annotations

from itertools import accumulate
from typing import TYPE_CHECKING, NamedTuple

from nakrel.core.analysis.seen import IN_ORDER, Game, Seen
from nakrel.core.edit.edits import rows
from nakrel.core.edit.pieces import UNNUMBERED
from nakrel.core.edit.safe import make_safe
from nakrel.core.model.controls import label
from nakrel.core.model.errors import DataError, LimitError
from nakrel.core.model.macro import Macro, Mode, cycle_us
from nakrel.core.model.units import FRAME_RATES, format_ms, format_runs

if TYPE_CHECKING:
    from nakrel.core.analysis.presses import Presses

__all__ = ["JITTER_US", "FrameAnswer", "WorstPress", "answer_for", "format_seen"]

# A quiet machine's timing: what the benchmark shows at its 99th percentile is a tenth of this.
JITTER_US = 200.0
# What is missed less often than this is said to be seen, all of it.
_HARDLY_EVER = 1e-6
# The holds that are tried, as parts of a frame.
_HOLDS = tuple((n + 1) / 16 for n in range(32))


class WorstPress(NamedTuple):
    """The press of a control that is seen least: the row of its step, that step's number as people count, and its
    chance to be seen."""

    control: str
    row: int
    step: int
    seen: float


class FrameAnswer(NamedTuple):
    """What was worked out: words, the plot's points (x, share seen), and how long every hold and gap must last at least
    so that no press is lost, in microseconds; None where nothing has to change for that. `order` says which two
    controls come in one frame; `worst` has for each control that can be missed the press that is missed most."""

    answer: str
    advice: str = ""
    least_us: int | None = None
    points: tuple[tuple[float, float], ...] = ()
    mark: float | None = None
    against: str = ""
    seen: Seen | None = None
    order: str = ""
    worst: tuple[WorstPress, ...] = ()


def answer_for(macro: Macro | None, game: Game, against: str) -> FrameAnswer:
    """Answer for such a game; the plot goes `against` the frame rate ("rate") or the hold ("hold")."""
    # Whoever only shows an answer doesn't load NumPy.
    from nakrel.core.analysis import frames
    from nakrel.core.analysis.presses import presses_of

    try:
        presses = presses_of(macro) if macro else None
    except DataError as error:
        return FrameAnswer(str(error))
    if macro is None or presses is None or not presses.spans:
        return FrameAnswer("There is no press in it that a game could see.")
    if game.fps == IN_ORDER:
        seen = frames.in_order(presses)
        message = f"A game that takes events in order sees all of the presses, {seen.per_second:.1f} a second."
        return FrameAnswer(message, _not_examined(presses), seen=seen)
    found = frames.chances(presses, game)
    mine = frames.summary(presses, game, found)
    points, mark = _curve(presses, game, against)
    words = " ".join(filter(None, (_answer(mine, game), _not_examined(presses))))
    answer = FrameAnswer(words, "No press is missed.", None, points, mark, against, mine, _order(macro, presses, game))
    if 1 - mine.seen <= _HARDLY_EVER:
        return answer
    worst = (each for each in frames.worst(presses, found) if each.seen < 1 - _HARDLY_EVER)
    numbers = _numbers(macro)
    return _advised(macro, game, answer)._replace(
        worst=tuple(WorstPress(each.control, each.row, numbers[each.row], each.seen) for each in worst)
    )


def _curve(presses: Presses, game: Game, against: str) -> tuple[tuple[tuple[float, float], ...], float]:
    """The plot's points, and where the macro is."""
    from nakrel.core.analysis import frames

    if against == "hold":
        holds = [part * game.frame_us for part in _HOLDS]
        over = frames.over_holds(presses, game, holds)
        points = tuple((hold_us, seen.seen) for hold_us, seen in zip(holds, over, strict=True))
        return points, min(float((spans[:, 1] - spans[:, 0]).min()) for spans in presses.spans.values())
    found = frames.over_rates(presses, game, sorted({*FRAME_RATES, game.fps}))
    return tuple((seen.fps, seen.seen) for seen in found), game.fps


def _advised(macro: Macro, game: Game, answer: FrameAnswer) -> FrameAnswer:
    """With the timing that nothing is missed of."""
    from nakrel.core.analysis import frames

    least_us = frames.safe_us(game)
    advice = f"Fastest safe timing: {format_ms(least_us)} ms down, {format_ms(least_us)} ms up for each key"
    try:
        safe = make_safe(macro, least_us)
    except LimitError:
        return answer._replace(advice=f"{advice}. The macro has too many steps for the waits that this needs.")
    before, after = cycle_us(macro, macro.play), cycle_us(safe, safe.play)
    if after > before and macro.play.mode is not Mode.SINGLE:
        advice += f"; this macro then plays {format_runs(after)}, instead of {format_ms(before)} ms"
    return answer._replace(advice=f"{advice}.", least_us=least_us if safe != macro else None)


def _order(macro: Macro, presses: Presses, game: Game) -> str:
    from nakrel.core.analysis import frames

    found = frames.same_frame(presses, game)
    if found is None or found.chance <= _HARDLY_EVER:
        return ""
    step = _numbers(macro)[found.row]
    return (
        f"{label(found.first)} and {label(found.second)} (step {step}) go down in the same frame in "
        f"{_percent(found.chance)} of the plays: such a game can't tell which was first."
    )


def _numbers(macro: Macro) -> list[int]:
    """The number of each row's step as people count them."""
    return list(accumulate(int(not isinstance(row.step, UNNUMBERED)) for row in rows(macro)))


def _not_examined(presses: Presses) -> str:
    if not presses.left_out:
        return ""
    return (
        f"Its last {presses.left_out:,} run{'s' * (presses.left_out != 1)} weren't examined: it has too many presses."
    )


def _answer(seen: Seen, game: Game) -> str:
    about = f" (±{_percent(2 * seen.error)})" if seen.error > 0.0005 else ""
    looks = f"at {seen.fps:g} frames" + (f" and {game.tick:g} ticks" if game.tick else "")
    parts = [f"A game {looks} sees {_share(seen.seen)} of the presses{about}"]
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
    """One decimal near both ends: 0.9443 -> '94.4 %'."""
    return f"{share * 100:.1f} %" if share < 0.1 or 0.9 < share < 0.9995 else f"{share * 100:.0f} %"


def format_seen(share: float) -> str:
    """How a press fares: '60 % seen', '1 in 20,000 missed'."""
    return f"{_percent(share)} seen" if share < 0.9995 else f"1 in {_about(1 / (1 - share))} missed"
