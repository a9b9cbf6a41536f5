"""The two ends of the kernel's input: an event node that is read, and a virtual device that is written."""

from __future__ import annotations

import contextlib
import ctypes
import errno
import fcntl
import os
import struct
from pathlib import Path
from typing import NamedTuple

from nakrel.backends.kernel import abi
from nakrel.backends.protocols import BackendLost, BackendUnavailable
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["OWN_PHYS", "UINPUT", "Abilities", "Node", "Virtual"]

UINPUT = Path("/dev/uinput")
_SYSFS = Path("/sys/class/input")
# Every virtual device of ours says so in its `phys`, by which it is known and never read back.
OWN_PHYS = "nakrel/"
_TEXT = 256
# Evdev hands over whole reports only as long as they fit the buffer.
READ_SIZE = abi.EVENT.size * 256


class Abilities(NamedTuple):
    """What a device can do: its ids (bus, vendor, product, version), the codes of each event type, its absolute axes
    (value, minimum, maximum, fuzz, flat, resolution), its properties, and its auto-repeat (the delay and the period in
    milliseconds)."""

    ids: tuple[int, int, int, int]
    codes: dict[int, frozenset[int]]
    axes: dict[int, tuple[int, ...]]
    properties: frozenset[int] = frozenset()
    repeat: tuple[int, int] | None = None

    def has(self, kind: int, *codes: int) -> bool:
        """Whether it has all these codes of the event type."""
        return self.codes.get(kind, frozenset()).issuperset(codes)


