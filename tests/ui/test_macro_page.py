"""The macro's page: blocks in the list, the notation, and steps on the clipboard."""

from __future__ import annotations

import re

import pytest
from msgspec.structs import replace
from PyQt6.QtCore import QEvent, QObject, QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel, QPushButton, QWidget

from nakrel import protocol as m
from nakrel.core import notation
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.recording import RecordingSettings, Waits, Where
from nakrel.core.model.steps import Branch, Chord, If, PickOne, Press, Release, Repeat, Tap, Wait
from nakrel.ui.macro.steps_model import TIME, WHAT
from nakrel.ui.macro.timing import time_change
from tests.ui.conftest import Ui

MACRO = Macro(
    id="storm-volley",
    name="Storm volley",
    loop=(
        Repeat(times=3, steps=(Tap(control="KEY_Q", hold_us=20_000), Wait(wait_us=30_000))),
        PickOne(branches=(Branch(weight=3, steps=(Tap(control="KEY_1", hold_us=1_000),)), Branch())),
        Wait(wait_us=60_000, most_us=180_000),
    ),
)


def page(ui: Ui, macro: Macro = MACRO):
    ui.store.put_macro(macro)
    ui.window.shown.show_macro(macro.id)
    return ui.window.macro


def loop(ui: Ui) -> tuple:
    return ui.store.macros["storm-volley"].loop


def cell(made, row: int, column: int) -> str:
    return made.model.index(row, column).data()


def test_blocks_are_listed_with_what_is_inside_them(ui: Ui):
    made = page(ui)
    told = [(cell(made, row, WHAT), cell(made, row, TIME)) for row in range(made.model.rowCount())]
    assert told == [
        ("repeat", "3 times"),
        ("tap Q", "20 ms"),
        ("wait", "30 ms"),
        ("random choice", ""),
        ("option 1", "weight 3"),
        ("tap 1", "1 ms"),
        ("option 2", "weight 1"),
        ("random wait", "60 to 180 ms"),
    ]


def test_figures_of_blocks_and_random_waits_are_typed_in_place(ui: Ui):
    made = page(ui)
    for row, text in ((0, "5"), (4, "weight 7"), (7, "12s to 42s"), (1, "3f@60")):
        assert made.model.setData(made.model.index(row, TIME), text)
    repeat, pick, wait = loop(ui)
    assert (repeat.times, repeat.steps[0].hold_us) == (5, 50_000)
    assert [settings.weight for settings in pick.branches] == [7, 1]
    assert (wait.wait_us, wait.most_us) == (12_000_000, 42_000_000)
    for row, text in ((0, "none"), (4, "0"), (1, "1 to 2"), (7, "5 to 2")):
        assert not made.model.setData(made.model.index(row, TIME), text)
        assert made.model.refused
    for _ in range(4):
        ui.undo()
    assert loop(ui) == MACRO.loop


def test_a_step_goes_in_where_the_selection_is_inside_a_block_too(ui: Ui):
    made = page(ui)
    made.select([1])
    made.step_actions.insert(Tap(control="KEY_W", hold_us=5_000))
    assert [type(step) for step in loop(ui)[0].steps] == [Tap, Tap, Wait]
    assert made.selected() == [2]
    made.select([7])
    made.step_actions.insert(Tap(control="KEY_E", hold_us=5_000))
    assert loop(ui)[1].branches[1].steps == (Tap(control="KEY_E", hold_us=5_000),)


def test_taps_become_a_chord_and_steps_a_block(ui: Ui):
    taps = tuple(Tap(control=f"KEY_{key}", hold_us=9_000) for key in "QWE")
    made = page(ui, Macro(id="storm-volley", name="Storm volley", loop=taps))
    made.select([0, 1, 2])
    made.step_actions.menu_for([0, 1, 2]).actions()
    actions = {action.text(): action for action in made.step_actions.menu_for([0, 1, 2]).actions()}
    actions["Join into a combination"].trigger()
    assert loop(ui) == (Chord(controls=("KEY_Q", "KEY_W", "KEY_E"), hold_us=9_000),)
    ui.undo()
    made.select([0, 1, 2])
    actions["Random choice of them"].trigger()
    assert [settings.steps for settings in loop(ui)[0].branches] == [(tap,) for tap in taps]


