"""The keys of a second keyboard, apart from those of the first."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from nakrel.backends.x11.devices import devices_of
from nakrel.backends.x11.wire import Slave
from nakrel.core.model.cells import Nothing
from nakrel.core.model.controls import CONTROLS, KNOWN, Kind, label, pressable
from nakrel.core.model.devices import KeyNaming, KeysAs
from nakrel.core.model.errors import DataError
from nakrel.core.model.profile import SetUp
from nakrel.core.model.steps import Press, Tap
from nakrel.core.play.events import Pressed, Released
from tests.backends.desk import KEY, Desk
from tests.backends.fake_kernel import KEYBOARD, FakeNode
from tests.backends.rigs import Rig, xorg
from tests.backends.test_thumb_keys import Reader, press
from tests.support import wait_for

# Linux, include/uapi/linux/input-event-codes.h.
Q, W = 16, 17
SECOND_Q = "SECOND:KEY_Q"
ROOK = KeyNaming(second=("Rook K2",))


@pytest.fixture
def two() -> Iterator[Desk]:
    """A keyboard, one of a name that begins like that, and a third."""
    with Desk(
        FakeNode("/dev/input/event3", KEYBOARD, "Rook K2", "usb-0000:00:14.0-1/input0"),
        FakeNode("/dev/input/event5", KEYBOARD, "Rook K2 Wide", "usb-0000:00:14.0-3/input0"),
        FakeNode("/dev/input/event4", KEYBOARD, "Bollard", "usb-0000:00:14.0-2/input0"),
    ) as desk:
        yield desk


def test_each_key_of_a_keyboard_has_one_that_starts_things_and_is_never_pressed():
    keys = [code for code, control in CONTROLS.items() if control.kind is Kind.KEY]
    assert len(KNOWN) == len(CONTROLS) + len(keys)
    assert pressable(SECOND_Q).kind is Kind.KEY
    assert label(SECOND_Q) == "Q (2nd)"
    for step in (Press, Tap):
        with pytest.raises(DataError, match="unknown key"):
            step(control=SECOND_Q, **({"hold_us": 1} if step is Tap else {}))
    assert SetUp("Main", {SECOND_Q: Nothing()}).cells


def test_a_key_is_kept_from_the_programs_on_that_keyboard_alone(two: Desk):
    two.backend.call_keys(ROOK)
    two.capture(SECOND_Q)
    nodes = {node.name: node for node in two.nodes.values()}
    assert [name for name, node in nodes.items() if node.grabbed] == ["Rook K2"]
    rook = nodes["Rook K2"]
    assert press(two, rook, Q) == [Pressed(SECOND_Q, False, "KEY_Q"), Released(SECOND_Q, "KEY_Q")]
    clone = two.clone("Rook K2")
    assert not clone.reports
    # One without anything attached is for the programs the key that it is.
    assert press(two, rook, W) == [Pressed("SECOND:KEY_W", True, "KEY_W"), Released("SECOND:KEY_W", "KEY_W")]
    assert [event for report in clone.reports for event in report if event[0] == KEY] == [(KEY, W, 1), (KEY, W, 0)]
    for name in ("Rook K2 Wide", "Bollard"):
        assert press(two, nodes[name], Q) == [Pressed("KEY_Q", True), Released("KEY_Q")]
    controls = {device.name: set(device.controls) for device in two.backend.devices()}
    assert SECOND_Q in controls["Rook K2"]
    assert "KEY_Q" not in controls["Rook K2"]
    assert "KEY_Q" in controls["Rook K2 Wide"]


def test_under_x_a_part_of_unknown_whereabouts_goes_by_its_name():
    slaves = [Slave(9, "Rook K2", 0, True, keys_as=KeysAs.SECOND), Slave(11, "Bollard", 0, True)]
    rook, other = (set(device.controls) for device in devices_of(slaves))
    assert SECOND_Q in rook
    assert not rook & CONTROLS.keys()
    assert "KEY_Q" in other


@pytest.fixture
def rig() -> Iterator[Rig]:
    yield from xorg()


@pytest.mark.x11
def test_under_x_they_are_kept_from_the_programs_and_the_rest_passes(rig: Rig):
    reader = Reader(rig.display)
    rig.inputs.call_keys(KeyNaming(second=("keyboard",)))  # type: ignore[attr-defined]
    rig.inputs.capture([SECOND_Q, "KEY_E"])
    rig.settle()
    for code in ("KEY_Q", "KEY_W", "KEY_E"):
        rig.injector(code, 1)
        rig.injector(code, 0)
    heard = [edge(f"SECOND:{code}") for code in ("KEY_Q", "KEY_W", "KEY_E") for edge in (Pressed, Released)]
    assert rig.hear(6) == heard
    wait_for(lambda: reader.keys() == [(W, 1), (W, 0), (W + 1, 1), (W + 1, 0)], "what passes")
    reader.close()
