"""The Range in the window: what counts there, and what is done with it."""

from __future__ import annotations

import csv
from pathlib import Path

import pytest
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QWheelEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from nakrel import protocol as m
from nakrel.core.analysis.practice_range import Came
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Press, Release, Tap, Text, Wait
from tests.ui.conftest import Ui

MS = 1_000
MOUSE = "standin:halyard-12"
# linux/input-event-codes.h
KEY_W = 17


def press(ui: Ui, control: str = "BTN_RIGHT", count: int = 1) -> None:
    for _ in range(count):
        for value in (1, 0):
            ui.store.ask(m.PressStandIn(MOUSE, control, value))


def presses(ui: Ui) -> dict[tuple[str, str], int]:
    page = ui.window.range
    page.refresh()
    return {(row.lane.control, row.lane.by): row.presses for row in page.model.rows}


@pytest.fixture
def page(ui: Ui):
    ui.window.activateWindow()
    ui.window.shown.show_page("range")
    page = ui.window.range
    page.pad.setFocus()
    ui.wait(page.pad.hasFocus, "the focus")
    return page


def test_fingers_count_while_the_field_has_the_focus(ui: Ui, page):
    press(ui, count=3)
    ui.wait(lambda: presses(ui) == {("BTN_RIGHT", "in"): 3}, "three presses")
    model = page.model
    cells = [model.index(0, column).data() for column in range(model.columnCount())]
    assert cells[:2] == ["Right", 3]
    assert cells[3] == "3/s"
    assert cells[-1].endswith("of 3")
    QTest.keyClick(page.pad, Qt.Key.Key_Escape)
    assert not page.pad.hasFocus()
    heard = []
    ui.store.seen.connect(lambda seen: heard.extend(seen.events))
    press(ui)
    ui.wait(lambda: any(event.by == "in" and not event.value for event in heard), "the press to be told")
    assert presses(ui) == {("BTN_RIGHT", "in"): 3}


def key(page, number: int, *, down: bool, again: bool = False) -> None:
    """A key by the kernel's number, as a display server tells it."""
    kind = QEvent.Type.KeyPress if down else QEvent.Type.KeyRelease
    QApplication.sendEvent(page.pad, QKeyEvent(kind, 0, Qt.KeyboardModifier.NoModifier, number + 8, 0, 0, "", again))


def test_without_a_real_device_what_reaches_the_window_counts(ui: Ui, page):
    assert ui.store.status.backend == "standin"
    for _ in range(2):
        key(page, KEY_W, down=True)
        key(page, KEY_W, down=True, again=True)
        key(page, KEY_W, down=False)
    side, nothing = Qt.MouseButton.XButton1, Qt.KeyboardModifier.NoModifier
    # As Qt tells two quick clicks.
    for kind in ("MouseButtonPress", "MouseButtonRelease", "MouseButtonDblClick", "MouseButtonRelease"):
        QApplication.sendEvent(
            page.pad, QMouseEvent(QEvent.Type[kind], QPointF(9, 9), QPointF(9, 9), side, side, nothing)
        )
    turn = QPoint(0, -240)
    none = (Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase)
    wheel = QWheelEvent(QPointF(), QPointF(), QPoint(), turn, *none, False)
    QApplication.sendEvent(page.pad, wheel)
    wanted = {("KEY_W", "in"): 2, ("BTN_SIDE", "in"): 2, ("WHEEL_DOWN", "in"): 2}
    # The demo's everyday profile has it act as a key.
    wanted["KEY_BACK", "finger BTN_SIDE"] = 2
    ui.wait(lambda: presses(ui) == wanted, "all that was pressed")
    assert "Browser back, by Thumb back" in [page.model.index(row, 0).data() for row in range(page.model.size())]


def test_nothing_stays_down_when_the_field_is_left(ui: Ui, page):
    key(page, KEY_W, down=True)
    ui.wait(lambda: page.counts.down("in") == ["KEY_W"], "the key")
    page.pad.clearFocus()
    assert page.counts.down("in") == []
    page.refresh()
    assert page.model.rows[0].hold_us is not None


def test_nothing_pressed_in_it_does_anything_else(ui: Ui, page):
    before = dict(ui.store.macros)
    for key, change in ((Qt.Key.Key_Tab, None), (Qt.Key.Key_N, Qt.KeyboardModifier.ControlModifier)):
        QTest.keyClick(page.pad, key, change or Qt.KeyboardModifier.NoModifier)
    QTest.keyClick(page.pad, Qt.Key.Key_1, Qt.KeyboardModifier.ControlModifier)
    assert page.pad.hasFocus()
    assert ui.window.shown.page == "range"
    assert ui.store.macros == before
    QTest.keyClicks(page.pad, "ab")
    assert page.text.text() == "Text as it arrived: ab"
    # Of a long text the end is told: what one has just typed.
    QTest.keyClicks(page.pad, "c" * 60 + "d")
    assert page.text.text() == f"Text as it arrived: …{'c' * 47}d"
    assert page.minimumSizeHint().width() <= page.width()


def test_the_pointers_way_is_counted_while_the_field_has_the_focus(ui: Ui, page):
    for x, y in ((10, 10), (13, 14), (13, 24)):
        QTest.mouseMove(page.pad, QPoint(x, y))
    ui.wait(lambda: page._moves == 2, "two moves")
    page.refresh()
    assert page.text.text() == "The pointer went 15 px in 2 moves"
    page.reset_button.click()
    assert page.text.text() == ""