def test_the_notation_is_typed_and_taken_and_its_faults_are_shown(ui: Ui):
    made = page(ui)
    made.view.buttons["notation"].click()
    editor, said = made.notation.editor, made.notation.message
    assert editor.toPlainText() == notation.write(MACRO)
    editor.setPlainText("tap Q for 5 ms\nhop")
    made.notation.apply()
    assert said.text().startswith("Line 2, column 1: 'hop' starts no step")
    assert len(editor.extraSelections()) == 1
    assert loop(ui) == MACRO.loop
    editor.setPlainText("tap Q for 5 ms\nwait 20 to 30 ms")
    ui.wait(lambda: len(loop(ui)) == 2, "the typed steps, after a pause")
    assert loop(ui) == (Tap(control="KEY_Q", hold_us=5_000), Wait(wait_us=20_000, most_us=30_000))
    assert editor.extraSelections() == []
    # What was typed stays as it was typed; undo brings back the macro, and with it the text.
    ui.undo()
    assert loop(ui) == MACRO.loop
    ui.wait(lambda: editor.toPlainText() == notation.write(MACRO), "the text of before")


def test_names_are_completed_and_blocks_indented_while_typing(ui: Ui):
    made = page(ui, Macro(id="storm-volley", name="Storm volley"))
    made.show_view("notation")
    editor = made.notation.editor
    QTest.keyClicks(editor, "repeat 2 times:")
    QTest.keyClick(editor, Qt.Key.Key_Return)
    QTest.keyClicks(editor, "press left sh")
    QTest.keyClick(editor, Qt.Key.Key_Space, Qt.KeyboardModifier.ControlModifier)
    assert editor.toPlainText() == "repeat 2 times:\n    press Left Shift"


def test_the_line_that_is_typed_is_in_sight_and_stays_where_it_is(ui: Ui):
    made = page(ui)
    made.show_view("notation")
    editor = made.notation.editor
    ground = editor.viewport()
    assert ground
    ui.window.activateWindow()
    editor.setFocus()
    QTest.keyClick(editor, Qt.Key.Key_End, Qt.KeyboardModifier.ControlModifier)
    QTest.keyClick(editor, Qt.Key.Key_Return)
    heights = set()
    for height in range(740, 757):
        ui.window.resize(1280, height)
        QTest.keyClicks(editor, "tap Q for 5 ms")
        QTest.keyClick(editor, Qt.Key.Key_Return)
        QApplication.processEvents()
        assert editor.cursorRect().bottom() <= ground.height()
        heights.add(ground.height() % editor.fontMetrics().lineSpacing())
    assert len(heights) > 10
    before = editor.geometry()
    QTest.keyClicks(editor, "tapp Q")
    made.notation.apply()
    assert "did you mean tap?" in made.notation.message.text()
    QApplication.processEvents()
    assert editor.geometry() == before
    assert editor.cursorRect().bottom() <= ground.height()


def test_steps_are_copied_as_text_and_pasted_into_another_macro(ui: Ui):
    made = page(ui)
    made.select([0])
    made.step_actions.copy_selected()
    clipboard = QApplication.clipboard()
    assert clipboard
    assert clipboard.text() == "repeat 3 times:\n    tap Q for 20 ms\n    wait 30 ms\n"
    other = page(ui, Macro(id="other", name="Other", loop=(Wait(wait_us=1),)))
    other.select([0])
    other.step_actions.paste()
    assert ui.store.macros["other"].loop == (Wait(wait_us=1), MACRO.loop[0])
    clipboard.setText("some words")
    other.step_actions.paste()
    assert len(ui.store.macros["other"].loop) == 2


def test_the_frame_check_tells_what_a_game_misses_and_mends_it_with_one_click(ui: Ui):
    """A click as it was recorded, made a 20-a-second rapid fire: a game at 30 frames would miss some of it."""
    fire = Macro(
        id="storm-volley",
        name="Storm volley",
        play=Play(Mode.HELD, pause_us=30_000),
        loop=(Tap(control="BTN_LEFT", hold_us=20_000),),
    )
    page(ui, fire)
    check = ui.window.macro_details.frame_check
    ui.wait(lambda: "sees all of the presses, 20.0 a second" in check.answer.text(), "the answer for 60 frames")
    assert not check.use_button.isVisible()
    check.rate.setCurrentIndex(check.rate.findText("30 frames/s"))
    ui.wait(lambda: "A game at 30 frames sees" in check.answer.text(), "the answer for 30 frames")
    assert "are lost" in check.answer.text()
    check.use_button.click()
    safe = ui.store.macros["storm-volley"]
    # A frame of 33.334 ms, and room for the timing's error: six times that of two edges of 0.2 ms.
    assert safe.loop[0].hold_us == safe.play.pause_us == 35_031
    ui.wait(lambda: "sees all of the presses" in check.answer.text(), "the new answer")
    ui.undo()
    assert ui.store.macros["storm-volley"] == fire


