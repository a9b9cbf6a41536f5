"""Hands for a real kernel: USB devices of the test machine, moved from outside it, and HID devices made here.

A device of either kind is read by the kernel's own drivers, as a bought one is.
"""

from __future__ import annotations

import json
import os
import select
import struct
from pathlib import Path

from tests.support import pause, wait_for

__all__ = ["HidKeyboard", "HidMouse", "HidThumbPad", "UsbKeyboard", "UsbMouse", "outside"]

_LINE = os.environ.get("NAKREL_TEST_HAND", "")
# QEMU's queue of edges is short and drops what it can't hold.
EDGE_S = 0.03


def outside() -> bool:
    """Whether there is a hand outside this machine."""
    return bool(_LINE)


class _Line:
    """The line to the host, opened once."""

    def __init__(self) -> None:
        self._fd = os.open(_LINE, os.O_RDWR)
        self._rest = b""

    def ask(self, execute: str, **arguments: object) -> object:
        os.write(self._fd, json.dumps({"execute": execute, "arguments": arguments}).encode() + b"\n")
        while b"\n" not in self._rest:
            select.select([self._fd], [], [], 10)
            self._rest += os.read(self._fd, 65_536)
        line, _, self._rest = self._rest.partition(b"\n")
        answer = json.loads(line)
        assert "error" not in answer, answer
        return answer["return"]


_lines: list[_Line] = []


def _ask(execute: str, **arguments: object) -> object:
    if not _lines:
        _lines.append(_Line())
    return _lines[0].ask(execute, **arguments)


def _nodes() -> set[str]:
    return {path.name for path in Path("/dev/input").glob("event*")}


class Device:
    """A device that is plugged in when made; `node` is its event node's name."""

    def __init__(self) -> None:
        before = _nodes()
        self._plug()
        self.node = min(wait_for(lambda: _nodes() - before, "the device's node"))

    def _plug(self) -> None:
        raise NotImplementedError

    def unplug(self) -> None:
        raise NotImplementedError

    @property
    def path(self) -> str:
        """The event node."""
        return f"/dev/input/{self.node}"

    def tap(self, control: str) -> None:
        """Down and up."""
        self.edge(control, 1)
        self.edge(control, 0)

    def edge(self, control: str, value: int) -> None:
        raise NotImplementedError


_BUTTONS = {"BTN_LEFT": "left", "BTN_RIGHT": "right", "BTN_MIDDLE": "middle", "BTN_SIDE": "side", "BTN_EXTRA": "extra"}


class _Usb(Device):
    model, count = "", 0

    def _plug(self) -> None:
        type(self).count += 1
        self.id = f"{self.model}-{type(self).count}"
        _ask("device_add", driver=self.model, id=self.id, bus="usb.0")

    def unplug(self) -> None:
        _ask("device_del", id=self.id)
        wait_for(lambda: self.node not in _nodes(), "the node to go")

    def _send(self, *events: tuple[str, dict[str, object]]) -> None:
        _ask("input-send-event", events=[{"type": kind, "data": data} for kind, data in events])
        pause(EDGE_S)


class UsbMouse(_Usb):
    """QEMU's USB mouse: five buttons and a wheel."""

    model = "usb-mouse"

    def edge(self, control: str, value: int) -> None:
        self._send(("btn", {"down": bool(value), "button": _BUTTONS[control]}))

    def move(self, dx: int, dy: int) -> None:
        self._send(("rel", {"axis": "x", "value": dx}), ("rel", {"axis": "y", "value": dy}))


class UsbKeyboard(_Usb):
    """QEMU's USB keyboard."""

    model = "usb-kbd"

    def edge(self, control: str, value: int) -> None:
        name = control.removeprefix("KEY_").lower()
        name = {"leftshift": "shift", "capslock": "caps_lock"}.get(name, name)
        self._send(("key", {"down": bool(value), "key": {"type": "qcode", "data": name}}))


