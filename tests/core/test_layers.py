"""Layers, and the cells that are no macro: what the engine makes of them."""

from __future__ import annotations

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.model.cells import (
    Cell,
    GoTo,
    HoldLayer,
    Nothing,
    RunMacro,
    StartProgram,
    ToChord,
    ToControl,
    TypeText,
    What,
)
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import Layer, SetUp
from nakrel.core.model.steps import Tap
from nakrel.core.play.acts import AskText, OpenProgram
from nakrel.core.play.engine import FINGER, Engine
from nakrel.core.play.events import (
    Asked,
    Emit,
    Pressed,
    Released,
    RunEnded,
    SetSheet,
    SideEffect,
    StopAll,
    TextReady,
    Turned,
    Wake,
)
from nakrel.core.play.operations import compile_macro
from nakrel.core.play.sheet import NOTCH_US, Sheet
from tests.strategies import setups

FIRE = Macro(id="fire", name="Fire", play=Play(Mode.HELD, pause_us=5_000), loop=(Tap(control="KEY_F", hold_us=5_000),))
PLAN = compile_macro(FIRE)
CELLS: dict[str, Cell] = {
    "BTN_SIDE": HoldLayer("Harbour"),
    "KEY_CAPSLOCK": HoldLayer("Deep"),
    "BTN_EXTRA": ToControl("KEY_A"),
    "BTN_MIDDLE": ToChord(("KEY_LEFTCTRL", "KEY_C")),
}
LAYERS = (
    Layer("Harbour", {"BTN_EXTRA": RunMacro("fire"), "WHEEL_UP": ToControl("KEY_PAGEUP"), "KEY_CAPSLOCK": Nothing()}),
    Layer("Deep", {"BTN_EXTRA": ToControl("KEY_D"), "KEY_T": TypeText("ahoy"), "KEY_O": StartProgram(("tide-map",))}),
)


class Played:
    """An engine with that sheet, and what has come out of it."""

    def __init__(self) -> None:
        self.engine, self.now_us = Engine(), 0
        self.out: list[object] = []
        self.set(CELLS, LAYERS)

    def set(self, cells: dict[str, Cell], layers: tuple[Layer, ...], profile: str = "p") -> None:
        self.sheet = Sheet.build(profile, cells, lambda key: (PLAN, FIRE.play) if key == "fire" else None, layers)
        self.send(SetSheet(self.sheet))

    def send(self, event: object) -> None:
        outputs, self.deadline_us = self.engine.step(event, self.now_us)  # type: ignore[arg-type]
        self.out += outputs

    def run(self, for_us: int) -> None:
        end_us = self.now_us + for_us
        while self.deadline_us is not None and self.deadline_us <= end_us:
            self.now_us = self.deadline_us
            self.send(Wake())
        self.now_us = end_us

    def tap(self, control: str) -> None:
        self.send(Pressed(control))
        self.send(Released(control))

    def edges(self) -> list[tuple[str, int]]:
        found = [(each.control, each.value) for each in self.out if isinstance(each, Emit)]
        self.out.clear()
        return found


def test_a_layer_is_there_while_its_control_is_held():
    played = Played()
    played.tap("BTN_EXTRA")
    assert played.edges() == [("KEY_A", 1), ("KEY_A", 0)]
    played.send(Pressed("BTN_SIDE"))
    played.send(Pressed("BTN_EXTRA"))
    played.run(25_000)
    assert played.edges() == [("KEY_F", 1), ("KEY_F", 0)] * 2 + [("KEY_F", 1), ("KEY_F", 0)]
    played.send(Released("BTN_EXTRA"))
    played.run(20_000)
    played.edges()
    played.send(Released("BTN_SIDE"))
    played.tap("BTN_EXTRA")
    assert played.edges() == [("KEY_A", 1), ("KEY_A", 0)]


def test_letting_the_layer_go_ends_a_held_macro_of_it_and_its_button_does_nothing_more():
    played = Played()
    played.send(Pressed("BTN_SIDE"))
    played.send(Pressed("BTN_EXTRA"))
    played.run(12_000)
    assert played.engine.running
    played.send(Released("BTN_SIDE"))
    assert not played.engine.running
    assert any(isinstance(each, RunEnded) and each.reason == "released" for each in played.out)
    assert played.engine.held() == set()
    played.edges()
    played.send(Released("BTN_EXTRA"))
    played.run(50_000)
    assert played.edges() == []


def test_a_control_goes_back_the_way_it_went_down():
    """What was pressed without the layer is let go as that, though the layer has come meanwhile, and the other way
    round."""
    played = Played()
    played.send(Pressed("BTN_EXTRA"))
    played.send(Pressed("BTN_SIDE"))
    played.send(Released("BTN_EXTRA"))
    assert played.edges() == [("KEY_A", 1), ("KEY_A", 0)]
    played.send(Released("BTN_SIDE"))
    played.send(Pressed("KEY_CAPSLOCK"))
    played.send(Pressed("BTN_EXTRA"))
    played.send(Released("KEY_CAPSLOCK"))
    assert played.edges() == [("KEY_D", 1)]
    played.send(Released("BTN_EXTRA"))
    assert played.edges() == [("KEY_D", 0)]


