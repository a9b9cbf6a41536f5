"""Profile switches on the kernel's route in the midst of motion: does one stick, or hold motion back?"""

from __future__ import annotations

import fcntl
import os
import random
import select
import struct
import termios
import time

from bench.devices import Devices, ticks

from nakrel import protocol as m
from nakrel.backends.kernel import abi
from nakrel.client.connection import ServiceConnection
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.core.model.steps import Tap
from soak.part import Found, Tell

__all__ = ["switches"]

_MOTION = abi.report((abi.EV_REL, 0, 1))
_LIMIT_S = 1.0
_REST_S, _BUSY = 0.3, 0.3


def _unread(fd: int) -> int:
    """How many bytes wait in a pipe."""
    return int(struct.unpack("i", fcntl.ioctl(fd, termios.FIONREAD, b"\0" * 4))[0])


def _take(devices: Devices) -> int:
    """Take what has passed; how many bytes that is."""
    taken = 0
    while select.select([devices.clone], [], [], 0)[0]:
        taken += len(os.read(devices.clone, 1 << 16))
    return taken


def _move(devices: Devices, seconds: float) -> None:
    """Motion a thousand times a second."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        os.write(devices.mouse, _MOTION)
        _take(devices)
        time.sleep(0.001)


def _passes(devices: Devices, wanted: bool) -> bool:
    """Whether motion comes to pass through the clone, or comes to be left alone, soon enough."""
    end = time.monotonic() + _LIMIT_S
    while time.monotonic() < end:
        _take(devices)
        os.write(devices.mouse, _MOTION)
        if bool(select.select([devices.clone], [], [], 0.05)[0]) == wanted:
            return True
    return False


def _fault(devices: Devices, connection: ServiceConnection, chance: random.Random, attached: bool) -> str:
    """Switch in the midst of motion that stops soon after; what is wrong then, '' for nothing."""
    _move(devices, chance.uniform(0, 0.02))
    connection.call(m.Pin(EVERYDAY if attached else "bare"))
    _move(devices, chance.uniform(0, 0.05))
    end = time.monotonic() + _LIMIT_S
    while waiting := _unread(devices.mouse):
        if time.monotonic() > end:
            return f"{waiting} bytes are held back"
        time.sleep(0.002)
    if not _passes(devices, attached):
        return "the mouse isn't taken" if attached else "the mouse isn't let go"
    return ""


def switches(count: int, seed: int, tell: Tell) -> Found:
    """Switch so often between a profile that has a button of the mouse attached and one that hasn't."""
    macro = Macro(id="shot", name="Shot", loop=(Tap(control="KEY_Q", hold_us=1_000),))
    failures = []
    devices = Devices(macro, Profile(id="bare", name="Bare"))
    try:
        connection = ServiceConnection.connect(devices.home.socket, "soak")
        for number in range(count):
            fault = _fault(devices, connection, random.Random(f"{seed} {number}"), bool(number % 2))
            if not fault and number % 50 == 0:
                before = ticks(devices.pid)
                time.sleep(_REST_S)
                if ticks(devices.pid) - before > _REST_S * _BUSY:
                    fault = "the service finds no rest"
            if number % 50 == 49:
                tell(number + 1)
            if fault:
                failures.append(f"round {number}: {fault}")
                break
        connection.close()
    finally:
        devices.end()
    return Found(failures)
