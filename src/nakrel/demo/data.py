"""The demo's profiles and macros."""

from __future__ import annotations

from nakrel.core.model.cells import (
    Cell,
    ChangeSpeed,
    GoTo,
    HoldLayer,
    Nothing,
    RunMacro,
    ToChord,
    ToControl,
    TypeText,
    What,
)
from nakrel.core.model.conditioning import Pointing, SpeedStage
from nakrel.core.model.controls import game_key
from nakrel.core.model.macro import Again, LetGo, Macro, Mode, Play
from nakrel.core.model.profile import EVERYDAY, FairPlay, GameKey, Layer, MatchBy, Profile, ProgramRule, SetUp
from nakrel.core.model.steps import (
    Branch,
    Chord,
    If,
    Otherwise,
    PickOne,
    Pointer,
    Press,
    Release,
    Set,
    Step,
    Tap,
    Text,
    Wait,
    Wheel,
)

__all__ = ["MACROS", "PROFILES"]

MS = 1_000


def _tap(code: str, hold_ms: float, wait_ms: float = 0, remark: str = "") -> tuple[Step, ...]:
    tap = Tap(control=code, hold_us=int(hold_ms * MS), remark=remark)
    return (tap, Wait(wait_us=int(wait_ms * MS))) if wait_ms else (tap,)


def _thumb(number: int) -> str:
    return f"BTN_TRIGGER_HAPPY{number}"


