"""What is typed and understood is taken; what is not is said beside the field, and says nothing of anything else."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, QRect, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from nakrel.core.model.cells import ToControl, TypeText
from nakrel.core.model.controls import label
from nakrel.core.model.macro import Macro
from nakrel.core.model.names import name_of, read_control
from nakrel.core.model.profile import GameKey
from nakrel.core.model.steps import Origin, Pointer, Tap, Wait
from nakrel.ui import commands
from nakrel.ui.sheet.model import PLAIN
from tests.ui.conftest import Ui, assign

CTRL = Qt.KeyboardModifier.ControlModifier
THUMB_3 = "BTN_TRIGGER_HAPPY3"


def acts_as(ui: Ui, text: str) -> None:
    """Type into the field of what Thumb 3 acts as, and press Enter."""
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")
    ui.window.sheet.show_control(THUMB_3)
    assign(ui, text)


def cell(ui: Ui) -> object:
    return ui.store.profiles["tidewardens"].setups[0].cells.get(THUMB_3)


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("Calculator", "KEY_CALC"),
        ("R", "KEY_R"),
        ("r", "KEY_R"),
        ("Space", "KEY_SPACE"),
        ("Left", "BTN_LEFT"),
        ("Left arrow", "KEY_LEFT"),
        ("KEY_F13", "KEY_F13"),
    ],
)
def test_a_name_that_is_typed_in_full_is_taken_on_enter(ui: Ui, text: str, code: str):
    acts_as(ui, text)
    assert cell(ui) == ToControl(code)
    assert ui.window.sheet_details._error.isHidden()


def test_what_is_no_name_is_a_text_and_nothing_is_dropped(ui: Ui):
    acts_as(ui, "Frobnicator")
    assert cell(ui) == TypeText("Frobnicator")
    ui.undo()
    # Esc leaves everything as it is.
    before = ui.store.profiles["tidewardens"]
    ui.window.sheet.open_field()
    field = ui.window.sheet.assign.field
    QTest.keyClicks(field.line, "r")
    QTest.keyClick(field.line, Qt.Key.Key_Escape)
    assert not field.isVisible()
    assert ui.store.profiles["tidewardens"] == before


def test_a_profiles_game_keys_are_found_by_their_names(ui: Ui):
    profile = ui.store.profiles["tidewardens"]
    commands.set_keys(ui.store, profile, (GameKey("Grenade", "KEY_G"), GameKey("Reload", "KEY_H")))
    acts_as(ui, "grena")
    assert cell(ui) == ToControl("GAME:Grenade")


@pytest.mark.parametrize("code", ["BTN_LEFT", "BTN_RIGHT", "KEY_LEFT", "KEY_UP", "KEY_DOWN", "KEY_RIGHT"])
def test_the_windows_own_labels_are_read_and_those_of_earlier_texts_too(code: str):
    assert read_control(name_of(code)) == code
    direction = code.removeprefix("BTN_").removeprefix("KEY_").capitalize()
    if direction in ("Left", "Right"):
        assert read_control(f"{direction} {'button' if code.startswith('BTN') else 'key'}") == code
        assert read_control(direction) == f"BTN_{direction.upper()}"
    else:
        assert read_control(direction) == code


def adding(ui: Ui, kind: str, text: str) -> Macro:
    ui.window.shown.show_macro("reel-in")
    page = ui.window.macro
    page.select([len(ui.store.macros["reel-in"].lead_in)])
    page.add_step.kind.setCurrentText(kind)
    field = page.add_step.typed if page.add_step.typed.isVisible() else page.add_step.time
    field.setFocus()
    field.clear()
    QTest.keyClicks(field, text)
    page.add_step.add_button.click()
    return ui.store.macros["reel-in"]


@pytest.mark.parametrize(
    ("kind", "text", "step"),
    [
        ("random wait", "200-600", Wait(wait_us=200_000, most_us=600_000)),
        ("random wait", "0.2s to 0.6s", Wait(wait_us=200_000, most_us=600_000)),
        ("random wait", "2f@60 - 4f@60", Wait(wait_us=33_333, most_us=66_667)),
        ("pointer", "by 10, -5", Pointer(x=10, y=-5, origin=Origin.POINTER)),
        ("pointer", "640, 400", Pointer(x=640, y=400)),
        ("pointer", "to 640, 400", Pointer(x=640, y=400)),
        ("wait", "0.4s", Wait(wait_us=400_000)),
        ("tap", "80", Tap(control="KEY_Q", hold_us=80_000)),
    ],
)
def test_steps_are_added_as_they_are_typed(ui: Ui, kind: str, text: str, step: object):
    before = ui.store.macros["reel-in"]
    after = adding(ui, kind, text)
    new = [each for each in after.loop if each not in before.loop]
    assert new == [step]


@pytest.mark.parametrize(
    ("kind", "text"), [("random wait", "200"), ("random wait", "soon"), ("wait", "200-600"), ("tap", "x")]
)
def test_a_step_that_is_not_understood_is_said_and_not_added(ui: Ui, kind: str, text: str):
    before = ui.store.macros["reel-in"]
    assert adding(ui, kind, text) == before
    assert ui.window.macro.add_step._message.isVisible()


def test_a_message_goes_with_what_it_speaks_of(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_macro("reel-in")
    ui.window.macro_details._captured("BTN_TRIGGER_HAPPY12")
    message = ui.window.macro_details._message
    assert "plays it now in Tidewardens" in message.text()
    # It is no longer so once that is undone.
    ui.undo()
    assert message.text() == ""
    ui.redo()
    ui.window.macro_details._captured("BTN_TRIGGER_HAPPY12")
    ui.window.shown.show_macro("cast-far")
    assert message.text() == ""
    ui.window.shown.show_macro("reel-in")
    model = ui.window.macro.model
    assert not model.setData(model.index(3, 3), "soon")
    assert "'soon' is not a time" in ui.window.messages.text.full_text
    ui.window.shown.show_macro("cast-far")
    assert not ui.window.messages.text.full_text
    # What the service says is of no macro, and stays.
    ui.store.alarm.emit("The disk is full.")
    ui.window.shown.show_macro("reel-in")
    assert ui.window.messages.text.full_text == "The disk is full."


def test_a_click_on_any_row_chooses_that_row_and_moves_nothing(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    sheet = ui.window.sheet
    ground = sheet.table.viewport()
    assert ground
    for number, device in enumerate(ui.store.devices):
        sheet.device.setCurrentIndex(number)
        codes = [row.code for row in sheet.model._rows]
        # What buttons of other devices do stands at the end.
        assert set(codes[-2:]) - set(device.controls) or device.name == "Bollard keyboard"
        for row in (0, 3, len(codes) - 3, len(codes) - 2, len(codes) - 1):
            cell = sheet.model.index(row, PLAIN)
            sheet.table.scrollTo(cell)
            QTest.mouseClick(ground, Qt.MouseButton.LeftButton, pos=sheet.table.visualRect(cell).center())
            assert [each.code for each in sheet.model._rows] == codes
            assert sheet.table.currentIndex().row() == row
            assert (sheet.device.currentIndex(), ui.window.shown.control) == (number, codes[row])
            assert ui.window.sheet_details._title.text() == label(codes[row])


def test_a_row_that_has_come_stays_as_long_as_its_list_is_shown(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    sheet, model = ui.window.sheet, ui.window.sheet.model

    def codes() -> list[str]:
        return [row.code for row in model._rows]

    # What another device's button does is taken away: its row stays, and the next press of Del takes nothing else.
    assert codes()[-3] == "KEY_CAPSLOCK"
    sheet.table.setCurrentIndex(model.index(len(codes()) - 3, PLAIN))
    before, cells = codes(), dict(ui.store.profiles["tidewardens"].setups[0].cells)
    for _ in range(2):
        QTest.keyClick(sheet.table, Qt.Key.Key_Delete)
    assert codes() == before
    assert ui.window.shown.control == "KEY_CAPSLOCK"
    del cells["KEY_CAPSLOCK"]
    assert ui.store.profiles["tidewardens"].setups[0].cells == cells
    # In another list it has none.
    ui.window.shown.show_profile("everyday")
    ui.window.shown.show_profile("tidewardens")
    assert "KEY_CAPSLOCK" not in codes()
    # A key that hardly any keyboard has comes when it is pressed, and is there when another row is chosen.
    keyboard = next(each for each in ui.store.devices if each.name == "Bollard keyboard")
    sheet.device.setCurrentIndex(ui.store.devices.index(keyboard))
    folded = next(code for code in keyboard.controls if code not in codes())
    sheet.show_control(folded)
    model.refresh()
    before = codes()
    assert folded in before
    sheet.show_control("KEY_Q")
    model.refresh()
    assert codes() == before
    model.show_more(True)
    assert len(codes()) > len(before)
    model.show_more(False)
    assert folded not in codes()


def test_a_double_click_on_a_row_of_which_half_is_seen_opens_its_field(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    sheet = ui.window.sheet
    sheet.device.setCurrentIndex([each.name for each in ui.store.devices].index("Bollard keyboard"))
    QApplication.processEvents()
    ground = sheet.table.viewport()
    assert ground
    last = sheet.table.indexAt(QPoint(200, ground.height() - 1))
    place = sheet.table.visualRect(last)
    # Half of it has to be out of sight for this.
    sheet.table.setFixedHeight(sheet.table.height() - (place.bottom() - ground.height()) - place.height() // 2)
    QApplication.processEvents()
    last = sheet.table.indexAt(QPoint(200, ground.height() - 4))
    place = sheet.table.visualRect(last)
    assert place.top() < ground.height() - 4 < place.bottom()
    spot = QPoint(sheet.table.columnViewportPosition(PLAIN) + 100, ground.height() - 4)
    QTest.mouseClick(ground, Qt.MouseButton.LeftButton, pos=spot)
    assert sheet.table.visualRect(last) == place
    QTest.mouseDClick(ground, Qt.MouseButton.LeftButton, pos=spot)
    field = sheet.assign.field
    assert field.isVisible()
    assert label(sheet.model._rows[last.row()].code) in field.line.placeholderText()
    assert sheet.rect().contains(field.geometry())


def test_a_row_that_is_taken_out_of_several_leaves_the_other_as_the_one_that_is_told_of(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    sheet = ui.window.sheet
    ground = sheet.table.viewport()
    assert ground
    codes = [row.code for row in sheet.model._rows]
    for row, held in ((2, Qt.KeyboardModifier.NoModifier), (4, CTRL), (4, CTRL)):
        spot = sheet.table.visualRect(sheet.model.index(row, PLAIN)).center()
        QTest.mouseClick(ground, Qt.MouseButton.LeftButton, held, spot)
    assert {each.row() for each in sheet.table.selectedIndexes()} == {2}
    assert ui.window.shown.control == codes[2]
    assert ui.window.sheet_details._title.text() == label(codes[2])


@pytest.mark.parametrize("at", [0.1, 0.5, 0.9, 1])
@pytest.mark.parametrize("device", ["Bollard", "Halyard"])
def test_a_field_has_room_for_its_list_and_no_row_moves(ui: Ui, device: str, at: float):
    ui.window.shown.show_profile("tidewardens")
    sheet = ui.window.sheet
    sheet.device.setCurrentIndex([each.name.split()[0] for each in ui.store.devices].index(device))
    row, ground = round(at * (sheet.model.rowCount() - 1)), sheet.table.viewport()
    assert ground
    cell = sheet.model.index(row, PLAIN)
    sheet.table.setCurrentIndex(cell)
    sheet.table.scrollTo(cell)
    before = ground.rect(), sheet.table.visualRect(cell)
    sheet.open_field()
    field = sheet.assign.field
    assert (ground.rect(), sheet.table.visualRect(cell)) == before
    assert field.height() > 170
    assert sheet.rect().contains(field.geometry())
    # What is typed stands in the cell, the list beneath it or above.
    where = field.line.mapTo(sheet, field.line.rect().center())
    assert QRect(ground.mapTo(sheet, before[1].topLeft()), before[1].size()).adjusted(0, 0, 500, 2).contains(where)
    # A click on another row chooses that one.
    other = sheet.model.index(max(0, row - 3), PLAIN)
    QTest.mouseClick(
        ground, Qt.MouseButton.LeftButton, pos=sheet.table.visualRect(other).bottomLeft() + QPoint(-60, -3)
    )
    assert not field.isVisible()
    assert sheet.table.currentIndex().row() == other.row()
    assert sheet.table.visualRect(cell) == before[1]
