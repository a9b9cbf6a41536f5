"""Variants, cells that go somewhere, cells that are carried, fair play, and what falls through to Everyday."""

from __future__ import annotations

from PyQt6.QtCore import QMimeData, Qt
from PyQt6.QtTest import QTest

from nakrel import protocol as m
from nakrel.core.model.cells import GoTo, RunMacro, RunSystemAction, SystemAction, ToControl, What
from nakrel.core.model.profile import FairPlay
from nakrel.ui import commands
from nakrel.ui.dragged import CELL_MIME
from nakrel.ui.sheet.model import CODE
from tests.ui.conftest import Ui, assign, checks_shown

THUMB_1, THUMB_2, THUMB_11, THUMB_12 = (f"BTN_TRIGGER_HAPPY{n}" for n in (1, 2, 11, 12))


def shown(ui: Ui, profile: str = "tidewardens"):
    ui.window.shown.show_profile(profile)
    ui.window.shown.show_page("sheet")
    return ui.window.sheet.setups


def names(ui: Ui) -> list[str]:
    return [setup.name for setup in ui.store.profiles["tidewardens"].setups]


def words(ui: Ui, code: str) -> str:
    model = ui.window.sheet.model
    index = model.index(model.row_of(code), 2)
    return str(index.data(Qt.ItemDataRole.AccessibleTextRole))


def test_set_ups_are_made_copied_named_ordered_marked_and_deleted(ui: Ui):
    bar = shown(ui)
    assert list(bar.buttons) == ["Healer", "Netter"]
    bar.add()
    assert names(ui) == ["Healer", "Netter", "New variant"]
    assert ui.window.shown.setup.name == "New variant"
    bar.rename("New variant", "Rigger")
    assert ui.window.shown.setup.name == "Rigger"
    bar.duplicate("Netter")
    assert names(ui) == ["Healer", "Netter", "Netter 2", "Rigger"]
    assert ui.window.shown.setup.cells == ui.store.profiles["tidewardens"].setup("Netter").cells
    bar.shift("Rigger", -1)
    bar.paint("Rigger", "#6B8E4E")
    assert names(ui) == ["Healer", "Netter", "Rigger", "Netter 2"]
    assert ui.store.profiles["tidewardens"].setup("Rigger").colour == "#6B8E4E"
    bar.rename("Rigger", "Healer")
    assert "two variants named 'Healer'" in ui.window.messages.text.full_text
    bar.delete("Netter 2")
    bar.delete("Rigger")
    assert names(ui) == ["Healer", "Netter"]
    while ui.store.undo_stack.canUndo():
        ui.undo()
    assert names(ui) == ["Healer", "Netter"]


def test_the_set_up_in_use_is_chosen_in_the_sheet_and_by_a_control(ui: Ui):
    bar = shown(ui)
    ui.store.pin("tidewardens")
    ui.wait(lambda: ui.store.status.live == "tidewardens", "the profile to be live")
    QTest.mouseClick(bar.buttons["Netter"], Qt.MouseButton.LeftButton)
    assert ui.window.shown.setup.name == "Netter"
    assert ui.store.status.setups["tidewardens"] == "Healer"
    QTest.mouseClick(bar.use_button, Qt.MouseButton.LeftButton)
    ui.wait(lambda: ui.store.status.setups["tidewardens"] == "Netter", "Netter in use")
    ui.wait(lambda: ui.window.strip.live.text() == "Tidewardens · Netter", "the live strip to say so")
    assert bar.use_button is None
    # The wheel turned to the left goes to Healer; what is shown stays.
    ui.store.ask(m.PressStandIn("standin:halyard-12", "WHEEL_LEFT", 1))
    ui.wait(lambda: ui.store.status.setups["tidewardens"] == "Healer", "Healer in use")
    assert ui.window.shown.setup.name == "Netter"
    switches = [entry.what for entry in ui.store.journal if entry.kind == "switch"]
    assert switches[-2:] == ["Tidewardens plays as Netter", "Tidewardens plays as Healer"]


def test_a_set_up_keeps_its_place_in_use_when_it_is_renamed(ui: Ui):
    bar = shown(ui)
    bar.use("Netter")
    ui.wait(lambda: ui.store.status.setups.get("tidewardens") == "Netter", "Netter in use")
    bar.rename("Netter", "Trawler")
    ui.wait(lambda: ui.store.status.setups.get("tidewardens") == "Trawler", "the new name in use")
    healer = ui.store.profiles["tidewardens"].setup("Healer")
    assert healer.cells["WHEEL_RIGHT"] == GoTo(What.SETUP, "Trawler")


