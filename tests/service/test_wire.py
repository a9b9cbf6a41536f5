"""The socket: each request gets exactly one answer, whatever is in it, and what plays goes on."""

from __future__ import annotations

import contextlib
import json
import os
import random
import select
import socket
import subprocess
import sys
from collections import Counter
from collections.abc import Iterator
from pathlib import Path

import msgspec
import pytest

from nakrel import protocol as m
from nakrel.client.connection import ServiceRefused
from nakrel.core.model.cells import GoTo, RunMacro, What
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile, SetUp
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Tap
from nakrel.protocol.wire import encode_line
from tests.loaded import LoadedService
from tests.requests import HOLD, bodies, broken
from tests.support import LIMIT_S, ServiceProcess, wait_for

# scripts/soak counts on.
REQUESTS = int(os.environ.get("NAKREL_REQUESTS", "5000"))


@pytest.fixture
def service(tmp_path: Path) -> Iterator[ServiceProcess]:
    made = LoadedService(tmp_path / "home", "--backend", "stand-in")
    yield made
    assert made.end() == 0


def test_each_of_many_requests_of_any_shape_gets_exactly_one_answer(service: ServiceProcess):
    service.call(m.PutMacro(HOLD))
    service.call(m.Play_("hold"))
    chance, kinds = random.Random(4), bodies()
    counted: Counter[int] = Counter()
    buffer = bytearray()
    with socket.socket(socket.AF_UNIX) as sock:
        sock.connect(os.fspath(service.home.socket))
        sock.settimeout(LIMIT_S)

        def read(until: int) -> None:
            while sum(counted.values()) < until:
                data = sock.recv(1 << 20)
                assert data, f"the service hung up after {sum(counted.values())} answers"
                buffer.extend(data)
                *lines, rest = buffer.split(b"\n")
                buffer[:] = rest
                for line in lines:
                    if line.startswith(b'{"id"'):
                        counted[msgspec.json.decode(line, type=m.Answer).id] += 1

        for first in range(1, REQUESTS + 1, 100):
            numbers = range(first, min(first + 100, REQUESTS + 1))
            lines = []
            for number in numbers:
                body = chance.choice(kinds)
                body = broken(body, chance) if chance.random() < 0.5 else body
                lines.append(b'{"id":%d,"body":%s}\n' % (number, body))
            sock.sendall(b"".join(lines))
            read(numbers[-1])
    assert counted == Counter(range(1, REQUESTS + 1))
    assert [run.macro for run in service.status().running] == ["hold"]


def test_lines_without_a_number_get_an_error_and_then_the_door(service: ServiceProcess):
    service.call(m.PutMacro(HOLD))
    service.call(m.Play_("hold"))
    with socket.socket(socket.AF_UNIX) as bad:
        bad.connect(os.fspath(service.home.socket))
        bad.sendall(b"\xff\x00{{{\n" + b'{"body": {"is": "GetStatus"}}\n' * 30)
        answers = b""
        bad.settimeout(LIMIT_S)
        while data := bad.recv(65536):
            answers += data
    lines = answers.splitlines()
    assert len(lines) == 20
    assert all(b'"id":0' in line and b"is no request" in line for line in lines)
    assert [run.macro for run in service.status().running] == ["hold"]


# A service in which one kind of request always fails, by a fault of ours.
_FAULTY = """
import sys
from nakrel.service import queries, start
queries.Queries.places = lambda self, client, number, body: 1 / 0
sys.exit(start.main(sys.argv[1:]))
"""


def test_a_fault_of_ours_is_an_answer_and_stops_no_macro(tmp_path: Path):
    service = ServiceProcess(tmp_path / "home", "--backend", "stand-in", program=("-c", _FAULTY))
    service.call(m.PutMacro(HOLD))
    service.call(m.Play_("hold"))
    with pytest.raises(ServiceRefused, match="unexpected happened inside Nakrel.*ZeroDivisionError"):
        service.call(m.GetPlaces())
    assert [run.macro for run in service.status().running] == ["hold"]
    service.hear(lambda: any(isinstance(notice, m.Fault) for notice in service.notices), "the fault being told")
    service.client.close()
    service.process.terminate()
    assert service.process.wait(LIMIT_S) == 0
    assert "ZeroDivisionError" in service.home.log.read_text()


def test_a_program_whose_name_is_no_utf_8_hides_no_other(service: ServiceProcess, tmp_path: Path):
    script = os.fsencode(tmp_path) + b"/caf\xe9.py"
    Path(os.fsdecode(script)).write_text("import time; time.sleep(60)")
    strange = subprocess.Popen([sys.executable.encode(), script])
    plain = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(60)"])
    try:

        def listed() -> dict[int, tuple[str, ...]]:
            answer = service.call(m.GetPrograms())
            assert isinstance(answer, m.Programs)
            return {program.pid: program.command for program in answer.programs}

        found = wait_for(lambda: (now := listed()).keys() >= {strange.pid, plain.pid} and now, "both programs")
        assert found[strange.pid][1].endswith("caf\N{REPLACEMENT CHARACTER}.py")
    finally:
        for each in (strange, plain):
            each.kill()
            each.wait()


def test_a_damaged_file_with_a_name_that_is_no_utf_8_is_told(tmp_path: Path):
    folder = tmp_path / "home" / "config" / "macros"
    folder.mkdir(parents=True)
    Path(os.fsdecode(os.fsencode(folder) + b"/caf\xe9.json")).write_text("{")
    service = ServiceProcess(tmp_path / "home", "--backend", "stand-in")
    library = service.call(m.GetLibrary())
    assert isinstance(library, m.Library)
    assert "caf\N{REPLACEMENT CHARACTER}.json: this is not JSON" in library.faults[0]
    journal = service.call(m.GetJournal())
    assert isinstance(journal, m.Journal)
    assert any("caf\N{REPLACEMENT CHARACTER}" in entry.why for entry in journal.entries)
    assert service.end() == 0


