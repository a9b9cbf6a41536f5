"""A bundle is looked through in the window; what a stranger's macro would open stays off."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtWidgets import QLabel

from nakrel.core.edit.bundle import Bundle, bundle_of
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from nakrel.core.model.steps import Open, Text
from nakrel.storage.bundles import read_bundle, write_bundle
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from nakrel.ui import commands
from tests.ui.conftest import Ui

MAP, MAIL = Open(command=("tide-map",)), Open(command=("gull-mail", "--new"))
STRANGER = Macro(id="reel-in", name="Reel in", loop=(MAP, MAIL, Text(text="hello")))
THEIRS = Profile(id="theirs", name="Their game", setups=(SetUp("Main", {"BTN_SIDE": RunMacro("reel-in")}),))


def opened(ui: Ui, path: Path):
    ui.window.bundles.read(path)
    ui.wait(lambda: ui.window.bundles.dialog and ui.window.bundles.dialog.isVisible(), "the dialog")
    dialog = ui.window.bundles.dialog
    assert dialog is not None
    return dialog


def test_a_profile_goes_out_with_its_macros(ui: Ui, tmp_path: Path):
    path = tmp_path / "out.nakrel.zip"
    ui.window.shown.show_profile("tidewardens")
    ui.window.bundles.write(path)
    ui.wait(path.exists, "the file")
    found = read_bundle(path)
    assert found == bundle_of((ui.store.profiles["tidewardens"],), ui.store.macros)


def test_what_is_inside_is_shown_and_nothing_lands_until_it_is_taken(ui: Ui, tmp_path: Path):
    path = tmp_path / "theirs.zip"
    write_bundle(path, Bundle((THEIRS,), (STRANGER,)))
    before = dict(ui.store.macros), dict(ui.store.profiles)
    dialog = opened(ui, path)
    told = [each.text() for each in dialog.findChildren(QLabel)]
    for words in ("Profiles (1)", "Their game", "It would open programs (2)", "Reel in: hello", "Exists already (1)"):
        assert words in told
    assert (ui.store.macros, ui.store.profiles) == before
    dialog.reject()
    assert (ui.store.macros, ui.store.profiles) == before

    dialog = opened(ui, path)
    dialog.allowed[MAIL.command].setChecked(True)
    dialog.take_button.click()
    ui.wait(lambda: "theirs" in ui.store.profiles, "the profile")
    cell = ui.store.profiles["theirs"].setups[0].cells["BTN_SIDE"]
    assert isinstance(cell, RunMacro)
    taken = ui.store.macros[cell.macro]
    assert (taken.name, [step.off for step in taken.loop]) == ("Reel in 2", [True, False, False])
    assert ui.window.shown.profile == ui.store.profiles["theirs"]
    ui.undo()
    assert (ui.store.macros, ui.store.profiles) == before


def test_what_would_be_opened_is_told_to_the_letter(ui: Ui, tmp_path: Path):
    """A box shows one ampersand for two in its text."""
    path, command = tmp_path / "theirs.zip", ("sh", "-c", "tide-map && gull-mail")
    write_bundle(path, Bundle((), (Macro(id="both", name="Both", loop=(Open(command=command),)),)))
    dialog = opened(ui, path)
    assert dialog.allowed[command].text().startswith("Allow sh -c 'tide-map &&&& gull-mail'  (")


def test_the_old_one_gives_way_where_that_is_wanted(ui: Ui, tmp_path: Path):
    path = tmp_path / "theirs.zip"
    write_bundle(path, Bundle((), (STRANGER,)))
    dialog = opened(ui, path)
    dialog.clashes.buttons["replace"].click()
    dialog.take_button.click()
    assert [step.off for step in ui.store.macros["reel-in"].loop] == [True, True, False]


def test_a_hostile_file_is_told_and_opens_no_dialog(ui: Ui, tmp_path: Path):
    path, faults = tmp_path / "bad.zip", []
    path.write_bytes(b"PK words")
    ui.store.fault.connect(faults.append)
    ui.window.bundles.read(path)
    ui.wait(lambda: faults, "the reason")
    assert "no zip archive, or it is damaged" in faults[0]
    assert ui.window.bundles.dialog is None


def test_all_of_it_exported_wiped_and_imported_is_as_before(ui: Ui, tmp_path: Path):
    path = tmp_path / "all.nakrel.zip"
    ui.window.column.profile_view.selectAll()
    ui.window.bundles.write(path)
    ui.wait(path.exists, "the file")
    profiles, macros = dict(ui.store.profiles), dict(ui.store.macros)
    used = {cell.macro for p in profiles.values() for *_, cell in p.cells() if isinstance(cell, RunMacro)}
    for macro in macros.values():
        commands.delete_macro(ui.store, macro)
    for profile in profiles.values():
        if profile.id != EVERYDAY:
            commands.delete_profile(ui.store, ui.store.profiles[profile.id])
    commands.reset_profile(ui.store, ui.store.profiles[EVERYDAY])
    ui.store.undo_stack.clear()
    ui.wait(lambda: not ui.store._unsent, "the wipe to be saved")
    assert not ui.store.macros
    dialog = opened(ui, path)
    dialog._clash_chosen("replace")
    for box in dialog.live.values():
        box.setChecked(True)
    dialog.take_button.click()
    ui.wait(lambda: ui.store.profiles == profiles, "all profiles")
    assert ui.store.macros == {key: macros[key] for key in used}
    ui.wait(lambda: not ui.store._unsent, "it to be saved")
    library = Library(Home.find(ui.service.home.config.parent))
    library.load()
    assert (library.profiles, library.macros) == (ui.store.profiles, ui.store.macros)