MACROS: tuple[Macro, ...] = (
    Macro(
        id="reel-in",
        name="Reel in",
        note="Keeps the line tight while the thumb is down.",
        play=Play(Mode.HELD, pause_us=25 * MS, let_go=LetGo.AFTER_RUN),
        lead_in=(Press(control="KEY_LEFTSHIFT", remark="held to the end"), Wait(wait_us=20 * MS)),
        loop=(
            *_tap("KEY_R", 17, 7, "Reel"),
            *_tap("BTN_LEFT", 17, 11),
            *_tap("KEY_R", 17, 7, "Reel"),
            *_tap("BTN_LEFT", 17),
        ),
        lead_out=(Wait(wait_us=10 * MS), Release(control="KEY_LEFTSHIFT")),
    ),
    Macro(
        id="storm-volley",
        name="Storm volley",
        note="Five volleys, then the deck is clear.",
        play=Play(Mode.COUNTED, runs=5, pause_us=120 * MS, again=Again.STOP),
        loop=(*_tap("KEY_1", 34, 66), *_tap("KEY_2", 34, 66), *_tap("KEY_3", 34)),
    ),
    Macro(
        id="mend-and-shield",
        name="Mend and shield",
        loop=(*_tap("KEY_F5", 40, 180, "mend the nearest"), *_tap("KEY_F6", 40, 0, "shield")),
    ),
    Macro(
        id="steady-oar",
        name="Steady oar",
        note="A stroke every 1.2 s until stopped.",
        play=Play(Mode.TOGGLE, pause_us=350 * MS, limit_us=3_600_000_000),
        loop=(Press(control="KEY_W"), Wait(wait_us=850 * MS), Release(control="KEY_W")),
    ),
    Macro(
        id="weigh-the-catch",
        name="Weigh the catch",
        note="The scales hang in the harbour office; every third catch goes to the keeper.",
        play=Play(Mode.TOGGLE, limit_runs=12),
        lead_in=(Press(control="KEY_LEFTSHIFT"), Wait(wait_us=40 * MS)),
        loop=(
            Pointer(x=640, y=412, size=(1280, 800), over_us=120 * MS, remark="the scales"),
            Wait(wait_us=200 * MS),
            Tap(control="BTN_LEFT", hold_us=60 * MS),
            Wait(wait_us=180 * MS, most_us=420 * MS),
            If(
                condition="run % 3 == 0",
                steps=(Text(text="for the keeper", rate=40),),
                otherwise=Otherwise(steps=(Tap(control="KEY_R", hold_us=40 * MS),)),
            ),
            Set(variable="catches", value="catches + 1"),
            PickOne(
                branches=(
                    Branch(weight=3, steps=(Tap(control="KEY_1", hold_us=40 * MS),)),
                    Branch(steps=(Tap(control="KEY_2", hold_us=40 * MS), Wait(wait_us=60 * MS))),
                )
            ),
            Wait(wait_us="100 + min(catches, 10) * 20", remark="the heap grows"),
            Chord(controls=("KEY_LEFTCTRL", "KEY_W"), hold_us=50 * MS),
            Wheel(control="WHEEL_DOWN", notches=2),
        ),
        lead_out=(Release(control="KEY_LEFTSHIFT"),),
    ),
    Macro(
        id="cut-the-line",
        name="Cut the line",
        loop=(*_tap("KEY_X", 30, 40), *_tap("BTN_RIGHT", 30)),
    ),
    Macro(
        id="cast-far",
        name="Cast far",
        loop=(Press(control="BTN_LEFT"), Wait(wait_us=1_450 * MS, remark="full swing"), Release(control="BTN_LEFT")),
    ),
    Macro(
        id="haul-the-net",
        name="Haul the net",
        note="By the game's own names for its keys: change them there once.",
        play=Play(Mode.HELD, pause_us=80 * MS, let_go=LetGo.AFTER_RUN),
        loop=(*_tap(game_key("Haul"), 60, 140), *_tap(game_key("Brace"), 40, 60), *_tap(game_key("Haul"), 60)),
    ),
    Macro(
        id="quick-parry",
        name="Quick parry",
        note="Parry first; the lunge waits for the blade to come round.",
        loop=(*_tap("BTN_RIGHT", 50, 90, "parry"), *_tap("BTN_LEFT", 34, 0, "lunge")),
    ),
    Macro(
        id="hop-step",
        name="Hop step",
        play=Play(Mode.HELD, pause_us=30 * MS),
        loop=_tap("KEY_SPACE", 20),
    ),
    Macro(
        id="thorn-fan",
        name="Thorn fan",
        play=Play(Mode.HELD, pause_us=33 * MS),
        loop=_tap("BTN_LEFT", 17),
    ),
    Macro(
        id="guard-break",
        name="Guard break",
        loop=(
            Press(control="KEY_LEFTCTRL"),
            Wait(wait_us=12 * MS),
            *_tap("KEY_E", 34, 20),
            Release(control="KEY_LEFTCTRL"),
        ),
    ),
    Macro(
        id="stamp-40-parcels",
        name="Stamp 40 parcels",
        note="The press takes 1.5 s; the stamp menu opens with the second tap.",
        play=Play(Mode.COUNTED, runs=40, pause_us=400 * MS, again=Again.STOP),
        loop=(
            *_tap("KEY_ENTER", 60, 200, "open the menu"),
            Wheel(control="WHEEL_DOWN", notches=2),
            Wait(wait_us=120 * MS),
            *_tap("KEY_ENTER", 60, 1_500, "stamp"),
        ),
    ),
    Macro(
        id="read-the-ledger",
        name="Read the ledger",
        play=Play(Mode.TOGGLE, pause_us=2_000 * MS, limit_runs=30),
        loop=(*_tap("KEY_PAGEDOWN", 45),),
    ),
)

