"""What the keys of the keyboard in use are called: by what is printed on them, which their codes don't tell.

A code names a place on the keyboard: KEY_Q is the key right of Tab, which has an A on it in France.
"""

from __future__ import annotations

import unicodedata
from collections import Counter
from collections.abc import Mapping

from nakrel.core.model.controls import CONTROLS, Levels, label

__all__ = ["labels_by", "letters_beside"]

# What the US layout has on the keys that layouts differ in (xkeyboard-config, symbols/us); the key beside the left
# Shift isn't there. Its other keys are called the same everywhere, and its digits are looked at on their own.
_US = {letter: letter for letter in "QWERTYUIOPASDFGHJKLZXCVBNM"} | {
    "GRAVE": "`", "MINUS": "-", "EQUAL": "=", "LEFTBRACE": "[", "RIGHTBRACE": "]", "SEMICOLON": ";",
    "APOSTROPHE": "'", "BACKSLASH": "\\", "COMMA": ",", "DOT": ".", "SLASH": "/", "102ND": "",
}  # fmt: skip
_DIGITS = "1234567890"
# The words for signs are those of the keys that have them there.
_SIGNS = {sign: f"KEY_{name}" for name, sign in _US.items() if sign and not sign.isalpha()}


def labels_by(legends: Mapping[str, str], levels: Mapping[str, Levels]) -> dict[str, str]:
    """What each key is called that isn't called as on a keyboard of the US layout, by what is printed on it and the
    characters that it makes (`Typist`). No two controls get the same label.

    Where the letters are none of the Latin alphabet there is none: such keyboards have both printed on them.
    """
    if letters_beside(legends):
        return {}
    # A key that makes nothing by itself has an accent. It has one in the US layout for many languages, too, the keys
    # of which are printed as ever.
    makes = {name for name in _US if levels.get(f"KEY_{name}", ("",))[0]}
    if all(legends.get(f"KEY_{name}") == sign for name, sign in _US.items() if name in makes and name != "102ND"):
        return {}
    printed = {code: legends[code] for name, sign in _US.items() if legends.get(code := f"KEY_{name}", sign) != sign}
    for digit in _DIGITS:
        code = f"KEY_{digit}"
        # Where digits come with Shift the keys are called by them all the same.
        if (legend := legends.get(code, digit)) != digit and levels.get(code, ("",) * 4)[1] != digit:
            printed[code] = legend
    return _told_apart({code: _word(legend) for code, legend in printed.items()})


def letters_beside(legends: Mapping[str, str]) -> dict[str, str]:
    """The code of each key by the letter that is printed on it beside that of the Latin alphabet, as a small one; none
    in layouts whose letters are of that alphabet."""
    found = {code: legends.get(code, "") for code in (f"KEY_{name}" for name in _US)}
    others = {code: letter for code, letter in found.items() if letter.isalpha() and not _is_latin(letter)}
    if not any(len(code) == len("KEY_Q") for code in others):
        return {}
    return {letter.casefold(): code for code, letter in others.items()}


def _is_latin(letter: str) -> bool:
    return unicodedata.name(letter, "").startswith("LATIN")


def _word(legend: str) -> str:
    return label(_SIGNS[legend], printed=False) if legend in _SIGNS else legend


def _told_apart(found: dict[str, str]) -> dict[str, str]:
    """These without what two keys would be called, or a key and one that keeps its name: they keep theirs."""
    table = {code: label(code, printed=False) for code in CONTROLS}
    while True:
        names = Counter(text.casefold() for text in (table | found).values())
        left = {code: text for code, text in found.items() if names[text.casefold()] == 1}
        if len(left) == len(found):
            return left
        found = left
