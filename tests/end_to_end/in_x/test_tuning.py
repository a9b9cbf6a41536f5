"""A game that takes a press only when it is held for 40 ms: the window finds that time by the game's own verdicts."""

from __future__ import annotations

from pathlib import Path

import msgspec
from PyQt6.QtWidgets import QScrollArea

from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, SetUp
from nakrel.core.model.steps import Tap
from tests.end_to_end.in_x.driver import Driver
from tests.end_to_end.in_x.test_first_macro import play_in, start_game

MS = 1_000
QUICK = Macro(id="quick", name="Quick", play=Play(Mode.SINGLE), loop=(Tap(control="KEY_E", hold_us=5 * MS),))


def test_the_shortest_hold_is_found_by_playing(driver: Driver, tmp_path: Path):
    store, window = driver.store, driver.window
    store.put_macro(QUICK)
    everyday = store.profiles[EVERYDAY]
    cells = {**everyday.setups[0].cells, "BTN_SIDE": RunMacro("quick")}
    store.put_profile(msgspec.structs.replace(everyday, setups=(SetUp(everyday.setups[0].name, cells),)))
    driver.wait(lambda: not store.saving, "all of it on the disk")
    window.shown.show_macro("quick")
    driver.click_row(window.macro.steps, 0)
    tune = window.macro_details.tune
    # Thumb back plays it here; the game itself says how it went.
    tune.wanted = msgspec.structs.replace(tune.wanted, failed="BTN_MIDDLE")
    tune.start()
    driver.wait(lambda: tune.session.ready_us and "Trial 1" in tune.text.text(), "the first trial")
    game = start_game(
        driver, tmp_path, 1_000, ("--hold", "40", "--events", "--judge", "--home", str(tmp_path / "home"))
    )
    try:
        play_in(driver, game)
        while tune.session.on:
            count, found = len(tune.session.tuning.trials), tune.session.found
            driver.injector("mousedown", "8")
            driver.injector("mouseup", "8")
            driver.wait(lambda count=count: len(tune.session.tuning.trials) > count, "the game's verdict")
            driver.wait(lambda found=found: tune.session.found is not found, "what is tried next")
            driver.wait(lambda: tune.session.ready_us or not tune.session.on, "the next time to be on trial")
        # A computer that was too busy once to play a time as such, a longer or a shorter one, makes this a game that
        # doesn't always go by its rule.
        slipped = any(trial.worked != (trial.time_us >= 40 * MS) for trial in tune.session.tuning.trials)
        assert 40 * MS <= tune.session.found.high_us <= (60 if slipped else 46) * MS
    finally:
        game.end()
    driver.to_front()
    use = next(each for name, each in tune.buttons.items() if name.startswith("Use "))
    for area in window.findChildren(QScrollArea):
        if area.isAncestorOf(use):
            area.ensureWidgetVisible(use)
    driver.click(use)
    driver.wait(lambda: store.macros["quick"].loop[0].hold_us == tune.session.found.high_us, "the time in the macro")
    driver.undo_all()
    assert store.macros["quick"] == QUICK
