"""The service: it joins devices, engine, library, programs and clients on one loop."""

from __future__ import annotations

import itertools
import logging
import random
from collections.abc import Callable, Sequence
from typing import Any

import msgspec

from nakrel.backends.protocols import BackendLost, BackendUnavailable, CannotEmit, InputEvent, OutputBackend
from nakrel.core.model.controls import label
from nakrel.core.model.devices import Device
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile
from nakrel.core.model.recording import Moves, RecordingSettings
from nakrel.core.model.settings import Settings
from nakrel.core.model.steps import Step
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import (
    Asked,
    Emit,
    Event,
    InputsLost,
    Output,
    Pressed,
    RunEnded,
    RunStarted,
    SideEffect,
    SpeedHeld,
    StopAll,
    TextReady,
    Turned,
    Wake,
)
from nakrel.core.play.player import GLIDE_US, AskText, MovePointer, OpenProgram, Stroke
from nakrel.core.play.recorder import Recorder
from nakrel.protocol import Devices, Fault, Recorded, Running, SeenEvent, SettingsChanged, Status
from nakrel.service.feed import Feed
from nakrel.service.journal import Journal as JournalFile
from nakrel.service.live import Live
from nakrel.service.loop import Loop, monotonic_us, spin_until
from nakrel.service.routes import Options, Routes
from nakrel.service.runs import Runs
from nakrel.service.server import Client, Server
from nakrel.service.side_effects import SideEffects, UnknownCharacters, strokes_of
from nakrel.service.worker import Worker
from nakrel.storage.home import Home
from nakrel.storage.library import Library

__all__ = ["Options", "Service"]

log = logging.getLogger(__name__)

# How long before a deadline the sleep ends; the rest is spent on the engine's work and on waiting exactly.
EARLY_US = 200
# How long a key stays lent to a character after the text is typed.
SPARE_US = 500_000


# What such events are called in notices and records.
_NAMES = {MovePointer: "POINTER", AskText: "TEXT", OpenProgram: "OPEN"}