def test_the_layer_held_last_wins_and_those_beneath_are_seen_through_it():
    played = Played()
    played.send(Pressed("KEY_CAPSLOCK"))
    played.send(Pressed("BTN_SIDE"))
    played.send(Turned("WHEEL_UP"))
    played.run(2 * NOTCH_US)
    assert played.edges() == [("KEY_PAGEUP", 1), ("KEY_PAGEUP", 0)]
    played.send(Pressed("BTN_EXTRA"))
    assert played.engine.running == {"fire": 0}
    played.send(Released("BTN_EXTRA"))
    played.send(Released("BTN_SIDE"))
    played.run(20_000)
    played.edges()
    played.tap("BTN_EXTRA")
    assert played.edges() == [("KEY_D", 1), ("KEY_D", 0)]


def test_a_control_that_does_something_in_a_layer_only_is_itself_without():
    played = Played()
    played.tap("KEY_T")
    assert played.edges() == [("KEY_T", 1), ("KEY_T", 0)]
    assert "KEY_T" in played.sheet.controls()
    # It comes out as itself, which the route to the programs must be ready for.
    assert "KEY_T" in played.sheet.repeats_itself()
    assert "BTN_EXTRA" not in played.sheet.repeats_itself()


def test_a_thumb_button_that_sends_a_key_is_that_key_where_it_does_nothing():
    """It is kept from the programs for the layer's sake, and X has no number for it as a button."""
    played = Played()
    played.set(CELLS, (Layer("Harbour", {"BTN_TRIGGER_HAPPY2": RunMacro("fire")}), LAYERS[1]))
    thumb, key = Pressed("BTN_TRIGGER_HAPPY2", False, "KEY_2"), Pressed("KEY_2", True)
    played.send(thumb)
    assert played.engine.held() == set()
    assert played.engine.is_down("KEY_2")
    assert played.engine.is_down("BTN_TRIGGER_HAPPY2")
    played.send(Released("BTN_TRIGGER_HAPPY2", "KEY_2"))
    assert {each.by for each in played.out if isinstance(each, Emit)} == {FINGER}
    assert played.edges() == [("KEY_2", 1), ("KEY_2", 0)]
    # Beside the keyboard's own it is down until the last lets go, also after a stop.
    played.send(thumb)
    played.send(key)
    played.send(StopAll())
    assert played.edges() == [("KEY_2", 1)]
    played.send(Released("BTN_TRIGGER_HAPPY2", "KEY_2"))
    assert played.edges() == []
    played.send(Released("KEY_2"))
    assert played.edges() == [("KEY_2", 0)]
    assert played.engine.fingers() == {}
    assert played.engine.down() == set()


def test_what_a_finger_is_on_counts_as_held_whatever_it_does():
    played = Played()
    for control in ("BTN_SIDE", "BTN_MIDDLE"):
        assert not played.engine.is_down(control)
        played.send(Pressed(control))
        assert played.engine.is_down(control)
        played.send(Released(control))
        assert not played.engine.is_down(control)


def test_chords_texts_and_programs_are_cells_too():
    played = Played()
    played.tap("BTN_MIDDLE")
    assert played.edges() == [("KEY_LEFTCTRL", 1), ("KEY_C", 1), ("KEY_C", 0), ("KEY_LEFTCTRL", 0)]
    played.send(Pressed("KEY_CAPSLOCK"))
    played.tap("KEY_T")
    played.tap("KEY_O")
    asked = [each.what for each in played.out if isinstance(each, SideEffect)]
    assert asked == [AskText("ahoy", "", 1), OpenProgram(("tide-map",))]


def test_an_edit_that_takes_the_layer_away_ends_it():
    played = Played()
    played.send(Pressed("BTN_SIDE"))
    played.send(Pressed("BTN_EXTRA"))
    assert played.engine.running
    played.set({"BTN_EXTRA": ToControl("KEY_A")}, ())
    assert not played.engine.running
    played.send(Released("BTN_EXTRA"))
    played.send(Released("BTN_SIDE"))
    played.edges()
    played.tap("BTN_EXTRA")
    assert played.edges() == [("KEY_A", 1), ("KEY_A", 0)]


def test_another_profile_has_none_of_the_layers_of_the_one_before():
    played = Played()
    played.send(Pressed("BTN_SIDE"))
    played.set(CELLS, LAYERS, "other")
    played.tap("BTN_EXTRA")
    assert [edge for edge in played.edges() if edge[0] == "KEY_A"] == [("KEY_A", 1), ("KEY_A", 0)]
    played.send(Released("BTN_SIDE"))


