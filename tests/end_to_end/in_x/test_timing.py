"""A newcomer shapes macros in time, on a real X server, with nothing but what the window says."""

from __future__ import annotations

from PyQt6.QtCore import QPoint
from PyQt6.QtWidgets import QLabel

from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Chord, PickOne, Pointer, Press, Release, Tap, Wait
from nakrel.core.play.simulate import plan
from nakrel.ui.macro.diagram.view import TRACE
from nakrel.ui.widgets.shield import shielded
from tests.end_to_end.in_x.driver import Driver

MS = 1_000


def new_macro(driver: Driver, name: str) -> None:
    driver.to_front()
    driver.click(driver.window.column.new_macro_button)
    driver.type(name, "Return")
    driver.wait(lambda: driver.window.head.title.full_text == name, "the macro's name")


def macro(driver: Driver) -> Macro:
    found = driver.window.shown.macro
    assert found is not None
    return found


def add(driver: Driver, kind: str, control: str = "", time: str = "") -> None:
    """Add a step by the fields under the list."""
    page = driver.window.macro
    fields, before = page.add_step, page.model.rowCount()
    if page.first.isVisible():
        driver.click(page.first.rows["Step by step"])
    if fields.kind.currentText() != kind:
        driver.choose(fields.kind, kind)
    if control and fields.control.currentText() != control:
        driver.choose(fields.control, control)
    if time:
        driver.replace(fields.typed if kind == "random wait" else fields.time, time)
    driver.click(fields.add_button)
    driver.wait(lambda: driver.window.macro.model.rowCount() > before, "the step")


def mode(driver: Driver, name: str) -> None:
    driver.click(driver.window.macro_details.play.mode.buttons[name])
    driver.wait(lambda: macro(driver).play.mode == name, "the mode")


def undone(driver: Driver, macros: dict[str, Macro]) -> None:
    """Undo all of it: what was there before is there, and nothing else."""
    driver.click(driver.window.head.title)
    driver.undo_all()
    assert driver.store.macros == macros


def test_a_click_becomes_a_rapid_fire_that_a_game_can_see(driver: Driver):
    window, before = driver.window, dict(driver.store.macros)
    new_macro(driver, "Anchor fire")
    driver.click(window.macro.recording.button)
    driver.wait(lambda: driver.store.status.recording, "the recording")
    driver.click(window.head.title)
    driver.wait(lambda: window.macro.model.rowCount() >= 2, "the click's steps")
    driver.injector("key", "Scroll_Lock")
    driver.wait(lambda: not window.macro.recording.recording and not shielded(), "the end of the recording")
    assert {step.control for step in macro(driver).loop if not isinstance(step, Wait)} == {"BTN_LEFT"}

    def rapid_fire() -> None:
        driver.click(window.macro.builder_button)
        driver.click(window.macro.beginnings.rows["Rapid fire"])

    rapid_fire()
    builder, check = window.macro.builder, window.macro_details.frame_check
    driver.wait(lambda: "While held   20/s   tap Left  25 ms" in builder.preview.text(), "the result beforehand")
    driver.click(builder.make_button)
    assert macro(driver).loop == (Tap(control="BTN_LEFT", hold_us=25 * MS),)
    assert macro(driver).play == Play(Mode.HELD, pause_us=25 * MS)
    driver.wait(
        lambda: "A game at 60 frames sees all of the presses, 20.0 a second" in check.answer.text(), "the answer"
    )

    rapid_fire()
    driver.replace(builder.figures[0], "40/s")
    driver.click(builder.make_button)
    driver.wait(lambda: "are lost" in check.answer.text(), "the word that presses are lost")
    assert "A game at 60 frames sees" in check.answer.text()
    driver.wait(check.use_button.isVisible, "the suggestion")
    driver.click(check.use_button)
    driver.wait(lambda: "sees all of the presses" in check.answer.text(), "the game to see all")
    assert macro(driver).loop[0].hold_us > 1_000_000 / 60
    undone(driver, before)


