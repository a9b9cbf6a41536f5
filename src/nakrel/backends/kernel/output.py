"""Output through uinput: one virtual device that is keyboard and mouse, and one for positions on the screen.

Keyboard and mouse are one device: a desktop reads each device by itself and keeps the order within it, so a key that
is pressed before a click arrives before it. Each event is a report of its own: a press and a release never share one,
and a modifier goes down before what it modifies.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

from nakrel.backends.kernel import abi
from nakrel.backends.kernel.channel import Clone
from nakrel.backends.kernel.nodes import Abilities, Virtual
from nakrel.backends.protocols import CannotEmit
from nakrel.core.model.controls import CONTROLS, Control, Kind
from nakrel.core.play.events import Emit
from nakrel.words import tr

__all__ = ["HANDS", "HANDS_NAME", "POINTER", "Output"]

# By what desktops list it.
HANDS_NAME = "Nakrel keyboard and mouse"

_WHEELS = {
    "WHEEL_UP": (abi.REL_WHEEL, abi.REL_WHEEL_HI_RES, 1),
    "WHEEL_DOWN": (abi.REL_WHEEL, abi.REL_WHEEL_HI_RES, -1),
    "WHEEL_RIGHT": (abi.REL_HWHEEL, abi.REL_HWHEEL_HI_RES, 1),
    "WHEEL_LEFT": (abi.REL_HWHEEL, abi.REL_HWHEEL_HI_RES, -1),
}
# How finely a position on the screen is told; far finer than any screen.
_FINE = 65_535


def _can_send(control: Control) -> bool:
    """Keys, and the buttons of a mouse; further buttons would make the desktop take the device for a game pad."""
    return control.kind is Kind.KEY or abi.BTN_LEFT <= control.number <= abi.BTN_TASK


_CODES = {c.code: c.number for c in CONTROLS.values() if c.kind is not Kind.WHEEL and _can_send(c)}
# What a press and a release of each are, made in advance: a first press is to leave soon.
_REPORTS = {
    (code, value): abi.report((abi.EV_KEY, number, value)) for code, number in _CODES.items() for value in (0, 1)
}
_MOVES = frozenset({abi.REL_X, abi.REL_Y, abi.REL_WHEEL, abi.REL_HWHEEL})
_FINE_WHEELS = frozenset({abi.REL_WHEEL_HI_RES, abi.REL_HWHEEL_HI_RES})
HANDS = Abilities(
    (abi.BUS_VIRTUAL, 0, 1, 1), {abi.EV_KEY: frozenset(_CODES.values()), abi.EV_REL: _MOVES | _FINE_WHEELS}, {}
)
POINTER = Abilities(
    (abi.BUS_VIRTUAL, 0, 2, 1),
    {abi.EV_KEY: frozenset({abi.BTN_LEFT}), abi.EV_ABS: frozenset({abi.ABS_X, abi.ABS_Y})},
    dict.fromkeys((abi.ABS_X, abi.ABS_Y), (0, 0, _FINE, 0, 0, 0)),
)


class Output:
    """Makes both devices. Raises `BackendUnavailable` when /dev/uinput can't be used."""

    def __init__(self, virtual: Callable[[str, Abilities, str], Clone] = Virtual) -> None:
        self.hands = virtual(HANDS_NAME, HANDS, "hands")
        self._pointer = virtual("Nakrel positions", POINTER, "positions")
        self._down: dict[int, None] = {}

    def emit(self, events: Sequence[Emit]) -> None:
        """Send the events in order. Raises `CannotEmit` once all that can be sent was sent, and `BackendLost`."""
        data, cannot, presses = bytearray(), "", 0
        for event in events:
            if report := _REPORTS.get((event.control, event.value)):
                data += report
                number = _CODES[event.control]
                if event.value:
                    presses += number not in self._down
                    self._down[number] = None
                else:
                    self._down.pop(number, None)
            elif wheel := _WHEELS.get(event.control):
                axis, fine, sign = wheel
                notches = sign * event.value
                data += abi.report((abi.EV_REL, axis, notches), (abi.EV_REL, fine, notches * abi.HI_RES))
            else:
                cannot = event.control
        if data:
            self.hands.write(bytes(data))
            self.hands.presses += presses
        if cannot:
            raise CannotEmit(
                tr("a virtual mouse can't send {label} ({cannot}); let the macro press another button").format(
                    label=CONTROLS[cannot].label, cannot=cannot
                )
            )

    def press(self, control: str) -> bool:
        """Press this one, with as little as can be done before it is out; False where no device of ours has it. Raises
        `BackendLost`."""
        report = _REPORTS.get((control, 1))
        if report is None:
            return False
        self.hands.write(report)
        number = _CODES[control]
        self.hands.presses += number not in self._down
        self._down[number] = None
        return True

    def move_by(self, dx: int, dy: int) -> None:
        """Move the pointer by so many units of a mouse; the desktop's pointer speed applies."""
        self.hands.write(abi.report((abi.EV_REL, abi.REL_X, dx), (abi.EV_REL, abi.REL_Y, dy)))

    def move_to(self, x: int, y: int, width: int, height: int) -> None:
        """Move the pointer to a pixel of a screen of that size, counted from its top left corner (0, 0)."""
        across = round(max(0, min(x, width - 1)) * _FINE / max(1, width - 1))
        down = round(max(0, min(y, height - 1)) * _FINE / max(1, height - 1))
        # The kernel leaves out a value that the device has already, although a mouse may have moved the pointer since:
        # a step beside it first, too small to be seen.
        for place in ((across ^ 1, down ^ 1), (across, down)):
            axes = zip((abi.ABS_X, abi.ABS_Y), place, strict=True)
            self._pointer.write(abi.report(*((abi.EV_ABS, axis, value) for axis, value in axes)))

    def let_go(self) -> None:
        """Let go of what is down, the last press first. Raises `BackendLost`."""
        down, self._down = self._down, {}
        if down:
            self.hands.write(b"".join(abi.report((abi.EV_KEY, number, 0)) for number in reversed(list(down))))

    def close(self) -> None:
        """Remove the devices; the kernel lets go whatever is down on them."""
        self.hands.close()
        self._pointer.close()
