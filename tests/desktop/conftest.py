"""A session of its own: an X server, a bus with the names that desktops have there, and a user's folders."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest

from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.desktop.places import Places
from nakrel.protocol import Shutdown
from nakrel.storage.home import Home
from tests.desktop.panel import Panel
from tests.support import LIMIT_S, XServer, start_bus, wait_for


class User:
    """Somebody with folders of their own, who logs in."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.environment = {
            name: value
            for name, value in os.environ.items()
            if name not in ("NAKREL_HOME", "DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM", "DBUS_SESSION_BUS_ADDRESS")
        }
        run = folder / "run"
        run.mkdir(mode=0o700, parents=True)
        for name, place in (("CONFIG", ".config"), ("STATE", ".local/state"), ("DATA", ".local/share")):
            self.environment[f"XDG_{name}_HOME"] = str(folder / place)
        self.environment |= {"HOME": str(folder), "XDG_RUNTIME_DIR": str(run), "NAKREL_AS_ROOT": "1"}
        self.places = Places(
            folder / ".local/bin", folder / ".local/share", folder / ".config", folder / ".local/state/nakrel"
        )
        state = folder / ".local/state/nakrel"
        self.home = Home(folder / ".config/nakrel", state, run / "nakrel")

    def nakrel(self, *arguments: str, code: int = 0) -> str:
        """What a command says; it has to end with this code."""
        command = [sys.executable, "-m", "nakrel", *arguments]
        done = subprocess.run(command, env=self.environment, capture_output=True, text=True, timeout=60)
        assert done.returncode == code, done.stdout + done.stderr
        return done.stdout + done.stderr

    def files(self) -> set[str]:
        """All files below the user's folder, by their path there."""
        return {str(path.relative_to(self.folder)) for path in self.folder.rglob("*") if not path.is_dir()}

    def end(self) -> None:
        """End the service, if one runs."""
        try:
            connection = ServiceConnection.connect(self.home.socket, "test")
        except ClientError:
            return
        connection.call(Shutdown())
        connection.close()
        wait_for(lambda: not self.home.socket.exists(), "the service's end")


@pytest.fixture
def user(tmp_path: Path) -> Iterator[User]:
    found = User(tmp_path / "user")
    yield found
    found.end()


class Session(User):
    """The user's desktop: X, a bus, and a panel with a tray and notices."""

    def __init__(self, folder: Path, server: XServer) -> None:
        super().__init__(folder)
        self.server = server
        self.environment |= {
            "DISPLAY": server.display,
            "QT_QPA_PLATFORM": "xcb",
            "NAKREL_X11_INJECTOR": "xtest",
            # The icon's menu is offered on the bus where the desktop is one that has that.
            "XDG_CURRENT_DESKTOP": "KDE",
            "QT_QPA_PLATFORMTHEME": "",
        }
        address = f"unix:path={folder / 'run' / 'bus'}"
        # What the bus starts gets the session's environment from it.
        self.bus = start_bus(address, self.environment)
        self.environment["DBUS_SESSION_BUS_ADDRESS"] = address
        self.panel = Panel(address)
        self._started: list[subprocess.Popen[bytes]] = []
        self._clients: list[ServiceConnection] = []

    def connect(self) -> ServiceConnection:
        """A client of the session's service, while the test goes on."""
        self._clients.append(ServiceConnection.connect(self.home.socket, "test"))
        return self._clients[-1]

    def start(self, *arguments: str) -> subprocess.Popen[bytes]:
        """Start a command and let it run."""
        command = [sys.executable, "-m", "nakrel", *arguments]
        with open(self.folder / "window.out", "ab") as log:
            process = subprocess.Popen(command, env=self.environment, stdout=log, stderr=log)
        self._started.append(process)
        return process

    def windows(self) -> list[str]:
        """The visible windows that are called Nakrel."""
        command = ["xdotool", "search", "--onlyvisible", "--name", "^Nakrel$"]
        done = subprocess.run(command, env=self.environment, capture_output=True, text=True)
        return done.stdout.split()

    def active(self) -> str:
        """The name of the window in front."""
        command = ["xdotool", "getactivewindow", "getwindowname"]
        done = subprocess.run(command, env=self.environment, capture_output=True, text=True)
        return done.stdout.strip()

    def end(self) -> None:
        # pytest shows it beside a test that failed.
        if (log := self.folder / "window.out").exists():
            sys.stdout.write(log.read_text())
        for client in self._clients:
            client.close()
        for process in self._started:
            if process.poll() is None:
                # Where coverage is measured, its own handler keeps SIGTERM waiting while Qt waits for events.
                process.kill()
                process.wait(LIMIT_S)
        super().end()
        os.killpg(self.bus.pid, signal.SIGTERM)
        self.bus.wait(LIMIT_S)
        self.panel.close()


@pytest.fixture
def session(tmp_path: Path) -> Iterator[Session]:
    missing = XServer.missing() or ("" if shutil.which("dbus-daemon") else "dbus-daemon")
    if missing:
        pytest.skip(f"needs {missing}")
    server = XServer()
    found = Session(tmp_path / "user", server)
    try:
        yield found
    finally:
        found.end()
        server.end_server()
