"""The main job with the keyboard alone: no pointer is moved and no button of a mouse is clicked."""

from __future__ import annotations

from PyQt6.QtWidgets import QApplication, QWidget

from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Mode
from nakrel.core.model.steps import Press, Release, Tap, Wait
from nakrel.ui.widgets.shield import shielded
from tests.end_to_end.in_x.driver import Driver


def tab_to(driver: Driver, widget: QWidget) -> None:
    """Press Tab until the widget has the focus; it must be reached before the round is over."""
    seen: list[QWidget | None] = []
    while QApplication.focusWidget() is not widget:
        assert QApplication.focusWidget() not in seen[1:], f"{widget.accessibleName()} is not in the round"
        seen.append(QApplication.focusWidget())
        driver.injector("key", "Tab")


def test_record_edit_attach_and_undo_without_a_mouse(driver: Driver):
    window, store = driver.window, driver.store
    driver.injector("key", "ctrl+n")
    driver.type("Kelp Garden", "Return")
    driver.wait(lambda: window.head.title.full_text == "Kelp Garden", "the profile")
    driver.injector("key", "ctrl+m")
    driver.type("Snip", "Return")
    driver.wait(lambda: window.head.title.full_text == "Snip", "the macro")

    driver.injector("key", "ctrl+r")
    driver.wait(lambda: store.status.recording, "the recording")
    driver.injector("keydown", "F7")
    driver.let_pass(60)
    driver.injector("keyup", "F7")
    # No shortcut fires meanwhile; the key that ends it is not in it.
    driver.injector("key", "Scroll_Lock")
    driver.wait(
        lambda: not store.status.recording and not window.macro.recording.recording and not shielded(), "its end"
    )
    macro = window.shown.macro
    assert macro is not None
    assert [type(step) for step in macro.loop] == [Press, Wait, Release]

    driver.wait(lambda: window.macro.steps.hasFocus() and not shielded(), "the steps to have the focus")
    for key in ("Home", "Down"):
        driver.injector("key", key)
    driver.type("2f@60", "Return")
    driver.injector("key", "ctrl+t")
    macro = window.shown.macro
    assert macro is not None
    assert macro.loop == (Tap(control="KEY_F7", hold_us=33_333),)

    # Tab goes to the chosen one of the four modes, and arrows choose another.
    tab_to(driver, window.macro_details.play.mode.buttons["single"])
    for _ in range(2):
        driver.injector("key", "Right")
    tab_to(driver, window.macro_details.play.pause.shown)
    driver.type("20/s", "Return")
    macro = window.shown.macro
    assert macro is not None
    assert (macro.play.mode, macro.play.pause_us) == (Mode.HELD, 50_000)

    driver.injector("key", "ctrl+b")
    driver.wait(lambda: store.status.listening, "attachments to rest")
    # A shortcut's keys are a key like any other now: nothing is undone, the key is taken.
    driver.injector("key", "F9")
    driver.wait(lambda: "KEY_F9" in window.shown.profile.setups[0].cells, "the attachment")  # type: ignore[union-attr]
    driver.wait(lambda: not store.status.listening, "attachments to work again")
    driver.let_pass(200)

    driver.injector("key", "ctrl+1")
    driver.wait(lambda: window.shown.page == "sheet", "the sheet")
    for _ in range(20):
        if not store.undo_stack.canUndo():
            break
        driver.injector("key", "ctrl+z")
    assert not any(p.name == "Kelp Garden" for p in store.profiles.values())
    assert not any(x.name == "Snip" for x in store.macros.values())
    for _ in range(20):
        if not store.undo_stack.canRedo():
            break
        driver.injector("key", "ctrl+shift+z")
    kelp = next(p for p in store.profiles.values() if p.name == "Kelp Garden")
    assert kelp.setups[0].cells == {"KEY_F9": RunMacro(macro.id)}
    assert store.macros[macro.id].play == macro.play
