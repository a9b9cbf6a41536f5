"""The connection to the X server: XI2 events read straight from the wire, and the few requests that are needed.

Layouts after the X Input Extension protocol 2.2 (XI2proto.txt) and the XTEST protocol.
"""

from __future__ import annotations

import secrets
import struct
from collections.abc import Callable, Collection
from typing import NamedTuple

import xcffib
import xcffib.xinput
import xcffib.xproto
import xcffib.xtest
from xcffib import ffi

from nakrel.backends.physical import Part
from nakrel.backends.protocols import BackendLost, BackendUnavailable
from nakrel.core.model.devices import KeysAs
from nakrel.words import tr

__all__ = [
    "DevicesChanged",
    "Slave",
    "XConnection",
    "XiEvent",
    "evtype",
    "mark_client",
    "mask",
    "read_token",
    "whole_ms",
]

ALL_DEVICES = 0
ANY_MODIFIER = 0x80000000
XTEST_NAME = "XTEST"
# xcb puts a sequence number of its own after the first 32 bytes of an event; the rest follows it.
_AFTER_HEAD = 36
# The number of DeviceMappingNotify among the extension's older events (XIproto.txt).
_DEVICE_MAPPING_NOTIFY = 11
# The property that tells which event node a device reads (xserver-properties.h, XI_PROP_DEVICE_NODE), and the length of
# a path in words of four bytes.
_NODE, _NODE_WORDS = "Device Node", 1024
# Of each device in a hierarchy event its number, and what has become of it: SlaveRemoved or DeviceDisabled.
_HIERARCHY_INFO = struct.Struct("=H6xI")
_GONE = 1 << 3 | 1 << 7


class evtype:  # noqa: N801 - a namespace of the protocol's own numbers
    """Event types of XI2 that are used here."""

    KEY_PRESS = 2
    KEY_RELEASE = 3
    BUTTON_PRESS = 4
    BUTTON_RELEASE = 5
    HIERARCHY = 11
    RAW_KEY_PRESS = 13
    RAW_KEY_RELEASE = 14
    RAW_BUTTON_PRESS = 15
    RAW_BUTTON_RELEASE = 16
    RAW_MOTION = 17


def mask(kinds: Collection[int]) -> int:
    """Event types as XI2 wants to be told of them: a bit each."""
    return sum(1 << kind for kind in kinds)


class XiEvent(NamedTuple):
    """An XI2 event. `serial` is the number of our last request that the server had handled; `time_ms` is its clock;
    `motion` is how far a raw motion goes, in pixels."""

    type: int
    device: int
    source: int
    detail: int
    flags: int
    serial: int
    time_ms: int
    motion: tuple[float, float] = (0.0, 0.0)

    @property
    def kind(self) -> int:
        """The core protocol's number for it: XI2 has the same, and raw events come eleven later."""
        return self.type - 11 if self.type >= evtype.RAW_KEY_PRESS else self.type


class DevicesChanged(NamedTuple):
    """Devices came, went, were switched on or off, or their buttons count as others: those that can't be used any more
    are `gone`. `serial` as in `XiEvent`."""

    gone: tuple[int, ...]
    serial: int


class Slave(NamedTuple):
    """A slave device: `buttons` is their number, `keys` whether it has keys, and `counts_as` which button each of them
    is for the programs, 0 for none: people turn a wheel round or swap buttons that way. `node` is the event node that
    it reads, '' where the server doesn't say, and `part` what the system tells of that. `keys_as` is what its keys
    count as."""

    id: int
    name: str
    buttons: int
    keys: bool
    counts_as: tuple[int, ...] = ()
    node: str = ""
    part: Part | None = None
    keys_as: KeysAs = KeysAs.KEYS

    @property
    def device(self) -> str:
        """What all parts of one physical device share, as far as anything tells of that."""
        return self.part.device if self.part else f"{self.id}:{self.name}"

    def button(self, number: int) -> int:
        """Which button this one of the device's own is for the programs, 0 for none."""
        return self.counts_as[number - 1] if 0 < number <= len(self.counts_as) else number

    @property
    def is_xtest(self) -> bool:
        """Whether injected events seem to come from it."""
        return XTEST_NAME in self.name