def test_the_frame_check_takes_any_rate_and_frame_times_that_vary(ui: Ui):
    tap = Tap(control="BTN_LEFT", hold_us=17_500)
    page(ui, Macro(id="storm-volley", name="Storm volley", play=Play(Mode.HELD, pause_us=17_500), loop=(tap,)))
    check = ui.window.macro_details.frame_check
    ui.wait(lambda: "sees all but 1 in" in check.answer.text(), "the answer for 60 frames")
    check.spread.changed.emit(2_000)
    ui.wait(lambda: "60 frames sees 94.5 %" in check.answer.text(), "the answer for frames that vary")
    line = check.rate.lineEdit()
    line.setText("90")
    line.editingFinished.emit()
    ui.wait(lambda: "A game at 90 frames sees" in check.answer.text(), "the answer for a rate that was typed")
    assert check.rate.currentText() == "90 frames/s"
    assert ui.window.shown.frames == 90
    faults = []
    ui.store.fault.connect(faults.append)
    line.setText("many")
    line.editingFinished.emit()
    assert faults == ["A frame rate is a number from 10 to 1000."]
    assert check.rate.currentText() == "90 frames/s"


def test_the_frame_check_leads_to_the_worst_press_and_marks_it(ui: Ui):
    """Only in the thirtieth run: nobody finds that by looking at the first."""
    rare = If(condition="run == 30", steps=(Tap(control="KEY_W", hold_us=2_000),))
    loop = (Tap(control="KEY_Q", hold_us=40_000), Wait(wait_us=40_000), rare)
    page(ui, Macro(id="storm-volley", name="Storm volley", play=Play(Mode.COUNTED, runs=30), loop=loop))
    check = ui.window.macro_details.frame_check
    ui.wait(lambda: check.worst.count() == 1, "the worst press")
    line = check.worst.itemAt(0).layout()
    assert line.itemAt(0).widget().text() == "Worst of W: step 3, 12 % seen"
    assert ui.window.macro.diagram._signs().worst == {3: pytest.approx(0.12, abs=0.002)}
    line.itemAt(1).widget().click()
    assert ui.window.macro.selected() == [3]
    page(ui, Macro(id="calm", name="Calm", loop=(Tap(control="KEY_Q", hold_us=90_000),)))
    assert check.worst.count() == 0
    assert ui.window.macro.diagram._signs().worst == {}


def test_the_frame_check_takes_a_low_rate_and_a_servers_ticks(ui: Ui):
    tap = Tap(control="KEY_Q", hold_us=20_000)
    page(ui, Macro(id="storm-volley", name="Storm volley", play=Play(Mode.HELD, pause_us=37_000), loop=(tap,)))
    check = ui.window.macro_details.frame_check
    ui.wait(lambda: "60 frames sees all" in check.answer.text(), "the answer for even frames")
    check.low.changed.emit(45.0)
    # By hand: (1000 / 45 - 1000 / 60) / 2.326.
    ui.wait(lambda: check.spread.shown.text() == "2.388 ms", "the spread of that rate")
    assert check.low.shown.text() == "45"
    check.tick.chosen.emit(30.0)
    # What frames see of it is 20 ms on average, a tick comes every 33.3, and some gaps are too short for one.
    ui.wait(lambda: "at 60 frames and 30 ticks sees" in check.answer.text(), "the answer for a server with ticks")
    share = re.search(r"sees ([\d.]+) %", check.answer.text())
    assert share is not None
    assert float(share[1]) == pytest.approx(57, abs=3)
    assert check.tick.text() == "ticks 30 times a second"


def test_the_frame_check_has_words_for_a_macro_without_presses(ui: Ui):
    page(ui, Macro(id="storm-volley", name="Storm volley", loop=(Wait(wait_us=1),)))
    check = ui.window.macro_details.frame_check
    ui.wait(lambda: check.answer.text() == "There is no press in it that a game could see.", "the words")


