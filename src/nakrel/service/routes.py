"""Routes in and out: which backends are in use, why those, and what happens when one is lost."""

from __future__ import annotations

import os
from collections.abc import Callable, Collection, Mapping, Sequence
from functools import partial
from typing import TYPE_CHECKING, NamedTuple, Protocol, TypeVar

from msgspec.structs import replace

from nakrel.backends.kernel.backend import KernelBackend
from nakrel.backends.protocols import BackendLost, BackendUnavailable, Host, InputBackend, InputEvent, OutputBackend
from nakrel.backends.standin.devices import StandInDevices
from nakrel.backends.standin.sink import Sink
from nakrel.core.model.conditioning import Motion
from nakrel.core.model.controls import CONTROLS
from nakrel.core.model.devices import OWN_WINDOW, Device, KeyNaming
from nakrel.service.lent_keys import LentKeys
from nakrel.service.loop import Loop, monotonic_us
from nakrel.service.options import Options
from nakrel.service.reporter import Reporter
from nakrel.service.twins import Twins
from nakrel.service.worker import Outcome, Worker
from nakrel.words import noted, tr

if TYPE_CHECKING:
    from nakrel.backends.x11.backend import X11Backend

__all__ = ["Routes"]

T = TypeVar("T")

RECONNECT_US = 3_000_000
_DOCTOR = noted("The kernel's input would reach every window; what it needs: nakrel doctor")
_ECHOES = noted(
    "sends back what macros press: another program has Nakrel's devices for itself and sends on "
    "what they do; let it leave them alone"
)


class User(Protocol):
    """What the routes need of the service."""

    def finger(self, event: InputEvent) -> None: ...
    def devices_changed(self) -> None: ...
    def route_lost(self, error: str) -> None: ...
    def route_changed(self, why: str) -> None: ...
    def danger_changed(self) -> None: ...


class _Chosen(NamedTuple):
    """A route that was opened, and where none could be, what that means for the user."""

    real: KernelBackend | X11Backend | None
    note: str


