"""The places of the window that have a life of their own: linking, devices, journal, diagram, details."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor, QImage, QPainter
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QLabel, QPushButton
from pytestqt.qtbot import QtBot

from nakrel import protocol as m
from nakrel.core.model.cells import Nothing, RunMacro, ToControl
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.profile import MatchBy, ProgramRule
from nakrel.core.model.steps import Press, Tap, Wait
from nakrel.ui import commands
from nakrel.ui.macro.diagram.view import nice_step
from nakrel.ui.sheet.model import cell_text
from nakrel.ui.theme import hue
from nakrel.ui.widgets.traces import draw_trace
from tests.ui.conftest import Ui, assign

THUMB = "BTN_TRIGGER_HAPPY10"


def test_linking_shows_what_a_rule_matches_and_adds_it_once(ui: Ui, tmp_path: Path):
    game = tmp_path / "kelp-garden"
    game.symlink_to("/bin/sleep")
    process = subprocess.Popen([str(game), "60"])
    try:
        for _ in range(2):
            ui.window.shown.show_profile("tidewardens")
            ui.window.open_link()
            dialog = ui.window.link_dialog
            assert dialog
            dialog.search.setText("kelp")
            ui.wait(lambda d=dialog: d.table.model().rowCount() == 1, "the program in the list")
            dialog.table.selectRow(0)
            number = dialog.rule_by.findData(MatchBy.NAME)
            dialog.rule_by.setCurrentIndex(number)
            dialog.rule_by.activated.emit(number)
            assert dialog.rule_value.text() == "kelp-garden"
            assert "matches now: kelp-garden" in dialog._hint.text()
            dialog.rule_value.setText("kelp-garden-2")
            assert "matches no program" in dialog._hint.text()
            dialog.rule_value.setText("kelp-garden")
            dialog.link_button.click()
        rules = ui.store.profiles["tidewardens"].programs
        assert rules.count(ProgramRule(MatchBy.NAME, "kelp-garden")) == 1
        ui.wait(lambda: ui.store.status.live == "tidewardens", "the profile to be live")
    finally:
        process.kill()
        process.wait()
    ui.wait(lambda: ui.store.status.live == "everyday", "Everyday")
    ui.undo()
    assert ProgramRule(MatchBy.NAME, "kelp-garden") not in ui.store.profiles["tidewardens"].programs


def test_a_name_that_all_programs_of_an_interpreter_have_is_warned_of(ui: Ui, tmp_path: Path):
    interpreter = tmp_path / "python"
    interpreter.symlink_to(sys.executable)
    scripts = [tmp_path / name for name in ("keel_duel.py", "kelp_garden.py")]
    for script in scripts:
        script.write_text("import select\nselect.select([], [], [], 60)\n")
    running = [subprocess.Popen([str(interpreter), str(script)]) for script in scripts]
    try:
        ui.window.shown.show_profile("tidewardens")
        ui.window.open_link()
        dialog = ui.window.link_dialog
        assert dialog
        dialog.search.setText(str(scripts[0]))
        ui.wait(lambda: dialog.table.model().rowCount() == 1, "the program in the list")
        dialog.table.selectRow(0)
        assert (dialog.rule_by.currentData(), dialog.rule_value.text()) == (MatchBy.COMMAND, str(scripts[0]))
        assert "several programs" not in dialog._warning.text()
        number = dialog.rule_by.findData(MatchBy.NAME)
        dialog.rule_by.setCurrentIndex(number)
        dialog.rule_by.activated.emit(number)
        assert dialog.rule_value.text() == "python"
        assert "several programs" in dialog._warning.text()
        dialog.reject()
    finally:
        for process in running:
            process.kill()
            process.wait()


def test_everyday_cannot_be_linked_and_says_why(ui: Ui):
    ui.window.shown.show_profile("everyday")
    ui.window.open_link()
    assert ui.window.link_dialog is None
    assert "Everyday is for when no linked program runs" in ui.window.messages.text.full_text


def test_a_link_is_taken_away_in_the_head_and_undone(ui: Ui):
    ui.window.shown.show_profile("orrery-post")
    unlink = next(b for b in ui.window.findChildren(QPushButton) if b.accessibleName().startswith("Unlink"))
    unlink.click()
    assert ui.store.profiles["orrery-post"].programs == ()
    ui.undo()
    assert len(ui.store.profiles["orrery-post"].programs) == 1


def held_in_a_panel(ui: Ui) -> QPushButton:
    """A button of the simulated mouse, held with the mouse, whose macro runs for as long."""
    ui.store.pin("tidewardens")
    ui.window.shown.show_page("devices")
    panel = ui.window.devices._panels["standin:halyard-12"]
    button = next(b for b in panel.findChildren(QPushButton) if b.text() == "Thumb 3")
    ui.wait(lambda: ui.store.status.live == "tidewardens")
    QTest.mousePress(button, Qt.MouseButton.LeftButton)
    ui.wait(lambda: [run.macro for run in ui.store.status.running] == ["reel-in"], "the Held macro")
    return button


def test_a_panels_button_is_down_while_it_is_held(ui: Ui):
    button = held_in_a_panel(ui)
    QTest.mouseRelease(button, Qt.MouseButton.LeftButton)
    ui.wait(lambda: not ui.store.status.running, "its end")


@pytest.mark.parametrize("how", ["another page", "another device"])
def test_a_panels_button_that_goes_from_under_the_hand_is_let_go(ui: Ui, how: str):
    held_in_a_panel(ui)
    if how == "another page":
        ui.window.shown.show_page("journal")
    else:
        ui.store.devices_changed.emit()
    ui.wait(lambda: not ui.store.status.running, "its end")


def test_the_devices_page_shows_broken_links_and_what_to_do(ui: Ui):
    permissions = ui.window.devices.permissions
    ui.window.shown.show_page("devices")
    ui.wait(lambda: permissions.checks, "the checks")
    texts = [each.text() for each in permissions.findChildren(QLabel)]
    bad = [check for check in permissions.checks if check.state is m.CheckState.BAD]
    fine = [check for check in permissions.checks if check.state is m.CheckState.OK]
    assert bad
    assert all(check.found in texts and f"What to do: {check.remedy}" in texts for check in bad)
    assert not any(check.found in texts for check in fine)
    permissions.more.click()

    def shown() -> set[str]:
        return {each.text() for each in permissions.findChildren(QLabel) if each.isVisible()}

    ui.wait(lambda: {check.found for check in permissions.checks} <= shown(), "every link")


def test_the_layout_for_typed_texts_can_be_set_and_undone(ui: Ui):
    ui.window.shown.show_page("devices")
    field = ui.window.devices.layout_field
    field.setText("de")
    field.editingFinished.emit()
    ui.wait(lambda: ui.window.devices.permissions.checks, "the checks")
    ui.wait(lambda: any("typed for de, from the settings" in c.found for c in ui.window.devices.permissions.checks))
    ui.undo()
    ui.wait(lambda: field.text() == "", "the field to be empty again")


def test_the_devices_page_says_what_macros_reach(ui: Ui):
    ui.window.shown.show_page("devices")
    assert ui.window.devices._route.text() == "Macros reach no other window."
    names = {device.name for device in ui.store.devices}
    assert {"Halyard 12 mouse", "Bollard keyboard", "Ferry office mouse"} == names


def test_the_journal_finds_and_has_each_entry_once(ui: Ui):
    for profile in ("orrery-post", "tidewardens", "brackenfall-arena"):
        ui.store.pin(profile)
        # One that is left before its sheet was ready was never live.
        ui.wait(lambda profile=profile: ui.store.status.live == profile, profile)
    ui.wait(lambda: any("Brackenfall" in entry.what for entry in ui.store.journal), "the switches")
    page = ui.window.journal
    page.search.setText("orrery")

    def matching() -> set[str]:
        return {entry.what for entry in ui.store.journal if "orrery" in entry.what.lower()}

    def rows() -> set[str]:
        return {page.table.model().index(row, 2).data() for row in range(page.table.model().rowCount())}

    # A game of another test that runs beside this one may have its entries, too.
    ui.wait(lambda: rows() == matching() and "Orrery Post is live" in rows(), "the matching entries, no others")
    assert len({(e.at, e.what) for e in ui.store.journal}) == len(ui.store.journal)


def test_steps_move_between_sections_by_menu_and_join_to_taps(ui: Ui):
    ui.window.shown.show_macro("guard-break")
    page = ui.window.macro
    page.select([0, 1])
    page.step_actions.move_to(Section.LEAD_IN)
    macro = ui.store.macros["guard-break"]
    assert macro.lead_in == (Press(control="KEY_LEFTCTRL"), Wait(wait_us=12_000))
    steps = (Press(control="KEY_E"), Wait(wait_us=5_000), *macro.loop)
    commands.edit_macro(ui.store, "test", Macro(id=macro.id, name=macro.name, loop=steps))
    page.step_actions.to_taps()
    assert ui.store.macros["guard-break"].loop[0] == Press(control="KEY_E")
    page.select([2])
    page.step_actions.duplicate_selected()
    assert ui.store.macros["guard-break"].loop[2:4] == (Tap(control="KEY_E", hold_us=34_000),) * 2


def test_dragged_rows_land_in_the_gap_they_were_dropped_on(ui: Ui):
    ui.window.shown.show_macro("storm-volley")
    model = ui.window.macro.model
    before = ui.store.macros["storm-volley"].loop
    data = model.mimeData([model.index(0, 0), model.index(1, 0)])
    model.dropMimeData(data, Qt.DropAction.MoveAction, -1, -1, model.index(4, 0))
    assert ui.store.macros["storm-volley"].loop == (*before[2:4], *before[:2], before[4])


def test_what_cells_say(ui: Ui):
    assert cell_text(ui.store, None)[1] == "unchanged"
    assert cell_text(ui.store, Nothing())[1] == "nothing"
    assert cell_text(ui.store, ToControl("KEY_F13"))[:2] == ("KEY_F13", "F13")
    assert cell_text(ui.store, RunMacro("thorn-fan"))[1:] == ("Thorn fan", " While held · 20/s")
    assert cell_text(ui.store, RunMacro("storm-volley"))[2] == " 5 times"
    assert "deleted" in cell_text(ui.store, RunMacro("no such"))[1]


def test_the_details_give_a_control_something_to_do(ui: Ui):
    ui.window.shown.show_profile("tidewardens")
    ui.window.shown.show_page("sheet")
    ui.window.sheet.show_control(THUMB)
    details = ui.window.sheet_details
    cell = lambda: ui.store.profiles["tidewardens"].setups[0].cells.get(THUMB)  # noqa: E731
    for typed, does in (("nothing", Nothing()), ("F14", ToControl("KEY_F14")), ("cast f", RunMacro("cast-far"))):
        assign(ui, typed)
        assert cell() == does
    details.clear_button.click()
    assert cell() is None
    ui.window.sheet.show_control("BTN_LEFT")
    assign(ui, "nothing")
    assert "no way to click" in ui.window.messages.text.full_text


def test_an_edit_that_cannot_be_saved_says_so_and_stays(ui: Ui):
    folder = ui.service.home.macros
    aside = folder.with_name("aside")
    folder.rename(aside)
    folder.write_text("in the way")
    macro = ui.store.macros["cast-far"]
    commands.edit_macro(ui.store, "note", type(macro)(id=macro.id, name=macro.name, note="kept", loop=macro.loop))
    ui.wait(lambda: "can't be saved" in ui.window.messages.text.full_text, "the reason")
    # Something else may still be on its way, such as what the window shows.
    ui.wait(lambda: "not saved" in ui.window.column.saved.text(), "that it isn't saved")
    assert ui.store.macros["cast-far"].note == "kept"
    folder.unlink()
    aside.rename(folder)
    commands.edit_macro(ui.store, "note", type(macro)(id=macro.id, name=macro.name, note="kept too", loop=macro.loop))
    ui.wait(lambda: ui.window.column.saved.text() == "saved", "the next save")


def test_the_look_changes_at_once_and_is_undone(ui: Ui):
    from nakrel.ui import theme

    ui.window.set_look("night")
    assert theme.palette().night
    ui.undo()
    assert not theme.palette().night


@pytest.mark.parametrize(
    ("length_us", "step_us"), [(8_000, 1_000), (9_000, 2_000), (123_000, 20_000), (2_000_000, 500_000)]
)
def test_the_ruler_has_round_steps(length_us: int, step_us: int):
    assert nice_step(length_us) == step_us


def test_a_trace_steps_up_where_the_control_goes_down(qtbot: QtBot):
    """Read off the pixels: high between the edges, low outside them."""
    from PyQt6.QtCore import QRectF

    image = QImage(200, 20, QImage.Format.Format_RGB32)
    image.fill(QColor("white"))
    painter = QPainter(image)
    draw_trace(painter, QRectF(0, 3, 199, 12), [(50, 100), (150, 151)], 0, 200, QColor("black"), 1)
    painter.end()

    def dark(x: int, y: int) -> bool:
        return image.pixelColor(x, y).lightness() < 128

    high, low = 3, 15
    assert [dark(x, low) for x in (20, 120, 180)] == [True] * 3
    assert [dark(x, high) for x in (60, 95)] == [True] * 2
    assert not dark(75, low)
    assert not dark(20, high)
    # A hold too short for a pixel still shows.
    assert any(dark(x, high) for x in (149, 150, 151))


def test_kinds_have_hues_of_their_own(ui: Ui):
    assert len({hue(code).name() for code in ("KEY_Q", "BTN_LEFT", "WHEEL_UP", "no control")}) == 4


def test_a_recording_that_the_service_refuses_says_why(ui: Ui):
    other = ui.service.client
    other.call(m.StartRecording())
    ui.window.shown.show_macro("cast-far")
    ui.window.macro.recording.button.click()
    ui.wait(lambda: "A recording is going on already" in ui.window.messages.text.full_text, "the reason")
    assert not ui.window.macro.recording.recording
    other.call(m.StopRecording())
