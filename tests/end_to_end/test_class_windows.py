"""Windows that tell no process are found by their class, on a real X server with a window manager."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
import xcffib
import xcffib.xproto

from nakrel.backends.x11.screens import X11Screens
from tests.support import XServer, wait_for

pytestmark = [pytest.mark.x11, pytest.mark.skipif(bool(XServer.missing()), reason=f"needs {XServer.missing()}")]


@pytest.fixture
def server() -> Iterator[XServer]:
    made = XServer()
    yield made
    made.end_server()


def make_window(connection: xcffib.Connection, window_class: bytes) -> int:
    screen = connection.get_setup().roots[0]
    window: int = connection.generate_id()
    connection.core.CreateWindow(
        screen.root_depth, window, screen.root, 0, 0, 200, 120, 0, 1, screen.root_visual, 0, []
    )
    value = window_class.lower() + b"\0" + window_class + b"\0"
    atom = xcffib.xproto.Atom
    connection.core.ChangeProperty(0, window, atom.WM_CLASS, atom.STRING, 8, len(value), value)
    connection.core.MapWindow(window)
    connection.flush()
    return window


def test_a_window_without_a_process_comes_to_the_front_by_its_class(server: XServer):
    connection = xcffib.connect(server.display)
    screens = X11Screens(server.display)
    try:
        lantern, anchor = make_window(connection, b"Lantern"), make_window(connection, b"Anchor")
        wait_for(lambda: len(screens.shown()) == 2, "both windows")
        assert {pid for pid, _ in screens.shown()} == {0}
        in_front = lambda: screens._numbers(screens._root, "_NET_ACTIVE_WINDOW")  # noqa: E731
        for window, name in ((lantern, "lantern"), (anchor, "anchor"), (lantern, "lantern")):
            assert screens.bring_to_front((), {name})
            wait_for(lambda w=window: in_front() == [w], f"{name} in front")
        assert not screens.bring_to_front((), {"lan"})
        assert not screens.bring_to_front((4_000_000,))
    finally:
        screens.close()
        connection.disconnect()
