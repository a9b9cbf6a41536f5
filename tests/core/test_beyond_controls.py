"""Pointer, text, open, if and set steps, and numbers that are formulas, as the engine plays them."""

from __future__ import annotations

import random

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from nakrel.core.edit.timeline import lay_out
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Origin
from nakrel.core.notation import read
from nakrel.core.play.acts import AskPlace, AskPointer, AskText, MovePointer, OpenProgram, Stroke, Whereabouts
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import (
    Emit,
    PlaceReady,
    PlayMacro,
    PointerReady,
    Pressed,
    RunEnded,
    SetSheet,
    SideEffect,
    StopAll,
    StopMacro,
    TextReady,
    Wake,
)
from nakrel.core.play.operations import compile_macro
from nakrel.core.play.sheet import Sheet
from nakrel.core.play.simulate import Simulator, plan

MS = 1_000


def macro(text: str, play: Play | None = None) -> Macro:
    found = read(text)
    return Macro(id="m", name="M", play=play or Play(), **{section.value: steps for section, steps in found.items()})


def started(text: str, play: Play | None = None, *, silent: bool = False) -> Simulator:
    """A simulator in which the macro has just been started; texts are not answered by themselves."""
    simulator = _Silent(Engine(random.Random(1)))
    simulator.silent = silent
    made = macro(text, play)
    simulator.send(PlayMacro(compile_macro(made), made.play))
    return simulator


class _Silent(Simulator):
    """A desktop that answers what is asked of places, and nothing of texts."""

    pointer, silent = (0, 0), False

    def answer(self, asked: SideEffect) -> object:
        if self.silent or isinstance(asked.what, AskText):
            return None
        if isinstance(asked.what, AskPointer):
            return PointerReady(asked.by, asked.what.ticket, self.pointer)
        return super()._answer(asked)

    def send(self, event):
        outputs, self._deadline_us = self.engine.step(event, self.now_us)
        self.log += [(self.now_us, output) for output in outputs]
        for output in outputs:
            if isinstance(output, SideEffect) and (answer := self.answer(output)):
                self.send(answer)

    def done(self) -> list[tuple[int, object]]:
        return [(out.due_us, out.what) for _, out in self.log if isinstance(out, SideEffect)]

    def ended(self) -> RunEnded:
        return next(out for _, out in self.log if isinstance(out, RunEnded))


def rows(text: str, runs: int = 1, play: Play | None = None) -> list[tuple[int, str, int]]:
    found = macro(text, play)
    return [tuple(row)[:3] for row in plan(found, found.play, runs)]


def test_formulas_see_the_run_the_time_and_what_was_set():
    text = "set count to count + run\ntap Q for (10 * run) ms\nwait (count) ms"
    # count is 1, 3, 6 after the runs.
    assert [row[0] for row in rows(text, 3)] == [0, 10 * MS, 11 * MS, 31 * MS, 34 * MS, 64 * MS]
    assert [row[0] for row in rows("wait 5 ms\ntap Q for (elapsed) ms")] == [5 * MS, 10 * MS]


def test_if_goes_the_way_of_its_condition_and_blocks_repeat_by_formula():
    text = "if run % 2 == 1:\n    tap Q for 1 ms\nelse:\n    tap W for 1 ms\n"
    text += "repeat (run - 1) times:\n    tap E for 1 ms"
    told = [code for _, code, value in rows(text, 3) if value]
    assert told == ["KEY_Q", "KEY_W", "KEY_E", "KEY_Q", "KEY_E", "KEY_E"]
    assert rows("if 0:\n    tap Q for 1 ms") == []


def test_a_condition_sees_what_is_held_and_where_the_pointer_is():
    text = 'if held("Left Shift") and x > 600:\n    tap Q for 1 ms\nelse:\n    tap W for 1 ms'
    for shift, place, told in ((True, 640, "KEY_Q"), (False, 640, "KEY_W"), (True, 10, "KEY_W")):
        simulator = _Silent(Engine(random.Random(1)))
        simulator.pointer = place, 0
        if shift:
            simulator.send(Pressed("KEY_LEFTSHIFT"))
        simulator.send(PlayMacro(compile_macro(macro(text)), Play()))
        simulator.run(10 * MS)
        assert told in [row.control for row in simulator.emitted()]


