"""Routes in and out: which backends are in use, why those, and what happens when one is lost."""

from __future__ import annotations

import contextlib
import os
from collections.abc import Callable, Collection
from dataclasses import dataclass
from typing import Protocol

from nakrel.backends.kernel.backend import KernelBackend
from nakrel.backends.protocols import (
    BackendLost,
    BackendUnavailable,
    Host,
    InputBackend,
    InputEvent,
    OutputBackend,
    WindowWatch,
)
from nakrel.backends.standin.devices import StandInDevices
from nakrel.backends.standin.sink import Sink
from nakrel.backends.x11.backend import X11Backend
from nakrel.backends.x11.screens import X11Screens
from nakrel.backends.x11.spare import SpareKeys
from nakrel.backends.x11.windows import X11Windows
from nakrel.core.model.conditioning import Motion
from nakrel.core.model.devices import Conditions, Device
from nakrel.service.loop import Loop, monotonic_us

__all__ = ["BACKENDS", "Options", "Routes"]

BACKENDS = ("auto", "kernel", "x11", "stand-in")
RECONNECT_US = 3_000_000
_DOCTOR = "The kernel's input would reach every window; what it needs: nakrel doctor"


@dataclass(frozen=True)
class Options:
    """How the service is set up. `backend` is one of `BACKENDS`; `injector_is_xtest` is for tests, where the hand is a
    program that injects; `holds` is told what the X server holds for us; `kernel` opens the kernel's input, which a
    measurement does on devices of its own."""

    backend: str = "auto"
    display: str | None = None
    injector_is_xtest: bool = False
    holds: Callable[[str, int], None] = lambda code, device: None
    kernel: Callable[[Host], KernelBackend] = KernelBackend


class User(Protocol):
    """What the ways need of the service."""

    def finger(self, event: InputEvent) -> None: ...
    def fault_once(self, error: str) -> None: ...
    def devices_changed(self) -> None: ...
    def route_lost(self, error: str) -> None: ...
    def route_changed(self, why: str) -> None: ...