def test_checks_are_listed_with_the_way_to_the_step(ui: Ui):
    made = page(ui, Macro(id="storm-volley", name="Storm volley", loop=(Wait(wait_us=5_000), Press(control="KEY_Q"))))
    details = ui.window.macro_details

    def told() -> list[str]:
        return [each.text() for each in details.findChildren(QLabel) if not each.isHidden()]

    wanted = "Q is never released here; that happens only when the macro ends."
    ui.wait(lambda: wanted in told(), "the check's words")
    made.show_view("notation")
    next(each for each in details.findChildren(QPushButton) if each.text() == "Show").click()
    assert made.selected() == [1]
    assert made.steps.isVisible()
    page(ui, Macro(id="storm-volley", name="Storm volley", loop=(Tap(control="KEY_Q", hold_us=20_000),)))
    ui.wait(lambda: not any(each.text() == "Show" for each in details.findChildren(QPushButton)), "no check any more")


def record(ui: Ui, *controls: str) -> None:
    """Press these on the simulated keyboard and mouse while recording, and stop by the button."""
    bar = ui.window.macro.recording
    bar.button.click()
    ui.wait(lambda: ui.store.status.recording, "the recording")
    keyboard, mouse = (next(d for d in ui.store.devices if d.name.startswith(name)) for name in ("Bollard", "Halyard"))
    for control in controls:
        device = keyboard if control in keyboard.controls else mouse
        for value in (1, 0):
            ui.service.call(m.PressStandIn(device.id, control, value))
    bar._pressed_by = ()
    bar.button.click()
    ui.wait(lambda: not bar.recording, "the end of the recording")


def test_recording_options_are_kept_and_heeded(ui: Ui):
    made = page(ui, Macro(id="storm-volley", name="Storm volley", loop=(Wait(wait_us=1), Wait(wait_us=2))))
    options = made.recording.options
    options.caught["buttons"].click()
    options.waits.setCurrentIndex(options.waits.findData(Waits.EVEN))
    options.waits.activated.emit(options.waits.currentIndex())
    options.even.changed.emit(7_000)
    assert ui.store.settings.recording == RecordingSettings(buttons=False, waits=Waits.EVEN, even_us=7_000)
    assert "keys, wheel · every wait 7 ms" in made.recording._words.full_text
    made.select([0])
    record(ui, "KEY_Q", "BTN_FORWARD", "KEY_W")
    new = loop(ui)[1:-1]
    assert [step.control for step in new if isinstance(step, Press)] == ["KEY_Q", "KEY_W"]
    assert {step.wait_us for step in new if isinstance(step, Wait)} == {7_000}
    assert made.selected() == list(range(1, 1 + len(new)))
    options.where.setCurrentIndex(options.where.findData(Where.REPLACE))
    options.where.activated.emit(options.where.currentIndex())
    record(ui, "KEY_E")
    assert [step.control for step in loop(ui) if isinstance(step, Press)] == ["KEY_E"]
    ui.undo()
    assert loop(ui)[1:-1] == new


def test_a_countdown_can_be_called_off_and_a_limit_ends_the_recording(ui: Ui):
    made = page(ui, Macro(id="storm-volley", name="Storm volley"))
    bar = made.recording
    bar.options.countdown.setValue(2)
    bar.button.click()
    assert bar._words.full_text == "recording begins in 2 s"
    bar.button.click()
    assert "Scroll Lock ends it" in bar._words.full_text
    assert not ui.store.status.recording
    bar.options.countdown.setValue(1)
    bar.options.limit.setValue(1)
    bar.button.click()
    ui.wait(lambda: ui.store.status.recording, "the recording, after a second")
    ui.wait(lambda: not bar.recording, "its end, after another")


def test_a_recording_goes_in_inside_a_block(ui: Ui):
    made = page(ui)
    made.select([1])
    record(ui, "KEY_W")
    inner = loop(ui)[0].steps
    assert [type(step) for step in inner if not isinstance(step, Wait)] == [Tap, Press, Release]
    assert made.selected()[0] == 2


@pytest.mark.parametrize(
    ("kind", "text", "micros", "after"),
    [
        ("set", "40/s", 7, 25_000),
        ("scale", "1.5", 7, 10),
        ("scale", "50 %", 7_000, 3_500),
        ("round", "1f@60", 20_000, 16_667),
        ("round", "5", 12_500, 15_000),
        ("least", "20", 7_000, 20_000),
        ("least", "20", 21_000, 21_000),
    ],
)
def test_changes_of_time(kind: str, text: str, micros: int, after: int):
    assert time_change(kind, text)(micros) == after


@pytest.mark.parametrize(("kind", "text"), [("scale", "twice"), ("scale", "0"), ("round", "0"), ("set", "long")])
def test_a_change_that_cannot_be_read_is_told(kind: str, text: str):
    with pytest.raises(DataError):
        time_change(kind, text)


