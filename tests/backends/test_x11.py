"""What X11 alone has: devices that go, maps of buttons, what it cannot send, and a server that ends."""

from __future__ import annotations

import io
import os
import select
import shutil
import struct
import subprocess
import sys
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
import xcffib
import xcffib.xinput
import xcffib.xproto

from nakrel.backends.protocols import BackendLost, BackendUnavailable, CannotEmit
from nakrel.backends.x11.backend import X11Backend
from nakrel.backends.x11.screens import X11Screens
from nakrel.backends.x11.windows import X11Windows
from nakrel.backends.x11.wire import XiEvent, evtype
from nakrel.core.play.events import Emit, InputsLost, Pressed, Released, Turned
from tests.backends import rigs
from tests.backends.rigs import Rig
from tests.support import LIMIT_S, XServer, wait_for


@pytest.fixture
def xorg() -> Iterator[Rig]:
    """X11 with a mouse and a keyboard that are not the ones we inject through."""
    yield from rigs.xorg()


@pytest.mark.x11
def test_injected_keys_do_not_change_everyones_keymap():
    """Each switch between a real and the XTEST keyboard is announced to all programs, some of which stop for it."""
    for rig in rigs.xorg():
        witness = xcffib.connect(rig.display)
        rig.injector("KEY_A", 1)
        rig.injector("KEY_A", 0)
        rig.hear(2)
        for _ in range(10):
            rig.outputs.emit([Emit("KEY_W", value, 0, "m") for value in (1, 0)])
            rig.injector("KEY_A", 1)
            rig.injector("KEY_A", 0)
        assert rig.hear(22) == [Pressed("KEY_A"), Released("KEY_A")] * 11
        witness.core.GetInputFocus().reply()
        changes = []
        while event := witness.poll_for_event():
            changes.append(type(event).__name__)
        witness.disconnect()
        assert changes.count("MappingNotifyEvent") <= 2, changes


@pytest.mark.x11
def test_a_server_without_the_rarer_extensions_still_tells_of_its_screens():
    """Asked of an extension that isn't there, xcb gives the connection up. Openbox can't do without them."""
    if XServer.missing():
        pytest.skip(f"needs {XServer.missing()}")
    read_fd, write_fd = os.pipe()
    lacking = ["-extension", "XFIXES", "-extension", "X-Resource"]
    command = ["Xvfb", "-displayfd", str(write_fd), "-screen", "0", "1400x900x24", "-nolisten", "tcp", "-noreset"]
    server = subprocess.Popen([*command, *lacking], pass_fds=[write_fd], stderr=subprocess.DEVNULL)
    os.close(write_fd)
    try:
        with os.fdopen(read_fd) as pipe:
            screens = X11Screens(f":{pipe.readline().strip()}")
        assert screens.size() == (1400, 900)
        assert not screens.pointer_is_hidden()
        assert screens.shown() == []
        screens.close()
    finally:
        server.terminate()
        server.wait(LIMIT_S)


@pytest.mark.x11
def test_what_comes_while_something_is_sent_is_read_soon(xorg: Rig):
    """xcb reads whenever it writes, so nobody learns of it from the socket: a release would wait for the next event."""
    asked: list[bool] = []
    xorg.inputs._conn.on_early = lambda: asked.append(True)
    xorg.injector("KEY_A", 1)
    wait_for(lambda: select.select([xorg.inputs], [], [], 0)[0], "the press at the socket")
    assert not asked
    xorg.outputs.move_by(3, 0)
    assert asked
    assert not select.select([xorg.inputs], [], [], 0)[0]
    assert [event.event for event in xorg.inputs.read()] == [Pressed("KEY_A", True)]


