"""Millions of events through the service: does its memory grow, or the number of its descriptors?"""

from __future__ import annotations

import os
import select
import threading
import time
from pathlib import Path

from bench.devices import TRIGGER_NUMBER, Devices

from nakrel.backends.kernel import abi
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Tap
from soak.part import Found, Tell

__all__ = ["events"]

_MOST_KB = 1_024
_SETTLE_S = 3.0
# Of reports of motion, presses of a button that plays a macro, and turns of the wheel: what a game evening is made of.
_BLOCK = (
    abi.report((abi.EV_REL, 0, 3), (abi.EV_REL, 1, -2)) * 40
    + abi.report((abi.EV_KEY, TRIGGER_NUMBER, 1))
    + abi.report((abi.EV_REL, 0, 1)) * 4
    + abi.report((abi.EV_KEY, TRIGGER_NUMBER, 0))
    + abi.report((abi.EV_REL, abi.REL_WHEEL, 1))
    + abi.report((abi.EV_KEY, 0x110, 1))
    + abi.report((abi.EV_KEY, 0x110, 0))
)
# Before that its tables grow to their size.
_FIRST = 200_000


def _kb(pid: int) -> int:
    """What a process has resident, in KB."""
    for line in Path(f"/proc/{pid}/status").read_text().splitlines():
        if line.startswith("VmRSS"):
            return int(line.split()[1])
    raise RuntimeError(f"process {pid} has ended")


def _descriptors(pid: int) -> int:
    return len(os.listdir(f"/proc/{pid}/fd"))


def events(count: int, seed: int, tell: Tell) -> Found:
    """So many events, as fast as they are taken."""
    devices = Devices(Macro(id="shot", name="Shot", loop=(Tap(control="KEY_Q", hold_us=1_000),)))
    ended = threading.Event()

    def drain() -> None:
        while not ended.is_set():
            for each in select.select([devices.clone, devices.hands], [], [], 0.1)[0]:
                os.read(each, 1 << 16)

    thread = threading.Thread(target=drain, daemon=True)
    thread.start()
    size = len(abi.report())
    a_block, sent, told = len(_BLOCK) // size, 0, 0
    failures = []
    try:
        before_kb = before = 0
        while sent < count + _FIRST:
            os.write(devices.mouse, _BLOCK)
            sent += a_block
            if not before and sent >= _FIRST:
                before_kb, before = _kb(devices.pid), _descriptors(devices.pid)
            if sent - told > 100_000:
                told = sent
                tell(max(0, sent - _FIRST))
        grown = _kb(devices.pid) - before_kb
        # A file that is read at this moment is closed at the next.
        end = time.monotonic() + _SETTLE_S
        while (more := _descriptors(devices.pid) - before) > 0 and time.monotonic() < end:
            time.sleep(0.05)
    finally:
        ended.set()
        thread.join()
        devices.end()
    if grown > _MOST_KB:
        failures.append(f"it grew by {grown:,} KB")
    if more > 0:
        failures.append(f"{more} descriptors more")
    return Found(failures, f"grown by {grown:,} KB, {more} descriptors more")