def test_a_macro_with_too_many_formulas_is_refused_and_nothing_waits_for_it(service: ServiceProcess):
    """6,000 waits of 190 characters, each another one: what is refused costs the reading of a few."""
    service.call(m.PutMacro(HOLD))
    service.call(m.Play_("hold"))
    steps = [{"step": "wait", "wait_us": f"{'1 + ' * 45}{n}"} for n in range(6_000)]
    body = {"is": "PutMacro", "macro": {"id": "m", "name": "M", "loop": steps}}
    with socket.socket(socket.AF_UNIX) as sock:
        sock.connect(os.fspath(service.home.socket))
        sock.settimeout(LIMIT_S)
        sock.sendall(json.dumps({"id": 1, "body": body}).encode() + b"\n")
        answer = b""
        while not answer.endswith(b"\n"):
            answer += sock.recv(65536)
    assert b"formulas of this macro are too much" in answer
    assert [run.macro for run in service.status().running] == ["hold"]


def test_what_is_beyond_a_limit_is_refused_before_it_is_sent():
    with pytest.raises(DataError, match="the text is empty"):
        m.TypeText("")
    with pytest.raises(DataError, match="the name has 130 characters; it can have 120 at most"):
        Macro(id="m", name="n" * 130)


# The rules of the library, for every client


def test_another_client_leaves_no_button_that_points_nowhere(service: ServiceProcess):
    away = SetUp("Away")
    cells = {"BTN_SIDE": RunMacro("m"), "BTN_EXTRA": GoTo(What.SETUP, "Away"), "KEY_F13": GoTo(What.PROFILE, "q")}
    service.call(m.PutMacro(Macro(id="m", name="M")))
    service.call(m.PutProfile(Profile(id="q", name="Q")))
    profile = Profile(id="p", name="P", setups=(SetUp("Main", cells), away))
    service.call(m.PutProfile(profile))
    service.call(m.DeleteMacro("m"))
    service.call(m.DeleteProfile("q"))
    renamed = msgspec.structs.replace(profile, setups=(profile.setups[0], SetUp("Far away")))
    service.call(m.PutProfile(msgspec.structs.replace(renamed, setups=(_cells(service), renamed.setups[1]))))
    library = service.call(m.GetLibrary())
    assert isinstance(library, m.Library)
    found = next(each for each in library.profiles if each.id == "p")
    assert found.setups[0].cells == {"BTN_EXTRA": GoTo(What.SETUP, "Far away")}
    # Whose edit it is learns of what it brought beyond that.
    service.hear(lambda: _changes(service) >= 2, "the notices of what else has changed")


def _cells(service: ServiceProcess) -> SetUp:
    library = service.call(m.GetLibrary())
    assert isinstance(library, m.Library)
    return next(each for each in library.profiles if each.id == "p").setups[0]


def _changes(service: ServiceProcess) -> int:
    return sum(isinstance(notice, m.ProfileChanged) and notice.id == "p" for notice in service.notices)


def test_two_changes_of_the_settings_at_once_both_count(service: ServiceProcess):
    other = ServiceProcess.another(service)
    for _ in range(20):
        service.client.send(m.ChangeSettings(SettingsPatch(look="night")))
        other.send(m.ChangeSettings(SettingsPatch(layout="de")))
        service.client.send(m.ChangeSettings(SettingsPatch(look="light")))
        other.send(m.ChangeSettings(SettingsPatch(layout="us")))
    service.call(m.GetVersions("macro"))
    other.call(m.GetVersions("macro"))
    library = service.call(m.GetLibrary())
    assert isinstance(library, m.Library)
    assert (library.settings.look, library.settings.layout) == ("light", "us")
    other.close()


def test_the_engine_goes_on_while_a_long_macro_is_saved(service: ServiceProcess):
    """Nothing of saving, reading and preparing is done on the engine's thread."""
    long = Macro(id="long", name="Long", loop=tuple(Tap(control="KEY_Q", hold_us=n + 1) for n in range(60_000)))
    line = encode_line(m.Request(1, m.PutMacro(long)))
    service.call(m.PutMacro(HOLD))
    with socket.socket(socket.AF_UNIX) as sock:
        sock.connect(os.fspath(service.home.socket))
        sock.settimeout(60)
        sock.sendall(line)
        # Answered meanwhile, though that one came first.
        service.call(m.Stop("none"))
        assert not select.select([sock], [], [], 0)[0]
        assert b'"Done"' in sock.recv(65536)


def test_stop_gets_through_however_many_clients_there_are(service: ServiceProcess):
    """Those that never spoke make room first, then others that want no notices."""
    silent = []
    for _ in range(3 * 32):
        each = socket.socket(socket.AF_UNIX)
        each.connect(str(service.home.socket))
        silent.append(each)
    speaking = [ServiceProcess.another(service) for _ in range(2 * 32)]
    try:
        with contextlib.closing(ServiceProcess.another(service)) as last:
            assert isinstance(last.call(m.Stop()), m.Done)
        # The window, which hears notices, was never dropped.
        assert isinstance(service.call(m.GetStatus()), m.StatusIs)
    finally:
        for each in (*silent, *speaking):
            each.close()
