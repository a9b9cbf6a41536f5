"""Nakrel as a program of the desktop, from its window: the menu, the start at login, cues."""

from __future__ import annotations

import os
from pathlib import Path

import pytest
from PyQt6.QtWidgets import QCheckBox

from nakrel.core.model.cues import Cue, CueSettings
from nakrel.desktop import install, login
from nakrel.desktop.places import Places
from nakrel.ui.window.cues_dialog import CuesDialog
from tests.ui.conftest import Ui


@pytest.fixture(autouse=True)
def _folders(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """Nothing lands in the user's own folders."""
    places = Places(*(tmp_path / name for name in ("bin", "data", "config", "state")))
    monkeypatch.setattr(Places, "of_user", classmethod(lambda cls: places))


def action(ui: Ui, text: str):
    return next(each for each in ui.window.actions_by_group["Program"] if each.text() == text)


def test_the_menu_and_the_start_at_login_are_chosen_in_the_window(ui: Ui):
    told = []
    ui.store.offer.connect(lambda text, button, does: told.append(text))
    ui.window.open_menu()
    assert action(ui, "Add Nakrel to the desktop's menu").isVisible()
    assert not action(ui, "Start at login").isChecked()
    action(ui, "Add Nakrel to the desktop's menu").trigger()
    ui.wait(lambda: told, "word of it")
    assert told[0].startswith("Nakrel is in the desktop's menu")
    assert install.is_installed()
    for on in (True, False):
        action(ui, "Start at login").trigger()
        ui.wait(lambda: login.is_on() is on, "the switch")  # noqa: B023
        ui.window.open_menu()
        assert action(ui, "Start at login").isChecked() is on
    assert not action(ui, "Add Nakrel to the desktop's menu").isVisible()


def test_what_cannot_be_installed_is_said(ui: Ui, tmp_path: Path):
    (tmp_path / "bin").write_text("a file in its place")
    faults = []
    ui.store.fault.connect(faults.append)
    ui.window.program.install()
    ui.wait(lambda: faults, "the fault")
    assert faults[0].startswith(f"Not added to the menu: {tmp_path / 'bin'}")


def test_the_first_page_offers_both(fresh: Ui):
    page = fresh.window.first_steps.page
    assert page.menu_button.isVisible()
    box = page.findChildren(QCheckBox)[0]
    box.click()
    fresh.wait(login.is_on, "the switch")
    page.menu_button.click()
    fresh.wait(lambda: not page.menu_button.isVisible(), "the menu")
    assert os.access(install.Places.of_user().launcher, os.X_OK)


def test_cues_are_chosen_one_by_one_and_undone(ui: Ui):
    dialog = CuesDialog(ui.store, ui.window)
    dialog.show()
    dialog.sounds[Cue.LIVE].click()
    dialog.lines[Cue.STOP].click()
    dialog.lines[Cue.ON].click()
    dialog.volume.changed.emit(80)
    dialog.light.chosen.emit("recording")
    assert ui.store.settings.cues == CueSettings((Cue.LIVE,), (Cue.ON, Cue.STOP), 80, "recording")
    assert dialog.volume.shown.text() == "80 %"
    for _ in range(5):
        ui.undo()
    assert ui.store.settings.cues == CueSettings()
    assert not dialog.sounds[Cue.LIVE].isChecked()
    names = [box.accessibleName() for box in dialog.findChildren(QCheckBox)]
    assert "Hear: a profile goes live" in names
    assert "See: Stop everything" in names
    assert all(names)
    dialog.close()
