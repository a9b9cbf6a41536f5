"""What the service tells people is all in the session's language: run in the pseudo-language, whose texts are in
brackets."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import msgspec
import pytest

from nakrel import protocol as m
from nakrel.client.connection import ServiceRefused
from nakrel.core.model.cells import Cell, GoTo, HoldLayer, RunMacro, StartProgram, TypeText, What
from nakrel.core.model.macro import Again, Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, Layer, MatchBy, Profile, ProgramRule, SetUp
from nakrel.core.model.steps import Open, Pointer, Step, Tap, Text, Wait
from tests.support import ServiceProcess

MOUSE = "standin:halyard-12"
LONG = (Wait(wait_us=60_000_000),)


@pytest.fixture
def service(tmp_path: Path) -> Iterator[ServiceProcess]:
    process = ServiceProcess(tmp_path / "home", "--backend", "stand-in", NAKREL_LANGUAGE="pseudo")
    yield process
    process.end()


def press(service: ServiceProcess, number: int, *values: int) -> None:
    for value in values or (1, 0):
        service.call(m.PressStandIn(MOUSE, f"BTN_TRIGGER_HAPPY{number}", value))


def journal(service: ServiceProcess) -> list[m.Entry]:
    answer = service.call(m.GetJournal(1_000))
    assert isinstance(answer, m.Journal)
    return list(answer.entries)


def untold(texts: dict[str, str]) -> dict[str, str]:
    """Those that no table of texts could have."""
    return {about: text for about, text in texts.items() if text and not text.startswith("⟦")}


def test_the_journal(service: ServiceProcess):
    plays = {
        "once": Play(),
        "held": Play(Mode.HELD),
        "toggle": Play(Mode.TOGGLE),
        "limited": Play(Mode.TOGGLE, limit_us=1_000),
        "again": Play(again=Again.RESTART),
        "over": Play(again=Again.STOP),
    }
    macros = [Macro(id=name, name=name, play=play, loop=LONG) for name, play in plays.items()]
    does: dict[str, Step] = {
        "short": Tap(control="KEY_Q", hold_us=0), "text": Text(text="字"), "secret": Text(secret="oar"),
        "formula": Wait(wait_us="1 / 0"), "pointer": Pointer(x=1, y=1), "open": Open(command=("no-such-tide",)),
    }  # fmt: skip
    macros += [Macro(id=name, name=name, loop=(step,)) for name, step in does.items()]
    buttons: list[Cell] = [*map(RunMacro, plays), TypeText("字"), StartProgram(("no-such-oar",))]
    cells = {f"BTN_TRIGGER_HAPPY{number}": cell for number, cell in enumerate(buttons, 1)}
    cells |= {"BTN_TRIGGER_HAPPY11": GoTo(What.SETUP, "Other"), "BTN_TRIGGER_HAPPY12": HoldLayer("Dock")}
    layer = {"BTN_TRIGGER_HAPPY1": RunMacro("held")}
    for macro in macros:
        service.call(m.PutMacro(macro))
    setups = (SetUp("Main", cells, (Layer("Dock", layer),)), SetUp("Other"))
    linked = (ProgramRule(MatchBy.NAME, "no such game"),)
    everyday = Profile(id=EVERYDAY, name="Everyday", setups=setups)
    for profile in (everyday, Profile(id="tide", name="Tide", programs=linked)):
        service.call(m.PutProfile(profile))
    # Each macro of a button goes on until something of its own ends it.
    for number in range(1, 9):
        press(service, number)
    press(service, 2, 1)
    press(service, 2, 0)
    for number in (3, 5, 6):
        press(service, number)
    press(service, 12, 1)
    press(service, 1, 1)
    press(service, 12, 0)
    service.call(m.Stop("once"))
    for name in does:
        service.call(m.Play_(name))
    service.hear(lambda: sum(entry.kind == "fault" for entry in journal(service)) >= 5, "all that went wrong")
    service.call(m.PutProfile(msgspec.structs.replace(everyday, setups=(SetUp("Main"), SetUp("Other")))))
    service.call(m.PutProfile(everyday))
    press(service, 3)
    press(service, 11)
    service.call(m.Pin("tide"))
    service.call(m.Pin(""))
    service.call(m.Play_("toggle"))
    service.call(m.Stop())
    service.call(m.TypeText("hm", 200))
    service.hear(lambda: not service.status().running, "the end of all")
    entries = journal(service)
    assert len(entries) > 20
    assert untold({f"what {number}": entry.what for number, entry in enumerate(entries)}) == {}
    assert untold({f"why of {entry.what}": entry.why for entry in entries}) == {}


def test_status_and_refusals(service: ServiceProcess):
    status = service.status()
    assert untold({"reason": status.reason, "note": status.backend_note, "warning": status.warning}) == {}
    refused = {}
    bodies: tuple[m.Body, ...] = (
        *(m.Play_("none"), m.Pin("none"), m.StopRecording(), m.DeleteProfile(EVERYDAY), m.UseSetUp(EVERYDAY, "none")),
        *(m.UseStage("none", 1), m.TypeText("字", 20)),
        *(m.PressStandIn(MOUSE, "KEY_Q", 1), m.PressStandIn("none", "KEY_Q", 1)),
    )
    for body in bodies:
        with pytest.raises(ServiceRefused) as told:
            service.call(body)
        refused[repr(body)] = str(told.value)
    assert untold(refused) == {}
