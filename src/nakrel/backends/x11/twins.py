"""What people have set for a device in the X server, set for the virtual one that stands for it, too.

    python -m nakrel.backends.x11.twins DISPLAY (LIKE TWIN)…

LIKE and TWIN are event nodes; "core" is the server's keyboard that stands for all keyboards. The X server gives each
device that comes its defaults. A layout by `setxkbmap`, keys by `xmodmap`, the rate of repeats by `xset`, a mouse's
speed and buttons by `xinput`: what was set by hand is set for the devices that were there, and would be gone while one
of them is captured. Desktops that set each device that comes do the same as this.

A process of its own, since it needs more of X than the service has loaded, and may have to wait for the server.
"""

from __future__ import annotations

import contextlib
import io
import re
import select
import struct
import subprocess
import sys
import time
from collections.abc import Iterable, Iterator
from typing import NamedTuple

import xcffib.xkb

from nakrel.backends.protocols import BackendLost, BackendUnavailable
from nakrel.backends.x11.wire import ALL_DEVICES, XConnection, evtype

__all__ = ["CORE", "LIMIT_S", "make_alike"]

CORE = "core"
# How long the server may take to open a new device, and xkbcomp for what it does: neither takes a tenth of it unless
# the machine is very busy.
LIMIT_S = 20.0
_TOOL_S = 10.0
# The properties that are settings: those of libinput and of the older drivers, and what the server itself has.
_SETTINGS = ("libinput ", "Evdev ", "Device Accel ", "Coordinate Transformation Matrix")
# Among them those that tell what a device can do.
_TOLD = ("Default", "Available", "Capabilities", "Version")
_MOST_WORDS = 256
# XIproto.h: the request's number; and of The X Keyboard Extension (XKB.h): the version, and which controls are meant.
_CHANGE_PROPERTY, _REPLACE = 57, 0
_XKB, _REPEAT_KEYS, _PER_KEY_REPEAT, _RECOMPUTE_ACTIONS = (1, 0), 1 << 0, 1 << 30, 1 << 1


class _Device(NamedTuple):
    """A slave device of the server: its number, whether it is a keyboard, and the event node that it reads."""

    id: int
    keyboard: bool
    node: str


class _Property(NamedTuple):
    """A property's type, how many bits each of its values has, and they as the wire has them."""

    type: int
    bits: int
    data: bytes


def make_alike(display: str, pairs: Iterable[tuple[str, str]], limit_s: float = LIMIT_S) -> None:
    """Give each twin the settings of the device that comes first in its pair, once the server has both; of several of
    the same kind those of the first. Waits so long for it; what isn't there by then stays as it is.

    Raises `BackendUnavailable` where no server answers, and `BackendLost` where it goes.
    """
    wanted = list(pairs)
    server = _Server(display)
    try:
        done: set[int] = set()
        end = time.monotonic() + limit_s
        while True:
            found = {(device.node, device.keyboard): device for device in server.devices()}
            missing = False
            for like, twin in wanted:
                for keyboard in (True, False):
                    source, target = found.get((like, keyboard)), found.get((twin, keyboard))
                    if source is None:
                        continue
                    if target is None:
                        missing = True
                    elif target.id not in done:
                        done.add(target.id)
                        server.copy(source, target)
            if not missing or not server.wait(end - time.monotonic()):
                return
    finally:
        server.close()


