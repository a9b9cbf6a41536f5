"""The whole way on a real kernel and a real desktop server: device, service, virtual device, libinput, Xorg, game."""

from __future__ import annotations

import multiprocessing
import os
import re
import shutil
import signal
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path

import pytest
import xcffib
import xcffib.xinput
import xcffib.xkb
import xcffib.xproto
from PyQt6.QtWidgets import QApplication, QPlainTextEdit

from nakrel import protocol as m
from nakrel.backends.x11.backend import X11Backend
from nakrel.backends.x11.wire import XConnection
from nakrel.core.model.cells import HoldLayer, RunMacro
from nakrel.core.model.controls import CONTROLS
from nakrel.core.model.devices import KeyNaming
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import Layer, MatchBy, Profile, ProgramRule, SetUp
from nakrel.core.model.steps import Origin, Pointer, Tap
from nakrel.core.play.events import Pressed, Released
from tests.kernel.conftest import MS, shot
from tests.kernel.injector import HidKeyboard, HidMouse, HidThumbPad, UsbKeyboard, UsbMouse, outside
from tests.loaded import LoadedService
from tests.support import GAME, LIMIT_S, PracticeGame, SdlGame, XServer, wait_for
from tests.xorg import SCREEN

_DRIVER = Path("/usr/lib/xorg/modules/input/libinput_drv.so")
_CONFIG = f"""{SCREEN}
Section "Module"
    Disable "glx"
EndSection
"""

pytestmark = [
    pytest.mark.skipif(not outside(), reason="starts an Xorg on this machine's devices: in the test machine only"),
    pytest.mark.skipif(not _DRIVER.exists() or not shutil.which("Xorg"), reason="needs Xorg with its libinput driver"),
    pytest.mark.timeout(300),
]


class _Desktop(XServer):
    """Xorg on the kernel's devices, as desktops run it."""

    def __init__(self) -> None:
        self._folder = tempfile.TemporaryDirectory()
        Path(self._folder.name, "xorg.conf").write_text(_CONFIG)
        super().__init__()
        self.environment.pop("NAKREL_X11_INJECTOR")

    def _command(self, display_fd: int) -> list[str]:
        log = ["-logfile", f"{self._folder.name}/log", "-config", f"{self._folder.name}/xorg.conf"]
        return ["Xorg", "-displayfd", str(display_fd), "-noreset", "-nolisten", "tcp", "-ac", "-novtswitch", *log]

    def knows(self, name: str, count: int) -> None:
        """Wait until the server has so many devices of that name."""

        def found() -> bool:
            told = subprocess.run(
                ["xinput", "list", "--name-only"], env=self.environment, capture_output=True, text=True
            )
            return told.stdout.splitlines().count(name) >= count

        wait_for(found, f"{count} devices {name!r} in Xorg", 60)

    def end_server(self) -> None:
        super().end_server()
        self._folder.cleanup()


@pytest.fixture
def desktop() -> Iterator[_Desktop]:
    made = _Desktop()
    yield made
    made.end_server()


def test_the_practice_game_under_xorg(
    mended: str, mouse: UsbMouse | HidMouse, keyboard: UsbKeyboard | HidKeyboard, desktop: _Desktop, tmp_path: Path
):
    service = LoadedService(tmp_path / "home", DISPLAY=desktop.display)
    game = None
    try:
        assert service.status().backend == "kernel"
        service.call(m.PutMacro(shot(Play(Mode.HELD, pause_us=60 * MS), hold_ms=40)))
        rule = ProgramRule(MatchBy.NAME, GAME)
        setups = (SetUp("Main", {"BTN_SIDE": RunMacro("shot")}),)
        service.call(m.PutProfile(Profile(id="kiln", name="Kiln Race", programs=(rule,), setups=setups)))
        game = PracticeGame(desktop, tmp_path, fps=60)
        service.hear(lambda: service.status().live == "kiln", "the game's profile")
        desktop.knows("Nakrel keyboard and mouse", 1)
        desktop.knows("QEMU QEMU USB Mouse", 2)
        service.hear(lambda: any(d.note.startswith("captured") for d in service.devices()), "the grab")
        mouse.edge("BTN_SIDE", 1)
        wait_for(lambda: game.arrivals("Q") >= 8, "presses of Q", 60)
        mouse.edge("BTN_SIDE", 0)
        service.hear(lambda: not service.status().running, "the end of the macro")
        wait_for(lambda: game.down() == set(), "everything up")
        keyboard.tap("KEY_E")
        wait_for(lambda: game.arrivals("E") == 1, "a key that nobody took")
        # The trigger itself never reached the game, down or up.
        arrived = {e["control"] for e in game.entries() if e["event"] == "arrived"}
        assert arrived == {"Q", "E"}
        game.end()
        service.hear(lambda: service.status().live == "everyday", "Everyday")
    finally:
        service.tell()
        service.end(signal.SIGTERM)
        if game:
            game.end()


