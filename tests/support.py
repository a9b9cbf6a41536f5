"""What tests share beyond fixtures: waiting for a condition, a service process, and an X server of their own."""

from __future__ import annotations

import contextlib
import itertools
import json
import os
import select
import shutil
import signal
import statistics
import subprocess
import sys
import time
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any, TypeVar

import msgspec

from nakrel import protocol as m
from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.core.model.devices import Device
from nakrel.storage.home import Home

T = TypeVar("T")
# A machine under emulation is slow.
LIMIT_S = float(os.environ.get("NAKREL_TEST_LIMIT_S", "15"))
# How long it is until the next look whether a condition holds, at first and at most: each look takes time from what is
# waited for, and a slow machine has little.
_FIRST_LOOK_S, _LOOK_S = 0.001, LIMIT_S / 1_500


def wait_for(condition: Callable[[], T], what: str, limit_s: float = LIMIT_S) -> T:
    """The first true value of the condition; fails the test with `what` when none comes within the limit."""
    began = time.monotonic()
    while not (value := condition()):
        waited = time.monotonic() - began
        if waited > limit_s:
            raise AssertionError(f"waited {limit_s:g} s in vain for {what}")
        pause(min(_FIRST_LOOK_S + waited / 4, _LOOK_S))
    return value


def pause(seconds: float) -> None:
    """Let time pass that is part of what's tested (how long a finger holds a button), not a wait for something."""
    select.select([], [], [], seconds)


def start_bus(address: str, environment: dict[str, str] | None = None) -> subprocess.Popen[bytes]:
    """A session bus in a process group of its own, once it accepts connections: its socket's file is there before."""
    told, tells = os.pipe()
    command = ["dbus-daemon", "--session", "--nofork", f"--print-address={tells}", f"--address={address}"]
    quiet = subprocess.DEVNULL
    bus = subprocess.Popen(
        command, env=environment, stdout=quiet, stderr=quiet, pass_fds=(tells,), start_new_session=True
    )
    os.close(tells)
    with open(told, "rb") as said:
        ready, _, _ = select.select([said], [], [], LIMIT_S)
        assert ready, "the bus said nothing"
        assert said.readline(), "the bus didn't start"
    return bus


# What starts the service.
PROGRAM = ("-m", "nakrel.service")


class ServiceProcess:
    """A service of its own process, with a client that keeps every notice."""

    def __init__(
        self,
        home: Path,
        *options: str,
        program: tuple[str, ...] = PROGRAM,
        own_group: bool = False,
        **environment: str,
    ) -> None:
        self.home = Home.find(home)
        self.folder, self.environment = home, environment
        self._program, self._own_group = program, own_group
        self.process = self._begin(["--home", str(home), *options], {**os.environ, **environment})
        self.notices: list[m.Notice] = []
        client = wait_for(self._connect, "the service's socket")
        assert client
        self.client: ServiceConnection = client
        self.client.on_notice = self.notices.append
        self.client.call(m.Subscribe(seen=True))

    def _begin(self, arguments: list[str], environment: dict[str, str]) -> subprocess.Popen[bytes]:
        command = [sys.executable, *self._program, *arguments]
        return subprocess.Popen(command, env=environment, process_group=0 if self._own_group else None)

    def _connect(self) -> ServiceConnection | None:
        with contextlib.suppress(ClientError):
            return ServiceConnection.connect(self.home.socket, "test")
        return None

    @staticmethod
    def another(service: ServiceProcess) -> ServiceConnection:
        """Another client of the same service."""
        return ServiceConnection.connect(service.home.socket, "another test")

    def call(self, body: m.Body) -> m.AnswerBody:
        return self.client.call(body)

    def status(self) -> m.Status:
        answer = self.call(m.GetStatus())
        assert isinstance(answer, m.StatusIs)
        return answer.status

    def devices(self) -> tuple[Device, ...]:
        answer = self.call(m.GetDevices())
        assert isinstance(answer, m.Devices)
        return answer.devices

    def hear(self, condition: Callable[[], T], what: str, limit_s: float = LIMIT_S) -> T:
        """Take notices until the condition holds."""

        def heard() -> T:
            while select.select([self.client], [], [], 0)[0]:
                self.client.receive()
            return condition()

        return wait_for(heard, what, limit_s)

    def seen(self, by: str) -> list[tuple[str, int]]:
        """Every event noticed so far, of fingers ('in') or of one macro."""
        found = [event for notice in self.notices if isinstance(notice, m.Seen) for event in notice.events]
        return [(event.control, event.value) for event in found if event.by == by]

    def tell(self) -> None:
        """Print what the service knows: pytest shows it beside a test that failed."""
        with contextlib.suppress(ClientError):
            for body in (m.GetStatus(), m.GetJournal()):
                sys.stdout.write(f"{msgspec.json.encode(self.call(body)).decode()}\n")
            sys.stdout.write(f"{[event for n in self.notices if isinstance(n, m.Seen) for event in n.events][-60:]}\n")

    def end(self, number: int = signal.SIGTERM) -> int:
        """Send a signal and wait for the end; returns the exit code."""
        self.client.close()
        if self.process.poll() is None:
            self.process.send_signal(number)
        code = self.process.wait(LIMIT_S)
        # Whatever a test is about, the service has nothing unexpected to tell its developers.
        said = [line for line in self.home.log.read_text().splitlines() if " ERROR " in line or " WARNING " in line]
        assert not said, self.home.log.read_text()
        return code


