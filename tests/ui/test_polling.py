"""Polling in the window: by the kernel's times, and by the window's own where there are no others."""

from __future__ import annotations

from types import SimpleNamespace

import msgspec
from PyQt6.QtCore import QCoreApplication, Qt

from nakrel.core.model.devices import Device
from tests.ui.conftest import Ui

MOUSE = Device("kernel:usb-1", "Halyard", ("BTN_LEFT", "BTN_RIGHT"), "kernel")
COMPRESSED = Qt.ApplicationAttribute.AA_CompressHighFrequencyEvents


def test_the_kernels_times_are_told_with_their_rate(ui: Ui):
    dialog = ui.window.devices.open_polling(MOUSE)
    times = [1_000 * n for n in range(2_000) if n not in (500, 900)]
    dialog.show_times(times)
    assert dialog.answer.text() == (
        "1,000 reports a second: a mouse of 1,000 Hz. One every 1.000 ms, half of them within 0.000 ms of each other; "
        "2 of 2,000 are missing."
    )
    assert dialog.field.found.missing == 2
    dialog.show_times([1_000 * n for n in range(10)])
    assert dialog.answer.text().startswith("Only 9 reports came")
    dialog.reject()


def test_a_service_without_the_kernel_says_so(ui: Ui):
    """The tests' service reads stand-ins."""
    dialog = ui.window.devices.open_polling(MOUSE)
    dialog.start()
    assert not dialog.start_button.isEnabled()
    ui.wait(lambda: dialog.answer.text().startswith("Devices aren't read through the kernel"), "the refusal")
    assert dialog.start_button.isEnabled()
    dialog.reject()


def test_elsewhere_the_windows_own_motion_is_timed(ui: Ui):
    dialog = ui.window.devices.open_polling(msgspec.structs.replace(MOUSE, how="X11"))
    dialog.start()
    assert not QCoreApplication.testAttribute(COMPRESSED)
    # PyQt gives out no event with a time of its own.
    for n in range(400):
        dialog.field.mouseMoveEvent(SimpleNamespace(timestamp=lambda n=n: 5_000 + 2 * n))
    dialog._over()
    assert QCoreApplication.testAttribute(COMPRESSED)
    assert dialog.answer.text().startswith("500 reports a second: a mouse of 500 Hz. One every 2 ms")
    dialog.start()
    dialog.reject()
    assert QCoreApplication.testAttribute(COMPRESSED)
