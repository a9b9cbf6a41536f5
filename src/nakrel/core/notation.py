"""Macros as text: one step a line, in plain imperatives. The grammar is in docs/notation.md.

Reading what was written gives the same steps; writing what was read gives the text in its usual form.
"""

from __future__ import annotations

import json
import re
from collections import Counter
from typing import NamedTuple, NoReturn

from nakrel.core.controls import CONTROLS, Control, Kind
from nakrel.core.errors import DataError
from nakrel.core.macro import Macro, Section
from nakrel.core.steps import (
    MAX_DEPTH,
    Branch,
    Chord,
    Note,
    PickOne,
    Press,
    Release,
    Repeat,
    Step,
    Tap,
    Wait,
    Wheel,
)
from nakrel.core.units import MAX_COUNT, format_ms, parse_span, parse_time

__all__ = ["NotationError", "completions", "name_of", "read", "read_control", "read_steps", "write", "write_steps"]

_INDENT = "    "
_SECTIONS = {"lead-in": Section.LEAD_IN, "loop": Section.LOOP, "lead-out": Section.LEAD_OUT}
_WORDS = ("tap", "press", "release", "wait", "turn", "repeat", "pick one:", "skip")
_STARTS = "tap, press, release, wait, turn, repeat, pick one, skip, a # and a note, or a section"


class NotationError(DataError):
    """The text can't be read: `line` and `column` count from 1."""

    def __init__(self, line: int, column: int, message: str) -> None:
        super().__init__(f"line {line}, column {column}: {message}")
        self.line, self.column, self.message = line, column, message


# Writing


def write(macro: Macro) -> str:
    """The macro's steps; a macro with a loop only is written without the section's name."""
    parts = []
    for word, section in _SECTIONS.items():
        steps = macro.section(section)
        if steps and section is Section.LOOP and not macro.lead_in and not macro.lead_out:
            return write_steps(steps)
        if steps:
            parts.append(f"{word}:\n{write_steps(steps, 1)}")
    return "\n".join(parts)


def write_steps(steps: tuple[Step, ...] | list[Step], level: int = 0) -> str:
    """Steps as lines, each ended by a line feed."""
    return "".join(_lines(step, level) for step in steps)


def _lines(step: Step, level: int) -> str:
    start = _INDENT * level + ("skip " if step.off else "")
    first = f"{start}{_words(step)}{_remark(step.remark)}\n"
    if isinstance(step, Repeat):
        return first + write_steps(step.steps, level + 1)
    if isinstance(step, PickOne):
        return first + "".join(_way(branch, level + 1) for branch in step.branches)
    return first


def _way(branch: Branch, level: int) -> str:
    weight = f" of weight {branch.weight}" if branch.weight != 1 else ""
    return f"{_INDENT * level}way{weight}:\n{write_steps(branch.steps, level + 1)}"


def _words(step: Step) -> str:
    match step:
        case Press():
            return f"press {_name(step.control)}"
        case Release():
            return f"release {_name(step.control)}"
        case Tap():
            return f"tap {_name(step.control)} for {format_ms(step.hold_us)} ms"
        case Chord():
            return f"tap {' + '.join(map(_name, step.controls))} for {format_ms(step.hold_us)} ms"
        case Wait(most_us=None):
            return f"wait {format_ms(step.wait_us)} ms"
        case Wait():
            return f"wait {format_ms(step.wait_us)} to {format_ms(step.most_us or 0)} ms"
        case Wheel():
            return f"turn {_name(step.control)} by {step.notches}"
        case Repeat():
            return f"repeat {step.times} times:"
        case PickOne():
            return "pick one:"
        case Note():
            return f"# {_text(step.text, quoted=bool(step.remark) or not step.text)}"


def _remark(text: str) -> str:
    return f"  # {_text(text)}" if text else ""


def _text(text: str, *, quoted: bool = False) -> str:
    """A text as it stands, or in quotes where it would be read differently."""
    plain = text == text.strip() and text.isprintable() and not text.startswith(('"', "#"))
    return json.dumps(text, ensure_ascii=False) if quoted or not plain else text


