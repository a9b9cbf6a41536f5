"""A text comes as it is written, whatever fingers hold meanwhile, and what they hold comes back."""

from __future__ import annotations

from nakrel.core.model.cells import Cell, RunMacro, ToControl
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.notation import read
from nakrel.core.play.acts import AskText, Stroke
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import (
    Emit,
    InputsLost,
    Pressed,
    Released,
    SetSheet,
    SideEffect,
    StopAll,
    StopMacro,
    TextReady,
)
from nakrel.core.play.operations import compile_macro
from nakrel.core.play.sheet import Sheet
from nakrel.core.play.simulate import Simulator

MS = 1_000
SHIFT, W = "KEY_LEFTSHIFT", "KEY_W"
CHAT = 'tap Enter for 10 ms\ntype "aWw" at 100/s\ntap Enter for 10 ms\nwait 100 ms'
# How the text is typed: an a, a capital W and a small one; 10 ms each.
STROKES = (Stroke("KEY_A"), Stroke(W, (SHIFT,)), Stroke(W))


class Player(Simulator):
    """Chat on the side button, which asks for its text's keys; a thumb button acts as Shift."""

    def __init__(self, text: str = CHAT, play: Play | None = None, key: str = "chat", **cells: Cell) -> None:
        super().__init__(Engine())
        found = read(text)
        macro = Macro(id=key, name="Chat", **{section.value: steps for section, steps in found.items()})
        made = compile_macro(macro), play or Play()
        sheet = {"BTN_SIDE": RunMacro(key), **cells}
        self.send(SetSheet(Sheet.build("game", sheet, lambda key: made)))

    def _answer(self, asked: SideEffect) -> TextReady | None:
        return TextReady(asked.by, asked.what.ticket, STROKES) if isinstance(asked.what, AskText) else None

    def press(self, control: str = "BTN_SIDE", *, passed: bool = False) -> None:
        self.send(Pressed(control, passed))

    def edges(self) -> list[tuple[int, str, int]]:
        """What went out: when, what and how, without the keys of chat itself."""
        return [
            (at // MS, out.control, out.value)
            for at, out in self.log
            if isinstance(out, Emit) and out.control not in ("KEY_ENTER", "KEY_A")
        ]

    def lifted(self) -> set[str]:
        """What went up though a finger was on it whose press had passed."""
        return {out.control for _, out in self.log if isinstance(out, Emit) and out.lifts}


TYPED = [(40, SHIFT, 1), (40, W, 1), (45, W, 0), (45, SHIFT, 0), (50, W, 1), (55, W, 0)]


def test_a_finger_on_shift_makes_no_capitals_and_has_it_again_afterwards():
    game = Player()
    game.press(SHIFT, passed=True)
    game.press()
    game.run(1_000 * MS)
    # It is up from before the first key until after the last one.
    assert game.edges() == [(10, SHIFT, 0), *TYPED, (55, SHIFT, 1)]
    assert game.lifted() == {SHIFT}
    game.send(Released(SHIFT))
    assert game.edges()[-1] == (1_000, SHIFT, 0)
    assert game.engine.down() == set()


def test_without_a_finger_on_one_of_its_keys_a_text_begins_at_once():
    game = Player()
    game.press("KEY_Q", passed=True)
    game.press()
    game.run(1_000 * MS)
    assert game.edges() == [(at - 20, control, value) for at, control, value in TYPED]
    assert game.engine.down() == {"KEY_Q"}


def test_a_letter_that_a_finger_holds_is_typed_and_comes_back_with_the_end_of_the_macro():
    game = Player()
    game.press(W, passed=True)
    game.press()
    game.run(1_000 * MS)
    # Chat is closed by then: before, it would have typed more of them.
    assert game.edges() == [(10, W, 0), *TYPED, (170, W, 1)]


def test_what_a_finger_lets_go_meanwhile_stays_up():
    game = Player()
    for control in (SHIFT, W):
        game.press(control, passed=True)
    game.press()
    game.run(42 * MS)
    # The capital is being typed: the desktop has taken both up for all, so they go down anew for that.
    for control in (SHIFT, W):
        game.send(Released(control))
    game.run(1_000 * MS)
    assert game.edges() == [
        (10, SHIFT, 0), (10, W, 0), *TYPED[:2], (42, SHIFT, 0), (42, SHIFT, 1), (42, W, 0), (42, W, 1), *TYPED[2:],
    ]  # fmt: skip
    assert game.engine.down() == set()


def test_a_modifier_that_is_pressed_in_the_midst_of_a_text_waits_for_its_end():
    game = Player()
    game.press()
    game.run(13 * MS)
    game.press("KEY_RIGHTCTRL", passed=True)
    game.run(1_000 * MS)
    ctrl = [(at, value) for at, control, value in game.edges() if control == "KEY_RIGHTCTRL"]
    assert ctrl == [(13, 0), (35, 1)]
    assert game.lifted() == {"KEY_RIGHTCTRL"}


def test_shift_pressed_while_a_capital_is_typed_goes_up_with_it_on_both_devices():
    game = Player()
    game.press()
    game.run(22 * MS)
    game.press(SHIFT, passed=True)
    game.run(1_000 * MS)
    assert [(at, value) for at, control, value in game.edges() if control == SHIFT] == [(20, 1), (25, 0), (35, 1)]
    assert game.lifted() == {SHIFT}


def test_a_button_that_acts_as_shift_is_set_aside_like_shift():
    game = Player(BTN_EXTRA=ToControl(SHIFT))
    game.press("BTN_EXTRA")
    game.press()
    game.run(30 * MS)
    game.send(Released("BTN_EXTRA"))
    game.press("BTN_EXTRA")
    game.run(1_000 * MS)
    assert game.edges() == [(0, SHIFT, 1), (10, SHIFT, 0), *TYPED, (55, SHIFT, 1)]
    assert game.lifted() == set()
    game.send(Released("BTN_EXTRA"))
    assert game.engine.down() == set()


def test_however_a_text_ends_fingers_have_their_keys_again():
    for end in (StopMacro("chat"), StopAll(), SetSheet(Sheet.build("other", {}, lambda key: None)), InputsLost(None)):
        game = Player(play=Play(Mode.TOGGLE))
        for control in (SHIFT, W):
            game.press(control, passed=True)
        game.press()
        game.run(42 * MS)
        game.send(end)
        game.run(1_000 * MS)
        held = set() if isinstance(end, InputsLost) else {SHIFT, W}
        if not isinstance(end, InputsLost):
            assert game.engine.running == {}
            assert game.engine.down() == held
        for control in held:
            game.send(Released(control))
        game.send(StopAll())
        assert game.engine.down() == set()


def test_a_text_that_is_stopped_leaves_caps_lock_as_it_was():
    caps = Stroke("KEY_CAPSLOCK")

    class German(Player):
        def _answer(self, asked: SideEffect) -> TextReady | None:
            strokes = (Stroke("KEY_A"), caps, Stroke("KEY_MINUS"), caps, Stroke("KEY_A"))
            return TextReady(asked.by, asked.what.ticket, strokes) if isinstance(asked.what, AskText) else None

    # Each key takes 10 ms, the first begins at 10: before, in the midst of, and after what is typed without it.
    for at_ms, presses in ((15, 0), (22, 2), (27, 2), (32, 2), (42, 2), (47, 2), (52, 2)):
        for end in (StopMacro("chat"), StopAll()):
            game = German()
            game.press()
            game.run(at_ms * MS)
            game.send(end)
            game.run(1_000 * MS)
            values = [value for _, control, value in game.edges() if control == "KEY_CAPSLOCK"]
            assert values == [1, 0] * presses, (at_ms, end)


def test_a_macro_whose_id_begins_like_a_fingers_types_its_own_capitals():
    game = Player(key="fingers")
    game.press()
    game.run(1_000 * MS)
    assert game.edges() == [(at - 20, control, value) for at, control, value in TYPED]


def test_another_macro_is_not_set_aside():
    """Its keys are as exact as ever: who lets both run at once gets what both do."""
    game = Player()
    found = read("press Left Shift\nwait 1000 ms")
    macro = Macro(id="run", name="Run", **{section.value: steps for section, steps in found.items()})
    sheet = {"BTN_SIDE": RunMacro("chat"), "BTN_EXTRA": RunMacro("run")}
    chat = Macro(id="chat", name="Chat", **{section.value: steps for section, steps in read(CHAT).items()})
    plans = {each.id: (compile_macro(each), Play()) for each in (macro, chat)}
    game.send(SetSheet(Sheet.build("game", sheet, plans.get)))
    game.press("BTN_EXTRA")
    game.press()
    game.run(500 * MS)
    assert [(at, value) for at, control, value in game.edges() if control == SHIFT] == [(0, 1)]
