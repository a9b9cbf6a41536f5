"""What macros do besides pressing controls, in a service of its own: pointer, texts, secrets, programs, run records."""

from __future__ import annotations

import shutil
import stat
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from types import SimpleNamespace

import psutil
import pytest

from nakrel import protocol as m
from nakrel.client.connection import ClientError
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.recording import Moves, RecordingSettings
from nakrel.core.model.runs import RunRecord
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Origin, Pointer, Press, Release, Wait
from nakrel.core.notation import read_steps
from nakrel.core.play.acts import AskPlace, Whereabouts
from nakrel.service.side_effects import SideEffects
from tests.loaded import LoadedService
from tests.support import PracticeGame, ServiceProcess, XServer, wait_for

needs_x = pytest.mark.skipif(bool(XServer.missing()), reason="needs Xvfb, openbox and xdotool")
SECRET = "Hawser7"


@pytest.fixture
def service(tmp_path: Path) -> Iterator[ServiceProcess]:
    made = LoadedService(
        tmp_path / "home", "--backend", "stand-in",
        PYTHON_KEYRING_BACKEND="tests.fake_keyring.FileKeyring", NAKREL_TEST_KEYRING=str(tmp_path / "keyring.json"),
    )  # fmt: skip
    made.call(m.ChangeSettings(SettingsPatch(layout="us")))
    yield made
    assert made.end() == 0


@pytest.fixture(scope="module")
def server() -> Iterator[XServer]:
    made = XServer()
    yield made
    made.end_server()


@pytest.fixture
def in_x(server: XServer, tmp_path: Path) -> Iterator[ServiceProcess]:
    made = LoadedService(
        tmp_path / "home", "--backend", "x11", DISPLAY=server.display, NAKREL_X11_INJECTOR="xtest",
        # What it opens is seen there, and ends with that server.
        QT_QPA_PLATFORM="xcb",
        PYTHON_KEYRING_BACKEND="tests.fake_keyring.FileKeyring", NAKREL_TEST_KEYRING=str(tmp_path / "keyring.json"),
    )  # fmt: skip
    made.call(m.ChangeSettings(SettingsPatch(layout="us")))
    yield made
    assert made.end() == 0


def play(service: ServiceProcess, text: str, settings: Play | None = None, key: str = "m") -> None:
    """Play the steps to their end."""
    service.call(m.PutMacro(Macro(id=key, name="M", play=settings or Play(), loop=tuple(read_steps(text)))))
    service.call(m.Play_(key))
    service.hear(lambda: not service.status().running, "the macro's end")
    # Notices of events come a moment after the status that was asked for.
    service.hear(lambda: len(service.seen(key)) >= len(record(service, key).events) or key in COUNTED, "its events")


# Macros whose events are too many for the notices, or were played before under the same name.
COUNTED = {"many"}


def faults(service: ServiceProcess) -> list[str]:
    return [notice.error for notice in service.notices if isinstance(notice, m.Fault)]


def record(service: ServiceProcess, key: str = "m") -> RunRecord:
    answer = service.call(m.GetRun(key))
    assert isinstance(answer, m.RunIs)
    assert answer.record
    return answer.record


def test_a_run_leaves_planned_and_actual_times(service: ServiceProcess):
    assert service.call(m.GetRun("m")) == m.RunIs(None)
    play(service, "tap Q for 5 ms\nwait 5 ms", Play(Mode.COUNTED, runs=20))
    found = record(service)
    assert (found.runs, found.reason, found.left_out) == (20, "finished", 0)
    assert [(e.due_us, e.value) for e in found.events] == [
        (run * 10_000 + at, value) for run in range(20) for at, value in ((0, 1), (5_000, 0))
    ]
    assert all(e.at_us >= e.due_us for e in found.events)


def test_a_long_run_keeps_its_beginning_and_its_end(service: ServiceProcess):
    # A turn takes a millisecond at least.
    turn = "    turn Wheel up by 1\n    turn Wheel down by 1\n" * 10
    play(service, f"repeat 550 times:\n{turn}", Play(), "many")
    found = record(service, "many")
    assert len(found.events) == 10_000
    assert found.left_out == 1_000
    assert found.events[0].due_us == 0