class _Server:
    def __init__(self, display: str) -> None:
        self._display = display
        self._conn, self._xi, _ = XConnection.open(display)
        self._xkb = self._conn(xcffib.xkb.key)
        self._xkb.UseExtension(*_XKB).reply()
        self._names: dict[int, str] = {}
        setup = self._conn.get_setup()
        self._keycodes, root = (setup.min_keycode, setup.max_keycode), setup.roots[self._conn.pref_screen].root
        chosen = xcffib.xinput.EventMask.synthetic(ALL_DEVICES, 1, [1 << evtype.HIERARCHY])
        # Before the devices are looked at, so that none comes in between.
        self._xi.XISelectEvents(root, 1, [chosen])

    def close(self) -> None:
        self._conn.disconnect()

    def wait(self, seconds: float) -> bool:
        """Wait until devices have come or changed; False where none did in time."""
        self._conn.flush()
        end = time.monotonic() + seconds
        while (left := end - time.monotonic()) > 0:
            if self._conn.events():
                return True
            select.select([self._conn.get_file_descriptor()], [], [], left)
        return False

    def devices(self) -> Iterator[_Device]:
        kinds = xcffib.xinput.DeviceType
        masters = []
        for info in self._xi.XIQueryDevice(ALL_DEVICES).reply().infos:
            if info.enabled and info.type in (kinds.SlavePointer, kinds.SlaveKeyboard):
                node = self._properties(info.deviceid, ("Device Node",)).get("Device Node")
                if node:
                    name = node.data.rstrip(b"\0").decode("utf-8", "replace")
                    yield _Device(info.deviceid, info.type == kinds.SlaveKeyboard, name)
            elif info.type == kinds.MasterKeyboard:
                masters.append(info.deviceid)
        # Whoever has several works with the first.
        yield _Device(min(masters), True, CORE)

    def copy(self, source: _Device, target: _Device) -> None:
        """A device may go at any time; then there is nothing to be set."""
        with contextlib.suppress(xcffib.ProtocolException):
            self._copy_properties(source, target)
        with contextlib.suppress(xcffib.ProtocolException):
            if source.keyboard:
                self._copy_keys(source, target)
            else:
                self._copy_buttons(source, target)

    def _properties(self, device: int, prefixes: tuple[str, ...]) -> dict[str, _Property]:
        found = {}
        for atom in self._xi.XIListProperties(device).reply().properties:
            if atom not in self._names:
                self._names[atom] = self._conn.core.GetAtomName(atom).reply().name.to_string()
            name = self._names[atom]
            if not name.startswith(prefixes) or any(word in name for word in _TOLD):
                continue
            told = self._xi.XIGetProperty(device, False, atom, 0, 0, _MOST_WORDS).reply()
            if told.format:
                values = getattr(told, f"data{told.format}").list
                data = struct.pack(f"={len(values)}{_LETTERS[told.format]}", *values)
                found[name] = _Property(told.type, told.format, data)
        return found

    def _copy_properties(self, source: _Device, target: _Device) -> None:
        wanted, has = (self._properties(device.id, _SETTINGS) for device in (source, target))
        atoms = {name: atom for atom, name in self._names.items()}
        for name, each in wanted.items():
            if name in has and has[name] != each:
                count = len(each.data) * 8 // each.bits
                # xcffib gets the length of this request wrong.
                head = struct.pack("=4xHBBIII", target.id, _REPLACE, each.bits, atoms[name], each.type, count)
                body = io.BytesIO(head + each.data + bytes(-len(each.data) % 4))
                # What can't be set says so, and all else is.
                with contextlib.suppress(xcffib.ProtocolException):
                    self._xi.send_request(_CHANGE_PROPERTY, body, is_checked=True).check()

    def _copy_buttons(self, source: _Device, target: _Device) -> None:
        wanted, has = (list(self._xi.GetDeviceButtonMapping(each.id).reply().map) for each in (source, target))
        # Buttons that only the twin has stay as they are.
        wanted = [*wanted[: len(has)], *has[len(wanted) :]]
        if wanted != has:
            self._xi.SetDeviceButtonMapping(target.id, len(wanted), wanted).reply()

    def _copy_keys(self, source: _Device, target: _Device) -> None:
        wanted, has = (self._keymap(device.id) for device in (source, target))
        if wanted and has:
            if _plain(wanted) != _plain(has):
                self._tool("-w", "0", "-i", str(target.id), "-", self._display, given=wanted)
            self._copy_modifiers(source, target)
        told = self._xkb.GetControls(source.id).reply()
        changed = _REPEAT_KEYS | _PER_KEY_REPEAT
        self._xkb.SetControls(
            target.id, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0,
            _REPEAT_KEYS, told.enabledControls & _REPEAT_KEYS, changed, told.repeatDelay, told.repeatInterval,
            0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, list(told.perKeyRepeat), is_checked=True,
        ).check()  # fmt: skip

    def _copy_modifiers(self, source: _Device, target: _Device) -> None:
        """What each key modifies: xkbcomp knows one modifier of a key, and some layouts give it two."""
        wanted, has = (self._modifiers(device.id) for device in (source, target))
        if wanted == has:
            return
        (first, last), part = self._keycodes, xcffib.xkb.MapPart.ModifierMap
        keys = [xcffib.xkb.KeyModMap.synthetic(key, wanted.get(key, 0)) for key in range(first, last + 1)]
        self._xkb.SetMap(
            target.id, part, _RECOMPUTE_ACTIONS, first, last, *[0] * 14, first, len(keys), len(keys), *[0] * 4, [keys],
            is_checked=True,
        ).check()  # fmt: skip

    def _modifiers(self, device: int) -> dict[int, int]:
        told = self._xkb.GetMap(device, xcffib.xkb.MapPart.ModifierMap, *[0] * 16).reply()
        return {each.keycode: each.mods for each in told.modmap_rtrn if each.mods}

    def _keymap(self, device: int) -> bytes:
        """Its keymap as XKB's text, with all that was changed in it; b"" where nobody tells."""
        return self._tool("-xkb", "-i", str(device), self._display, "-")

    def _tool(self, *arguments: str, given: bytes = b"") -> bytes:
        """Run xkbcomp, by which X servers make their keymaps."""
        try:
            ran = subprocess.run(["xkbcomp", *arguments], input=given, capture_output=True, timeout=_TOOL_S, check=True)
        except (OSError, subprocess.SubprocessError):
            return b""
        return ran.stdout


_LETTERS = {8: "B", 16: "H", 32: "I"}
# What xkbcomp writes otherwise of a keymap that was read from a text, though it is the same: the names of its parts,
# how far lines are indented, and combinations that make what no modifier makes.
_OTHERWISE = re.compile(rb'(?<=^xkb_)\w+ "[^"]*"|^[ \t]*map\[[^\n]*\]= Level1;\n|^[ \t]+', re.MULTILINE)


def _plain(keymap: bytes) -> bytes:
    """What it says."""
    return _OTHERWISE.sub(b"", keymap)


def main() -> None:
    """Make the devices alike that the command line names."""
    display, *nodes = sys.argv[1:]
    try:
        make_alike(display, zip(nodes[::2], nodes[1::2], strict=True))
    except (BackendUnavailable, BackendLost, xcffib.XcffibException, xcffib.ConnectionException):
        # Without the server there is nothing to be set.
        sys.exit(1)


if __name__ == "__main__":
    main()
