"""What belongs to one physical device, from folders that look like the kernel's, and how X's devices follow it."""

from __future__ import annotations

import struct
from pathlib import Path

import pytest

from nakrel.backends.physical import Part, links_by_id, part, physical
from nakrel.backends.x11.devices import devices_of
from nakrel.backends.x11.wire import Slave
from nakrel.core.model.devices import THUMB_KEYS, KeysAs

ONE, Q = 2, 16
MOUSE = Slave(8, "Halyard Mouse", 10, False, node="/dev/input/event3")
PAD = Slave(9, "Halyard Keyboard", 0, True, node="/dev/input/event5")


def node(system: Path, name: str, called: str, keys: str, phys: str, uniq: str = "") -> Path:
    """An event node; `keys` as the kernel writes them."""
    folder = system / "class" / "input" / name / "device"
    (folder / "id").mkdir(parents=True)
    (folder / "capabilities").mkdir()
    files = {"name": called, "phys": phys, "uniq": uniq, "id/vendor": "1209", "id/product": "0012"}
    for file, text in {**files, "capabilities/key": keys, "capabilities/rel": "103"}.items():
        (folder / file).write_text(f"{text}\n")
    return folder


def test_what_the_system_tells_of_a_node_without_a_permission(tmp_path: Path):
    # 272 to 279, BTN_LEFT to BTN_TASK: bits 16 to 23 of the fifth word of 64 bits.
    words = "ff0000 0 0 0 0" if struct.calcsize("@l") == 8 else "ff0000 0 0 0 0 0 0 0 0"
    folder = node(tmp_path, "event3", "Halyard Mouse", words, "usb-0000:00:14.0-1/input0")
    # Besides 1 and Q it has a button for power: bit 52 of the second word.
    power = "10000000000000" if struct.calcsize("@l") == 8 else "100000 0 0"
    node(tmp_path, "event5", "Halyard Keyboard", f"{power} 10004", "usb-0000:00:14.0-1/input1")
    links = tmp_path / "by-id"
    links.mkdir()
    (tmp_path / "event3").touch()
    (links / "usb-Halyard-event-mouse").symlink_to(tmp_path / "event3")
    mouse = part("/dev/input/event3", "Halyard Mouse", links_by_id(links), tmp_path)
    port = "1209:0012:usb-0000:00:14.0-1"
    assert mouse == Part(port, str(links / "usb-Halyard-event-mouse"), frozenset(range(272, 280)), frozenset({0, 1, 8}))
    assert part("/dev/input/event5", "Halyard Keyboard", links_by_id(links), tmp_path) == Part(
        port, "", frozenset({ONE, Q}), frozenset({0, 1, 8})
    )
    # A display from another computer has nodes of its own.
    assert part("/dev/input/event3", "Bollard", links_by_id(links), tmp_path) is None
    assert part("/dev/input/event4", "Bollard", links_by_id(links), tmp_path) is None
    assert part("", "Bollard", links_by_id(links), tmp_path) is None
    (folder / "capabilities" / "key").write_text("strange\n")
    assert part("/dev/input/event3", "Halyard Mouse", links_by_id(links), tmp_path) is None


def test_the_same_device_in_the_same_port_is_the_same_and_a_serial_number_outdoes_the_port():
    one = physical(0x1209, 0x12, "Halyard", "usb-0000:00:14.0-1/input0", "")
    assert one == physical(0x1209, 0x12, "Halyard Keyboard", "usb-0000:00:14.0-1/input1", "")
    assert one != physical(0x1209, 0x12, "Halyard", "usb-0000:00:14.0-2/input0", "")
    assert physical(1, 2, "H", "usb-1/input0", "A7") == physical(1, 2, "H", "usb-2/input0", "A7")


def test_xs_devices_that_are_parts_of_one_are_one_with_the_keys_it_has():
    port = "1209:0012:usb-1"
    mouse = MOUSE._replace(
        part=Part(port, "/dev/input/by-id/usb-Halyard-event-mouse", frozenset(), frozenset({0, 1, 8}))
    )
    pad = PAD._replace(part=Part(port, "", frozenset({ONE, Q})))
    lid = Slave(10, "Power Button", 0, True, node="/dev/input/event0", part=Part("0:1:x", "", frozenset()))
    (device,) = devices_of([mouse, pad, lid])
    assert (device.name, device.where) == ("Halyard Mouse", "/dev/input/by-id/usb-Halyard-event-mouse")
    assert device.nodes == ("/dev/input/event3", "/dev/input/event5")
    keys = {code for code in device.controls if code.startswith("KEY_")}
    assert keys == {"KEY_1", "KEY_Q"}
    assert {"BTN_LEFT", "BTN_SIDE", "WHEEL_UP"} <= set(device.controls)
    assert "WHEEL_LEFT" not in device.controls
    (device,) = devices_of([each._replace(keys_as=KeysAs.THUMBS) for each in (mouse, pad)])
    assert {code for code in device.controls if code in THUMB_KEYS or code in THUMB_KEYS.values()} == {
        "BTN_TRIGGER_HAPPY1"
    }


@pytest.mark.parametrize("known", [MOUSE, PAD])
def test_where_nothing_tells_what_belongs_together_each_is_one(known: Slave):
    """A server on another computer, or one without properties."""
    there = [each._replace(part=Part("1209:0012:usb-1", "", frozenset({ONE}))) if each is known else each
             for each in (MOUSE, PAD)]  # fmt: skip
    assert [device.name for device in devices_of(there)] == ["Halyard Mouse", "Halyard Keyboard"]
    assert [bool(device.nodes) for device in devices_of(there)] == [known is MOUSE, known is PAD]
