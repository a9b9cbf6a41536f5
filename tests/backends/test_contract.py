"""One contract for all backends: what a finger does is read once and in order, what is emitted arrives."""

from __future__ import annotations

import io
import os
import struct
import subprocess
from collections.abc import Callable, Iterator, Sequence
from typing import Any

import pytest
import xcffib
import xcffib.xinput
import xcffib.xproto

from nakrel.backends.protocols import BackendLost, BackendUnavailable, CannotEmit, InputBackend, OutputBackend
from nakrel.backends.standin.devices import StandInDevices
from nakrel.backends.standin.sink import Sink
from nakrel.backends.x11.backend import X11Backend
from nakrel.core.play.events import Emit, InputsLost, Pressed, Released, Turned
from tests.support import XServer, wait_for
from tests.xorg import XorgServer

X_BUTTONS = {"BTN_LEFT": "1", "BTN_SIDE": "8", "WHEEL_UP": "4"}


def _keysym(control: str) -> str:
    """The X name of the key: letters are small, function keys are not."""
    name = {"KEY_LEFTSHIFT": "Shift_L"}.get(control, control.removeprefix("KEY_"))
    return name.lower() if len(name) == 1 else name


class Rig:
    """A backend with its hand and its witness."""

    def __init__(
        self, inputs: InputBackend, outputs: OutputBackend, injector: Callable[[str, int], None], witness: Any
    ) -> None:
        self.inputs, self.outputs, self.injector, self.witness = inputs, outputs, injector, witness
        self.heard: list[Any] = []
        self.display = ""
        self.settle: Callable[[], object] = lambda: None

    def hear(self, count: int) -> list[Any]:
        """Wait for so many events and return them."""

        def enough() -> bool:
            # Whether a press has passed is the backend's own matter.
            self.heard += [
                type(event.event)(*event.event[:2])
                if isinstance(event.event, Turned)
                else type(event.event)(event.event.control)
                for event in self.inputs.read()
            ]
            return len(self.heard) >= count

        wait_for(enough, f"{count} events")
        return self.heard


class Noting(Sink):
    """A sink that notes what comes."""

    def __init__(self) -> None:
        super().__init__()
        self.came: list[tuple[str, int]] = []

    def emit(self, events: Sequence[Emit]) -> None:
        super().emit(events)
        self.came += [(event.control, event.value) for event in events]


def _stand_in() -> Iterator[Rig]:
    devices, sink = StandInDevices(), Noting()
    found = devices.devices()

    def injector(control: str, value: int) -> None:
        devices.press(next(d.id for d in found if control in d.controls), control, value)

    yield Rig(devices, sink, injector, lambda: sink.came)
    devices.close()
    sink.close()


def _x11(kind: type[XServer] = XServer) -> Iterator[Rig]:
    if kind.missing():
        pytest.skip(f"needs {kind.missing()}")
    server = kind()
    backend = X11Backend(server.display, injector_is_xtest=kind is XServer)
    watcher = X11Backend(server.display, injector_is_xtest=True)
    arrived: list[tuple[str, int]] = []

    def injector(control: str, value: int) -> None:
        if control.startswith("WHEEL"):
            server.injector("click", "--repeat", str(value), X_BUTTONS[control])
        elif control in X_BUTTONS:
            server.injector("mousedown" if value else "mouseup", X_BUTTONS[control])
        else:
            server.injector("keydown" if value else "keyup", _keysym(control))

    def witness() -> list[tuple[str, int]]:
        for event in watcher.read():
            what = event.event
            arrived.append((what.control, what.notches if isinstance(what, Turned) else int(isinstance(what, Pressed))))
        return arrived

    rig = Rig(backend, backend, injector, witness)
    # A test's next press goes by another connection: it must not overtake a grab that was just asked for.
    rig.settle = lambda: backend._conn.core.GetInputFocus().reply()
    rig.display = server.display
    try:
        yield rig
    finally:
        backend.close()
        watcher.close()
        server.end_server()


def _xorg() -> Iterator[Rig]:
    """X11 with a mouse and a keyboard that are not the ones we inject through."""
    yield from _x11(XorgServer)


_X = pytest.mark.x11
_RIGS = [_stand_in, pytest.param(_x11, marks=_X), pytest.param(_xorg, marks=_X)]


@pytest.fixture(params=_RIGS, ids=["stand-in", "x11", "xorg"])
def rig(request: pytest.FixtureRequest) -> Iterator[Rig]:
    yield from request.param()


@pytest.fixture
def xorg() -> Iterator[Rig]:
    """X11 with a mouse and a keyboard that are not the ones we inject through."""
    yield from _xorg()


def test_fingers_are_read_once_and_in_order(rig: Rig):
    for control in ("KEY_Q", "BTN_LEFT"):
        rig.injector(control, 1)
        rig.injector(control, 0)
    rig.injector("WHEEL_UP", 1)
    assert rig.hear(5) == [
        Pressed("KEY_Q"),
        Released("KEY_Q"),
        Pressed("BTN_LEFT"),
        Released("BTN_LEFT"),
        Turned("WHEEL_UP"),
    ]


def test_taken_controls_are_read_like_any_other(rig: Rig):
    rig.inputs.capture(["BTN_SIDE", "KEY_F6"])
    rig.settle()
    for _ in range(20):
        for control in ("BTN_SIDE", "KEY_F6"):
            rig.injector(control, 1)
            rig.injector(control, 0)
    once = [Pressed("BTN_SIDE"), Released("BTN_SIDE"), Pressed("KEY_F6"), Released("KEY_F6")]
    assert rig.hear(80) == once * 20
    rig.inputs.capture([])
    rig.settle()
    rig.injector("KEY_F6", 1)
    rig.injector("KEY_F6", 0)
    assert rig.hear(82)[80:] == [Pressed("KEY_F6"), Released("KEY_F6")]


def test_what_is_emitted_arrives_and_is_never_read_back(rig: Rig):
    rig.inputs.capture(["KEY_F6"])
    rig.settle()
    wanted = [("KEY_W", 1), ("BTN_LEFT", 1), ("BTN_LEFT", 0), ("KEY_W", 0), ("KEY_F7", 1), ("KEY_F7", 0)] * 200
    rig.outputs.emit([Emit(control, value, 0, "m") for control, value in wanted])
    wait_for(lambda: len(rig.witness()) >= len(wanted), "all that was emitted")
    assert rig.witness() == wanted
    rig.injector("KEY_Q", 1)
    rig.injector("KEY_Q", 0)
    assert rig.hear(2) == [Pressed("KEY_Q"), Released("KEY_Q")]


def test_what_is_held_at_the_end_is_let_go(rig: Rig):
    rig.outputs.emit([Emit("KEY_W", 1, 0, "m"), Emit("BTN_LEFT", 1, 0, "m")])
    wait_for(lambda: len(rig.witness()) == 2, "both presses")
    rig.outputs.close()
    if isinstance(rig.outputs, Sink):
        assert rig.outputs.down == set()
    else:
        wait_for(lambda: rig.witness()[2:] == [("BTN_LEFT", 0), ("KEY_W", 0)], "both releases, the last press first")


@pytest.mark.x11
def test_injected_keys_do_not_change_everyones_keymap():
    """Each switch between a real and the XTEST keyboard is announced to all programs, some of which stop for it."""
    for rig in _xorg():
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
@pytest.mark.parametrize("way", [_x11, _xorg], ids=["x11", "xorg"])
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
    for rig in _x11():
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
