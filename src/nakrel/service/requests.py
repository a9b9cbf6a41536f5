"""What the service does for each request of a client. Each request gets exactly one answer, whatever happens."""

from __future__ import annotations

import os
from collections.abc import Callable
from functools import partial
from typing import Any

import msgspec

import nakrel
from nakrel import protocol as m
from nakrel.core.model.cells import ChangeSpeed
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Mode
from nakrel.core.model.profile import EVERYDAY, FairPlay
from nakrel.core.model.recording import Moves
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Text
from nakrel.core.play.events import InputsLost, PlayMacro, StopMacro
from nakrel.core.play.operations import Plan, compile_macro
from nakrel.protocol.wire import BadMessage, decode_body
from nakrel.service.later import Found, Later, on
from nakrel.service.live import Ready
from nakrel.service.measuring import Measuring
from nakrel.service.queries import Queries
from nakrel.service.server import Client
from nakrel.service.service import TYPED, Service
from nakrel.service.state import Saved
from nakrel.service.trial_requests import TrialRequests
from nakrel.service.windows import Windows
from nakrel.service.worker import Outcome
from nakrel.session import Session
from nakrel.storage import secrets
from nakrel.storage.files import StorageError
from nakrel.storage.secrets import SecretError
from nakrel.words import tr

__all__ = ["Refusal", "Requests"]


# What is longer is read on another thread.
_SHORT = 16 * 1024
# What goes by the profile that is live. Just after the start nobody knows yet which game runs.
_BY_LIVE = frozenset({"GetStatus", "PlayMacro", "UseStage"})
# So many sheets may follow on each other then.
_TRIES = 5


class Refusal(Exception):
    """The request can't be done; the message says what, why, and what would help."""


class _Kind(msgspec.Struct, frozen=True):
    kind: str = msgspec.field(default="", name="is")


_kinds = msgspec.json.Decoder(_Kind)
_bodies = msgspec.json.Decoder(m.Body)


