"""How service and window bear 1,000 profiles and 5,000 macros; run as a process of its own."""

from __future__ import annotations

import gc
import json
import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

__all__ = ["scale_times"]

PROFILES, MACROS = 1_000, 5_000


def scale_times(rounds: int, profiles: int = PROFILES, macros: int = MACROS) -> dict[str, float]:
    """Seconds from the start of the service until its first answer, and from the start of the window's process, with
    the service running, until it can be used; and milliseconds, repaint included, of a search and of showing another
    profile. Medians."""
    environment = {**os.environ, "QT_QPA_PLATFORM": os.environ.get("QT_QPA_PLATFORM", "offscreen")}
    with tempfile.TemporaryDirectory() as home:
        _fill(home, profiles, macros)
        served = []
        for _ in range(4):
            served.append(_run("serve", home, 0, environment)["service"])
            if len(served) < 4:
                _run("end", home, 0, environment)
        starts = []
        for _ in range(3):
            began = time.perf_counter()
            found = _run("measure", home, 0, environment)
            starts.append(found["usable"] - began)
        found = _run("measure", home, rounds, environment)
        _run("end", home, 0, environment)
    # The first time may have work that is done once; people wait for the others.
    return {
        "service": statistics.median(served[1:]),
        "start": statistics.median(starts),
        "search": found["search"],
        "switch": found["switch"],
    }


def _run(what: str, home: str, rounds: int, environment: dict[str, str]) -> dict[str, float]:
    command = [sys.executable, "-m", "bench.scale", what, home, str(rounds)]
    told = subprocess.run(command, check=True, env=environment, capture_output=True, text=True).stdout
    return dict(json.loads(told))


def _fill(home: str, profiles: int, macros: int) -> None:
    from msgspec.structs import replace

    from nakrel.core.model.cells import Cell, RunMacro
    from nakrel.core.model.profile import EVERYDAY, MatchBy, Profile, ProgramRule, SetUp
    from nakrel.demo.data import MACROS as samples
    from nakrel.storage import files
    from nakrel.storage.home import Home

    place = Home.find(home)
    for folder in (place.profiles, place.macros):
        folder.mkdir(parents=True)
    for n in range(macros):
        macro = replace(samples[n % len(samples)], id=f"macro-{n}", name=f"{samples[n % len(samples)].name} {n}")
        Path(place.macros, f"{n}.json").write_bytes(files.encode(macro))
    for n in range(profiles):
        numbers = ((5 * n + k) % macros for k in range(5))
        cells: dict[str, Cell] = {
            f"BTN_TRIGGER_HAPPY{k}": RunMacro(f"macro-{each}") for k, each in enumerate(numbers, 1)
        }
        profile = Profile(
            id=EVERYDAY if not n else f"profile-{n}",
            name="Everyday" if not n else f"Harbour {n}",
            programs=(ProgramRule(MatchBy.NAME, f"harbour-{n}"),) if n else (),
            setups=(SetUp("Main", cells),),
        )
        Path(place.profiles, f"{n}.json").write_bytes(files.encode(profile))


def _measure(home: str, rounds: int) -> dict[str, float]:
    # As the command does it.
    gc.disable()
    from PyQt6.QtTest import QTest
    from PyQt6.QtWidgets import QApplication

    from nakrel.client.launch import ensure_service
    from nakrel.storage.home import Home
    from nakrel.ui.app import open_window, spare_the_collector
    from nakrel.ui.store import Store

    app = QApplication([])
    store = Store(lambda: ensure_service(Home.find(home).socket, home, "bench"))
    store.open()
    window = open_window(app, store)
    window.resize(1280, 800)
    window.show()
    spare_the_collector()
    QTest.qWaitForWindowExposed(window)  # type: ignore[call-overload]
    app.processEvents()
    usable = time.perf_counter()

    def timed(act: Callable[[int], object]) -> float:
        took = []
        for number in range(rounds):
            QTest.qWait(100)  # type: ignore[arg-type,call-arg]
            start = time.perf_counter()
            act(number)
            app.processEvents()
            took.append((time.perf_counter() - start) * 1_000)
        return statistics.median(took) if took else 0.0

    words = ["reel", "harbour 77", "thorn fan 4", "x", "oar", ""]
    search = timed(lambda n: window.column.search.setText(words[n % len(words)]))
    window.column.search.clear()
    window.shown.show_page("sheet")
    switch = timed(lambda n: window.shown.show_profile(f"profile-{1 + 37 * n % 999}"))
    window.close()
    return {"usable": usable, "search": search, "switch": switch}


def _service(home: str, end: bool) -> dict[str, float]:
    from nakrel import protocol as m
    from nakrel.client.launch import ensure_service
    from nakrel.storage.home import Home

    began = time.perf_counter()
    connection = ensure_service(Home.find(home).socket, home, "bench")
    took = time.perf_counter() - began
    if end:
        connection.call(m.Shutdown())
    connection.close()
    return {"service": took}


if __name__ == "__main__":
    what, home, rounds = sys.argv[1:]
    print(json.dumps(_measure(home, int(rounds)) if what == "measure" else _service(home, what == "end")))