def test_a_text_is_typed_in_its_place_among_the_steps(service: ServiceProcess):
    play(service, 'tap Q for 1 ms\ntype "aB" at 200/s\ntap W for 1 ms')
    told = [(control, value) for control, value in service.seen("m") if control != "TEXT"]
    keys = ["KEY_Q", "KEY_A", "KEY_LEFTSHIFT", "KEY_B", "KEY_W"]
    assert [control for control, value in told if value] == keys
    assert len(told) == 10
    assert faults(service) == []


def test_a_text_without_keys_ends_the_macro_with_the_reason(service: ServiceProcess):
    play(service, 'tap Q for 1 ms\ntype "字" at 200/s\ntap W for 1 ms')
    (told,) = faults(service)
    assert told.startswith(
        "M ended: a text was not typed: the keyboard layout 'us' (from the settings) has no keys for 字"
    )
    assert ("KEY_W", 1) not in service.seen("m")
    answer = service.call(m.GetFacts(("fine", "字"), ("sh", "no-such-tide", "/no/such/tide"), ("oar",)))
    assert isinstance(answer, m.Facts)
    assert list(answer.texts) == ["字"]
    assert answer.programs["no-such-tide"] == (
        "there is no program 'no-such-tide' among the installed ones; write where its file is."
    )
    assert answer.programs["/no/such/tide"] == "there is no file /no/such/tide; choose the program again."
    assert "has no secret 'oar'" in answer.secrets["oar"]


def test_a_secret_is_typed_and_stands_in_the_keyring_alone(service: ServiceProcess, tmp_path: Path):
    service.call(m.PutSecret("oar", SECRET))
    assert SECRET in (tmp_path / "keyring.json").read_text()
    play(service, 'type the secret "oar" at 200/s')
    assert all(SECRET not in repr(notice) for notice in service.notices)
    service.call(m.PutSecret("oar", ""))
    assert SECRET not in (tmp_path / "keyring.json").read_text()
    # Its keys would tell it: nobody is told of them.
    assert service.seen("m") == [("TEXT", 1)]
    told = service.call(m.GetRun("m"))
    assert isinstance(told, m.RunIs)
    assert told.record is not None
    assert [event.control for event in told.record.events] == ["TEXT"]
    play(service, 'type the secret "oar" at 200/s')
    assert "the keyring has no secret 'oar'" in faults(service)[-1]
    for path in (tmp_path / "home").rglob("*"):
        if path.is_file():
            assert SECRET.encode() not in path.read_bytes(), path


def test_without_a_keyring_a_secret_is_refused_with_what_would_help(tmp_path: Path):
    made = ServiceProcess(tmp_path, "--backend", "stand-in", PYTHON_KEYRING_BACKEND="keyring.backends.fail.Keyring")
    try:
        with pytest.raises(ClientError, match="no keyring answers; start the desktop's"):
            made.call(m.PutSecret("oar", SECRET))
    finally:
        made.end()
    assert SECRET not in made.home.log.read_text()


def test_a_program_is_started_with_its_arguments_and_no_shell(service: ServiceProcess, tmp_path: Path):
    told = tmp_path / "told"
    script = tmp_path / "tide"
    script.write_text(f'#!/bin/sh\nprintf "%s|" "$@" > {told}\n')
    play(service, f'open {script} "a b" "$(touch {tmp_path}/bad)"')
    # It is opened beside the macro, which doesn't wait for that.
    service.hear(lambda: faults(service), "the word")
    assert f"{script} is not marked as a program" in faults(service)[-1]
    script.chmod(script.stat().st_mode | stat.S_IXUSR)
    play(service, f'open {script} "a b" "$(touch {tmp_path}/bad)"')
    wait_for(lambda: told.exists() and told.read_text(), "the program's word")
    assert told.read_text() == f"a b|$(touch {tmp_path}/bad)|"
    assert not (tmp_path / "bad").exists()


def test_a_formula_without_a_result_is_told_and_the_rest_works(service: ServiceProcess):
    play(service, "tap Q for 1 ms\nwait (1 / 0) ms\ntap W for 1 ms")
    assert faults(service) == ["M ended: the formula '1 / 0' divides by zero"]
    play(service, "tap W for 1 ms", key="other")
    assert ("KEY_W", 1) in service.seen("other")


