"""A second keyboard, whose keys are apart from the first's: where that is offered, and what it does."""

from __future__ import annotations

import msgspec

from nakrel.core.model.board import board_of
from nakrel.core.model.cells import Cell, TypeText
from nakrel.core.model.controls import second
from nakrel.core.model.devices import Device
from nakrel.core.model.profile import EVERYDAY, SetUp
from nakrel.ui import commands
from nakrel.ui.devices.second_keyboards import may_be_second
from nakrel.ui.sheet.model import CODE
from tests.ui.conftest import Ui

KEYS = tuple(f"KEY_{key}" for key in (*"QWERTYUIOPASDFGHJKLZXCVBNM1234567890", "ESC", "PLAYPAUSE", "LEFTSHIFT"))
BOLLARD = Device("kernel:usb-2", "Bollard", KEYS, "kernel")
ROOK = Device("kernel:usb-3", "Rook", KEYS, "kernel")
APART = msgspec.structs.replace(ROOK, controls=tuple(map(second, KEYS)))
PAD = Device("kernel:usb-4", "Tally", ("KEY_NUMLOCK", "KEY_KP1"), "kernel")
MOUSE = Device("kernel:usb-1", "Halyard", ("BTN_LEFT", *KEYS), "kernel")
LAMP = Device("kernel:usb-5", "Lamp", ("KEY_PLAYPAUSE",), "kernel")


def attached(ui: Ui, **cells: Cell) -> None:
    setup = SetUp("Main", cells)
    commands.edit_profile(ui.store, "buttons", msgspec.structs.replace(ui.store.profiles[EVERYDAY], setups=(setup,)))
    ui.window.shown.show_profile(EVERYDAY)


def test_it_is_offered_at_keyboards_that_can_be_told_from_another(ui: Ui):
    def offered(*devices: Device) -> list[str]:
        ui.store.devices = devices
        return [device.name for device in devices if may_be_second(ui.store, device)]

    assert offered(BOLLARD, MOUSE, LAMP) == []
    assert offered(BOLLARD, PAD, MOUSE, LAMP) == ["Bollard", "Tally"]
    assert offered(BOLLARD, ROOK, msgspec.structs.replace(ROOK, id="kernel:usb-9")) == ["Bollard"]
    assert offered(*(each for each in ui.store.devices if each.standin), BOLLARD) == []


def test_chosen_there_it_is_a_setting_that_can_be_taken_back(ui: Ui):
    ui.store.devices = (BOLLARD, ROOK)
    ui.window.shown.show_page("devices")
    ui.window.devices._show_devices()
    ui.window.devices.second_keyboards["Rook"].click()
    assert ui.store.settings.second_keyboards == ("Rook",)
    # It stays to be turned off when it is the only keyboard that is there.
    ui.store.devices = (APART,)
    assert may_be_second(ui.store, APART)
    ui.undo()
    assert ui.store.settings.second_keyboards == ()


def test_its_keys_are_listed_and_lie_on_the_board_as_the_first_ones_do(ui: Ui):
    places = {place.code: place[1:] for place in board_of(KEYS).places}
    apart = board_of(APART.controls)
    assert {place.code: place[1:] for place in apart.places} == {second(code): at for code, at in places.items()}
    assert apart.more == (second("KEY_PLAYPAUSE"),)
    ui.store.devices = (BOLLARD, APART)
    ui.store.devices_changed.emit()
    ui.window.shown.show_page("sheet")
    page = ui.window.sheet
    page.device.setCurrentIndex(1)
    codes = [page.model.index(row, 0).data(CODE) for row in range(page.model.rowCount())]
    assert {second("KEY_Q"), second("KEY_ESC")} <= set(codes)
    assert "KEY_Q" not in codes
    attached(ui, **{second("KEY_Q"): TypeText("apart")})
    row = page.model.row_of(second("KEY_Q"))
    assert [page.model.index(row, column).data() for column in (1, 2)] == ["Q (2nd)", "types “apart”"]
    page.show_view("board")
    assert page.board.legend(second("KEY_Q")) == "Q"


def test_what_a_key_does_is_moved_to_the_second_keyboards(ui: Ui):
    ui.store.devices = (BOLLARD, APART)
    attached(ui, KEY_Q=TypeText("one"), KEY_W=TypeText("two"))
    ui.window.shown.show_page("sheet")
    ui.window.shown.show_control("KEY_Q")
    details = ui.window.sheet_details
    details.refresh()
    assert "Rook" in details.of_device.text()
    details.move_button.click()
    assert ui.window.shown.control == second("KEY_Q")
    assert not details.move_button.isVisible()
    assert ui.store.profiles[EVERYDAY].setups[0].cells == {second("KEY_Q"): TypeText("one"), "KEY_W": TypeText("two")}
    ui.undo()
    assert ui.store.profiles[EVERYDAY].setups[0].cells["KEY_Q"] == TypeText("one")


def test_under_x_the_keys_of_a_mouse_are_no_keyboard(ui: Ui):
    mouse, keys = Device("x11:8", "Halyard", ("BTN_LEFT",), "X11"), Device("x11:9", "Halyard Keyboard", KEYS, "X11")
    keys = msgspec.structs.replace(keys, controls=(*KEYS, "KEY_KP1", "KEY_A"))
    ui.store.devices = (mouse, keys, BOLLARD, ROOK)
    assert [each.name for each in ui.store.devices if may_be_second(ui.store, each)] == ["Bollard", "Rook"]
