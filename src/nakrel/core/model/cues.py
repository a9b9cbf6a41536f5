"""What tells people in a full-screen game what Nakrel does: sounds, lines on the screen, and a keyboard's light."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Literal

import msgspec

from nakrel.core.model.value import Value
from nakrel.words import noted

__all__ = ["CUE_LABELS", "Cue", "CueSettings"]

Percent = Annotated[int, msgspec.Meta(ge=0, le=100)]


class Cue(StrEnum):
    """What happened."""

    LIVE = "live"
    RECORDING = "recording"
    RECORDED = "recorded"
    ON = "toggle-on"
    OFF = "toggle-off"
    STOP = "stop"
    FAULT = "fault"


CUE_LABELS = {
    Cue.LIVE: noted("a profile goes live"),
    Cue.RECORDING: noted("a recording begins"),
    Cue.RECORDED: noted("a recording ends"),
    Cue.ON: noted("a Toggle goes on"),
    Cue.OFF: noted("a Toggle goes off"),
    Cue.STOP: noted("Stop everything"),
    Cue.FAULT: noted("something goes wrong"),
}


class CueSettings(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """Of what there is a sound, of what a line on the screen; how loud in percent; and what the light of Scroll Lock
    shows, '' for nothing."""

    sounds: tuple[Cue, ...] = ()
    lines: tuple[Cue, ...] = ()
    volume: Percent = 50
    light: Literal["", "recording", "toggle"] = ""
