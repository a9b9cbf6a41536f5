"""Rules of the practice game, such as real games have: what it takes, and whether an attempt worked."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from nakrel.words import plain, shown_number, tr

__all__ = ["Pair", "Rules", "Verdict", "read_pair"]

# An attempt is over when nothing has happened for so long, and nothing is down.
IDLE_S = 0.25


class Pair(NamedTuple):
    """`then` counts only from `least_s` to `most_s` after `first` went down."""

    first: str
    then: str
    least_s: float
    most_s: float


class Verdict(NamedTuple):
    """Whether an attempt worked, and the reason where it didn't."""

    worked: bool
    reason: str = ""


def read_pair(text: str) -> Pair:
    """Read 'A B 40 90': B only from 40 to 90 ms after A. Raises `ValueError`."""
    try:
        first, second, *times = text.split()
        least, most = map(float, times)
    except ValueError:
        example = tr("a pair is two keys or buttons and two times in milliseconds, such as 'A B 40 90'")
        raise ValueError(example) from None
    if not 0 <= least <= most:
        raise ValueError(
            tr("the times of a pair go from the shorter to the longer one, not from {least} to {most}").format(
                least=plain(least), most=plain(most)
            )
        )
    return Pair(first, second, least / 1_000, most / 1_000)


class Rules:
    """Feed it what the game has seen, with times in seconds; `idle` tells how the attempt went once it is over.
    `called` says what a control is called in that.

    `hold_s`: a press must last so long. `quiet_s`: nothing counts so soon after a press. `pair`: see there.
    """

    def __init__(self, hold_s: float = 0.0, quiet_s: float = 0.0, pair: Pair | None = None) -> None:
        self.hold_s, self.quiet_s, self.pair = hold_s, quiet_s, pair
        self.called: Callable[[str], str] = lambda control: control
        self._down: dict[str, float] = {}
        self._last_s = self._last_press_s = float("-inf")
        self._first_s: float | None = None
        self._reasons: list[str] = []
        self._presses = 0
        self._paired = False

    @property
    def any(self) -> bool:
        """Whether there is a rule at all."""
        return bool(self.hold_s or self.quiet_s or self.pair)

    def press(self, control: str, at_s: float) -> None:
        """A control was seen going down."""
        if at_s - self._last_press_s < self.quiet_s:
            since = _ms(at_s - self._last_press_s)
            self._reasons.append(
                tr("{control} came {time} after a press").format(control=self.called(control), time=since)
            )
        if self.pair and control == self.pair.first:
            self._first_s = at_s
        elif self.pair and control == self.pair.then:
            self._check_pair(self.pair, at_s)
        self._down[control] = self._last_s = self._last_press_s = at_s
        self._presses += 1

    def _check_pair(self, pair: Pair, at_s: float) -> None:
        if self._first_s is None:
            self._reasons.append(
                tr("{then} came without {first}").format(then=self.called(pair.then), first=self.called(pair.first))
            )
        elif not pair.least_s <= at_s - self._first_s <= pair.most_s:
            self._reasons.append(
                tr("{then} came {time} after {first}").format(
                    then=self.called(pair.then), time=_ms(at_s - self._first_s), first=self.called(pair.first)
                )
            )
        else:
            self._paired = True
        self._first_s = None

    def release(self, control: str, at_s: float) -> None:
        """A control was seen going up."""
        since = self._down.pop(control, None)
        if since is not None and at_s - since < self.hold_s:
            self._reasons.append(
                tr("{control} was held for {time}").format(control=self.called(control), time=_ms(at_s - since))
            )
        self._last_s = at_s

    def idle(self, at_s: float) -> Verdict | None:
        """How the attempt went, once it is over; then the next one begins."""
        if self._down or not self._presses or at_s - self._last_s < IDLE_S:
            return None
        if self.pair and not self._paired and not self._reasons:
            self._reasons.append(tr("{then} never came").format(then=self.called(self.pair.then)))
        verdict = Verdict(not self._reasons, tr("; ").join(self._reasons))
        self._presses, self._paired, self._first_s, self._reasons = 0, False, None, []
        return verdict


def _ms(seconds: float) -> str:
    return f"{shown_number(seconds * 1_000, 1)} ms"
