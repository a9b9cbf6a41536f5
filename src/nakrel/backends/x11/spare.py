"""Characters that the keyboard layout has no keys for: under X11 a key that nothing is on can be given one for a while.

All characters of a text are put on keys in one request: programs learn of a new keyboard map some time after it, and a
map that changes from one character to the next is read wrongly by many.
"""

from __future__ import annotations

import contextlib
import threading

import xcffib
import xcffib.xproto

from nakrel.backends.protocols import BackendUnavailable
from nakrel.backends.x11.codes import spare_key
from nakrel.words import tr

__all__ = ["SpareKeys"]

# Programs need a moment to take in the new map.
_SETTLE_S = 0.05
# Keysyms of characters beyond Latin-1 (X11 protocol, appendix A).
_UNICODE = 0x01000000


class SpareKeys:
    """Lends keys, on a connection of its own. Raises `BackendUnavailable`."""

    def __init__(self, display: str | None = None) -> None:
        try:
            self._conn = xcffib.connect(display=display)
        except (xcffib.XcffibException, xcffib.ConnectionException) as error:
            raise BackendUnavailable(tr("no X server answers: {reason}").format(reason=error)) from None
        self._lock = threading.Lock()
        self._lent: dict[str, int] = {}
        self._levels = 0

    def lend(self, chars: str) -> dict[str, str]:
        """A control for each of the characters, as far as there are keys left. It waits until programs know them."""
        with self._lock, contextlib.suppress(xcffib.XcffibException, xcffib.ConnectionException):
            new = [char for char in chars if char not in self._lent]
            for char, keycode in zip(new, self._free() if new else (), strict=False):
                self._put(keycode, ord(char) if ord(char) < 0x100 else _UNICODE + ord(char))
                self._lent[char] = keycode
            if new:
                self._conn.core.GetInputFocus().reply()
                threading.Event().wait(_SETTLE_S)
        return {char: spare_key(self._lent[char]) for char in chars if char in self._lent}

    def take_back(self) -> None:
        """Leave the keys empty, as they were."""
        with self._lock, contextlib.suppress(xcffib.XcffibException, xcffib.ConnectionException):
            for keycode in self._lent.values():
                self._put(keycode, 0)
            self._lent.clear()
            self._conn.core.GetInputFocus().reply()

    def close(self) -> None:
        """Take all back and disconnect."""
        self.take_back()
        with contextlib.suppress(xcffib.XcffibException, xcffib.ConnectionException):
            self._conn.disconnect()

    def _free(self) -> list[int]:
        """Keycodes with no symbol on them, the last first: low ones belong to real keyboards."""
        setup = self._conn.get_setup()
        count = setup.max_keycode - setup.min_keycode + 1
        reply = self._conn.core.GetKeyboardMapping(setup.min_keycode, count).reply()
        self._levels = reply.keysyms_per_keycode
        symbols = list(reply.keysyms)
        rows = [symbols[n * self._levels : (n + 1) * self._levels] for n in range(count)]
        free = [setup.min_keycode + n for n, row in enumerate(rows) if not any(row)]
        return [keycode for keycode in reversed(free) if keycode not in self._lent.values()]

    def _put(self, keycode: int, symbol: int) -> None:
        """Put the symbol on all levels of the key, whatever is held meanwhile."""
        symbols = [symbol] * self._levels
        self._conn.core.ChangeKeyboardMapping(1, keycode, self._levels, symbols)
