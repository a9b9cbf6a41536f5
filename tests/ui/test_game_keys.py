"""The profile's game keys: the list, in and out, and what names them."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from nakrel.core.model.cells import ToControl
from nakrel.core.model.controls import game_key
from nakrel.core.model.steps import Tap
from nakrel.ui import commands
from nakrel.ui.sheet.game_keys import GameKeys
from tests.ui.conftest import Ui, checks_shown, type_into

THUMB_1 = "BTN_TRIGGER_HAPPY1"


def opened(ui: Ui) -> GameKeys:
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")
    details = ui.window.profile_details
    details.open_keys()
    assert details.keys_dialog is not None
    return details.keys_dialog


def keys(ui: Ui) -> dict[str, str]:
    return {key.name: key.control for key in ui.store.profiles["tidewardens"].keys}


def test_a_key_is_added_and_bound_and_taken_out(ui: Ui):
    dialog = opened(ui)
    QTest.keyClicks(dialog.name, "Sing")
    dialog.control.setCurrentIndex(dialog.control.findData("KEY_G"))
    QTest.mouseClick(dialog.add_button, Qt.MouseButton.LeftButton)
    assert keys(ui)["Sing"] == "KEY_G"
    ui.wait(lambda: dialog.model.size() == 7, "the key in the list")
    type_into(dialog, 6, 1, "mouse side")
    assert "There is no key or button" in dialog._message.text()
    type_into(dialog, 6, 1, "H")
    assert keys(ui)["Sing"] == "KEY_H"
    ui.wait(lambda: dialog.model.index(6, 1).data() == "H", "the new key in the list")
    dialog.table.selectRow(6)
    QTest.keyClick(dialog.table, Qt.Key.Key_Delete)
    assert "Sing" not in keys(ui)
    for _ in range(3):
        ui.undo()
    assert "Sing" not in keys(ui)
    dialog.accept()


def test_two_of_one_name_are_refused(ui: Ui):
    dialog = opened(ui)
    QTest.keyClicks(dialog.name, "Haul")
    dialog.control.setCurrentIndex(dialog.control.findData("KEY_G"))
    dialog.add()
    assert "two game keys named 'Haul'" in dialog._message.text()
    dialog.name.setText('Haul "hard"')
    dialog.add()
    assert "can't be a game key's name" in dialog._message.text()
    dialog.accept()


def test_a_renamed_key_keeps_its_macros_and_buttons(ui: Ui):
    dialog = opened(ui)
    assert dialog.model.index(1, 2).data() == "Haul the net"
    type_into(dialog, 1, 0, "Heave")
    haul = ui.store.macros["haul-the-net"]
    assert {step.control for step in haul.loop if isinstance(step, Tap)} == {game_key("Heave"), game_key("Brace")}
    type_into(dialog, 0, 0, "Throw")
    netter = ui.store.profiles["tidewardens"].setup("Netter")
    assert netter.cells[THUMB_1] == ToControl(game_key("Throw"))
    ui.undo()
    ui.undo()
    assert game_key("Haul") in {step.control for step in ui.store.macros["haul-the-net"].loop if isinstance(step, Tap)}
    dialog.accept()


def test_a_macro_that_another_profile_plays_keeps_its_names(ui: Ui):
    post = ui.store.profiles["orrery-post"]
    commands.attach(ui.store, post, "Counter", "KEY_F7", ui.store.macros["haul-the-net"])
    dialog = opened(ui)
    type_into(dialog, 1, 0, "Heave")
    assert game_key("Haul") in {step.control for step in ui.store.macros["haul-the-net"].loop if isinstance(step, Tap)}
    dialog.accept()


def test_keys_go_out_and_come_in_as_csv(ui: Ui, tmp_path: Path):
    dialog, path = opened(ui), tmp_path / "keys.csv"
    dialog.write(path)
    assert path.read_bytes().splitlines()[:2] == [b"name,control", b"Cast,C"]
    path.write_text("name,control\nHaul,T\nSing,Left Shift\n")
    dialog.read(path)
    assert keys(ui)["Haul"] == "KEY_T"
    assert keys(ui)["Sing"] == "KEY_LEFTSHIFT"
    assert keys(ui)["Cast"] == "KEY_C"
    path.write_text("Haul,T,3\n")
    dialog.read(path)
    assert dialog._message.text() == "keys.csv: line 1: expected a name and a key, found 3 fields."
    dialog.accept()


def test_a_missing_key_is_told_in_the_sheet_and_in_the_checks(ui: Ui):
    profile = ui.store.profiles["tidewardens"]
    commands.set_keys(ui.store, profile, tuple(key for key in profile.keys if key.name != "Haul"))
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")
    ui.window.shown.show_setup("Netter")
    ui.window.shown.show_control("BTN_SIDE")
    assert "no game key “Haul”" in ui.window.sheet_details._beyond.text()
    ui.window.shown.show_macro("haul-the-net")
    ui.wait(lambda: "Tidewardens has no game key “Haul”" in checks_shown(ui), "the finding")


def test_game_keys_stand_among_the_controls(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_macro("reel-in")
    field = ui.window.macro.add_step.control
    assert field.itemText(0) == '"Cast"'
    ui.window.shown.show_page("sheet")
    ui.window.sheet.show_control(THUMB_1)
    ui.window.sheet.open_field()
    offers = ui.window.sheet.assign.field.list
    texts = offers.texts()
    assert texts[texts.index("Keys and buttons") + 1] == "“Cast”"
    free = texts.index("F13")
    assert offers.offer(free).soft == "not used by the game"


def test_keys_that_the_game_leaves_free_are_offered_for_a_step(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_macro("reel-in")
    step = ui.window.macro.add_step
    offered = [step.control.itemText(n) for n in range(6, 18)]
    assert offered[0] == "F13  (not used by the game)"
    step.control.setCurrentIndex(6)
    step.add()
    assert any(each == Tap(control="KEY_F13", hold_us=50_000) for each in ui.store.macros["reel-in"].loop)
    # One control stands there once.
    codes = [step.control.itemData(n) for n in range(step.control.count())]
    assert len(codes) == len(set(codes))
