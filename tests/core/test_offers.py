"""What the field offers for what is typed: everything that is understood, the best match first."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.edit.offers import Begin, Beginning, Group, Known, Startable, offers, read_combination
from nakrel.core.model.cells import (
    ACTION_LABELS,
    ChangeSpeed,
    GoTo,
    HoldLayer,
    Nothing,
    RunMacro,
    RunSystemAction,
    StartProgram,
    SystemAction,
    ToChord,
    ToControl,
    TypeText,
    What,
)
from nakrel.core.model.conditioning import Pointing, SpeedStage
from nakrel.core.model.controls import CONTROLS, Kind, label
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import GameKey, Layer, Profile, SetUp
from nakrel.core.model.steps import Tap

MACROS = (
    Macro(id="r", name="Reel in", play=Play(Mode.HELD, pause_us=25_000), loop=(Tap(control="KEY_R", hold_us=25_000),)),
    Macro(id="l", name="Read the ledger"),
    Macro(id="c", name="Ctrl + C"),
    Macro(id="g", name="R"),
)
HEALER = SetUp("Healer", layers=(Layer("Harbour"),))
PROFILE = Profile(
    id="t",
    name="Tidewardens",
    setups=(HEALER, SetUp("Netter")),
    keys=(GameKey("Haul", "KEY_H"),),
    pointer=Pointing(stages=(SpeedStage("Walk"), SpeedStage("Aim", 40, 40))),
)
PROGRAMS = (Startable("Tide map", ("/opt/tide/map", "--big")), Startable("tidewardens", ("/opt/tide/game",), True))
KNOWN = Known(PROFILE, HEALER, "BTN_SIDE", "", MACROS, (("t", "Tidewardens"), ("e", "Everyday")), PROGRAMS)


def first(typed: str, known: Known = KNOWN) -> object:
    return offers(typed, known)[0].does


@pytest.mark.parametrize(
    ("typed", "does"),
    [
        ("re", RunMacro("l")),
        ("reel", RunMacro("r")),
        ("REEL IN", RunMacro("r")),
        # An exact name, whatever else begins like it; a macro's before a key's of the same name.
        ("r", RunMacro("g")),
        ("w", ToControl("KEY_W")),
        ("left", ToControl("BTN_LEFT")),
        ("space", ToControl("KEY_SPACE")),
        ("esc", ToControl("KEY_ESC")),
        ("del", ToControl("KEY_DELETE")),
        ("KEY_F13", ToControl("KEY_F13")),
        ("haul", ToControl("GAME:Haul")),
        ("ctrl+shift+left", ToChord(("KEY_LEFTCTRL", "KEY_LEFTSHIFT", "KEY_LEFT"))),
        ("Ctrl + M", ToChord(("KEY_LEFTCTRL", "KEY_M"))),
        ("super+d", ToChord(("KEY_LEFTMETA", "KEY_D"))),
        ("ctrl + left click", ToChord(("KEY_LEFTCTRL", "BTN_LEFT"))),
        ('"Good tide"', TypeText("Good tide")),
        ('"Good ti', TypeText("Good ti")),
        ("“Good tide”", TypeText("Good tide")),
        ("tide map", StartProgram(("/opt/tide/map", "--big"))),
        ("open tide-map --big", StartProgram(("tide-map", "--big"))),
        ("/usr/bin/env true", StartProgram(("/usr/bin/env", "true"))),
        ("louder", RunSystemAction(SystemAction.LOUDER)),
        ("harbour", HoldLayer("Harbour")),
        ("netter", GoTo(What.SETUP, "Netter")),
        ("next variant", GoTo(What.SETUP, by=1)),
        ("everyday", GoTo(What.PROFILE, "e")),
        ("aim while held", ChangeSpeed("Aim", held=True)),
        ("nothing", Nothing()),
        ("unchanged", None),
        # Nothing else fits: it is a text.
        ("good evening", TypeText("good evening")),
    ],
)
def test_what_is_typed_is_understood(typed: str, does: object):
    assert first(typed) == does


def test_a_combination_is_meant_also_where_something_has_its_name():
    assert first("ctrl + c") == ToChord(("KEY_LEFTCTRL", "KEY_C"))
    assert RunMacro("c") in [offer.does for offer in offers("ctrl + c", KNOWN)]


def test_what_can_be_begun_is_offered_always_and_last():
    for typed in ("", "re", "zzz"):
        found = offers(typed, KNOWN)
        groups = list(dict.fromkeys(offer.group for offer in found))
        assert groups[-1] is Group.NEW
        begun = [offer.does for offer in found if isinstance(offer.does, Beginning)]
        assert begun[0] == Beginning(Begin.RAPID_FIRE, typed)
        assert len({each.what for each in begun}) == len(Begin)


def test_an_empty_home_offers_what_can_be_begun():
    everyday = Profile(id="everyday", name="Everyday")
    empty = Known(everyday, everyday.setups[0], "BTN_SIDE", "", (), (("everyday", "Everyday"),))
    assert Beginning(Begin.RECORD, "") in [offer.does for offer in offers("", empty)]


def test_a_wheel_and_a_layers_button_hold_nothing():
    for known in (KNOWN._replace(control="WHEEL_UP"), KNOWN._replace(layer="Harbour")):
        found = [offer.does for offer in offers("", known)]
        assert not any(isinstance(each, HoldLayer) for each in found)
    wheel = [offer.does for offer in offers("", KNOWN._replace(control="WHEEL_UP"))]
    assert not any(isinstance(each, ChangeSpeed) and each.held for each in wheel)


def test_the_same_is_offered_once():
    for typed in ("", "r", "left", "tide", "ctrl+c", "k"):
        found = [offer.does for offer in offers(typed, KNOWN)]
        assert len(found) == len(set(map(repr, found))), typed


@given(st.text(max_size=40))
def test_something_is_always_offered_and_nothing_fails(typed: str):
    found = offers(typed, KNOWN)
    assert found
    if typed.strip():
        assert any(not isinstance(offer.does, Beginning) for offer in found)


@given(st.sampled_from([c for c in CONTROLS.values() if c.kind is not Kind.WHEEL]))
def test_every_key_and_button_is_found_by_its_code(control):
    assert first(control.code) == ToControl(control.code)


@given(st.sampled_from(list(ACTION_LABELS.items())))
def test_every_system_action_is_found_by_its_name(action):
    assert RunSystemAction(action[0]) in [offer.does for offer in offers(action[1], KNOWN)[:3]]


KEYS = st.sampled_from([code for code, c in CONTROLS.items() if c.kind is Kind.KEY and "+" not in c.label])


@given(st.lists(KEYS, min_size=2, max_size=4, unique=True))
def test_a_combination_by_codes_is_read_back(codes: list[str]):
    assert read_combination("+".join(codes)) == tuple(codes)


@pytest.mark.parametrize("typed", ["ctrl+", "+c", "ctrl++c+", "ctrl+nokey"])
def test_half_a_combination_is_none(typed: str):
    with pytest.raises(DataError):
        read_combination(typed)


def test_every_label_is_found_first_or_by_another_of_that_name():
    for control in CONTROLS.values():
        if control.kind is not Kind.WHEEL:
            names = [offer.text.casefold() for offer in offers(control.label, KNOWN)[:8]]
            assert label(control.code).casefold() in names, control
