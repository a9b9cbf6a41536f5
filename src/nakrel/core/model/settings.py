"""What the user chose for the program as a whole, and which variants are in use."""

from __future__ import annotations

from typing import Annotated, Literal

import msgspec

from nakrel.core.model.controls import Code
from nakrel.core.model.cues import CueSettings
from nakrel.core.model.devices import KeyNaming
from nakrel.core.model.limits import LAYOUT
from nakrel.core.model.recording import RecordingSettings
from nakrel.core.model.value import Value

__all__ = ["InUse", "Layout", "Settings", "SettingsPatch", "WindowState"]

# A press below a millisecond is seen by no game, and one of a second by none as a notch.
NotchUs = Annotated[int, msgspec.Meta(ge=1_000, le=1_000_000)]
Pixels = Annotated[int, msgspec.Meta(ge=0, le=100_000)]
DebounceUs = Annotated[int, msgspec.Meta(ge=0, le=50_000)]
# By a device's name and by control.
Debounces = dict[str, dict[Code, DebounceUs]]
Layout = Annotated[str, msgspec.Meta(max_length=64, pattern=LAYOUT)]


class WindowState(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What the window showed when it was closed, by id, and shows again when it opens; how high the diagram was and
    where the window was (x, y, width, height), in pixels, 0 for nothing; whether it filled the screen; what was
    folded; and whether the buttons were shown as a board."""

    profile: str = ""
    macro: str = ""
    page: str = ""
    diagram_px: Pixels = 0
    place: tuple[int, int, int, int] | None = None
    maximized: bool = False
    folded: tuple[str, ...] = ()
    as_board: bool = False


class Settings(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """What the user chose for the program as a whole. `pinned` is a profile's id, '' while games are followed;
    `layout` is the XKB keyboard layout that texts are typed for (`de`, `us:intl`), '' for what the desktop says;
    with `notices` the desktop tells which profile has gone live; for `notch_us` microseconds a notch of the wheel
    presses the key or button that it acts as; `record_key`, '' for none, begins a recording
    while a game is in front, and ends it; `debounce` has by a device's name and by control the microseconds in which
    what bounces is dropped; `thumb_keys` are the names of devices whose number keys count as thumb buttons
    (`devices.THUMB_KEYS`), and `second_keyboards` those of keyboards whose keys are apart from all others;
    `told_of_tray` says that the user knows that the window's closing doesn't end Nakrel; `cues` how people in a
    full-screen game are told what happens."""

    pinned: str = ""
    stop_key: str = "KEY_PAUSE"
    record_stop_key: str = "KEY_SCROLLLOCK"
    look: Literal["system", "light", "night"] = "system"
    stand_ins: bool = False
    layout: Layout = ""
    recording: RecordingSettings = RecordingSettings()
    shown: WindowState = WindowState()
    notices: bool = True
    notch_us: NotchUs = 33_000
    record_key: str = ""
    debounce: Debounces = {}
    thumb_keys: tuple[str, ...] = ()
    second_keyboards: tuple[str, ...] = ()
    told_of_tray: bool = False
    cues: CueSettings = CueSettings()

    @property
    def key_naming(self) -> KeyNaming:
        """Whose keys count as what."""
        return KeyNaming(self.thumb_keys, self.second_keyboards)


class InUse(msgspec.Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Which variant of a profile (by its id) is in use, by name; the first one where none is told."""

    setups: dict[str, str] = {}


class SettingsPatch(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """A change of some of the settings: the fields that are set. Two changes at once both count, and taking one back
    leaves the other."""

    pinned: str | msgspec.UnsetType = msgspec.UNSET
    stop_key: str | msgspec.UnsetType = msgspec.UNSET
    record_stop_key: str | msgspec.UnsetType = msgspec.UNSET
    look: Literal["system", "light", "night"] | msgspec.UnsetType = msgspec.UNSET
    stand_ins: bool | msgspec.UnsetType = msgspec.UNSET
    layout: Layout | msgspec.UnsetType = msgspec.UNSET
    recording: RecordingSettings | msgspec.UnsetType = msgspec.UNSET
    shown: WindowState | msgspec.UnsetType = msgspec.UNSET
    notices: bool | msgspec.UnsetType = msgspec.UNSET
    notch_us: NotchUs | msgspec.UnsetType = msgspec.UNSET
    record_key: str | msgspec.UnsetType = msgspec.UNSET
    debounce: Debounces | msgspec.UnsetType = msgspec.UNSET
    thumb_keys: tuple[str, ...] | msgspec.UnsetType = msgspec.UNSET
    second_keyboards: tuple[str, ...] | msgspec.UnsetType = msgspec.UNSET
    told_of_tray: bool | msgspec.UnsetType = msgspec.UNSET
    cues: CueSettings | msgspec.UnsetType = msgspec.UNSET

    def applied_to(self, settings: Settings) -> Settings:
        """The settings with the fields of this change."""
        return msgspec.structs.replace(settings, **self._fields())

    def _fields(self) -> dict[str, object]:
        named = ((name, getattr(self, name)) for name in self.__struct_fields__)
        return {name: value for name, value in named if value is not msgspec.UNSET}

    def then(self, later: SettingsPatch) -> SettingsPatch:
        """Both changes in one; where both set a field the later one counts."""
        return msgspec.structs.replace(self, **later._fields())

    @staticmethod
    def between(before: Settings, after: Settings) -> SettingsPatch:
        """The change that makes `after` of `before`."""
        pairs = ((name, getattr(before, name), getattr(after, name)) for name in Settings.__struct_fields__)
        return SettingsPatch(**{name: new for name, old, new in pairs if new != old})
