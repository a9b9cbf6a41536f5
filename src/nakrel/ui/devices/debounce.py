"""Debounce: what a worn switch adds is dropped, button by button."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import partial

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QDialog, QGridLayout, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from nakrel.core.model.controls import CONTROLS, Kind
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.devices import Device
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.units import shown_ms
from nakrel.ui import commands
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import TimeEdit, button, label
from nakrel.words import tr

__all__ = ["DebounceDialog", "buttons_of"]

_MOST_US = 50_000
_WORDS = tr(
    "A worn switch goes down or up several times at once. What follows on a press or a release within the time that "
    "stands here is dropped; 0 ms leaves the button as it is. No press is late for it, unless it comes within that "
    "time after a release: keep it shorter than your fastest double click."
)
_NOT_HERE = tr(
    "Nothing is debounced now: that needs the devices to be read through the kernel. What stands in the way is on the "
    "Devices page."
)


def buttons_of(device: Device) -> list[str]:
    """The buttons of a device, which may bounce; keyboards debounce their keys themselves."""
    return [code for code in device.controls if code in CONTROLS and CONTROLS[code].kind is Kind.BUTTON]


class DebounceDialog(QDialog):
    """The time of each button of a device. `suggested` gives those that the Range has found, in microseconds."""

    def __init__(
        self, store: Store, device: Device, suggested: Callable[[], Mapping[str, int]], parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._store, self._device, self._suggested = store, device, suggested
        self.setWindowTitle(tr("Debounce: {name}").format(name=device.name))
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.resize(460, 420)
        self.times: dict[str, TimeEdit] = {}
        self._hints = QGridLayout()
        layout = QVBoxLayout(self)
        layout.addWidget(label(_WORDS, "soft", wrap=True))
        self.warning = label(_NOT_HERE, "alarm", wrap=True)
        self.warning.setVisible(device.how != "kernel")
        layout.addWidget(self.warning)
        inner = QWidget()
        inner.setLayout(self._hints)
        self._hints.setColumnStretch(2, 1)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(inner)
        layout.addWidget(scroll, 1)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(button(tr("Close"), self.accept))
        layout.addLayout(row)
        store.settings_changed.connect(self.refresh)
        self._build()

    def _build(self) -> None:
        suggested = self._suggested()
        for row, code in enumerate(buttons_of(self._device)):
            field = TimeEdit(0, _MOST_US)
            field.setAccessibleName(tr("Debounce of {button}").format(button=control_label(code)))
            field.changed.connect(partial(self.set_time, code))
            self.times[code] = field
            name = label(control_label(code))
            name.setBuddy(field)
            self._hints.addWidget(name, row, 0)
            self._hints.addWidget(field, row, 1)
            if us := suggested.get(code):
                use = button(
                    tr("Use {time} ms").format(time=shown_ms(us)),
                    partial(self.set_time, code, us),
                    "link",
                    tr("By what the Range saw"),
                )
                self._hints.addWidget(use, row, 2, Qt.AlignmentFlag.AlignLeft)
        self._hints.setRowStretch(len(self.times), 1)
        self.refresh()

    def refresh(self) -> None:
        """Show the times as they are set."""
        mine = self._store.settings.debounce.get(self._device.name, {})
        for code, field in self.times.items():
            if not field.isModified():
                field.set_value(mine.get(code, 0))

    def set_time(self, code: str, us: int) -> None:
        """Debounce a button by so much, 0 for not at all."""
        every = {name: dict(times) for name, times in self._store.settings.debounce.items()}
        mine = every.setdefault(self._device.name, {})
        mine[code] = us
        if not us:
            del mine[code]
        if not mine:
            del every[self._device.name]
        commands.change_settings(
            self._store, tr("debounce of {button}").format(button=control_label(code)), SettingsPatch(debounce=every)
        )
