"""The window's language: that of the session, where there is a table for it, by Qt's translation."""

from __future__ import annotations

from functools import partial
from typing import Any

from PyQt6.QtCore import QCoreApplication, QLibraryInfo, QLocale, QTranslator

from nakrel import words
from nakrel.language import FOLDER, MARKS, system_words, use, wanted

__all__ = ["choose", "translate_qt"]

_CONTEXT = "Nakrel"
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
        if table.load(str(FOLDER / f"nakrel_{each}.qm")):
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
    session = QLocale.system()
    # By its name: Qt's table of all languages takes longer to make than most of the window.
    if session.name() == "C":
        return MARKS[language]
    return words.Marks(session.decimalPoint(), session.groupSeparator())


def _look_up(table: QTranslator, text: str, about: str, count: int | None) -> str | None:
    # Qt takes bytes of UTF-8 here; PyQt's stubs know `str` alone, of which it takes what ASCII has.
    parts: Any = _CONTEXT.encode(), text.encode(), about.encode() or None, -1 if count is None else count
    return table.translate(*parts) or None
