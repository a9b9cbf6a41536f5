"""Hard kills of the service under an X server while macros hold controls and edits are saved: what stays down, and what
that was confirmed is lost?"""

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
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from soak.part import Found, Tell

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


def _lost(home: Path, confirmed: list[Macro]) -> list[str]:
    """What the service has confirmed and the disk hasn't; an edit that came later may be there instead."""
    library = Library(Home.find(home), read_only=True)
    library.load()
    found = {key: int(macro.note or 0) for key, macro in library.macros.items()}
    wrong = [f"{each.name} {each.note}" for each in confirmed if found.get(each.id, -1) < int(each.note)]
    return [*wrong, *library.faults]


def kills(kind: str, count: int, seed: int, tell: Tell) -> Found:
    """Kill so many services."""
    server = XServer()
    failures: list[str] = []
    edits = 0
    try:
        with tempfile.TemporaryDirectory() as folder:
            for number in range(count):
                chance = random.Random(f"{seed} {kind} {number}")
                home = Path(folder) / "home"
                service = ServiceProcess(
                    home,
                    "--backend",
                    "x11",
                    own_group=True,
                    DISPLAY=server.display,
                    NAKREL_X11_INJECTOR="xtest",
                )
                for macro in _macros(chance):
                    service.call(m.PutMacro(macro))
                    service.call(m.Play_(macro.id))
                confirmed: dict[str, Macro] = {}
                end = time.monotonic() + chance.uniform(0.02, 0.3)
                while time.monotonic() < end:
                    edits += 1
                    edit = Macro(id=f"e{chance.randrange(3)}", name=f"E {chance.randrange(3)}", note=str(edits))
                    service.call(m.PutMacro(edit))
                    confirmed[edit.id] = edit
                _kill(service, server, kind, chance)
                service.process.wait()
                service.client.close()
                end = time.monotonic() + _LIMIT_S
                while (down := _down(server.display)) and time.monotonic() < end:
                    time.sleep(0.02)
                if lost := _lost(home, list(confirmed.values())):
                    failures.append(f"{kind}, round {number}: {', '.join(lost)} is lost")
                if down:
                    failures.append(f"{kind}, round {number}: {', '.join(down)} down")
                    server.end_server()
                    server = XServer()
                if number % 5 == 4:
                    tell(number + 1)
    finally:
        server.end_server()
    return Found(failures, f"{edits:,} edits confirmed")