class Routes:
    """Opens the best way to the programs that there is: the kernel, else X11, else the stand-ins' sink.

    Implements `Host` for the backends. `sink` takes the place of the stand-ins' sink.
    """

    def __init__(self, loop: Loop, options: Options, user: User, sink: OutputBackend | None = None) -> None:
        self._loop, self._options, self._user, self._sink = loop, options, user, sink
        self.real: KernelBackend | X11Backend | None = None
        self.stand_ins: StandInDevices | None = None
        self.output: OutputBackend = sink or Sink()
        self._spare: SpareKeys | None = None

    # Opening and losing

    def open(self, want_stand_ins: bool) -> None:
        """Choose and open the way."""
        reasons: list[str] = []
        for name, opener in (("kernel", self._open_kernel), ("x11", self._open_x11)):
            if self._options.backend not in ("auto", name):
                continue
            try:
                opener(reasons)
            except BackendUnavailable as error:
                reasons.append(str(error))
            if self.real is not None:
                break
        if self.real is None:
            self.output = self._sink or Sink(_sink_note(reasons))
        self.set_stand_ins(want_stand_ins)

    def lost(self, error: str) -> None:
        """The way is gone (its server or device ended): fall back to the sink, and try again in a while."""
        if self.real is None:
            return
        self._drop_real()
        self.output = Sink(f"Nothing reaches other windows: {error}.")
        self._user.route_lost(error)
        self._loop.at("reconnect", monotonic_us() + RECONNECT_US, self._reconnect)

    def choose_again(self, want_stand_ins: bool) -> None:
        """Close the way and open the best one that there is now."""
        self._drop_real()
        self.open(want_stand_ins)

    def _reconnect(self) -> None:
        self.open(self.stand_ins is not None)
        if self.real is None:
            self._loop.at("reconnect", monotonic_us() + RECONNECT_US, self._reconnect)
        else:
            self._user.route_changed(f"{self.output.name} is back")

    def _drop_real(self) -> None:
        self._loop.at("reconnect", None, self._reconnect)
        real, self.real = self.real, None
        if real is not None:
            self._loop.forget(real)
            real.close()

    def _open_kernel(self, reasons: list[str]) -> None:
        kernel = self._options.kernel(self)
        self.real = self.output = kernel
        self._loop.watch(kernel, lambda: self.read(kernel))

    def _open_x11(self, reasons: list[str]) -> None:
        display = self._options.display or os.environ.get("DISPLAY")
        if not display:
            raise BackendUnavailable("there is no X server ($DISPLAY is empty)")
        x11 = X11Backend(display, injector_is_xtest=self._options.injector_is_xtest, holds=self._options.holds)
        if os.environ.get("WAYLAND_DISPLAY"):
            x11.name = "xwayland"
            x11.note = (
                "Presses are seen, and macros arrive, only while a window under Xwayland is in front. "
                f"{_because(reasons)}{_DOCTOR}"
            )
        elif reasons:
            x11.note = f"{x11.note} {_because(reasons)}{_DOCTOR}"
        self.real = self.output = x11
        self._loop.watch(x11, lambda: self.read(x11))

    def windows(self) -> WindowWatch | None:
        """Word of the windows, where a Wayland compositor or an X server tells of them."""
        if self._options.backend == "stand-in":
            return None
        if os.environ.get("WAYLAND_DISPLAY"):
            from nakrel.backends.wayland import WaylandWindows

            with contextlib.suppress(BackendUnavailable):
                return WaylandWindows()
        display = self._options.display or os.environ.get("DISPLAY")
        try:
            return X11Windows(display) if display else None
        except BackendUnavailable:
            return None

    def screens(self) -> X11Screens | None:
        """Word of the screens, the pointer and the windows' places, where an X server tells of them truly."""
        display = self._options.display or os.environ.get("DISPLAY")
        if not display or self._options.backend == "stand-in" or os.environ.get("WAYLAND_DISPLAY"):
            return None
        try:
            return X11Screens(display)
        except BackendUnavailable:
            return None

    def lend_keys(self, chars: str) -> dict[str, str]:
        """Keys for characters that the layout lacks, where the way can make such; from any thread."""
        if self._spare is None:
            self._spare = SpareKeys(self._options.display)
        return self._spare.lend(chars)

    @property
    def lends_keys(self) -> bool:
        """Whether the way can make keys for characters that the layout lacks."""
        return isinstance(self.real, X11Backend) and not os.environ.get("WAYLAND_DISPLAY")

    def reclaim_keys(self) -> None:
        """No text is being typed any more; from any thread."""
        if self._spare is not None:
            self._spare.take_back()

    def close(self) -> None:
        """Close everything; what is held is let go."""
        if self._spare is not None:
            self._spare.close()
        self._drop_real()
        if self.stand_ins is not None:
            self._loop.forget(self.stand_ins)
            self.stand_ins.close()
        self.output.close()

    # Use

    @property
    def reaches_programs(self) -> bool:
        """Whether output goes anywhere but into the stand-ins' sink."""
        return self.real is not None

    @property
    def held_back(self) -> bool:
        """Whether nothing may be attached, since Esc was down at the start."""
        return isinstance(self.real, KernelBackend) and self.real.held_back

    def inputs(self) -> list[InputBackend]:
        """The backends that are read."""
        return [backend for backend in (self.real, self.stand_ins) if backend is not None]

    def devices(self) -> tuple[Device, ...]:
        """All devices of all backends."""
        return tuple(device for backend in self.inputs() for device in backend.devices())

    def capture(self, controls: Collection[str], repeats_itself: Collection[str]) -> None:
        """Keep exactly these controls from the programs."""
        for backend in self.inputs():
            try:
                backend.capture(controls, repeats_itself)
            except BackendLost as error:
                self.lost(str(error))
                return
        # A request's answer may have brought events along, for which the descriptor isn't readable any more.
        self.drain()

    @property
    def changes_motion(self) -> Conditions:
        """What of the pointer's and the wheel's motion the way can change."""
        if isinstance(self.real, KernelBackend):
            return Conditions.NOTHING if self.real.held_back else Conditions.ALL
        return Conditions.SPEED if self.real and self.real.name == "x11" else Conditions.NOTHING

    def condition(self, motion: Motion | None) -> None:
        """Have devices move like this, as far as the way can do that; None leaves them alone."""
        if self.real is None or self.changes_motion is Conditions.NOTHING:
            return
        try:
            self.real.condition(motion)
        except BackendLost as error:
            self.lost(str(error))
        else:
            self.drain()

    def read(self, backend: InputBackend) -> None:
        """Hand on what has come."""
        try:
            for event in backend.read():
                self._user.finger(event)
        except BackendLost as error:
            self.lost(str(error))

    def set_stand_ins(self, wanted: bool) -> None:
        """Show the simulated devices or not; they are always there when nothing real is."""
        wanted = wanted or self.real is None
        if wanted and self.stand_ins is None:
            self.stand_ins = stand_ins = StandInDevices()
            self._loop.watch(stand_ins, lambda: self.read(stand_ins))
        elif not wanted and self.stand_ins is not None:
            self.read(self.stand_ins)
            self._loop.forget(self.stand_ins)
            self.stand_ins.close()
            self.stand_ins = None
        if self.stand_ins is not None:
            self.stand_ins.apart = self.reaches_programs
        self._user.devices_changed()

    # For the backends

    def now_us(self) -> int:
        """The present time."""
        return monotonic_us()

    def at(self, name: str, when_us: int | None, call: Callable[[], object]) -> None:
        """A backend's timer."""
        self._loop.at(name, when_us, call)

    def fault(self, error: str) -> None:
        """A backend's fault."""
        self._user.fault_once(error)

    def devices_changed(self) -> None:
        """A device came, went, or changed its state."""
        self._user.devices_changed()

    def drain(self) -> None:
        """Read all inputs at the next turn."""
        self._loop.at("drain", monotonic_us(), self._read_all)

    def _read_all(self) -> None:
        for backend in self.inputs():
            self.read(backend)


def _because(reasons: list[str]) -> str:
    return f"Why not the kernel: {reasons[0]}. " if reasons else ""


def _sink_note(reasons: list[str]) -> str:
    if not reasons:
        return ""
    told = "; ".join(reasons)
    return f"Nothing reaches other windows: {told}. Macros play into the stand-in only. {_DOCTOR}"
