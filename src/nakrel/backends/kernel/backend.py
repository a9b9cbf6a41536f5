"""Input and output through the kernel, over all keyboards and mice."""

from __future__ import annotations

import contextlib
import select
from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from functools import partial

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.arrivals import Arrivals
from nakrel.backends.kernel.channel import Channel, Clone, NodeLike
from nakrel.backends.kernel.finder import Finder, Udev
from nakrel.backends.kernel.grabs import Grabs, identity, path_of
from nakrel.backends.kernel.nodes import Abilities, Node, Virtual
from nakrel.backends.kernel.opening import Opened, open_found
from nakrel.backends.kernel.output import HANDS_NAME, Output
from nakrel.backends.protocols import BackendLost, BackendUnavailable, Host, InputEvent
from nakrel.core.model.conditioning import Motion
from nakrel.core.model.controls import CONTROLS, KNOWN
from nakrel.core.model.devices import Device, KeyNaming
from nakrel.core.play.events import Emit, InputsLost, Pressed, Released
from nakrel.system_errors import reason_of
from nakrel.words import counted, tr

__all__ = ["KernelBackend"]


# How soon a count that has changed is shown.
_COUNT_US = 1_000_000
# So often the device that was heard last is asked before the others: should it always have more, they still are heard
# within a millisecond.
_IN_A_ROW = 8
# What a keyboard and a mouse have, as event types and codes.
_KEYBOARD = (abi.EV_KEY, CONTROLS["KEY_A"].number, CONTROLS["KEY_SPACE"].number)
_MOUSE = (abi.EV_REL, abi.REL_X, abi.REL_Y)


