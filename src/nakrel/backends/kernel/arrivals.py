"""Whether what our virtual devices send arrives: a program that has one for itself keeps it from all others.

The kernel doesn't say who has a node for itself, and asking by a grab of our own could lose a release. So each device
that presses anything is read along: a press that we sent and don't read went to that program alone.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from typing import NamedTuple

from nakrel.backends.kernel.channel import Clone, NodeLike
from nakrel.backends.kernel.holders import holders_of
from nakrel.backends.protocols import Host
from nakrel.words import tr

__all__ = ["LOOK_US", "Arrivals"]

# How long after a press it is looked; there is no looking without any.
LOOK_US = 1_000_000
_JUST_OPENED = -1


class _Witness(NamedTuple):
    """A node that is read along (None where it can't be), and how many presses were sent by when it was empty."""

    node: NodeLike | None
    presses: int


class _Seen(NamedTuple):
    """What a look at one device showed: who reads it along, whether its presses arrive (None: none were sent), and
    what programs have it open."""

    witness: _Witness
    arrives: bool | None
    holders: tuple[str, ...] = ()


class Arrivals:
    """`devices` gives the virtual devices in use, each with the name that people know; `changed` is called when one
    begins or ceases to be another program's."""

    def __init__(
        self,
        host: Host,
        open_node: Callable[[str], NodeLike],
        devices: Callable[[], Iterable[tuple[Clone, str]]],
        changed: Callable[[], object],
    ) -> None:
        self._host, self._open_node, self._devices, self._changed = host, open_node, devices, changed
        self._witnesses: dict[Clone, _Witness] = {}
        # What is wrong with each device that another program has for itself.
        self.taken: dict[Clone, str] = {}
        # Whether a look is due; what presses asks for one where it isn't.
        self.due = False
        self._closed = False

    def look_soon(self) -> None:
        """Something was pressed: look in a while."""
        self.due = True
        self._host.at("arrivals", self._host.now_us() + LOOK_US, self._look)

    def close(self) -> None:
        """Read along no more; on the thread that works aside."""
        self._closed = True
        for witness in self._witnesses.values():
            if witness.node is not None:
                witness.node.close()
        self._witnesses.clear()

    def _look(self) -> None:
        names = dict(self._devices())
        self._host.aside(lambda: self._examine(names), lambda seen: self._seen(seen, names))

    def _examine(self, devices: Iterable[Clone]) -> dict[Clone, _Seen]:
        """Look at each device; on another thread."""
        seen: dict[Clone, _Seen] = {}
        if self._closed:
            return seen
        for device in devices:
            before = self._witnesses.get(device)
            if before is None and not device.presses:
                continue
            seen[device] = _look_at(device, before or _Witness(self._open(device), _JUST_OPENED))
        for device in self._witnesses.keys() - seen.keys():
            if (node := self._witnesses[device].node) is not None:
                node.close()
        self._witnesses = {device: each.witness for device, each in seen.items()}
        return seen

    def _open(self, device: Clone) -> NodeLike | None:
        try:
            node = self._open_node(device.path)
        except OSError:
            return None
        try:
            node.attend(False)
        except OSError:
            node.close()
            return None
        return node

    def _seen(self, seen: Mapping[Clone, _Seen], names: Mapping[Clone, str]) -> None:
        self.due = False
        if self._closed:
            return
        before = dict(self.taken)
        self.taken = {device: what for device, what in self.taken.items() if device in seen}
        for device, each in seen.items():
            if each.arrives is False:
                self.taken.setdefault(device, _trouble(each.holders))
            elif each.arrives:
                self.taken.pop(device, None)
        for device in self.taken.keys() - before.keys():
            self._host.fault(f"{names[device]}: {self.taken[device]}")
        if self.taken.keys() != before.keys():
            self._changed()


def _look_at(device: Clone, before: _Witness) -> _Seen:
    node = before.node
    if node is None:
        return _Seen(before, None)
    # Counted before reading: what was counted has been sent. Counted again once the queue is empty: what is sent in
    # between waits to be read the next time, and isn't missed.
    sent = device.presses
    heard = False
    try:
        while node.read():
            heard = True
    except OSError:
        node.close()
        return _Seen(_Witness(None, 0), None)
    after = _Witness(node, device.presses)
    if heard:
        return _Seen(after, True)
    if before.presses == _JUST_OPENED or sent == before.presses:
        return _Seen(after, None)
    return _Seen(after, False, tuple(holders_of(node.path)))


def _trouble(holders: tuple[str, ...]) -> str:
    if not holders:
        return tr(
            "another program has Nakrel's virtual device for itself, so that what is pressed there reaches that "
            "program alone; let it leave Nakrel's devices alone, or end it"
        )
    return tr(
        "another program has Nakrel's virtual device for itself, so that what is pressed there reaches that program "
        "alone; let it leave Nakrel's devices alone, or end it (it is open in {programs})"
    ).format(programs=", ".join(holders))
