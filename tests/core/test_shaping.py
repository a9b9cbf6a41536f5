"""Moving edges in time changes waits and holds, and nothing else."""

from __future__ import annotations

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from nakrel.core import notation
from nakrel.core.edit.shaping import Edge, edge_at, edges_of, moment_of, shift, snapped, widen
from nakrel.core.edit.timeline import Span, Timeline, lay_out
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.steps import Chord, Note, Press, Release, Repeat, Set, Step, Tap, Text, Wait, Wheel, walk
from tests.strategies import steps

MS = 1_000


def macro(text: str) -> Macro:
    return Macro(id="m", name="M", **{s.value: found for s, found in notation.read(text).items()})


def written(made: Macro) -> str:
    return " · ".join(line.strip() for line in notation.write(made).splitlines() if line.strip())


def edge(line: Timeline, control: str, number: int, *ends: bool) -> frozenset[Edge]:
    found = edges_of(control, line.spans[control][number])
    return frozenset(each for each in found if not ends or each.down in ends)


def test_a_hold_moved_later_changes_the_waits_beside_it():
    line = lay_out(macro("tap Q for 10 ms\nwait 20 ms\ntap W for 10 ms\nwait 30 ms\ntap E for 10 ms"))
    moved = shift(line, edge(line, "KEY_W", 0), 5 * MS)
    assert written(moved) == "tap Q for 10 ms · wait 25 ms · tap W for 10 ms · wait 25 ms · tap E for 10 ms"


def test_an_edge_moved_changes_its_hold_and_the_wait_after_it():
    line = lay_out(macro("tap Q for 10 ms\nwait 20 ms\ntap W for 10 ms"))
    moved = shift(line, edge(line, "KEY_Q", 0, False), 7 * MS)
    assert written(moved) == "tap Q for 17 ms · wait 13 ms · tap W for 10 ms"


def test_a_hold_moved_into_another_is_pressed_and_let_go_inside_it():
    line = lay_out(macro("tap Q for 50 ms  # long\nwait 20 ms\ntap W for 10 ms"))
    moved = shift(line, edge(line, "KEY_W", 0), -40 * MS)
    assert written(moved) == ("press Q  # long · wait 30 ms · tap W for 10 ms · wait 10 ms · release Q · wait 30 ms")
    assert moved.loop[0].remark == "long"


def test_moved_past_the_end_the_section_grows_and_not_before():
    line = lay_out(macro("tap Q for 10 ms\nwait 20 ms"))
    assert lay_out(shift(line, edge(line, "KEY_Q", 0), 20 * MS)).length_us == 30 * MS
    assert written(shift(line, edge(line, "KEY_Q", 0), 25 * MS)) == "wait 25 ms · tap Q for 10 ms"


def test_a_chord_with_an_edge_inside_comes_apart_in_order():
    line = lay_out(macro("tap Left Ctrl + Left Shift for 50 ms\nwait 10 ms\ntap Q for 10 ms"))
    moved = shift(line, edge(line, "KEY_Q", 0), -30 * MS)
    assert written(moved) == (
        "press Left Ctrl · press Left Shift · wait 30 ms · tap Q for 10 ms · wait 10 ms · "
        "release Left Shift · release Left Ctrl · wait 20 ms"
    )


@pytest.mark.parametrize(
    ("text", "control", "number", "by_ms", "reason"),
    [
        ("tap Q for 10 ms\nwait 5 ms\ntap Q for 10 ms", "KEY_Q", 1, -8, "two holds of Q would overlap"),
        ("wait 5 to 9 ms\ntap Q for 10 ms", "KEY_Q", 0, -3, "a random wait or a formula"),
        ("wait 5 ms\ntap Q for 10 ms", "KEY_Q", 0, -6, "no time before the beginning"),
        ("tap Q for 10 ms\nrepeat 2 times:\n    wait 9 ms", "KEY_Q", 0, 3, "a block is in the way"),
        ("repeat 2 times:\n    tap Q for 10 ms\n    wait 9 ms", "KEY_Q", 0, 12, "past the end of the block"),
        ("move to 1, 2 over 50 ms\nwait 5 ms\ntap Q for 10 ms", "KEY_Q", 0, -20, "the pointer's move"),
    ],
)
def test_what_is_in_the_way_is_said(text: str, control: str, number: int, by_ms: int, reason: str):
    line = lay_out(macro(text))
    with pytest.raises(DataError, match=reason):
        shift(line, edge(line, control, number), by_ms * MS)


