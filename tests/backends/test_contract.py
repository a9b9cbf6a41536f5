"""One contract for all backends: what a finger does is read once and in order, what is emitted arrives."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from nakrel.backends.standin.sink import Sink
from nakrel.core.play.events import Emit, Pressed, Released, Turned
from tests.backends.rigs import Rig, stand_in, x11, xorg
from tests.support import wait_for

_X = pytest.mark.x11
_RIGS = [stand_in, pytest.param(x11, marks=_X), pytest.param(xorg, marks=_X)]


@pytest.fixture(params=_RIGS, ids=["stand-in", "x11", "xorg"])
def rig(request: pytest.FixtureRequest) -> Iterator[Rig]:
    yield from request.param()


def test_fingers_are_read_once_and_in_order(rig: Rig):
    for control in ("KEY_Q", "BTN_LEFT"):
        rig.injector(control, 1)
        rig.injector(control, 0)
    rig.injector("WHEEL_UP", 1)
    assert rig.hear(5) == [
        Pressed("KEY_Q"),
        Released("KEY_Q"),
        Pressed("BTN_LEFT"),
        Released("BTN_LEFT"),
        Turned("WHEEL_UP"),
    ]


def test_taken_controls_are_read_like_any_other(rig: Rig):
    rig.inputs.capture(["BTN_SIDE", "KEY_F6"])
    rig.settle()
    for _ in range(20):
        for control in ("BTN_SIDE", "KEY_F6"):
            rig.injector(control, 1)
            rig.injector(control, 0)
    once = [Pressed("BTN_SIDE"), Released("BTN_SIDE"), Pressed("KEY_F6"), Released("KEY_F6")]
    assert rig.hear(80) == once * 20
    rig.inputs.capture([])
    rig.settle()
    rig.injector("KEY_F6", 1)
    rig.injector("KEY_F6", 0)
    assert rig.hear(82)[80:] == [Pressed("KEY_F6"), Released("KEY_F6")]


def test_what_is_emitted_arrives_and_is_never_read_back(rig: Rig):
    rig.inputs.capture(["KEY_F6"])
    rig.settle()
    wanted = [("KEY_W", 1), ("BTN_LEFT", 1), ("BTN_LEFT", 0), ("KEY_W", 0), ("KEY_F7", 1), ("KEY_F7", 0)] * 200
    rig.outputs.emit([Emit(control, value, 0, "m") for control, value in wanted])
    wait_for(lambda: len(rig.witness()) >= len(wanted), "all that was emitted")
    assert rig.witness() == wanted
    rig.injector("KEY_Q", 1)
    rig.injector("KEY_Q", 0)
    assert rig.hear(2) == [Pressed("KEY_Q"), Released("KEY_Q")]


def test_what_is_held_at_the_end_is_let_go(rig: Rig):
    rig.outputs.emit([Emit("KEY_W", 1, 0, "m"), Emit("BTN_LEFT", 1, 0, "m")])
    wait_for(lambda: len(rig.witness()) == 2, "both presses")
    rig.outputs.close()
    if isinstance(rig.outputs, Sink):
        assert rig.outputs.down == set()
    else:
        wait_for(lambda: rig.witness()[2:] == [("BTN_LEFT", 0), ("KEY_W", 0)], "both releases, the last press first")
