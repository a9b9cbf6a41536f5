"""A real Xorg with a mouse and a keyboard of its own: separate devices, as on a desk, and not one injected into.

Needs xserver-xorg-core (its inputtest driver) and xserver-xorg-video-dummy. The driver's protocol is that of
xf86-input-inputtest-protocol.h, xorg-server 21.1.
"""

from __future__ import annotations

import contextlib
import os
import re
import shutil
import socket
import struct
import tempfile
from pathlib import Path

from nakrel.core.model.controls import CONTROLS
from tests.support import LIMIT_S, XServer

_CLIENT_VERSION, _WAIT_FOR_SYNC, _MOTION, _BUTTON, _KEY = 0, 1, 2, 4, 5
# A button event carries values for 64 axes, which stay as they are here.
_NO_AXES = bytes(16 + 2 * 64 * 8)
_MODULES = Path("/usr/lib/xorg/modules")
_KEYCODE_OFFSET = 8

# A screen that nobody sees, for every Xorg of the tests.
SCREEN = """\
Section "Device"
    Identifier "card"
    Driver "dummy"
    VideoRam 64000
EndSection
Section "Monitor"
    Identifier "monitor"
    HorizSync 5-200
    VertRefresh 5-200
    Modeline "1400x900" 103.25 1400 1480 1624 1848 900 903 913 934
EndSection
Section "Screen"
    Identifier "screen"
    Device "card"
    Monitor "monitor"
    DefaultDepth 24
    SubSection "Display"
        Depth 24
        Virtual 1400 900
    EndSubSection
EndSection
"""
_CONFIG = """
Section "ServerFlags"
    Option "AutoAddDevices" "false"
    Option "AutoEnableDevices" "false"
    Option "DontVTSwitch" "true"
EndSection
Section "ServerLayout"
    Identifier "layout"
    Screen "screen"
    InputDevice "mouse" "CorePointer"
    InputDevice "keyboard" "CoreKeyboard"
{more}EndSection
{screen}Section "InputDevice"
    Identifier "mouse"
    Driver "inputtest"
    Option "SocketPath" "{folder}/mouse"
    Option "DeviceType" "Pointer"
    Option "PointerButtonCount" "20"
    Option "AccelerationScheme" "none"
EndSection
Section "InputDevice"
    Identifier "keyboard"
    Driver "inputtest"
    Option "SocketPath" "{folder}/keyboard"
    Option "DeviceType" "Keyboard"
    Option "XkbRules" "evdev"
EndSection
"""


# A second of each, which nobody presses.
_TWINS = """
Section "InputDevice"
    Identifier "twin mouse"
    Driver "inputtest"
    Option "SocketPath" "{folder}/twin-mouse"
    Option "DeviceType" "Pointer"
    Option "PointerButtonCount" "12"
    Option "AccelerationScheme" "none"
EndSection
Section "InputDevice"
    Identifier "twin keyboard"
    Driver "inputtest"
    Option "SocketPath" "{folder}/twin-keyboard"
    Option "DeviceType" "Keyboard"
    Option "XkbRules" "evdev"
EndSection
"""


class _Device:
    """One connection to one device; the driver hangs when a second one follows the first."""

    def __init__(self, path: Path) -> None:
        self._sock = socket.socket(socket.AF_UNIX)
        self._sock.settimeout(LIMIT_S)
        self._sock.connect(str(path))
        self._send(_CLIENT_VERSION, struct.pack("=HH", 1, 1))
        self._sock.recv(64)

    def _send(self, kind: int, body: bytes) -> None:
        self._sock.sendall(struct.pack("=Ii", 8 + len(body), kind) + body)

    def button(self, number: int, press: bool) -> None:
        self._send(_BUTTON, struct.pack("=iiI4x", 0, number, press) + _NO_AXES)
        self._sync()

    def move(self, dx: float, dy: float) -> None:
        axes = struct.pack("=I8s4x64d64d", 0, bytes([3]), dx, dy, *[0.0] * 126)
        self._send(_MOTION, struct.pack("=I4x", 0) + axes)
        self._sync()

    def key(self, keycode: int, press: bool) -> None:
        self._send(_KEY, struct.pack("=iI", keycode, press))
        self._sync()

    def _sync(self) -> None:
        """Wait until the server has handled what was sent."""
        self._send(_WAIT_FOR_SYNC, b"")
        self._sock.recv(64)

    def close(self) -> None:
        self._sock.close()


class XorgServer(XServer):
    """Xorg with dummy screen, and a hand on the two devices; moving and finding windows is left to xdotool. With
    `twins` there is another of each."""

    def __init__(self, *, twins: bool = False) -> None:
        self._folder = tempfile.TemporaryDirectory()
        folder = Path(self._folder.name)
        more = '    InputDevice "twin mouse"\n    InputDevice "twin keyboard"\n' if twins else ""
        text = _CONFIG.format(folder=folder, screen=SCREEN, more=more)
        (folder / "xorg.conf").write_text(text + (_TWINS.format(folder=folder) if twins else ""))
        super().__init__()
        self.environment.pop("NAKREL_X11_INJECTOR")
        self._mouse, self._keyboard = (_Device(folder / name) for name in ("mouse", "keyboard"))
        # As on a desk, where somebody has logged in: until a key is pressed the server has a keymap of its own.
        self.injector("key", "Shift_L")

    def _command(self, display_fd: int) -> list[str]:
        folder = self._folder.name
        log = ["-logfile", f"{folder}/log", "-config", f"{folder}/xorg.conf"]
        return ["Xorg", "-displayfd", str(display_fd), "-noreset", "-nolisten", "tcp", *log]

    def injector(self, *arguments: str) -> str:
        """As xdotool's arguments say, with buttons and keys on the devices themselves."""
        match arguments:
            case ("mousedown" | "mouseup" as edge, button):
                self._mouse.button(int(button), edge == "mousedown")
            case ("click", "--repeat", count, button):
                for _ in range(int(count)):
                    self._edges(self._mouse.button, int(button))
            case ("click", button):
                self._edges(self._mouse.button, int(button))
            case ("mousemove_relative", dx, dy):
                self._mouse.move(float(dx), float(dy))
            case ("keydown" | "keyup" as edge, name):
                self._keyboard.key(_keycode(name), edge == "keydown")
            case ("key", name):
                self._edges(self._keyboard.key, _keycode(name))
            case _:
                return super().injector(*arguments)
        return ""

    @staticmethod
    def _edges(change: object, number: int) -> None:
        change(number, True)  # type: ignore[operator]
        change(number, False)  # type: ignore[operator]

    def end_server(self) -> None:
        """Take the server away."""
        with contextlib.suppress(AttributeError):
            self._mouse.close()
            self._keyboard.close()
        super().end_server()
        self._folder.cleanup()

    @classmethod
    def missing(cls) -> str:
        """What isn't installed, or that Xorg may not be started here."""
        lacking = [name for name in ("Xorg", "openbox", "xdotool") if not shutil.which(name)]
        for module in ("input/inputtest_drv.so", "drivers/dummy_drv.so"):
            if not (_MODULES / module).exists():
                lacking.append(module)
        if os.getuid() != 0:
            lacking.append("root, which Xorg needs")
        return ", ".join(lacking)


# Keys that X calls otherwise than the kernel does.
_ELSE = {"Shift_L": "LEFTSHIFT"}


def _keycode(name: str) -> int:
    """The keycode of a key that is called by its X name, on the US layout."""
    code = "KEY_" + _ELSE.get(name, re.sub(r"_", "", name).upper())
    return CONTROLS[code].number + _KEYCODE_OFFSET
