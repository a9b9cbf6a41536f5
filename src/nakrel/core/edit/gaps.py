"""Checks of what lies between presses in time."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise

from nakrel.core.edit.findings import SHORT_US, Finding, finding_of
from nakrel.core.edit.timeline import Span, is_cut, lay_out
from nakrel.core.model.controls import OTHERS, Kind, label
from nakrel.core.model.controls import control as named
from nakrel.core.model.macro import Macro, Mode, Section
from nakrel.core.model.units import shown_ms
from nakrel.words import tr

__all__ = ["gaps"]

# From one press of a mouse button to the next. Window managers that look at each click before a window gets it lose
# some that come sooner. Measured with Openbox beside three busy processes: 120 and 310 of 1,000 lost at 2 ms, 4 of 600
# at 4 and at 6 ms, none of 300 at 10.
CLOSE_CLICKS_US = 10_000


def gaps(macro: Macro) -> Iterable[Finding]:
    """Presses that follow so soon on the release before that a game may take both for one."""
    line = lay_out(macro)
    if is_cut(line):
        yield Finding(
            None, tr("It repeats so often that only the beginning of that is drawn and checked; all of it is played.")
        )
    loop, loop_rows = next((zone for zone in line.zones if zone.section is Section.LOOP), None), line.loop_rows
    repeats = macro.play.mode is not Mode.SINGLE
    for control, spans in line.spans.items():
        if control in OTHERS or named(control).kind is Kind.WHEEL:
            continue
        words: dict[int, str] = {}
        for (_, end_us, _, _), (start_us, _, row, _) in pairwise(spans):
            gap = start_us - end_us
            if gap >= SHORT_US or row < 0:
                continue
            if gap not in words:
                words[gap] = _merged(
                    control,
                    gap,
                    tr("{control} goes down at once after its release: many games take both for one press."),
                    tr("{control} goes down only {gap} ms after its release: many games take both for one press."),
                )
            yield finding_of((row, words[gap]))
        first, last = (_in_rows(spans, loop_rows), _in_rows(reversed(spans), loop_rows)) if repeats else (None, None)
        if loop and first and last:
            gap = loop.end_us - last.end_us + macro.play.pause_us + first.start_us - loop.start_us
            if gap < SHORT_US:
                wrong = _merged(
                    control,
                    gap,
                    tr(
                        "Each run presses {control} at once after its release in the run before: many games take both "
                        "for one press. Give it a pause."
                    ),
                    tr(
                        "Each run presses {control} only {gap} ms after its release in the run before: many games "
                        "take both for one press. Give it a pause."
                    ),
                )
                yield Finding(first.down, wrong)
        if named(control).kind is Kind.BUTTON:
            apart = [after.start_us - before.start_us for before, after in pairwise(spans)]
            if loop and first and last:
                cycle = loop.end_us - loop.start_us + macro.play.pause_us
                apart.append(first.start_us + cycle - last.start_us)
            closest = min(apart, default=CLOSE_CLICKS_US)
            if closest < CLOSE_CLICKS_US:
                yield Finding(max(0, spans[0].down), _lost_clicks(control, closest))


def _in_rows(spans: Iterable[Span], rows: range) -> Span | None:
    """The first of these that begins and ends in some rows."""
    return next((span for span in spans if span.down in rows and span.up in rows), None)


def _lost_clicks(control: str, apart_us: int) -> str:
    if apart_us:
        message = tr(
            "{control} is pressed {apart} ms after the press before: under X11, desktops that look at each click first "
            "lose some of those. {enough} ms from press to press are enough."
        )
    else:
        message = tr(
            "{control} is pressed at the time of the press before: under X11, desktops that look at each click first "
            "lose some of those. {enough} ms from press to press are enough."
        )
    return message.format(control=label(control), apart=shown_ms(apart_us), enough=shown_ms(CLOSE_CLICKS_US))


def _merged(control: str, gap_us: int, at_once: str, soon: str) -> str:
    return (soon if gap_us else at_once).format(control=label(control), gap=shown_ms(gap_us))
