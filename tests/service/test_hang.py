"""A service that hangs is started anew by itself, and says so; one that was stopped goes on."""

from __future__ import annotations

import contextlib
import signal
from pathlib import Path

from nakrel import protocol as m
from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Press, Wait
from tests.support import ServiceProcess, pause, wait_for

HOLD = Macro(id="hold", name="Hold", play=Play(Mode.TOGGLE), loop=(Press(control="KEY_W"), Wait(wait_us=500_000_000)))
# A service that hangs when it is asked to stop a macro, once.
HANGS = """
import os, sys
from nakrel.service import start
from nakrel.service.requests import Requests

def endless(self, client, number, body):
    while True:
        pass

if not os.environ.get(start.ENDED_BY):
    Requests._stop = endless
sys.exit(start.main(sys.argv[1:]))
"""


def journal(client: ServiceConnection) -> list[m.Entry]:
    answer = client.call(m.GetJournal())
    assert isinstance(answer, m.Journal)
    return list(answer.entries)


def test_a_service_that_hangs_is_started_anew_without_any_window(tmp_path: Path):
    service = ServiceProcess(tmp_path / "home", "--backend", "stand-in", program=("-c", HANGS))
    service.call(m.PutMacro(HOLD))
    service.call(m.Play_("hold"))
    # Left open: a request of a client that goes away at once may be dropped with it.
    service.client.send(m.Stop("hold"))

    def back() -> ServiceConnection | None:
        with contextlib.suppress(ClientError, OSError):
            client = ServiceConnection.connect(service.home.socket, "test", 1.0)
            if any("did not answer any more" in entry.what for entry in journal(client)):
                return client
            client.close()
        return None

    client = wait_for(back, "the service that was started anew")
    assert client
    service.client.close()
    # It is the same process, with everything that it had open closed.
    assert client.call(m.Hello("test", m.PROTOCOL)).pid == service.process.pid  # type: ignore[union-attr]
    status = client.call(m.GetStatus())
    assert isinstance(status, m.StatusIs)
    assert status.status.running == ()
    # Nothing that was saved is lost, and it is what it was.
    library = client.call(m.GetLibrary())
    assert isinstance(library, m.Library)
    assert library.macros == (HOLD,)
    assert "in endless" in service.home.log.read_text()
    started = [entry.at for entry in journal(client) if entry.what == "the service started"]
    told = next(entry.at for entry in journal(client) if "did not answer any more" in entry.what)
    assert len(started) == 2
    assert told - started[1] < 2
    client.close()
    service.process.send_signal(signal.SIGTERM)
    assert service.process.wait(15) == 0


def test_a_service_that_was_stopped_goes_on_with_its_macros(tmp_path: Path):
    service = ServiceProcess(tmp_path / "home", "--backend", "stand-in")
    service.call(m.PutMacro(HOLD))
    service.call(m.Play_("hold"))
    for _ in range(2):
        service.process.send_signal(signal.SIGSTOP)
        pause(6)
        service.process.send_signal(signal.SIGCONT)
        assert [run.macro for run in service.status().running] == ["hold"]
    pause(2.5)
    assert [run.macro for run in service.status().running] == ["hold"]
    assert service.end() == 0
