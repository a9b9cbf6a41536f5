"""The kernel backend between pipes: one stands for the mouse, one for its clone, one for the virtual keyboard."""

from __future__ import annotations

import os
import select
import signal
import struct
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterable, Mapping
from pathlib import Path
from typing import Final

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.backend import KernelBackend
from nakrel.backends.kernel.finder import Finder, Found
from nakrel.backends.kernel.nodes import READ_SIZE, Abilities
from nakrel.backends.protocols import Host
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.conditioning import Pointing
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, Profile, SetUp
from nakrel.core.model.settings import Settings
from nakrel.service.options import Options
from nakrel.service.requests import Requests
from nakrel.service.service import Service
from nakrel.service.start import tune
from nakrel.service.watchdog import Watchdog
from nakrel.storage.home import Home
from nakrel.storage.library import Library

__all__ = ["Devices", "ticks"]

# Of an event that macros emit: when it left, in ns, and its value.
_LEFT = struct.Struct("=qi")
_AS_IT_IS: Final = Pointing()
_NONE: Final[Mapping[str, int]] = {}
TRIGGER, TRIGGER_NUMBER = "BTN_SIDE", 0x113
_MOUSE = Abilities(
    (3, 0x1209, 0x12, 1),
    {abi.EV_KEY: frozenset(range(0x110, 0x118)), abi.EV_REL: frozenset({0, 1, abi.REL_WHEEL})},
    {},
)


class _Node:
    """An event node that is a pipe's reading end."""

    path, name, phys, uniq, abilities = "/dev/input/event0", "Pipe mouse", "pipe/input0", "", _MOUSE

    def __init__(self, fd: int) -> None:
        self.fd = fd

    def keys_down(self) -> set[int]:
        return set()

    def lights_on(self) -> set[int]:
        return set()

    def grab(self, on: bool) -> None:
        pass

    def attend(self, everything: bool) -> None:
        pass

    def read(self) -> bytes:
        try:
            return os.read(self.fd, READ_SIZE)
        except BlockingIOError:
            return b""

    def write(self, data: bytes) -> None:
        pass

    def close(self) -> None:
        os.close(self.fd)


class _Virtual:
    """A virtual device that is a pipe's writing end."""

    def __init__(self, abilities: Abilities, fd: int) -> None:
        self.abilities, self.fd = abilities, fd
        self.presses = 0

    @property
    def path(self) -> str:
        raise FileNotFoundError("a pipe has no event node")

    def write(self, data: bytes) -> None:
        os.write(self.fd, data)

    def read(self) -> bytes:
        return b""

    def close(self) -> None:
        os.close(self.fd)


class _Hands(_Virtual):
    """Tells of each event but the marks when it left, in nanoseconds, and its value."""

    def write(self, data: bytes) -> None:
        now = time.monotonic_ns()
        told = (_LEFT.pack(now, value) for *_, kind, _, value in abi.EVENT.iter_unpack(data) if kind != abi.EV_SYN)
        os.write(self.fd, b"".join(told))


class _Finder(Finder):
    def nodes(self) -> Iterable[Found]:
        return [Found(_Node.path)]


