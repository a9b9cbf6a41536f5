"""Debounce in the window: a button's time, what the Range suggests, and where it can't be."""

from __future__ import annotations

import msgspec
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QPushButton

from nakrel.core.analysis.practice_range import Came
from nakrel.core.model.devices import Device
from tests.ui.conftest import Ui

MS = 1_000
MOUSE = Device("kernel:usb-1", "Halyard", ("BTN_LEFT", "BTN_RIGHT", "WHEEL_UP", "KEY_A"), "kernel")


@pytest.fixture
def page(ui: Ui):
    ui.store.devices = (MOUSE,)
    ui.window.shown.show_page("devices")
    page = ui.window.devices
    page._show_devices()
    return page


def test_a_buttons_time_is_set_and_taken_back(ui: Ui, page):
    dialog = page.open_debounce(MOUSE)
    assert list(dialog.times) == ["BTN_LEFT", "BTN_RIGHT"]
    assert not dialog.warning.isVisible()
    field = dialog.times["BTN_LEFT"]
    field.setText("6")
    field.setModified(True)
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert ui.store.settings.debounce == {"Halyard": {"BTN_LEFT": 6 * MS}}
    ui.wait(lambda: not ui.store.saving, "it on the disk")
    ui.undo()
    assert ui.store.settings.debounce == {}
    assert field.text() == "0 ms"
    ui.redo()
    dialog.set_time("BTN_LEFT", 0)
    assert ui.store.settings.debounce == {}
    dialog.close()


def test_what_the_range_saw_is_offered(ui: Ui, page):
    counts = ui.window.range.counts
    for at, value in ((0, 1), (60, 0), (64, 1), (120, 0), (400, 1), (460, 0)):
        counts.feed(Came("in", "BTN_LEFT", value, counts.start_us + at * MS))
    ui.window.range.refresh()
    dialog = page.open_debounce(MOUSE)
    offered = [each for each in dialog.findChildren(QPushButton) if each.text().startswith("Use")]
    assert [each.text() for each in offered] == ["Use 5 ms"]
    offered[0].click()
    assert ui.store.settings.debounce == {"Halyard": {"BTN_LEFT": 5 * MS}}
    assert dialog.times["BTN_LEFT"].text() == "5 ms"


def test_a_time_that_is_too_long_is_refused_at_its_field(ui: Ui, page):
    dialog = page.open_debounce(MOUSE)
    field = dialog.times["BTN_RIGHT"]
    field.setText("90")
    field.setModified(True)
    QTest.keyClick(field, Qt.Key.Key_Return)
    assert ui.store.settings.debounce == {}
    assert "50" in field.toolTip()


def test_where_devices_are_not_read_through_the_kernel_it_says_so(ui: Ui, page):
    dialog = page.open_debounce(msgspec.structs.replace(MOUSE, how="X11"))
    assert dialog.warning.isVisible()


def test_only_devices_with_buttons_have_it_and_the_simulated_ones_do_not(ui: Ui, page):
    def shown() -> int:
        return sum(each.text() == "Debounce…" for each in page.findChildren(QPushButton) if each.isVisible())

    assert shown() == 1
    ui.store.devices = (
        msgspec.structs.replace(MOUSE, controls=("KEY_A",)),
        msgspec.structs.replace(MOUSE, standin=True),
    )
    page._show_devices()
    ui.wait(lambda: shown() == 0, "none of them")
