"""An evening with a macro on a letter key and one on the right button: nothing acts against the hand.

The scenario of someone who plays, comes back to the window for a change, and plays on.
"""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtWidgets import QApplication, QMenu

from nakrel.core.model.cells import RunMacro, ToControl
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, MatchBy, Profile, ProgramRule, SetUp
from nakrel.core.model.steps import Press, Release, Tap
from nakrel.ui.widgets.shield import shielded
from tests.end_to_end.in_x.driver import Driver
from tests.end_to_end.in_x.test_first_macro import play_in, start_game, still
from tests.support import GAME

Q, G = "Q", "G"
RAPID = Macro(
    id="rapid", name="Rapid", play=Play(Mode.TOGGLE, pause_us=25_000), loop=(Tap(control="KEY_Q", hold_us=40_000),)
)
RULE = ProgramRule(MatchBy.NAME, GAME)
CELLS = {"KEY_G": RunMacro("rapid"), "BTN_RIGHT": RunMacro("rapid"), "BTN_SIDE": RunMacro("rapid")}


def test_play_come_back_and_play_on(driver: Driver, tmp_path: Path):
    store = driver.store
    store.put_macro(RAPID)
    store.put_profile(Profile(id="kiln", name="Kiln Race", programs=(RULE,), setups=(SetUp("Main", CELLS),)))
    game = start_game(driver, tmp_path)
    try:
        driver.wait(lambda: store.status.live == "kiln", "the game's profile")
        play_in(driver, game)
        driver.injector("key", "g")
        driver.wait(lambda: len(game.presses(Q)) >= 5, "the toggle in the game")
        # Back in the window the run has ended, and the game has nothing down.
        driver.to_front()
        still(driver)
        driver.wait(lambda: game.down() == set(), "everything up")
        driver.let_pass(100)
        seen = game.arrivals(Q)
        rename(driver, "Drag crate, going")
        right_click(driver)
        record(driver)
        choose_by_pressing(driver)
        assert store.status.running == ()
        assert game.arrivals(Q) == seen
        assert game.arrivals(G) == 0
        # A thumb button plays, for preview alone, and that ends with the window.
        driver.injector("click", "8")
        driver.wait(lambda: store.status.running, "the preview")
        play_in(driver, game)
        still(driver)
        driver.let_pass(200)
        assert game.arrivals(Q) == seen
        # Nothing of what was done in the window goes on; the key is the macro's again.
        driver.injector("key", "g")
        driver.wait(lambda: game.arrivals(Q) >= seen + 5, "the toggle by another press")
        assert game.arrivals(G) == 0
    finally:
        game.end()
    driver.wait(lambda: store.status.live == EVERYDAY, "Everyday after the game")
    still(driver)


def rename(driver: Driver, name: str) -> None:
    """Type a name that has the attached letter in it."""
    window = driver.window
    window.shown.show_macro("rapid")
    driver.wait(lambda: window.head.title.full_text == "Rapid", "the macro")
    view = window.column.macro_view
    driver.click_row(view, window.column.macros.row_of("rapid"))
    driver.injector("key", "F2")
    driver.injector("key", "ctrl+a")
    driver.type(name, "Return")
    driver.wait(lambda: driver.store.macros["rapid"].name == name, "every letter of the name")


def right_click(driver: Driver) -> None:
    """The right button has a macro, and opens the menu all the same."""
    window = driver.window
    steps = window.macro.steps
    ground = steps.viewport()
    assert ground is not None
    driver._click_at(ground.mapToGlobal(steps.visualRect(window.macro.model.index(0, 0)).center()), "3")
    driver.wait(QApplication.activePopupWidget, "the menu")
    menu = QApplication.activePopupWidget()
    assert isinstance(menu, QMenu)
    driver.injector("key", "Escape")
    driver.wait(lambda: QApplication.activePopupWidget() is None, "the menu to be gone")


def record(driver: Driver) -> None:
    """Record in the window itself: what is pressed is recorded, and does nothing else."""
    window, store = driver.window, driver.store
    before = store.macros["rapid"]
    window.macro.steps.clearSelection()
    driver.click(window.macro.recording.button)
    driver.wait(lambda: store.status.recording, "the recording")
    driver.injector("key", "g")
    driver.injector("key", "ctrl+4")
    driver.injector("key", "Scroll_Lock")
    driver.wait(lambda: not window.macro.recording.recording and not shielded(), "its end")
    assert window.shown.page == "macro"
    after = store.macros["rapid"]
    new = [(type(s), s.control) for s in after.loop[len(before.loop) :] if isinstance(s, Press | Release)]
    assert new[:2] == [(Press, "KEY_G"), (Release, "KEY_G")]
    assert {control for _, control in new} == {"KEY_G", "KEY_LEFTCTRL", "KEY_4"}
    assert after.loop[: len(before.loop)] == before.loop
    store.undo_stack.undo()
    assert store.macros["rapid"] == before


def choose_by_pressing(driver: Driver) -> None:
    """Let Task act as G, chosen by pressing it; no row is moved to, no macro is started."""
    window, store = driver.window, driver.store
    window.shown.show_profile("kiln")
    window.shown.show_page("sheet")
    window.sheet.show_control("BTN_TASK")
    details = window.sheet_details
    driver.click(details.press_button)
    driver.wait(lambda: store.status.listening, "the listening")
    driver.injector("key", "g")
    driver.wait(lambda: store.profiles["kiln"].setups[0].cells.get("BTN_TASK") == ToControl("KEY_G"), "the key")
    driver.wait(lambda: not store.status.listening and not shielded(), "the end of the capture")
    assert window.shown.control == "BTN_TASK"
