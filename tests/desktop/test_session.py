"""A real session bus: one window, the tray, the menu entry's actions, and what the desktop starts."""

from __future__ import annotations

import shutil
import subprocess

import pytest

from nakrel import protocol as m
from nakrel.client.connection import ServiceConnection
from nakrel.core.edit.bundle import bundle_of
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import Profile
from nakrel.core.model.steps import Tap
from nakrel.desktop.names import APP_ID, BUS_PATH
from nakrel.storage.bundles import write_bundle
from tests.desktop.conftest import Session
from tests.support import LIMIT_S, wait_for

APPLICATION = "org.freedesktop.Application"
REEL = Macro(id="reel", name="Reel in", play=Play(Mode.TOGGLE), loop=(Tap(control="KEY_F13", hold_us=20_000),))


def status(client: ServiceConnection) -> m.Status:
    answer = client.call(m.GetStatus())
    assert isinstance(answer, m.StatusIs)
    return answer.status


def open_window(session: Session) -> subprocess.Popen[bytes]:
    process = session.start("window")
    wait_for(session.windows, "the window")
    return process


def test_a_second_start_brings_the_first_window_to_the_front(session: Session):
    open_window(session)
    before = session.windows()
    session.server.injector("search", "--onlyvisible", "--name", "^Nakrel$", "windowminimize")
    wait_for(lambda: not session.windows(), "the window to be minimized")
    assert "open already" in session.nakrel("window")
    wait_for(lambda: session.active() == "Nakrel", "the window in front")
    assert session.windows() == before


def test_a_second_start_hands_a_profile_file_over(session: Session):
    open_window(session)
    file = session.folder / "Kiln.nakrel.zip"
    write_bundle(file, bundle_of([Profile(id="kiln", name="Kiln Race")], {}))
    session.nakrel("window", str(file))
    look = "Look inside Kiln.nakrel.zip"
    found = lambda: session.active()  # noqa: E731
    wait_for(lambda: "Kiln.nakrel.zip" in found(), f"{look}, not {found()}")


def test_the_tray_shows_what_runs_and_stops_it(session: Session):
    process = open_window(session)
    panel = session.panel
    wait_for(lambda: panel.items, "the icon")
    client = session.connect()
    # Coming to the front ends macros.
    wait_for(lambda: status(client).for_show, "the window to count as in front")
    assert panel.tooltip() == "Nakrel: Everyday is live, no macro runs"
    assert {"Everyday is live", "Load with games", "Keep Everyday live", "Open Nakrel"} <= set(panel.menu())
    pin = panel.menu()["Keep Everyday live"]
    client.call(m.PutMacro(REEL))
    client.call(m.Play_("reel"))
    wait_for(lambda: panel.tooltip() == "Nakrel: Everyday is live, Reel in runs", "the macro in the tip")
    panel.choose("Stop Reel in")
    wait_for(lambda: not status(client).running, "its end")
    wait_for(lambda: "Stop Reel in" not in panel.menu(), "its entry to go")
    # Whoever has the menu open clicks on the entry that was there.
    assert panel.menu()["Keep Everyday live"] == pin
    panel.choose("Keep Everyday live")
    wait_for(lambda: status(client).pinned == "everyday", "the pin")
    panel.choose("Load with games")
    wait_for(lambda: not status(client).pinned, "no pin")
    # The window's closing leaves all of it as it is, and that is said once.
    for _ in range(2):
        wait_for(lambda: session.active() == "Nakrel", "the window in front")
        # The window manager closes the window by it.
        session.server.injector("key", "alt+F4")
        wait_for(lambda: not session.windows(), "the window to be closed")
        assert process.poll() is None
        panel.choose("Open Nakrel")
        wait_for(session.windows, "the window")
    assert [summary for _, summary, *_ in panel.notices].count("Nakrel goes on here") == 1
    panel.choose("Quit, and end all macros")
    assert process.wait(LIMIT_S) == 0
    wait_for(lambda: not session.home.socket.exists(), "the service's end")


def test_actions_come_over_the_bus(session: Session):
    open_window(session)
    client, panel = session.connect(), session.panel
    call = lambda member, signature, *body: panel.call(APP_ID, BUS_PATH, APPLICATION, member, signature, *body)  # noqa: E731
    wait_for(lambda: session.active() == "Nakrel", "the window in front")
    client.call(m.PutMacro(REEL))
    client.call(m.Play_("reel"))
    call("ActivateAction", "sava{sv}", "stop-everything", [], {})
    wait_for(lambda: not status(client).running, "its end")
    call("ActivateAction", "sava{sv}", "no-loading", [], {})
    wait_for(lambda: status(client).pinned == "everyday", "the pin")
    call("ActivateAction", "sava{sv}", "load-with-games", [], {})
    wait_for(lambda: not status(client).pinned, "no pin")
    session.server.injector("search", "--onlyvisible", "--name", "^Nakrel$", "windowminimize")
    call("Activate", "a{sv}", {})
    wait_for(lambda: session.active() == "Nakrel", "the window in front again")


@pytest.mark.skipif(not shutil.which("gtk-launch"), reason="needs gtk-launch")
def test_the_menu_entry_starts_the_window_and_an_action_needs_none(session: Session):
    session.nakrel("install")
    subprocess.run(["gtk-launch", APP_ID], env=session.environment, check=True, capture_output=True)
    wait_for(session.windows, "the window")
    panel = session.panel
    wait_for(lambda: panel.items, "the icon")
    panel.choose("Quit, and end all macros")
    wait_for(lambda: not session.home.socket.exists(), "the service's end")
    wait_for(lambda: not panel.has(APP_ID), "its end")
    # The bus starts it for an action alone, and it goes again.
    panel.call(APP_ID, BUS_PATH, APPLICATION, "ActivateAction", "sava{sv}", "no-loading", [], {})
    client = wait_for(lambda: session.home.socket.exists() and session.connect(), "the service")
    wait_for(lambda: status(client).pinned == "everyday", "the pin")
    wait_for(lambda: not panel.has(APP_ID), "its end")
    assert not session.windows()


def test_a_window_whose_service_was_shut_down_says_so_and_follows_the_next_one(session: Session):
    process = open_window(session)
    panel = session.panel
    wait_for(lambda: panel.items, "the icon")
    assert "ended" in session.nakrel("shutdown")
    wait_for(lambda: "Start the service" in panel.menu(), "the offer")
    assert panel.tooltip() == "Nakrel: nothing is live, macros reach no program"
    assert not session.home.socket.exists()
    panel.choose("Start the service")
    wait_for(session.home.socket.exists, "the service")
    wait_for(lambda: "Everyday is live" in panel.menu(), "the menu")
    session.nakrel("shutdown")
    wait_for(lambda: "Start the service" in panel.menu(), "the offer again")
    # Somebody else starts it.
    session.nakrel("live")
    wait_for(lambda: "Everyday is live" in panel.menu(), "the menu again")
    assert process.poll() is None