class XServer:
    """Xvfb with a window manager on a free display, and a hand from outside (xdotool)."""

    NEEDED = ("Xvfb", "openbox", "xdotool")

    def __init__(self, display: str = "") -> None:
        read_fd, write_fd = os.pipe()
        self._wanted = [display] if display else []
        self._server = subprocess.Popen(
            self._command(write_fd), pass_fds=[write_fd], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL
        )
        os.close(write_fd)
        with os.fdopen(read_fd) as pipe:
            self.display = f":{pipe.readline().strip()}"
        self.environment = {
            **os.environ,
            "DISPLAY": self.display,
            "QT_QPA_PLATFORM": "xcb",
            "NAKREL_X11_INJECTOR": "xtest",
        }
        self._manager = subprocess.Popen(
            ["openbox"], env=self.environment, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL
        )
        try:
            wait_for(self._managed, "the window manager")
        except BaseException:
            self.end_server()
            raise

    def _command(self, display_fd: int) -> list[str]:
        # Without -noreset the server starts over when its last client leaves, and refuses one that comes just then.
        return [
            "Xvfb",
            *self._wanted,
            "-displayfd",
            str(display_fd),
            "-screen",
            "0",
            "1400x900x24",
            "-nolisten",
            "tcp",
            "-noreset",
        ]

    def _managed(self) -> bool:
        # It says who it is before it looks after windows; the list of those comes last.
        names = ("_NET_SUPPORTING_WM_CHECK", "_NET_CLIENT_LIST")
        found = subprocess.run(["xprop", "-root", *names], env=self.environment, capture_output=True, text=True)
        return "_NET_SUPPORTING_WM_CHECK(WINDOW)" in found.stdout and "_NET_CLIENT_LIST(WINDOW)" in found.stdout

    @property
    def pid(self) -> int:
        """The server's process."""
        return self._server.pid

    def injector(self, *arguments: str) -> str:
        """Move, press or let go, as xdotool's arguments say."""
        return subprocess.run(
            ["xdotool", *arguments], env=self.environment, check=True, capture_output=True, text=True
        ).stdout

    def end_server(self) -> None:
        """Take the X server away."""
        if self._manager.poll() is None:
            # It may miss a signal that comes just before it goes to sleep.
            self._manager.kill()
            self._manager.wait(LIMIT_S)
        if self._server.poll() is None:
            self._server.terminate()
            self._server.wait(LIMIT_S)

    @classmethod
    def missing(cls) -> str:
        """The programs that aren't installed."""
        return ", ".join(name for name in cls.NEEDED if not shutil.which(name))


# What the practice game's process is called in these tests: others that run beside them have games of their own, and
# whether a program runs goes by its name.
GAME = f"game-{os.getpid():07}"


