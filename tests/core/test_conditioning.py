"""Pointer speeds, wheel speed and straight lines: exact to the unit, in the core and through the engine."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.model.cells import ChangeSpeed, HoldLayer, Nothing
from nakrel.core.model.conditioning import (
    MAX_PERCENT,
    MAX_STRAIGHT,
    Conditioner,
    Motion,
    Pointing,
    SpeedStage,
    motion_of,
)
from nakrel.core.model.errors import DataError
from nakrel.core.model.profile import FairPlay, Layer, Profile, SetUp
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import Asked, Pressed, Released, SetSheet, SpeedHeld
from nakrel.core.play.live import motion_now, next_stage
from nakrel.core.play.sheet import Sheet

percents = st.integers(1, MAX_PERCENT)
reports = st.lists(st.tuples(st.integers(-300, 300), st.integers(-300, 300)), max_size=60)
SLOW, FAST = SpeedStage("Slow", 40, 40), SpeedStage("Fast", 150, 120)
PROFILE = Profile(id="p", name="P", pointer=Pointing((SLOW, FAST)))


@given(reports, percents, percents)
def test_after_any_reports_less_than_a_unit_is_missing(moves: list[tuple[int, int]], across: int, down: int):
    way = Conditioner(Motion(across, down))
    out_x = out_y = in_x = in_y = 0
    for dx, dy in moves:
        x, y = way.move(dx, dy)
        in_x, in_y, out_x, out_y = in_x + dx, in_y + dy, out_x + x, out_y + y
        # Reckoned in fractions, apart from how it is done.
        assert abs(out_x - Fraction(in_x * across, 100)) < 1
        assert abs(out_y - Fraction(in_y * down, 100)) < 1


@given(reports)
def test_at_a_hundred_percent_every_report_is_as_it_came(moves: list[tuple[int, int]]):
    way = Conditioner()
    assert [way.move(*each) for each in moves] == moves


@given(reports, percents)
def test_there_and_back_ends_where_it_began(moves: list[tuple[int, int]], percent: int):
    way = Conditioner(Motion(percent, percent))
    out = [way.move(dx, dy) for dx, dy in (*moves, *((-dx, -dy) for dx, dy in reversed(moves)))]
    assert sum(x for x, _ in out) == sum(y for _, y in out) == 0


def test_the_slowest_motion_arrives_too():
    """A tenth of a unit at a time: a thousand reports of one unit are a hundred."""
    way = Conditioner(Motion(10, 10))
    assert sum(way.move(1, 0)[0] for _ in range(1_000)) == 100


@pytest.mark.parametrize("degrees", [5, 15, MAX_STRAIGHT])
@pytest.mark.parametrize("level", [True, False])
def test_motion_near_an_axis_becomes_straight_and_other_motion_stays(degrees: int, level: bool):
    def way_of(angle: float) -> set[tuple[bool, bool]]:
        """Which axes come out of a long motion at that angle to the axis, the first reports aside."""
        way, found = Conditioner(Motion(straight=degrees)), set()
        done_x = done_y = 0
        for n in range(1, 400):
            x, y = (round(n * 5 * math.cos(math.radians(angle))), round(n * 5 * math.sin(math.radians(angle))))
            dx, dy, done_x, done_y = x - done_x, y - done_y, x, y
            moved = way.move(dx, dy) if level else way.move(dy, dx)[::-1]
            if n > 40:
                found.add((bool(moved[0]), bool(moved[1])))
        return found

    assert way_of(degrees - 3) == {(True, False)}
    assert (True, True) in way_of(degrees + 6)


def test_straight_motion_turns_a_corner_at_once():
    way = Conditioner(Motion(straight=10))
    for _ in range(30):
        assert way.move(8, 1) == (8, 0)
    # After a right angle the old direction fades within a few hundredths of a second of reports.
    after = [way.move(0, 8) for _ in range(40)]
    assert after == [(0, 8)] * 40


@given(st.lists(st.integers(-360, 360), max_size=40), percents)
def test_a_fine_wheel_tells_as_many_notches_as_its_parts_make(turns: list[int], percent: int):
    way = Conditioner(Motion(wheel=percent))
    parts = notches = 0
    for turn in turns:
        fine, whole = way.turn(8, turn, fine=True)
        parts, notches = parts + fine, notches + whole
        assert abs(parts - 120 * notches) < 120
    assert abs(parts - Fraction(sum(turns) * percent, 100)) < 1


def test_a_coarse_wheel_at_half_speed_turns_at_every_other_notch():
    way = Conditioner(Motion(wheel=50))
    assert [way.turn(8, 1, fine=False)[1] for _ in range(6)] == [0, 1, 0, 1, 0, 1]
    assert [way.turn(6, -1, fine=False)[1] for _ in range(4)] == [0, -1, 0, -1]


def test_a_profile_without_anything_of_its_own_leaves_devices_alone():
    assert motion_of(Pointing(), "") is None
    assert motion_of(Pointing((SpeedStage("As it is"),)), "As it is") is None
    # One stage that changes something is enough: the device must be ready for it.
    pointing = Pointing((SpeedStage("As it is"), SLOW), straight=3)
    assert motion_of(pointing, "As it is") == Motion(straight=3)
    assert motion_of(pointing, "Slow") == Motion(40, 40, 100, 3)
    assert motion_of(Pointing(wheel=200), "") == Motion(wheel=200)


def test_stages_go_round_and_a_held_one_comes_first():
    assert next_stage(PROFILE, "Slow", ChangeSpeed()) == "Fast"
    assert next_stage(PROFILE, "Fast", ChangeSpeed()) == "Slow"
    assert next_stage(PROFILE, "Slow", ChangeSpeed(by=-1)) == "Fast"
    assert next_stage(PROFILE, "Fast", ChangeSpeed("Slow")) == "Slow"
    assert next_stage(PROFILE, "Fast", ChangeSpeed("gone")) == "Fast"
    assert next_stage(PROFILE, "", ChangeSpeed()) == "Fast"
    assert motion_now(PROFILE, "Fast") == Motion(150, 120)
    assert motion_now(PROFILE, "Fast", held="Slow") == Motion(40, 40)
    assert motion_now(PROFILE, "Fast", held="gone") == Motion(150, 120)


def test_where_the_game_allows_no_macros_motion_passes_as_it_is():
    strict = Profile(id="p", name="P", pointer=PROFILE.pointer, fair_play=FairPlay.NO_MACROS)
    assert motion_now(strict, "Slow") is None


def test_stages_have_names_of_their_own_and_a_held_one_has_a_name():
    with pytest.raises(DataError, match="two pointer speeds named 'Slow'"):
        Profile(id="p", name="P", pointer=Pointing((SLOW, SLOW)))
    with pytest.raises(DataError, match="needs the name"):
        ChangeSpeed(held=True)
    with pytest.raises(DataError, match="Wheel up is a wheel direction"):
        SetUp("Main", {"WHEEL_UP": ChangeSpeed("Slow", held=True)})


# Through the engine


def sheet(profile: str = "p") -> Sheet:
    cells = {
        "BTN_SIDE": ChangeSpeed("Slow", held=True),
        "BTN_EXTRA": ChangeSpeed("Fast", held=True),
        "BTN_MIDDLE": ChangeSpeed(),
        "BTN_FORWARD": HoldLayer("Harbour"),
    }
    layers = [Layer("Harbour", {"KEY_Q": ChangeSpeed("Fast", held=True), "KEY_W": Nothing()})]
    return Sheet.build(profile, cells, lambda key: None, layers)


class Injector:
    def __init__(self) -> None:
        self.engine = Engine()
        self.engine.step(SetSheet(sheet()), 0)

    def told(self, *events: object) -> list[object]:
        return [output for event in events for output in self.engine.step(event, 0)[0]]  # type: ignore[arg-type]


def test_a_speed_is_there_while_its_control_is_held():
    injector = Injector()
    assert injector.told(Pressed("BTN_SIDE")) == [SpeedHeld("Slow")]
    assert injector.told(Pressed("BTN_SIDE")) == []
    assert injector.told(Released("BTN_SIDE")) == [SpeedHeld("")]
    assert injector.told(Pressed("BTN_MIDDLE"), Released("BTN_MIDDLE")) == [Asked(ChangeSpeed(), "BTN_MIDDLE")]


def test_of_two_that_are_held_the_last_one_counts():
    injector = Injector()
    assert injector.told(Pressed("BTN_SIDE"), Pressed("BTN_EXTRA")) == [SpeedHeld("Slow"), SpeedHeld("Fast")]
    # The first one goes: nothing changes; then the other.
    assert injector.told(Released("BTN_SIDE"), Released("BTN_EXTRA")) == [SpeedHeld("")]
    assert injector.told(Pressed("BTN_SIDE"), Pressed("BTN_EXTRA"), Released("BTN_EXTRA"))[-1] == SpeedHeld("Slow")


def test_a_held_speed_ends_with_its_layer_and_with_a_switch_of_the_profile():
    injector = Injector()
    assert injector.told(Pressed("BTN_FORWARD"), Pressed("KEY_Q")) == [SpeedHeld("Fast")]
    assert injector.told(Released("BTN_FORWARD")) == [SpeedHeld("")]
    assert injector.told(Released("KEY_Q")) == []
    injector.told(Pressed("BTN_SIDE"))
    assert injector.told(SetSheet(sheet("another"))) == [SpeedHeld("")]
    assert injector.told(Released("BTN_SIDE")) == []
