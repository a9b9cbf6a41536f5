"""One event node: what fingers do there, what of it passes, and when the node is grabbed and let go.

While it is grabbed no program reads the node, and a clone of it, a virtual device with the same abilities, sends on
what nobody takes: reports of motion as the bytes they came in, others without the events that are taken.

Grabbing and letting go wait until nothing is down on the node. A press before the grab and its release after it would
go different ways, and the control would stay down.

The kernel may take its time over both, and over making a clone. So a channel only says what it needs (`Change`), and
goes on with what came of it (`done`); what is asked in between, `ask_kernel` does on another thread. Until the answer
is there the node is that thread's, and what fingers do there waits in the kernel's queue.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import Protocol

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.asking import Answer, Change, NodeLike
from nakrel.backends.kernel.keys import Keys
from nakrel.backends.kernel.nodes import Abilities
from nakrel.backends.kernel.switches import Switches
from nakrel.backends.protocols import InputEvent
from nakrel.core.model.conditioning import AS_IT_IS, Conditioner, Motion
from nakrel.core.model.controls import CONTROLS, KNOWN, Kind
from nakrel.core.model.devices import KeysAs
from nakrel.core.play.events import Pressed, Released, Turned

__all__ = ["Channel", "Clone"]

# How long the desktop may take to open a new virtual device; what is sent before is lost.
SETTLE_US = 300_000
# How long at most it may take to set it as the node's device is set.
KNOWN_US = 2_000_000
# A control that is down when the node is opened may be a release that nobody saw: a USB device isn't asked while
# nobody has it open. It isn't waited for any longer than this.
UNSEEN_US = 3_000_000
# When to try again where another program has the node for itself, or no clone can be made.
BUSY_US = 3_000_000

_WHEELS = {
    abi.REL_WHEEL: ("WHEEL_DOWN", "WHEEL_UP"),
    abi.REL_WHEEL_HI_RES: ("WHEEL_DOWN", "WHEEL_UP"),
    abi.REL_HWHEEL: ("WHEEL_LEFT", "WHEEL_RIGHT"),
    abi.REL_HWHEEL_HI_RES: ("WHEEL_LEFT", "WHEEL_RIGHT"),
}
_AXES = frozenset((abi.REL_X, abi.REL_Y, *_WHEELS))
_FINE_OF = {abi.REL_WHEEL: abi.REL_WHEEL_HI_RES, abi.REL_HWHEEL: abi.REL_HWHEEL_HI_RES}
_FINE = frozenset(_FINE_OF.values())
_NOTCHES = (abi.REL_WHEEL, abi.REL_HWHEEL)
# What the desktop tells a device; it comes back as an event of the device and must not go round.
_TOLD = (abi.EV_LED, abi.EV_SND, abi.EV_REP)
# The low bytes of the types and codes in reports of motion and nothing else.
_MOTION = bytes((abi.EV_SYN, abi.EV_REL))
_PLAIN = bytes({abi.REL_X, abi.REL_Y, abi.SYN_REPORT})
_SIZE = abi.EVENT.size
# Of an event: its type, code and value, without its time.
_TAIL = 16
_SYN = abi.event(abi.EV_SYN, abi.SYN_REPORT, 0)
_END = _SYN[_TAIL:]


class Clone(Protocol):
    """What a channel needs of the node's clone; `nodes.Virtual` is the real one."""

    fd: int
    abilities: Abilities
    presses: int

    @property
    def path(self) -> str: ...
    def write(self, data: bytes) -> None: ...
    def read(self) -> bytes: ...
    def close(self) -> None: ...


