"""What a game sees that is made with SDL and keeps pointer and keyboard to itself: a witness that isn't ours.

SDL's numbers of keys are those of the keyboard page of the USB HID Usage Tables 1.5 (chapter 10), mouse buttons those
of the X server up to the third.
"""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest

from nakrel import protocol as m
from nakrel.backends.x11.screens import X11Screens
from nakrel.core.model.cells import HoldLayer, RunMacro, ToControl
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import Layer, MatchBy, Profile, ProgramRule, SetUp
from nakrel.core.model.steps import Origin, Pointer, Step, Tap, Text, Wheel
from tests.support import GAME, SdlGame, ServiceProcess, XServer, wait_for
from tests.xorg import XorgServer

pytest.importorskip("pygame", reason="needs SDL")
pytestmark = [
    pytest.mark.x11,
    pytest.mark.skipif(bool(XServer.missing()), reason=f"needs {XServer.missing()}"),
]

MS = 1_000
# USB HID Usage Tables 1.5, chapter 10.
USAGES = {
    "KEY_A": 0x04, "KEY_Z": 0x1D, "KEY_1": 0x1E, "KEY_0": 0x27, "KEY_ENTER": 0x28, "KEY_ESC": 0x29, "KEY_TAB": 0x2B,
    "KEY_SPACE": 0x2C, "KEY_MINUS": 0x2D, "KEY_SEMICOLON": 0x33, "KEY_F1": 0x3A, "KEY_F12": 0x45, "KEY_PAGEUP": 0x4B,
    "KEY_DELETE": 0x4C, "KEY_UP": 0x52, "KEY_KPPLUS": 0x57, "KEY_KP1": 0x59, "KEY_KP0": 0x62, "KEY_F13": 0x68,
    "KEY_LEFTCTRL": 0xE0, "KEY_LEFTSHIFT": 0xE1, "KEY_RIGHTSHIFT": 0xE5,
}  # fmt: skip
KEY_Q, KEY_W = 0x14, 0x1A
LEFT, RIGHT = 1, 3


@pytest.fixture
def game(server: XServer, service: ServiceProcess, tmp_path: Path) -> Iterator[SdlGame]:
    rule = ProgramRule(MatchBy.NAME, GAME)
    layer = Layer("Harbour", {"BTN_LEFT": ToControl("KEY_W"), "BTN_MIDDLE": RunMacro("shot")})
    cells = {code: RunMacro("shot") for code in ("BTN_EXTRA", "KEY_R")}
    setup = SetUp("Main", {**cells, "BTN_SIDE": HoldLayer("Harbour"), "BTN_MIDDLE": RunMacro("clicks")}, (layer,))
    put(service, "shot", Tap(control="KEY_Q", hold_us=30 * MS))
    put(service, "clicks", Tap(control="BTN_MIDDLE", hold_us=20 * MS), mode=Mode.HELD)
    service.call(m.PutProfile(Profile(id="kiln", name="Kiln Race", programs=(rule,), setups=(setup,))))
    game = SdlGame(server, tmp_path)
    service.hear(lambda: service.status().live == "kiln", "the game's profile")
    yield game
    game.end()


def put(service: ServiceProcess, name: str, *steps: Step, mode: Mode = Mode.SINGLE) -> None:
    service.call(m.PutMacro(Macro(id=name, name=name.title(), play=Play(mode, pause_us=20 * MS), loop=steps)))


def test_keys_clicks_notches_and_texts_are_what_they_are_called(
    server: XServer, service: ServiceProcess, game: SdlGame
):
    if not isinstance(server, XorgServer):
        pytest.skip("the hand and the macro would be one device here, and Left has something attached")
    put(service, "shot", *(Tap(control=code, hold_us=2 * MS) for code in USAGES))
    service.call(m.Play_("shot"))
    expected = [(usage, down) for usage in USAGES.values() for down in (True, False)]
    wait_for(lambda: len(game.edges()) >= len(expected), "all keys")
    assert game.edges() == expected
    wait_for(lambda: not service.status().running, "the end")
    before = len(game.entries("text"))
    clicks = (Tap(control=code, hold_us=20 * MS) for code in ("BTN_LEFT", "BTN_MIDDLE", "BTN_RIGHT"))
    put(service, "shot", *clicks, Wheel(control="WHEEL_UP", notches=2), Text(text="Kélp & salt → 7"))
    service.call(m.Play_("shot"))
    wait_for(lambda: len(game.entries("text")) >= before + 15, "the text")
    assert "".join(e["text"] for e in game.entries("text")[before:]) == "Kélp & salt → 7"
    buttons = [(e["button"], e["down"]) for e in game.entries("button")]
    # A notch is told as a button, too.
    assert buttons == [(button, down) for button in (1, 2, 3, 4, 4) for down in (True, False)]
    assert sum(e["wheel"] for e in game.entries("wheel")) == 2


