"""The grabs by which presses come to us and to nobody else.

A passive one on each slave device and control ends the moment its press arrives; that of a button whose macro presses
that same button is kept while it is down.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable

import xcffib
import xcffib.xinput

from nakrel.backends.x11.codes import numbers_of
from nakrel.backends.x11.wire import ANY_MODIFIER, Slave, XConnection, XiEvent, evtype, mask
from nakrel.core.model.controls import KNOWN, Kind

__all__ = ["Grabs"]

_EDGES = {evtype.BUTTON_PRESS, evtype.BUTTON_RELEASE}
# While we hold a grab, its device's raw events come through the grab and in no other way.
_RAW_OF_A_MOUSE = {evtype.RAW_BUTTON_PRESS, evtype.RAW_BUTTON_RELEASE, evtype.RAW_MOTION}
_ASYNC = 1
# A slave device's number, and a control; whether that is a key, and its keycode or button number.
_Key = tuple[int, str]
_Number = tuple[bool, int]


class Grabs:
    """What is grabbed, and what of it the server may not have heard of yet: nobody waits for its answers."""

    def __init__(self, conn: XConnection, xi: xcffib.xinput.xinputExtension, root: int) -> None:
        self._conn, self._xi, self._root = conn, xi, root
        self.captured: frozenset[str] = frozenset()
        self._repeats_itself: frozenset[str] = frozenset()
        # Each with its keys and buttons on the device, and whether it is kept while the button is down.
        self._grabbed: dict[_Key, tuple[tuple[_Number, ...], bool]] = {}
        # The number of the last request for a grab, until the server has handled it: a press before that has passed.
        self._asked: int | None = None
        # What wasn't grabbed before the requests that the server may not have handled yet.
        self._new: set[_Key] = set()
        # The control for which each device is held.
        self._kept: dict[int, str] = {}
        # When each device that was held was let go: the number of that request.
        self._let_go_at: dict[int, int] = {}

    def capture(self, controls: Collection[str], repeats_itself: Collection[str], slaves: Iterable[Slave]) -> None:
        """Grab exactly these controls; the grab is kept of buttons among `repeats_itself`."""
        self.captured = frozenset(controls)
        self._repeats_itself = frozenset(c for c in repeats_itself if KNOWN[c].kind is Kind.BUTTON)
        self.renew(slaves)

    def renew(self, slaves: Iterable[Slave]) -> None:
        """Grab what is captured on these devices."""
        wanted = {
            (slave.id, code): (numbers, code in self._repeats_itself)
            for slave in slaves
            for code in self.captured
            if (numbers := _numbers_on(slave, code))
        }
        for (device, code), (numbers, _) in self._grabbed.items():
            for number in set(numbers) - set(wanted.get((device, code), ((), False))[0]):
                self._ungrab(device, number)
        if self._asked is None:
            self._new.clear()
        self._new |= wanted.keys() - self._grabbed.keys()
        # One that is asked for once more takes the place of the one before, and nothing slips in between.
        for (device, _), (numbers, kept) in wanted.items() - self._grabbed.items():
            for number in numbers:
                self._grab(device, number, kept)
        self._grabbed = wanted
        self._conn.flush()

    def keep_only(self, devices: Collection[int]) -> None:
        """What was grabbed on other devices went with them."""
        self._grabbed = {key: kept for key, kept in self._grabbed.items() if key[0] in devices}

    def forget(self, device: int) -> None:
        """A device is gone, and is held no longer."""
        self._kept.pop(device, None)

    def covers(self, device: int, code: str) -> bool:
        """Whether the control is grabbed on the device."""
        return (device, code) in self._grabbed

    def came_before(self, event: XiEvent, code: str = "") -> bool:
        """Whether the event came before the server had handled our last request for a grab; with a control, only where
        that wasn't grabbed before."""
        if self._asked is None or (code and (event.device, code) not in self._new):
            return False
        if (event.serial - self._asked) & 0xFFFF >= 0x8000:
            return True
        self._asked = None
        return False

    def end_or_keep(self, event: XiEvent, code: str | None) -> None:
        """A press has come by a grab of its device: it ends now, unless it is kept for this control."""
        if code is not None and self._grabbed.get((event.device, code), ((), False))[1]:
            if self.came_before(event):
                # The grab is an older one, and may lack the raw events by which all is told while it is kept.
                told = [mask(_EDGES | _RAW_OF_A_MOUSE)]
                asked = self._xi.XIGrabDevice(self._root, 0, 0, event.device, _ASYNC, _ASYNC, 0, 1, told)
                asked.discard_reply()
                self._conn.flush()
            self._kept[event.device] = code
            return
        # The grab must not outlive this press, or the programs would miss all that follows.
        self._xi.XIUngrabDevice(0, event.device)
        self._conn.flush()

    def let_go(self, device: int, code: str) -> None:
        """The control was released: a grab that was kept for it ends."""
        if self._kept.get(device) == code:
            del self._kept[device]
            self._let_go_at[device] = self._xi.XIUngrabDevice(0, device).sequence & 0xFFFF
            self._conn.flush()

    def holds_device_of(self, event: XiEvent) -> bool:
        """Whether the event came while we held its device: what a finger does before the server has handled our
        letting go still comes to us alone."""
        if event.device in self._kept:
            return True
        let_go_at = self._let_go_at.get(event.device)
        if let_go_at is None:
            return False
        if (event.serial - let_go_at) & 0xFFFF >= 0x8000:
            return True
        del self._let_go_at[event.device]
        return False

    def _grab(self, device: int, number: _Number, kept: bool) -> None:
        is_key, detail = number
        told = mask((evtype.KEY_PRESS, evtype.KEY_RELEASE) if is_key else _EDGES)
        if kept:
            told |= mask(_RAW_OF_A_MOUSE)
        asked = self._xi.XIPassiveGrabDevice(
            0, self._root, 0, detail, device, 1, 1, int(is_key), _ASYNC, _ASYNC, 0, [told], [ANY_MODIFIER]
        )
        # Nobody waits for the answer: what comes before the grab is told by its number.
        asked.discard_reply()
        self._asked = asked.sequence & 0xFFFF

    def _ungrab(self, device: int, number: _Number) -> None:
        is_key, detail = number
        self._xi.XIPassiveUngrabDevice(self._root, detail, device, 1, int(is_key), [ANY_MODIFIER])


def _numbers_on(slave: Slave, code: str) -> tuple[_Number, ...]:
    """The keys and buttons of a device that are this control."""
    numbers = numbers_of(code, slave.keys_as)
    return tuple((is_key, n) for is_key, n in numbers if (slave.keys if is_key else n <= slave.buttons))
