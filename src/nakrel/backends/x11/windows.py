"""Which window is in front and whose windows there are, after the EWMH (Extended Window Manager Hints 1.5)."""

from __future__ import annotations

import contextlib
from collections.abc import Iterator

import xcffib
import xcffib.res
import xcffib.xproto

from nakrel.backends.protocols import BackendLost, BackendUnavailable, WindowInfo
from nakrel.core.model.programs import Front, Icon
from nakrel.words import tr

__all__ = ["X11Windows"]

_ANY = 0
_LONGEST = 4096
# Pictures of up to 256 x 256 pixels and some smaller ones, in words of four bytes.
_LONGEST_ICON = 1 << 18
_ICON_PX = 20


class X11Windows:
    """Implements `WindowWatch` on a connection of its own. Raises `BackendUnavailable`."""

    def __init__(self, display: str | None = None) -> None:
        try:
            self._conn = xcffib.connect(display=display)
        except (xcffib.XcffibException, xcffib.ConnectionException) as error:
            raise BackendUnavailable(
                tr("no X server answers on {display}: {reason}").format(display=display or "$DISPLAY", reason=error)
            ) from None
        self._root = self._conn.get_setup().roots[self._conn.pref_screen].root
        self._fileno = self._conn.get_file_descriptor()
        names = (
            *("_NET_ACTIVE_WINDOW", "_NET_CLIENT_LIST", "_NET_WM_PID", "_NET_WM_NAME", "_NET_WM_ICON"),
            *("WM_NAME", "WM_CLASS"),
        )
        self._atoms = {name: self._conn.core.InternAtom(False, len(name), name).reply().atom for name in names}
        self._clients = self._find_clients()
        # Which part of a window's number is its client's.
        self._client_mask = ~self._conn.get_setup().resource_id_mask
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
            except (xcffib.ProtocolException, xcffib.Error):
                continue
            except (xcffib.XcffibException, xcffib.ConnectionException) as error:
                raise BackendLost(tr("the X server is gone: {reason}").format(reason=error)) from None
            if event is None:
                return found
            found = found or getattr(event, "atom", None) in watched

    def front(self) -> Front:
        """The window in front; its process is 0 where it doesn't say."""
        windows = self._numbers(self._root, "_NET_ACTIVE_WINDOW")
        if not windows or not windows[0]:
            return Front()
        return Front(self._pid(windows[0]), self._class(windows[0]))

    def shown(self) -> list[tuple[int, WindowInfo]]:
        """All windows with their processes, 0 where one doesn't say."""
        found = []
        windows = self._numbers(self._root, "_NET_CLIENT_LIST")
        for window, pid in zip(windows, self._pids(windows), strict=True):
            text = self._property(window, "_NET_WM_NAME") or self._property(window, "WM_NAME")
            found.append((pid, WindowInfo(text.decode("utf-8", "replace"), self._class(window))))
        return found

    def icon(self, pid: int) -> Icon | None:
        """The picture of the process's first window, the smallest that is large enough (EWMH, _NET_WM_ICON)."""
        windows = self._numbers(self._root, "_NET_CLIENT_LIST")
        for window, its_pid in zip(windows, self._pids(windows), strict=True):
            if its_pid == pid:
                return _icon(self._numbers(window, "_NET_WM_ICON", _LONGEST_ICON))
        return None

    def _class(self, window: int) -> str:
        """The second of the two texts in WM_CLASS (ICCCM 4.1.2.5)."""
        parts = self._property(window, "WM_CLASS").split(b"\0")
        return parts[1].decode("latin-1") if len(parts) > 1 else ""

    def close(self) -> None:
        """Disconnect; never raises."""
        with contextlib.suppress(xcffib.XcffibException, xcffib.ConnectionException):
            self._conn.disconnect()

    def _find_clients(self) -> xcffib.res.resExtension | None:
        """What knows the clients' processes: X-Resource 1.2, which not every server has."""
        if not self._has(xcffib.res.key):
            return None
        try:
            clients = self._conn(xcffib.res.key)
            version = clients.QueryVersion(1, 2).reply()
        except (xcffib.XcffibException, xcffib.ConnectionException):
            return None
        return clients if (version.server_major, version.server_minor) >= (1, 2) else None

    def _has(self, extension: xcffib.ExtensionKey) -> bool:
        """Whether the server has it: xcb gives the connection up where something is asked of one that isn't there."""
        return bool(self._conn.core.QueryExtension(len(extension.name), extension.name).reply().present)

    def _pids(self, windows: list[int]) -> list[int]:
        """The process of each window, 0 where it doesn't say. What the server knows of the client counts then: in a
        sandbox a program may count its processes otherwise than we do."""
        known: dict[int, int] = {}
        if self._clients is not None and windows:
            pid = xcffib.res.ClientIdMask.LocalClientPID
            asked = [xcffib.res.ClientIdSpec.synthetic(window, pid) for window in windows]
            with _telling_of_loss():
                answer = self._clients.QueryClientIds(len(asked), asked).reply()
                known = {each.spec.client: each.value[0] for each in answer.ids if each.value}
        said = map(self._said_pid, windows)
        return [pid and known.get(window & self._client_mask, pid) for window, pid in zip(windows, said, strict=True)]

    def _pid(self, window: int) -> int:
        return self._pids([window])[0]

    def _said_pid(self, window: int) -> int:
        numbers = self._numbers(window, "_NET_WM_PID")
        return numbers[0] if numbers else 0

    def _numbers(self, window: int, name: str, most: int = _LONGEST) -> list[int]:
        data = self._property(window, name, most)
        return [int.from_bytes(data[n : n + 4], "little") for n in range(0, len(data) - 3, 4)]

    def _property(self, window: int, name: str, most: int = _LONGEST) -> bytes:
        """A property's bytes; none where the window is gone by now."""
        reply = None
        with _telling_of_loss():
            reply = self._conn.core.GetProperty(False, window, self._atoms[name], _ANY, 0, most).reply()
        if reply is None:
            return b""
        return b"".join(reply.value) if reply.format == 8 else reply.value.buf()


@contextlib.contextmanager
def _telling_of_loss() -> Iterator[None]:
    """An answer that there is no such window, by now, is left out."""
    try:
        yield
    except (xcffib.ProtocolException, xcffib.Error):
        pass
    except (xcffib.XcffibException, xcffib.ConnectionException) as error:
        raise BackendLost(tr("the X server is gone: {reason}").format(reason=error)) from None


def _icon(words: list[int]) -> Icon | None:
    """The smallest picture of at least `_ICON_PX`, else the largest; words are width, height and pixels, repeated."""
    found: list[tuple[int, int, int]] = []
    at = 0
    while at + 2 <= len(words):
        width, height = words[at], words[at + 1]
        if not 1 <= width <= 512 or not 1 <= height <= 512 or at + 2 + width * height > len(words):
            break
        found.append((width, height, at + 2))
        at += 2 + width * height
    if not found:
        return None
    large = [each for each in found if min(each[:2]) >= _ICON_PX]
    width, height, at = min(large) if large else max(found)
    if width * height > 64 * 64:
        return None
    return Icon(width, height, b"".join(word.to_bytes(4, "little") for word in words[at : at + width * height]))
