"""Someone new begins with an empty home: rapid fire, the field, the board, and a recording out of a game."""

from __future__ import annotations

from pathlib import Path

from nakrel.core.model.cells import RunMacro, ToChord, ToControl, TypeText
from nakrel.core.model.macro import Mode
from nakrel.core.model.profile import EVERYDAY
from nakrel.core.model.recording import Waits
from nakrel.core.model.steps import Tap, Wait
from nakrel.ui.widgets.shield import shielded
from tests.end_to_end.in_x.driver import Driver
from tests.end_to_end.in_x.test_first_macro import play_in, start_game, still
from tests.support import PracticeGame, assert_rate

SIDE, EXTRA = "BTN_SIDE", "BTN_EXTRA"


def cells(driver: Driver) -> dict:
    return driver.store.profiles[EVERYDAY].setups[0].cells


def test_from_an_empty_home(newcomer: Driver, tmp_path: Path):
    driver = newcomer
    rapid_fire(driver)
    combination_and_text(driver)
    on_the_board(driver)
    game = start_game(driver, tmp_path)
    try:
        play(driver, game)
        record_in_the_game(driver, game)
        decide_afterwards(driver)
        play_in_three_seconds(driver, game)
    finally:
        game.end()
    still(driver)


def rapid_fire(driver: Driver) -> None:
    page = driver.window.first_steps.page
    driver.click(page.buttons["Rapid fire on a button"])
    driver.wait(lambda: driver.store.status.listening, "the listening")
    driver.injector("click", "8")
    field = driver.window.sheet.assign.field
    asked = lambda: field.line.placeholderText().startswith("Rapid fire of")  # noqa: E731
    driver.wait(lambda: asked() and field.isVisible() and not shielded(), "the question for the key")
    driver.type("e", "Return")
    driver.wait(lambda: SIDE in cells(driver), "the button to have it")
    cell = cells(driver)[SIDE]
    assert isinstance(cell, RunMacro)
    macro = driver.store.macros[cell.macro]
    assert (macro.name, macro.play.mode) == ("Rapid fire E", Mode.HELD)
    assert isinstance(macro.loop[0], Tap)
    assert macro.loop[0].control == "KEY_E"


def combination_and_text(driver: Driver) -> None:
    """Typing on a cell opens the field."""
    sheet = driver.window.sheet
    driver.click_row(sheet.table, sheet.model.row_of(EXTRA), 2)
    driver.type("ctrl+shift+left")
    driver.injector("key", "Return")
    chord = ToChord(("KEY_LEFTCTRL", "KEY_LEFTSHIFT", "KEY_LEFT"))
    driver.wait(lambda: cells(driver).get(EXTRA) == chord, "the combination")
    sheet.device.setCurrentIndex(next(n for n, d in enumerate(driver.store.devices) if "KEY_F9" in d.controls))
    sheet.show_control("KEY_F9")
    driver.let_pass(200)
    driver.click_row(sheet.table, sheet.model.row_of("KEY_F9"), 2)
    driver.injector("key", "Return")
    driver.wait(sheet.assign.field.isVisible, "the field")
    driver.type('"go"', "Return")
    driver.wait(lambda: cells(driver).get("KEY_F9") == TypeText("go"), "the text")


def on_the_board(driver: Driver) -> None:
    sheet = driver.window.sheet
    driver.click(sheet.view.buttons["board"])
    driver.wait(sheet.board.isVisible, "the board")
    place = next(each for each in sheet.board.board.places if each.code == "KEY_S")
    driver._click_at(sheet.board.mapToGlobal(sheet.board.rect_of(place).center().toPoint()), "1")
    driver.injector("key", "Right")
    driver.wait(lambda: driver.window.shown.control == "KEY_D", "the key beside it")
    driver.injector("key", "Return")
    driver.wait(sheet.assign.field.isVisible, "the field")
    driver.type("f13")
    driver.injector("key", "Return")
    driver.wait(lambda: cells(driver).get("KEY_D") == ToControl("KEY_F13"), "the key")


def play(driver: Driver, game: PracticeGame) -> None:
    play_in(driver, game)
    driver.injector("mousedown", "8")
    driver.wait(lambda: len(game.presses("E")) >= 12, "rapid fire")
    driver.injector("mouseup", "8")
    still(driver)
    assert_rate(game.presses("E"), 0.05)
    driver.injector("key", "F9")
    driver.wait(lambda: (game.arrivals("G"), game.arrivals("O")) == (1, 1), "the text in the game")
    driver.injector("key", "d")
    driver.wait(lambda: game.arrivals("F13") == 1, "the key of the board")
    assert game.arrivals("D") == 0
    driver.wait(lambda: game.down() == set(), "everything up")


def record_in_the_game(driver: Driver, game: PracticeGame) -> None:
    """A key begins and ends the recording while the game is in front."""
    window = driver.window
    driver.to_front()
    driver.click(window.column.new_macro_button)
    driver.type("Sounding", "Return")
    driver.wait(lambda: window.head.title.full_text == "Sounding", "the name")
    window.shown.show_page("devices")
    keys = window.devices.keys
    driver.click(keys.buttons["record_key"])
    driver.wait(lambda: driver.store.status.listening, "the listening")
    driver.injector("key", "F10")
    driver.wait(lambda: driver.store.settings.record_key == "KEY_F10", "the key")
    driver.wait(lambda: not driver.store.status.listening, "the capture's end")
    play_in(driver, game)
    driver.injector("key", "F10")
    driver.wait(lambda: driver.store.status.recording, "the recording")
    driver.injector("key", "q")
    driver.let_pass(120)
    driver.injector("key", "w")
    driver.injector("key", "F10")
    driver.wait(lambda: not driver.store.status.recording, "its end")


def decide_afterwards(driver: Driver) -> None:
    driver.to_front()
    window, store = driver.window, driver.store
    macro = next(each.id for each in store.macros.values() if each.name == "Sounding")
    window.shown.show_page("macro")
    strip = window.macro.take_strip
    driver.wait(strip.isVisible, "the strip")
    driver.pick(strip.taps, "joined into taps")
    driver.wait(lambda: any(isinstance(step, Tap) for step in store.macros[macro].loop), "taps")
    driver.pick(strip.delays, "one value")
    driver.wait(lambda: store.settings.recording.waits is Waits.EVEN, "one value for every delay")
    assert [s.control for s in store.macros[macro].loop if isinstance(s, Tap)] == ["KEY_Q", "KEY_W"]
    assert [s for s in store.macros[macro].loop if isinstance(s, Wait)]


def play_in_three_seconds(driver: Driver, game: PracticeGame) -> None:
    before = game.arrivals("Q")
    driver.click(driver.window.macro_details.play_now.later)
    driver.injector("windowactivate", "--sync", game.window)
    driver.wait(lambda: game.arrivals("Q") == before + 1, "the macro in the game")
    driver.wait(lambda: game.down() == set(), "everything up")