# What a label must be like to stand in a line: no sign that the notation uses, and none of its small words.
_PLAIN = re.compile(r"(?!.*\b(?:for|by|to)\b)[\w'./;,=\[\]\\`-]+( [\w'./;,=\[\]\\`-]+)*")


def _plain_names() -> dict[str, str]:
    """The name of each control in a line: its label where that can stand there and means it alone, else its label with
    its kind (`Left button`), else its code."""
    labels = Counter(control.label.casefold() for control in CONTROLS.values())
    kinds = Counter((control.label.casefold(), control.kind) for control in CONTROLS.values())
    names = {}
    for code, control in CONTROLS.items():
        small = control.label.casefold()
        if _PLAIN.fullmatch(control.label) and labels[small] == 1:
            names[code] = control.label
        elif _PLAIN.fullmatch(control.label) and kinds[small, control.kind] == 1:
            names[code] = f"{control.label} {control.kind.value}"
        else:
            names[code] = code
    return names


_NAMES = _plain_names()
_CODES = {name.casefold(): code for code, name in _NAMES.items()} | {code.casefold(): code for code in CONTROLS}


def _name(code: str) -> str:
    return _NAMES[code]


# Reading


def read(text: str) -> dict[Section, tuple[Step, ...]]:
    """The steps of each section. Raises `NotationError`."""
    lines = _split(text)
    found: dict[Section, tuple[Step, ...]] = dict.fromkeys(Section, ())
    at = 0
    while at < len(lines):
        line = lines[at]
        word = line.text.partition("#")[0].strip().removesuffix(":").lower()
        if line.indent == 0 and word in _SECTIONS and line.text.partition("#")[0].strip().endswith(":"):
            steps, at = _block(lines, at + 1, 1)
            section = _SECTIONS[word]
            if found[section]:
                _fail(line, 0, f"the section {word} is there twice; put its steps together")
        else:
            steps, at = _block(lines, at, 0)
            section = Section.LOOP
            if found[section]:
                _fail(line, 0, "these steps belong to no section; indent them below lead-in, loop or lead-out")
        found[section] = steps
    return found


def read_steps(text: str) -> list[Step]:
    """All steps of the text, whatever section they are in. Raises `NotationError`."""
    return [step for steps in read(text).values() for step in steps]


def completions(line: str) -> list[str]:
    """What could stand at the end of the line instead of its last word: words of the notation, or names of controls."""
    start = line.lstrip()
    verb, space, rest = start.removeprefix("skip ").partition(" ")
    if not space:
        return [word for word in _WORDS if word.startswith(verb.lower())]
    if verb.lower() not in ("tap", "press", "release", "turn") or re.search(r" (for|by) ", rest):
        return []
    typed = re.split(r"\+ *", rest)[-1].casefold()
    wanted = (Kind.WHEEL,) if verb.lower() == "turn" else (Kind.KEY, Kind.BUTTON)
    fits = [code for code, control in CONTROLS.items() if control.kind in wanted and _fits(control, typed)]
    names = [_name(code) for code in fits]
    return sorted(names, key=lambda name: not name.casefold().startswith(typed))


def _fits(control: Control, typed: str) -> bool:
    return typed in _NAMES[control.code].casefold() or typed in control.code.casefold()


class _Line(NamedTuple):
    """A line with something in it: its number from 1, how many characters it is indented, and the rest."""

    number: int
    indent: int
    text: str


def _split(text: str) -> list[_Line]:
    lines = []
    for number, raw in enumerate(text.split("\n"), 1):
        stripped = raw.strip()
        if stripped:
            indent = len(raw) - len(raw.lstrip())
            if "\t" in raw[:indent]:
                raise NotationError(number, raw.index("\t") + 1, "indent with spaces, not with tabs")
            lines.append(_Line(number, indent, stripped))
    return lines


def _fail(line: _Line, at: int, message: str) -> NoReturn:
    raise NotationError(line.number, line.indent + at + 1, message)


