"""Mice that send number keys with their thumb buttons: where that is offered, and what it does."""

from __future__ import annotations

import time

import msgspec
import pytest
from PyQt6.QtWidgets import QCheckBox
from pytestqt.qtbot import QtBot

from nakrel import protocol as m
from nakrel.core.model.cells import Cell, HoldLayer, TypeText
from nakrel.core.model.devices import THUMB_KEYS, Device
from nakrel.core.model.profile import EVERYDAY, Layer, SetUp
from nakrel.ui import commands
from nakrel.ui.devices.thumb_keys import has_number_keys, mice_with_number_keys
from nakrel.ui.widgets.capture import Capture
from tests.ui.conftest import Ui

DIGITS = tuple(THUMB_KEYS)
KERNEL = Device("kernel:usb-1", "Halyard", ("BTN_LEFT", "WHEEL_UP", "KEY_A", *DIGITS), "kernel")
KEYBOARD = Device("kernel:usb-2", "Bollard", ("KEY_A", *DIGITS), "kernel")
X11 = (
    Device("x11:8:Halyard", "Halyard", ("BTN_LEFT", "WHEEL_UP"), "X11"),
    Device("x11:9:Halyard Keyboard", "Halyard Keyboard", ("KEY_A", *DIGITS), "X11"),
    Device("x11:11:Halyard Consumer Control", "Halyard Consumer Control", ("KEY_A", *DIGITS), "X11"),
    Device("x11:10:Bollard", "Bollard", ("KEY_A", *DIGITS), "X11"),
)


def box_of(ui: Ui) -> QCheckBox:
    """The one choice on the page of the devices."""
    ui.window.devices._show_devices()
    assert list(ui.window.devices.thumbs) == ["Halyard"]
    return ui.window.devices.thumbs["Halyard"]


@pytest.mark.parametrize("devices", [(KERNEL, KEYBOARD), X11], ids=["kernel", "x11"])
def test_it_is_offered_once_at_the_mouse(ui: Ui, devices: tuple[Device, ...]):
    ui.store.devices = devices
    ui.window.shown.show_page("devices")
    assert not box_of(ui).isChecked()
    box_of(ui).click()
    assert ui.store.settings.thumb_keys == ("Halyard",)
    assert box_of(ui).isChecked()
    ui.undo()
    assert ui.store.settings.thumb_keys == ()
    ui.redo()
    box_of(ui).click()
    assert ui.store.settings.thumb_keys == ()


def test_no_keyboard_and_no_simulated_device_is_taken_for_such_a_mouse(ui: Ui):
    with_mouse = Device("kernel:usb-3", "Bollard Gaming Keyboard", ("BTN_LEFT", "KEY_A", *DIGITS), "kernel")
    ui.store.devices = (KEYBOARD, with_mouse, *(device for device in ui.store.devices if device.standin))
    assert any("BTN_LEFT" in device.controls for device in ui.store.devices)
    assert not any(has_number_keys(ui.store, device) for device in ui.store.devices)
    assert mice_with_number_keys(ui.store) == []


def test_at_a_number_key_the_details_offer_it_and_go_on_with_the_thumb_button(ui: Ui):
    ui.store.devices = (KERNEL, KEYBOARD)
    ui.window.shown.show_page("sheet")
    details = ui.window.sheet_details
    ui.window.shown.show_control("KEY_A")
    assert not details.thumbs_button.isVisible()
    ui.window.shown.show_control("KEY_KP3")
    assert details.thumbs_button.isVisible()
    assert "Halyard" in details.of_device.text()
    details.thumbs_button.click()
    assert ui.store.settings.thumb_keys == ("Halyard",)
    assert ui.window.shown.control == "BTN_TRIGGER_HAPPY3"
    ui.window.shown.show_control("KEY_KP3")
    assert not details.thumbs_button.isVisible()


