"""The keyboard's layout as the compositor has it. Opcodes are those of wayland.xml."""

from __future__ import annotations

import mmap
import os
import struct

from nakrel.backends.protocols import BackendLost, BackendUnavailable
from nakrel.backends.wayland.wire import Wire
from nakrel.system_errors import reason_of

__all__ = ["keymap"]

_CAPABILITIES, _KEYMAP = 0, 0
_GET_KEYBOARD = 1
_HAS_KEYBOARD = 2
_XKB_V1 = 1
# A keymap of all that there is takes a quarter of it.
_MOST_BYTES = 1 << 20


def keymap(display: str | None = None) -> str:
    """The keymap of the seat, in XKB's text format; '' where it has no keyboard, or none with such a keymap. Raises
    `BackendUnavailable` where no compositor answers."""
    return _Seat(display).keymap


class _Seat:
    def __init__(self, display: str | None) -> None:
        self.keymap = ""
        self._seat = self._keyboard = 0
        self._has_keyboard = False
        self._wire = Wire(display, self._hear)
        try:
            self._seat = self._wire.bind("wl_seat", 1)
            if self._seat:
                self._wire.round_trip()
            if self._has_keyboard:
                self._keyboard = self._wire.new()
                self._wire.send(self._seat, _GET_KEYBOARD, struct.pack("=I", self._keyboard))
                self._wire.round_trip()
        except (OSError, BackendLost) as error:
            raise BackendUnavailable(reason_of(error)) from None
        finally:
            self._wire.close()

    def _hear(self, source: int, opcode: int, body: bytes) -> None:
        if source == self._seat and opcode == _CAPABILITIES:
            self._has_keyboard = bool(struct.unpack_from("=I", body)[0] & _HAS_KEYBOARD)
        elif source == self._keyboard and opcode == _KEYMAP:
            form, size = struct.unpack_from("=II", body)
            if not self._wire.files:
                raise struct.error("the file that belongs to it didn't come")
            file = self._wire.files.pop(0)
            try:
                if form == _XKB_V1 and 0 < size <= min(_MOST_BYTES, os.fstat(file).st_size):
                    with mmap.mmap(file, size, mmap.MAP_PRIVATE, mmap.PROT_READ) as text:
                        self.keymap = text[:].partition(b"\0")[0].decode("utf-8", "replace")
            finally:
                os.close(file)