class Channel:
    """Reads a node that has just been opened: `down` is what is down on it by the kernel's books. `answer` is called
    with a control whose press has come and is kept from the programs, before it is taken apart."""

    def __init__(self, node: NodeLike, down: set[int], now_us: int, answer: Callable[[str], object]) -> None:
        self.node, self._answer = node, answer
        self.trouble = ""
        self.grabbed = False
        # Whether the node is another thread's for the moment.
        self.resting = False
        self._waiting = False
        self.clone: Clone | None = None
        self._ready_us = self._opened_us = 0
        self._again_us = 0
        self._keeps = self._moves = False
        self._conditioner = Conditioner()
        self.switches = Switches()
        # When reports of motion came, while that is asked for; monotonic microseconds.
        self.motion_times: list[int] | None = None
        self._captured: frozenset[str] = frozenset()
        self._taken_keys: frozenset[int] = frozenset()
        # The type, code and value of each press that is kept from the programs, as it is read; and the control.
        self._taken_presses: dict[bytes, tuple[int, str]] = {}
        self._wheels_taken = self._wheels_change = self._moves_change = False
        self.down = down
        self._unseen = set(self.down)
        self._unseen_until_us = now_us + UNSEEN_US
        # The keys whose press went out through the clone: their release goes the same way, whatever is taken by then.
        self._passed: set[int] = set()
        self._out = bytearray()
        # How many presses are among what passes with this report.
        self._presses = 0
        self._moved_x = self._moved_y = 0
        self._scan = b""
        self._events: list[Pressed | Released | Turned] = []
        self._dropping = False
        self._early = b""
        # Whether the node is free once what came early has been dealt with.
        self._ends = False
        self._keys = Keys(node.abilities)
        # What counts as let go since it is called otherwise, until that is told.
        self._let_go: list[Released] = []

    @property
    def controls(self) -> tuple[str, ...]:
        """What there is on it, in the table's order."""
        return self._keys.controls

    def call_keys(self, how: KeysAs) -> bool:
        """What its keys count as from now on. What is down under another name than before counts as let go: whether
        `tell_late` has that."""
        before = {number: self._keys.released(number) for number in self.down}
        changed = self._keys.count_as(how)
        self._let_go += [released for number in changed if (released := before.get(number))]
        return bool(self._let_go)

    # Grabbing

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
        self._taken_keys = frozenset(
            number for code in mine if KNOWN[code].kind is not Kind.WHEEL for number in self._keys.numbers(code)
        )
        self._wheels_taken = any(KNOWN[code].kind is Kind.WHEEL for code in mine)
        self._note_presses()
        self._note_change()

    @property
    def wanted(self) -> bool:
        """Whether it is to be grabbed."""
        return self._keeps or self._moves or bool(self.switches)

    def debounce(self, times_us: Mapping[str, int]) -> None:
        """Drop the edges that follow on another of these controls within its time, while the node is grabbed."""
        mine = {
            number: us
            for code, us in times_us.items()
            if code in self.controls and us
            for number in self._keys.numbers(code)
        }
        self.switches.want(mine, self.down)
        self._note_presses()

    def tell_late(self, now_us: int) -> Sequence[InputEvent]:
        """The edges that waited until now."""
        let_go, self._let_go = self._let_go, []
        told = [InputEvent(released, now_us, self.node.name) for released in let_go]
        if self.resting:
            return told
        for number, down in self.switches.due(now_us):
            self._tell_key(number, int(down), abi.event(abi.EV_KEY, number, int(down)))
        return (*told, *self._end_report(now_us)) if self._out or self._events else told

    def condition(self, motion: Motion | None) -> None:
        """Have it move like this; None leaves it alone. A device without motion of its own has no part in it."""
        axes = self.node.abilities.codes.get(abi.EV_REL, frozenset())
        self._moves = motion is not None and bool(axes & _AXES)
        if self._conditioner.motion != (motion or AS_IT_IS):
            self._conditioner = Conditioner(motion or AS_IT_IS)
        self._note_change()

    def _note_presses(self) -> None:
        """One that may be a bounce has to be looked at first."""
        taken = () if self.switches else (code for code in self._captured if KNOWN[code].kind is not Kind.WHEEL)
        numbers = ((number, code) for code in taken for number in self._keys.numbers(code))
        self._taken_presses = {abi.event(abi.EV_KEY, number, 1)[_TAIL:]: (number, code) for number, code in numbers}

    def _note_change(self) -> None:
        """Asked of every report, so worked out here."""
        self._moves_change = not self._conditioner.moves_as_it_is
        self._wheels_change = self._wheels_taken or not self._conditioner.turns_as_it_is

    def settle(self, now_us: int) -> Change | int | None:
        """What is to be done for the node to be grabbed or let go as wanted: a change, which may `begin`, and whose
        outcome goes to `has_clone`, `has_no_clone` or `done`; or when to try again; None when an event will tell."""
        if self._waiting or self._early or self.wanted == self.grabbed or self.switches.late_us is not None:
            return None
        if now_us < self._again_us:
            return self._again_us
        if self.wanted and self.clone is None:
            return Change.CLONE
        if self.down and not self._give_up_unseen(now_us):
            return self._unseen_until_us if self.down <= self._unseen else None
        if self.wanted and now_us < self._ready_us:
            return self._ready_us
        return Change.GRAB if self.wanted else Change.LET_GO

    def begin(self, change: Change) -> None:
        """The kernel is asked now."""
        self._waiting, self.resting = True, change is not Change.CLONE

    def _give_up_unseen(self, now_us: int) -> bool:
        """Take what was down at the opening, and has never been heard of, for up; whether that leaves nothing down."""
        if now_us < self._unseen_until_us or not self.down <= self._unseen:
            return False
        # Written to the node it reaches all who read it: nobody waits for a release that would go to us alone.
        self.node.write(abi.report(*((abi.EV_KEY, key, 0) for key in sorted(self.down))))
        self.down.clear()
        return True

    def has_clone(self, clone: Clone, now_us: int, *, known: bool) -> None:
        """This is its clone; the desktop has known it for a while, or has yet to open it and to set it: then `is_known`
        follows."""
        self._waiting, self.clone, self._opened_us = False, clone, now_us + SETTLE_US
        self._ready_us = now_us if known else now_us + KNOWN_US

    def is_known(self) -> None:
        """The desktop has set the clone as it has set the node's device."""
        self._ready_us = min(self._ready_us, self._opened_us)

    def has_no_clone(self, trouble: str, now_us: int) -> None:
        """No clone can be made now."""
        self._waiting, self.trouble, self._again_us = False, trouble, now_us + BUSY_US

    def done(self, answer: Answer, now_us: int) -> None:
        """The kernel has answered."""
        before, self._waiting, self.resting, self.trouble = self.grabbed, False, False, answer.trouble
        if answer.trouble or answer.gone:
            self._again_us = now_us + BUSY_US
        if answer.grabbed and not before:
            # Nothing of it was a key, and all programs have had the rest.
            self.grabbed = True
        elif before and not answer.grabbed and answer.read:
            # It came to us alone, so it is passed on before anything else.
            self._early, self._ends = answer.read, True
        else:
            self.grabbed, self._early = answer.grabbed, answer.read

    # Events

    def pass_motion(self) -> bool:
        """Read what has come, and pass it on if it is motion and no more: the way of most reports by far.

        False where nothing has come, and where `read` is needed, for what was read or for an error of the node.
        """
        if self._early or self._ends or self._dropping or self._out:
            return False
        try:
            data = self._read_node()
        except OSError:
            return False
        if known := self._taken_presses.get(data[_TAIL - 2 * _SIZE : -_SIZE]):
            self._early = data
            self._answer_press(data, *known)
            return False
        # The low byte of each event's type and code; a false alarm costs time, no more.
        codes = data[18::_SIZE]
        if data[16::_SIZE].strip(_MOTION) or (codes.strip(_PLAIN) and self._is_more(codes)):
            self._early = data
            return False
        if not data:
            return False
        if self.grabbed and self.clone:
            passed = self._moved_on(data) if self._moves_change else data
            if passed:
                self.clone.write(passed)
        return True

    def _answer_press(self, data: bytes, number: int, code: str) -> None:
        """Have a press answered that makes a report of its own and is kept from the programs: what it puts down leaves
        before all else is worked out, which takes longer."""
        alone = len(data) == 2 * _SIZE or (len(data) == 3 * _SIZE and data[_TAIL] == abi.EV_MSC)
        if alone and self.grabbed and number not in self.down and data.endswith(_END):
            self._answer(code)

    def _is_more(self, codes: bytes) -> bool:
        """Whether there is more than motion in events of which these are the codes."""
        return (
            abi.REL_WHEEL in codes
            or abi.REL_HWHEEL in codes
            or abi.SYN_DROPPED in codes
            or (self._wheels_change and (abi.REL_WHEEL_HI_RES in codes or abi.REL_HWHEEL_HI_RES in codes))
        )

    def _moved_on(self, data: bytes) -> bytes:
        """Reports of motion and no more, as they are to be."""
        out, rest = b"", b""
        for offset, (_, _, kind, code, value) in enumerate(abi.EVENT.iter_unpack(data)):
            if kind == abi.EV_SYN:
                if report := rest + self._motion():
                    out += report + _SYN
                    rest = b""
            elif code == abi.REL_X:
                self._moved_x += value
            elif code == abi.REL_Y:
                self._moved_y += value
            else:
                rest += data[offset * _SIZE : (offset + 1) * _SIZE]
        return out + rest

    def _motion(self) -> bytes:
        """The events of the report's motion."""
        if not self._moved_x and not self._moved_y:
            return b""
        x, y = self._conditioner.move(self._moved_x, self._moved_y)
        self._moved_x = self._moved_y = 0
        if x and y:
            return abi.TWO_EVENTS.pack(0, 0, abi.EV_REL, abi.REL_X, x, 0, 0, abi.EV_REL, abi.REL_Y, y)
        if x:
            return abi.event(abi.EV_REL, abi.REL_X, x)
        return abi.event(abi.EV_REL, abi.REL_Y, y) if y else b""

    def read(self) -> Iterator[InputEvent]:
        """What has come: passed on, and told. What comes after an event is passed on after the event was taken from
        here, so that its consequences come first. Raises `OSError` when the node is gone, `BackendLost` when the
        clone is."""
        early, self._early = self._early, b""
        if early:
            yield from self._take_apart(early)
        if self._ends:
            self.grabbed = self._ends = False
        # What has come while that was dealt with doesn't wait for another turn of the loop.
        if data := self._read_node():
            yield from self._take_apart(data)

    def _read_node(self) -> bytes:
        data = self.node.read()
        if self.motion_times is not None:
            self.motion_times += abi.motion_times(data)
        return data

    def _take_apart(self, data: bytes) -> Iterator[InputEvent]:
        offset = -_SIZE
        for seconds, micros, kind, code, value in abi.EVENT.iter_unpack(data):
            offset += _SIZE
            if kind == abi.EV_SYN:
                if code == abi.SYN_REPORT:
                    if self._dropping:
                        self._catch_up(seconds * 1_000_000 + micros)
                    if told := self._end_report(seconds * 1_000_000 + micros):
                        yield from told
                elif code == abi.SYN_DROPPED:
                    # The kernel had no more room: this report is broken, and others before it are missing.
                    self._dropping = True
                    self._forget_report()
            elif self._dropping or kind in _TOLD:
                continue
            elif kind == abi.EV_KEY:
                self._key(code, value, data[offset : offset + _SIZE], seconds * 1_000_000 + micros)
            elif kind == abi.EV_REL and code in _WHEELS:
                self._wheel(code, value, data[offset : offset + _SIZE])
            elif kind == abi.EV_MSC and code == abi.MSC_SCAN:
                self._scan = data[offset : offset + _SIZE]
            elif self.grabbed and kind == abi.EV_REL and code == abi.REL_X and self._moves_change:
                self._moved_x += value
            elif self.grabbed and kind == abi.EV_REL and code == abi.REL_Y and self._moves_change:
                self._moved_y += value
            elif self.grabbed:
                self._out += data[offset : offset + _SIZE]

    def _key(self, number: int, value: int, raw: bytes, at_us: int) -> None:
        if value == abi.REPEATED:
            self._tell_key(number, value, raw)
            return
        scan, self._scan = self._scan, b""
        for down in self.switches.edge(number, bool(value), at_us, grabbed=self.grabbed):
            if down == bool(value):
                self._scan = scan
                self._tell_key(number, value, raw)
            else:
                self._tell_key(number, int(down), abi.event(abi.EV_KEY, number, int(down)))

    def _tell_key(self, number: int, value: int, raw: bytes) -> None:
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
                self._presses += 1
        else:
            self.down.discard(number)
            if number in self._passed:
                self._passed.discard(number)
                self._out += scan + raw
        event = self._keys.pressed(number, not captured) if value else self._keys.released(number)
        if event:
            self._events.append(event)

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

    def _catch_up(self, at_us: int) -> None:
        """Events were dropped: ask what is down, and go through the differences as if they had come."""
        self._dropping = False
        now_down = self.node.keys_down()
        for number in sorted(now_down ^ self.down):
            value = int(number in now_down)
            self._key(number, value, abi.event(abi.EV_KEY, number, value), at_us)

    def _end_report(self, at_us: int) -> Sequence[InputEvent]:
        """Pass on what passes of the report that ends; returns what is to be told of it."""
        self._out += self._motion()
        if self._out and self.clone:
            self.clone.write(bytes(self._out) + _SYN)
            self.clone.presses += self._presses
        events = self._events
        self._forget_report()
        return [InputEvent(event, at_us, self.node.name) for event in events]

    def _forget_report(self) -> None:
        self._out.clear()
        self._presses = 0
        self._moved_x = self._moved_y = 0
        self._scan = b""
        self._events = []

    def lift(self, control: str) -> None:
        """Let a key go for the programs on which a finger is. Where they read the node themselves that is for good: its
        release is told, and the finger's own makes no event."""
        number = CONTROLS[control].number
        release = abi.report((abi.EV_KEY, number, 0))
        if number in self._passed and self.clone:
            self._passed.discard(number)
            self.clone.write(release)
        elif number in self.down and not self.grabbed and not self.resting:
            self.node.write(release)

    # The end

    def lose(self) -> list[Released]:
        """The node is gone: let go what went out through the clone, and tell what counts as let go."""
        if self._passed and self.clone:
            self.clone.write(abi.report(*((abi.EV_KEY, number, 0) for number in sorted(self._passed))))
        down = (self._keys.released(number) for number in sorted(self.down))
        gone = [*self._let_go, *(released for released in down if released)]
        self._let_go.clear()
        self.down.clear()
        self._passed.clear()
        self.switches.lose()
        return gone