def test_a_cell_goes_to_a_profile_and_back_to_the_games(ui: Ui):
    shown(ui, "everyday")
    everyday = ui.store.profiles["everyday"]
    commands.set_cell(ui.store, everyday, "Main", THUMB_1, GoTo(What.PROFILE, "orrery-post"))
    post = ui.store.profiles["orrery-post"]
    commands.set_cell(ui.store, post, "Counter", THUMB_1, GoTo(What.PROFILE, "orrery-post"))
    ui.wait(lambda: ui.window.column.saved.text() == "saved", "the edits to be saved")
    press = lambda value: ui.store.ask(m.PressStandIn("standin:halyard-12", THUMB_1, value))  # noqa: E731
    press(1)
    ui.wait(lambda: ui.store.status.live == "orrery-post" == ui.store.status.pinned, "the profile")
    press(0)
    press(1)
    ui.wait(lambda: ui.store.status.live == "everyday", "games to be followed again")
    press(0)


def test_where_to_go_and_what_to_do_is_found_by_typing(ui: Ui):
    shown(ui)
    ui.window.sheet.show_control(THUMB_11)
    cells = lambda: ui.store.profiles["tidewardens"].setups[0].cells  # noqa: E731
    assign(ui, "next variant")
    assert cells()[THUMB_11] == GoTo(What.SETUP)
    assert words(ui, THUMB_11) == "Thumb 11: goes to the next variant"
    assign(ui, "louder")
    assert cells()[THUMB_11] == RunSystemAction(SystemAction.LOUDER)
    assign(ui, "stop every")
    assert words(ui, THUMB_11) == "Thumb 11: stop everything"
    assign(ui, "Piper", "new variant “Piper”, and go to it")
    assert cells()[THUMB_11] == GoTo(What.SETUP, "Piper")
    assert [setup.name for setup in ui.store.profiles["tidewardens"].setups] == ["Healer", "Netter", "Piper"]
    ui.undo()
    assert len(ui.store.profiles["tidewardens"].setups) == 2
    assign(ui, "Salt flats", "new profile “Salt flats”, and go to it")
    made = next(p for p in ui.store.profiles.values() if p.name == "Salt flats")
    assert cells()[THUMB_11] == GoTo(What.PROFILE, made.id)
    ui.undo()
    assert made.id not in ui.store.profiles
    assert words(ui, THUMB_11) == "Thumb 11: stop everything"


def test_a_media_cell_sends_the_key_that_desktops_know(ui: Ui):
    sent = []
    ui.store.seen.connect(lambda notice: sent.extend((e.control, e.value) for e in notice.events if e.by != "in"))
    everyday = ui.store.profiles["everyday"]
    commands.set_cell(ui.store, everyday, "Main", THUMB_1, RunSystemAction(SystemAction.LOUDER))
    ui.wait(lambda: ui.window.column.saved.text() == "saved", "the edit to be saved")
    for value in (1, 0):
        ui.store.ask(m.PressStandIn("standin:halyard-12", THUMB_1, value))
    ui.wait(lambda: [e for e in sent if e[0] == "KEY_VOLUMEUP"] == [("KEY_VOLUMEUP", 1), ("KEY_VOLUMEUP", 0)], "it")


def test_a_cell_is_dragged_to_another_and_copied_with_ctrl(ui: Ui):
    shown(ui)
    model = ui.window.sheet.model
    ui.window.shown.show_control(THUMB_1)
    data: QMimeData = model.mimeData([])
    assert data.hasFormat(CELL_MIME)
    target = model.index(model.row_of(THUMB_11), 2)
    model.dropMimeData(data, Qt.DropAction.CopyAction, -1, -1, target)
    cells = lambda: ui.store.profiles["tidewardens"].setups[0].cells  # noqa: E731
    assert cells()[THUMB_11] == cells()[THUMB_1] == ToControl("KEY_R")
    ui.undo()
    model.dropMimeData(data, Qt.DropAction.MoveAction, -1, -1, model.index(model.row_of(THUMB_11), 2))
    assert cells()[THUMB_11] == ToControl("KEY_R")
    assert THUMB_1 not in cells()
    ui.undo()
    assert cells()[THUMB_1] == ToControl("KEY_R")
    # Into the layer beside it, by the keyboard.
    table = ui.window.sheet.table
    QTest.keyClick(table, Qt.Key.Key_C, Qt.KeyboardModifier.ControlModifier)
    ui.window.shown.show_control(THUMB_11, "Harbour")
    QTest.keyClick(table, Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier)
    assert ui.store.profiles["tidewardens"].setups[0].layers[0].cells[THUMB_11] == ToControl("KEY_R")


