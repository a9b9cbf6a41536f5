"""The service as a process, on its stand-ins: what it answers, keeps, and does with bad clients."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest

from nakrel import protocol as m
from nakrel.client.connection import ServiceConnection, ServiceGone, ServiceRefused
from nakrel.core.model.cells import Cell, GoTo, HoldLayer, RunMacro, TypeText, What
from nakrel.core.model.controls import label
from nakrel.core.model.devices import OWN_WINDOW
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, Layer, MatchBy, Profile, ProgramRule, SetUp
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Press, Release, Tap, Wait
from nakrel.service.options import Options
from nakrel.service.requests import Refusal, Requests
from nakrel.service.service import Service
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from tests.loaded import LoadedService
from tests.support import LIMIT_S, ServiceProcess, wait_for

MOUSE = "standin:halyard-12"
THUMB = "BTN_TRIGGER_HAPPY3"
SHOT = Macro(
    id="shot", name="Shot", play=Play(Mode.TOGGLE, pause_us=5_000), loop=(Tap(control="KEY_Q", hold_us=5_000),)
)
FOREVER = Macro(
    id="hold", name="Hold", play=Play(Mode.TOGGLE), loop=(Press(control="KEY_W"), Wait(wait_us=600_000_000))
)


@pytest.fixture
def service(tmp_path: Path) -> Iterator[ServiceProcess]:
    process = LoadedService(tmp_path / "home", "--backend", "stand-in")
    yield process
    process.end(signal.SIGKILL)


def attach(service: ServiceProcess, *macros: Macro) -> None:
    """Put the macros on thumb buttons of Everyday."""
    cells = {f"BTN_TRIGGER_HAPPY{n + 3}": RunMacro(macro.id) for n, macro in enumerate(macros)}
    for macro in macros:
        service.call(m.PutMacro(macro))
    service.call(m.PutProfile(Profile(id=EVERYDAY, name="Everyday", setups=(SetUp("Main", cells),))))


def press(service: ServiceProcess, control: str = THUMB) -> None:
    for value in (1, 0):
        service.call(m.PressStandIn(MOUSE, control, value))


def test_a_stand_ins_button_starts_and_stops_a_toggle(service: ServiceProcess):
    attach(service, SHOT)
    press(service)
    service.hear(lambda: len(service.seen("shot")) >= 20, "twenty events")
    assert [run.name for run in service.status().running] == ["Shot"]
    press(service)
    service.hear(lambda: not service.status().running, "the end of the run")
    service.hear(lambda: service.seen("shot")[-1] == ("KEY_Q", 0), "the last release")
    events = service.seen("shot")
    assert events == [("KEY_Q", 1), ("KEY_Q", 0)] * (len(events) // 2)
    assert service.seen("in")[:2] == [(THUMB, 1), (THUMB, 0)]


def test_stop_everything_by_key_and_by_client(service: ServiceProcess):
    attach(service, FOREVER)
    for stop in (lambda: press_key(service, "KEY_PAUSE"), lambda: service.call(m.Stop())):
        press(service)
        service.hear(lambda: service.status().running, "the run")
        stop()
        service.hear(lambda: not service.status().running, "its end")
    service.hear(lambda: service.seen("hold") == [("KEY_W", 1), ("KEY_W", 0)] * 2, "both holds and their ends")


def press_key(service: ServiceProcess, control: str) -> None:
    for value in (1, 0):
        service.call(m.PressStandIn("standin:bollard", control, value))


def test_a_device_that_sends_back_what_macros_press_ends_them_and_is_marked(service: ServiceProcess):
    """As a program does that remaps keys and has Nakrel's devices for itself."""
    tap = Tap(control="KEY_F", hold_us=1_000)
    service.call(m.PutMacro(Macro(id="round", name="Round", loop=(tap,))))
    setup = SetUp("Main", {"KEY_F": RunMacro("round")})
    service.call(m.PutProfile(Profile(id=EVERYDAY, name="Everyday", setups=(setup,))))

    def sends_back() -> bool:
        press_key(service, "KEY_F")
        return any(device.trouble for device in service.devices())

    service.hear(sends_back, "the keyboard to be found")
    service.hear(lambda: not service.status().running, "the end of the run")
    [marked] = [device for device in service.devices() if device.trouble]
    assert marked.name == "Bollard keyboard"
    assert "sends back what macros press" in marked.note


def test_recording_shows_steps_live_and_leaves_the_stop_key_out(service: ServiceProcess):
    attach(service, SHOT)
    service.call(m.StartRecording())
    press(service)
    live = service.hear(
        lambda: [n for n in service.notices if isinstance(n, m.Recorded) and n.steps], "the first live steps"
    )
    assert live[0].steps[0] == Press(control=THUMB)
    assert not live[0].done
    press_key(service, "KEY_SCROLLLOCK")
    done = service.hear(lambda: [n for n in service.notices if isinstance(n, m.Recorded) and n.done], "the end")
    assert [type(step) for step in done[0].steps if not isinstance(step, Wait)] == [Press, Release]
    # Attachments rested meanwhile, and work again.
    assert service.seen("shot") == []
    press(service)
    service.hear(lambda: service.seen("shot"), "the macro")