def test_a_game_that_turns_its_view_by_the_mouse_under_xorg(
    mended: str, mouse: UsbMouse | HidMouse, desktop: _Desktop, tmp_path: Path
):
    """It gets the mouse's own units, whatever is held, and what a macro moves by."""
    pytest.importorskip("pygame", reason="needs SDL")
    service = LoadedService(tmp_path / "home", DISPLAY=desktop.display)
    game = None
    try:
        assert service.status().backend == "kernel"
        step = Pointer(x=-7, y=40, origin=Origin.POINTER)
        recoil = Macro(id="recoil", name="Recoil", loop=(step, Tap(control="KEY_Q", hold_us=40 * MS), step))
        service.call(m.PutMacro(recoil))
        rule = ProgramRule(MatchBy.NAME, GAME)
        layer = Layer("Harbour", {"BTN_MIDDLE": RunMacro("recoil")})
        setups = (SetUp("Main", {"BTN_SIDE": HoldLayer("Harbour")}, (layer,)),)
        service.call(m.PutProfile(Profile(id="kiln", name="Kiln Race", programs=(rule,), setups=setups)))
        game = SdlGame(desktop, tmp_path)
        service.hear(lambda: service.status().live == "kiln", "the game's profile")
        desktop.knows("Nakrel keyboard and mouse", 1)
        desktop.knows("QEMU QEMU USB Mouse", 2)
        service.hear(lambda: any(d.note.startswith("captured") for d in service.devices()), "the grab")
        for held in (False, True):
            before, _ = game.moved()
            if held:
                mouse.edge("BTN_SIDE", 1)
            for _ in range(10):
                mouse.move(5, 0)
            wait_for(lambda before=before: game.moved()[0] - before >= 50, "the turn", 60)
            assert game.moved()[0] - before == 50
        before_x, before_y = game.moved()
        mouse.edge("BTN_MIDDLE", 1)
        mouse.edge("BTN_MIDDLE", 0)
        wait_for(lambda: game.moved()[1] - before_y >= 80, "both moves", 60)
        assert (game.moved()[0] - before_x, game.moved()[1] - before_y) == (-14, 80)
        mouse.edge("BTN_SIDE", 0)
        wait_for(lambda: len(game.edges()) >= 2, "the key between both", 60)
        # The buttons themselves never reached the game.
        assert {what for what, _ in game.edges()} == {0x14}
    finally:
        service.tell()
        service.end(signal.SIGTERM)
        if game:
            game.end()


def _show(came: Path, environment: dict[str, str]) -> None:
    os.environ.update(environment)
    app = QApplication([])
    field = QPlainTextEdit()
    field.setWindowTitle("Field")
    field.textChanged.connect(lambda: came.write_text(field.toPlainText(), encoding="utf-8"))
    field.show()
    app.exec()


class _Field:
    """A window of its own process that keeps in a file what is typed into it; forked, since loading Qt takes long."""

    def __init__(self, desktop: _Desktop, came: Path, **environment: str) -> None:
        context = multiprocessing.get_context("fork")
        self._process = context.Process(target=_show, args=(came, {**desktop.environment, **environment}))
        self._process.start()
        self._desktop = desktop

    def to_front(self) -> None:
        """Have the keyboard."""
        window = wait_for(self._find, "the field", 60)
        self._desktop.injector("windowactivate", "--sync", window)

    def _find(self) -> str:
        command = ["xdotool", "search", "--onlyvisible", "--name", "^Field$"]
        return subprocess.run(command, env=self._desktop.environment, capture_output=True, text=True).stdout.strip()

    def close(self) -> None:
        self._process.terminate()
        self._process.join(LIMIT_S)


def test_text_is_typed_right_for_the_layout_in_use(mended: str, desktop: _Desktop, tmp_path: Path):
    wanted = "Grüße aus Köln: 5 € für Zoë @ 100% {so}\nund ~ weiter"
    subprocess.run(["setxkbmap", "de"], env=desktop.environment, check=True)
    service = LoadedService(tmp_path / "home", DISPLAY=desktop.display)
    came = tmp_path / "came"
    field = _Field(desktop, came, QT_IM_MODULE="compose")
    try:
        field.to_front()
        desktop.knows("Nakrel keyboard and mouse", 1)
        # A keyboard that comes later has the layout of the server's start, but for what is done about that.
        ours = "Nakrel keyboard and mouse"
        wait_for(lambda: all(map(_is_german, _keymaps(desktop, ours))), "its layout")
        # A key that is down for long in an emulated machine's time would repeat.
        subprocess.run(["xset", "r", "off"], env=desktop.environment, check=True)
        # Slowly: Qt hands composed characters over at once and plain keys by its queue, which is long under emulation.
        service.call(m.TypeText(wanted, rate=5))
        wait_for(lambda: came.exists() and came.read_text(encoding="utf-8") == wanted, "the text", 60)
    finally:
        sys.stdout.write(f"came: {came.read_text(encoding='utf-8') if came.exists() else None!r}\n")
        field.close()
        service.end(signal.SIGTERM)


