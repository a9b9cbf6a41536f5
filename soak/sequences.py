"""Random fingers, edits, switches, stops and devices that vanish, on the engine: what is held that no finger holds?

The rules and the books are those of the state machine in tests/core/test_engine_machine.py; here chance chooses
instead of hypothesis, which is many times faster, and keeps no examples.
"""

from __future__ import annotations

import random
from collections.abc import Callable

from tests.core.test_engine_machine import FINGERS, KEYS, STROKES, EngineMachine

from nakrel.core.model.cells import Cell, ChangeSpeed, Nothing, RunMacro, ToChord, ToControl, TypeText
from nakrel.core.model.macro import Again, LetGo, Macro, Mode, Play, StartOn
from nakrel.core.model.steps import (
    Branch,
    Chord,
    If,
    Otherwise,
    PickOne,
    Press,
    Release,
    Repeat,
    Set,
    Step,
    Tap,
    Text,
    Wait,
    Wheel,
)
from nakrel.core.play.acts import Stroke
from soak.part import Found, Tell

__all__ = ["sequences"]

_CODES = ("KEY_Q", "KEY_W", "KEY_E", "BTN_LEFT")
_FORMULAS = ("run", "elapsed / 100", "catch + 1", "random(0, 12)", "1 / (run - 2)", 'held("KEY_Q") * 5', "0 - 3")
_STEPS = 40


def _us(chance: random.Random) -> int | str:
    return chance.choice(_FORMULAS) if chance.random() < 0.15 else chance.choice((0, 1, 500, 1_000, 4_000, 15_000))


def _step(chance: random.Random, depth: int = 0) -> Step:
    code = chance.choice(_CODES)
    leaves: list[Callable[[], Step]] = [
        lambda: Press(control=code),
        lambda: Release(control=code),
        lambda: Tap(control=code, hold_us=_us(chance)),
        lambda: Tap(control=code, hold_us=_us(chance), off=True),
        lambda: Chord(controls=tuple(chance.sample(_CODES, chance.choice((2, 3)))), hold_us=_us(chance)),
        lambda: Wait(wait_us=_us(chance)),
        lambda: Wait(wait_us=500, most_us=5_000),
        lambda: Wheel(control="WHEEL_UP", notches=chance.randint(1, 3)),
        lambda: Set(variable="catch", value=chance.choice(_FORMULAS)),
        lambda: Text(text="ab", rate=250),
    ]
    blocks: list[Callable[[], Step]] = [
        lambda: Repeat(times=chance.choice((1, 2, 3, "run % 3", "catch")), steps=_steps(chance, depth + 1)),
        lambda: If(
            condition=chance.choice(_FORMULAS),
            steps=_steps(chance, depth + 1),
            otherwise=Otherwise(steps=_steps(chance, depth + 1)) if chance.random() < 0.5 else None,
        ),
        lambda: PickOne(
            branches=tuple(
                Branch(weight=chance.choice((1, 5, "run - 1")), steps=_steps(chance, depth + 1)) for _ in range(2)
            )
        ),
    ]
    return chance.choice(blocks if depth < 2 and chance.random() < 0.2 else leaves)()


def _steps(chance: random.Random, depth: int = 0) -> tuple[Step, ...]:
    return tuple(_step(chance, depth) for _ in range(chance.randint(0, 5 if not depth else 3)))


def _play(chance: random.Random) -> Play:
    return Play(
        chance.choice(list(Mode)),
        runs=chance.randint(1, 4),
        pause_us=chance.choice((0, 1_000, 15_000)),
        start_on=chance.choice(list(StartOn)),
        let_go=chance.choice(list(LetGo)),
        again=chance.choice(list(Again)),
        limit_runs=chance.choice((None, 1, 3)),
        limit_us=chance.choice((None, 20_000)),
    )


def _macro(chance: random.Random) -> Macro:
    parts = (_steps(chance), _steps(chance), _steps(chance))
    return Macro(
        id=chance.choice(KEYS), name="M", play=_play(chance), lead_in=parts[0], loop=parts[1], lead_out=parts[2]
    )


def _cells(chance: random.Random) -> dict[str, Cell]:
    def cell() -> Cell:
        match chance.randrange(6):
            case 0:
                return Nothing()
            case 1:
                return ToControl(chance.choice(("KEY_W", "KEY_E")))
            case 2:
                return ToChord(("KEY_LEFTCTRL", "KEY_E"))
            case 3:
                return TypeText("ab", 250)
            case 4:
                return ChangeSpeed(chance.choice(("Slow", "Fast")), held=True)
        return RunMacro(chance.choice(KEYS), chance.choice((None, _play(chance))))

    controls = (*FINGERS, "WHEEL_UP")
    return {code: cell() for code in chance.sample(controls, chance.randint(0, len(controls)))}


def _strokes(chance: random.Random) -> tuple[Stroke, ...]:
    return tuple(chance.choice(STROKES) for _ in range(chance.randrange(4)))


def _act(machine: EngineMachine, chance: random.Random) -> None:
    finger = chance.choice(FINGERS)
    acts: list[tuple[int, Callable[[], object]]] = [
        (6, lambda: machine.press(control=finger, passed=chance.random() < 0.5)),
        (6, lambda: machine.let_go(control=finger)),
        (2, lambda: machine.turn(notches=chance.randint(1, 3), passed=chance.random() < 0.5)),
        (8, lambda: machine.pass_time(us=chance.choice((0, 1, 900, 7_000, 60_000)), on_time=chance.random() < 0.8)),
        (2, lambda: machine.edit_macro(macro=_macro(chance))),
        (2, lambda: machine.edit_sheet(new=_cells(chance))),
        (1, lambda: machine.switch(profile=chance.choice(("one", "two")), new=_cells(chance))),
        (1, lambda: machine.edit_layer(new=_cells(chance) if chance.random() < 0.6 else None)),
        (3, lambda: machine.play(key=chance.choice(KEYS), play=_play(chance))),
        (3, lambda: machine.type_text(strokes=_strokes(chance), waits=chance.random() < 0.5)),
        (1, lambda: machine.stop_macro(key=chance.choice(KEYS))),
        (1, lambda: machine.stop_all()),
        (
            1,
            lambda: machine.devices_vanish(
                controls=None if chance.random() < 0.3 else frozenset(chance.sample(FINGERS, 2))
            ),
        ),
    ]
    (act,) = chance.choices([act for _, act in acts], [weight for weight, _ in acts])
    act()


def sequences(count: int, seed: int, tell: Tell) -> Found:
    """So many sequences of 40 events, each followed by letting go of everything and a stop."""
    failures = []
    for number in range(count):
        chance = random.Random(f"{seed} {number}")
        machine = EngineMachine()
        try:
            for _ in range(_STEPS):
                _act(machine, chance)
                machine.nothing_is_stuck()
            machine.teardown()
        except Exception as error:  # noqa: BLE001 - whatever goes wrong is what is looked for
            failures.append(f"sequence {number}: {type(error).__name__}: {error}")
        if number % 200 == 199:
            tell(number + 1)
    return Found(failures)
