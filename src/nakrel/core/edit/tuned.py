"""A macro with the time that is tried in it."""

from __future__ import annotations

from nakrel.core.edit.edits import retime
from nakrel.core.edit.rows import rows
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.step_words import describe
from nakrel.core.model.steps import Chord, Step, Tap, Wait, walk
from nakrel.core.model.tuning import Target, Tuning
from nakrel.words import tr

__all__ = ["can_be_tuned", "has_time", "target_words", "tuned_rows", "with_time"]


def can_be_tuned(macro: Macro) -> bool:
    """Whether any step has a time that can be tried."""
    return any(_has_time(step) for section in Section for step in walk(macro.section(section)))


def has_time(macro: Macro, row: int) -> bool:
    """Whether the row's step has a time that can be tried: a wait or a hold that is no formula."""
    every = rows(macro)
    step = every[row].step if 0 <= row < len(every) else None
    return isinstance(step, Step) and not step.off and _has_time(step)


def _has_time(step: Step) -> bool:
    match step:
        case Wait(wait_us=int(), most_us=None) | Tap(hold_us=int()) | Chord(hold_us=int()):
            return True
    return False


def tuned_rows(macro: Macro, tuning: Tuning) -> list[int]:
    """The rows whose time is tried. Raises `DataError` where there is none any more."""
    if tuning.target is Target.STEP:
        found = [tuning.row] if has_time(macro, tuning.row) else []
    else:
        found = [
            number for number, row in enumerate(rows(macro)) if isinstance(row.step, Wait) and has_time(macro, number)
        ]
    if not found:
        what = (
            tr("{macro}: the step that is tuned has no time of its own; choose another")
            if tuning.target is Target.STEP
            else tr("{macro}: it has no plain wait; choose another")
        )
        raise DataError(what.format(macro=macro.name))
    return found


def with_time(macro: Macro, tuning: Tuning, time_us: int) -> Macro:
    """The macro with this time where it is tried. Raises `DataError` where there is no such place."""
    return retime(macro, tuned_rows(macro, tuning), lambda _: time_us)


def target_words(macro: Macro, tuning: Tuning) -> str:
    """What is tried, in words: 'the hold of tap Q', 'all 4 waits'. Raises `DataError` where there is nothing."""
    found = tuned_rows(macro, tuning)
    if tuning.target is Target.WAITS:
        return tr("all {count} waits").format(count=len(found)) if len(found) > 1 else tr("the wait")
    step = rows(macro)[found[0]].step
    if isinstance(step, Wait):
        return tr("the wait")
    assert isinstance(step, Tap | Chord)
    return tr("the hold of {step}").format(step=describe(step))