@pytest.mark.x11
def test_a_finger_is_not_taken_for_an_injection_that_the_server_handles_at_the_same_time(xorg: Rig):
    """Both have one number then, and may be of one kind; the finger's is on a device of its own."""
    injector = xorg.inputs._out
    mouse = next(slave.id for slave in xorg.inputs._slaves.values() if slave.buttons)
    (pointer, *_) = sorted(injector.xtest)
    injector.send("BTN_LEFT", 1)
    serial = injector._own[-1][0]
    press = XiEvent(evtype.RAW_BUTTON_PRESS, mouse, mouse, 1, 0, serial, 0)
    assert not injector.is_own(press)
    assert injector.is_own(press._replace(device=pointer, source=pointer))
    injector.move(1, 0)
    motion = XiEvent(evtype.RAW_MOTION, mouse, mouse, 0, 0, injector._own[-1][0], 0)
    assert not injector.is_own(motion)
    assert injector.is_own(motion._replace(device=pointer, source=pointer))


@pytest.mark.x11
@pytest.mark.parametrize("way", [rigs.x11, rigs.xorg], ids=["x11", "xorg"])
def test_x11_lifts_a_key_that_a_finger_holds_and_presses_it_again(way: Callable[[], Iterator[Rig]]):
    """For X programs Shift is down as the bit of the pointer's mask says (X protocol, SETofKEYBUTMASK)."""
    for rig in way():
        asks = xcffib.connect(rig.display)
        root = asks.get_setup().roots[0].root

        def shift(asks: Any = asks, root: int = root) -> int:
            return asks.core.QueryPointer(root).reply().mask & xcffib.xproto.KeyButMask.Shift

        rig.injector("KEY_LEFTSHIFT", 1)
        assert rig.hear(1) == [Pressed("KEY_LEFTSHIFT")]
        assert shift()
        up, down = Emit("KEY_LEFTSHIFT", 0, 0, "finger", False, True), Emit("KEY_LEFTSHIFT", 1, 0, "finger")
        rig.outputs.emit([up])
        wait_for(lambda shift=shift: not shift(), "Shift up")
        rig.outputs.emit([down])
        wait_for(shift, "Shift down again")
        rig.outputs.emit([up])
        wait_for(lambda shift=shift: not shift(), "Shift up again")
        rig.injector("KEY_LEFTSHIFT", 0)
        assert rig.hear(2)[1:] == [Released("KEY_LEFTSHIFT")]
        # What nobody holds is left alone.
        rig.outputs.emit([up])
        rig.injector("KEY_Q", 1)
        assert rig.hear(3)[2:] == [Pressed("KEY_Q")]
        assert not shift()
        asks.disconnect()


def _enable(conn: Any, device: int, on: bool) -> None:
    """Switch a device on or off, as unplugging does: the server's own property (xf86-input, XI_PROP_ENABLED)."""
    xi = conn(xcffib.xinput.key)
    atom = conn.core.InternAtom(False, len("Device Enabled"), "Device Enabled").reply().atom
    # XIChangeProperty by hand (XI2proto.txt): xcffib's own leaves the value out.
    buffer = io.BytesIO(struct.pack("=xx2xHBBIIIB3x", device, 0, 8, atom, xcffib.xproto.Atom.INTEGER, 1, on))
    xi.send_request(57, buffer, is_checked=True).check()


@pytest.mark.x11
def test_a_device_that_goes_away_under_x11_lets_go_of_what_fingers_hold_there(xorg: Rig):
    xorg.inputs.capture(["BTN_SIDE", "KEY_Q"])
    xorg.settle()
    for control in ("BTN_SIDE", "KEY_Q", "KEY_W"):
        xorg.injector(control, 1)
    xorg.hear(3)
    asks = xcffib.connect(xorg.display)
    devices = {each.name: int(each.id.split(":")[1]) for each in xorg.inputs.devices()}
    for name, held in (("keyboard", {"KEY_Q", "KEY_W"}), ("mouse", {"BTN_SIDE"})):
        events: list[Any] = []
        _enable(asks, devices[name], False)

        def lost(events: list[Any] = events) -> bool:
            events += [each.event for each in xorg.inputs.read()]
            return any(isinstance(each, InputsLost) for each in events)

        wait_for(lost, "the loss")
        assert {each.control for each in events if isinstance(each, Released)} == held
        assert isinstance(events[-1], InputsLost)
        # What was started there and could only be ended there ends.
        assert events[-1].controls is not None
        assert held <= events[-1].controls
    wait_for(lambda: xorg.inputs.read() == [] and not xorg.inputs.devices(), "no device")
    asks.disconnect()


