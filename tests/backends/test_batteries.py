"""Batteries of devices, from a folder that looks like the kernel's (power supply class)."""

from __future__ import annotations

from pathlib import Path

import pytest

from nakrel.backends.batteries import batteries
from nakrel.core.model.devices import Battery, battery_words


def supply(system: Path, name: str, device: str = "", **files: str) -> Path:
    """A power supply of a device that lies in this folder."""
    folder = system / "class" / "power_supply" / name
    folder.mkdir(parents=True)
    for file, text in files.items():
        (folder / file).write_text(f"{text}\n")
    if device:
        owner = system / "devices" / device
        (owner / "input" / "input15" / "event4").mkdir(parents=True, exist_ok=True)
        (owner / "input" / "input15" / "mouse0").mkdir(exist_ok=True)
        (folder / "device").symlink_to(owner)
    return folder


def test_the_battery_of_a_mouse_is_told_with_its_node(tmp_path: Path):
    supply(tmp_path, "hid_battery_0", "hid/0003:1209:0012", scope="Device", model_name="Halyard 12", capacity="62",
           status="Discharging")  # fmt: skip
    supply(tmp_path, "BAT0", scope="System", capacity="90", status="Charging")
    supply(tmp_path, "AC", type="Mains", online="1")
    found = batteries(tmp_path)
    assert found == (Battery("Halyard 12", 62, "", False, ("/dev/input/event4",)),)
    assert battery_words(found[0]) == "battery 62 %"


@pytest.mark.parametrize(
    ("files", "words"),
    [
        ({"capacity": "40", "status": "Charging"}, "battery 40 %, charging"),
        ({"capacity_level": "Low", "status": "Discharging"}, "battery low"),
        ({"capacity_level": "Unknown"}, ""),
        ({}, ""),
    ],
)
def test_what_it_says_of_itself(tmp_path: Path, files: dict[str, str], words: str):
    supply(tmp_path, "hid_battery_1", scope="Device", model_name="Bollard", **files)
    assert [battery_words(each) for each in batteries(tmp_path)] == ([words] if words else [])


def test_a_system_without_any_has_none(tmp_path: Path):
    assert batteries(tmp_path) == ()
