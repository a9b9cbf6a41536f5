"""A timeline that was made from the one before an edit is the one that would have been made anew."""

from __future__ import annotations

import msgspec
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core import notation
from nakrel.core.edit.timeline import Timeline, is_cut, lay_out
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.steps import Repeat, Step
from tests.strategies import sections, steps


def look(line: Timeline, row: int) -> object:
    """All that is shown of a row, but for its number and when it starts."""
    return line.row(row), line.end_us(row) - line.start_us(row)


def everything(line: Timeline) -> object:
    rows = [(line.row(row), line.number(row), line.start_us(row), line.end_us(row)) for row in range(line.size)]
    return rows, line.length_us, line.loop_us, line.loop_rows, line.zones, line.spans, line.unsure, line.controls


@st.composite
def edited(draw: st.DrawFn) -> list[tuple[tuple[Step, ...], ...]]:
    """The sections of a macro after each of some edits."""
    made = [draw(st.tuples(sections, sections, sections))]
    for _ in range(draw(st.integers(1, 5))):
        now = list(made[-1])
        which = draw(st.integers(0, 2))
        old = now[which]
        first = draw(st.integers(0, len(old)))
        last = draw(st.integers(first, len(old)))
        new = draw(st.lists(steps(), max_size=2))
        now[which] = (*old[:first], *new, *old[last:])
        made.append(tuple(now))
    return made


def macro_of(parts: tuple[tuple[Step, ...], ...]) -> Macro:
    lead_in, loop, lead_out = parts
    return Macro(id="m", name="M", lead_in=lead_in, loop=loop, lead_out=lead_out)


@given(edited())
def test_after_any_edit_it_is_as_if_made_anew(made: list[tuple[tuple[Step, ...], ...]]):
    line = lay_out(macro_of(made[0]))
    for parts in made[1:]:
        before, macro = line, macro_of(parts)
        line, anew = lay_out(macro, before), lay_out(macro)
        # How far long repeats are drawn goes by what is laid out at once.
        if is_cut(line) or is_cut(anew) or is_cut(before):
            continue
        assert everything(line) == everything(anew)
        first, old_end, new_end = line.replaced(before)
        for row in range(first):
            assert look(line, row)[1] == look(before, row)[1]
            assert line.row(row).step == before.row(row).step
        for row in range(line.size - new_end):
            assert look(line, new_end + row)[1] == look(before, old_end + row)[1]
            assert line.row(new_end + row).step == before.row(old_end + row).step
        if line.size == before.size and line.size:
            first, last = line.changed_from(before)
            for row in (*range(first), *range(last + 1, line.size)):
                assert look(line, row) == look(before, row)


LONG = "set turn to 2\n" + "if turn > 1:\n    tap Q for 5 ms\nelse:\n    wait (turn * 10) ms\n" * 40


def test_what_goes_by_a_variable_follows_it_and_all_else_stays_laid_out():
    loop = tuple(notation.read_steps(LONG))
    line = lay_out(Macro(id="m", name="M", loop=loop))
    assert line.length_us == 40 * 5_000
    # A block in the midst has another length: no other is laid out again.
    longer = msgspec.structs.replace(loop[20], steps=tuple(notation.read_steps("tap Q for 8 ms")))
    after = lay_out(Macro(id="m", name="M", loop=(*loop[:20], longer, *loop[21:])), line)
    assert after.length_us == 39 * 5_000 + 8_000
    assert sum(one is not other for one, other in zip(after._pieces, line._pieces, strict=True)) == 1
    assert after.changed_from(line) == (1 + 19 * 4, 1 + 20 * 4 - 1)
    # The variable gets another value: all that go by it are.
    less = msgspec.structs.replace(loop[0], value="1")
    after = lay_out(Macro(id="m", name="M", loop=(less, *after.macro.loop[1:])), after)
    assert after.length_us == 40 * 10_000
    assert after.changed_from(line) == (0, after.size - 1)
    # And back: what a timeline has kept of its variables is its own.
    assert lay_out(line.macro, after).length_us == line.length_us
    # Set anew before the last ten.
    again = (*loop[:31], *notation.read_steps("set turn to 0"), *loop[31:])
    split = lay_out(Macro(id="m", name="M", loop=again), line)
    assert split.length_us == 30 * 5_000
    gone = lay_out(Macro(id="m", name="M", loop=(*again[:5], *again[6:])), split)
    assert gone.length_us == 29 * 5_000
    moved = Macro(id="m", name="M", lead_in=again[:10], loop=again[10:])
    assert lay_out(moved, gone).zones[1].section is Section.LOOP
    assert everything(lay_out(moved, gone)) == everything(lay_out(moved))


def test_repeats_that_were_cut_are_cut_after_an_edit_elsewhere():
    endless = Repeat(times=1_000_000, steps=tuple(notation.read_steps("tap Q for (run) ms\nwait 1 ms")))
    line = lay_out(Macro(id="m", name="M", loop=(endless,) * 30))
    assert is_cut(line)
    assert is_cut(lay_out(Macro(id="m", name="M", loop=(endless,) * 29), line))