@pytest.mark.x11
def test_buttons_are_what_they_count_as_for_the_programs(xorg: Rig):
    """People turn the wheel round, swap the main buttons and put others on side buttons with the server's own map
    (X protocol, SetPointerMapping), which may change at any time."""
    xorg.inputs.capture(["BTN_EXTRA", "WHEEL_DOWN"])
    xorg.settle()
    asks = xcffib.connect(xorg.display)
    mouse = next(int(each.id.split(":")[1]) for each in xorg.inputs.devices() if each.name == "mouse")
    xi = asks(xcffib.xinput.key)
    size = len(xi.GetDeviceButtonMapping(mouse).reply().map)
    others = list(range(10, size + 1))
    for own in ([3, 2, 1, 5, 4, 6, 7, 9, 0], [1, 2, 3, 4, 5, 6, 7, 8, 9]):
        assert xi.SetDeviceButtonMapping(mouse, size, [*own, *others]).reply().status == 0
        wanted = [{3: "BTN_RIGHT", 1: "BTN_LEFT"}[own[0]], {5: "WHEEL_DOWN", 4: "WHEEL_UP"}[own[3]]]
        wanted.append({9: "BTN_EXTRA", 8: "BTN_SIDE"}[own[7]])

        def known(own: list[int] = own) -> bool:
            xorg.inputs.read()
            return xorg.inputs._slaves[mouse].counts_as[:9] == tuple(own)  # type: ignore[attr-defined]

        wait_for(known, "the map")
        xorg.settle()
        events: list[Any] = []
        for control in ("BTN_LEFT", "WHEEL_UP", "BTN_SIDE"):
            for value in (1,) if control.startswith("WHEEL") else (1, 0):
                xorg.injector(control, value)
        captured = {"BTN_EXTRA", "WHEEL_DOWN"}

        def all_heard(events: list[Any] = events) -> bool:
            events += [each.event for each in xorg.inputs.read()]
            return len(events) >= 5

        wait_for(all_heard, "what was pressed")
        assert events == [
            Pressed(wanted[0], True), Released(wanted[0]), Turned(wanted[1], 1, wanted[1] not in captured),
            Pressed(wanted[2], wanted[2] not in captured), Released(wanted[2]),
        ]  # fmt: skip
    asks.disconnect()


@pytest.mark.x11
@pytest.mark.parametrize("captured", [[], ["KEY_Q"]])
def test_a_key_that_two_keyboards_have_is_down_until_the_last_lets_go(xorg: Rig, captured: list[str]):
    both = X11Backend(xorg.display, injector_is_xtest=True)
    xorg.outputs.close()
    both.capture(captured)
    xorg.inputs = both
    both._conn.core.GetInputFocus().reply()

    def other(edge: str, display: str = xorg.display) -> None:
        subprocess.run(["xdotool", edge, "q"], env={**os.environ, "DISPLAY": display}, check=True)

    xorg.injector("KEY_Q", 1)
    other("keydown")
    xorg.injector("KEY_Q", 0)
    xorg.injector("KEY_W", 1)
    assert xorg.hear(2) == [Pressed("KEY_Q"), Pressed("KEY_W")]
    other("keyup")
    assert xorg.hear(3)[2:] == [Released("KEY_Q")]
    both.close()


