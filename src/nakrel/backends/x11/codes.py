"""Controls and their numbers under X.

Keys: keycode = event code + 8 (xkeyboard-config, keycodes/evdev). Buttons: 1 to 3 are left, middle, right, 4 to 7
the wheel, and from 8 on button = code - BTN_SIDE + 8 (xf86-input-libinput, btn_linux2xorg).
"""

from __future__ import annotations

from nakrel.core.model.controls import CONTROLS, Kind, by_number, control
from nakrel.core.model.devices import KeysAs

__all__ = ["control_of_button", "control_of_keycode", "number_of", "numbers_of", "spare_key"]

_KEYCODE_OFFSET = 8
_BTN_SIDE = CONTROLS["BTN_SIDE"].number
_FIRST_SIDE_BUTTON = 8
_BUTTONS = {
    1: "BTN_LEFT",
    2: "BTN_MIDDLE",
    3: "BTN_RIGHT",
    4: "WHEEL_UP",
    5: "WHEEL_DOWN",
    6: "WHEEL_LEFT",
    7: "WHEEL_RIGHT",
}
_NUMBERS = {code: number for number, code in _BUTTONS.items()}
_MAX = 255
# Keys that are lent to a character; see `SpareKeys`.
_SPARE = "SPARE_"


def spare_key(keycode: int) -> str:
    """What a key that is lent to a character goes by, in a control's place."""
    return f"{_SPARE}{keycode}"


def control_of_keycode(keycode: int) -> str | None:
    """The key's control, None where the table has none."""
    found = by_number(keycode - _KEYCODE_OFFSET)
    return found.code if found else None


def control_of_button(button: int) -> str | None:
    """The button's or wheel direction's control, None where the table has none."""
    if button in _BUTTONS:
        return _BUTTONS[button]
    found = by_number(button - _FIRST_SIDE_BUTTON + _BTN_SIDE)
    return found.code if found and found.kind is Kind.BUTTON else None


def numbers_of(code: str, keys_as: KeysAs) -> list[tuple[bool, int]]:
    """Each key (True, its keycode) or button (False, its number) that is this control on a device whose keys count as
    that."""
    return [found for each in keys_as.behind(code) if (found := number_of(each))]


def number_of(code: str) -> tuple[bool, int] | None:
    """Whether the control is a key, and its keycode or button number; None where X has no number for it."""
    if code in _NUMBERS:
        return False, _NUMBERS[code]
    if code.startswith(_SPARE):
        return True, int(code.removeprefix(_SPARE))
    known = control(code)
    if known.kind is Kind.KEY:
        number = known.number + _KEYCODE_OFFSET
        return (True, number) if number <= _MAX else None
    number = known.number - _BTN_SIDE + _FIRST_SIDE_BUTTON
    return (False, number) if number <= _MAX else None
