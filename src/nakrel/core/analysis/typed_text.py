"""The text that keys make in a program."""

from __future__ import annotations

from collections.abc import Mapping

from nakrel.core.model.controls import Levels

__all__ = ["TypedText"]

_SHIFT = frozenset({"KEY_LEFTSHIFT", "KEY_RIGHTSHIFT"})
_ALT_GR = frozenset({"KEY_RIGHTALT"})
# With one of these a key is a command.
_COMMAND = frozenset({"KEY_LEFTCTRL", "KEY_RIGHTCTRL", "KEY_LEFTALT", "KEY_LEFTMETA", "KEY_RIGHTMETA"})


class TypedText:
    """Follows keys going down and up, and tells what each makes. Caps Lock is taken to be off."""

    def __init__(self, levels: Mapping[str, Levels]) -> None:
        self._levels = levels
        self._down: set[str] = set()

    def feed(self, control: str, value: int) -> str:
        """What a key makes as it goes down (1) or up (0); "" for nothing."""
        if not value:
            self._down.discard(control)
            return ""
        self._down.add(control)
        if self._down & _COMMAND or (levels := self._levels.get(control)) is None:
            return ""
        return levels[bool(self._down & _SHIFT) + 2 * bool(self._down & _ALT_GR)]