def test_everything_is_there_after_a_restart_without_any_save(tmp_path: Path):
    first = ServiceProcess(tmp_path, "--backend", "stand-in")
    attach(first, SHOT)
    # Acknowledged means on the disk: not even a kill loses it.
    first.end(signal.SIGKILL)
    second = ServiceProcess(tmp_path, "--backend", "stand-in")
    library = second.call(m.GetLibrary())
    assert isinstance(library, m.Library)
    assert library.macros == (SHOT,)
    assert THUMB in library.profiles[0].setups[0].cells
    assert second.end() == 0


def test_sigterm_ends_it_in_order_while_a_macro_holds(tmp_path: Path):
    service = ServiceProcess(tmp_path, "--backend", "stand-in")
    attach(service, FOREVER)
    press(service)
    service.hear(lambda: service.seen("hold"), "the hold")
    assert service.end(signal.SIGTERM) == 0
    assert not service.home.socket.exists()
    entries = [json.loads(line) for line in service.home.journal.read_text().splitlines()]
    assert [e["what"] for e in entries][-2:] == ["Hold ended after 0 runs", "the service ended"]


def test_a_second_service_says_who_is_there(service: ServiceProcess):
    second = subprocess.run(
        [sys.executable, "-m", "nakrel.service", "--home", str(service.folder)],
        capture_output=True,
        text=True,
        timeout=LIMIT_S,
    )
    assert second.returncode == 3
    assert f"process {service.process.pid}" in second.stderr
    assert service.status().live == EVERYDAY


def test_a_client_that_reads_nothing_delays_nobody(service: ServiceProcess):
    attach(service, SHOT)
    deaf = ServiceConnection.connect(service.home.socket, "deaf")
    deaf.call(m.Subscribe(seen=True))
    press(service)
    service.hear(lambda: len(service.seen("shot")) > 200, "two hundred events beside the deaf client")
    deaf.close()


def test_clear_answers_to_what_cannot_be_done(service: ServiceProcess):
    for body, words in [
        (m.Play_("nothing"), "there is no macro 'nothing'"),
        (m.Pin("nothing"), "there is no profile 'nothing'"),
        (m.DeleteProfile(EVERYDAY), "Everyday can't be deleted"),
        (m.StopRecording(), "no recording is going on"),
        (m.PressStandIn("x", "KEY_Q", 1), "there is no simulated device 'x'"),
        (m.PressStandIn(MOUSE, "KEY_Q", 1), "Halyard 12 mouse has no key or button 'KEY_Q'"),
        (m.Hello("old", 0), f"speaks protocol {m.PROTOCOL}"),
    ]:
        with pytest.raises(ServiceRefused, match=words):
            service.call(body)


def test_a_folder_that_cannot_be_written_is_named_and_nothing_changes(service: ServiceProcess):
    attach(service, SHOT)
    for path in (service.home.macros / "Shot.json", service.home.macros):
        path.unlink() if path.is_file() else path.rmdir()
    service.home.macros.write_text("a file where the folder was")
    with pytest.raises(ServiceRefused, match="can't be saved"):
        service.call(m.PutMacro(Macro(id="new", name="New")))
    library = service.call(m.GetLibrary())
    assert isinstance(library, m.Library)
    assert [macro.id for macro in library.macros] == ["shot"]


def test_a_linked_program_makes_its_profile_live_and_everyday_returns(service: ServiceProcess, tmp_path: Path):
    game = tmp_path / "tide game"
    game.symlink_to("/bin/sleep")
    rule = ProgramRule(MatchBy.NAME, "tide game")
    service.call(m.PutProfile(Profile(id="tide", name="Tide", programs=(rule,))))
    process = subprocess.Popen([str(game), "60"])
    service.hear(lambda: service.status().live == "tide", "the game's profile")
    process.kill()
    process.wait()
    service.hear(lambda: service.status().live == EVERYDAY, "Everyday")
    service.call(m.Pin("tide"))
    service.hear(lambda: service.status().live == "tide", "the pinned profile")
    service.call(m.DeleteProfile("tide"))
    service.hear(lambda: (s := service.status()).live == EVERYDAY and s.pinned == "", "Everyday again")


def test_a_vanished_client_leaves_no_recording_behind(service: ServiceProcess):
    other = ServiceConnection.connect(service.home.socket, "other")
    other.call(m.StartRecording())
    with pytest.raises(ServiceRefused, match="already"):
        service.call(m.StartRecording())
    other.close()
    wait_for(lambda: not service.status().recording, "the end of the recording")