def _motion(event: object, head: bytes) -> tuple[float, float]:
    """The first two axes of a raw event: a mask of the axes that moved, then a 32.32 number for each of them."""
    length, words = struct.unpack_from("=I", head, 4)[0], struct.unpack_from("=H", head, 22)[0]
    data = ffi.buffer(event, _AFTER_HEAD + length * 4)
    (mask,) = struct.unpack_from("=I", data, _AFTER_HEAD) if words else (0,)
    offset, moved = _AFTER_HEAD + words * 4, [0.0, 0.0]
    for axis in range(2):
        if mask >> axis & 1:
            whole, part = struct.unpack_from("=iI", data, offset)
            moved[axis] = whole + part / 2**32
            offset += 8
    return moved[0], moved[1]


def _devices_changed(event: object, head: bytes, serial: int) -> DevicesChanged:
    """What a hierarchy event says of each device (XI2proto.txt, HIERARCHYINFO)."""
    (count,) = struct.unpack_from("=H", head, 20)
    data = ffi.buffer(event, _AFTER_HEAD + count * _HIERARCHY_INFO.size)
    infos = (_HIERARCHY_INFO.unpack_from(data, _AFTER_HEAD + n * _HIERARCHY_INFO.size) for n in range(count))
    return DevicesChanged(tuple(device for device, flags in infos if flags & _GONE), serial)


def whole_ms(time_ms: int, now_ms: int) -> int:
    """A server's time in milliseconds of CLOCK_MONOTONIC, which it counts in 32 bits: they wrap after 49.7 days. It may
    be a little later than `now_ms`, since it is told by another process."""
    behind = (now_ms - time_ms) & 0xFFFFFFFF
    return now_ms - (behind if behind < 1 << 31 else behind - (1 << 32))


class XConnection(xcffib.Connection):
    """A connection that hands XI2 events over as `XiEvent` or `DevicesChanged` and leaves other events to xcffib.
    `mapping_event` is the number of the event that tells that what a device's buttons count as has changed.

    xcb reads what has come whenever it writes, and its socket isn't readable for that any more: `on_early` is called
    then, if it is set, and is to have `events` called soon.
    """

    mapping_event = -1
    on_early: Callable[[], object] | None = None
    # What has been found when something was sent.
    _early: object = None

    def flush(self) -> None:
        """Send what has been asked for."""
        super().flush()
        if self.on_early is None or self._early is not None:
            return
        try:
            self._early = self.poll_for_event()
        except (xcffib.XcffibException, xcffib.Error):
            # An X error is left out as in `events`, which tells of a broken connection, too.
            self.on_early()
        else:
            if self._early is not None:
                self.on_early()

    def hoist_event(self, e):
        """Turn xcb's event into an `XiEvent`, a `DevicesChanged`, an xcffib event, or raise the X error it is."""
        if e.response_type & 0x7F == self.mapping_event:
            # xcffib takes it for one of XI2 that has the same number.
            return DevicesChanged((), struct.unpack_from("=2xH", ffi.buffer(e, 32))[0])
        if e.response_type != 35:
            return super().hoist_event(e)
        head = ffi.buffer(e, 32)
        serial, kind, device, time_ms, detail = struct.unpack_from("=2xH4xHHII", head)
        if kind in (evtype.RAW_KEY_PRESS, evtype.RAW_KEY_RELEASE, evtype.RAW_BUTTON_PRESS, evtype.RAW_BUTTON_RELEASE):
            source, flags = struct.unpack_from("=HxxI", head, 20)
        elif kind == evtype.RAW_MOTION:
            (source,) = struct.unpack_from("=H", head, 20)
            return XiEvent(kind, device, source, detail, 0, serial, time_ms, _motion(e, head))
        elif kind == evtype.HIERARCHY:
            return _devices_changed(e, head, serial)
        elif evtype.KEY_PRESS <= kind <= evtype.BUTTON_RELEASE:
            source, flags = struct.unpack_from("=HxxI", ffi.buffer(e, 64), 56)
        else:
            source, flags = device, 0
        return XiEvent(kind, device, source, detail, flags, serial, time_ms)

    @classmethod
    def open(
        cls, display: str | None
    ) -> tuple[XConnection, xcffib.xinput.xinputExtension, xcffib.xtest.xtestExtension]:
        """Connect and ask for XI 2.2 and XTEST; raises `BackendUnavailable`."""
        try:
            conn = cls(display=display)
            xi = conn(xcffib.xinput.key)
            xtest = conn(xcffib.xtest.key)
            version = xi.XIQueryVersion(2, 2).reply()
            conn.mapping_event = conn.first_event(xcffib.xinput.key) + _DEVICE_MAPPING_NOTIFY
            xtest.GetVersion(2, 2).reply()
        except (xcffib.XcffibException, OSError) as error:
            raise BackendUnavailable(
                tr("no X server answers on {display}: {reason}").format(display=display or "$DISPLAY", reason=error)
            ) from None
        if (version.major_version, version.minor_version) < (2, 2):
            conn.disconnect()
            raise BackendUnavailable(tr("the X server is too old: it has no X Input 2.2"))
        return conn, xi, xtest

    def first_event(self, key: xcffib.ExtensionKey) -> int:
        """The number of an extension's first event."""
        return int(self.core.QueryExtension(len(key.name), key.name).reply().first_event)

    def events(self) -> list[object]:
        """All events that have arrived, without waiting; X errors are left out. Raises `BackendLost`."""
        found: list[object] = []
        if self._early is not None:
            found.append(self._early)
            self._early = None
        while True:
            try:
                event = self.poll_for_event()
            except (xcffib.ProtocolException, xcffib.Error):
                continue
            except (xcffib.XcffibException, xcffib.ConnectionException) as error:
                raise BackendLost(tr("the X server is gone: {reason}").format(reason=error)) from None
            if event is None:
                return found
            found.append(event)

    def slaves(self, xi: xcffib.xinput.xinputExtension) -> list[Slave]:
        """All enabled slave devices."""
        infos = [info for info in xi.XIQueryDevice(ALL_DEVICES).reply().infos if info.enabled and _is_slave(info)]
        found = [_slave(info) for info in infos]
        maps = [xi.GetDeviceButtonMapping(slave.id) if slave.buttons else None for slave in found]
        atom = self.core.InternAtom(True, len(_NODE), _NODE).reply().atom
        nodes = [xi.XIGetProperty(slave.id, False, atom, 0, 0, _NODE_WORDS) if atom else None for slave in found]
        told = zip(found, maps, nodes, strict=True)
        return [slave._replace(counts_as=_counts_as(a), node=_node(b)) for slave, a, b in told]


