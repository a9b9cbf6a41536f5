"""What a run of a macro sent, and when."""

from __future__ import annotations

import msgspec

__all__ = ["RunEvent", "RunRecord"]


class RunEvent(msgspec.Struct, frozen=True, array_like=True, gc=False):
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
