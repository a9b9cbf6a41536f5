"""The main job without a window: a real X server, a hand from outside, and the practice game as the witness."""

from __future__ import annotations

import signal
from collections.abc import Iterator
from pathlib import Path

import pytest

from nakrel import protocol as m
from nakrel.backends.x11.clicks import looks_at_clicks
from nakrel.core.model.cells import HoldLayer, RunMacro, ToControl
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, Layer, MatchBy, Profile, ProgramRule, SetUp
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Press, Tap, Wait
from nakrel.service.loop import monotonic_us
from tests.support import GAME, PracticeGame, ServiceProcess, XServer, assert_rate, pause, wait_for
from tests.xorg import XorgServer

pytestmark = [
    pytest.mark.x11,
    pytest.mark.skipif(bool(XServer.missing()), reason=f"needs {XServer.missing()}"),
]

MS = 1_000
CYCLE_MS = 65
BACK = "BTN_SIDE"
SHOT = Macro(
    id="shot", name="Shot", play=Play(Mode.HELD, pause_us=25 * MS), loop=(Tap(control="KEY_Q", hold_us=40 * MS),)
)
# Takes the place of the macro above, and holds W until it is stopped.
HOLD = Macro(id="shot", name="Shot", play=Play(Mode.TOGGLE), loop=(Press(control="KEY_W"), Wait(wait_us=600_000_000)))
Q = "Q"


@pytest.fixture
def game(server: XServer, service: ServiceProcess, tmp_path: Path) -> Iterator[PracticeGame]:
    """The practice game, its profile linked and live, and the macro on the thumb button."""
    service.call(m.PutMacro(SHOT))
    rule = ProgramRule(MatchBy.NAME, GAME)
    cells = {BACK: RunMacro("shot")}
    service.call(m.PutProfile(Profile(id="kiln", name="Kiln Race", programs=(rule,), setups=(SetUp("Main", cells),))))
    game = PracticeGame(server, tmp_path)
    service.hear(lambda: service.status().live == "kiln", "the game's profile")
    server.injector("mousemove", "700", "500")
    yield game
    game.end()


def _clicked(game: PracticeGame) -> bool:
    """Whether a left click arrived; it is too short for a frame to see."""
    left = [e["down"] for e in game.entries() if e["event"] == "arrived" and e["control"] == "Left"]
    return left == [True, False]


def way(service: ServiceProcess, play: Play) -> None:
    service.call(m.PutMacro(Macro(id="shot", name="Shot", play=play, loop=SHOT.loop)))


def idle(service: ServiceProcess) -> None:
    service.hear(lambda: not service.status().running, "the end of all runs")


def test_held_fires_at_its_rate_and_never_after(server: XServer, service: ServiceProcess, game: PracticeGame):
    server.injector("mousedown", "8")
    wait_for(lambda: len(game.presses(Q)) >= 15, "presses")
    server.injector("mouseup", "8")
    idle(service)
    assert_rate(game.presses(Q), CYCLE_MS / 1_000)
    wait_for(lambda: game.down() == set(), "everything up")
    # The trigger itself never reached the game, down or up.
    assert {e["control"] for e in game.entries() if e["event"] == "arrived"} == {Q}


def test_toggle_counted_and_single_do_what_they_say(server: XServer, service: ServiceProcess, game: PracticeGame):
    for play, wanted in [(Play(Mode.COUNTED, runs=5, pause_us=25 * MS), 5), (Play(Mode.SINGLE), 1)]:
        way(service, play)
        before = game.arrivals(Q)
        server.injector("click", "8")
        wait_for(lambda b=before, w=wanted: game.arrivals(Q) - b >= w, f"{wanted} presses")
        idle(service)
        pause(0.2)
        assert game.arrivals(Q) - before == wanted
    way(service, Play(Mode.TOGGLE, pause_us=25 * MS))
    before = len(game.presses(Q))
    server.injector("click", "8")
    wait_for(lambda: len(game.presses(Q)) - before >= 8, "the toggle to run by itself")
    server.injector("click", "8")
    idle(service)
    wait_for(lambda: game.down() == set(), "everything up")


def test_stop_everything_ends_a_toggle_at_once(server: XServer, service: ServiceProcess, game: PracticeGame):
    way(service, Play(Mode.TOGGLE, pause_us=25 * MS))
    server.injector("click", "8")
    wait_for(lambda: game.presses(Q), "the toggle")
    server.injector("key", "Pause")
    idle(service)
    before = len(game.presses(Q))
    pause(0.4)
    assert len(game.presses(Q)) <= before + 1
    assert game.down() == set()


