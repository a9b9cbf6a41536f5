"""The guard: what it lets go is what a service that has ended left, and nothing of one that lives."""

from __future__ import annotations

import os
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest
import xcffib

from nakrel.backends.protocols import BackendLost
from nakrel.backends.x11 import guarding
from nakrel.backends.x11.backend import X11Backend
from nakrel.backends.x11.holds import Page
from nakrel.backends.x11.release import let_go
from nakrel.core.play.events import Emit
from tests.support import LIMIT_S, XServer, wait_for

pytestmark = [
    pytest.mark.x11,
    pytest.mark.skipif(bool(XServer.missing()), reason=f"needs {XServer.missing()}"),
]


@pytest.fixture(scope="module")
def server() -> Iterator[XServer]:
    server = XServer()
    yield server
    server.end_server()


@pytest.fixture
def page(tmp_path: Path) -> Iterator[Page]:
    page = Page.of_file(tmp_path / "holds")
    yield page
    page.close()


def lives(backend: X11Backend) -> bool:
    """Whether the server still has it."""
    try:
        backend._conn.core.GetInputFocus().reply()
        backend.read()
    except (BackendLost, xcffib.XcffibException, xcffib.ConnectionException):
        return False
    return True


def start_guard(page: Page, left: str, display: str) -> None:
    """Have a guard start, and wait until it has dealt with what was left."""
    read_fd, alive = os.pipe()
    ready, ready_fd = os.pipe()
    given = (read_fd, ready_fd)
    command = [sys.executable, "-S", "-E", guarding.__file__, *map(str, (*given, page.fd)), left, display, *sys.path]
    process = subprocess.Popen(command, pass_fds=(*given, page.fd))
    for fd in given:
        os.close(fd)
    assert os.read(ready, 1) == b"r"
    os.close(ready)
    os.write(alive, guarding.HOME)
    os.close(alive)
    assert process.wait(LIMIT_S) == 0


def test_a_guard_that_starts_slowly_leaves_its_own_service_alone(server: XServer, page: Page):
    """A busy machine starts it later than the service has connected: it took that for one that had ended."""
    backend = X11Backend(server.display, injector_is_xtest=True, holds=page)
    backend.emit([Emit("KEY_W", 1, 0, "m")])
    start_guard(page, "", server.display)
    assert lives(backend)
    assert page.read().down == {"KEY_W": 0}
    # The same of a service that has ended: this is how it is told from that.
    start_guard(page, page.read().noted.hex(), server.display)
    wait_for(lambda: not lives(backend), "the end of its connection")
    assert not page.read()


def test_what_another_service_notes_meanwhile_stays(server: XServer, page: Page):
    """Where a window server keeps a guard waiting, the next service begins without it."""
    page.note("KEY_Q", -1)
    page.note("KEY_R", -1)
    left = page.read()
    backend = X11Backend(server.display, injector_is_xtest=True, holds=page)
    backend.emit([Emit("KEY_W", 1, 0, "m")])
    let_go(page, left, server.display)
    assert lives(backend)
    assert page.read().down == {"KEY_W": 0}
    assert page.read().client[0]
    backend.close()
