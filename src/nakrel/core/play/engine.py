"""The engine: events in, outputs and the next deadline out. It reads no clock and touches no device.

It owns the live sheet, the running macros and the ledger of who holds which control.
"""

from __future__ import annotations

import itertools
import random
from collections.abc import Callable
from typing import Any, NamedTuple

from nakrel.core.model.cells import ChangeSpeed, GoTo, HoldLayer, Nothing, RunSystemAction, ToChord, ToControl
from nakrel.core.model.macro import Again, LetGo, Mode, Play, StartOn
from nakrel.core.play.acts import Act
from nakrel.core.play.events import (
    Asked,
    Event,
    InputsLost,
    Output,
    PlaceReady,
    PlayMacro,
    PointerReady,
    Pressed,
    Released,
    RunEnded,
    RunStarted,
    SetSheet,
    SideEffect,
    SpeedHeld,
    StopAll,
    StopMacro,
    TextReady,
    Turned,
    Wake,
)
from nakrel.core.play.holds import FINGER, Holds, is_own, own_holder
from nakrel.core.play.operations import Plan
from nakrel.core.play.player import AT_ONCE, MAX_ACTS, NEVER, Player
from nakrel.core.play.run import Run
from nakrel.core.play.sheet import Action, Sheet
from nakrel.words import tr

__all__ = ["FINGER", "Engine"]

# Moments that are caught up with in one step; the rest stays due, so that Stop everything is heard.
_MOST_INSTANTS = 1_000
# Notches of the wheel that wait to be pressed as keys: about a second's.
_MOST_NOTCHES = 15
# How long before a text what fingers hold is set aside: desktops read each device by itself, and that goes another way.
_ASIDE_US = 20_000
_ASKED = (GoTo, ChangeSpeed, RunSystemAction)


class _Around:
    """What the formulas of one run can ask."""

    def __init__(self, engine: Engine, key: str) -> None:
        self._engine, self._key = engine, key

    def is_down(self, code: str) -> bool:
        """Whether the control is down for the programs."""
        return self._engine.is_down(code)

    def settle(self, acts: list[Act]) -> None:
        """Let these acts happen."""
        self._engine.settle(self._key, acts)


class Progress(NamedTuple):
    """When a macro that runs was started, in microseconds, which of its runs it is in, from 1, and how many it makes; 0
    for as many as wanted."""

    start_us: int
    run: int
    of: int


