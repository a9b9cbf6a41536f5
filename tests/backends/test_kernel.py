"""The kernel backend on a kernel made of queues: what passes, what is taken, and when devices are grabbed."""

from __future__ import annotations

import errno
import os
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.backend import KernelBackend
from nakrel.backends.kernel.channel import BUSY_US, KNOWN_US, SETTLE_US, UNSEEN_US
from nakrel.backends.kernel.finder import serves
from nakrel.backends.kernel.nodes import Abilities
from nakrel.backends.protocols import BackendUnavailable, CannotEmit
from nakrel.core.model.devices import KeyNaming
from nakrel.core.play.events import Emit, InputsLost, Pressed, Released, Turned
from tests.backends.desk import KEY, LEFT, REL, SIDE, Desk, W
from tests.backends.fake_kernel import KEYBOARD, MOUSE, MOUSE_KEYS, FakeFinder, FakeHost, FakeNode, FakeVirtual


def test_without_attachments_nothing_is_grabbed_and_all_is_heard(desk: Desk):
    desk.capture()
    desk.mouse.happen((KEY, SIDE, 1))
    desk.mouse.happen((REL, 0, 5))
    desk.mouse.happen((KEY, SIDE, 0), (REL, abi.REL_WHEEL, -2), (REL, abi.REL_WHEEL_HI_RES, -240))
    assert desk.hear() == [Pressed("BTN_SIDE", True), Released("BTN_SIDE"), Turned("WHEEL_DOWN", 2, True)]
    assert not desk.mouse.grabbed
    assert len(desk.virtuals) == 2


def test_only_the_device_that_has_the_control_is_grabbed_and_let_go_again(desk: Desk):
    desk.capture("BTN_SIDE")
    assert (desk.mouse.grabbed, desk.keyboard.grabbed) == (True, False)
    desk.capture()
    assert not desk.mouse.grabbed


def test_a_taken_control_is_left_out_of_its_report_and_the_rest_passes_in_it(desk: Desk):
    desk.capture("BTN_SIDE")
    desk.mouse.happen((abi.EV_MSC, abi.MSC_SCAN, 0x90004), (KEY, SIDE, 1), (REL, 0, 3), (KEY, LEFT, 1))
    desk.mouse.happen((REL, 0, 7), (REL, 1, -2))
    desk.mouse.happen((abi.EV_MSC, abi.MSC_SCAN, 0x90001), (KEY, LEFT, 0))
    assert desk.hear() == [Pressed("BTN_SIDE"), Pressed("BTN_LEFT", True), Released("BTN_LEFT")]
    assert desk.clone().reports == [
        [(REL, 0, 3), (KEY, LEFT, 1)],
        [(REL, 0, 7), (REL, 1, -2)],
        [(abi.EV_MSC, abi.MSC_SCAN, 0x90001), (KEY, LEFT, 0)],
    ]


def test_what_follows_a_taken_press_passes_after_its_consequences(desk: Desk):
    desk.capture("BTN_SIDE")
    desk.mouse.happen((KEY, SIDE, 1))
    desk.mouse.happen((KEY, LEFT, 1))
    # What had passed by the time at which each was handed over.
    passed = [(event.event.control, len(desk.clone().reports)) for event in desk.backend.read()]
    assert passed == [("BTN_SIDE", 0), ("BTN_LEFT", 1)]


def test_motion_passes_as_it_came_while_a_wheel_direction_is_taken(desk: Desk):
    desk.capture("WHEEL_UP")
    desk.mouse.happen((REL, 0, 7), (REL, 1, -2))
    channel = next(c for c in desk.backend._channels.values() if c.node is desk.mouse)
    assert channel.pass_motion()
    assert desk.clone().reports == [[(REL, 0, 7), (REL, 1, -2)]]


def test_a_wheel_direction_is_taken_with_its_fine_steps(desk: Desk):
    desk.capture("WHEEL_UP")
    for way in (1, -1):
        desk.mouse.happen((REL, abi.REL_WHEEL_HI_RES, 120 * way), (REL, abi.REL_WHEEL, way))
        desk.mouse.happen((REL, abi.REL_WHEEL_HI_RES, 60 * way))
    assert desk.hear() == [Turned("WHEEL_UP"), Turned("WHEEL_DOWN", 1, True)]
    down = [(REL, abi.REL_WHEEL_HI_RES, -120), (REL, abi.REL_WHEEL, -1)]
    assert desk.clone().reports == [down, [(REL, abi.REL_WHEEL_HI_RES, -60)]]


