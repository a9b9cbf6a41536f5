"""The profile's pointer: its pointer speeds, and the buttons that change them."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from nakrel import protocol as m
from nakrel.core.model.cells import ChangeSpeed
from nakrel.core.model.conditioning import Pointing, SpeedStage
from nakrel.ui import commands
from nakrel.ui.sheet.pointer import PointerDialog, read_percent
from tests.ui.conftest import Ui, assign, type_into


def opened(ui: Ui, profile: str = "brackenfall-arena") -> PointerDialog:
    ui.window.shown.show_profile(profile)
    ui.window.shown.show_page("sheet")
    details = ui.window.profile_details
    details.open_pointer()
    assert details.pointer_dialog is not None
    return details.pointer_dialog


def pointer(ui: Ui, profile: str = "brackenfall-arena") -> Pointing:
    return ui.store.profiles[profile].pointer


def cells(ui: Ui) -> dict:
    return ui.store.profiles["brackenfall-arena"].setups[0].cells


def test_speeds_are_read_as_people_write_them():
    assert [read_percent(text) for text in ("40", "40 %", " 40%", "0.4x", "1,5×")] == [40, 40, 40, 40, 150]


def test_a_first_speed_is_made_at_the_button_that_holds_it(ui: Ui):
    """From nothing: the field makes one, the dialog says how fast it is, and a wheel direction can't hold it."""
    ui.window.shown.show_profile("orrery-post")
    ui.window.shown.show_page("sheet")
    ui.window.sheet.show_control("BTN_SIDE")
    assign(ui, "Slow", "new pointer speed “Slow”…")
    cell = ui.store.profiles["orrery-post"].setups[0].cells["BTN_SIDE"]
    assert cell == ChangeSpeed("Slow", held=True)
    # What the pointer has at first stays the device's own.
    assert pointer(ui, "orrery-post").stages == (SpeedStage("Normal"), SpeedStage("Slow", 50, 50))
    dialog = ui.window.profile_details.pointer_dialog
    assert dialog is not None
    type_into(dialog, 1, 1, "40")
    assert pointer(ui, "orrery-post").stages[1] == SpeedStage("Slow", 40, 50)
    assert dialog._route_note.text().startswith("No effect yet: this needs kernel input")
    dialog.accept()
    row = ui.window.sheet.model.row_of("BTN_SIDE")
    assert "pointer: Slow while held" in [ui.window.sheet.model.drawn(row, column).text for column in range(3)]
    assert ui.window.sheet_details.settings.held.isChecked()
    ui.window.sheet_details.settings.held.click()
    assert ui.store.profiles["orrery-post"].setups[0].cells["BTN_SIDE"] == ChangeSpeed("Slow")
    ui.window.sheet.show_control("WHEEL_UP")
    assign(ui, "slow", "speed Slow")
    assert ui.store.profiles["orrery-post"].setups[0].cells["WHEEL_UP"] == ChangeSpeed("Slow")
    assert not ui.window.sheet_details.settings.held.isVisible()


def test_stages_are_typed_renamed_moved_and_deleted_and_buttons_follow(ui: Ui):
    dialog = opened(ui)
    type_into(dialog, 1, 1, "2x")
    assert pointer(ui).stages[1] == SpeedStage("Turn", 200, 100)
    type_into(dialog, 1, 1, "fast")
    assert "is no speed" in dialog._message.text()
    type_into(dialog, 2, 0, "Steady")
    assert pointer(ui).stages[2].name == "Steady"
    assert cells(ui)["BTN_BACK"] == ChangeSpeed("Steady", held=True)
    ui.wait(lambda: dialog.model.index(2, 0).data() == "Steady", "the new name in the list")
    type_into(dialog, 2, 0, "Turn")
    assert "two pointer speeds named 'Turn'" in dialog._message.text()
    dialog.table.setFocus()
    dialog.table.setCurrentIndex(dialog.model.index(2, 0))
    QTest.keyClick(dialog.table, Qt.Key.Key_Up, Qt.KeyboardModifier.AltModifier)
    assert [stage.name for stage in pointer(ui).stages] == ["Walk", "Steady", "Turn"]
    ui.wait(lambda: dialog.model.index(1, 0).data() == "Steady", "the new order in the list")
    dialog.table.selectRow(1)
    QTest.keyClick(dialog.table, Qt.Key.Key_Delete)
    assert [stage.name for stage in pointer(ui).stages] == ["Walk", "Turn"]
    assert "BTN_BACK" not in cells(ui)
    assert "BTN_FORWARD" in cells(ui)
    for _ in range(4):
        ui.undo()
    assert cells(ui)["BTN_BACK"] == ChangeSpeed("Aim", held=True)
    assert pointer(ui).stages[1:] == (SpeedStage("Turn", 160, 100), SpeedStage("Aim", 45, 45))


def test_wheel_and_straight_lines_are_set_and_undone(ui: Ui):
    dialog = opened(ui)
    dialog.wheel.setValue(150)
    dialog.straight.setValue(8)
    assert (pointer(ui).wheel, pointer(ui).straight) == (150, 8)
    ui.undo()
    assert pointer(ui).straight == 0
    ui.wait(lambda: dialog.straight.value() == 0, "the field as it was")


def test_the_stage_in_use_is_shown_where_the_profile_is_live(ui: Ui):
    dialog = opened(ui)
    ui.store.pin("brackenfall-arena")
    ui.wait(lambda: ui.store.status.stage == "Walk", "the first stage")
    press = lambda code, value: ui.store.ask(m.PressStandIn("standin:halyard-12", code, value))  # noqa: E731
    press("BTN_FORWARD", 1)
    press("BTN_FORWARD", 0)
    ui.wait(lambda: ui.store.status.stage == "Turn", "the next stage")
    ui.wait(lambda: dialog.model.index(1, 3).data() == "now", "the stage in the dialog")
    assert ui.window.strip._head.text().endswith("pointer: Turn")
    type_into(dialog, 1, 0, "Swing")
    ui.wait(lambda: ui.store.status.stage == "Swing", "the stage under its new name")
    dialog.move_stage(-1)
    ui.undo()
    ui.undo()
    ui.wait(lambda: ui.store.status.stage == "Turn", "the old name again")
    press("BTN_BACK", 1)
    ui.wait(lambda: ui.store.status.stage == "Aim", "the held stage")
    press("BTN_BACK", 0)
    ui.wait(lambda: ui.store.status.stage == "Turn", "the stage before")
    press("BTN_BACK", 1)
    ui.wait(lambda: ui.store.status.stage == "Aim", "held again")
    # Another profile goes live while the button is down: nothing of it is left.
    ui.store.pin("tidewardens")
    ui.wait(lambda: ui.store.status.live == "tidewardens", "the switch")
    ui.store.pin("brackenfall-arena")
    ui.wait(lambda: ui.store.status.live == "brackenfall-arena", "the switch back")
    assert ui.store.status.stage == "Turn"
    press("BTN_BACK", 0)


def test_a_button_for_a_stage_that_is_not_there_says_so(ui: Ui):
    ui.window.shown.show_profile("brackenfall-arena")
    profile = ui.store.profiles["brackenfall-arena"]
    commands.set_cell(ui.store, profile, "Duel", "BTN_EXTRA", ChangeSpeed("Sprint"))
    ui.window.shown.show_page("sheet")
    ui.window.shown.show_control("BTN_EXTRA")
    assert "has no pointer speed 'Sprint'" in ui.window.sheet_details._beyond.text()
