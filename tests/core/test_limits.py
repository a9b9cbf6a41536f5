"""A value that exists is valid: nothing beyond a limit can be made in any way, and the error names the place."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.inspect import DictType, IntType, LiteralType, Metadata, StrType, Type, UnionType, VarTupleType, type_info

from nakrel import protocol as m
from nakrel.core import notation
from nakrel.core.model.amounts import amount
from nakrel.core.model.cells import Cell
from nakrel.core.model.errors import DataError, LimitError
from nakrel.core.model.formulas import parsing_budget
from nakrel.core.model.limits import MAX_FORMULA_SIGNS, MAX_STEPS
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile, SetUp
from nakrel.core.model.settings import Settings
from nakrel.core.model.steps import PickOne, Press, Step, Wait, branches, formulas_of
from nakrel.core.model.value import longest
from nakrel.core.notation.lines import NotationError
from tests.strategies import cells, macros, profiles, steps


def _inside(value: Any) -> Iterator[msgspec.Struct]:
    """The value and all values in it."""
    if isinstance(value, msgspec.Struct):
        yield value
        for name in value.__struct_fields__:
            yield from _inside(getattr(value, name))
    elif isinstance(value, tuple):
        for each in value:
            yield from _inside(each)
    elif isinstance(value, dict):
        for each in value.values():
            yield from _inside(each)


def _beyond(kind: Type) -> list[Any]:
    """Values just beyond the limits of a type."""
    match kind:
        case Metadata(type=inner):
            return _beyond(inner)
        case IntType(ge=least, le=most):
            return [limit + by for limit, by in ((least, -1), (most, 1)) if limit is not None]
        case StrType(min_length=least, max_length=most, pattern=pattern):
            short = [""] if least else []
            long = ["a" * (most + 1)] if most is not None else []
            return [*short, *long, "\ud800", *(["\x00/"] if pattern else [])]
        case LiteralType():
            return ["none of these"]
        case UnionType(types=types):
            return [value for each in types for value in _beyond(each)]
        case VarTupleType(item_type=item, min_length=least, max_length=most):
            few = [()] if least else []
            return [*few, *([("KEY_Q",) * (most + 1)] if most is not None else []), *((bad,) for bad in _beyond(item))]
        case DictType():
            return []
    return []


def test_a_variants_colour_that_is_none_is_told_by_its_field():
    with pytest.raises(LimitError, match=r"colour.*write a colour as #4A6FA5, or nothing"):
        SetUp("Healer", {}, colour="brass")


@given(st.one_of(steps(), cells, macros, profiles), st.data())
def test_one_beyond_any_limit_is_refused_and_told_by_its_field(
    value: Step | Cell | Macro | Profile, data: st.DataObject
):
    each = data.draw(st.sampled_from(list(_inside(value))))
    info = type_info(type(each))
    fields = [(field.name, bad) for field in info.fields for bad in _beyond(field.type)]
    if not fields:
        return
    name, bad = data.draw(st.sampled_from(fields))
    with pytest.raises(DataError) as caught:
        msgspec.structs.replace(each, **{name: bad})
    if isinstance(caught.value, LimitError):
        assert caught.value.field == name
    assert len(str(caught.value)) > 10


@given(st.one_of(steps(), cells, macros, profiles))
def test_what_exists_can_be_written_and_read(value: Step | Cell | Macro | Profile):
    kind: Any = type(value)
    assert msgspec.json.decode(msgspec.json.encode(value), type=kind) == value
    assert msgspec.convert(msgspec.to_builtins(value), type=kind) == value


@pytest.mark.parametrize(
    ("line", "message"),
    [
        ("tap A + B + C + D + E + F + G + H + I for 5 ms", "combination are 9; 8 at most"),
        ("move to 500000, 10", "the place from the left is 500000; it can be at most 100000"),
        ("move to 5, 10 on a screen of 0 x 5", "it can be at least 1"),
        ("# " + "n" * 1_001, "has 1,001 characters; it can have 1,000 at most"),
        (f'type "{"t" * 10_001}"', "the text has 10,001 characters; it can have 10,000 at most"),
        (r'type "\ud800"', "has half a character in it"),
        (f'type the secret "{"s" * 121}"', "the name of the secret has 121 characters"),
        (f"open {' '.join(['a'] * 65)}", "arguments are 65; 64 at most"),
        (r'open tide-map "a\u0000b"', "can't have the character number 0"),
        (f"set {'v' * 41} to 1", "the name of the variable is"),
        ("tap Q for 700 s", "longer than the 600 s"),
        ("tap Q for 1 ms  # " + "n" * 1_001, "the comment has 1,001 characters"),
    ],
)
def test_the_text_page_points_at_the_line(line: str, message: str):
    with pytest.raises(NotationError, match=r"line 2, column \d+: .*") as caught:
        notation.read(f"tap W for 5 ms\n{line}\n")
    assert message in str(caught.value)


def test_too_many_options_are_told_where_they_stand():
    options = "".join("    option:\n        tap Q for 1 ms\n" for _ in range(101))
    with pytest.raises(NotationError, match=r"line 1, .*the options of a random choice are 101; 100 at most"):
        notation.read(f"random choice:\n{options}")


def test_a_macro_has_so_many_steps_and_formulas_at_most():
    press = Press(control="KEY_Q")
    with pytest.raises(DataError, match="200,001 steps; 200,000 at most"):
        Macro(id="m", name="M", loop=(press,) * (MAX_STEPS + 1))
    texts = [f"{'1 + ' * 45}{n}" for n in range(1 + MAX_FORMULA_SIGNS // 181)]
    waits = tuple(Wait(wait_us=text) for text in texts)
    with pytest.raises(DataError, match="formulas of this macro are too much"):
        Macro(id="m", name="M", loop=waits)
    # One that stands there often is read once, and counts once.
    assert Macro(id="m", name="M", loop=waits[:1] * 6_000).loop[5_999] == waits[0]


def test_reading_stops_where_the_formulas_become_too_much():
    steps = [{"step": "wait", "wait_us": f"{'2 + ' * 45}{n}"} for n in range(6_000)]
    with parsing_budget(), pytest.raises(msgspec.ValidationError, match=r"formulas of this macro.*\$\.loop\[\d{3}\]"):
        msgspec.convert({"id": "m", "name": "M", "loop": steps}, Macro)


def test_what_reads_a_limit_for_a_field_reads_the_same():
    assert longest(Macro, "name") == 120
    assert longest(Settings, "layout") == 64
    assert longest(m.TypeText, "text") == 10_000


@given(macros)
def test_the_steps_of_a_long_macro_are_counted_as_those_of_a_short_one(macro: Macro):
    few = macro.loop[:4]
    formulas: set[str] = set()
    count = amount(few, formulas)
    of_many: set[str] = set()
    assert amount(few * 70, of_many) == 70 * count
    assert of_many == formulas


@settings(max_examples=40)
@given(macros, st.lists(st.tuples(st.integers(0, 100), st.integers(0, 5), steps()), max_size=4))
def test_an_edit_of_a_long_macro_is_counted_as_if_it_were_counted_whole(
    macro: Macro, edits: list[tuple[int, int, Step]]
):
    def counted(steps: tuple[Step, ...], formulas: set[str]) -> int:
        for step in steps:
            formulas.update(formulas_of(step))
            for option in step.branches if isinstance(step, PickOne) else ():
                formulas.update(formulas_of(option))
        return len(steps) + sum(counted(inside, formulas) for step in steps for inside in branches(step))

    now = macro.loop[:4] * 40
    for at, gone, new in edits:
        now = (*now[:at], new, *now[at + gone :])
        found: set[str] = set()
        right: set[str] = set()
        assert amount(now, found) == counted(now, right)
        assert found == right


def test_a_formula_that_goes_from_a_long_macro_is_not_counted_any_more():
    plain = (Wait(wait_us=1_000),) * 100
    for some, expected in (((*plain, Wait(wait_us="run * 2")), {"run * 2"}), (plain, set())):
        found: set[str] = set()
        assert amount(some, found) == len(some)
        assert found == expected