def test_the_grab_waits_until_nothing_is_down(desk: Desk):
    desk.keyboard.happen((KEY, W, 1))
    desk.hear()
    desk.capture("KEY_Q")
    desk.host.pass_time(60_000_000)
    assert not desk.keyboard.grabbed
    assert "waits until its keys are released" in next(d.note for d in desk.backend.devices() if d.name == "Bollard")
    desk.keyboard.happen((KEY, W, 0))
    desk.hear()
    assert desk.keyboard.grabbed
    assert desk.keyboard.seen == [(KEY, W, 1), (KEY, W, 0)]


def test_letting_a_device_go_waits_too_and_the_release_goes_the_way_of_its_press(desk: Desk):
    desk.capture("KEY_Q")
    desk.keyboard.happen((KEY, W, 1))
    desk.hear()
    desk.capture()
    assert desk.keyboard.grabbed
    desk.keyboard.happen((KEY, W, 0))
    desk.hear()
    assert not desk.keyboard.grabbed
    assert desk.clone("Bollard").reports == [[(KEY, W, 1)], [(KEY, W, 0)]]


def test_a_control_taken_while_it_is_down_is_let_go_through_the_clone(desk: Desk):
    desk.capture("KEY_Q")
    desk.keyboard.happen((KEY, W, 1))
    desk.hear()
    desk.capture("KEY_Q", "KEY_W")
    desk.keyboard.happen((KEY, W, 0))
    assert desk.hear() == [Released("KEY_W")]
    assert desk.clone("Bollard").down == set()


def lift(desk: Desk, control: str = "KEY_W") -> None:
    desk.backend.emit([Emit(control, 0, 0, "finger", False, True), Emit("KEY_E", 1, 0, "m"), Emit("KEY_E", 0, 0, "m")])


def test_a_key_that_is_lifted_under_a_finger_goes_up_where_it_went_down(desk: Desk):
    desk.capture("KEY_Q")
    desk.keyboard.happen((KEY, W, 1))
    desk.hear()
    lift(desk)
    assert desk.clone("Bollard").reports == [[(KEY, W, 1)], [(KEY, W, 0)]]
    # The finger is on it still, as far as we and nobody else know, and its release is told.
    desk.keyboard.happen((KEY, W, 0))
    assert desk.hear() == [Released("KEY_W")]
    assert desk.clone("Bollard").down == set()


def test_a_key_that_is_lifted_on_a_node_that_programs_read_counts_as_let_go(desk: Desk):
    desk.capture()
    desk.keyboard.happen((KEY, W, 1))
    desk.hear()
    lift(desk)
    assert desk.keyboard.seen == [(KEY, W, 1), (KEY, W, 0)]
    assert desk.hear() == [Released("KEY_W")]
    # Once is enough, and one that no finger holds is left alone.
    lift(desk)
    assert desk.keyboard.seen == [(KEY, W, 1), (KEY, W, 0)]


def test_a_release_that_nobody_saw_is_not_waited_for_for_ever():
    keyboard = FakeNode("/dev/input/event4", KEYBOARD, "Bollard")
    keyboard.state.add(W)
    desk = Desk(keyboard)
    desk.capture("KEY_Q")
    assert not keyboard.grabbed
    desk.host.pass_time(UNSEEN_US)
    desk.hear()
    assert keyboard.grabbed
    # The others are told that the key is up, since its release would come to us alone.
    assert keyboard.seen == [(KEY, W, 0)]
    desk.close()


def test_esc_at_the_start_keeps_every_device_free():
    keyboard = FakeNode("/dev/input/event4", KEYBOARD, "Bollard")
    keyboard.state.add(abi.KEY_ESC)
    desk = Desk(keyboard)
    desk.capture("KEY_Q")
    keyboard.happen((KEY, abi.KEY_ESC, 0))
    desk.hear()
    desk.host.pass_time(60_000_000)
    assert desk.backend.held_back
    assert not keyboard.grabbed
    assert "Esc was down at the start" in desk.backend.note
    desk.close()


