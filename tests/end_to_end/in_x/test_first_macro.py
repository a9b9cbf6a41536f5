"""A newcomer makes a profile and a macro, attaches it, plays with it, and finds all of it again."""

from __future__ import annotations

import os
from pathlib import Path

from PyQt6.QtCore import QRect

from nakrel.core.model.cells import RunMacro
from nakrel.core.model.controls import label
from nakrel.core.model.macro import Mode
from nakrel.core.model.profile import EVERYDAY
from nakrel.core.model.steps import Press, Release, Wait
from nakrel.service.loop import monotonic_us
from nakrel.ui.widgets.shield import shielded
from tests.end_to_end.in_x.driver import Driver
from tests.support import GAME, PracticeGame, assert_rate

E_KEY = "E"
HOLD_US, REST_US, PAUSE_US = 40_000, 10_000, 25_000
CYCLE_S = (HOLD_US + 2 * REST_US + PAUSE_US) / 1_000_000


class Display:
    """The server that this pytest runs in, as the practice game needs it."""

    def __init__(self, driver: Driver) -> None:
        self.environment = dict(os.environ)
        self._driver = driver

    def injector(self, *arguments: str) -> str:
        import subprocess

        return subprocess.run(["xdotool", *arguments], check=True, capture_output=True, text=True).stdout


def start_game(driver: Driver, tmp_path: Path, fps: int = 125, options: tuple[str, ...] = ()) -> PracticeGame:
    """Start the practice game; it comes up in front, under the pointer."""
    game = PracticeGame(Display(driver), tmp_path, fps, options=options)  # type: ignore[arg-type]
    driver.injector("mousemove", "--sync", "800", "550")
    driver.wait(lambda: not driver.window.isActiveWindow(), "the game to be in front")
    return game


def play_in(driver: Driver, game: PracticeGame) -> None:
    """Bring the game to the front with the pointer in it."""
    driver.injector("windowactivate", "--sync", game.window)
    driver.injector("mousemove", "--sync", "800", "550")
    driver.wait(lambda: not driver.store.status.for_show, "macros to reach the game")


def mode(driver: Driver, name: str) -> None:
    driver.to_front()
    driver.click(driver.window.macro_details.play.mode.buttons[name])


def still(driver: Driver) -> None:
    driver.wait(lambda: not driver.store.status.running, "everything to have ended")


def test_the_whole_evening(driver: Driver, tmp_path: Path):
    window, store = driver.window, driver.store
    game = start_game(driver, tmp_path)
    try:
        make_profile(driver)
        link(driver, GAME)
        driver.wait(lambda: store.profiles[store.status.live].name == "Kiln Race", "the linked profile to be live")
        record(driver, game)
    finally:
        game.end()
    driver.wait(lambda: store.status.live == EVERYDAY, "Everyday after the game")
    clean_up(driver)
    attach(driver)

    game = start_game(driver, tmp_path)
    try:
        driver.wait(lambda: window.strip.live.text() == "Kiln Race", "the live strip to name the profile")
        hold(driver, game)
        toggle(driver, game)
        counted_and_single(driver, game)
        stop_everything(driver, game)
    finally:
        game.end()
    driver.wait(lambda: store.status.live == EVERYDAY, "Everyday after the game")
    driver.wait(lambda: window.strip.live.text() == "Everyday", "the live strip to say so")
    reopen(driver)


def make_profile(driver: Driver) -> None:
    driver.to_front()
    driver.click(driver.window.column.new_profile_button)
    driver.type("Kiln Race", "Return")
    driver.wait(lambda: driver.window.head.title.full_text == "Kiln Race", "the profile's name")


