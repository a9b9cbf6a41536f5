"""The rows of a macro, found by their numbers and by their places."""

from __future__ import annotations

import random

from hypothesis import given

from nakrel.core.edit import edits
from nakrel.core.edit.rows import Place, numbered_rows, row_at, row_of, rows
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Branch, If, Option, Otherwise, PickOne, Repeat, Step, Tap, Wait
from tests.strategies import macros


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
