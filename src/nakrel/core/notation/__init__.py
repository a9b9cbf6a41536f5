"""Macros as text: one step a line, in plain imperatives. The grammar is in docs/notation.md.

Reading what was written gives the same steps; writing what was read gives the text in its usual form.
"""

from nakrel.core.notation.complete import completed, completions
from nakrel.core.notation.lines import NotationError
from nakrel.core.notation.read import read, read_shown_steps, read_steps
from nakrel.core.notation.statements import read_span, read_time
from nakrel.core.notation.write import shown_line, write, write_line, write_steps

__all__ = [
    "NotationError",
    "completed",
    "completions",
    "read",
    "read_shown_steps",
    "read_span",
    "read_steps",
    "read_time",
    "shown_line",
    "write",
    "write_line",
    "write_steps",
]
