"""Dialogs come and go; none of their timers and signals outlives them."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from msgspec.structs import replace
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QColorDialog, QDialog, QSpinBox
from pytestqt.qtbot import QtBot

from nakrel import protocol as m
from nakrel.ui.shown import PAGES
from nakrel.ui.widgets.capture import LIMIT_S
from tests.ui.conftest import Ui

OPENERS: dict[str, Callable[[Ui], object]] = {
    "pointer": lambda ui: ui.window.profile_details.open_pointer(),
    "game keys": lambda ui: ui.window.profile_details.open_keys(),
    "link": lambda ui: ui.window.open_link(),
    "shortcuts": lambda ui: ui.window.open_shortcuts(),
    "versions": lambda ui: ui.window.column.open_history("profile", "tidewardens"),
    "deleted": lambda ui: ui.window.column.open_history("macro"),
}


def gone() -> None:
    """Let Qt delete what is to be deleted."""
    QApplication.processEvents()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
    QApplication.processEvents()


@pytest.mark.parametrize("opener", OPENERS)
def test_nothing_of_a_closed_dialog_goes_on(ui: Ui, qtbot: QtBot, opener: str):
    ui.window.shown.show_profile("tidewardens")
    with qtbot.captureExceptions() as faults:
        OPENERS[opener](ui)
        dialog = QApplication.activeModalWidget()
        assert isinstance(dialog, QDialog)
        dialog.reject()
        gone()
        assert QApplication.activeModalWidget() is None
        store = ui.store
        for signal in (
            store.library_changed,
            store.settings_changed,
            store.status_changed,
            store.devices_changed,
            store.journal_changed,
            store.saving_changed,
        ):
            signal.emit()
        store.profile_changed.emit("tidewardens")
        store.macro_changed.emit("reel-in")
        store.seen.emit(m.Seen((m.SeenEvent("in", "KEY_Q", 1, 1), m.SeenEvent("in", "KEY_Q", 0, 2))))
        gone()
    assert faults == []


def test_a_message_can_be_taken_away(ui: Ui):
    ui.store.fault.emit("The tide is out.")
    assert ui.window.messages.text.full_text == "The tide is out."
    ui.window.messages.dismiss.click()
    assert not ui.window.messages.text.full_text
    assert ui.window.messages.dismiss.isHidden()


def test_a_service_that_reaches_no_program_says_so_on_every_page(ui: Ui):
    why = "Nothing reaches other windows: there is no X server. The kernel's input would; what it needs: nakrel doctor"
    ui.store._receive(m.StatusIs(replace(ui.store.status, warning=why)))
    for page in PAGES:
        ui.window.shown.show_page(page)
        assert why in ui.window.messages.text.full_text
        assert ui.window.messages.text.full_text
    # It can't be taken away, and goes by itself when a route is there.
    assert ui.window.messages.dismiss.isHidden()
    ui.store._receive(m.StatusIs(replace(ui.store.status, warning="")))
    assert not ui.window.messages.text.full_text


@pytest.mark.parametrize(
    ("route", "why"),
    [("kernel", "Its own settings"), ("x11", "others need kernel input"), ("standin", "no real device")],
)
def test_where_nothing_arrives_when_a_button_is_asked_for_it_says_why_that_may_be(
    ui: Ui, qtbot: QtBot, route: str, why: str
):
    ui.store._receive(m.StatusIs(replace(ui.store.status, backend=route)))
    finder = ui.window.sheet_details.finder
    finder.arm()
    finder.cancel()
    assert not ui.window.messages.text.full_text
    finder.arm()
    for _ in range(LIMIT_S):
        finder._second()
    assert not finder.armed
    assert why in ui.window.messages.text.full_text


def test_a_profile_gets_a_colour_by_its_numbers(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    before = ui.store.profiles["tidewardens"].colour
    ui.window.profile_details.colour_button.click()
    dialog = QApplication.activeModalWidget()
    assert isinstance(dialog, QColorDialog)
    assert dialog.currentColor().name() == before.lower()
    # Qt has made these fields, and Undo watches whichever has the focus.
    for field in filter(QSpinBox.isVisible, dialog.findChildren(QSpinBox)):
        field.setFocus()
        ui.wait(field.hasFocus, "the focus")
        QTest.keyClick(field, Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
        QTest.keyClicks(field, "40")
    wanted = dialog.currentColor().name()
    dialog.accept()
    assert ui.store.profiles["tidewardens"].colour == wanted != before
    ui.undo()
    assert ui.store.profiles["tidewardens"].colour == before
