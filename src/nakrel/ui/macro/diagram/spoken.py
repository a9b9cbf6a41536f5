"""The timing diagram in words, for screen readers."""

from __future__ import annotations

from nakrel.core.edit.timeline import Span, Timeline
from nakrel.core.model.controls import label
from nakrel.core.model.units import shown_ms
from nakrel.words import tr

__all__ = ["spoken"]

# Nobody listens to more of it at once; the list has all of it.
_MOST_ROWS, _MOST_HOLDS = 120, 40


def spoken(line: Timeline) -> str:
    """Each hold in the order of its press: 'R, down at 72 ms for 17 ms'."""
    if not line.size:
        return ""
    until = line.end_us(min(line.size, _MOST_ROWS) - 1)
    found = line.spans_between(0, until + 1)
    holds = sorted(((span, control) for control, spans in found.items() for span in spans), key=_when)
    texts = [
        tr("{button}, down at {time} ms for {hold} ms").format(
            button=label(control), time=shown_ms(span.start_us), hold=shown_ms(span.end_us - span.start_us)
        )
        for span, control in holds[:_MOST_HOLDS]
    ]
    more = line.size > _MOST_ROWS or len(holds) > _MOST_HOLDS
    return "; ".join(texts) + (tr("; and more, which the list of steps has") if more else "")


def _when(hold: tuple[Span, str]) -> int:
    return hold[0].start_us