def link(driver: Driver, program: str) -> None:
    driver.click(driver.window.head.link_button)
    driver.wait(lambda: driver.window.link_dialog and driver.window.link_dialog.isVisible(), "the list of programs")
    dialog = driver.window.link_dialog
    assert dialog is not None
    driver.wait(lambda: dialog.table.model().rowCount() > 0, "programs in the list")
    driver.click(dialog.search)
    driver.type(program)
    driver.wait(lambda: dialog.table.model().rowCount() == 1, "the one program that runs under this name")
    driver.click_row(dialog.table, 0)
    driver.click(dialog.link_button)
    driver.wait(lambda: driver.window.shown.profile and driver.window.shown.profile.programs, "the link")


def record(driver: Driver, game: PracticeGame) -> None:
    window = driver.window
    driver.click(window.column.new_macro_button)
    driver.type("Kiln shot", "Return")
    driver.wait(lambda: window.head.title.full_text == "Kiln shot", "the macro's name")
    driver.click(window.macro.recording.button)
    driver.wait(lambda: driver.store.status.recording, "the recording")
    driver.injector("windowactivate", "--sync", game.window)
    driver.injector("mousemove", "--sync", "800", "550")
    began = monotonic_us()
    driver.injector("keydown", "e")
    driver.let_pass(120)
    driver.injector("keyup", "e")
    took = monotonic_us() - began
    driver.wait(lambda: window.macro.model.rowCount() >= 3, "the steps to show up live")
    driver.injector("click", "1")
    driver.injector("key", "Scroll_Lock")
    driver.wait(lambda: not window.macro.recording.recording and not shielded(), "the end of the recording")
    macro = window.shown.macro
    assert macro is not None
    assert macro.name == "Kiln shot"
    kinds = [(type(step), getattr(step, "control", "")) for step in macro.loop]
    # An instant click of the hand may have no wait between its edges.
    assert [kind for kind in kinds if kind[0] is not Wait] == [
        (Press, "KEY_E"),
        (Release, "KEY_E"),
        (Press, "BTN_LEFT"),
        (Release, "BTN_LEFT"),
    ]
    held = macro.loop[1]
    assert isinstance(held, Wait)
    # The server tells whole milliseconds, between two of which lies up to one more than passed.
    assert 120_000 <= held.wait_us < took + 1_000


def clean_up(driver: Driver) -> None:
    """Delete the click, and type new waits."""
    window = driver.window
    driver.to_front()
    macro = window.shown.macro
    assert macro is not None
    presses = [n for n, step in enumerate(macro.loop) if getattr(step, "control", "") == "BTN_LEFT"]
    before = len(macro.loop)
    driver.click_row(window.macro.steps, presses[0], 2)
    driver.click_row(window.macro.steps, presses[1], 2, "ctrl")
    driver.injector("key", "Delete")
    driver.wait(lambda: window.macro.model.rowCount() == before - 2, "the two steps to be gone")
    driver.click_row(window.macro.steps, 1, 2)
    driver.type("40", "Return")
    while (count := window.macro.model.rowCount()) > 4:
        driver.click_row(window.macro.steps, count - 1, 2)
        driver.injector("key", "Delete")
        driver.wait(lambda count=count: window.macro.model.rowCount() < count, "the step to be gone")
    driver.click_row(window.macro.steps, 3, 2)
    driver.type("20ms", "Return")
    wanted = (
        Press(control="KEY_E"),
        Wait(wait_us=HOLD_US),
        Release(control="KEY_E"),
        Wait(wait_us=2 * REST_US),
    )
    driver.wait(lambda: window.shown.macro and window.shown.macro.loop == wanted, "the waits that were typed")
    mode(driver, "held")
    driver.replace(window.macro_details.play.pause, "25")
    driver.wait(lambda: window.shown.macro and window.shown.macro.play.pause_us == PAUSE_US, "the pause")
    macro = window.shown.macro
    assert macro is not None
    assert macro.play.mode is Mode.HELD


