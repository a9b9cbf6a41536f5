"""The pointer's speed under X: the server can't change it without moving the pointer, so it is left alone."""

from __future__ import annotations

import pytest

from nakrel import protocol as m
from nakrel.core.model.conditioning import Pointing, SpeedStage
from nakrel.core.model.profile import Profile
from tests.support import ServiceProcess, XServer, wait_for

pytestmark = [
    pytest.mark.x11,
    pytest.mark.skipif(bool(XServer.missing()), reason=f"needs {XServer.missing()}"),
]

HALF = Profile(id="kiln", name="Kiln Race", pointer=Pointing((SpeedStage("Half", 50, 50),)))


def test_a_speed_stage_neither_slows_the_pointer_nor_lets_it_leap(server: XServer, service: ServiceProcess):
    def place() -> tuple[int, int]:
        told = dict(line.split("=") for line in server.injector("getmouselocation", "--shell").splitlines())
        return int(told["X"]), int(told["Y"])

    service.call(m.PutProfile(HALF))
    service.call(m.Pin("kiln"))
    service.hear(lambda: service.status().live == "kiln", "the profile")
    assert service.status().stage == "Half"
    assert not service.status().changes_motion
    # A program puts the pointer somewhere, and a finger moves it on.
    server.injector("mousemove", "300", "200")
    wait_for(lambda: place() == (300, 200), "the pointer in its place")
    server.injector("mousemove_relative", "1", "1")
    assert place() == (301, 201)
