"""Whether the window manager looks at each click before a window gets it.

Many do, to focus and raise the window: they grab the button on it, synchronously, and have the click replayed
(AllowEvents, ReplayPointer, in the X protocol). What comes before they have answered can get lost.
"""

from __future__ import annotations

import xcffib
import xcffib.xproto

from nakrel.backends.protocols import BackendUnavailable
from nakrel.backends.x11.wire import XConnection

__all__ = ["looks_at_clicks"]

_FIRST_BUTTON = 1
_ACTIVE = b"_NET_ACTIVE_WINDOW"


def looks_at_clicks(display: str | None = None) -> bool | None:
    """Whether another client has grabbed plain clicks on the window in front or on one around it; None where there is
    no such window.

    A second grab of the same button is refused (BadAccess, the X protocol's GrabButton), so it is tried, and given back
    at once, while the server listens to nobody else.
    """
    try:
        conn, _, _ = XConnection.open(display)
    except BackendUnavailable:
        return None
    try:
        return _looks(conn)
    except (xcffib.XcffibException, xcffib.ConnectionException):
        # The window may go at any time, and the server, too.
        return None
    finally:
        conn.disconnect()


def _looks(conn: XConnection) -> bool | None:
    core, root = conn.core, conn.get_setup().roots[0].root
    atom = core.InternAtom(False, len(_ACTIVE), _ACTIVE).reply().atom
    found = core.GetProperty(False, root, atom, xcffib.xproto.Atom.WINDOW, 0, 1).reply().value.to_atoms()
    window = found[0] if found else 0
    if not window:
        return None
    while window and window != root:
        if _is_grabbed(conn, window):
            return True
        window = core.QueryTree(window).reply().parent
    return False


def _is_grabbed(conn: XConnection, window: int) -> bool:
    core, mode = conn.core, xcffib.xproto.GrabMode.Async
    core.GrabServer()
    try:
        core.GrabButtonChecked(False, window, 0, mode, mode, 0, 0, _FIRST_BUTTON, 0).check()
        core.UngrabButton(_FIRST_BUTTON, window, 0)
    except xcffib.xproto.AccessError:
        return True
    finally:
        core.UngrabServer()
        conn.flush()
    return False