def _ids(desktop: _Desktop, name: str, *, keyboards: bool) -> list[int]:
    """The numbers that the server gave to devices of that name, in the order in which they came."""
    conn, xi, _ = XConnection.open(desktop.display)
    kind = xcffib.xinput.DeviceType.SlaveKeyboard if keyboards else xcffib.xinput.DeviceType.SlavePointer
    infos = xi.XIQueryDevice(0).reply().infos
    found = [info.deviceid for info in infos if info.type == kind and bytes(info.name.buf()).decode() == name]
    conn.disconnect()
    return found


def _run(desktop: _Desktop, *command: str) -> str:
    return subprocess.run(command, env=desktop.environment, capture_output=True, text=True, check=True).stdout


def _map(desktop: _Desktop, pointer: int) -> list[str]:
    """Which button each of the first five is for programs."""
    return _run(desktop, "xinput", "get-button-map", str(pointer)).split()[:5]


# By keycode what its key has: the symbols, how they lie in groups, and by which modifiers they are chosen.
_Keymap = dict[int, tuple[list[int], int, list[int]]]


def _keymaps(desktop: _Desktop, name: str) -> list[_Keymap]:
    """The symbols on the keys of each keyboard of that name."""
    conn = xcffib.connect(desktop.display)
    xkb = conn(xcffib.xkb.key)
    xkb.UseExtension(1, 0).reply()
    found = []
    for each in _ids(desktop, name, keyboards=True):
        told = xkb.GetMap(each, xcffib.xkb.MapPart.KeySyms, *[0] * 16).reply()
        keys = ((list(key.syms), key.groupInfo, list(key.kt_index)) for key in told.syms_rtrn)
        found.append(dict(enumerate(keys, told.firstKeySym)))
    conn.disconnect()
    return found


def _is_german(keymap: _Keymap) -> bool:
    """Whether Y and Z lie as on a German keyboard; keycodes are the kernel's numbers and 8."""
    y, z = (keymap[CONTROLS[code].number + 8][0][0] for code in ("KEY_Y", "KEY_Z"))
    return (y, z) == (ord("z"), ord("y"))


def test_what_was_set_by_hand_holds_while_devices_are_captured(
    mended: str, mouse: UsbMouse | HidMouse, keyboard: UsbKeyboard | HidKeyboard, desktop: _Desktop, tmp_path: Path
):
    """A layout, the rate of repeats, and a mouse's speed and buttons, as login scripts set them."""
    desktop.knows("QEMU QEMU USB Mouse", 1)
    desktop.knows("QEMU QEMU USB Keyboard", 1)
    _run(desktop, "setxkbmap", "de")
    _run(desktop, "xset", "r", "rate", "250", "20")
    (pointer,) = map(str, _ids(desktop, "QEMU QEMU USB Mouse", keyboards=False))
    _run(desktop, "xinput", "set-prop", pointer, "libinput Accel Speed", "-0.5")
    _run(desktop, "xinput", "set-prop", pointer, "libinput Left Handed Enabled", "1")
    _run(desktop, "xinput", "set-button-map", pointer, "1", "2", "3", "5", "4")
    service = LoadedService(tmp_path / "home", DISPLAY=desktop.display)
    came = tmp_path / "came"
    field = _Field(desktop, came)
    try:
        service.call(m.PutMacro(shot(Play())))
        setups = (SetUp("Main", {"KEY_A": RunMacro("shot"), "BTN_SIDE": RunMacro("shot")}),)
        service.call(m.PutProfile(Profile(id="everyday", name="Everyday", setups=setups)))
        service.hear(lambda: sum(d.note.startswith("captured") for d in service.devices()) == 2, "the grabs")
        desktop.knows("QEMU QEMU USB Keyboard", 2)
        desktop.knows("QEMU QEMU USB Mouse", 2)
        # The grabs wait for this, but not as long as it takes under emulation.
        wait_for(lambda: _is_german(_keymaps(desktop, "QEMU QEMU USB Keyboard")[1]), "the keys of the twin", 60)
        first, twin = _keymaps(desktop, "QEMU QEMU USB Keyboard")
        assert first == twin
        pointers = _ids(desktop, "QEMU QEMU USB Mouse", keyboards=False)
        wait_for(lambda: _map(desktop, pointers[1]) == ["1", "2", "3", "5", "4"], "the buttons of the twin", 60)
        real, other = (
            re.sub(r"(?m)^Device.*|.*Device Node.*", "", _run(desktop, "xinput", "list-props", str(each)))
            for each in pointers
        )
        assert "Left Handed Enabled" in other
        assert real == other
        assert _map(desktop, pointers[0]) == _map(desktop, pointers[1])
        told = _run(desktop, "xset", "q")
        assert "auto repeat delay:  250    repeat rate:  20" in told
        field.to_front()
        _run(desktop, "xset", "r", "off")
        keyboard.tap("KEY_Y")
        wait_for(lambda: came.exists() and came.read_text(encoding="utf-8") == "z", "the z of a German keyboard", 60)
        assert "auto repeat delay:  250    repeat rate:  20" in _run(desktop, "xset", "q")
    finally:
        field.close()
        service.end(signal.SIGTERM)


