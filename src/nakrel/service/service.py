"""The service: it joins devices, playback, library, desktop and clients on one loop."""

from __future__ import annotations

from collections.abc import Callable, Mapping

import msgspec

from nakrel.backends.protocols import InputEvent, OutputBackend
from nakrel.core.model.conditioning import Motion
from nakrel.core.model.controls import OF_WINDOWS, key_of, label
from nakrel.core.model.cues import Cue
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.play.events import (
    InputsLost,
    PlaceReady,
    PointerReady,
    Pressed,
    RunEnded,
    SetSheet,
    StopAll,
    TextReady,
    Turned,
)
from nakrel.core.play.sheet import Sheet, button_that_plays
from nakrel.protocol import Devices, MacroChanged, ProfileChanged, SeenEvent, SettingsChanged, Status
from nakrel.service.cues import Cues
from nakrel.service.feed import Feed
from nakrel.service.journal import Journal
from nakrel.service.live import Live, ReadySheet
from nakrel.service.loop import Loop
from nakrel.service.observers.desktop import Desktop, Seen
from nakrel.service.observers.watches import finders
from nakrel.service.options import Options
from nakrel.service.playback import Playback
from nakrel.service.presence import Presence
from nakrel.service.record_key import RecordKey
from nakrel.service.recording import Recording
from nakrel.service.reporter import Reporter
from nakrel.service.routes import Routes
from nakrel.service.server import Client, Server
from nakrel.service.side_effects import SideEffects
from nakrel.service.state import Saved, State
from nakrel.service.worker import Outcome, Worker
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from nakrel.words import counted, tr

__all__ = ["TYPED", "Options", "Service"]

# The id under which a typed text runs; the text itself is in no notice and no journal.
TYPED = "typed-text"
# How long the end waits for a thread that something else keeps waiting, as a keyring that asks for a password.
_END_S = 2.0


