"""A new user's first minutes: an empty home, and how few clicks and keys the usual things take."""

from __future__ import annotations

import os
import sys

import msgspec
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from nakrel import protocol as m
from nakrel.core.model.cells import RunMacro, ToChord, ToControl
from nakrel.core.model.macro import Mode, StartOn
from nakrel.core.model.profile import MatchBy, ProgramRule
from nakrel.core.model.programs import Program
from nakrel.core.model.steps import Chord, Pointer, Tap
from nakrel.ui import commands
from nakrel.ui.profiles.link import LinkDialog
from nakrel.ui.widgets.shield import shielded
from tests.ui.conftest import Hand, Ui

MOUSE = "standin:halyard-12"
THUMB_3, THUMB_4 = "BTN_TRIGGER_HAPPY3", "BTN_TRIGGER_HAPPY4"


def front(ui: Ui) -> None:
    ui.window.activateWindow()
    ui.wait(ui.window.isActiveWindow, "the window in front")


def press(ui: Ui, *controls: str) -> None:
    """Press them together on the devices, and let them go."""
    for value in (1, 0):
        for control in controls:
            device = next(d.id for d in ui.store.devices if control in d.controls)
            ui.service.call(m.PressStandIn(device, control, value))


def cells(ui: Ui, profile: str = "everyday") -> dict:
    return ui.store.profiles[profile].setups[0].cells


def test_an_empty_home_says_what_it_is_for_and_how_to_begin(fresh: Ui):
    page = fresh.window.first_steps.page
    assert page.isVisible()
    assert "Halyard 12 mouse (simulated)" in page._found.text()
    assert "Macros reach no game yet" in page._reached.text()
    assert page.fix_button.isVisible()
    page.buttons["Look at the demo"].click()
    assert not page.isVisible()
    assert fresh.window.shown.profile.name == "Tidewardens"
    assert fresh.store.undo_stack.count() == 1
    fresh.undo()
    assert set(fresh.store.profiles) == {"everyday"}
    assert not fresh.store.macros


@pytest.mark.parametrize(("script", "says"), [("pass", ""), ("raise SystemExit('no password')", "no password")])
def test_the_fix_says_first_what_it_does_and_then_what_came_of_it(fresh: Ui, script: str, says: str):
    page = fresh.window.first_steps.page
    page.fix.command = [sys.executable, "-c", script]
    ended: list[str] = []
    page.fix.ended.connect(ended.append)
    page.fix_button.click()
    box = page.fix.question
    assert box is not None
    assert "as root" in box.text()
    next(each for each in box.buttons() if each.text() == "Install").click()
    fresh.wait(lambda: ended, "the fix to end")
    assert says in ended[0]
    assert page._failed.isVisible() is bool(says)


def test_rapid_fire_on_a_thumb_button_from_an_empty_home_takes_four_clicks_and_three_keys(fresh: Ui):
    front(fresh)
    hand = Hand()
    hand.click(fresh.window.first_steps.page.buttons["Rapid fire on a button"])
    fresh.wait(lambda: fresh.store.status.listening, "the listening")
    press(fresh, THUMB_3)
    hand.clicks += 1
    field = fresh.window.sheet.assign.field
    fresh.wait(lambda: field.line.placeholderText().startswith("Rapid fire"), "the question for the key")
    fresh.wait(lambda: not shielded(), "the capture's end")
    hand.key(field.line, Qt.Key.Key_Return)
    cell = cells(fresh)[THUMB_3]
    assert isinstance(cell, RunMacro)
    macro = fresh.store.macros[cell.macro]
    assert macro.name == "Rapid fire Left"
    assert macro.loop == (Tap(control="BTN_LEFT", hold_us=25_000),)
    assert macro.play.mode is Mode.HELD
    assert (hand.clicks, hand.keys) <= (4, 3)
    # One edit: what was begun is taken back as one.
    fresh.undo()
    assert not fresh.store.macros


