"""What is live: which profile, by which of its variants, and the sheet that the engine plays by."""

from __future__ import annotations

import contextlib
import threading
import time
from collections.abc import Callable, Collection, Iterable, Mapping
from typing import NamedTuple, Protocol

from nakrel.backends.notices import Notices
from nakrel.core.model.cells import ChangeSpeed, GoTo, RunSystemAction, SystemAction, What
from nakrel.core.model.conditioning import Motion
from nakrel.core.model.controls import label
from nakrel.core.model.cues import Cue
from nakrel.core.model.errors import DataError
from nakrel.core.model.game_keys import resolve
from nakrel.core.model.macro import Macro, Play
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.core.model.settings import InUse
from nakrel.core.play.events import Asked
from nakrel.core.play.live import motion_now, next_profile, next_setup, next_stage, sheet_of
from nakrel.core.play.operations import Plan, compile_macro
from nakrel.core.play.sheet import Sheet
from nakrel.desktop.names import APP_ID, icon_file
from nakrel.service.cues import Cues
from nakrel.service.loop import Loop
from nakrel.service.observers.desktop import Seen
from nakrel.service.reporter import Reporter
from nakrel.service.state import State
from nakrel.service.trial import Trials
from nakrel.service.worker import Outcome, Worker
from nakrel.storage import files
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home
from nakrel.words import tr

__all__ = ["Host", "Live", "Ready", "ReadySheet"]


class Host(Protocol):
    """What it needs of the service."""

    cues: Cues

    @property
    def in_front(self) -> bool:
        """Whether a window of Nakrel's own is in front."""

    def set_sheet(self, ready: ReadySheet, why: str) -> None:
        """Play by this sheet from now on."""

    def condition(self, motion: Motion | None) -> None:
        """Have the devices move the pointer like this."""

    def pin(self, profile: str) -> None:
        """Hold a profile live, or with '' load profiles with their games again."""

    def stop_everything(self, why: str) -> None:
        """End all macros."""

    def refresh_sheet(self, why: str = "") -> None:
        """Play by the live profile as it is now."""


class Ready(NamedTuple):
    """A macro made ready to be played: its plan, and its own way to play."""

    plan: Plan
    play: Play


class ReadySheet(NamedTuple):
    """A sheet made ready: the controls that it takes from the programs, those among them that come out as themselves,
    and what is wrong with macros in it that can't play."""

    sheet: Sheet
    controls: frozenset[str]
    repeats_itself: frozenset[str]
    faults: tuple[str, ...] = ()

    @staticmethod
    def of(sheet: Sheet, faults: Iterable[str] = ()) -> ReadySheet:
        """The sheet with what is to be known of it."""
        return ReadySheet(sheet, sheet.controls(), sheet.repeats_itself(), tuple(faults))


class _Plans:
    """Makes plans and sheets; on a thread of its own, since a long macro takes its time."""

    def __init__(self) -> None:
        self._plans: dict[tuple[str, str], tuple[Macro, Profile, Plan]] = {}

    def ready(self, macro: Macro, profile: Profile) -> Ready:
        """A macro's plan with the profile's keys; the same plan while both are the same. Raises `DataError` for a game
        key that the profile lacks."""
        known = self._plans.get((macro.id, profile.id))
        if known is None or known[0] is not macro or known[1].keys != profile.keys:
            plan = compile_macro(resolve(macro, profile.key_table(), profile.name))
            same = known is not None and known[2] == plan
            known = self._plans[macro.id, profile.id] = (macro, profile, known[2] if known and same else plan)
        return Ready(known[2], macro.play)

    def sheet(
        self,
        profile: str,
        in_use: Mapping[str, str],
        profiles: Mapping[str, Profile],
        macros: Mapping[str, Macro],
        notch_us: int,
        silent: Collection[str],
    ) -> ReadySheet:
        """The sheet of a profile; `silent` controls do nothing in it and reach no program."""
        faults: list[str] = []

        def plan_of(key: str) -> Ready | None:
            if (macro := macros.get(key)) is None:
                return None
            try:
                return self.ready(macro, profiles[profile])
            except DataError as error:
                faults.append(tr("{macro} can't play: {reason}.").format(macro=macro.name, reason=error))
                return None

        for key in [key for key in self._plans if key[0] not in macros or key[1] not in profiles]:
            del self._plans[key]
        return ReadySheet.of(sheet_of(profiles[profile], in_use, profiles, plan_of, notch_us, silent), faults)


