"""Hard kills on the kernel's input at random moments; `--kills 30` repeats it so often, and scripts/soak adds up."""

from __future__ import annotations

import random
import signal
import time
from collections.abc import Callable

import pytest

from nakrel import protocol as m
from nakrel.backends.kernel.output import HANDS_NAME
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.steps import Press, Tap, Wait
from nakrel.storage.library import Library
from tests.kernel.conftest import Bench, on
from tests.kernel.injector import HidMouse, UsbMouse
from tests.kernel.witness import Witness
from tests.support import wait_for

_FOREVER = Wait(wait_us=600_000_000)
_KEYS = ("KEY_W", "KEY_A", "KEY_LEFTSHIFT", "BTN_RIGHT", "KEY_Q")


def _macro(chance: random.Random, key: str) -> Macro:
    keys = chance.sample(_KEYS, chance.randint(1, 3))
    steps = (
        (*(Press(control=code) for code in keys), _FOREVER)
        if chance.random() < 0.5
        else (Tap(control=keys[0], hold_us=chance.choice((1_000, 20_000))), Wait(wait_us=3_000))
    )
    return Macro(id=key, name=key.title(), play=Play(Mode.TOGGLE), loop=steps)


# Four seconds each in the test machine where that has the computer for itself, and thrice that where it hasn't.
@pytest.mark.timeout(800)
def test_kills_at_random_moments(
    mouse: UsbMouse | HidMouse, start: Callable[[], Bench], witness: Witness, request: pytest.FixtureRequest
):
    """Nothing stays down, the mouse is an ordinary one again, and what was confirmed is on the disk."""
    count, seed = request.config.getoption("--kills", 2), request.config.getoption("--kills-seed", 1)
    for number in range(count):
        chance = random.Random(f"{seed} {number}")
        witness.forget(HANDS_NAME)
        bench = start()
        bench.attach(on(BTN_SIDE="one", BTN_EXTRA="two"), _macro(chance, "one"), _macro(chance, "two"))
        wait_for(lambda: HANDS_NAME in witness.names.values(), "the witness to know our devices")
        mouse.tap("BTN_SIDE")
        if chance.random() < 0.5:
            mouse.tap("BTN_EXTRA")
        end = time.monotonic() + chance.uniform(0, 1.5)
        edit = Macro(id="edit", name="Edit", note="0")
        while time.monotonic() < end:
            edit = Macro(id="edit", name=f"Edit {chance.randrange(3)}", note=str(int(edit.note) + 1))
            bench.call(m.PutMacro(edit))
        bench.service.end(signal.SIGKILL)
        try:
            wait_for(lambda: not witness.down(), "everything up")
        except AssertionError as error:
            pytest.fail(
                f"round {number}: {error}; down: {witness.down()}, last: {witness.seen[-12:]}, {witness.unread[-9:]}"
            )
        library = Library(bench.service.home, read_only=True)
        library.load()
        assert library.faults == []
        assert edit.note == "0" or int(library.macros["edit"].note) >= int(edit.note)
        before = witness.count("BTN_SIDE", 0)
        mouse.tap("BTN_SIDE")
        wait_for(lambda before=before: witness.count("BTN_SIDE", 0) > before, f"the mouse itself after round {number}")
