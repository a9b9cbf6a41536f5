"""Layers as columns of the sheet, and cells of every kind in the details."""

from __future__ import annotations

import msgspec
import pytest
from PyQt6.QtCore import QMimeData, Qt
from PyQt6.QtTest import QTest

from nakrel import protocol as m
from nakrel.core.model.cells import Cell, HoldLayer, RunMacro, StartProgram, ToChord, ToControl, TypeText
from nakrel.core.model.profile import EVERYDAY, SetUp
from nakrel.core.model.steps import Press, Tap
from nakrel.ui import commands
from nakrel.ui.dragged import MACRO_MIME
from tests.ui.conftest import Ui, assign

THUMB_1, THUMB_11 = "BTN_TRIGGER_HAPPY1", "BTN_TRIGGER_HAPPY11"


def sheet(ui: Ui) -> SetUp:
    return ui.store.profiles["tidewardens"].setups[0]


def shown(ui: Ui, control: str, layer: str = ""):
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")
    ui.window.sheet.show_control(control)
    ui.window.shown.show_control(control, layer)
    return ui.window.sheet_details


@pytest.mark.parametrize(
    ("typed", "cell"),
    [
        ("Left Ctrl + C", ToChord(("KEY_LEFTCTRL", "KEY_C"))),
        ('"Good tide!"', TypeText("Good tide!")),
        ("open tide-map --chart 'north sea'", StartProgram(("tide-map", "--chart", "north sea"))),
    ],
)
def test_what_is_typed_at_a_cell_is_what_its_button_does(ui: Ui, typed: str, cell: Cell):
    shown(ui, THUMB_11)
    assign(ui, typed)
    assert sheet(ui).cells[THUMB_11] == cell
    ui.undo()
    assert THUMB_11 not in sheet(ui).cells


def test_a_program_is_typed_anew_in_the_details_and_what_is_wrong_with_it_is_said(ui: Ui):
    details = shown(ui, THUMB_11)
    assign(ui, "open tide-map")
    settings = details.settings
    ui.wait(settings.missing.isVisible, "the program to be missed")
    assert "tide-map" in settings.missing.text()
    for words, reason in (('tide "map', "quot"), ("  ", "program")):
        settings.command.setFocus()
        settings.command.selectAll()
        QTest.keyClicks(settings.command, words)
        QTest.keyClick(settings.command, Qt.Key.Key_Return)
        assert reason in details._error.text()
    assert sheet(ui).cells[THUMB_11] == StartProgram(("tide-map",))
    settings.command.selectAll()
    QTest.keyClicks(settings.command, "true --now")
    QTest.keyClick(settings.command, Qt.Key.Key_Return)
    assert sheet(ui).cells[THUMB_11] == StartProgram(("true", "--now"))


@pytest.mark.qt_log_ignore("This plugin does not support")
def test_a_layer_is_made_held_filled_renamed_and_deleted(ui: Ui):
    details, model = shown(ui, "BTN_EXTRA"), ui.window.sheet.model
    assign(ui, "", "new layer, held by this button")
    assert sheet(ui).cells["BTN_EXTRA"] == HoldLayer("Thumb forward held")
    column = model.column_of("Thumb forward held")
    assert model.headerData(column, Qt.Orientation.Horizontal) == "while Thumb forward is held"
    name = details.settings.layer_name
    name.setFocus()
    name.selectAll()
    QTest.keyClicks(name, "Deep")
    QTest.keyClick(name, Qt.Key.Key_Return)
    assert model.headerData(column, Qt.Orientation.Horizontal) == "Deep · while Thumb forward is held"
    assert sheet(ui).cells["BTN_EXTRA"] == HoldLayer("Deep")

    data = QMimeData()
    data.setData(MACRO_MIME, b"cast-far")
    target = model.index(model.row_of(THUMB_1), column)
    assert target.data() == "as in base"
    assert model.dropMimeData(data, Qt.DropAction.CopyAction, -1, -1, target)
    assert sheet(ui).of_layer("Deep") == {THUMB_1: RunMacro("cast-far")}
    assert model.index(model.row_of(THUMB_1), column).data() == "Cast far"

    ui.window.sheet.table.setCurrentIndex(model.index(model.row_of(THUMB_1), column))
    assert ui.window.shown.layer == "Deep"
    assert details._title.text() == "Thumb 1, while Thumb forward is held"
    ui.window.sheet.cells.clear()
    assert sheet(ui).of_layer("Deep") == {}

    shown(ui, "BTN_EXTRA")
    details.settings.delete_layer.click()
    assert [layer.name for layer in sheet(ui).layers] == ["Harbour"]
    assert "BTN_EXTRA" not in sheet(ui).cells
    while ui.store.undo_stack.canUndo():
        ui.undo()
    assert [layer.name for layer in sheet(ui).layers] == ["Harbour"]