class Live:
    """Goes by what is seen of the desktop, keeps which variant of each profile is in use, and does what fingers ask of
    both."""

    def __init__(self, home: Home, loop: Loop, state: State, worker: Worker, reporter: Reporter, host: Host) -> None:
        self._loop, self._state, self._worker, self._reporter, self._host = loop, state, worker, reporter, host
        # What was decided on, and why; and what is in effect and therefore told. They differ while a sheet is prepared.
        self._at_first = tr("the service started")
        self.profile, self._why = EVERYDAY, self._at_first
        self.live, self.reason, self.since = self.profile, self._why, time.time()
        # Whether its program has the window in front: what is decided on, and what is in effect.
        self._program_in_front = self.program_in_front = False
        self.running_profiles: tuple[str, ...] = ()
        self.sees_windows = True
        self._plans = _Plans()
        self.trials = Trials(state, reporter)
        # The number of the newest sheet that was asked for: an older one that comes late is for nothing.
        self._number = 0
        # The speed stage in use by profile, and the one that a control holds now.
        self._stages: dict[str, str] = {}
        self._held_stage = self._shown_stage = ""
        self._notices = Notices(icon_file().as_uri(), APP_ID, self._pressed)
        self._path = home.in_use
        self.in_use: dict[str, str] = {}
        with contextlib.suppress(StorageError):
            # What can't be read is no loss: the first set-ups are in use then.
            self.in_use = files.read(self._path, InUse).setups

    # Which profile

    @property
    def begun(self) -> bool:
        """Whether what is seen of the desktop is in effect, and no longer what the service starts with."""
        return self.reason != self._at_first

    def see(self, seen: Seen) -> None:
        """Go by what is seen of the programs and windows."""
        known = self.running_profiles, self.sees_windows
        self.running_profiles, self.sees_windows = seen.running, seen.sees_windows
        if known != (self.running_profiles, self.sees_windows):
            self._reporter.status_changed()
        choice = seen.choice
        if choice.profile not in self._state.profiles:
            # It has been deleted since it was seen; what is seen next goes without it.
            return
        switched = choice.profile != self.profile
        self.profile, self._why, self._program_in_front = choice.profile, choice.reason, choice.in_front
        if switched:
            self._host.refresh_sheet()
        elif self.live == self.profile:
            self._in_effect(self.profile)

    def _in_effect(self, profile: str) -> None:
        """The profile's sheet is the engine's: tell that it is live, and why, where that isn't known yet."""
        if profile != self.profile or profile not in self._state.profiles:
            # What is decided on by now follows.
            return
        if (profile, self._why) == (self.live, self.reason):
            return
        switched = profile != self.live
        self.live, self.reason, self.program_in_front = profile, self._why, self._program_in_front
        if switched:
            self.since = time.time()
            name = self._state.profiles[profile].name
            self._reporter.add("switch", tr("{name} is live").format(name=name), self.reason)
            self._host.cues.tell(Cue.LIVE, tr("{name} is live").format(name=name), self.reason)
            self._tell(tr("{name} is live").format(name=name), self.reason)
        self._reporter.status_changed()

    def _tell(self, message: str, why: str) -> None:
        """Show a notice on the desktop, where that is wanted and not the window itself says it."""
        if self._state.settings.notices and not self._host.in_front:
            self.notify(message, why)

    def notify(self, message: str, why: str) -> None:
        """Show a notice on the desktop."""
        # On a thread of its own: a desktop that takes its time must not hold up a text that waits to be typed.
        arguments = message, why, (("stop", tr("Stop everything")),)
        threading.Thread(target=self._notices.show, args=arguments, daemon=True).start()

    def _pressed(self, key: str) -> None:
        """A button of a notice was pressed; this comes on another thread."""
        self._loop.post(lambda: self._host.stop_everything(tr("pressed in a notice")))

    # Which set-up

    def setup_of(self, profile: str) -> str:
        """The name of the profile's variant in use."""
        found = self._state.profiles.get(profile)
        return found.setup(self.in_use.get(profile, "")).name if found else ""

    def use(self, profile: str, setup: str, why: str) -> None:
        """Put a variant in use from now on; raises `DataError` for one that isn't there."""
        found = self._state.profiles.get(profile)
        if found is None or found.setup(setup).name != setup:
            wrong = tr("{profile} has no variant {setup!r}; it has {names}")
            names = ", ".join(each.name for each in found.setups) if found else tr("none")
            raise DataError(wrong.format(profile=found.name if found else profile, setup=setup, names=names))
        if self.setup_of(profile) == setup:
            return
        self._remember({**self.in_use, profile: setup})
        self._reporter.add("switch", tr("{profile} plays as {setup}").format(profile=found.name, setup=setup), why)
        if self.profile == profile:
            self._tell(tr("{profile} plays as {setup}").format(profile=found.name, setup=setup), why)
        # Cells may fall through to Everyday's.
        if profile in (self.profile, EVERYDAY):
            self._host.refresh_sheet(tr("variant switched"))
        self._reporter.status_changed()

    # The pointer

    @property
    def stage(self) -> str:
        """The pointer speed that the pointer of the live profile has now; '' where the profile has none."""
        profile = self._now
        names = [each.name for each in profile.pointer.stages]
        if self._held_stage in names:
            return self._held_stage
        return self._chosen_stage(profile)

    @property
    def _now(self) -> Profile:
        """The live profile; Everyday for a moment where that has just been deleted."""
        return self._state.profiles.get(self.profile) or self._state.profiles[EVERYDAY]

    def _chosen_stage(self, profile: Profile) -> str:
        known = profile.pointer.stage(self._stages.get(profile.id, ""))
        return known.name if known else ""

    def use_stage(self, change: ChangeSpeed) -> None:
        """Give the pointer another stage of the live profile; raises `DataError` for one that it hasn't got."""
        profile = self._now
        names = [each.name for each in profile.pointer.stages]
        if change.to and change.to not in names:
            raise DataError(
                tr("{profile} has no pointer speed {to!r}; it has {names}").format(
                    profile=profile.name, to=change.to, names=", ".join(names) or tr("none")
                )
            )
        self._stages[profile.id] = next_stage(profile, self._chosen_stage(profile), change)
        self.condition()

    def hold_stage(self, name: str) -> None:
        """A control holds this pointer speed; '' for none."""
        self._held_stage = name
        self.condition()

    def condition(self) -> None:
        """Have the devices move the pointer as the live profile wants it now."""
        profile = self._now
        self._host.condition(motion_now(profile, self._chosen_stage(profile), self._held_stage))
        if self.stage != self._shown_stage:
            self._shown_stage = self.stage
            self._reporter.status_changed()

    def edited(self, before: Profile | None, after: Profile) -> None:
        """A profile was saved: a variant or pointer speed that got another name stays in use."""
        if before is None:
            return
        stages = [[stage.name for stage in each.pointer.stages] for each in (before, after)]
        if named := _renamed(self._stages.get(after.id, ""), *stages):
            self._stages[after.id] = named
        setups = [[setup.name for setup in each.setups] for each in (before, after)]
        if named := _renamed(self.in_use.get(after.id, ""), *setups):
            self._remember({**self.in_use, after.id: named})
            self._reporter.status_changed()

    def _remember(self, in_use: dict[str, str]) -> None:
        self.in_use = in_use
        kept = {key: name for key, name in in_use.items() if key in self._state.profiles}
        self._state.saver.do(lambda: files.write(self._path, files.encode(InUse(kept))))

    # The sheet

    def prepare(self, *, idle: bool, why: str) -> None:
        """Make the live sheet ready, and give it to the engine when it is; while `idle` an empty one, at once."""
        self._number += 1
        number = self._number
        if idle:
            self._host.set_sheet(ReadySheet.of(Sheet("", {})), why)
            self.condition()
            self._in_effect(self._now.id)
            return
        profile, in_use = self._now.id, dict(self.in_use)
        profiles, macros = dict(self._state.profiles), dict(self._state.macros)
        notch_us, silent = self._state.settings.notch_us, self.trials.now.judges if self.trials.now else ()
        if self.trials.now and self.trials.now.macro.id in macros:
            macros[self.trials.now.macro.id] = self.trials.now.macro

        def made(outcome: Outcome[ReadySheet]) -> None:
            if number != self._number:
                return
            ready = outcome.get()
            for fault in ready.faults:
                self._reporter.fault_once(fault)
            self._host.set_sheet(ready, why)
            self.condition()
            self._in_effect(profile)

        self._worker.do(lambda: self._plans.sheet(profile, in_use, profiles, macros, notch_us, silent), made)

    def ready(self, key: str, then: Callable[[Outcome[Ready | None]], object]) -> None:
        """Make a macro ready to be played with the live profile's keys; None for one that isn't there. The outcome may
        be a `DataError`."""
        macro, profile = self._state.macros.get(key), self._now
        if macro and self.trials.now and self.trials.now.macro.id == key:
            macro = self.trials.now.macro
        self._worker.do(lambda: self._plans.ready(macro, profile) if macro else None, then)

    # What fingers ask

    def asked(self, asked: Asked) -> None:
        """Do what a control asked for, once the loop comes to it: the engine is in the midst of a step now."""
        self._loop.post(lambda: self._do(asked.cell, asked.control))

    def _do(self, cell: GoTo | ChangeSpeed | RunSystemAction, control: str) -> None:
        why = tr("{control} pressed").format(control=label(control))
        if isinstance(cell, RunSystemAction):
            if cell.action is SystemAction.STOP:
                self._host.stop_everything(why)
            elif cell.action is SystemAction.FOLLOW:
                self._host.pin("")
        elif isinstance(cell, ChangeSpeed):
            try:
                self.use_stage(cell)
            except DataError as error:
                self._reporter.fault_once(
                    tr("{control} changes no speed: {reason}.").format(control=label(control), reason=error)
                )
        elif cell.what is What.SETUP:
            profile = self._now
            self.use(profile.id, next_setup(profile, self.setup_of(profile.id), cell), why)
        else:
            wanted = next_profile(self._state.profiles, self.profile, cell)
            # The same button again gives the choice back to the games.
            self._host.pin("" if cell.to and wanted == self._state.settings.pinned else wanted)


def _renamed(now: str, old: list[str], new: list[str]) -> str:
    """What the one of this name is called after an edit that gave it another name; '' where none did."""
    return new[old.index(now)] if now in old and now not in new and len(old) == len(new) else ""
