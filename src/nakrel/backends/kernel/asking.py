"""Asking the kernel for a node, or giving it back: it may take its time, so it is asked on another thread."""

from __future__ import annotations

import errno
from enum import Enum, auto
from typing import NamedTuple, Protocol

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.holders import holders_of
from nakrel.backends.kernel.nodes import Abilities
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["Answer", "Change", "NodeLike", "ask_kernel"]


class NodeLike(Protocol):
    """What a channel needs of an event node; `nodes.Node` is the real one."""

    path: str
    fd: int
    name: str
    phys: str
    uniq: str
    abilities: Abilities

    def keys_down(self) -> set[int]: ...
    def lights_on(self) -> set[int]: ...
    def grab(self, on: bool) -> None: ...
    def attend(self, everything: bool) -> None: ...
    def read(self) -> bytes: ...
    def write(self, data: bytes) -> None: ...
    def close(self) -> None: ...


class Change(Enum):
    """What a channel needs of the kernel."""

    CLONE = auto()
    GRAB = auto()
    LET_GO = auto()


class Answer(NamedTuple):
    """What came of a grab or of letting go: whether the node is grabbed now, what was read before that changed, what
    is wrong, '' for nothing, and whether the device has gone."""

    grabbed: bool
    read: bytes = b""
    trouble: str = ""
    gone: bool = False


def ask_kernel(node: NodeLike, change: Change) -> Answer:
    """Grab the node, or let it go. Neither is done when a key or a button was pressed or released just before: that has
    to go the way it was meant to first."""
    on = change is Change.GRAB
    read = b""
    try:
        read = node.read()
        if _has_key(read):
            return Answer(not on, read)
        if on:
            node.grab(True)
            # What slipped in was seen by all. A press among it would be let go behind the grab.
            slipped = node.read()
            if _has_key(slipped):
                node.grab(False)
                return Answer(False, read + slipped)
            node.attend(True)
        else:
            node.attend(False)
            node.grab(False)
    except OSError as error:
        gone = error.errno in abi.GONE
        return Answer(False, read, "" if gone else _why(node, on, error), gone)
    return Answer(on, read)


def _why(node: NodeLike, on: bool, error: OSError) -> str:
    if on and error.errno == errno.EBUSY:
        found = holders_of(node.path)
        if found:
            taken = tr("another program has it for itself; end that program (it is open in {programs})")
            return taken.format(programs=", ".join(found))
        return tr("another program has it for itself; end that program")
    wrong = tr("it can't be captured: {reason}") if on else tr("it can't be released: {reason}")
    return wrong.format(reason=reason_of(error))


def _has_key(data: bytes) -> bool:
    # The low byte of each event's type; a false alarm costs time, no more.
    return abi.EV_KEY in data[16 :: abi.EVENT.size]
