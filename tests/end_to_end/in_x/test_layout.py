"""A keyboard that isn't one of the US layout: keys are called by what is printed on them."""

from __future__ import annotations

import os
import shutil
import subprocess

import pytest

from nakrel.core.model.cells import ToControl
from nakrel.core.model.controls import label
from nakrel.core.model.steps import Press, walk
from nakrel.ui.macro.steps_model import WHAT
from nakrel.ui.widgets.shield import shielded
from tests.end_to_end.in_x.driver import Driver

pytestmark = pytest.mark.skipif(not shutil.which("setxkbmap"), reason="needs setxkbmap (x11-xkb-utils)")
# X11's codes are the kernel's plus 8: the key beside Tab, and the one right of L.
BESIDE_TAB, RIGHT_OF_L = "24", "47"


def use(driver: Driver, layout: str) -> None:
    """Change the desktop's layout while the window is away, and come back."""
    window = str(int(driver.window.winId()))
    driver.injector("windowminimize", window)
    driver.wait(lambda: not driver.window.isActiveWindow(), "the window to go")
    subprocess.run(["setxkbmap", layout], check=True, env=os.environ)
    driver.injector("windowactivate", window)
    driver.wait(driver.window.isActiveWindow, "the window to come back")


def test_keys_are_recorded_shown_and_typed_by_what_is_printed_on_them(driver: Driver):
    window, store = driver.window, driver.store
    assert label("KEY_Q") == "Q"
    # xkeyboard-config, symbols/fr: A beside Tab, M right of L.
    use(driver, "fr")
    driver.wait(lambda: label("KEY_Q") == "A", "the French names")
    window.shown.show_macro("reel-in")
    window.shown.show_page("macro")
    page = window.macro
    before = len(list(walk(store.macros["reel-in"].loop)))
    driver.click(page.recording.button)
    driver.wait(lambda: store.status.recording, "the recording")
    for key in (BESIDE_TAB, RIGHT_OF_L):
        driver.injector("key", key)
    driver.injector("key", "Scroll_Lock")
    driver.wait(lambda: not page.recording.recording and not shielded(), "its end")
    new = list(walk(store.macros["reel-in"].loop))[before:]
    assert [step.control for step in new if isinstance(step, Press)] == ["KEY_Q", "KEY_SEMICOLON"]
    texts = [page.model.index(row, WHAT).data() for row in range(page.model.rowCount())]
    assert {"press A", "press M", "release A", "release M"} <= set(texts)
    window.shown.show_profile("tidewardens")
    window.shown.show_page("sheet")
    window.sheet.show_control("BTN_TRIGGER_HAPPY1")
    window.sheet.table.setFocus()
    driver.injector("key", "Return")
    driver.wait(window.sheet.assign.field.isVisible, "the field")
    # The key with the A on it types an a, which means that key.
    driver.injector("key", BESIDE_TAB)
    driver.wait(lambda: window.sheet.assign.field.line.text() == "a", "the letter")
    driver.injector("key", "Return")
    cells = lambda: store.profiles["tidewardens"].setups[0].cells  # noqa: E731
    driver.wait(lambda: cells()["BTN_TRIGGER_HAPPY1"] == ToControl("KEY_Q"), "the key")
    driver.wait(lambda: window.sheet_details.does.text() == "A", "its name")
    use(driver, "us")
    driver.wait(lambda: window.sheet_details.does.text() == "Q", "the name on a US keyboard")
