"""Recording, and listening for a control that is pressed to choose it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Protocol

from nakrel.core.model.cues import Cue
from nakrel.core.model.recording import Moves, RecordingSettings
from nakrel.core.model.steps import Step
from nakrel.core.play.events import Pressed, Released, Turned
from nakrel.core.play.player import GLIDE_US
from nakrel.core.play.recorder import Recorder
from nakrel.protocol import Recorded
from nakrel.service.cues import Cues
from nakrel.service.feed import Feed
from nakrel.service.loop import Loop, monotonic_us
from nakrel.service.observers.desktop import Desktop, Spots
from nakrel.service.reporter import Reporter
from nakrel.service.server import Client
from nakrel.service.worker import Outcome
from nakrel.words import tr

__all__ = ["Host", "Recording"]

Finger = Pressed | Released | Turned


class Host(Protocol):
    """What a recording needs of the service."""

    cues: Cues

    def fingers(self) -> Mapping[str, str]:
        """The controls that fingers hold down, with what each puts down by itself."""

    def refresh_sheet(self, why: str) -> None:
        """Attachments rest from now on, or no longer."""

    def when_in_effect(self, call: Callable[[], object]) -> None:
        """Call once the sheet that is being made ready is played by."""


class Recording:
    """At most one recording at a time, and one client that listens."""

    def __init__(self, loop: Loop, feed: Feed, desktop: Desktop, reporter: Reporter, host: Host) -> None:
        self._loop, self._feed, self._desktop, self._reporter, self._host = loop, feed, desktop, reporter, host
        self._recorder: Recorder | None = None
        self._owner: Client | None = None
        self._since_us = 0
        self._moves = Moves.NONE
        self._quiet = False
        # How many places of the pointer were asked for; what was pressed meanwhile waits for its place.
        self._asked = 0
        self._waiting: list[tuple[Finger, int, bool]] = []
        self._listener: Client | None = None

    @property
    def recording(self) -> bool:
        """Whether a recording goes on."""
        return self._recorder is not None

    @property
    def listening(self) -> bool:
        """Whether a client waits for a control to be pressed."""
        return self._listener is not None

    # Recording

    def start(
        self,
        owner: Client | None,
        settings: RecordingSettings,
        gesture: tuple[str, ...],
        started: Callable[[], object],
        *,
        quiet: bool = False,
    ) -> None:
        """Begin; attachments rest meanwhile. The steps go to `owner` alone. `started` is called once it goes on. With
        `quiet` nothing is said of a pointer that nobody tells of."""
        self._quiet = quiet
        # What happens before it goes on, but after it was asked for, is in it. X tells its times in whole milliseconds.
        self._since_us = monotonic_us() // 1_000 * 1_000
        self._recorder, self._owner = Recorder(settings, self._down(gesture), self._since_us, None), owner
        self._moves, self._asked, self._waiting = settings.moves, 0, []
        self._feed.recording(self._recorder, owner)
        self._host.cues.tell(Cue.RECORDING, "Recording")
        self._host.refresh_sheet(tr("recording"))
        self._reporter.status_changed()
        if settings.moves is Moves.NONE:
            started()
        else:
            self._asked += 1
            self._desktop.spots("", lambda outcome: self._begin_moves(outcome, started))

    def _down(self, gesture: tuple[str, ...]) -> list[str]:
        return [own for control, own in self._host.fingers().items() if control not in gesture]

    def _begin_moves(self, outcome: Outcome[Spots], started: Callable[[], object]) -> None:
        spots = outcome.result
        if self._recorder is None:
            started()
            return
        if spots is None or spots.pointer is None:
            self._moves = Moves.NONE
            if not self._quiet:
                self._reporter.fault(
                    tr("This desktop doesn't tell where the pointer is, so its places are not recorded.")
                )
        else:
            self._recorder.screen = spots.size
            if self._moves is Moves.PATH:
                self._sample()
        started()
        self._placed(None)

    def _sample(self) -> None:
        """Tell the recorder where the pointer is, again and again."""
        if self._recorder is None:
            return
        now_us = monotonic_us()
        self._ask_place(lambda place: self._moved(place, now_us))
        self._loop.at("pointer path", now_us + GLIDE_US, self._sample)

    def _moved(self, place: tuple[int, int] | None, at_us: int) -> None:
        if place and self._recorder and self._recorder.move(*place, at_us):
            self._feed.soon()

    def _ask_place(self, then: Callable[[tuple[int, int] | None], object]) -> None:
        recorder = self._recorder

        def found(outcome: Outcome[tuple[int, int] | None]) -> None:
            if recorder is self._recorder:
                then(outcome.result)

        self._desktop.ask(lambda: self._desktop.about_screens(lambda screens: screens.pointer()), found)

    def feed(self, finger: Finger, at_us: int) -> None:
        """What a finger did while a recording goes on."""
        if self._recorder is None or at_us < self._since_us:
            return
        if not isinstance(finger, Turned) and finger.sent:
            # A macro can press what the device sends.
            finger = finger._replace(control=finger.sent, sent="")
        wants_place = self._moves is not Moves.NONE and isinstance(finger, Pressed)
        self._waiting.append((finger, at_us, wants_place))
        if not self._asked:
            self._go_on()

    def _go_on(self) -> None:
        """Record what waits, up to the next press whose place has to be found out."""
        while self._waiting and self._recorder:
            finger, at_us, wants_place = self._waiting[0]
            if wants_place:
                self._asked += 1
                self._waiting[0] = finger, at_us, False
                self._ask_place(self._placed)
                return
            del self._waiting[0]
            self._record(finger, at_us, None)

    def _placed(self, place: tuple[int, int] | None) -> None:
        self._asked -= 1
        if place and self._waiting and self._recorder:
            finger, at_us, _ = self._waiting.pop(0)
            self._recorder.move(*place, at_us)
            self._record(finger, at_us, place)
        if not self._asked:
            self._go_on()

    def _record(self, finger: Finger, at_us: int, place: tuple[int, int] | None) -> None:
        if self._recorder and self._recorder.feed(finger, at_us, place):
            self._feed.soon()

    def finish(self, gesture: tuple[str, ...], ended: Callable[[tuple[Step, ...]], object]) -> None:
        """End, tell the owner, and hand all steps to `ended`, once the places of the last presses are known."""
        if self._asked or self._waiting:
            # Questions are answered in their order, so whatever was asked before is known then.
            self._ask_place(lambda place: self.finish(gesture, ended))
            return
        if self._recorder is None:
            ended(())
            return
        steps = self._recorder.finish(gesture)
        owner, self._recorder, self._owner = self._owner, None, None
        self._feed.recording(None, None)
        self._host.cues.tell(Cue.RECORDED, tr("The recording has ended"))
        self._host.refresh_sheet(tr("recorded"))
        self._reporter.status_changed()

        def tell() -> None:
            if owner:
                owner.notify(Recorded(steps, True))
            ended(steps)

        # Whoever is told that it has ended may press a button at once.
        self._host.when_in_effect(tell)

    # Listening

    def listen(self, owner: Client | None, seconds: int) -> None:
        """Let attachments rest for so many seconds, or with None no longer."""
        self._listener = owner
        until_us = monotonic_us() + seconds * 1_000_000 if owner else None
        self._loop.at("listen", until_us, lambda: self.listen(None, 0))
        self._host.refresh_sheet(tr("choosing a button"))
        self._reporter.status_changed()

    def client_gone(self, client: Client) -> None:
        """A client is gone, and what it had begun ends."""
        if client is self._owner:
            self._owner = None
            self.finish((), lambda steps: None)
        if client is self._listener:
            self.listen(None, 0)
