"""Run records: of the last run of each macro, when each event was planned and when it went out."""

from __future__ import annotations

from collections import OrderedDict, deque

from nakrel.core.model.runs import RunEvent, RunRecord

__all__ = ["Runs"]

# Of a long run the beginning is kept, which is laid under the plan, and the end.
FIRST, LAST = 2_000, 8_000
# Macros whose last run is remembered.
MACROS = 50


class _Kept:
    def __init__(self, began_us: int) -> None:
        self.began_us = began_us
        self.first: list[RunEvent] = []
        self.last: deque[RunEvent] = deque(maxlen=LAST)
        self.sent = 0


class Runs:
    """Told of every event that goes out; as little as can be done with each is done."""

    def __init__(self) -> None:
        self._open: dict[str, _Kept] = {}
        self._ended: OrderedDict[str, RunRecord] = OrderedDict()

    def started(self, macro: str, at_us: int) -> None:
        """A run begins; its times count from `at_us`."""
        self._open[macro] = _Kept(at_us)

    def sent(self, macro: str, control: str, value: int, due_us: int, at_us: int) -> None:
        """An event went out."""
        kept = self._open.get(macro)
        if kept is None:
            return
        began_us = kept.began_us
        event = RunEvent(control, value, due_us - began_us, at_us - began_us)
        kept.sent += 1
        (kept.first if len(kept.first) < FIRST else kept.last).append(event)

    def ended(self, macro: str, runs: int, reason: str) -> None:
        """The run has ended."""
        kept = self._open.pop(macro, None)
        if kept is None:
            return
        self._ended[macro] = _record(macro, kept, runs, reason)
        self._ended.move_to_end(macro)
        if len(self._ended) > MACROS:
            self._ended.popitem(last=False)

    def of(self, macro: str) -> RunRecord | None:
        """The record of the macro's run: of the one that goes on, else of the last one."""
        if kept := self._open.get(macro):
            return _record(macro, kept, 0, "")
        return self._ended.get(macro)


def _record(macro: str, kept: _Kept, runs: int, reason: str) -> RunRecord:
    events = (*kept.first, *kept.last)
    return RunRecord(macro, kept.began_us, events, kept.sent - len(events), runs, reason)