def test_a_macro_counts_by_itself_and_reaches_nothing_else(ui: Ui, page):
    volley = Macro(
        id="volley",
        name="Volley",
        play=Play(Mode.COUNTED, runs=4, pause_us=20 * MS),
        loop=(Tap(control="KEY_Q", hold_us=9 * MS),),
    )
    ui.store.put_macro(volley)
    ui.wait(lambda: not ui.store.saving, "it on the disk")
    ui.store.ask(m.Play_("volley"))
    ui.wait(lambda: presses(ui).get(("KEY_Q", "volley")) == 4, "its presses")
    assert page.model.index(0, 0).data() == "Q, Volley"


def test_the_text_of_a_macro_is_told_as_the_layout_has_it(ui: Ui, page):
    for key in ("us", "de"):
        ui.store.change_settings(SettingsPatch(layout=key))
        ui.store.put_macro(Macro(id=key, name=key, loop=(Text(text="Aye, @8"),)))
        ui.wait(lambda: not ui.store.saving, "it on the disk")
        ui.window.shown.show_page("macro")
        ui.window.shown.show_page("range")
        page.reset()
        ui.store.ask(m.Play_(key))
        ui.wait(lambda: page._macros_text == "Aye, @8", f"the text by a {key} keyboard")  # noqa: B023
    page.refresh()
    assert page.text.text() == "Macros typed: Aye, @8"
    page.reset_button.click()
    assert page.text.text() == ""


def test_a_worn_switch_is_told_with_its_numbers(ui: Ui, page):
    assert not page.bounce.isVisible()
    now = page.counts.start_us
    for at, value in ((0, 1), (60, 0), (64, 1), (120, 0), (400, 1), (460, 0)):
        page.counts.feed(Came("in", "BTN_LEFT", value, now + at * MS))
    page.refresh()
    told = "1 of 3 presses of Left came within 25 ms after a release (the soonest after 4.0 ms): its switch looks worn."
    assert page.bounce.text() == told
    assert page.bounce.isVisible()


def test_pause_and_start_anew(ui: Ui, page):
    press(ui)
    ui.wait(lambda: presses(ui), "a press")
    page.pause_button.click()
    assert page.pause_button.text() == "Go on"
    heard = []
    ui.store.seen.connect(lambda seen: heard.extend(seen.events))
    press(ui)
    ui.wait(lambda: any(event.by == "in" and not event.value for event in heard), "the press to be told")
    assert presses(ui) == {("BTN_RIGHT", "in"): 1}
    page.pause_button.click()
    page.reset_button.click()
    assert presses(ui) == {}
    assert not page.csv_button.isEnabled()


def test_it_is_saved_as_a_table_and_made_a_macro(ui: Ui, page, tmp_path: Path):
    press(ui, count=2)
    ui.wait(lambda: presses(ui) == {("BTN_RIGHT", "in"): 2}, "two presses")
    page.save_table(tmp_path / "range.csv")
    rows = list(csv.DictReader((tmp_path / "range.csv").read_text().splitlines()))
    assert [(row["by"], row["control"], row["value"]) for row in rows] == [
        ("in", "BTN_RIGHT", value) for value in "1010"
    ]
    page.macro_button.click()
    macro = ui.window.shown.macro
    assert macro.name == "From the Range"
    right = (Press(control="BTN_RIGHT"), Release(control="BTN_RIGHT"))
    assert [step for step in macro.loop if not isinstance(step, Wait)] == [*right, *right]


def test_a_table_that_cannot_be_written_says_so(ui: Ui, page):
    faults = []
    ui.store.fault.connect(faults.append)
    press(ui)
    ui.wait(lambda: presses(ui), "a press")
    page.save_table(Path("/proc/range.csv"))
    assert len(faults) == 1
    assert "/proc/range.csv" in faults[0]


def test_what_is_too_much_to_keep_is_said(ui: Ui, page, tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr("nakrel.core.analysis.practice_range.MOST_EVENTS", 2)
    faults = []
    ui.store.fault.connect(faults.append)
    press(ui, count=2)
    ui.wait(lambda: presses(ui) == {("BTN_RIGHT", "in"): 2} and page.counts.left_out == 2, "two presses")
    page.save_table(tmp_path / "range.csv")
    assert faults == ["Only the first 20,000 events are in it; 2 more were counted alone."]


def test_another_frame_rate_looks_at_all_of_it_again(ui: Ui, page):
    press(ui, count=2)
    ui.wait(lambda: presses(ui) == {("BTN_RIGHT", "in"): 2}, "two presses")
    ui.window.shown.set_frames(1_000)
    assert page.counts.fps == 1_000
    assert presses(ui) == {("BTN_RIGHT", "in"): 2}
    assert page.rate.shown.text() == "1000 frames a second"


def test_a_button_of_a_profile_counts_as_finger_and_as_macro(ui: Ui, page):
    """Reel in is on the third thumb button of the demo's Tidewardens."""
    ui.store.pin("tidewardens")
    ui.wait(lambda: ui.store.status.live == "tidewardens", "the profile to be live")
    cell = ui.store.profiles["tidewardens"].setups[0].cells["BTN_TRIGGER_HAPPY3"]
    assert isinstance(cell, RunMacro)
    ui.store.ask(m.PressStandIn(MOUSE, "BTN_TRIGGER_HAPPY3", 1))
    ui.wait(lambda: any(by == cell.macro for _, by in presses(ui)), "the macro's presses")
    ui.store.ask(m.PressStandIn(MOUSE, "BTN_TRIGGER_HAPPY3", 0))
    assert ("BTN_TRIGGER_HAPPY3", "in") in presses(ui)
