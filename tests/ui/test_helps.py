"""Small things that help: how far a run is, copies for a duplicate, the other end of a press, what was changed."""

from __future__ import annotations

import re

from PyQt6.QtCore import QMimeData, QModelIndex, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QPlainTextEdit

from nakrel import protocol as m
from nakrel.core.edit.pairs import other_ends
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Note, Press, Release, Repeat, Tap, Wait
from nakrel.ui import commands
from nakrel.ui.dragged import MACRO_MIME
from tests.ui.conftest import Ui

MS = 1_000
THUMB_11 = "BTN_TRIGGER_HAPPY11"


def shown(ui: Ui, macro: Macro) -> None:
    commands.edit_macro(ui.store, "made", macro)
    ui.window.shown.show_macro(macro.id)


def test_a_counted_macro_says_in_which_run_it_is(ui: Ui):
    loop = (Tap(control="KEY_Q", hold_us=20 * MS), Wait(wait_us=60 * MS))
    shown(ui, Macro(id="count", name="Count", play=Play(Mode.COUNTED, runs=40), loop=loop))
    ui.wait(lambda: not ui.store.saving, "the macro to be saved")
    ui.store.ask(m.Play_("count"))
    said: list[str] = []

    def run() -> int:
        # Those of before are children until the next events; the newest comes last.
        texts = [b.text() for b in ui.window.strip.findChildren(type(ui.window.strip.stop)) if "run " in b.text()]
        text = texts[-1] if texts else ""
        if text and text not in said:
            said.append(text)
        return len(said)

    ui.wait(lambda: run() >= 1, "the run's number")
    told: list[None] = []
    ui.store.status_changed.connect(lambda: told.append(None))
    ui.wait(lambda: run() >= 3, "the run's number to go on")
    # That is of no account to all that else goes by the status.
    assert not told
    numbers = [int(text.partition("run ")[2].split()[0]) for text in said]
    assert numbers == sorted(numbers)
    assert all(text.endswith("of 40") for text in said)
    assert re.fullmatch(r"run \d+ of 40", ui.window.macro_details.play_now.run.full_text)
    ui.store.ask(m.Stop())
    ui.wait(lambda: not ui.store.status.running, "the end")
    assert not ui.window.strip._progress.isActive()


def test_a_duplicated_profile_says_that_it_shares_its_macros_and_takes_copies(ui: Ui):
    profile = ui.store.profiles["tidewardens"]
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")
    ui.window.column.duplicate_profile(profile)
    copy = ui.window.shown.profile
    assert copy is not None
    messages = ui.window.messages
    assert "plays the same macros as Tidewardens" in messages.text.full_text
    before = dict(ui.store.macros)
    assert messages.action.text() == "Give it copies"
    messages.action.click()
    played = {cell.macro for *_, cell in ui.store.profiles[copy.id].cells() if isinstance(cell, RunMacro)}
    assert not played & set(before)
    assert played == set(ui.store.macros) - set(before)
    assert messages.text.full_text == ""
    ui.undo()
    assert ui.store.macros == before


def test_the_other_end_of_a_press_is_found_and_changed_when_that_is_wanted(ui: Ui):
    loop = (
        Press(control="KEY_Q"),
        Repeat(times=2, steps=(Tap(control="KEY_W", hold_us=1),)),
        Wait(wait_us=MS),
        Release(control="KEY_Q"),
        Press(control="KEY_Q"),
        Release(control="KEY_Q"),
    )
    macro = Macro(id="ends", name="Ends", loop=loop)
    assert [other_ends(macro, [row]) for row in range(7)] == [[4], [], [], [], [0], [6], [5]]
    assert other_ends(macro, [0, 4]) == []
    shown(ui, macro)
    page = ui.window.macro
    page.select([0])
    page.step_actions.rebound("KEY_E")
    assert ui.store.macros["ends"].loop[0] == Press(control="KEY_E")
    assert ui.store.macros["ends"].loop[3] == Release(control="KEY_Q")
    action = ui.window.messages.action
    assert action.text() == "Change the release, too"
    action.click()
    assert ui.store.macros["ends"].loop[3] == Release(control="KEY_E")
    assert ui.store.macros["ends"].loop[4:] == loop[4:]


def test_a_version_marks_what_differs_from_how_it_is_now(ui: Ui):
    macro = ui.store.macros["guard-break"]
    for loop in (macro.loop, macro.loop[:1]):
        edited = Macro(id=macro.id, name=macro.name, note="kept", play=macro.play, loop=loop)
        commands.edit_macro(ui.store, "step", edited)
        ui.wait(lambda: not ui.store.saving, "the edit to be saved")
    dialog = ui.window.column.open_history("macro", "guard-break")
    ui.wait(lambda: len(dialog.versions) >= 2, "the versions")
    marked = [line for line in dialog.text.toPlainText().splitlines() if line.startswith(("−", "+"))]
    assert any(line.startswith("−") for line in marked)
    assert "− in this version only" in dialog._legend.text()
    dialog.table.selectRow(0)
    assert not [line for line in dialog.text.toPlainText().splitlines() if line.startswith(("−", "+"))]
    dialog.reject()


def test_a_comment_has_as_many_lines_as_are_typed(ui: Ui):
    shown(ui, Macro(id="told", name="Told", loop=(Tap(control="KEY_Q", hold_us=MS), Note(text="one"))))
    table = ui.window.macro.steps
    index = ui.window.macro.model.index(0, 5)
    table.setFocus()
    table.setCurrentIndex(index)
    table.edit(index)
    editor = table.findChildren(QPlainTextEdit)[-1]
    QTest.keyClicks(editor, "slow")
    QTest.keyClick(editor, Qt.Key.Key_Return, Qt.KeyboardModifier.ShiftModifier)
    QTest.keyClicks(editor, "and steady")
    QTest.keyClick(editor, Qt.Key.Key_Return)
    QApplication.processEvents()
    assert ui.store.macros["told"].loop[0].remark == "slow\nand steady"
    # As text it stays one line, and comes back as it was.
    ui.window.macro.show_view("notation")
    assert '"slow\\nand steady"' in ui.window.macro.notation.editor.toPlainText()


def test_a_macro_that_is_dragged_selects_the_row_it_lands_on(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")
    model = ui.window.sheet.model
    data = QMimeData()
    data.setData(MACRO_MIME, b"cast-far")
    target = model.index(model.row_of(THUMB_11), 2)
    assert model.dropMimeData(data, Qt.DropAction.CopyAction, -1, -1, QModelIndex(target))
    assert ui.window.shown.control == THUMB_11
    assert ui.window.sheet.cells.chosen_codes() == [THUMB_11]


def test_what_is_said_at_the_field_is_said_for_a_plus_layer_too(ui: Ui):
    """+ Layer asks which button holds it, and its head says so."""
    ui.window.shown.show_profile("orrery-post")
    ui.window.shown.show_page("sheet")
    ui.window.activateWindow()
    ui.wait(ui.window.isActiveWindow, "the window in front")
    ui.window.sheet.layer_button.click()
    ui.wait(lambda: ui.store.status.listening, "the listening")
    for value in (1, 0):
        ui.service.call(m.PressStandIn("standin:halyard-12", "BTN_TRIGGER_HAPPY12", value))
    heads = lambda: [  # noqa: E731
        ui.window.sheet.model.headerData(n, Qt.Orientation.Horizontal)
        for n in range(ui.window.sheet.model.columnCount())
    ]
    ui.wait(lambda: "while Thumb 12 is held" in heads(), "the layer")
    assert ui.window.shown.layer == "Thumb 12 held"
