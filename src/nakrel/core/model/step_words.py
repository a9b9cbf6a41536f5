"""Steps in words, as lists and messages have them."""

from __future__ import annotations

import shlex

from nakrel.core.model.controls import label
from nakrel.core.model.steps import (
    Chord,
    If,
    Note,
    Open,
    Origin,
    PickOne,
    Pointer,
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
from nakrel.core.model.units import format_ms

__all__ = ["describe", "number_text", "time_text"]


def number_text(number: int | str) -> str:
    """A number as it is written in a step: a formula stands in parentheses."""
    return f"({number})" if isinstance(number, str) else str(number)


def time_text(least: int | str, most: int | str | None = None) -> str:
    """A time as it is written in a step, in milliseconds, or two with `to` between them."""
    texts = [f"({us})" if isinstance(us, str) else format_ms(us) for us in (least, most) if us is not None]
    return " to ".join(texts) + " ms"


def describe(step: Step) -> str:
    """The step in words, as the step list shows it."""
    match step:
        case Press():
            return f"press {label(step.control)}"
        case Release():
            return f"release {label(step.control)}"
        case Tap():
            return f"tap {label(step.control)}"
        case Chord():
            return f"combination {' + '.join(map(label, step.controls))}"
        case Wait():
            return f"wait {time_text(step.wait_us, step.most_us)}"
        case Wheel():
            return f"{label(step.control).lower()} {number_text(step.notches)}"
        case Pointer():
            return _describe_pointer(step)
        case Text(secret=""):
            shown = step.text if len(step.text) <= 40 else step.text[:39] + "…"
            return f'type "{" ".join(shown.split())}"' if shown.strip() else "type a text"
        case Text():
            return f"type the secret {step.secret}"
        case Open():
            return f"open {shlex.join(step.command)}"
        case Note():
            return f"comment: {step.text}"
        case Repeat():
            return f"repeat {number_text(step.times)} times"
        case PickOne():
            return "random choice"
        case If():
            return f"if {step.condition}"
        case Set():
            return f"set {step.variable} to {step.value}"


def _describe_pointer(step: Pointer) -> str:
    place = f"{number_text(step.x)}, {number_text(step.y)}"
    if step.origin is Origin.POINTER:
        return f"move by {place}"
    return f"move to {place}" + (" in the window" if step.origin is Origin.WINDOW else "")