class Service:
    """Everything that one service owns, wired together; the parts see it through their own `Host`.

    `run` returns when it was told to end, with every hold released. `sink` is where output goes when no program can be
    reached; one of your own lets a measurement see it.
    """

    def __init__(self, home: Home, options: Options, sink: OutputBackend | None = None) -> None:
        self.loop = Loop(self._bug)
        library = Library(home)
        library.load()
        # A thread for each thing that may keep waiting what doesn't depend on it.
        self.worker, self.preparer = Worker(self.loop, "worker"), Worker(self.loop, "preparer")
        self.saver, self.keyring = Worker(self.loop, "saver"), Worker(self.loop, "keyring")
        self.opener = Worker(self.loop, "opener")
        self.state = State(library, self.saver, self._saved)
        self.feed = Feed(self.loop, self.status)
        self.journal = Journal(home, self.saver, self.feed.journalled)
        self.reporter = Reporter(self.journal, self.feed)
        self.loop.on_restless(self.reporter.restless)
        self.server: Server | None = None
        self.playback = Playback(self.loop, self.feed, self.reporter, self)
        self.live = Live(home, self.loop, self.state, self.preparer, self.reporter, self)
        self.routes = Routes(self.loop, options, self, self.opener, self.reporter, sink)
        self.routes.first_of, self.routes.answered = self.playback.first_of, self.playback.answered
        self.cues = Cues(self.worker, self, self.live.notify, self.routes.show_light)
        self.cues.change(self.state.settings.cues)
        self.reporter.on_fault = lambda error: self.cues.tell(Cue.FAULT, error)
        self.desktop = Desktop(self.loop, finders(options), self._see)
        self.recording = Recording(self.loop, self.feed, self.desktop, self.reporter, self)
        self.side_effects = SideEffects(self.loop, self.desktop, self.worker, self.keyring, self.reporter, self)
        self.presence = Presence(self.loop, self._presence_changed)
        self._sheet = ReadySheet.of(Sheet("", {}))
        self._notch_us = self.state.settings.notch_us
        self.routes.debounce(self.state.settings.debounce)
        self.routes.call_keys(self.state.settings.key_naming)
        self.routes.open(self.state.settings.stand_ins)

    def serve(self, home: Home, handle: Callable[[Client, int, msgspec.Raw], None]) -> None:
        """Open the socket; requests go to `handle`."""
        self.server = Server(home, self.loop, handle, self._client_gone)
        self._record_key = RecordKey(self.server, self.live)
        self.feed.open(self.server, self.journal.write)
        self.reporter.open(self.server)
        for fault in self.state.library.faults:
            self.reporter.add("fault", tr("a file was set aside"), fault)
        self.reporter.add("service", tr("the service started"), self._output_in_words())
        self.follow()
        self.refresh_sheet()

    def run(self) -> None:
        """Run until told to end; then release everything, save everything and close."""
        try:
            self.loop.run()
        finally:
            self.close()

    def close(self) -> None:
        """End all macros, let everything go, and close what is open."""
        if self.server:
            self.server.take_last()
        self.playback.stop_all()
        self.cues.end()
        self.loop.guard(False)
        self.routes.close()
        self.presence.close()
        self.desktop.close()
        self.reporter.add("service", tr("the service ended"))
        self.feed.flush()
        self.saver.close()
        for worker in (self.opener, self.worker, self.preparer, self.keyring):
            worker.close(_END_S)
        self.loop.collect()
        if self.server:
            self.server.close()
        self.loop.close()

    # What the parts ask for

    @property
    def output(self) -> OutputBackend:
        """Where events go."""
        return self.routes.output

    @property
    def in_front(self) -> bool:
        """Whether a window of Nakrel's own is in front."""
        return self.playback.preview

    def name_of(self, macro: str) -> str:
        """What people call a macro, or what else plays under its id."""
        if known := self.state.macros.get(macro):
            return known.name
        return tr("A typed text") if macro == TYPED else button_that_plays(macro) or macro

    def fingers(self) -> Mapping[str, str]:
        """The controls that fingers hold down, with what each puts down by itself."""
        return self.playback.engine.fingers()

    def step(self, event: TextReady | PlaceReady | PointerReady) -> None:
        """Hand the engine an answer."""
        self.playback.step(event)

    def run_ended(self, run: RunEnded, name: str) -> None:
        """A macro has ended: tell the journal."""
        self.side_effects.run_ended(run.macro)
        if run.failed:
            self.reporter.fault(tr("{name} ended: {failed}").format(name=name, failed=run.failed))
        shift_ms = run.schedule_shift_us // 1_000
        shifted = (
            tr("; its plan moved by {time} ms because the computer was busy").format(time=shift_ms) if shift_ms else ""
        )
        self.reporter.add(
            "run",
            counted(run.runs, "{name} ended after {n} run", "{name} ended after {n} runs", name=name),
            run.reason + shifted,
        )

    def danger_changed(self) -> None:
        """Standing still does harm while macros run or devices are grabbed, and no harm else."""
        self.loop.guard(bool(self.playback.running) or self.routes.grabs)

    # The sheet

    def refresh_sheet(self, why: str = "") -> None:
        """Have the engine play by the live profile as it is now, or by nothing while recording or listening, and while
        nobody can be there."""
        idle = self.recording.recording or self.recording.listening or self.routes.held_back
        self.live.prepare(idle=idle or bool(self.presence.absent), why=why)

    def _see(self, seen: Seen) -> None:
        """Go by what is seen of the desktop."""
        self.presence.see_locker(seen.locked)
        self.live.see(seen)

    def _presence_changed(self) -> None:
        """Somebody can't be there any more, or can again."""
        why = self.presence.absent
        if why and (self.playback.running or self.recording.recording):
            self.stop_everything(why)
        self.refresh_sheet(why)
        self.reporter.status_changed()

    def when_in_effect(self, call: Callable[[], object]) -> None:
        """Call once the sheet that is being made ready is played by."""
        self.preparer.do(lambda: None, lambda outcome: call())

    def set_sheet(self, ready: ReadySheet, why: str) -> None:
        """Play by this sheet from now on, and keep its controls from the programs."""
        self._sheet = ready
        if self.previews:
            ready = ReadySheet.of(ready.sheet.without(OF_WINDOWS))
        self.playback.step(SetSheet(ready.sheet, why or tr("profile switched")))
        self.routes.capture(ready.controls, ready.repeats_itself)
        self.danger_changed()

    @property
    def previews(self) -> bool:
        """Whether a window of Nakrel's own is in front of the programs. It is worked as any window is, whatever keys
        and buttons do elsewhere; what other buttons play goes nowhere."""
        return self.in_front and self.routes.reaches_programs

    def set_front(self, client: Client, front: bool) -> None:
        """Whether a client's own window is in front."""
        if self.playback.set_front(client, front, reaches_programs=self.routes.reaches_programs):
            self.set_sheet(self._sheet, tr("Nakrel's window came to the front") if front else tr("the preview ended"))
            self.reporter.status_changed()

    def condition(self, motion: Motion | None) -> None:
        """Have the devices move the pointer like this; as they do by themselves where it is somebody else's."""
        self.routes.condition(None if self.presence.absent else motion)

    def stop_everything(self, why: str) -> None:
        """End all macros this instant, and any recording; what they were about to open isn't opened."""
        self.side_effects.opener.stop()
        if running := self.playback.stop_all():
            stopped = counted(running, "Stop everything: {n} macro ran", "Stop everything: {n} macros ran")
            self.reporter.add("run", stopped, why)
        self.cues.tell(Cue.STOP, tr("Everything is stopped"), why)
        if self.recording.recording:
            self.recording.finish((), lambda steps: None)

    def finger(self, event: InputEvent) -> None:
        """What a finger did: stop, record, or hand it to the engine."""
        what, settings = event.event, self.state.settings
        if isinstance(what, InputsLost):
            self.playback.step(what)
            return
        if self.presence.absent:
            # It may be a password, and may be another's.
            self.playback.step(what)
            return
        value = what.notches if isinstance(what, Turned) else int(isinstance(what, Pressed))
        if isinstance(what, Pressed) and self.playback.echo.heard(what.control, event.device, event.at_us):
            self._echoed(what.control, event.device)
            return
        # The key that stops everything does so on a second keyboard, too.
        if value and settings.stop_key in (what.control, key_of(what.control)):
            self.stop_everything(tr("{control} pressed").format(control=label(what.control)))
        elif self.recording.recording:
            if what.control not in (settings.record_stop_key, settings.record_key):
                self.recording.feed(what, event.at_us)
            elif value:
                self.recording.finish((), self._record_key.ended)
        elif value and what.control == settings.record_key and not self.in_front:
            self._record_key.pressed(what.control)
        self.playback.step(what)
        sent = "" if isinstance(what, Turned) else what.sent
        self.feed.seen(SeenEvent("in", what.control, value, event.at_us, sent))

    def _echoed(self, control: str, device: str) -> None:
        """A device sends back what macros press: whatever that started ends, and it starts nothing more."""
        self.playback.stop_all(tr("{device} sends back what macros press").format(device=device))
        self.reporter.fault_once(
            tr(
                "{device} sends back what macros press ({control}), so a macro started itself again and "
                "again; all macros were stopped. A program that remaps keys does that: let it leave Nakrel's "
                "devices alone, or attach the macro to another button."
            ).format(device=device, control=label(control))
        )
        if device not in self.routes.echoing:
            self.routes.echoing.add(device)
            self.devices_changed()

    # What is stored

    def follow(self) -> None:
        """Have it decided anew which profile is live, after profiles or the pin have changed."""
        pinned = self.state.settings.pinned
        self.desktop.follow(self.state.profiles.values(), pinned if pinned in self.state.profiles else "")

    def _saved(self, saved: Saved) -> None:
        """Go by what has just been saved."""
        if saved.settings is not None:
            self.routes.debounce(saved.settings.debounce)
            if self.routes.call_keys(saved.settings.key_naming):
                self.devices_changed()
            self.cues.change(saved.settings.cues)
        if saved.settings is not None and saved.settings.stand_ins != self.routes.wants_stand_ins:
            self.routes.set_stand_ins(saved.settings.stand_ins)
        for before, after in saved.changed:
            self.live.edited(before, after)
        if saved.profiles or saved.settings is not None:
            self.follow()
        notch = saved.settings is not None and saved.settings.notch_us != self._notch_us
        if saved.profiles or saved.macros or notch:
            self._notch_us = self.state.settings.notch_us
            self.refresh_sheet(tr("edited"))
        self.reporter.status_changed()

    def tell_saved(self, saved: Saved, author: Client | None) -> None:
        """Tell the clients: all but the one whose edit it is, unless more was saved than that one knows of. It has the
        answer, and a long macro costs time to send and to read."""
        if self.server is None:
            return
        but = None if saved.beyond else author
        for key, macro in saved.macros.items():
            self.server.broadcast(MacroChanged(key, macro), but)
        for key, profile in saved.profiles.items():
            self.server.broadcast(ProfileChanged(key, profile), but)
        if saved.settings is not None:
            self.server.broadcast(SettingsChanged(saved.settings))

    def pin(self, profile: str) -> None:
        """Hold a profile live, or with '' load profiles with their games again, as a control asked."""

        def saved(outcome: Outcome[Saved]) -> None:
            if outcome.error is not None:
                self.reporter.fault(str(outcome.error))
            else:
                self.tell_saved(outcome.get(), None)

        self.state.change(lambda: self.state.change_settings(SettingsPatch(pinned=profile)), saved)

    # Clients and routes

    def _output_in_words(self) -> str:
        name = self.output.name if self.routes.reaches_programs else ""
        return {
            "kernel": tr("macros reach programs through the kernel's input"),
            "x11": tr("macros reach programs through the X server"),
            "xwayland": tr("macros reach programs under Xwayland"),
        }.get(name, tr("macros reach no program"))

    def status(self) -> Status:
        """The present status."""
        live, routes = self.live, self.routes
        return Status(
            live=live.live,
            reason=live.reason,
            since=live.since,
            pinned=self.state.settings.pinned,
            backend=self.output.name,
            backend_note=self.output.note,
            running=self.playback.running_now(),
            recording=self.recording.recording,
            listening=self.recording.listening,
            for_show=self.previews,
            running_profiles=live.running_profiles,
            sees_windows=live.sees_windows,
            stage=live.stage,
            changes_motion=routes.changes_motion,
            program_in_front=self.live.program_in_front,
            warning=routes.warning or self._resting,
            setups={key: live.setup_of(key) for key in {*live.in_use, live.live}},
        )

    @property
    def _resting(self) -> str:
        """Why nothing is played although it could be, '' where it is."""
        if not self.presence.absent:
            return ""
        return tr("Nothing is played now, and buttons do what they always do: {why}.").format(why=self.presence.absent)

    def _client_gone(self, client: Client) -> None:
        self.recording.client_gone(client)
        if self.live.trials.end(client, tr("its window is gone")):
            self.refresh_sheet(tr("the trial ended"))
        self.set_front(client, False)
        self.routes.client_gone(client)

    def devices_changed(self) -> None:
        """Tell the clients."""
        if self.server:
            self.server.broadcast(Devices(self.routes.devices()))

    def route_lost(self, error: str) -> None:
        """Nothing can be held at the programs any more; go on without them."""
        if self.routes.lost(error):
            self.route_changed("")
            self.playback.step(InputsLost())
            self.reporter.fault(tr("{reason}; all macros were stopped").format(reason=error))

    def route_changed(self, why: str) -> None:
        """Another route is open: what played the old one doesn't go on."""
        self.playback.step(StopAll(tr("Stop everything")))
        if why:
            self.reporter.add("service", self._output_in_words(), why)
        self.desktop.look_again()
        self.routes.set_stand_ins(self.state.settings.stand_ins)
        self.follow()
        self.refresh_sheet()
        self.reporter.status_changed()

    def _bug(self, error: Exception) -> None:
        """A fault of ours in the midst of something: it may have cut a macro short, and what that held must not stay
        down."""
        self.reporter.unexpected(error)
        try:
            self.playback.step(StopAll(tr("Stop everything")))
        except Exception as second:
            self.reporter.unexpected(second)
