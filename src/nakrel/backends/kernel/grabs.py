"""Grabs and clones of all nodes: one device after the other is grabbed or let go as its channel wants it.

What the kernel may take its time over is done aside (`Host.aside`), one thing at a time, so that a node rests only
while the kernel is asked for that very node.
"""

from __future__ import annotations

import select
from collections.abc import Callable, Mapping
from functools import partial

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.asking import Answer, Change, NodeLike, ask_kernel
from nakrel.backends.kernel.channel import Channel, Clone
from nakrel.backends.kernel.nodes import Abilities
from nakrel.backends.physical import physical
from nakrel.backends.protocols import BackendUnavailable, Host
from nakrel.words import tr

__all__ = ["Grabs", "identity", "path_of"]


class Grabs:
    """`channels` are those of all nodes that are read, by descriptor; `epoll` is what wakes their reader."""

    def __init__(
        self,
        host: Host,
        virtual: Callable[[str, Abilities, str], Clone],
        epoll: select.epoll,
        channels: Mapping[int, Channel],
    ) -> None:
        self._host, self.virtual, self._epoll, self._channels = host, virtual, epoll, channels
        # The clones of devices that were unplugged: when one is plugged in again the desktop knows its clone already.
        self._spare: dict[str, Clone] = {}
        # Clones that the desktop may ask to set lights, by descriptor.
        self.lights: dict[int, Clone] = {}
        # The nodes that have something to read although they aren't readable.
        self.ripe: list[int] = []
        # Whether the kernel is asked for something and hasn't answered.
        self._asking = False
        self.closed = False

    def take_ripe(self) -> list[int]:
        """The nodes that have something to read; they count as read with this."""
        ripe, self.ripe = self.ripe, []
        return ripe

    def lost(self, channel: Channel) -> None:
        """The device has gone; its clone is kept."""
        if channel.clone is not None:
            self._keep(channel.node, channel.clone)

    def close(self) -> None:
        """Remove all clones."""
        for clone in (*self._spare.values(), *(channel.clone for channel in self._channels.values() if channel.clone)):
            clone.close()

    def settle(self) -> None:
        """Grab and let go what can be now, one device after the other, and come back when more can be."""
        if self.closed:
            return
        again: list[int] = []
        changes: list[tuple[Channel, Change]] = []
        now_us = self._host.now_us()
        for channel in self._channels.values():
            needs = channel.settle(now_us)
            if isinstance(needs, Change):
                changes.append((channel, needs))
            elif needs is not None:
                again.append(needs)
        self._host.at("kernel", min(again, default=None), self.settle)
        if changes and not self._asking:
            self._change(*changes[0])

    def _change(self, channel: Channel, change: Change) -> None:
        self._asking = True
        channel.begin(change)
        if change is Change.CLONE:
            self._find_clone(channel)
            return
        self._epoll.unregister(channel.node.fd)
        self._host.aside(
            lambda: Answer(False) if self.closed else ask_kernel(channel.node, change),
            lambda answer: self._changed(channel, answer),
        )

    def _asked(self) -> None:
        """The kernel has answered; there may be more to ask."""
        self._asking = False
        self.settle()

    def _changed(self, channel: Channel, answer: Answer) -> None:
        if self.closed:
            return
        if self._is_here(channel):
            self._go_on(channel, answer)
        self._asked()

    def _go_on(self, channel: Channel, answer: Answer) -> None:
        before = channel.grabbed, channel.trouble
        channel.done(answer, self._host.now_us())
        self._epoll.register(channel.node.fd, select.EPOLLIN)
        if channel.trouble and channel.wanted:
            self._host.fault(f"{channel.node.name}: {channel.trouble}")
        if channel.ripe:
            self.ripe.append(channel.node.fd)
            self._host.drain()
        if before != (channel.grabbed, channel.trouble):
            self._host.devices_changed()

    def _is_here(self, channel: Channel) -> bool:
        return self._channels.get(channel.node.fd) is channel

    def _find_clone(self, channel: Channel) -> None:
        node, spare = channel.node, self._spare.pop(_clone_key(channel.node), None)
        if spare is not None and spare.abilities == node.abilities:
            channel.has_clone(spare, self._host.now_us(), known=True)
            self._asked()
            return
        if spare is not None:
            self._drop(spare)

        def make() -> tuple[Clone | str, str]:
            try:
                made = self.virtual(node.name, node.abilities, node.phys)
            except BackendUnavailable as error:
                return str(error), ""
            return made, path_of(made)

        self._host.aside(make, lambda made: self._made(channel, *made))

    def _made(self, channel: Channel, made: Clone | str, path: str) -> None:
        if self.closed:
            if not isinstance(made, str):
                self._host.aside(made.close, lambda done: None)
            return
        if isinstance(made, str):
            channel.has_no_clone(made, self._host.now_us())
            self._host.fault(tr("{node} can't be captured: {made}").format(node=channel.node.name, made=made))
            self._host.devices_changed()
        else:
            if channel.node.abilities.codes.get(abi.EV_LED):
                self.lights[made.fd] = made
                self._epoll.register(made.fd, select.EPOLLIN)
            if self._is_here(channel):
                channel.has_clone(made, self._host.now_us(), known=False)
                if path:
                    self._host.introduce(path, (channel.node.path,), lambda: self._known(channel, made))
                else:
                    self._known(channel, made)
            else:
                self._keep(channel.node, made)
        self._asked()

    def _known(self, channel: Channel, clone: Clone) -> None:
        if channel.clone is clone and not self.closed:
            channel.is_known()
            self.settle()

    def _keep(self, node: NodeLike, clone: Clone) -> None:
        """The device has gone; it may come back."""
        if before := self._spare.pop(_clone_key(node), None):
            self._drop(before)
        self._spare[_clone_key(node)] = clone

    def _drop(self, clone: Clone) -> None:
        if self.lights.pop(clone.fd, None):
            self._epoll.unregister(clone.fd)
        self._host.aside(clone.close, lambda done: None)

    def relay_lights(self, handle: int) -> None:
        """The desktop sets a clone's lights; set those of the keyboard."""
        clone = self.lights[handle]
        data = clone.read()
        for channel in self._channels.values():
            if data and channel.clone is clone:
                self._host.aside(partial(channel.node.write, data), lambda done: None)


def path_of(clone: Clone) -> str:
    """The event node of a virtual device; '' where it has none that anybody sees."""
    try:
        return clone.path
    except OSError:
        return ""


def _clone_key(node: NodeLike) -> str:
    """What stays the same when the node's device is plugged in again."""
    return f"{identity(node)} {node.phys} {node.name}"


def identity(node: NodeLike) -> str:
    """What all nodes of one physical device share (`physical.physical`)."""
    _, vendor, product, _ = node.abilities.ids
    return physical(vendor, product, node.name, node.phys, node.uniq)
