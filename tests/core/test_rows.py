"""The rows of a macro, found by their numbers and by their places."""

from __future__ import annotations

import random

import msgspec
from hypothesis import example, given
from hypothesis import strategies as st

from nakrel.core.edit import edits
from nakrel.core.edit.row_words import list_text
from nakrel.core.edit.rows import Place, numbered_rows, row_at, row_of, rows
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Branch, If, Note, Option, Otherwise, PickOne, Repeat, Step, Tap, Text, Wait
from tests.strategies import macros, steps


def agree(macro: Macro) -> None:
    """Each row is found as it stands in the list of all."""
    every = rows(macro)
    assert [row_at(macro, number) for number in range(len(every))] == every
    assert row_at(macro, len(every)) is None
    assert row_at(macro, -1) is None
    for number, row in enumerate(every):
        if not isinstance(row.step, Option):
            assert row_of(macro, Place(row.section, row.at, row.inside)) == number


@given(macros)
def test_rows_are_found_by_number_and_place(macro: Macro):
    agree(macro)
    every = dict(enumerate(rows(macro)))
    few = list(every)[::3]
    assert {number: numbered_rows(macro, few)[number] for number in few} == {number: every[number] for number in few}


def test_in_a_long_macro_they_are_found_after_each_edit():
    chance = random.Random(3)
    tap = Tap(control="KEY_Q", hold_us=1_000)
    blocks: list[Step] = [
        tap,
        Wait(wait_us=1_000),
        Repeat(times=2, steps=(tap, Repeat(times=3, steps=(tap,)))),
        If(condition="run > 1", steps=(tap,), otherwise=Otherwise(steps=(tap, tap))),
        PickOne(branches=(Branch(steps=(tap,)), Branch(), Branch(steps=(tap, tap)))),
    ]
    # So long that what was found of it is remembered.
    macro = Macro(id="m", name="M", loop=tuple(chance.choice(blocks) for _ in range(700)), lead_out=(tap,))
    for _ in range(40):
        size = len(rows(macro))
        chosen = [chance.randrange(size) for _ in range(3)]
        before = macro
        match chance.randrange(4):
            case 0:
                macro = edits.delete(macro, chosen)
            case 1:
                macro = edits.duplicate(macro, chosen)
            case 2:
                macro = edits.insert(
                    macro, Place(rows(macro)[0].section, chance.randrange(500)), [chance.choice(blocks)]
                )
            case _:
                macro = edits.wrap(macro, chosen, lambda steps: Repeat(times=2, steps=steps))
        agree(macro)
        agree(before)


def test_a_macro_as_a_list_reads_as_its_steps_do():
    tap, typed = Tap(control="KEY_Q", hold_us=20_000, remark="now"), Text(text="Ahoy,\nall hands " * 4, rate=40)
    choice = PickOne(branches=(Branch(steps=(tap,), weight=3), Branch(steps=())))
    loop = (Repeat(times=3, steps=(choice,)), If(condition="run > 1", steps=(typed,), otherwise=Otherwise(steps=())))
    macro = Macro(id="m", name="M", lead_in=(Wait(wait_us=5_000, most_us=7_000, off=True),), loop=loop)
    assert list_text(macro).splitlines() == [
        "start",
        "    random wait  (off)  5 to 7 ms",
        "",
        "loop",
        "    repeat  3 times:",
        "        random choice",
        "            option 1  weight 3:",
        "                tap Q  20 ms  # now",
        "            option 2  weight 1:",
        "    if run > 1:",
        '        type "' + "Ahoy,\\nall hands " * 4 + '"  40/s',
        "    otherwise:",
    ]


@example(Note(text=""), Note(text="", remark="0"), 0)
@given(steps(), steps(), st.integers(0, 20))
def test_whatever_differs_between_two_steps_is_in_the_text_of_their_macros(step, other, number):
    """Versions are told apart by it."""
    if type(step) is type(other):
        field = step.__struct_fields__[number % len(step.__struct_fields__)]
        try:
            other = msgspec.structs.replace(step, **{field: getattr(other, field)})
        except DataError:
            return
    if step != other:
        assert list_text(Macro(id="m", name="M", loop=(step,))) != list_text(Macro(id="m", name="M", loop=(other,)))