def test_a_pointer_step_moves_at_once_or_in_parts_that_add_up():
    simulator = started(
        "move to 640, 400 in a window of 1280 x 720\nmove by 10, -5 over 80 ms\nwait 1 ms\nmove to 1, 2 over 20 ms"
    )
    simulator.run(200 * MS)
    found = [(at, what) for at, what in simulator.done() if isinstance(what, MovePointer)]
    assert simulator.done()[0] == (0, AskPlace(640, 400, Origin.WINDOW, (1280, 720), 1))
    assert found[0] == (0, MovePointer(640, 400, (1280, 720)))
    by = [(at, what) for at, what in found if what.screen is None]
    assert [at for at, _ in by] == [n * 8 * MS for n in range(1, 11)]
    assert (sum(what.x for _, what in by), sum(what.y for _, what in by)) == (10, -5)
    # Two parts of 10 ms each; the last one arrives exactly when the step is over.
    assert found[-2:] == [(91 * MS, MovePointer(326, 199, (1920, 1080))), (101 * MS, MovePointer(1, 2, (1920, 1080)))]


def test_a_place_that_is_told_late_moves_nothing_of_the_plan():
    simulator = started("move to 5, 6\nwait 10 ms\ntap Q for 1 ms", silent=True)
    ((_, asked),) = simulator.done()
    simulator.run(3 * MS)
    simulator.send(PlaceReady("m", asked.ticket, Whereabouts(None, (5, 6), (800, 600))))
    simulator.run(20 * MS)
    assert [(row.time_us, row.control) for row in simulator.emitted()] == [
        (0, "POINTER"),
        (10 * MS, "KEY_Q"),
        (11 * MS, "KEY_Q"),
    ]


def test_an_answer_goes_to_what_asked_for_it_and_to_nothing_else():
    """Stopped at a keyring's prompt and started again: the first prompt's late answer types nothing now."""
    simulator = started('type the secret "harbour mail" at 100/s\ntap Q for 1 ms', silent=True)
    first = simulator.done()[0][1].ticket
    simulator.send(StopMacro("m"))
    simulator.send(PlayMacro(compile_macro(macro('type the secret "harbour mail" at 100/s\ntap Q for 1 ms')), Play()))
    second = simulator.done()[1][1].ticket
    simulator.send(TextReady("m", first, (Stroke("KEY_A"),)))
    simulator.send(TextReady("m", first, (), "the keyring was locked"))
    simulator.run(50 * MS)
    assert simulator.engine.running == {"m": 0}
    assert simulator.engine.down() == set()
    simulator.send(TextReady("m", second, (Stroke("KEY_B"),)))
    simulator.run(50 * MS)
    assert [row.control for row in simulator.emitted() if row.value and not row.text] == ["KEY_B", "KEY_Q"]


@given(st.lists(st.integers(0, 19 * MS), max_size=12))
def test_what_a_macro_finds_held_does_not_depend_on_how_late_the_machine_is(late: list[int]):
    """Two macros, one of which asks for what the other holds; wake-ups come when they come."""
    holds = macro("tap A for 3 ms\nwait 4 ms", Play(Mode.COUNTED, 10))
    asks = macro('if held("A"):\n    tap Q for 1 ms\nelse:\n    tap W for 1 ms\nwait 1 ms', Play(Mode.COUNTED, 30))
    asks = msgspec.structs.replace(asks, id="n")

    def played(late: list[int]) -> list[object]:
        engine, now, found, rest = Engine(random.Random(1)), 0, [], iter(late)
        due: int | None = 0
        for each in (holds, asks):
            outputs, due = engine.step(PlayMacro(compile_macro(each), each.play), 0)
            found += outputs
        while due is not None:
            now = max(now, due + next(rest, 0))
            outputs, due = engine.step(Wake(), now)
            found += outputs
        return [(out.due_us, out.control, out.value) for out in found if isinstance(out, Emit)]

    assert played(late) == played([])