class Routes:
    """Opens the best route to the programs that there is: the kernel, else X11, else the stand-ins' sink.

    Implements `Host` for the backends. `sink` takes the place of the stand-ins' sink.
    """

    def __init__(
        self,
        loop: Loop,
        options: Options,
        user: User,
        worker: Worker,
        reporter: Reporter,
        sink: OutputBackend | None = None,
    ) -> None:
        self._loop, self._options, self._user, self._sink = loop, options, user, sink
        self._worker, self._reporter = worker, reporter
        self._grabs = False
        # What clients press on the simulated devices, and whether they were asked for.
        self._pressed: dict[tuple[str, str], object] = {}
        self.wants_stand_ins = False
        self.real: KernelBackend | X11Backend | None = None
        # What backends ask and tell of a press that they are about to hand on.
        self.first_of: Callable[[str], str] = lambda control: ""
        self.answered: Callable[[str, str], None] = lambda control, first: None
        self._bounces: Mapping[str, Mapping[str, int]] = {}
        self._naming = KeyNaming()
        # The names of devices that send back what macros press.
        self.echoing: set[str] = set()
        self.stand_ins: StandInDevices | None = None
        # What clients tell of presses in their own windows.
        self._own_hand: StandInDevices | None = None
        self.output: OutputBackend = sink or Sink()
        under_x = options.display or ("" if os.environ.get("WAYLAND_DISPLAY") else os.environ.get("DISPLAY", ""))
        self._twins = Twins(loop, worker, under_x)
        self.keys = LentKeys(options, lambda: self.real is not None and not isinstance(self.real, KernelBackend))

    # Opening and losing

    def open(self, want_stand_ins: bool) -> None:
        """Choose and open the route, at the start."""
        self._adopt(self._choose(), want_stand_ins)

    def _choose(self) -> _Chosen:
        """Open the best route that there is; on any thread."""
        reasons: list[str] = []
        openers: tuple[tuple[str, Callable[[], KernelBackend | X11Backend]], ...] = (
            ("kernel", lambda: self._options.kernel(self)),
            ("x11", lambda: _open_x11(self._options, self, reasons)),
        )
        for name, opener in openers:
            if self._options.backend not in ("auto", name):
                continue
            try:
                return _Chosen(opener(), "")
            except BackendUnavailable as error:
                reasons.append(str(error))
        return _Chosen(None, _sink_note(reasons))

    def _adopt(self, chosen: _Chosen, want_stand_ins: bool) -> None:
        real = self.real = chosen.real
        if real is None:
            self.output = self._sink or Sink(chosen.note)
        else:
            self.output = real
            self.debounce(self._bounces)
            real.call_keys(self._naming)
            # Asked of thousands of reports a second: a call less counts.
            ready = partial(self._pass_on, real) if isinstance(real, KernelBackend) else partial(self.read, real)
            self._loop.watch(real, ready)
            if isinstance(real, KernelBackend):
                real.introduce()
        self.set_stand_ins(want_stand_ins)

    def lost(self, error: str) -> bool:
        """The route is gone (its server or device ended): fall back to the sink, and try again in a while. False where
        it was gone already."""
        if self.real is None:
            return False
        self._drop_real()
        self.output = Sink(tr("Nothing reaches other windows: {reason}.").format(reason=error))
        self._loop.at("reconnect", monotonic_us() + RECONNECT_US, self._reconnect)
        return True

    def choose_again(self, chosen: Callable[[], object]) -> None:
        """Close the route, open the best one that there is now, and then call `chosen`."""
        self._drop_real()
        self.output = Sink()

        def opened(outcome: Outcome[_Chosen]) -> None:
            self._adopt(outcome.result or _Chosen(None, str(outcome.error)), self.wants_stand_ins)
            self._user.route_changed(tr("asked for"))
            chosen()

        self._worker.do(self._choose, opened)

    def _reconnect(self) -> None:
        def opened(outcome: Outcome[_Chosen]) -> None:
            if self.real is not None:
                if outcome.result and outcome.result.real:
                    outcome.result.real.close()
            elif outcome.result and outcome.result.real:
                self._adopt(outcome.result, self.wants_stand_ins)
                self._user.route_changed(tr("{output} is back").format(output=self.output.name))
            else:
                self._loop.at("reconnect", monotonic_us() + RECONNECT_US, self._reconnect)

        self._worker.do(self._choose, opened)

    def _drop_real(self) -> None:
        self._loop.at("reconnect", None, self._reconnect)
        real, self.real = self.real, None
        if real is not None:
            self._loop.forget(real)
            real.close()

    def close(self) -> None:
        """Close everything; what is held is let go."""
        self._twins.close()
        self.keys.close()
        self._drop_real()
        for hand in (self.stand_ins, self._own_hand):
            if hand is not None:
                self._loop.forget(hand)
                hand.close()
        self.output.close()

    # Use

    @property
    def reaches_programs(self) -> bool:
        """Whether output goes anywhere but into the stand-ins' sink."""
        return self.real is not None

    @property
    def warning(self) -> str:
        """Why macros reach no program, '' where they do or where the stand-in was asked for."""
        return "" if self.reaches_programs or self._options.backend == "stand-in" else self.output.note

    @property
    def held_back(self) -> bool:
        """Whether nothing may be attached, since Esc was down at the start."""
        return isinstance(self.real, KernelBackend) and self.real.held_back

    def inputs(self) -> list[InputBackend]:
        """The backends that are read."""
        return [backend for backend in (self.real, self.stand_ins) if backend is not None]

    def devices(self) -> tuple[Device, ...]:
        """All devices of all backends; of one that sends back what macros press, that is what is said."""
        found = [device for backend in self.inputs() for device in backend.devices()]
        # One that was unplugged begins anew.
        self.echoing.intersection_update(device.name for device in found)
        return tuple(
            replace(each, note=tr(_ECHOES), trouble=True) if each.name in self.echoing else each for each in found
        )

    @property
    def grabs(self) -> bool:
        """Whether controls are kept from the programs: a service that stands still would keep them for good."""
        return self.real is not None and self._grabs

    def capture(self, controls: Collection[str], repeats_itself: Collection[str]) -> None:
        """Keep exactly these controls from the programs."""
        self._grabs = bool(controls)
        for backend in self.inputs():
            try:
                backend.capture(controls, repeats_itself)
            except BackendLost as error:
                self._user.route_lost(str(error))
                return
        # A request's answer may have brought events along, for which the descriptor isn't readable any more.
        self.drain()

    @property
    def changes_motion(self) -> bool:
        """Whether the route can change the pointer's and the wheel's motion."""
        # The X server could scale a device's motion, but with it where the pointer stands: a game that puts it in the
        # middle of its window would see it leap.
        return isinstance(self.real, KernelBackend) and not self.real.held_back

    def debounce(self, times_us: Mapping[str, Mapping[str, int]]) -> None:
        """Drop what bounces within these times, by a device's name and by control, where the route can do that."""
        self._bounces = times_us
        if isinstance(self.real, KernelBackend):
            self.real.debounce(times_us)

    def call_keys(self, naming: KeyNaming) -> bool:
        """What the keys of devices count as from now on; whether that is another choice than before."""
        if naming == self._naming:
            return False
        self._naming = naming
        if self.real is not None:
            try:
                self.real.call_keys(naming)
            except BackendLost as error:
                self._user.route_lost(str(error))
        return True

    def show_light(self, on: bool) -> None:
        """Put the light of Scroll Lock on, or as it was before, where the route can do that."""
        if isinstance(self.real, KernelBackend) and not self.real.held_back:
            self.real.show_light(on)

    def condition(self, motion: Motion | None) -> None:
        """Have devices move like this, where the route can do that; None leaves them alone."""
        if not isinstance(self.real, KernelBackend) or self.real.held_back:
            return
        try:
            self.real.condition(motion)
        except BackendLost as error:
            self._user.route_lost(str(error))
        else:
            self.drain()

    def _pass_on(self, kernel: KernelBackend) -> None:
        """Hand on what has come; where that is motion and no more, it goes the short way."""
        try:
            if kernel.pass_motion():
                return
        except BackendLost as error:
            self._user.route_lost(str(error))
        else:
            self.read(kernel)

    def read(self, backend: InputBackend) -> None:
        """Hand on what has come."""
        try:
            for event in backend.read():
                self._user.finger(event)
        except BackendLost as error:
            self._user.route_lost(str(error))

    def set_stand_ins(self, wanted: bool) -> None:
        """Show the simulated devices or not; they are always there when nothing real is. What is pressed on them is let
        go where they go."""
        self.wants_stand_ins = wanted
        wanted = wanted or self.real is None
        if not wanted and self.stand_ins is not None:
            for device, control in [each for each in self._pressed if each[0] != OWN_WINDOW]:
                self.stand_ins.press(device, control, 0)
                del self._pressed[device, control]
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

    def press_stand_in(self, client: object, device: str, control: str, value: int) -> None:
        """Press or let go a simulated control for a client, or take its word that this has reached its window; what a
        client holds is let go when it is gone.

        Raises `ValueError` for a device or control that isn't there, and while the stand-ins are switched off.
        """
        hand = self._hand_of_windows() if device == OWN_WINDOW else self.stand_ins
        if hand is None:
            raise ValueError(tr("the simulated devices are off; turn them on (Devices page)"))
        hand.press(device, control, value)
        if value:
            self._pressed[device, control] = client
        else:
            self._pressed.pop((device, control), None)

    def _hand_of_windows(self) -> StandInDevices:
        if self._own_hand is None:
            window = Device(OWN_WINDOW, tr("Nakrel's window"), tuple(CONTROLS), "window", True)
            self._own_hand = hand = StandInDevices((window,))
            # It has reached a program: that window.
            hand.apart = True
            self._loop.watch(hand, lambda: self.read(hand))
        return self._own_hand

    def client_gone(self, client: object) -> None:
        """Let go what a client pressed on the simulated devices."""
        for (device, control), owner in list(self._pressed.items()):
            if owner is client:
                self.press_stand_in(client, device, control, 0)

    # For the backends

    def now_us(self) -> int:
        """The present time."""
        return monotonic_us()

    def at(self, name: str, when_us: int | None, call: Callable[[], object]) -> None:
        """A backend's timer."""
        self._loop.at(name, when_us, call)

    def aside(self, work: Callable[[], T], done: Callable[[T], object]) -> None:
        """A backend's work that may have to wait; one that fails is told."""
        asked = self.real

        def told(outcome: Outcome[T]) -> None:
            if isinstance(outcome.error, BackendLost):
                # One that has been closed, or given up, since is nobody's loss any more.
                if asked is self.real:
                    self._user.route_lost(str(outcome.error))
            elif outcome.error is not None:
                self._reporter.unexpected(outcome.error)
            else:
                done(outcome.get())

        self._worker.do(work, told)

    def fault(self, error: str) -> None:
        """A backend's fault; one that is being opened tells it on another thread."""
        self._loop.post(lambda: self._reporter.fault_once(error))

    def devices_changed(self) -> None:
        """A device came, went, or changed its state."""
        self._user.devices_changed()

    def introduce(self, twin: str, like: Sequence[str], known: Callable[[], object]) -> None:
        """Have the X server set a virtual device as others. Under Wayland the compositor sets each by its own rules."""
        self._twins.introduce(twin, like, known)

    def drain(self) -> None:
        """Read all inputs at the next turn."""
        self._loop.at("drain", monotonic_us(), self._read_all)

    def _read_all(self) -> None:
        for backend in self.inputs():
            self.read(backend)