def test_a_hold_without_any_time_is_refused():
    line = lay_out(macro("tap Q for 10 ms"))
    with pytest.raises(DataError, match="no time left"):
        shift(line, edge(line, "KEY_Q", 0, False), -10 * MS)


def test_a_hold_from_the_lead_in_to_the_lead_out_moves_in_both():
    line = lay_out(macro("start:\n    press Left Shift\n    wait 20 ms\nend:\n    wait 9 ms\n    release Left Shift"))
    moved = shift(line, edge(line, "KEY_LEFTSHIFT", 0), 4 * MS)
    assert written(moved) == (
        "start: · wait 4 ms · press Left Shift · wait 16 ms · end: · wait 13 ms · release Left Shift"
    )


def test_a_distance_is_set_by_the_time_before_the_later_edge():
    line = lay_out(macro("tap Q for 10 ms\nwait 20 ms\ntap W for 10 ms\nwait 3 ms\ntap E for 5 ms"))
    later = widen(line, Edge(2, True), 15 * MS)
    assert written(later) == "tap Q for 10 ms · wait 35 ms · tap W for 10 ms · wait 3 ms · tap E for 5 ms"
    longer = widen(line, Edge(2, False), 15 * MS)
    assert written(longer) == "tap Q for 10 ms · wait 20 ms · tap W for 25 ms · wait 3 ms · tap E for 5 ms"
    with pytest.raises(DataError, match="20 ms earlier at most"):
        widen(line, Edge(2, True), -21 * MS)


@pytest.mark.parametrize(("at", "grid", "line"), [(1_499, 1_000, 1_000), (20_000, 1e6 / 60, 16_667), (7, 0, 7)])
def test_snapping_takes_the_nearest_line(at: float, grid: float, line: int):
    assert snapped(at, grid) == line


def edges(line: Timeline) -> dict[tuple[str, int, bool], int]:
    """When each control's n-th down and up edge is."""
    found: dict[tuple[str, int, bool], int] = {}
    for control, spans in line.spans.items():
        for number, span in enumerate(sorted(spans)):
            found[control, number, True] = span.start_us
            if control[:5] != "WHEEL":
                found[control, number, False] = span.end_us
    return found


@given(st.lists(steps(["KEY_Q", "KEY_W", "BTN_LEFT"], st.integers(1, 40).map(lambda ms: ms * MS)), max_size=8))
@example([
    # A hold without any length in the second turn, which has no edges, and a press at the same moment.
    Repeat(times=2, steps=(Text(text="0", rate=1), Tap(control="KEY_W", hold_us="elapsed"))),
    Press(control="KEY_W"),
])  # fmt: skip
def test_an_edge_is_found_again_by_its_moment(loop: list[Step]):
    line = lay_out(Macro(id="m", name="M", loop=tuple(loop)))
    for control, spans in line.spans.items():
        # Formulas may make thousands of turns, of which only the first has edges.
        for span in spans[:40]:
            for each in edges_of(control, span):
                moment = moment_of(line, each)._replace(control=control)
                assert moment.at_us == (span.start_us if each.down else span.end_us)
                found = edge_at(line, moment)
                # Where several begin at the same time any of them will do.
                assert found is not None
                assert moment_of(line, found[0]).at_us == moment.at_us


holds = st.integers(1, 40).map(lambda ms: ms * MS)
three = ["KEY_Q", "KEY_W", "BTN_LEFT"]


