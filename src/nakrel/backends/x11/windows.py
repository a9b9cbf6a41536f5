"""Which window is in front and whose windows there are, after the EWMH (Extended Window Manager Hints 1.5)."""

from __future__ import annotations

import contextlib

import xcffib
import xcffib.xproto

from nakrel.backends.protocols import BackendLost, BackendUnavailable

__all__ = ["X11Windows"]

_ANY = 0
_LONGEST = 4096


class X11Windows:
    """Implements `WindowWatch` on a connection of its own. Raises `BackendUnavailable`."""

    def __init__(self, display: str | None = None) -> None:
        try:
            self._conn = xcffib.connect(display=display)
        except (xcffib.XcffibException, xcffib.ConnectionException) as error:
            raise BackendUnavailable(f"no X server answers on {display or '$DISPLAY'}: {error}") from None
        self._root = self._conn.get_setup().roots[self._conn.pref_screen].root
        self._fileno = self._conn.get_file_descriptor()
        names = ("_NET_ACTIVE_WINDOW", "_NET_CLIENT_LIST", "_NET_WM_PID", "_NET_WM_NAME", "WM_NAME")
        self._atoms = {name: self._conn.core.InternAtom(False, len(name), name).reply().atom for name in names}
        self._conn.core.ChangeWindowAttributes(
            self._root, xcffib.xproto.CW.EventMask, [xcffib.xproto.EventMask.PropertyChange]
        )
        self._conn.flush()

    def fileno(self) -> int:
        """The connection's socket."""
        return self._fileno

    def changed(self) -> bool:
        """Whether another window came to the front, or windows opened or closed, since the last call."""
        watched = {self._atoms["_NET_ACTIVE_WINDOW"], self._atoms["_NET_CLIENT_LIST"]}
        found = False
        while True:
            try:
                event = self._conn.poll_for_event()
            except xcffib.ProtocolException:
                continue
            except (xcffib.XcffibException, xcffib.ConnectionException) as error:
                raise BackendLost(f"the X server is gone: {error}") from None
            if event is None:
                return found
            found = found or getattr(event, "atom", None) in watched

    def front_pid(self) -> int:
        """The process whose window is in front; 0 where there is none or it doesn't say."""
        windows = self._numbers(self._root, "_NET_ACTIVE_WINDOW")
        return self._pid(windows[0]) if windows and windows[0] else 0

    def titles(self) -> dict[int, str]:
        """The title of each process's first window, by process id."""
        found: dict[int, str] = {}
        for window in self._numbers(self._root, "_NET_CLIENT_LIST"):
            if pid := self._pid(window):
                text = self._property(window, "_NET_WM_NAME") or self._property(window, "WM_NAME")
                found.setdefault(pid, text.decode("utf-8", "replace"))
        return found

    def close(self) -> None:
        """Disconnect; never raises."""
        with contextlib.suppress(xcffib.XcffibException, xcffib.ConnectionException):
            self._conn.disconnect()

    def _pid(self, window: int) -> int:
        numbers = self._numbers(window, "_NET_WM_PID")
        return numbers[0] if numbers else 0

    def _numbers(self, window: int, name: str) -> list[int]:
        data = self._property(window, name)
        return [int.from_bytes(data[n : n + 4], "little") for n in range(0, len(data) - 3, 4)]

    def _property(self, window: int, name: str) -> bytes:
        """A property's bytes; none where the window is gone by now."""
        try:
            reply = self._conn.core.GetProperty(False, window, self._atoms[name], _ANY, 0, _LONGEST).reply()
        except xcffib.ProtocolException:
            return b""
        except (xcffib.XcffibException, xcffib.ConnectionException) as error:
            raise BackendLost(f"the X server is gone: {error}") from None
        return b"".join(reply.value) if reply.format == 8 else reply.value.buf()
