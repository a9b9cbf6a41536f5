"""Profiles that load by themselves: real games start, come to the front and end under a real X server."""

from __future__ import annotations

import os
import shutil
import subprocess
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from pathlib import Path

import msgspec
from PyQt6.QtCore import QPoint

from nakrel.core.model.cells import RunMacro
from nakrel.core.model.controls import game_key
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, GameKey, MatchBy, Profile, ProgramRule, SetUp
from nakrel.core.model.steps import Tap
from nakrel.ui import commands
from tests.end_to_end.in_x.driver import Driver
from tests.end_to_end.in_x.test_first_macro import Display, play_in
from tests.support import PracticeGame, practice_command

# Other games may run meanwhile, by hand or in other tests.
RACE, POST = f"race-{os.getpid():07}", f"post-{os.getpid():07}"
TITLE = "A race of kilns"
R_KEY, T_KEY = "R", "T"


@contextmanager
def game(driver: Driver, name: str, tmp_path: Path) -> Iterator[PracticeGame]:
    """A game of this name runs."""
    made = PracticeGame(Display(driver), tmp_path, name=name)  # type: ignore[arg-type]
    try:
        yield made
    finally:
        made.end()


def is_shown(title: str) -> bool:
    """Whether a window of this title is there."""
    return subprocess.run(["xdotool", "search", "--name", f"^{title}$"], capture_output=True).returncode == 0


def linked(driver: Driver, key: str, name: str) -> Profile:
    profile = Profile(id=key, name=name, programs=(ProgramRule(MatchBy.NAME, key),))
    commands.edit_profile(driver.store, "link", profile)
    return profile


def live(driver: Driver) -> str:
    return driver.store.status.live


def test_the_game_is_offered_in_place_of_its_launcher(driver: Driver, tmp_path: Path):
    launcher = tmp_path / "kiln-launcher"
    words = " ".join(f"'{part}'" for part in practice_command(tmp_path / "log", name=RACE, title=TITLE))
    launcher.write_text(f"#!/bin/sh\n{words} &\nchild=$!\ntrap 'kill $child; exit' TERM\nwait\n")
    launcher.chmod(0o755)
    process = subprocess.Popen([str(launcher)], env=dict(os.environ))
    try:
        driver.wait(lambda: is_shown(TITLE) and not driver.window.isActiveWindow(), "the game's window")
        driver.to_front()
        driver.click(driver.window.column.new_profile_button)
        driver.type("Kiln Race", "Return")
        driver.wait(lambda: driver.window.head.title.full_text == "Kiln Race", "the profile's name")
        driver.click(driver.window.head.link_button)
        driver.wait(lambda: driver.window.link_dialog and driver.window.link_dialog.isVisible(), "the dialog")
        dialog = driver.window.link_dialog
        assert dialog is not None
        driver.wait(lambda: dialog.table.model().rowCount() > 0, "programs in the list")
        driver.click(dialog.search)
        driver.type("kiln-launcher")
        driver.wait(lambda: dialog.table.model().rowCount() == 1, "the launcher")
        driver.click_row(dialog.table, 0)
        driver.wait(lambda: dialog.child_button.isVisible(), "the warning")
        assert dialog.child_button.text() == f"Link {RACE} instead"
        driver.click(dialog.child_button)
        driver.wait(lambda: dialog.rule_value.text() == RACE, "the game's rule")
        driver.click(dialog.link_button)
        driver.wait(lambda: driver.window.shown.profile and driver.window.shown.profile.programs, "the link")
        kiln = driver.window.shown.profile
        assert kiln is not None
        assert kiln.programs == (ProgramRule(MatchBy.NAME, RACE),)
        driver.wait(lambda: live(driver) == kiln.id, "the game's profile to be live")
    finally:
        process.terminate()
        process.wait(10)
    driver.wait(lambda: live(driver) == EVERYDAY, "Everyday after the game")


def test_the_game_in_front_wins_and_everyday_returns_after_the_last(driver: Driver, tmp_path: Path):
    linked(driver, RACE, "Kiln Race")
    linked(driver, POST, "Kelp Post")
    driver.window.shown.show_profile("tidewardens")
    with ExitStack() as games:
        race = games.enter_context(game(driver, RACE, tmp_path))
        driver.wait(lambda: live(driver) == RACE, "the first game")
        with game(driver, POST, tmp_path) as post:
            driver.wait(lambda: live(driver) == POST, "the second, which came up in front")
            for bring, key in ((race, RACE), (post, POST), (race, RACE), (post, POST)):
                driver.injector("windowactivate", "--sync", bring.window)
                driver.wait(lambda key=key: live(driver) == key, f"{key} in front")
                assert "in front" in driver.store.status.reason
        driver.wait(lambda: live(driver) == RACE, "the game that is left")
    driver.wait(lambda: live(driver) == EVERYDAY, "Everyday after the last")
    # What is shown never moved.
    assert driver.window.shown.profile is not None
    assert driver.window.shown.profile.id == "tidewardens"


def test_a_game_that_starts_anew_within_a_second_is_one_switch(driver: Driver, tmp_path: Path):
    linked(driver, RACE, "Kiln Race")
    driver.let_pass(300)
    # Three processes of one name follow on each other, as with games that start themselves anew.
    sleep = shutil.which("sleep")
    assert sleep
    (tmp_path / RACE).symlink_to(sleep)
    for _ in range(3):
        process = subprocess.Popen(["sleep", "60"], executable=tmp_path / RACE)
        driver.wait(lambda: live(driver) == RACE, "the game")
        driver.let_pass(300)
        process.kill()
        process.wait(10)
    driver.wait(lambda: live(driver) == EVERYDAY, "Everyday")
    switches = [entry.what for entry in driver.store.journal if entry.kind == "switch"]
    assert switches == ["Kiln Race is live", "Everyday is live"]