_EVERYDAY: dict[str, Cell] = {
    "BTN_SIDE": ToControl("KEY_BACK"),
    "BTN_EXTRA": ToControl("KEY_FORWARD"),
    _thumb(12): ToControl("KEY_PLAYPAUSE"),
    _thumb(11): ToControl("KEY_MUTE"),
}
_HEALER: dict[str, Cell] = {
    "BTN_MIDDLE": RunMacro("mend-and-shield"),
    _thumb(1): ToControl("KEY_R"),
    _thumb(2): ToControl("KEY_F"),
    _thumb(3): RunMacro("reel-in"),
    _thumb(4): RunMacro("storm-volley"),
    _thumb(5): RunMacro("cut-the-line"),
    _thumb(6): RunMacro("steady-oar"),
    _thumb(7): ToControl("KEY_F13"),
    _thumb(8): ToControl("KEY_M"),
    _thumb(9): RunMacro("cast-far"),
    _thumb(10): RunMacro("weigh-the-catch"),
    _thumb(12): HoldLayer("Harbour"),
    "WHEEL_RIGHT": GoTo(What.SETUP, "Netter"),
    "KEY_CAPSLOCK": Nothing(),
    "BTN_SIDE": RunMacro("reel-in"),
}
_NETTER: dict[str, Cell] = {
    _thumb(1): ToControl(game_key("Cast")),
    _thumb(2): RunMacro("haul-the-net"),
    _thumb(3): RunMacro("cast-far"),
    _thumb(4): RunMacro("steady-oar"),
    _thumb(5): RunMacro("cut-the-line"),
    "WHEEL_LEFT": GoTo(What.SETUP, "Healer"),
    "BTN_SIDE": RunMacro("haul-the-net"),
}
_HARBOUR: dict[str, Cell] = {
    _thumb(1): ToChord(("KEY_LEFTCTRL", "KEY_M")),
    _thumb(2): TypeText("Good tide to all!"),
    _thumb(3): RunMacro("stamp-40-parcels"),
    _thumb(4): ToControl("KEY_F9"),
}
_DUEL: dict[str, Cell] = {
    "BTN_SIDE": RunMacro("thorn-fan"),
    "BTN_EXTRA": RunMacro("quick-parry"),
    _thumb(1): RunMacro("quick-parry"),
    _thumb(2): RunMacro("guard-break"),
    _thumb(3): RunMacro("hop-step"),
    _thumb(4): RunMacro("thorn-fan", Play(Mode.TOGGLE, pause_us=33 * MS, limit_us=20_000_000)),
    "BTN_BACK": ChangeSpeed("Aim", held=True),
    "BTN_FORWARD": ChangeSpeed(),
    "KEY_LEFTMETA": Nothing(),
}
_POST: dict[str, Cell] = {
    _thumb(1): RunMacro("stamp-40-parcels"),
    _thumb(2): RunMacro("read-the-ledger"),
    _thumb(3): ToControl("KEY_ESC"),
    "BTN_EXTRA": RunMacro("stamp-40-parcels"),
}

PROFILES: tuple[Profile, ...] = (
    Profile(id=EVERYDAY, name="Everyday", colour="#8A857B", setups=(SetUp("Main", _EVERYDAY),)),
    Profile(
        id="tidewardens",
        name="Tidewardens",
        note="Harbour keepers; thumb row is the rigging.",
        colour="#3E7C8C",
        programs=(ProgramRule(MatchBy.NAME, "tidewardens.x86_64"),),
        setups=(
            SetUp("Healer", _HEALER, (Layer("Harbour", _HARBOUR),), colour="#3E7C8C"),
            SetUp("Netter", _NETTER, colour="#B07A2A"),
        ),
        keys=(
            GameKey("Cast", "KEY_C"),
            GameKey("Haul", "KEY_R"),
            GameKey("Brace", "KEY_LEFTCTRL"),
            GameKey("Mend", "KEY_F5"),
            GameKey("Shield", "KEY_F6"),
            GameKey("Chart", "KEY_M"),
        ),
        falls_through=True,
    ),
    Profile(
        id="brackenfall-arena",
        name="Brackenfall Arena",
        note="Duels; the league allows one action a press.",
        colour="#A3503F",
        programs=(ProgramRule(MatchBy.NAME, "brackenfall"),),
        setups=(SetUp("Duel", _DUEL),),
        pointer=Pointing((SpeedStage("Walk"), SpeedStage("Turn", 160, 100), SpeedStage("Aim", 45, 45))),
        fair_play=FairPlay.ONE_ACTION,
    ),
    Profile(
        id="orrery-post",
        name="Orrery Post",
        colour="#6B63A8",
        programs=(ProgramRule(MatchBy.NAME, "orrery-post"),),
        setups=(SetUp("Counter", _POST),),
    ),
)
