"""Motion through the kernel backend at another speed: exact to the unit."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.channel import SETTLE_US
from nakrel.backends.kernel.nodes import Abilities
from nakrel.core.model.conditioning import Motion
from nakrel.core.play.events import Pressed, Released, Turned
from tests.backends.desk import KEY, LEFT, REL, SIDE, Desk, W
from tests.backends.fake_kernel import MOUSE, FakeNode


def moved(reports: list[list[tuple[int, int, int]]]) -> tuple[int, int]:
    """The motion of all reports together."""
    every = [event for report in reports for event in report if event[0] == REL]
    return sum(v for _, code, v in every if code == abi.REL_X), sum(v for _, code, v in every if code == abi.REL_Y)


def test_a_speed_has_mice_grabbed_and_nothing_else_and_gives_them_back(desk: Desk):
    desk.backend.condition(Motion(50, 50))
    desk.host.pass_time(SETTLE_US)
    assert (desk.mouse.grabbed, desk.keyboard.grabbed) == (True, False)
    desk.backend.condition(None)
    assert not desk.mouse.grabbed


def test_motion_is_slower_and_no_part_of_a_unit_is_lost(desk: Desk):
    desk.backend.condition(Motion(30, 200))
    desk.host.pass_time(SETTLE_US)
    for _ in range(100):
        desk.mouse.happen((REL, abi.REL_X, 1), (REL, abi.REL_Y, -1))
    assert desk.hear() == []
    assert moved(desk.clone().reports) == (30, -200)
    # A report of which nothing is left is none.
    assert [] not in desk.clone().reports


def test_what_comes_with_motion_in_a_report_stays_in_it(desk: Desk):
    desk.backend.condition(Motion(50, 50))
    desk.host.pass_time(SETTLE_US)
    desk.mouse.happen((abi.EV_MSC, abi.MSC_SCAN, 0x90001), (KEY, LEFT, 1), (REL, abi.REL_X, 5))
    desk.mouse.happen((REL, abi.REL_X, 1))
    desk.mouse.happen((KEY, LEFT, 0))
    assert desk.hear() == [Pressed("BTN_LEFT", True), Released("BTN_LEFT")]
    assert desk.clone().reports == [
        [(abi.EV_MSC, abi.MSC_SCAN, 0x90001), (KEY, LEFT, 1), (REL, abi.REL_X, 2)],
        [(REL, abi.REL_X, 1)],
        [(KEY, LEFT, 0)],
    ]


def test_another_stage_is_there_with_the_next_report(desk: Desk):
    desk.backend.condition(Motion(100, 100))
    desk.host.pass_time(SETTLE_US)
    assert desk.mouse.grabbed
    desk.mouse.happen((REL, abi.REL_X, 8))
    desk.hear()
    desk.backend.condition(Motion(25, 25))
    desk.mouse.happen((REL, abi.REL_X, 8))
    desk.hear()
    assert desk.clone().reports == [[(REL, abi.REL_X, 8)], [(REL, abi.REL_X, 2)]]


def test_the_wheels_speed_goes_by_its_parts_of_notches(desk: Desk):
    desk.backend.condition(Motion(wheel=150))
    desk.host.pass_time(SETTLE_US)
    for _ in range(2):
        desk.mouse.happen((REL, abi.REL_WHEEL, 1), (REL, abi.REL_WHEEL_HI_RES, 120))
    # A part of a notch, of which no whole one comes.
    desk.mouse.happen((REL, abi.REL_WHEEL_HI_RES, -40))
    assert desk.hear() == [Turned("WHEEL_UP", 1, True)] * 2
    assert desk.clone().reports == [
        [(REL, abi.REL_WHEEL_HI_RES, 180), (REL, abi.REL_WHEEL, 1)],
        [(REL, abi.REL_WHEEL_HI_RES, 180), (REL, abi.REL_WHEEL, 2)],
        [(REL, abi.REL_WHEEL_HI_RES, -60)],
    ]


def test_a_wheel_without_parts_goes_by_its_notches():
    coarse = Abilities(MOUSE.ids, {**MOUSE.codes, REL: frozenset({0, 1, abi.REL_WHEEL})}, {})
    desk = Desk(FakeNode("/dev/input/event3", coarse, "Halyard"))
    desk.backend.condition(Motion(wheel=50))
    desk.host.pass_time(SETTLE_US)
    for _ in range(4):
        desk.mouse.happen((REL, abi.REL_WHEEL, -1))
    desk.hear()
    assert desk.clone().reports == [[(REL, abi.REL_WHEEL, -1)], [(REL, abi.REL_WHEEL, -1)]]
    desk.close()


def test_a_wheel_direction_that_is_attached_is_not_sent_at_any_speed(desk: Desk):
    desk.backend.condition(Motion(wheel=200))
    desk.capture("WHEEL_UP")
    desk.mouse.happen((REL, abi.REL_WHEEL, 1), (REL, abi.REL_WHEEL_HI_RES, 120))
    desk.mouse.happen((REL, abi.REL_WHEEL, -1), (REL, abi.REL_WHEEL_HI_RES, -120))
    assert desk.hear() == [Turned("WHEEL_UP", 1, False), Turned("WHEEL_DOWN", 1, True)]
    assert desk.clone().reports == [[(REL, abi.REL_WHEEL_HI_RES, -240), (REL, abi.REL_WHEEL, -2)]]


def test_a_mouse_plugged_in_later_moves_at_that_speed_too(desk: Desk):
    desk.backend.condition(Motion(50, 50))
    node = desk.swap("/dev/input/event3", MOUSE)
    desk.hear()
    desk.finder.tell("add", "/dev/input/event3")
    desk.hear()
    desk.host.pass_time(SETTLE_US)
    assert node.grabbed
    node.happen((REL, abi.REL_X, 10))
    desk.hear()
    assert desk.clone().reports[-1] == [(REL, abi.REL_X, 5)]


@given(st.lists(st.tuples(st.integers(-50, 50), st.integers(-50, 50), st.booleans()), max_size=40), st.integers(1, 300))
@settings(max_examples=60, deadline=None)
def test_at_any_speed_the_whole_motion_is_exact(reports: list[tuple[int, int, bool]], percent: int):
    desk = Desk()
    desk.backend.condition(Motion(percent, percent, straight=0))
    desk.host.pass_time(SETTLE_US)
    for x, y, button in reports:
        desk.mouse.happen((REL, 0, x), (REL, 1, y), *([(KEY, LEFT, 1)] if button else []))
        desk.mouse.happen(*([(KEY, LEFT, 0)] if button else []))
        desk.hear()
    found = moved(desk.clone().reports) if any(v.name == "Halyard" for v in desk.virtuals) else (0, 0)
    for axis, now in enumerate(found):
        assert abs(now - sum(report[axis] for report in reports) * percent / 100) < 1
    desk.close()


def test_when_reports_of_motion_came_is_noted_while_it_is_asked_for(desk: Desk):
    halyard = next(device.id for device in desk.backend.devices() if device.name == "Halyard")
    desk.mouse.happen((REL, 0, 1))
    desk.hear()
    assert desk.backend.measure(halyard, on=True) == []
    wanted = []
    for n in range(5):
        desk.mouse.now_us = 30_000_000 + 1_000 * n
        wanted.append(desk.mouse.now_us)
        desk.mouse.happen((REL, 0, 3), (REL, 1, -1))
        # A key among it is no motion; and what is captured is timed as well.
        desk.mouse.happen((KEY, SIDE, 1 - n % 2))
        desk.hear()
        if n == 2:
            desk.mouse.happen((KEY, SIDE, 0))
            desk.hear()
            desk.capture("BTN_SIDE")
    assert desk.backend.measure(halyard, on=False) == wanted
    desk.mouse.happen((REL, 0, 1))
    desk.hear()
    assert desk.backend.measure(halyard, on=False) == []
    with pytest.raises(KeyError):
        desk.backend.measure("kernel:nothing", on=True)


def test_a_mouse_that_never_rests_keeps_no_other_device_from_being_heard(desk: Desk):
    desk.capture("BTN_SIDE")
    heard: list[object] = []
    for n in range(40):
        desk.mouse.happen((REL, abi.REL_X, 1))
        if n == 20:
            desk.keyboard.happen((KEY, W, 1))
        heard.append(desk.turn())
    assert moved(desk.clone().reports) == (40, 0)
    said = [n for n, each in enumerate(heard) if each]
    assert [heard[n] for n in said] == [[Pressed("KEY_W", True)]]
    assert 20 <= said[0] <= 28


def test_a_press_behind_motion_is_heard_once_and_after_it(desk: Desk):
    desk.capture("BTN_SIDE")
    desk.mouse.happen((REL, abi.REL_X, 1))
    assert desk.turn() == []
    desk.mouse.happen((REL, abi.REL_X, 2))
    desk.mouse.happen((KEY, SIDE, 1), (REL, abi.REL_X, 3))
    assert desk.turn() == [Pressed("BTN_SIDE")]
    assert desk.turn() == []
    assert moved(desk.clone().reports) == (6, 0)


def test_a_mouse_that_moved_last_can_be_unplugged_and_plugged_in_again(desk: Desk):
    desk.capture("BTN_SIDE")
    desk.mouse.happen((REL, abi.REL_X, 1))
    desk.turn()
    again = desk.swap(desk.mouse.path, MOUSE)
    desk.finder.tell("add", again.path)
    desk.hear()
    desk.host.pass_time(SETTLE_US)
    again.happen((REL, abi.REL_X, 5))
    desk.hear()
    assert moved(desk.clone().reports) == (6, 0)
