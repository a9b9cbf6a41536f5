"""The start at login: by systemd where it starts sessions, else by the desktop's autostart."""

from __future__ import annotations

import os
import socket
import stat
import subprocess
import sys
from pathlib import Path

import pytest

from nakrel.desktop import login
from nakrel.desktop.names import APP_ID
from nakrel.service.login_session import LoginSession
from nakrel.service.loop import Loop
from nakrel.service.worker import Worker
from tests.desktop.conftest import Session, User
from tests.support import LIMIT_S, wait_for


def with_systemd(user: User, active: bool, monkeypatch: pytest.MonkeyPatch) -> Path:
    """A session in which systemd says whether it started it, and notes what it is told."""
    log = user.folder / "systemctl.log"
    folder = user.folder / "tools"
    folder.mkdir()
    fake = folder / "systemctl"
    fake.write_text(f'#!/bin/sh\necho "$@" >> {log}\n[ "$2" != is-active ] || exit {0 if active else 3}\n')
    fake.chmod(0o755)
    monkeypatch.setenv("PATH", f"{folder}:{os.environ['PATH']}")
    monkeypatch.setenv("XDG_RUNTIME_DIR", str(user.folder / "run"))
    return log


def test_a_session_of_systemds_gets_a_unit(user: User, monkeypatch: pytest.MonkeyPatch):
    log = with_systemd(user, True, monkeypatch)
    assert login.turn_on(user.places, ["/opt/place with spaces/nakrel"]) == "systemd"
    unit = user.places.config / "systemd/user/nakrel.service"
    assert "ExecStart='/opt/place with spaces/nakrel' service --with-session" in unit.read_text()
    wanted = user.places.config / "systemd/user/graphical-session.target.wants/nakrel.service"
    assert wanted.resolve() == unit.resolve()
    assert login.is_on(user.places)
    assert log.read_text().splitlines()[-1] == "--user daemon-reload"
    login.turn_off(user.places)
    assert not login.is_on(user.places)
    assert not unit.exists()


def test_any_other_session_gets_an_autostart_entry(user: User, monkeypatch: pytest.MonkeyPatch):
    with_systemd(user, False, monkeypatch)
    assert login.turn_on(user.places, ["/opt/nakrel"]) == "autostart"
    entry = user.places.config / "autostart" / f"{APP_ID}.desktop"
    assert "Exec=/opt/nakrel service --with-session" in entry.read_text()
    assert login.is_on(user.places)
    login.turn_off(user.places)
    assert not entry.exists()


def test_what_the_autostart_entry_starts_plays_macros_without_a_window(session: Session):
    """The entry is read as desktops read it; then a macro plays."""
    session.nakrel("login", "on")
    entry = session.places.config / "autostart" / f"{APP_ID}.desktop"
    command = next(line for line in entry.read_text().splitlines() if line.startswith("Exec=")).removeprefix("Exec=")
    process = subprocess.Popen(["/bin/sh", "-c", f"exec {command}"], env=session.environment)
    try:
        wait_for(session.home.socket.exists, "the service")
        assert not session.windows()
        macro = session.folder / "taps.csv"
        macro.write_text("time_us,control,value\n0,KEY_F13,1\n20000,KEY_F13,0\n")
        session.nakrel("import", str(macro), "--name", "Taps")
        session.nakrel("play", "Taps")
        wait_for(lambda: "KEY_F13" in session.nakrel("last-run", "Taps", "--as", "csv"), "its run")
    finally:
        process.terminate()
        assert process.wait(LIMIT_S) == 0


