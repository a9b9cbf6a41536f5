"""Controls: whatever can be pressed or turned, identified by its Linux input event code."""

from __future__ import annotations

import re
from collections.abc import Mapping
from enum import StrEnum
from typing import Annotated

import msgspec

from nakrel.core.model.control_table import TABLE
from nakrel.core.model.errors import UnknownControl, cut
from nakrel.words import noted, tr

__all__ = [
    "CONTROLS",
    "GAME",
    "KNOWN",
    "OF_WINDOWS",
    "OPEN",
    "OTHERS",
    "POINTER",
    "TEXT",
    "Code",
    "Control",
    "Kind",
    "Levels",
    "by_number",
    "control",
    "game_key",
    "game_key_name",
    "key_of",
    "label",
    "labels_in_use",
    "named_as_in_us",
    "pressable",
    "printed_beside",
    "second",
    "use_labels",
]


class Kind(StrEnum):
    """What sort of control it is; every view gives each kind its own hue, glyph and word."""

    KEY = "key"
    BUTTON = "button"
    WHEEL = "wheel"


class Control(msgspec.Struct, frozen=True):
    """One key, mouse button or wheel direction.

    `number` is the event code (EV_KEY for keys and buttons, EV_REL for the wheel directions); `part` is the
    group it is listed under; `label` is what people call it in English.
    """

    code: str
    number: int
    part: str
    label: str
    kind: Kind


# A control's code inside a macro or a profile. It is checked against the table where the struct is made.
Code = Annotated[str, msgspec.Meta(min_length=1, max_length=64)]

# The characters that a key makes by itself, with Shift, with AltGr, with both; "" for none.
Levels = tuple[str, str, str, str]

# The wheel has two axes (REL_WHEEL 8, REL_HWHEEL 6, input-event-codes.h); each direction is a control.
_WHEEL = (
    ("WHEEL_UP", 8, "Wheel up"),
    ("WHEEL_DOWN", 8, "Wheel down"),
    ("WHEEL_LEFT", 6, "Wheel left"),
    ("WHEEL_RIGHT", 6, "Wheel right"),
)


def _read_table() -> dict[str, Control]:
    found = {}
    for line in TABLE.splitlines():
        number, code, part, text = line.split(" ", 3)
        kind = Kind.KEY if code.startswith("KEY_") else Kind.BUTTON
        found[code] = Control(code, int(number), part, text, kind)
    for code, axis, text in _WHEEL:
        found[code] = Control(code, axis, "wheel", text, Kind.WHEEL)
    return found


CONTROLS: dict[str, Control] = _read_table()
# A key of a second keyboard, apart from the first's, has this before its code. Such a key starts things and is never
# sent, so it has no number; `KNOWN` has all that a finger can press or turn.
_SECOND = "SECOND:"
KNOWN: dict[str, Control] = CONTROLS | {
    f"{_SECOND}{c.code}": msgspec.structs.replace(c, code=f"{_SECOND}{c.code}", number=-1)
    for c in CONTROLS.values()
    if c.kind is Kind.KEY
}
# What a macro does besides pressing controls: such events bear one of these names in a control's place.
POINTER, TEXT, OPEN = "POINTER", "TEXT", "OPEN"
OTHERS = {POINTER: noted("Pointer", "key"), TEXT: noted("Text", "key"), OPEN: noted("Program", "key")}
# A game's own name for one of its keys stands in a control's place with this before it.
GAME = "GAME:"
_GAME_KEY = re.compile(r'[^\s"\\+#][^"\\+#\n]{0,38}[^\s"\\+#]|[^\s"\\+#]')
# What a window is worked with: every key, the three buttons that each mouse has, and the wheel.
OF_WINDOWS = frozenset(
    {code for code, c in KNOWN.items() if c.kind in (Kind.KEY, Kind.WHEEL)} | {"BTN_LEFT", "BTN_RIGHT", "BTN_MIDDLE"}
)
_BY_NUMBER = {c.number: c for c in CONTROLS.values() if c.kind is not Kind.WHEEL}