def test_a_text_comes_as_it_is_written_under_a_finger_on_shift(
    mended: str, keyboard: UsbKeyboard | HidKeyboard, desktop: _Desktop, tmp_path: Path
):
    """Where the keyboard is captured, and where programs read it themselves."""
    service = LoadedService(tmp_path / "home", DISPLAY=desktop.display)
    came = tmp_path / "came"
    field = _Field(desktop, came)
    asks = xcffib.connect(desktop.display)
    root = asks.get_setup().roots[0].root

    def shift() -> int:
        return asks.core.QueryPointer(root).reply().mask & xcffib.xproto.KeyButMask.Shift

    def typed(text: str) -> None:
        wait_for(lambda: came.exists() and came.read_text(encoding="utf-8") == text, repr(text), 60)

    try:
        field.to_front()
        desktop.knows("Nakrel keyboard and mouse", 1)
        desktop.knows("QEMU QEMU USB Keyboard", 1)
        subprocess.run(["xset", "r", "off"], env=desktop.environment, check=True)
        for captured in (False, True):
            if captured:
                service.call(m.PutMacro(shot(Play())))
                setups = (SetUp("Main", {"KEY_A": RunMacro("shot")}),)
                service.call(m.PutProfile(Profile(id="everyday", name="Everyday", setups=setups)))
                service.hear(lambda: any(d.note.startswith("captured") for d in service.devices()), "the grab")
                desktop.knows("QEMU QEMU USB Keyboard", 2)
            keyboard.edge("KEY_LEFTSHIFT", 1)
            wait_for(shift, f"Shift down, {captured=}", 60)
            service.call(m.TypeText("ab Cd ", rate=5))
            typed("ab Cd " * (1 + captured))
            service.hear(lambda: not service.status().running, "the end of the macro")
            # Where it could be told that the finger is still there, it is down again.
            wait_for(lambda back=captured: bool(shift()) == back, "Shift as it was", 60)
            keyboard.edge("KEY_LEFTSHIFT", 0)
            wait_for(lambda: not shift(), "Shift up", 60)
            keyboard.edge("KEY_LEFTSHIFT", 1)
            wait_for(shift, "Shift down anew", 60)
            keyboard.edge("KEY_LEFTSHIFT", 0)
            wait_for(lambda: not shift(), "Shift up anew", 60)
    finally:
        asks.disconnect()
        field.close()
        service.end(signal.SIGTERM)


class _Pad(HidThumbPad):
    """The same mouse's by its ids and its port, under a name that doesn't tell."""

    name, product = "Thumb keys of it", HidMouse.product


def test_without_permission_a_mouses_keys_are_known_by_its_port(keyboard: UsbKeyboard | HidKeyboard, desktop: _Desktop):
    mouse, pad = HidMouse("usb-test-9/input0"), _Pad("usb-test-9/input1")
    heard: list[object] = []
    try:
        for each in (mouse, pad):
            desktop.knows(each.name, 1)
        backend = X11Backend(desktop.display)
        try:
            (device,) = [each for each in backend.devices() if mouse.path in each.nodes]
            assert set(device.nodes) == {mouse.path, pad.path}
            # The descriptor has the keys of a small keyboard, and X would tell of all that it knows.
            assert {"BTN_LEFT", "BTN_TASK", "KEY_1", "KEY_Q"} <= set(device.controls)
            assert "KEY_PLAYPAUSE" not in device.controls
            backend.call_keys(KeyNaming((device.name,)))
            pad.tap("KEY_1")
            keyboard.tap("KEY_1")

            def both() -> bool:
                heard.extend(event.event for event in backend.read())
                return len(heard) >= 4

            wait_for(both, "two taps")
            happened = [(type(each), each.control) for each in heard if isinstance(each, Pressed | Released)]
            assert happened == [
                (kind, code) for code in ("BTN_TRIGGER_HAPPY1", "KEY_1") for kind in (Pressed, Released)
            ]
        finally:
            backend.close()
    finally:
        mouse.unplug()
        pad.unplug()
