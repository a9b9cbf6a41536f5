"""Which event nodes belong to one physical device, and what of them everybody may read, in sysfs."""

from __future__ import annotations

import re
import struct
from collections.abc import Mapping
from pathlib import Path
from typing import NamedTuple

__all__ = ["SWITCHES", "Part", "links_by_id", "part", "physical"]

_SYSTEM, _LINKS = Path("/sys"), Path("/dev/input/by-id")
# Interfaces of one device differ in the last part of where they are plugged in: usb-0000:00:14.0-2/input1.
_INTERFACE = re.compile(r"/input\d+$")
# A lid, a power button and the like: nobody plays on these, and grabbing them would do harm.
SWITCHES = frozenset({116, 142, 143, 205, 0x1B0})
_WORD_BITS = 8 * struct.calcsize("@l")


class Part(NamedTuple):
    """An event node: the device of which it is a part (as `physical` says), its link under /dev/input/by-id ('' for
    none), and the numbers of its keys and buttons, `SWITCHES` left out, and of its relative axes."""

    device: str
    by_id: str
    keys: frozenset[int]
    axes: frozenset[int] = frozenset()


def physical(vendor: int, product: int, name: str, phys: str, uniq: str) -> str:
    """What all interfaces of one physical device share, and what stays the same when it is plugged in again: its
    vendor and product, with the serial number where it has one and the port where it hasn't."""
    which = uniq or _INTERFACE.sub("", phys) or name
    return f"{vendor:04x}:{product:04x}:{which}"


def part(node: str, name: str, by_id: Mapping[str, str], system: Path = _SYSTEM) -> Part | None:
    """What the system tells of an event node (/dev/input/event5); None where it has none of this path and name, as on
    another computer than the one that the path is from. `by_id` is what `links_by_id` says."""
    folder = system / "class" / "input" / Path(node).name / "device"
    try:
        if not node or _text(folder / "name") != name.strip():
            return None
        vendor, product = (int(_text(folder / "id" / which), 16) for which in ("vendor", "product"))
        device = physical(vendor, product, name, _text(folder / "phys"), _text(folder / "uniq"))
        keys, axes = (_numbers(_text(folder / "capabilities" / kind)) for kind in ("key", "rel"))
    except (OSError, ValueError):
        return None
    return Part(device, by_id.get(Path(node).name, ""), keys - SWITCHES, axes)


def links_by_id(links: Path = _LINKS) -> dict[str, str]:
    """The links that stay the same, by the names of the event nodes (event5) that they lead to."""
    try:
        found = sorted(links.iterdir(), reverse=True)
    except OSError:
        return {}
    return {link.resolve().name: str(link) for link in found}


def _text(path: Path) -> str:
    # What a device lacks, its file has not: an empty line.
    return path.read_text(encoding="utf-8", errors="replace").strip()


def _numbers(bits: str) -> frozenset[int]:
    """A set of bits as sysfs has it: words in hexadecimal digits, the highest first, without those before the first
    that isn't 0 (drivers/input/input.c, input_print_bitmap)."""
    whole = 0
    for word in bits.split():
        whole = whole << _WORD_BITS | int(word, 16)
    return frozenset(number for number in range(whole.bit_length()) if whole >> number & 1)