def _is_slave(info: xcffib.xinput.XIDeviceInfo) -> bool:
    return info.type in (xcffib.xinput.DeviceType.SlavePointer, xcffib.xinput.DeviceType.SlaveKeyboard)


def _counts_as(cookie: xcffib.xinput.GetDeviceButtonMappingCookie | None) -> tuple[int, ...]:
    try:
        return tuple(cookie.reply().map) if cookie else ()
    except xcffib.ProtocolException:
        # The device has gone since; an event of that follows.
        return ()


def _node(cookie: xcffib.xinput.XIGetPropertyCookie | None) -> str:
    try:
        told = cookie.reply() if cookie else None
    except xcffib.ProtocolException:
        return ""
    return bytes(told.data8.list).rstrip(b"\0").decode("utf-8", "replace") if told and told.format == 8 else ""


def _slave(info: xcffib.xinput.XIDeviceInfo) -> Slave:
    kinds = xcffib.xinput.DeviceClassType
    name = bytes(info.name.buf()).decode("utf-8", "replace")
    buttons = next((each.num_buttons for each in info.classes if each.type == kinds.Button), 0)
    keys = any(each.type == kinds.Key for each in info.classes)
    return Slave(info.deviceid, name, buttons, keys)


_TOKEN = "_NAKREL_CLIENT"


def mark_client(conn: XConnection, root: int) -> tuple[int, int]:
    """Make a window that is never shown, by which the server knows this client; the window, and the number that is
    written on it."""
    window, token = int(conn.generate_id()), secrets.randbits(32)
    conn.core.CreateWindow(0, window, root, 0, 0, 1, 1, 0, xcffib.xproto.WindowClass.InputOnly, 0, 0, [])
    atom = conn.core.InternAtom(False, len(_TOKEN), _TOKEN).reply().atom
    mode, kind = xcffib.xproto.PropMode.Replace, xcffib.xproto.Atom.CARDINAL
    conn.core.ChangeProperty(mode, window, atom, kind, 32, 1, [token])
    return window, token


def read_token(conn: XConnection, window: int) -> int | None:
    """The number that `mark_client` wrote on a window; None where there is none. Raises `xcffib.XcffibException` for a
    window that isn't there."""
    atom = conn.core.InternAtom(False, len(_TOKEN), _TOKEN).reply().atom
    found = conn.core.GetProperty(False, window, atom, xcffib.xproto.Atom.CARDINAL, 0, 1).reply()
    return int(found.value.to_atoms()[0]) if found.value_len == 1 else None
