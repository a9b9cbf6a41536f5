"""A virtual device that another program has for itself: what is sent there reaches that program alone."""

from __future__ import annotations

from hypothesis import given, settings
from hypothesis import strategies as st

from nakrel.backends.kernel.arrivals import LOOK_US
from nakrel.backends.kernel.output import HANDS_NAME
from nakrel.core.play.events import Emit
from tests.backends.desk import KEY, LEFT, Desk

TAP = (Emit("KEY_F", 1, 0, "m"), Emit("KEY_F", 0, 0, "m"))


def press(desk: Desk) -> None:
    """A macro presses F, and it is looked whether that arrived."""
    desk.backend.emit(TAP)
    desk.host.pass_time(LOOK_US)


def troubled(desk: Desk) -> list[str]:
    return [device.name for device in desk.backend.devices() if device.trouble]


def test_what_arrives_is_no_trouble_and_without_presses_nobody_looks(desk: Desk):
    for _ in range(3):
        press(desk)
    assert troubled(desk) == []
    assert desk.host.faults == []
    assert "arrivals" not in desk.host.timers


def test_macros_that_reach_one_program_alone_are_told_once_and_until_they_arrive_again(desk: Desk):
    press(desk)
    desk.injectors.node.taken_by_another = True
    press(desk)
    press(desk)
    assert troubled(desk) == [HANDS_NAME]
    [fault] = desk.host.faults
    assert HANDS_NAME in fault
    desk.injectors.node.taken_by_another = False
    press(desk)
    assert troubled(desk) == []


def test_a_clone_is_watched_by_what_passes_through_it(desk: Desk):
    desk.capture("BTN_SIDE")
    for taken in (False, True):
        desk.clone().node.taken_by_another = taken
        for value in (1, 0):
            desk.mouse.happen((KEY, LEFT, value))
        desk.hear()
        desk.host.pass_time(LOOK_US)
    assert troubled(desk) == ["Halyard"]
    assert desk.host.faults[0].startswith("Halyard: another program has")


@settings(max_examples=60)
@given(st.lists(st.tuples(st.booleans(), st.booleans()), max_size=12))
def test_it_is_said_exactly_while_the_last_press_reached_one_program_alone(history: list[tuple[bool, bool]]):
    """Each is: whether another program has it, and whether something is pressed then."""
    with Desk() as desk:
        press(desk)
        said = False
        for taken, pressed in history:
            desk.injectors.node.taken_by_another = taken
            if pressed:
                press(desk)
                said = taken
            assert troubled(desk) == [HANDS_NAME] * said


def test_a_node_that_cant_be_read_is_no_trouble(desk: Desk):
    desk.injectors.path = "/dev/input/nowhere"
    for _ in range(3):
        press(desk)
    assert troubled(desk) == []
