"""The kernel's input interface as numbers: event types, ioctl requests and the layout of an event.

Source: the kernel's public headers linux/input.h, linux/input-event-codes.h and linux/uinput.h. They are called
directly, since the packages that wrap them must be compiled on each machine and bring an event loop of their own.
"""

from __future__ import annotations

import errno
import struct

__all__ = ["EVENT", "GONE", "event", "report"]

# Gone, or never there: a device may vanish between being listed and being opened.
GONE = (errno.ENOENT, errno.ENODEV, errno.ENXIO)

# struct input_event: seconds, microseconds, type, code, value.
EVENT = struct.Struct("@llHHi")
# One after the other.
TWO_EVENTS = struct.Struct("@" + 2 * "llHHi")

EV_SYN, EV_KEY, EV_REL, EV_ABS, EV_MSC, EV_SW, EV_LED, EV_SND, EV_REP = 0, 1, 2, 3, 4, 5, 0x11, 0x12, 0x14
EV_MAX = 0x1F
SYN_REPORT, SYN_DROPPED = 0, 3
REL_X, REL_Y, REL_HWHEEL, REL_WHEEL, REL_WHEEL_HI_RES, REL_HWHEEL_HI_RES = 0, 1, 6, 8, 0x0B, 0x0C
ABS_X, ABS_Y = 0, 1
MSC_SCAN = 4
KEY_ESC, BTN_MISC, BTN_LEFT, BTN_TASK, KEY_OK = 1, 0x100, 0x110, 0x117, 0x160
# A value of EV_KEY: the kernel's own auto-repeat.
REPEATED = 2
# A notch of a wheel in high resolution.
HI_RES = 120
# How many codes each event type can have; the kernel takes masks of that size.
CODES = {EV_SYN: 0x10, EV_KEY: 0x300, EV_REL: 0x10, EV_ABS: 0x40, EV_MSC: 8, EV_SW: 0x11, EV_LED: 0x10, EV_SND: 8}
BUS_VIRTUAL = 6


def _request(direction: int, kind: str, number: int, size: int) -> int:
    return direction << 30 | size << 16 | ord(kind) << 8 | number


def _read(number: int, size: int, kind: str = "E") -> int:
    return _request(2, kind, number, size)


def _write(number: int, size: int, kind: str = "E") -> int:
    return _request(1, kind, number, size)


ID = struct.Struct("@HHHH")
ABSINFO = struct.Struct("@6i")
MASK = struct.Struct("@IIQ")
EVIOCGID = _read(0x02, ID.size)
# Delay and period of auto-repeat, in milliseconds.
REP = struct.Struct("@II")
REP_DELAY, REP_PERIOD = 0, 1
# input-event-codes.h
LED_SCROLLL = 2
EVIOCGREP = _read(0x03, REP.size)
EVIOCGRAB = _write(0x90, 4)
EVIOCSCLOCKID = _write(0xA0, 4)
EVIOCSMASK = _write(0x93, MASK.size)
CLOCK_MONOTONIC = 1


def eviocgname(size: int) -> int:
    """The device's name."""
    return _read(0x06, size)


def eviocgphys(size: int) -> int:
    """Where the device is plugged in."""
    return _read(0x07, size)


def eviocguniq(size: int) -> int:
    """The device's serial number, if it has one."""
    return _read(0x08, size)


def eviocgprop(size: int) -> int:
    """The device's properties, as bits."""
    return _read(0x09, size)


def eviocgkey(size: int) -> int:
    """Which keys are down now, as bits."""
    return _read(0x18, size)


def eviocgled(size: int) -> int:
    """The request for the lights that are on, in a bitmap of so many bytes."""
    return _read(0x19, size)


def eviocgbit(kind: int, size: int) -> int:
    """Which codes of an event type the device has, as bits; type 0 asks for the event types."""
    return _read(0x20 + kind, size)


def eviocgabs(axis: int) -> int:
    """An absolute axis: value, minimum, maximum, fuzz, flat, resolution."""
    return _read(0x40 + axis, ABSINFO.size)


SETUP = struct.Struct("@HHHH80sI")
ABS_SETUP = struct.Struct("@Hxx6i")
UI_DEV_CREATE = _request(0, "U", 1, 0)
UI_DEV_DESTROY = _request(0, "U", 2, 0)
UI_DEV_SETUP = _write(3, SETUP.size, "U")
UI_ABS_SETUP = _write(4, ABS_SETUP.size, "U")
UI_SET_EVBIT = _write(100, 4, "U")
UI_SET_PHYS = _write(108, struct.calcsize("@P"), "U")
UI_SET_PROPBIT = _write(110, 4, "U")


def ui_get_sysname(size: int) -> int:
    """The name of the device that was created, under /sys/class/input."""
    return _read(44, size, "U")


# The request that allows a code of this event type.
UI_SET_CODE = {
    EV_KEY: _write(101, 4, "U"),
    EV_REL: _write(102, 4, "U"),
    EV_ABS: _write(103, 4, "U"),
    EV_MSC: _write(104, 4, "U"),
    EV_LED: _write(105, 4, "U"),
    EV_SND: _write(106, 4, "U"),
    EV_SW: _write(109, 4, "U"),
}


def event(kind: int, code: int, value: int) -> bytes:
    """An event without a time: the kernel stamps what is written."""
    return EVENT.pack(0, 0, kind, code, value)


def motion_times(data: bytes) -> list[int]:
    """When the reports with motion in it came, in microseconds."""
    times, moved = [], False
    for seconds, micros, kind, code, _ in EVENT.iter_unpack(data):
        if kind == EV_REL and code in (REL_X, REL_Y):
            moved = True
        elif kind == EV_SYN and code == SYN_REPORT:
            if moved:
                times.append(seconds * 1_000_000 + micros)
            moved = False
    return times


def report(*events: tuple[int, int, int]) -> bytes:
    """Events that happen together, with the mark that ends them."""
    return b"".join(event(*one) for one in events) + event(EV_SYN, SYN_REPORT, 0)
