"""One event node: what fingers do there, what of it passes, and when the node is grabbed and let go.

While it is grabbed no program reads the node, and a clone of it, a virtual device with the same abilities, sends on
what nobody takes: reports of motion as the bytes they came in, others without the events that are taken.

Grabbing and letting go wait until nothing is down on the node. A press before the grab and its release after it would
go different ways, and the control would stay down.
"""

from __future__ import annotations

import errno
from collections.abc import Callable, Iterator
from typing import NamedTuple, Protocol

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.holders import holders_of
from nakrel.backends.kernel.nodes import Abilities
from nakrel.core.model.conditioning import AS_IT_IS, Conditioner, Motion
from nakrel.core.model.controls import CONTROLS, Kind, by_number
from nakrel.core.play.events import Pressed, Released, Turned

__all__ = ["Channel", "Clone", "Heard", "NodeLike"]

# How long the desktop may take to open a new virtual device; what is sent before is lost.
SETTLE_US = 300_000
# A control that is down when the node is opened may be a release that nobody saw: a USB device isn't asked while
# nobody has it open. It isn't waited for any longer than this.
UNSEEN_US = 3_000_000
# When to try again where another program has the node for itself.
BUSY_US = 3_000_000

_WHEELS = {
    abi.REL_WHEEL: ("WHEEL_DOWN", "WHEEL_UP"),
    abi.REL_WHEEL_HI_RES: ("WHEEL_DOWN", "WHEEL_UP"),
    abi.REL_HWHEEL: ("WHEEL_LEFT", "WHEEL_RIGHT"),
    abi.REL_HWHEEL_HI_RES: ("WHEEL_LEFT", "WHEEL_RIGHT"),
}
_MOVES = (abi.REL_X, abi.REL_Y)
_AXES = frozenset((*_MOVES, *_WHEELS))
_FINE_OF = {abi.REL_WHEEL: abi.REL_WHEEL_HI_RES, abi.REL_HWHEEL: abi.REL_HWHEEL_HI_RES}
_FINE = frozenset(_FINE_OF.values())
_NOTCHES = (abi.REL_WHEEL, abi.REL_HWHEEL)
# What the desktop tells a device; it comes back as an event of the device and must not go round.
_TOLD = (abi.EV_LED, abi.EV_SND, abi.EV_REP)
_MOTION = bytes((abi.EV_SYN, abi.EV_REL))
_SIZE = abi.EVENT.size
_SYN = abi.event(abi.EV_SYN, abi.SYN_REPORT, 0)


class Heard(NamedTuple):
    """What a finger did, and when (monotonic microseconds)."""

    event: Pressed | Released | Turned
    at_us: int


class NodeLike(Protocol):
    """What a channel needs of an event node; `nodes.Node` is the real one."""

    path: str
    fd: int
    name: str
    phys: str
    uniq: str
    abilities: Abilities

    def keys_down(self) -> set[int]: ...
    def grab(self, on: bool) -> None: ...
    def attend(self, everything: bool) -> None: ...
    def read(self) -> bytes: ...
    def write(self, data: bytes) -> None: ...
    def close(self) -> None: ...


class Clone(Protocol):
    """What a channel needs of the node's clone; `nodes.Virtual` is the real one."""

    fd: int
    abilities: Abilities

    def write(self, data: bytes) -> None: ...
    def read(self) -> bytes: ...
    def close(self) -> None: ...


