"""Values that messages carry."""

from __future__ import annotations

from enum import StrEnum

import msgspec

from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile

__all__ = ["Check", "CheckState", "Entry", "Running", "SeenEvent", "Status", "Version"]


class CheckState(StrEnum):
    """How a link stands: fine, worth knowing, or broken."""

    OK = "ok"
    NOTE = "note"
    BAD = "bad"


class Check(msgspec.Struct, frozen=True):
    """One link between a finger and a program: what was found, why it matters, and what to do about it."""

    link: str
    state: CheckState
    found: str
    why: str = ""
    remedy: str = ""


class Running(msgspec.Struct, frozen=True):
    """A macro that runs, the control that started it ('' for none) and since when (monotonic microseconds); which of
    its runs it is in, from 1, and how many it makes, 0 for as many as wanted."""

    macro: str
    name: str
    trigger: str
    since_us: int
    run: int = 0
    of: int = 0


class Status(msgspec.Struct, frozen=True):
    """The service's state. `since` is seconds since the epoch; `backend` names the route to the programs, and
    `backend_note` says what that means for the user, '' where there is nothing to say. `for_show` says that macros
    reach no window now, since Nakrel's own is in front. `setups` names the variant in use of the live
    profile, and of each where another than the first was chosen. Without `sees_windows` nobody tells which window is in
    front, so that of several linked programs the one started last counts. `stage` is the live profile's pointer speed,
    '' where it has none, and `changes_motion` whether the route to the programs can change the motion, and
    `warning` why macros reach no program, '' where they do or where nothing else was asked for. `program_in_front` says
    the live profile's program has the window in front."""

    live: str
    reason: str
    since: float
    pinned: str
    backend: str
    backend_note: str
    running: tuple[Running, ...] = ()
    recording: bool = False
    listening: bool = False
    for_show: bool = False
    running_profiles: tuple[str, ...] = ()
    setups: dict[str, str] = {}
    sees_windows: bool = True
    stage: str = ""
    changes_motion: bool = False
    warning: str = ""
    program_in_front: bool = False


class Entry(msgspec.Struct, frozen=True, gc=False):
    """A line of the journal: `at` seconds since the epoch, `kind` switch, run, fault, edit, tuning or
    service."""

    at: float
    kind: str
    what: str
    why: str = ""


class SeenEvent(msgspec.Struct, frozen=True, array_like=True, gc=False):
    """One event on its way in or out, in monotonic microseconds. `by` is 'in' for what a finger does. What goes out is
    by a macro's id, by 'finger' as it came in, or by 'finger' and the button that acts as another. `sent` is the key
    that the device sends for the control that comes in, '' for that itself."""

    by: str
    control: str
    value: int
    at_us: int
    sent: str = ""


class Version(msgspec.Struct, frozen=True):
    """A profile or a macro as it was saved at a time, in seconds since the epoch."""

    at: float
    profile: Profile | None = None
    macro: Macro | None = None