def test_a_press_that_slips_in_at_the_grab_puts_it_off(desk: Desk):
    grab = desk.keyboard.grab

    def slow(on: bool) -> None:
        if on and not desk.keyboard.state:
            desk.keyboard.happen((KEY, W, 1))
        grab(on)

    desk.keyboard.grab = slow  # type: ignore[method-assign]
    desk.capture("KEY_Q")
    assert not desk.keyboard.grabbed
    assert desk.host.drains
    assert desk.hear() == [Pressed("KEY_W", True)]
    desk.keyboard.grab = grab  # type: ignore[method-assign]
    desk.keyboard.happen((KEY, W, 0))
    desk.hear()
    assert desk.keyboard.grabbed


def test_dropped_events_are_made_up_for_from_the_state(desk: Desk):
    desk.capture("KEY_Q")
    desk.keyboard.happen((KEY, W, 1))
    desk.hear()
    desk.keyboard.miss((KEY, W, 0), (KEY, 30, 1))
    desk.keyboard.happen((KEY, 31, 1), dropped=True)
    assert desk.hear() == [Released("KEY_W"), Pressed("KEY_A", True), Pressed("KEY_S", True)]
    assert desk.clone("Bollard").down == {30, 31}


def test_unplugged_and_back_it_works_at_once(desk: Desk):
    desk.capture("BTN_SIDE")
    desk.mouse.happen((KEY, SIDE, 1))
    desk.mouse.happen((KEY, LEFT, 1))
    desk.hear()
    back = desk.swap("/dev/input/event3", MOUSE)
    told = desk.hear()
    assert told[:-1] == [Released("BTN_LEFT"), Released("BTN_SIDE")]
    assert isinstance(told[-1], InputsLost)
    assert {"BTN_SIDE", "WHEEL_UP"} <= told[-1].controls
    assert desk.clone().down == set()
    assert "BTN_SIDE" not in {code for device in desk.backend.devices() for code in device.controls}
    desk.finder.tell("add", "/dev/input/event3")
    desk.hear()
    # Its clone is known to the desktop, so there is nothing to wait for.
    assert back.grabbed
    assert sum(v.name == "Halyard" for v in desk.virtuals) == 1
    back.happen((KEY, SIDE, 1))
    assert desk.hear() == [Pressed("BTN_SIDE")]


def test_what_was_pressed_last_on_an_unplugged_device_is_lost_though_another_has_such_a_button():
    """A Toggle that its mouse's button started has nobody to end it."""
    first, second = (FakeNode(f"/dev/input/event{n}", MOUSE, f"Mouse {n}", f"usb-{n}/input0") for n in (3, 4))
    desk = Desk(first, second)
    desk.capture("BTN_SIDE", "BTN_EXTRA")
    for node, code in ((first, 0x114), (second, 0x114), (first, SIDE)):
        node.happen((KEY, code, 1))
        node.happen((KEY, code, 0))
        desk.hear()
    first.broken = errno.ENODEV
    desk.finder.tell("remove", first.path)
    told = desk.hear()
    assert told[-1] == InputsLost(frozenset({"BTN_SIDE"}))
    desk.close()


@pytest.mark.parametrize("error", [errno.ENODEV, errno.EIO])
def test_a_node_that_returns_errors_is_left_alone_and_the_others_go_on(desk: Desk, error: int):
    desk.capture("BTN_SIDE", "KEY_Q")
    desk.mouse.happen((KEY, SIDE, 1))
    desk.mouse.broken = error
    assert isinstance(desk.hear()[-1], InputsLost)
    assert desk.hear() == []
    assert bool(desk.host.faults) == (error == errno.EIO)
    desk.keyboard.happen((KEY, 16, 1))
    assert desk.hear() == [Pressed("KEY_Q")]


def test_a_device_that_another_program_has_is_told_and_tried_again(desk: Desk):
    desk.mouse.taken_by_another = True
    desk.capture("BTN_SIDE")
    assert "another program has it for itself" in desk.host.faults[0]
    found = next(d for d in desk.backend.devices() if d.name == "Halyard")
    assert found.trouble
    assert found.note in desk.host.faults[0]
    desk.mouse.taken_by_another = False
    desk.host.pass_time(BUSY_US)
    assert desk.mouse.grabbed
    assert not any(device.trouble for device in desk.backend.devices())


def test_a_clone_that_uinput_refuses_leaves_the_device_free(desk: Desk):
    def refuse(name: str, abilities: Abilities, phys: str) -> FakeVirtual:
        raise BackendUnavailable("uinput refused the virtual device: out of memory")

    desk.backend._grabs.virtual = refuse
    desk.capture("BTN_SIDE", "KEY_Q")
    assert "Halyard can't be captured: uinput refused" in desk.host.faults[0]
    assert not desk.mouse.grabbed
    desk.mouse.happen((KEY, SIDE, 1))
    assert desk.hear() == [Pressed("BTN_SIDE", True)]


