"""Devices as people see them, and what of their motion can be changed."""

from __future__ import annotations

import msgspec

from nakrel.words import noted, tr

__all__ = ["LEVELS", "OWN_WINDOW", "Battery", "Device", "battery_words"]

# What stands for a client's own window where it tells of the presses that reach it.
OWN_WINDOW = "window"


class Device(msgspec.Struct, frozen=True):
    """A device as the window lists it: the controls it has, how it's read, and whether it is a stand-in.

    `note` is its present state in words and `trouble` whether that is one to be mended; `where` is the file by which
    the system knows it, '' for none.
    """

    id: str
    name: str
    controls: tuple[str, ...]
    how: str
    standin: bool = False
    note: str = ""
    trouble: bool = False
    where: str = ""


class Battery(msgspec.Struct, frozen=True):
    """The battery of a device: the name that it gives itself, how full it is in percent, or only in a word (`low`), and
    whether it is being charged; `where` are the files of its device."""

    name: str
    percent: int | None = None
    level: str = ""
    charging: bool = False
    where: tuple[str, ...] = ()


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
