"""The window's language: that of the session, where there is a table for it, by Qt's translation."""

from __future__ import annotations

import os
from functools import partial
from typing import Any

from PyQt6.QtCore import QCoreApplication, QLibraryInfo, QLocale, QTranslator

from nakrel import words
from nakrel.language import FOLDER, MARKS, system_words, use, wanted

__all__ = ["choose", "translate_qt"]

_CONTEXT = "Nakrel"
# Marks that are known without Qt's table of all languages, which takes longer to make than most of the window.
_KNOWN = {"en_US": MARKS["en"], "en_GB": MARKS["en"], "de_DE": MARKS["de"]}
# The tables, kept for as long as the program runs.
_tables: list[QTranslator] = []


def choose(name: str = "") -> str:
    """Show texts in this language, else in the first of those that the user wants that there is a table for; returns
    it. Numbers are written as the session writes them (LC_NUMERIC), whatever the language is."""
    names = [name] if name else list(wanted())
    if names == ["pseudo"]:
        return use("pseudo")
    for each in names:
        if each.startswith("en"):
            break
        table = QTranslator()
        path = FOLDER / f"nakrel_{each}.qm"
        # Qt would take de for de_AT by itself, and what there is for de beside it, its documents, would not be found.
        if path.exists() and table.load(str(path)):
            _tables.append(table)
            words.install(partial(_look_up, table), each, _marks(each))
            system_words()
            return each
    words.install(lambda text, about, count: None, "en", words.Marks() if name else _marks("en"))
    return "en"


def translate_qt() -> None:
    """Say what Qt itself says in the same language: names of keys in menus, and the dialogs for files. Once there is an
    application."""
    table = QTranslator()
    folder = QLibraryInfo.path(QLibraryInfo.LibraryPath.TranslationsPath)
    if words.language() != "en" and table.load(f"qtbase_{words.language()}", folder):
        _tables.append(table)
        QCoreApplication.installTranslator(table)


def _marks(language: str) -> words.Marks:
    # What a session says of its numbers (locale(7)).
    said = [os.environ.get(name, "") for name in ("LC_ALL", "LC_NUMERIC", "LANG")]
    session = next(filter(None, said), "C").partition(".")[0].partition("@")[0]
    if session in ("C", "POSIX"):
        # A session of no language writes as Nakrel's does, one that wants its numbers like that as C does.
        return words.Marks() if said[1] and not said[0] else MARKS[language]
    if session in _KNOWN:
        return _KNOWN[session]
    system = QLocale.system()
    return words.Marks(system.decimalPoint(), system.groupSeparator())


def _look_up(table: QTranslator, text: str, about: str, count: int | None) -> str | None:
    # Qt takes bytes of UTF-8 here; PyQt's stubs know `str` alone, of which it takes what ASCII has.
    parts: Any = _CONTEXT.encode(), text.encode(), about.encode() or None, -1 if count is None else count
    return table.translate(*parts) or None
