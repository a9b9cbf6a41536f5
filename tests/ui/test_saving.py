"""What is shown and what is on the disk: the window says "saved" of nothing else, and keeps what isn't."""

from __future__ import annotations

import signal

import msgspec
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLineEdit

from nakrel import protocol as m
from nakrel.client.connection import ServiceConnection
from nakrel.core.model.macro import Macro
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Press, Wait
from nakrel.storage.library import Library
from nakrel.ui import commands
from nakrel.ui.macro.steps_model import TIME
from tests.loaded import LoadedService
from tests.ui.conftest import Ui


def saved(ui: Ui) -> str:
    return ui.window.column.saved.text()


def noted(ui: Ui, note: str) -> Macro:
    """Give a macro this note."""
    macro = msgspec.structs.replace(ui.store.macros["cast-far"], note=note)
    commands.edit_macro(ui.store, "note", macro)
    return macro


def test_it_is_saved_when_the_service_says_so_and_not_before(ui: Ui):
    ui.service.process.send_signal(signal.SIGSTOP)
    noted(ui, "kept")
    assert saved(ui) == "saving…"
    ui.service.process.send_signal(signal.SIGCONT)
    ui.wait(lambda: saved(ui) == "saved", "the edit to be saved")
    assert "kept" in (ui.service.home.macros / "Cast far.json").read_text()


def test_what_a_service_that_has_ended_never_confirmed_is_not_saved_until_another_one_has_it(ui: Ui):
    ui.service.process.send_signal(signal.SIGSTOP)
    macro = noted(ui, "never confirmed")
    ui.wait(lambda: not ui.store._waiting, "the edit to be sent")
    ui.service.process.kill()
    ui.service.process.wait()
    ui.wait(lambda: saved(ui) == "not saved", "the end of the service")
    assert "Not saved: macro “Cast far”: the service has ended" in ui.store.not_saved
    ui.service.client.close()
    ui.service = LoadedService(ui.service.folder, "--backend", "stand-in")
    ui.wait(lambda: saved(ui) == "saved", "the new service to have it")
    # It is still shown, and on the disk.
    assert ui.store.macros["cast-far"] == macro
    assert "never confirmed" in (ui.service.home.macros / "Cast far.json").read_text()
    assert "Not saved" not in ui.window.messages.text.full_text


def test_a_refused_edit_stays_in_sight_with_its_reason_until_it_is_undone(ui: Ui):
    folder, before = ui.service.home.macros, ui.store.macros["cast-far"]
    folder.rename(folder.with_name("aside"))
    folder.write_text("in the way")
    noted(ui, "nowhere to go")
    ui.wait(lambda: saved(ui) == "not saved", "the refusal")
    # A message of something else goes, and the reason comes back.
    ui.store.fault.emit("Something else.")
    ui.window.messages._timer.timeout.emit()
    assert ui.window.messages.text.full_text.startswith("Not saved: macro “Cast far”: ")
    assert "can't be saved" in ui.window.messages.text.full_text
    assert ui.window.messages.text.full_text.endswith("Change it, or undo.")
    folder.unlink()
    folder.with_name("aside").rename(folder)
    ui.undo()
    ui.wait(lambda: saved(ui) == "saved", "the undone edit")
    assert ui.store.macros["cast-far"] == before
    assert not ui.window.messages.text.full_text


def test_a_name_that_is_too_long_is_told_and_the_old_one_stays(ui: Ui, monkeypatch: pytest.MonkeyPatch):
    """Whatever field it is typed in: no value beyond a limit is made, so none is sent and lost."""
    told: list[str] = []
    ui.store.fault.connect(told.append)
    view, row = ui.window.column.macro_view, ui.window.column.macros.row_of("cast-far")
    assert not ui.window.column.macros.setData(ui.window.column.macros.index(row), "n" * 130)
    ui.wait(lambda: told, "the reason")
    assert "the name has 130 characters; it can have 120 at most" in told[0].lower()
    assert ui.store.macros["cast-far"].name == "Cast far"
    assert view.isEnabled()


