"""Macros written as text."""

from __future__ import annotations

import json
import re
from collections.abc import Callable

from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.names import line_name, name_of, shown_formula
from nakrel.core.model.step_words import number_text, time_text
from nakrel.core.model.steps import (
    Branch,
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

__all__ = ["SECTIONS", "shown_line", "write", "write_line", "write_steps"]

_INDENT = "    "
SECTIONS = {"start": Section.LEAD_IN, "loop": Section.LOOP, "end": Section.LEAD_OUT}
# A part of a command that stands without quotes.
_BARE = re.compile(r"[\w./:=@%+,~-]+")


def write(macro: Macro) -> str:
    """The macro's steps; a macro with a loop only is written without the section's name."""
    parts = []
    for word, section in SECTIONS.items():
        steps = macro.section(section)
        if steps and section is Section.LOOP and not macro.lead_in and not macro.lead_out:
            return write_steps(steps)
        if steps:
            parts.append(f"{word}:\n{write_steps(steps, 1)}")
    return "\n".join(parts)


def write_line(step: Step) -> str:
    """The step's own line, without what is inside it."""
    return f"{'skip ' if step.off else ''}{_words(step)}{_remark(step.remark)}"


def shown_line(step: Step) -> str:
    """The step's own line without its remark, as it is shown and typed here alone: with keys called by what is printed
    on them, in the session's language."""
    words = _words(step, line_name)
    return words if isinstance(step, Text | Open | Note) else shown_formula(words)


def write_steps(steps: tuple[Step, ...] | list[Step], level: int = 0) -> str:
    """Steps as lines, each ended by a line feed."""
    return "".join(_lines(step, level) for step in steps)


def _lines(step: Step, level: int) -> str:
    start = _INDENT * level
    first = f"{start}{write_line(step)}\n"
    match step:
        case Repeat():
            return first + write_steps(step.steps, level + 1)
        case PickOne():
            return first + "".join(_option(branch, level + 1) for branch in step.branches)
        case If(otherwise=None):
            return first + write_steps(step.steps, level + 1)
        case If(otherwise=others):
            assert others
            inner = write_steps(step.steps, level + 1)
            return f"{first}{inner}{start}else:\n{write_steps(others.steps, level + 1)}"
    return first


def _option(branch: Branch, level: int) -> str:
    weight = f" of weight {number_text(branch.weight)}" if branch.weight != 1 else ""
    return f"{_INDENT * level}option{weight}:\n{write_steps(branch.steps, level + 1)}"


def _words(step: Step, name_of: Callable[[str], str] = name_of) -> str:
    match step:
        case Press():
            return f"press {name_of(step.control)}"
        case Release():
            return f"release {name_of(step.control)}"
        case Tap():
            return f"tap {name_of(step.control)} for {time_text(step.hold_us)}"
        case Chord():
            return f"tap {' + '.join(map(name_of, step.controls))} for {time_text(step.hold_us)}"
        case Wait():
            return f"wait {time_text(step.wait_us, step.most_us)}"
        case Wheel():
            return f"turn {name_of(step.control)} by {number_text(step.notches)}"
        case Pointer():
            return _pointer(step)
        case Text():
            what = f"the secret {_json(step.secret)}" if step.secret else _json(step.text)
            return f"type {what} at {number_text(step.rate)}/s"
        case Open():
            return f"open {' '.join(part if _BARE.fullmatch(part) else _json(part) for part in step.command)}"
        case Repeat():
            return f"repeat {number_text(step.times)} times:"
        case PickOne():
            return "random choice:"
        case If():
            return f"if {step.condition}:"
        case Set():
            return f"set {step.variable} to {step.value}"
        case Note():
            return f"# {_text(step.text, quoted=bool(step.remark) or not step.text)}"


def _pointer(step: Pointer) -> str:
    text = f"move {'by' if step.origin is Origin.POINTER else 'to'} {number_text(step.x)}, {number_text(step.y)}"
    if step.size:
        frame = "on a screen" if step.origin is Origin.SCREEN else "in a window"
        text += f" {frame} of {step.size[0]} x {step.size[1]}"
    elif step.origin is Origin.WINDOW:
        text += " in the window"
    return text + (f" over {time_text(step.over_us)}" if step.over_us else "")


def _json(text: str) -> str:
    return json.dumps(text, ensure_ascii=False)


def _remark(text: str) -> str:
    return f"  # {_text(text)}" if text else ""


def _text(text: str, *, quoted: bool = False) -> str:
    """A text as it stands, or in quotes where it would be read differently."""
    plain = text == text.strip() and text.isprintable() and not text.startswith(('"', "#"))
    return _json(text) if quoted or not plain else text
