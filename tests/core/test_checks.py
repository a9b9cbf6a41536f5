"""The checks: each slip is found at its row, and a sound macro has none."""

from __future__ import annotations

import re

import pytest
from hypothesis import given

from nakrel.core import notation
from nakrel.core.edit import checks
from nakrel.core.edit.checks import check_by_parts, check_macro
from nakrel.core.edit.rows import rows
from nakrel.core.edit.timeline import is_cut, lay_out
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Branch, Chord, PickOne, Press, Release, Repeat, Step, Tap, Wait, Wheel
from nakrel.core.play.simulate import plan
from nakrel.demo.data import MACROS
from tests.strategies import macros

Q, W, UP_Q = Press(control="KEY_Q"), Press(control="KEY_W"), Release(control="KEY_Q")
TAP, WAIT = Tap(control="KEY_E", hold_us=20_000), Wait(wait_us=20_000)
FOUND = [
    ((Q, WAIT), 0, "Q is never released here"),
    ((WAIT, UP_Q), 1, "nothing before it presses it"),
    ((Q, WAIT, Q, UP_Q), 2, "Q is down already: this press"),
    ((Q, WAIT, Tap(control="KEY_Q", hold_us=9_000)), 2, "this tap releases it"),
    ((Tap(control="KEY_Q", hold_us=0),), 0, "not held at all"),
    ((Tap(control="KEY_Q", hold_us=1_000),), 0, "held for 1 ms only"),
    ((TAP, Repeat(times=3)), 1, "nothing inside to repeat"),
    ((PickOne(branches=(Branch(steps=(TAP,)),)),), 0, "one option only"),
    ((TAP, Wait(wait_us=0)), 1, "takes no time"),
    ((TAP, Wait(wait_us=1_000), TAP), 2, "goes down only 1 ms after its release"),
    ((Repeat(times=2, steps=(WAIT, UP_Q)),), 2, "nothing before it presses it"),
]


@pytest.mark.parametrize(("loop", "row", "words"), FOUND)
def test_each_slip_is_found_at_its_row(loop: tuple[Step, ...], row: int, words: str):
    (finding,) = check_macro(Macro(id="m", name="M", loop=loop))
    assert finding.row == row
    assert words in finding.message


@pytest.mark.parametrize(("loop", "row", "words"), FOUND)
def test_what_is_switched_off_is_no_slip(loop: tuple[Step, ...], row: int, words: str):
    block = Repeat(times=2, steps=loop, off=True)
    assert check_macro(Macro(id="m", name="M", loop=(block, TAP))) == ()


def test_a_hold_from_the_lead_in_to_the_lead_out_is_sound_and_without_its_end_it_is_told():
    macro = Macro(id="m", name="M", lead_in=(Q,), loop=(TAP, WAIT), lead_out=(UP_Q,))
    assert check_macro(macro) == ()
    (finding,) = check_macro(Macro(id="m", name="M", lead_in=(Q,), loop=(TAP, WAIT)))
    assert "release it in the end" in finding.message


def test_a_loop_without_time_is_told_where_it_repeats():
    loop = (Wheel(control="WHEEL_UP"),)
    assert check_macro(Macro(id="m", name="M", loop=loop)) == ()
    (finding,) = check_macro(Macro(id="m", name="M", play=Play(Mode.TOGGLE), loop=loop))
    assert finding.row is None
    assert "no time in it" in finding.message
    assert check_macro(Macro(id="m", name="M", play=Play(Mode.TOGGLE, pause_us=1), loop=loop)) == ()


def test_runs_that_follow_too_soon_on_each_other_are_told():
    """A game that misses immediate press+release wants 20 ms of nothing after a press (common practice, no published
    source)."""
    for play, words in ((Play(Mode.HELD), "at once after"), (Play(Mode.COUNTED, pause_us=1_500), "only 1.5 ms after")):
        (finding,) = check_macro(Macro(id="m", name="M", play=play, loop=(TAP,)))
        assert (finding.row, words in finding.message) == (0, True)
    assert check_macro(Macro(id="m", name="M", play=Play(Mode.HELD, pause_us=20_000), loop=(TAP,))) == ()
    assert check_macro(Macro(id="m", name="M", loop=(TAP,))) == ()


