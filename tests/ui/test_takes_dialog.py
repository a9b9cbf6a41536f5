"""Takes side by side in the window: what they differ in, and the use of their times."""

from __future__ import annotations

from nakrel import protocol as m
from nakrel.core.model.macro import Macro
from nakrel.core.model.recording import Where
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Press, Release, Step, Tap, Wait
from tests.ui.conftest import Ui

MS = 1_000
EMPTY = Macro(id="sounding", name="Sounding")


def performed(hold: int, gap: int, second: int) -> tuple[Step, ...]:
    return (
        Press(control="KEY_Q"),
        Wait(wait_us=hold * MS),
        Release(control="KEY_Q"),
        Wait(wait_us=gap * MS),
        Press(control="KEY_W"),
        Wait(wait_us=second * MS),
        Release(control="KEY_W"),
    )


def compared(ui: Ui, *takes: tuple[Step, ...]):
    """The dialog over these takes, and the strip."""
    store = ui.store
    store.put_macro(EMPTY)
    store.change_settings(SettingsPatch(recording=store.settings.recording.__class__(where=Where.END, taps=True)))
    for steps in takes:
        store.ask(m.AddTake("sounding", steps))
    ui.wait(lambda: not store.saving, "all of it on the disk")
    ui.window.shown.show_macro("sounding")
    strip = ui.window.macro.take_strip
    strip.offer_again(store.macros["sounding"], None, 0)
    ui.wait(lambda: strip.menu is not None and strip.menu.isVisible(), "the takes")
    offered = {action.text(): action for action in strip.menu.actions()}
    strip.menu.hide()
    if len(takes) > 1:
        offered["Compare them…"].trigger()
        ui.wait(lambda: strip.compared.message.text() != "Comparing…", "the comparison")
    else:
        assert "Compare them…" not in offered
    return strip.compared, strip


def texts(dialog) -> list[list[str]]:
    model = dialog.table.model()
    return [[model.index(row, column).data() for column in range(4)] for row in range(model.rowCount())]


def test_the_median_of_takes_becomes_the_macro_in_one_edit(ui: Ui):
    dialog, strip = compared(ui, performed(30, 90, 41), performed(36, 80, 47), performed(34, 85, 300))
    assert texts(dialog) == [
        ["press Q", "", "", ""],
        ["release Q", "34.0", "3.0", ""],
        ["press W", "85.0", "5.0", ""],
        ["release W", "47.0", "129.5", "take 3"],
    ]
    assert not dialog.differences.isVisible()
    dialog.use_button.click()
    q, w = Tap(control="KEY_Q", hold_us=34 * MS), Tap(control="KEY_W", hold_us=47 * MS)
    assert ui.store.macros["sounding"].loop == (q, Wait(wait_us=85 * MS), w)
    assert strip._head.text() == "Median of 3 takes"
    ui.undo()
    assert ui.store.macros["sounding"] == EMPTY


def test_what_is_missing_is_said_and_the_fastest_complete_take_is_offered(ui: Ui):
    dialog, _ = compared(ui, performed(30, 90, 41), performed(30, 60, 40), performed(36, 80, 47)[:3])
    assert dialog.differences.text() == "Take 3: press W is missing.\nTake 3: release W is missing."
    assert dialog.fastest_button.text() == "Use take 2, the fastest complete one"
    dialog.fastest_button.click()
    assert ui.store.macros["sounding"].loop == (
        Tap(control="KEY_Q", hold_us=30 * MS),
        Wait(wait_us=60 * MS),
        Tap(control="KEY_W", hold_us=40 * MS),
    )


def test_any_share_of_the_times_can_be_used(ui: Ui):
    dialog, strip = compared(ui, performed(30, 90, 41), performed(36, 80, 47), performed(34, 85, 40))
    dialog.share.changed.emit(0.0)
    dialog.use_button.click()
    assert ui.store.macros["sounding"].loop[0] == Tap(control="KEY_Q", hold_us=30 * MS)
    assert strip._head.text() == "The 0 % times of 3 takes"


def test_takes_with_no_presses_cannot_be_compared(ui: Ui):
    dialog, _ = compared(ui, performed(30, 90, 41), (Wait(wait_us=5 * MS),))
    assert "fewer than two takes with presses" in dialog.message.text()
    assert not dialog.use_button.isVisible()
    dialog.reject()


def test_one_take_has_nothing_to_be_compared_with(ui: Ui):
    compared(ui, performed(30, 90, 41))
