"""A desk for the kernel backend: a mouse and a keyboard on a kernel made of queues."""

from __future__ import annotations

import errno
from typing import Any

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.backend import KernelBackend
from nakrel.backends.kernel.channel import SETTLE_US
from nakrel.backends.kernel.nodes import Abilities
from nakrel.core.play.events import Pressed
from tests.backends.fake_kernel import KEYBOARD, MOUSE, FakeFinder, FakeHost, FakeNode, FakeVirtual

SIDE, LEFT, W = 0x113, 0x110, 17
KEY, REL = abi.EV_KEY, abi.EV_REL


class Desk:
    """A mouse and a keyboard, the backend on them, and everything that it makes."""

    def __init__(self, *nodes: FakeNode, at_once: bool = True) -> None:
        made = nodes or (
            FakeNode("/dev/input/event3", MOUSE, "Halyard"),
            FakeNode("/dev/input/event4", KEYBOARD, "Bollard", "usb-0000:00:14.0-2/input0"),
        )
        self.gone: list[FakeNode] = []
        self.nodes = {node.path: node for node in made}
        self.mouse, self.keyboard = made[0], made[-1]
        self.finder, self.host = FakeFinder(self.nodes), FakeHost(at_once=at_once)
        self.virtuals: list[FakeVirtual] = []
        self.refuse = 0
        # The presses that were answered before they were told, each with what was sent.
        self.answered: list[tuple[str, str]] = []
        self.backend = KernelBackend(self.host, self.finder, self.open, self.virtual)
        self.injectors = self.virtuals[0]

    def open(self, path: str) -> FakeNode:
        if ours := [virtual.node for virtual in self.virtuals if virtual.path == path]:
            return ours[0]
        if self.refuse or path not in self.nodes:
            raise OSError(self.refuse or errno.ENOENT, "refused")
        return self.nodes[path]

    def virtual(self, name: str, abilities: Abilities, phys: str) -> FakeVirtual:
        self.virtuals.append(FakeVirtual(name, abilities, phys, f"/dev/input/event{20 + len(self.virtuals)}"))
        return self.virtuals[-1]

    def close(self) -> None:
        """Close the backend and all there is."""
        self.backend.close()
        self.host.do_all()
        self.finder.close()
        for node in (*self.gone, *self.nodes.values()):
            node.close()

    def __enter__(self) -> Desk:
        return self

    def __exit__(self, *exception: object) -> None:
        self.close()

    def capture(self, *controls: str) -> None:
        self.backend.capture(controls)
        self.host.pass_time(SETTLE_US)

    def clone(self, name: str = "Halyard") -> FakeVirtual:
        return next(v for v in self.virtuals if v.name == name)

    def turn(self) -> list[Any]:
        """What the service does when something is readable."""
        return [] if self.backend.pass_motion() else self._read()

    def hear(self) -> list[Any]:
        heard, drains = self.turn(), -1
        while drains != self.host.drains:
            drains = self.host.drains
            heard += self._read()
        return heard

    def _read(self) -> list[Any]:
        heard = []
        for event in self.backend.read():
            heard.append(event.event)
            if isinstance(event.event, Pressed):
                # What has been answered is told next, and once.
                answered, self.host.answers = self.host.answers, []
                assert [control for control, _ in answered] in ([], [event.event.control])
                self.answered += answered
        assert not self.host.answers
        return heard

    def swap(self, path: str, abilities: Abilities) -> FakeNode:
        """Unplug what is there, and plug in a new device."""
        self.nodes[path].broken = errno.ENODEV
        self.finder.tell("remove", path)
        self.gone.append(self.nodes[path])
        node = self.nodes[path] = FakeNode(path, abilities, self.nodes[path].name)
        return node