def test_shutdown_ends_it(service: ServiceProcess):
    service.call(m.Shutdown())
    assert service.process.wait(LIMIT_S) == 0
    with pytest.raises(ServiceGone):
        ServiceConnection.connect(service.home.socket, "late")


def test_the_service_loads_neither_qt_nor_numpy():
    code = "import sys, nakrel.service.start; print([m for m in ('PyQt6', 'numpy', 'asyncio') if m in sys.modules])"
    found = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert found.stdout.strip() == "[]"


def test_recording_without_a_device_says_what_to_do(tmp_path: Path):
    service = Service(Home.find(tmp_path), Options("stand-in"))
    try:
        assert service.routes.stand_ins
        service.loop.forget(service.routes.stand_ins)
        service.routes.stand_ins.close()
        service.routes.stand_ins = None
        with pytest.raises(Refusal, match="no device to record from: plug in"):
            Requests(service, 0).start_recording(None, 1, m.StartRecording())
        assert not service.recording.recording
    finally:
        service.close()


def test_what_a_vanished_client_held_on_a_stand_in_is_let_go(service: ServiceProcess):
    """A window that crashes with a panel's button down must not leave a Held macro running for ever."""
    held = Macro(id="held", name="Held", play=Play(Mode.HELD, pause_us=5_000), loop=SHOT.loop)
    attach(service, held)
    window = ServiceConnection.connect(service.home.socket, "window")
    window.call(m.PressStandIn(MOUSE, THUMB, 1))
    service.hear(lambda: len(service.seen("held")) > 4, "the Held macro")
    window.close()
    service.hear(lambda: not service.status().running, "its end")
    service.hear(lambda: service.seen("held")[-1] == ("KEY_Q", 0), "the last release")
    service.hear(lambda: service.seen("in") == [(THUMB, 1), (THUMB, 0)], "the button to be let go")


def test_what_reached_a_window_counts_and_goes_with_it(service: ServiceProcess):
    before = service.call(m.GetDevices())
    window = ServiceConnection.connect(service.home.socket, "window")
    # Nothing of it is an output: the window has had it already.
    window.call(m.PressStandIn(OWN_WINDOW, "KEY_W", 1))
    window.call(m.PressStandIn(OWN_WINDOW, "WHEEL_UP", 2))
    service.hear(lambda: service.seen("in") == [("KEY_W", 1), ("WHEEL_UP", 2)], "the key and the wheel")
    window.close()
    service.hear(lambda: service.seen("in")[-1] == ("KEY_W", 0), "the key to be let go")
    assert service.seen("finger") == []
    # It is no device to be seen.
    assert service.call(m.GetDevices()) == before


def test_stand_ins_stay_where_nothing_real_is(service: ServiceProcess):
    attach(service, Macro(id="held", name="Held", play=Play(Mode.HELD, pause_us=5_000), loop=SHOT.loop))
    service.call(m.PressStandIn(MOUSE, THUMB, 1))
    service.hear(lambda: service.status().running, "the Held macro")
    # Without any other device they stay, whatever the settings say, and so does what is held on them.
    service.call(m.ChangeSettings(SettingsPatch(stand_ins=False)))
    assert service.status().running
    service.call(m.PressStandIn(MOUSE, THUMB, 0))
    service.hear(lambda: not service.status().running, "its end")


def test_a_text_is_typed_and_is_in_no_journal(service: ServiceProcess):
    service.call(m.ChangeSettings(SettingsPatch(layout="de")))
    service.call(m.TypeText("Öl @", rate=200))
    service.hear(lambda: len(service.seen("typed-text")) >= 13, "all keys")
    service.hear(lambda: not service.status().running, "the end")
    keys = [("TEXT", 1), ("KEY_LEFTSHIFT", 1), ("KEY_SEMICOLON", 1), ("KEY_SEMICOLON", 0), ("KEY_LEFTSHIFT", 0)]
    keys += [("KEY_L", 1), ("KEY_L", 0), ("KEY_SPACE", 1), ("KEY_SPACE", 0)]
    keys += [("KEY_RIGHTALT", 1), ("KEY_Q", 1), ("KEY_Q", 0), ("KEY_RIGHTALT", 0)]
    assert service.seen("typed-text") == keys
    service.end()
    assert "Öl" not in service.home.journal.read_text() + service.home.log.read_text()


def test_a_text_that_the_layout_cannot_type_is_refused_whole(service: ServiceProcess):
    service.call(m.ChangeSettings(SettingsPatch(layout="us")))
    with pytest.raises(ServiceRefused, match=r"'us' \(from the settings\) has no keys for € 字; switch"):
        service.call(m.TypeText("a€字"))
    assert service.seen("typed-text") == []