def test_a_key_changed_in_the_game_is_changed_once(driver: Driver, tmp_path: Path):
    store = driver.store
    macro = Macro(
        id="volley",
        name="Volley",
        play=Play(Mode.COUNTED, runs=2, pause_us=60_000),
        loop=(Tap(control=game_key("Reload"), hold_us=50_000),),
    )
    commands.edit_macro(store, "new", macro)
    profile = msgspec.structs.replace(
        linked(driver, RACE, "Kiln Race"),
        setups=(SetUp("Main", {"BTN_SIDE": RunMacro("volley")}),),
        keys=(GameKey("Reload", "KEY_R"),),
    )
    commands.edit_profile(store, "attach", profile)
    with game(driver, RACE, tmp_path) as race:
        play_in(driver, race)
        driver.wait(lambda: live(driver) == RACE, "the game's profile")
        driver.injector("click", "8")
        driver.wait(lambda: race.arrivals(R_KEY) == 2, "two presses of R")
        driver.wait(lambda: not store.status.running, "the end of the macro")
        driver.to_front()
        driver.window.shown.show_profile(RACE)
        driver.window.shown.show_page("sheet")
        details = driver.window.profile_details
        driver.click(driver.window.head.profile_button)
        driver.click(details.keys_button)
        driver.wait(lambda: details.keys_dialog and details.keys_dialog.isVisible(), "the game keys")
        keys = details.keys_dialog
        assert keys is not None
        driver.wait(keys.isActiveWindow, "the dialog to be in front")
        driver.click_row(keys.table, 0, 1)
        driver.wait(keys.table.hasFocus, "the list to have the keyboard")
        driver.injector("key", "F2")
        driver.type("T", "Return")
        driver.wait(lambda: store.profiles[RACE].keys == (GameKey("Reload", "KEY_T"),), "the key's new place")
        driver.injector("key", "Escape")
        play_in(driver, race)
        driver.injector("click", "8")
        driver.wait(lambda: race.arrivals(T_KEY) == 2, "two presses of T")
        assert race.arrivals(R_KEY) == 2


def test_an_edit_goes_on_undisturbed_while_another_profile_goes_live(driver: Driver, tmp_path: Path):
    linked(driver, RACE, "Kiln Race")
    window = driver.window
    window.shown.show_profile("tidewardens")
    window.shown.show_page("sheet")
    window.shown.show_control("BTN_TRIGGER_HAPPY1")
    before = (window.shown.setup, window.shown.control, window.sheet.table.currentIndex().row())
    with game(driver, RACE, tmp_path):
        driver.wait(lambda: live(driver) == RACE, "the game's profile")
        assert window.head.title.full_text == "Tidewardens"
        assert before == (window.shown.setup, window.shown.control, window.sheet.table.currentIndex().row())
        assert window.strip.live.text() == "Kiln Race"
    driver.wait(lambda: live(driver) == EVERYDAY, "Everyday")
    assert before == (window.shown.setup, window.shown.control, window.sheet.table.currentIndex().row())


def test_a_cell_is_dragged_to_another_and_copied_with_ctrl(driver: Driver):
    window, store = driver.window, driver.store
    window.shown.show_profile("tidewardens")
    window.shown.show_page("sheet")
    table, model = window.sheet.table, window.sheet.model
    window.sheet.only_changed.setChecked(False)
    ground = table.viewport()
    assert ground is not None
    first, second = "BTN_TRIGGER_HAPPY1", "BTN_TRIGGER_HAPPY11"
    cells = lambda: store.profiles["tidewardens"].setups[0].cells  # noqa: E731
    table.scrollTo(model.index(model.row_of(second), 2))
    driver.let_pass(100)

    def spot(code: str) -> QPoint:
        return table.visualRect(model.index(model.row_of(code), 2)).center()

    def carry() -> None:
        """A drag keeps the window busy until the drop, so the hand goes on by itself."""
        start, end = ground.mapToGlobal(spot(first)), ground.mapToGlobal(spot(second))
        moves: list[str] = []
        for part in (0.0, 0.2, 0.6, 1.0, 1.0):
            x, y = (round(a + (b - a) * part) for a, b in ((start.x(), end.x()), (start.y(), end.y())))
            moves += ["mousemove", str(x), str(y), "sleep", "0.1", *(["mousedown", "1", "sleep", "0.1"] * (not moves))]
        process = subprocess.Popen(["xdotool", *moves, "sleep", "0.2", "mouseup", "1"])
        driver.wait(lambda: process.poll() is not None, "the hand")

    before = cells()[first]
    driver.click_row(table, model.row_of(first), 2)
    # Two presses close together are a double click, which opens the field.
    driver.let_pass(600)
    carry()
    driver.wait(lambda: cells().get(second) == before and first not in cells(), "the cell to have moved")
    driver.injector("key", "ctrl+z")
    driver.wait(lambda: cells().get(first) == before, "undo")
    driver.click_row(table, model.row_of(first), 2)
    driver.let_pass(600)
    driver.injector("keydown", "ctrl")
    carry()
    driver.injector("keyup", "ctrl")
    driver.wait(lambda: cells().get(second) == before == cells().get(first), "the copy")
