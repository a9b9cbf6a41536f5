"""Earlier versions, and what was deleted, are looked at and brought back."""

from __future__ import annotations

from msgspec.structs import replace

from nakrel.core.model.steps import Wait
from nakrel.ui import commands
from nakrel.ui.profiles.history import History
from tests.ui.conftest import Ui


def filled(ui: Ui, dialog: History) -> History:
    ui.wait(lambda: dialog.versions, "the versions")
    return dialog


def test_an_earlier_version_of_a_macro_is_seen_and_brought_back(ui: Ui):
    before = ui.store.macros["reel-in"]
    for number in (1, 2):
        commands.edit_macro(ui.store, "edit", replace(ui.store.macros["reel-in"], loop=(Wait(wait_us=number),)))
        ui.wait(lambda: ui.window.column.saved.text() == "saved", "the edit to be saved")
        ui.wait(lambda: not ui.store._unsent, "the edit to be answered")
    dialog = filled(ui, ui.window.column.open_history("macro", "reel-in"))
    assert [v.macro for v in dialog.versions][-1] == before
    assert dialog.versions[0].macro == ui.store.macros["reel-in"]
    dialog.table.selectRow(0)
    assert not dialog.back_button.isEnabled()
    dialog.table.selectRow(len(dialog.versions) - 1)
    assert "tap R  17 ms" in dialog.text.toPlainText()
    dialog.back_button.click()
    assert ui.store.macros["reel-in"] == before
    ui.undo()
    assert ui.store.macros["reel-in"].loop == (Wait(wait_us=2),)


def test_a_deleted_profile_comes_back_even_after_undo_is_gone(ui: Ui):
    before = ui.store.profiles["tidewardens"]
    commands.delete_profile(ui.store, before)
    ui.store.undo_stack.clear()
    dialog = filled(ui, ui.window.column.open_history("profile"))
    assert [v.profile.name for v in dialog.versions] == ["Tidewardens"]
    assert "Thumb 3: Reel in While held" in dialog.text.toPlainText()
    assert "Haul: R" in dialog.text.toPlainText()
    dialog.back_button.click()
    assert ui.store.profiles["tidewardens"] == before
    ui.wait(lambda: not ui.store._unsent, "the edit to be answered")


def test_an_answer_that_comes_after_its_window_is_gone_is_dropped(ui: Ui):
    dialog = ui.window.column.open_history("macro", "reel-in")
    dialog.close()
    ui.wait(lambda: not ui.window.findChildren(History), "the dialog to be gone")
