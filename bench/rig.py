"""A service in a child process between two pipes: the device's and the output's."""

from __future__ import annotations

import os
import select
import signal
import struct
import subprocess
import tempfile
import time
from collections.abc import Sequence
from pathlib import Path

from nakrel.backends.standin.devices import StandInDevices
from nakrel.core.model.cells import Cell, RunMacro
from nakrel.core.model.controls import CONTROLS
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from nakrel.core.play.events import Emit
from nakrel.service.options import Options
from nakrel.service.service import Service
from nakrel.service.start import tune
from nakrel.storage.home import Home
from nakrel.storage.library import Library

OUT = struct.Struct("=qqB6x")
IN = struct.Struct("=BHiq")
CODES = sorted(CONTROLS)


class PipeSink:
    """Output that is written to a pipe: when each event was due and when it came (ns), and its value."""

    name = "standin"
    note = ""
    moves_by_pixels = True

    def __init__(self, fd: int) -> None:
        self._fd = fd

    def emit(self, events: Sequence[Emit]) -> None:
        now = time.monotonic_ns()
        os.write(self._fd, b"".join(OUT.pack(event.due_us * 1_000, now, event.value) for event in events))

    def move_by(self, dx: int, dy: int) -> None:
        """Nothing here moves the pointer."""

    def move_to(self, x: int, y: int, width: int, height: int) -> None:
        """Nothing here moves the pointer."""

    def close(self) -> None:
        os.close(self._fd)


class Rig:
    """The service runs with these macros on the thumb buttons until `end`."""

    def __init__(self, *macros: Macro) -> None:
        self._folder = tempfile.TemporaryDirectory()
        home = Home.find(self._folder.name)
        self._fill(home, macros)
        out_fd, child_out = os.pipe()
        ready_fd, child_ready = os.pipe()
        hand_fd, child_hand = os.pipe2(os.O_NONBLOCK)
        os.set_blocking(hand_fd, False)
        self.pid = os.fork()
        if self.pid == 0:
            try:
                self._serve(home, child_out, hand_fd, child_ready)
            finally:
                os._exit(0)
        os.close(child_out)
        os.close(child_ready)
        os.read(ready_fd, 1)
        os.close(ready_fd)
        self.out_fd, self._hand = out_fd, child_hand
        os.set_blocking(out_fd, False)

    @staticmethod
    def _fill(home: Home, macros: Sequence[Macro]) -> None:
        library = Library(home)
        buttons = [c for c in CODES if c.startswith(("BTN_TRIGGER", "KEY_F"))]
        cells: dict[str, Cell] = {code: RunMacro(macro.id) for code, macro in zip(buttons, macros, strict=False)}
        for macro in macros:
            library.put_macro(macro)
        library.put_profile(Profile(id=EVERYDAY, name="Everyday", setups=(SetUp("Main", cells),)))

    @staticmethod
    def _serve(home: Home, out_fd: int, hand_fd: int, ready_fd: int) -> None:
        home.runtime.mkdir(parents=True, exist_ok=True)
        service = Service(home, Options("stand-in"), PipeSink(out_fd))
        stand_ins = service.routes.stand_ins
        assert isinstance(stand_ins, StandInDevices)
        # The loop knows the descriptor that was there, and not its number alone.
        service.loop.forget(stand_ins)
        os.dup2(hand_fd, stand_ins.fileno())
        os.set_blocking(stand_ins.fileno(), False)
        service.loop.watch(stand_ins, lambda: service.routes.read(stand_ins))
        service.serve(home, lambda connection, number, body: None)
        tune()
        signal.signal(signal.SIGTERM, lambda *_: service.loop.stop())
        signal.set_wakeup_fd(os.open(os.devnull, os.O_WRONLY | os.O_NONBLOCK))
        service.loop.at("ready", 0, lambda: os.write(ready_fd, b"."))
        service.run()

    def press(self, control: str, value: int) -> int:
        """One edge by the simulated finger; returns when it was made, in ns."""
        now = time.monotonic_ns()
        os.write(self._hand, IN.pack(0, CODES.index(control), value, now // 1_000))
        return now

    def read(self, limit_s: float = 1.0) -> list[tuple[int, int, int]]:
        """What has come out by now, waiting for the first of it: due and came (ns), value."""
        if not select.select([self.out_fd], [], [], limit_s)[0]:
            return []
        return list(OUT.iter_unpack(os.read(self.out_fd, OUT.size * 2_000)))

    def buttons(self, count: int) -> list[str]:
        """The controls that the macros are on."""
        return [c for c in CODES if c.startswith(("BTN_TRIGGER", "KEY_F"))][:count]

    def end(self) -> None:
        """End the service."""
        os.kill(self.pid, signal.SIGTERM)
        # The loop sleeps until something happens: a release that nobody minds.
        self.press("KEY_Q", 0)
        self.press("KEY_Q", 1)
        os.close(self._hand)
        while os.waitpid(self.pid, os.WNOHANG)[0] == 0:
            self.read(0.01)
        os.close(self.out_fd)
        self._folder.cleanup()


def build_reference() -> Path:
    """Compile the C reference; returns the program."""
    target = Path(tempfile.gettempdir()) / f"nakrel-bench-reference-{os.getuid()}"
    source = Path(__file__).with_name("reference.c")
    subprocess.run(["cc", "-O2", "-o", str(target), str(source)], check=True)
    return target
