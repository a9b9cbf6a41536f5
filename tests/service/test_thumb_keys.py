"""Number keys that count as thumb buttons, in the whole service: what they start, and what of them is recorded."""

from __future__ import annotations

import contextlib
from collections.abc import Iterator
from pathlib import Path

import pytest
from msgspec.structs import replace

from nakrel.backends.kernel import abi
from nakrel.core.model.cells import HoldLayer, RunMacro
from nakrel.core.model.profile import EVERYDAY, Layer
from nakrel.core.model.recording import Moves, RecordingSettings
from nakrel.core.model.settings import SettingsPatch
from nakrel.core.model.steps import Step, Wait
from nakrel.service.options import Options
from nakrel.service.service import Service
from nakrel.storage.home import Home
from tests.service.test_answers import SIDE, Playing

KEY, ONE, Q, SHIFT = abi.EV_KEY, 2, 16, 42
THUMB_1 = "BTN_TRIGGER_HAPPY1"


@contextlib.contextmanager
def service(folder: Path) -> Iterator[Playing]:
    made = Playing(folder)
    try:
        yield made
    finally:
        made.close()


def choose(playing: Playing, *names: str) -> None:
    """As a client does."""
    state = playing.service.state
    state.change(lambda: state.change_settings(SettingsPatch(thumb_keys=names)), lambda outcome: None)
    playing.until(lambda: state.settings.thumb_keys == names, "the choice")


def test_the_choice_counts_at_once_and_after_a_restart(tmp_path: Path):
    with service(tmp_path) as playing:
        state = playing.service.state
        profile = state.profiles[EVERYDAY]
        setup = replace(profile.setups[0], cells={THUMB_1: RunMacro("hold")})
        state.change(lambda: state.put_profile(replace(profile, setups=(setup,))), lambda outcome: None)
        playing.until(lambda: not playing.keyboard.grabbed, "the keyboard to be let go")
        choose(playing, "Bollard")
        playing.until(lambda: playing.keyboard.grabbed, "the grab")
        assert playing.do(playing.keyboard, (KEY, ONE, 1), reports=2) == [[(KEY, Q, 1)], [(KEY, SHIFT, 1)]]
        playing.do(playing.keyboard, (KEY, ONE, 0), reports=2)
    again = Service(Home.find(tmp_path), Options("stand-in"))
    assert again.state.settings.thumb_keys == ("Bollard",)
    again.close()


@pytest.mark.parametrize("before", [0, 1], ids=["in it", "down as it begins"])
def test_recorded_is_the_key_that_it_sends(tmp_path: Path, before: int):
    with service(tmp_path) as playing:
        choose(playing, "Bollard")
        recording, steps = playing.service.recording, list[Step]()
        values = [1, 0]
        for value in values[:before]:
            playing.do(playing.keyboard, (KEY, ONE, value), reports=0)
        recording.start(None, RecordingSettings(moves=Moves.NONE), (), lambda: None)
        for value in values[before:]:
            playing.keyboard.now_us = playing.service.routes.now_us() + 1_000
            playing.do(playing.keyboard, (KEY, ONE, value), reports=0)
        recording.finish((), steps.extend)
        playing.until(lambda: steps, "the recording")
        assert [getattr(step, "control", "") for step in steps if not isinstance(step, Wait)] == ["KEY_1", "KEY_1"]


def test_one_that_does_something_in_a_layer_only_types_its_number_without(tmp_path: Path):
    with service(tmp_path) as playing:
        state = playing.service.state
        profile = state.profiles[EVERYDAY]
        far = Layer("Far", {THUMB_1: RunMacro("hold")})
        setup = replace(profile.setups[0], cells={"BTN_SIDE": HoldLayer("Far")}, layers=(far,))
        state.change(lambda: state.put_profile(replace(profile, setups=(setup,))), lambda outcome: None)
        playing.until(lambda: not playing.keyboard.grabbed, "the keyboard to be let go")
        choose(playing, "Bollard")
        playing.until(lambda: playing.keyboard.grabbed, "the grab")
        assert playing.do(playing.keyboard, (KEY, ONE, 1), reports=1) == [[(KEY, ONE, 1)]]
        assert playing.do(playing.keyboard, (KEY, ONE, 0), reports=1) == [[(KEY, ONE, 0)]]


def test_the_key_that_stops_everything_does_so_on_a_second_keyboard_too(tmp_path: Path):
    with service(tmp_path) as playing:
        state = playing.service.state
        state.change(
            lambda: state.change_settings(SettingsPatch(second_keyboards=("Bollard",), stop_key="KEY_Q")),
            lambda outcome: None,
        )
        playing.until(lambda: state.settings.second_keyboards, "the choice")
        playing.do(playing.mouse, (KEY, SIDE, 1), reports=2)
        assert playing.service.playback.engine.running
        playing.do(playing.keyboard, (KEY, Q, 1), reports=1)
        playing.until(lambda: not playing.service.playback.engine.running, "the stop")