class Node:
    """An open event node. Raises `OSError` when it can't be opened or asked."""

    def __init__(self, path: str) -> None:
        self.path = path
        self.writable = True
        flags = os.O_NONBLOCK | os.O_CLOEXEC
        try:
            self.fd = os.open(path, os.O_RDWR | flags)
        except PermissionError:
            # Enough to read and to grab; only a keyboard's lights can't be set.
            self.writable = False
            self.fd = os.open(path, os.O_RDONLY | flags)
        try:
            fcntl.ioctl(self.fd, abi.EVIOCSCLOCKID, struct.pack("@i", abi.CLOCK_MONOTONIC))
            self.name = self._text(abi.eviocgname(_TEXT)) or tr("unnamed device")
            self.phys = self._text(abi.eviocgphys(_TEXT))
            self.uniq = self._text(abi.eviocguniq(_TEXT))
            self.abilities = self._ask_abilities()
        except OSError:
            os.close(self.fd)
            raise

    def keys_down(self) -> set[int]:
        """The keys and buttons that are down by the kernel's books. Drops key events that wait to be read."""
        return set(self._bits(abi.eviocgkey, abi.CODES[abi.EV_KEY]))

    def lights_on(self) -> set[int]:
        """The lights that are on by the kernel's books."""
        return set(self._bits(abi.eviocgled, abi.CODES[abi.EV_LED]))

    def grab(self, on: bool) -> None:
        """Be the only reader, or one of many again. Raises `OSError` (EBUSY: another program is the only one)."""
        fcntl.ioctl(self.fd, abi.EVIOCGRAB, int(on))

    def attend(self, everything: bool) -> None:
        """Be woken by all events, or by keys, buttons and wheel notches only."""
        kinds = range(abi.EV_MAX + 1) if everything else (abi.EV_KEY, abi.EV_REL)
        axes = range(abi.CODES[abi.EV_REL]) if everything else (abi.REL_WHEEL, abi.REL_HWHEEL)
        # Without it (a very old kernel) there is more to read, and nothing else changes.
        with contextlib.suppress(OSError):
            self._mask(abi.EV_SYN, kinds, abi.EV_MAX + 1)
            self._mask(abi.EV_REL, axes, abi.CODES[abi.EV_REL])

    def read(self) -> bytes:
        """What has come, b"" for nothing. Raises `OSError` (ENODEV when it was unplugged)."""
        try:
            return os.read(self.fd, READ_SIZE)
        except BlockingIOError:
            return b""

    def write(self, data: bytes) -> None:
        """Set lights; a device that doesn't take it is left alone."""
        if self.writable:
            with contextlib.suppress(OSError):
                os.write(self.fd, data)

    def close(self) -> None:
        """Close, and end the grab with it."""
        with contextlib.suppress(OSError):
            os.close(self.fd)

    def _text(self, request: int) -> str:
        try:
            return fcntl.ioctl(self.fd, request, bytes(_TEXT)).split(b"\0")[0].decode("utf-8", "replace")
        except OSError as error:
            if error.errno == errno.ENOENT:
                return ""
            raise

    def _bits(self, request: object, count: int) -> list[int]:
        size = (count + 63) // 64 * 8
        data = fcntl.ioctl(self.fd, request(size), bytes(size))  # type: ignore[operator]
        return [n for n in range(count) if data[n // 8] >> n % 8 & 1]

    def _ask_abilities(self) -> Abilities:
        ids = abi.ID.unpack(fcntl.ioctl(self.fd, abi.EVIOCGID, bytes(abi.ID.size)))
        kinds = self._bits(lambda size: abi.eviocgbit(0, size), abi.EV_MAX + 1)
        codes = {
            kind: frozenset(self._bits(lambda size, kind=kind: abi.eviocgbit(kind, size), abi.CODES[kind]))
            for kind in kinds
            if kind in abi.CODES and kind != abi.EV_SYN
        }
        repeat = None
        if abi.EV_REP in kinds:
            codes[abi.EV_REP] = frozenset()
            with contextlib.suppress(OSError):
                repeat = abi.REP.unpack(fcntl.ioctl(self.fd, abi.EVIOCGREP, bytes(abi.REP.size)))
        axes = {
            axis: abi.ABSINFO.unpack(fcntl.ioctl(self.fd, abi.eviocgabs(axis), bytes(abi.ABSINFO.size)))
            for axis in codes.get(abi.EV_ABS, ())
        }
        return Abilities(ids, codes, axes, frozenset(self._bits(abi.eviocgprop, 32)), repeat)

    def _mask(self, kind: int, wanted: object, count: int) -> None:
        size = (count + 7) // 8
        bits = ctypes.create_string_buffer(size)
        for code in wanted:  # type: ignore[attr-defined]
            bits[code // 8] = bits[code // 8][0] | 1 << code % 8
        fcntl.ioctl(self.fd, abi.EVIOCSMASK, abi.MASK.pack(kind, size, ctypes.addressof(bits)))


class Virtual:
    """A virtual device. It vanishes with this process, and the kernel lets go whatever is down on it then.

    Raises `BackendUnavailable` when /dev/uinput can't be used; the message says why.
    """

    def __init__(self, name: str, abilities: Abilities, phys: str = "") -> None:
        self.name = name
        self.abilities = abilities
        # How many times a key or a button that was up went down; whoever sends counts them.
        self.presses = 0
        try:
            self.fd = os.open(UINPUT, os.O_RDWR | os.O_NONBLOCK | os.O_CLOEXEC)
        except FileNotFoundError:
            raise BackendUnavailable(tr("the kernel's uinput module isn't loaded")) from None
        except OSError as error:
            raise BackendUnavailable(
                tr("{uinput} can't be opened: {reason}").format(uinput=UINPUT, reason=reason_of(error))
            ) from None
        try:
            self._create(phys)
        except OSError as error:
            os.close(self.fd)
            raise BackendUnavailable(
                tr("uinput refused the virtual device {name!r}: {reason}").format(name=name, reason=reason_of(error))
            ) from None

    def _create(self, phys: str) -> None:
        for kind, codes in self.abilities.codes.items():
            fcntl.ioctl(self.fd, abi.UI_SET_EVBIT, kind)
            for code in codes if kind in abi.UI_SET_CODE else ():
                fcntl.ioctl(self.fd, abi.UI_SET_CODE[kind], code)
        for each in self.abilities.properties:
            fcntl.ioctl(self.fd, abi.UI_SET_PROPBIT, each)
        for axis, values in self.abilities.axes.items():
            fcntl.ioctl(self.fd, abi.UI_ABS_SETUP, abi.ABS_SETUP.pack(axis, *values))
        fcntl.ioctl(self.fd, abi.UI_SET_PHYS, (OWN_PHYS + phys).encode()[:80] + b"\0")
        setup = abi.SETUP.pack(*self.abilities.ids, self.name.encode()[:79], 0)
        fcntl.ioctl(self.fd, abi.UI_DEV_SETUP, setup)
        fcntl.ioctl(self.fd, abi.UI_DEV_CREATE)
        if self.abilities.repeat:
            # The kernel gives a new device a rate of its own; what is written to it is its rate from now on.
            rate = zip((abi.REP_DELAY, abi.REP_PERIOD), self.abilities.repeat, strict=True)
            os.write(self.fd, abi.report(*((abi.EV_REP, code, ms) for code, ms in rate)))

    @property
    def path(self) -> str:
        """Its event node. Raises `OSError` when it has none."""
        name = fcntl.ioctl(self.fd, abi.ui_get_sysname(_TEXT), bytes(_TEXT)).split(b"\0")[0].decode()
        for node in (_SYSFS / name).glob("event*"):
            return f"/dev/input/{node.name}"
        raise FileNotFoundError(errno.ENOENT, os.strerror(errno.ENOENT), f"{_SYSFS / name}/event*")

    def write(self, data: bytes) -> None:
        """Send events. Raises `BackendLost`."""
        try:
            os.write(self.fd, data)
        except OSError as error:
            raise BackendLost(
                tr("the virtual device {name!r} is gone: {reason}").format(name=self.name, reason=reason_of(error))
            ) from None

    def read(self) -> bytes:
        """What the desktop asks of the device (lights), b"" for nothing."""
        try:
            return os.read(self.fd, READ_SIZE)
        except OSError:
            return b""

    def close(self) -> None:
        """Remove the device; the kernel lets go whatever is down on it."""
        with contextlib.suppress(OSError):
            fcntl.ioctl(self.fd, abi.UI_DEV_DESTROY)
        with contextlib.suppress(OSError):
            os.close(self.fd)
