"""What the service tells without being asked."""

from __future__ import annotations

import msgspec

from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile
from nakrel.core.model.settings import Settings
from nakrel.protocol.answers import Devices, Journal, Recorded, StatusIs
from nakrel.protocol.values import SeenEvent
from nakrel.protocol.wire import Message

__all__ = [
    "Fault",
    "Judged",
    "MacroChanged",
    "Note",
    "Notice",
    "ProfileChanged",
    "RecordingAsked",
    "Seen",
    "SettingsChanged",
    "ShutDown",
    "WindowAsked",
]


class MacroChanged(Message, frozen=True):
    """A macro was saved, or with None deleted."""

    id: str
    macro: Macro | None


class ProfileChanged(Message, frozen=True):
    """A profile was saved, or with None deleted."""

    id: str
    profile: Profile | None


class SettingsChanged(Message, frozen=True):
    """The settings were saved."""

    settings: Settings


class Seen(Message, frozen=True):
    """What came in and went out; `lost` counts events left out since this client was too slow."""

    events: tuple[SeenEvent, ...]
    lost: int = 0


class RecordingAsked(Message, frozen=True):
    """The key that begins a recording was pressed while another program was in front."""

    control: str


class Judged(Message, frozen=True):
    """A game says whether what a macro on trial just did worked."""

    worked: bool


class WindowAsked(Message, frozen=True):
    """Somebody started Nakrel once more: this window is to come to the front, and to do what was asked for."""

    files: tuple[str, ...] = ()
    record: bool = False
    token: str = ""


class ShutDown(Message, frozen=True):
    """The service is ending since somebody asked for it, and isn't to be started again before they want it."""


class Fault(Message, frozen=True):
    """Something went wrong that the user should know of."""

    error: str


Notice = (
    StatusIs
    | Devices
    | Journal
    | Recorded
    | MacroChanged
    | ProfileChanged
    | SettingsChanged
    | Seen
    | RecordingAsked
    | Judged
    | WindowAsked
    | ShutDown
    | Fault
)


class Note(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A notice on the wire."""

    notice: Notice