@st.composite
def loops(draw: st.DrawFn) -> list[Step]:
    """Steps without chance, with a tap among them, so that there is always an edge to move."""
    found = draw(st.lists(steps(three, holds, chance=False), max_size=7))
    found.insert(draw(st.integers(0, len(found))), Tap(control=draw(st.sampled_from(three)), hold_us=draw(holds)))
    return found


def test_a_hold_that_ends_inside_a_block_is_moved_though_the_block_gets_another_place():
    line = lay_out(macro("tap W for 1 ms\npress Q\nrepeat 1 times:\n    wait 1 ms\n    release Q"))
    moved = lay_out(shift(line, edge(line, "KEY_Q", 0), -500))
    assert moved.spans["KEY_Q"][0][:2] == (500, 1_500)
    assert moved.spans["KEY_W"] == [Span(0, 1_000, 0, 4)]


@given(
    loops(),
    st.data(),
    st.integers(-60 * MS, 60 * MS),
)
def test_all_other_edges_stay_where_they_were(loop: list[Step], data: st.DataObject, by_us: int):
    made = Macro(id="m", name="M", loop=tuple(loop))
    line = lay_out(made)
    own = [
        (control, number, span, each)
        for control, spans in line.spans.items()
        for number, span in enumerate(spans)
        # In the later turns of a repeat an edge has no row of its own, and moves in all of them.
        for each in edges_of(control, span)
        if not line.row(each.row).inside
    ]
    control, number, span, _ = data.draw(st.sampled_from(own))
    chosen = edges_of(control, span)
    # A chord's other controls move with it.
    touched = {
        (code, n, down)
        for code, spans in line.spans.items()
        for n, s in enumerate(spans)
        for down in (True, False)
        if Edge(s.down if down else s.up, down) in chosen
    }
    before = edges(line)
    try:
        moved = shift(line, chosen, by_us)
    except DataError:
        return
    after = edges(lay_out(moved))
    for key, at in before.items():
        if key[0] == control and control[:5] == "WHEEL":
            # Notches may overtake each other, so the n-th one isn't the same afterwards.
            continue
        if key in touched:
            assert after[key] == at + by_us
        elif not _held_to_the_end(line, key):
            assert after[key] == at
    kept = (Note, Set, Wheel)
    rest = [sorted(repr(s) for s in walk(each.loop) if isinstance(s, kept)) for each in (made, moved)]
    assert rest[0] == rest[1]
    assert lay_out(moved).length_us >= line.length_us


def _held_to_the_end(line: Timeline, key: tuple[str, int, bool]) -> bool:
    """What the end of the macro lets go moves with that end."""
    control, number, down = key
    return not down and sorted(line.spans[control])[number].up == -1


def test_a_chord_that_was_dragged_over_another_edge_comes_back_whole():
    """Both of its keys: taken apart on the way there, they still move as one."""
    loop = tuple(notation.read_steps("skip press Q\nrelease Q\ntap Left button + Q for 1 ms\ntap W for 1 ms"))
    line = lay_out(Macro(id="m", name="M", loop=loop))
    whole = line.spans["BTN_LEFT"][0]
    moved = lay_out(shift(line, edges_of("BTN_LEFT", whole), 1))
    assert moved.spans["BTN_LEFT"][0][:2] == moved.spans["KEY_Q"][-1][:2] == (1, 1_001)
    back = lay_out(shift(moved, edges_of("BTN_LEFT", moved.spans["BTN_LEFT"][0]), -1))
    assert edges(back) == edges(line)


