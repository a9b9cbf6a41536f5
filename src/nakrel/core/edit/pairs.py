"""Which release belongs to a press, and the other way round."""

from __future__ import annotations

from collections.abc import Collection

from nakrel.core.edit.rows import rows
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Press, Release

__all__ = ["other_ends"]


def other_ends(macro: Macro, chosen: Collection[int]) -> list[int]:
    """The rows of the releases that belong to the presses among these rows, and of the presses that belong to the
    releases, as far as they aren't among them themselves."""
    lines = [row.step for row in rows(macro)]
    found = []
    for at in sorted(chosen):
        line = lines[at]
        if not isinstance(line, Press | Release):
            continue
        sought: type = Release if isinstance(line, Press) else Press
        beyond = range(at + 1, len(lines)) if isinstance(line, Press) else range(at - 1, -1, -1)
        for other in beyond:
            there = lines[other]
            if isinstance(there, Press | Release) and there.control == line.control:
                if isinstance(there, sought) and other not in chosen:
                    found.append(other)
                break
    return found
