"""Cells: what a control can do in a sheet."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

import msgspec

from nakrel.core.model.controls import Code, Kind, control, label
from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import MAX_CHORD, MAX_NAME, MAX_TEXT, Command, Id, Name, Rate, SecretName
from nakrel.core.model.macro import Play
from nakrel.core.model.value import Value
from nakrel.words import noted, tr

__all__ = [
    "ACTION_COMMANDS",
    "ACTION_KEYS",
    "ACTION_LABELS",
    "RunSystemAction",
    "SystemAction",
    "Cell",
    "ChangeSpeed",
    "GoTo",
    "HoldLayer",
    "Nothing",
    "RunMacro",
    "StartProgram",
    "ToChord",
    "ToControl",
    "TypeText",
    "What",
]

AsPlay = Play | None


class _Cell(Value, frozen=True, tag_field="does", omit_defaults=True, forbid_unknown_fields=True):
    """What a control does in a sheet; a control without a cell does what the device has it do."""


class Nothing(_Cell, frozen=True, tag="nothing"):
    """The control is switched off."""


class ToControl(_Cell, frozen=True, tag="control"):
    """The control acts as another key or button."""

    control: Code

    def __post_init__(self) -> None:
        super().__post_init__()
        if control(self.control).kind is Kind.WHEEL:
            raise DataError(
                tr("a button can act as another key or button, and {control} is a wheel direction").format(
                    control=label(self.control)
                )
            )


class RunMacro(_Cell, frozen=True, tag="macro"):
    """The control plays a macro, in the macro's own way or, where `play` is set, in this cell's."""

    macro: Id
    play: AsPlay = None


class ToChord(_Cell, frozen=True, tag="chord"):
    """The control holds several keys and buttons down, in this order, as long as it is held itself."""

    controls: Annotated[tuple[Code, ...], msgspec.Meta(min_length=2, max_length=MAX_CHORD)]

    def __post_init__(self) -> None:
        super().__post_init__()
        for code in self.controls:
            if control(code).kind is Kind.WHEEL:
                raise DataError(
                    tr("a combination is made of keys and buttons, and {code} is a wheel direction").format(
                        code=label(code)
                    )
                )
        if len(set(self.controls)) != len(self.controls):
            raise DataError(tr("a combination holds each key once; take out the one that is there twice"))


class TypeText(_Cell, frozen=True, tag="text"):
    """The control types a text, `rate` characters a second. With `secret` it is the one that the desktop's keyring
    keeps under this name, and stands nowhere else."""

    text: Annotated[str, msgspec.Meta(max_length=MAX_TEXT)] = ""
    rate: Rate = 30
    secret: SecretName = ""

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.secret and self.text:
            raise DataError(tr("a secret text stands in the keyring and not in the profile; leave the text out"))
        if not self.secret and not self.text:
            raise DataError(tr("the text is empty; write something"))


class StartProgram(_Cell, frozen=True, tag="open"):
    """The control starts a program, or brings its window to the front. `command` is the program and its arguments;
    with `off` it does nothing, until its user allows the program."""

    command: Command
    off: bool = False


class HoldLayer(_Cell, frozen=True, tag="layer"):
    """A layer of the variant is there as long as the control is held."""

    layer: Name


class What(StrEnum):
    """What a control goes to."""

    SETUP = "setup"
    PROFILE = "profile"


class GoTo(_Cell, frozen=True, tag="go"):
    """The control puts another variant of its profile in use, or makes another profile live.

    `to` is the variant's name or the profile's id; with '' it is the one `by` places on; it wraps around.
    """

    what: What
    to: Annotated[str, msgspec.Meta(max_length=MAX_NAME)] = ""
    by: Literal[-1, 1] = 1


class ChangeSpeed(_Cell, frozen=True, tag="speed"):
    """The control gives the pointer another pointer speed of the live profile.

    `to` is the stage's name; with '' it is the one `by` places on, round and round. With `held`, which takes a name,
    the stage before comes back when the control is let go.
    """

    to: Annotated[str, msgspec.Meta(max_length=MAX_NAME)] = ""
    by: Literal[-1, 1] = 1
    held: bool = False

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.held and not self.to:
            raise DataError(tr("a speed that is there while a button is held needs the name of its stage"))


class RunSystemAction(_Cell, frozen=True, tag="action"):
    """The control does something with the desktop, with what plays there, or with Nakrel itself."""

    action: SystemAction


class SystemAction(StrEnum):
    """What a `RunSystemAction` does; the values are what files say."""

    PLAY = "play"
    NEXT = "next"
    PREVIOUS = "previous"
    STOP_PLAYING = "stop_playing"
    LOUDER = "louder"
    QUIETER = "quieter"
    MUTE = "mute"
    MUTE_MICROPHONE = "mute_microphone"
    BRIGHTER = "brighter"
    DARKER = "darker"
    LOCK = "lock"
    STOP = "stop"
    FOLLOW = "follow"


# What people call them.
ACTION_LABELS: dict[SystemAction, str] = {
    SystemAction.PLAY: noted("play or pause"),
    SystemAction.NEXT: noted("next track"),
    SystemAction.PREVIOUS: noted("previous track"),
    SystemAction.STOP_PLAYING: noted("stop playing"),
    SystemAction.LOUDER: "louder",
    SystemAction.QUIETER: "quieter",
    SystemAction.MUTE: "mute",
    SystemAction.MUTE_MICROPHONE: noted("mute the microphone"),
    SystemAction.BRIGHTER: noted("brighter screen"),
    SystemAction.DARKER: noted("darker screen"),
    SystemAction.LOCK: noted("lock the screen"),
    SystemAction.STOP: noted("stop everything"),
    SystemAction.FOLLOW: noted("load with games"),
}
# Desktops take these from the keys that keyboards have for them (input-event-codes.h).
ACTION_KEYS: dict[SystemAction, str] = {
    SystemAction.PLAY: "KEY_PLAYPAUSE",
    SystemAction.NEXT: "KEY_NEXTSONG",
    SystemAction.PREVIOUS: "KEY_PREVIOUSSONG",
    SystemAction.STOP_PLAYING: "KEY_STOPCD",
    SystemAction.LOUDER: "KEY_VOLUMEUP",
    SystemAction.QUIETER: "KEY_VOLUMEDOWN",
    SystemAction.MUTE: "KEY_MUTE",
    SystemAction.MUTE_MICROPHONE: "KEY_MICMUTE",
    SystemAction.BRIGHTER: "KEY_BRIGHTNESSUP",
    SystemAction.DARKER: "KEY_BRIGHTNESSDOWN",
}
# loginctl(1): every desktop that follows systemd-logind locks itself then.
ACTION_COMMANDS: dict[SystemAction, tuple[str, ...]] = {SystemAction.LOCK: ("loginctl", "lock-session")}

Cell = (
    Nothing
    | ToControl
    | ToChord
    | RunMacro
    | TypeText
    | StartProgram
    | HoldLayer
    | GoTo
    | ChangeSpeed
    | RunSystemAction
)