def _because(reasons: list[str]) -> str:
    return tr("Why no kernel input: {reasons}. ").format(reasons=reasons[0]) if reasons else ""


def _open_x11(options: Options, host: Host, reasons: list[str]) -> X11Backend:
    display = options.display or os.environ.get("DISPLAY")
    if not display:
        raise BackendUnavailable(tr("there is no X server ($DISPLAY is empty)"))
    from nakrel.backends.x11.backend import X11Backend
    from nakrel.backends.x11.holds import Holds

    x11 = X11Backend(
        display,
        injector_is_xtest=options.injector_is_xtest,
        holds=options.holds or Holds(),
        aside=host.aside,
        devices_changed=host.devices_changed,
        drain=host.drain,
    )
    if os.environ.get("WAYLAND_DISPLAY"):
        x11.name = "xwayland"
        x11.note = tr(
            "Presses are seen, and macros arrive, only while a window under Xwayland is in front. {because}{doctor}"
        ).format(because=_because(reasons), doctor=tr(_DOCTOR))
    elif reasons:
        x11.note = f"{x11.note} {_because(reasons)}{tr(_DOCTOR)}"
    return x11


def _sink_note(reasons: list[str]) -> str:
    if not reasons:
        return ""
    told = "; ".join(reasons)
    return tr("Nothing reaches other windows: {told}. Macros play to the simulated devices only. {doctor}").format(
        told=told, doctor=tr(_DOCTOR)
    )
