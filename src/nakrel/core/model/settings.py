"""What the user chose for the program as a whole, and which set-ups are in use."""

from __future__ import annotations

from typing import Annotated, Literal

import msgspec

from nakrel.core.model.limits import LAYOUT
from nakrel.core.model.recording import RecordingSettings
from nakrel.core.model.value import Value

__all__ = ["InUse", "Settings", "WindowState"]


class WindowState(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What the window showed when it was closed, by id, and shows again when it opens."""

    profile: str = ""
    macro: str = ""
    page: str = ""


class Settings(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What the user chose for the program as a whole. `pinned` is a profile's id, '' while games are followed;
    `layout` is the XKB keyboard layout that texts are typed for (`de`, `us:intl`), '' for what the desktop says;
    with `notices` the desktop tells which profile has gone live."""

    pinned: str = ""
    stop_key: str = "KEY_PAUSE"
    record_stop_key: str = "KEY_SCROLLLOCK"
    look: Literal["system", "light", "night"] = "system"
    stand_ins: bool = False
    layout: Annotated[str, msgspec.Meta(max_length=64, pattern=LAYOUT)] = ""
    recording: RecordingSettings = RecordingSettings()
    shown: WindowState = WindowState()
    notices: bool = True


class InUse(msgspec.Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Which set-up of a profile (by its id) is in use, by name; the first one where none is told."""

    setups: dict[str, str] = {}
