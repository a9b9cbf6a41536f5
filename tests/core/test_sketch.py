"""The sketch of a loop: as it is where that can be seen, and no more than that of a long one."""

from __future__ import annotations

from nakrel.core.edit.sketch import sketch
from nakrel.core.model.steps import Press, Release, Repeat, Tap, Wait


def test_a_short_loop_is_drawn_as_it_is():
    loop = (
        Press(control="KEY_LEFTSHIFT"), Tap(control="KEY_Q", hold_us=20_000), Wait(wait_us=30_000),
        Tap(control="KEY_W", hold_us=10_000), Release(control="KEY_LEFTSHIFT"), Tap(control="KEY_E", hold_us=5_000),
        Tap(control="KEY_R", hold_us=5_000),
    )  # fmt: skip
    found = sketch(loop)
    assert found.loop_us == 70_000
    assert found.traces == (
        ("KEY_LEFTSHIFT", ((0, 60_000),)),
        ("KEY_Q", ((0, 20_000),)),
        ("KEY_W", ((50_000, 60_000),)),
    )


def test_no_time_is_no_picture():
    assert sketch(()).loop_us == 0
    assert sketch((Tap(control="KEY_Q", hold_us=0),)).loop_us == 0


def test_of_a_long_loop_is_kept_what_a_small_picture_can_show():
    """Wherever the control is down, so is it in the sketch, and its stretches are some hundreds at most."""
    taps = tuple(
        step for n in range(5_000) for step in (Tap(control="KEY_Q", hold_us=1_000 + n % 7), Wait(wait_us=9_000))
    )
    rare = (Wait(wait_us=10_000_000), Tap(control="KEY_Q", hold_us=30_000))
    (trace,) = sketch((*taps, *rare)).traces
    code, stretches = trace
    assert code == "KEY_Q"
    assert len(stretches) <= 301
    assert all(end < after for (_, end), (after, _) in zip(stretches, stretches[1:], strict=False))
    total = sum(step.hold_us if isinstance(step, Tap) else step.wait_us for step in taps)  # type: ignore[misc]
    # What stands alone stays alone, and by itself.
    assert stretches[-1] == (total + 10_000_000, total + 10_030_000)
    assert stretches[0][0] == 0
    assert max(end for _, end in stretches[:-1]) <= total


def test_a_repeat_of_any_number_is_no_more_work_than_can_be_seen():
    inner = Repeat(times=1_000_000, steps=(Tap(control="KEY_Q", hold_us=1_000), Wait(wait_us=1_000)))
    found = sketch((Repeat(times=1_000_000, steps=(inner,)),))
    assert found.loop_us > 0
    assert len(found.traces) == 1
