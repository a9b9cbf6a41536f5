"""What the rows of a macro's step list say: in columns, and as lines of text."""

from __future__ import annotations

from nakrel.core.edit.rows import Row, rows
from nakrel.core.model.macro import Macro, Section
from nakrel.core.model.step_words import describe, shown_figure, shown_time
from nakrel.core.model.steps import (
    Branch,
    Chord,
    If,
    Line,
    Note,
    Option,
    Otherwise,
    Pointer,
    Repeat,
    Tap,
    Text,
    Wait,
    Wheel,
)
from nakrel.words import noted, tr

__all__ = ["SECTION_NAMES", "in_words", "is_off", "list_text", "remark_of", "time_words"]

SECTION_NAMES = {Section.LEAD_IN: noted("start"), Section.LOOP: noted("loop"), Section.LEAD_OUT: noted("end")}


def in_words(row: Row) -> str:
    """The step in words; what has a column of its own isn't said twice."""
    step = row.step
    match step:
        case Wait():
            return tr("wait") if step.most_us is None else tr("random wait")
        case Note():
            return tr("comment")
        case Repeat():
            return tr("repeat")
        case Branch():
            return tr("option {value}").format(value=row.inside[-1][1] + 1)
        case Otherwise():
            return tr("otherwise")
    return describe(step)


def time_words(step: Line) -> str:
    """Its time, or the figure that it has in place of one; '' for none."""
    match step:
        case Wait():
            return shown_time(step.wait_us, step.most_us)
        case Tap() | Chord():
            return shown_time(step.hold_us)
        case Pointer():
            return shown_time(step.over_us) if step.over_us else tr("at once")
        case Text():
            return f"{shown_figure(step.rate)}/s"
        case Wheel():
            return shown_figure(step.notches)
        case Repeat():
            return tr("{value} times").format(value=shown_figure(step.times))
        case Branch():
            return tr("weight {value}").format(value=shown_figure(step.weight))
    return ""


def remark_of(step: Line) -> str:
    """Its comment; '' for none."""
    if isinstance(step, Option):
        return ""
    return step.text if isinstance(step, Note) else step.remark


def is_off(step: Line) -> bool:
    """Whether it is switched off itself."""
    return not isinstance(step, Option) and step.off


def list_text(macro: Macro) -> str:
    """All steps, a line each, under the names of their sections where there is more than the loop."""
    named = bool(macro.lead_in or macro.lead_out)
    lines: list[str] = []
    last = None
    for row in rows(macro):
        if named and row.section is not last:
            lines += [*([""] if lines else []), tr(SECTION_NAMES[row.section])]
        last = row.section
        lines.append("    " * (row.depth + named) + _line(row))
    return "\n".join(lines)


def _line(row: Row) -> str:
    step = row.step
    words, time = in_words(row), time_words(step)
    if isinstance(step, Text) and not step.secret:
        # All of it: here two texts are compared.
        words = tr('type "{text}"').format(text=step.text.replace("\n", "\\n"))
    if isinstance(step, Pointer) and step.size:
        words = tr("{step}, picked on {width} x {height}").format(step=words, width=step.size[0], height=step.size[1])
    remark = remark_of(step)
    if isinstance(step, Note) and step.remark:
        # As in the notation, a comment has a comment of its own behind it.
        remark = f'"{step.text}"  # {step.remark}'
    if is_off(step):
        words = tr("{value}  (off)").format(value=words)
    # The words of a wheel step have the notches already.
    parts = (words, time if not isinstance(step, Wheel) else "", f"# {remark}" if remark else "")
    return "  ".join(filter(None, parts)) + (":" if isinstance(step, Repeat | If | Branch | Otherwise) else "")