@pytest.mark.parametrize(("to_be_sent", "wanted"), [(True, "KEY_5"), (False, "BTN_TRIGGER_HAPPY5")])
def test_pressed_for_a_macro_to_press_it_is_the_key_that_it_sends(ui: Ui, qtbot: QtBot, to_be_sent: bool, wanted: str):
    capture, caught = Capture(ui.store, to_be_sent=to_be_sent), list[tuple[str, ...]]()
    qtbot.addWidget(capture)
    capture.caught.connect(caught.append)
    capture.arm()
    at_us = time.monotonic_ns() // 1_000 + 1_000
    edges = [m.SeenEvent("in", "BTN_TRIGGER_HAPPY5", value, at_us + value, "KEY_5") for value in (1, 0)]
    ui.store.seen.emit(m.Seen(tuple(edges)))
    assert caught == [(wanted,)]


def attached(ui: Ui, **cells: Cell) -> None:
    """What Everyday's buttons do, Far included, a layer."""
    far = Layer("Far", {"KEY_KP2": TypeText("far")})
    setup = SetUp("Main", {**cells, "KEY_Q": HoldLayer("Far")}, (far,))
    commands.edit_profile(ui.store, "buttons", msgspec.structs.replace(ui.store.profiles[EVERYDAY], setups=(setup,)))
    ui.window.shown.show_profile(EVERYDAY)


def test_what_number_keys_do_is_moved_to_the_thumb_buttons_if_wanted(ui: Ui):
    ui.store.devices = (KERNEL, KEYBOARD)
    one, two, kept = (TypeText(word) for word in ("one", "two", "kept"))
    attached(ui, KEY_1=one, KEY_KP1=two, KEY_3=two, BTN_TRIGGER_HAPPY3=kept)
    ui.window.shown.show_page("devices")
    box_of(ui).click()
    messages = ui.window.messages
    assert messages.action.isVisible()
    assert "Everyday" in messages.text.full_text
    messages.action.click()
    (setup,) = ui.store.profiles[EVERYDAY].setups
    # The keypad's 1 is the same button, which has something already.
    assert setup.cells == {
        "BTN_TRIGGER_HAPPY1": one,
        "KEY_KP1": two,
        "KEY_3": two,
        "BTN_TRIGGER_HAPPY3": kept,
        "KEY_Q": HoldLayer("Far"),
    }
    assert setup.of_layer("Far") == {"BTN_TRIGGER_HAPPY2": TypeText("far")}
    ui.undo()
    assert ui.store.profiles[EVERYDAY].setups[0].cells["KEY_1"] == one
    assert ui.store.settings.thumb_keys == ("Halyard",)
    ui.undo()
    assert ui.store.settings.thumb_keys == ()


def test_at_a_number_key_with_something_attached_it_goes_to_its_thumb_button(ui: Ui):
    ui.store.devices = (KERNEL, KEYBOARD)
    attached(ui, KEY_1=TypeText("one"), KEY_3=TypeText("two"), BTN_TRIGGER_HAPPY3=TypeText("kept"))
    ui.window.shown.show_page("sheet")
    ui.window.shown.show_control("KEY_1")
    details = ui.window.sheet_details
    details.thumbs_button.click()
    ui.wait(details.move_button.isVisible, "the offer to move it")
    # The same key still, since it does something.
    assert ui.window.shown.control == "KEY_1"
    assert "Thumb 1" in details.move_button.text()
    details.move_button.click()
    assert ui.window.shown.control == "BTN_TRIGGER_HAPPY1"
    cells = ui.store.profiles[EVERYDAY].setups[0].cells
    assert cells["BTN_TRIGGER_HAPPY1"] == TypeText("one")
    assert "KEY_1" not in cells
    ui.window.shown.show_control("KEY_3")
    # Thumb 3 does something of its own: 3 is meant for the keyboard.
    assert not details.of_device.isVisible()
    assert not details.move_button.isVisible()
    ui.window.shown.show_control("KEY_4")
    assert not details.of_device.isVisible()
