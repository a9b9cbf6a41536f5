"""The pointer's speed under X11: the server multiplies each device's relative motion by a matrix, which is changed.

The matrix is the property "Coordinate Transformation Matrix" of the device, nine floats row by row; the server keeps
parts of pixels for the next motion (xserver, dix/getevents.c). What it was before is kept in a property beside it, so
that whoever comes after a service that was killed can put it back.
"""

from __future__ import annotations

import struct
from collections.abc import Iterable

import xcffib
import xcffib.xinput
import xcffib.xproto

from nakrel.core.model.conditioning import Motion

__all__ = ["PointerSpeed"]

_MATRIX = "Coordinate Transformation Matrix"
_BEFORE = "Nakrel Matrix Before"
_FLOATS = struct.Struct("=9f")
_WORDS = struct.Struct("=9I")
_REPLACE, _CARDINAL_BITS = 0, 32

Matrix = tuple[float, ...]


class PointerSpeed:
    """Changes and puts back the speed of slave devices, told by their ids."""

    def __init__(self, conn: xcffib.Connection, xi: xcffib.xinput.xinputExtension) -> None:
        self._conn, self._xi = conn, xi
        asked = [conn.core.InternAtom(False, len(name), name) for name in (_MATRIX, _BEFORE, "FLOAT")]
        self._matrix, self._before, self._float = (each.reply().atom for each in asked)
        self._done: dict[int, Motion] = {}

    def set(self, devices: Iterable[int], motion: Motion | None) -> None:
        """Give these devices the speed from left to right and up and down; None gives them back their own."""
        devices = set(devices)
        for device in self._done.keys() - devices:
            # It is gone, and its properties with it.
            del self._done[device]
        if motion is None or motion[:2] == (100, 100):
            self.restore(self._done)
            self._done.clear()
            return
        for device in devices:
            if self._done.get(device) != motion and self._change(device, motion):
                self._done[device] = motion
        self._conn.flush()

    def look_again(self) -> None:
        """Devices have come or gone: one may be another under an id that is known."""
        self._done.clear()

    def restore(self, devices: Iterable[int]) -> None:
        """Put back what a device had before, where anything of ours is left on it."""
        for device in list(devices):
            if before := self._read(device, self._before):
                self._write(device, self._matrix, before)
                self._xi.XIDeleteProperty(device, self._before)
        self._conn.flush()

    def _change(self, device: int, motion: Motion) -> bool:
        before = self._read(device, self._before)
        if before is None:
            before = self._read(device, self._matrix)
            if before is None:
                return False
            self._write(device, self._before, before)
        across, down = motion.across / 100, motion.down / 100
        rows = (*(each * across for each in before[:3]), *(each * down for each in before[3:6]), *before[6:])
        self._write(device, self._matrix, rows)
        return True

    def _read(self, device: int, atom: int) -> Matrix | None:
        try:
            reply = self._xi.XIGetProperty(device, 0, atom, self._float, 0, 9).reply()
        except (xcffib.ProtocolException, xcffib.Error):
            # The device has just gone.
            return None
        if reply.format != _CARDINAL_BITS or reply.num_items != 9:
            return None
        return _FLOATS.unpack(_WORDS.pack(*reply.data32))

    def _write(self, device: int, atom: int, matrix: Matrix) -> None:
        words = list(_WORDS.unpack(_FLOATS.pack(*matrix)))
        self._xi.XIChangeProperty(device, _REPLACE, _CARDINAL_BITS, atom, self._float, 9, [words])