def test_times_are_changed_of_the_selected_steps_or_of_all(ui: Ui):
    made = page(ui, Macro(id="storm-volley", name="Storm volley", loop=(*MACRO.loop, Wait(wait_us=5_000))))
    made.timing_button.click()
    assert made.timing.isVisible()
    made.select([2])
    made.timing.kind.setCurrentIndex(1)
    made.timing.figure.setText("200 %")
    made.timing.apply_button.click()
    assert [step.hold_us if isinstance(step, Tap) else step.wait_us for step in loop(ui)[0].steps] == [20_000, 60_000]
    made.steps.clearSelection()
    made.timing.figure.setText("10x")
    made.timing.apply_button.click()
    assert loop(ui)[0].steps == (Tap(control="KEY_Q", hold_us=200_000), Wait(wait_us=600_000))
    made.timing.figure.setText("more")
    made.timing.apply_button.click()
    assert "is not a factor" in made.timing.message.text()
    made.timing.trim_button.click()
    assert len(loop(ui)) == 2


def test_a_rapid_fire_is_built_with_its_result_seen_before(ui: Ui):
    made = page(ui)
    made.builder_button.click()
    made.beginnings.choose("Rapid fire")
    row = made.builder
    assert row.isVisible()
    row.controls.setText("Left button")
    row.figures[0].setText("20/s")
    assert row.preview.text() == "While held   20/s   tap Left  25 ms   pause 25 ms"
    row.figures[0].setText("soon")
    assert "is not a time" in row.preview.text()
    assert not row.make_button.isEnabled()
    row.figures[0].setText("20/s")
    row.make_button.click()
    assert ui.store.macros["storm-volley"].play == Play(Mode.HELD, pause_us=25_000)
    assert loop(ui) == (Tap(control="BTN_LEFT", hold_us=25_000),)
    ui.undo()
    assert ui.store.macros["storm-volley"] == MACRO


def test_the_preview_of_a_long_macro_follows_once_its_edits_rest(ui: Ui):
    ui.window.shown.show_macro("hop-step")
    short = ui.window.macro_details.preview.accessibleDescription()
    assert short.endswith("ms in all")
    macro = ui.store.macros["hop-step"]
    long = tuple(step for _ in range(500) for step in (Tap(control="KEY_SPACE", hold_us=20_000), Wait(wait_us=30_000)))
    ui.store.put_macro(replace(macro, play=Play(Mode.SINGLE), loop=long))
    # A single run of 25 s, and a bit of what comes after it.
    ui.wait(lambda: ui.window.macro_details.preview.accessibleDescription() == "33333 ms in all", "the preview")
    # Another macro's picture is never shown for it, not even for a moment.
    ui.window.shown.show_macro("reel-in")
    assert ui.window.macro_details.preview.accessibleDescription() not in ("", "33333 ms in all")
    ui.window.shown.show_macro("hop-step")
    assert ui.window.macro_details.preview.accessibleDescription() == ""
    ui.wait(lambda: ui.window.macro_details.preview.accessibleDescription() == "33333 ms in all", "the preview again")
    ui.store.put_macro(macro)
    assert ui.window.macro_details.preview.accessibleDescription() == short


class _Places(QObject):
    """Where a widget has been on the way."""

    def __init__(self, widget: QWidget) -> None:
        super().__init__()
        self._widget, self.seen = widget, set[int]()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        self.seen.add(self._widget.mapTo(self._widget.window(), QPoint()).y())
        return False


def test_what_appears_further_down_moves_nothing_above_it_not_even_for_a_moment(ui: Ui):
    ui.window.resize(1280, 700)
    page(ui, Macro(id="storm-volley", name="Storm volley", play=Play(Mode.TOGGLE), loop=MACRO.loop))
    details = ui.window.macro_details
    ui.wait(
        lambda: "sees" in details.frame_check.answer.text() and not details.checks_pending.isVisible(), "the answers"
    )
    places, app = _Places(details.attach_button), QApplication.instance()
    assert app
    app.installEventFilter(places)
    check = details.frame_check
    for _ in range(2):
        for part in (details.checks_fold, check.pending, check.plot, check.against, check.jitter, check.answer):
            part.setVisible(not part.isVisible())
        height = details.height()
        ui.wait(lambda height=height: details.height() != height, "the column to be higher or lower")
    app.removeEventFilter(places)
    assert len(places.seen) == 1