def test_the_desktop_sets_a_twin_before_the_device_is_grabbed(desk: Desk):
    desk.host.slow_desktop = True
    desk.capture("BTN_SIDE")
    clone = desk.clone()
    assert desk.host.introduced == [(clone.path, (desk.mouse.path,))]
    desk.host.pass_time(SETTLE_US)
    assert not desk.mouse.grabbed
    desk.mouse.happen((KEY, SIDE, 1), (KEY, SIDE, 0))
    desk.hear()
    desk.host.unknown.pop()()
    assert desk.mouse.grabbed
    # Once it knows it that is for good.
    desk.capture()
    assert not desk.mouse.grabbed
    desk.capture("BTN_SIDE")
    assert desk.mouse.grabbed
    assert len(desk.host.introduced) == 1


def test_a_desktop_that_takes_too_long_is_not_waited_for(desk: Desk):
    desk.host.slow_desktop = True
    desk.capture("BTN_SIDE")
    desk.host.pass_time(KNOWN_US - SETTLE_US - 1)
    assert not desk.mouse.grabbed
    desk.host.pass_time(1)
    assert desk.mouse.grabbed
    # Its answer comes when the device has gone.
    desk.finder.tell("remove", desk.mouse.path)
    desk.mouse.broken = errno.ENODEV
    desk.hear()
    desk.host.unknown.pop()()


def test_a_desktop_that_knows_a_twin_at_once_has_the_time_to_open_it_all_the_same(desk: Desk):
    desk.backend.capture(("BTN_SIDE",))
    desk.host.pass_time(SETTLE_US - 1)
    assert not desk.mouse.grabbed
    desk.host.pass_time(1)
    assert desk.mouse.grabbed


def test_our_own_keyboard_and_mouse_are_like_the_first_real_ones(desk: Desk):
    desk.backend.introduce()
    desk.backend.introduce()
    hands = desk.injectors.path
    assert desk.host.introduced == [(hands, (desk.keyboard.path, desk.mouse.path))]
    desk.swap(desk.keyboard.path, MOUSE)
    desk.hear()
    # Without a keyboard there is what the desktop has for all.
    assert desk.host.introduced[1:] == [(hands, ("", desk.mouse.path))]


def wait_for_grab(desk: Desk, *controls: str) -> None:
    """As far as the first grab that the kernel is asked for and has not answered."""
    desk.backend.capture(controls)
    desk.host.do_all()
    desk.host.pass_time(SETTLE_US)
    assert len(desk.host.waiting) == 1


def test_while_the_kernel_takes_its_time_the_other_devices_go_on():
    desk = Desk(at_once=False)
    wait_for_grab(desk, "BTN_SIDE", "KEY_Q")
    desk.host.work()
    assert (desk.mouse.grabbed, desk.keyboard.grabbed) == (True, False)
    desk.mouse.happen((KEY, LEFT, 1))
    desk.keyboard.happen((KEY, W, 1))
    assert desk.hear() == [Pressed("KEY_W", True)]
    desk.host.do_all()
    assert desk.hear() == [Pressed("BTN_LEFT", True)]
    assert desk.clone().down == {LEFT}
    # Its W went down before the grab.
    assert not desk.keyboard.grabbed
    desk.keyboard.happen((KEY, W, 0))
    desk.hear()
    desk.host.do_all()
    assert desk.keyboard.grabbed
    desk.close()


def test_what_comes_while_a_device_is_let_go_passes_once():
    desk = Desk(at_once=False)
    wait_for_grab(desk, "BTN_SIDE")
    desk.host.do_all()
    desk.backend.capture(())
    desk.mouse.happen((REL, 0, 3))
    desk.host.work()
    desk.mouse.happen((KEY, LEFT, 1))
    desk.host.do_all()
    assert desk.hear() == [Pressed("BTN_LEFT", True)]
    assert desk.clone().reports == [[(REL, 0, 3)]]
    assert desk.mouse.seen == [(KEY, LEFT, 1)]
    desk.close()


