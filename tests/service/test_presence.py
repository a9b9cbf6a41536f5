"""While nobody can be at the session nothing is played, and afterwards everything is as before."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
from pathlib import Path

import pytest

from nakrel import protocol as m
from nakrel.backends.presence import Absence, Presence, Seat, open_all
from nakrel.backends.presence import Locker as LockerBus
from nakrel.client.connection import ServiceRefused
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from nakrel.core.model.steps import Press, Wait
from tests.loaded import LoadedService
from tests.on_a_bus import Locker, Login
from tests.support import LIMIT_S, wait_for

HOLD = Macro(id="hold", name="Hold", play=Play(Mode.TOGGLE), loop=(Press(control="KEY_W"), Wait(wait_us=600_000_000)))


@pytest.fixture(autouse=True)
def started_elsewhere(monkeypatch: pytest.MonkeyPatch) -> None:
    """The session in which the tests run is none of theirs."""
    monkeypatch.delenv("XDG_SESSION_ID", raising=False)


def told(watched: Presence, *absences: Absence) -> None:
    def so() -> bool:
        assert watched.read()
        return watched.absences == set(absences)

    wait_for(so, f"{absences}")


def test_a_lock_another_users_turn_and_sleep_are_told(bus: str):
    login = Login(bus, {"2": "wayland"})
    seat = Seat({"XDG_SESSION_ID": "2"})
    told(seat)
    login.tell("2", LockedHint=True)
    told(seat, Absence.LOCKED)
    login.tell("2", Active=False)
    told(seat, Absence.LOCKED, Absence.ANOTHER)
    login.tell("2", LockedHint=False, Active=True)
    told(seat)
    login.sleep(True)
    told(seat, Absence.ASLEEP)
    login.sleep(False)
    told(seat)
    seat.close()


def test_how_things_stand_at_the_start_is_asked(bus: str):
    login = Login(bus, {"2": "x11"})
    login.tell("2", LockedHint=True)
    seat = Seat({"XDG_SESSION_ID": "2"})
    assert seat.absences == {Absence.LOCKED}
    seat.close()


@pytest.mark.parametrize(("own", "display"), [("4", "2"), ("", "2"), ("9", "2")])
def test_the_session_with_the_windows_counts(bus: str, own: str, display: str):
    """A service may be started from a terminal of another login, from none, or from one that has ended."""
    login = Login(bus, {"2": "x11", "4": "tty"}, display)
    seat = Seat({"XDG_SESSION_ID": own})
    login.tell("4", Active=False, LockedHint=True)
    login.tell("2", LockedHint=True)
    told(seat, Absence.LOCKED)
    login.tell("2", LockedHint=False)
    told(seat)
    seat.close()


def test_without_a_session_with_windows_nobody_elses_turn_counts(bus: str):
    """Where X was started from a text console, logind knows of that console alone."""
    login = Login(bus, {"1": "tty"})
    seat = Seat({"XDG_SESSION_ID": "1"})
    login.tell("1", Active=False)
    login.tell("1", LockedHint=True)
    told(seat, Absence.LOCKED)
    seat.close()


def test_a_locker_that_tells_the_session_bus_is_heard_and_one_that_ends_keeps_nothing_locked(bus: str):
    locker = Locker(bus, "org.mate.ScreenSaver", on=True)
    watched = LockerBus()
    assert watched.absences == {Absence.LOCKED}
    locker.babble()
    locker.lock(False)
    told(watched)
    locker.lock(True)
    told(watched, Absence.LOCKED)
    locker.leave()
    told(watched)
    watched.close()


def test_without_a_bus_and_without_logind_nothing_is_told(bus: str, monkeypatch: pytest.MonkeyPatch):
    found = open_all()
    assert [type(each) for each in found] == [LockerBus]
    found[0].close()
    for which in ("SYSTEM", "SESSION"):
        monkeypatch.setenv(f"DBUS_{which}_BUS_ADDRESS", "unix:path=/nowhere")
    assert open_all() == []


def test_a_locker_that_tells_nobody_is_seen_by_its_process(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    locker = tmp_path / "swaylock"
    shutil.copy("/bin/sleep", locker)
    monkeypatch.setenv("PATH", f"{tmp_path}:{os.environ['PATH']}")
    service = LoadedService(tmp_path / "home", "--backend", "stand-in")
    try:
        assert not service.status().warning
        for _ in range(2):
            running = subprocess.Popen([locker, "60"])
            service.hear(lambda: "the screen is locked" in service.status().warning, "the lock")
            running.terminate()
            running.wait(LIMIT_S)
            service.hear(lambda: not service.status().warning, "its end")
    finally:
        service.end(signal.SIGTERM)


def test_while_the_screen_is_locked_nothing_is_played_or_recorded_and_then_all_is_as_before(bus: str, tmp_path: Path):
    login = Login(bus, {"2": "wayland"})
    service = LoadedService(tmp_path / "home", "--backend", "stand-in", XDG_SESSION_ID="2")
    try:
        service.call(m.PutMacro(HOLD))
        setups = (SetUp("Main", {"BTN_SIDE": RunMacro("hold")}),)
        service.call(m.PutProfile(Profile(id=EVERYDAY, name="Everyday", setups=setups)))
        mouse = next(device.id for device in service.devices() if "BTN_SIDE" in device.controls)

        def press() -> None:
            for value in (1, 0):
                service.call(m.PressStandIn(mouse, "BTN_SIDE", value))

        press()
        service.hear(lambda: service.status().running, "the macro")
        login.tell("2", LockedHint=True)
        service.hear(lambda: not service.status().running, "its end")
        service.hear(lambda: service.seen("hold")[-1:] == [("KEY_W", 0)], "its key up")
        assert "the screen is locked" in service.status().warning
        press()
        for body in (m.Play_("hold"), m.TypeText("hello"), m.StartRecording()):
            with pytest.raises(ServiceRefused, match="the screen is locked, so nothing is played or recorded"):
                service.call(body)
        assert not service.status().running
        login.tell("2", LockedHint=False)
        service.hear(lambda: not service.status().warning, "the end of the lock")
        # Its answer comes once the sheet is played by.
        service.call(m.UseSetUp(EVERYDAY, "Main"))
        press()
        service.hear(lambda: service.status().running, "the macro again")
        # What was pressed meanwhile is nobody's business: it may be a password.
        service.hear(lambda: len(service.seen("in")) >= 4, "both presses")
        assert service.seen("in") == [("BTN_SIDE", 1), ("BTN_SIDE", 0)] * 2
        service.call(m.Stop())
        service.call(m.StartRecording())
        login.tell("2", Active=False)
        service.hear(lambda: not service.status().recording, "the end of the recording")
        assert "somebody else" in service.status().warning
    finally:
        service.end(signal.SIGTERM)
