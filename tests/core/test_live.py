"""Which variant plays, what falls through to Everyday, game keys resolved, and what fair play says of it."""

from __future__ import annotations

import pytest

from nakrel.core.edit.checks import check_macro
from nakrel.core.edit.findings import Attached
from nakrel.core.model.cells import (
    GoTo,
    HoldLayer,
    Nothing,
    RunMacro,
    RunSystemAction,
    SystemAction,
    ToChord,
    ToControl,
    TypeText,
    What,
)
from nakrel.core.model.controls import game_key
from nakrel.core.model.errors import DataError
from nakrel.core.model.fair_play import actions_in, beyond, cell_beyond
from nakrel.core.model.game_keys import read_csv, resolve, resolve_cell, unused, write_csv
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, FairPlay, GameKey, Layer, Profile, SetUp
from nakrel.core.model.steps import Branch, Chord, Note, PickOne, Press, Release, Repeat, Tap, Text, Wait, Wheel
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import Asked, Emit, Pressed, Released, SetSheet
from nakrel.core.play.live import next_profile, next_setup, sheet_of
from nakrel.core.play.operations import compile_macro

A, B = SetUp("A", {"BTN_SIDE": ToControl("KEY_A")}), SetUp("B", {"BTN_SIDE": ToControl("KEY_B")})
EVERY = Profile(
    id=EVERYDAY,
    name="Everyday",
    setups=(SetUp("Main", {"BTN_SIDE": ToControl("KEY_BACK"), "BTN_EXTRA": ToControl("KEY_MUTE")}),),
)


def built(profile: Profile, in_use: dict[str, str] | None = None, everyday: Profile = EVERY):
    profiles = {EVERYDAY: everyday, profile.id: profile}
    return sheet_of(profile, in_use or {}, profiles, lambda key: None)


def test_the_set_up_in_use_plays_and_an_unknown_one_is_the_first():
    profile = Profile(id="p", name="P", setups=(A, B))
    assert built(profile, {"p": "B"}).actions["BTN_SIDE"].cell == ToControl("KEY_B")
    assert built(profile, {"p": "gone"}).actions["BTN_SIDE"].cell == ToControl("KEY_A")
    # Another set-up is another sheet, so that what plays by the old one ends.
    assert built(profile).profile != built(profile, {"p": "B"}).profile


def test_empty_cells_fall_through_only_where_the_profile_says_so():
    profile = Profile(id="p", name="P", setups=(A,))
    assert set(built(profile).actions) == {"BTN_SIDE"}
    falls = Profile(id="p", name="P", setups=(A,), falls_through=True)
    sheet = built(falls)
    assert sheet.actions["BTN_SIDE"].cell == ToControl("KEY_A")
    assert sheet.actions["BTN_EXTRA"].cell == ToControl("KEY_MUTE")


def test_a_click_that_everyday_moves_elsewhere_stays_where_that_is_taken():
    everyday = Profile(
        id=EVERYDAY, name="E", setups=(SetUp("M", {"BTN_LEFT": Nothing(), "BTN_EXTRA": ToControl("BTN_LEFT")}),)
    )
    free = Profile(id="p", name="P", setups=(A,), falls_through=True)
    assert built(free, everyday=everyday).actions["BTN_LEFT"].cell == Nothing()
    taken = Profile(id="p", name="P", setups=(SetUp("S", {"BTN_EXTRA": ToControl("KEY_X")}),), falls_through=True)
    assert "BTN_LEFT" not in built(taken, everyday=everyday).actions


def test_a_layer_of_everyday_is_held_through_an_empty_cell():
    layer = Layer("Night", {"KEY_Q": ToControl("KEY_W")})
    everyday = Profile(id=EVERYDAY, name="E", setups=(SetUp("M", {"BTN_EXTRA": HoldLayer("Night")}, (layer,)),))
    sheet = built(Profile(id="p", name="P", setups=(A,), falls_through=True), everyday=everyday)
    assert sheet.layers["Night"]["KEY_Q"].cell == ToControl("KEY_W")


def test_no_macros_is_an_empty_sheet():
    strict = built(Profile(id="p", name="P", setups=(A,), fair_play=FairPlay.NO_MACROS))
    assert strict.actions == {}
    # What played by the other rule ends.
    assert strict.profile != built(Profile(id="p", name="P", setups=(A,))).profile


@pytest.mark.parametrize(
    ("go", "now", "then"),
    [
        (GoTo(What.SETUP, "B"), "A", "B"),
        (GoTo(What.SETUP, "gone"), "A", "A"),
        (GoTo(What.SETUP), "A", "B"),
        (GoTo(What.SETUP), "B", "A"),
        (GoTo(What.SETUP, by=-1), "A", "B"),
    ],
)
def test_set_ups_go_round(go: GoTo, now: str, then: str):
    assert next_setup(Profile(id="p", name="P", setups=(A, B)), now, go) == then


