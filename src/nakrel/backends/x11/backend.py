"""Input and output under X11 on one connection.

Interception: a passive grab on each slave device, ended the moment its press arrives. That short grab detaches the
slave, so no program sees the trigger go down or up, while injection goes on working.

A button whose macro presses that same button is the exception: the server would count the finger's hold and ours as
one. There the slave stays grabbed while the button is down, and its motion and other buttons are relayed.
"""

from __future__ import annotations

import contextlib
import threading
import time
from collections.abc import Callable, Collection, Iterable, Iterator, Sequence
from typing import Protocol, TypeVar

import xcffib.xinput
import xcffib.xproto

from nakrel.backends.physical import links_by_id, part
from nakrel.backends.protocols import BackendLost, CannotEmit, InputEvent
from nakrel.backends.x11.codes import control_of_button, control_of_keycode, number_of
from nakrel.backends.x11.devices import controls_of, devices_of
from nakrel.backends.x11.grabs import Grabs
from nakrel.backends.x11.holds import Holds
from nakrel.backends.x11.injector import Injector
from nakrel.backends.x11.wire import (
    ALL_DEVICES,
    DevicesChanged,
    Slave,
    XConnection,
    XiEvent,
    evtype,
    mark_client,
    mask,
    whole_ms,
)
from nakrel.core.model.controls import CONTROLS, KNOWN, Kind
from nakrel.core.model.devices import Device, KeyNaming, KeysAs
from nakrel.core.play.events import Emit, InputsLost, Pressed, Released, Turned
from nakrel.words import tr

__all__ = ["X11Backend"]

_KEY_REPEAT = 0x10000
_PRESSES = {evtype.KEY_PRESS, evtype.BUTTON_PRESS, evtype.RAW_KEY_PRESS, evtype.RAW_BUTTON_PRESS}
_RAW = {evtype.RAW_KEY_PRESS, evtype.RAW_KEY_RELEASE, evtype.RAW_BUTTON_PRESS, evtype.RAW_BUTTON_RELEASE}
_KEY = {evtype.KEY_PRESS, evtype.KEY_RELEASE, evtype.RAW_KEY_PRESS, evtype.RAW_KEY_RELEASE}
_GOODBYE_S = 2.0

T = TypeVar("T")


class Aside(Protocol):
    """How what waits for the server is done without anybody waiting (`protocols.Host.aside`)."""

    def __call__(self, work: Callable[[], T], done: Callable[[T], object]) -> None: ...


def _at_once(work: Callable[[], T], done: Callable[[T], object]) -> None:
    done(work())


