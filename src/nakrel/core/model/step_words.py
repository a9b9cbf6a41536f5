"""Steps in words, as lists and messages have them."""

from __future__ import annotations

import shlex

from nakrel.core.model.controls import label
from nakrel.core.model.names import shown_formula
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
from nakrel.core.model.units import format_ms, shown_ms
from nakrel.words import noted, tr

__all__ = ["describe", "number_text", "shown_figure", "shown_time", "time_text"]


def number_text(number: int | str) -> str:
    """A number as it is written in a step: a formula stands in parentheses."""
    return f"({number})" if isinstance(number, str) else str(number)


def time_text(least: int | str, most: int | str | None = None) -> str:
    """A time as it is written in a step, in milliseconds, or two with `to` between them."""
    texts = [f"({us})" if isinstance(us, str) else format_ms(us) for us in (least, most) if us is not None]
    return " to ".join(texts) + " ms"


_WHEEL = {
    "WHEEL_UP": noted("wheel up {notches}"),
    "WHEEL_DOWN": noted("wheel down {notches}"),
    "WHEEL_LEFT": noted("wheel left {notches}"),
    "WHEEL_RIGHT": noted("wheel right {notches}"),
}


def shown_figure(number: int | str) -> str:
    """A number as the step list shows it: a formula stands in parentheses."""
    return number_text(shown_formula(number) if isinstance(number, str) else number)


def shown_time(least: int | str, most: int | str | None = None) -> str:
    """A time, or two, as the step list shows them."""
    texts = [shown_figure(us) if isinstance(us, str) else shown_ms(us) for us in (least, most) if us is not None]
    return tr("{least} to {most} ms").format(least=texts[0], most=texts[1]) if len(texts) > 1 else f"{texts[0]} ms"


def describe(step: Step) -> str:
    """The step in words, as the step list shows it."""
    match step:
        case Press():
            return tr("press {control}").format(control=label(step.control))
        case Release():
            return tr("release {control}").format(control=label(step.control))
        case Tap():
            return tr("tap {control}").format(control=label(step.control))
        case Chord():
            return tr("combination {keys}").format(keys=" + ".join(map(label, step.controls)))
        case Wait():
            return tr("wait {time}").format(time=shown_time(step.wait_us, step.most_us))
        case Wheel():
            return tr(_WHEEL[step.control]).format(notches=shown_figure(step.notches))
        case Pointer():
            return _describe_pointer(step)
        case Text(secret=""):
            shown = step.text if len(step.text) <= 40 else step.text[:39] + "…"
            return tr('type "{text}"').format(text=" ".join(shown.split())) if shown.strip() else tr("type a text")
        case Text():
            return tr("type the secret {secret}").format(secret=step.secret)
        case Open():
            return tr("open {command}").format(command=shlex.join(step.command))
        case Note():
            return tr("comment: {text}").format(text=step.text)
        case Repeat():
            return tr("repeat {times} times").format(times=shown_figure(step.times))
        case PickOne():
            return tr("random choice")
        case If():
            return tr("if {condition}").format(condition=shown_formula(step.condition))
        case Set():
            return tr("set {variable} to {value}").format(variable=step.variable, value=shown_formula(step.value))


def _describe_pointer(step: Pointer) -> str:
    place = f"{shown_figure(step.x)}, {shown_figure(step.y)}"
    if step.origin is Origin.POINTER:
        return tr("move by {place}").format(place=place)
    if step.origin is Origin.WINDOW:
        return tr("move to {place} in the window").format(place=place)
    return tr("move to {place}").format(place=place)
