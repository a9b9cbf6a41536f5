"""A kernel made of nothing but queues: event nodes with a grab, virtual devices that show up as nodes."""

from __future__ import annotations

import errno
import os
from collections import deque
from collections.abc import Callable, Iterable, Sequence
from functools import partial
from typing import Any

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.finder import Finder, Found
from nakrel.backends.kernel.nodes import Abilities

MOUSE_KEYS = frozenset({0x110, 0x111, 0x112, 0x113, 0x114})
MOUSE = Abilities(
    (3, 0x1209, 0x0012, 1),
    {
        abi.EV_KEY: MOUSE_KEYS,
        abi.EV_REL: frozenset({0, 1, abi.REL_WHEEL, abi.REL_WHEEL_HI_RES}),
        abi.EV_MSC: frozenset({abi.MSC_SCAN}),
    },
    {},
)
KEYBOARD = Abilities(
    (3, 0x1209, 0x0013, 1),
    {abi.EV_KEY: frozenset(range(1, 128)), abi.EV_LED: frozenset({0, 1, 2}), abi.EV_REP: frozenset()},
    {},
)


class FakeNode:
    """An event node: `happen` is the hardware, `seen` what other programs see of it. `broken` is raised by reads."""

    def __init__(self, path: str, abilities: Abilities, name: str, phys: str = "usb-0000:00:14.0-1/input0") -> None:
        self.path, self.abilities, self.name, self.phys, self.uniq = path, abilities, name, phys, ""
        self.fd, self._wake = os.pipe2(os.O_NONBLOCK | os.O_CLOEXEC)
        self.queue: list[bytes] = []
        self.state: set[int] = set()
        self.seen: list[tuple[int, int, int]] = []
        self.grabbed = self.closed = False
        self.taken_by_another = False
        self.broken = 0
        self.now_us = 0

    def happen(self, *events: tuple[int, int, int], dropped: bool = False) -> None:
        """One report of the hardware."""
        for kind, code, value in events:
            if kind == abi.EV_KEY and value < abi.REPEATED:
                (self.state.add if value else self.state.discard)(code)
        self._tell(*events, dropped=dropped)

    def _tell(self, *events: tuple[int, int, int], dropped: bool = False) -> None:
        if not self.grabbed:
            self.seen += events
        data = b"".join(abi.EVENT.pack(0, self.now_us, *one) for one in (*events, (0, abi.SYN_REPORT, 0)))
        self.queue.append(abi.EVENT.pack(0, self.now_us, 0, abi.SYN_DROPPED, 0) + data if dropped else data)
        os.write(self._wake, b".")

    def miss(self, *events: tuple[int, int, int]) -> None:
        """A report for which the reader's queue has no room: the next one says so."""
        for _, code, value in events:
            (self.state.add if value else self.state.discard)(code)
        self.queue.clear()

    def keys_down(self) -> set[int]:
        return set(self.state)

    def lights_on(self) -> set[int]:
        return {code for kind, code, value in self.seen if kind == abi.EV_LED and value}

    def grab(self, on: bool) -> None:
        if on and self.taken_by_another:
            raise OSError(errno.EBUSY, "busy")
        self.grabbed = on

    def attend(self, everything: bool) -> None:
        pass

    def read(self) -> bytes:
        if self.broken:
            raise OSError(self.broken, os.strerror(self.broken))
        data, self.queue = b"".join(self.queue), []
        if data:
            os.read(self.fd, 4096)
        return data

    def write(self, data: bytes) -> None:
        for _, _, kind, code, value in abi.EVENT.iter_unpack(data):
            if kind == abi.EV_KEY and code in self.state and value == 0:
                # All who read the node are told of it, who wrote it too (input_inject_event).
                self.state.discard(code)
                self._tell((kind, code, value))
            elif kind not in (abi.EV_SYN, abi.EV_KEY):
                self.seen.append((kind, code, value))

    def close(self) -> None:
        self.grabbed = False
        if not self.closed:
            self.closed = True
            for handle in (self.fd, self._wake):
                os.close(handle)


