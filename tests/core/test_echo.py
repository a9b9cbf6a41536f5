"""What a remapper sends back is told from fingers."""

from __future__ import annotations

import random

from nakrel.core.play.echo import Echo
from nakrel.core.play.events import Emit

F = Emit("KEY_F", 1, 0, "m")


def test_a_press_that_comes_back_after_each_of_ours_is_an_echo():
    echo, now_us = Echo(), 0
    for count in range(1, 10):
        now_us += 10_000
        echo.sent([F, Emit("KEY_F", 0, 0, "m")], now_us)
        assert echo.heard("KEY_F", "Remapped", now_us + 3_000) == (count >= 6)
    # One of ours that doesn't come back shows that it was none.
    echo.sent([F], now_us + 50_000)
    echo.sent([F], now_us + 100_000)
    assert not echo.heard("KEY_F", "Remapped", now_us + 101_000)


def test_each_device_and_control_counts_by_itself():
    echo = Echo()
    for n in range(40):
        echo.sent([F], n * 10_000)
        assert not echo.heard("KEY_G", "Keyboard", n * 10_000 + 1_000)
        assert not echo.heard("KEY_F", f"Keyboard {n % 4}", n * 10_000 + 1_000)


def test_fingers_beside_a_rapid_macro_are_no_echo():
    """Eight presses a second by hand, as fast as most go, beside 20 taps a second (common practice, no published
    source)."""
    chance = random.Random(1)
    for _ in range(200):
        echo, finger_us = Echo(), 0.0
        events = [(n * 50_000, "sent") for n in range(200)]
        while finger_us < 10_000_000:
            finger_us += chance.gauss(125_000, 20_000)
            events.append((int(finger_us), "finger"))
        for at_us, what in sorted(events):
            if what == "sent":
                echo.sent([F], at_us)
            else:
                assert not echo.heard("KEY_F", "Keyboard", at_us)


def test_a_worn_switch_that_presses_twice_is_no_echo():
    """F plays a tap of F, and each press of the key comes twice within milliseconds."""
    echo = Echo()
    for click in range(1, 40):
        now_us = click * 200_000
        assert not echo.heard("KEY_F", "Keyboard", now_us)
        echo.sent([F], now_us + 500)
        assert not echo.heard("KEY_F", "Keyboard", now_us + 6_000)
