"""Presses that are answered before they are taken apart: once each, and only where that is sure."""

from __future__ import annotations

import pytest

from nakrel.backends.kernel import abi
from nakrel.core.play.events import InputsLost, Pressed, Released
from tests.backends.desk import KEY, LEFT, REL, SIDE, Desk, W
from tests.backends.fake_kernel import MOUSE, FakeNode

Q = 16
SCAN = (abi.EV_MSC, abi.MSC_SCAN, 0x90004)


@pytest.fixture
def desk(desk: Desk) -> Desk:
    desk.host.firsts = {"BTN_SIDE": "KEY_Q", "KEY_W": "KEY_Q"}
    return desk


def presses(desk: Desk) -> list[list[tuple[int, int, int]]]:
    return desk.injectors.reports


@pytest.mark.parametrize("before", [(), (SCAN,)], ids=["alone", "with its scan code"])
def test_what_a_press_puts_down_is_sent_before_the_press_is_told(desk: Desk, before: tuple[tuple[int, int, int], ...]):
    desk.capture("BTN_SIDE")
    for _ in range(2):
        desk.mouse.happen(*before, (KEY, SIDE, 1))
        sent = len(presses(desk))
        assert desk.turn() == [Pressed("BTN_SIDE")]
        assert presses(desk)[sent:] == [[(KEY, Q, 1)]]
        desk.mouse.happen(*before, (KEY, SIDE, 0))
        assert desk.turn() == [Released("BTN_SIDE")]
    assert desk.answered == [("BTN_SIDE", "KEY_Q")] * 2


def test_a_press_is_answered_in_a_row_of_motion_and_motion_is_not(desk: Desk):
    desk.capture("BTN_SIDE")
    for _ in range(30):
        desk.mouse.happen((REL, abi.REL_X, 1))
        assert desk.turn() == []
    desk.mouse.happen((KEY, SIDE, 1))
    assert desk.turn() == [Pressed("BTN_SIDE")]
    assert desk.answered == [("BTN_SIDE", "KEY_Q")]
    assert len(desk.clone().reports) == 30


def test_what_passes_to_the_programs_is_not_answered(desk: Desk):
    desk.capture("KEY_A")
    desk.keyboard.happen((KEY, W, 1))
    assert desk.hear() == [Pressed("KEY_W", True)]
    desk.keyboard.happen((KEY, W, 0))
    desk.hear()
    # Not grabbed yet.
    desk.backend.capture(("BTN_SIDE", "KEY_A"))
    desk.mouse.happen((KEY, SIDE, 1))
    assert desk.hear() == [Pressed("BTN_SIDE", True)]
    assert not desk.answered
    assert not presses(desk)


def test_a_press_that_shares_its_report_is_not_answered(desk: Desk):
    desk.capture("BTN_SIDE", "BTN_LEFT")
    desk.mouse.happen((KEY, LEFT, 1), (KEY, SIDE, 1))
    assert desk.hear() == [Pressed("BTN_LEFT"), Pressed("BTN_SIDE")]
    assert not desk.answered


def test_a_press_with_more_behind_it_is_not_answered(desk: Desk):
    desk.capture("BTN_SIDE")
    desk.mouse.happen((KEY, SIDE, 1))
    desk.mouse.happen((REL, abi.REL_X, 1))
    assert desk.hear() == [Pressed("BTN_SIDE")]
    assert not desk.answered


def test_a_control_that_is_down_on_another_device_is_not_answered_again():
    mice = [FakeNode(f"/dev/input/event{n}", MOUSE, f"Mouse {n}", f"usb-{n}/input0") for n in (3, 4)]
    with Desk(*mice) as desk:
        desk.host.firsts = {"BTN_SIDE": "KEY_Q"}
        desk.capture("BTN_SIDE")
        mice[0].happen((KEY, SIDE, 1))
        desk.hear()
        mice[1].happen((KEY, SIDE, 1))
        assert desk.hear() == []
        mice[0].happen((KEY, SIDE, 0))
        mice[1].happen((KEY, SIDE, 0))
        assert desk.hear() == [Released("BTN_SIDE")]
        assert desk.answered == [("BTN_SIDE", "KEY_Q")]


def test_what_bounces_is_looked_at_before_it_is_answered(desk: Desk):
    desk.backend.debounce({"Halyard": {"BTN_SIDE": 20_000}})
    desk.capture("BTN_SIDE")
    desk.mouse.happen((KEY, SIDE, 1))
    assert desk.hear() == [Pressed("BTN_SIDE")]
    assert not desk.answered


def test_what_no_device_of_ours_has_is_left_to_those_who_tell_it(desk: Desk):
    desk.host.firsts = {"BTN_SIDE": "BTN_TRIGGER_HAPPY3"}
    desk.capture("BTN_SIDE")
    desk.mouse.happen((KEY, SIDE, 1))
    assert desk.hear() == [Pressed("BTN_SIDE")]
    assert not desk.answered
    assert not presses(desk)


def test_what_an_answer_put_down_is_let_go_when_all_ends(desk: Desk):
    desk.capture("BTN_SIDE")
    desk.mouse.happen((KEY, SIDE, 1))
    desk.hear()
    desk.backend.close()
    assert presses(desk)[-1] == [(KEY, Q, 0)]


def test_a_mouse_that_is_unplugged_after_an_answer_is_told_as_let_go(desk: Desk):
    desk.capture("BTN_SIDE")
    desk.mouse.happen((KEY, SIDE, 1))
    desk.hear()
    desk.swap(desk.mouse.path, MOUSE)
    told = desk.hear()
    assert told[0] == Released("BTN_SIDE")
    assert isinstance(told[-1], InputsLost)
