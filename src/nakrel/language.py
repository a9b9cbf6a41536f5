"""Which language the texts are in: that of the user's session, where there is a table for it."""

from __future__ import annotations

import locale
import os
from collections.abc import Iterator
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING

from nakrel import words

if TYPE_CHECKING:
    import gettext

__all__ = ["FOLDER", "MARKS", "use", "wanted"]

# A table for each language: .ts for translators, .qm for the window, .mo for processes without one.
FOLDER = Path(__file__).parent / "languages"
# How numbers are written in texts (Unicode CLDR 45, symbols of each language).
MARKS = {"en": words.Marks(), "de": words.Marks(",", ".")}
_DOMAIN = "nakrel"


def wanted() -> Iterator[str]:
    """The languages that the user wants, the best first, as gettext reads them (GNU gettext manual, 2.3): from
    $LANGUAGE, $LC_ALL, $LC_MESSAGES and $LANG; $NAKREL_LANGUAGE comes before them all."""
    if own := os.environ.get("NAKREL_LANGUAGE"):
        yield own
        if "_" in own:
            yield own.partition("_")[0]
        return
    names = [os.environ.get(name, "") for name in ("LC_ALL", "LC_MESSAGES", "LANG")]
    session = next(filter(None, names), "C").partition(".")[0].partition("@")[0]
    # Where the session speaks no language, $LANGUAGE is of no account.
    if session in ("C", "POSIX"):
        return
    for each in (*os.environ.get("LANGUAGE", "").split(":"), session):
        if each:
            yield each
            yield each.partition("_")[0]


def use(name: str = "") -> str:
    """Say texts in this language, else in the first of the wanted that there is a table for; returns it. `pseudo`
    makes every text longer and marks it, to find those that aren't translated, and places that are too narrow."""
    for each in [name] if name else wanted():
        if each.startswith("en"):
            break
        if each == "pseudo":
            words.install(_pseudo, each)
            return each
        path = FOLDER / f"{_DOMAIN}_{each}.mo"
        if path.exists():
            # Who speaks English, as most of our processes do, needs nothing of this.
            import gettext

            with open(path, "rb") as file:
                table = gettext.GNUTranslations(file)
            words.install(partial(_look_up, table), each, MARKS[each])
            system_words()
            return each
    return "en"


def system_words() -> None:
    """What the system says of errors, such as that there is no such file, comes in the session's language, too."""
    try:
        locale.setlocale(locale.LC_MESSAGES, "")
    except locale.Error:
        # The system has no such language; its words are English then.
        return


def _look_up(table: gettext.GNUTranslations, text: str, about: str, count: int | None) -> str | None:
    if count is not None:
        found = table.ngettext(text, text, count)
    else:
        found = table.pgettext(about, text) if about else table.gettext(text)
    return None if found == text else found


_ACCENTS = str.maketrans("aceilnorstuyzACEILNORSTUYZ", "áçéíłñóŕšťúýžÁÇÉÍŁÑÓŔŠŤÚÝŽ")


def _pseudo(text: str, about: str, count: int | None) -> str:
    """Accented, in brackets, and longer by two fifths; what stands in braces is filled in as usual."""
    parts = []
    for at, part in enumerate(text.replace("{", "\0{").replace("}", "}\0").split("\0")):
        parts.append(part if part.startswith("{") and at else part.translate(_ACCENTS))
    return f"⟦{''.join(parts)}{'·' * (len(text) * 2 // 5)}⟧"
