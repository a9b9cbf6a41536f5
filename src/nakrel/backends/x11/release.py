"""Letting go what a service that has ended held: done by the guard, when it is needed."""

from __future__ import annotations

import contextlib

import xcffib

from nakrel.backends.protocols import BackendLost, BackendUnavailable
from nakrel.backends.x11.holds import Holds, Left, Page
from nakrel.backends.x11.injector import Injector
from nakrel.backends.x11.wire import XConnection, read_token

__all__ = ["let_go"]


def let_go(page: Page, left: Left, display: str | None) -> None:
    """Let go what a service left, by its page; where the server can't be reached it has nothing down for us. By then
    another service may write on that page, whose own is left alone."""
    if not left:
        return
    with contextlib.suppress(BackendUnavailable, BackendLost, xcffib.XcffibException, xcffib.ConnectionException):
        _release(left, display)
    page.forget(left)


def _release(left: Left, display: str | None) -> None:
    conn, _, xtest = XConnection.open(display)
    _end_client(conn, *left.client)
    root = conn.get_setup().roots[conn.pref_screen].root
    injector = Injector(conn, xtest, root, lambda code: 0, Holds())
    injector.take_over(left.down)
    injector.let_all_go()
    # A round trip: the server may drop a closed connection with its last requests unread.
    conn.core.GetInputFocus().reply()
    conn.disconnect()


def _end_client(conn: XConnection, window: int, token: int) -> None:
    """End the dead client for good: what it had written may still wait to be handled, presses too, and the server
    forgets that with the client. By now its window may be another's, so the token is asked for, with nobody let in
    between."""
    if not window:
        return
    conn.core.GrabServer()
    try:
        if read_token(conn, window) == token:
            conn.core.KillClient(window, is_checked=True).check()
    except xcffib.XcffibException:
        # It has gone already.
        pass
    finally:
        conn.core.UngrabServer()
        conn.flush()