class Requests:
    """Handles every kind of request; what saves is answered when it is on the disk."""

    def __init__(self, service: Service, pid: int) -> None:
        self._service, self._pid = service, pid
        queries, trials = Queries(service), TrialRequests(service)
        self._handlers: dict[type, Callable[[Client, int, Any], Found]] = {
            m.Hello: self._hello,
            m.Subscribe: self._subscribe,
            m.GetLibrary: queries.library,
            m.GetStatus: lambda c, n, b: m.StatusIs(service.status()),
            m.GetDevices: lambda c, n, b: m.Devices(service.routes.devices()),
            m.GetBatteries: queries.batteries,
            m.GetChecks: queries.checks,
            m.ChooseRoute: self._choose_route,
            m.GetPrograms: queries.programs,
            m.GetApplications: queries.applications,
            m.GetLegends: queries.legends,
            m.AddTake: queries.add_take,
            m.GetTuning: queries.tuning,
            m.PutTuning: queries.put_tuning,
            m.TryMacro: trials.try_macro,
            m.EndTrial: trials.end_trial,
            m.Judge: trials.judge,
            m.MeasureMotion: Measuring(service).measure,
            m.GetTakes: queries.takes,
            m.GetVersions: queries.versions,
            m.GetJournal: lambda c, n, b: m.Journal(tuple(service.journal.entries)[-b.count :]),
            m.PutMacro: lambda c, n, b: self._save(c, lambda: service.state.put_macro(b.macro)),
            m.DeleteMacro: self._delete_macro,
            m.PutProfile: lambda c, n, b: self._save(c, lambda: service.state.put_profile(b.profile)),
            m.DeleteProfile: self._delete_profile,
            m.ChangeSettings: lambda c, n, b: self._save(c, lambda: service.state.change_settings(b.patch)),
            m.Pin: self._pin,
            m.UseSetUp: self._use_setup,
            m.UseStage: self._use_stage,
            m.Play_: self._play,
            m.TypeText: self._type,
            m.GetRun: lambda c, n, b: m.RunIs(service.playback.run_of(b.macro)),
            m.GetPlaces: queries.places,
            m.GetFacts: queries.facts,
            m.PutSecret: self._put_secret,
            m.Stop: self._stop,
            m.StartRecording: self.start_recording,
            m.StopRecording: self._stop_recording,
            m.Listen: self._listen,
            m.InFront: self._in_front,
            m.PressStandIn: self._press_stand_in,
            m.ServeSession: self._serve_session,
            m.OpenWindow: Windows().open,
            m.TryCue: self._try_cue,
            m.Shutdown: self._shutdown,
        }

    # Reading and answering

    def handle(self, client: Client, number: int, raw: msgspec.Raw) -> None:
        """Read the request, do it and answer, now or when it is done."""
        self._settle(client, number, lambda: self._read(client, number, raw))

    def _read(self, client: Client, number: int, raw: msgspec.Raw, tries: int = _TRIES) -> Found:
        try:
            kind = _kinds.decode(raw).kind
        except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
            raise BadMessage(
                tr("a request's body is an object that says what it is: {reason}").format(reason=error)
            ) from None
        if kind in _BY_LIVE and not self._service.live.begun and tries:
            return self._once_begun(lambda: self._read(client, number, raw, tries - 1))
        # Formulas are read, and long messages are, where the engine doesn't wait for it. What saves is read on the
        # saver's thread, so that it is saved in the order in which it was sent.
        if kind in ("PutMacro", "PutProfile"):
            return self._read_and_save(client, raw)
        if len(bytes(raw)) > _SHORT:
            read = partial(decode_body, raw, _bodies)
            return on(self._service.worker, read, lambda body: self._handlers[type(body)](client, number, body))
        body = decode_body(raw, _bodies)
        return self._handlers[type(body)](client, number, body)

    def _once_begun(self, read: Callable[[], Found]) -> Later:
        """What `read` gives once the desktop has been looked at, and the sheet that is being made ready then is played
        by. It may have been put off for a newer one."""
        made = on(self._service.preparer, lambda: None, lambda nothing: read())
        return Later(self._service.desktop.first_look, lambda nothing: made)

    def _read_and_save(self, client: Client, raw: msgspec.Raw) -> Found:
        state = self._service.state

        def work() -> Saved:
            body = decode_body(raw, _bodies)
            return state.put_macro(body.macro) if isinstance(body, m.PutMacro) else state.put_profile(body.profile)

        return self._save(client, work)

    def _settle(self, client: Client, number: int, does: Callable[[], Found]) -> None:
        """Answer with what comes of it, now or later."""
        try:
            found = does()
        except (Refusal, DataError, SecretError, BadMessage) as error:
            found = m.Refused(str(error))
        except StorageError as error:
            self._service.reporter.fault(str(error))
            found = m.Refused(str(error))
        except Exception as error:
            # It concerns this request and no macro that runs.
            found = m.Refused(self._service.reporter.unexpected(error))
        if isinstance(found, Later):
            then = found.then
            found.start(lambda outcome: self._settle(client, number, lambda: then(outcome.get())))
        elif isinstance(found, bytes):
            client.send(found)
        else:
            client.answer(number, found)

    # Reading

    def _hello(self, client: Client, number: int, body: m.Hello) -> Found:
        if body.protocol != m.PROTOCOL:
            raise Refusal(
                tr(
                    "this service speaks protocol {PROTOCOL}, {client} speaks {protocol}; end the service "
                    "(nakrel shutdown) and start it again"
                ).format(PROTOCOL=m.PROTOCOL, client=body.client, protocol=body.protocol)
            )
        return m.Welcome(m.PROTOCOL, self._pid, nakrel.__version__)

    def _subscribe(self, client: Client, number: int, body: m.Subscribe) -> Found:
        client.subscribed = True
        client.wants_seen = body.seen
        return m.Done()

    # Saving

    def _save(self, client: Client, work: Callable[[], Saved]) -> Later:
        def then(saved: Saved) -> Found:
            self._service.tell_saved(saved, client)
            return self._in_effect()

        return Later(partial(self._service.state.change, work), then)

    def _in_effect(self) -> Later:
        """An answer that comes when the engine plays by the sheet that is being made ready."""
        return on(self._service.preparer, lambda: None, lambda nothing: m.Done())

    def _delete_macro(self, client: Client, number: int, body: m.DeleteMacro) -> Found:
        self._service.playback.step(StopMacro(body.id))
        return self._save(client, lambda: self._service.state.delete_macro(body.id))

    def _delete_profile(self, client: Client, number: int, body: m.DeleteProfile) -> Found:
        if body.id == EVERYDAY:
            raise Refusal(tr("Everyday can't be deleted: it is live when no linked program runs"))
        known = self._service.state.profiles.get(body.id)
        saving = self._save(client, lambda: self._service.state.delete_profile(body.id))

        def then(saved: Saved) -> Found:
            if known:
                self._service.reporter.add("edit", tr("profile {known} deleted").format(known=known.name))
            return saving.then(saved)

        return Later(saving.start, then)

    def _pin(self, client: Client, number: int, body: m.Pin) -> Found:
        if body.profile and body.profile not in self._service.state.profiles:
            raise Refusal(
                tr("there is no profile {profile!r}; nakrel profiles lists them").format(profile=body.profile)
            )
        saving = self._save(client, lambda: self._service.state.change_settings(SettingsPatch(pinned=body.profile)))

        def then(saved: Saved) -> Found:
            self._service.tell_saved(saved, client)
            # The desktop is asked what is live now before this question, so that is decided when it is answered.
            return Later(partial(self._service.desktop.ask, lambda: None), lambda nothing: self._in_effect())

        return Later(saving.start, then)

    # Doing

    def _use_setup(self, client: Client, number: int, body: m.UseSetUp) -> Found:
        self._service.live.use(body.profile, body.setup, tr("asked for in the window or on the command line"))
        return self._in_effect()

    def _use_stage(self, client: Client, number: int, body: m.UseStage) -> Found:
        self._service.live.use_stage(ChangeSpeed(body.stage, body.by))
        return m.Done()

    def _play(self, client: Client, number: int, body: m.Play_) -> Found:
        # Edits that were sent before are saved first, so that what is played is what the client knows.
        ready = Later(partial(self._service.live.ready, body.macro), lambda ready: self._play_now(body, ready))
        return on(self._service.saver, lambda: None, lambda nothing: ready)

    def _play_now(self, body: m.Play_, ready: Ready | None) -> Found:
        s = self._service
        profile = s.state.profiles.get(s.live.profile)
        if profile and profile.fair_play is FairPlay.NO_MACROS:
            raise Refusal(tr("{profile} is live, and its fair-play rule allows no macros").format(profile=profile.name))
        if ready is None:
            raise Refusal(tr("there is no macro {macro!r}; nakrel macros lists them").format(macro=body.macro))
        self._refuse_while_recording()
        self._refuse_while_absent()
        play = body.play or ready.play
        if play.mode is Mode.HELD:
            # Nobody holds a button here, so it would never end: one run.
            play = msgspec.structs.replace(play, mode=Mode.SINGLE)
        s.playback.step(PlayMacro(ready.plan, play))
        return m.Done()

    def _refuse_while_recording(self) -> None:
        if self._service.recording.recording:
            raise Refusal(tr("a recording is going on; end it first"))

    def _refuse_while_absent(self) -> None:
        if why := self._service.presence.absent:
            raise Refusal(tr("{why}, so nothing is played or recorded; try again afterwards").format(why=why))

    def _type(self, client: Client, number: int, body: m.TypeText) -> Found:
        self._refuse_while_recording()
        self._refuse_while_absent()
        macro = Macro(id=TYPED, name=tr("A typed text"), loop=(Text(text=body.text, rate=body.rate),))

        def work() -> Plan:
            if refusal := self._service.side_effects.refusal_of(body.text):
                raise Refusal(refusal)
            return compile_macro(macro)

        def then(plan: Plan) -> Found:
            self._service.playback.step(PlayMacro(plan, macro.play))
            return m.Done()

        return on(self._service.worker, work, then)

    def _put_secret(self, client: Client, number: int, body: m.PutSecret) -> Found:
        return on(self._service.keyring, lambda: secrets.put(body.name, body.text), lambda nothing: m.Done())

    def _stop(self, client: Client, number: int, body: m.Stop) -> Found:
        if body.macro:
            self._service.playback.step(StopMacro(body.macro))
        else:
            self._service.stop_everything(tr("asked for in the window or on the command line"))
        return m.Done()

    def start_recording(self, client: Client | None, number: int, body: m.StartRecording) -> Found:
        """Begin a recording."""
        s = self._service
        if s.recording.recording:
            raise Refusal(tr("a recording is going on already; end it first"))
        self._refuse_while_absent()
        if not s.routes.devices():
            raise Refusal(
                tr(
                    "there is no device to record from: plug in a keyboard or a mouse, or turn on the simulated "
                    "devices (Devices page)"
                )
            )

        def start(answered: Callable[[Outcome[None]], object]) -> None:
            settings, quiet = body.settings, body.pointer_if_told
            if quiet:
                settings = msgspec.structs.replace(settings, moves=Moves.PATH)
            s.recording.start(client, settings, body.gesture, lambda: answered(Outcome(None)), quiet=quiet)

        return Later(start, lambda nothing: m.Done())

    def _stop_recording(self, client: Client, number: int, body: m.StopRecording) -> Found:
        if not self._service.recording.recording:
            raise Refusal(tr("no recording is going on"))

        def start(answered: Callable[[Outcome[Any]], object]) -> None:
            self._service.recording.finish(body.gesture, lambda steps: answered(Outcome(steps)))

        return Later(start, lambda steps: m.Recorded(steps, True))

    def _listen(self, client: Client, number: int, body: m.Listen) -> Found:
        self._service.recording.listen(client if body.seconds else None, body.seconds)
        return m.Done()

    def _in_front(self, client: Client, number: int, body: m.InFront) -> Found:
        self._service.set_front(client, body.front)
        return m.Done()

    def _press_stand_in(self, client: Client, number: int, body: m.PressStandIn) -> Found:
        try:
            self._service.routes.press_stand_in(client, body.device, body.control, body.value)
        except ValueError as error:
            raise Refusal(str(error)) from None
        return m.Done()

    def _choose_route(self, client: Client, number: int, body: m.ChooseRoute) -> Found:
        s = self._service
        s.playback.stop_all()
        s.playback.step(InputsLost())

        def start(answered: Callable[[Outcome[None]], object]) -> None:
            s.routes.choose_again(lambda: answered(Outcome(None)))

        return Later(start, lambda nothing: m.StatusIs(s.status()))

    def _serve_session(self, client: Client, number: int, body: m.ServeSession) -> Found:
        service, mine = self._service, Session.of(os.environ)
        if (body.display, body.wayland) == mine:
            if not service.live.sees_windows:
                # The same display, of a server or compositor that has been started anew.
                service.desktop.look_again()
                service.follow()
            return m.Done()

        def then(goes_on: bool) -> Found:
            if goes_on:
                return m.Refused(
                    tr(
                        "Nakrel's service belongs to another session of yours (display {mine}) and reaches the "
                        "windows there alone; log out there, or end it with: nakrel shutdown"
                    ).format(mine=mine)
                )
            service.reporter.add(
                "service",
                tr("makes room for one in another session"),
                tr("display {display}").format(display=body.display),
            )
            service.loop.stop()
            return m.Done()

        return on(service.worker, partial(mine.answers, os.environ.get("XDG_RUNTIME_DIR", "")), then)

    def _try_cue(self, client: Client, number: int, body: m.TryCue) -> Found:
        self._service.cues.attempt(body.cue)
        return m.Done()

    def _shutdown(self, client: Client, number: int, body: m.Shutdown) -> Found:
        if self._service.server:
            self._service.server.broadcast(m.ShutDown())
        self._service.loop.stop()
        return m.Done()