def _block(lines: list[_Line], at: int, least: int, depth: int = 0) -> tuple[tuple[Step, ...], int]:
    """The steps from line `at` on that are indented by `least` or more, all alike; and the line after them."""
    if at >= len(lines) or lines[at].indent < least:
        return (), at
    if depth > MAX_DEPTH:
        _fail(lines[at], 0, f"blocks lie inside each other more than {MAX_DEPTH} deep")
    indent = lines[at].indent
    steps: list[Step] = []
    while at < len(lines) and lines[at].indent >= least:
        line = lines[at]
        if least == 0 and line.indent == 0 and _is_section(line):
            break
        if line.indent != indent:
            _fail(line, 0, f"this line is indented by {line.indent}, the ones before it by {indent}")
        step, at = _statement(lines, at, depth)
        steps.append(step)
    return tuple(steps), at


def _is_section(line: _Line) -> bool:
    return line.text.partition("#")[0].strip().lower() in {f"{word}:" for word in _SECTIONS}


def _statement(lines: list[_Line], at: int, depth: int) -> tuple[Step, int]:
    line = lines[at]
    start = len("skip ") if re.match(r"skip\s", line.text, re.IGNORECASE) else 0
    body = line.text[start:].lstrip()
    start = len(line.text) - len(body)
    if body.startswith("#"):
        text, remark = _note(line, start)
        return Note(text=text, remark=remark, off=start > 0), at + 1
    words, remark = _cut_remark(line, start)
    verb = words.split(" ", 1)[0].lower() if words else ""
    common = {"remark": remark, "off": start > 0}
    try:
        if verb == "repeat":
            return _repeat(lines, at, words, start, depth, common)
        if re.fullmatch(r"pick\s+one\s*:", words, re.IGNORECASE):
            return _pick(lines, at, depth, common)
        return _simple(line, start, verb, words, common), at + 1
    except NotationError:
        raise
    except DataError as error:
        _fail(line, start, str(error))


def _simple(line: _Line, start: int, verb: str, words: str, common: dict[str, object]) -> Step:
    rest = words[len(verb) :].strip()
    at = start + len(words) - len(words[len(verb) :].lstrip())
    match verb:
        case "tap":
            names, hold_us = _timed(line, at, rest, "for", "tap Q for 50 ms")
            controls = tuple(_control(line, at, name) for name in re.split(r"\s\+\s", names))
            if len(controls) == 1:
                return Tap(control=controls[0], hold_us=hold_us, **common)  # type: ignore[arg-type]
            return Chord(controls=controls, hold_us=hold_us, **common)  # type: ignore[arg-type]
        case "press":
            return Press(control=_control(line, at, rest), **common)  # type: ignore[arg-type]
        case "release":
            return Release(control=_control(line, at, rest), **common)  # type: ignore[arg-type]
        case "wait":
            if not rest:
                _fail(line, at, "how long? Write it as: wait 25 ms, or wait 2 to 5 s")
            least, most = parse_span(rest)
            return Wait(wait_us=least, most_us=most, **common)  # type: ignore[arg-type]
        case "turn":
            name, by, notches = rest.rpartition(" by ")
            if not by:
                name, notches = rest, "1"
            if not notches.strip().isdecimal():
                _fail(line, at + len(name) + 4, f"by how many notches? {notches.strip()!r} is no whole number")
            control = _control(line, at, name)
            return Wheel(control=control, notches=_bounded(line, at, notches, 1_000), **common)  # type: ignore[arg-type]
    _fail(line, start, f"{words.split(' ')[0]!r} begins no step; expected {_STARTS}")


def _timed(line: _Line, at: int, rest: str, word: str, example: str) -> tuple[str, int]:
    name, found, time = rest.rpartition(f" {word} ")
    if not found:
        _fail(line, at + len(rest), f"expected {word!r} and a time, as in: {example}")
    return name, parse_time(time)


