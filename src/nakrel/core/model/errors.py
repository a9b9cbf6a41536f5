"""The errors that the user's own data can cause; each names the thing, the reason and the remedy."""

from __future__ import annotations

from nakrel.words import noted, tr

__all__ = ["DataError", "LimitError", "UnknownControl", "cut"]

# A word of what somebody wrote is quoted up to here.
_LONGEST_WORD = 60


def cut(text: str) -> str:
    """What somebody wrote, short enough to be quoted."""
    return text if len(text) <= _LONGEST_WORD else f"{text[: _LONGEST_WORD - 1]}…"


class DataError(ValueError):
    """Something in the user's data can't be used as it is."""


class UnknownControl(DataError):
    """A control's code is not in the table; the message carries the nearest codes that are."""


class LimitError(DataError):
    """A value outside the limits of its field. `field` is the field's name in code and files, `value` what it was to
    be, and `reason` what is wrong with that and what is allowed."""

    def __init__(self, field: str, value: object, reason: str) -> None:
        self.field, self.value, self.reason = field, value, reason
        super().__init__(f"{tr(_LABELS.get(field) or 'the ' + field.replace('_', ' '))} {reason}")


# What people call a field, where its name in the code doesn't say it.
_LABELS = {
    "across": noted("the horizontal speed"),
    "again": noted("what another press does"),
    "branches": noted("the options of a random choice"),
    "buttons": noted("the buttons"),
    "by": noted("the direction"),
    "cells": noted("what the buttons do"),
    "colour": noted("the colour"),
    "command": noted("the program with its arguments"),
    "condition": noted("the condition"),
    "controls": noted("the keys and buttons of a combination"),
    "countdown_s": noted("the countdown"),
    "debounce": noted("the debounce times"),
    "down": noted("the vertical speed"),
    "even_us": noted("the delay"),
    "hold_us": noted("the hold"),
    "id": noted("the id"),
    "keys": noted("the game keys"),
    "layer": noted("the layer"),
    "layers": noted("the layers"),
    "layout": noted("the keyboard layout"),
    "lead_in": noted("the start section"),
    "lead_out": noted("the end section"),
    "least_us": noted("the shorter time"),
    "limit_runs": noted("the number of runs after which it ends"),
    "limit_s": noted("the time limit"),
    "limit_us": noted("the time after which it ends"),
    "loop": noted("the loop"),
    "most_trials": noted("the number of trials"),
    "most_us": noted("the longer time"),
    "name": noted("the name"),
    "narrow_us": noted("how narrow the interval must be"),
    "notch_us": noted("the length of a notch"),
    "notches": noted("the number of notches"),
    "note": noted("the note"),
    "number": noted("the number"),
    "over_us": noted("the time of the move"),
    "pause_us": noted("the pause"),
    "programs": noted("the linked programs"),
    "rate": noted("the rate"),
    "remark": noted("the comment"),
    "row": noted("the step"),
    "runs": noted("the number of runs"),
    "secret": noted("the name of the secret"),
    "second_keyboards": noted("the second keyboards"),
    "setups": noted("the variants"),
    "size": noted("the size of the screen"),
    "stages": noted("the pointer speeds"),
    "steps": noted("the steps"),
    "straight": noted("the angle within which lines are straightened"),
    "sure": noted("how sure it must be"),
    "takes": noted("the takes"),
    "text": noted("the text"),
    "thumb_keys": noted("the devices whose number keys are thumb buttons"),
    "time_us": noted("the time"),
    "times": noted("the number of times"),
    "to": noted("the target"),
    "tolerance_px": noted("the tolerance of the path"),
    "trials": noted("the trials"),
    "value": noted("the value"),
    "variable": noted("the name of the variable"),
    "volume": noted("the volume"),
    "wait_us": noted("the wait"),
    "weight": noted("the weight"),
    "wheel": noted("the wheel's speed"),
    "x": noted("the place from the left"),
    "y": noted("the place from the top"),
}
