"""Which event nodes there are, which of them are of use, and word of what comes and goes."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path
from typing import NamedTuple

import pyudev

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.nodes import OWN_PHYS, Abilities
from nakrel.backends.physical import SWITCHES

__all__ = ["Finder", "Found", "Udev", "serves"]

# Where udevd listens. Without it (a container, a rescue system) the kernel's own word of new nodes has to do.
_UDEVD = Path("/run/udev/control")


class Found(NamedTuple):
    """An event node: its path, and the name under /dev/input/by-id that stays the same, '' for none."""

    path: str
    by_id: str = ""


class Finder:
    """What `Udev` offers; tests bring one of their own."""

    def fileno(self) -> int:
        """A descriptor that is readable when `news` has something; -1 for none."""
        return -1

    def nodes(self) -> Iterable[Found]:
        """The nodes that are there now."""
        return ()

    def news(self) -> list[tuple[str, Found]]:
        """What came ('add'), changed ('change') or went ('remove') since the last call."""
        return []


class Udev(Finder):
    """Implements `Finder` on the system's device manager."""

    def __init__(self) -> None:
        self._context = pyudev.Context()
        self._monitor = pyudev.Monitor.from_netlink(self._context, "udev" if _UDEVD.exists() else "kernel")
        self._monitor.filter_by("input")
        self._monitor.start()

    def fileno(self) -> int:
        """The monitor's socket."""
        return int(self._monitor.fileno())

    def nodes(self) -> Iterable[Found]:
        """All event nodes."""
        return [_found(d) for d in self._context.list_devices(subsystem="input") if _is_node(d)]

    def news(self) -> list[tuple[str, Found]]:
        """What the device manager said since the last call."""
        found = []
        while (device := self._monitor.poll(timeout=0)) is not None:
            if _is_node(device):
                found.append((str(device.action), _found(device)))
        return found


def _is_node(device: pyudev.Device) -> bool:
    return device.device_node is not None and device.sys_name.startswith("event")


def _found(device: pyudev.Device) -> Found:
    links = [link for link in device.device_links if "/by-id/" in link]
    return Found(device.device_node, min(links, default=""))


def serves(abilities: Abilities, phys: str) -> bool:
    """Whether it is a keyboard, a mouse, a part of one, or a box of buttons, and not ours.

    The rules follow those by which udev's input_id tells devices apart: a mouse has relative axes and a left button;
    a touchpad, a tablet and a game pad have absolute axes and no relative ones.
    """
    if phys.startswith(OWN_PHYS):
        return False
    keys = abilities.codes.get(abi.EV_KEY, frozenset())
    mouse = abilities.has(abi.EV_REL, abi.REL_X, abi.REL_Y) and abi.BTN_LEFT in keys
    if abilities.has(abi.EV_ABS, abi.ABS_X, abi.ABS_Y) and not mouse:
        return False
    typed = {key for key in keys if key < abi.BTN_MISC or key >= abi.KEY_OK} - SWITCHES
    # A tablet has such buttons beside its absolute axes.
    box = abi.EV_ABS not in abilities.codes and any(abi.BTN_MISC <= key < abi.BTN_MISC + 10 for key in keys)
    return mouse or bool(typed) or box
