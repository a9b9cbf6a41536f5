"""Texts that people read, in their language.

Every text stands in the source in English, in a call of `tr`; what a language has for it comes from a table that the
window installs before anything is shown (`nakrel.ui.language`). Without one it is English.
"""

from __future__ import annotations

from collections.abc import Callable

__all__ = ["counted", "install", "noted", "tr"]

# For a text and, where it depends on one, a number; None where the language has nothing for it.
Table = Callable[[str, int | None], str | None]

_table: Table = lambda text, number: None  # noqa: E731 - the one that stands here until another is installed


def install(table: Table) -> None:
    """From now on look texts up here."""
    global _table
    _table = table


def tr(text: str) -> str:
    """The text in the reader's language. What stands in braces is filled in by `format` afterwards."""
    return _table(text, None) or text


def counted(number: int, one: str, many: str) -> str:
    """A text about so many things, with `{n}` for the number: languages have their own rules for which form it takes
    (English: one for 1, the other for all others)."""
    found = _table(many, number)
    return (found or (one if number == 1 else many)).format(n=f"{number:,}")


def noted(text: str) -> str:
    """A text that is looked up later, where it is shown: for tables that are made before there is a language."""
    return text
