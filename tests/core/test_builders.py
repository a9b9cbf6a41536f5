"""The builders make what they say."""

from __future__ import annotations

import pytest

from nakrel.core.edit.builders import BUILDERS, build
from nakrel.core.edit.checks import check_macro
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Mode, cycle_us
from nakrel.core.model.steps import Pointer, Text
from nakrel.core.play.simulate import plan

KINDS = {builder.name: builder for builder in BUILDERS}
OLD = Macro(id="m", name="M", note="kept")


def made(kind: str, controls: str, figure: str = "") -> Macro:
    macro = build(OLD, KINDS[kind], controls, [figure])
    assert (macro.id, macro.name, macro.note) == ("m", "M", "kept")
    assert check_macro(macro) == ()
    return macro


@pytest.mark.parametrize(("figure", "cycle"), [("20/s", 50_000), ("25 ms", 25_000), ("40/s", 25_000), ("60/s", 16_667)])
def test_rapid_fire_is_half_down_and_half_up_at_its_rate(figure: str, cycle: int):
    """A repeat every 50 ms is 20 a second, every 25 ms is 40 a second (common practice, no published source)."""
    macro = made("rapid fire", "Left button", figure)
    assert macro.play.mode is Mode.HELD
    assert cycle_us(macro, macro.play) == cycle
    assert abs(macro.loop[0].hold_us - macro.play.pause_us) <= 1


def test_a_rhythm_taps_shortly_and_evenly():
    rows = plan(made("rhythm", "Space", "500 ms"), made("rhythm", "Space", "500 ms").play, 3)
    assert [(r.time_us, r.value) for r in rows] == [
        (n * 500_000 + d, v) for n in range(3) for d, v in ((0, 1), (20_000, 0))
    ]


def test_hold_until_pressed_again_lets_go_in_the_lead_out():
    macro = made("hold until pressed again", "Left Shift, W")
    assert macro.play.mode is Mode.TOGGLE
    rows = [(row.control, row.value) for row in plan(macro, macro.play)]
    assert rows == [("KEY_LEFTSHIFT", 1), ("KEY_W", 1), ("KEY_W", 0), ("KEY_LEFTSHIFT", 0)]


def test_keys_in_a_row_tap_one_after_the_other():
    rows = plan(made("keys in a row", "1, 2, Left button", "60 ms"), OLD.play)
    assert [(r.time_us, r.control) for r in rows if r.value] == [(0, "KEY_1"), (80_000, "KEY_2"), (160_000, "BTN_LEFT")]


def test_a_text_is_typed_at_its_rate():
    assert made("text", "Good evening", "30/s").loop == (Text(text="Good evening", rate=30),)


def test_a_screen_sequence_clicks_at_each_place():
    """Some 200 ms after each pointer move before the click; 1 to 3 s for an animation (common practice, no published
    source)."""
    places = (Pointer(x=3, y=4, size=(1280, 800)), Pointer(x=9, y=8, size=(1280, 800)))
    macro = build(OLD, KINDS["click sequence"], "", ["200 ms", "1 s"], places)
    rows = plan(macro, macro.play)
    assert [(r.time_us, r.control) for r in rows if r.value] == [
        (0, "POINTER"),
        (200_000, "BTN_LEFT"),
        (1_250_000, "POINTER"),
        (1_450_000, "BTN_LEFT"),
    ]


@pytest.mark.parametrize(
    ("kind", "controls", "figure", "words"),
    [
        ("rapid fire", "", "20/s", "which key or button"),
        ("rapid fire", "Q, W", "20/s", "takes one key or button"),
        ("rapid fire", "Qq", "20/s", "no key or button 'Qq'"),
        ("rapid fire", "Q", "2000/s", "faster than 500 a second"),
        ("rapid fire", "Q", "fast", "is not a time"),
        ("text", "", "30/s", "which text"),
        ("text", "a", "2000/s", "1 to 250 characters a second"),
        ("rapid fire", "Wheel up", "20/s", "is a wheel direction"),
        ("keys in a row", ",".join(["Q"] * 21), "1 ms", "takes 20 keys and buttons at most"),
    ],
)
def test_what_cannot_be_built_is_told(kind: str, controls: str, figure: str, words: str):
    with pytest.raises(DataError, match=words):
        build(OLD, KINDS[kind], controls, [figure])


def test_a_screen_sequence_without_places_is_told():
    with pytest.raises(DataError, match="which places"):
        build(OLD, KINDS["click sequence"], "", ["200 ms", "1 s"])
