"""What a screen reader gets of the window, through the accessibility bus of a session of its own."""

from __future__ import annotations

import atexit
import json
import os
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from PyQt6.QtWidgets import QApplication, QDialog, QWidget

from nakrel import protocol as m
from tests.end_to_end.in_x.driver import Driver
from tests.support import start_bus

_LAUNCHERS = ("/usr/libexec/at-spi-bus-launcher", "/usr/lib/at-spi2-core/at-spi-bus-launcher")
LAUNCHER = next(filter(os.path.exists, _LAUNCHERS), "")
# Roles that are worked, and so have to say what they are.
WORKED = {
    "push button", "button", "check box", "combo box", "text", "spin button", "slider", "list", "table", "tree",
    "page tab", "toggle button", "radio button", "password text", "entry",
}  # fmt: skip


def _session() -> None:
    """A bus with its accessibility bus, which Qt looks for when the first window is made."""
    folder = Path(tempfile.mkdtemp())
    address = f"unix:path={folder / 'bus'}"
    quiet = subprocess.DEVNULL
    bus = start_bus(address)
    os.environ |= {"DBUS_SESSION_BUS_ADDRESS": address, "QT_LINUX_ACCESSIBILITY_ALWAYS_ON": "1"}
    launcher = subprocess.Popen([LAUNCHER, "--launch-immediately"], stdout=quiet, stderr=quiet)

    def end() -> None:
        for process in (launcher, bus):
            process.terminate()
            process.wait(10)
        shutil.rmtree(folder, ignore_errors=True)

    atexit.register(end)


if LAUNCHER and shutil.which("dbus-daemon"):
    _session()
else:
    pytest.skip("needs at-spi2-core and dbus-daemon", allow_module_level=True)

# The reader asks for something that the window no longer shows by then.
pytestmark = pytest.mark.qt_log_ignore("Could not find accessible on path")


@pytest.fixture
def app(driver: Driver) -> Driver:
    QApplication.setApplicationName("nakrel")
    return driver


def tree(app: Driver) -> dict[str, Any]:
    """The whole tree, asked by another process while this one answers."""
    with tempfile.TemporaryFile("w+") as said:
        process = subprocess.Popen([sys.executable, "-m", "tests.accessible", "nakrel"], stdout=said)
        while process.poll() is None:
            app.let_pass(20)
        assert process.returncode == 0
        said.seek(0)
        return json.load(said)


def every(node: dict[str, Any], path: str = "") -> Iterator[tuple[str, dict[str, Any]]]:
    """Each object that is shown, with the way to it."""
    here = f"{path}/{node['role']} {node['name']}".rstrip()
    yield here, node
    for each in node["children"]:
        if each["showing"]:
            yield from every(each, here)


def nameless(found: dict[str, Any]) -> list[str]:
    return [way for way, node in every(found) if node["role"] in WORKED and not node["name"].strip()]


PLACES: dict[str, Callable[[Driver], object]] = {
    "buttons": lambda app: app.window.shown.show_page("sheet"),
    "macro": lambda app: (app.window.shown.show_macro("storm-volley"), app.window.shown.show_page("macro")),
    "text": lambda app: app.window.macro.show_view("notation"),
    "devices": lambda app: app.window.shown.show_page("devices"),
    "journal": lambda app: app.window.shown.show_page("journal"),
    "range": lambda app: app.window.shown.show_page("range"),
}


def test_all_that_is_worked_has_a_name_on_every_page(app: Driver):
    missing = {}
    for name, go in PLACES.items():
        go(app)
        app.let_pass(200)
        if found := nameless(tree(app)):
            missing[name] = found
    assert missing == {}


def test_all_that_is_worked_has_a_name_in_every_dialog(app: Driver):
    missing = {}
    actions = {action.text(): action for group in app.window.actions_by_group.values() for action in group}
    app.window.shown.show_macro("storm-volley")
    for text in ("Cues…", "Documents", "Report a problem…", "About Nakrel", "Shortcuts", "Game keys", "Link a program"):
        actions[text].trigger()
        app.let_pass(300)
        if found := nameless(tree(app)):
            missing[text] = found
        for each in QApplication.topLevelWidgets():
            if isinstance(each, QDialog) and each.isVisible():
                each.close()
        app.let_pass(100)
    assert missing == {}


def says(app: Driver, widget: QWidget) -> str:
    """What a reader is told of a widget that draws itself."""
    found = [node for _, node in every(tree(app)) if node["name"] == widget.accessibleName()]
    assert found, widget.accessibleName()
    return found[0]["says"]


def test_pictures_say_what_they_show(app: Driver):
    window = app.window
    window.shown.show_macro("storm-volley")
    window.shown.show_page("macro")
    app.let_pass(800)
    assert says(app, window.macro.diagram).startswith("1, down at 0 ms for 34 ms; 2, down at 100 ms for 34 ms")
    assert "60 frames: 100 %" in says(app, window.macro_details.frame_check.plot)
    window.shown.show_page("sheet")
    window.sheet.show_view("board")
    app.let_pass(300)
    assert "Reel in" in says(app, window.sheet.board)
    window.shown.show_page("range")
    app.store.ask(m.Play_("storm-volley"))
    app.wait(lambda: window.range.model.rows, "presses on the Range")
    app.let_pass(300)
    assert "1, Storm volley" in says(app, window.range.pad)
    assert "up to" in says(app, window.range.histograms)
    assert "out: 1" in says(app, window.strip.traces)
