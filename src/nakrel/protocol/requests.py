"""What clients ask for."""

from __future__ import annotations

from typing import Annotated, Literal

import msgspec

from nakrel.core.model.controls import Code
from nakrel.core.model.cues import Cue
from nakrel.core.model.limits import MAX_TEXT, Comment, Id, LongText, Name, Rate
from nakrel.core.model.macro import Macro, Play
from nakrel.core.model.profile import Profile
from nakrel.core.model.recording import RecordingSettings
from nakrel.core.model.settings import Layout, SettingsPatch
from nakrel.core.model.steps import Step
from nakrel.core.model.tuning import Tuning
from nakrel.core.model.value import Value
from nakrel.protocol.wire import Message

__all__ = [
    "Body",
    "ChooseRoute",
    "DeleteMacro",
    "DeleteProfile",
    "AddTake",
    "GetApplications",
    "GetTakes",
    "GetLegends",
    "GetChecks",
    "GetBatteries",
    "GetDevices",
    "GetFacts",
    "GetJournal",
    "GetLibrary",
    "GetPlaces",
    "GetPrograms",
    "GetRun",
    "GetStatus",
    "GetVersions",
    "Hello",
    "InFront",
    "Listen",
    "Pin",
    "Play_",
    "PressStandIn",
    "PutMacro",
    "PutProfile",
    "PutSecret",
    "ChangeSettings",
    "Request",
    "ServeSession",
    "Shutdown",
    "StartRecording",
    "Stop",
    "StopRecording",
    "TryMacro",
    "EndTrial",
    "Judge",
    "GetTuning",
    "PutTuning",
    "MeasureMotion",
    "OpenWindow",
    "TryCue",
    "Subscribe",
    "TypeText",
    "UseSetUp",
    "UseStage",
]


class Ask(Message, Value, frozen=True):
    """What clients ask for is held to the limits where it is made, before anything is sent. Answers and notices aren't:
    they tell names of files and processes as they are, and are never kept back for one."""


class Hello(Ask, frozen=True):
    """Who is there, and which protocol it speaks."""

    client: str
    protocol: int


class Subscribe(Ask, frozen=True):
    """Send notices from now on; `seen` asks for input and output events too."""

    seen: bool = False


class GetLibrary(Ask, frozen=True):
    """All profiles, macros and settings."""


class GetStatus(Ask, frozen=True):
    """The present status."""


class GetBatteries(Ask, frozen=True):
    """The batteries of devices."""


class GetDevices(Ask, frozen=True):
    """The devices that can be seen."""


class GetChecks(Ask, frozen=True):
    """Every link between a finger and a program, examined now."""


class ChooseRoute(Ask, frozen=True):
    """Look again for the best route to the programs, after permissions have changed. Ends all macros."""


class GetPrograms(Ask, frozen=True):
    """The programs of this user that run now; with `icons` the pictures of their windows, too."""

    icons: bool = False


class GetApplications(Ask, frozen=True):
    """The installed applications, as the desktop's menu has them; named in `language` (`de`) where they are."""

    language: str = ""


class GetLegends(Ask, frozen=True):
    """What is printed on the keys in this keyboard layout (`de`, `us:intl`), or with '' in the one in use."""

    layout: Layout = ""


class GetJournal(Ask, frozen=True):
    """The last `count` journal entries."""

    count: Annotated[int, msgspec.Meta(ge=1, le=10_000)] = 500


class GetVersions(Ask, frozen=True):
    """The kept versions of a profile or macro; with '' the last version of each that was deleted."""

    kind: Literal["profile", "macro"]
    id: str = ""


class PutMacro(Ask, frozen=True):
    """Save a macro; answered when it is on the disk."""

    macro: Macro


class DeleteMacro(Ask, frozen=True):
    """Delete a macro."""

    id: Id


class PutProfile(Ask, frozen=True):
    """Save a profile; answered when it is on the disk."""

    profile: Profile


class DeleteProfile(Ask, frozen=True):
    """Delete a profile."""

    id: Id


class ChangeSettings(Ask, frozen=True):
    """Change some of the settings, and leave all others as they are by then."""

    patch: SettingsPatch


class Pin(Ask, frozen=True):
    """Hold a profile live, or with '' load with games again."""

    profile: str


class UseSetUp(Ask, frozen=True):
    """Put a profile's variant in use, by name."""

    profile: Id
    setup: str


class UseStage(Ask, frozen=True):
    """Give the pointer another pointer speed of the live profile: the one of this name, or with '' the one `by` places
    on."""

    stage: str = ""
    by: Literal[-1, 1] = 1


class Play_(Ask, frozen=True, tag="PlayMacro"):
    """Start a macro, in its own way to play or in the one given."""

    macro: Id
    play: Play | None = None


class TypeText(Ask, frozen=True):
    """Type a text at `rate` characters a second, for the keyboard layout in use."""

    text: Annotated[str, msgspec.Meta(min_length=1, max_length=MAX_TEXT)]
    rate: Rate = 30