def place(server: XServer) -> tuple[int, int]:
    told = dict(part.split(":") for part in server.injector("getmouselocation").split()[:2])
    return int(told["x"]), int(told["y"])


@pytest.mark.x11
@needs_x
def test_the_pointer_goes_to_the_very_pixel_scaled_and_by_an_offset(in_x: ServiceProcess, server: XServer):
    play(in_x, "move to 321, 456")
    assert place(server) == (321, 456)
    play(in_x, "move to 700, 450 on a screen of 700 x 450")
    assert place(server) == (1399, 899)
    assert "off the screen of 1400 x 900; it went to the edge" in faults(in_x)[-1]
    play(in_x, "move to 100, 50 on a screen of 700 x 450\nmove by -10, 7")
    assert place(server) == (190, 107)
    play(in_x, "move to 640, 400 over 100 ms")
    assert place(server) == (640, 400)
    found = [e for e in record(in_x).events if e.control == "POINTER"]
    assert len(found) == 12
    play(in_x, "if x == 640 and y == 400:\n    move by 1, 1")
    assert place(server) == (641, 401)
    places = in_x.call(m.GetPlaces())
    assert isinstance(places, m.Places)
    assert (places.size, places.pointer) == ((1400, 900), (641, 401))
    assert [(each.width, each.height) for each in places.monitors] == [(1400, 900)]


@pytest.mark.x11
@needs_x
def test_a_place_in_the_window_follows_the_window(in_x: ServiceProcess, server: XServer, tmp_path: Path):
    game = PracticeGame(server, tmp_path)
    try:
        for corner in ((500, 300), (200, 100)):
            server.injector("windowmove", "--sync", game.window, *map(str, corner))
            told = server.injector("getwindowgeometry", "--shell", game.window)
            shape = dict(line.split("=") for line in told.split())
            play(in_x, "move to 30, 40 in the window")
            found = subprocess.run(
                ["xwininfo", "-id", game.window], env=server.environment, capture_output=True, text=True, check=True
            ).stdout
            left = int(found.split("Absolute upper-left X:")[1].split()[0])
            top = int(found.split("Absolute upper-left Y:")[1].split()[0])
            assert place(server) == (left + 30, top + 40)
            width, height = int(shape["WIDTH"]), int(shape["HEIGHT"])
            play(in_x, f"move to 30, 40 in a window of {width * 2} x {height * 2}")
            assert place(server) == (left + 15, top + 20)
    finally:
        game.end()


def listed(server: XServer) -> str:
    """The windows that the window manager lists, as xprop tells them."""
    command = ["xprop", "-root", "_NET_CLIENT_LIST"]
    return subprocess.run(command, env=server.environment, capture_output=True, text=True, check=True).stdout


def in_front(server: XServer) -> str:
    """The window in front, '' while the window manager goes from one to another and none is."""
    told = subprocess.run(["xdotool", "getactivewindow"], env=server.environment, capture_output=True, text=True)
    return told.stdout.strip()


@pytest.mark.x11
@needs_x
def test_an_open_step_brings_a_window_that_is_there_to_the_front(in_x: ServiceProcess, server: XServer, tmp_path: Path):
    program = shutil.which("nakrel-practice") or str(Path(sys.executable).parent / "nakrel-practice")
    log = tmp_path / "log"
    environment = {**server.environment, "PATH": f"{Path(program).parent}:{server.environment['PATH']}"}
    game = subprocess.Popen([program, "--log", str(log)], env=environment)
    other = None
    try:
        window = wait_for(
            lambda: server.injector("search", "--sync", "--onlyvisible", "--name", "^Practice game$"), "it"
        ).split()[0]
        other = PracticeGame(server, tmp_path)
        assert in_front(server) == other.window
        # On a busy machine the window manager shows a window some time before it lists it.
        wait_for(lambda: hex(int(window)) in listed(server), "its window in the list")
        play(in_x, f"open {program}")
        wait_for(lambda: in_front(server) == window, "the window in front")
        assert faults(in_x) == []
        # It wasn't started once more.
        children = psutil.Process(in_x.process.pid).children(recursive=True)
        assert not [child for child in children if program in child.cmdline()]
    finally:
        game.terminate()
        game.wait(15)
        if other:
            other.end()


