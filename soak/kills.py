"""Hard kills of the service under an X server while macros hold controls: what stays down?"""

from __future__ import annotations

import os
import random
import signal
import tempfile
import time
from pathlib import Path

import xcffib
import xcffib.xproto
from tests.support import ServiceProcess, XServer

from nakrel import protocol as m
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Press, Release, Tap, Wait

__all__ = ["KINDS", "kills"]

KINDS = ("alone", "server stands still", "group")
_KEYS = ("KEY_W", "KEY_A", "KEY_Q", "KEY_E", "KEY_LEFTSHIFT", "BTN_LEFT", "BTN_RIGHT")
_LIMIT_S = 5.0


def _macros(chance: random.Random) -> list[Macro]:
    """Some that hold, and some that press and let go as fast as is allowed."""
    found = []
    for number, code in enumerate(chance.sample(_KEYS, 4)):
        hold_us = chance.choice((500, 1_000, 3_000, 40_000))
        steps = (
            (Press(control=code), Wait(wait_us=500_000_000), Release(control=code))
            if chance.random() < 0.3
            else (Tap(control=code, hold_us=hold_us), Wait(wait_us=chance.choice((500, 1_000, 5_000))))
        )
        found.append(Macro(id=f"m{number}", name=f"M{number}", play=Play(Mode.TOGGLE), loop=steps))
    return found


def _down(display: str) -> list[str]:
    """What the server has down: keycodes, and the buttons of the pointer."""
    conn = xcffib.connect(display)
    try:
        keys = conn.core.QueryKeymap().reply().keys
        mask = conn.core.QueryPointer(conn.get_setup().roots[0].root).reply().mask
    finally:
        conn.disconnect()
    found = [f"key {8 * n + bit}" for n, byte in enumerate(keys) for bit in range(8) if byte >> bit & 1]
    return found + [f"button {n + 1}" for n in range(5) if mask >> (8 + n) & 1]


def _kill(service: ServiceProcess, server: XServer, kind: str, chance: random.Random) -> None:
    if kind == "group":
        os.killpg(service.process.pid, signal.SIGKILL)
        return
    if kind == "server stands still":
        server._server.send_signal(signal.SIGSTOP)
        time.sleep(chance.uniform(0, 0.05))
    service.process.send_signal(signal.SIGKILL)
    if kind == "server stands still":
        time.sleep(chance.uniform(0.05, 0.6))
        server._server.send_signal(signal.SIGCONT)


def kills(kind: str, count: int, seed: int) -> list[str]:
    """Kill so many services; a line for each after which something stayed down, with the seed that repeats it."""
    server = XServer()
    failures = []
    try:
        with tempfile.TemporaryDirectory() as folder:
            for number in range(count):
                chance = random.Random(f"{seed} {kind} {number}")
                service = ServiceProcess(
                    Path(folder) / "home",
                    "--backend",
                    "x11",
                    own_group=True,
                    DISPLAY=server.display,
                    NAKREL_X11_INJECTOR="xtest",
                )
                for macro in _macros(chance):
                    service.call(m.PutMacro(macro))
                    service.call(m.Play_(macro.id))
                time.sleep(chance.uniform(0.02, 0.3))
                _kill(service, server, kind, chance)
                service.process.wait()
                service.client.close()
                end = time.monotonic() + _LIMIT_S
                while (down := _down(server.display)) and time.monotonic() < end:
                    time.sleep(0.02)
                if down:
                    failures.append(f"--only kills --seed {seed}: {kind}, round {number}: {', '.join(down)} down")
                    server.end_server()
                    server = XServer()
    finally:
        server.end_server()
    return failures
