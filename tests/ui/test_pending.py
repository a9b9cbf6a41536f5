"""What the window says while an answer is still being worked out, and that an answer is never taken for another's."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator
from typing import Any

import pytest
from msgspec.structs import replace
from PyQt6.QtWidgets import QApplication

from nakrel import worker_process
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Press, Tap, Text
from nakrel.ui import commands
from nakrel.ui.widgets.pending import Pending
from tests.ui.conftest import Ui, checks_shown

STILL = "Still being worked out."
# Pressed so fast that a game at 60 frames misses some, and a press that is never released.
FAST = Macro(
    id="storm-volley",
    name="Storm volley",
    play=Play(Mode.HELD, pause_us=1_000),
    loop=(Tap(control="BTN_LEFT", hold_us=1_000), Press(control="KEY_W")),
)


class Gate:
    """Holds back what the process beside the window answers, but not what it knows before."""

    def __init__(self) -> None:
        self.open = threading.Event()
        self.open.set()
        self._ask = worker_process.ask
        self.parts = 0

    def ask(
        self, job: worker_process.Job, answer: type[Any], wanted: Callable[[], bool], so_far: Callable[[Any], object]
    ) -> Any:
        def count(part: Any) -> None:
            so_far(part)
            self.parts += 1

        found = self._ask(job, answer, wanted, count)
        self.open.wait(20)
        return found


@pytest.fixture
def gate(monkeypatch: pytest.MonkeyPatch) -> Iterator[Gate]:
    made = Gate()
    monkeypatch.setattr(worker_process, "ask", made.ask)
    yield made
    made.open.set()


def show(ui: Ui, macro: Macro) -> None:
    commands.edit_macro(ui.store, "test", macro)
    ui.window.shown.show_macro(macro.id)
    ui.window.shown.show_page("macro")


def test_another_macros_answer_goes_as_soon_as_its_own_takes_long(ui: Ui, gate: Gate):
    details = ui.window.macro_details
    check = details.frame_check
    show(ui, FAST)
    ui.wait(lambda: "are lost" in check.answer.text() and "never released" in checks_shown(ui), "both answers")
    assert check.use_button.isEnabled()
    QApplication.processEvents()
    height = check.height()
    gate.open.clear()
    show(ui, Macro(id="calm", name="Calm", loop=(Tap(control="KEY_E", hold_us=90_000),)))
    # What was suggested for the other one can't be done to this one, not even before that takes long.
    assert not check.use_button.isEnabled()
    ui.wait(lambda: check.pending.isVisible() and details.checks_pending.isVisible(), "the word that it takes long")
    assert check.pending.text() == details.checks_pending.text() == STILL
    assert not check.answer.isVisible()
    # What stands below doesn't go up meanwhile, only to come down again.
    assert check.height() == height
    ui.wait(lambda: "never released" not in checks_shown(ui), "the other one's checks to go")
    gate.open.set()
    ui.wait(lambda: "sees all of the presses" in check.answer.text(), "its own answer")
    ui.wait(lambda: check.height() < height, "the room that this one takes")
    ui.wait(lambda: not details.checks_fold.isVisible(), "no checks")
    assert not check.pending.isVisible()


def test_after_an_edit_the_answer_before_it_is_said_to_be_that(ui: Ui, gate: Gate):
    details = ui.window.macro_details
    check = details.frame_check
    show(ui, FAST)
    ui.wait(lambda: "are lost" in check.answer.text() and "never released" in checks_shown(ui), "both answers")
    QApplication.processEvents()
    stood = check.use_button.geometry(), check.height()
    gate.open.clear()
    commands.edit_macro(ui.store, "test", Macro(id=FAST.id, name="Storm volley", play=FAST.play, loop=FAST.loop[:1]))
    ui.wait(lambda: check.pending.isVisible() and details.checks_pending.isVisible(), "the word that it takes long")
    assert "from before" in check.pending.text()
    assert not check.answer.isEnabled()
    # What can be clicked stands where it stood.
    assert (check.use_button.geometry(), check.height()) == stood
    assert "are lost" in check.answer.text()
    assert not check.use_button.isEnabled()
    assert "never released" in checks_shown(ui)
    gate.open.set()
    ui.wait(lambda: "never released" not in checks_shown(ui) and check.use_button.isEnabled(), "the new answers")
    assert not check.pending.isVisible()


def test_what_is_known_of_a_long_macro_is_shown_before_all_of_it_is_looked_at(ui: Ui, gate: Gate):
    details = ui.window.macro_details
    pending = details.checks_pending
    tap = Tap(control="KEY_Q", hold_us=1_000)
    gate.open.clear()
    long = Macro(id="long", name="Long", loop=(tap,) * 20_000)
    show(ui, long)
    ui.wait(lambda: "and 19,994 more" in checks_shown(ui), "what is known")
    assert "held for 1 ms only" in checks_shown(ui)
    assert details.checks_fold._title == "Checks (20,000 so far)"
    assert pending.isVisible()
    assert pending.text() == STILL
    gate.open.set()
    ui.wait(lambda: "and 39,993 more" in checks_shown(ui), "all of it")
    assert details.checks_fold._title == "Checks (39,999)"
    assert pending.isHidden()
    # After an edit what was found before it tells more than a part.
    gate.open.clear()
    commands.edit_macro(ui.store, "test", Macro(id="long", name="Long", loop=(tap,) * 15_000))
    parts = gate.parts
    ui.wait(lambda: pending.isVisible() and gate.parts > parts, "what is known")
    QApplication.processEvents()
    assert "and 39,993 more" in checks_shown(ui)
    gate.open.set()
    ui.wait(lambda: "and 29,993 more" in checks_shown(ui), "all of it")


def test_a_long_macro_that_was_only_opened_need_not_rest(ui: Ui):
    rest = ui.window.macro_details._rest
    long = Macro(id="long", name="Long", loop=(Tap(control="KEY_Q", hold_us=9_000),) * 20_000)
    show(ui, long)
    ui.wait(lambda: rest.isActive(), "the rest before the checks")
    opened = rest.interval()
    # What is changed beside it doesn't put them off.
    profile = next(iter(ui.store.profiles.values()))
    commands.edit_profile(ui.store, "test", replace(profile, note="changed"))
    assert rest.interval() == opened
    commands.edit_macro(ui.store, "test", Macro(id="long", name="Long", loop=long.loop[1:]))
    ui.wait(lambda: rest.isActive() and rest.interval() > opened, "a longer rest")


def test_checks_need_no_service(ui: Ui, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr(ui.store, "ask", lambda body, answered=None: None)
    loop = (Press(control="KEY_W"), Text(text="Ahoy"))
    show(ui, Macro(id="typed", name="Typed", loop=loop))
    ui.wait(lambda: "never released" in checks_shown(ui), "the checks")


def test_it_says_nothing_of_what_comes_at_once(qtbot, qapp):
    pending, late = Pending(), []
    qtbot.addWidget(pending)
    pending.late.connect(late.append)
    pending.expect("one")
    pending.answered()
    qtbot.wait(300)
    assert pending.isHidden()
    assert not late
    # While edits follow on each other fast the work on them doesn't begin.
    for _ in range(5):
        pending.expect("one", 10_000)
        qtbot.wait(60)
    assert pending.isHidden()
    pending.expect("one")
    qtbot.waitUntil(lambda: late == [False], timeout=10_000)
    pending.expect("other")
    assert pending.isHidden()
    qtbot.waitUntil(lambda: late == [False, True], timeout=10_000)