def test_several_rows_are_cleared_as_one_edit(ui: Ui):
    shown(ui)
    table = ui.window.sheet.table
    ui.window.sheet.show_control(THUMB_1)
    for _ in range(3):
        QTest.keyClick(table, Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier)
    chosen = ui.window.sheet.cells.chosen_codes()
    assert chosen == [f"BTN_TRIGGER_HAPPY{n}" for n in (1, 2, 3, 4)]
    QTest.keyClick(table, Qt.Key.Key_Delete)
    assert not set(chosen) & ui.store.profiles["tidewardens"].setups[0].cells.keys()
    ui.undo()
    assert set(chosen) <= ui.store.profiles["tidewardens"].setups[0].cells.keys()


def test_empty_cells_show_and_do_what_they_do_in_everyday(ui: Ui):
    shown(ui)
    ui.window.sheet.show_control(THUMB_11)
    does = ui.window.sheet_details.does
    assert words(ui, THUMB_11) == "Thumb 11: Mute · from Everyday"
    assert does.text() == "Mute · from Everyday"
    assert ui.window.sheet_details.clear_button.isHidden()
    details = ui.window.profile_details
    details.falls.click()
    assert not ui.store.profiles["tidewardens"].falls_through
    assert words(ui, THUMB_11) == "Thumb 11: unchanged"
    assert does.text() == "unchanged"
    ui.undo()
    everyday = ui.store.profiles["everyday"]
    commands.set_cell(ui.store, everyday, everyday.setups[0].name, THUMB_11, ToControl("KEY_F8"), "")
    assert words(ui, THUMB_11) == "Thumb 11: F8 · from Everyday"
    assert does.text() == "F8 · from Everyday"
    ui.undo()
    assert does.text() == "Mute · from Everyday"
    ui.store.pin("tidewardens")
    sent = []
    ui.store.seen.connect(lambda notice: sent.extend(e.control for e in notice.events if e.by != "in"))
    ui.wait(lambda: ui.store.status.live == "tidewardens", "the profile to be live")
    for value in (1, 0):
        ui.store.ask(m.PressStandIn("standin:halyard-12", THUMB_11, value))
    ui.wait(lambda: sent == ["KEY_MUTE", "KEY_MUTE"], "the key of Everyday's cell")


def test_what_goes_beyond_fair_play_is_told_in_the_sheet_and_the_details(ui: Ui):
    shown(ui, "brackenfall-arena")
    assert words(ui, THUMB_2).endswith("against the fair-play rule")
    ui.window.shown.show_control(THUMB_2)
    assert "one action a press" in ui.window.sheet_details._beyond.text()
    ui.window.shown.show_macro("guard-break")
    ui.wait(lambda: "In Brackenfall Arena: A press makes 2 game actions" in checks_shown(ui), "the finding")


def test_no_macros_lets_everything_pass(ui: Ui):
    shown(ui)
    details = ui.window.profile_details
    details.rule.setCurrentIndex(details.rule.findText("no macros"))
    details.rule.activated.emit(details.rule.currentIndex())
    assert ui.store.profiles["tidewardens"].fair_play is FairPlay.NO_MACROS
    assert "everything passes through" in ui.window.sheet._empty.text()
    ui.store.pin("tidewardens")
    ui.wait(lambda: ui.store.status.live == "tidewardens", "the profile to be live")
    for value in (1, 0):
        ui.store.ask(m.PressStandIn("standin:halyard-12", THUMB_2, value))
    told = []
    ui.store.ask(m.Play_("reel-in"), told.append)
    ui.wait(lambda: told, "the answer")
    assert told == [m.Refused("Tidewardens is live, and its fair-play rule allows no macros")]
    assert not ui.store.status.running
    assert RunMacro("storm-volley") in ui.store.profiles["tidewardens"].setups[0].cells.values()


def test_what_is_searched_is_found_in_other_set_ups_too(ui: Ui):
    shown(ui)
    ui.window.sheet.search.setText("haul")
    assert ui.window.sheet.model.size() == 0
    assert "Thumb 2 in Netter" in ui.window.sheet._empty.text()
    ui.window.sheet.search.clear()
    codes = [ui.window.sheet.model.index(row, 0).data(CODE) for row in range(ui.window.sheet.model.size())]
    assert THUMB_12 in codes


def test_a_pin_outlives_a_change_of_the_look(ui: Ui):
    ui.store.pin("tidewardens")
    ui.wait(lambda: ui.store.settings.pinned == "tidewardens", "the window to know of the pin")
    ui.window.set_look("night")
    ui.wait(lambda: not ui.store._unsent, "the look to be saved")
    assert ui.store.status.pinned == "tidewardens"
    ui.window.set_look("light")


def test_the_row_whose_details_are_shown_is_the_selected_one(ui: Ui):
    shown(ui)
    table = ui.window.sheet.table
    assert ui.window.shown.control
    assert ui.window.sheet.cells.chosen_codes() == [ui.window.shown.control]
    QTest.keyClick(table, Qt.Key.Key_Down)
    assert ui.window.sheet.cells.chosen_codes() == [ui.window.shown.control]
