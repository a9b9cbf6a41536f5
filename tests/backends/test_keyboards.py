"""What keys are called: by what the layouts of the XKB database print on them."""

from __future__ import annotations

import re
from collections import Counter
from pathlib import Path

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.backends.layout import Layout, parse_layout
from nakrel.backends.typist import Typist
from nakrel.core import notation
from nakrel.core.edit.offers import read_combination
from nakrel.core.edit.row_words import list_text
from nakrel.core.model.controls import CONTROLS, Kind, label, use_labels
from nakrel.core.model.formulas import compiled
from nakrel.core.model.keyboard import labels_by
from nakrel.core.model.macro import Macro
from nakrel.core.model.names import name_of, read_control, read_shown, shown_formula, shown_name, typed_formula
from nakrel.core.model.steps import If, Tap

RULES = Path("/usr/share/X11/xkb/rules/evdev.lst")
KEYS = [f"KEY_{name}" for name in "QWERTYUIOPASDFGHJKLZXCVBNM1234567890"] + [
    f"KEY_{name}"
    for name in (
        *("GRAVE", "MINUS", "EQUAL", "LEFTBRACE", "RIGHTBRACE", "SEMICOLON", "APOSTROPHE", "BACKSLASH", "COMMA", "DOT"),
        *("SLASH", "102ND"),
    )
]


TAPS = [Tap(control=code, hold_us='1 + held("Q")') for code in KEYS] + [
    Tap(control=code, hold_us=20_000) for code, control in CONTROLS.items() if control.kind is not Kind.WHEEL
]


def labels(name: str) -> dict[str, str]:
    typist = Typist(parse_layout(name, "the test"))
    return labels_by(typist.legends, typist.levels)


@pytest.mark.parametrize(
    ("name", "wanted"),
    [
        # xkeyboard-config, symbols/us, pl, ru, gr, il: as on a US keyboard, or with those letters beside others.
        *(("us", {}), ("us:intl", {}), ("pl", {}), ("ru", {}), ("gr", {}), ("il", {})),
        # symbols/gb
        ("gb", {"BACKSLASH": "#", "102ND": "Backslash"}),
        # symbols/de
        (
            "de",
            {
                "Y": "Z", "Z": "Y", "MINUS": "ß", "LEFTBRACE": "Ü", "SEMICOLON": "Ö", "APOSTROPHE": "Ä", "GRAVE": "^",
                "EQUAL": "´", "RIGHTBRACE": "+", "BACKSLASH": "#", "SLASH": "Minus", "102ND": "<",
            },
        ),
        # symbols/fr, azerty: its digits come with Shift.
        (
            "fr",
            {
                "Q": "A", "W": "Z", "A": "Q", "Z": "W", "SEMICOLON": "M", "M": "Comma", "COMMA": "Semicolon",
                "DOT": ":", "SLASH": "!", "MINUS": ")", "LEFTBRACE": "^", "RIGHTBRACE": "$", "APOSTROPHE": "ù",
                "BACKSLASH": "*", "GRAVE": "²", "102ND": "<",
            },
        ),
        # symbols/us, colemak: two keys have a minus, and one of them is called so.
        (
            "us:colemak",
            {
                "E": "F", "R": "P", "T": "G", "Y": "J", "U": "L", "I": "U", "O": "Y", "P": "Semicolon", "S": "R",
                "D": "S", "F": "T", "G": "D", "J": "N", "K": "E", "L": "I", "SEMICOLON": "O", "N": "K",
            },
        ),
    ],
)  # fmt: skip
def test_a_key_is_called_by_what_is_printed_on_it(name: str, wanted: dict[str, str]):
    assert labels(name) == {f"KEY_{key}": text for key, text in wanted.items()}


def test_capitals_are_those_that_shift_makes():
    # symbols/tr: dotless and dotted i; symbols/be: the micro sign, whose capital by Unicode is a Greek letter.
    turkish = Typist(Layout("tr")).legends
    assert (turkish["KEY_I"], turkish["KEY_APOSTROPHE"]) == ("I", "İ")
    assert Typist(Layout("be")).legends["KEY_BACKSLASH"] == "µ"
    assert Typist(Layout("de")).legends["KEY_MINUS"] == "ß"