def test_systemd_is_told_that_the_service_is_ready_and_turns(user: User, tmp_path: Path):
    """sd_notify(3): datagrams to $NOTIFY_SOCKET."""
    address = tmp_path / "notify"
    with socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM) as told:
        told.bind(str(address))
        told.settimeout(LIMIT_S)
        environment = {**user.environment, "NOTIFY_SOCKET": str(address), "WATCHDOG_USEC": "200000"}
        command = [sys.executable, "-m", "nakrel", "service", "--backend", "stand-in"]
        process = subprocess.Popen(command, env=environment)
        heard = [told.recv(100) for _ in range(4)]
        assert heard[0] == b"READY=1"
        assert set(heard[1:]) == {b"WATCHDOG=1"}
        process.terminate()
        while heard[-1] == b"WATCHDOG=1":
            heard.append(told.recv(100))
        assert heard[-1] == b"STOPPING=1"
        assert process.wait(LIMIT_S) == 0


def test_the_log_goes_to_the_journal_under_systemd_and_is_cut_elsewhere(user: User):
    read_fd, write_fd = os.pipe()
    found = os.fstat(write_fd)
    environment = {**user.environment, "JOURNAL_STREAM": f"{found.st_dev}:{found.st_ino}"}
    command = [sys.executable, "-c", (
        "import logging, pathlib, sys; from nakrel.service.logs import start_logging; "
        "start_logging(pathlib.Path(sys.argv[1])); [logging.info('x' * 1000) for _ in range(int(sys.argv[2]))]"
    )]  # fmt: skip
    path = user.folder / "service.log"
    subprocess.run([*command, str(path), "1"], env=environment, stderr=write_fd, check=True)
    os.close(write_fd)
    with os.fdopen(read_fd) as journal:
        assert journal.read().strip() == "INFO " + "x" * 1000
    assert not path.exists()
    subprocess.run([*command, str(path), "2500"], env=user.environment, check=True)
    assert path.stat().st_size < 1_001_000
    assert {each.name for each in user.folder.glob("service.log*")} == {"service.log", "service.log.1"}
    assert stat.S_IMODE(path.stat().st_mode) == 0o600


def test_it_ends_with_its_session_and_one_of_an_earlier_login_makes_room(user: User, tmp_path: Path):
    environment = {**user.environment, "XDG_SESSION_ID": "c1"}
    command = [sys.executable, "-m", "nakrel", "service", "--backend", "stand-in", "--with-session"]
    first = subprocess.Popen(command, env=environment)
    wait_for(user.home.socket.exists, "the first service")
    # The same login's: it stays, and the second one says so.
    assert subprocess.run(command, env=environment, capture_output=True).returncode == 3
    second = subprocess.Popen(command, env={**environment, "XDG_SESSION_ID": "c2"})
    try:
        assert first.wait(LIMIT_S) == 0
        wait_for(lambda: user.home.lock.read_text() == str(second.pid), "the second service")
        second.terminate()
        assert second.wait(LIMIT_S) == 0
    finally:
        second.kill()
        second.wait()


@pytest.mark.parametrize("known", [True, False])
def test_the_end_of_the_session_is_seen(tmp_path: Path, monkeypatch: pytest.MonkeyPatch, known: bool):
    """By logind's file where there is one, else by the display, which may be away for a moment."""
    display = socket.socket(socket.AF_UNIX)
    display.bind(str(tmp_path / "wayland-9"))
    display.listen()
    monkeypatch.setattr("nakrel.service.login_session._SESSIONS", tmp_path)
    monkeypatch.setenv("XDG_SESSION_ID", "c7")
    monkeypatch.setenv("XDG_RUNTIME_DIR", str(tmp_path))
    monkeypatch.delenv("DISPLAY", raising=False)
    monkeypatch.setenv("WAYLAND_DISPLAY", "wayland-9")
    if known:
        (tmp_path / "c7").touch()
    loop = Loop(lambda error: None)
    worker = Worker(loop, "worker")
    looks: list[bool] = []
    session = LoginSession(loop, worker, loop.stop, 20_000)
    real = session._goes_on

    def look() -> bool:
        looks.append(real())
        if len(looks) == 3:
            # It ends.
            display.close()
            (tmp_path / "c7").unlink(missing_ok=True)
        return looks[-1]

    session._goes_on = look
    session.watch()
    loop.run()
    assert looks == [True, True, True, False, False]
    worker.close()
    loop.close()
    display.close()
