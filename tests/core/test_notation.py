"""The notation: an exact round trip, and errors that say where and what was expected."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.model.controls import CONTROLS, Kind
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.steps import (
    Branch,
    Chord,
    If,
    Note,
    Open,
    Origin,
    Otherwise,
    PickOne,
    Pointer,
    Press,
    Release,
    Repeat,
    Set,
    Step,
    Tap,
    Text,
    Wait,
    Wheel,
    walk,
)
from nakrel.core.notation import NotationError, completions, read, read_steps, write, write_steps
from tests.strategies import macros, steps

TEXT = """\
start:
    press Left Shift
loop:
    # three casts, then whatever the tide brings
    repeat 3 times:
        tap Q for 20 ms
        wait 30 ms
    tap Left Shift + E for 40 ms  # both at once
    wait 60 to 180 ms
    skip turn Wheel up by 2
    random choice:
        option of weight 3:
            tap 1 for 30 ms
        option:
            tap Left for 16.667 ms
end:
    release Left Shift
"""
LOOP: tuple[Step, ...] = (
    Note(text="three casts, then whatever the tide brings"),
    Repeat(times=3, steps=(Tap(control="KEY_Q", hold_us=20_000), Wait(wait_us=30_000))),
    Chord(controls=("KEY_LEFTSHIFT", "KEY_E"), hold_us=40_000, remark="both at once"),
    Wait(wait_us=60_000, most_us=180_000),
    Wheel(control="WHEEL_UP", notches=2, off=True),
    PickOne(
        branches=(
            Branch(weight=3, steps=(Tap(control="KEY_1", hold_us=30_000),)),
            Branch(steps=(Tap(control="BTN_LEFT", hold_us=16_667),)),
        )
    ),
)


BEYOND = """\
set count to count + 1
if count > 3 and held("Left Shift"):
    move to 640, 400 on a screen of 1920 x 1080 over 200 ms
else:
    move by (10 * count), -5
move to 20, 40 in the window
type "Good # evening" at 30/s  # to the crew
type the secret "harbour" at 12/s
open /usr/bin/tide --slow "a b"
wait (20 + 5 * run) to 80 ms
repeat (count) times:
    turn Wheel up by (min(3, count))