def test_a_device_unplugged_while_the_kernel_is_asked_for_it_is_closed_after_the_answer():
    desk = Desk(at_once=False)
    wait_for_grab(desk, "BTN_SIDE")
    desk.swap("/dev/input/event3", MOUSE)
    assert desk.hear() == []
    desk.host.do_all()
    assert isinstance(desk.hear()[-1], InputsLost)
    desk.host.do_all()
    assert [device.name for device in desk.backend.devices()] == ["Bollard"]
    assert desk.host.faults == []
    desk.close()


@pytest.mark.parametrize("worked", [0, 1, 2])
def test_closed_while_the_kernel_is_asked_everything_is_closed(worked: int):
    desk = Desk(at_once=False)
    desk.backend.capture(("BTN_SIDE", "KEY_Q"))
    for _ in range(worked):
        desk.host.work()
    desk.finder.tell("add", "/dev/input/event3")
    desk.backend.close()
    desk.host.do_all()
    for handle in (desk.mouse.fd, desk.keyboard.fd, *(virtual.fd for virtual in desk.virtuals)):
        with pytest.raises(OSError, match="Bad file descriptor"):
            os.fstat(handle)


def test_two_devices_that_tell_the_same_of_themselves_have_a_clone_each():
    first, second = (FakeNode(f"/dev/input/event{n}", KEYBOARD, "Bollard") for n in (3, 4))
    desk = Desk(first, second)
    desk.capture("KEY_Q")
    clones = [virtual for virtual in desk.virtuals if virtual.name == "Bollard"]
    assert len(clones) == 2
    for node in (first, second):
        node.happen((KEY, W, 1))
    first.happen((KEY, W, 0))
    desk.hear()
    assert [clone.down for clone in clones] == [set(), {W}]
    # Plugged in again, it takes its own, and the other keeps its one.
    desk.swap("/dev/input/event3", KEYBOARD)
    desk.finder.tell("add", "/dev/input/event3")
    desk.hear()
    assert sum(virtual.name == "Bollard" for virtual in desk.virtuals) == 2
    assert clones[1].down == {W}
    desk.close()


def test_a_device_that_goes_and_comes_in_one_piece_of_news_is_opened_anew(desk: Desk):
    desk.capture("BTN_SIDE")
    back = desk.swap("/dev/input/event3", MOUSE)
    desk.finder.tell("add", "/dev/input/event3")
    assert isinstance(desk.hear()[-1], InputsLost)
    assert back.grabbed


def test_motion_does_not_keep_a_device_from_being_let_go(desk: Desk):
    desk.capture("BTN_SIDE")
    read = desk.mouse.read

    def never_still() -> bytes:
        desk.mouse.happen((REL, 0, 1))
        return read()

    desk.mouse.read = never_still  # type: ignore[method-assign]
    desk.backend.capture(())
    desk.hear()
    assert not desk.mouse.grabbed


def test_a_device_that_vanishes_before_it_is_opened_is_no_fault(desk: Desk):
    desk.finder.tell("add", "/dev/input/event77")
    desk.hear()
    assert desk.host.faults == []
    desk.refuse = errno.EACCES
    desk.finder.tell("add", "/dev/input/event78")
    desk.hear()
    (refused,) = [device for device in desk.backend.devices() if device.trouble]
    assert refused.name == "/dev/input/event78"
    assert "nakrel doctor --fix" in refused.note
    # Permission comes with a change of the node, told by the device manager.
    desk.refuse = 0
    desk.nodes["/dev/input/event78"] = FakeNode("/dev/input/event78", KEYBOARD, "Late")
    desk.finder.tell("change", "/dev/input/event78")
    desk.hear()
    assert "Late" in {device.name for device in desk.backend.devices()}


def test_interfaces_of_one_device_are_one_device():
    mouse = FakeNode("/dev/input/event5", MOUSE, "Halyard 12", "usb-0000:00:14.0-1/input0")
    keys = FakeNode(
        "/dev/input/event6", KEYBOARD._replace(ids=MOUSE.ids), "Halyard 12 Keyboard", "usb-0000:00:14.0-1/input1"
    )
    desk = Desk(mouse, keys)
    (device,) = desk.backend.devices()
    assert device.name == "Halyard 12"
    assert {"BTN_SIDE", "KEY_1", "WHEEL_UP"} <= set(device.controls)
    desk.close()


