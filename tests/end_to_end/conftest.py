"""X servers and a service for stories without a window. Those of the window need one on a real X server, so they run
in a pytest of their own inside one."""

from __future__ import annotations

import os
import signal
from collections.abc import Iterator
from pathlib import Path

import pytest

from tests.loaded import LoadedService
from tests.support import ServiceProcess, XServer
from tests.xorg import XorgServer

collect_ignore = [] if os.environ.get("NAKREL_STORY") else ["in_x"]


@pytest.fixture(params=[XServer, XorgServer], ids=["xvfb", "xorg"])
def server(request: pytest.FixtureRequest) -> Iterator[XServer]:
    """An X server where the hand injects, and one where it is on devices of its own."""
    if request.param.missing():
        pytest.skip(f"needs {request.param.missing()}")
    server = request.param()
    try:
        yield server
    finally:
        server.end_server()


@pytest.fixture
def service(server: XServer, tmp_path: Path) -> Iterator[ServiceProcess]:
    injector = server.environment.get("NAKREL_X11_INJECTOR", "")
    service = LoadedService(tmp_path / "home", DISPLAY=server.display, NAKREL_X11_INJECTOR=injector)
    yield service
    service.tell()
    service.end(signal.SIGKILL)
