"""Texts that people read, in their language.

Every text stands in the source in English, in a call of `tr`; what a language has for it comes from a table that each
process installs before it says anything: the window Qt's (`nakrel.ui.language`), all others gettext's
(`nakrel.language`), both made of the same translations. Without one it is English.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Callable
from functools import lru_cache
from typing import NamedTuple

__all__ = [
    "Marks",
    "counted",
    "install",
    "language",
    "marks",
    "noted",
    "order_of",
    "plain",
    "sentence",
    "shown_number",
    "tr",
]

# For a text, what it is about where one word has several meanings, and a number where it depends on one; None where
# the language has nothing for it.
Table = Callable[[str, str, int | None], str | None]


class Marks(NamedTuple):
    """What stands before the decimals of a number, and between each three figures of a large one."""

    decimal: str = "."
    group: str = ","


class _Installed:
    """What this process says its texts in."""

    table: Table = staticmethod(lambda text, about, count: None)
    language = "en"
    marks = Marks()


def install(table: Table, name: str, marks: Marks = _Installed.marks) -> None:
    """From now on look texts up here, and write numbers so."""
    _Installed.table, _Installed.language, _Installed.marks = staticmethod(table), name, marks


def language() -> str:
    """The code of the language that texts are shown in, such as `de`."""
    return _Installed.language


def marks() -> Marks:
    """How numbers are written."""
    return _Installed.marks


def tr(text: str, about: str = "") -> str:
    """The text in the reader's language; `about` tells a translator which of several meanings is meant. What stands in
    braces is filled in by `format` afterwards."""
    return _Installed.table(text, about, None) or text


def counted(count: int, one: str, many: str, **values: object) -> str:
    """A text about so many things, with `{n}` for the number and other names for the `values`: languages have their
    own rules for which form it takes (English: one for 1, the other for all others)."""
    found = _Installed.table(many, "", count)
    return (found or (one if count == 1 else many)).format(n=shown_number(count), **values)


def noted(text: str, about: str = "") -> str:
    """A text that is looked up later, where it is shown: for tables that are made before there is a language."""
    return text


@lru_cache(maxsize=16_384)
def order_of(name: str) -> tuple[tuple[str | int, ...], str]:
    """What names are sorted by, where people look for them: numbers in them by what they count, letters without their
    accents, and small ones as capitals."""
    parts = unicodedata.normalize("NFKD", name.casefold())
    parts = "".join(sign for sign in parts if not unicodedata.combining(sign))
    # Words and numbers take turns, so that each is compared with one of its kind.
    return tuple(int(part) if part.isdecimal() else part for part in re.split(r"(\d+)", parts)), name


def sentence(text: str, *, stop: bool = True) -> str:
    """An error's text, which begins small and has no full stop, as it stands by itself; '' stays empty. What isn't a
    word, such as the name of a file, is left as it is. Without `stop` what it ends in can be typed as it stands."""
    ended = f"{text}." if stop and text and not text.endswith((".", "!", "?", "…", ":")) else text
    return f"{ended[:1].upper()}{ended[1:]}" if text.partition(" ")[0].isalpha() else ended


def shown_number(value: float, decimals: int = 0) -> str:
    """A number as people write it where the program runs: 12,345.6. For files it is never used."""
    decimal, group = _Installed.marks
    return f"{value:,.{decimals}f}".translate({ord(","): group, ord("."): decimal})


def plain(value: float) -> str:
    """A number with as few figures as it needs, and its decimal mark: 17.5, 60."""
    return f"{value:g}".replace(".", _Installed.marks.decimal)
