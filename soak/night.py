"""A night of play: eight hours on the simulated clock, every event at its planned time."""

from __future__ import annotations

from nakrel.core.model.cells import RunMacro
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Tap, Wait
from nakrel.core.play.engine import Engine
from nakrel.core.play.events import Emit, Pressed, Released, SetSheet
from nakrel.core.play.operations import compile_macro
from nakrel.core.play.sheet import Sheet
from nakrel.core.play.simulate import Simulator
from soak.part import Found, Tell

__all__ = ["simulated_night"]

# A cycle that no whole number of frames or milliseconds fits: 17.543 ms.
_HOLD_US, _WAIT_US, _PAUSE_US = 8_311, 4_229, 5_003
_CYCLE_US = _HOLD_US + _WAIT_US + _PAUSE_US
_MACRO = Macro(
    id="night",
    name="Night",
    play=Play(Mode.TOGGLE, pause_us=_PAUSE_US),
    loop=(Tap(control="KEY_Q", hold_us=_HOLD_US), Wait(wait_us=_WAIT_US)),
)
_AT_ONCE_US = 60_000_000


def simulated_night(count: int, seed: int, tell: Tell) -> Found:
    """So many simulated minutes: how far the events are from where arithmetic has them."""
    simulator = Simulator(Engine())
    plan = compile_macro(_MACRO)
    sheet = Sheet.build("game", {"BTN_SIDE": RunMacro(_MACRO.id)}, lambda key: (plan, _MACRO.play))
    simulator.send(SetSheet(sheet))
    began_us = simulator.now_us
    simulator.send(Pressed("BTN_SIDE"))
    simulator.send(Released("BTN_SIDE"))
    taps, worst_us = 0, 0
    for minute in range(count):
        # The limit on what a plan may take is meant for one plan, and a night is many.
        simulator.wakes = 0
        simulator.run(_AT_ONCE_US)
        for _, out in simulator.log:
            if isinstance(out, Emit):
                planned_us = began_us + taps // 2 * _CYCLE_US + taps % 2 * _HOLD_US
                worst_us = max(worst_us, abs(out.due_us - planned_us))
                taps += 1
        simulator.log.clear()
        tell(minute + 1)
    wanted = 2 * (count * _AT_ONCE_US // _CYCLE_US)
    failures = []
    if worst_us:
        failures.append(f"an event was planned {worst_us} µs from its place")
    if not wanted <= taps <= wanted + 2:
        failures.append(f"{taps:,} events instead of {wanted:,}")
    return Found(failures, f"{taps:,} events, drift {worst_us} µs")
