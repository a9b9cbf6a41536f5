"""Which window is in front on Wayland, where the compositor tells it by wlr-foreign-toplevel-management-unstable-v1.

Opcodes are those of the protocol's own description.
"""

from __future__ import annotations

import contextlib
import struct
from typing import NamedTuple

from nakrel.backends.protocols import BackendLost, BackendUnavailable, WindowInfo
from nakrel.backends.wayland.wire import Wire, read_text
from nakrel.core.model.programs import Front, Icon
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["WaylandWindows"]

_MANAGER = "zwlr_foreign_toplevel_manager_v1"
_DESTROY = 7
_TITLE, _APP_ID, _STATE, _DONE, _CLOSED = 0, 1, 4, 5, 6
_ACTIVATED = 2


class _Window(NamedTuple):
    title: str = ""
    app_id: str = ""
    active: bool = False


class WaylandWindows:
    """Implements `WindowWatch`. Raises `BackendUnavailable` where the compositor doesn't tell of windows."""

    def __init__(self, display: str | None = None) -> None:
        self._manager = 0
        # What a handle has told since it was last done, and what counts.
        self._pending: dict[int, _Window] = {}
        self._windows: dict[int, _Window] = {}
        self._changed = False
        self._wire = Wire(display, self._hear)
        try:
            self._manager = self._wire.bind(_MANAGER, 3)
            if not self._manager:
                raise BackendUnavailable(tr("this desktop doesn't tell programs which window is in front"))
            self._wire.round_trip()
        except (OSError, BackendLost) as error:
            self._wire.close()
            raise BackendUnavailable(reason_of(error)) from None
        except BackendUnavailable:
            self._wire.close()
            raise

    def fileno(self) -> int:
        """The connection's socket."""
        return self._wire.fileno()

    def changed(self) -> bool:
        """Whether another window came to the front, or windows opened or closed, since the last call."""
        self._wire.receive()
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
        self._wire.close()

    def _hear(self, source: int, opcode: int, body: bytes) -> None:
        if source == self._manager:
            if opcode == 0:
                self._pending[struct.unpack_from("=I", body)[0]] = _Window()
        elif source in self._pending:
            self._window_event(source, opcode, body)

    def _window_event(self, handle: int, opcode: int, body: bytes) -> None:
        window = self._pending[handle]
        if opcode == _TITLE:
            self._pending[handle] = window._replace(title=read_text(body, 0)[0])
        elif opcode == _APP_ID:
            self._pending[handle] = window._replace(app_id=read_text(body, 0)[0])
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
                self._wire.send(handle, _DESTROY)