@pytest.mark.x11
def test_devices_that_come_and_go_under_x11_are_told(xorg: Rig):
    told: list[list[str]] = []
    backend = X11Backend(xorg.display, devices_changed=lambda: told.append([d.name for d in backend.devices()]))
    asks = xcffib.connect(xorg.display)
    mouse = next(int(each.id.split(":")[1]) for each in backend.devices() if each.name == "mouse")
    for on in (False, True):
        _enable(asks, mouse, on)
        wait_for(lambda on=on: (backend.read(), len(told) == 1 + on)[1], "the news")
    assert [sorted(names) for names in told] == [["keyboard"], ["keyboard", "mouse"]]
    asks.disconnect()
    backend.close()


@pytest.mark.x11
def test_x11_says_what_it_cannot_send_and_sends_the_rest():
    for rig in rigs.x11():
        events = [Emit("BTN_TRIGGER_HAPPY3", 1, 0, "m"), Emit("KEY_W", 1, 0, "m"), Emit("KEY_W", 0, 0, "m")]
        with pytest.raises(CannotEmit, match="Thumb 3"):
            rig.outputs.emit(events)
        wait_for(lambda rig=rig: rig.witness() == [("KEY_W", 1), ("KEY_W", 0)], "the rest")


def test_no_x_server_is_said_in_words():
    with pytest.raises(BackendUnavailable, match="no X server answers on :9999"):
        X11Backend(":9999")


@pytest.mark.x11
@pytest.mark.skipif(bool(XServer.missing()), reason="needs an X server")
def test_whatever_is_asked_of_a_server_that_is_gone_is_told_as_its_loss():
    server = XServer()
    backend = X11Backend(server.display, injector_is_xtest=True)
    backend.capture(["BTN_SIDE"])
    server.end_server()
    asked: list[Callable[[], object]] = [
        lambda: backend.capture(["BTN_EXTRA"]),
        lambda: backend.emit([Emit("KEY_Q", 1, 0, "m")]),
        lambda: backend.move_to(3, 4, 800, 600),
        lambda: backend.move_by(1, 1),
        backend.read,
    ]
    for ask in asked:
        with pytest.raises(BackendLost):
            ask()
    backend.close()


_WINDOW = """
import os
from PyQt6.QtWidgets import QApplication, QLabel
app = QApplication([])
window = QLabel(str(os.getpid()))
window.setWindowTitle(f"Game {os.getpid()}")
window.show()
app.exec()
"""


@pytest.mark.x11
@pytest.mark.skipif(bool(XServer.missing()) or not shutil.which("unshare"), reason="needs Xvfb and unshare")
def test_the_process_of_a_window_in_a_sandbox_is_the_one_that_runs_here():
    """A sandbox may count its processes by itself, and a program in it sets `_NET_WM_PID` by that; the server knows the
    client's own (X-Resource 1.2, QueryClientIds)."""
    apart = ["unshare", "--pid", "--fork", "--kill-child", "--mount-proc"]
    if subprocess.run([*apart, "true"], stderr=subprocess.DEVNULL).returncode:
        pytest.skip("no sandbox may be made here")
    server = XServer()
    environment = {**server.environment, "QT_QPA_PLATFORM": "xcb"}
    game = subprocess.Popen([*apart, sys.executable, "-c", _WINDOW], env=environment)
    windows = X11Windows(server.display)
    try:
        front = wait_for(lambda: windows.front() if windows.front().pid else None, "the window in front")
        ((pid, info),) = windows.shown()
        said = int(info.title.removeprefix("Game "))
        assert front.pid == pid != said
        # The namespaces' numbers of a process stand there from the outside to the inside (proc(5), NSpid).
        status = Path(f"/proc/{pid}/status").read_text()
        numbers = next(line.split()[1:] for line in status.splitlines() if line.startswith("NSpid"))
        assert [int(each) for each in numbers] == [pid, said]
    finally:
        # It waits for its child whatever else it is told.
        game.kill()
        game.wait(LIMIT_S)
        windows.close()
        server.end_server()