def test_profiles_go_round_in_the_order_of_their_names():
    profiles = {key: Profile(id=key, name=key.upper()) for key in ("z", "b", EVERYDAY)}
    assert next_profile(profiles, EVERYDAY, GoTo(What.PROFILE)) == "b"
    assert next_profile(profiles, "z", GoTo(What.PROFILE)) == EVERYDAY
    assert next_profile(profiles, EVERYDAY, GoTo(What.PROFILE, by=-1)) == "z"
    assert next_profile(profiles, "b", GoTo(What.PROFILE, "z")) == "z"
    assert next_profile(profiles, "b", GoTo(What.PROFILE, "gone")) == "b"


def test_a_control_asks_once_a_press_and_media_keys_are_held_as_long_as_it_is():
    cells = {
        "BTN_SIDE": GoTo(What.SETUP),
        "BTN_EXTRA": RunSystemAction(SystemAction.LOUDER),
        "WHEEL_LEFT": RunSystemAction(SystemAction.STOP),
    }
    engine = Engine()
    engine.step(SetSheet(built(Profile(id="p", name="P", setups=(SetUp("S", cells),)))), 0)
    outputs, _ = engine.step(Pressed("BTN_SIDE", False), 1)
    assert outputs == (Asked(GoTo(What.SETUP), "BTN_SIDE"),)
    assert engine.step(Released("BTN_SIDE"), 2)[0] == ()
    down, _ = engine.step(Pressed("BTN_EXTRA", False), 3)
    up, _ = engine.step(Released("BTN_EXTRA"), 4)
    assert [(e.control, e.value) for e in (*down, *up) if isinstance(e, Emit)] == [
        ("KEY_VOLUMEUP", 1),
        ("KEY_VOLUMEUP", 0),
    ]


# Game keys

RELOAD, SWING, NEXT = map(game_key, ("Reload", "Swing", "Next"))
KEYS = {RELOAD: "KEY_R", SWING: "BTN_LEFT", NEXT: "WHEEL_DOWN"}


def macro(*loop, **more) -> Macro:
    return Macro(id="m", name="M", loop=loop, **more)


def test_game_keys_become_the_profiles_keys():
    made = macro(
        Tap(control=RELOAD, hold_us=5),
        Repeat(times=2, steps=(Press(control=SWING), Release(control=SWING))),
        Chord(controls=(RELOAD, "KEY_LEFTSHIFT"), hold_us=9),
    )
    assert resolve(made, KEYS, "P").loop == (
        Tap(control="KEY_R", hold_us=5),
        Repeat(times=2, steps=(Press(control="BTN_LEFT"), Release(control="BTN_LEFT"))),
        Chord(controls=("KEY_R", "KEY_LEFTSHIFT"), hold_us=9),
    )
    plain = macro(Tap(control="KEY_Q", hold_us=5))
    assert resolve(plain, KEYS, "P") is plain
    with pytest.raises(DataError, match="P has no game key “Dodge”"):
        resolve(macro(Press(control=game_key("Dodge"))), KEYS, "P")


def test_a_key_on_the_wheel_is_turned_and_two_that_are_one_are_pressed_once():
    made = macro(Tap(control=NEXT, hold_us=40, remark="x"), Press(control=NEXT), Release(control=NEXT))
    assert resolve(made, KEYS, "P").loop == (
        Wheel(control="WHEEL_DOWN", notches=1, remark="x"),
        Wheel(control="WHEEL_DOWN", notches=1),
        Note(text="the wheel needs no release"),
    )
    both = macro(Chord(controls=(RELOAD, "KEY_R"), hold_us=7), Chord(controls=(NEXT, "KEY_R"), hold_us=7))
    assert resolve(both, KEYS, "P").loop == (Tap(control="KEY_R", hold_us=7), Wait(wait_us=7))


def test_cells_name_game_keys_too():
    assert resolve_cell(ToControl(RELOAD), KEYS) == ToControl("KEY_R")
    assert resolve_cell(ToChord((RELOAD, "KEY_Q")), KEYS) == ToChord(("KEY_R", "KEY_Q"))
    assert resolve_cell(ToChord((RELOAD, "KEY_R")), KEYS) == ToControl("KEY_R")
    assert resolve_cell(ToControl(NEXT), KEYS) is None
    assert resolve_cell(ToControl(game_key("Dodge")), KEYS) is None


def test_the_list_reads_back_from_csv_and_leaves_keys_free():
    keys = (GameKey("Reload", "KEY_R"), GameKey("Heavy, slow", "BTN_LEFT"), GameKey("Next", "WHEEL_DOWN"))
    assert read_csv(write_csv(keys)) == keys
    # As a spreadsheet writes it.
    assert read_csv("\ufeffName,Control\r\nReload,key_r\r\n,\r\n") == (GameKey("Reload", "KEY_R"),)
    for text, reason in (
        ("Reload,R\nReload,T", "line 2: 'Reload' is there twice"),
        ('"x', "no CSV"),
        ("a,b c", "line 1"),
    ):
        with pytest.raises(DataError, match=reason):
            read_csv(text)
    profile = Profile(id="p", name="P", keys=(GameKey("Map", "KEY_F13"), GameKey("Reload", "KEY_R")))
    free = unused(profile)
    assert free[0] == "KEY_F14"
    assert "KEY_R" not in free
    assert "KEY_Q" in free