def test_a_game_with_pointer_and_keyboard_to_itself_gets_the_macro_and_not_the_press(
    server: XServer, service: ServiceProcess, game: SdlGame
):
    for press in (("click", "9"), ("key", "r")):
        before = len(game.edges())
        server.injector(*press)
        wait_for(lambda before=before: len(game.edges()) >= before + 2, "the macro")
        server.injector("key", "w")
        wait_for(lambda before=before: len(game.edges()) >= before + 4, "a key without anything attached")
        assert game.edges()[before:] == [(KEY_Q, True), (KEY_Q, False), (KEY_W, True), (KEY_W, False)]


def test_stop_everything_works_while_a_game_has_the_keyboard_to_itself(
    server: XServer, service: ServiceProcess, game: SdlGame
):
    put(service, "shot", Tap(control="KEY_Q", hold_us=10 * MS), mode=Mode.TOGGLE)
    server.injector("click", "9")
    wait_for(lambda: len(game.edges()) >= 4, "the toggle")
    server.injector("key", "Pause")
    service.hear(lambda: not service.status().running, "the end of the macro")
    wait_for(lambda: dict(game.edges())[KEY_Q] is False, "the key up")


def test_a_move_by_so_much_turns_the_view_by_that(server: XServer, service: ServiceProcess, game: SdlGame):
    """Such a game has the pointer to itself, hidden; a place would be a way of some hundred pixels for it."""
    screens = X11Screens(server.display)
    assert screens.pointer_is_hidden()
    # At once, and in parts over a time; with the mouse against recoil.
    for over_us in (0, 120 * MS):
        before = game.moved()
        step = Pointer(x=-7, y=40, origin=Origin.POINTER, over_us=over_us)
        put(service, "shot", step, Tap(control="KEY_Q", hold_us=1 * MS), step)
        count = len(game.edges())
        service.call(m.Play_("shot"))
        wait_for(lambda count=count: len(game.edges()) >= count + 2, "the key between both")
        wait_for(lambda before=before: game.moved()[1] - before[1] >= 80, "both moves")
        assert (game.moved()[0] - before[0], game.moved()[1] - before[1]) == (-14, 80)
    game.end()
    wait_for(lambda: not screens.pointer_is_hidden(), "the pointer")
    screens.close()


def test_the_mouse_turns_the_view_whatever_is_held(server: XServer, service: ServiceProcess, game: SdlGame):
    if not isinstance(server, XorgServer):
        pytest.skip("the hand and what passes would be one device here")

    def turn() -> None:
        before, _ = game.moved()
        for _ in range(20):
            server.injector("mousemove_relative", "5", "0")
        wait_for(lambda: game.moved()[0] - before >= 100, "the turn")
        assert game.moved()[0] - before == 100

    turn()
    # A button that fires, one that fires itself, and one that holds a layer.
    for button, name in (("9", "BTN_EXTRA"), ("2", "BTN_MIDDLE"), ("8", "BTN_SIDE")):
        server.injector("mousedown", button)
        service.hear(lambda name=name: (name, 1) in service.seen("in")[-2:], "the press")
        turn()
        if button == "8":
            before = len(game.edges())
            server.injector("click", "3")
            server.injector("click", "1")
            wait_for(lambda before=before: len(game.edges()) >= before + 4, "a button, and one of the layer")
            assert game.edges()[before:] == [(RIGHT, True), (RIGHT, False), (KEY_W, True), (KEY_W, False)]
        server.injector("mouseup", button)
        turn()
