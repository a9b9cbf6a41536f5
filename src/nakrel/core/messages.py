"""The messages between the service and its clients: one definition for both ends.

A connection carries JSON, one message a line. A client sends `Request`s; the service answers each with an
`Answer` of the same number and, once asked to (`Subscribe`), sends `Notice`s in between.
"""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

import msgspec

from nakrel.core.macro import Id, Macro, Play
from nakrel.core.places import Monitor, Window
from nakrel.core.profile import Profile
from nakrel.core.programs import Application, Icon, Program
from nakrel.core.recorder import WayToRecord
from nakrel.core.steps import Step

# Raised whenever an older end would misread a message; both ends say theirs in the first exchange.
PROTOCOL = 3
# A request longer than this is not one: the largest macro allowed (200,000 steps) takes some 10 MB.
MAX_LINE = 32 * 1024 * 1024


class _Message(msgspec.Struct, frozen=True, tag_field="is", tag=True, omit_defaults=True, forbid_unknown_fields=True):
    """A message of either direction; its class name is its tag."""


# Values that messages carry


class Device(msgspec.Struct, frozen=True):
    """A device as the window lists it: the controls it has, how it's read, and whether it is a stand-in.

    `note` is its present state in words and `trouble` whether that is one to be mended; `where` is the file by which
    the system knows it, '' for none.
    """

    id: str
    name: str
    controls: tuple[str, ...]
    how: str
    standin: bool = False
    note: str = ""
    trouble: bool = False
    where: str = ""


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


class RunEvent(msgspec.Struct, frozen=True, array_like=True):
    """An event that a macro sent: `due_us` when it was planned and `at_us` when it went out, both in microseconds since
    the macro started."""

    control: str
    value: int
    due_us: int
    at_us: int


class RunRecord(msgspec.Struct, frozen=True):
    """What a run of a macro sent: the first events and the last ones, `left_out` of them between. `reason` is why it
    ended, '' while it goes on; `began_us` is monotonic."""

    macro: str
    began_us: int
    events: tuple[RunEvent, ...]
    left_out: int
    runs: int
    reason: str


class Running(msgspec.Struct, frozen=True):
    """A macro that runs, the control that started it ('' for none) and since when (monotonic microseconds)."""

    macro: str
    name: str
    trigger: str
    since_us: int


class Conditions(StrEnum):
    """What of the pointer's and the wheel's motion can be changed on its way."""

    NOTHING = "nothing"
    SPEED = "speed"
    ALL = "all"


class Status(msgspec.Struct, frozen=True):
    """The service's state. `since` is seconds since the epoch; `backend` names the way to the programs, and
    `backend_note` says what that means for the user, '' where there is nothing to say. `for_show` says that macros
    reach no window now, since Nakrel's own is in front. `setups` names the set-up in use of the live
    profile, and of each where another than the first was chosen. Without `sees_windows` nobody tells which window is in
    front, so that of several linked programs the one started last counts. `stage` is the live profile's speed stage, ''
    where it has none, and `changes_motion` what of the motion the way to the programs can change."""

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
    changes_motion: Conditions = Conditions.NOTHING


