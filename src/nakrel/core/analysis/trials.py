"""What is known of a time that is tried in a game. Without NumPy; `tuning` works it out."""

from __future__ import annotations

from typing import NamedTuple

from nakrel.core.model.tuning import Question

__all__ = ["Found", "is_done"]


class Found(NamedTuple):
    """What is known after some trials. `next_us` is what to try next; `estimate_us` the wanted time, which lies from
    `low_us` to `high_us` with 90 %; `reached` is False where it may as well be longer than all that is tried. `curve`
    has times over the range with the chance that each works, and the band that holds it with 90 %."""

    next_us: int
    estimate_us: int
    low_us: int
    high_us: int
    reached: bool
    curve: tuple[tuple[int, float, float, float], ...] = ()


def is_done(question: Question, trials: int, found: Found) -> bool:
    """Whether enough is known, or all trials are made."""
    return trials >= question.most_trials or (found.reached and found.high_us - found.low_us <= question.narrow_us)
