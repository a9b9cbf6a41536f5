"""Which event nodes there are, which belong to one physical device, and word of what comes and goes."""

from __future__ import annotations

import re
from collections.abc import Iterable
from pathlib import Path
from typing import NamedTuple

import pyudev

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.nodes import OWN_PHYS, Abilities

__all__ = ["Finder", "Found", "Udev", "physical", "serves"]

# Where udevd listens. Without it (a container, a rescue system) the kernel's own word of new nodes has to do.
_UDEVD = Path("/run/udev/control")
# Interfaces of one device differ in the last part of where they are plugged in: usb-0000:00:14.0-2/input1.
_INTERFACE = re.compile(r"/input\d+$")
# A lid, a power button and the like: nobody plays on these, and grabbing them would do harm.
_SWITCHES = frozenset({116, 142, 143, 205, 0x1B0})


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


def physical(abilities: Abilities, name: str, phys: str, uniq: str) -> str:
    """What all interfaces of one physical device share, and what stays the same when it is plugged in again.

    Its vendor and product, with the serial number where it has one and the port where it hasn't.
    """
    _, vendor, product, _ = abilities.ids
    which = uniq or _INTERFACE.sub("", phys) or name
    return f"{vendor:04x}:{product:04x}:{which}"


def serves(abilities: Abilities, phys: str) -> bool:
    """Whether it is a keyboard, a mouse or a part of one, and not ours.

    The rules follow those by which udev's input_id tells devices apart: a mouse has relative axes and a left button;
    a touchpad, a tablet and a game pad have absolute axes and no relative ones.
    """
    if phys.startswith(OWN_PHYS):
        return False
    keys = abilities.codes.get(abi.EV_KEY, frozenset())
    mouse = abilities.has(abi.EV_REL, abi.REL_X, abi.REL_Y) and abi.BTN_LEFT in keys
    if abilities.has(abi.EV_ABS, abi.ABS_X, abi.ABS_Y) and not mouse:
        return False
    typed = {key for key in keys if key < abi.BTN_MISC or key >= abi.KEY_OK} - _SWITCHES
    return mouse or bool(typed)
