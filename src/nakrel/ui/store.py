"""What the window knows: a mirror of the service's state, and the way every edit goes to it.

An edit changes the mirror at once and is sent to the service, which saves it and answers. There is no Apply and no
Save; undo is the way back.
"""

from __future__ import annotations

import contextlib
import os
import select
import time
from collections import Counter
from collections.abc import Callable
from functools import partial
from typing import Any

from msgspec.structs import replace
from PyQt6 import sip
from PyQt6.QtCore import QObject, QSocketNotifier, QTimer, pyqtSignal
from PyQt6.QtGui import QUndoStack

from nakrel import protocol as m
from nakrel.client.connection import ClientError, ServiceConnection, ServiceGone, ServiceRefused
from nakrel.core.model.devices import Battery, Device
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.core.model.settings import Settings, SettingsPatch
from nakrel.session import Session
from nakrel.ui.keyboard import Keyboard
from nakrel.ui.seen_down import SeenDown
from nakrel.ui.shut_down import ShutDown
from nakrel.words import order_of, sentence, tr

__all__ = ["Store", "live_name"]

_RETRY_MS = 500
# Batteries empty slowly.
_BATTERIES_MS = 120_000
# An edit goes to the service this long after it was made: the window shows it first.
_SEND_MS = 30


def live_name(store: Store) -> str:
    """The name of the live profile, with its variant where it has several."""
    status = store.status
    profile = store.profiles.get(status.live)
    if profile is None:
        return status.live or tr("nothing")
    if len(profile.setups) == 1:
        return profile.name
    return f"{profile.name} · {profile.setup(status.setups.get(profile.id, '')).name}"


def _but_for_progress(status: m.Status) -> m.Status:
    return replace(status, running=tuple(replace(run, run=0) for run in status.running))


def _show_if_refused(store: Store, answer: m.AnswerBody) -> None:
    if isinstance(answer, m.Refused):
        store.fault.emit(answer.error)


def _unless_gone(answered: Callable[[m.AnswerBody], None]) -> Callable[[m.AnswerBody], None]:
    """What takes the answer, unless it is a method of a window that has been closed meanwhile."""
    owner = getattr(answered, "__self__", None)
    if not isinstance(owner, QObject):
        return answered
    return lambda answer: None if sip.isdeleted(owner) else answered(answer)


def _name_of(store: Store, kind: str, key: str) -> str:
    known = store.macros.get(key) if kind == "macro" else store.profiles.get(key) if kind == "profile" else None
    return (
        (tr("macro “{name}”") if kind == "macro" else tr("profile “{name}”")).format(name=known.name)
        if known
        else tr("the settings")
        if kind == "settings"
        else tr("a deleted macro")
        if kind == "macro"
        else tr("a deleted profile")
    )


# Why what is shown isn't on the disk.
_ENDED = tr("the service has ended; it is tried again when the service is back.")