@pytest.mark.parametrize(("trigger", "seen"), [("BTN_MIDDLE", "Middle"), ("KEY_E", "E")])
def test_a_macro_can_press_its_own_trigger(
    server: XServer, service: ServiceProcess, game: PracticeGame, trigger: str, seen: str
):
    if not isinstance(server, XorgServer):
        pytest.skip("the hand and the macro would be one device here")
    loop = (Tap(control=trigger, hold_us=30 * MS),)
    service.call(m.PutMacro(Macro(id="own", name="Own", play=Play(Mode.HELD, pause_us=30 * MS), loop=loop)))
    rule = ProgramRule(MatchBy.NAME, GAME)
    setup = SetUp("Main", {trigger: RunMacro("own")})
    service.call(m.PutProfile(Profile(id="kiln", name="Kiln Race", programs=(rule,), setups=(setup,))))
    edges = ("mousedown", "mouseup", "2") if trigger == "BTN_MIDDLE" else ("keydown", "keyup", "e")
    before = server.injector("getmouselocation")
    server.injector(edges[0], edges[2])
    wait_for(lambda: len(game.presses(seen)) >= 5, "the macro")
    # Meanwhile the rest of the device works: it moves, and its other buttons click.
    server.injector("mousemove_relative", "12", "-7")
    server.injector("click", "1")
    wait_for(lambda: _clicked(game), "the other button's click")
    wait_for(lambda: len(game.presses(seen)) >= 10, "the macro going on")
    server.injector(edges[1], edges[2])
    idle(service)
    count = len(game.presses(seen))
    pause(0.2)
    assert len(game.presses(seen)) == count
    assert game.down() == set()
    assert server.injector("getmouselocation").split()[:2] != before.split()[:2]


def test_a_key_held_by_a_finger_is_not_cut_short_by_a_macro(
    server: XServer, service: ServiceProcess, game: PracticeGame
):
    server.injector("keydown", "q")
    wait_for(lambda: game.down() == {Q}, "the finger's hold")
    server.injector("mousedown", "8")
    pause(0.2)
    server.injector("mouseup", "8")
    idle(service)
    assert game.down() == {Q}
    assert len(game.presses(Q)) == 1
    server.injector("keyup", "q")
    wait_for(lambda: game.down() == set(), "the finger's release")


def test_unattached_controls_and_motion_reach_the_game(server: XServer, service: ServiceProcess, game: PracticeGame):
    server.injector("key", "a")
    server.injector("click", "1")
    server.injector("click", "9")
    # The log has what frames saw, too.
    arrived = lambda: [(e["control"], e["down"]) for e in game.entries() if e["event"] == "arrived"]  # noqa: E731
    wait_for(lambda: len(arrived()) >= 6, "arrivals")
    assert arrived() == [(c, d) for c in ("A", "Left", "Thumb forward") for d in (True, False)]


def test_closing_the_game_brings_everyday_back_and_frees_what_is_held(
    server: XServer, service: ServiceProcess, game: PracticeGame
):
    service.call(m.PutMacro(HOLD))
    server.injector("click", "8")
    wait_for(lambda: game.down() == {"W"}, "the hold")
    game.end()
    service.hear(lambda: service.status().live == EVERYDAY, "Everyday")
    service.hear(lambda: service.seen("shot")[-2:] == [("KEY_W", 1), ("KEY_W", 0)], "the release")


def test_sigterm_releases_what_macros_hold(server: XServer, service: ServiceProcess, game: PracticeGame):
    service.call(m.PutMacro(HOLD))
    server.injector("click", "8")
    wait_for(lambda: game.down() == {"W"}, "the hold")
    assert service.end(signal.SIGTERM) == 0
    wait_for(lambda: game.down() == set(), "the release")


def test_a_simulated_press_that_nobody_attached_reaches_no_game(
    server: XServer, service: ServiceProcess, game: PracticeGame
):
    service.call(m.ChangeSettings(SettingsPatch(stand_ins=True)))
    keyboard = next(device for device in service.devices() if device.standin and "KEY_E" in device.controls)
    for value in (1, 0):
        service.call(m.PressStandIn(keyboard.id, "KEY_E", value))
    # A real one right after it: what was to come before it would have come.
    server.injector("click", "8")
    wait_for(lambda: game.arrivals(Q), "the macro's press")
    assert {e["control"] for e in game.entries() if e["event"] == "arrived"} == {Q}
    assert not [notice for notice in service.notices if isinstance(notice, m.Fault)]


