"""A new login: the service of the old session makes room for one that reaches the windows of the new."""

from __future__ import annotations

import os
from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from nakrel import protocol as m
from nakrel.client.launch import ensure_service
from nakrel.session import Session
from nakrel.ui.store import Store
from tests.support import ServiceProcess, XServer, wait_for

pytestmark = [
    pytest.mark.x11,
    pytest.mark.skipif(bool(XServer.missing()), reason=f"needs {XServer.missing()}"),
]


def test_the_window_takes_the_service_along_to_a_new_login(
    tmp_path: Path, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
):
    # Tests beside this one take free numbers, which must not be that of the session that has ended.
    old, new = XServer(f":{1_000 + os.getpid() % 30_000}"), XServer()
    store: Store | None = None
    try:
        home = tmp_path / "home"
        service = ServiceProcess(home, DISPLAY=old.display, NAKREL_X11_INJECTOR="xtest")
        assert service.status().backend == "x11"
        monkeypatch.setenv("DISPLAY", new.display)
        monkeypatch.setenv("NAKREL_X11_INJECTOR", "xtest")
        store = Store(lambda: ensure_service(service.home.socket, str(home), "window"))
        alarms: list[str] = []
        store.alarm.connect(alarms.append)
        # While the old session goes on the window says whose the service is, and leaves it there.
        store.open()
        qtbot.waitUntil(lambda: any("belongs to another session" in each for each in alarms), timeout=10_000)
        assert service.process.poll() is None
        store.close()
        old.end_server()
        wait_for(lambda: not Session(old.display).answers(), "the end of the old session")
        store.open()
        first = store._connection
        qtbot.waitUntil(lambda: service.process.poll() == 0, timeout=10_000)
        # The one to the service that has ended may not have been given up yet.
        qtbot.waitUntil(lambda: store._connection not in (None, first), timeout=20_000)
        assert store._connection
        hello = store._connection.call(m.Hello("test", m.PROTOCOL))
        assert isinstance(hello, m.Welcome)
        assert hello.pid != service.process.pid
        answer = store._connection.call(m.GetStatus())
        assert isinstance(answer, m.StatusIs)
        assert answer.status.backend == "x11"
    finally:
        if store is not None and store._connection is not None:
            store._connection.call(m.Shutdown())
            store.close()
        service.client.close()
        for each in (old, new):
            each.end_server()


def test_a_session_is_there_while_somebody_listens(tmp_path: Path):
    assert not Session().answers()
    assert not Session(":987").answers()
    assert not Session("", "wayland-9").answers(str(tmp_path))
    # One on another machine can't be asked so.
    assert Session("elsewhere:10").answers()
