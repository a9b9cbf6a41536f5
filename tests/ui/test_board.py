"""The board: a second view of the same selection, worked by mouse, arrows and letters."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from nakrel import protocol as m
from nakrel.core.model.cells import RunMacro, ToControl
from nakrel.core.model.settings import SettingsPatch
from nakrel.ui import commands
from nakrel.ui.sheet.board import BoardView
from tests.ui.conftest import Ui

THUMB_3 = "BTN_TRIGGER_HAPPY3"
_NO_BUTTONS = Qt.KeyboardModifier.NoModifier


def board(ui: Ui, device: str = "Bollard keyboard") -> BoardView:
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")
    sheet = ui.window.sheet
    sheet.device.setCurrentIndex([d.name for d in ui.store.devices].index(device))
    sheet.view.buttons["board"].click()
    ui.window.activateWindow()
    ui.wait(sheet.board.isVisible, "the board")
    return sheet.board


def click(made: BoardView, code: str, *, twice: bool = False) -> None:
    place = next(each for each in made.board.places if each.code == code)
    spot = made.rect_of(place).center().toPoint()
    QTest.mouseClick(made, Qt.MouseButton.LeftButton, pos=spot)
    if twice:
        QTest.mouseDClick(made, Qt.MouseButton.LeftButton, pos=spot)


def test_list_and_board_are_two_views_of_one_selection(ui: Ui):
    made = board(ui)
    click(made, "KEY_F")
    assert ui.window.shown.control == "KEY_F"
    assert ui.window.sheet_details._title.text() == "F"
    ui.window.sheet.view.buttons["list"].click()
    assert ui.window.sheet.cells.chosen_codes() == ["KEY_F"]
    ui.window.sheet.show_control("KEY_G")
    ui.window.sheet.view.buttons["board"].click()
    assert ui.window.shown.control == "KEY_G"
    # What is shown is remembered.
    ui.window.shown.remember()
    ui.wait(lambda: ui.store.settings.shown.as_board, "the view to be remembered")


def test_a_field_that_is_open_is_never_taken_for_another_button(ui: Ui):
    made = board(ui)
    click(made, "KEY_S", twice=True)
    field = ui.window.sheet.assign.field
    QTest.keyClicks(field.line, "f13")
    before = dict(ui.store.profiles)
    # Another program deletes the profile: the window shows Everyday.
    ui.service.call(m.DeleteProfile("tidewardens"))
    ui.wait(lambda: "tidewardens" not in ui.store.profiles, "the profile to go")
    ui.wait(lambda: not field.isVisible(), "the field to go")
    QTest.keyClick(QApplication.focusWidget() or made, Qt.Key.Key_Return)
    assert ui.store.profiles["everyday"] == before["everyday"]


def test_arrows_go_by_place_and_letters_and_enter_open_the_field(ui: Ui):
    made = board(ui)
    click(made, "KEY_S")
    for key, code in (
        (Qt.Key.Key_Right, "KEY_D"),
        (Qt.Key.Key_Up, "KEY_E"),
        (Qt.Key.Key_Left, "KEY_W"),
        (Qt.Key.Key_Down, "KEY_S"),
    ):
        QTest.keyClick(made, key)
        assert ui.window.shown.control == code
    field = ui.window.sheet.assign.field
    QTest.keyClick(made, Qt.Key.Key_R)
    assert field.isVisible()
    assert field.line.text().casefold() == "r"
    QTest.keyClicks(field.line, "eel")
    QTest.keyClick(field.line, Qt.Key.Key_Return)
    cells = lambda: ui.store.profiles["tidewardens"].setups[0].cells  # noqa: E731
    assert cells()["KEY_S"] == RunMacro("reel-in")
    assert made.hasFocus()
    QTest.keyClick(made, Qt.Key.Key_Delete)
    assert "KEY_S" not in cells()
    click(made, "KEY_KP5", twice=True)
    assert field.isVisible()
    # It stays within the page, also at a key near the foot.
    assert field.geometry().bottom() <= ui.window.sheet.height()
    QTest.keyClick(field.line, Qt.Key.Key_Escape)
    assert not field.isVisible()


def test_pressed_keys_light_and_a_layer_shows_its_own(ui: Ui):
    made = board(ui, "Halyard 12 mouse")
    lit = lambda: THUMB_3 in ui.window.sheet.model.pressed  # noqa: E731
    for value in (1, 0):
        ui.service.call(m.PressStandIn("standin:halyard-12", THUMB_3, value))
        ui.wait(lambda v=value: lit() is bool(v), "the key to light and go dark")
    assert {place.code for place in made.board.places} >= {f"BTN_TRIGGER_HAPPY{n}" for n in range(1, 13)}
    click(made, "BTN_TRIGGER_HAPPY1")
    tabs = ui.window.sheet.layers
    tab = next(b for b in tabs.findChildren(type(ui.window.head.menu_button)) if b.text().startswith("Harbour"))
    tab.click()
    assert (ui.window.shown.control, ui.window.shown.layer) == ("BTN_TRIGGER_HAPPY1", "Harbour")
    assert ui.window.sheet_details.does.text() == "Left Ctrl + M"


def test_legends_are_those_of_the_layout_in_use(ui: Ui):
    made = board(ui)
    ui.wait(lambda: made.legend("KEY_Y") == "Y", "the legends")
    commands.change_settings(ui.store, "layout", SettingsPatch(layout="de"))
    # xkeyboard-config, symbols/de: where the US layout has Y and semicolon are Z and ö.
    ui.wait(lambda: made.legend("KEY_Y") == "Z", "the German legends")
    assert made.legend("KEY_SEMICOLON") == "Ö"
    assert made.legend("KEY_LEFTSHIFT") == "Shift"
    commands.change_settings(ui.store, "layout", SettingsPatch(layout="fr"))
    # symbols/fr: the digits come with Shift.
    ui.wait(lambda: made.legend("KEY_Q") == "A", "the French legends")
    assert [made.legend(code) for code in ("KEY_1", "KEY_0", "KEY_MINUS", "KEY_M")] == ["1", "0", ")", ","]


def test_keys_that_nobody_has_are_folded_away_and_found_all_the_same(ui: Ui):
    board(ui)
    sheet = ui.window.sheet
    sheet.view.buttons["list"].click()
    few = sheet.model.size()
    assert sheet.model.row_of("KEY_HIRAGANA") < 0
    assert sheet.more_button.text().startswith("More keys (")
    sheet.more_button.click()
    assert sheet.model.size() > few
    assert sheet.model.row_of("KEY_HIRAGANA") >= 0
    sheet.more_button.click()
    assert sheet.model.size() == few
    # By the search, and where it does something, it is there anyway.
    sheet.search.setText("hiragana")
    assert sheet.model.row_of("KEY_HIRAGANA") >= 0
    sheet.search.clear()
    profile = ui.store.profiles["tidewardens"]
    commands.set_cell(ui.store, profile, "Healer", "KEY_HIRAGANA", ToControl("KEY_A"))
    assert sheet.model.row_of("KEY_HIRAGANA") >= 0


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (1024, 768), (960, 600)])
def test_every_key_is_within_the_page_at_the_usual_sizes(ui: Ui, width: int, height: int):
    made = board(ui)
    ui.window.resize(width, height)
    ui.wait(lambda: ui.window.height() == height, "the size")
    right = max(made.rect_of(place).right() for place in made.board.places)
    assert right <= made.width() + 1 or made.width() < 15 * 30
