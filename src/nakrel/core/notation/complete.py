"""What could come next in a line that is being typed."""

from __future__ import annotations

import re

from nakrel.core.model.controls import CONTROLS, Kind
from nakrel.core.model.names import fits, name_of

__all__ = ["completed", "completions"]

_WORDS = (
    "tap",
    "press",
    "release",
    "wait",
    "turn",
    "move to",
    "move by",
    "type",
    "open",
    "set",
    "repeat",
    "if",
    "else:",
    "random choice:",
    "skip",
)


def completions(line: str) -> list[str]:
    """What could stand at the end of the line instead of its last word: words of the notation, or names of controls."""
    start = line.lstrip()
    verb, space, rest = start.removeprefix("skip ").partition(" ")
    if not space:
        return [word for word in _WORDS if word.startswith(verb.lower())]
    if verb.lower() not in ("tap", "press", "release", "turn") or re.search(r" (for|by) ", rest):
        return []
    typed = re.split(r"\+ *", rest)[-1].casefold()
    wanted = (Kind.WHEEL,) if verb.lower() == "turn" else (Kind.KEY, Kind.BUTTON)
    found = [code for code, control in CONTROLS.items() if control.kind in wanted and fits(control, typed)]
    names = [name_of(code) for code in found]
    return sorted(names, key=lambda name: not name.casefold().startswith(typed))


def completed(line: str, completion: str) -> str:
    """The line with one of its completions in place of what was typed of it."""
    parts = line.split(" ")
    for start in range(len(parts)):
        typed = " ".join(parts[start:])
        if typed and typed.casefold() in completion.casefold():
            return line[: len(line) - len(typed)] + completion
    return line + completion