class FakeVirtual:
    """A virtual device; `reports` is all that was written, report by report. `node` is where programs read it."""

    def __init__(self, name: str, abilities: Abilities, phys: str, path: str = "") -> None:
        self.name, self.abilities, self.phys, self.path = name, abilities, phys, path
        self.node = FakeNode(path, abilities, name)
        self.presses = 0
        self.fd, self._wake = os.pipe2(os.O_NONBLOCK | os.O_CLOEXEC)
        self.reports: list[list[tuple[int, int, int]]] = []
        self._open: list[tuple[int, int, int]] = []
        self.down: set[int] = set()
        self._asked = b""

    def write(self, data: bytes) -> None:
        for _, _, kind, code, value in abi.EVENT.iter_unpack(data):
            if kind == abi.EV_SYN:
                self.reports.append(self._open)
                if not self.node.taken_by_another and not self.node.closed:
                    self.node.happen(*self._open)
                self._open = []
                continue
            self._open.append((kind, code, value))
            if kind == abi.EV_KEY:
                (self.down.add if value else self.down.discard)(code)

    def ask(self, data: bytes) -> None:
        """The desktop sets a light."""
        self._asked = data
        os.write(self._wake, b".")

    def read(self) -> bytes:
        os.read(self.fd, 4096)
        return self._asked

    def close(self) -> None:
        self.down.clear()
        self.node.close()
        for handle in (self.fd, self._wake):
            os.close(handle)


class FakeFinder(Finder):
    """The device manager: `plug` and `unplug` are its news."""

    def __init__(self, paths: Iterable[str]) -> None:
        self.paths = list(paths)
        self._news: list[tuple[str, Found]] = []
        self._read, self._write = os.pipe2(os.O_NONBLOCK | os.O_CLOEXEC)

    def fileno(self) -> int:
        return self._read

    def nodes(self) -> Iterable[Found]:
        return [Found(path) for path in self.paths]

    def tell(self, action: str, path: str) -> None:
        self._news.append((action, Found(path)))
        os.write(self._write, b".")

    def close(self) -> None:
        for handle in (self._read, self._write):
            os.close(handle)

    def news(self) -> list[tuple[str, Found]]:
        os.read(self._read, 4096)
        told, self._news = self._news, []
        return told


class FakeHost:
    """Runs a backend on a clock of its own. With `at_once` off, what is done aside waits for `work` and `hand_over`."""

    def __init__(self, *, at_once: bool = True) -> None:
        self.at_once = at_once
        self.waiting: deque[tuple[Callable[[], Any], Callable[[Any], object]]] = deque()
        self.finished: deque[Callable[[], object]] = deque()
        self.now = 10_000_000
        self.timers: dict[str, tuple[int, Callable[[], object]]] = {}
        self.faults: list[str] = []
        self.drains = 0
        self.firsts: dict[str, str] = {}
        self.answers: list[tuple[str, str]] = []
        # Virtual devices that the desktop was told of, and with `slow_desktop` who is to hear that it knows them.
        self.introduced: list[tuple[str, tuple[str, ...]]] = []
        self.slow_desktop = False
        self.unknown: list[Callable[[], object]] = []

    def now_us(self) -> int:
        return self.now

    def at(self, name: str, when_us: int | None, call: Callable[[], object]) -> None:
        if when_us is None:
            self.timers.pop(name, None)
        else:
            self.timers[name] = (when_us, call)

    def aside(self, work: Callable[[], Any], done: Callable[[Any], object]) -> None:
        if self.at_once:
            done(work())
        else:
            self.waiting.append((work, done))

    def work(self) -> None:
        """The other thread does the first piece of its work."""
        if self.waiting:
            work, done = self.waiting.popleft()
            self.finished.append(partial(done, work()))

    def hand_over(self) -> None:
        """The first outcome is handed over."""
        if self.finished:
            self.finished.popleft()()

    def do_all(self) -> None:
        """Work and hand over until there is no more."""
        while self.waiting or self.finished:
            self.work()
            self.hand_over()

    def fault(self, error: str) -> None:
        self.faults.append(error)

    def devices_changed(self) -> None:
        pass

    def introduce(self, twin: str, like: Sequence[str], known: Callable[[], object]) -> None:
        self.introduced.append((twin, tuple(like)))
        if self.slow_desktop:
            self.unknown.append(known)
        else:
            known()

    def first_of(self, control: str) -> str:
        return self.firsts.get(control, "")

    def answered(self, control: str, first: str) -> None:
        self.answers.append((control, first))

    def drain(self) -> None:
        self.drains += 1

    def pass_time(self, us: int) -> None:
        """Let time pass; what is due happens."""
        self.now += us
        for name, (when_us, call) in list(self.timers.items()):
            if when_us <= self.now:
                del self.timers[name]
                call()
