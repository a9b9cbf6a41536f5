"""Playback: the engine, its deadlines, and what it puts out.

This is the loop's thread at its most exact: it computes and sends, and waits for nothing.
"""

from __future__ import annotations

import itertools
import random
from collections import deque
from collections.abc import Sequence
from typing import Any, Protocol

from msgspec.structs import replace

from nakrel.backends.protocols import BackendLost, CannotEmit, OutputBackend
from nakrel.core.model.runs import RunRecord
from nakrel.core.play.acts import AskText, MovePointer, OpenProgram
from nakrel.core.play.echo import Echo
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import (
    Asked,
    Emit,
    Event,
    Output,
    Pressed,
    Released,
    RunEnded,
    RunStarted,
    SideEffect,
    SpeedHeld,
    StopAll,
    Turned,
    Wake,
)
from nakrel.protocol import Running, SeenEvent
from nakrel.service.cues import Cues
from nakrel.service.feed import Feed
from nakrel.service.live import Live
from nakrel.service.loop import Loop, monotonic_us, spin_until
from nakrel.service.reporter import Reporter
from nakrel.service.runs import Runs
from nakrel.service.side_effects import SideEffects
from nakrel.words import tr

__all__ = ["Host", "Playback"]

# How long before a deadline the sleep ends; the rest is spent on the engine's work and on waiting exactly.
EARLY_US = 200
# What follows on each other so fast that the next must not wait until clients are told of the one before.
_FAST = (Pressed, Released, Turned)
# How long its telling is put off by other events, and how many untold steps are many.
_PUT_OFF_US, _MANY = 2_000, 64
# What such events are called in notices and records.
_NAMES = {MovePointer: "POINTER", AskText: "TEXT", OpenProgram: "OPEN"}


class Host(Protocol):
    """What playback needs of the service."""

    live: Live
    side_effects: SideEffects
    cues: Cues

    @property
    def output(self) -> OutputBackend:
        """Where events go."""

    def route_lost(self, error: str) -> None:
        """The output is gone."""

    def run_ended(self, run: RunEnded, name: str) -> None:
        """A macro has ended."""

    def name_of(self, macro: str) -> str:
        """What people call the macro."""

    def danger_changed(self) -> None:
        """Macros run now, or none any more."""


