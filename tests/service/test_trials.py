"""A macro on trial: played with the time that is tried, by whoever presses its button."""

from __future__ import annotations

import signal
from collections.abc import Iterator
from pathlib import Path

import msgspec
import pytest

from nakrel import protocol as m
from nakrel.client.connection import ServiceRefused
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Tap
from nakrel.core.model.tuning import Question, Target, Trial, Tuning
from tests.loaded import LoadedService
from tests.service.test_service import attach, press
from tests.support import ServiceProcess

ONCE = Macro(id="shot", name="Shot", play=Play(Mode.SINGLE), loop=(Tap(control="KEY_Q", hold_us=5_000),))
OTHER = msgspec.structs.replace(ONCE, loop=(Tap(control="KEY_E", hold_us=80_000),))
YES, NO = "BTN_TRIGGER_HAPPY5", "BTN_TRIGGER_HAPPY6"


@pytest.fixture
def service(tmp_path: Path) -> Iterator[ServiceProcess]:
    process = LoadedService(tmp_path / "home", "--backend", "stand-in")
    yield process
    process.end(signal.SIGKILL)


def ends(service: ServiceProcess, control: str, times: int) -> None:
    press(service)
    service.hear(lambda: service.seen("shot").count((control, 0)) == times, f"{times} of {control}")
    service.hear(lambda: not service.status().running, "its end")


def test_the_one_on_trial_plays_and_the_saved_one_again_afterwards(service: ServiceProcess):
    attach(service, ONCE, msgspec.structs.replace(ONCE, id="other", name="Other"))
    service.call(m.TryMacro(OTHER, (YES, NO)))
    ends(service, "KEY_E", 1)
    # The buttons that judge play nothing meanwhile, though one plays the other macro otherwise.
    press(service, "BTN_TRIGGER_HAPPY4")
    service.hear(lambda: service.seen("other"), "the other macro")
    press(service, YES)
    service.hear(lambda: service.seen("in").count((YES, 0)) == 1, "the press to be told")
    assert not [event for event in service.seen("shot") if event[0] == "KEY_Q"]
    service.call(m.EndTrial("20 ms works"))
    ends(service, "KEY_Q", 1)
    answer = service.call(m.GetJournal())
    assert isinstance(answer, m.Journal)
    assert [(e.what, e.why) for e in answer.entries if e.kind == "tuning"] == [
        ("Shot is tuned", "each press plays it with a time on trial"),
        ("Tuning of Shot ended", "20 ms works"),
    ]


def test_a_button_that_judges_does_nothing_else(service: ServiceProcess):
    attach(service, ONCE)
    service.call(m.TryMacro(OTHER, ("BTN_TRIGGER_HAPPY3",)))
    press(service)
    service.hear(lambda: service.seen("in").count(("BTN_TRIGGER_HAPPY3", 0)) == 1, "the press to be told")
    assert service.seen("shot") == []


def test_it_ends_with_its_client_and_another_has_to_wait(service: ServiceProcess):
    attach(service, ONCE)
    another = ServiceProcess.another(service)
    another.call(m.TryMacro(OTHER))
    with pytest.raises(ServiceRefused, match="another window tunes a macro"):
        service.call(m.TryMacro(OTHER))
    service.call(m.EndTrial())
    ends(service, "KEY_E", 1)
    another.close()

    def ended() -> bool:
        entries = [e for n in service.notices if isinstance(n, m.Journal) for e in n.entries]
        return any(e.what == "Tuning of Shot ended" and e.why == "its window is gone" for e in entries)

    service.hear(ended, "the end of the trial")
    ends(service, "KEY_Q", 1)


def test_a_macro_that_is_not_there_is_refused(service: ServiceProcess):
    with pytest.raises(ServiceRefused, match="Shot isn't there any more"):
        service.call(m.TryMacro(ONCE))


def test_a_games_verdict_reaches_the_window(service: ServiceProcess):
    with pytest.raises(ServiceRefused, match="no macro is on trial"):
        service.call(m.Judge(True))
    attach(service, ONCE)
    service.call(m.TryMacro(OTHER))
    another = ServiceProcess.another(service)
    another.call(m.Judge(False))
    service.hear(lambda: m.Judged(False) in service.notices, "the verdict")
    another.close()


def test_a_search_is_kept_and_taken_away(service: ServiceProcess):
    question = Question(5_000, 90_000, 0.99)
    tuning = Tuning(question, Target.WAITS, worked=YES, failed=NO, trials=(Trial(40_000, True), Trial(20_000, False)))
    assert service.call(m.GetTuning("shot")) == m.TuningIs(None)
    service.call(m.PutTuning("shot", tuning))
    assert service.call(m.GetTuning("shot")) == m.TuningIs(tuning)
    service.call(m.PutTuning("shot", None))
    assert service.call(m.GetTuning("shot")) == m.TuningIs(None)
