"""The screens under X11, the pointer on them, and the places of windows. All in pixels of the root window.

Monitors after RandR 1.5, the pointer's picture after XFixes 1.0, windows after the EWMH (Extended Window Manager
Hints 1.5).
"""

from __future__ import annotations

import contextlib
from collections.abc import Collection

import xcffib
import xcffib.randr
import xcffib.xfixes
import xcffib.xproto

from nakrel.backends.protocols import BackendLost, BackendUnavailable
from nakrel.backends.x11.windows import X11Windows
from nakrel.core.model.places import Monitor, Window
from nakrel.words import tr

__all__ = ["X11Screens"]

# Who asks for a window to come to the front: a pager, which window managers obey.
_FROM_PAGER = 2
_TO_ROOT = xcffib.xproto.EventMask.SubstructureRedirect | xcffib.xproto.EventMask.SubstructureNotify


class X11Screens(X11Windows):
    """Implements `Screens`, on a connection of its own. Raises `BackendUnavailable` when made without an X server."""

    def __init__(self, display: str | None = None) -> None:
        super().__init__(display)
        try:
            self._randr = self._conn(xcffib.randr.key)
            self._randr.QueryVersion(1, 5).reply()
            self._cursors = self._find_cursors()
        except (xcffib.XcffibException, xcffib.ConnectionException) as error:
            raise BackendUnavailable(
                tr("the X server doesn't tell of its monitors: {reason}").format(reason=error)
            ) from None

    def pointer(self) -> tuple[int, int]:
        """Where the pointer is. Raises `BackendLost`."""
        with self._telling_of_loss():
            reply = self._conn.core.QueryPointer(self._root).reply()
            return reply.root_x, reply.root_y

    def pointer_is_hidden(self) -> bool:
        """Whether the pointer's picture has nothing in it, as where a program hides it. Raises `BackendLost`."""
        if self._cursors is None:
            return False
        with self._telling_of_loss():
            picture = self._cursors.GetCursorImage().reply().cursor_image
            # Alpha is the highest byte of each.
            return not any(pixel >> 24 for pixel in picture)

    def _find_cursors(self) -> xcffib.xfixes.xfixesExtension | None:
        """What knows the pointer's picture: XFixes, which not every server has."""
        if not self._has(xcffib.xfixes.key):
            return None
        cursors = self._conn(xcffib.xfixes.key)
        cursors.QueryVersion(1, 0).reply()
        return cursors

    def size(self) -> tuple[int, int]:
        """The width and height of all screens together. Raises `BackendLost`."""
        with self._telling_of_loss():
            reply = self._conn.core.GetGeometry(self._root).reply()
            return reply.width, reply.height

    def monitors(self) -> tuple[Monitor, ...]:
        """Every monitor, by its output's name. Raises `BackendLost`."""
        with self._telling_of_loss():
            found = self._randr.GetMonitors(self._root, True).reply().monitors
            return tuple(Monitor(self._atom_name(each.name), each.x, each.y, each.width, each.height) for each in found)

    def front_window(self) -> Window | None:
        """The place of the window in front; None where there is none. Raises `BackendLost`."""
        windows = self._numbers(self._root, "_NET_ACTIVE_WINDOW")
        return self._place(windows[0]) if windows and windows[0] else None

    def window_of(self, pids: Collection[int]) -> Window | None:
        """The place of the first window of one of these processes. Raises `BackendLost`."""
        found = self._first_window(pids)
        return self._place(found) if found else None

    def bring_to_front(self, pids: Collection[int], classes: Collection[str] = ()) -> bool:
        """Bring the first window of one of these processes to the front, else the first that tells no process and is
        of one of these classes (in small letters); False where there is none."""
        window = self._first_window(pids) or self._first_of_class(classes)
        if not window:
            return False
        data = xcffib.xproto.ClientMessageData.synthetic([_FROM_PAGER, 0, 0, 0, 0], "IIIII")
        event = xcffib.xproto.ClientMessageEvent.synthetic(32, window, self._atoms["_NET_ACTIVE_WINDOW"], data)
        with self._telling_of_loss():
            self._conn.core.SendEvent(False, self._root, _TO_ROOT, event.pack())
            self._conn.flush()
        return True

    def _first_window(self, pids: Collection[int]) -> int:
        windows = self._numbers(self._root, "_NET_CLIENT_LIST")
        return next((window for window in windows if self._pid(window) in pids), 0)

    def _first_of_class(self, classes: Collection[str]) -> int:
        """Old programs, and those in some sandboxes, tell no process: their class is what there is to go by."""
        windows = self._numbers(self._root, "_NET_CLIENT_LIST") if classes else []
        return next((w for w in windows if not self._pid(w) and self._class(w).casefold() in classes), 0)

    def _place(self, window: int) -> Window | None:
        """The window's inside on the screen; None where it is gone by now."""
        try:
            size = self._conn.core.GetGeometry(window).reply()
            corner = self._conn.core.TranslateCoordinates(window, self._root, 0, 0).reply()
        except (xcffib.ProtocolException, xcffib.Error):
            return None
        except (xcffib.XcffibException, xcffib.ConnectionException) as error:
            raise BackendLost(tr("the X server is gone: {reason}").format(reason=error)) from None
        title = self._property(window, "_NET_WM_NAME") or self._property(window, "WM_NAME")
        place = corner.dst_x, corner.dst_y, size.width, size.height
        return Window(*place, self._pid(window), title.decode("utf-8", "replace"))

    def _atom_name(self, atom: int) -> str:
        name: str = self._conn.core.GetAtomName(atom).reply().name.to_string()
        return name

    @contextlib.contextmanager
    def _telling_of_loss(self):
        try:
            yield
        except (xcffib.XcffibException, xcffib.ConnectionException) as error:
            raise BackendLost(tr("the X server is gone: {reason}").format(reason=error)) from None