class X11Backend:
    """Implements `InputBackend` and `OutputBackend`.

    `injector_is_xtest` also listens to and grabs the XTEST devices: for tests, where the hand is an injecting program.
    `holds` is told what the server has down for us; `devices_changed` is called when `devices` has become another, and
    `drain` when `read` should be called soon although the descriptor isn't readable.
    Raises `BackendUnavailable` when made without a fit X server.
    """

    name = "x11"
    moves_by_pixels = True

    def __init__(
        self,
        display: str | None = None,
        *,
        injector_is_xtest: bool = False,
        holds: Holds = Holds(),  # noqa: B008 - it keeps nothing
        aside: Aside | None = None,
        devices_changed: Callable[[], object] = lambda: None,
        drain: Callable[[], object] = lambda: None,
    ) -> None:
        self._aside: Aside = aside or _at_once
        self._devices_changed = devices_changed
        self._display = display
        self.note = tr("Keys and buttons with something attached do only that; a wheel still scrolls, too.")
        self._hand_is_xtest = injector_is_xtest
        self._conn, self._xi, xtest = XConnection.open(display)
        # What has to wait for the server's answer goes over a connection of its own, on another thread.
        self._other, self._other_xi, _ = XConnection.open(display)
        self._other_lock = threading.Lock()
        self._root = self._conn.get_setup().roots[self._conn.pref_screen].root
        self._out = Injector(self._conn, xtest, self._root, self._keyboard_for, holds)
        holds.note_client(*mark_client(self._conn, self._root))
        self._slaves: dict[int, Slave] = {}
        self._naming = KeyNaming()
        self._grabs = Grabs(self._conn, self._xi, self._root)
        self._relayed: set[str] = set()
        self._rest = [0.0, 0.0]
        # What is down, by control and device.
        self._down: dict[tuple[str, int], None] = {}
        # The device on which each control was pressed last.
        self._pressed_on: dict[str, int] = {}
        self._keyboard = 0
        # What went with devices that are gone, until it is read.
        self._losses: list[InputEvent] = []
        # Asked once: a connection that has broken no longer tells.
        self._fileno = self._conn.get_file_descriptor()
        self._closed = False
        self._select()
        self._know_devices(self._ask_devices())
        # The devices that were told last.
        self._told = self.devices()
        self._conn.on_early = self._drain = drain

    def fileno(self) -> int:
        """The connection's socket."""
        return self._fileno

    def devices(self) -> tuple[Device, ...]:
        """The slave devices, with the controls that X gives them."""
        return devices_of(self._slaves.values())

    def capture(self, controls: Collection[str], repeats_itself: Collection[str] = ()) -> None:
        """Grab exactly these controls on every device."""
        with _telling_of_loss():
            self._grabs.capture(controls, repeats_itself, self._slaves.values())

    def call_keys(self, naming: KeyNaming) -> None:
        """What the keys of devices count as from now on."""
        self._naming = naming
        with _telling_of_loss():
            self._call_keys()
            self._grabs.renew(self._slaves.values())
        self._told = self.devices()
        if self._losses:
            self._drain()

    def read(self) -> list[InputEvent]:
        """Everything fingers did since the last call."""
        with _telling_of_loss():
            return self._read()

    def _read(self) -> list[InputEvent]:
        found = self._take_losses()
        for event in self._conn.events():
            if isinstance(event, DevicesChanged):
                self._out.handled(event.serial)
                for device in self._slaves.keys() & event.gone:
                    self._lose(device)
                self._aside(self._ask_devices, self._devices_came)
                found += self._take_losses()
                continue
            if not isinstance(event, XiEvent):
                continue
            self._grabs.came_before(event)
            self._out.handled(event.serial)
            if event.type == evtype.RAW_MOTION:
                self._relay_motion(event)
            elif captured := self._finger_event(event):
                found.append(captured)
        self._conn.flush()
        return found + self._take_losses()

    def _take_losses(self) -> list[InputEvent]:
        losses, self._losses = self._losses, []
        return losses

    def emit(self, events: Sequence[Emit]) -> None:
        """Inject the events; each goes out by itself, so the server sees them in order and at their time."""
        cannot = ""
        with _telling_of_loss():
            for event in events:
                number = number_of(event.control)
                if number is None or (not number[0] and number[1] > self._xtest_buttons):
                    cannot = event.control
                elif event.lifts:
                    self._out.lift(event.control, self._held_on(event.control))
                else:
                    self._out.send(event.control, event.value)
        _still_there(self._conn)
        if cannot and CONTROLS[cannot].kind is Kind.KEY:
            raise CannotEmit(
                tr(
                    "X11 can't send {label} ({cannot}): it has no number for that key. Let the macro press another one."
                ).format(label=CONTROLS[cannot].label, cannot=cannot)
            )
        if cannot:
            raise CannotEmit(
                tr(
                    "X11 can't send {label} ({cannot}): its injection knows 10 buttons. Let the macro press "
                    "another button."
                ).format(label=CONTROLS[cannot].label, cannot=cannot)
            )

    def move_by(self, dx: int, dy: int) -> None:
        """Move the pointer by so many pixels."""
        with _telling_of_loss():
            self._out.move(dx, dy)
        _still_there(self._conn)

    def move_to(self, x: int, y: int, width: int, height: int) -> None:
        """Move the pointer to a pixel of the root window, whatever its size."""
        with _telling_of_loss():
            self._out.move_to(x, y)
        _still_there(self._conn)

    def close(self) -> None:
        """Let go of what is down, end the grabs, and disconnect as soon as the server has done it."""
        if self._closed:
            return
        self._closed = True
        self._conn.on_early = None
        with contextlib.suppress(xcffib.XcffibException, xcffib.ConnectionException, BackendLost):
            if not self._conn.has_error():
                self._out.let_all_go()
                self.capture(())
        self._aside(self._leave, lambda done: None)

    def _leave(self) -> None:
        # The server may drop a closed connection with its last requests unread, so it is waited for, but not for ever:
        # where it stands still, whoever comes after us lets go what is left.
        goodbye = threading.Thread(target=self._say_goodbye, daemon=True)
        goodbye.start()
        goodbye.join(_GOODBYE_S)

    def _say_goodbye(self) -> None:
        with self._other_lock, contextlib.suppress(xcffib.XcffibException, xcffib.ConnectionException, BackendLost):
            for conn in (self._other, self._conn):
                if not conn.has_error():
                    conn.core.GetInputFocus().reply()
                    if conn is self._conn:
                        self._out.all_handled()
                conn.disconnect()

    # Events in

    def _finger_event(self, event: XiEvent) -> InputEvent | None:
        raw = event.type in _RAW
        is_key = event.type in _KEY
        slave = self._slaves.get(event.device)
        # Raw events have a device's own numbers, others those that its buttons count as.
        detail = slave.button(event.detail) if raw and not is_key and slave else event.detail
        code = control_of_keycode(detail) if is_key else control_of_button(detail)
        if slave and code and is_key:
            code = slave.keys_as.called(code)
        own = self._out.is_own(event)
        kept = self._grabs.holds_device_of(event)
        if not raw and event.type in _PRESSES and not kept:
            self._grabs.end_or_keep(event, None if own else code)
        if own or code is None or slave is None or (raw and event.device != event.source):
            return None
        if is_key and event.flags & _KEY_REPEAT:
            return None
        if raw and kept:
            self._relay_button(event, code)
        return self._change(event, code, raw, kept)

    def _change(self, event: XiEvent, code: str, raw: bool, kept: bool) -> InputEvent | None:
        press = event.type in _PRESSES
        slave = self._slaves[event.device]
        where = slave.name
        if event.type in _KEY and not self._hand_is_xtest and slave.keys_as is KeysAs.KEYS:
            self._keyboard = event.device
        at_us = whole_ms(event.time_ms, time.monotonic_ns() // 1_000_000) * 1_000
        if KNOWN[code].kind is Kind.WHEEL:
            return self._turned(event, code, raw, kept, at_us) if press else None
        if press and raw and self._grabs.covers(event.device, code) and not kept:
            if not self._other_button_down(event, code) and not self._grabs.came_before(event, code):
                # The grab's own press follows; what was injected before it would be lost.
                return None
            # A passive grab of a button waits for a device without any other button down (X protocol, GrabButton), so
            # the programs have this one already.
            return self._pressed(event, code, True, at_us, where)
        if press == ((code, event.device) in self._down):
            # The second report of one release (raw and the grab's own).
            return None
        if press:
            return self._pressed(event, code, code not in self._grabs.captured, at_us, where)
        del self._down[code, event.device]
        self._grabs.let_go(event.device, code)
        return None if self._is_down(code) else InputEvent(Released(code, self._sent(event, code)), at_us, where)

    def _pressed(self, event: XiEvent, code: str, passed: bool, at_us: int, where: str) -> InputEvent | None:
        """A press, which is told where the control isn't down on another device already."""
        first = not self._is_down(code)
        self._down[code, event.device] = None
        self._pressed_on[code] = event.device
        return InputEvent(Pressed(code, passed, self._sent(event, code)), at_us, where) if first else None

    def _is_down(self, code: str) -> bool:
        return any(down == code for down, _ in self._down)

    def _turned(self, event: XiEvent, code: str, raw: bool, kept: bool, at_us: int) -> InputEvent | None:
        """A notch, which comes as a raw event and, where it is grabbed, as the grab's own: one of them counts."""
        passed = code not in self._grabs.captured
        if kept:
            # The device is ours while another of its buttons is down, and all of its events come to us as well.
            if not raw:
                return None
        elif raw and self._grabs.covers(event.device, code):
            if not self._other_button_down(event, code) and not self._grabs.came_before(event, code):
                # The grab's own follows.
                return None
            passed = True
        return InputEvent(Turned(code, 1, passed), at_us, self._slaves[event.device].name)

    def _other_button_down(self, event: XiEvent, code: str) -> bool:
        # A key may count as a button.
        is_button = KNOWN[code].kind is Kind.BUTTON and event.type not in _KEY
        held = (down for down, where in self._down if where == event.device and down != code)
        return is_button and any(KNOWN[down].kind is Kind.BUTTON for down in held)

    def _held_on(self, key: str) -> list[int]:
        """The devices on which a finger holds what the programs see as this key or button."""
        return [on for code, on in self._down if code == self._slaves[on].keys_as.called(key)]

    def _sent(self, event: XiEvent, code: str) -> str:
        """The key that the device sends for a control, '' for the control itself."""
        sent = control_of_keycode(event.detail) if event.type in _KEY else code
        return sent if sent and sent != code else ""

    # What is relayed while a grab is kept

    def _relay_motion(self, event: XiEvent) -> None:
        if event.device != event.source or not self._grabs.holds_device_of(event) or self._out.is_own(event):
            return
        # Whole pixels go out, and what is left of them counts for the next time.
        moved = [rest + delta for rest, delta in zip(self._rest, event.motion, strict=True)]
        whole = [int(part) for part in moved]
        self._rest = [part - captured for part, captured in zip(moved, whole, strict=True)]
        if any(whole):
            self._out.move(*whole)

    def _relay_button(self, event: XiEvent, code: str) -> None:
        """Pass on a button that isn't taken; its release, too, even when the grab has ended by then."""
        if code in self._grabs.captured or event.type in _KEY:
            return
        press = event.type in _PRESSES
        if code.startswith("WHEEL"):
            if press:
                self._out.send(code, 1)
        elif press:
            self._relayed.add(code)
            self._out.send(code, 1)
        elif code in self._relayed:
            self._relayed.discard(code)
            self._out.send(code, 0)

    # Devices

    def _select(self) -> None:
        chosen = xcffib.xinput.EventMask.synthetic(ALL_DEVICES, 1, [mask(_RAW | {evtype.HIERARCHY})])
        self._xi.XISelectEvents(self._root, 1, [chosen])
        self._conn.flush()

    def _ask_devices(self) -> list[Slave]:
        with self._other_lock, _telling_of_loss():
            found = self._other.slaves(self._other_xi)
        by_id = links_by_id()
        return [slave._replace(part=part(slave.node, slave.name, by_id)) for slave in found]

    def _devices_came(self, slaves: list[Slave]) -> None:
        if self._closed:
            return
        self._know_devices(slaves)
        with _telling_of_loss():
            self._grabs.renew(self._slaves.values())
            if self._losses:
                # The answer has us read.
                self._conn.core.GetInputFocus().discard_reply()
                self._conn.flush()
        before, self._told = self._told, self.devices()
        if self._told != before:
            self._devices_changed()

    def _know_devices(self, slaves: list[Slave]) -> None:
        self._xtest_buttons = max((s.buttons for s in slaves if s.is_xtest), default=10)
        self._out.xtest = frozenset(s.id for s in slaves if s.is_xtest)
        now = self._named(s for s in slaves if self._hand_is_xtest or not s.is_xtest)
        for gone in self._slaves.keys() - now.keys():
            self._lose(gone)
        self._slaves = now
        # Have it told when what their buttons count as changes; a class of events is a device and a kind (XIproto.txt).
        classes = [slave.id << 8 | self._conn.mapping_event for slave in now.values() if slave.buttons]
        self._xi.SelectExtensionEvent(self._root, len(classes), classes)
        self._conn.flush()
        self._grabs.keep_only(self._slaves)
        if self._keyboard not in self._slaves:
            boards = (s.id for s in now.values() if s.keys and s.keys_as is KeysAs.KEYS)
            self._keyboard = 0 if self._hand_is_xtest else next(boards, 0)

    def _named(self, slaves: Iterable[Slave]) -> dict[int, Slave]:
        """Devices by their numbers, each with its keys as wanted: all parts of a physical device go by its name."""
        found = tuple(slaves)
        names: dict[str, str] = {}
        for slave in sorted(found, key=lambda slave: len(slave.name)):
            names.setdefault(slave.device, slave.name)
        how = {s.device: self._naming.of(names[s.device], whole=s.part is not None) for s in found}
        return {slave.id: slave._replace(keys_as=how[slave.device]) for slave in found}

    def _call_keys(self) -> None:
        """Call the keys of all devices as wanted; what is down under another name than before counts as let go."""
        before, self._slaves = self._slaves, self._named(self._slaves.values())
        changed = {device for device, slave in self._slaves.items() if slave != before[device]}
        if self._keyboard in changed:
            self._keyboard = 0

        def renamed(code: str, device: int) -> bool:
            keys = before[device].keys_as.behind(code)
            return any(self._slaves[device].keys_as.called(key) != code for key in keys)

        for code, device in [each for each in self._down if each[1] in changed and renamed(*each)]:
            del self._down[code, device]
            if not self._is_down(code):
                now_us = time.monotonic_ns() // 1_000
                self._losses.append(InputEvent(Released(code), now_us, self._slaves[device].name))

    def _lose(self, device: int) -> None:
        """A device is gone: what fingers hold there counts as let go, whether or not the server says so."""
        slave = self._slaves.pop(device)
        self._grabs.forget(device)
        self._out.forget_device(device)
        gone = [code for code, on in self._down if on == device]
        for code in gone:
            del self._down[code, device]
            if code in self._relayed:
                self._relayed.discard(code)
                self._out.send(code, 0)
        left = {code for other in self._slaves.values() for code in controls_of(other)}
        # What was started on it has nobody to end it, though another device has such a button.
        last = {code for code, on in self._pressed_on.items() if on == device and not self._is_down(code)}
        lost = InputsLost(frozenset(set(controls_of(slave)) - left | last))
        now_us = time.monotonic_ns() // 1_000
        let_go = [code for code in gone if not self._is_down(code)]
        self._losses += [InputEvent(Released(code), now_us, slave.name) for code in let_go]
        self._losses.append(InputEvent(lost, now_us, slave.name))

    def _keyboard_for(self, code: str) -> int:
        """The keyboard to inject a key through, 0 for XTEST's: a grabbed key would come back to us."""
        return 0 if code in self._grabs.captured else self._keyboard


@contextlib.contextmanager
def _telling_of_loss() -> Iterator[None]:
    try:
        yield
    except xcffib.ProtocolException:
        raise
    except (xcffib.XcffibException, xcffib.ConnectionException):
        raise BackendLost(tr("the X server is gone")) from None


def _still_there(conn: XConnection) -> None:
    """Raise `BackendLost` for a connection that has broken."""
    if conn.has_error():
        raise BackendLost(tr("the X server is gone"))
