"""Bouncing buttons on a kernel made of queues: what passes, what macros hear, and when."""

from __future__ import annotations

from nakrel.backends.kernel.channel import SETTLE_US
from nakrel.core.play.events import Pressed, Released
from tests.backends.desk import KEY, LEFT, REL, SIDE, Desk
from tests.backends.fake_kernel import MOUSE, FakeNode

MS = 1_000
DOWN, UP = (KEY, LEFT, 1), (KEY, LEFT, 0)


def bounce(desk: Desk, ms: int = 10, code: str = "BTN_LEFT") -> None:
    desk.backend.debounce({"Halyard": {code: ms * MS}})
    desk.host.pass_time(SETTLE_US)


def happen(desk: Desk, at_ms: int, *events: tuple[int, int, int]) -> list:
    """A report so long after the first one; what is heard of it."""
    desk.mouse.now_us = 20_000_000 + at_ms * MS
    desk.host.now = max(desk.host.now, desk.mouse.now_us)
    desk.mouse.happen(*events)
    return desk.hear()


def keys(desk: Desk) -> list[tuple[int, int, int]]:
    """What programs saw of keys and buttons."""
    return [event for report in desk.clone().reports for event in report if event[0] == KEY]


def test_a_device_is_grabbed_for_it_and_let_go_without_it(desk: Desk):
    desk.capture()
    assert not desk.mouse.grabbed
    bounce(desk)
    assert (desk.mouse.grabbed, desk.keyboard.grabbed) == (True, False)
    desk.backend.debounce({})
    desk.host.pass_time(SETTLE_US)
    assert not desk.mouse.grabbed


def test_bounces_reach_neither_programs_nor_macros_and_are_counted(desk: Desk):
    bounce(desk)
    heard = []
    for at, event in ((0, DOWN), (2, UP), (4, DOWN), (60, UP), (63, DOWN), (65, UP)):
        heard += happen(desk, at, event)
    assert heard == [Pressed("BTN_LEFT", True), Released("BTN_LEFT")]
    assert keys(desk) == [DOWN, UP]
    halyard = next(device for device in desk.backend.devices() if device.name == "Halyard")
    assert "4 bounces dropped" in halyard.note


def test_the_release_of_a_short_tap_comes_when_its_time_is_over(desk: Desk):
    bounce(desk)
    assert happen(desk, 0, DOWN) == [Pressed("BTN_LEFT", True)]
    assert happen(desk, 4, UP) == []
    assert keys(desk) == [DOWN]
    desk.host.pass_time(5 * MS)
    assert desk.hear() == []
    desk.host.pass_time(2 * MS)
    assert desk.hear() == [Released("BTN_LEFT")]
    assert keys(desk) == [DOWN, UP]


def test_a_taken_button_is_debounced_as_well(desk: Desk):
    desk.capture("BTN_SIDE")
    bounce(desk, code="BTN_SIDE")
    heard = []
    for at, value in ((0, 1), (2, 0), (4, 1), (60, 0)):
        heard += happen(desk, at, (KEY, SIDE, value))
    assert heard == [Pressed("BTN_SIDE"), Released("BTN_SIDE")]
    assert keys(desk) == []


def test_what_comes_with_a_bounce_passes(desk: Desk):
    bounce(desk)
    happen(desk, 0, DOWN)
    happen(desk, 2, (REL, 0, 5), UP)
    happen(desk, 3, (REL, 0, 7))
    assert [event for report in desk.clone().reports for event in report] == [DOWN, (REL, 0, 5), (REL, 0, 7)]


def test_other_buttons_and_devices_are_left_alone(desk: Desk):
    bounce(desk)
    for at, value in ((0, 1), (2, 0), (4, 1), (6, 0)):
        happen(desk, at, (KEY, SIDE, value))
    assert keys(desk) == [(KEY, SIDE, value) for value in (1, 0, 1, 0)]


def test_switched_off_while_a_release_waits_it_is_told(desk: Desk):
    desk.capture("BTN_SIDE")
    bounce(desk)
    happen(desk, 0, DOWN)
    assert happen(desk, 4, UP) == []
    desk.backend.debounce({})
    desk.host.pass_time(1)
    assert desk.hear() == [Released("BTN_LEFT")]
    assert keys(desk) == [DOWN, UP]


def test_the_node_is_not_let_go_while_a_release_waits(desk: Desk):
    bounce(desk, 50)
    happen(desk, 0, DOWN)
    happen(desk, 4, UP)
    desk.backend.debounce({"Halyard": {"BTN_SIDE": 5 * MS}})
    desk.backend.debounce({})
    desk.host.pass_time(1)
    assert desk.hear() == [Released("BTN_LEFT")]
    desk.host.pass_time(SETTLE_US)
    assert not desk.mouse.grabbed
    assert keys(desk) == [DOWN, UP]


def test_a_dropped_report_is_caught_up_with(desk: Desk):
    bounce(desk)
    happen(desk, 0, DOWN)
    desk.mouse.miss(UP)
    desk.mouse.now_us = 20_000_000 + 100 * MS
    desk.mouse.happen((REL, 0, 1), dropped=True)
    assert desk.hear() == [Released("BTN_LEFT")]


def test_a_mouse_that_is_plugged_in_again_is_debounced_as_before(desk: Desk):
    bounce(desk)
    path = desk.mouse.path
    desk.mouse = desk.swap(path, desk.mouse.abilities)
    desk.finder.tell("add", path)
    desk.hear()
    desk.host.pass_time(SETTLE_US)
    assert desk.mouse.grabbed
    heard = []
    for at, event in ((1_000, DOWN), (1_002, UP), (1_004, DOWN), (1_060, UP)):
        heard += happen(desk, at, event)
    assert heard == [Pressed("BTN_LEFT", True), Released("BTN_LEFT")]


def test_a_mouse_whose_name_begins_like_anothers_has_times_of_its_own():
    port = "usb-0000:00:14.0-{}/input0"
    small = FakeNode("/dev/input/event8", MOUSE._replace(ids=(3, 1, 9, 1)), "Halyard Small", port.format(8))
    with Desk(FakeNode("/dev/input/event3", MOUSE, "Halyard", port.format(1)), small) as desk:
        bounce(desk)
        assert (desk.mouse.grabbed, small.grabbed) == (True, False)
        desk.backend.debounce({"Halyard": {}, "Halyard Small": {"BTN_LEFT": 10 * MS}})
        desk.host.pass_time(SETTLE_US)
        assert (desk.mouse.grabbed, small.grabbed) == (False, True)