def test_switching_the_stand_ins_off_lets_their_buttons_go(
    server: XServer, service: ServiceProcess, game: PracticeGame
):
    thumb = "BTN_TRIGGER_HAPPY3"
    setup = SetUp("Main", {thumb: RunMacro("shot")})
    rule = ProgramRule(MatchBy.NAME, GAME)
    service.call(m.PutProfile(Profile(id="kiln", name="Kiln Race", programs=(rule,), setups=(setup,))))
    service.call(m.ChangeSettings(SettingsPatch(stand_ins=True)))
    service.call(m.PressStandIn("standin:halyard-12", thumb, 1))
    wait_for(lambda: game.arrivals(Q) >= 3, "the Held macro")
    service.call(m.ChangeSettings(SettingsPatch(stand_ins=False)))
    idle(service)
    wait_for(lambda: game.down() == set(), "everything up")


def test_a_killed_service_leaves_nothing_down(server: XServer, service: ServiceProcess, game: PracticeGame):
    loop = (Press(control="KEY_W"), Press(control="BTN_LEFT"), Wait(wait_us=600_000_000))
    service.call(m.PutMacro(Macro(id="shot", name="Shot", play=Play(Mode.TOGGLE), loop=loop)))
    for _ in range(3):
        server.injector("click", "8")
        wait_for(lambda: game.down() == {"W", "Left"}, "both holds")
        service.end(signal.SIGKILL)
        wait_for(lambda: game.down() == set(), "the guard to let go")
        service.__init__(service.folder, **service.environment)  # type: ignore[misc]
        service.hear(lambda: service.status().live == "kiln", "the profile again")


# A file system without any room left for memory that is a file.
_NO_ROOM = """
import errno, os, sys

def full(*arguments):
    raise OSError(errno.ENOSPC, os.strerror(errno.ENOSPC))

os.posix_fallocate = full
from nakrel.service import start
sys.exit(start.main(sys.argv[1:]))
"""


def test_a_service_that_is_killed_leaves_nothing_down_on_a_full_disk_either(
    server: XServer, service: ServiceProcess, game: PracticeGame
):
    loop = (Press(control="KEY_W"), Wait(wait_us=600_000_000))
    service.call(m.PutMacro(Macro(id="shot", name="Shot", play=Play(Mode.TOGGLE), loop=loop)))
    service.end()
    (service.home.runtime / "holds").unlink()
    service.__init__(service.folder, program=("-c", _NO_ROOM), **service.environment)  # type: ignore[misc]
    service.hear(lambda: service.status().live == "kiln", "the profile")
    assert "kept without a file: [Errno 28]" in service.home.log.read_text()
    server.injector("click", "8")
    wait_for(lambda: game.down() == {"W"}, "the hold")
    service.end(signal.SIGKILL)
    wait_for(lambda: game.down() == set(), "the guard to let go")


def test_recording_in_another_window(server: XServer, service: ServiceProcess, game: PracticeGame):
    service.call(m.StartRecording())
    began = monotonic_us()
    server.injector("keydown", "e")
    pause(0.12)
    server.injector("keyup", "e")
    took = monotonic_us() - began
    server.injector("click", "1")
    server.injector("key", "Scroll_Lock")
    done = service.hear(lambda: [n for n in service.notices if isinstance(n, m.Recorded) and n.done], "the end")
    kinds = [(type(s).__name__, getattr(s, "control", "")) for s in done[0].steps if not isinstance(s, Wait)]
    assert kinds == [("Press", "KEY_E"), ("Release", "KEY_E"), ("Press", "BTN_LEFT"), ("Release", "BTN_LEFT")]
    # The wait is the time for which the hand held the key: 120 ms and part of what xdotool's starts took. The server
    # tells whole milliseconds, between two of which lies up to one more than passed.
    assert 120 * MS <= done[0].steps[1].wait_us < took + MS


