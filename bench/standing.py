"""False alarms of the watchdog: services that are stopped for a while, and services that get too little processor."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from nakrel import protocol as m
from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Tap, Wait
from nakrel.storage.home import Home

__all__ = ["stopped", "starved"]

LOOP = Macro(
    id="loop", name="Loop", play=Play(Mode.TOGGLE), loop=(Tap(control="KEY_W", hold_us=5_000), Wait(wait_us=5_000))
)
_STOP_S, _REST_S = 6.0, 0.7


class _Watched:
    """A service with a macro that runs for ever."""

    def __init__(self, folder: Path) -> None:
        self.home = Home.find(folder)
        self.process = subprocess.Popen(
            [sys.executable, "-m", "nakrel.service", "--home", str(folder), "--backend", "stand-in"]
        )
        end = time.monotonic() + 30
        while time.monotonic() < end:
            try:
                client = ServiceConnection.connect(self.home.socket, "bench", 5)
                break
            except ClientError:
                time.sleep(0.05)
        client.call(m.PutMacro(LOOP))
        client.call(m.Play_("loop"))
        client.close()

    def end(self) -> int:
        """End it; returns how often it was started anew by itself."""
        client = ServiceConnection.connect(self.home.socket, "bench", 30)
        answer = client.call(m.GetJournal(), 30)
        client.close()
        assert isinstance(answer, m.Journal)
        self.process.send_signal(signal.SIGTERM)
        self.process.wait(60)
        return sum("did not answer any more" in entry.what for entry in answer.entries)


def stopped(stops: int) -> tuple[str, str, str, str]:
    """Stops of 6 s each, of some services at a time, while a macro runs in each."""
    at_once = min(10, stops)
    with tempfile.TemporaryDirectory() as folder:
        services = [_Watched(Path(folder, str(n))) for n in range(at_once)]
        for _ in range(stops // at_once):
            for service in services:
                os.kill(service.process.pid, signal.SIGSTOP)
            time.sleep(_STOP_S)
            for service in services:
                os.kill(service.process.pid, signal.SIGCONT)
            time.sleep(_REST_S)
        time.sleep(4)
        alarms = sum(service.end() for service in services)
    return f"stopped for {_STOP_S:.0f} s, {stops} times", f"{alarms} false alarms", "", "0 of 200"


def starved(minutes: float, busy: int = 8) -> tuple[str, str, str, str]:
    """A macro that runs for so long beside busy processes."""
    with tempfile.TemporaryDirectory() as folder:
        service = _Watched(Path(folder, "home"))
        loads = [subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(busy)]
        try:
            time.sleep(minutes * 60)
        finally:
            for load in loads:
                load.kill()
                load.wait()
        alarms = service.end()
    return f"beside {busy} busy processes, {minutes:g} min", f"{alarms} false alarms", "", "0 in 30 min"