def test_what_happens_at_an_instant_counts_for_what_is_asked_at_it():
    text = 'press A\nif held("A"):\n    tap Q for 1 ms\nelse:\n    tap W for 1 ms'
    assert [row[1] for row in rows(text) if row[2]] == ["KEY_A", "KEY_Q"]
    text = 'tap A for 1 ms\nif held("A"):\n    tap Q for 1 ms\nelse:\n    tap W for 1 ms'
    assert [row[1] for row in rows(text) if row[2]] == ["KEY_A", "KEY_W"]


def test_a_text_waits_for_its_keys_and_types_them_at_its_rate():
    simulator = started('tap Q for 1 ms\ntype "Ab" at 100/s\ntap W for 1 ms')
    simulator.run(5 * MS)
    assert simulator.done() == [(1 * MS, AskText("Ab", "", 1))]
    simulator.send(TextReady("m", 1, (Stroke("KEY_A", ("KEY_LEFTSHIFT",)), Stroke("KEY_B"))))
    simulator.run(100 * MS)
    assert [(r.time_us // MS, r.control, r.value) for r in simulator.emitted() if not r.text][2:] == [
        (5, "KEY_LEFTSHIFT", 1), (5, "KEY_A", 1), (10, "KEY_A", 0), (10, "KEY_LEFTSHIFT", 0),
        (15, "KEY_B", 1), (20, "KEY_B", 0),
        (25, "KEY_W", 1), (26, "KEY_W", 0),
    ]  # fmt: skip
    assert simulator.ended().reason == "finished"


def test_a_text_that_can_t_be_typed_ends_the_macro_with_the_reason_and_its_lead_out():
    simulator = started('start:\n    press Q\nloop:\n    type "Ab" at 9/s\n    tap W for 1 ms\nend:\n    release Q')
    simulator.send(TextReady("m", 1, (), "the layout has no keys for A"))
    simulator.run(10 * MS)
    assert [(r.control, r.value) for r in simulator.emitted() if not r.text] == [("KEY_Q", 1), ("KEY_Q", 0)]
    assert simulator.ended().failed == "the layout has no keys for A"


def test_a_text_at_the_end_that_can_t_be_typed_keeps_nothing_after_it():
    text = 'start:\n    press Q\nloop:\n    wait 1 ms\nend:\n    type "Ab" at 9/s\n    release Q'
    simulator = started(text, Play(Mode.SINGLE))
    simulator.run(10 * MS)
    assert simulator.engine.held() == {"KEY_Q"}
    simulator.send(TextReady("m", 1, (), "the layout has no keys for A"))
    assert simulator.engine.held() == set()
    assert simulator.ended().failed == "the layout has no keys for A"


def test_a_text_is_stopped_in_its_middle_with_nothing_left_down():
    for stop in (StopMacro("m"), StopAll()):
        simulator = started('type "A" at 10/s\ntap W for 1 ms')
        simulator.send(TextReady("m", 1, (Stroke("KEY_A", ("KEY_LEFTSHIFT",)),)))
        assert simulator.engine.held() == {"KEY_A", "KEY_LEFTSHIFT"}
        simulator.send(stop)
        assert simulator.engine.held() == set()
        assert not simulator.engine.running


def test_a_text_that_nobody_answers_is_ended_by_its_button_and_by_its_limit():
    simulator = started('type "A" at 10/s', Play(Mode.TOGGLE, limit_us=50 * MS))
    simulator.run(60 * MS)
    assert not simulator.engine.running
    # An answer that comes too late does nothing.
    simulator.send(TextReady("m", 1, (Stroke("KEY_A"),)))
    assert simulator.engine.held() == set()


def test_an_open_step_asks_for_its_program():
    simulator = started("open tide --slow\ntap Q for 1 ms")
    simulator.run(5 * MS)
    assert simulator.done() == [(0, OpenProgram(("tide", "--slow")))]
    assert [row.control for row in simulator.emitted()] == ["OPEN", "KEY_Q", "KEY_Q"]


@pytest.mark.parametrize(
    "text", ["wait (1 / (run - 1)) ms", "if 1 / 0:\n    wait 1 ms", "set a to 1 / 0", "move to (1 / 0), 2"]
)
def test_a_formula_without_a_result_ends_the_macro_with_its_lead_out(text: str):
    body = "".join(f"    {line}\n" for line in text.splitlines())
    simulator = started(f"start:\n    press Q\nloop:\n{body}    tap W for 1 ms\nend:\n    release Q", Play(Mode.TOGGLE))
    simulator.run(10 * MS)
    assert [(r.control, r.value) for r in simulator.emitted()] == [("KEY_Q", 1), ("KEY_Q", 0)]
    assert "divides by zero" in simulator.ended().failed


def test_a_failure_in_the_lead_out_still_ends_it():
    simulator = started("loop:\n    tap Q for 1 ms\nend:\n    set a to 1 / 0\n    tap W for 1 ms")
    simulator.run(10 * MS)
    assert "divides by zero" in simulator.ended().failed
    assert not simulator.engine.running


def test_a_repeat_that_never_ends_is_told_by_the_plan_and_stops_at_once_in_the_engine(monkeypatch: pytest.MonkeyPatch):
    # The limit is the same however large it is, and two million moments take half a minute.
    monkeypatch.setattr("nakrel.core.play.simulate.MOST_WAKES", 20_000)
    endless = "repeat 1000000 times:\n    repeat 1000000 times:\n        set a to a + 1"
    with pytest.raises(DataError, match="moments at which something is due"):
        plan(macro(endless), Play())
    simulator = started(endless)
    simulator.run(20 * MS)
    simulator.send(StopAll())
    assert not simulator.engine.running


def test_the_plan_names_what_is_no_control():
    found = macro('move to 3, 4\ntype "ab" at 10/s\ntype the secret "key" at 9/s\nopen tide')
    told = [(row.time_us, row.control, row.text) for row in plan(found, found.play)]
    assert told == [
        (0, "POINTER", "move to 3, 4"),
        (0, "TEXT", "type 'ab'"),
        (200 * MS, "TEXT", "type the secret key"),
        (200 * MS, "OPEN", "open tide"),
    ]


def test_the_timeline_draws_formulas_as_a_first_run_and_marks_them_unsure():
    line = lay_out(
        macro("set n to 4\nwait (n * 10) ms\ntap Q for 5 ms\nif run == 1:\n    tap W for 7 ms\nmove to 1, 2 over 30 ms")
    )
    assert [(s.start_us, s.end_us) for s in line.spans["KEY_Q"]] == [(40 * MS, 45 * MS)]
    assert [(s.start_us, s.end_us) for s in line.spans["KEY_W"]] == [(45 * MS, 52 * MS)]
    assert [(s.start_us, s.end_us) for s in line.spans["POINTER"]] == [(52 * MS, 82 * MS)]
    assert line.unsure == [(0, 40 * MS), (45 * MS, 52 * MS)]


def test_a_sheet_with_a_text_is_played_from_a_button():
    made = macro('type "a" at 9/s', Play(Mode.SINGLE))
    simulator = _Silent(Engine())
    from nakrel.core.model.cells import RunMacro

    sheet = Sheet.build("p", {"BTN_SIDE": RunMacro("m")}, lambda key: (compile_macro(made), made.play))
    simulator.send(SetSheet(sheet))
    simulator.send(Pressed("BTN_SIDE"))
    assert [what for _, what in simulator.done()] == [AskText("a", "", 1)]
    assert not [out for _, out in simulator.log if isinstance(out, Emit)]