class Channel:
    """Reads a node. `make_clone` gives the node's clone and whether the desktop has known it for a while; it may raise
    `BackendUnavailable`."""

    def __init__(self, node: NodeLike, make_clone: Callable[[], tuple[Clone, bool]], now_us: int) -> None:
        self.node = node
        self.trouble = ""
        self.grabbed = False
        self._make_clone = make_clone
        self._clone: Clone | None = None
        self._ready_us = 0
        self._keeps = self._moves = False
        self._conditioner = Conditioner()
        self._captured: frozenset[str] = frozenset()
        self._taken_keys: frozenset[int] = frozenset()
        self._wheels_taken = self._wheels_change = self._moves_change = False
        self.down = node.keys_down()
        self._unseen = set(self.down)
        self._unseen_until_us = now_us + UNSEEN_US
        # The keys whose press went out through the clone: their release goes the same way, whatever is taken by then.
        self._passed: set[int] = set()
        self._out = bytearray()
        self._moved = dict.fromkeys(_MOVES, 0)
        self._scan = b""
        self._events: list[Pressed | Released | Turned] = []
        self._dropping = False
        self._early = b""
        self.controls = _controls(node.abilities)
        node.attend(False)

    # Grabbing

    def uses(self, handle: int) -> bool:
        """Whether its clone has this descriptor."""
        return self._clone is not None and self._clone.fd == handle

    @property
    def ripe(self) -> bool:
        """Whether `read` has something although the node isn't readable."""
        return bool(self._early)

    def want(self, captured: frozenset[str]) -> None:
        """Keep these of its controls from the programs; none of them: let the node go."""
        mine = captured & frozenset(self.controls)
        self._keeps = bool(mine)
        # What is taken must not change under a grab that only waits for its end: then all passes.
        self._captured = mine
        self._taken_keys = frozenset(CONTROLS[code].number for code in mine if CONTROLS[code].kind is not Kind.WHEEL)
        self._wheels_taken = any(CONTROLS[code].kind is Kind.WHEEL for code in mine)
        self._note_change()

    @property
    def wanted(self) -> bool:
        """Whether it is to be grabbed."""
        return self._keeps or self._moves

    def condition(self, motion: Motion | None) -> None:
        """Have it move like this; None leaves it alone. A device without motion of its own has no part in it."""
        axes = self.node.abilities.codes.get(abi.EV_REL, frozenset())
        self._moves = motion is not None and bool(axes & _AXES)
        if self._conditioner.motion != (motion or AS_IT_IS):
            self._conditioner = Conditioner(motion or AS_IT_IS)
        self._note_change()

    def _note_change(self) -> None:
        """Asked of every report, so worked out here."""
        self._moves_change = not self._conditioner.moves_as_it_is
        self._wheels_change = self._wheels_taken or not self._conditioner.turns_as_it_is

    def settle(self, now_us: int) -> int | None:
        """Grab or let go where that is wanted and possible now; when to try again, None when an event will tell.

        Raises `BackendUnavailable` when no clone can be made.
        """
        if self.wanted == self.grabbed:
            return None
        if self.wanted and self._clone is None:
            self._clone, known = self._make_clone()
            self._ready_us = now_us if known else now_us + SETTLE_US
        if self.down and not self._give_up_unseen(now_us):
            return self._unseen_until_us if self.down <= self._unseen else None
        if self.wanted and now_us < self._ready_us:
            return self._ready_us
        self._early += self.node.read()
        if self._early:
            # What has come by now is to go the way it was meant to; then again.
            return now_us
        return self._grab(now_us) if self.wanted else self._let_go()

    def _give_up_unseen(self, now_us: int) -> bool:
        """Take what was down at the opening, and has never been heard of, for up; whether that leaves nothing down."""
        if now_us < self._unseen_until_us or not self.down <= self._unseen:
            return False
        # Written to the node it reaches all who read it: nobody waits for a release that would go to us alone.
        self.node.write(abi.report(*((abi.EV_KEY, key, 0) for key in sorted(self.down))))
        self.down.clear()
        return True

    def _grab(self, now_us: int) -> int | None:
        try:
            self.node.grab(True)
        except OSError as error:
            self.trouble = f"it can't be grabbed: {error.strerror}"
            if error.errno == errno.EBUSY:
                found = holders_of(self.node.path)
                self.trouble = "another program has it for itself; end that program" + (
                    f" (it is open in {', '.join(found)})" if found else ""
                )
            return now_us + BUSY_US
        self.trouble = ""
        # What slipped in was seen by all. A press among it would be let go behind the grab.
        slipped = self.node.read()
        if abi.EV_KEY in slipped[16::_SIZE]:
            self.node.grab(False)
            self._early = slipped
            return now_us
        self.grabbed = True
        self.node.attend(True)
        return None

    def _let_go(self) -> int | None:
        self.grabbed = False
        self.node.attend(False)
        try:
            self.node.grab(False)
        except OSError as error:
            self.trouble = f"it can't be let go: {error.strerror}"
        return None

    # Events

    def pass_motion(self) -> bool:
        """Read what has come, and pass it on if it is motion and no more: the way of most reports by far.

        False where `read` is needed, for what was read or for an error of the node or of the clone.
        """
        if self._early or self._dropping or self._out:
            return False
        try:
            data = self.node.read()
        except OSError:
            return False
        # The low byte of each event's type and code; a false alarm costs time, no more.
        codes = data[18::_SIZE]
        if (
            data[16::_SIZE].strip(_MOTION)
            or abi.REL_WHEEL in codes
            or abi.REL_HWHEEL in codes
            or abi.SYN_DROPPED in codes
            or (self._wheels_change and (abi.REL_WHEEL_HI_RES in codes or abi.REL_HWHEEL_HI_RES in codes))
        ):
            self._early = data
            return False
        if self.grabbed and self._clone and data:
            passed = self._moved_on(data) if self._moves_change else data
            if passed:
                self._clone.write(passed)
        return True

    def _moved_on(self, data: bytes) -> bytes:
        """Reports of motion and no more, as they are to be."""
        out, end = bytearray(), 0
        for offset, (_, _, kind, code, value) in enumerate(abi.EVENT.iter_unpack(data)):
            if kind == abi.EV_SYN:
                out += self._motion()
                if len(out) > end:
                    out += _SYN
                    end = len(out)
            elif code in self._moved:
                self._moved[code] += value
            else:
                out += data[offset * _SIZE : (offset + 1) * _SIZE]
        return bytes(out)

    def _motion(self) -> bytes:
        """The events of the report's motion."""
        x, y = self._moved[abi.REL_X], self._moved[abi.REL_Y]
        if not x and not y:
            return b""
        self._moved = dict.fromkeys(_MOVES, 0)
        moved = zip(_MOVES, self._conditioner.move(x, y), strict=True)
        return b"".join(abi.event(abi.EV_REL, axis, value) for axis, value in moved if value)

    def read(self) -> Iterator[Heard]:
        """What has come: passed on, and told. What comes after an event is passed on after the event was taken from
        here, so that its consequences come first. Raises `OSError` when the node is gone, `BackendLost` when the
        clone is."""
        data, self._early = self._early + self.node.read(), b""
        if data:
            yield from self._take_apart(data)

    def _take_apart(self, data: bytes) -> Iterator[Heard]:
        offset = -_SIZE
        for seconds, micros, kind, code, value in abi.EVENT.iter_unpack(data):
            offset += _SIZE
            if kind == abi.EV_SYN:
                if code == abi.SYN_REPORT:
                    if self._dropping:
                        self._catch_up()
                    yield from self._end_report(seconds * 1_000_000 + micros)
                elif code == abi.SYN_DROPPED:
                    # The kernel had no more room: this report is broken, and others before it are missing.
                    self._dropping = True
                    self._forget_report()
            elif self._dropping or kind in _TOLD:
                continue
            elif kind == abi.EV_KEY:
                self._key(code, value, data[offset : offset + _SIZE])
            elif kind == abi.EV_REL and code in _WHEELS:
                self._wheel(code, value, data[offset : offset + _SIZE])
            elif kind == abi.EV_MSC and code == abi.MSC_SCAN:
                self._scan = data[offset : offset + _SIZE]
            elif self.grabbed and kind == abi.EV_REL and code in _MOVES and self._moves_change:
                self._moved[code] += value
            elif self.grabbed:
                self._out += data[offset : offset + _SIZE]

    def _key(self, number: int, value: int, raw: bytes) -> None:
        scan, self._scan = self._scan, b""
        if value == abi.REPEATED or bool(value) == (number in self.down):
            # Auto-repeat: the clone has the desktop's own.
            self._unseen.discard(number)
            return
        self._unseen.discard(number)
        captured = self.grabbed and number in self._taken_keys
        if value:
            self.down.add(number)
            if self.grabbed and not captured:
                self._passed.add(number)
                self._out += scan + raw
        else:
            self.down.discard(number)
            if number in self._passed:
                self._passed.discard(number)
                self._out += scan + raw
        if known := by_number(number):
            self._events.append(Pressed(known.code, not captured) if value else Released(known.code))

    def _wheel(self, axis: int, value: int, raw: bytes) -> None:
        code = _WHEELS[axis][value > 0]
        captured = self.grabbed and code in self._captured
        if self.grabbed and not captured:
            self._out += raw if self._conditioner.turns_as_it_is else self._turned(axis, value)
        if axis in _NOTCHES and value:
            self._events.append(Turned(code, abs(value), not captured))

    def _turned(self, axis: int, value: int) -> bytes:
        """The events of a turn at the profile's speed of the wheel; one that tells parts of notches goes by these."""
        fine = axis in _FINE
        if not fine and _FINE_OF[axis] in self.node.abilities.codes.get(abi.EV_REL, frozenset()):
            return b""
        whole = next(each for each, own in _FINE_OF.items() if axis in (each, own))
        parts, notches = self._conditioner.turn(whole, value, fine)
        out = abi.event(abi.EV_REL, axis, parts) if parts else b""
        return out + (abi.event(abi.EV_REL, whole, notches) if notches else b"")

    def _catch_up(self) -> None:
        """Events were dropped: ask what is down, and go through the differences as if they had come."""
        self._dropping = False
        now_down = self.node.keys_down()
        for number in sorted(now_down ^ self.down):
            value = int(number in now_down)
            self._key(number, value, abi.event(abi.EV_KEY, number, value))

    def _end_report(self, at_us: int) -> Iterator[Heard]:
        self._out += self._motion()
        if self._out and self._clone:
            self._clone.write(bytes(self._out) + _SYN)
        events = self._events
        self._forget_report()
        for event in events:
            yield Heard(event, at_us)

    def _forget_report(self) -> None:
        self._out.clear()
        self._moved = dict.fromkeys(_MOVES, 0)
        self._scan = b""
        self._events = []

    # The end

    def lose(self) -> list[Released]:
        """The node is gone: let go what went out through the clone, and tell what counts as let go."""
        if self._passed and self._clone:
            self._clone.write(abi.report(*((abi.EV_KEY, number, 0) for number in sorted(self._passed))))
        gone = [Released(known.code) for number in sorted(self.down) if (known := by_number(number))]
        self.down.clear()
        self._passed.clear()
        return gone


def _controls(abilities: Abilities) -> tuple[str, ...]:
    """The controls of a device, in the table's order."""
    keys = abilities.codes.get(abi.EV_KEY, frozenset())
    axes = abilities.codes.get(abi.EV_REL, frozenset())
    return tuple(
        code for code, control in CONTROLS.items() if control.number in (axes if control.kind is Kind.WHEEL else keys)
    )
