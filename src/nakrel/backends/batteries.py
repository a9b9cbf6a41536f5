"""The batteries of mice and keyboards, as the kernel tells of them (Documentation/power/power_supply_class.rst)."""

from __future__ import annotations

import os
from pathlib import Path

from nakrel.core.model.devices import Battery

__all__ = ["batteries"]

_SYSTEM = Path("/sys")


def batteries(system: Path = _SYSTEM) -> tuple[Battery, ...]:
    """Those that belong to devices. Reading may take seconds where a device sleeps."""
    found = []
    for folder in sorted((system / "class" / "power_supply").glob("*")):
        # The computer's own have no scope, or that of the system.
        if _read(folder / "scope") == "Device" and (battery := _battery(folder)):
            found.append(battery)
    return tuple(found)


def _battery(folder: Path) -> Battery | None:
    name = _read(folder / "model_name") or folder.name
    level = _read(folder / "capacity_level")
    percent = _read(folder / "capacity")
    if not percent.isdigit() and level in ("", "Unknown"):
        # It sleeps, or is switched off.
        return None
    charging = _read(folder / "status") in ("Charging", "Full")
    # Event nodes of the same device lie below what the battery belongs to.
    owner = os.path.realpath(folder / "device")
    nodes = (path.name for path in Path(owner).glob("**/event[0-9]*") if path.parent.name.startswith("input"))
    told = tuple(sorted(f"/dev/input/{name}" for name in nodes))
    return Battery(name, int(percent) if percent.isdigit() else None, level.lower(), charging, told)


def _read(path: Path) -> str:
    try:
        return path.read_text(encoding="utf-8", errors="replace").strip()
    except OSError:
        return ""
