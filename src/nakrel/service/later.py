"""An answer that is found on another thread."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any, NamedTuple

from nakrel import protocol as m
from nakrel.service.worker import Outcome, Worker

__all__ = ["Found", "Later", "on"]


class Later(NamedTuple):
    """An answer that is found on another thread: `start` begins that, and `then` makes the answer of what it found."""

    start: Callable[[Callable[[Outcome[Any]], object]], object]
    then: Callable[[Any], Found]


Found = m.AnswerBody | bytes | Later


def on(worker: Worker, work: Callable[[], Any], then: Callable[[Any], Found]) -> Later:
    """An answer that `then` makes of what `work` finds on the worker's thread."""
    return Later(partial(worker.do, work), then)