def test_a_button_becomes_a_key_with_two_clicks_and_a_press(ui: Ui):
    ui.window.shown.show_profile("everyday")
    front(ui)
    hand = Hand()
    ground = ui.window.sheet.table.viewport()
    assert ground
    hand.click(ground, hand.cell(ui, THUMB_4))
    hand.click(ui.window.sheet_details.press_button)
    ui.wait(lambda: ui.store.status.listening, "the listening")
    press(ui, "KEY_F13")
    ui.wait(lambda: cells(ui).get(THUMB_4) == ToControl("KEY_F13"), "the key")
    assert hand.clicks <= 2
    assert hand.keys == 0


def test_pressing_in_the_field_takes_a_combination(ui: Ui):
    ui.window.shown.show_profile("everyday")
    front(ui)
    hand = Hand()
    hand.double_click(ui, THUMB_4)
    field = ui.window.sheet.assign.field
    assert field.line.placeholderText() == "What should Thumb 4 do?"
    QTest.keyClick(field.line, Qt.Key.Key_Space, Qt.KeyboardModifier.ControlModifier)
    ui.wait(lambda: ui.store.status.listening, "the listening")
    press(ui, "KEY_LEFTCTRL", "KEY_L")
    ui.wait(lambda: cells(ui).get(THUMB_4) == ToChord(("KEY_LEFTCTRL", "KEY_L")), "the combination")
    assert not field.isVisible()
    assert ui.window.link_dialog is None


def test_clicks_through_two_places_on_a_button_take_eight_clicks(ui: Ui, monkeypatch: pytest.MonkeyPatch):
    ui.window.shown.show_profile("everyday")
    front(ui)
    hand = Hand()
    hand.double_click(ui, THUMB_4)
    # The picker dims the screen, which nobody sees here: its two clicks and the key that ends it are counted.
    picked = [Pointer(x=10, y=20), Pointer(x=300, y=200)]

    def pick(taken, *, single=False):
        for place in picked:
            hand.clicks += 1
            taken(place)
        hand.keys += 1
        ui.window.macro.places.ended.emit()

    monkeypatch.setattr(ui.window.macro.places, "pick", pick)
    hand.line(ui, "new click sequence…")
    cell = cells(ui)[THUMB_4]
    assert isinstance(cell, RunMacro)
    steps = ui.store.macros[cell.macro].loop
    assert [step for step in steps if isinstance(step, Pointer)] == picked
    assert hand.clicks + hand.keys <= 8


def test_an_action_on_release_takes_six_clicks(ui: Ui):
    ui.window.shown.show_profile("everyday")
    front(ui)
    hand = Hand()
    hand.double_click(ui, THUMB_4)
    hand.line(ui, "Cast far")
    play = ui.window.sheet_details.play
    hand.click(play.start_on)
    menu = play.start_on.menu_shown
    assert menu is not None
    hand.clicks += 1
    next(action for action in menu.actions() if action.text() == "release").trigger()
    menu.close()
    assert ui.store.macros["cast-far"].play.start_on is StartOn.RELEASE
    assert hand.clicks <= 6
    assert hand.keys == 0


def test_a_running_game_is_linked_with_three_clicks(ui: Ui):
    ui.window.shown.show_profile("orrery-post")
    front(ui)
    hand = Hand()
    before = ui.store.profiles["orrery-post"].programs
    ui.wait(lambda: ui.window.head.link_button.isVisible(), "the head")
    hand.click(ui.window.head.link_button)
    dialog = ui.window.link_dialog
    assert dialog is not None
    dialog.all_programs.setChecked(True)
    ui.wait(lambda: dialog._proxy.rowCount() > 0, "the programs")
    ground = dialog.table.viewport()
    assert ground
    hand.click(ground, dialog.table.visualRect(dialog._proxy.index(0, 0)).center())
    hand.click(dialog.link_button)
    assert len(ui.store.profiles["orrery-post"].programs) == len(before) + 1
    assert hand.clicks <= 3