def _control(line: _Line, at: int, name: str) -> str:
    try:
        return read_control(name)
    except DataError as error:
        _fail(line, max(at, line.text.find(name.strip())) if name.strip() else at, str(error))


def read_control(name: str) -> str:
    """The code of the control with this name or code. Raises `DataError` with the nearest names."""
    name = name.strip()
    if not name:
        raise DataError("which control? Write its name, as in: press Left Shift")
    if code := _CODES.get(name.casefold()):
        return code
    near = [_name(code) for code, control in CONTROLS.items() if _fits(control, name.casefold())][:3]
    hint = f"; did you mean {' or '.join(near)}?" if near else "; docs/formats.md has all names"
    raise DataError(f"there is no control {name!r}{hint}")


def name_of(code: str) -> str:
    """How the notation calls the control."""
    return _name(code)


def _bounded(line: _Line, at: int, text: str, most: int) -> int:
    if not 1 <= int(text) <= most:
        _fail(line, at, f"{int(text)} is out of range; write 1 to {most}")
    return int(text)


def _repeat(
    lines: list[_Line], at: int, words: str, start: int, depth: int, common: dict[str, object]
) -> tuple[Step, int]:
    line = lines[at]
    found = re.fullmatch(r"repeat\s+(\d{1,9})\s+times?\s*:", words, re.IGNORECASE)
    if not found:
        _fail(line, start + len("repeat"), "expected a number and 'times:', as in: repeat 3 times:")
    times = _bounded(line, start + len("repeat "), found[1], MAX_COUNT)
    inner, after = _block(lines, at + 1, line.indent + 1, depth + 1)
    return Repeat(times=times, steps=inner, **common), after  # type: ignore[arg-type]


def _pick(lines: list[_Line], at: int, depth: int, common: dict[str, object]) -> tuple[Step, int]:
    line, ways = lines[at], []
    at += 1
    indent = lines[at].indent if at < len(lines) else 0
    while at < len(lines) and lines[at].indent > line.indent:
        way = lines[at]
        words, _ = _cut_remark(way, 0)
        found = re.fullmatch(r"way(?:\s+of\s+weight\s+(\d{1,9}))?\s*:", words, re.IGNORECASE)
        if not found or way.indent != indent:
            _fail(
                way, 0, "expected 'way:' or 'way of weight 3:', one below the other, with the steps indented below each"
            )
        weight = _bounded(way, 0, found[1] or "1", 1_000)
        inner, at = _block(lines, at + 1, way.indent + 1, depth + 1)
        ways.append(Branch(weight=weight, steps=inner))
    if not ways:
        _fail(line, len(line.text), "nothing to pick from; indent 'way:' below it, and steps below that")
    return PickOne(branches=tuple(ways), **common), at  # type: ignore[arg-type]


def _note(line: _Line, start: int) -> tuple[str, str]:
    """A note's text and its remark, which only a text in quotes can have."""
    body = line.text[start + 1 :].lstrip()
    if not body.startswith('"'):
        return body, ""
    text, end = _quoted(line, len(line.text) - len(body))
    rest = line.text[end:].lstrip()
    if rest and not rest.startswith("#"):
        _fail(line, end, "expected nothing more after the quotes, or a # and a remark")
    return text, _remark_text(line, len(line.text) - len(rest)) if rest else ""


def _cut_remark(line: _Line, start: int) -> tuple[str, str]:
    words, mark, _ = line.text[start:].partition("#")
    return words.strip(), _remark_text(line, start + len(words)) if mark else ""


def _remark_text(line: _Line, at: int) -> str:
    body = line.text[at + 1 :].lstrip()
    if not body.startswith('"'):
        return body
    text, end = _quoted(line, len(line.text) - len(body))
    if line.text[end:].strip():
        _fail(line, end, "expected nothing more after the quotes")
    return text


def _quoted(line: _Line, at: int) -> tuple[str, int]:
    try:
        text, end = json.JSONDecoder().raw_decode(line.text, at)
    except json.JSONDecodeError as error:
        _fail(line, error.pos, f"the quotes can't be read: {error.msg}")
    return text, end