@given(loops(), st.integers(0, 100), st.integers(-9 * MS, 9 * MS))
@example(
    loop=[
        Press(control="KEY_Q", off=True),
        Release(control="KEY_Q"),
        Chord(controls=("BTN_LEFT", "KEY_Q"), hold_us=1_000),
        Tap(control="KEY_W", hold_us=1_000),
    ],
    pick=0,
    by_us=1,
)
def test_there_and_back_gives_the_same_times(loop: list[Step], pick: int, by_us: int):
    line = lay_out(Macro(id="m", name="M", loop=tuple(loop)))
    spans = [
        (control, span)
        for control, found in line.spans.items()
        for span in found
        if control[:5] != "WHEEL" and edges_of(control, span)
    ]
    control, span = spans[pick % len(spans)]
    try:
        moved = lay_out(shift(line, edges_of(control, span), by_us))
        again = next(s for s in moved.spans[control] if s.start_us in (span.start_us + by_us, span.start_us))
        back = lay_out(shift(moved, edges_of(control, again), -by_us))
    except DataError:
        return
    if moved.length_us == line.length_us and len(edges_of(control, span)) == len(edges_of(control, again)) == 2:
        assert edges(back) == edges(line)


@given(st.lists(steps(three, holds), max_size=10), st.lists(steps(three, holds), max_size=4), st.data())
def test_a_timeline_after_an_edit_is_the_one_made_anew(old: list[Step], new: list[Step], data: st.DataObject):
    first, last = sorted((data.draw(st.integers(0, len(old))), data.draw(st.integers(0, len(old)))))
    before = lay_out(Macro(id="m", name="M", lead_in=tuple(old[:2]), loop=tuple(old)))
    before.spans  # noqa: B018 - fills what is remembered
    edited = Macro(id="m", name="M", lead_in=tuple(old[:2]), loop=(*old[:first], *new, *old[last:]))
    fresh, carried = lay_out(edited), lay_out(edited, before)
    for name in ("starts_us", "spans", "unsure", "controls", "zones", "length_us", "size"):
        assert getattr(fresh, name) == getattr(carried, name), name
    assert list(fresh.rows()) == list(carried.rows())
    assert numbers(fresh) == numbers(carried)
    first_other, before_end, end = carried.replaced(before)
    assert list(before.rows())[:first_other] == list(fresh.rows())[:first_other]
    assert [row.step for row in list(before.rows())[before_end:]] == [row.step for row in list(fresh.rows())[end:]]


def numbers(line: Timeline) -> list[int]:
    return [line.number(row) for row in range(line.size)]


@given(st.integers(0, 1_400), st.integers(0, 3), st.lists(steps(three, holds), max_size=2))
@settings(max_examples=40, deadline=None)
def test_the_same_far_inside_a_long_one(at: int, gone: int, new: list[Step]):
    old = [Tap(control=three[n // 400 % 3], hold_us=n) if n % 2 else Wait(wait_us=n) for n in range(1_400)]
    before = lay_out(Macro(id="m", name="M", loop=tuple(old)))
    numbers(before)
    edited = Macro(id="m", name="M", loop=(*old[:at], *new, *old[at + gone :]))
    fresh, carried = lay_out(edited), lay_out(edited, before)
    assert numbers(fresh) == numbers(carried)
    assert fresh.starts_us == carried.starts_us
    assert fresh.controls == carried.controls


def test_a_stretch_of_a_long_macro_shows_the_same_spans_as_the_whole():
    loop: list[Step] = [Press(control="KEY_LEFTSHIFT")]
    for n in range(700):
        loop += [Tap(control=three[n % 3], hold_us=5 * MS), Wait(wait_us=3 * MS)]
    loop += [Release(control="KEY_LEFTSHIFT"), Chord(controls=("KEY_Q", "KEY_W"), hold_us=4 * MS)]
    line = lay_out(Macro(id="m", name="M", loop=tuple(loop)))
    since, until = 3_000 * MS, 3_100 * MS
    for control, spans in line.spans_between(since, until).items():
        whole = [s for s in line.spans[control] if s.end_us >= since and s.start_us <= until]
        part = [s for s in spans if s.end_us >= since and s.start_us <= until]
        assert [(s.start_us, min(s.end_us, until)) for s in part] == [(s.start_us, min(s.end_us, until)) for s in whole]
    assert line.hold_at("KEY_LEFTSHIFT", since) == line.spans["KEY_LEFTSHIFT"][0]
    assert line.hold_at("KEY_Q", since + 6 * MS) is None
    assert line.row(line.row_at(since)).section is Section.LOOP
