"""The errors that the user's own data can cause; each names the thing, the reason and the remedy."""

from __future__ import annotations

__all__ = ["DataError", "LimitError", "UnknownControl"]


class DataError(ValueError):
    """Something in the user's data can't be used as it is."""


class UnknownControl(DataError):
    """A control's code is not in the table; the message carries the nearest codes that are."""


class LimitError(DataError):
    """A value outside the limits of its field. `field` is the field's name in code and files, `value` what it was to
    be, and `reason` what is wrong with that and what is allowed."""

    def __init__(self, field: str, value: object, reason: str) -> None:
        self.field, self.value, self.reason = field, value, reason
        super().__init__(f"{_LABELS.get(field) or 'the ' + field.replace('_', ' ')} {reason}")


# What people call a field, where its name in the code doesn't say it.
_LABELS = {
    "again": "what another press does",
    "branches": "the options of a random choice",
    "by": "the direction",
    "command": "the program with its arguments",
    "controls": "the keys and buttons of a combination",
    "even_us": "the delay",
    "hold_us": "the hold",
    "id": "the id",
    "keys": "the game keys",
    "limit_runs": "the number of runs after which it ends",
    "limit_us": "the time after which it ends",
    "loop": "the loop",
    "most_us": "the longer time",
    "over_us": "the time of the move",
    "pause_us": "the pause",
    "programs": "the linked programs",
    "rate": "the rate",
    "remark": "the comment",
    "secret": "the name of the secret",
    "setups": "the variants",
    "size": "the size of the screen",
    "stages": "the pointer speeds",
    "value": "the value",
    "variable": "the name of the variable",
    "wait_us": "the wait",
    "x": "the place from the left",
    "y": "the place from the top",
}