def test_a_macro_with_game_keys_plans_under_their_names():
    assert [op.control for op in compile_macro(macro(Press(control=RELOAD))).loop] == [RELOAD]


# Fair play


def test_game_actions_are_counted_at_their_most():
    tap, rest = Tap(control="KEY_Q", hold_us=5), Wait(wait_us=5)
    assert actions_in((tap, rest, Release(control="KEY_Q"))) == 1
    assert actions_in((Repeat(times=3, steps=(tap, tap)),)) == 6
    assert actions_in((PickOne(branches=(Branch(steps=(tap,)), Branch(steps=(tap, tap, tap)))),)) == 3
    assert actions_in((Text(text="hello"), Wheel(control="WHEEL_UP", notches=3))) == 6
    assert actions_in((Tap(control="KEY_Q", hold_us=5, off=True),)) == 0


ONE, TWO = macro(Tap(control="KEY_Q", hold_us=5)), macro(*[Tap(control="KEY_Q", hold_us=5)] * 2)
HOLD = Macro(
    id="h", name="H", lead_in=(Press(control="KEY_W"),), loop=(Wait(wait_us=5),), lead_out=(Release(control="KEY_W"),)
)


@pytest.mark.parametrize(
    ("made", "play", "rules"),
    [
        (ONE, Play(), set()),
        (TWO, Play(), {FairPlay.ONE_ACTION}),
        (ONE, Play(Mode.HELD), {FairPlay.ONE_ACTION}),
        (ONE, Play(Mode.COUNTED, runs=1), set()),
        (ONE, Play(Mode.COUNTED, runs=2), {FairPlay.ONE_ACTION, FairPlay.WHILE_HELD}),
        (ONE, Play(Mode.TOGGLE), {FairPlay.ONE_ACTION, FairPlay.WHILE_HELD}),
        (HOLD, Play(Mode.TOGGLE), set()),
        (macro(Repeat(times=2, steps=ONE.loop)), Play(), {FairPlay.ONE_ACTION, FairPlay.WHILE_HELD}),
        (macro(Repeat(times=2, steps=ONE.loop)), Play(Mode.HELD), {FairPlay.ONE_ACTION, FairPlay.WHILE_HELD}),
    ],
)
def test_each_rule_allows_what_it_says(made: Macro, play: Play, rules: set[FairPlay]):
    found = {rule for rule in FairPlay if beyond(made, play, rule)}
    assert found == rules | {FairPlay.NO_MACROS}


def test_cells_without_a_macro_go_by_the_rule_too():
    assert cell_beyond(TypeText("gg"), None, FairPlay.ONE_ACTION)
    assert not cell_beyond(TypeText("g"), None, FairPlay.ONE_ACTION)
    assert not cell_beyond(ToControl("KEY_Q"), None, FairPlay.ONE_ACTION)
    assert cell_beyond(ToControl("KEY_Q"), None, FairPlay.NO_MACROS)
    assert cell_beyond(RunMacro("m", Play(Mode.TOGGLE)), ONE, FairPlay.WHILE_HELD)


# Checks


def test_attachments_that_press_each_others_buttons_are_pointed_out():
    first = Macro(id="a", name="First", loop=(Wait(wait_us=50_000), Tap(control="KEY_W", hold_us=20_000)))
    second = Macro(id="b", name="Second", loop=(Tap(control=RELOAD, hold_us=20_000),))
    place = Attached("P", FairPlay.ANYTHING, {RELOAD: "KEY_Q"}, Play(), {"KEY_W": second})
    found = check_macro(first, {"KEY_Q"}, attached=[place])
    assert [(f.row, f.message[:60]) for f in found] == [
        (1, "W starts Second in P, which presses “Reload”, which starts t")
    ]
    apart = Attached("P", FairPlay.ANYTHING, {RELOAD: "KEY_E"}, Play(), {"KEY_W": second})
    assert check_macro(first, {"KEY_Q"}, attached=[apart]) == ()


def test_checks_say_where_fair_play_and_game_keys_are_missed():
    made = macro(Tap(control=RELOAD, hold_us=20_000), Wait(wait_us=20_000), Tap(control="KEY_W", hold_us=20_000))
    place = Attached("P", FairPlay.ONE_ACTION, {}, Play(), {})
    assert [(f.row, f.message) for f in check_macro(made, (), attached=[place])] == [
        (None, "In P: A press makes 2 game actions; this profile's fair-play rule is: one action a press."),
        (0, "P has no game key “Reload”, so the macro can't play there."),
    ]
