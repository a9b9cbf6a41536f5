"""Takes: recordings as they were made, kept so that it can be decided afterwards how they are used."""

from __future__ import annotations

from typing import Annotated

import msgspec

from nakrel.core.model.limits import MAX_STEPS
from nakrel.core.model.steps import Step
from nakrel.core.model.value import Value

__all__ = ["MOST_TAKES", "Take", "Takes"]

# A macro keeps so many, the newest.
MOST_TAKES = 10


class Take(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """One recording, with its waits as they were and the pointer's path where the desktop tells it. `number` counts
    the macro's takes from 1, `at` is when it ended, in seconds since the epoch."""

    number: Annotated[int, msgspec.Meta(ge=1)]
    at: float
    steps: Annotated[tuple[Step, ...], msgspec.Meta(max_length=MAX_STEPS)]


class Takes(Value, frozen=True, omit_defaults=True, forbid_unknown_fields=True):
    """The takes of a macro, the oldest first."""

    takes: Annotated[tuple[Take, ...], msgspec.Meta(max_length=MOST_TAKES)] = ()

    def with_another(self, steps: tuple[Step, ...], at: float) -> Takes:
        """These and a new one; of too many the oldest goes."""
        number = self.takes[-1].number + 1 if self.takes else 1
        return Takes((*self.takes, Take(number, at, steps))[-MOST_TAKES:])
