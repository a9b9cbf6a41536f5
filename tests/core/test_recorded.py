"""Where a recording goes in a macro, and how it joins what is there."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.edit.edits import insert
from nakrel.core.edit.recorded import gap_after, insert_recorded, row_before
from nakrel.core.edit.rows import Place, rows
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.recording import RecordingSettings, Waits
from nakrel.core.model.steps import Note, Press, Release, Repeat, Tap, Wait
from tests.strategies import macros

W50 = Wait(wait_us=50_000)
PRESS_Q, RELEASE_Q = Press(control="KEY_Q"), Release(control="KEY_Q")
NEW = (Press(control="KEY_E"), W50, Release(control="KEY_E"))
JOINT = Wait(wait_us=25_000)


def macro_of(*loop: object) -> Macro:
    return Macro(id="m", name="M", loop=loop)  # type: ignore[arg-type]


def test_it_goes_after_the_whole_hold_that_the_cursor_is_in():
    macro = macro_of(PRESS_Q, W50, RELEASE_Q, Tap(control="KEY_W", hold_us=1_000))
    for row in (0, 1, 2):
        gap = gap_after(macro, row)
        assert gap == Place(Section.LOOP, 3)
        assert row_before(macro, row, gap) == 2
    assert gap_after(macro, 3) == Place(Section.LOOP, 4)
    assert gap_after(macro, None) == Place(Section.LOOP, 4)


def test_a_hold_that_is_never_let_go_leaves_it_at_the_cursor():
    macro = macro_of(PRESS_Q, W50, Tap(control="KEY_W", hold_us=1_000))
    assert gap_after(macro, 1) == Place(Section.LOOP, 2)


def test_steps_that_are_off_hold_nothing_and_blocks_are_stepped_over():
    off = Press(control="KEY_Q", off=True)
    assert gap_after(macro_of(off, W50), 0) == Place(Section.LOOP, 1)
    block = Repeat(times=2, steps=(Tap(control="KEY_W", hold_us=1_000),))
    macro = macro_of(PRESS_Q, block, RELEASE_Q)
    assert gap_after(macro, 0) == Place(Section.LOOP, 3)
    assert row_before(macro, 0, gap_after(macro, 0)) == 3
    # The cursor on the block itself means its inside.
    assert gap_after(macro, 1) == Place(Section.LOOP, 0, ((1, 0),))


def test_a_joint_has_a_wait_where_there_is_none():
    tap = Tap(control="KEY_W", hold_us=1_000)
    settings = RecordingSettings()
    gap = Place(Section.LOOP, 1)
    assert insert_recorded(macro_of(tap, tap), gap, NEW, settings).loop == (tap, JOINT, *NEW, JOINT, tap)
    assert insert_recorded(macro_of(tap, W50), gap, NEW, settings).loop == (tap, JOINT, *NEW, W50)
    assert insert_recorded(macro_of(W50), gap, NEW, settings).loop == (W50, *NEW)
    assert insert_recorded(macro_of(), Place(Section.LOOP, 0), NEW, settings).loop == NEW
    # A comment is no step to be kept apart from.
    assert insert_recorded(macro_of(W50, Note(text="now")), Place(Section.LOOP, 2), NEW, settings).loop[2:] == NEW
    assert insert_recorded(macro_of(tap), gap, (), settings) == macro_of(tap)
    bare = tuple(step for step in NEW if not isinstance(step, Wait))
    none = RecordingSettings(waits=Waits.NONE)
    assert insert_recorded(macro_of(tap, tap), gap, bare, none).loop == (tap, *bare, tap)


@given(macros, st.data())
def test_nothing_that_stood_before_is_lost_and_the_row_before_is_told_right(macro: Macro, data: st.DataObject):
    numbered = rows(macro)
    if not numbered:
        return
    row = data.draw(st.integers(0, len(numbered) - 1))
    gap = gap_after(macro, row)
    marked = rows(insert(macro, gap, (Note(text="here"),)))
    here = next(n for n, each in enumerate(marked) if each.step == Note(text="here") and n > row)
    assert row_before(macro, row, gap) == here - 1
