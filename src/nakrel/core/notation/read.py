"""Macros read from text: sections, blocks, and lines. What a line by itself says is in `statements`."""

from __future__ import annotations

import re
from collections.abc import Callable

from nakrel.core.model.errors import DataError, cut
from nakrel.core.model.formulas import FormulaError
from nakrel.core.model.limits import MAX_COUNT, MAX_DEPTH, MAX_WEIGHT
from nakrel.core.model.macro import Section
from nakrel.core.model.names import read_control, read_shown, typed_formula
from nakrel.core.model.steps import Branch, If, Note, Otherwise, PickOne, Repeat, Step
from nakrel.core.notation.lines import Line, NotationError, closing, cut_remark, fail, quoted, remark_text, split
from nakrel.core.notation.statements import bounded, read_statement
from nakrel.core.notation.write import SECTIONS
from nakrel.words import tr

__all__ = ["read", "read_shown_steps", "read_steps"]

# The words of before are read as well.
_SECTIONS = {**SECTIONS, "lead-in": Section.LEAD_IN, "lead-out": Section.LEAD_OUT}
_ELSE, _OPTION = r"(?:else|otherwise)\s*:", r"(?:option|way)"
# In what these say anything may stand.
_FREE = ("type", "open", "#")
_CHOICE = r"(?:random\s+choice|pick\s+one)\s*:"


def read(text: str, code_of: Callable[[str], str] = read_control) -> dict[Section, tuple[Step, ...]]:
    """The steps of each section; `code_of` gives the code of a control whose name stands there. Raises
    `NotationError`."""
    lines = split(text, code_of)
    found: dict[Section, tuple[Step, ...]] = dict.fromkeys(Section, ())
    at = 0
    while at < len(lines):
        line = lines[at]
        word = line.text.partition("#")[0].strip().removesuffix(":").lower()
        if line.indent == 0 and word in _SECTIONS and line.text.partition("#")[0].strip().endswith(":"):
            steps, at = _block(lines, at + 1, 1)
            section = _SECTIONS[word]
            if found[section]:
                fail(line, 0, tr("the section {word} is there twice; put its steps together").format(word=word))
        else:
            steps, at = _block(lines, at, 0)
            section = Section.LOOP
            if found[section]:
                fail(line, 0, tr("these steps belong to no section; indent them below start, loop or end"))
        found[section] = steps
    return found


def read_steps(text: str) -> list[Step]:
    """All steps of the text, whatever section they are in. Raises `NotationError`."""
    return [step for steps in read(text).values() for step in steps]


def read_shown_steps(text: str) -> list[Step]:
    """The same of a text in which keys are called as they are shown, which `shown_line` writes."""
    verb = text.removeprefix("skip ").split(" ", 1)[0].lower()
    if verb not in _FREE:
        text, sign, remark = text.partition("#")
        text = f"{typed_formula(text)}{sign}{remark}"
    return [step for steps in read(text, read_shown).values() for step in steps]


def _block(lines: list[Line], at: int, least: int, depth: int = 0) -> tuple[tuple[Step, ...], int]:
    """The steps from line `at` on that are indented by `least` or more, all alike; and the line after them."""
    if at >= len(lines) or lines[at].indent < least:
        return (), at
    if depth > MAX_DEPTH:
        fail(lines[at], 0, tr("blocks are nested more than {most} deep").format(most=MAX_DEPTH))
    indent = lines[at].indent
    steps: list[Step] = []
    while at < len(lines) and lines[at].indent >= least:
        line = lines[at]
        if least == 0 and line.indent == 0 and _is_section(line):
            break
        if line.indent != indent:
            fail(
                line,
                0,
                tr("this line is indented by {found}, the ones before it by {wanted}").format(
                    found=line.indent, wanted=indent
                ),
            )
        step, at = _statement(lines, at, depth)
        steps.append(step)
    return tuple(steps), at


def _is_section(line: Line) -> bool:
    return line.text.partition("#")[0].strip().lower() in {f"{word}:" for word in _SECTIONS}