def test_a_macro_of_a_layer_is_found_and_deleted_with_its_macro(ui: Ui):
    from nakrel.ui import commands

    profile = ui.store.profiles["tidewardens"]
    name = commands.new_layer(ui.store, profile, "Healer")
    commands.set_cell(ui.store, ui.store.profiles["tidewardens"], "Healer", THUMB_1, RunMacro("hop-step"), name)
    ui.window.shown.show_macro("hop-step")
    assert f"Thumb 1 with {name} (Tidewardens, Healer)" in ui.window.head.attached_words()
    ui.window.sheet.search.setText("hop step")
    ui.window.shown.show_profile("tidewardens")
    assert ui.window.sheet.model.row_of(THUMB_1) == 0
    commands.delete_macro(ui.store, ui.store.macros["hop-step"])
    assert sheet(ui).of_layer(name) == {}
    ui.undo()
    assert sheet(ui).of_layer(name) == {THUMB_1: RunMacro("hop-step")}


def test_the_thumb_buttons_do_their_second_things_while_the_layer_is_held(ui: Ui):
    from nakrel.ui import commands

    name = commands.new_layer(ui.store, ui.store.profiles["tidewardens"], "Healer")
    for code, cell, layer in (
        ("BTN_TRIGGER_HAPPY12", HoldLayer(name), ""),
        (THUMB_1, ToChord(("KEY_LEFTCTRL", "KEY_M")), name),
        ("BTN_TRIGGER_HAPPY2", RunMacro("hop-step"), name),
    ):
        assert commands.set_cell(ui.store, ui.store.profiles["tidewardens"], "Healer", code, cell, layer) == ""
    ui.store.pin("tidewardens")
    ui.wait(lambda: ui.store.status.live == "tidewardens", "the profile to be live")
    seen: list[tuple[str, int]] = []
    ui.store.seen.connect(lambda notice: seen.extend((e.control, e.value) for e in notice.events if e.by != "in"))
    mouse = next(each for each in ui.store.devices if "BTN_TRIGGER_HAPPY12" in each.controls)

    def press(code: str, value: int) -> None:
        ui.store.ask(m.PressStandIn(mouse.id, code, value))

    press(THUMB_1, 1)
    press(THUMB_1, 0)
    ui.wait(lambda: seen == [("KEY_R", 1), ("KEY_R", 0)], "what it does without the layer")
    seen.clear()
    press("BTN_TRIGGER_HAPPY12", 1)
    press(THUMB_1, 1)
    press(THUMB_1, 0)
    chord = [("KEY_LEFTCTRL", 1), ("KEY_M", 1), ("KEY_M", 0), ("KEY_LEFTCTRL", 0)]
    ui.wait(lambda: seen == chord, "what it does with it")
    press("BTN_TRIGGER_HAPPY2", 1)
    ui.wait(lambda: ui.store.status.running, "the macro of the layer")
    press("BTN_TRIGGER_HAPPY12", 0)
    ui.wait(lambda: not ui.store.status.running, "its end with the layer")
    press("BTN_TRIGGER_HAPPY2", 0)


def test_two_macros_that_would_fire_each_other_are_pointed_out_in_the_sheet(ui: Ui):
    ui.window.shown.show_profile("orrery-post")
    ui.window.shown.show_page("sheet")
    first = commands.new_macro(ui.store, "Bow")
    second = commands.new_macro(ui.store, "Stern")
    commands.edit_macro(ui.store, "steps", msgspec.structs.replace(first, loop=(Tap(control="KEY_F", hold_us=1_000),)))
    commands.edit_macro(ui.store, "steps", msgspec.structs.replace(second, loop=(Press(control="KEY_R"),)))
    for code, macro in (("KEY_R", first), ("KEY_F", second)):
        profile = ui.store.profiles["orrery-post"]
        commands.attach(ui.store, profile, "Counter", code, ui.store.macros[macro.id])
    ui.window.shown.show_control("KEY_R")
    told = ui.window.sheet_details._beyond.text()
    assert told.startswith("It presses F, which plays Stern, and that presses R again.")
    commands.edit_macro(ui.store, "steps", msgspec.structs.replace(second, loop=(Press(control="KEY_T"),)))
    ui.wait(lambda: not ui.window.sheet_details._beyond.text(), "the circle gone")


def test_a_key_that_is_typed_with_is_missed_in_everyday(ui: Ui):
    """People who try rapid fire on a letter lose that letter in every program."""
    ui.window.shown.show_page("sheet")
    kept = ui.window.sheet_details.kept
    for profile, code, cell, told in (
        (EVERYDAY, "KEY_V", TypeText("ahoy"), True),
        (EVERYDAY, "KEY_V", ToControl("KEY_B"), False),
        (EVERYDAY, "KEY_CAPSLOCK", TypeText("ahoy"), False),
        (EVERYDAY, "KEY_F9", TypeText("ahoy"), False),
        ("tidewardens", "KEY_V", TypeText("ahoy"), False),
    ):
        ui.window.shown.show_profile(profile)
        setup = ui.window.shown.setup
        assert setup
        assert not commands.set_cell(ui.store, ui.store.profiles[profile], setup.name, code, cell)
        ui.window.shown.show_control(code)
        ui.window.sheet_details.refresh()
        assert kept.isVisible() == told, (profile, code, cell)
    ui.window.shown.show_profile(EVERYDAY)
    ui.window.shown.show_control("KEY_N")
    assert not kept.isVisible()
