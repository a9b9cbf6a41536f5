"""Edits of steps: pure, and exactly what they say."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from nakrel.core import edits
from nakrel.core.edits import Place
from nakrel.core.macro import Macro, Play, Section
from nakrel.core.simulate import plan
from nakrel.core.steps import Press, Release, Tap, Wait, length_us
from nakrel.core.timeline import lay_out
from tests.strategies import macros, steps

Q, W = Press(control="KEY_Q"), Press(control="KEY_W")
MACRO = Macro(id="m", name="M", lead_in=(Q,), loop=(W, Wait(wait_us=5), Q), lead_out=(W,))
places = st.builds(Place, st.sampled_from(Section), st.integers(0, 6))


def some_rows(macro: Macro) -> st.SearchStrategy[set[int]]:
    count = len(edits.rows(macro))
    return st.sets(st.integers(0, count - 1)) if count else st.just(set())


def test_rows_run_through_the_sections_and_gaps_lie_after_them():
    assert [section for section, _ in edits.rows(MACRO)] == ["lead_in", *["loop"] * 3, "lead_out"]
    assert edits.place_after(MACRO, 0) == Place(Section.LEAD_IN, 1)
    assert edits.place_after(MACRO, 2) == Place(Section.LOOP, 2)
    assert edits.place_after(MACRO, 4) == Place(Section.LEAD_OUT, 1)
    assert edits.place_after(MACRO, None) == Place(Section.LOOP, 3)


def test_set_times_sets_waits_and_holds_of_the_rows_and_nothing_else():
    macro = Macro(id="m", name="M", loop=(Wait(wait_us=1), Tap(control="KEY_Q", hold_us=2), Q, Wait(wait_us=3)))
    after = edits.set_times(macro, {0, 1, 2}, 9)
    assert [length_us(step) for step in after.loop] == [9, 9, 0, 3]


@given(macros, places, st.lists(steps(), max_size=3), st.data())
def test_deleting_what_was_inserted_gives_the_macro_back(macro: Macro, place: Place, new: list, data: st.DataObject):
    place = Place(place.section, min(place.at, len(macro.section(place.section))))
    after = edits.insert(macro, place, new)
    first = sum(len(macro.section(s)) for s in list(Section)[: list(Section).index(place.section)]) + place.at
    assert edits.delete(after, range(first, first + len(new))) == macro


@given(macros, places, st.data())
def test_moving_keeps_every_step_and_the_order_of_the_rest(macro: Macro, place: Place, data: st.DataObject):
    chosen = data.draw(some_rows(macro))
    place = Place(place.section, min(place.at, len(macro.section(place.section))))
    after = edits.rows(edits.move(macro, chosen, place))
    before = edits.rows(macro)
    assert sorted(map(repr, (s for _, s in after))) == sorted(map(repr, (s for _, s in before)))
    moved = [before[row][1] for row in sorted(chosen)]
    stayed = [step for row, (_, step) in enumerate(before) if row not in chosen]
    assert any(
        [step for _, step in after][at : at + len(moved)] == moved
        and [s for n, (_, s) in enumerate(after) if not at <= n < at + len(moved)] == stayed
        for at in range(len(after) + 1)
    )


@given(st.lists(steps(["KEY_Q", "KEY_W"], st.integers(0, 9_000)), max_size=12))
def test_joining_to_taps_changes_no_event(loop: list):
    macro = Macro(id="m", name="M", loop=tuple(loop))
    assert plan(edits.to_taps(macro), Play()) == plan(macro, Play())


def test_press_wait_release_becomes_a_tap():
    macro = Macro(id="m", name="M", loop=(Q, Wait(wait_us=5), Release(control="KEY_Q"), W, Release(control="KEY_W")))
    assert edits.to_taps(macro).loop == (Tap(control="KEY_Q", hold_us=5), W, Release(control="KEY_W"))


@given(st.lists(steps(["KEY_Q", "KEY_W", "BTN_LEFT"], st.integers(0, 9_000)), max_size=12))
def test_the_timeline_agrees_with_what_the_engine_emits(loop: list):
    macro = Macro(id="m", name="M", loop=tuple(loop))
    line = lay_out(macro)
    edges = {(a, code, 1) for code, spans in line.spans.items() for a, _ in spans if not code.startswith("WHEEL")}
    edges |= {(b, code, 0) for code, spans in line.spans.items() for _, b in spans if not code.startswith("WHEEL")}
    emitted = {tuple(row) for row in plan(macro, Play()) if not row.control.startswith("WHEEL")}
    assert edges == emitted