def test_two_devices_with_one_control_are_one_press(desk: Desk):
    other = desk.nodes["/dev/input/event9"] = FakeNode("/dev/input/event9", KEYBOARD, "Second", "usb-9/input0")
    desk.finder.tell("add", "/dev/input/event9")
    desk.hear()
    heard = []
    for node, value in ((desk.keyboard, 1), (other, 1), (desk.keyboard, 0), (other, 0)):
        node.happen((KEY, W, value))
        heard += desk.hear()
    assert heard == [Pressed("KEY_W", True), Released("KEY_W")]


def test_lights_go_from_the_clone_to_the_keyboard(desk: Desk):
    desk.capture("KEY_Q")
    desk.clone("Bollard").ask(abi.report((abi.EV_LED, 1, 1)))
    desk.hear()
    assert desk.keyboard.seen == [(abi.EV_LED, 1, 1)]
    # The light's own report comes back as an event of the keyboard, and must not go round.
    desk.keyboard.happen((abi.EV_LED, 1, 1))
    desk.hear()
    assert desk.clone("Bollard").reports == []


def test_the_light_of_scroll_lock_is_put_on_and_as_it_was_before(desk: Desk):
    desk.backend.show_light(True)
    desk.backend.show_light(True)
    assert desk.keyboard.seen == [(abi.EV_LED, abi.LED_SCROLLL, 1)]
    desk.backend.show_light(False)
    desk.backend.show_light(False)
    assert desk.keyboard.seen[1:] == [(abi.EV_LED, abi.LED_SCROLLL, 0)]
    desk.keyboard.seen[:] = [(abi.EV_LED, abi.LED_SCROLLL, 1)]
    desk.backend.show_light(True)
    desk.backend.show_light(False)
    assert desk.keyboard.seen[-1] == (abi.EV_LED, abi.LED_SCROLLL, 1)
    assert desk.mouse.seen == []


def test_no_permission_is_told_with_the_number_of_devices():
    finder, host = FakeFinder(["/dev/input/event0", "/dev/input/event1"]), FakeHost()

    def refuse(path: str) -> FakeNode:
        raise PermissionError(errno.EACCES, "no")

    with pytest.raises(BackendUnavailable, match="no permission to read the 2 devices"):
        KernelBackend(host, finder, refuse, FakeVirtual)


def test_what_is_emitted_has_a_report_for_each_event_in_order(desk: Desk):
    wanted = [("KEY_LEFTSHIFT", 1), ("KEY_Q", 1), ("BTN_LEFT", 1), ("BTN_LEFT", 0), ("KEY_Q", 0), ("KEY_LEFTSHIFT", 0)]
    desk.backend.emit([Emit(code, value, 0, "m") for code, value in (*wanted, ("WHEEL_DOWN", 2))])
    keys = [[(KEY, number, value)] for number, value in ((42, 1), (16, 1), (272, 1), (272, 0), (16, 0), (42, 0))]
    wheel = [(REL, abi.REL_WHEEL, -2), (REL, abi.REL_WHEEL_HI_RES, -240)]
    assert desk.injectors.reports == [*keys, wheel]
    with pytest.raises(CannotEmit, match="Thumb 3"):
        desk.backend.emit([Emit("BTN_TRIGGER_HAPPY3", 1, 0, "m"), Emit("KEY_W", 1, 0, "m")])
    assert desk.injectors.reports[-1] == [(KEY, W, 1)]


def test_positions_span_the_whole_screen_and_each_is_a_change(desk: Desk):
    for x, y in ((0, 0), (0, 0), (2559, 1439), (-5, 9999)):
        desk.backend.move_to(x, y, 2560, 1440)
    told = [tuple(event[2] for event in report) for report in desk.virtuals[1].reports]
    assert told[1::2] == [(0, 0), (0, 0), (65_535, 65_535), (0, 65_535)]
    # The kernel passes on what differs from before; so each is led up to by its neighbour.
    assert all(
        abs(a - b) == 1
        for beside, place in zip(told[::2], told[1::2], strict=True)
        for a, b in zip(beside, place, strict=True)
    )


