"""Telling an echo from a finger: a program that grabs every keyboard and sends on what it reads sends our own output
back as presses of a device of its own, and a macro that presses its own trigger goes round without end."""

from __future__ import annotations

from collections.abc import Collection, Iterable

from nakrel.core.play.events import Emit

__all__ = ["Echo"]

# Sent back at once. A finger's press comes so soon after one of ours now and then, but not after each of them.
_SOON_US = 15_000
_IN_A_ROW = 6


class Echo:
    """`sent` is told what macros press, `heard` what devices report."""

    def __init__(self) -> None:
        # When each control was pressed last, and the number of that press.
        self._sent: dict[str, tuple[int, int]] = {}
        # On each device: the last of our presses that was followed by its own, and how many in a row were.
        self._followed: dict[tuple[str, str], tuple[int, int]] = {}

    def sent(self, emits: Iterable[Emit], at_us: int) -> None:
        """Macros press these controls now."""
        for emit in emits:
            if emit.value:
                self._sent[emit.control] = at_us, self._sent.get(emit.control, (0, 0))[1] + 1

    @property
    def controls(self) -> Collection[str]:
        """What macros have pressed: a press of another can't be an echo."""
        return self._sent.keys()

    def heard(self, control: str, device: str, at_us: int) -> bool:
        """A device reports a press: whether it is one echo too many."""
        if control not in self._sent:
            return False
        sent_us, number = self._sent[control]
        if not 0 <= at_us - sent_us <= _SOON_US:
            # A finger's. What follows on it may be a worn switch, which presses twice each time.
            self._followed.pop((control, device), None)
            return False
        last, count = self._followed.get((control, device), (0, 0))
        count = count + 1 if last == number - 1 else count if last == number else 1
        self._followed[control, device] = number, count
        return count >= _IN_A_ROW