def test_a_new_name_is_typed_over_the_old_one_whatever_comes_before_the_first_key(ui: Ui):
    """Between the click on New and the first key the service has told of the new profile, and more."""
    ui.window.column.new_profile()
    ui.wait(lambda: saved(ui) == "saved", "the new profile")
    ui.store.status_changed.emit()
    editor = ui.window.column.profile_view.findChildren(QLineEdit)[-1]
    assert editor.selectedText() == editor.text() == "New profile"
    QTest.keyClicks(editor, "Kiln Race")
    ui.store.status_changed.emit()
    QTest.keyClick(editor, Qt.Key.Key_Return)
    ui.wait(lambda: ui.window.head.title.full_text == "Kiln Race", "the new name")


def test_text_that_is_beyond_a_limit_is_told_on_the_text_page(ui: Ui):
    page = ui.window.macro
    ui.window.shown.show_macro("cast-far")
    page.show_view("notation")
    before = ui.store.macros["cast-far"]
    page.notation.editor.setPlainText("tap A + B + C + D + E + F + G + H + I for 5 ms\n" + "wait 5 ms\n" * 20)
    ui.wait(lambda: "combination are 9; 8 at most" in page.notation.message.text(), "the reason")
    assert "Line 1" in page.notation.message.text()
    page.notation.editor.setPlainText("wait 5 ms\n" * 20)
    ui.wait(lambda: ui.store.macros["cast-far"].loop == (Wait(wait_us=5_000),) * 20, "the steps")
    ui.undo()
    assert ui.store.macros["cast-far"] == before


def test_another_clients_change_of_the_settings_and_ours_both_count(ui: Ui):
    other = ServiceConnection.connect(ui.service.home.socket, "another")
    other.call(m.ChangeSettings(SettingsPatch(layout="de")))
    commands.change_settings(ui.store, "look", SettingsPatch(look="night"))
    ui.wait(lambda: (ui.store.settings.look, ui.store.settings.layout) == ("night", "de"), "both")
    other.call(m.ChangeSettings(SettingsPatch(layout="us")))
    ui.wait(lambda: ui.store.settings.layout == "us", "the other client's change")
    ui.undo()
    ui.wait(lambda: saved(ui) == "saved", "the undone change")
    library = other.call(m.GetLibrary())
    assert isinstance(library, m.Library)
    assert (library.settings.look, library.settings.layout) == ("system", "us")
    other.close()


def test_a_deleted_profile_frees_the_buttons_that_go_to_it_as_one_edit(ui: Ui):
    from nakrel.core.model.cells import GoTo, What

    everyday = ui.store.profiles["everyday"]
    commands.set_cell(ui.store, everyday, "Main", "KEY_F14", GoTo(What.PROFILE, "orrery-post"))
    commands.delete_profile(ui.store, ui.store.profiles["orrery-post"])
    assert "KEY_F14" not in ui.store.profiles["everyday"].setups[0].cells
    ui.undo()
    assert ui.store.profiles["everyday"].setups[0].cells["KEY_F14"] == GoTo(What.PROFILE, "orrery-post")
    ui.wait(lambda: saved(ui) == "saved", "the edits")


def test_an_answer_that_nobody_asked_for_is_shown(ui: Ui):
    assert ui.store._connection
    told: list[str] = []
    ui.store.alarm.connect(told.append)
    ui.store._connection._dispatch(b'{"id":99999,"body":{"is":"Refused","error":"too late"}}')
    assert told == ["The service answered what nobody asked: too late."]


def stored(ui: Ui) -> dict[str, Macro]:
    """The macros on the disk once the service has ended."""
    assert ui.service.end() == 0
    library = Library(ui.service.home)
    library.load()
    return library.macros


