"""Profiles that follow real windows as they come to the front, under an X server with a window manager."""

from __future__ import annotations

import contextlib
import os
import random
import tempfile
from pathlib import Path

from tests.support import PracticeGame, ServiceProcess, XServer

from nakrel.core.model.profile import MatchBy, Profile, ProgramRule
from nakrel.storage import files
from nakrel.storage.home import Home
from soak.part import Found, Tell

__all__ = ["fronts"]

_NAMES = ("soak-one", "soak-two", "soak-three")
_LIMIT_S = 3.0


def fronts(count: int, seed: int, tell: Tell) -> Found:
    """So many times another window comes to the front: is its profile live soon after, each time?"""
    chance, failures = random.Random(seed), []
    server = XServer()
    try:
        with tempfile.TemporaryDirectory() as folder, contextlib.ExitStack() as ends:
            os.environ.update(server.environment)
            place = Home.find(Path(folder) / "home").profiles
            place.mkdir(parents=True)
            for name in _NAMES:
                profile = Profile(id=name, name=name, programs=(ProgramRule(MatchBy.NAME, name),))
                (place / f"{name}.json").write_bytes(files.encode(profile))
            service = ServiceProcess(Path(folder) / "home", "--backend", "x11")
            # It ends whatever comes; the games end with their X server.
            ends.callback(service.end)
            games = {name: PracticeGame(server, Path(folder), 60, name) for name in _NAMES}
            before = ""
            for number in range(count):
                name = chance.choice([each for each in _NAMES if each != before])
                before = name
                server.injector("windowactivate", games[name].window)
                try:
                    service.hear(lambda name=name: service.status().live == name, name, _LIMIT_S)  # type: ignore[misc]
                except AssertionError:
                    failures.append(f"switch {number}: {name} is in front, and {service.status().live} is live")
                if number % 20 == 19:
                    tell(number + 1)
            for game in games.values():
                game.end()
            ends.pop_all()
            if code := service.end():
                failures.append(f"the service ended with {code}")
    finally:
        server.end_server()
    return Found(failures)
