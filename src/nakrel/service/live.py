"""What is live: which profile, by which of its set-ups, and the sheet that the engine plays by."""

from __future__ import annotations

import contextlib
import threading
import time
from typing import TYPE_CHECKING

from nakrel.backends.notices import Notices
from nakrel.backends.processes import ProcessWatch
from nakrel.core.model.cells import ChangeSpeed, GoTo, RunSystemAction, SystemAction, What
from nakrel.core.model.controls import label
from nakrel.core.model.errors import DataError
from nakrel.core.model.game_keys import resolve
from nakrel.core.model.macro import Macro, Play
from nakrel.core.model.profile import EVERYDAY, Profile
from nakrel.core.model.programs import Choice
from nakrel.core.model.settings import InUse
from nakrel.core.play.events import Asked, SetSheet, Sheet
from nakrel.core.play.live import motion_now, next_profile, next_setup, next_stage, sheet_of
from nakrel.core.play.operations import Plan, compile_macro
from nakrel.service.follow import Follower
from nakrel.storage import files
from nakrel.storage.files import StorageError

if TYPE_CHECKING:
    from nakrel.service.service import Service

__all__ = ["Live"]


class Live:
    """Follows games, keeps which set-up of each profile is in use, and does what fingers ask of both."""

    def __init__(self, service: Service) -> None:
        self._service = service
        self.profile = EVERYDAY
        self.reason, self.since = "the service started", time.time()
        self._plans: dict[tuple[str, str], tuple[Macro, Profile, Plan]] = {}
        # The speed stage in use by profile, and the one that a control holds now.
        self._stages: dict[str, str] = {}
        self._held_stage = self._told_stage = ""
        self._follower: Follower | None = None
        self._notices = Notices()
        self._path = service.library.home.in_use
        self.in_use: dict[str, str] = {}
        with contextlib.suppress(StorageError):
            # What can't be read is no loss: the first set-ups are in use then.
            self.in_use = files.read(self._path, InUse).setups

    # Which profile

    def follow(self) -> None:
        """Decide anew which profile is live, after profiles or the pin have changed."""
        s = self._service
        if s.side_effects.screens is None:
            s.side_effects.screens = s.routes.screens()
        pinned = s.settings.pinned if s.settings.pinned in s.profiles else ""
        if self._follower is None:
            self._follower = Follower(s.loop, ProcessWatch(), s.routes.windows(), self._decided)
        self._follower.set_profiles(s.profiles.values(), pinned)

    def programs(self) -> Follower:
        """The follower, which knows the programs."""
        assert self._follower
        return self._follower

    def running_profiles(self) -> tuple[str, ...]:
        """The profiles that have a linked program running."""
        return self._follower.running_profiles() if self._follower else ()

    @property
    def sees_windows(self) -> bool:
        """Whether somebody tells which window is in front."""
        return self._follower is None or self._follower.sees_windows

    def forget(self) -> None:
        """Stop following; `follow` begins anew."""
        if self._follower:
            self._follower.close()
            self._follower = None

    def _decided(self, choice: Choice) -> None:
        if choice.profile == self.profile and choice.reason == self.reason:
            return
        switched = choice.profile != self.profile
        self.profile, self.reason = choice.profile, choice.reason
        if switched:
            self.since = time.time()
            name = self._service.profiles[choice.profile].name
            self._service.journal.add("switch", f"{name} is live", choice.reason)
            self._tell(f"{name} is live", choice.reason)
        self._service.refresh_sheet()
        self._service.status_changed()

    def _tell(self, words: str, why: str) -> None:
        """Show a notice on the desktop, where that is wanted and not the window itself says it."""
        if self._service.settings.notices and not self._service.in_front:
            # On a thread of its own: a desktop that takes its time must not hold up a text that waits to be typed.
            threading.Thread(target=self._notices.show, args=(words, why), daemon=True).start()

    # Which set-up

    def setup_of(self, profile: str) -> str:
        """The name of the profile's set-up in use."""
        found = self._service.profiles.get(profile)
        return found.setup(self.in_use.get(profile, "")).name if found else ""

    def use(self, profile: str, setup: str, why: str) -> None:
        """Put a set-up in use from now on; raises `DataError` for one that isn't there."""
        s = self._service
        found = s.profiles.get(profile)
        if found is None or found.setup(setup).name != setup:
            names = ", ".join(each.name for each in found.setups) if found else "none"
            raise DataError(f"{found.name if found else profile} has no set-up {setup!r}; it has {names}")
        if self.setup_of(profile) == setup:
            return
        self._remember({**self.in_use, profile: setup})
        s.journal.add("switch", f"{found.name} plays as {setup}", why)
        if self.profile == profile:
            self._tell(f"{found.name} plays as {setup}", why)
        # Cells may fall through to Everyday's.
        if profile in (self.profile, EVERYDAY):
            s.refresh_sheet("set-up switched")
        s.status_changed()

    # The pointer

    @property
    def stage(self) -> str:
        """The speed stage that the pointer of the live profile has now; '' where the profile has none."""
        profile = self._now
        names = [each.name for each in profile.pointer.stages]
        if self._held_stage in names:
            return self._held_stage
        return self._chosen_stage(profile)

    @property
    def _now(self) -> Profile:
        """The live profile; Everyday for a moment where that has just been deleted."""
        return self._service.profiles.get(self.profile) or self._service.profiles[EVERYDAY]

    def _chosen_stage(self, profile: Profile) -> str:
        known = profile.pointer.stage(self._stages.get(profile.id, ""))
        return known.name if known else ""

    def use_stage(self, change: ChangeSpeed) -> None:
        """Give the pointer another stage of the live profile; raises `DataError` for one that it hasn't got."""
        profile = self._now
        names = [each.name for each in profile.pointer.stages]
        if change.to and change.to not in names:
            raise DataError(f"{profile.name} has no speed stage {change.to!r}; it has {', '.join(names) or 'none'}")
        self._stages[profile.id] = next_stage(profile, self._chosen_stage(profile), change)
        self.condition()

    def hold_stage(self, name: str) -> None:
        """A control holds this speed stage; '' for none."""
        self._held_stage = name
        self.condition()

    def condition(self) -> None:
        """Have the devices move the pointer as the live profile wants it now."""
        s = self._service
        profile = self._now
        s.routes.condition(motion_now(profile, self._chosen_stage(profile), self._held_stage))
        if self.stage != self._told_stage:
            self._told_stage = self.stage
            s.status_changed()

    def edited(self, before: Profile | None, after: Profile) -> None:
        """A profile was saved: a set-up or speed stage that got another name stays in use."""
        if before is None:
            return
        stages = [[stage.name for stage in each.pointer.stages] for each in (before, after)]
        if named := _renamed(self._stages.get(after.id, ""), *stages):
            self._stages[after.id] = named
        setups = [[setup.name for setup in each.setups] for each in (before, after)]
        if named := _renamed(self.in_use.get(after.id, ""), *setups):
            self._remember({**self.in_use, after.id: named})
            self._service.status_changed()

    def _remember(self, in_use: dict[str, str]) -> None:
        self.in_use = in_use
        kept = {key: name for key, name in in_use.items() if key in self._service.profiles}
        content = files.encode(InUse(kept))
        self._service.saver.do(lambda: files.write(self._path, content), lambda error: None)

    # The sheet

    def sheet(self) -> Sheet:
        """The sheet that the engine should play by."""
        s = self._service
        return sheet_of(s.profiles[self.profile], self.in_use, s.profiles, self._plan_or_fault)

    def plan_of(self, key: str) -> tuple[Plan, Play] | None:
        """A macro's plan with the live profile's keys, and its way to play; the same plan while both are the same.

        None for a macro that isn't there; raises `DataError` for a game key that the profile lacks.
        """
        s = self._service
        macro, profile = s.macros.get(key), s.profiles[self.profile]
        if macro is None:
            return None
        known = self._plans.get((key, profile.id))
        if known is None or known[0] is not macro or known[1].keys != profile.keys:
            plan = compile_macro(resolve(macro, profile.key_table(), profile.name))
            same = known is not None and known[2] == plan
            known = self._plans[key, profile.id] = (macro, profile, known[2] if known and same else plan)
        return known[2], macro.play

    def _plan_or_fault(self, key: str) -> tuple[Plan, Play] | None:
        try:
            return self.plan_of(key)
        except DataError as error:
            self._service.fault_once(f"{self._service.macros[key].name} can't play: {error}.")
            return None

    # What fingers ask

    def asked(self, asked: Asked) -> None:
        """Do what a control asked for, once the loop comes to it: the engine is in the midst of a step now."""
        self._service.loop.at(f"asked by {asked.control}", 0, lambda: self._do(asked.cell, asked.control))

    def _do(self, cell: GoTo | ChangeSpeed | RunSystemAction, control: str) -> None:
        s, why = self._service, f"{control} pressed"
        if isinstance(cell, RunSystemAction):
            if cell.action is SystemAction.STOP:
                s.stop_everything(why)
            elif cell.action is SystemAction.FOLLOW:
                s.pin("")
        elif isinstance(cell, ChangeSpeed):
            try:
                self.use_stage(cell)
            except DataError as error:
                s.fault_once(f"{label(control)} changes no speed: {error}.")
        elif cell.what is What.SETUP:
            now = self.setup_of(self.profile)
            self.use(self.profile, next_setup(s.profiles[self.profile], now, cell), why)
        else:
            wanted = next_profile(s.profiles, self.profile, cell)
            # The same button again gives the choice back to the games.
            s.pin("" if cell.to and wanted == s.settings.pinned else wanted)

    def set_sheet(self, idle: bool, why: str) -> Sheet:
        """Give the engine the live sheet, or while `idle` an empty one, and return it."""
        sheet = Sheet("", {}) if idle else self.sheet()
        self._service.step(SetSheet(sheet, why))
        return sheet


def _renamed(now: str, old: list[str], new: list[str]) -> str:
    """What the one of this name is called after an edit that gave it another name; '' where none did."""
    return new[old.index(now)] if now in old and now not in new and len(old) == len(new) else ""