class Devices:
    """A service in a process of its own, with a macro on the pipe mouse's side button, which grabs the mouse.

    `mouse` takes the mouse's events, `clone` gives what passes, `came` what macros emit. `pointer` is what becomes of
    its motion, and `debounce` has by control the microseconds in which what bounces is dropped.
    """

    def __init__(
        self, macro: Macro, *others: Profile, pointer: Pointing = _AS_IT_IS, debounce: Mapping[str, int] = _NONE
    ) -> None:
        self._folder = tempfile.TemporaryDirectory()
        home = self.home = Home.find(self._folder.name)
        library = Library(home)
        library.put_macro(macro)
        setups = (SetUp("Main", {TRIGGER: RunMacro(macro.id)}),)
        library.put_profile(Profile(id=EVERYDAY, name="Everyday", setups=setups, pointer=pointer))
        if debounce:
            library.put_settings(Settings(debounce={_Node.name: dict(debounce)}))
        for profile in others:
            library.put_profile(profile)
        mouse_in, self.mouse = os.pipe2(os.O_NONBLOCK)
        os.set_blocking(self.mouse, True)
        self.clone, clone_out = os.pipe()
        self.hands, hands_out = os.pipe()
        self.pid = os.fork()
        if self.pid == 0:
            try:
                for ours in (self.mouse, self.clone, self.hands):
                    os.close(ours)
                _serve(home, mouse_in, clone_out, hands_out)
            finally:
                os._exit(0)
        for theirs in (mouse_in, clone_out, hands_out):
            os.close(theirs)
        # The grab comes a moment after the clone was made; from then on what isn't taken passes.
        end = time.monotonic() + 10
        while not select.select([self.clone], [], [], 0.05)[0]:
            assert time.monotonic() < end, "the mouse was never grabbed"
            os.write(self.mouse, abi.report((abi.EV_REL, 0, 1)))
        time.sleep(0.1)
        os.read(self.clone, 1 << 16)

    def press(self, value: int) -> int:
        """The side button down or up; when that was, in ns."""
        now = time.monotonic_ns()
        os.write(self.mouse, abi.report((abi.EV_KEY, TRIGGER_NUMBER, value)))
        return now

    def came(self, limit_s: float) -> list[tuple[int, int]]:
        """What macros have emitted by now, waiting for the first of it: when it left, in ns, and its value."""
        if not select.select([self.hands], [], [], limit_s)[0]:
            return []
        return list(_LEFT.iter_unpack(os.read(self.hands, _LEFT.size * 1_000)))

    def end(self) -> None:
        """End the service and close the pipes that are still open."""
        os.kill(self.pid, signal.SIGKILL)
        os.waitpid(self.pid, 0)
        for handle in (self.mouse, self.clone, self.hands):
            try:
                os.close(handle)
            except OSError:
                continue
        self._folder.cleanup()


def _serve(home: Home, mouse_in: int, clone_out: int, hands_out: int) -> None:
    home.runtime.mkdir(parents=True, exist_ok=True)
    nowhere = os.open(os.devnull, os.O_WRONLY)
    ends = {"hands": hands_out, "positions": nowhere}

    def kernel(host: Host) -> KernelBackend:
        return KernelBackend(
            host,
            _Finder(),
            lambda path: _Node(mouse_in),
            lambda name, abilities, phys: (_Hands if phys == "hands" else _Virtual)(
                abilities, ends.get(phys, clone_out)
            ),
        )

    service = Service(home, Options("kernel", kernel=kernel))
    service.serve(home, Requests(service, os.getpid()).handle)
    tune()
    # As in the real service, but for what a hang leads to.
    service.loop.set_alarm(Watchdog(lambda: service.loop.turn, lambda: os._exit(1), sys.stderr))
    service.refresh_sheet()
    service.run()


def ticks(pid: int) -> float:
    """Processor seconds that a process has used."""
    fields = Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


def forwarded(
    reference: Path, source: int, target: int, pid: int, rate: int, seconds: float
) -> tuple[list[float], float]:
    """Motion through a process between two pipes: how late each report came (us), and the process's share of a core."""
    count = int(rate * seconds)
    arrive = subprocess.Popen([reference, "arrive"], stdin=target, stdout=subprocess.PIPE, text=True)
    os.close(target)
    before, start = ticks(pid), time.monotonic()
    command = [str(reference), "move", str(rate), str(count)]
    written = subprocess.run(command, stdout=source, stderr=subprocess.PIPE, check=True, text=True).stderr
    share = (ticks(pid) - before) / (time.monotonic() - start)
    time.sleep(0.2)
    os.close(source)
    os.kill(pid, signal.SIGKILL)
    printed, _ = arrive.communicate()
    came = printed.split()
    assert len(came) == count, f"{len(came)} of {count} reports came"
    late = [float(int(there) - int(here)) for here, there in zip(written.split(), came, strict=True)]
    return late, share