def test_losing_the_x_server_stops_all_and_the_service_lives(
    server: XServer, service: ServiceProcess, game: PracticeGame
):
    way(service, Play(Mode.TOGGLE, pause_us=25 * MS))
    server.injector("click", "8")
    service.hear(lambda: service.status().running, "the toggle")
    game.end()
    server.end_server()
    service.hear(lambda: service.status().backend == "standin", "the stand-in")
    assert service.status().running == ()
    assert "X server is gone" in service.status().backend_note
    if not isinstance(server, XorgServer):
        again = XServer(server.display)
        try:
            service.hear(lambda: service.status().backend == "x11", "the way back")
            again.injector("click", "8")
            service.hear(lambda: ("BTN_SIDE", 1) in service.seen("in")[-2:], "a press on the new server")
        finally:
            again.end_server()
            service.hear(lambda: service.status().backend == "standin", "the second loss")
    assert service.end() == 0


def test_while_nakrels_window_is_in_front_macros_reach_no_other(
    server: XServer, service: ServiceProcess, game: PracticeGame
):
    service.call(m.PutMacro(HOLD))
    server.injector("click", "8")
    wait_for(lambda: game.down() == {"W"}, "the hold")
    # The hold is let go at the game when Nakrel comes to the front, and isn't taken up again when it leaves.
    service.call(m.InFront(True))
    wait_for(lambda: game.down() == set(), "the release")
    assert service.status().for_show
    assert service.status().running == ()
    service.call(m.InFront(False))
    server.injector("click", "8")
    wait_for(lambda: game.down() == {"W"}, "the hold by another press")
    service.call(m.InFront(True))
    way(service, Play(Mode.COUNTED, runs=3, pause_us=25 * MS))
    before = game.arrivals(Q)
    server.injector("click", "8")
    service.hear(lambda: service.seen("shot").count(("KEY_Q", 1)) == 3, "three runs in the live strip")
    idle(service)
    assert game.arrivals(Q) == before
    assert game.down() == set()


def test_in_nakrels_window_keys_and_main_buttons_are_themselves(
    server: XServer, service: ServiceProcess, game: PracticeGame
):
    """The game stands for the window here: what reaches the one reaches the other."""
    service.call(m.PutMacro(HOLD))
    rule = ProgramRule(MatchBy.NAME, GAME)
    layer = Layer("Harbour", {"BTN_LEFT": RunMacro("shot")})
    cells = {code: RunMacro("shot") for code in ("KEY_E", "BTN_RIGHT", "WHEEL_DOWN", "BTN_EXTRA")}
    setup = SetUp("Main", {**cells, BACK: HoldLayer("Harbour")}, (layer,))
    service.call(m.PutProfile(Profile(id="kiln", name="Kiln Race", programs=(rule,), setups=(setup,))))
    service.call(m.InFront(True))
    server.injector("key", "e", "click", "1", "click", "3", "click", "5")
    wait_for(lambda: game.arrivals("Right") and game.arrivals("Left") and game.arrivals("E"), "all of it")
    assert service.status().running == ()
    # Another button plays, for preview alone, and that ends with the window.
    server.injector("click", "9")
    service.hear(lambda: [run.macro for run in service.status().running] == ["shot"], "the preview")
    assert game.arrivals("W") == 0
    service.call(m.InFront(False))
    assert service.status().running == ()
    pause(0.2)
    assert game.arrivals("W") == 0
    before = game.arrivals("E")
    server.injector("key", "e")
    wait_for(lambda: game.down() == {"W"}, "the key's macro in the game")
    assert game.arrivals("E") == before


def with_layer(service: ServiceProcess) -> None:
    """The thumb button holds a layer, in which E and the middle button fire."""
    rule = ProgramRule(MatchBy.NAME, GAME)
    layer = Layer("Harbour", {"KEY_E": RunMacro("shot"), "BTN_MIDDLE": ToControl("KEY_W")})
    setup = SetUp("Main", {BACK: HoldLayer("Harbour"), "KEY_R": RunMacro("shot")}, (layer,))
    service.call(m.PutProfile(Profile(id="kiln", name="Kiln Race", programs=(rule,), setups=(setup,))))


def hold_layer(server: XServer, service: ServiceProcess) -> None:
    """Hold the button of the layer, as long before the next press as a hand needs."""
    server.injector("mousedown", "8")
    service.hear(lambda: ("BTN_SIDE", 1) in service.seen("in")[-2:], "the layer's button")