# HID devices through /dev/uhid. Layouts after linux/uhid.h; descriptors after the USB HID 1.11 specification, appendix
# E.10 (mouse) and B.1 (boot keyboard), the mouse's with 16 buttons, 16-bit motion and a wheel.
_UHID_CREATE2, _UHID_DESTROY, _UHID_INPUT2 = 11, 1, 12
_CREATE2 = struct.Struct("=I128s64s64sHHIIII4096s")
_MOUSE = bytes.fromhex(
    "05010902a1010901a10005091901291015002501750195108102"
    "05010930093116018026ff7f751095028106"
    "0938158125 7f750895018106c0c0".replace(" ", "")
)
_KEYBOARD = bytes.fromhex(
    "05010906a101050719e029e71500250175019508810295017508810195057501050819012905910295017503910195067508150025650507190029658100c0"
)


class _Hid(Device):
    name, product, descriptor = "", 0, b""
    ports = 0

    def __init__(self, phys: str = "", uniq: str = "") -> None:
        type(self).ports += 1
        self._phys, self._uniq = phys or f"usb-test-{self.product:x}-{type(self).ports}/input0", uniq
        super().__init__()

    def _plug(self) -> None:
        self._fd = os.open("/dev/uhid", os.O_RDWR | os.O_CLOEXEC)
        create = _CREATE2.pack(
            _UHID_CREATE2,
            self.name.encode(),
            self._phys.encode(),
            self._uniq.encode(),
            len(self.descriptor),
            3,
            0x1209,
            self.product,
            1,
            0,
            self.descriptor,
        )
        os.write(self._fd, create)

    def unplug(self) -> None:
        os.write(self._fd, struct.pack("=I", _UHID_DESTROY))
        os.close(self._fd)
        wait_for(lambda: self.node not in _nodes(), "the node to go")

    def report(self, data: bytes) -> None:
        """One report of the hardware."""
        os.write(self._fd, struct.pack("=IH", _UHID_INPUT2, len(data)) + data)


class HidMouse(_Hid):
    """A mouse of 16 buttons, whose every report is a move of its own."""

    name, product, descriptor = "Halyard 16 mouse", 0x16, _MOUSE

    def __init__(self, phys: str = "", uniq: str = "") -> None:
        self._down = 0
        super().__init__(phys, uniq)

    def edge(self, control: str, value: int) -> None:
        number = int(control.removeprefix("BTN_0x"), 16) if control.startswith("BTN_0x") else _HID_BUTTONS[control]
        bit = 1 << (number - 0x110)
        self._down = self._down | bit if value else self._down & ~bit
        self.move(0, 0)

    def move(self, dx: int, dy: int, wheel: int = 0) -> None:
        self.report(struct.pack("<Hhhb", self._down, dx, dy, wheel))


_HID_BUTTONS = {
    name: 0x110 + n
    for n, name in enumerate(
        ("BTN_LEFT", "BTN_RIGHT", "BTN_MIDDLE", "BTN_SIDE", "BTN_EXTRA", "BTN_FORWARD", "BTN_BACK", "BTN_TASK")
    )
}


class HidKeyboard(_Hid):
    """A keyboard whose reports name up to six keys; letters, digits, a few others, and the shift key."""

    name, product, descriptor = "Bollard keyboard", 0x17, _KEYBOARD
    # HID usage ids: USB HID usage tables 1.12, page 7.
    _usages = {
        **{f"KEY_{chr(65 + n)}": 4 + n for n in range(26)},
        **{f"KEY_{n % 10}": 0x1D + n for n in range(1, 11)},
        "KEY_ESC": 0x29,
        "KEY_CAPSLOCK": 0x39,
        "KEY_PAUSE": 0x48,
    }

    def __init__(self, phys: str = "", uniq: str = "") -> None:
        self._down: list[int] = []
        self._shift = 0
        super().__init__(phys, uniq)

    def edge(self, control: str, value: int) -> None:
        if control == "KEY_LEFTSHIFT":
            # The modifiers are bits of the report's first byte (usages E0 to E7).
            self._shift = value << 1
        else:
            (self._down.append if value else self._down.remove)(self._usages[control])
        self.report(bytes([self._shift, 0, *self._down, *[0] * (6 - len(self._down))]))


class HidThumbPad(HidKeyboard):
    """The part of a mouse that sends digits with its thumb buttons."""

    name, product = "Halyard 12 mouse Keyboard", 0x18
