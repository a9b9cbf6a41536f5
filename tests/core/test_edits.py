"""Edits of steps: pure, and exactly what they say."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace

from nakrel.core.edit import edits
from nakrel.core.edit.rows import Place, place_after, row_at, rows
from nakrel.core.edit.timeline import lay_out
from nakrel.core.model.lengths import length_us
from nakrel.core.model.limits import MAX_WAIT_US
from nakrel.core.model.macro import Macro, Play, Section
from nakrel.core.model.steps import Branch, Chord, If, Otherwise, PickOne, Press, Release, Repeat, Tap, Wait, Wheel
from nakrel.core.play.simulate import plan
from tests.strategies import macros, steps

Q, W = Press(control="KEY_Q"), Press(control="KEY_W")
MACRO = Macro(id="m", name="M", lead_in=(Q,), loop=(W, Wait(wait_us=5), Q), lead_out=(W,))


def some_rows(macro: Macro) -> st.SearchStrategy[set[int]]:
    count = len(rows(macro))
    return st.sets(st.integers(0, count - 1)) if count else st.just(set())


def test_rows_run_through_the_sections_and_gaps_lie_after_them():
    assert [row.section for row in rows(MACRO)] == ["lead_in", *["loop"] * 3, "lead_out"]
    assert place_after(MACRO, 0) == Place(Section.LEAD_IN, 1)
    assert place_after(MACRO, 2) == Place(Section.LOOP, 2)
    assert place_after(MACRO, 4) == Place(Section.LEAD_OUT, 1)
    assert place_after(MACRO, None) == Place(Section.LOOP, 3)


def test_retime_sets_waits_and_holds_of_the_rows_and_nothing_else():
    macro = Macro(id="m", name="M", loop=(Wait(wait_us=1), Tap(control="KEY_Q", hold_us=2), Q, Wait(wait_us=3)))
    after = edits.retime(macro, {0, 1, 2}, lambda us: 9)
    assert [length_us(step) for step in after.loop] == [9, 9, 0, 3]


def some_gap(macro: Macro) -> st.SearchStrategy[Place]:
    """Any gap of the macro, inside blocks too."""
    gaps = [place_after(macro, row) for row in range(len(rows(macro)))]
    return st.sampled_from([*gaps, *(Place(section, 0) for section in Section)])


def all_steps(macro: Macro) -> list[str]:
    """Every step without what is inside it, in any order."""
    return sorted(repr(_bare(row.step)) for row in rows(macro))


def _bare(step: object) -> object:
    match step:
        case PickOne():
            return replace(step, branches=(Branch(),))
        case If():
            return replace(step, steps=(), otherwise=None)
        case Repeat() | Branch() | Otherwise():
            return replace(step, steps=())
    return step


@given(macros, st.lists(steps(), min_size=1, max_size=3), st.data())
def test_deleting_what_was_inserted_gives_the_macro_back(macro: Macro, new: list, data: st.DataObject):
    place = data.draw(some_gap(macro))
    after = edits.insert(macro, place, new)
    numbered = rows(after)
    tops = [n for n, r in enumerate(numbered) if (r.section, r.inside) == (place.section, place.inside)]
    fresh = [n for n in tops if place.at <= numbered[n].at < place.at + len(new)]
    assert edits.steps_of(after, fresh) == new
    assert edits.delete(after, fresh) == macro


@given(macros, st.data())
def test_moving_keeps_every_step_and_lands_in_the_gap(macro: Macro, data: st.DataObject):
    chosen, place = data.draw(some_rows(macro)), data.draw(some_gap(macro))
    moved = edits.steps_of(macro, chosen)
    after = edits.move(macro, chosen, place)
    assert all_steps(after) == all_steps(macro)
    if after != macro:
        # The moved steps stand side by side, in their order, in one list.
        lists: dict[object, list[object]] = {}
        for row in rows(after):
            lists.setdefault((row.section, row.inside), []).append(row.step)
        size = len(moved)
        assert any(found[at : at + size] == moved for found in lists.values() for at in range(len(found)))


@given(macros, st.data())
def test_wrapping_rows_in_a_block_plays_them_in_their_place(macro: Macro, data: st.DataObject):
    chosen = data.draw(some_rows(macro))
    after = edits.wrap(macro, chosen, lambda inner: Repeat(times=1, steps=inner))
    inner = edits.steps_of(macro, chosen)
    assert bool(inner) == (after != macro)
    if inner:
        assert Repeat(times=1, steps=tuple(inner)) in [row.step for row in rows(after)]


@given(macros, st.data())
def test_what_is_done_to_some_rows_leaves_all_others(macro: Macro, data: st.DataObject):
    numbered, chosen = rows(macro), data.draw(some_rows(macro))
    assert [row_at(macro, row) for row in range(len(numbered) + 1)] == [*numbered, None]
    simple = {row for row in chosen if isinstance(numbered[row].step, Press | Tap | Wait)}
    changed = macro
    for row in simple:
        changed = edits.change(changed, row, replace(numbered[row].step, remark="changed"))
    wanted = [replace(r.step, remark="changed") if n in simple else r.step for n, r in enumerate(numbered)]
    assert list(map(_bare, (r.step for r in rows(changed)))) == list(map(_bare, wanted))
    gone = edits.delete(macro, simple)
    assert [_bare(r.step) for r in rows(gone)] == [_bare(r.step) for n, r in enumerate(numbered) if n not in simple]
    for section in Section:
        lost = sum(1 for n in simple if numbered[n].section is section and not numbered[n].inside)
        assert len(gone.section(section)) == len(macro.section(section)) - lost


def test_a_block_does_not_move_into_itself():
    macro = Macro(id="m", name="M", loop=(Repeat(times=2, steps=(Q,)), W))
    assert edits.move(macro, {0}, Place(Section.LOOP, 1, ((0, 0),))) == macro
    assert edits.move(macro, {2}, Place(Section.LOOP, 1, ((0, 0),))).loop == (Repeat(times=2, steps=(Q, W)),)


def test_deleting_every_way_of_a_pick_one_deletes_it():
    macro = Macro(id="m", name="M", loop=(PickOne(branches=(Branch(steps=(Q,)), Branch(steps=(W,)))), W))
    assert [type(row.step).__name__ for row in rows(macro)] == [
        "PickOne",
        "Branch",
        "Press",
        "Branch",
        "Press",
        "Press",
    ]
    assert edits.delete(macro, {1}).loop == (PickOne(branches=(Branch(steps=(W,)),)), W)
    assert edits.delete(macro, {1, 3}).loop == (W,)


def test_taps_become_a_chord_held_as_long_as_the_longest():
    taps = (
        Tap(control="KEY_Q", hold_us=5),
        Wait(wait_us=9),
        Tap(control="KEY_W", hold_us=7),
        Tap(control="KEY_Q", hold_us=1),
    )
    macro = Macro(id="m", name="M", loop=(W, *taps, W))
    assert edits.to_chord(macro, {1, 2, 3, 4}).loop == (W, Chord(controls=("KEY_Q", "KEY_W"), hold_us=7), W)
    assert edits.to_chord(macro, {1, 4}) == macro


def test_times_are_scaled_and_kept_within_bounds():
    macro = Macro(id="m", name="M", loop=(Wait(wait_us=10, most_us=30), Tap(control="KEY_Q", hold_us=MAX_WAIT_US)))
    after = edits.retime(macro, {0, 1}, lambda us: us * 2)
    assert after.loop == (Wait(wait_us=20, most_us=60), Tap(control="KEY_Q", hold_us=MAX_WAIT_US))
    assert edits.retime(macro, {0}, lambda us: 5).loop[0] == Wait(wait_us=5)


def test_trimming_takes_the_waits_at_both_ends():
    wait = Wait(wait_us=5)
    macro = Macro(id="m", name="M", lead_in=(wait,), loop=(wait, wait, Q, wait, W, wait))
    assert edits.trim(macro) == Macro(id="m", name="M", lead_in=(wait,), loop=(Q, wait, W))
    assert edits.trim(Macro(id="m", name="M", loop=(wait, wait))).loop == ()


@given(st.lists(steps(["KEY_Q", "KEY_W"], st.integers(0, 9_000)), max_size=12))
def test_joining_to_taps_changes_no_event(loop: list):
    macro = Macro(id="m", name="M", loop=tuple(loop))
    assert plan(edits.to_taps(macro), Play()) == plan(macro, Play())


@given(st.lists(steps(["KEY_Q", "KEY_W"], st.integers(0, 9_000), chance=False), max_size=12))
def test_parting_taps_changes_no_event(loop: list):
    macro = Macro(id="m", name="M", loop=tuple(loop))
    parted = edits.to_pairs(macro, range(len(rows(macro))))
    assert plan(parted, Play()) == plan(macro, Play())
    assert not any(isinstance(row.step, Tap | Chord) for row in rows(parted))


def test_steps_get_another_control_where_they_can_have_it():
    loop = (Q, Tap(control="KEY_W", hold_us=5), Wait(wait_us=3), Wheel(control="WHEEL_UP"), W)
    macro = Macro(id="m", name="M", loop=loop)
    pressed = edits.rebind(macro, {0, 1, 2, 3}, "BTN_SIDE")
    assert pressed.loop == (
        Press(control="BTN_SIDE"),
        Tap(control="BTN_SIDE", hold_us=5),
        Wait(wait_us=3),
        Wheel(control="WHEEL_UP"),
        W,
    )
    assert edits.rebind(macro, range(5), "WHEEL_DOWN").loop == (*loop[:3], Wheel(control="WHEEL_DOWN"), W)


def test_press_wait_release_becomes_a_tap():
    macro = Macro(id="m", name="M", loop=(Q, Wait(wait_us=5), Release(control="KEY_Q"), W, Release(control="KEY_W")))
    assert edits.to_taps(macro).loop == (Tap(control="KEY_Q", hold_us=5), W, Release(control="KEY_W"))


@given(st.lists(steps(["KEY_Q", "KEY_W", "BTN_LEFT"], st.integers(0, 9_000), chance=False), max_size=12))
def test_the_timeline_agrees_with_what_the_engine_emits(loop: list):
    macro = Macro(id="m", name="M", loop=tuple(loop))
    line = lay_out(macro)
    edges = {(a, code, 1) for code, spans in line.spans.items() for a, *_ in spans if not code.startswith("WHEEL")}
    edges |= {(b, code, 0) for code, spans in line.spans.items() for _, b, *_ in spans if not code.startswith("WHEEL")}
    emitted = {tuple(row)[:3] for row in plan(macro, Play()) if not row.control.startswith("WHEEL")}
    assert edges == emitted
