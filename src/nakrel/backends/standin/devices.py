"""Simulated devices with a press panel, read like real ones through a pipe."""

from __future__ import annotations

import contextlib
import os
import struct
import time
from collections.abc import Collection, Iterator

from nakrel.backends.protocols import BackendLost, InputEvent
from nakrel.core.model.controls import CONTROLS, Kind
from nakrel.core.model.devices import Device
from nakrel.core.play.events import Pressed, Released, Turned
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["STAND_INS", "StandInDevices"]

_MAIN = ("BTN_LEFT", "BTN_RIGHT", "BTN_MIDDLE")
_WHEEL = ("WHEEL_UP", "WHEEL_DOWN", "WHEEL_LEFT", "WHEEL_RIGHT")
_THUMBS = tuple(f"BTN_TRIGGER_HAPPY{n}" for n in range(1, 13))
_KEYS = tuple(c.code for c in CONTROLS.values() if c.part in ("keys", "function", "navigation", "keypad"))

STAND_INS = (
    Device(
        "standin:halyard-12",
        "Halyard 12 mouse",
        (*_MAIN, *_WHEEL, *_THUMBS, "BTN_FORWARD", "BTN_BACK"),
        "stand-in",
        True,
    ),
    Device("standin:bollard", "Bollard keyboard", _KEYS, "stand-in", True),
    Device("standin:ferry", "Ferry office mouse", (*_MAIN, *_WHEEL[:2], "BTN_SIDE", "BTN_EXTRA"), "stand-in", True),
)

_CODES = sorted(CONTROLS)
_NOTCHES = frozenset(control.code for control in CONTROLS.values() if control.kind is Kind.WHEEL)
_INDEX = {code: n for n, code in enumerate(_CODES)}
# One event in the pipe: device, control, value, and the time in microseconds.
_RECORD = struct.Struct("=BHiq")


class StandInDevices:
    """Implements `InputBackend`; `press` is the simulated finger. Events may come from another thread or process
    that writes to `hand_fd`."""

    def __init__(self, devices: tuple[Device, ...] = STAND_INS) -> None:
        self._devices = devices
        self._names = [device.name for device in devices]
        self._down: set[str] = set()
        self._read_fd, self.hand_fd = os.pipe2(os.O_NONBLOCK | os.O_CLOEXEC)
        self.captured: frozenset[str] = frozenset()
        # Where output reaches real programs, a simulated press that nobody has attached goes nowhere.
        self.apart = False

    def fileno(self) -> int:
        """The pipe that the simulated fingers write to."""
        return self._read_fd

    def devices(self) -> tuple[Device, ...]:
        """The simulated devices."""
        return self._devices

    def capture(self, controls: Collection[str], repeats_itself: Collection[str] = ()) -> None:
        """Remember what is taken; a simulated device reaches no program by itself."""
        self.captured = frozenset(controls)

    def press(self, device: str, control: str, value: int) -> None:
        """Put a control down (1), let it go (0), or turn a wheel by `value` notches.

        Raises `ValueError` for a device or control that isn't there.
        """
        found = next((n for n, d in enumerate(self._devices) if d.id == device), None)
        if found is None:
            raise ValueError(tr("there is no simulated device {device!r}").format(device=device))
        if control not in self._devices[found].controls:
            raise ValueError(
                tr("{name} has no key or button {control!r}").format(name=self._devices[found].name, control=control)
            )
        os.write(self.hand_fd, _RECORD.pack(found, _INDEX[control], value, time.monotonic_ns() // 1_000))

    def read(self) -> Iterator[InputEvent]:
        """What the simulated fingers did since the last call."""
        try:
            data = os.read(self._read_fd, _RECORD.size * 256)
        except BlockingIOError:
            return
        except OSError as error:
            raise BackendLost(tr("the simulated devices are gone: {reason}").format(reason=reason_of(error))) from None
        for number, index, value, at_us in _RECORD.iter_unpack(data):
            if event := self._event(_CODES[index], value):
                yield InputEvent(event, at_us, self._names[number])

    def close(self) -> None:
        """Close the pipe."""
        for handle in (self._read_fd, self.hand_fd):
            with contextlib.suppress(OSError):
                os.close(handle)

    def _passed(self, code: str) -> bool:
        return self.apart and code not in self.captured

    def _event(self, code: str, value: int) -> Pressed | Released | Turned | None:
        if code in _NOTCHES:
            return Turned(code, value, self._passed(code)) if value else None
        if bool(value) == (code in self._down):
            return None
        if value:
            self._down.add(code)
            return Pressed(code, self._passed(code))
        self._down.discard(code)
        return Released(code)
