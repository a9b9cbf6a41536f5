"""Formulas: Python's own arithmetic is the reference; what is not arithmetic is refused, and everything ends soon."""

from __future__ import annotations

import random
import string

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.model.errors import DataError
from nakrel.core.model.formulas import Estimate, Formula, FormulaError, micros
from nakrel.core.model.steps import Set, Step, Wait
from tests.strategies import formulas


class World(Estimate):
    """A run somewhere in its middle."""

    def __init__(self) -> None:
        super().__init__()
        self.variables = {"catch": 3.0}
        self.run, self.elapsed_us = 7, 1_500_000

    def pointer(self) -> tuple[int, int]:
        return 640, 400

    def held(self, code: str) -> bool:
        return code == "KEY_LEFTSHIFT"


def value(text: str) -> float:
    return Formula(text).value(World())


@pytest.mark.parametrize(
    ("text", "result"),
    [
        ("20 + 5 * run", 55),
        ("elapsed", 1500.0),
        ("x - y", 240),
        ("catch * 2", 6.0),
        ("nothing + 1", 1),
        ("7 // 2 + 7 % 4 - -1", 7),
        ("1 < 2 < 3 and not run == 8", True),
        ("min(3, 1, 2) + max(1, 2) + abs(-4)", 7),
        ("round(2.6) + round(2.345, 1)", 5.3),
        ('held("Left Shift")', True),
        ('held("KEY_Q") or run > 100', False),
    ],
)
def test_formulas_give_what_arithmetic_says(text: str, result: float):
    assert value(text) == result


@given(formulas)
def test_formulas_agree_with_python(text: str):
    """Python's own eval is the reference, on the same names."""
    chance = random.Random(5)
    world = World()
    world.chance = random.Random(5)

    def between(least: float, most: float) -> float:
        least, most = min(least, most), max(least, most)
        if isinstance(least, int) and isinstance(most, int):
            return chance.randint(least, most)
        return chance.uniform(least, most)

    names = {
        "run": 7, "elapsed": 1500.0, "x": 640, "y": 400, "catch": 3.0, "random": between,
        "held": lambda name: name in ("Left Shift", "KEY_LEFTSHIFT"),
    }  # fmt: skip
    try:
        wanted = float(eval(text, {"__builtins__": {"min": min, "max": max}}, names))
    except ZeroDivisionError:
        with pytest.raises(FormulaError, match="divides by zero"):
            Formula(text).value(world)
        return
    if "and" not in text and "or" not in text:
        # Python's and, or give one of the numbers; ours only whether they hold.
        assert float(Formula(text).value(world)) == wanted
    else:
        Formula(text).value(world)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("1 +", "can't be read"),
        ("1 / 0", "divides by zero"),
        ("(1).real", "only arithmetic"),
        ("2 ** 9", "write a"),
        ("1 << 99", "only arithmetic"),
        ('"a" * 9', "only arithmetic"),
        ("[1, 2]", "only arithmetic"),
        ("lambda: 1", "only arithmetic"),
        ("(a := 1)", "only arithmetic"),
        ('__import__("os")', "has no function"),
        ("open(1)", "has no function"),
        ("min(1)", "it takes 2 to 20"),
        ("max(*[1], 2)", "only arithmetic"),
        ("held(1)", "write it as held"),
        ('held("Lost key")', "there is no key or button"),
        ("9" * 12 + "*" + "9" * 12, "too large"),
        ("9" * 30, "too large"),
        ("999999999999 * 999999999999", "too large"),
        ("1e3", "'1e3' in it: write a number as 20"),
        ("0x10", "'0x10' in it: write a number as 20"),
        ("1_000", "'1_000' in it: write a number as 20"),
        ("10j", "'10j' in it: write a number as 20"),
        ("10 if run > 5 else 20", "the word 'if' in it: use an if step"),
        ("True", "the word 'True' in it: write 1"),
        ("run is 1", "the word 'is' in it"),
        ("nan", "'nan' in it"),
        ("-Infinity", "'Infinity' in it"),
        ("min", "'min' without numbers; write it as min"),
        ("2 + held", "'held' without numbers"),
        ("run(1)", "calls 'run', which is a number"),
        (" run", "space at its beginning"),
        ("", "is empty"),
        ("run # 1", "can't stand there"),
        ("1\n+1", "can't stand there"),
        ("1" + "+1" * 150, "longer than 200"),
        ("(" * 99 + "1" + ")" * 99, ""),
    ],
)
def test_what_is_no_arithmetic_is_refused_with_the_reason(text: str, words: str):
    with pytest.raises(FormulaError, match=words) if words else pytest.raises((FormulaError, AssertionError)):
        Formula(text).value(World())
        raise AssertionError  # deep parentheses may be read or refused


@given(st.text(string.ascii_letters + string.digits + "()+-*/%<>=!,.\"' _[]{}:@&|^~", max_size=200))
def test_any_text_is_a_number_or_refused(text: str):
    try:
        result = Formula(text).value(World())
    except FormulaError:
        return
    assert -1e15 <= result <= 1e15


def test_times_are_milliseconds_and_one_out_of_bounds_is_an_error():
    assert micros("20.5", World()) == 20_500
    assert micros("600 * 1000", World()) == 600_000_000
    assert micros(17, World()) == 17
    for text, words in (("10 - 3 * run", "gives -11 ms"), ("1000 * 1000 * 1000", "gives 1000000000 ms")):
        with pytest.raises(FormulaError, match=f"{words}; a time is from 0 to 600,000 ms"):
            micros(text, World())


def test_the_place_of_an_error_is_counted_in_letters():
    """Python counts bytes there, and an Ü has two."""
    with pytest.raises(FormulaError) as caught:
        Formula('held("Ü") + unknown(1)')
    assert caught.value.column == 6
    with pytest.raises(FormulaError) as caught:
        Formula("held('\"Überholen\"') + foo(1)")
    assert caught.value.column == 23
    with pytest.raises(FormulaError) as caught:
        Formula("run + 0x10")
    assert caught.value.column == 7


def test_random_is_whole_where_both_ends_are_in_value():
    world = World()
    world.chance = random.Random(3)
    drawn = {Formula("random(1, 4 / 2)").value(world) for _ in range(50)}
    assert drawn == {1, 2}
    assert any(number % 1 for number in (Formula("random(1, 2.5)").value(world) for _ in range(50)))


def test_chance_comes_from_the_one_that_is_handed_in():
    world = World()
    world.chance = random.Random(3)
    drawn = {Formula("random(1, 6)").value(world) for _ in range(200)}
    assert drawn == {1, 2, 3, 4, 5, 6}
    world.chance = None
    assert Formula("random(10, 20)").value(world) == 15


def test_a_step_with_a_formula_that_can_t_be_read_is_no_step():
    with pytest.raises(FormulaError, match="can't be read"):
        Wait(wait_us="20 +")
    with pytest.raises(msgspec.ValidationError, match="can't be read"):
        msgspec.json.decode(b'{"step": "wait", "wait_us": "20 +"}', type=Step)
    for name in ("run", "min", "and", "None"):
        with pytest.raises(DataError, match="choose another name"):
            Set(variable=name, value="1")
