"""Input and output through the kernel, over all keyboards and mice."""

from __future__ import annotations

import contextlib
import errno
import select
from collections.abc import Callable, Collection, Iterator, Sequence

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.channel import Channel, Clone, NodeLike
from nakrel.backends.kernel.finder import Finder, Found, Udev, physical, serves
from nakrel.backends.kernel.nodes import Abilities, Node, Virtual
from nakrel.backends.kernel.output import Output
from nakrel.backends.protocols import BackendLost, BackendUnavailable, Host, InputEvent
from nakrel.core.model.conditioning import Motion
from nakrel.core.model.controls import CONTROLS
from nakrel.core.model.devices import Device
from nakrel.core.play.events import Emit, InputsLost, Pressed, Released, Turned

__all__ = ["KernelBackend"]

# Gone, or never there: a device may vanish between being listed and being opened.
_GONE = (errno.ENOENT, errno.ENODEV, errno.ENXIO)


class KernelBackend:
    """Implements `InputBackend` and `OutputBackend`.

    Raises `BackendUnavailable` when made without the permission to use uinput, or to read any of the devices that are
    there; without a device it waits for one. When Esc is down at the start it grabs nothing: the way out for someone
    whose profile has locked them out.
    """

    name = "kernel"

    def __init__(
        self,
        host: Host,
        finder: Finder | None = None,
        open_node: Callable[[str], NodeLike] = Node,
        virtual: Callable[[str, Abilities, str], Clone] = Virtual,
    ) -> None:
        self._host, self._open_node, self._virtual = host, open_node, virtual
        self._channels: dict[int, Channel] = {}
        self._by_path: dict[str, int] = {}
        self._by_id: dict[str, str] = {}
        # Clones outlive their device: when it is plugged in again the desktop knows its clone already.
        self._clones: dict[str, Clone] = {}
        self._lights: dict[int, str] = {}
        self._refused: dict[str, str] = {}
        self._captured: frozenset[str] = frozenset()
        self._motion: Motion | None = None
        self._down: dict[str, int] = {}
        self._closed = False
        self._ripe: list[int] = []
        self._output = Output(virtual)
        self._epoll = select.epoll()
        self._finder = finder or Udev()
        try:
            if self._finder.fileno() >= 0:
                self._epoll.register(self._finder.fileno(), select.EPOLLIN)
            for found in self._finder.nodes():
                self._add(found)
        except BaseException:
            self.close()
            raise
        if self._refused and not self._channels:
            self.close()
            raise BackendUnavailable(f"no permission to read the {len(self._refused)} devices under /dev/input")
        self.held_back = any(abi.KEY_ESC in channel.down for channel in self._channels.values())
        self.note = (
            "Esc was down at the start: no device is touched, and attachments rest. To end that: nakrel shutdown"
            if self.held_back
            else "Attached controls are kept from all programs."
        )

    def fileno(self) -> int:
        """Readable when any device has something to read."""
        return self._epoll.fileno()

    def capture(self, controls: Collection[str], repeats_itself: Collection[str] = ()) -> None:
        """Grab the devices that have such controls, once nothing is down on them, and let the others go."""
        self._captured = frozenset() if self.held_back else frozenset(controls)
        for channel in self._channels.values():
            channel.want(self._captured)
        self._settle()

    def condition(self, motion: Motion | None) -> None:
        """Grab the devices that move, and have them move like this; None leaves them alone. A change of the way of one
        that is grabbed is there with its next report."""
        motion = None if self.held_back else motion
        if motion == self._motion:
            return
        self._motion = motion
        for channel in self._channels.values():
            channel.condition(motion)
        self._settle()

    def read(self) -> Iterator[InputEvent]:
        """What fingers did. Devices that come and go are dealt with on the way."""
        ready = [handle for handle, _ in self._epoll.poll(0)]
        if self._ripe:
            ready, self._ripe = [*dict.fromkeys((*ready, *self._ripe))], []
        for handle in ready:
            if self._closed:
                return
            if channel := self._channels.get(handle):
                if not channel.pass_motion():
                    yield from self._read_channel(channel)
            elif handle in self._lights:
                self._relay_lights(handle)
            elif handle == self._finder.fileno():
                yield from self._news()

    def emit(self, events: Sequence[Emit]) -> None:
        """Send events through the virtual keyboard and mouse."""
        self._output.emit(events)

    def move_by(self, dx: int, dy: int) -> None:
        """Move the pointer by so many units of a mouse."""
        self._output.move_by(dx, dy)

    def move_to(self, x: int, y: int, width: int, height: int) -> None:
        """Move the pointer to a pixel of a screen of that size."""
        self._output.move_to(x, y, width, height)

    def close(self) -> None:
        """Let everything go at once: grabs, holds and virtual devices."""
        if self._closed:
            return
        self._closed = True
        self._host.at("kernel", None, lambda: None)
        with contextlib.suppress(BackendLost):
            self._output.close()
        for channel in self._channels.values():
            channel.node.close()
        for clone in self._clones.values():
            clone.close()
        self._epoll.close()

    # Devices

    def devices(self) -> tuple[Device, ...]:
        """The physical devices, each with the controls of all its interfaces."""
        groups: dict[str, list[Channel]] = {}
        for channel in self._channels.values():
            groups.setdefault(_identity(channel.node), []).append(channel)
        shown = [self._device(key, channels) for key, channels in groups.items()]
        shown += [
            Device(f"kernel:{path}", path, (), "kernel", note=reason, trouble=True)
            for path, reason in self._refused.items()
        ]
        return tuple(shown)

    def _device(self, key: str, channels: list[Channel]) -> Device:
        have = {code for channel in channels for code in channel.controls}
        first = min(channels, key=lambda c: len(c.node.name))
        troubles = sorted({channel.trouble for channel in channels if channel.trouble})
        grabbed = [channel for channel in channels if channel.grabbed]
        waiting = any(channel.down and channel.wanted and not channel.grabbed for channel in channels)
        state = "grabbed, the rest passes" if grabbed else "read along"
        if waiting:
            state = "to be grabbed once nothing is down on it"
        return Device(
            id=f"kernel:{key}",
            name=first.node.name,
            controls=tuple(code for code in CONTROLS if code in have),
            how="kernel",
            note="; ".join(troubles) or state,
            where=self._by_id.get(first.node.path) or first.node.path,
            trouble=bool(troubles),
        )

    def _add(self, found: Found) -> None:
        if found.path in self._by_path:
            return
        self._refused.pop(found.path, None)
        try:
            node = self._open_node(found.path)
        except OSError as error:
            if error.errno == errno.EACCES:
                self._refused[found.path] = "no permission to read it; to get it: nakrel doctor --fix"
            elif error.errno not in _GONE:
                self._host.fault(f"{found.path} can't be read ({error.strerror}); plug the device in again")
            return
        try:
            fits = serves(node.abilities, node.phys)
            channel = Channel(node, lambda: self._clone_of(node), self._host.now_us()) if fits else None
        except OSError:
            channel = None
        if channel is None:
            node.close()
            return
        self._channels[node.fd] = channel
        self._by_path[found.path] = node.fd
        self._by_id[found.path] = found.by_id
        self._epoll.register(node.fd, select.EPOLLIN)
        channel.want(self._captured)
        channel.condition(self._motion)

    def _remove(self, path: str) -> Iterator[InputEvent]:
        handle = self._by_path.pop(path, None)
        self._refused.pop(path, None)
        if handle is None:
            return
        channel = self._channels.pop(handle)
        with contextlib.suppress(OSError):
            self._epoll.unregister(handle)
        name, now_us = channel.node.name, self._host.now_us()
        for released in channel.lose():
            if self._last(released):
                yield InputEvent(released, now_us, name)
        channel.node.close()
        left = {code for other in self._channels.values() for code in other.controls}
        yield InputEvent(InputsLost(frozenset(channel.controls) - left), now_us, name)

    def _news(self) -> Iterator[InputEvent]:
        for action, found in self._finder.news():
            if action == "remove":
                yield from self._remove(found.path)
            else:
                self._add(found)
        self._settle()
        self._host.devices_changed()

    # Events

    def _read_channel(self, channel: Channel) -> Iterator[InputEvent]:
        was_down = bool(channel.down)
        try:
            for heard in channel.read():
                if self._counts(heard.event):
                    yield InputEvent(heard.event, heard.at_us, channel.node.name)
                if self._closed:
                    return
        except OSError as error:
            if error.errno not in _GONE:
                self._host.fault(f"{channel.node.name} can't be read any more ({error.strerror}); plug it in again")
            yield from self._remove(channel.node.path)
            self._host.devices_changed()
            return
        if was_down and not channel.down and channel.wanted != channel.grabbed:
            self._settle()

    def _counts(self, event: Pressed | Released | Turned) -> bool:
        """Whether it is the first press or the last release of that control on any device, or a notch."""
        if isinstance(event, Turned):
            return True
        if isinstance(event, Released):
            return self._last(event)
        self._down[event.control] = self._down.get(event.control, 0) + 1
        return self._down[event.control] == 1

    def _last(self, event: Released) -> bool:
        left = self._down.pop(event.control, 0) - 1
        if left > 0:
            self._down[event.control] = left
        return left == 0

    # Grabs and clones

    def _settle(self) -> None:
        """Grab and let go what can be now, and come back when more can be."""
        again: list[int] = []
        now_us = self._host.now_us()
        before = [channel.grabbed for channel in self._channels.values()]
        for channel in self._channels.values():
            try:
                when = channel.settle(now_us)
            except BackendUnavailable as error:
                channel.trouble = str(error)
                self._host.fault(f"{channel.node.name} isn't taken: {error}")
                continue
            except OSError:
                # It has just gone; its next read tells.
                continue
            if channel.trouble and channel.wanted:
                self._host.fault(f"{channel.node.name}: {channel.trouble}")
            if when is not None:
                again.append(when)
        self._host.at("kernel", min(again, default=None), self._settle)
        self._ripe = [handle for handle, channel in self._channels.items() if channel.ripe]
        if self._ripe:
            self._host.drain()
        if before != [channel.grabbed for channel in self._channels.values()]:
            self._host.devices_changed()

    def _clone_of(self, node: NodeLike) -> tuple[Clone, bool]:
        key = f"{_identity(node)} {node.phys} {node.name}"
        known = self._clones.get(key)
        if known is not None and known.abilities == node.abilities:
            return known, True
        if known is not None:
            self._drop_clone(key)
        clone = self._clones[key] = self._virtual(node.name, node.abilities, node.phys)
        if node.abilities.codes.get(abi.EV_LED):
            self._lights[clone.fd] = key
            self._epoll.register(clone.fd, select.EPOLLIN)
        return clone, False

    def _drop_clone(self, key: str) -> None:
        clone = self._clones.pop(key)
        if self._lights.pop(clone.fd, None):
            self._epoll.unregister(clone.fd)
        clone.close()

    def _relay_lights(self, handle: int) -> None:
        """The desktop sets a clone's lights; set those of the keyboard."""
        data = self._clones[self._lights[handle]].read()
        for channel in self._channels.values():
            if data and channel.uses(handle):
                channel.node.write(data)


def _identity(node: NodeLike) -> str:
    return physical(node.abilities, node.name, node.phys, node.uniq)