def test_checks_come_from_the_service_and_the_way_can_be_chosen_again(service: ServiceProcess):
    attach(service, FOREVER)
    press(service)
    service.hear(lambda: service.status().running, "the hold")
    answer = service.call(m.GetChecks())
    assert isinstance(answer, m.Checks)
    assert {"virtual devices", "keyboard layout", "service"} <= {check.link for check in answer.checks}
    service.call(m.ChooseRoute())
    assert service.status().running == ()
    service.hear(lambda: service.seen("hold") == [("KEY_W", 1), ("KEY_W", 0)], "the release")


@pytest.mark.parametrize("route", ["kernel", "x11"])
def test_a_route_that_was_asked_for_by_name_and_cant_be_had_ends_the_service_with_the_reason(
    tmp_path: Path, route: str
):
    if route == "kernel" and Path("/dev/uinput").exists():
        pytest.skip("it can be had here")
    command = [sys.executable, "-m", "nakrel.service", "--home", str(tmp_path / "home"), "--backend", route]
    environment = {key: value for key, value in os.environ.items() if key not in ("DISPLAY", "WAYLAND_DISPLAY")}
    run = subprocess.run(command, env=environment, capture_output=True, text=True, timeout=30)
    assert run.returncode != 0
    assert f"the route {route} can't be had" in run.stderr
    assert {"kernel": "uinput", "x11": "there is no X server"}[route] in run.stderr


def test_a_service_without_any_way_to_programs_warns_and_one_that_was_asked_for_that_does_not(tmp_path: Path):
    nowhere = dict.fromkeys(("DISPLAY", "WAYLAND_DISPLAY"), "")
    if Path("/dev/uinput").exists():
        pytest.skip("there is a way here")
    for options, warns in (((), True), (("--backend", "stand-in"), False)):
        service = ServiceProcess(tmp_path / f"home {warns}", *options, **nowhere)
        assert ("nakrel doctor" in service.status().warning) is warns
        assert service.status().backend == "standin"
        assert service.end() == 0


def test_what_was_sent_before_the_service_is_told_to_end_is_done(service: ServiceProcess):
    """A window that closes at the end of the session sends its last edit just then; a long one is read in parts."""
    service.process.send_signal(signal.SIGSTOP)
    steps = (Tap(control="KEY_Q", hold_us=20_000),) * 2_000
    service.client.send(m.PutMacro(Macro(id="last", name="Last edit", loop=steps)))
    assert not service.client.keeps
    service.process.send_signal(signal.SIGTERM)
    service.process.send_signal(signal.SIGCONT)
    assert service.process.wait(LIMIT_S) == 0
    library = Library(service.home)
    library.load()
    assert len(library.macros["last"].loop) == 2_000


def test_the_journal_calls_buttons_and_what_they_do_by_their_names(service: ServiceProcess):
    cells: dict[str, Cell] = {
        THUMB: TypeText("hi"), "WHEEL_UP": GoTo(What.SETUP, "Netter"), "BTN_TRIGGER_HAPPY12": HoldLayer("Dock"),
    }  # fmt: skip
    setups = (SetUp("Main", cells, (Layer("Dock", {THUMB: TypeText("ho")}),)), SetUp("Netter"))
    service.call(m.PutProfile(Profile(id=EVERYDAY, name="Everyday", setups=setups)))
    press(service)
    service.call(m.PressStandIn(MOUSE, "BTN_TRIGGER_HAPPY12", 1))
    press(service)
    service.call(m.PressStandIn(MOUSE, "BTN_TRIGGER_HAPPY12", 0))
    service.call(m.TypeText("hm", 200))

    def told() -> list[tuple[str, str]]:
        answer = service.call(m.GetJournal())
        assert isinstance(answer, m.Journal)
        return [(entry.what, entry.why) for entry in answer.entries if entry.kind in ("run", "switch")]

    name = label(THUMB)
    ends = [f"{each} ended after 1 run" for each in (name, f"{name} with Dock", "A typed text")]
    service.hear(lambda: {what for what, _ in told()} >= set(ends), "their ends")
    service.call(m.PressStandIn(MOUSE, "WHEEL_UP", 1))
    service.hear(lambda: ("Everyday plays as Netter", "Wheel up pressed") in told(), "the switch")


def test_a_service_that_was_killed_is_told_of_by_the_next_one_and_not_one_that_ended(tmp_path: Path):
    told = []
    for number in (signal.SIGKILL, signal.SIGTERM, signal.SIGTERM):
        service = LoadedService(tmp_path, "--backend", "stand-in")
        answer = service.call(m.GetJournal())
        assert isinstance(answer, m.Journal)
        told.append([entry.what for entry in answer.entries if entry.kind == "fault"])
        service.end(number)
    assert told == [[], ["the service before this one ended suddenly"], ["the service before this one ended suddenly"]]
