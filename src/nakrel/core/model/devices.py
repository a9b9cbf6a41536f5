"""Devices as people see them, and what of their motion can be changed."""

from __future__ import annotations

from collections.abc import Collection
from enum import StrEnum
from typing import NamedTuple

import msgspec

from nakrel.core.model.controls import key_of, second
from nakrel.words import noted, tr

__all__ = [
    "LEVELS",
    "OWN_WINDOW",
    "THUMB_KEYS",
    "Battery",
    "Device",
    "KeyNaming",
    "KeysAs",
    "battery_words",
    "is_named",
]

# What stands for a client's own window where it tells of the presses that reach it.
OWN_WINDOW = "window"


# What many mice send with the thumb buttons that they carry by the dozen: the digit row, or the keypad (common
# practice, no published source). Such a key can count as the button that it is.
THUMB_KEYS: dict[str, str] = {
    key: f"BTN_TRIGGER_HAPPY{number}"
    for keys in ("1 2 3 4 5 6 7 8 9 0 MINUS EQUAL", "KP1 KP2 KP3 KP4 KP5 KP6 KP7 KP8 KP9 KP0 KPMINUS KPPLUS")
    for number, key in enumerate((f"KEY_{name}" for name in keys.split()), 1)
}


class KeysAs(StrEnum):
    """What the keys of a device count as: keys like any, with the numbers as a mouse's thumb buttons, or as a second
    keyboard's."""

    KEYS = "keys"
    THUMBS = "thumbs"
    SECOND = "second"

    def called(self, key: str) -> str:
        """What a control of the device goes by."""
        if self is KeysAs.THUMBS:
            return THUMB_KEYS.get(key, key)
        return second(key) if self is KeysAs.SECOND else key

    def behind(self, code: str) -> tuple[str, ...]:
        """The device's controls that go by this code."""
        if self is KeysAs.THUMBS:
            keys = (key for key, thumb in THUMB_KEYS.items() if thumb == code)
            return (*keys, *(() if code in THUMB_KEYS else (code,)))
        if self is KeysAs.SECOND:
            return (key_of(code),) if second(key_of(code)) == code else ()
        return (code,) if key_of(code) == code else ()


def is_named(name: str, names: Collection[str]) -> bool:
    """Whether a part of a device goes by one of these names: each interface has the device's own, some with a word
    more."""
    return any(name == each or name.startswith(f"{each} ") for each in names)


class KeyNaming(NamedTuple):
    """Whose keys count as what, by the names of devices: those with thumb buttons, and second keyboards."""

    thumbs: tuple[str, ...] = ()
    second: tuple[str, ...] = ()

    def of(self, name: str, *, whole: bool = True) -> KeysAs:
        """What the keys of a device of this name count as; the name may be that of a part where it isn't `whole`."""
        for how, names in ((KeysAs.THUMBS, self.thumbs), (KeysAs.SECOND, self.second)):
            if name in names if whole else is_named(name, names):
                return how
        return KeysAs.KEYS


class Device(msgspec.Struct, frozen=True):
    """A device as the window lists it: the controls it has, how it's read, and whether it is a stand-in.

    `note` is its present state in words and `trouble` whether that is one to be mended; `where` is the file by which
    the system knows it, '' for none, and `nodes` the event nodes of its parts.
    """

    id: str
    name: str
    controls: tuple[str, ...]
    how: str
    standin: bool = False
    note: str = ""
    trouble: bool = False
    where: str = ""
    nodes: tuple[str, ...] = ()


class Battery(msgspec.Struct, frozen=True):
    """The battery of a device: the name that it gives itself, how full it is in percent, or only in a word (`low`), and
    whether it is being charged; `nodes` are event nodes of its device."""

    name: str
    percent: int | None = None
    level: str = ""
    charging: bool = False
    nodes: tuple[str, ...] = ()


# What the kernel calls the levels where it knows no percentage (Linux, ABI testing/sysfs-class-power).
LEVELS = (
    noted("critical", "battery"),
    noted("low", "battery"),
    noted("normal", "battery"),
    noted("high", "battery"),
    noted("full", "battery"),
)


def battery_words(battery: Battery) -> str:
    """How full it is, as people say it."""
    full = f"{battery.percent} %" if battery.percent is not None else tr(battery.level, "battery")
    words = tr("battery {full}, charging") if battery.charging else tr("battery {full}")
    return words.format(full=full)