def test_which_nodes_are_of_use():
    assert serves(MOUSE, "usb-1/input0")
    assert serves(KEYBOARD, "usb-1/input0")
    assert not serves(MOUSE, "nakrel/usb-1/input0")
    power = Abilities((0x19, 0, 1, 0), {KEY: frozenset({116})}, {})
    touchpad = Abilities((0x18, 1, 1, 1), {KEY: frozenset({0x110, 0x145, 0x14A}), abi.EV_ABS: frozenset({0, 1})}, {})
    everything = Abilities(MOUSE.ids, {**MOUSE.codes, KEY: frozenset(range(1, 0x300))}, {})
    assert [serves(a, "p") for a in (power, touchpad, everything)] == [False, False, True]
    box = Abilities((3, 1, 1, 1), {KEY: frozenset(range(0x100, 0x106))}, {})
    tablet = Abilities((3, 1, 1, 1), {KEY: frozenset(range(0x100, 0x106)), abi.EV_ABS: frozenset({8})}, {})
    macro_keys = Abilities((3, 1, 1, 1), {KEY: frozenset(range(0x290, 0x2A0))}, {})
    assert [serves(a, "p") for a in (box, tablet, macro_keys)] == [True, False, True]


# A mouse of which two thumb buttons send 1, from the row of digits and from the keypad.
_KEYS = MOUSE_KEYS | {2, 79}
_TAKEN = ["BTN_LEFT", "BTN_SIDE", "BTN_EXTRA", "KEY_1", "BTN_TRIGGER_HAPPY1", "SECOND:KEY_KP1"]
_NAMINGS = [KeyNaming(), KeyNaming(thumbs=("Halyard",)), KeyNaming(second=("Halyard",))]
moves = st.one_of(
    st.tuples(st.just("key"), st.sampled_from(sorted(_KEYS)), st.booleans()),
    st.tuples(st.just("call keys"), st.integers(0, 2), st.just(True)),
    st.tuples(st.just("move"), st.integers(-9, 9), st.just(True)),
    st.tuples(st.just("take"), st.sets(st.sampled_from(_TAKEN)), st.just(True)),
    st.tuples(st.just("time"), st.sampled_from([1_000, SETTLE_US]), st.just(True)),
    st.tuples(st.sampled_from(["read", "work", "hand over"]), st.just(0), st.just(True)),
)


@given(st.lists(moves, max_size=60), st.booleans())
@settings(max_examples=600)
def test_whatever_is_taken_and_when_nothing_sticks_and_no_motion_is_lost(
    sequence: list[tuple[str, Any, bool]], at_once: bool
):
    """What the desktop sees is the node while it is free and the clone while it is grabbed; in the end nothing is
    down on either, and every unit of motion came through exactly one of them. However late the kernel's answers are."""
    abilities = MOUSE._replace(codes={**MOUSE.codes, KEY: _KEYS})
    board = FakeNode("/dev/input/event4", KEYBOARD, "Bollard", "usb-0000:00:14.0-2/input0")
    desk = Desk(FakeNode("/dev/input/event3", abilities, "Halyard"), board, at_once=at_once)
    # Whatever is answered early is what is told next: `Desk` looks at each.
    desk.host.firsts = {"BTN_SIDE": "KEY_Q", "BTN_LEFT": "KEY_W"}
    moved = 0
    heard: list[Any] = []
    for what, value, down in [*sequence, ("take", set(), True), *[("key", key, False) for key in _KEYS]]:
        match what:
            case "call keys":
                desk.backend.call_keys(_NAMINGS[value])
            case "key" if down != (value in desk.mouse.state):
                desk.mouse.happen((KEY, value, int(down)))
            case "move":
                moved += value
                desk.mouse.happen((REL, 0, value))
            case "take":
                desk.backend.capture(value)
            case "time":
                desk.host.pass_time(value)
            case "read":
                heard += desk.hear()
            case "work":
                desk.host.work()
            case "hand over":
                desk.host.hand_over()
    for _ in range(3):
        heard += desk.hear()
        desk.host.do_all()
        desk.host.pass_time(SETTLE_US)
    seen = list(desk.mouse.seen)
    clone_down: set[int] = set()
    for virtual in desk.virtuals[2:]:
        seen += [event for report in virtual.reports for event in report]
        clone_down |= virtual.down
    assert sum(value for kind, _, value in seen if kind == REL) == moved
    assert clone_down == set()
    assert not desk.mouse.grabbed
    # The programs see no press without its release, and we hear of each press and each release once.
    for key in _KEYS:
        edges = [value for kind, code, value in desk.mouse.seen if (kind, code) == (KEY, key)]
        assert edges == [1, 0] * (len(edges) // 2)
    presses = [event.control for event in heard if isinstance(event, Pressed)]
    assert sorted(presses) == sorted(event.control for event in heard if isinstance(event, Released))
    desk.close()


# The pointer's speed