class KernelBackend:
    """Implements `InputBackend` and `OutputBackend`.

    Raises `BackendUnavailable` when made without the permission to use uinput, or to read any of the devices that are
    there; without a device it waits for one. When Esc is down at the start it grabs nothing: the way out for someone
    whose profile has locked them out.
    """

    name = "kernel"
    moves_by_pixels = False

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
        self._refused: dict[str, str] = {}
        self._captured: frozenset[str] = frozenset()
        self._motion: Motion | None = None
        # Keyboards whose light shows something of ours, and whether it was on before.
        self._lit: dict[str, bool] = {}
        # By a device's name: the controls whose bounces are dropped, and in which time.
        self._bounces: Mapping[str, Mapping[str, int]] = {}
        # The names of devices whose number keys count as thumb buttons.
        self._naming = KeyNaming()
        # The nodes on which an edge has waited for its time.
        self._late: set[int] = set()
        self._down: dict[str, int] = {}
        # The node on which each control was pressed last.
        self._pressed_on: dict[str, int] = {}
        self._closed = False
        # The device that was heard last, and how often it was asked first since all were.
        self._heard_last: Channel | None = None
        self._in_a_row = 0
        # What came and went since `read` was last called.
        self._news: list[tuple[str, Opened]] = []
        self._output = Output(virtual)
        self._hands_path = path_of(self._output.hands)
        # The nodes of the keyboard and the mouse that our own was last said to be like.
        self._like: tuple[str, ...] | None = None
        self._epoll = select.epoll()
        self._grabs = Grabs(host, virtual, self._epoll, self._channels)
        self._arrivals = Arrivals(host, open_node, self._virtual_devices, host.devices_changed)
        self._finder = finder or Udev()
        try:
            if self._finder.fileno() >= 0:
                self._epoll.register(self._finder.fileno(), select.EPOLLIN)
            for found in self._finder.nodes():
                self._add(open_found(found, self._open_node))
        except BaseException:
            self._close()
            raise
        if self._refused and not self._channels:
            self._close()
            raise BackendUnavailable(
                tr("no permission to read the {refused} devices under /dev/input").format(refused=len(self._refused))
            )
        self.held_back = any(abi.KEY_ESC in channel.down for channel in self._channels.values())
        self.note = (
            tr(
                "Esc was down at the start: no device is touched, and attached buttons do nothing special. "
                "To end that: nakrel shutdown"
            )
            if self.held_back
            else tr("Keys and buttons with something attached do only that.")
        )

    def fileno(self) -> int:
        """Readable when any device has something to read."""
        return self._epoll.fileno()

    def introduce(self) -> None:
        """Have the desktop set our keyboard and mouse as it has set the first real ones that there are."""
        keyboard, mouse = (
            next((channel.node.path for channel in self._channels.values() if channel.node.abilities.has(*each)), "")
            for each in (_KEYBOARD, _MOUSE)
        )
        like = (keyboard, mouse) if mouse else (keyboard,)
        if like != self._like and self._hands_path:
            self._like = like
            self._host.introduce(self._hands_path, like, lambda: None)

    def capture(self, controls: Collection[str], repeats_itself: Collection[str] = ()) -> None:
        """Grab the devices that have such controls, once nothing is down on them, and let the others go."""
        self._captured = frozenset() if self.held_back else frozenset(controls)
        for channel in self._channels.values():
            channel.want(self._captured)
        self._grabs.settle()

    def condition(self, motion: Motion | None) -> None:
        """Grab the devices that move, and have them move like this; None leaves them alone. A change of the way of one
        that is grabbed is there with its next report."""
        motion = None if self.held_back else motion
        if motion == self._motion:
            return
        self._motion = motion
        for channel in self._channels.values():
            channel.condition(motion)
        self._grabs.settle()

    def debounce(self, times_us: Mapping[str, Mapping[str, int]]) -> None:
        """Drop the bounces of these controls of these devices, by name, each within its time in microseconds."""
        self._bounces = {} if self.held_back else times_us
        for parts in self._devices().values():
            self._debounce(parts)
        self._grabs.settle()

    def _debounce(self, parts: list[Channel]) -> None:
        times_us = self._bounces.get(_first(parts).node.name, {})
        for channel in parts:
            channel.debounce(times_us)
            self._mind_late(channel)

    def call_keys(self, naming: KeyNaming) -> None:
        """What the keys of devices count as from now on."""
        self._naming = KeyNaming() if self.held_back else naming
        for parts in self._devices().values():
            self._call_keys(parts)
        self._grabs.settle()

    def _call_keys(self, parts: list[Channel]) -> None:
        """Call the keys of a device as wanted. Which of its interfaces has them goes by no rule."""
        how = self._naming.of(_first(parts).node.name)
        for channel in parts:
            if channel.call_keys(how):
                self._late.add(channel.node.fd)
                self._host.drain()
            channel.want(self._captured)
        self._debounce(parts)

    def _devices(self) -> dict[str, list[Channel]]:
        """The interfaces of each physical device, by what they share."""
        found: dict[str, list[Channel]] = {}
        for channel in self._channels.values():
            found.setdefault(identity(channel.node), []).append(channel)
        return found

    def show_light(self, on: bool) -> None:
        """Put the light of Scroll Lock on at every keyboard that has one, or as it was before."""
        code = abi.LED_SCROLLL
        for channel in self._channels.values():
            node = channel.node
            if code not in node.abilities.codes.get(abi.EV_LED, ()) or on == (node.path in self._lit):
                continue
            if on:
                self._lit[node.path] = code in node.lights_on()
            value = int(on or self._lit.pop(node.path))
            self._host.aside(partial(node.write, abi.report((abi.EV_LED, code, value))), lambda done: None)

    def _mind_late(self, channel: Channel) -> None:
        """Come back when an edge that waits is to be told."""
        handle, late_us = channel.node.fd, channel.switches.late_us

        def due() -> None:
            self._late.add(handle)
            self._host.drain()

        self._host.at(f"late {channel.node.path}", late_us, due)

    def _tell_late(self) -> Iterator[InputEvent]:
        late, self._late = self._late, set()
        for handle in late:
            if channel := self._channels.get(handle):
                for event in channel.tell_late(self._host.now_us()):
                    if self._counts(channel, event):
                        yield event
                    if self._closed:
                        return
                self._mind_late(channel)
                if not channel.down and channel.wanted != channel.grabbed:
                    self._grabs.settle()

    def measure(self, device: str, *, on: bool) -> list[int]:
        """Note when the device's reports of motion come, from now on or (`on` off) no more: then those that came are
        given, in monotonic microseconds. Raises `KeyError` for a device that isn't there."""
        channels = [each for each in self._channels.values() if f"kernel:{identity(each.node)}" == device]
        if not channels:
            raise KeyError(device)
        found = max((each.motion_times or [] for each in channels), key=len)
        for each in channels:
            each.motion_times = [] if on else None
            # What isn't captured tells no motion otherwise.
            self._host.aside(partial(each.node.attend, on or each.grabbed), lambda done: None)
        return found

    def pass_motion(self) -> bool:
        """Pass on the motion of the device that was heard last, without asking the kernel who has something: it is that
        one nearly always. False where `read` is needed. Raises `BackendLost`."""
        channel = self._heard_last
        if channel is None or channel.resting or self._news or self._late or self._in_a_row >= _IN_A_ROW:
            return False
        self._in_a_row += 1
        if channel.pass_motion():
            return True
        if channel.ripe:
            # It has been read, and maybe answered, so it comes before all others.
            self._grabs.ripe.insert(0, channel.node.fd)
        return False

    def read(self) -> Iterator[InputEvent]:
        """What fingers did. Devices that come and go are dealt with on the way."""
        if self._news:
            yield from self._take_news()
            if self._closed:
                return
        if self._late:
            yield from self._tell_late()
        ready = self._grabs.take_ripe()
        if not ready or self._in_a_row >= _IN_A_ROW:
            # Else the kernel tells with the next turn who has something: a press doesn't wait for that.
            self._in_a_row = 0
            ready = [*dict.fromkeys((*ready, *(handle for handle, _ in self._epoll.poll(0))))]
        for handle in ready:
            if self._closed:
                return
            if channel := self._channels.get(handle):
                if channel.resting:
                    continue
                self._heard_last = channel
                if not channel.pass_motion():
                    yield from self._read_channel(channel)
            elif handle in self._grabs.lights:
                self._grabs.relay_lights(handle)
            elif handle == self._finder.fileno():
                self._epoll.unregister(handle)
                self._host.aside(partial(self._look, set(self._by_path)), self._looked)

    def emit(self, events: Sequence[Emit]) -> None:
        """Send events through the virtual keyboard and mouse; a finger's press ends where it went out."""
        for event in events:
            if event.lifts:
                for channel in self._channels.values():
                    channel.lift(event.control)
        self._output.emit(events)
        if not self._arrivals.due:
            self._arrivals.look_soon()

    def move_by(self, dx: int, dy: int) -> None:
        """Move the pointer by so many units of a mouse."""
        self._output.move_by(dx, dy)

    def move_to(self, x: int, y: int, width: int, height: int) -> None:
        """Move the pointer to a pixel of a screen of that size."""
        self._output.move_to(x, y, width, height)

    def close(self) -> None:
        """Let everything go: what is down at once, grabs and virtual devices as soon as the kernel lets us."""
        if self._closed:
            return
        self._closed = self._grabs.closed = True
        with contextlib.suppress(BackendLost):
            self._output.let_go()
        self._host.aside(self._close, lambda done: None)

    def _close(self) -> None:
        self._closed = self._grabs.closed = True
        self._arrivals.close()
        self._output.close()
        for channel in self._channels.values():
            channel.node.close()
        for _, opened in self._news:
            if opened.node is not None:
                opened.node.close()
        self._grabs.close()
        self._epoll.close()

    # Devices

    def devices(self) -> tuple[Device, ...]:
        """The physical devices, each with the controls of all its interfaces."""
        shown = [self._device(key, channels) for key, channels in self._devices().items()]
        shown += [
            Device(f"kernel:{path}", path, (), "kernel", note=reason, trouble=True)
            for path, reason in self._refused.items()
        ]
        if trouble := self._arrivals.taken.get(self._output.hands):
            shown.append(Device("kernel:output", HANDS_NAME, (), "kernel", note=trouble, trouble=True))
        return tuple(shown)

    def _virtual_devices(self) -> Iterator[tuple[Clone, str]]:
        yield self._output.hands, HANDS_NAME
        for channel in self._channels.values():
            if channel.clone is not None:
                yield channel.clone, channel.node.name

    def _device(self, key: str, channels: list[Channel]) -> Device:
        have = {code for channel in channels for code in channel.controls}
        first = _first(channels)
        troubles = {channel.trouble for channel in channels if channel.trouble}
        troubles |= {taken for each in channels if each.clone and (taken := self._arrivals.taken.get(each.clone))}
        grabbed = [channel for channel in channels if channel.grabbed]
        waiting = any(channel.down and channel.wanted and not channel.grabbed for channel in channels)
        state = tr("captured, other input passes through") if grabbed else tr("watched")
        if dropped := sum(channel.switches.dropped for channel in channels):
            state += "; " + counted(dropped, "{n} bounce dropped", "{n} bounces dropped")
        if waiting:
            state = tr("waits until its keys are released")
        return Device(
            id=f"kernel:{key}",
            name=first.node.name,
            controls=tuple(code for code in KNOWN if code in have),
            how="kernel",
            note="; ".join(sorted(troubles)) or state,
            where=self._by_id.get(first.node.path) or first.node.path,
            nodes=tuple(sorted(channel.node.path for channel in channels)),
            trouble=bool(troubles),
        )

    def _add(self, opened: Opened) -> None:
        path, by_id = opened.found
        self._refused.pop(path, None)
        if opened.refused:
            self._refused[path] = opened.error
        elif opened.error:
            self._host.fault(opened.error)
        if (node := opened.node) is None:
            return
        channel = Channel(node, set(opened.down), self._host.now_us(), self._answer)
        self._channels[node.fd] = channel
        self._by_path[path] = node.fd
        self._by_id[path] = by_id
        self._epoll.register(node.fd, select.EPOLLIN)
        self._call_keys(self._devices()[identity(node)])
        channel.condition(self._motion)

    def _remove(self, path: str) -> Iterator[InputEvent]:
        handle = self._by_path.pop(path, None)
        self._refused.pop(path, None)
        if handle is None:
            return
        channel = self._channels.pop(handle)
        if channel is self._heard_last:
            self._heard_last = None
        with contextlib.suppress(OSError):
            self._epoll.unregister(handle)
        name, now_us = channel.node.name, self._host.now_us()
        for released in channel.lose():
            if self._last(released):
                yield InputEvent(released, now_us, name)
        self._grabs.lost(channel)
        self._retire(channel.node)
        left = {code for other in self._channels.values() for code in other.controls}
        # What was started on it has nobody to end it, though another device has such a button.
        last = {code for code, on in self._pressed_on.items() if on == handle and code not in self._down}
        yield InputEvent(InputsLost(frozenset(set(channel.controls) - left | last)), now_us, name)

    def _look(self, known: set[str]) -> list[tuple[str, Opened]]:
        """What came and went, opened; on another thread. `known` are the paths that are read."""
        news = []
        for action, found in () if self._closed else self._finder.news():
            if action == "remove":
                known.discard(found.path)
            news.append(
                (
                    action,
                    Opened(found) if action == "remove" or found.path in known else open_found(found, self._open_node),
                )
            )
        return news

    def _looked(self, news: list[tuple[str, Opened]]) -> None:
        if self._closed:
            for _, opened in news:
                self._retire(opened.node)
            return
        self._epoll.register(self._finder.fileno(), select.EPOLLIN)
        self._news += news
        self._host.drain()

    def _take_news(self) -> Iterator[InputEvent]:
        news, self._news = self._news, []
        for action, opened in news:
            if action == "remove":
                yield from self._remove(opened.found.path)
            elif opened.found.path not in self._by_path:
                self._add(opened)
            else:
                self._retire(opened.node)
        self._grabs.settle()
        self.introduce()
        self._host.devices_changed()

    def _retire(self, node: NodeLike | None) -> None:
        """Close it, after whatever another thread may still ask of it: its number must not be another's by then."""
        if node is not None:
            self._host.aside(node.close, lambda done: None)

    # Events

    def _read_channel(self, channel: Channel) -> Iterator[InputEvent]:
        dropped = channel.switches.dropped
        try:
            for event in channel.read():
                if self._counts(channel, event):
                    yield event
                if self._closed:
                    return
        except OSError as error:
            if error.errno not in abi.GONE:
                self._host.fault(
                    tr("{node} can't be read any more ({reason}); plug it in again").format(
                        node=channel.node.name, reason=reason_of(error)
                    )
                )
            yield from self._remove(channel.node.path)
            self._host.devices_changed()
            return
        if channel.switches.late_us is not None:
            self._mind_late(channel)
        if channel.switches.dropped != dropped:
            # The count is shown.
            self._host.at("dropped", self._host.now_us() + _COUNT_US, self._host.devices_changed)
        if channel.grabbed and not self._arrivals.due:
            self._arrivals.look_soon()
        if not channel.down and channel.wanted != channel.grabbed:
            self._grabs.settle()

    def _answer(self, control: str) -> None:
        """It is about to be told as pressed, unless it is down on another device already."""
        if control in self._down:
            return
        if (first := self._host.first_of(control)) and self._output.press(first):
            self._host.answered(control, first)

    def _counts(self, channel: Channel, heard: InputEvent) -> bool:
        """Whether it is the first press or the last release of that control on any device, or a notch."""
        event = heard.event
        if isinstance(event, Pressed):
            self._pressed_on[event.control] = channel.node.fd
            self._down[event.control] = self._down.get(event.control, 0) + 1
            return self._down[event.control] == 1
        return not isinstance(event, Released) or self._last(event)

    def _last(self, event: Released) -> bool:
        left = self._down.pop(event.control, 0) - 1
        if left > 0:
            self._down[event.control] = left
        return left == 0


def _first(parts: Collection[Channel]) -> Channel:
    """The interface whose name is the device's: others have a word more."""
    return min(parts, key=lambda channel: len(channel.node.name))
