"""What the service does for each request of a client."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import msgspec

import nakrel
from nakrel import protocol as m
from nakrel.core.model.cells import ChangeSpeed
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Mode
from nakrel.core.model.profile import EVERYDAY, FairPlay, Profile
from nakrel.core.model.settings import Settings
from nakrel.core.model.steps import Text
from nakrel.core.play.events import PlayMacro, StopMacro
from nakrel.core.play.operations import compile_macro
from nakrel.service.server import Client
from nakrel.service.service import Service
from nakrel.service.side_effects import missing_program
from nakrel.storage import secrets
from nakrel.storage.secrets import SecretError

__all__ = ["Refusal", "Requests"]


# The id under which a typed text runs; the text itself is in no notice and no journal.
TYPED = "typed-text"


class Refusal(Exception):
    """The request can't be done; the message says what, why, and what would help."""


class Requests:
    """Handles every kind of request; what saves is answered when it is on the disk."""

    def __init__(self, service: Service, pid: int) -> None:
        self._service = service
        self._pid = pid
        self._handlers: dict[type, Callable[[Client, int, Any], m.AnswerBody | None]] = {
            m.Hello: self._hello,
            m.Subscribe: self._subscribe,
            m.GetLibrary: self._library,
            m.GetStatus: lambda c, n, b: m.StatusIs(service.status()),
            m.GetDevices: lambda c, n, b: m.Devices(service.devices()),
            m.GetChecks: self._checks,
            m.ChooseRoute: self._choose_route,
            m.GetPrograms: self._programs,
            m.GetApplications: self._applications,
            m.GetVersions: self._versions,
            m.GetJournal: lambda c, n, b: m.Journal(tuple(service.journal.entries)[-b.count :]),
            m.PutMacro: self._put_macro,
            m.DeleteMacro: self._delete_macro,
            m.PutProfile: self._put_profile,
            m.DeleteProfile: self._delete_profile,
            m.PutSettings: self._put_settings,
            m.Pin: self._pin,
            m.UseSetUp: self._use_setup,
            m.UseStage: self._use_stage,
            m.Play_: self._play,
            m.TypeText: self._type,
            m.GetRun: lambda c, n, b: m.RunIs(service.runs.of(b.macro)),
            m.GetPlaces: self._places,
            m.GetFacts: self._facts,
            m.PutSecret: self._put_secret,
            m.Stop: self._stop,
            m.StartRecording: self.start_recording,
            m.StopRecording: self._stop_recording,
            m.Listen: self._listen,
            m.InFront: self._in_front,
            m.PressStandIn: self._press_stand_in,
            m.Shutdown: self._shutdown,
        }

    def handle(self, connection: Client, number: int, body: object) -> None:
        """Do it and answer, now or when it is saved."""
        self._answer(connection, number, lambda: self._handlers[type(body)](connection, number, body))

    def _answer(self, connection: Client, number: int, does: Callable[[], m.AnswerBody | None]) -> None:
        try:
            answer = does()
        except Refusal as refusal:
            answer = m.Refused(str(refusal))
        if answer is not None:
            connection.answer(number, answer)

    # Reading

    def _hello(self, connection: Client, number: int, body: m.Hello) -> m.AnswerBody:
        if body.protocol != m.PROTOCOL:
            raise Refusal(
                f"this service speaks protocol {m.PROTOCOL}, {body.client} speaks {body.protocol}; "
                "end the service (nakrel shutdown) and start it again"
            )
        return m.Welcome(m.PROTOCOL, self._pid, nakrel.__version__)

    def _subscribe(self, connection: Client, number: int, body: m.Subscribe) -> m.AnswerBody:
        connection.subscribed = True
        connection.wants_seen = body.seen
        return m.Done()

    def _library(self, connection: Client, number: int, body: m.GetLibrary) -> m.AnswerBody:
        s = self._service
        return m.Library(tuple(s.profiles.values()), tuple(s.macros.values()), s.settings, tuple(s.library.faults))

    def _checks(self, connection: Client, number: int, body: m.GetChecks) -> m.AnswerBody:
        # Only who asks for it pays for it.
        from nakrel.service.doctor import System, examine

        return m.Checks(examine(System(layout=self._service.settings.layout), self._service.status()))

    def _programs(self, connection: Client, number: int, body: m.GetPrograms) -> m.AnswerBody:
        follower = self._service.live.programs()
        found = follower.programs()
        return m.Programs(found, {str(pid): icon for pid, icon in follower.icons().items()} if body.icons else {})

    def _applications(self, connection: Client, number: int, body: m.GetApplications) -> None:
        found: list[m.Applications] = []

        def work() -> None:
            # Only who links profiles pays for it.
            from nakrel.backends.applications import applications

            found.append(m.Applications(applications(body.language)))

        finished = lambda error: connection.answer(number, m.Refused(error) if error else found[0])  # noqa: E731
        self._service.worker.do(work, finished)

    def _versions(self, connection: Client, number: int, body: m.GetVersions) -> None:
        found: list[m.Versions] = []
        library = self._service.library

        def work() -> None:
            if body.kind == "profile":
                versions = [m.Version(at, profile=item) for at, item in library.kept(Profile, body.id)]
            else:
                versions = [m.Version(at, macro=item) for at, item in library.kept(Macro, body.id)]
            found.append(m.Versions(tuple(versions)))

        finished = lambda error: connection.answer(number, m.Refused(error) if error else found[0])  # noqa: E731
        # Behind what is being saved, so that the last version is among them.
        self._service.saver.do(work, finished)

    # Saving

    def _put_macro(self, connection: Client, number: int, body: m.PutMacro) -> None:
        macro, s = body.macro, self._service

        def saved() -> None:
            s.macros[macro.id] = macro
            s.refresh_sheet()
            self._tell(m.MacroChanged(macro.id, macro), connection)

        self._save(connection, number, lambda: s.library.put_macro(macro), saved)

    def _delete_macro(self, connection: Client, number: int, body: m.DeleteMacro) -> None:
        s = self._service

        def saved() -> None:
            s.step(StopMacro(body.id))
            s.macros.pop(body.id, None)
            s.refresh_sheet()
            self._tell(m.MacroChanged(body.id, None), connection)

        self._save(connection, number, lambda: s.library.delete_macro(body.id), saved)

    def _put_profile(self, connection: Client, number: int, body: m.PutProfile) -> None:
        profile, s = body.profile, self._service

        def saved() -> None:
            before = s.profiles.get(profile.id)
            s.profiles[profile.id] = profile
            s.live.edited(before, profile)
            s.live.follow()
            s.refresh_sheet()
            self._tell(m.ProfileChanged(profile.id, profile), connection)

        self._save(connection, number, lambda: s.library.put_profile(profile), saved)

    def _delete_profile(self, connection: Client, number: int, body: m.DeleteProfile) -> None:
        s = self._service
        if body.id == EVERYDAY:
            raise Refusal("Everyday can't be deleted: it is live when no linked program runs")

        def saved() -> None:
            gone = s.profiles.pop(body.id, None)
            if s.settings.pinned == body.id:
                self._save_settings(msgspec.structs.replace(s.settings, pinned=""))
            s.live.follow()
            self._tell(m.ProfileChanged(body.id, None), connection)
            if gone:
                s.journal.add("edit", f"profile {gone.name} deleted")

        self._save(connection, number, lambda: s.library.delete_profile(body.id), saved)

    def _put_settings(self, connection: Client, number: int, body: m.PutSettings) -> None:
        self._save_settings(body.settings, connection, number, author=connection)

    def _pin(self, connection: Client, number: int, body: m.Pin) -> None:
        s = self._service
        if body.profile and body.profile not in s.profiles:
            raise Refusal(f"there is no profile {body.profile!r}; nakrel profiles lists them")
        self._save_settings(msgspec.structs.replace(s.settings, pinned=body.profile), connection, number)

    def _save_settings(
        self,
        settings: Settings,
        connection: Client | None = None,
        number: int = 0,
        author: Client | None = None,
    ) -> None:
        """Save them and answer; all but their author are told."""

        def saved(error: str) -> None:
            if not error:
                self._tell(m.SettingsChanged(settings), author)
            self._answer_saved(connection, number, error)

        self._service.put_settings(settings, saved)

    def _save(
        self, connection: Client | None, number: int, work: Callable[[], None], saved: Callable[[], None]
    ) -> None:
        def finished(error: str) -> None:
            if not error:
                saved()
            self._answer_saved(connection, number, error)

        self._service.saver.do(work, finished)

    def _answer_saved(self, connection: Client | None, number: int, error: str) -> None:
        if error:
            self._service.fault(error)
        if connection is not None:
            connection.answer(number, m.Refused(error) if error else m.Done())

    def _tell(self, notice: m.Notice, author: Client | None) -> None:
        """Tell all but the client whose edit it is: it has the answer, and a long macro costs time to send and read."""
        if self._service.server:
            self._service.server.broadcast(notice, author)

    # Doing

    def _use_setup(self, connection: Client, number: int, body: m.UseSetUp) -> m.AnswerBody:
        try:
            self._service.live.use(body.profile, body.setup, "asked for in the window or on the command line")
        except DataError as error:
            raise Refusal(str(error)) from None
        return m.Done()

    def _use_stage(self, connection: Client, number: int, body: m.UseStage) -> m.AnswerBody:
        try:
            self._service.live.use_stage(ChangeSpeed(body.stage, body.by))
        except DataError as error:
            raise Refusal(str(error)) from None
        return m.Done()

    def _play(self, connection: Client, number: int, body: m.Play_) -> None:
        # Edits that were sent before are saved first, so that what is played is what the client knows.
        finished = lambda error: self._answer(connection, number, lambda: self._play_now(body))  # noqa: E731
        self._service.saver.do(lambda: None, finished)

    def _play_now(self, body: m.Play_) -> m.AnswerBody:
        s = self._service
        profile = s.profiles[s.live.profile]
        if profile.fair_play is FairPlay.NO_MACROS:
            raise Refusal(f"{profile.name} is live, and its fair-play rule allows no macros")
        try:
            ready = s.live.plan_of(body.macro)
        except DataError as error:
            raise Refusal(str(error)) from None
        if ready is None:
            raise Refusal(f"there is no macro {body.macro!r}; nakrel macros lists them")
        if s.recording:
            raise Refusal("a recording is going on; end it first")
        plan, play = ready[0], body.play or ready[1]
        if play.mode is Mode.HELD:
            # Nobody holds a button here, so it would never end: one run.
            play = msgspec.structs.replace(play, mode=Mode.SINGLE)
        s.step(PlayMacro(plan, play))
        return m.Done()

    def _type(self, connection: Client, number: int, body: m.TypeText) -> None:
        s = self._service
        if s.recording:
            raise Refusal("a recording is going on; end it first")
        found: list[str] = []
        macro = Macro(id=TYPED, name="A typed text", loop=(Text(text=body.text, rate=body.rate),))

        def finished(error: str) -> None:
            wrong = error or found[0]
            if not wrong:
                s.step(PlayMacro(compile_macro(macro), macro.play))
            connection.answer(number, m.Refused(wrong) if wrong else m.Done())

        s.worker.do(lambda: found.append(s.wrong_with_text(body.text)), finished)

    def _facts(self, connection: Client, number: int, body: m.GetFacts) -> None:
        s = self._service
        found: list[m.Facts] = []

        def work() -> None:
            texts = {text: wrong for text in body.texts if (wrong := s.wrong_with_text(text))}
            programs = {name: f"{wrong}." for name in body.programs if (wrong := missing_program(name))}
            secret = {name: wrong for name in body.secrets if (wrong := _wrong_with_secret(name))}
            found.append(m.Facts(texts, programs, secret, None))

        def finished(error: str) -> None:
            answer = m.Refused(error) if error else msgspec.structs.replace(found[0], screen=s.side_effects.screen())
            connection.answer(number, answer)

        s.worker.do(work, finished)

    def _put_secret(self, connection: Client, number: int, body: m.PutSecret) -> None:
        told: list[str] = []

        def work() -> None:
            try:
                secrets.put(body.name, body.text)
            except SecretError as error:
                told.append(str(error))

        def finished(error: str) -> None:
            wrong = error or (told[0] if told else "")
            connection.answer(number, m.Refused(wrong) if wrong else m.Done())

        self._service.worker.do(work, finished)

    def _places(self, connection: Client, number: int, body: m.GetPlaces) -> m.AnswerBody:
        s = self._service
        pids = s.live.programs().pids_of(body.profile) if body.profile else set()
        window = s.side_effects.window_of(pids) if pids else None
        return m.Places(s.side_effects.monitors(), s.side_effects.screen(), s.side_effects.pointer(), window)

    def _stop(self, connection: Client, number: int, body: m.Stop) -> m.AnswerBody:
        if body.macro:
            self._service.step(StopMacro(body.macro))
        else:
            self._service.stop_everything("asked for in the window or on the command line")
        return m.Done()

    def start_recording(self, connection: Client | None, number: int, body: m.StartRecording) -> m.AnswerBody:
        s = self._service
        if s.recording:
            raise Refusal("a recording is going on already; end it first")
        if not s.devices():
            raise Refusal(
                "there is no device to record from: plug in a keyboard or a mouse, or switch on the simulated "
                "devices on the Devices page"
            )
        s.start_recording(connection, body.settings, body.gesture)
        return m.Done()

    def _stop_recording(self, connection: Client, number: int, body: m.StopRecording) -> m.AnswerBody:
        if not self._service.recording:
            raise Refusal("no recording is going on")
        return m.Recorded(self._service.finish_recording(body.gesture), True)

    def _listen(self, connection: Client, number: int, body: m.Listen) -> m.AnswerBody:
        self._service.listen(connection if body.seconds else None, body.seconds)
        return m.Done()

    def _in_front(self, connection: Client, number: int, body: m.InFront) -> m.AnswerBody:
        self._service.set_front(connection, body.front)
        return m.Done()

    def _press_stand_in(self, connection: Client, number: int, body: m.PressStandIn) -> m.AnswerBody:
        try:
            self._service.press_stand_in(connection, body.device, body.control, body.value)
        except ValueError as error:
            raise Refusal(str(error)) from None
        return m.Done()

    def _choose_route(self, connection: Client, number: int, body: m.ChooseRoute) -> m.AnswerBody:
        self._service.choose_route_again()
        return m.StatusIs(self._service.status())

    def _shutdown(self, connection: Client, number: int, body: m.Shutdown) -> m.AnswerBody:
        self._service.loop.stop()
        return m.Done()


def _wrong_with_secret(name: str) -> str:
    try:
        secrets.get(name)
    except SecretError as error:
        return f"{error}."
    return ""