def control(code: str) -> Control:
    """Return the control with this code, or what stands for a game key until its profile says which it is (a key
    without a number); raises `UnknownControl` with the nearest codes as a suggestion."""
    try:
        return CONTROLS[code]
    except KeyError:
        if code.startswith(GAME) and _GAME_KEY.fullmatch(code.removeprefix(GAME)):
            return Control(code, -1, "game", label(code), Kind.KEY)
        # Only a slip needs it.
        import difflib

        near = difflib.get_close_matches(code.upper(), CONTROLS, n=3, cutoff=0.6)
        if near:
            wrong = tr("unknown key or button {code!r}; did you mean {near}?").format(
                code=cut(code), near=tr(" or ").join(near)
            )
        else:
            wrong = tr("unknown key or button {code!r}; `nakrel controls` lists all codes").format(code=cut(code))
        raise UnknownControl(wrong) from None


def pressable(code: str) -> Control:
    """The same for what a finger presses or turns, which may be a key of a second keyboard."""
    return KNOWN.get(code) or control(code)


def by_number(number: int) -> Control | None:
    """The key or button with this EV_KEY event code, or None where the table has none."""
    return _BY_NUMBER.get(number)


class _InUse:
    """What this process calls keys by what is printed on them, where it isn't what the table says."""

    labels: Mapping[str, str] = {}
    beside: Mapping[str, str] = {}


def use_labels(labels: Mapping[str, str], beside: Mapping[str, str] | None = None) -> bool:
    """From now on call these keys so, and all others as the table does; returns whether any is called otherwise.

    `beside` are letters of another alphabet that keys are found by, too, as small ones, with the code of each.
    """
    changed = labels != _InUse.labels
    _InUse.labels, _InUse.beside = dict(labels), dict(beside or {})
    return changed


def labels_in_use() -> Mapping[str, str]:
    """What keys are called that aren't called as in the table."""
    return _InUse.labels


def named_as_in_us() -> bool:
    """Whether keys are called and found by what the US layout has on them alone."""
    return not (_InUse.labels or _InUse.beside)


def printed_beside(letter: str) -> str:
    """The code of the key that has this letter of another alphabet printed on it, beside that of ours; '' for none."""
    return _InUse.beside.get(letter.casefold(), "")


def label(code: str, layer: str = "", *, printed: bool = True) -> str:
    """What people call the control in their language, with its layer if that is given; the code itself where the
    table doesn't know it. A key is called by what is printed on it, as far as that is known; else, and without
    `printed`, by what a keyboard of the US layout has."""
    if layer:
        return tr("{button} with {layer}").format(button=label(code), layer=layer)
    if printed and (own := _InUse.labels.get(code)):
        return own
    known = CONTROLS.get(code)
    if known:
        return tr(known.label, "key")
    if code in KNOWN:
        return tr("{key} (2nd)").format(key=label(key_of(code), printed=printed))
    return f"“{code.removeprefix(GAME)}”" if code.startswith(GAME) else tr(OTHERS.get(code, code), "key")


def second(code: str) -> str:
    """The code of a key when it is a second keyboard's; that of any other control stays as it is."""
    return f"{_SECOND}{code}" if code.startswith("KEY_") else code


def key_of(code: str) -> str:
    """The key itself in the code of a second keyboard's key; any other code as it is."""
    return code.removeprefix(_SECOND)


def game_key(name: str) -> str:
    """The code of a game key. Raises `UnknownControl` for a name that can't be one."""
    if not _GAME_KEY.fullmatch(name):
        raise UnknownControl(
            tr("{name!r} can't be a game key's name: write up to 40 characters without \", \\, + and #").format(
                name=cut(name)
            )
        )
    return GAME + name


def game_key_name(code: str) -> str:
    """The name in a game key's code, '' for the code of a control."""
    return code.removeprefix(GAME) if code.startswith(GAME) else ""
