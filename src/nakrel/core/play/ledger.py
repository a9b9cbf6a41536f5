"""The ledger of holds: who holds which control.

A control is down from the moment its first holder presses it until its last holder lets go, so a finger and a
macro, or two macros, never cut each other's hold short.
"""

from __future__ import annotations

__all__ = ["Ledger"]


class Ledger:
    """Holders are any strings; each holder's controls are remembered in the order of pressing."""

    def __init__(self) -> None:
        self._by_control: dict[str, int] = {}
        self._by_holder: dict[str, dict[str, None]] = {}

    def press(self, holder: str, control: str) -> bool:
        """Note the hold; True when the control has to go down now (nobody held it before)."""
        held = self._by_holder.setdefault(holder, {})
        if control in held:
            return False
        held[control] = None
        count = self._by_control.get(control, 0)
        self._by_control[control] = count + 1
        return count == 0

    def release(self, holder: str, control: str) -> bool:
        """Strike the hold out; True when the control has to go up now (nobody else holds it)."""
        held = self._by_holder.get(holder, {})
        if control not in held:
            return False
        del held[control]
        if not held:
            del self._by_holder[holder]
        count = self._by_control.pop(control) - 1
        if count:
            self._by_control[control] = count
        return count == 0

    def release_all(self, holder: str) -> list[str]:
        """Strike out all the holder's holds; the controls that have to go up, in reverse order of pressing."""
        held = list(self._by_holder.get(holder, ()))
        return [control for control in reversed(held) if self.release(holder, control)]

    def holders(self) -> list[str]:
        """Everyone who holds something."""
        return list(self._by_holder)

    def holders_of(self, control: str) -> list[str]:
        """Everyone who holds this control."""
        return [holder for holder, held in self._by_holder.items() if control in held]

    def held_by(self, holder: str) -> tuple[str, ...]:
        """What this one holds, in the order of pressing."""
        return tuple(self._by_holder.get(holder, ()))

    def is_down(self, control: str) -> bool:
        """Whether anyone holds the control."""
        return control in self._by_control

    def down(self) -> set[str]:
        """Every control that is held by anyone."""
        return set(self._by_control)
