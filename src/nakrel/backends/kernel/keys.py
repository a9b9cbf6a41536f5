"""What the keys and buttons of a node are called."""

from __future__ import annotations

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.nodes import Abilities
from nakrel.core.model.controls import KNOWN, Kind, by_number
from nakrel.core.model.devices import KeysAs
from nakrel.core.play.events import Pressed, Released

__all__ = ["Keys"]


class Keys:
    """Each as the table of controls has it, or as what the keys of the device count as."""

    def __init__(self, abilities: Abilities) -> None:
        self._numbers = abilities.codes.get(abi.EV_KEY, frozenset())
        self._axes = abilities.codes.get(abi.EV_REL, frozenset())
        # By number, those that are called otherwise than in the table.
        self._called: dict[int, str] = {}
        self.controls = self._own_controls()

    def count_as(self, how: KeysAs) -> list[int]:
        """What the keys count as from now on; the numbers of those that are called otherwise than before."""
        before = self._called
        self._called = {n: called for n in self._numbers if (called := how.called(own := _code(n))) != own}
        self.controls = self._own_controls()
        return sorted(n for n in {*before, *self._called} if before.get(n) != self._called.get(n))

    def _own_controls(self) -> tuple[str, ...]:
        """All controls, in the table's order."""
        have = {self._called.get(number) or _code(number) for number in self._numbers}
        return tuple(
            code
            for code, control in KNOWN.items()
            if (control.number in self._axes if control.kind is Kind.WHEEL else code in have)
        )

    def numbers(self, code: str) -> list[int]:
        """The numbers of the keys and buttons that are called so."""
        own = KNOWN[code].number
        others = [number for number, called in self._called.items() if called == code]
        return others if own in self._called or own not in self._numbers else [own, *others]

    def pressed(self, number: int, passed: bool) -> Pressed | None:
        """The press of one; None where the table has none of this number."""
        if called := self._called.get(number):
            return Pressed(called, passed, _code(number))
        known = by_number(number)
        return Pressed(known.code, passed) if known else None

    def released(self, number: int) -> Released | None:
        """The release of one, likewise."""
        if called := self._called.get(number):
            return Released(called, _code(number))
        known = by_number(number)
        return Released(known.code) if known else None


def _code(number: int) -> str:
    """The control with this number, '' where the table has none."""
    known = by_number(number)
    return known.code if known else ""
