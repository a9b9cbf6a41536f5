"""`nakrel doctor` on a real kernel: what it finds, and what its mending changes."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

import pytest

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.nodes import Abilities, Virtual
from tests.kernel.injector import HidKeyboard, HidMouse, UsbKeyboard, UsbMouse, outside
from tests.support import wait_for

pytestmark = pytest.mark.skipif(not outside(), reason="changes the system: in the test machine only")


def _tags(node: str) -> str:
    return subprocess.run(["udevadm", "info", node], capture_output=True, text=True, check=True).stdout


def test_the_fix_shows_what_it_does_and_every_link_of_the_kernel_holds(mended: str):
    assert "It is run as root:" in mended
    assert 'TAG+="uaccess"' in mended
    for link in ("virtual devices: the kernel's module uinput is loaded", "fast clicks"):
        assert f"ok    {link}" in mended


def test_its_rules_hand_the_devices_to_the_user_at_the_seat(
    mended: str, mouse: UsbMouse | HidMouse, keyboard: UsbKeyboard | HidKeyboard
):
    for node in ("/dev/uinput", mouse.path, keyboard.path):
        wait_for(lambda n=node: "TAGS=:" in _tags(n) and ":uaccess:" in _tags(n), f"the tag on {node}")


def test_a_captured_mouse_is_as_fast_as_otherwise(mended: str):
    """By what systemd's hardware database says of this mouse's resolution (70-mouse.hwdb)."""
    codes = {abi.EV_KEY: frozenset(range(abi.BTN_LEFT, abi.BTN_LEFT + 3)), abi.EV_REL: frozenset({0, 1, abi.REL_WHEEL})}
    twin = Virtual(
        "Lenovo Optical USB Mouse", Abilities((3, 0x17EF, 0x6019, 1), codes, {}), "usb-0000:00:04.0-1/input0"
    )
    try:
        wait_for(lambda: "MOUSE_DPI=1000@" in _tags(twin.path), "its resolution")
    finally:
        twin.close()


def test_a_second_fix_changes_nothing(mended: str):
    quirks = Path("/etc/libinput/local-overrides.quirks")
    before = quirks.read_text()
    subprocess.run([sys.executable, "-m", "nakrel", "doctor", "--fix", "--yes"], capture_output=True)
    assert quirks.read_text() == before
    assert before.count("[Nakrel]") == 1


def test_libinput_accepts_the_quirk(mended: str):
    """By its own checker."""
    subprocess.run(["libinput", "quirks", "validate"], check=True, capture_output=True)
