"""Injection, and knowing its echo.

Injection is handled inside the request, so an event that carries the number of one of our injections, and is of its
kind and device, is ours. A no-operation after each moves the number on, so that a finger's event that follows is not
taken for ours; kind and device count, too, since the server may handle a finger's event between the two.

Keys are injected through the keyboard that fingers used last: through the XTEST keyboard each change of hands would
make the server announce a new keymap to every program. The XTEST keyboard is left for keys that are grabbed on the
real one.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Callable, Iterable

import xcffib
import xcffib.xinput
import xcffib.xtest

from nakrel.backends.x11.codes import number_of
from nakrel.backends.x11.holds import Holds
from nakrel.backends.x11.wire import XConnection, XiEvent

__all__ = ["Injector"]

# Core event types, as XTEST takes them.
_FAKE_KEY, _FAKE_BUTTON, _FAKE_MOTION = 2, 4, 6
_ABSOLUTE, _RELATIVE = 0, 1
# How many of our injections' numbers are remembered; the server answers within far fewer.
_OWN = 4096


class Injector:
    """Sends events through XTEST. `keyboard_for` says through which device to send a key, 0 for XTEST's own."""

    def __init__(
        self,
        conn: XConnection,
        xtest: xcffib.xtest.xtestExtension,
        root: int,
        keyboard_for: Callable[[str], int],
        holds: Holds,
    ) -> None:
        self._conn, self._xtest, self._root = conn, xtest, root
        self._keyboard_for = keyboard_for
        self._holds = holds
        self._own: deque[tuple[int, int, int, int]] = deque(maxlen=_OWN)
        # The devices that what is injected through none seems to come from.
        self.xtest: frozenset[int] = frozenset()
        # What is down by us, and the device each key went through.
        self._down: dict[str, int] = {}
        # Releases that the server hasn't handled yet, each with its request's number.
        self._released: deque[tuple[int, str]] = deque()
        self._last_released: dict[str, int] = {}
        # The old device events (XIproto.txt) follow the extension's first event: valuator, key press, key release.
        self._device_key = conn.first_event(xcffib.xinput.key) + 1

    def is_own(self, event: XiEvent) -> bool:
        """Whether the event is the echo of something injected here."""
        while self._own and (event.serial - self._own[0][0]) & 0xFFFF < 0x8000:
            if self._own[0][0] == event.serial:
                device = 0 if event.source in self.xtest else event.source
                return self._own[0] == (event.serial, event.kind, event.detail, device)
            self._own.popleft()
        return False

    def send(self, code: str, value: int) -> None:
        """Press (1) or let go (0) a control that X has a number for, or turn the wheel by `value` notches."""
        is_key, number = number_of(code) or (True, 0)
        if code.startswith("WHEEL"):
            for _ in range(value):
                self._fake(_FAKE_BUTTON, number)
                self._fake(_FAKE_BUTTON + 1, number)
            return
        device = 0
        if is_key:
            device = self._keyboard_for(code) if value else self._down.get(code, 0)
        kind = self._device_key if device else _FAKE_KEY if is_key else _FAKE_BUTTON
        if value:
            # Before it is sent: whoever kills us does it at any moment.
            self._down[code] = device
            self._holds.note(code, device or -1)
        serial = self._fake(kind + (0 if value else 1), number, device)
        if not value:
            self._down.pop(code, None)
            self._released.append((serial, code))
            self._last_released[code] = serial

    def lift(self, code: str, devices: Iterable[int]) -> None:
        """Let go of a key on which fingers are, on these devices, and on that by which we may hold it ourselves."""
        is_key, number = number_of(code) or (False, 0)
        for device in devices if is_key else ():
            if device != self._down.get(code):
                self._fake(self._device_key + 1, number, device)
        if code in self._down:
            self.send(code, 0)

    def handled(self, serial: int) -> None:
        """The server has handled our requests up to this number: what they let go is up."""
        while self._released and (serial - self._released[0][0]) & 0xFFFF < 0x8000:
            at, code = self._released.popleft()
            # It may have been pressed and let go again since, which the server hasn't come to yet.
            if self._last_released.get(code) == at and code not in self._down:
                self._holds.note(code, 0)

    def all_handled(self) -> None:
        """The server has handled all of our requests."""
        while self._released:
            self.handled(self._released[0][0])

    def move(self, dx: int, dy: int) -> None:
        """Move the pointer by so many pixels."""
        self._fake(_FAKE_MOTION, _RELATIVE, x=dx, y=dy)

    def move_to(self, x: int, y: int) -> None:
        """Move the pointer to a pixel of the root window."""
        self._fake(_FAKE_MOTION, _ABSOLUTE, x=x, y=y)

    def forget_device(self, device: int) -> None:
        """A keyboard is gone, and with it what was held through it."""
        self._down = {code: through for code, through in self._down.items() if through != device}

    def take_over(self, down: dict[str, int]) -> None:
        """Answer for what another injector holds: each control and the device it went through, 0 for XTEST's."""
        self._down = dict(down)

    def let_all_go(self) -> None:
        """Let go of everything that is down, the last press first."""
        for code in reversed(list(self._down)):
            self.send(code, 0)

    def _fake(self, kind: int, detail: int, device: int = 0, x: int = 0, y: int = 0) -> int:
        """Inject it; returns the request's number."""
        cookie = self._xtest.FakeInput(kind, detail, 0, self._root, x, y, device)
        # Told to us as core kinds, whichever device it went through; a raw motion has no detail.
        core_kind = kind if not device else _FAKE_KEY + kind - self._device_key
        self._own.append((cookie.sequence & 0xFFFF, core_kind, 0 if kind == _FAKE_MOTION else detail, device))
        self._conn.core.NoOperation()
        self._conn.flush()
        return int(cookie.sequence) & 0xFFFF
