"""The pointer's speed under X: it goes with the profile and with a held button, and is given back whatever happens."""

from __future__ import annotations

import signal

import pytest

from nakrel import protocol as m
from nakrel.core.model.cells import ChangeSpeed
from nakrel.core.model.conditioning import Pointing, SpeedStage
from nakrel.core.model.devices import Conditions
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from tests.support import ServiceProcess, XServer, wait_for
from tests.xorg import XorgServer

pytestmark = [
    pytest.mark.x11,
    pytest.mark.skipif(bool(XServer.missing()), reason=f"needs {XServer.missing()}"),
]

HALF = Profile(
    id="kiln",
    name="Kiln Race",
    pointer=Pointing((SpeedStage("Half", 50, 200), SpeedStage("Aim", 10, 10))),
    setups=(SetUp("Main", {"BTN_SIDE": ChangeSpeed("Aim", held=True)}),),
)


class Pointer:
    """Where the pointer goes when the hand moves it."""

    def __init__(self, on: XServer) -> None:
        self.server = on
        on.injector("mousemove", "300", "200")
        wait_for(lambda: self.place() == (300, 200), "the pointer in its place")

    def place(self) -> tuple[int, int]:
        told = dict(line.split("=") for line in self.server.injector("getmouselocation", "--shell").splitlines())
        return int(told["X"]), int(told["Y"])

    def goes(self, by: tuple[int, int], wanted: tuple[int, int]) -> None:
        """A finger moves it by so much; it must go as far as wanted, once the server has its new speed."""

        def moved() -> bool:
            x, y = self.place()
            self.server.injector("mousemove_relative", str(by[0]), str(by[1]))
            # It isn't put back for another try: the server would scale the place that it is put at, too.
            return self.place() == (x + wanted[0], y + wanted[1])

        wait_for(moved, f"{wanted} for {by}")


def test_it_goes_with_the_profile_and_a_held_button(server: XServer, service: ServiceProcess):
    pointer = Pointer(server)
    pointer.goes((40, 20), (40, 20))
    assert service.status().changes_motion is Conditions.SPEED
    service.call(m.PutProfile(HALF))
    pointer.goes((40, 20), (40, 20))
    service.call(m.Pin("kiln"))
    service.hear(lambda: service.status().live == "kiln", "the profile")
    pointer.goes((40, 20), (20, 40))
    # Parts of pixels add up.
    x, _ = pointer.place()
    for _ in range(10):
        server.injector("mousemove_relative", "1", "0")
    wait_for(lambda: pointer.place()[0] == x + 5, "five pixels of ten halves")
    server.injector("mousedown", "8")
    service.hear(lambda: service.status().stage == "Aim", "the held stage")
    if isinstance(server, XorgServer):
        # What a held device does is relayed by XTEST's own; under Xvfb that is the hand's, too, and goes through the
        # matrix twice.
        pointer.goes((100, 50), (10, 5))
    server.injector("mouseup", "8")
    service.hear(lambda: service.status().stage == "Half", "the stage before")
    pointer.goes((40, 20), (20, 40))
    service.call(m.Pin(EVERYDAY))
    service.hear(lambda: service.status().live == EVERYDAY, "Everyday")
    pointer.goes((40, 20), (40, 20))


def test_an_ended_and_a_killed_service_give_the_speed_back(server: XServer, service: ServiceProcess):
    pointer = Pointer(server)
    for number in (signal.SIGTERM, signal.SIGKILL, signal.SIGKILL):
        service.call(m.PutProfile(HALF))
        service.call(m.Pin("kiln"))
        service.hear(lambda: service.status().live == "kiln", "the profile")
        pointer.goes((20, 10), (10, 20))
        service.end(number)

        def as_it_was() -> bool:
            # Away from the screen's edge, however often this is asked.
            server.injector("mousemove", "300", "200")
            before = pointer.place()
            server.injector("mousemove_relative", "10", "10")
            after = pointer.place()
            return (after[0] - before[0], after[1] - before[1]) == (10, 10)

        wait_for(as_it_was, "the pointer's own speed")
        service.__init__(service.folder, **service.environment)  # type: ignore[misc]
