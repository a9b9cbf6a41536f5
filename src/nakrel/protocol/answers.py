"""What the service answers."""

from __future__ import annotations

import msgspec

from nakrel.core.model.controls import Levels
from nakrel.core.model.devices import Battery, Device
from nakrel.core.model.macro import Macro
from nakrel.core.model.places import Monitor, Window
from nakrel.core.model.profile import Profile
from nakrel.core.model.programs import Application, Icon, Program
from nakrel.core.model.runs import RunRecord
from nakrel.core.model.settings import Settings
from nakrel.core.model.steps import Step
from nakrel.core.model.takes import Take
from nakrel.core.model.tuning import Tuning
from nakrel.protocol.values import Check, Entry, Status, Version
from nakrel.protocol.wire import Message

__all__ = [
    "Answer",
    "AnswerBody",
    "Applications",
    "TakesAre",
    "TuningIs",
    "MotionTimes",
    "Legends",
    "WindowIs",
    "Checks",
    "Batteries",
    "Devices",
    "Done",
    "Facts",
    "Journal",
    "Library",
    "Places",
    "Programs",
    "Recorded",
    "Refused",
    "RunIs",
    "StatusIs",
    "Versions",
    "Welcome",
]


class Done(Message, frozen=True):
    """It was done."""


class Refused(Message, frozen=True):
    """It was not done: what, why, and what would help, in one or two sentences. Nothing was changed."""

    error: str


class Welcome(Message, frozen=True):
    """The service's answer to `Hello`."""

    protocol: int
    pid: int
    version: str


class Library(Message, frozen=True):
    """Everything stored; `faults` says which files were set aside and why."""

    profiles: tuple[Profile, ...]
    macros: tuple[Macro, ...]
    settings: Settings
    faults: tuple[str, ...] = ()


class StatusIs(Message, frozen=True):
    """The status; an answer, and a notice whenever it changes."""

    status: Status


class Devices(Message, frozen=True):
    """The devices; an answer, and a notice whenever they change."""

    devices: tuple[Device, ...]


class Batteries(Message, frozen=True):
    """The batteries of devices."""

    batteries: tuple[Battery, ...]


class Checks(Message, frozen=True):
    """The doctor's checks."""

    checks: tuple[Check, ...]


class Programs(Message, frozen=True):
    """The programs that run, and where it was asked for, the pictures of their windows by process id (as text)."""

    programs: tuple[Program, ...]
    icons: dict[str, Icon] = {}


class Versions(Message, frozen=True):
    """The versions that are kept, the newest first."""

    versions: tuple[Version, ...]


class Applications(Message, frozen=True):
    """The installed applications."""

    applications: tuple[Application, ...]


class TakesAre(Message, frozen=True):
    """The takes of a macro, the oldest first."""

    takes: tuple[Take, ...]


class TuningIs(Message, frozen=True):
    """The search for a macro's shortest time; None where there is none."""

    tuning: Tuning | None


class MotionTimes(Message, frozen=True):
    """When the reports of motion of a device came, in monotonic microseconds."""

    times_us: tuple[int, ...]


class WindowIs(Message, frozen=True):
    """Whether another window was open already, which has been asked to come to the front."""

    open_already: bool


class Legends(Message, frozen=True):
    """What is printed on each key, and the characters that it makes by itself, with Shift, with AltGr and with both,
    by its code; none where the layout isn't known."""

    legends: dict[str, str]
    levels: dict[str, Levels] = {}


class Journal(Message, frozen=True):
    """Journal entries, the oldest first; an answer, and a notice for new ones."""

    entries: tuple[Entry, ...]


class Recorded(Message, frozen=True):
    """The steps of a recording from the one with index `first` on; all of them once it is `done`."""

    steps: tuple[Step, ...]
    done: bool
    first: int = 0


class RunIs(Message, frozen=True):
    """A run's record; None where the macro hasn't run since the service started."""

    record: RunRecord | None


class Places(Message, frozen=True):
    """Where things are on the screens; None and none for what nobody tells here."""

    monitors: tuple[Monitor, ...]
    size: tuple[int, int] | None
    pointer: tuple[int, int] | None
    window: Window | None


class Facts(Message, frozen=True):
    """What is wrong with each text, program and secret that was asked about, by itself; those without fault are left
    out. `screen` is the size of all screens together."""

    texts: dict[str, str]
    programs: dict[str, str]
    secrets: dict[str, str]
    screen: tuple[int, int] | None


AnswerBody = (
    Done
    | Refused
    | Welcome
    | Library
    | StatusIs
    | Devices
    | Batteries
    | Checks
    | Programs
    | Applications
    | TakesAre
    | TuningIs
    | MotionTimes
    | Legends
    | WindowIs
    | Versions
    | Journal
    | Recorded
    | RunIs
    | Places
    | Facts
)


class Answer(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The answer to the request of the same number; 0 where the request couldn't be read."""

    id: int
    body: AnswerBody