class Engine:
    """Feed `step` with events; act on what it returns, and wake it at the deadline.

    A finger's event that has passed to the programs by itself has no output. A desktop may take a control up for all
    when one of several devices lets it go. So a macro's release waits while a finger holds the control, and where a
    finger lets go while a macro holds it, it is pressed anew. `chance` decides where a step leaves something to it.

    What macros do is done in the order of its time, over all of them: what a macro asks (`held`) doesn't depend on how
    late the machine is.
    """

    def __init__(self, chance: random.Random | None = None, make_player: Callable[..., Player] = Player) -> None:
        self._chance = chance or random.Random(0)
        self._make_player = make_player
        # Each thing that a run asks for has a number of its own, also after the macro was started anew.
        self._tickets = itertools.count(1)
        self._sheet = Sheet("", {})
        self._out: list[Output] = []
        self._holds = Holds(self._out)
        # What each finger is on: its action, whether its press has passed, and what it puts down by itself.
        self._fingers: dict[str, tuple[Action | None, bool, str]] = {}
        # The layers that are held, by the control that holds each, in the order in which they came.
        self._layers: dict[str, str] = {}
        # The speed stages that are held, in the same way.
        self._speeds: dict[str, str] = {}
        self._runs: dict[str, Run] = {}
        self._now_us = 0
        # A table and not a match statement: this is the way of every input event.
        self._handlers: dict[type, Callable[[Any], None]] = {
            Pressed: lambda event: self._press(event.control, event.passed, event.sent),
            Released: lambda event: self._release(event.control),
            Turned: lambda event: self._turn(event.control, event.notches, event.passed),
            SetSheet: lambda event: self._set_sheet(event.sheet, event.why),
            PlayMacro: self._play,
            StopMacro: lambda event: self._finish(event.macro, tr("stopped")),
            TextReady: self._answered,
            PlaceReady: self._answered,
            PointerReady: self._answered,
            StopAll: lambda event: self._stop_all(event.why),
            InputsLost: lambda event: self._inputs_lost(event.controls),
        }

    @property
    def running(self) -> dict[str, int]:
        """The macros that run, by id, with the number of complete runs."""
        return {key: run.player.runs for key, run in self._runs.items()}

    def progress(self, macro: str) -> Progress | None:
        """How far the macro is; None where it doesn't run."""
        if (run := self._runs.get(macro)) is None:
            return None
        wanted, now = run.player.runs_wanted or 0, run.player.runs + 1
        return Progress(run.player.start_us, min(now, wanted) if wanted else now, wanted)

    def down(self) -> set[str]:
        """Every control that is down for the programs, by a finger or by the engine."""
        return self._holds.ledger.down()

    def is_down(self, code: str) -> bool:
        """Whether the control is down for the programs, or a finger is on it."""
        return self._holds.ledger.is_down(code) or code in self._fingers

    def held(self) -> set[str]:
        """Every control that is down by the engine alone, and by no finger of its own."""
        ledger = self._holds.ledger
        return {control for control in ledger.down() if not any(map(is_own, ledger.holders_of(control)))}

    def step(self, event: Event, now_us: int) -> tuple[tuple[Output, ...], int | None]:
        """Take one event at `now_us`; a time that goes backward counts as standing still.

        Returns all outputs in order, and when to send the next `Wake` (None: not before another event).
        """
        self._now_us = max(self._now_us, now_us)
        self._out.clear()
        kind, next_us = type(event), NEVER
        if self._runs and kind is not StopAll:
            # Whatever was due comes before the event, so that a late wake-up changes nothing.
            next_us = self._advance_all()
        if kind is not Wake:
            self._handlers[kind](event)
            next_us = self._advance_all() if self._runs else NEVER
        return tuple(self._out), None if next_us == NEVER else next_us

    def first_of(self, control: str, passed: bool = False, sent: str = "") -> str:
        """The control that a press of this one is sure to put down before all else, as things are; '' where that isn't
        sure. Who asks before `step` can send it before everything else is worked out."""
        if self._runs or self._layers or control in self._fingers:
            return ""
        action = self._sheet.actions.get(control)
        if action is None or not (first := action.first) or self._holds.ledger.is_down(first):
            return ""
        # A press that has passed puts its own control down.
        return "" if passed and first == (sent or control) else first

    def _play(self, event: PlayMacro) -> None:
        if event.plan.macro not in self._runs:
            self._start(event.plan, event.play, "")

    def fingers(self) -> dict[str, str]:
        """The controls that fingers hold down, in the order in which they went down, and what each puts down by itself:
        the control, or what its device sends for it."""
        return {control: own for control, (_, _, own) in self._fingers.items()}

    def _answered(self, event: TextReady | PlaceReady | PointerReady) -> None:
        """Let a run go on with what it asked for; an answer to what nobody waits for any more is dropped."""
        run = self._runs.get(event.macro)
        if run is None or not run.player.awaits(event.ticket):
            return
        match event:
            case TextReady(refusal_reason=""):
                keys = {key for stroke in event.strokes for key in (stroke.control, *stroke.held)}
                aside = self._holds.text_begins(self._now_us, run.key, keys)
                run.player.type(event.strokes, self._now_us + (_ASIDE_US if aside else 0))
            case TextReady(refusal_reason=reason):
                self._perform(run, run.player.give_up(reason, self._now_us))
            case PlaceReady(where=where):
                run.player.go(where)
            case PointerReady(place=place):
                run.player.look(place)

    def _inputs_lost(self, controls: frozenset[str] | None) -> None:
        for control in [c for c in self._fingers if controls is None or c in controls]:
            self._release(control)
        for run in list(self._runs.values()):
            if run.started_by and (controls is None or run.started_by in controls):
                run.queued = ""
                self._finish(run.key, tr("device unplugged"))

    # Fingers

    def _press(self, control: str, passed: bool, sent: str) -> None:
        if control in self._fingers:
            return
        action = _action(self._sheet, self._layers, control)
        own = sent or control
        self._fingers[control] = action, passed, own
        if passed:
            self._holds.pressed(self._now_us, own, own_holder(control, sent))
        elif action is None:
            self._holds.hold(self._now_us, own_holder(control, sent), own)
        if action is None:
            return
        if isinstance(action.cell, ToControl | ToChord):
            for code in _codes(action.cell):
                self._holds.hold(self._now_us, f"{FINGER} {control}", code)
        elif isinstance(action.cell, HoldLayer):
            self._layers[control] = action.cell.layer
        elif isinstance(action.cell, ChangeSpeed) and action.cell.held:
            self._hold_speed(control, action.cell.to)
        elif isinstance(action.cell, _ASKED):
            self._out.append(Asked(action.cell, control))
        elif action.plan and not _starts_on_release(action.play):
            self._trigger(action.plan, action.play, control)

    def _leave(self, control: str) -> None:
        """A control lets its layer go: what is held in that layer alone ends, though its buttons may still be down."""
        name = self._layers.pop(control, None)
        if name is None or name in self._layers.values():
            return
        for code, (action, passed, own) in list(self._fingers.items()):
            if action is not None and action.layer == name and action.plan and action.play.mode is Mode.HELD:
                self._fingers[code] = Action(Nothing()), passed, own
                self._trigger_let_go(action, code)
            elif action is not None and action.layer == name and code in self._speeds:
                self._hold_speed(code, "")

    def _hold_speed(self, control: str, stage: str) -> None:
        """The control holds a pointer speed, or with '' none any more; the one that was held last counts."""
        before = next(reversed(self._speeds.values()), "")
        self._speeds.pop(control, None)
        if stage:
            self._speeds[control] = stage
        now = next(reversed(self._speeds.values()), "")
        if now != before:
            self._out.append(SpeedHeld(now))

    def _release(self, control: str) -> None:
        if control not in self._fingers:
            return
        action, passed, own = self._fingers.pop(control)
        holder = own_holder(control, "" if own == control else own)
        if passed:
            self._holds.lifted(self._now_us, own, holder)
        elif action is None:
            self._holds.let_go(self._now_us, holder, own)
        if action is None:
            return
        if isinstance(action.cell, ToControl | ToChord):
            for code in reversed(_codes(action.cell)):
                self._holds.let_go(self._now_us, f"{FINGER} {control}", code)
        elif isinstance(action.cell, HoldLayer):
            self._leave(control)
        elif control in self._speeds:
            self._hold_speed(control, "")
        elif action.plan:
            self._trigger_let_go(action, control)

    def _turn(self, control: str, notches: int, passed: bool) -> None:
        action = _action(self._sheet, self._layers, control)
        if action is None:
            if not passed:
                self._holds.emit(control, notches, self._now_us, FINGER)
        elif isinstance(action.cell, ToControl | ToChord) and not action.plan:
            for _ in range(notches):
                for code in _codes(action.cell):
                    self._holds.hold(self._now_us, f"{FINGER} {control}", code)
                for code in reversed(_codes(action.cell)):
                    self._holds.let_go(self._now_us, f"{FINGER} {control}", code)
        elif isinstance(action.cell, _ASKED):
            self._out += [Asked(action.cell, control)] * notches
        elif action.plan:
            for number in range(notches):
                self._notch(action, control, first=number == 0)

    def _notch(self, action: Action, control: str, *, first: bool) -> None:
        """Play what a notch of the wheel plays: it has no length, and presses and lets go at one instant."""
        assert action.plan
        run = self._runs.get(action.plan.macro)
        if run is not None and isinstance(action.cell, ToControl | ToChord):
            # They follow each other as the game can see them; a wheel that runs on is not followed for long.
            run.notches = min(run.notches + 1, _MOST_NOTCHES)
            return
        ignores = action.play.mode in (Mode.SINGLE, Mode.COUNTED) and action.play.again is Again.IGNORE
        if run is not None and ignores and not first:
            # Notches that one report tells of come one after the other: none of them is another press meanwhile.
            run.notches += 1
            return
        self._trigger(action.plan, action.play, control)
        self._trigger_let_go(action, control)

    # Triggers

    def _trigger(self, plan: Plan, play: Play, control: str) -> None:
        run = self._runs.get(plan.macro)
        if run is None:
            self._start(plan, play, control)
            return
        run.triggers.add(control)
        mode = run.play.mode
        if mode is Mode.TOGGLE:
            if run.player.ending:
                run.queued = control
            else:
                self._finish(run.key, tr("pressed again"))
        elif mode is Mode.HELD:
            if not run.player.go_on():
                run.queued = control
        else:
            self._press_again(run, control)

    def _press_again(self, run: Run, control: str) -> None:
        match run.play.again:
            case Again.STOP:
                self._finish(run.key, tr("pressed again"))
            case Again.RESTART:
                run.queued = control
                self._finish(run.key, tr("restarted"))
            case Again.QUEUE:
                run.queued = control
            case Again.IGNORE:
                pass

    def _trigger_let_go(self, action: Action, control: str) -> None:
        assert action.plan
        run = self._runs.get(action.plan.macro)
        if run is not None:
            run.triggers.discard(control)
            if run.play.mode is Mode.HELD and not run.triggers:
                self._let_go_held(run)
        if _starts_on_release(action.play):
            self._trigger(action.plan, action.play, control)

    def _let_go_held(self, run: Run) -> None:
        run.queued = ""
        if run.play.let_go is LetGo.AFTER_RUN:
            run.player.finish_after_run()
            run.reason = tr("released")
        else:
            self._finish(run.key, tr("released"))

    def _start(self, plan: Plan, play: Play, trigger: str) -> None:
        around = _Around(self, plan.macro)
        player = self._make_player(plan, play, self._now_us, self._chance, around, self._tickets)
        self._runs[plan.macro] = Run(plan, play, trigger, player)
        self._out.append(RunStarted(plan.macro, trigger, play.mode, self._now_us))

    # Runs

    def _finish(self, key: str, reason: str) -> None:
        run = self._runs.get(key)
        if run is not None and not run.player.done:
            run.reason = reason
            self._perform(run, run.player.finish(self._now_us))

    def _stop_all(self, why: str) -> None:
        for run in list(self._runs.values()):
            # Nothing begins anew, whatever reason is given, or none.
            run.queued, run.notches, run.reason = "", 0, why
            self._perform(run, run.player.cut(self._now_us))
            self._end(run)
        # A control that acts as another is let go too; the finger's own holds stay the finger's.
        for holder in self._holds.holders():
            if not is_own(holder):
                self._holds.let_go_all(self._now_us, holder)

    def _set_sheet(self, sheet: Sheet, why: str) -> None:
        switched = sheet.profile != self._sheet.profile
        self._sheet = sheet
        for control, name in list(self._layers.items()):
            if switched or name not in sheet.layers:
                self._leave(control)
        for run in list(self._runs.values()):
            if switched or (run.started_by and not _still_attached(self._sheet, run)):
                run.queued = ""
                self._finish(run.key, why if switched else tr("edited"))
        if switched:
            for control in list(self._speeds):
                self._hold_speed(control, "")
            for holder in self._holds.holders():
                if holder.startswith(f"{FINGER} "):
                    self._holds.let_go_all(self._now_us, holder)

    def _advance_all(self) -> int:
        """Do all that is due, in the order of its time; returns when something is due next."""
        made: dict[str, int] = {}
        next_us = NEVER
        for _ in range(_MOST_INSTANTS):
            soonest: Run | None = None
            soonest_us, next_us = self._now_us + 1, NEVER
            for run in self._runs.values():
                due_us = run.player.next_us
                if due_us < soonest_us and (due_us == AT_ONCE or made.get(run.key, 0) < MAX_ACTS):
                    soonest, soonest_us = run, due_us
                elif due_us < next_us:
                    next_us = due_us
            if soonest is None:
                break
            self._advance(soonest, self._now_us if soonest_us == AT_ONCE else soonest_us, made)
        else:
            # The rest stays due.
            next_us = min((max(0, run.player.next_us) for run in self._runs.values()), default=NEVER)
        return next_us

    def _advance(self, run: Run, until_us: int, made: dict[str, int]) -> None:
        acts = run.player.advance(self._now_us, until_us)
        # One that has worked off much in one go lets others, and Stop everything, have their turn.
        made[run.key] = MAX_ACTS if run.player.breathless else made.get(run.key, 0) + len(acts)
        self._perform(run, acts)
        if run.player.done:
            self._end(run)

    def settle(self, key: str, acts: list[Act]) -> None:
        """Do what a run has come to, in the midst of its way."""
        if run := self._runs.get(key):
            self._perform(run, acts)

    def _end(self, run: Run) -> None:
        del self._runs[run.key]
        self._holds.let_go_all(self._now_us, run.key)
        self._holds.run_ends(self._now_us, run.key)
        player = run.player
        self._out.append(
            RunEnded(
                run.key,
                player.runs,
                player.failed or run.reason or tr("finished"),
                player.schedule_shift_us,
                player.failed,
            )
        )
        if run.queued and not player.failed and (run.play.mode is not Mode.HELD or run.queued in self._fingers):
            self._start(run.plan, run.play, run.queued)
            self._runs[run.key].triggers |= {t for t in run.triggers if t in self._fingers}
        elif run.notches and not run.reason and not player.failed:
            self._start(run.plan, run.play, run.started_by)
            self._runs[run.key].notches = run.notches - 1

    def _perform(self, run: Run, acts: list[Act]) -> None:
        key = run.key
        for control, value, due_us, other, quiet in acts:
            if quiet:
                self._holds.quiet.add(control)
            if other is not None:
                self._out.append(SideEffect(other, due_us, key))
            elif control.startswith("WHEEL"):
                self._holds.emit(control, value, due_us, key)
            elif value:
                self._holds.hold(self._now_us, key, control, due_us)
            else:
                self._holds.let_go(self._now_us, key, control, due_us)
        if key in self._holds.typing and not run.player.types:
            self._holds.text_ends(self._now_us, key)


def _still_attached(sheet: Sheet, run: Run) -> bool:
    return any(a.plan is run.plan and a.play == run.play for _, a in sheet.every())


def _action(sheet: Sheet, layers: dict[str, str], control: str) -> Action | None:
    """What the control does now: in the layer that was held last, in those before it, or without one."""
    for name in reversed(layers.values()):
        if (action := sheet.layers.get(name, {}).get(control)) is not None:
            return action
    return sheet.actions.get(control)


def _codes(cell: ToControl | ToChord) -> tuple[str, ...]:
    return cell.controls if isinstance(cell, ToChord) else (cell.control,)


def _starts_on_release(play: Play) -> bool:
    return play.start_on is StartOn.RELEASE and play.mode in (Mode.SINGLE, Mode.COUNTED)