def test_an_empty_macro_asks_how_it_should_begin_and_any_macro_can_start_over(ui: Ui):
    macro = commands.new_macro(ui.store, "Bail")
    ui.window.shown.show_macro(macro.id)
    page = ui.window.macro
    assert page.first.isVisible()
    assert not page.steps.isVisible()
    page.first.choose("Combination")
    builder = page.first.builder
    builder.controls.setText("Left Ctrl, C")
    assert builder.make_button.text() == "Make the steps"
    builder.make_button.click()
    assert ui.store.macros[macro.id].loop == (Chord(controls=("KEY_LEFTCTRL", "KEY_C"), hold_us=50_000),)
    assert not page.first.isVisible()
    assert page.steps.isVisible()
    page.builder_button.click()
    page.beginnings.choose("Rapid fire")
    assert page.builder.make_button.text() == "Replace the steps"
    page.builder.make_button.click()
    assert ui.store.macros[macro.id].loop == (Tap(control="KEY_LEFTCTRL", hold_us=25_000),)
    # It lay over the page, and is gone now.
    assert not page.beginnings.isVisible()
    page.builder_button.click()
    page.beginnings.choose("Write it as text")
    assert page.notation.isVisible()


def test_the_focus_goes_to_the_beginnings_with_the_last_step_and_back_with_undo(ui: Ui):
    front(ui)
    ui.window.shown.show_page("macro")
    ui.window.shown.show_macro("reel-in")
    page = ui.window.macro
    page.steps.setFocus()
    page.steps.selectAll()
    QTest.keyClick(page.steps, Qt.Key.Key_Delete)
    assert page.first.isVisible()
    ui.wait(page.first.rows["Record"].hasFocus, "the focus on the first beginning")
    ui.undo()
    ui.wait(page.steps.hasFocus, "the focus on the list")
    assert page.steps.isVisible()


def test_while_it_is_recorded_nothing_asks_how_it_should_begin(ui: Ui):
    macro = commands.new_macro(ui.store, "Bail")
    ui.window.shown.show_macro(macro.id)
    ui.window.shown.show_page("macro")
    page = ui.window.macro
    assert page.first.isVisible()
    page.first.choose("Record")
    ui.wait(lambda: page.recording.recording, "the recording")
    assert not page.first.isVisible()
    assert page.steps.isVisible()
    assert page.diagram.says == "Press what the macro should play."
    page.recording.toggle_by_shortcut()
    # Nothing was pressed.
    ui.wait(page.first.isVisible, "the beginnings again")
    assert "Press Record" in page.diagram.says


def test_at_least_nine_steps_are_seen_with_any_drawer_open(ui: Ui):
    ui.window.shown.show_macro("reel-in")
    page = ui.window.macro
    ground = page.steps.viewport()
    assert ground
    for opener in (page.recording.options_button, page.builder_button, page.timing_button):
        opener.click()
        QApplication.processEvents()
        [drawer] = [each for each in page.drawers if each.isVisible()]
        covered = page.steps.mapFromGlobal(drawer.mapToGlobal(drawer.rect().bottomLeft())).y()
        seen = [
            row
            for row in range(page.model.rowCount())
            if page.steps.visualRect(page.model.index(row, 0)).bottom() <= ground.height()
            and page.steps.visualRect(page.model.index(row, 0)).top() + 24 >= covered
        ]
        assert len(seen) >= 9, opener.text()
        QTest.keyClick(drawer, Qt.Key.Key_Escape)
        assert not drawer.isVisible()


def test_nothing_found_says_so_with_the_way_back(ui: Ui):
    sheet = ui.window.sheet
    sheet.search.setText("zzz")
    assert sheet.nothing.text.text() == "Nothing here matches “zzz”."
    sheet.nothing.all_button.click()
    assert sheet.search.text() == ""
    assert sheet.model.size() > 10