"""
BEYOND_STEPS: tuple[Step, ...] = (
    Set(variable="count", value="count + 1"),
    If(
        condition='count > 3 and held("Left Shift")',
        steps=(Pointer(x=640, y=400, size=(1920, 1080), over_us=200_000),),
        otherwise=Otherwise(steps=(Pointer(x="10 * count", y=-5, origin=Origin.POINTER),)),
    ),
    Pointer(x=20, y=40, origin=Origin.WINDOW),
    Text(text="Good # evening", remark="to the crew"),
    Text(secret="harbour", rate=12),
    Open(command=("/usr/bin/tide", "--slow", "a b")),
    Wait(wait_us="20 + 5 * run", most_us=80_000),
    Repeat(times="count", steps=(Wheel(control="WHEEL_UP", notches="min(3, count)"),)),
)


def test_steps_beyond_controls_are_read_as_they_say():
    assert tuple(read_steps(BEYOND)) == BEYOND_STEPS
    assert write_steps(BEYOND_STEPS) == BEYOND


def test_a_text_is_read_as_it_says():
    assert read(TEXT) == {
        Section.LEAD_IN: (Press(control="KEY_LEFTSHIFT"),),
        Section.LOOP: LOOP,
        Section.LEAD_OUT: (Release(control="KEY_LEFTSHIFT"),),
    }


@given(macros)
def test_what_was_written_is_read_as_the_same_steps_and_written_alike(macro: Macro):
    text = write(macro)
    assert read(text) == {section: macro.section(section) for section in Section}
    assert write(Macro(id="m", name="M", **{s.value: found for s, found in read(text).items()})) == text


@given(st.lists(steps(), max_size=5))
def test_steps_alone_make_the_same_trip(some: list[Step]):
    assert read_steps(write_steps(some)) == some


@pytest.mark.parametrize("code", sorted(CONTROLS))
def test_every_control_has_a_name_that_means_it_alone(code: str):
    step = Wheel(control=code) if CONTROLS[code].kind is Kind.WHEEL else Press(control=code)
    assert read_steps(write_steps([step])) == [step]


def test_the_documentation_s_example_is_read_as_it_says():
    text = (Path(__file__).parents[2] / "docs" / "notation.md").read_text(encoding="utf-8")
    example = text.split("```")[1].strip() + "\n"
    found = read(example)
    assert write(Macro(id="m", name="M", **{section.value: steps for section, steps in found.items()})) == example
    kinds = {type(step) for steps in found.values() for step in walk(steps)}
    assert kinds == {*Step.__args__} - {Open, Wheel}


def test_case_spacing_and_other_units_are_taken_too():
    assert read_steps("TAP  q for 0.02s\nWAIT 12s to 42 s\n\n   \nturn wheel down") == [
        Tap(control="KEY_Q", hold_us=20_000),
        Wait(wait_us=12_000_000, most_us=42_000_000),
        Wheel(control="WHEEL_DOWN"),
    ]


@pytest.mark.parametrize(
    ("text", "line", "column", "message"),
    [
        ("wait 5 ms\nhop Q", 2, 1, r"'hop' starts no step; expected tap, press,"),
        ("tap Q 20 ms", 1, 6, r"expected 'for' and a time, as in: tap Q for 50 ms"),
        ("tap Left Shift + E hold 3", 1, 19, r"expected 'for' and a time, as in: tap Q for 50 ms"),
        ("tap Qq", 1, 5, r"there is no key or button 'Qq'"),
        ("tap Q", 1, 6, r"expected 'for' and a time, as in: tap Q for 50 ms"),
        ("tap Qq for 5 ms", 1, 5, r"there is no key or button 'Qq'"),
        ("press Foo", 1, 7, r"no key or button 'Foo'; names are such as Q"),
        ("press Lefft Shift", 1, 7, r"no key or button 'Lefft Shift'; did you mean Left Shift\?"),
        ("tap", 1, 4, r"which key or button\? Write it as: tap Q for 50 ms"),
        ("tap for 20 ms", 1, 5, r"which key or button\? Write it as: tap Q for 50 ms"),
        ("tap Left Shift + for 20 ms", 1, 17, r"which key or button\?"),
        ('tap "Reload for 20 ms', 1, 5, r"the quotes are not closed"),
        ("tap Q for 700 s", 1, 11, r"'700 s' is longer than the 600 s allowed here"),
        ("relese Q", 1, 1, r"'relese' starts no step; did you mean release\?"),
        ("skip", 1, 1, r"skip what\?"),
        ("loop", 1, 1, r"expected a colon, as in: loop:"),
        ("random choice", 1, 1, r"expected a colon, as in: random choice:"),
        ("option of weight 3:", 1, 1, r"belongs below 'random choice:'"),
        ("press shift", 1, 7, r"did you mean Left Shift or Right Shift\?"),
        ("press", 1, 6, r"which key or button\?"),
        ("wait", 1, 5, r"how long\?"),
        ("wait long", 1, 6, r"'long' is not a time"),
        ("wait 5 to 2 ms", 1, 6, r"is backwards"),
        ("repeat many times:", 1, 7, r"expected a number and 'times:'"),
        ("repeat 3 times", 1, 15, r"expected a number and 'times:'"),
        ("repeat 0 times:", 1, 8, r"'0' is no whole number from 1 to 1000000"),
        ("random choice:\nwait 1 ms", 1, 15, r"nothing to pick from"),
        ("random choice:\n    tap Q for 1 ms", 2, 5, r"expected 'option:'"),
        ("loop:\n  wait 1 ms\n    wait 1 ms", 3, 5, r"indented by 4, the ones before it by 2"),
        ("loop:\n  wait 1 ms\nloop:\n  wait 1 ms", 3, 1, r"the section loop is there twice"),
        ("\twait 1 ms", 1, 1, r"spaces, not with tabs"),
        ("random choice:\n    option of weight no:\n        wait 1 ms", 2, 22, r"'no' is no whole number from 1 to"),
        ("turn", 1, 5, r"which way\?"),
        ("turn Wheel up by", 1, 17, r"by how many notches\?"),
        ("turn Wheel up by some", 1, 18, r"'some' is no whole number"),
        ("turn Wheel up by -3", 1, 18, r"'-3' is no whole number from 1 to 1000"),
        ("turn Q by 2", 1, 6, r"a turn needs Wheel up, Wheel down, Wheel left or Wheel right, not Q"),
        ("tap Q + W + Q for 1 ms", 1, 13, r"each key once"),
        ('# "open', 1, 3, r"the quotes are not closed"),
        ('type "C:\\games"', 1, 9, r"a \\ in quotes stands before"),
        ('wait 1 ms # "a" b', 1, 16, r"nothing more after the quotes"),
        ("wait (20 + ) ms", 1, 7, r"the formula '20 \+' can't be read"),
        ("wait (20 ms", 1, 6, r"is not a time"),
        ("move 640, 400", 1, 6, r"expected 'to' or 'by'"),
        ("move to 640", 1, 6, r"with a comma between them"),
        ("move to 640, 400 in a box", 1, 18, r"expected nothing more, or: on a screen"),
        ("move by 1, 2 in the window", 1, 14, r"expected nothing more"),
        ("type hello", 1, 6, r"expected a text in quotes"),
        ('type "hello" fast', 1, 13, r"or how fast, as in: at 30/s"),
        ('type "hello" at 999/s', 1, 17, r"no whole number from 1 to 250"),
        ("move to 1, 2 on a screen of 0 x 9", 1, 29, r"the size of the screen is 0"),
        ("open", 1, 5, r"which program"),
        ('open ""', 1, 6, r"is empty; write something"),
        ("set run to 2", 1, 5, r"has a meaning already"),
        ("if run = 3:\n    wait 1 ms", 1, 8, r"can't have '=' in it: write == to compare"),
        ("wait (run ** 2) ms", 1, 11, r"can't have '\*\*' in it: write a \* a"),
        ("set count", 1, 10, r"expected 'to' and a formula"),
        ("if run > 3", 1, 11, r"expected a condition and a colon"),
        ("if 1/:\n    wait 1 ms", 1, 4, r"the formula '1/' can't be read"),
        ("else:\n    wait 1 ms", 1, 1, r"belongs below an if"),
    ],
)
def test_errors_say_where_and_what_was_expected(text: str, line: int, column: int, message: str):
    with pytest.raises(NotationError, match=message) as raised:
        read(text)
    assert (raised.value.line, raised.value.column) == (line, column)
    assert re.match(rf"line {line}, column {column}: ", str(raised.value))


@given(st.text(max_size=80) | st.text('tapressw lone:#"+ \n\t0123', max_size=80))
def test_any_text_is_read_or_refused(text: str):
    lines: list[int] = []
    try:
        read(text)
    except NotationError as error:
        lines.append(error.line)
    assert all(1 <= line <= text.count("\n") + 1 for line in lines)


def test_blocks_too_deep_are_refused_with_their_line():
    text = "".join(f"{'  ' * n}repeat 2 times:\n" for n in range(12))
    with pytest.raises(NotationError, match="more than 8 deep"):
        read(text)


def test_completion_offers_what_can_stand_there():
    assert completions("  re") == ["release", "repeat"]
    assert completions("press left s")[0] == "Left Shift"
    assert completions("tap Left Ctrl + thumb b")[0] == "Thumb back"
    assert set(completions("turn ")) == {"Wheel up", "Wheel down", "Wheel left", "Wheel right"}
    assert completions("tap Q for 5") == []


def test_the_words_of_before_are_read_as_well():
    before = """
lead-in:
    press Q
loop:
    pick one:
        way of weight 3:
            tap 1 for 30 ms
        way:
            tap 2 for 30 ms
    if run > 3:
        wait 1 ms
    otherwise:
        wait 2 ms
lead-out:
    release Q
"""
    words = {"lead-in": "start", "lead-out": "end", "pick one": "random choice", "way": "option", "otherwise": "else"}
    now = before
    for old, new in words.items():
        now = now.replace(f"{old} of", f"{new} of").replace(f"{old}:", f"{new}:")
    assert read(before) == read(now)
    sections = {section.value: steps for section, steps in read(before).items()}
    written = write(Macro(id="m", name="M", **sections))
    assert [line.split() for line in written.splitlines() if line] == [
        line.split() for line in now.splitlines() if line
    ]
