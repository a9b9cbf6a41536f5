"""What the programs see as held: who holds what, and the events that come of it."""

from __future__ import annotations

from nakrel.core.play.events import Emit, Output
from nakrel.core.play.ledger import Ledger

__all__ = ["FINGER", "Holds"]

# Who holds what a finger holds.
FINGER = "finger"


class Holds:
    """Puts events into `out` where a control goes down for the first of its holders, and up with the last."""

    def __init__(self, out: list[Output]) -> None:
        self._out = out
        self.ledger = Ledger()
        # What our own outputs have put down and not yet up.
        self._ours: set[str] = set()
        # Controls that are typing a secret.
        self.quiet: set[str] = set()

    def hold(self, now_us: int, holder: str, control: str, due_us: int | None = None) -> None:
        """The holder presses the control; planned for `due_us`, else now."""
        if self.ledger.press(holder, control):
            self.emit(control, 1, now_us if due_us is None else due_us, holder)

    def let_go(self, now_us: int, holder: str, control: str, due_us: int | None = None) -> None:
        """The holder lets the control go."""
        if self.ledger.release(holder, control):
            self.emit(control, 0, now_us if due_us is None else due_us, holder)

    def let_go_all(self, now_us: int, holder: str) -> None:
        """The holder lets go of everything, the last press first."""
        for control in self.ledger.release_all(holder):
            self.emit(control, 0, now_us, holder)

    def lifted(self, now_us: int, control: str) -> None:
        """A finger whose press had passed lets go, and the programs have seen it."""
        last = self.ledger.release(FINGER, control)
        if control in self._ours:
            self.emit(control, 0, now_us, FINGER)
        if not last:
            self.emit(control, 1, now_us, self.ledger.holders_of(control)[0])

    def emit(self, control: str, value: int, due_us: int, by: str) -> None:
        """The control goes down or up, or the wheel turns."""
        if not control.startswith("WHEEL"):
            (self._ours.add if value else self._ours.discard)(control)
        quiet = control in self.quiet
        if quiet and not value:
            self.quiet.discard(control)
        self._out.append(Emit(control, value, due_us, by, quiet))
