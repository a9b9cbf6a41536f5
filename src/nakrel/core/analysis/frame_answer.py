"""The frame check's answer in words: how many presses a game sees, and the fastest timing that it can't miss."""

from __future__ import annotations

from itertools import accumulate
from typing import TYPE_CHECKING, NamedTuple

from nakrel.core.analysis.seen import IN_ORDER, Game, Seen
from nakrel.core.edit.pieces import UNNUMBERED
from nakrel.core.edit.rows import rows
from nakrel.core.edit.safe import make_safe
from nakrel.core.model.controls import label
from nakrel.core.model.errors import DataError, LimitError
from nakrel.core.model.macro import Macro, Mode, cycle_us
from nakrel.core.model.steps import Text, walk
from nakrel.core.model.units import FRAME_RATES, format_runs, rate_of, shown_ms
from nakrel.words import counted, plain, shown_number, tr

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
        none = tr("There is no press in it that a game could see.")
        return FrameAnswer(" ".join(filter(None, (none, _types(macro)))))
    if game.fps == IN_ORDER:
        seen = frames.in_order(presses)
        message = tr("A game that takes events in order sees all of the presses, {rate}.").format(rate=_rate(seen))
        return FrameAnswer(message, " ".join(_left_out(macro, presses)), seen=seen)
    found = frames.chances(presses, game)
    mine = frames.summary(presses, game, found)
    points, mark = _curve(presses, game, against)
    words = " ".join((_answer(mine, game), *_left_out(macro, presses)))
    answer = FrameAnswer(
        words, tr("No press is missed."), None, points, mark, against, mine, _order(macro, presses, game)
    )
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
    try:
        safe = make_safe(macro, least_us)
    except LimitError:
        advice = tr(
            "Fastest safe timing: {least} ms down, {least} ms up for each key. The macro has too many steps for the "
            "waits that this needs."
        )
        return answer._replace(advice=advice.format(least=shown_ms(least_us)))
    before, after = cycle_us(macro, macro.play), cycle_us(safe, safe.play)
    if after > before and macro.play.mode is not Mode.SINGLE:
        advice = tr(
            "Fastest safe timing: {least} ms down, {least} ms up for each key; this macro then plays {runs}, instead "
            "of {before} ms."
        )
    else:
        advice = tr("Fastest safe timing: {least} ms down, {least} ms up for each key.")
    advice = advice.format(least=shown_ms(least_us), runs=format_runs(after), before=shown_ms(before))
    return answer._replace(advice=advice, least_us=least_us if safe != macro else None)


def _order(macro: Macro, presses: Presses, game: Game) -> str:
    from nakrel.core.analysis import frames

    found = frames.same_frame(presses, game)
    if found is None or found.chance <= _HARDLY_EVER:
        return ""
    step = _numbers(macro)[found.row]
    return tr(
        "{first} and {second} (step {step}) go down in the same frame in {share} of the plays: such a game can't tell "
        "which was first."
    ).format(first=label(found.first), second=label(found.second), step=step, share=_percent(found.chance))


def _numbers(macro: Macro) -> list[int]:
    """The number of each row's step as people count them."""
    return list(accumulate(int(type(row.step) not in UNNUMBERED) for row in rows(macro)))


def _left_out(macro: Macro, presses: Presses) -> list[str]:
    """What the answer isn't about, a sentence each."""
    return [each for each in (_not_examined(presses), _types(macro)) if each]


def _types(macro: Macro | None) -> str:
    """A text's keys depend on the layout in use, and what takes texts doesn't look once a frame."""
    sections = (macro.lead_in, macro.loop, macro.lead_out) if macro else ()
    types = any(isinstance(step, Text) for section in sections for step in walk(section))
    return tr("What it types isn't counted.") if types else ""


def _not_examined(presses: Presses) -> str:
    if not presses.left_out:
        return ""
    return counted(
        presses.left_out,
        "Its last run wasn't examined: it has too many presses.",
        "Its last {n} runs weren't examined: it has too many presses.",
    )


def _answer(seen: Seen, game: Game) -> str:
    if game.tick:
        first = tr("A game at {fps} frames and {ticks} ticks sees {share} of the presses, {rate}")
    else:
        first = tr("A game at {fps} frames sees {share} of the presses, {rate}")
    all_seen = _share(seen.seen)
    if seen.error > 0.0005:
        all_seen += f" (±{_percent(2 * seen.error)})"
    parts = [first.format(fps=plain(seen.fps), ticks=plain(game.tick or 0), share=all_seen, rate=_rate(seen))]
    for share, words in (
        (seen.merged, tr("{share} are merged with the one before")),
        (seen.lost, tr("{share} are lost")),
    ):
        if share > _HARDLY_EVER:
            parts.append(words.format(share=_percent(share) if share > 0.0005 else _one_in(share)))
    return "; ".join(parts) + "."


def _rate(seen: Seen) -> str:
    number, per = rate_of(seen.per_second)
    words = {"s": tr("{number} a second"), "min": tr("{number} a minute"), "h": tr("{number} an hour")}
    return words[per].format(number=shown_number(number, 1))


def _share(share: float) -> str:
    """All means all: what is missed now and then has its number."""
    missed = 1 - share
    if missed <= _HARDLY_EVER:
        return tr("all", "presses")
    return _percent(share) if missed > 0.0005 else tr("all but {share}").format(share=_one_in(missed))


def _one_in(share: float) -> str:
    """To two figures: 1 / 64660 -> '1 in 65,000'."""
    return tr("1 in {many}").format(many=shown_number(int(float(f"{1 / share:.1e}"))))


def _percent(share: float) -> str:
    """One decimal near both ends: 0.9443 -> '94.4 %'."""
    return f"{shown_number(share * 100, int(share < 0.1 or 0.9 < share < 0.9995))} %"


def format_seen(share: float) -> str:
    """How a press fares: '60 % seen', '1 in 20,000 missed'."""
    if share < 0.9995:
        return tr("{share} seen").format(share=_percent(share))
    return tr("{share} missed").format(share=_one_in(1 - share))
