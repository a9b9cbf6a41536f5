"""The steps that a macro is made of: frozen values, checked when they are made."""

from __future__ import annotations

from typing import Annotated

import msgspec

from nakrel.core.controls import Code, Kind, control, label
from nakrel.core.errors import DataError
from nakrel.core.units import WaitUs, format_ms

__all__ = ["Press", "Release", "Step", "Tap", "Wait", "Wheel", "describe", "length_us"]

Notches = Annotated[int, msgspec.Meta(ge=1, le=1_000)]


class _Base(
    msgspec.Struct,
    frozen=True,
    kw_only=True,
    tag_field="step",
    omit_defaults=True,
    forbid_unknown_fields=True,
):
    """What every step carries: a remark, and `off` for a step that is kept but not played."""

    remark: str = ""
    off: bool = False


def _needs_switch(code: str, step: str) -> None:
    if control(code).kind is Kind.WHEEL:
        raise DataError(f"a {step} needs a key or a button, and {code} is a wheel direction; use a wheel step")


class Press(_Base, frozen=True, tag="press", kw_only=True):
    """The control goes down."""

    control: Code

    def __post_init__(self) -> None:
        _needs_switch(self.control, "press")


class Release(_Base, frozen=True, tag="release", kw_only=True):
    """The control goes up."""

    control: Code

    def __post_init__(self) -> None:
        _needs_switch(self.control, "release")


class Tap(_Base, frozen=True, tag="tap", kw_only=True):
    """The control goes down, is held for `hold_us`, and goes up; it takes that long."""

    control: Code
    hold_us: WaitUs

    def __post_init__(self) -> None:
        _needs_switch(self.control, "tap")


class Wait(_Base, frozen=True, tag="wait", kw_only=True):
    """Nothing happens for `wait_us`."""

    wait_us: WaitUs


class Wheel(_Base, frozen=True, tag="wheel", kw_only=True):
    """The wheel turns by `notches` in the direction that `control` names (WHEEL_UP, ...)."""

    control: Code
    notches: Notches = 1

    def __post_init__(self) -> None:
        if control(self.control).kind is not Kind.WHEEL:
            raise DataError(f"a wheel step needs WHEEL_UP, _DOWN, _LEFT or _RIGHT, not {self.control}")


Step = Press | Release | Tap | Wait | Wheel


def length_us(step: Step) -> int:
    """How long the step takes, in microseconds; 0 for a step that is switched off."""
    if step.off:
        return 0
    if isinstance(step, Wait):
        return step.wait_us
    return step.hold_us if isinstance(step, Tap) else 0


def describe(step: Step) -> str:
    """The step in words, as the step list shows it."""
    match step:
        case Press():
            return f"press {label(step.control)}"
        case Release():
            return f"release {label(step.control)}"
        case Tap():
            return f"tap {label(step.control)}"
        case Wait():
            return f"wait {format_ms(step.wait_us)} ms"
        case Wheel():
            return f"{label(step.control).lower()} {step.notches}"