class Shown(msgspec.Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What the window showed when it was closed, by id, and shows again when it opens."""

    profile: str = ""
    macro: str = ""
    page: str = ""


class Settings(msgspec.Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What the user chose for the program as a whole. `pinned` is a profile's id, '' while games are followed;
    `layout` is the XKB keyboard layout that texts are typed for (`de`, `us:intl`), '' for what the desktop says;
    with `notices` the desktop tells which profile has gone live."""

    pinned: str = ""
    stop_key: str = "KEY_PAUSE"
    record_stop_key: str = "KEY_SCROLLLOCK"
    look: Literal["system", "light", "night"] = "system"
    stand_ins: bool = False
    layout: Annotated[str, msgspec.Meta(max_length=64, pattern=r"^[\w:()+.-]*$")] = ""
    recording: WayToRecord = WayToRecord()
    shown: Shown = Shown()
    notices: bool = True


class InUse(msgspec.Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Which set-up of a profile (by its id) is in use, by name; the first one where none is told."""

    setups: dict[str, str] = {}


class Entry(msgspec.Struct, frozen=True):
    """A line of the journal: `at` seconds since the epoch, `kind` switch, run, fault, edit or service."""

    at: float
    kind: str
    what: str
    why: str = ""


class SeenEvent(msgspec.Struct, frozen=True, array_like=True):
    """One event on its way in or out; `by` is 'in' for a finger, else the macro's id; monotonic microseconds."""

    by: str
    control: str
    value: int
    at_us: int


# Requests


class Hello(_Message, frozen=True):
    """Who is there, and which protocol it speaks."""

    client: str
    protocol: int


class Subscribe(_Message, frozen=True):
    """Send notices from now on; `seen` asks for input and output events too."""

    seen: bool = False


class GetLibrary(_Message, frozen=True):
    """All profiles, macros and settings."""


class GetStatus(_Message, frozen=True):
    """The present status."""


class GetDevices(_Message, frozen=True):
    """The devices that can be seen."""


class GetChecks(_Message, frozen=True):
    """Every link between a finger and a program, examined now."""


class ChooseWay(_Message, frozen=True):
    """Look again for the best way to the programs, after permissions have changed. Ends all macros."""


class GetPrograms(_Message, frozen=True):
    """The programs of this user that run now; with `icons` the pictures of their windows, too."""

    icons: bool = False


class GetApplications(_Message, frozen=True):
    """The installed applications, as the desktop's menu has them; named in `language` (`de`) where they are."""

    language: str = ""


class GetJournal(_Message, frozen=True):
    """The last `count` journal entries."""

    count: Annotated[int, msgspec.Meta(ge=1, le=10_000)] = 500


class GetVersions(_Message, frozen=True):
    """The kept versions of a profile or macro; with '' the last version of each that was deleted."""

    kind: Literal["profile", "macro"]
    id: str = ""


class PutMacro(_Message, frozen=True):
    """Save a macro; answered when it is on the disk."""

    macro: Macro


class DeleteMacro(_Message, frozen=True):
    """Delete a macro."""

    id: Id


class PutProfile(_Message, frozen=True):
    """Save a profile; answered when it is on the disk."""

    profile: Profile


class DeleteProfile(_Message, frozen=True):
    """Delete a profile."""

    id: Id


class PutSettings(_Message, frozen=True):
    """Save the settings."""

    settings: Settings


class Pin(_Message, frozen=True):
    """Hold a profile live, or with '' follow games again."""

    profile: str


class UseSetUp(_Message, frozen=True):
    """Put a profile's set-up in use, by name."""

    profile: Id
    setup: str


class UseStage(_Message, frozen=True):
    """Give the pointer another speed stage of the live profile: the one of this name, or with '' the one `by` places
    on."""

    stage: str = ""
    by: Literal[-1, 1] = 1


class Play_(_Message, frozen=True, tag="PlayMacro"):
    """Start a macro, in its own way to play or in the one given."""

    macro: Id
    play: Play | None = None


class TypeText(_Message, frozen=True):
    """Type a text at `rate` characters a second, for the keyboard layout in use."""

    text: Annotated[str, msgspec.Meta(min_length=1, max_length=10_000)]
    rate: Annotated[int, msgspec.Meta(ge=1, le=250)] = 30


class GetRun(_Message, frozen=True):
    """The record of a macro's run: of the one that goes on, else of the last one."""

    macro: Id


class GetPlaces(_Message, frozen=True):
    """The monitors, the pointer, and the window of the programs that a profile is linked to ('' for no profile)."""

    profile: str = ""


class GetFacts(_Message, frozen=True):
    """What is wrong with these texts to be typed, programs to be opened, and names of secrets."""

    texts: tuple[str, ...] = ()
    programs: tuple[str, ...] = ()
    secrets: tuple[str, ...] = ()


class PutSecret(_Message, frozen=True):
    """Keep a secret text in the desktop's keyring under this name; an empty text is forgotten."""

    name: Annotated[str, msgspec.Meta(min_length=1, max_length=120)]
    text: Annotated[str, msgspec.Meta(max_length=10_000)]

    def __repr__(self) -> str:
        """Without the text: a message may end up in a log."""
        return f"PutSecret(name={self.name!r})"


class Stop(_Message, frozen=True):
    """End one macro, or with '' stop everything."""

    macro: str = ""


class StartRecording(_Message, frozen=True):
    """Record what fingers do until `StopRecording` or the recording's stop key; of `way` only what is caught counts.
    `gesture` is what may still be down of the gesture that begins it."""

    way: WayToRecord = WayToRecord()
    gesture: tuple[str, ...] = ()


class StopRecording(_Message, frozen=True):
    """End the recording; `gesture` is what was pressed to end it, left out of the result."""

    gesture: tuple[str, ...] = ()


class Listen(_Message, frozen=True):
    """Suspend attachments for so many seconds (0: no longer), so that a control can be pressed to choose it."""

    seconds: Annotated[int, msgspec.Meta(ge=0, le=60)]


class InFront(_Message, frozen=True):
    """Whether this client's window is in front. While it is, macros play for show only and reach no window."""

    front: bool


class PressStandIn(_Message, frozen=True):
    """Press (1) or let go (0) a control of a simulated device, or turn its wheel by `value` notches."""

    device: str
    control: str
    value: Annotated[int, msgspec.Meta(ge=0, le=100)]


class Shutdown(_Message, frozen=True):
    """End the service."""


Body = (
    Hello
    | Subscribe
    | GetLibrary
    | GetStatus
    | GetDevices
    | GetChecks
    | ChooseWay
    | GetPrograms
    | GetApplications
    | GetVersions
    | GetJournal
    | PutMacro
    | DeleteMacro
    | PutProfile
    | DeleteProfile
    | PutSettings
    | Pin
    | UseSetUp
    | UseStage
    | Play_
    | TypeText
    | GetRun
    | GetPlaces
    | GetFacts
    | PutSecret
    | Stop
    | StartRecording
    | StopRecording
    | Listen
    | InFront
    | PressStandIn
    | Shutdown
)


class Request(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A numbered request."""

    id: int
    body: Body


# Answers


class Done(_Message, frozen=True):
    """It was done."""


class Refused(_Message, frozen=True):
    """It was not done: what, why, and what would help, in one or two sentences. Nothing was changed."""

    error: str


class Welcome(_Message, frozen=True):
    """The service's answer to `Hello`."""

    protocol: int
    pid: int
    version: str


class Library(_Message, frozen=True):
    """Everything stored; `faults` says which files were set aside and why."""

    profiles: tuple[Profile, ...]
    macros: tuple[Macro, ...]
    settings: Settings
    faults: tuple[str, ...] = ()


class StatusIs(_Message, frozen=True):
    """The status; an answer, and a notice whenever it changes."""

    status: Status


class Devices(_Message, frozen=True):
    """The devices; an answer, and a notice whenever they change."""

    devices: tuple[Device, ...]


class Checks(_Message, frozen=True):
    """The doctor's checks."""

    checks: tuple[Check, ...]


class Programs(_Message, frozen=True):
    """The programs that run, and where it was asked for, the pictures of their windows by process id (as text)."""

    programs: tuple[Program, ...]
    icons: dict[str, Icon] = {}


class Version(msgspec.Struct, frozen=True):
    """A profile or a macro as it was saved at a time, in seconds since the epoch."""

    at: float
    profile: Profile | None = None
    macro: Macro | None = None


class Versions(_Message, frozen=True):
    """The versions that are kept, the newest first."""

    versions: tuple[Version, ...]


class Applications(_Message, frozen=True):
    """The installed applications."""

    applications: tuple[Application, ...]


class Journal(_Message, frozen=True):
    """Journal entries, the oldest first; an answer, and a notice for new ones."""

    entries: tuple[Entry, ...]


class Recorded(_Message, frozen=True):
    """The steps of a recording from the one with index `first` on; all of them once it is `done`."""

    steps: tuple[Step, ...]
    done: bool
    first: int = 0


class RunIs(_Message, frozen=True):
    """A run's record; None where the macro hasn't run since the service started."""

    record: RunRecord | None


class Places(_Message, frozen=True):
    """Where things are on the screens; None and none for what nobody tells here."""

    monitors: tuple[Monitor, ...]
    size: tuple[int, int] | None
    pointer: tuple[int, int] | None
    window: Window | None


class Facts(_Message, frozen=True):
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
    | Checks
    | Programs
    | Applications
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


# Notices


class MacroChanged(_Message, frozen=True):
    """A macro was saved, or with None deleted."""

    id: str
    macro: Macro | None


class ProfileChanged(_Message, frozen=True):
    """A profile was saved, or with None deleted."""

    id: str
    profile: Profile | None


class SettingsChanged(_Message, frozen=True):
    """The settings were saved."""

    settings: Settings


class Seen(_Message, frozen=True):
    """What came in and went out; `lost` counts events left out since this client was too slow."""

    events: tuple[SeenEvent, ...]
    lost: int = 0


class Fault(_Message, frozen=True):
    """Something went wrong that the user should know of."""

    error: str


Notice = StatusIs | Devices | Journal | Recorded | MacroChanged | ProfileChanged | SettingsChanged | Seen | Fault


class Note(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A notice on the wire."""

    notice: Notice