def test_clicks_closer_than_a_window_manager_can_follow_are_told():
    click = Tap(control="BTN_LEFT", hold_us=4_000)
    (finding,) = check_macro(Macro(id="m", name="M", play=Play(Mode.HELD, pause_us=4_000), loop=(click,)))
    assert finding.row == 0
    assert "Left is pressed 8 ms after the press before" in finding.message
    (finding,) = check_macro(Macro(id="m", name="M", loop=(TAP, click, Wait(wait_us=5_500), click)))
    assert finding.row == 1
    assert "9.5 ms after" in finding.message
    assert check_macro(Macro(id="m", name="M", play=Play(Mode.HELD, pause_us=6_000), loop=(click,))) == ()
    key = Tap(control="KEY_Q", hold_us=4_000)
    assert check_macro(Macro(id="m", name="M", play=Play(Mode.HELD, pause_us=4_000), loop=(key,))) == ()
    # What ends the macro is not what its next run begins with.
    play = Play(Mode.HELD, pause_us=6_000)
    assert check_macro(Macro(id="m", name="M", play=play, loop=(click, Wait(wait_us=6_000)), lead_out=(click,))) == ()


def test_a_macro_that_presses_its_own_trigger_is_told():
    loop = (TAP, Chord(controls=("KEY_LEFTCTRL", "KEY_W"), hold_us=20_000))
    (finding,) = check_macro(Macro(id="m", name="M", loop=loop), {"KEY_W", "KEY_Q"})
    assert finding.row == 1
    assert "W starts this macro itself" in finding.message


def test_the_demo_s_macros_have_no_slips():
    assert [(macro.name, found) for macro in MACROS if (found := check_macro(macro))] == []


@given(macros)
def test_every_finding_points_at_a_row_and_says_something(macro: Macro):
    for finding in check_macro(macro, {"KEY_Q"}):
        assert finding.row is None or 0 <= finding.row < len(rows(macro))
        assert re.fullmatch(r"[A-Z0-9`'\[\]\\;,./=-].*\.", finding.message)


@pytest.mark.parametrize(
    "text",
    [
        "repeat 1000000 times:\n    repeat 1000000 times:\n        set a to a + 1\ntap Q for 10 ms",
        "\n".join(f"{'    ' * n}repeat 1000000 times:" for n in range(6)) + f"\n{'    ' * 6}set a to a + 1",
    ],
)
def test_repeats_that_nobody_waits_for_are_cut_and_said_to_be(text: str):
    macro = Macro(id="m", name="M", play=Play(Mode.TOGGLE), loop=tuple(notation.read_steps(text)))
    line = lay_out(macro)
    assert is_cut(line)
    assert line.size >= 3
    assert any("only the beginning of that is drawn and checked" in f.message for f in check_macro(macro))
    with pytest.raises(DataError, match="nothing comes of it"):
        plan(macro, macro.play)


def test_usual_repeats_are_drawn_as_a_whole():
    text = "repeat 100 times:\n    repeat 20 times:\n        tap Q for 1 ms\n        wait 1 ms"
    macro = Macro(id="m", name="M", loop=tuple(notation.read_steps(text)))
    assert not is_cut(lay_out(macro))


def test_formulas_in_repeats_use_up_sooner_what_is_worked_out():
    def cut(wait: int | str) -> bool:
        loop = (Repeat(times=1_000, steps=(Tap(control="KEY_Q", hold_us=1_000), Wait(wait_us=wait)) * 5),)
        return is_cut(lay_out(Macro(id="m", name="M", loop=loop)))

    assert not cut(1_000)
    assert cut("random(1, 5) + run")


@given(macros)
def test_what_is_known_first_of_a_long_macro_is_a_part_of_all_in_its_order(macro: Macro):
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(checks, "MANY_ROWS", -1)
        (first, second, found), whole = zip(*check_by_parts(macro, ("KEY_Q",)), strict=True)
    assert whole == (False, False, True)
    assert found == check_macro(macro, ("KEY_Q",))
    for before, after in ((first, second), (second, found)):
        later = iter(after)
        assert all(finding in later for finding in before)
