"""A service whose disk is full when it starts: what is there plays, what can't be saved is refused with the reason."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest

from nakrel import protocol as m
from nakrel.client.connection import ServiceRefused
from nakrel.core.model.macro import Macro, Play
from nakrel.core.model.profile import EVERYDAY
from nakrel.core.model.steps import Tap
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from tests.support import ServiceProcess

# No file may get a byte (setrlimit(2), RLIMIT_FSIZE): every write fails, as on a full disk, with EFBIG for ENOSPC.
FULL = """
import resource, sys
from nakrel.service import start
resource.setrlimit(resource.RLIMIT_FSIZE, (0, 0))
sys.exit(start.main(sys.argv[1:]))
"""
TAP = Macro(id="tap", name="Tap", play=Play(), loop=(Tap(control="KEY_Q", hold_us=5_000),))


@pytest.fixture
def start(tmp_path: Path) -> Iterator[Callable[[], ServiceProcess]]:
    made: list[ServiceProcess] = []

    def begin() -> ServiceProcess:
        made.append(ServiceProcess(tmp_path, "--backend", "stand-in", program=("-c", FULL)))
        return made[-1]

    yield begin
    for service in made:
        service.end()


def test_what_is_there_plays(start: Callable[[], ServiceProcess], tmp_path: Path):
    library = Library(Home.find(tmp_path))
    library.load()
    library.put_macro(TAP)
    service = start()
    service.call(m.Play_("tap"))
    service.hear(lambda: service.seen("tap") == [("KEY_Q", 1), ("KEY_Q", 0)], "the tap")
    with pytest.raises(ServiceRefused, match=r"Tap\.json: can't be saved: .*; the earlier version is untouched"):
        service.call(m.PutMacro(Macro(id="tap", name="Tap", note="new")))
    answer = service.call(m.GetLibrary())
    assert isinstance(answer, m.Library)
    assert answer.faults == ()
    assert [macro.note for macro in answer.macros] == [""]


def test_an_empty_home_has_everyday_and_says_what_cannot_be_saved(start: Callable[[], ServiceProcess], tmp_path: Path):
    service = start()
    assert service.status().live == EVERYDAY
    answer = service.call(m.GetLibrary())
    assert isinstance(answer, m.Library)
    assert [profile.id for profile in answer.profiles] == [EVERYDAY]
    [fault] = answer.faults
    assert fault.startswith(f"{tmp_path}/config/profiles/Everyday.json: can't be saved: ")
    # There is no earlier version.
    assert "untouched" not in fault
    assert list(tmp_path.rglob("Everyday*")) == []