class Store(QObject):
    """Give it a way to connect; it keeps the connection, and comes back by itself when the service ends."""

    library_changed = pyqtSignal()
    profile_changed = pyqtSignal(str)
    macro_changed = pyqtSignal(str)
    settings_changed = pyqtSignal()
    status_changed = pyqtSignal()
    # Of the status only how far the runs are, which has to be asked for.
    progress_changed = pyqtSignal()
    devices_changed = pyqtSignal()
    journal_changed = pyqtSignal()
    seen = pyqtSignal(object)
    recorded = pyqtSignal(object)
    recording_asked = pyqtSignal(str)
    judged = pyqtSignal(bool)
    # Nakrel was started once more, with what that start asked for.
    window_asked = pyqtSignal(object)
    saving_changed = pyqtSignal()
    gone = pyqtSignal()
    # What went wrong with something that is shown, and with the service or the whole window.
    fault = pyqtSignal(str)
    alarm = pyqtSignal(str)
    # Something to know, with the words of a button and what it does.
    offer = pyqtSignal(str, str, object)

    def __init__(
        self,
        connect: Callable[[], ServiceConnection],
        find: Callable[[], ServiceConnection] | None = None,
        parent: QObject | None = None,
    ) -> None:
        """`connect` starts the service where it doesn't run; `find` doesn't."""
        super().__init__(parent)
        self._connect = connect
        # Whether this is the window that others bring to the front, and none that a test made.
        self.is_window = False
        self._connection: ServiceConnection | None = None
        self._notifier: QSocketNotifier | None = None
        self._writable: QSocketNotifier | None = None
        self._pending: Counter[tuple[str, str]] = Counter()
        # Edits without an answer yet, and those of them that haven't gone out.
        self._unsent: dict[tuple[str, str], m.Body] = {}
        self._waiting: dict[tuple[str, str], m.Body] = {}
        # Of those, the ones that were refused, or that a service which has ended never confirmed, with the reason.
        self._not_saved: dict[tuple[str, str], str] = {}
        self._sender = QTimer(self)
        self._sender.setSingleShot(True)
        self._sender.timeout.connect(self._send)
        self._retry = QTimer(self)
        self._retry.setSingleShot(True)
        self._retry.timeout.connect(self._reopen)
        self._batteries = QTimer(self)
        self._batteries.setInterval(_BATTERIES_MS)
        self._batteries.timeout.connect(lambda: self.ask(m.GetBatteries(), self._receive) if self._connection else None)
        self._batteries.start()
        self._profile_names: tuple[tuple[str, str], ...] | None = None
        self._front, self._wants_seen = False, True
        self._seen_down = SeenDown()
        self.shut_down = ShutDown(self, self, find)
        self.shut_down.ended.connect(lambda: self.alarm.emit(""))
        self.keyboard = Keyboard(self, self.ask)
        self.settings_changed.connect(lambda: self.keyboard.follow(self.settings.layout))
        self.undo_stack = QUndoStack(self)
        self.profiles: dict[str, Profile] = {}
        self.macros: dict[str, Macro] = {}
        self.settings = Settings()
        self.status = m.Status(EVERYDAY, "", 0.0, "", "", "")
        self.devices: tuple[Device, ...] = ()
        self.batteries: tuple[Battery, ...] = ()
        self.journal: list[m.Entry] = []
        self.faults: tuple[str, ...] = ()

    # The connection

    def open(self, connection: ServiceConnection | None = None) -> None:
        """Connect, or go on with a connection, and fetch everything; raises `ClientError`."""
        connection = connection or self._connect()
        connection.on_notice = self._notice
        self._connection = connection
        if self.is_window:
            connection.call(m.OpenWindow())
        connection.call(m.Subscribe(seen=self._wants_seen))
        library = connection.call(m.GetLibrary())
        assert isinstance(library, m.Library)
        self.profiles = {p.id: p for p in library.profiles}
        self.macros = {x.id: x for x in library.macros}
        self.settings, self.faults = library.settings, library.faults
        for body in self._unsent.values():
            self._show_edit(body)
        self._profile_names = None
        # What keys are called is known by the time that they are shown.
        self.keyboard.look(self.settings.layout)
        for request in (m.GetStatus(), m.GetDevices(), m.GetJournal()):
            self._receive(connection.call(request))
        self._notifier = QSocketNotifier(connection.fileno(), QSocketNotifier.Type.Read, self)  # type: ignore[call-overload]
        self._notifier.activated.connect(self._readable)
        self._writable = QSocketNotifier(connection.fileno(), QSocketNotifier.Type.Write, self)  # type: ignore[call-overload]
        self._writable.setEnabled(False)
        self._writable.activated.connect(self._flush)
        self.library_changed.emit()
        self.settings_changed.emit()
        self.set_front(self._front)
        session = Session.of(os.environ)
        if session != Session():
            self.ask(m.ServeSession(*session), self._served)
        for key, body in list(self._unsent.items()):
            # Once more: what the service before didn't confirm may never have reached it.
            self._put(key, body)
        self.saving_changed.emit()
        self.ask(m.GetBatteries(), self._receive)

    def _served(self, answer: m.AnswerBody) -> None:
        """The service knows this session's display now, and with it maybe its keyboard."""
        if isinstance(answer, m.Refused):
            self.alarm.emit(answer.error)
        else:
            self.keyboard.look()

    def close(self) -> None:
        """Disconnect; the service goes on."""
        self._send()
        for notifier in (self._notifier, self._writable):
            if notifier:
                notifier.setEnabled(False)
        self._notifier = self._writable = None
        if self._connection:
            self._connection.close()
            self._connection = None

    def flush(self) -> None:
        """Send the edits that wait until they have been drawn."""
        self._send()

    def leave(self) -> None:
        """Disconnect for good. Edits that were made since the service ended go to one that is started for that, and
        ended again where it had been shut down."""
        self._retry.stop()
        self.shut_down.stop()
        if self._connection is None and any(kind != "settings" for kind, _ in self._unsent):
            with contextlib.suppress(ClientError), contextlib.closing(self._connect()) as service:
                for body in self._unsent.values():
                    with contextlib.suppress(ServiceRefused):
                        service.call(body)
                if self.shut_down.is_so:
                    service.call(m.Shutdown())
        self.close()

    def settle(self, body: m.Body, until: Callable[[], bool], limit_s: float = 2.0) -> None:
        """Ask as the window closes, and wait for what comes of it, no longer than `limit_s`."""
        if self._connection:
            self.ask(body)
        end = time.monotonic() + limit_s
        while self._connection and not until() and (left := end - time.monotonic()) > 0:
            try:
                self._connection.flush()
                if select.select([self._connection], [], [], left)[0]:
                    self._connection.receive()
            except ServiceGone:
                self._gone()

    def ask(self, body: m.Body, answered: Callable[[m.AnswerBody], None] | None = None) -> None:
        """Send a request; a refusal is shown as a fault unless `answered` takes the answer."""
        self._send()
        self._ask(body, answered)

    def _ask(self, body: m.Body, answered: Callable[[m.AnswerBody], None] | None = None) -> None:
        if self._connection is None:
            if self.shut_down.is_so:
                self.shut_down.tell()
            else:
                self.alarm.emit(tr("The service doesn't run; it is being started again."))
            return
        try:
            self._connection.send(body, _unless_gone(answered or partial(_show_if_refused, self)))
        except ServiceGone:
            self._gone()
        else:
            self._flush_later()

    def _flush_later(self) -> None:
        """What the service doesn't take at once, such as a long macro, goes when it does: the window never waits."""
        if self._writable and self._connection:
            self._writable.setEnabled(self._connection.keeps)

    def _flush(self) -> None:
        try:
            if self._connection:
                self._connection.flush()
        except ServiceGone:
            self._gone()
        else:
            self._flush_later()

    # Names

    @property
    def profile_names(self) -> tuple[tuple[str, str], ...]:
        """The name and id of every profile, Everyday first, the others by name; the same tuple while none changes."""
        if self._profile_names is None:
            found = ((profile.name, key) for key, profile in self.profiles.items())
            order = sorted(found, key=lambda pair: (pair[1] != EVERYDAY, order_of(pair[0])))
            self._profile_names = tuple(order)
        return self._profile_names

    def _forget_names(self, old: Profile | Macro | None, new: Profile | Macro | None) -> None:
        """Sort the names anew next time, where a change touches them."""
        if old is None or new is None or old.name != new.name:
            self._profile_names = None

    # Edits

    def put_macro(self, macro: Macro) -> None:
        """Make this the macro's state, here and on the disk."""
        self.macros[macro.id] = macro
        self.macro_changed.emit(macro.id)
        self._save(("macro", macro.id), m.PutMacro(macro))

    def delete_macro(self, key: str) -> None:
        """Take the macro away, here and on the disk."""
        self.macros.pop(key, None)
        self.macro_changed.emit(key)
        self._save(("macro", key), m.DeleteMacro(key))

    def put_profile(self, profile: Profile) -> None:
        """Make this the profile's state, here and on the disk."""
        self._forget_names(self.profiles.get(profile.id), profile)
        self.profiles[profile.id] = profile
        self.profile_changed.emit(profile.id)
        self._save(("profile", profile.id), m.PutProfile(profile))

    def delete_profile(self, key: str) -> None:
        """Take the profile away, here and on the disk."""
        self._forget_names(self.profiles.pop(key, None), None)
        self.profile_changed.emit(key)
        self._save(("profile", key), m.DeleteProfile(key))

    def change_settings(self, patch: SettingsPatch) -> None:
        """Change some of the settings, here and on the disk."""
        self.settings = patch.applied_to(self.settings)
        self.settings_changed.emit()
        key = "settings", ""
        before = self._unsent.get(key)
        # What goes out is all that isn't confirmed yet; a field that was set twice has its last value.
        self._save(key, m.ChangeSettings(before.patch.then(patch) if isinstance(before, m.ChangeSettings) else patch))

    def set_front(self, front: bool) -> None:
        """Tell whether the window is in front; while it is, macros play for show only."""
        came, self._front = front and not self._front, front
        if self._connection:
            self.ask(m.InFront(front))
            if came:
                # The layout may have been changed on the desktop meanwhile.
                self.keyboard.look()

    def set_seen(self, seen: bool) -> None:
        """Hear of each event, or not while nothing shows them: a hidden window costs a game nothing."""
        self._wants_seen = seen
        if not seen:
            self._let_go()
        if self._connection:
            self.ask(m.Subscribe(seen=seen))

    def _let_go(self) -> None:
        """Nothing tells of the releases of what is down."""
        if (releases := self._seen_down.let_go()).events:
            self.seen.emit(releases)

    def pin(self, profile: str) -> None:
        """Hold a profile live, or with '' load with games."""
        self.ask(m.Pin(profile))

    @property
    def saving(self) -> bool:
        """Whether an edit is on its way to the disk."""
        return any(key not in self._not_saved for key in self._unsent)

    @property
    def not_saved(self) -> str:
        """What is shown but isn't on the disk, and why; '' where there is no such thing."""
        return " ".join(
            tr("Not saved: {name}: {why}").format(name=_name_of(self, *key), why=why)
            for key, why in self._not_saved.items()
        )

    def _save(self, key: tuple[str, str], body: m.Body) -> None:
        self._unsent[key] = self._waiting[key] = body
        self._not_saved.pop(key, None)
        self._sender.start(_SEND_MS)
        self.saving_changed.emit()

    def _show_edit(self, body: m.Body) -> None:
        """Show what was edited here, though the service doesn't know of it yet."""
        match body:
            case m.PutMacro(macro=macro):
                self.macros[macro.id] = macro
            case m.DeleteMacro(id=key):
                self.macros.pop(key, None)
            case m.PutProfile(profile=profile):
                self.profiles[profile.id] = profile
            case m.DeleteProfile(id=key):
                self.profiles.pop(key, None)
            case m.ChangeSettings(patch=patch):
                self.settings = patch.applied_to(self.settings)

    def _send(self) -> None:
        """Send the edits that wait, each thing's last."""
        while self._waiting:
            key = next(iter(self._waiting))
            self._put(key, self._waiting.pop(key))

    def _put(self, key: tuple[str, str], body: m.Body) -> None:
        if self._connection is None:
            self._not_saved[key] = _ENDED
            self.saving_changed.emit()
            return
        self._pending[key] += 1

        def answered(answer: m.AnswerBody) -> None:
            self._pending[key] -= 1
            if self._pending[key] > 0 or key in self._waiting:
                # A later edit of the same thing is on its way, and its answer counts.
                return
            if isinstance(answer, m.Refused):
                error = sentence(answer.error).rstrip(".")
                self._not_saved[key] = tr("{error}. Change it, or undo.").format(error=error)
            else:
                self._unsent.pop(key, None)
                self._not_saved.pop(key, None)
            self.saving_changed.emit()

        self._ask(body, answered)

    # What comes in

    def _readable(self) -> None:
        try:
            if self._connection:
                self._connection.receive()
        except ServiceGone:
            self._gone()

    def _gone(self) -> None:
        # What waited is sent anew when the service is back, as is all that it hasn't answered.
        self._waiting.clear()
        self.close()
        self._pending.clear()
        for key in self._unsent:
            self._not_saved.setdefault(key, _ENDED)
        self.saving_changed.emit()
        self._let_go()
        self.gone.emit()
        if self.shut_down.is_so:
            # What was live and ran isn't any more.
            self._receive(m.StatusIs(m.Status("", tr("the service was shut down"), 0.0, "", "", "")))
            self.shut_down.begin()
            return
        # Its macros ended with it, also where no other can be started.
        self._receive(m.StatusIs(replace(self.status, running=())))
        self.alarm.emit(tr("The service has ended; it is being started again."))
        self._retry.start(_RETRY_MS)

    def _reopen(self) -> None:
        try:
            self.open()
        except ClientError as error:
            self.alarm.emit(str(error))
            self._retry.start(_RETRY_MS)
        else:
            self.alarm.emit("")

    def _notice(self, notice: m.Notice) -> None:
        match notice:
            case m.MacroChanged(id=key, macro=macro):
                self._mirror("macro", self.macros, key, macro, self.macro_changed)
            case m.ProfileChanged(id=key, profile=profile):
                self._mirror("profile", self.profiles, key, profile, self.profile_changed)
            case m.SettingsChanged(settings=settings):
                body = self._unsent.get(("settings", ""))
                if isinstance(body, m.ChangeSettings):
                    # Another client's change, with ours that is on its way.
                    settings = body.patch.applied_to(settings)
                if settings != self.settings:
                    self.settings = settings
                    self.settings_changed.emit()
            case m.Seen():
                if not self._wants_seen:
                    # It was on its way when the window was hidden.
                    return
                if notice.lost:
                    self._let_go()
                self._seen_down.take(notice.events)
                self.seen.emit(notice)
            case m.RecordingAsked(control=control):
                self.recording_asked.emit(control)
            case m.Judged(worked=worked):
                self.judged.emit(worked)
            case m.Recorded():
                self.recorded.emit(notice)
            case m.WindowAsked():
                self.window_asked.emit(notice)
            case m.ShutDown():
                self.shut_down.is_so = True
            case m.Fault(error=error):
                self.alarm.emit(error)
            case m.Journal(entries=entries):
                # The answer that fetched the journal may have had the newest entries already. Their times tell nothing:
                # a clock may have been set back meanwhile.
                newest = self.journal[-len(entries) :] if entries else []
                self.journal += [entry for entry in entries if entry not in newest]
                self.journal_changed.emit()
            case m.StatusIs() | m.Devices():
                self._receive(notice)

    def take_status(self, answer: m.AnswerBody) -> None:
        """The status that was asked for is what is so now. Mostly it has only gone on, several times a second."""
        if not isinstance(answer, m.StatusIs):
            return
        if _but_for_progress(answer.status) == _but_for_progress(self.status):
            self.status = answer.status
            self.progress_changed.emit()
        else:
            self._receive(answer)

    def _receive(self, answer: Any) -> None:
        match answer:
            case m.StatusIs(status=status):
                self.status = status
                self.status_changed.emit()
            case m.Devices(devices=devices):
                self.devices = devices
                self.devices_changed.emit()
            case m.Batteries(batteries=found):
                if found != self.batteries:
                    self.batteries = found
                    self.devices_changed.emit()
            case m.Journal(entries=entries):
                self.journal = list(entries)
                self.journal_changed.emit()

    def _mirror(self, kind: str, mirror: dict[str, Any], key: str, value: Any, changed: Any) -> None:
        """Follow another client's edit; our own comes back too, and an older one must not undo a newer."""
        if (kind, key) in self._unsent or mirror.get(key) == value:
            return
        self._forget_names(mirror.get(key), value)
        if value is None:
            mirror.pop(key, None)
        else:
            mirror[key] = value
        changed.emit(key)