def _statement(lines: list[Line], at: int, depth: int) -> tuple[Step, int]:
    line = lines[at]
    start = len("skip ") if re.match(r"skip\s", line.text, re.IGNORECASE) else 0
    body = line.text[start:].lstrip()
    start = len(line.text) - len(body)
    try:
        if body.startswith("#"):
            text, remark = _note(line, start)
            return Note(text=text, remark=remark, off=start > 0), at + 1
        statement, remark = cut_remark(line, start)
        verb = statement.split(" ", 1)[0].lower() if statement else ""
        common = {"remark": remark, "off": start > 0}
        if verb == "repeat":
            return _repeat(lines, at, statement, start, depth, common)
        if verb == "if":
            return _if(lines, at, statement, start, depth, common)
        if re.fullmatch(_ELSE, statement, re.IGNORECASE):
            fail(
                line, start, tr("{statement!r} belongs below an if, indented like it").format(statement=cut(statement))
            )
        if re.match(_OPTION + r"\b.*:", statement, re.IGNORECASE):
            fail(
                line,
                start,
                tr("{statement!r} belongs below 'random choice:', indented deeper").format(statement=cut(statement)),
            )
        if re.fullmatch(_CHOICE, statement, re.IGNORECASE):
            return _pick(lines, at, depth, common)
        return read_statement(line, start, verb, statement, common), at + 1
    except NotationError:
        raise
    except FormulaError as error:
        place = max(start, line.text.find(error.text, start))
        fail(line, place + max(0, error.column - 1), str(error))
    except DataError as error:
        fail(line, start, str(error))


def _repeat(
    lines: list[Line], at: int, statement: str, start: int, depth: int, common: dict[str, object]
) -> tuple[Step, int]:
    line = lines[at]
    rest = statement[len("repeat") :].strip()
    end = closing(rest, 0) + 1 if rest.startswith("(") else len(re.match(r"\d{0,9}", rest)[0])  # type: ignore[index]
    if not end or not re.fullmatch(r"\s*times?\s*:", rest[end:], re.IGNORECASE):
        where = start + (len("repeat") if not end else len(statement))
        fail(line, where, tr("expected a number and 'times:', as in: repeat 3 times:"))
    times = bounded(line, start + len("repeat "), rest[:end], MAX_COUNT)
    inner, after = _block(lines, at + 1, line.indent + 1, depth + 1)
    return Repeat(times=times, steps=inner, **common), after  # type: ignore[arg-type]


def _if(
    lines: list[Line], at: int, statement: str, start: int, depth: int, common: dict[str, object]
) -> tuple[Step, int]:
    line = lines[at]
    condition = statement[len("if") :].strip()
    if not condition.endswith(":") or len(condition) < 2:
        fail(line, start + len(statement), tr("expected a condition and a colon, as in: if run > 3:"))
    inner, after = _block(lines, at + 1, line.indent + 1, depth + 1)
    others = None
    beside = after < len(lines) and lines[after].indent == line.indent
    if beside and re.match(_ELSE + r"\s*(#|$)", lines[after].text, re.IGNORECASE):
        steps, after = _block(lines, after + 1, line.indent + 1, depth + 1)
        others = Otherwise(steps=steps)
    return If(condition=condition[:-1].strip(), steps=inner, otherwise=others, **common), after  # type: ignore[arg-type]


def _pick(lines: list[Line], at: int, depth: int, common: dict[str, object]) -> tuple[Step, int]:
    line, options = lines[at], []
    at += 1
    indent = lines[at].indent if at < len(lines) else 0
    while at < len(lines) and lines[at].indent > line.indent:
        option = lines[at]
        statement, _ = cut_remark(option, 0)
        found = re.fullmatch(_OPTION + r"(?:\s+of\s+weight\s+(\S.*?))?\s*:", statement, re.IGNORECASE)
        if not found or option.indent != indent:
            fail(
                option,
                0,
                tr(
                    "expected 'option:' or 'option of weight 3:', one below the other, with the steps indented "
                    "below each"
                ),
            )
        weight = bounded(option, max(0, found.start(1)), found[1] or "1", MAX_WEIGHT)
        inner, at = _block(lines, at + 1, option.indent + 1, depth + 1)
        options.append(Branch(weight=weight, steps=inner))
    if not options:
        fail(line, len(line.text), tr("nothing to pick from; indent 'option:' below it, and steps below that"))
    return PickOne(branches=tuple(options), **common), at  # type: ignore[arg-type]


def _note(line: Line, start: int) -> tuple[str, str]:
    """A note's text and its remark, which only a text in quotes can have."""
    body = line.text[start + 1 :].lstrip()
    if not body.startswith('"'):
        return body, ""
    text, end = quoted(line, len(line.text) - len(body))
    rest = line.text[end:].lstrip()
    if rest and not rest.startswith("#"):
        fail(line, end, tr("expected nothing more after the quotes, or a # and a comment"))
    return text, remark_text(line, len(line.text) - len(rest)) if rest else ""