class GetRun(Ask, frozen=True):
    """The record of a macro's run: of the one that goes on, else of the last one."""

    macro: Id


class GetPlaces(Ask, frozen=True):
    """The monitors, the pointer, and the window of the programs that a profile is linked to ('' for no profile)."""

    profile: str = ""


class GetFacts(Ask, frozen=True):
    """What is wrong with these texts to be typed, programs to be opened, and names of secrets."""

    texts: tuple[str, ...] = ()
    programs: tuple[str, ...] = ()
    secrets: tuple[str, ...] = ()


class PutSecret(Ask, frozen=True):
    """Keep a secret text in the desktop's keyring under this name; an empty text is forgotten."""

    name: Name
    text: LongText

    def __repr__(self) -> str:
        """Without the text: a message may end up in a log."""
        return f"PutSecret(name={self.name!r})"


class Stop(Ask, frozen=True):
    """End one macro, or with '' stop everything."""

    macro: str = ""


class StartRecording(Ask, frozen=True):
    """Record what fingers do until `StopRecording` or the recording's stop key; of `settings` only what is caught
    counts. `gesture` is what may still be down of the gesture that begins it. With `pointer_if_told` the pointer's
    path is recorded as well, where the desktop tells it."""

    settings: RecordingSettings = RecordingSettings()
    gesture: tuple[str, ...] = ()
    pointer_if_told: bool = False


class AddTake(Ask, frozen=True):
    """Keep a recording as a take of this macro."""

    macro: Id
    steps: tuple[Step, ...]


class GetTakes(Ask, frozen=True):
    """The takes of this macro."""

    macro: Id


class GetTuning(Ask, frozen=True):
    """The search for this macro's shortest time."""

    macro: Id


class PutTuning(Ask, frozen=True):
    """Keep this search for the macro's shortest time; None takes it away."""

    macro: Id
    tuning: Tuning | None


class TryMacro(Ask, frozen=True):
    """Play this in place of the macro with its id, until `EndTrial` or as long as the client is there; `judges` are
    the controls that say how it went, and reach no program meanwhile."""

    macro: Macro
    judges: Annotated[tuple[Code, ...], msgspec.Meta(max_length=4)] = ()


class EndTrial(Ask, frozen=True):
    """Play the macro as it is saved again; `result` goes into the journal."""

    result: Comment = ""


class Judge(Ask, frozen=True):
    """Say whether what a macro on trial just did worked; a game that knows says it."""

    worked: bool


class MeasureMotion(Ask, frozen=True):
    """Note for so many seconds when the reports of motion of a device come that is read through the kernel."""

    device: str
    seconds: Annotated[int, msgspec.Meta(ge=1, le=10)] = 3


class StopRecording(Ask, frozen=True):
    """End the recording; `gesture` is what was pressed to end it, left out of the result."""

    gesture: tuple[str, ...] = ()


class Listen(Ask, frozen=True):
    """Suspend attachments for so many seconds (0: no longer), so that a control can be pressed to choose it."""

    seconds: Annotated[int, msgspec.Meta(ge=0, le=60)]


class InFront(Ask, frozen=True):
    """Whether this client's window is in front. While it is, macros play for show only and reach no window."""

    front: bool


class ServeSession(Ask, frozen=True):
    """The desktop session of this client's window, by its X and its Wayland display. A service whose own session has
    ended makes room for one that belongs to this; it refuses where its own goes on."""

    display: str
    wayland: str


class PressStandIn(Ask, frozen=True):
    """Press (1) or let go (0) a control of a simulated device, or turn its wheel by `value` notches; with `OWN_WINDOW`
    as the device, tell that this has reached the client's own window."""

    device: str
    control: str
    value: Annotated[int, msgspec.Meta(ge=0, le=100)]


class OpenWindow(Ask, frozen=True):
    """What the start of a window asks for: files to look through, a recording; `token` lets a window that is open
    already come to the front (XDG Activation). Where none is, the client that asks is it from now on."""

    files: tuple[str, ...] = ()
    record: bool = False
    token: str = ""


class TryCue(Ask, frozen=True):
    """Let a cue be heard and seen, whatever is chosen for it."""

    cue: Cue


class Shutdown(Ask, frozen=True):
    """End the service. Windows are told, and start none by themselves."""


Body = (
    Hello
    | Subscribe
    | GetLibrary
    | GetStatus
    | GetDevices
    | GetBatteries
    | GetChecks
    | ChooseRoute
    | GetPrograms
    | AddTake
    | GetTuning
    | MeasureMotion
    | OpenWindow
    | TryCue
    | PutTuning
    | TryMacro
    | EndTrial
    | Judge
    | GetApplications
    | GetTakes
    | GetLegends
    | GetVersions
    | GetJournal
    | PutMacro
    | DeleteMacro
    | PutProfile
    | DeleteProfile
    | ChangeSettings
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
    | ServeSession
    | Shutdown
)


class Request(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A numbered request."""

    id: int
    body: Body