def test_a_note_that_is_being_typed_is_kept_when_the_window_closes(ui: Ui):
    ui.window.shown.show_macro("cast-far")
    note = ui.window.macro_details.note
    note.setFocus()
    QTest.keyClicks(note, "with the tide")
    ui.window.close()
    assert stored(ui)["cast-far"].note.endswith("with the tide")


def test_a_time_that_is_being_typed_is_kept_when_the_window_closes(ui: Ui):
    commands.edit_macro(ui.store, "new", Macro(id="new", name="New", loop=(Wait(wait_us=1_000),)))
    ui.window.shown.show_macro("new")
    steps = ui.window.macro.steps
    steps.setCurrentIndex(ui.window.macro.model.index(0, TIME))
    steps.setFocus()
    QTest.keyClick(steps, Qt.Key.Key_Return)
    QTest.keyClicks(QApplication.focusWidget(), "77")
    ui.window.close()
    assert stored(ui)["new"].loop == (Wait(wait_us=77_000),)


def test_a_name_that_is_being_typed_is_kept_when_the_window_closes(ui: Ui):
    ui.window.column.new_macro_button.click()
    ui.wait(lambda: isinstance(QApplication.focusWidget(), QLineEdit), "the name's field")
    QTest.keyClicks(QApplication.focusWidget(), "Furl the sails")
    ui.window.close()
    assert "Furl the sails" in {macro.name for macro in stored(ui).values()}


def recorded_q(ui: Ui) -> None:
    """Record a press of Q, and go on recording."""
    ui.window.shown.show_macro("cast-far")
    ui.window.macro.recording.button.click()
    ui.wait(lambda: ui.store.status.recording, "the recording")
    keyboard = next(device.id for device in ui.service.devices() if "KEY_Q" in device.controls)
    rows = ui.window.macro.model.rowCount()
    for value in (1, 0):
        ui.service.call(m.PressStandIn(keyboard, "KEY_Q", value))
    ui.wait(lambda: ui.window.macro.model.rowCount() >= rows + 2, "the press and the release")


def presses_of_q(macro: Macro) -> int:
    return sum(isinstance(step, Press) and step.control == "KEY_Q" for step in macro.loop)


def test_a_recording_that_goes_on_is_kept_when_the_window_closes(ui: Ui):
    recorded_q(ui)
    ui.window.close()
    assert presses_of_q(stored(ui)["cast-far"]) == 1


def test_a_recording_is_kept_though_the_service_stands_still_as_the_window_closes(ui: Ui):
    recorded_q(ui)
    ui.service.process.send_signal(signal.SIGSTOP)
    ui.window.close()
    ui.service.process.send_signal(signal.SIGCONT)
    assert presses_of_q(stored(ui)["cast-far"]) == 1


@pytest.mark.parametrize("shut_down", [False, True])
def test_what_was_done_since_the_service_ended_is_kept_when_the_window_closes(ui: Ui, shut_down: bool):
    started: list[LoadedService] = []

    def start() -> ServiceConnection:
        started.append(LoadedService(ui.service.folder, "--backend", "stand-in"))
        return ServiceConnection.connect(ui.service.home.socket, "window")

    if shut_down:
        ui.service.call(m.Shutdown())
        ui.wait(lambda: ui.store.shut_down.is_so, "the word of it")
    else:
        ui.service.process.kill()
        ui.service.process.wait()
        ui.wait(lambda: not ui.store._connection, "the end of the service")
    noted(ui, "since then")
    ui.store._connect = start
    ui.window.close()
    (service,) = started
    if shut_down:
        assert service.process.wait(10) == 0
    else:
        assert service.status()
    ui.service.client.close()
    ui.service = service
    service.end()
    assert "since then" in (ui.service.home.macros / "Cast far.json").read_text()


def test_closing_the_window_starts_no_service_for_what_it_shows_alone(ui: Ui):
    ui.service.call(m.Shutdown())
    ui.wait(lambda: ui.store.shut_down.is_so, "the word of it")
    ui.window.shown.show_page("journal")
    ui.store._connect = lambda: pytest.fail("it was started")
    ui.window.close()
