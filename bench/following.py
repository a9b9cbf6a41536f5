"""How long it takes until a profile is live: after its program has started, and after its window came to the front."""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from tests.support import PracticeGame, ServiceProcess, XServer

from bench.devices import ticks
from nakrel import protocol as m
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import MatchBy, Profile, ProgramRule
from nakrel.core.model.steps import Tap, Wait
from nakrel.storage import files
from nakrel.storage.home import Home

__all__ = ["live_times", "starts_beside"]

# A service to which the kernel doesn't tell of programs that start.
_UNTOLD = """
import sys
from nakrel.backends.protocols import BackendUnavailable
from nakrel.service import start
from nakrel.service.observers import follower

def refuse():
    raise BackendUnavailable("the benchmark says so")

if "{told}" == "no":
    follower.ProcessEvents = refuse
sys.exit(start.main(sys.argv[1:]))
"""
RATE, PROCESSES = 300, 600


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


def starts_beside(
    reference: Path, seconds: int, told: str, *, linked: bool, rate: int = RATE
) -> tuple[float, list[float]]:
    """The share of a core that the service takes while so many programs start a second, half of them gone in 20 ms and
    half in 200, beside `PROCESSES` others; and how late each event of a macro of 500 taps a second is, in µs. `told`
    says whether the kernel tells of starts (yes or no)."""
    idle = [subprocess.Popen([reference, "live", "600000"]) for _ in range(PROCESSES)]
    tap = Macro(
        id="tap", name="Tap", play=Play(Mode.TOGGLE), loop=(Tap(control="KEY_Q", hold_us=1_000), Wait(wait_us=1_000))
    )
    try:
        with tempfile.TemporaryDirectory() as folder:
            program = ("-c", _UNTOLD.format(told=told))
            service = ServiceProcess(Path(folder) / "home", "--backend", "stand-in", program=program)
            rules = (ProgramRule(MatchBy.NAME, "bench-game"),) if linked else ()
            service.call(m.PutProfile(Profile(id="game", name="Game", programs=rules)))
            service.call(m.PutMacro(tap))
            time.sleep(3.5)
            service.call(m.Play_("tap"))
            starting = (
                [subprocess.Popen([reference, "spawn", str(rate // 2), str(seconds), life]) for life in ("20", "200")]
                if rate
                else []
            )
            before, began = ticks(service.process.pid), time.monotonic()
            time.sleep(seconds - 0.5)
            share = (ticks(service.process.pid) - before) / (time.monotonic() - began)
            service.call(m.Stop("tap"))
            answer = service.call(m.GetRun("tap"))
            for each in starting:
                each.wait()
            service.end()
    finally:
        for each in idle:
            each.kill()
        for each in idle:
            each.wait()
    assert isinstance(answer, m.RunIs)
    assert answer.record
    return share, [float(event.at_us - event.due_us) for event in answer.record.events]