def test_the_parcel_sequence_without_a_typed_coordinate(driver: Driver):
    window, before = driver.window, dict(driver.store.macros)
    new_macro(driver, "Stamp parcels")

    def pick(x: int, y: int) -> None:
        fields = window.macro.add_step
        if window.macro.first.isVisible():
            driver.click(window.macro.first.rows["Step by step"])
        if fields.kind.currentText() != "pointer":
            driver.choose(fields.kind, "pointer")
        driver.click(fields.pick_button)
        driver.wait(lambda: window.macro.places.picker and window.macro.places.picker.views, "the dimmed screen")
        driver.injector("mousemove", "--sync", str(x - 1), str(y))
        driver.injector("key", "Right")
        driver.injector("key", "Return")
        driver.injector("key", "Escape")
        driver.wait(lambda: window.macro.places.picker is None, "the screen to be given back")
        driver.wait(window.isActiveWindow, "the window to be back")

    pick(640, 400)
    add(driver, "wait", time="200")
    add(driver, "tap", "Left", "50")
    add(driver, "wait", time="1s")
    pick(333, 222)
    add(driver, "tap", "Left", "50")
    add(driver, "wait", time="3s")
    add(driver, "tap", "Left", "50")
    add(driver, "wait", time="2s")
    mode(driver, "toggle")
    driver.replace(window.macro_details.play.limit_runs, "5")
    size = driver.screen_size()
    click = Tap(control="BTN_LEFT", hold_us=50 * MS)
    assert macro(driver).loop == (
        Pointer(x=640, y=400, size=size),
        Wait(wait_us=200 * MS),
        click,
        Wait(wait_us=1_000 * MS),
        Pointer(x=333, y=222, size=size),
        click,
        Wait(wait_us=3_000 * MS),
        click,
        Wait(wait_us=2_000 * MS),
    )
    assert macro(driver).play == Play(Mode.TOGGLE, limit_runs=5)
    # Where it will go is shown on the screen itself.
    driver.injector("key", "ctrl+shift+k")
    driver.wait(lambda: window.macro.places.pointing and window.macro.places.pointing.views, "the places")
    assert [(spot.x(), spot.y()) for spot in window.macro.places.pointing.spots] == [(640, 400), (333, 222)]
    driver.injector("key", "Escape")
    driver.wait(window.isActiveWindow, "the window to be back")
    undone(driver, before)


def test_one_of_four_keys_now_and_then_until_it_is_switched_off(driver: Driver):
    """Every 12 s plus 1 to 30 s more, press one of these keys (common practice, no published source)."""
    window, before = driver.window, dict(driver.store.macros)
    new_macro(driver, "Watch the tide")
    for key in ("1", "2", "3", "4"):
        add(driver, "tap", key)
    driver.click_row(window.macro.steps, 0, 2)
    driver.injector("key", "ctrl+a")
    driver.menu(window.macro.steps, 0, "Random choice of them")
    driver.wait(lambda: isinstance(macro(driver).loop[0], PickOne), "the block")
    # Nothing is selected once its own row is left, so that what comes next goes to the end.
    window.macro.steps.clearSelection()
    add(driver, "random wait", time="13-42s")
    driver.wait(lambda: macro(driver).loop[1] == Wait(wait_us=13_000 * MS, most_us=42_000 * MS), "the random wait")
    mode(driver, "toggle")
    assert macro(driver).play == Play(Mode.TOGGLE)
    rows = [row for row in plan(macro(driver), macro(driver).play, runs=200, seed=7) if row.value]
    assert {row.control for row in rows} == {"KEY_1", "KEY_2", "KEY_3", "KEY_4"}
    gaps = [later.time_us - row.time_us for row, later in zip(rows, rows[1:], strict=False)]
    assert min(gaps) >= 13_000 * MS
    assert max(gaps) <= 42_100 * MS
    undone(driver, before)


def test_three_taps_become_a_chord(driver: Driver):
    window, before = driver.window, dict(driver.store.macros)
    new_macro(driver, "Heave")
    for key in ("Left Ctrl", "Left Shift", "Q"):
        add(driver, "tap", key)
        add(driver, "wait", time="30")
    driver.click_row(window.macro.steps, 0, 2)
    driver.injector("key", "ctrl+a")
    driver.menu(window.macro.steps, 0, "Join into a combination")
    wanted = Chord(controls=("KEY_LEFTCTRL", "KEY_LEFTSHIFT", "KEY_Q"), hold_us=50 * MS)
    driver.wait(lambda: macro(driver).loop == (wanted,), "the chord")
    undone(driver, before)