@pytest.mark.skipif(not RULES.exists(), reason="needs the XKB database (xkb-data)")
def test_no_layout_calls_two_controls_the_same_and_every_name_is_read_back():
    variants = RULES.read_text(encoding="utf-8").partition("! variant")[2].partition("! option")[0]
    names = [f"{found[2]}:{found[1]}" for found in re.finditer(r"^  (\S+)\s+(\w+): ", variants, re.MULTILINE)]
    assert len(names) > 200
    for name in names[::7]:
        use_labels(labels(name))
        assert max(Counter(label(code).casefold() for code in KEYS).values()) == 1, name
        assert [read_shown(shown_name(code)) for code in CONTROLS] == list(CONTROLS), name
        assert [read_control(name_of(code)) for code in CONTROLS] == list(CONTROLS), name
        for step in TAPS:
            assert notation.read_shown_steps(notation.shown_line(step)) == [step], name
            assert notation.read_steps(notation.write_line(step)) == [step], name


_SIGN = st.sampled_from("QWERTZÄß,.-#'=+<[1") | st.characters(categories=("L", "P", "S"))


@given(st.dictionaries(st.sampled_from(KEYS), _SIGN))
def test_whatever_is_printed_no_two_are_called_the_same(legends: dict[str, str]):
    found = labels_by(legends, {code: (legend, "", "", "") for code, legend in legends.items()})
    names = Counter((found.get(code) or label(code)).casefold() for code in CONTROLS)
    assert {text for text in found.values() if names[text.casefold()] > 1} == set()


def test_what_is_printed_is_what_can_be_typed():
    use_labels(labels("fr"))
    assert [read_shown(name) for name in ("a", "Q", "comma", "KEY_Q", "F5")] == [
        "KEY_Q", "KEY_A", "KEY_M", "KEY_Q", "KEY_F5",
    ]  # fmt: skip
    assert read_combination("ctrl+a") == ("KEY_LEFTCTRL", "KEY_Q")
    # Texts are read on other keyboards, too.
    assert (read_control("a"), name_of("KEY_Q")) == ("KEY_A", "Q")
    assert label("KEY_Q", "Harbour") == "A with Harbour"
    assert label("KEY_Q", printed=False) == "Q"


def test_a_step_is_retyped_as_it_is_shown():
    use_labels(labels("fr"))
    step = If(condition='held("Q") and held(\'KEY_2\') or held("Left Shift")')
    assert notation.shown_line(step) == 'if held("A") and held("2") or held("Left Shift"):'
    [typed] = notation.read_shown_steps('if held("a") and held("ù"):')
    assert typed == If(condition='held("Q") and held("Apostrophe")')
    # A text and a comment stay what they are.
    assert notation.read_shown_steps("type \"held('a')\"") == notation.read_steps("type \"held('a')\"")
    [tapped] = notation.read_shown_steps("tap Q for 20 ms  # held('a')")
    assert tapped == Tap(control="KEY_A", hold_us=20_000, remark="held('a')")
    macro = Macro(
        id="m", name="M", lead_in=(tapped,), loop=(msgspec.structs.replace(typed, steps=(tapped,), off=True),)
    )
    assert list_text(macro) == (
        "start\n    tap Q  20 ms  # held('a')\n\n"
        'loop\n    if held("A") and held("ù")  (off):\n        tap Q  20 ms  # held(\'a\')'
    )
    # Texts are read on other keyboards, too.
    assert notation.write_line(tapped) == "tap A for 20 ms  # held('a')"


@given(st.sampled_from(["de", "fr", "us", "us:colemak", "tr"]), st.sampled_from(sorted(CONTROLS)))
def test_a_formula_is_typed_as_it_is_shown(layout: str, code: str):
    use_labels(labels(layout))
    formula = f"run + held('{code}') * 2"
    again = typed_formula(shown_formula(formula))
    assert compiled(again).controls == {code}
    assert compiled(again).nodes == compiled(formula).nodes