def practice_command(
    log: Path, fps: int = 125, name: str = "", title: str = "Practice game", options: Sequence[str] = ()
) -> list[str]:
    """The command that starts the practice game, under a process name of its own where one is given."""
    named = [*(["--name", name] if name else []), *options]
    return [sys.executable, "-m", "nakrel.practice", "--fps", str(fps), "--log", str(log), "--title", title, *named]


class PracticeGame:
    """The practice game as a process; its log is the witness."""

    def __init__(
        self, server: XServer, folder: Path, fps: int = 125, name: str = "", options: Sequence[str] = ()
    ) -> None:
        self.title = f"The {name}" if name else "Practice game"
        self.log = folder / f"practice-{time.monotonic_ns()}.log"
        self.process = subprocess.Popen(
            practice_command(self.log, fps, name or GAME, self.title, options),
            env=server.environment,
        )
        wait_for(lambda: self.log.exists() and self.entries(), "the practice game's log")
        self.window = wait_for(lambda: self._find(server), "the practice game's window").split()[-1]
        server.injector("windowmove", "--sync", self.window, "600", "330")
        server.injector("windowactivate", "--sync", self.window)

    def _find(self, server: XServer) -> str:
        with contextlib.suppress(subprocess.CalledProcessError):
            return server.injector("search", "--onlyvisible", "--name", f"^{self.title}$")
        return ""

    def entries(self) -> list[dict[str, Any]]:
        """Everything in the log; a line that is being written is left for the next time."""
        lines = self.log.read_text().split("\n")[:-1]
        return [json.loads(line) for line in lines]

    def presses(self, control: str) -> list[float]:
        """When frames saw presses of the control, in seconds."""
        return [e["t"] for e in self.entries() if e["event"] == "press" and e["control"] == control]

    def arrivals(self, control: str) -> int:
        """How many presses of the control arrived, seen by a frame or not; a busy machine may skip frames."""
        return sum(e["event"] == "arrived" and e["control"] == control and e["down"] for e in self.entries())

    def down(self) -> set[str]:
        """What is down now, from what arrived."""
        down: set[str] = set()
        for entry in self.entries():
            if entry["event"] == "focus lost":
                down.clear()
            elif entry["event"] == "arrived":
                (down.add if entry["down"] else down.discard)(entry["control"])
        return down

    def end(self) -> None:
        """Close the game."""
        if self.process.poll() is None:
            self.process.terminate()
            self.process.wait(LIMIT_S)


class SdlGame:
    """A game made with SDL as a process (`sdl_game.py`); its log is the witness."""

    def __init__(self, server: XServer, folder: Path) -> None:
        self.log = folder / "sdl.log"
        self.process = subprocess.Popen(
            [sys.executable, str(Path(__file__).with_name("sdl_game.py")), GAME, self.log], env=server.environment
        )
        wait_for(lambda: self.log.exists() and self.entries("focus"), "the game in front", 60)

    def entries(self, *kinds: str) -> list[dict[str, Any]]:
        """What it was told of these kinds; a line that is being written is left for the next time."""
        lines = map(json.loads, self.log.read_text().split("\n")[:-1])
        return [entry for entry in lines if any(kind in entry for kind in kinds)]

    def edges(self) -> list[tuple[int, bool]]:
        """The keys and buttons that went down or up."""
        return [(e["key" if "key" in e else "button"], e["down"]) for e in self.entries("key", "button")]

    def moved(self) -> tuple[int, int]:
        """How far the mouse has gone to the right, and down."""
        ways = [e["moved"] for e in self.entries("moved")]
        return sum(way[0] for way in ways), sum(way[1] for way in ways)

    def end(self) -> None:
        """Close the game."""
        self.process.kill()
        self.process.wait(LIMIT_S)


def assert_rate(times_s: list[float], cycle_s: float) -> None:
    """Check that presses came one a cycle: half of the gaps to within a tenth of it, and never more in all.

    A machine that stands still for a moment makes single gaps longer, and a game's frame clock moves each sight.
    """
    gaps = [after - before for before, after in itertools.pairwise(times_s)]
    assert len(gaps) >= 8
    assert abs(statistics.median(gaps) - cycle_s) <= cycle_s / 10, gaps
    assert len(gaps) <= (times_s[-1] - times_s[0]) / cycle_s + 1.5