class Playback:
    """Hand it events by `step`; it sends what comes of them and wakes itself at the next deadline."""

    def __init__(self, loop: Loop, feed: Feed, reporter: Reporter, host: Host) -> None:
        self._loop, self._feed, self._reporter, self._host = loop, feed, reporter, host
        self.engine = Engine(random.Random())
        self._runs = Runs()
        self._running: dict[str, Running] = {}
        # What is still to be noted and told: the outputs of a step, when each of them went out, and whether the route
        # was lost with them.
        self._untold: deque[tuple[tuple[Output, ...], list[int], bool]] = deque()
        self._telling = self._will_tell = False
        self._deadline_us: int | None = None
        self.echo = Echo()
        self._pressed = self.echo.controls
        # A press that has been answered and is still to come: its control, and what was sent.
        self._answered: tuple[str, str] | None = None
        # Clients whose own window is in front: macros must not click and type into it.
        self._fronts: frozenset[object] = frozenset()

    @property
    def running(self) -> dict[str, Running]:
        """The macros that run."""
        self.tell()
        return self._running

    def run_of(self, macro: str) -> RunRecord | None:
        """The record of the macro's run: of the one that goes on, else of the last one."""
        self.tell()
        return self._runs.of(macro)

    @property
    def preview(self) -> bool:
        """Whether a window of Nakrel's own is in front, so that nothing is sent."""
        return bool(self._fronts)

    def step(self, event: Event) -> None:
        """Hand the engine an event, send what it puts out, and set the next deadline.

        What a press puts down at once is sent before the engine works out the rest: that takes as long again as all
        that comes before it.
        """
        now_us = monotonic_us()
        ahead, lost = "", ""
        if type(event) is Pressed:
            if self._answered and self._answered[0] == event.control:
                (_, ahead), self._answered = self._answered, None
            elif not self._fronts and (ahead := self.engine.first_of(event.control, event.passed, event.sent)):
                lost = self._send((Emit(ahead, 1, now_us, "", False),))
        outputs, self._deadline_us = self.engine.step(event, now_us)
        try:
            if outputs or ahead:
                self._deliver(outputs, ahead, lost)
        finally:
            self._set_alarm()
        if type(event) not in _FAST:
            self.tell()

    def first_of(self, control: str) -> str:
        """What a press of this control, which reaches no program, is sure to put down before all else; '' where that
        isn't sure, as it isn't for one that may be an echo."""
        return "" if self._fronts or control in self._pressed else self.engine.first_of(control)

    def answered(self, control: str, first: str) -> None:
        """A press of this control comes to `step` next, and that has been sent already."""
        self._answered = control, first
        self.echo.sent((Emit(first, 1, 0, "", False),), monotonic_us())

    def _wake(self) -> None:
        """Work out what is due, wait for the very moment, and send it.

        The loop calls a little early: a plain sleep would end some 60 to 110 microseconds late, and the engine's
        own work would come on top.
        """
        due_us = self._deadline_us
        if due_us is None:
            return
        outputs, self._deadline_us = self.engine.step(Wake(), max(due_us, monotonic_us()))
        try:
            if outputs:
                spin_until(due_us)
                self._deliver(outputs)
        finally:
            self._set_alarm()

    def _set_alarm(self) -> None:
        """Have the loop call at the next deadline; after what is due has gone out, as it would only hold that up.

        Sending may have handed the engine another event meanwhile: the deadline is the one that holds now.
        """
        self._loop.at("engine", self._deadline_us, self._wake, early_us=EARLY_US)

    def stop_all(self, why: str = "") -> int:
        """End all macros this instant, and say how many there were."""
        running = len(self.running)
        self.step(StopAll(why or tr("Stop everything")))
        return running

    def set_front(self, client: object, front: bool, *, reaches_programs: bool) -> bool:
        """Note whether a client's own window is in front; whether that changes what is played.

        Nothing goes on from a game into the window, nor from the window into a game.
        """
        after = self._fronts | {client} if front else self._fronts - {client}
        changes = bool(after) != bool(self._fronts) and reaches_programs
        if changes:
            self.stop_all(tr("Nakrel's window came to the front") if after else tr("the preview ended"))
        self._fronts = after
        return changes

    # What comes out

    def _deliver(self, outputs: tuple[Output, ...], ahead: str = "", lost: str = "") -> None:
        """Send what goes out, at once and in its order; it is noted and told when there is time. The press of `ahead`
        has been sent already, unless the route was `lost` with it.

        Where the route is lost on the way, what has started and ended is told all the same.
        """
        times: list[int] = []
        asked: list[Asked | SpeedHeld] = []
        for kind, some in itertools.groupby(outputs, type):
            group: list[Any] = list(some)
            if not lost and kind is Emit and not self._fronts:
                rest = group
                if ahead == group[0].control and group[0].value:
                    rest, ahead = group[1:], ""
                lost = self._send(rest) if rest else ""
            elif not lost and kind is SideEffect:
                lost = self._start(group)
            elif kind is Asked or kind is SpeedHeld:
                asked += group
            times += [monotonic_us()] * len(group)
        if ahead and not lost:
            # It never comes to that, by what `first_of` promises; and if it does, nothing stays down.
            lost = self._send((Emit(ahead, 0, monotonic_us(), "", False),))
        if outputs:
            self._untold.append((outputs, times, bool(lost)))
            self._tell_soon()
        for each in asked:
            self.tell()
            if isinstance(each, Asked):
                self._host.live.asked(each)
            else:
                self._host.live.hold_stage(each.stage)
        if lost:
            self.tell()
            self._host.route_lost(lost)

    def tell(self) -> None:
        """Note what went out, and tell what started and ended, in the order in which it did."""
        self._tell(-1)

    def _tell_next(self) -> None:
        """The same, for one step; for more where many wait: it must not come to be told later and later."""
        self._will_tell = False
        try:
            self._tell(1 + len(self._untold) // _MANY)
        finally:
            self._tell_soon()

    def _tell_soon(self) -> None:
        if self._untold and not self._will_tell:
            self._will_tell = True
            self._loop.when_idle(self._tell_next, self._untold[0][1][0] + _PUT_OFF_US)

    def _tell(self, steps: int) -> None:
        """Tell so many steps, or with -1 all."""
        if self._telling:
            # Who hears of it asks what runs.
            return
        self._telling = True
        try:
            while self._untold and steps:
                steps -= 1
                outputs, times, lost = self._untold.popleft()
                for number, (output, at_us) in enumerate(zip(outputs, times, strict=True), 1):
                    try:
                        self._tell_one(output, at_us, lost)
                    except Exception:
                        # A fault of ours with one of them keeps none of the others from being told.
                        if rest := outputs[number:]:
                            self._untold.appendleft((rest, times[number:], lost))
                        raise
        finally:
            self._telling = False

    def _tell_one(self, output: Output, at_us: int, lost: bool) -> None:
        if isinstance(output, Emit):
            # The keys of a secret would tell it.
            if not output.quiet and not lost:
                self._runs.sent(output.by, output.control, output.value, output.due_us, at_us)
                self._feed.seen(SeenEvent(output.by, output.control, output.value, at_us))
        elif isinstance(output, SideEffect):
            if (name := _NAMES.get(type(output.what))) and not lost:
                self._runs.sent(output.by, name, 1, output.due_us, at_us)
                self._feed.seen(SeenEvent(output.by, name, 1, at_us))
        elif isinstance(output, RunStarted):
            self._run_started(output)
        elif isinstance(output, RunEnded):
            self._run_ended(output)

    def _send(self, emits: Sequence[Emit]) -> str:
        """Send events to the programs; returns why the route to them is lost, '' where it isn't."""
        # Before it is out: what sends it back may be quicker than we are.
        self.echo.sent(emits, monotonic_us())
        try:
            self._host.output.emit(emits)
        except CannotEmit as error:
            self._reporter.fault_once(str(error))
        except BackendLost as error:
            return str(error)
        return ""

    def _start(self, effects: Sequence[SideEffect]) -> str:
        """Start side effects; returns why the route to the programs is lost, '' where it isn't."""
        try:
            for effect in effects:
                self._host.side_effects.start(effect, self._host.output, preview=bool(self._fronts))
        except BackendLost as error:
            return str(error)
        return ""

    def running_now(self) -> tuple[Running, ...]:
        """What runs, and how far it is."""
        return tuple(
            replace(run, run=far.run, of=far.of) if (far := self.engine.progress(run.macro)) else run
            for run in self.running.values()
        )

    def _run_started(self, run: RunStarted) -> None:
        name = self._host.name_of(run.macro)
        self._running[run.macro] = Running(run.macro, name, run.trigger, run.at_us)
        self._host.danger_changed()
        self._host.cues.run_started(run, name)
        self._runs.started(run.macro, run.at_us)
        self._reporter.status_changed()

    def _run_ended(self, run: RunEnded) -> None:
        known = self._running.pop(run.macro, None)
        self._host.danger_changed()
        self._runs.ended(run.macro, run.runs, run.reason)
        name = known.name if known else self._host.name_of(run.macro)
        self._host.cues.run_ended(run, name)
        self._host.run_ended(run, name)
        self._reporter.status_changed()