def test_the_program_that_was_picked_stays_so_whatever_its_title_says(ui: Ui):
    """Games have their score or their frames in their title; and what is picked may end."""
    dialog = LinkDialog(ui.store, "tidewardens", ui.window)
    dialog._timer.stop()
    ui.wait(lambda: dialog._programs, "the first answer")
    game = Program(7001, "game", "/opt/game/game", started_us=5, title="Game, 59 frames")
    other = Program(7002, "editor", "/opt/editor", started_us=9, title="Editor")

    def rows() -> list[str]:
        return [dialog._model.item(row, 0).text() for row in range(dialog._model.rowCount())]

    dialog._fill(m.Programs((game, other)))
    assert rows() == ["Editor", "Game, 59 frames"]
    dialog.table.setCurrentIndex(dialog._proxy.index(1, 0))
    rule = dialog.rule_value.text()
    assert "game" in rule
    # Its title changes, and another program comes.
    later, third = msgspec.structs.replace(game, title="Game, 60 frames"), msgspec.structs.replace(other, pid=7003)
    dialog._fill(m.Programs((later, other, third)))
    assert rows() == ["Editor", "Editor", "Game, 60 frames"]
    assert dialog.source_picked() == later
    assert dialog.rule_value.text() == rule
    # Another process has its number now: what was picked is gone, and the rule stays what it was.
    again = msgspec.structs.replace(other, pid=7001, started_us=12)
    dialog._fill(m.Programs((again, other)))
    assert sorted(rows()) == ["Editor", "Editor"]
    assert dialog.source_picked() is None
    assert dialog.rule_value.text() == rule
    dialog.reject()


def test_nothing_moves_in_the_list_of_programs_while_one_picks(ui: Ui):
    """What speaks against a rule stands in room of its own; and Nakrel's window is no game."""
    dialog = LinkDialog(ui.store, "tidewardens", ui.window)
    dialog._timer.stop()
    dialog.show()
    ui.wait(lambda: dialog._programs, "the first answer")
    launcher = Program(7001, "launcher", "/opt/game/launcher", started_us=5, title="Launcher")
    game = Program(7002, "game", "/opt/game/game", started_us=9, title="Game", parent=7001)
    ours = Program(os.getpid(), "nakrel", "/usr/bin/python3", started_us=12, title="Nakrel")
    dialog._fill(m.Programs((launcher, game, ours)))
    QApplication.processEvents()
    before = dialog.table.geometry(), dialog.rule_value.geometry()
    assert [dialog._model.item(row, 1).text() for row in range(dialog._model.rowCount())] == ["game", "launcher"]
    dialog.table.setCurrentIndex(dialog._proxy.index(1, 0))
    QApplication.processEvents()
    assert dialog.child_button.isVisible()
    assert (dialog.table.geometry(), dialog.rule_value.geometry()) == before
    dialog.reject()


def test_the_focus_stays_where_buttons_are_made_anew(ui: Ui):
    """After a program was linked, the space bar made a new profile: the focus had gone to the next best place."""
    front(ui)
    head = ui.window.head
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")

    def link(*names: str) -> None:
        profile = ui.store.profiles["tidewardens"]
        commands.set_programs(ui.store, profile, tuple(ProgramRule(MatchBy.NAME, name) for name in names))
        QApplication.processEvents()

    link("one")
    head.link_button.setFocus()
    link("one", "two")
    assert ui.window.focusWidget() is head.link_button
    assert head.programs
    head.programs.buttons[0].setFocus()
    link("two")
    assert head.programs
    assert ui.window.focusWidget() is head.programs.buttons[0]
    link()
    assert ui.window.focusWidget() is head.link_button
    # What stands on another page has nothing in its place: the focus isn't lost.
    ui.window.shown.show_page("journal")
    QApplication.processEvents()
    focused = ui.window.focusWidget()
    assert focused
    assert focused.isVisible()


def test_every_search_without_a_result_says_so_with_the_way_back(ui: Ui):
    ui.window.shown.show_page("journal")
    column, journal = ui.window.column, ui.window.journal
    ui.wait(journal.table.model().rowCount, "entries")
    dialog = LinkDialog(ui.store, "tidewardens", ui.window)
    for place in (column, journal, dialog):
        assert place.nothing.isHidden()
        place.search.setText("zzzz")
        assert not place.nothing.isHidden()
        assert place.nothing.text.text() == "Nothing here matches “zzzz”."
        place.nothing.all_button.click()
        assert place.search.text() == ""
        assert place.nothing.isHidden()
    # Where only one of the two lists is empty it says which.
    column.search.setText("cast far")
    assert column.profile_view.empty == "No profile matches “cast far”."
    assert column.nothing.isHidden()
    column.search.clear()
    dialog.reject()
