"""Which devices there are, how they're read, and the simulated ones' press panels."""

from __future__ import annotations

import shutil
import sys
from collections.abc import Callable, Mapping
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QProcess, Qt
from PyQt6.QtGui import QShowEvent
from PyQt6.QtWidgets import (
    QCheckBox,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from nakrel import protocol as m
from nakrel.core.model.controls import CONTROLS, KNOWN, Kind, second
from nakrel.core.model.controls import label as control_label
from nakrel.core.model.devices import Device, battery_words
from nakrel.core.model.settings import SettingsPatch
from nakrel.ui import commands
from nakrel.ui.devices.debounce import DebounceDialog, buttons_of
from nakrel.ui.devices.keys import KeySettings
from nakrel.ui.devices.permissions import Permissions
from nakrel.ui.devices.polling import PollingDialog
from nakrel.ui.devices.second_keyboards import count_as_second, is_second, may_be_second
from nakrel.ui.devices.thumb_keys import as_thumb_buttons, count_as_thumbs, has_number_keys
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import TimeEdit, button, hairline, label, refilling
from nakrel.ui.widgets.elided import Elided
from nakrel.words import counted, tr

__all__ = ["DevicesPage"]

_ROUTES = {
    "kernel": tr("Macros reach every window through the kernel's input."),
    "x11": tr("Macros reach every window through the X server."),
    "xwayland": tr("This is a Wayland session: macros reach only the windows that run under Xwayland."),
    "standin": tr("Macros reach no other window."),
}
_HOW = {"kernel": tr("read through the kernel"), "X11": tr("read through the X server"), "stand-in": tr("simulated")}
_COLUMNS = 6
_LOW_PERCENT = 15


class _PressButton(QPushButton):
    """A simulated control: down while it is held with the mouse or the space bar."""

    def __init__(self, store: Store, device: str, code: str) -> None:
        super().__init__(control_label(code))
        self.setObjectName("panel")
        self.setToolTip(code)
        self.setAutoDefault(False)
        if CONTROLS[code].kind is Kind.WHEEL:
            self.clicked.connect(lambda: store.ask(m.PressStandIn(device, code, 1)))
        else:
            self.pressed.connect(lambda: store.ask(m.PressStandIn(device, code, 1)))
            self.released.connect(lambda: store.ask(m.PressStandIn(device, code, 0)))


class DevicesPage(QWidget):
    """The list of devices, the route to the programs, and the practice game."""

    def __init__(self, store: Store) -> None:
        super().__init__()
        self._store = store
        self._route, self._note = label("", "", wrap=True), label("", "soft", wrap=True)
        self.stand_ins = QCheckBox(tr("Simulated devices, for trying things without pressing a real button"))
        self.permissions = Permissions(store)
        self.keys = KeySettings(store)
        self.notch = TimeEdit(store.settings.notch_us, 1_000_000)
        self.layout_field = QLineEdit()
        self.layout_field.setPlaceholderText(tr("like the desktop"))
        self.layout_field.setFixedWidth(170)
        self.practice = button(tr("Start the practice game"), self.start_practice)
        self._message = label("", "soft", wrap=True)
        # Which times would debounce what the Range saw, by control, in microseconds.
        self.suggested: Callable[[], Mapping[str, int]] = dict
        self.debounce: DebounceDialog | None = None
        self.polling: PollingDialog | None = None
        self._panels: dict[str, QWidget] = {}
        # Whether a mouse's number keys are thumb buttons, by its name.
        self.thumbs: dict[str, QCheckBox] = {}
        self.second_keyboards: dict[str, QCheckBox] = {}
        self._list = QVBoxLayout()
        self._list.setSpacing(0)
        self._build()
        self.stand_ins.clicked.connect(self._stand_ins_clicked)
        self.layout_field.editingFinished.connect(self._layout_typed)
        self.notch.changed.connect(self._notch_changed)
        store.devices_changed.connect(self._devices_changed)
        store.status_changed.connect(self._show_route)
        store.settings_changed.connect(self._show_route)
        store.saving_changed.connect(self._examine_if_seen)
        self._stale = True

    def showEvent(self, event: QShowEvent | None) -> None:
        """Build the press panels when they are first seen; they are many buttons."""
        super().showEvent(event)
        self.permissions.examine()
        if self._stale:
            self._show_devices()

    def _examine_if_seen(self) -> None:
        """Ask anew what stands in the way once a change has reached the service."""
        if self.isVisible() and not self._store.saving:
            self.permissions.examine()

    def _devices_changed(self) -> None:
        self._stale = True
        if self.isVisible():
            self._show_devices()

    def _build(self) -> None:
        inner = QWidget()
        layout = QVBoxLayout(inner)
        layout.setContentsMargins(0, 10, 8, 10)
        layout.setSpacing(6)
        layout.addWidget(self._route)
        layout.addWidget(self._note)
        layout.addWidget(self.permissions)
        row = QHBoxLayout()
        row.addWidget(self.practice)
        row.addWidget(self._message, 1)
        layout.addLayout(row)
        layout.addWidget(self.stand_ins)
        typed = QHBoxLayout()
        name = label(tr("Keyboard layout"))
        name.setBuddy(self.layout_field)
        self.layout_field.setAccessibleName(name.text())
        about = tr("for names of keys and typed texts; an XKB name, such as de or us:intl")
        for each in (name, self.layout_field):
            typed.addWidget(each)
        typed.addWidget(label(about, "soft", wrap=True), 1)
        layout.addLayout(typed)
        layout.addWidget(self.keys)
        notch = QHBoxLayout()
        name = label(tr("A turn of the wheel presses a key for"))
        name.setBuddy(self.notch)
        self.notch.setAccessibleName(name.text())
        hint = tr("where it acts as a key or button; a game that looks once a frame misses shorter ones")
        for each in (name, self.notch):
            notch.addWidget(each)
        notch.addWidget(label(hint, "soft", wrap=True), 1)
        layout.addLayout(notch)
        layout.addSpacing(4)
        layout.addLayout(self._list)
        layout.addStretch(1)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        scroll.setWidget(inner)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(scroll)

    def open_debounce(self, device: Device) -> DebounceDialog:
        """Show how a device's buttons are debounced."""
        self.debounce = DebounceDialog(self._store, device, lambda: self.suggested(), self.window())
        self.debounce.show()
        return self.debounce

    def open_polling(self, device: Device) -> PollingDialog:
        """Show how often a mouse reports."""
        self.polling = PollingDialog(self._store, device, self.window())
        self.polling.show()
        return self.polling

    def start_practice(self) -> None:
        """Start the practice game as a program of its own."""
        beside = Path(sys.executable).with_name("nakrel-practice")
        found = str(beside) if beside.exists() else shutil.which("nakrel-practice")
        command = [found] if found else [sys.executable, "-m", "nakrel.practice"]
        # Detached: it is nobody's to collect here, and outlives the window.
        started, _ = QProcess.startDetached(command[0], command[1:])
        if started:
            self._message.setText(tr("Started. Link it like any game: it runs as nakrel-practice."))
        else:
            self._message.setText(tr("{value} could not be started.").format(value=command[0]))

    def _notch_changed(self, micros: int) -> None:
        commands.change_settings(self._store, tr("length of a notch"), SettingsPatch(notch_us=max(1_000, micros)))

    def _show_route(self) -> None:
        status = self._store.status
        self._route.setText(_ROUTES.get(status.backend, status.backend))
        self._note.setText(status.backend_note)
        self.stand_ins.setChecked(self._store.settings.stand_ins)
        if not self.layout_field.hasFocus():
            self.layout_field.setText(self._store.settings.layout)
        if not self.notch.hasFocus():
            self.notch.set_value(self._store.settings.notch_us)

    def _show_devices(self) -> None:
        self._stale = False
        self._show_route()
        with refilling(self._list):
            self._panels.clear()
            self.thumbs.clear()
            self.second_keyboards.clear()
            for device in self._store.devices:
                self._list.addWidget(hairline())
                self._list.addWidget(self._device(device))
            if not self._store.devices:
                self._list.addWidget(label(tr("No device found. Plug one in, or turn on the simulated ones."), "soft"))

    def _device(self, device: Device) -> QWidget:
        made = QWidget()
        layout = QVBoxLayout(made)
        layout.setContentsMargins(0, 8, 0, 8)
        kinds = [KNOWN[code].kind for code in device.controls if code in KNOWN]
        buttons, wheels, keys = (kinds.count(kind) for kind in (Kind.BUTTON, Kind.WHEEL, Kind.KEY))
        counts = [
            *([counted(buttons, "{n} button", "{n} buttons")] if buttons else []),
            *([counted(wheels, "{n} wheel direction", "{n} wheel directions")] if wheels else []),
            *([counted(keys, "{n} key", "{n} keys")] if keys else []),
        ]
        row = QHBoxLayout()
        name, about = Elided("heading", wide=True), Elided("soft", wide=True)
        name.set_text(device.name)
        about.set_text(" · ".join(filter(None, (", ".join(counts), _HOW.get(device.how, device.how), device.where))))
        row.addWidget(name)
        row.addSpacing(8)
        row.addWidget(about)
        if battery := next((each for each in self._store.batteries if {*each.nodes} & {*device.nodes}), None):
            low = battery.percent is not None and battery.percent <= _LOW_PERCENT and not battery.charging
            row.addSpacing(8)
            row.addWidget(label(battery_words(battery), "alarm" if low else "soft"))
        row.addStretch(1)
        if "BTN_LEFT" in device.controls and not device.standin:
            row.addWidget(
                button(tr("Polling…"), partial(self.open_polling, device), "link", tr("How often it reports"))
            )
        if buttons_of(device) and not device.standin:
            row.addWidget(button(tr("Debounce…"), partial(self.open_debounce, device), "link", tr("For a worn switch")))
        layout.addLayout(row)
        if device.note:
            layout.addWidget(label(device.note, "alarm" if device.trouble else "soft", wrap=True))
        if has_number_keys(self._store, device):
            layout.addWidget(self._thumbs(device.name))
        if may_be_second(self._store, device):
            layout.addWidget(self._second_keyboard(device))
        if device.standin:
            layout.addWidget(self._panel(device, small=len(device.controls) > 40))
        return made

    def _thumbs(self, mouse: str) -> QCheckBox:
        """Whether the mouse's number keys count as its thumb buttons."""
        box = self.thumbs[mouse] = QCheckBox(tr("Its number keys are thumb buttons"))
        told = tr(
            "They count as Thumb 1 to Thumb 12 then, apart from the keyboard's number keys. One with nothing attached "
            "still types its number."
        )
        box.setToolTip(told)
        box.setChecked(as_thumb_buttons(self._store, mouse))
        box.clicked.connect(lambda on: count_as_thumbs(self._store, mouse, on))
        return box

    def _second_keyboard(self, device: Device) -> QCheckBox:
        """Whether the keyboard's keys are apart from others'."""
        box = self.second_keyboards[device.name] = QCheckBox(tr("Keep its keys apart from other keyboards"))
        told = tr(
            "For a second keyboard or a keypad that is there for macros: its keys are called {key} and so on then. One "
            "with nothing attached still types."
        )
        box.setToolTip(told.format(key=control_label(second("KEY_Q"))))
        box.setChecked(is_second(self._store, device))
        box.clicked.connect(lambda on: count_as_second(self._store, device.name, on))
        return box

    def _panel(self, device: Device, *, small: bool) -> QWidget:
        """The press panel; a whole keyboard shows the keys that are met most."""
        panel = QWidget()
        grid = QGridLayout(panel)
        grid.setContentsMargins(0, 2, 0, 0)
        grid.setSpacing(4)
        codes = [c for c in device.controls if not small or c in _KEYS_SHOWN]
        columns = 10 if small else _COLUMNS
        for n, code in enumerate(codes):
            grid.addWidget(_PressButton(self._store, device.id, code), n // columns, n % columns)
        self._panels[device.id] = panel
        return panel

    def _layout_typed(self) -> None:
        typed = self.layout_field.text().strip()
        if typed != self._store.settings.layout:
            commands.change_settings(self._store, tr("keyboard layout"), SettingsPatch(layout=typed))

    def _stand_ins_clicked(self, on: bool) -> None:
        commands.change_settings(self._store, tr("simulated devices"), SettingsPatch(stand_ins=on))


_KEYS_SHOWN = frozenset(
    f"KEY_{name}"
    for name in (
        *"1234567890QWERTYUIOPASDFGHJKLZXCVBNM",
        *("ESC", "TAB", "SPACE", "ENTER", "LEFTSHIFT", "LEFTCTRL", "F5", "F6", "PAUSE", "SCROLLLOCK", "CAPSLOCK"),
    )
)