def attach(driver: Driver) -> None:
    window = driver.window
    driver.click(window.macro_details.attach_button)
    driver.wait(lambda: driver.store.status.listening, "attachments to rest")
    driver.injector("click", "8")
    profile, macro = window.shown.profile, window.shown.macro
    assert profile is not None
    assert macro is not None
    driver.wait(
        lambda: window.shown.profile.setups[0].cells == {"BTN_SIDE": RunMacro(macro.id)},  # type: ignore[union-attr]
        "the attachment",
    )
    driver.wait(lambda: not driver.store.status.listening, "attachments to work again")
    assert label("BTN_SIDE") in window.head.attached_words()


def hold(driver: Driver, game: PracticeGame) -> None:
    driver.injector("mousedown", "8")
    driver.wait(lambda: len(game.presses(E_KEY)) >= 15, "presses")
    driver.injector("mouseup", "8")
    still(driver)
    assert_rate(game.presses(E_KEY), CYCLE_S)
    count = game.arrivals(E_KEY)
    driver.let_pass(400)
    assert game.arrivals(E_KEY) == count
    assert game.down() == set()
    # The game saw the macro's key and nothing of the trigger.
    assert {e["control"] for e in game.entries() if e["event"] == "arrived"} == {E_KEY}


def toggle(driver: Driver, game: PracticeGame) -> None:
    mode(driver, "toggle")
    driver.replace(driver.window.macro_details.play.pause, "25")
    play_in(driver, game)
    count = len(game.presses(E_KEY))
    driver.injector("click", "8")
    driver.wait(lambda: len(game.presses(E_KEY)) >= count + 8, "the toggle to go on by itself")
    driver.injector("click", "8")
    still(driver)
    assert game.down() == set()


def counted_and_single(driver: Driver, game: PracticeGame) -> None:
    mode(driver, "counted")
    driver.replace(driver.window.macro_details.play.runs, "5")
    for runs in (5, 1):
        if runs == 1:
            mode(driver, "single")
        play_in(driver, game)
        count = game.arrivals(E_KEY)
        driver.injector("click", "8")
        driver.wait(lambda c=count, r=runs: game.arrivals(E_KEY) >= c + r, f"{runs} runs")
        still(driver)
        driver.let_pass(300)
        assert game.arrivals(E_KEY) == count + runs


def stop_everything(driver: Driver, game: PracticeGame) -> None:
    mode(driver, "toggle")
    for by_key in (True, False):
        play_in(driver, game)
        count = len(game.presses(E_KEY))
        driver.injector("click", "8")
        driver.wait(lambda c=count: len(game.presses(E_KEY)) > c, "the toggle")
        if by_key:
            driver.injector("key", "Pause")
        else:
            driver.click(driver.window.strip.stop)
        still(driver)
        count = len(game.presses(E_KEY))
        driver.let_pass(300)
        assert len(game.presses(E_KEY)) <= count + 1
        assert game.down() == set()


def reopen(driver: Driver) -> None:
    """Close the window and open it again: all is there, and nobody saved anything."""
    macro, profile = driver.window.shown.macro, driver.window.shown.profile
    assert macro is not None
    assert profile is not None
    before = driver.window.geometry()
    driver.injector("windowmove", "--sync", str(int(driver.window.winId())), "30", "50")
    driver.wait(lambda: driver.window.geometry().topLeft() != before.topLeft(), "the window to have moved")
    # A window manager may move it in more than one go: where it stood when it closed is what counts.
    closed = driver.window
    driver.close()
    assert closed.shown.place
    place = QRect(*closed.shown.place)
    assert place.topLeft() != before.topLeft()
    driver.open()
    driver.wait(lambda: driver.window.geometry() == place, "the window to stand where it stood")
    assert driver.store.macros[macro.id] == macro
    assert driver.store.profiles[profile.id] == profile
    assert [rule.value for rule in profile.programs] == [GAME]
    # It opens where it was left.
    assert driver.window.shown.profile == profile
    assert driver.window.shown.macro == macro
    assert any(entry.what == "Kiln Race is live" for entry in driver.store.journal)
