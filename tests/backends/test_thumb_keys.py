"""The number keys of a mouse that count as its thumb buttons, apart from those of a keyboard."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
import xcffib
import xcffib.xproto

from nakrel.backends.kernel.channel import SETTLE_US
from nakrel.backends.x11.devices import devices_of
from nakrel.backends.x11.wire import Slave
from nakrel.core.model.controls import CONTROLS
from nakrel.core.model.devices import THUMB_KEYS, KeyNaming, KeysAs
from nakrel.core.play.events import Emit, Pressed, Released
from tests.backends.desk import KEY, Desk
from tests.backends.fake_kernel import KEYBOARD, MOUSE, FakeNode
from tests.backends.rigs import Rig, xorg
from tests.support import wait_for

# Linux, include/uapi/linux/input-event-codes.h.
ONE, TWO, EQUAL, KEYPAD_ONE = 2, 3, 13, 79
THUMB_1, THUMB_2 = "BTN_TRIGGER_HAPPY1", "BTN_TRIGGER_HAPPY2"


@pytest.fixture
def mmo() -> Iterator[Desk]:
    """A mouse of two interfaces, of which the second sends the digits, and a keyboard."""
    port = "usb-0000:00:14.0-1"
    with Desk(
        FakeNode("/dev/input/event3", MOUSE, "Halyard 12", f"{port}/input0"),
        FakeNode("/dev/input/event5", KEYBOARD._replace(ids=MOUSE.ids), "Halyard 12 Keyboard", f"{port}/input1"),
        FakeNode("/dev/input/event4", KEYBOARD, "Bollard", "usb-0000:00:14.0-2/input0"),
    ) as desk:
        yield desk


def pad(desk: Desk) -> FakeNode:
    return desk.nodes["/dev/input/event5"]


def press(desk: Desk, node: FakeNode, number: int) -> list:
    """Down and up; what is heard of it."""
    node.happen((KEY, number, 1))
    heard = desk.hear()
    node.happen((KEY, number, 0))
    return heard + desk.hear()


def test_the_digits_and_the_keypad_are_twelve_buttons():
    assert [THUMB_KEYS[code] for code in ("KEY_1", "KEY_0", "KEY_MINUS", "KEY_EQUAL")] == [
        f"BTN_TRIGGER_HAPPY{number}" for number in (1, 10, 11, 12)
    ]
    assert {CONTROLS[code].label for code in THUMB_KEYS.values()} == {f"Thumb {number}" for number in range(1, 13)}
    assert sorted(THUMB_KEYS.values()).count(THUMB_1) == 2


def test_a_mouses_digit_is_its_thumb_button_and_the_keyboards_stays_a_key(mmo: Desk):
    mmo.backend.call_keys(KeyNaming(("Halyard 12",)))
    mmo.capture(THUMB_1)
    assert (pad(mmo).grabbed, mmo.keyboard.grabbed) == (True, False)
    assert press(mmo, pad(mmo), ONE) == [Pressed(THUMB_1, False, "KEY_1"), Released(THUMB_1, "KEY_1")]
    assert press(mmo, pad(mmo), KEYPAD_ONE) == [Pressed(THUMB_1, False, "KEY_KP1"), Released(THUMB_1, "KEY_KP1")]
    clone = mmo.clone("Halyard 12 Keyboard")
    assert not clone.reports
    # One without anything attached is for the programs the key that it sends.
    assert press(mmo, pad(mmo), TWO) == [Pressed(THUMB_2, True, "KEY_2"), Released(THUMB_2, "KEY_2")]
    assert [event for report in clone.reports for event in report if event[0] == KEY] == [(KEY, TWO, 1), (KEY, TWO, 0)]
    assert press(mmo, mmo.keyboard, ONE) == [Pressed("KEY_1", True), Released("KEY_1")]


def test_the_list_of_devices_has_its_thumb_buttons_and_not_the_digits(mmo: Desk):
    mmo.backend.call_keys(KeyNaming(("Halyard 12",)))
    mouse, keyboard = (set(device.controls) for device in mmo.backend.devices())
    assert mouse >= {THUMB_1, "BTN_TRIGGER_HAPPY12", "KEY_Q", "BTN_SIDE"}
    assert not mouse & THUMB_KEYS.keys()
    assert keyboard >= {"KEY_1", "KEY_EQUAL"}
    mmo.backend.call_keys(KeyNaming(()))
    mouse, _ = (set(device.controls) for device in mmo.backend.devices())
    assert mouse >= {"KEY_1"}
    assert THUMB_1 not in mouse


def test_what_is_down_as_it_is_called_otherwise_is_let_go_once(mmo: Desk):
    pad(mmo).happen((KEY, ONE, 1))
    assert mmo.hear() == [Pressed("KEY_1", True)]
    mmo.backend.call_keys(KeyNaming(("Halyard 12",)))
    assert mmo.hear() == [Released("KEY_1")]
    pad(mmo).happen((KEY, ONE, 0))
    assert mmo.hear() == []
    pad(mmo).happen((KEY, ONE, 1))
    assert mmo.hear() == [Pressed(THUMB_1, True, "KEY_1")]
    mmo.backend.call_keys(KeyNaming(()))
    assert mmo.hear() == [Released(THUMB_1, "KEY_1")]


def test_unplugged_before_it_is_told_what_was_down_is_let_go_all_the_same(mmo: Desk):
    pad(mmo).happen((KEY, ONE, 1))
    mmo.hear()
    mmo.backend.call_keys(KeyNaming(("Halyard 12",)))
    mmo.swap("/dev/input/event5", KEYBOARD)
    heard = [event.event for event in mmo.backend._remove("/dev/input/event5")]
    assert [event for event in heard if isinstance(event, Released)] == [Released("KEY_1")]


def test_one_that_is_plugged_in_later_counts_so_at_once(mmo: Desk):
    mmo.backend.call_keys(KeyNaming(("Halyard 12",)))
    node = mmo.swap("/dev/input/event5", KEYBOARD._replace(ids=MOUSE.ids))
    mmo.hear()
    mmo.finder.tell("add", node.path)
    mmo.hear()
    assert press(mmo, node, EQUAL)[0] == Pressed("BTN_TRIGGER_HAPPY12", True, "KEY_EQUAL")


@pytest.mark.parametrize("first", ["mouse", "keys"])
def test_its_interfaces_are_one_mouse_whatever_they_are_called_and_come_in_any_order(first: str):
    """The kernel may call them by what they are (drivers/hid/hid-input.c, from memory)."""
    port = "usb-0000:00:14.0-1"
    mouse = FakeNode("/dev/input/event3", MOUSE, "Halyard Mouse", f"{port}/input0")
    keys = FakeNode("/dev/input/event5", KEYBOARD._replace(ids=MOUSE.ids), "Halyard Keyboard", f"{port}/input1")
    with Desk(*((mouse, keys) if first == "mouse" else (keys, mouse))) as desk:
        (device,) = desk.backend.devices()
        desk.backend.call_keys(KeyNaming((device.name,)))
        assert press(desk, keys, ONE)[0] == Pressed(THUMB_1, True, "KEY_1")
        other = desk.nodes["/dev/input/event9"] = FakeNode(
            "/dev/input/event9", KEYBOARD, "Halyard Board", "usb-9/input0"
        )
        desk.finder.tell("add", "/dev/input/event9")
        desk.hear()
        assert press(desk, other, ONE)[0] == Pressed("KEY_1", True)


def test_its_thumb_buttons_are_debounced_like_any(mmo: Desk):
    mmo.backend.call_keys(KeyNaming(("Halyard 12",)))
    mmo.backend.debounce({"Halyard 12": {THUMB_1: 10_000}})
    mmo.host.pass_time(SETTLE_US)
    node, heard = pad(mmo), []
    for at_ms, value in ((0, 1), (2, 0), (4, 1), (60, 0)):
        node.now_us = mmo.host.now = 20_000_000 + at_ms * 1_000
        node.happen((KEY, ONE, value))
        heard += [type(event) for event in mmo.hear()]
    assert heard == [Pressed, Released]


def test_under_x_thumb_buttons_are_the_mouses_though_a_keyboard_has_them():
    slaves = [
        Slave(8, "Halyard 12", 7, False, keys_as=KeysAs.THUMBS),
        Slave(9, "Halyard 12 Keyboard", 0, True, keys_as=KeysAs.THUMBS),
        Slave(10, "Halyard 12 Consumer Control", 0, True, keys_as=KeysAs.THUMBS),
        Slave(11, "Bollard", 0, True),
    ]
    mouse, pad, more, keyboard = (set(device.controls) for device in devices_of(slaves))
    assert mouse >= {"BTN_LEFT", *THUMB_KEYS.values()}
    for part in (pad, more):
        assert "KEY_Q" in part
        assert not part & {*THUMB_KEYS, *THUMB_KEYS.values()}
    assert keyboard >= THUMB_KEYS.keys()
    # X numbers keys up to 255.
    assert "KEY_MACRO1" not in keyboard


@pytest.fixture
def rig() -> Iterator[Rig]:
    yield from xorg()


class Reader:
    """A window that has the keyboard: what programs see."""

    def __init__(self, display: str) -> None:
        self._conn = xcffib.connect(display)
        screen = self._conn.get_setup().roots[0]
        window, events = self._conn.generate_id(), xcffib.xproto.EventMask
        shape = xcffib.xproto.CW.OverrideRedirect | xcffib.xproto.CW.EventMask
        told = [1, events.KeyPress | events.KeyRelease | events.FocusChange]
        self._conn.core.CreateWindow(
            screen.root_depth, window, screen.root, 0, 0, 200, 100, 0, 1, screen.root_visual, shape, told
        )
        self._conn.core.MapWindow(window)
        self._keys: list[tuple[int, int]] = []
        self._focused = False

        def has_focus() -> bool:
            self._conn.core.SetInputFocus(1, window, 0)
            self._conn.flush()
            self.keys()
            return self._focused

        wait_for(has_focus, "the keyboard's focus")

    def keys(self) -> list[tuple[int, int]]:
        """The codes of all keys that went down (1) and up (0)."""
        while event := self._conn.poll_for_event():
            if isinstance(event, xcffib.xproto.KeyReleaseEvent | xcffib.xproto.KeyPressEvent):
                self._keys.append((event.detail - 8, int(type(event) is xcffib.xproto.KeyPressEvent)))
            self._focused = self._focused or isinstance(event, xcffib.xproto.FocusInEvent)
        return self._keys

    def close(self) -> None:
        self._conn.disconnect()


@pytest.mark.x11
def test_under_x_they_are_kept_from_the_programs_on_that_device_alone(rig: Rig):
    reader = Reader(rig.display)
    rig.inputs.call_keys(KeyNaming(("keyboard",)))  # type: ignore[attr-defined]
    rig.inputs.capture([THUMB_1, "KEY_3"])
    rig.settle()
    for code in ("KEY_1", "KEY_2", "KEY_3"):
        rig.injector(code, 1)
        rig.injector(code, 0)
    # The third isn't a key there any more.
    thumbs = [f"BTN_TRIGGER_HAPPY{number}" for number in (1, 2, 3)]
    assert rig.hear(6) == [edge(code) for code in thumbs for edge in (Pressed, Released)]
    wait_for(lambda: reader.keys() == [(TWO, 1), (TWO, 0), (TWO + 1, 1), (TWO + 1, 0)], "what passes")
    devices = {device.name: set(device.controls) for device in rig.inputs.devices()}
    assert THUMB_1 in devices["keyboard"]
    assert "KEY_1" not in devices["keyboard"]
    rig.inputs.call_keys(KeyNaming(()))  # type: ignore[attr-defined]
    rig.settle()
    for code in ("KEY_1", "KEY_3"):
        rig.injector(code, 1)
        rig.injector(code, 0)
    assert rig.hear(10)[6:] == [edge(code) for code in ("KEY_1", "KEY_3") for edge in (Pressed, Released)]
    wait_for(lambda: reader.keys()[4:] == [(ONE, 1), (ONE, 0)], "what passes then")
    reader.close()


@pytest.mark.x11
def test_under_x_the_key_of_one_that_is_down_is_lifted(rig: Rig):
    """A text that types this number needs the key free."""
    reader = Reader(rig.display)
    rig.inputs.call_keys(KeyNaming(("keyboard",)))  # type: ignore[attr-defined]
    rig.injector("KEY_2", 1)
    assert rig.hear(1) == [Pressed(THUMB_2)]
    rig.outputs.emit([Emit("KEY_2", 0, 0, "finger", False, True)])
    wait_for(lambda: reader.keys() == [(TWO, 1), (TWO, 0)], "the key up")
    rig.injector("KEY_2", 0)
    assert rig.hear(2)[1:] == [Released(THUMB_2)]
    reader.close()


@pytest.mark.x11
def test_under_x_what_is_down_as_it_is_called_otherwise_is_let_go_once(rig: Rig):
    rig.injector("KEY_1", 1)
    assert rig.hear(1) == [Pressed("KEY_1")]
    rig.inputs.call_keys(KeyNaming(("keyboard",)))  # type: ignore[attr-defined]
    rig.injector("KEY_1", 0)
    rig.injector("KEY_1", 1)
    rig.injector("KEY_1", 0)
    assert rig.hear(4)[1:] == [Released("KEY_1"), Pressed(THUMB_1), Released(THUMB_1)]