@pytest.mark.x11
@needs_x
def test_characters_that_the_layout_lacks_are_typed_under_x11(in_x: ServiceProcess, server: XServer, tmp_path: Path):
    game = PracticeGame(server, tmp_path)
    try:
        play(in_x, 'type "aЯ字b🌊" at 20/s')
        wait_for(lambda: "".join(e["text"] for e in game.entries() if e["event"] == "text") == "aЯ字b🌊", "the text")
        in_x.call(m.PutSecret("oar", SECRET))
        play(in_x, 'type the secret "oar" at 100/s')
        typed = "aЯ字b🌊" + SECRET
        wait_for(lambda: "".join(e["text"] for e in game.entries() if e["event"] == "text") == typed, "the secret")
        # The keys are empty again after a while.
        wait_for(lambda: "Cyrillic_YA" not in _map(server), "the keys to be given back")
    finally:
        game.end()


def _map(server: XServer) -> str:
    return subprocess.run(["xmodmap", "-pke"], env=server.environment, capture_output=True, text=True).stdout


@pytest.mark.x11
@needs_x
def test_the_pointers_path_is_recorded_and_played_back(in_x: ServiceProcess, server: XServer):
    server.injector("mousemove", "100", "100")
    in_x.call(m.StartRecording(RecordingSettings(moves=Moves.PATH, tolerance_px=2)))
    for _ in range(30):
        server.injector("mousemove_relative", "10", "5")
    server.injector("key", "q")
    in_x.hear(lambda: any(isinstance(n, m.Recorded) and len(n.steps) > 2 for n in in_x.notices), "the steps")
    recorded = in_x.call(m.StopRecording())
    assert isinstance(recorded, m.Recorded)
    routes = [step for step in recorded.steps if isinstance(step, Pointer)]
    assert routes
    assert (routes[-1].x, routes[-1].y, routes[-1].size) == (400, 250, (1400, 900))
    assert [step.control for step in recorded.steps if isinstance(step, Press)] == ["KEY_Q"]
    server.injector("mousemove", "700", "700")
    in_x.call(m.PutMacro(Macro(id="m", name="M", loop=recorded.steps)))
    in_x.call(m.Play_("m"))
    in_x.hear(lambda: not in_x.status().running, "the macro's end")
    assert place(server) == (400, 250)


@pytest.mark.x11
@needs_x
def test_places_at_clicks_are_recorded(in_x: ServiceProcess, server: XServer):
    in_x.call(m.StartRecording(RecordingSettings(moves=Moves.CLICKS)))
    for spot in ("321 123", "50 60"):
        server.injector("mousemove", *spot.split())
        server.injector("click", "1")
    recorded = in_x.call(m.StopRecording())
    assert isinstance(recorded, m.Recorded)
    assert [type(s) for s in recorded.steps if not isinstance(s, Wait)] == [Pointer, Press, Release] * 2
    assert [(s.x, s.y) for s in recorded.steps if isinstance(s, Pointer)] == [(321, 123), (50, 60)]


def test_where_nobody_knows_the_pointer_recording_says_so(service: ServiceProcess):
    service.call(m.StartRecording(RecordingSettings(moves=Moves.CLICKS)))
    service.hear(lambda: faults(service), "the word")
    assert "where the pointer is" in faults(service)[-1]
    service.call(m.StopRecording())


@pytest.mark.parametrize("hidden", [False, True])
def test_through_the_kernel_a_move_by_so_much_goes_to_a_place_unless_the_pointer_is_hidden(hidden: bool):
    """A mouse's speed applies to what the kernel is given, but a game that hides the pointer wants to know the way."""

    class Screens:
        pointer = staticmethod(lambda: (700, 400))
        size = staticmethod(lambda: (1280, 800))
        pointer_is_hidden = staticmethod(lambda: hidden)

    desktop = SimpleNamespace(about_screens=lambda question: question(Screens))
    ask = AskPlace(-7, 40, Origin.POINTER, None, 1)
    where, note = SideEffects._whereabouts(SimpleNamespace(_desktop=desktop), ask, None)
    assert note == ""
    expected = Whereabouts(None, (-7, 40), None) if hidden else Whereabouts((700, 400), (693, 440), (1280, 800))
    assert where == expected
