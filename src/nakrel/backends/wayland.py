"""Which window is in front on Wayland, where the compositor tells it by wlr-foreign-toplevel-management-unstable-v1.

The wire format is that of the Wayland protocol specification (chapter 4); opcodes are those of wayland.xml and of the
protocol's own description.
"""

from __future__ import annotations

import contextlib
import os
import select
import socket
import struct
import time
from pathlib import Path
from typing import NamedTuple

from nakrel.backends.protocols import BackendLost, BackendUnavailable, WindowInfo
from nakrel.core.model.programs import Front, Icon
from nakrel.words import tr

__all__ = ["WaylandWindows"]

_MANAGER = "zwlr_foreign_toplevel_manager_v1"
_DISPLAY, _REGISTRY, _FIRST_FREE = 1, 2, 3
_SYNC, _GET_REGISTRY, _BIND = 0, 1, 0
_DESTROY = 7
_TITLE, _APP_ID, _STATE, _DONE, _CLOSED = 0, 1, 4, 5, 6
_ACTIVATED = 2
_LIMIT_S = 3.0
_MOST_BYTES = 1 << 16


class _Window(NamedTuple):
    title: str = ""
    app_id: str = ""
    active: bool = False


class WaylandWindows:
    """Implements `WindowWatch`. Raises `BackendUnavailable` where the compositor doesn't tell of windows."""

    def __init__(self, display: str | None = None) -> None:
        name = display or os.environ.get("WAYLAND_DISPLAY") or "wayland-0"
        path = Path(os.environ.get("XDG_RUNTIME_DIR") or "/run/user", name)
        self._sock = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM | socket.SOCK_CLOEXEC)
        self._buffer = b""
        self._globals: dict[str, tuple[int, int]] = {}
        self._manager = 0
        self._synced = False
        # What a handle has told since it was last done, and what counts.
        self._pending: dict[int, _Window] = {}
        self._windows: dict[int, _Window] = {}
        self._changed = False
        self._next = _FIRST_FREE
        try:
            self._sock.connect(os.fspath(path))
            self._send(_DISPLAY, _GET_REGISTRY, struct.pack("=I", _REGISTRY))
            self._round_trip()
            if _MANAGER not in self._globals:
                raise BackendUnavailable(tr("this desktop doesn't tell programs which window is in front"))
            number, version = self._globals[_MANAGER]
            self._manager = self._new()
            bound = struct.pack("=I", number) + _text(_MANAGER) + struct.pack("=II", min(version, 3), self._manager)
            self._send(_REGISTRY, _BIND, bound)
            self._round_trip()
            self._sock.setblocking(False)
        except (OSError, BackendLost) as error:
            self._sock.close()
            raise BackendUnavailable(
                tr("no Wayland compositor answers at {path}: {reason}").format(path=path, reason=error)
            ) from None
        except BackendUnavailable:
            self._sock.close()
            raise

    def fileno(self) -> int:
        """The connection's socket."""
        return self._sock.fileno()

    def changed(self) -> bool:
        """Whether another window came to the front, or windows opened or closed, since the last call."""
        self._receive()
        found, self._changed = self._changed, False
        return found

    def front(self) -> Front:
        """The window in front, by its application's id: Wayland tells no process."""
        active = next((window for window in self._windows.values() if window.active), None)
        return Front(0, active.app_id) if active else Front()

    def shown(self) -> list[tuple[int, WindowInfo]]:
        """All windows, of processes unknown."""
        return [(0, WindowInfo(window.title, window.app_id)) for window in self._windows.values()]

    def icon(self, pid: int) -> Icon | None:
        """None: the compositor tells no pictures."""
        return None

    def close(self) -> None:
        """Disconnect; never raises."""
        with contextlib.suppress(OSError):
            self._sock.close()

    def _new(self) -> int:
        self._next += 1
        return self._next - 1

    def _send(self, target: int, opcode: int, body: bytes = b"") -> None:
        self._sock.sendall(struct.pack("=II", target, (8 + len(body)) << 16 | opcode) + body)

    def _round_trip(self) -> None:
        """Wait until the compositor has answered all that was asked."""
        self._synced, callback = False, self._new()
        self._callback = callback
        self._send(_DISPLAY, _SYNC, struct.pack("=I", callback))
        end = time.monotonic() + _LIMIT_S
        while not self._synced:
            left = end - time.monotonic()
            if left <= 0 or not select.select([self._sock], [], [], left)[0]:
                raise BackendLost(tr("it doesn't answer"))
            self._handle_data(self._sock.recv(_MOST_BYTES))

    def _receive(self) -> None:
        while True:
            try:
                data = self._sock.recv(_MOST_BYTES)
            except BlockingIOError:
                return
            except OSError as error:
                raise BackendLost(
                    tr("the Wayland compositor is gone: {reason}").format(reason=error.strerror)
                ) from None
            self._handle_data(data)

    def _handle_data(self, data: bytes) -> None:
        if not data:
            raise BackendLost(tr("the Wayland compositor is gone"))
        self._buffer += data
        while len(self._buffer) >= 8:
            source, head = struct.unpack_from("=II", self._buffer)
            size, opcode = head >> 16, head & 0xFFFF
            if size < 8:
                raise BackendLost(tr("the Wayland compositor sent what can't be read"))
            if len(self._buffer) < size:
                return
            body, self._buffer = self._buffer[8:size], self._buffer[size:]
            try:
                self._event(source, opcode, body)
            except (struct.error, UnicodeDecodeError):
                raise BackendLost(tr("the Wayland compositor sent what can't be read")) from None

    def _event(self, source: int, opcode: int, body: bytes) -> None:
        if source == _DISPLAY:
            if opcode == 0:
                raise BackendLost(
                    tr("the Wayland compositor refused us: {read_text}").format(read_text=_read_text(body, 8)[0])
                )
        elif source == _REGISTRY:
            if opcode == 0:
                name = struct.unpack_from("=I", body)[0]
                interface, at = _read_text(body, 4)
                self._globals[interface] = (name, struct.unpack_from("=I", body, at)[0])
        elif source == self._manager:
            if opcode == 0:
                self._pending[struct.unpack_from("=I", body)[0]] = _Window()
        elif source in self._pending:
            self._window_event(source, opcode, body)
        elif source == self._callback:
            self._synced = True

    def _window_event(self, handle: int, opcode: int, body: bytes) -> None:
        window = self._pending[handle]
        if opcode == _TITLE:
            self._pending[handle] = window._replace(title=_read_text(body, 0)[0])
        elif opcode == _APP_ID:
            self._pending[handle] = window._replace(app_id=_read_text(body, 0)[0])
        elif opcode == _STATE:
            count = struct.unpack_from("=I", body)[0] // 4
            states = struct.unpack_from(f"={count}I", body, 4)
            self._pending[handle] = window._replace(active=_ACTIVATED in states)
        elif opcode == _DONE:
            self._changed = self._changed or self._windows.get(handle) != window
            self._windows[handle] = window
        elif opcode == _CLOSED:
            del self._pending[handle]
            self._changed = self._windows.pop(handle, None) is not None or self._changed
            with contextlib.suppress(OSError):
                self._send(handle, _DESTROY)


def _text(text: str) -> bytes:
    """A string as an argument: its length with the closing zero, and padding to four bytes."""
    data = text.encode() + b"\0"
    return struct.pack("=I", len(data)) + data + b"\0" * (-len(data) % 4)


def _read_text(body: bytes, at: int) -> tuple[str, int]:
    """The string at a place, and the place after it."""
    length = struct.unpack_from("=I", body, at)[0]
    if at + 4 + length > len(body):
        raise struct.error("a string goes on beyond its message")
    text = body[at + 4 : at + 4 + max(0, length - 1)].decode("utf-8", "replace")
    return text, at + 4 + length + (-length % 4)