class Service:
    """Everything that one service owns; `run` returns when it was told to end, with every hold released.

    `sink` is where output goes when no program can be reached; one of your own lets a measurement see it.
    """

    def __init__(self, home: Home, options: Options, sink: OutputBackend | None = None) -> None:
        self.options = options
        self.loop = Loop(self._bug)
        self.saver = Worker()
        self.library = Library(home)
        self.library.load()
        self.feed = Feed(self.loop, self.status)
        self.journal = JournalFile(home, self.saver, self.feed.journalled)
        self.profiles: dict[str, Profile] = dict(self.library.profiles)
        self.macros: dict[str, Macro] = dict(self.library.macros)
        self.settings = self.library.settings
        self._deadline_us: int | None = None
        self._running: dict[str, Running] = {}
        self._recorder: Recorder | None = None
        self._record_owner: Client | None = None
        self._records_moves = False
        self._record_since_us = 0
        self._listener: Client | None = None
        self._fronts: set[Client] = set()
        self._stand_in_fingers: dict[tuple[str, str], Client] = {}
        self._cannot: set[str] = set()
        # The macros that type with keys lent to characters.
        self._spare_users: set[str] = set()
        self.server: Server | None = None
        self.worker = Worker()
        self.runs = Runs()
        self.side_effects = SideEffects(self.worker, self._text_ready, self.fault_once)
        self.engine = Engine(random.Random(), lambda: self.side_effects.pointer() or (0, 0))
        self.live = Live(self)
        self.routes = Routes(self.loop, options, self, sink)
        self.routes.open(self.settings.stand_ins)
        self.loop.watch(self.saver, self.saver.collect)
        self.loop.watch(self.worker, self.worker.collect)

    def serve(self, home: Home, handle: Callable[[Client, int, object], None]) -> None:
        """Open the socket; requests go to `handle`."""
        self.server = Server(home, self.loop, handle, self._client_gone)
        self.feed.open(self.server, self.journal.write)
        for fault in self.library.faults:
            self.journal.add("fault", "a file was set aside", fault)
        self.journal.add("service", "the service started", f"output: {self.routes.output.name}")
        self.live.follow()

    def run(self) -> None:
        """Run until told to end; then release everything, save everything and close."""
        try:
            self.loop.run()
        finally:
            self.close()

    def close(self) -> None:
        """End all macros, let everything go, and close what is open."""
        self.step(StopAll())
        self.routes.close()
        self.live.forget()
        self.journal.add("service", "the service ended")
        self.feed.flush()
        if self.server:
            self.server.close()
        for thread in (self.worker, self.saver):
            self.loop.forget(thread)
            thread.close()
        if self.side_effects.screens:
            self.side_effects.screens.close()
        self.loop.close()

    # The engine

    def step(self, event: Event) -> None:
        """Hand the engine an event, send what it puts out, and set the next deadline."""
        outputs, self._deadline_us = self.engine.step(event, monotonic_us())
        if outputs:
            self._deliver(outputs)
        self.loop.at("engine", self._deadline_us, self._wake, early_us=EARLY_US)

    def _wake(self) -> None:
        """Work out what is due, wait for the very moment, and send it.

        The loop calls a little early: a plain sleep would end some 60 to 110 microseconds late, and the engine's
        own work would come on top.
        """
        due_us = self._deadline_us
        if due_us is None:
            return
        outputs, self._deadline_us = self.engine.step(Wake(), max(due_us, monotonic_us()))
        if outputs:
            spin_until(due_us)
            self._deliver(outputs)
        self.loop.at("engine", self._deadline_us, self._wake, early_us=EARLY_US)

    def _deliver(self, outputs: tuple[Output, ...]) -> None:
        """Send what goes out, at once and in its order; then note it, and tell what started and ended."""
        times: list[int] = []
        for kind, some in itertools.groupby(outputs, type):
            group: list[Any] = list(some)
            if kind is Emit and not self._fronts and not self._send(group):
                return
            if kind is SideEffect and not all(self._do(output) for output in group):
                return
            times += [monotonic_us()] * len(group)
        for output, at_us in zip(outputs, times, strict=True):
            if isinstance(output, Emit):
                if output.quiet:
                    # The keys of a secret would tell it.
                    continue
                self.runs.sent(output.by, output.control, output.value, output.due_us, at_us)
                self.feed.seen(SeenEvent(output.by, output.control, output.value, at_us))
            elif isinstance(output, SideEffect):
                name = _NAMES[type(output.what)]
                self.runs.sent(output.by, name, 1, output.due_us, at_us)
                self.feed.seen(SeenEvent(output.by, name, 1, at_us))
            elif isinstance(output, RunStarted):
                self._run_started(output)
            elif isinstance(output, Asked):
                self.live.asked(output)
            elif isinstance(output, SpeedHeld):
                self.live.hold_stage(output.stage)
            else:
                self._run_ended(output)

    def _send(self, emits: Sequence[Emit]) -> bool:
        """Send events to the programs; False where the way to them has just been lost."""
        try:
            self.routes.output.emit(emits)
        except CannotEmit as error:
            self.fault_once(str(error))
        except BackendLost as error:
            self.routes.lost(str(error))
            return False
        return True

    def _do(self, output: SideEffect) -> bool:
        """Move the pointer, find the keys of a text, or open a program; for show nothing of it reaches the desktop.

        False where the way to the programs has just been lost.
        """
        what = output.what
        if isinstance(what, AskText):
            # The answer comes later, or at once where the text only seems to be typed.
            if self._fronts:
                blank = TextReady(output.by, (Stroke(""),) * len(what.text))
                self.loop.at(f"for show {output.by}", monotonic_us(), lambda: self.step(blank))
            else:
                lend = self.routes.lend_keys if self.routes.lends_keys else None
                self.side_effects.type(output.by, what, self.settings.layout, lend)
        elif isinstance(what, OpenProgram):
            if not self._fronts:
                self.side_effects.open(what, self.live.programs().known)
        elif not self._fronts:
            try:
                self.side_effects.move(what, self.routes.output)
            except BackendLost as error:
                self.routes.lost(str(error))
                return False
        return True

    def _text_ready(self, ready: TextReady) -> None:
        if any(stroke.control.startswith("SPARE") for stroke in ready.strokes):
            self._spare_users.add(ready.macro)
        self.step(ready)

    def wrong_with_text(self, text: str) -> str:
        """What keeps the text from being typed, '' for nothing; from any thread."""
        try:
            strokes_of(text, self.settings.layout)
        except UnknownCharacters as error:
            return "" if self.routes.lends_keys else f"{error}."
        except BackendUnavailable as error:
            return f"{error}."
        return ""

    def set_front(self, connection: Client, front: bool) -> None:
        """Note whether a client's own window is in front: macros must not click and type into it.

        What macros hold is let go at the programs when it comes to the front, and held again when it leaves.
        """
        before = bool(self._fronts)
        (self._fronts.add if front else self._fronts.discard)(connection)
        if bool(self._fronts) != before and self.routes.reaches_programs:
            now_us = monotonic_us()
            self._send([Emit(code, int(before), now_us, "") for code in sorted(self.engine.held())])
            self.status_changed()

    @property
    def in_front(self) -> bool:
        """Whether a window of Nakrel's own is in front."""
        return bool(self._fronts)

    def _run_started(self, run: RunStarted) -> None:
        name = self.macros[run.macro].name if run.macro in self.macros else run.macro.replace("-", " ")
        now_us = monotonic_us()
        self._running[run.macro] = Running(run.macro, name, run.trigger, now_us)
        self.runs.started(run.macro, self.engine.started_us(run.macro) or now_us)
        self.status_changed()

    def _run_ended(self, run: RunEnded) -> None:
        known = self._running.pop(run.macro, None)
        self.runs.ended(run.macro, run.runs, run.reason)
        if run.macro in self._spare_users:
            # Programs read a key's character a while after the key came.
            self._spare_users.discard(run.macro)
            back = lambda: self.worker.do(self.routes.reclaim_keys, lambda error: None)  # noqa: E731
            self.loop.at("spare keys", None if self._spare_users else monotonic_us() + SPARE_US, back)
        if run.failed:
            self.fault(f"{known.name if known else run.macro} ended: {run.failed}")
        shift_ms = run.schedule_shift_us // 1_000
        shifted = f"; its plan moved by {shift_ms} ms because the computer was busy" if shift_ms else ""
        self.journal.add(
            "run",
            f"{known.name if known else run.macro} ended after {run.runs} run{'s' * (run.runs != 1)}",
            run.reason + shifted,
        )
        self.status_changed()

    def refresh_sheet(self, why: str = "profile switched") -> None:
        """Give the engine the live sheet, or an empty one while recording or listening, and take its controls."""
        sheet = self.live.set_sheet(bool(self._recorder or self._listener or self.routes.held_back), why)
        self.routes.capture(sheet.controls(), sheet.repeats_itself())
        self.live.condition()

    def stop_everything(self, why: str) -> None:
        """End all macros this instant, and any recording."""
        running = len(self._running)
        self.step(StopAll())
        if running:
            self.journal.add("run", f"Stop everything: {running} running", why)
        if self._recorder:
            self.finish_recording()

    # Fingers

    def devices(self) -> tuple[Device, ...]:
        """All devices of all backends."""
        return self.routes.devices()

    def finger(self, event: InputEvent) -> None:
        """What a finger did: stop, record, or hand it to the engine."""
        what = event.event
        if isinstance(what, InputsLost):
            self.step(what)
            return
        value = what.notches if isinstance(what, Turned) else int(isinstance(what, Pressed))
        if value and what.control == self.settings.stop_key:
            self.stop_everything(f"{label(what.control)} pressed")
        elif self._recorder:
            if what.control == self.settings.record_stop_key:
                if value:
                    self.finish_recording()
            elif event.at_us >= self._record_since_us:
                place = self.side_effects.pointer() if self._records_moves and isinstance(what, Pressed) else None
                if place:
                    self._recorder.move(*place, event.at_us)
                if self._recorder.feed(what, event.at_us, place):
                    self.feed.soon()
        self.step(what)
        self.feed.seen(SeenEvent("in", what.control, value, event.at_us))

    # Recording and listening

    @property
    def recording(self) -> bool:
        """Whether a recording is going on."""
        return self._recorder is not None

    def start_recording(self, owner: Client | None, settings: RecordingSettings, gesture: tuple[str, ...] = ()) -> None:
        """Begin; attachments rest meanwhile. The steps go to `owner` alone."""
        now_us = monotonic_us()
        down = [control for control in self.engine.fingers() if control not in gesture]
        self._recorder, self._record_owner = Recorder(settings, down, now_us, self.side_effects.screen()), owner
        self._records_moves = settings.moves is not Moves.NONE
        if self._records_moves and self.side_effects.pointer() is None:
            self._records_moves = False
            self.fault("Nobody tells here where the pointer is, so its places are not recorded.")
        if settings.moves is Moves.PATH and self._records_moves:
            self._sample_pointer()
        # What happened before is not in it, even if it is read only now. X tells its times in whole milliseconds.
        self._record_since_us = now_us // 1_000 * 1_000
        self.feed.recording(self._recorder, owner)
        self.refresh_sheet("recording")
        self.status_changed()

    def _sample_pointer(self) -> None:
        """Tell the recorder where the pointer is, again and again."""
        if self._recorder is None:
            return
        now_us = monotonic_us()
        if (place := self.side_effects.pointer()) and self._recorder.move(*place, now_us):
            self.feed.soon()
        self.loop.at("pointer path", now_us + GLIDE_US, self._sample_pointer)

    def finish_recording(self, gesture: tuple[str, ...] = ()) -> tuple[Step, ...]:
        """End, tell the owner and return all steps."""
        assert self._recorder
        steps = self._recorder.finish(gesture)
        owner, self._recorder, self._record_owner = self._record_owner, None, None
        self.feed.recording(None, None)
        if owner:
            owner.notify(Recorded(steps, True))
        self.refresh_sheet()
        self.status_changed()
        return steps

    def listen(self, owner: Client | None, seconds: int) -> None:
        """Let attachments rest for so many seconds, or with None no longer."""
        self._listener = owner
        self.loop.at("listen", monotonic_us() + seconds * 1_000_000 if owner else None, lambda: self.listen(None, 0))
        self.refresh_sheet("choosing a control")
        self.status_changed()

    # Clients

    def status(self) -> Status:
        """The present status."""
        return Status(
            live=self.live.profile,
            reason=self.live.reason,
            since=self.live.since,
            pinned=self.settings.pinned,
            backend=self.routes.output.name,
            backend_note=self.routes.output.note,
            running=tuple(self._running.values()),
            recording=self.recording,
            listening=self._listener is not None,
            for_show=bool(self._fronts) and self.routes.reaches_programs,
            running_profiles=self.live.running_profiles(),
            sees_windows=self.live.sees_windows,
            stage=self.live.stage,
            changes_motion=self.routes.changes_motion,
            setups={key: self.live.setup_of(key) for key in {*self.live.in_use, self.live.profile}},
        )

    def put_settings(self, settings: Settings, saved: Callable[[str], None]) -> None:
        """Save settings and go by them; then call `saved` with '' or what went wrong."""

        def finished(error: str) -> None:
            if not error:
                stand_ins = settings.stand_ins != self.settings.stand_ins
                self.settings = settings
                if stand_ins:
                    self.set_stand_ins(settings.stand_ins)
                self.live.follow()
                self.status_changed()
            saved(error)

        self.saver.do(lambda: self.library.put_settings(settings), finished)

    def pin(self, profile: str) -> None:
        """Hold a profile live, or with '' follow games again, as a control asked."""
        settings = msgspec.structs.replace(self.settings, pinned=profile)

        def saved(error: str) -> None:
            if error:
                self.fault(error)
            elif self.server:
                self.server.broadcast(SettingsChanged(settings))

        self.put_settings(settings, saved)

    def status_changed(self) -> None:
        """Tell the clients with the next flush."""
        self.feed.status_changed()

    def fault(self, error: str) -> None:
        """Write a fault into the journal and tell the clients."""
        self.journal.add("fault", error)
        if self.server:
            self.server.broadcast(Fault(error))

    def fault_once(self, error: str) -> None:
        """The same, unless the same words were told before."""
        if error not in self._cannot:
            self._cannot.add(error)
            self.fault(error)

    def _client_gone(self, connection: Client) -> None:
        if connection is self._record_owner:
            self._record_owner = None
            self.finish_recording()
        if connection is self._listener:
            self.listen(None, 0)
        self.set_front(connection, False)
        for (device, control), owner in list(self._stand_in_fingers.items()):
            if owner is connection:
                self.press_stand_in(connection, device, control, 0)

    # Backends

    def press_stand_in(self, connection: Client, device: str, control: str, value: int) -> None:
        """Press or let go a simulated control for a client; what a client holds is let go when it is gone.

        Raises `ValueError` for a device or control that isn't there, and while the stand-ins are switched off.
        """
        if self.routes.stand_ins is None:
            raise ValueError("the simulated devices are switched off; switch them on on the Devices page")
        self.routes.stand_ins.press(device, control, value)
        if value:
            self._stand_in_fingers[device, control] = connection
        else:
            self._stand_in_fingers.pop((device, control), None)

    def set_stand_ins(self, wanted: bool) -> None:
        """Show the simulated devices or not; what is pressed on them is let go."""
        if not wanted and self.routes.stand_ins and self.routes.reaches_programs:
            for device, control in list(self._stand_in_fingers):
                self.routes.stand_ins.press(device, control, 0)
            self._stand_in_fingers.clear()
        self.routes.set_stand_ins(wanted)

    def choose_route_again(self) -> None:
        """End all macros, and open the best way to the programs that there is now."""
        self.step(StopAll())
        self.step(InputsLost())
        self.routes.choose_again(self.settings.stand_ins)
        self.route_changed("asked for")

    def devices_changed(self) -> None:
        """Tell the clients."""
        if self.server:
            self.server.broadcast(Devices(self.devices()))

    def route_lost(self, error: str) -> None:
        """Nothing can be held at the programs any more; go on without them."""
        self.step(StopAll())
        self.step(InputsLost())
        self._follow_anew()
        self.fault(f"{error}; all macros were stopped")

    def route_changed(self, why: str) -> None:
        """Another way is open: what played the old way doesn't go on."""
        self.step(StopAll())
        self.journal.add("service", f"output: {self.routes.output.name}", why)
        self._follow_anew()

    def _follow_anew(self) -> None:
        self.live.forget()
        self.set_stand_ins(self.settings.stand_ins)
        self.live.follow()
        self.refresh_sheet()
        self.status_changed()

    def _bug(self, error: Exception) -> None:
        """A fault of ours: to the log with its traceback, all macros ended, and on with the work."""
        log.error("unexpected", exc_info=error)
        try:
            # It may have cut a macro short, and what that held must not stay down.
            self.step(StopAll())
        except Exception as second:
            log.error("unexpected while ending all macros", exc_info=second)
        self.fault(f"Something unexpected happened inside Nakrel ({error!r}); the service log has the details")
