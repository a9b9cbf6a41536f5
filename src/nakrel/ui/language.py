"""The window's language: that of the desktop, where there is a table for it."""

from __future__ import annotations

import os
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QLocale, QTranslator

from nakrel import words

__all__ = ["choose"]

_FOLDER = Path(__file__).parent / "languages"
_CONTEXT = "Nakrel"
# The tables, kept for as long as the program runs.
_tables: list[QTranslator] = []


def choose(name: str = "") -> str:
    """Show texts in this language, else in the one that $NAKREL_LANGUAGE names, else in the first of the desktop's that
    there is a table for; returns it. `pseudo` makes every text longer and marks it, to find those that aren't
    translated, and places that are too narrow."""
    wanted = [name or os.environ.get("NAKREL_LANGUAGE", "")]
    if wanted == ["pseudo"]:
        words.install(_pseudo)
        return "pseudo"
    if wanted == [""]:
        wanted = [each.replace("-", "_") for each in QLocale.system().uiLanguages()]
    for each in wanted:
        if each.startswith("en"):
            break
        table = QTranslator()
        if table.load(str(_FOLDER / f"nakrel_{each}.qm")):
            _tables.append(table)
            words.install(partial(_look_up, table))
            return each
    return "en"


def _look_up(table: QTranslator, text: str, number: int | None) -> str | None:
    return table.translate(_CONTEXT, text, "", -1 if number is None else number)


_ACCENTS = str.maketrans("aceilnorstuyzACEILNORSTUYZ", "áçéíłñóŕšťúýžÁÇÉÍŁÑÓŔŠŤÚÝŽ")


def _pseudo(text: str, number: int | None) -> str:
    """Accented, in brackets, and longer by two fifths; what stands in braces is filled in as usual."""
    parts = []
    for at, part in enumerate(text.replace("{", "\0{").replace("}", "}\0").split("\0")):
        parts.append(part if part.startswith("{") and at else part.translate(_ACCENTS))
    return f"⟦{''.join(parts)}{'·' * (len(text) * 2 // 5)}⟧"