def test_shift_is_held_from_the_lead_in_to_the_lead_out(driver: Driver):
    window, before = driver.window, dict(driver.store.macros)
    new_macro(driver, "Steady run")
    add(driver, "press", "Left Shift")
    driver.menu(window.macro.steps, 0, "Move to section: start")
    driver.wait(lambda: macro(driver).lead_in, "the start")
    window.macro.steps.clearSelection()
    add(driver, "tap", "W", "40")
    add(driver, "release", "Left Shift")
    driver.menu(window.macro.steps, 2, "Move to section: end")
    driver.wait(lambda: macro(driver).lead_out, "the end")
    made = macro(driver)
    assert made.lead_in == (Press(control="KEY_LEFTSHIFT"),)
    assert made.loop == (Tap(control="KEY_W", hold_us=40 * MS),)
    assert made.lead_out == (Release(control="KEY_LEFTSHIFT"),)
    driver.wait(lambda: not words_of_checks(driver), "no check to complain")
    undone(driver, before)


def words_of_checks(driver: Driver) -> list[str]:
    layout = driver.window.macro_details.checks
    found = []
    for n in range(layout.count()):
        row = layout.itemAt(n)
        inner = row.layout() if row else None
        if inner is not None and inner.itemAt(0) and isinstance(label := inner.itemAt(0).widget(), QLabel):
            found.append(label.text())
    return found


def test_holds_are_dragged_and_distances_typed(driver: Driver):
    window, before = driver.window, dict(driver.store.macros)
    new_macro(driver, "Drawn")
    for key in ("Q", "W", "Q"):
        add(driver, "tap", key, "40")
        add(driver, "wait", time="60")
    diagram = window.macro.diagram
    ground = diagram.viewport()
    assert ground is not None

    def spot(trace: int, ms: float) -> QPoint:
        return QPoint(round(diagram.view.x_of(ms * MS)), round(diagram.view.top_of(trace) + TRACE / 2))

    # The hold of W, from 100 to 140 ms, goes to 120.
    driver.drag(ground, spot(1, 120), spot(1, 140))
    tap = Tap(control="KEY_Q", hold_us=40 * MS)
    moved = Tap(control="KEY_W", hold_us=40 * MS)
    driver.wait(
        lambda: (
            macro(driver).loop == (tap, Wait(wait_us=80 * MS), moved, Wait(wait_us=40 * MS), tap, Wait(wait_us=60 * MS))
        ),
        "the waits beside it to have changed",
    )
    # The first Q can't go over the second one: the window says why, and nothing is lost.
    driver.drag(ground, spot(0, 20), spot(0, 210), drop=False)
    driver.wait(lambda: "would overlap" in window.macro.bar.message.text(), "the reason")
    driver.injector("key", "Escape")
    driver.injector("mouseup", "1")
    assert macro(driver).loop[0] == tap
    # Two edges are clicked, and 30 ms typed between them.
    for trace, ms in ((0, 40), (1, 120)):
        place = ground.mapToGlobal(spot(trace, ms))
        driver.injector("mousemove", "--sync", str(place.x()), str(place.y()))
        driver.injector("click", "1")
    driver.wait(window.macro.bar.field.isVisible, "the distance")
    assert window.macro.bar.field.text() == "80 ms"
    driver.replace(window.macro.bar.field, "30")
    driver.wait(lambda: macro(driver).loop[1] == Wait(wait_us=30 * MS), "the distance in the macro")
    # With the keyboard: the edge under the mark, by a millisecond each time.
    driver.injector("key", "alt+Right")
    driver.injector("key", "alt+Right")
    driver.wait(lambda: macro(driver).loop[1] == Wait(wait_us=32 * MS), "two milliseconds more")
    assert macro(driver).loop[2].hold_us == 38 * MS
    undone(driver, before)