@pytest.mark.parametrize(
    ("cells", "layers", "reason"),
    [
        ({"BTN_SIDE": HoldLayer("Gone")}, (), "has no layer 'Gone'"),
        ({"WHEEL_UP": HoldLayer("One")}, (Layer("One"),), "wheel direction"),
        ({}, (Layer("One"), Layer("One")), "two layers of the same name"),
        ({"BTN_LEFT": Nothing()}, (Layer("One"),), "no way to click"),
    ],
)
def test_what_cannot_be_is_refused(cells: dict[str, Cell], layers: tuple[Layer, ...], reason: str):
    with pytest.raises(Exception, match=reason):
        msgspec.convert(msgspec.to_builtins({"name": "S", "cells": cells, "layers": layers}), SetUp)


@given(setups, st.text("xyz", min_size=1, max_size=3))
def test_renaming_and_deleting_a_layer_leave_all_else(setup: SetUp, name: str):
    if not setup.layers or name in [layer.name for layer in setup.layers]:
        return
    old = setup.layers[0].name
    renamed = setup.with_layer_named(old, name)
    assert renamed.with_layer_named(name, old) == setup
    assert sum(1 for *_, cell in renamed.every() if cell == HoldLayer(name)) == sum(
        1 for *_, cell in setup.every() if cell == HoldLayer(old)
    )
    gone = setup.without_layer(old)
    assert [layer.name for layer in gone.layers] == [layer.name for layer in setup.layers[1:]]
    assert all(cell != HoldLayer(old) for *_, cell in gone.every())
    assert setup.with_each(lambda cell: cell) == setup


def test_three_notches_in_one_report_are_three_of_whatever_the_wheel_does():
    text = TypeText("ahoy")
    cells = {"WHEEL_UP": RunMacro("fire"), "WHEEL_LEFT": GoTo(What.PROFILE), "WHEEL_RIGHT": text}
    cells["WHEEL_DOWN"] = ToControl("KEY_X")
    played = Played()
    played.set(cells, ())
    for code in cells:
        played.send(Turned(code, 3))
    asked = [each for each in played.out if isinstance(each, Asked)]
    assert asked == [Asked(GoTo(What.PROFILE), "WHEEL_LEFT")] * 3
    # Each text is typed when the one before it has been.
    for ticket in (1, 2, 3):
        texts = [each.what for each in played.out if isinstance(each, SideEffect)]
        assert texts == [AskText("ahoy", "", each) for each in range(1, ticket + 1)]
        by = next(each.by for each in played.out if isinstance(each, SideEffect))
        played.send(TextReady(by, ticket, ()))
        played.run(20_000)
    played.run(6 * NOTCH_US)
    edges = played.edges()
    assert edges.count(("KEY_X", 1)) == edges.count(("KEY_F", 1)) == 3
    assert not played.engine.running


def test_a_notch_presses_as_long_as_a_frame_needs_and_notches_follow_each_other():
    """At 60 frames a second a frame takes 16.7 ms; what is shorter may fall between two looks (arithmetic)."""
    played = Played()
    played.set({"WHEEL_DOWN": ToControl("KEY_X"), "WHEEL_UP": ToChord(("KEY_LEFTCTRL", "KEY_C"))}, ())
    for _ in range(3):
        played.send(Turned("WHEEL_DOWN"))
    played.run(1_000_000)
    found = [(each.value, each.due_us) for each in played.out if isinstance(each, Emit)]
    assert found == [(int(n % 2 == 0), n * NOTCH_US) for n in range(6)]
    played.out.clear()
    played.send(Turned("WHEEL_UP", 2))
    played.run(1_000_000)
    once = [("KEY_LEFTCTRL", 1), ("KEY_C", 1), ("KEY_C", 0), ("KEY_LEFTCTRL", 0)]
    assert played.edges() == once * 2


def test_a_wheel_that_runs_on_is_not_followed_for_long():
    played = Played()
    played.set({"WHEEL_DOWN": ToControl("KEY_X")}, ())
    for _ in range(500):
        played.send(Turned("WHEEL_DOWN"))
    played.run(1_200_000)
    assert played.edges().count(("KEY_X", 1)) == 16
    assert not played.engine.running


@pytest.mark.parametrize("why", ["", "Pause pressed"])
def test_stop_everything_drops_the_notches_that_are_still_to_play(why: str):
    played = Played()
    played.set({"WHEEL_DOWN": ToControl("KEY_X")}, ())
    for _ in range(3):
        played.send(Turned("WHEEL_DOWN"))
    played.send(StopAll(why))
    assert not played.engine.running
    played.run(1_000_000)
    assert played.edges() == [("KEY_X", 1), ("KEY_X", 0)]
