"""A backend with its hand and its witness, for tests of all backends and of one."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import Any

import pytest

from nakrel.backends.protocols import InputBackend, OutputBackend
from nakrel.backends.standin.devices import StandInDevices
from nakrel.backends.standin.sink import Sink
from nakrel.backends.x11.backend import X11Backend
from nakrel.core.play.events import Emit, Pressed, Turned
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


def stand_in() -> Iterator[Rig]:
    devices, sink = StandInDevices(), Noting()
    found = devices.devices()

    def injector(control: str, value: int) -> None:
        devices.press(next(d.id for d in found if control in d.controls), control, value)

    yield Rig(devices, sink, injector, lambda: sink.came)
    devices.close()
    sink.close()


def x11(kind: type[XServer] = XServer) -> Iterator[Rig]:
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


def xorg() -> Iterator[Rig]:
    """X11 with a mouse and a keyboard that are not the ones we inject through."""
    yield from x11(XorgServer)
