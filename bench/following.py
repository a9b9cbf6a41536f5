"""How long it takes until a profile is live: after its program has started, and after its window came to the front."""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from tests.support import PracticeGame, ServiceProcess, XServer

from nakrel import protocol as m
from nakrel.core.model.profile import MatchBy, Profile, ProgramRule
from nakrel.storage import files
from nakrel.storage.home import Home

__all__ = ["live_times"]


def live_times(rounds: int, profiles: int = 1_000) -> tuple[list[float], list[float]]:
    """Milliseconds from the start of a linked program until its profile is live, and from the moment a window asks to
    be in front until its profile is, under an X server with a window manager; with so many linked profiles."""
    server = XServer()
    try:
        with tempfile.TemporaryDirectory() as folder:
            home = Path(folder)
            os.environ.update(server.environment)
            place = Home.find(home / "home").profiles
            place.mkdir(parents=True)
            others = (f"other-{number}" for number in range(profiles))
            for name in ("bench-one", "bench-two", "bench-start", *others):
                profile = Profile(id=name, name=name, programs=(ProgramRule(MatchBy.NAME, name),))
                (place / f"{name}.json").write_bytes(files.encode(profile))
            service = ServiceProcess(home / "home", "--backend", "x11")
            starts = [_start(service) for _ in range(rounds)]
            fronts = _fronts(service, server, home, rounds)
            service.end()
    finally:
        server.end_server()
    return starts, fronts


def _went_live(service: ServiceProcess, name: str, since: float) -> float:
    """When the profile went live, in seconds since the epoch, by the journal."""

    def found() -> float:
        answer = service.call(m.GetJournal(20))
        assert isinstance(answer, m.Journal)
        return next((e.at for e in reversed(answer.entries) if e.at >= since and e.what == f"{name} is live"), 0.0)

    return service.hear(found, f"{name} to be live")


def _start(service: ServiceProcess) -> float:
    """The program takes its name when it has begun, as one that is a script does; the time counts from there."""
    named = "import ctypes,time; began = time.time(); ctypes.CDLL(None).prctl(15, b'bench-start', 0, 0, 0)"
    code = f"{named}; print(began, flush=True); time.sleep(9)"
    process = subprocess.Popen([sys.executable, "-c", code], stdout=subprocess.PIPE, text=True)
    assert process.stdout
    began = float(process.stdout.readline())
    took = (_went_live(service, "bench-start", began) - began) * 1_000
    process.kill()
    process.wait()
    service.hear(lambda: service.status().live == "everyday", "Everyday")
    return took


def _fronts(service: ServiceProcess, server: XServer, home: Path, rounds: int) -> list[float]:
    games = {name: PracticeGame(server, home, 60, name) for name in ("bench-one", "bench-two")}
    took = []
    for number in range(rounds):
        name = ("bench-one", "bench-two")[number % 2]
        began = time.time()
        server.injector("windowactivate", games[name].window)
        took.append((_went_live(service, name, began) - began) * 1_000)
    for game in games.values():
        game.end()
    return took
