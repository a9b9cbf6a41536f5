"""The names by which people write controls: in the notation, in formulas, in the builders' fields."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable
from functools import lru_cache

from nakrel.core.model.controls import (
    CONTROLS,
    Control,
    game_key,
    game_key_name,
    label,
    labels_in_use,
    named_as_in_us,
    printed_beside,
)
from nakrel.core.model.errors import DataError, cut
from nakrel.words import language, tr

__all__ = [
    "fits",
    "line_name",
    "name_of",
    "rank",
    "read_control",
    "read_shown",
    "shown_formula",
    "shown_name",
    "spelled_everywhere",
    "typed_formula",
]

# What a label must be like to stand in a line: no sign that the notation uses, and none of its small words.
_PLAIN = re.compile(r"(?!.*\b(?:for|by|to)\b)[\w'./;,=\[\]\\`-]+( [\w'./;,=\[\]\\`-]+)*")


def _plain_names() -> dict[str, str]:
    """The name of each control in a line: its label where that can stand there and means it alone, else its label with
    its kind, else its code."""
    labels = Counter(control.label.casefold() for control in CONTROLS.values())
    kinds = Counter((control.label.casefold(), control.kind) for control in CONTROLS.values())
    names = {}
    for code, control in CONTROLS.items():
        small = control.label.casefold()
        if _PLAIN.fullmatch(control.label) and labels[small] == 1:
            names[code] = control.label
        elif _PLAIN.fullmatch(control.label) and kinds[small, control.kind] == 1:
            names[code] = f"{control.label} {control.kind.value}"
        else:
            names[code] = code
    return names


_NAMES = _plain_names()
# What formulas ask of a key or button, as in held("Left Shift").
_HELD = re.compile(r"""(\bheld\s*\(\s*)("[^"]*"|'[^']*')(?=\s*\))""")
# Other names that people write, and those that texts of earlier versions have.
_ALSO = {
    "up": "KEY_UP",
    "down": "KEY_DOWN",
    "left key": "KEY_LEFT",
    "right key": "KEY_RIGHT",
    "left button": "BTN_LEFT",
    "right button": "BTN_RIGHT",
    "left mouse button": "BTN_LEFT",
    "right mouse button": "BTN_RIGHT",
}
_CODES = _ALSO | {name.casefold(): code for code, name in _NAMES.items()} | {code.casefold(): code for code in CONTROLS}


def name_of(code: str) -> str:
    """What the control is called in a line of text; a game key stands in quotes."""
    return f'"{game_key_name(code)}"' if code not in _NAMES else _NAMES[code]


def shown_name(code: str) -> str:
    """What the control is called where people choose and type it, in their language and by what is printed on its key;
    `read_shown` reads it back."""
    text = label(code)
    if code in labels_in_use():
        return text
    small = text.casefold()
    if language() == "en" or _CODES.get(small, code) != code or _translated(language()).get(small) != code:
        return name_of(code)
    return text


def read_shown(name: str) -> str:
    """The code of the control that is called so where people choose and type it: by what is printed on its key, a
    letter of another alphabet beside ours included, else as `read_control` reads it. Raises `DataError`."""
    small = name.strip().casefold()
    found = (code for code, text in labels_in_use().items() if text.casefold() == small)
    return next(found, None) or printed_beside(small) or read_control(name)


def line_name(code: str) -> str:
    """What the control is called in a line of text that is shown and typed here alone: as `shown_name` says, where that
    can stand there; `read_shown` reads it back."""
    for name in (shown_name(code), name_of(code)):
        if (_PLAIN.fullmatch(name) or code not in _NAMES) and _shown_code(name) == code:
            return name
    return code


def _shown_code(name: str) -> str:
    try:
        return read_shown(name)
    except DataError:
        return ""


def _names_in_formula(formula: str, read: Callable[[str], str], write: Callable[[str], str]) -> str:
    """The formula with the keys and buttons that it asks about called otherwise: `read` gives the code of a name, and
    `write` the name of a code. A name that can't be read stays, as does a game's own."""
    if "held" not in formula:
        return formula

    def renamed(found: re.Match[str]) -> str:
        name = found[2][1:-1]
        try:
            new = write(code) if (code := read(name)) in _NAMES else name
        except DataError:
            new = name
        # Formulas have no sign for a quote within quotes.
        return found[0] if new == name or '"' in new else f'{found[1]}"{new}"'

    return _HELD.sub(renamed, formula)


def shown_formula(formula: str) -> str:
    """The formula as it is shown and typed here alone, with keys called as `line_name` says."""
    if language() == "en" and not labels_in_use():
        return formula
    return _names_in_formula(formula, read_control, line_name)


def typed_formula(formula: str) -> str:
    """The formula that was typed here, where keys are called as they are shown."""
    if named_as_in_us():
        return formula
    return _names_in_formula(formula, read_shown, name_of)


def spelled_everywhere(formula: str) -> str:
    """The formula as it is read in every language."""
    if "held" not in formula:
        return formula

    def read(name: str) -> str:
        # What all languages know stays as it was written.
        return "" if name.strip().casefold() in _CODES else read_control(name)

    return _names_in_formula(formula, read, name_of)


def read_control(name: str) -> str:
    """The code of the control with this name or code, or of the game key whose name stands in quotes: in texts that
    are read on other keyboards, too, keys go by what the US layout has on them. Raises `DataError` with the nearest
    names."""
    name = name.strip()
    if not name:
        raise DataError(tr("which key or button? Write its name, as in: press Left Shift"))
    if len(name) > 2 and name[0] == name[-1] == '"':
        return game_key(name[1:-1])
    if code := _CODES.get(name.casefold()) or _translated(language()).get(name.casefold()):
        return code
    if name.startswith('"'):
        raise DataError(tr("the quotes are not closed; put them at the end of the name as well"))
    near = [name_of(code) for code, control in CONTROLS.items() if fits(control, name.casefold())][:3]
    if not near:
        # Only a slip needs it.
        from difflib import get_close_matches

        codes = [_CODES[found] for found in get_close_matches(name.casefold()[:40], _CODES, 3, 0.7)]
        near = [name_of(code) for code in dict.fromkeys(codes)]
    if near:
        raise DataError(
            tr("there is no key or button {name!r}; did you mean {near}?").format(
                name=cut(name), near=tr(" or ").join(near)
            )
        )
    raise DataError(
        tr("there is no key or button {name!r}; names are such as Q, Left Shift or Thumb back").format(name=cut(name))
    )


@lru_cache(maxsize=1)
def _translated(language: str) -> dict[str, str]:
    """The codes of controls by their labels in this language, which is the one that they are shown in; without labels
    that several have."""
    labels = [(label(code, printed=False).casefold(), code) for code in CONTROLS]
    counts = Counter(name for name, _ in labels)
    return {name: code for name, code in labels if counts[name] == 1}


def rank(name: str, typed: str) -> int | None:
    """How well what was typed fits a name: 0 is the name itself, 1 its beginning, 2 the beginning of a word in it, 3 a
    part of it; None where it doesn't fit. Capital letters count as small ones."""
    name, typed = name.casefold(), typed.strip().casefold()
    if typed not in name:
        return None
    if name == typed:
        return 0
    if name.startswith(typed):
        return 1
    return 2 if re.search(rf"(?<!\w){re.escape(typed)}", name) else 3


def fits(control: Control, typed: str) -> bool:
    """Whether `typed` (in small letters) is a part of the control's name or code."""
    return typed in _NAMES[control.code].casefold() or typed in control.code.casefold()
