"""What a press does in the window: it lights its row, and takes nothing from the hand that works the window."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLineEdit, QMenu

from nakrel import protocol as m
from nakrel.core.model.cells import ToChord, ToControl
from nakrel.core.model.controls import CONTROLS
from nakrel.core.model.steps import Press, Release, Wait
from nakrel.ui.sheet.model import CODE
from nakrel.ui.widgets.shield import shielded
from tests.loaded import LoadedService
from tests.ui.conftest import Ui

MOUSE, KEYBOARD = "standin:halyard-12", "standin:bollard"
THUMB_3, THUMB_4 = "BTN_TRIGGER_HAPPY3", "BTN_TRIGGER_HAPPY4"


def press(ui: Ui, control: str, value: int) -> None:
    keyboard = next(d for d in ui.store.devices if d.name.startswith("Bollard"))
    device = keyboard.id if control in keyboard.controls else MOUSE
    ui.service.call(m.PressStandIn(device, control, value))


def front(ui: Ui, page: str = "sheet") -> None:
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page(page)
    ui.window.activateWindow()
    ui.wait(ui.window.isActiveWindow, "the window in front")


def lit(ui: Ui, control: str) -> bool:
    return control in ui.window.sheet.model.pressed


def tap(ui: Ui, control: str) -> None:
    """Press and let go, and wait until the window has heard of both."""
    press(ui, control, 1)
    ui.wait(lambda: lit(ui, control), f"the row of {control} to light")
    press(ui, control, 0)
    ui.wait(lambda: not lit(ui, control), f"the row of {control} to go dark")


def chosen(ui: Ui) -> tuple[str, str, str]:
    """The control of the selected row, of the details, and of the title above these."""
    table = ui.window.sheet.table
    row = table.currentIndex().siblingAtColumn(0).data(CODE)
    title = ui.window.sheet_details._title.text()
    return (
        row,
        ui.window.shown.control,
        next((code for code, c in CONTROLS.items() if title.partition(",")[0] == c.label), ""),
    )


def test_a_mouse_button_chooses_its_row_and_details_go_with_it(ui: Ui):
    front(ui)
    ui.window.sheet.table.setFocus()
    for control in (THUMB_3, THUMB_4):
        tap(ui, control)
        assert chosen(ui) == (control,) * 3


@pytest.mark.parametrize("control", ["KEY_L", "KEY_C", "BTN_LEFT", "BTN_RIGHT", "WHEEL_DOWN"])
def test_keys_clicks_and_the_wheel_choose_nothing(ui: Ui, control: str):
    front(ui)
    ui.window.sheet.table.setFocus()
    tap(ui, THUMB_3)
    heard: list[str] = []
    ui.store.seen.connect(lambda notice: heard.extend(e.control for e in notice.events if e.by == "in"))
    press(ui, control, 1)
    if not control.startswith("WHEEL"):
        press(ui, control, 0)
    ui.wait(lambda: control in heard, "the press to be heard")
    assert chosen(ui) == (THUMB_3,) * 3


def test_no_press_chooses_a_row_while_something_else_is_done(ui: Ui):
    front(ui)
    ui.window.sheet.table.setFocus()
    tap(ui, THUMB_3)
    # A name is being typed.
    ui.window.column.search.setFocus()
    tap(ui, THUMB_4)
    assert ui.window.shown.control == THUMB_3
    # A dialog is open.
    ui.window.sheet.table.setFocus()
    sheet = ui.window.open_shortcuts()
    tap(ui, THUMB_4)
    assert ui.window.shown.control == THUMB_3
    sheet.close()
    # A menu is open.
    menu = QMenu(ui.window)
    menu.addAction("Nothing")
    menu.popup(ui.window.mapToGlobal(ui.window.rect().center()))
    ui.wait(lambda: QApplication.activePopupWidget() is menu, "the menu")
    tap(ui, THUMB_4)
    assert ui.window.shown.control == THUMB_3
    menu.close()
    # Another page is in front.
    ui.window.shown.show_page("journal")
    tap(ui, THUMB_4)
    assert ui.window.shown.control == THUMB_3


def test_details_never_tell_of_another_control_than_the_selected_one(ui: Ui):
    front(ui)
    sheet = ui.window.sheet
    tap(ui, THUMB_3)
    for text in ("wheel", "thumb", "reel", ""):
        sheet.search.setText(text)
        row, details, title = chosen(ui)
        assert row == details == title
    # A row that goes, since nothing is left in it, makes way for the next one.
    sheet.only_changed.setChecked(True)
    sheet.table.choose(sheet.model.index(1, 2))
    following = sheet.model.index(2, 0).data(CODE)
    sheet.cells.clear()
    assert chosen(ui) == (following,) * 3
    # Another device, which hasn't got it.
    sheet.device.setCurrentIndex(next(n for n in range(sheet.device.count()) if n != sheet.device.currentIndex()))
    row, details, title = chosen(ui)
    assert row == details == title


def test_choosing_by_pressing_goes_to_the_row_it_was_asked_for(ui: Ui):
    front(ui)
    ui.window.sheet.show_control("BTN_TASK")
    details = ui.window.sheet_details
    details.press_button.click()
    ui.wait(lambda: ui.store.status.listening, "the listening")
    tap(ui, "BTN_MIDDLE")
    ui.wait(lambda: not shielded(), "the end of the capture")
    assert ui.store.profiles["tidewardens"].setups[0].cells["BTN_TASK"] == ToControl("BTN_MIDDLE")
    assert chosen(ui) == ("BTN_TASK",) * 3


def test_a_combination_is_caught_as_one_and_fires_no_shortcut(ui: Ui):
    front(ui)
    ui.window.sheet.show_control(THUMB_3)
    details = ui.window.sheet_details
    details.press_button.click()
    ui.wait(lambda: ui.store.status.listening, "the listening")
    press(ui, "KEY_LEFTCTRL", 1)
    press(ui, "KEY_L", 1)
    ui.wait(lambda: lit(ui, "KEY_L"), "both keys")
    QTest.keyClick(ui.window, Qt.Key.Key_L, Qt.KeyboardModifier.ControlModifier)
    assert ui.window.link_dialog is None
    press(ui, "KEY_L", 0)
    press(ui, "KEY_LEFTCTRL", 0)
    ui.wait(lambda: not shielded(), "the end of the capture")
    assert ui.store.profiles["tidewardens"].setups[0].cells[THUMB_3] == ToChord(("KEY_LEFTCTRL", "KEY_L"))
    # From now on the shortcut is itself again.
    QTest.keyClick(ui.window, Qt.Key.Key_L, Qt.KeyboardModifier.ControlModifier)
    ui.wait(lambda: ui.window.link_dialog is not None, "the dialog")
    assert ui.window.link_dialog
    ui.window.link_dialog.close()


def test_a_key_held_for_a_capture_types_nothing(ui: Ui):
    front(ui, "macro")
    ui.window.shown.show_macro("reel-in")
    details = ui.window.macro_details
    details.note.setFocus()
    before = details.note.toPlainText()
    details.attach_button.click()
    ui.wait(lambda: ui.store.status.listening, "the listening")
    press(ui, "KEY_G", 1)
    ui.wait(lambda: not details.capture.armed, "the press")
    # The key's own auto-repeat, to whatever has the focus.
    for _ in range(5):
        target = QApplication.focusWidget() or ui.window
        QApplication.sendEvent(
            target,
            QKeyEvent(QEvent.Type.KeyPress, Qt.Key.Key_G, Qt.KeyboardModifier.NoModifier, "g", autorep=True),
        )
    press(ui, "KEY_G", 0)
    ui.wait(lambda: not shielded(), "the end of the capture")
    assert details.note.toPlainText() == before


def test_a_capture_out_of_sight_is_over(ui: Ui):
    front(ui, "macro")
    ui.window.shown.show_macro("reel-in")
    ui.window.macro_details.attach_button.click()
    ui.wait(lambda: ui.store.status.listening, "the listening")
    ui.window.shown.show_page("journal")
    ui.wait(lambda: not ui.store.status.listening and not shielded(), "its end")


def test_a_recording_changes_nothing_else_in_the_window(ui: Ui):
    front(ui, "macro")
    ui.window.shown.show_macro("reel-in")
    page, before, profiles = ui.window.macro, ui.store.macros["reel-in"], len(ui.store.profiles)
    row = next(n for n, step in enumerate(before.loop) if isinstance(step, Wait)) + len(before.lead_in)
    page.steps.setCurrentIndex(page.model.index(row, 3))
    page.steps.edit(page.model.index(row, 3))
    assert isinstance(QApplication.focusWidget(), QLineEdit)
    page.recording.button.click()
    ui.wait(lambda: ui.store.status.recording, "the recording")
    assert not isinstance(QApplication.focusWidget(), QLineEdit)
    press(ui, "KEY_7", 1)
    QTest.keyClick(QApplication.focusWidget() or ui.window, Qt.Key.Key_7)
    # No shortcut fires either.
    QTest.keyClick(ui.window, Qt.Key.Key_4, Qt.KeyboardModifier.ControlModifier)
    QTest.keyClick(ui.window, Qt.Key.Key_N, Qt.KeyboardModifier.ControlModifier)
    press(ui, "KEY_7", 0)
    page.recording._pressed_by = ()
    QTest.mouseClick(page.recording.button, Qt.MouseButton.LeftButton)
    ui.wait(lambda: not page.recording.recording and not shielded(), "the end of the recording")
    assert ui.window.shown.page == "macro"
    assert len(ui.store.profiles) == profiles
    after = ui.store.macros["reel-in"]
    new = [step for step in after.loop if isinstance(step, Press | Release) and step.control == "KEY_7"]
    assert len(new) == 2
    waits = [step for step in before.loop if isinstance(step, Wait)]
    assert all(step in after.loop for step in waits)


def test_stop_everything_is_within_reach_of_the_mouse_while_recording(ui: Ui):
    front(ui, "macro")
    ui.window.shown.show_macro("reel-in")
    ui.window.macro.recording.button.click()
    ui.wait(lambda: ui.store.status.recording, "the recording")
    QTest.mouseClick(ui.window.strip.stop, Qt.MouseButton.LeftButton)
    ui.wait(lambda: not ui.store.status.recording and not shielded(), "the end of the recording")


def test_what_was_recorded_before_the_service_went_is_kept(ui: Ui):
    front(ui, "macro")
    ui.window.shown.show_macro("reel-in")
    bar = ui.window.macro.recording
    bar.button.click()
    ui.wait(lambda: ui.store.status.recording, "the recording")
    press(ui, "KEY_7", 1)
    press(ui, "KEY_7", 0)
    ui.wait(lambda: len(bar._steps) >= 2, "the steps")
    ui.service.process.kill()
    ui.service.process.wait()
    ui.wait(lambda: not bar.recording and not shielded(), "the end of the recording")
    assert [s for s in ui.store.macros["reel-in"].loop if isinstance(s, Press) and s.control == "KEY_7"]
    ui.wait(lambda: "the service has ended" in ui.store.not_saved, "that it isn't saved")
    ui.service.client.close()
    ui.service = LoadedService(ui.service.folder, "--backend", "stand-in")
    ui.wait(lambda: ui.window.column.saved.text() == "saved", "the new service to have it")


def _shown_as_down(ui: Ui) -> set[str]:
    lanes = ui.window.strip.traces.lanes.values()
    return {span.control for lane in lanes for span in lane.spans if span.up_us is None} | ui.window.sheet.model.pressed


def _hold(ui: Ui) -> None:
    """A finger holds a button, and with it the key that the button acts as."""
    front(ui)
    ui.store.pin("tidewardens")
    ui.wait(lambda: ui.store.status.live == "tidewardens", "the profile")
    press(ui, "BTN_TRIGGER_HAPPY1", 1)
    ui.wait(lambda: _shown_as_down(ui) >= {"BTN_TRIGGER_HAPPY1", "KEY_R"}, "both to be down")


def test_what_was_down_as_the_service_went_is_not_shown_as_down_for_ever(ui: Ui):
    _hold(ui)
    press(ui, THUMB_3, 1)
    ui.wait(lambda: ui.store.status.running, "a macro to run")
    ui.service.process.kill()
    ui.service.process.wait()
    ui.wait(lambda: not _shown_as_down(ui), "all of it to go up")
    assert not ui.store.status.running
    ui.service.client.close()
    ui.service = LoadedService(ui.service.folder, "--backend", "stand-in")
    ui.wait(lambda: ui.window.messages.text.full_text == "", "the connection")
    tap(ui, THUMB_3)


def test_what_was_let_go_while_the_window_was_hidden_is_not_shown_as_down(ui: Ui):
    _hold(ui)
    ui.store.set_seen(False)
    assert not _shown_as_down(ui)
    answers: list[object] = []
    ui.store.ask(m.GetStatus(), answers.append)
    ui.wait(lambda: answers, "the service to know that the window is hidden")
    press(ui, "BTN_TRIGGER_HAPPY1", 0)
    ui.store.set_seen(True)
    tap(ui, THUMB_3)
    ui.wait(lambda: not _shown_as_down(ui), "all of it to go up")


def test_what_a_slow_window_did_not_hear_of_is_not_shown_as_down(ui: Ui):
    _hold(ui)
    later = m.SeenEvent("in", "BTN_TRIGGER_HAPPY2", 1, 1 << 40)
    ui.store._notice(m.Seen((later,), lost=3))
    assert _shown_as_down(ui) == {"BTN_TRIGGER_HAPPY2"}
