"""What the programs see as held: who holds what, and the events that come of it."""

from __future__ import annotations

from collections.abc import Collection

from nakrel.core.play.events import Emit, Output
from nakrel.core.play.ledger import Ledger

__all__ = ["FINGER", "Holds", "is_own", "own_holder"]

# Who holds what a finger holds. What a control holds down that acts as another has that control's name behind it.
FINGER = "finger"
# And with this the name of a control whose device sends another key for it, which the finger holds.
_SENDS = f"{FINGER}: "
# Held with another key they change what that key types.
_MODIFIERS = frozenset(f"KEY_{side}{key}" for side in ("LEFT", "RIGHT") for key in ("SHIFT", "CTRL", "ALT", "META"))


class Holds:
    """Puts events into `out` where a control goes down for the first of its holders, and up with the last.

    While a macro types a text, what fingers hold and would change it is set aside: it is up for the programs, and goes
    down again afterwards where a finger is still on it. Modifiers come back when the text has been typed; keys that it
    types come back with the end of the run, since they would type more of it.
    """

    def __init__(self, out: list[Output]) -> None:
        self._out = out
        self.ledger = Ledger()
        # What our own outputs have put down and not yet up.
        self._ours: set[str] = set()
        # What fingers hold whose press has passed to the programs by itself, and as which holders.
        self._passed: dict[str, set[str]] = {}
        # Controls that are typing a secret.
        self.quiet: set[str] = set()
        # The runs that type a text now, and the keys that each run needs free of fingers.
        self.typing: set[str] = set()
        self._needed: dict[str, frozenset[str]] = {}
        # What is set aside: the holder and its control.
        self._aside: dict[tuple[str, str], None] = {}

    def hold(self, now_us: int, holder: str, control: str, due_us: int | None = None) -> None:
        """The holder presses the control; planned for `due_us`, else now."""
        if self.typing and control in _MODIFIERS and _is_finger(holder):
            self._aside[holder, control] = None
        elif self.ledger.press(holder, control):
            self.emit(control, 1, now_us if due_us is None else due_us, holder)

    def let_go(self, now_us: int, holder: str, control: str, due_us: int | None = None) -> None:
        """The holder lets the control go."""
        if self._aside and (holder, control) in self._aside:
            del self._aside[holder, control]
        elif self.ledger.release(holder, control):
            self.emit(control, 0, now_us if due_us is None else due_us, holder)

    def let_go_all(self, now_us: int, holder: str) -> None:
        """The holder lets go of everything, the last press first."""
        for aside in [aside for aside in self._aside if aside[0] == holder]:
            del self._aside[aside]
        for control in self.ledger.release_all(holder):
            self.emit(control, 0, now_us, holder)

    def holders(self) -> list[str]:
        """Everyone who holds something, also where that is set aside."""
        return list(dict.fromkeys((*self.ledger.holders(), *(holder for holder, _ in self._aside))))

    def pressed(self, now_us: int, control: str, holder: str = FINGER) -> None:
        """A finger has pressed the control, and the programs have seen it."""
        self._passed.setdefault(control, set()).add(holder)
        if not self.typing or control not in _MODIFIERS:
            self.ledger.press(holder, control)
            return
        self._aside[holder, control] = None
        if not self.ledger.is_down(control):
            self.emit(control, 0, now_us, FINGER)

    def lifted(self, now_us: int, control: str, holder: str = FINGER) -> None:
        """A finger whose press had passed lets go, and the programs have seen it."""
        passed = self._passed[control]
        passed.discard(holder)
        if not passed:
            del self._passed[control]
        if self._aside and (holder, control) in self._aside:
            del self._aside[holder, control]
            last = not self.ledger.is_down(control)
        else:
            last = self.ledger.release(holder, control)
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
        by = FINGER if by.startswith(_SENDS) else by
        self._out.append(Emit(control, value, due_us, by, quiet, not value and control in self._passed))

    # Texts

    def text_begins(self, now_us: int, run: str, keys: Collection[str]) -> bool:
        """The run types a text with these keys from now on; whether that has changed what is down."""
        self.typing.add(run)
        self._needed[run] = needed = _MODIFIERS.union(keys, self._needed.get(run, ()))
        before = len(self._out)
        for holder in self.ledger.holders():
            for control in self.ledger.held_by(holder) if _is_finger(holder) else ():
                if control in needed:
                    self._aside[holder, control] = None
                    if self.ledger.release(holder, control):
                        self.emit(control, 0, now_us, FINGER)
        return len(self._out) > before

    def text_ends(self, now_us: int, run: str) -> None:
        """The run has typed its text, or has given it up."""
        self.typing.discard(run)
        self._needed[run] -= _MODIFIERS
        self._give_back(now_us)

    def run_ends(self, now_us: int, run: str) -> None:
        """The run is over, and has let go of what it held."""
        self.typing.discard(run)
        if self._needed.pop(run, None) is not None:
            self._give_back(now_us)

    def _give_back(self, now_us: int) -> None:
        for holder, control in list(self._aside):
            if not any(control in needed for needed in self._needed.values()):
                del self._aside[holder, control]
                if self.ledger.press(holder, control):
                    self.emit(control, 1, now_us, FINGER)


def own_holder(control: str, sent: str) -> str:
    """Who holds what a finger's press of the control puts down by itself: the control, or what its device `sent`."""
    return f"{_SENDS}{control}" if sent else FINGER


def is_own(holder: str) -> bool:
    """Whether a finger holds it by its control alone, and nothing that this acts as."""
    return holder == FINGER or holder.startswith(_SENDS)


def _is_finger(holder: str) -> bool:
    return is_own(holder) or holder.startswith(f"{FINGER} ")