def test_a_notch_in_a_layer_is_one_notch(server: XServer, service: ServiceProcess, game: PracticeGame):
    if not isinstance(server, XorgServer):
        pytest.skip("the wheel and the button that holds the layer would be injected by one device, as the macro is")
    way(service, Play(Mode.SINGLE))
    rule = ProgramRule(MatchBy.NAME, GAME)
    layer = Layer("Harbour", {"WHEEL_DOWN": RunMacro("shot"), "WHEEL_UP": ToControl("KEY_W")})
    setup = SetUp("Main", {BACK: HoldLayer("Harbour")}, (layer,))
    service.call(m.PutProfile(Profile(id="kiln", name="Kiln Race", programs=(rule,), setups=(setup,))))
    hold_layer(server, service)
    for count in (1, 2, 3):
        server.injector("click", "5")
        wait_for(lambda count=count: game.arrivals(Q) >= count, "the run")
        idle(service)
        pause(0.1)
        assert game.arrivals(Q) == count
        # A key that a notch presses is down long enough for a game to see it.
        server.injector("click", "4")
        wait_for(lambda count=count: len(game.presses("W")) >= count, "the notch's key in a frame")
        pause(0.1)
        assert game.arrivals("W") == count
    server.injector("mouseup", "8")


def test_a_held_button_opens_a_layer(server: XServer, service: ServiceProcess, game: PracticeGame):
    with_layer(service)
    hold_layer(server, service)
    server.injector("keydown", "e")
    wait_for(lambda: len(game.presses(Q)) >= 4, "the layer's macro")
    # Letting the layer go in the middle of it ends it, and the key does nothing more.
    server.injector("mouseup", "8")
    idle(service)
    count = len(game.presses(Q))
    server.injector("keyup", "e")
    pause(0.2)
    assert len(game.presses(Q)) == count
    assert game.down() == set()
    assert {e["control"] for e in game.entries() if e["event"] == "arrived"} == {Q}


def test_without_the_layer_its_controls_are_themselves(server: XServer, service: ServiceProcess, game: PracticeGame):
    if not isinstance(server, XorgServer):
        pytest.skip("the hand and what passes would be one device here")
    with_layer(service)
    server.injector("keydown", "e")
    wait_for(lambda: game.down() == {"E"}, "the key by itself, held")
    server.injector("keyup", "e")
    wait_for(lambda: game.down() == set(), "and let go")
    server.injector("click", "2")
    wait_for(lambda: game.arrivals("Middle") == 1, "the middle button's click")
    server.injector("mousedown", "8")
    server.injector("click", "2")
    wait_for(lambda: game.arrivals("W") == 1, "what it does in the layer")
    server.injector("mouseup", "8")
    server.injector("click", "2")
    wait_for(lambda: game.arrivals("Middle") == 2, "the middle button's click again")
    wait_for(lambda: game.down() == set(), "and let go")


def test_a_second_button_plays_while_the_first_is_held(server: XServer, service: ServiceProcess, game: PracticeGame):
    """The X server gives no second button to a passive grab, so that the programs see it, too; its macro plays."""
    other = Macro(id="other", name="Other", loop=(Tap(control="KEY_W", hold_us=30 * MS),))
    service.call(m.PutMacro(other))
    rule = ProgramRule(MatchBy.NAME, GAME)
    setup = SetUp("Main", {BACK: RunMacro("shot"), "BTN_EXTRA": RunMacro("other")})
    service.call(m.PutProfile(Profile(id="kiln", name="Kiln Race", programs=(rule,), setups=(setup,))))
    server.injector("mousedown", "8")
    wait_for(lambda: len(game.presses(Q)) >= 2, "the first button's macro")
    server.injector("click", "9")
    wait_for(lambda: game.arrivals("W") == 1, "the second button's macro")
    server.injector("mouseup", "8")
    idle(service)
    wait_for(lambda: game.down() == set(), "everything up")


def test_a_window_manager_that_looks_at_each_click_is_found(server: XServer, game: PracticeGame):
    """Openbox grabs the first button on every window. Looking takes no click away."""
    assert looks_at_clicks(server.display) is True
    before = game.arrivals("Left")
    server.injector("click", "1")
    wait_for(lambda: game.arrivals("Left") == before + 1, "the click after that")


def test_without_a_window_manager_nobody_looks_at_clicks():
    server = XServer()
    try:
        server._manager.kill()
        server._manager.wait()
        assert looks_at_clicks(server.display) is None
    finally:
        server.end_server()
