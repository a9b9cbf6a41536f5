"""What one line says: the steps that stand by themselves."""

from __future__ import annotations

import re

from nakrel.core.model.errors import DataError, cut
from nakrel.core.model.formulas import FormulaError
from nakrel.core.model.limits import MAX_NOTCHES, MAX_RATE
from nakrel.core.model.steps import Chord, Open, Origin, Pointer, Press, Release, Set, Step, Tap, Text, Wait, Wheel
from nakrel.core.model.units import parse_span, parse_time
from nakrel.core.notation.lines import Line, NotationError, closing, fail, outside, quoted
from nakrel.words import noted, tr

__all__ = ["STARTS", "bounded", "read_span", "read_statement", "read_time"]

STARTS = noted(
    "tap, press, release, wait, turn, move, type, open, set, repeat, if, random choice, skip, a "
    "# and a comment, or a section"
)
_VERBS = ("tap", "press", "release", "wait", "turn", "move", "type", "open", "set", "repeat", "skip")
# Words that begin a line which ends with a colon.
_WITH_COLON = {
    "random": "random choice:",
    "else": "else:",
    "option": "option:",
    "start": "start:",
    "loop": "loop:",
    "end": "end:",
}
_FRAME = re.compile(
    r"(?:\s+(?:on|in)\s+(?:the|a)\s+(?P<what>screen|window)(?:\s+of\s+(?P<width>\d{1,6})\s*x\s*(?P<height>\d{1,6}))?)?"
    r"(?:\s+over\s+(?P<over>.+))?\s*",
    re.IGNORECASE,
)
_PLACE = re.compile(r"\s*(-?\d{1,7}|\(.*)", re.DOTALL)


def read_time(text: str) -> int | str:
    """A time in microseconds, or a formula in parentheses as the text inside them. Raises `DataError`."""
    text = text.strip()
    if not text.startswith("("):
        return parse_time(text)
    end = closing(text, 0)
    if end < 0 or text[end + 1 :].strip().lower() not in ("", "ms"):
        raise DataError(
            tr("{text!r} is not a time; a formula gives milliseconds and is written as (20 + run) ms").format(
                text=cut(text)
            )
        )
    return text[1:end].strip()


def read_span(text: str) -> tuple[int | str, int | str | None]:
    """A time, or two with `to` between them; each may be a formula in parentheses. Raises `DataError`."""
    if "(" not in text:
        return parse_span(text)
    to = outside(text, " to ")
    if to < 0:
        return read_time(text), None
    return read_time(text[:to]), read_time(text[to + 4 :])


def bounded(line: Line, at: int, text: str, most: int) -> int | str:
    """A whole number from 1 to `most`, or a formula in parentheses, which stands at `at`."""
    text = text.strip()
    if text.startswith("(") and closing(text, 0) == len(text) - 1:
        return text[1:-1].strip()
    if not text.isdecimal() or not 1 <= int(text) <= most:
        fail(
            line,
            at,
            tr("{text!r} is no whole number from 1 to {most}; write one, or a formula in parentheses").format(
                text=cut(text), most=most
            ),
        )
    return int(text)


def read_statement(line: Line, start: int, verb: str, statement: str, common: dict[str, object]) -> Step:
    """The step that these words say. Raises `NotationError`, and `FormulaError`, which knows its own place."""
    rest = statement[len(verb) :].strip()
    at = start + len(statement) - len(statement[len(verb) :].lstrip())
    try:
        return _step(line, start, at, verb, rest, common)
    except (NotationError, FormulaError):
        raise
    except DataError as error:
        fail(line, at, str(error))


def _step(line: Line, start: int, at: int, verb: str, rest: str, common: dict[str, object]) -> Step:
    """The step of this verb, whose other words begin at `at`."""
    match verb:
        case "tap":
            return _tap(line, at, rest, common)
        case "press":
            return Press(control=_control(line, at, rest), **common)  # type: ignore[arg-type]
        case "release":
            return Release(control=_control(line, at, rest), **common)  # type: ignore[arg-type]
        case "wait":
            if not rest:
                fail(line, at, tr("how long? Write it as: wait 25 ms, or wait 2 to 5 s"))
            least, most = _span(line, at, rest)
            return Wait(wait_us=least, most_us=most, **common)  # type: ignore[arg-type]
        case "turn":
            return _turn(line, at, rest, common)
        case "move":
            return _move(line, at, rest, common)
        case "type":
            return _type(line, at, common)
        case "open":
            return Open(command=_command(line, at, rest), **common)  # type: ignore[arg-type]
        case "set":
            name, to, value = rest.partition(" to ")
            if not to:
                fail(line, at + len(rest), tr("expected 'to' and a formula, as in: set count to count + 1"))
            return Set(variable=name.strip(), value=value.strip(), **common)  # type: ignore[arg-type]
    word = line.text[start:].split(" ")[0].partition("#")[0]
    raise NotationError(line.number, line.indent + start + 1, _no_verb(word))


def _no_verb(word: str) -> str:
    """What is wrong with a line that begins with this word."""
    plain = word.lower()
    if plain == "skip":
        return tr("skip what? Write the step after it, as in: skip tap Q for 50 ms")
    if plain in _WITH_COLON:
        return tr("expected a colon, as in: {line}").format(line=_WITH_COLON[plain])
    # Only a slip needs it.
    from difflib import get_close_matches

    if near := get_close_matches(plain[:20], _VERBS, 1, 0.7):
        return tr("{word!r} starts no step; did you mean {near}?").format(word=cut(word), near=near[0])
    return tr("{word!r} starts no step; expected {starts}").format(word=cut(word), starts=tr(STARTS))


def _tap(line: Line, at: int, rest: str, common: dict[str, object]) -> Step:
    if not rest or re.match(r"for\b", rest, re.IGNORECASE):
        fail(line, at, tr("which key or button? Write it as: tap Q for 50 ms"))
    names, hold_us = _timed(line, at, rest)
    parts = _parts(names)
    controls = tuple(_control(line, at + place, name) for place, name in parts)
    if len(controls) == 1:
        return Tap(control=controls[0], hold_us=hold_us, **common)  # type: ignore[arg-type]
    try:
        return Chord(controls=controls, hold_us=hold_us, **common)  # type: ignore[arg-type]
    except DataError as error:
        again = next((i for i, code in enumerate(controls) if code in controls[:i]), 0)
        fail(line, at + parts[again][0], str(error))


def _parts(names: str) -> list[tuple[int, str]]:
    """The names between plus signs, each with its place."""
    parts, begin = [], 0
    while begin <= len(names):
        end = outside(names[begin:], "+")
        part = names[begin:] if end < 0 else names[begin : begin + end]
        parts.append((begin + len(part) - len(part.lstrip()), part.strip()))
        begin += len(part) + 1
    return parts


def _turn(line: Line, at: int, rest: str, common: dict[str, object]) -> Step:
    if not rest or re.match(r"by\b", rest, re.IGNORECASE):
        fail(line, at, tr("which way? Write it as: turn Wheel up by 2"))
    by = outside(rest + " ", " by ")
    name, notches = (rest[:by], rest[by + 4 :]) if by >= 0 else (rest, "1")
    code = _control(line, at, name)
    if not notches.strip():
        fail(line, at + len(rest), tr("by how many notches? Write it as: turn Wheel up by 2"))
    number = bounded(line, at + by + 4 + len(notches) - len(notches.lstrip()), notches, MAX_NOTCHES)
    return Wheel(control=code, notches=number, **common)  # type: ignore[arg-type]


def _move(line: Line, at: int, rest: str, common: dict[str, object]) -> Step:
    option, _, place = rest.partition(" ")
    if option.lower() not in ("to", "by"):
        fail(line, at, tr("expected 'to' or 'by' and two numbers, as in: move to 640, 400"))
    x, place = _pixel(line, at, place)
    if not place.lstrip().startswith(","):
        fail(line, at, tr("expected two numbers with a comma between them, as in: move to 640, 400"))
    y, place = _pixel(line, at, place.lstrip()[1:])
    found = _FRAME.fullmatch(place)
    if not found or (option.lower() == "by" and found["what"]):
        fail(
            line,
            line.text.rfind(place.strip()) if place.strip() else at,
            tr("expected nothing more, or: on a screen of 1920 x 1080, in the window, over 200 ms"),
        )
    origin = Origin.POINTER if option.lower() == "by" else Origin((found["what"] or "screen").lower())
    size = (int(found["width"]), int(found["height"])) if found["width"] else None
    over_us = _time(line, at, found["over"]) if found["over"] else 0
    try:
        return Pointer(x=x, y=y, origin=origin, size=size, over_us=over_us, **common)  # type: ignore[arg-type]
    except DataError as error:
        fail(line, len(line.text) - len(place) + found.start("width") if size and 0 in size else at, str(error))


def _pixel(line: Line, at: int, text: str) -> tuple[int | str, str]:
    """A number of pixels at the beginning of the text, and what comes after it."""
    found = _PLACE.match(text)
    if not found:
        fail(line, at, tr("expected two whole numbers, as in: move to 640, 400"))
    if not found[1].startswith("("):
        return int(found[1]), text[found.end() :]
    end = closing(found[1], 0)
    if end < 0:
        fail(line, at, tr("a parenthesis is not closed"))
    return found[1][1:end].strip(), found[1][end + 1 :]


def _type(line: Line, at: int, common: dict[str, object]) -> Step:
    secret = re.compile(r"the\s+secret\s+", re.IGNORECASE).match(line.text, at)
    begin = secret.end() if secret else at
    if not line.text.startswith('"', begin):
        fail(line, begin, tr('expected a text in quotes, as in: type "Good evening" at 30/s'))
    text, end = quoted(line, begin)
    if not isinstance(text, str):
        fail(line, begin, tr("expected a text in quotes"))
    rest = line.text[end:].partition("#")[0]
    found = re.fullmatch(r"\s*(?:at\s+(\d{1,9}|\(.*\))\s*/\s*s)?\s*", rest, re.IGNORECASE)
    if not found:
        fail(line, end, tr("expected nothing more, or how fast, as in: at 30/s"))
    rate = bounded(line, end + max(0, found.start(1)), found[1] or "30", MAX_RATE)
    if secret:
        if not text:
            fail(line, begin, tr("the secret needs a name"))
        return Text(secret=text, rate=rate, **common)  # type: ignore[arg-type]
    return Text(text=text, rate=rate, **common)  # type: ignore[arg-type]


def _command(line: Line, at: int, rest: str) -> tuple[str, ...]:
    parts: list[str] = []
    end = at + len(rest)
    while at < end:
        if line.text[at] == '"':
            part, at = quoted(line, at)
        else:
            part = re.split(r"\s", line.text[at:end], maxsplit=1)[0]
            at += len(part)
        parts.append(part)
        at += len(line.text[at:end]) - len(line.text[at:end].lstrip())
    if not parts:
        fail(line, at, tr("which program? Write it as: open firefox"))
    return tuple(parts)


def _timed(line: Line, at: int, rest: str) -> tuple[str, int | str]:
    found = outside(rest, " for ")
    if found < 0:
        where = at + _known_names(line, at, rest)
        fail(line, where, tr("expected 'for' and a time, as in: tap Q for 50 ms"))
    return rest[:found], _time(line, at, rest[found + 5 :])


def _known_names(line: Line, at: int, rest: str) -> int:
    """How much of it is names of controls, the first of which has to be one: after them something else goes wrong."""
    ends = [found.start() for found in re.finditer(r"\s|$", rest)] if rest else []
    for end in reversed(ends):
        try:
            for _, name in _parts(rest[:end]):
                line.code_of(name)
        except DataError:
            continue
        return end
    _control(line, at, _parts(rest)[0][1])
    return 0


def _time(line: Line, at: int, text: str) -> int | str:
    """A time at its place in the line, which is told where it can't be read."""
    try:
        return read_time(text)
    except DataError as error:
        fail(line, max(at, line.text.find(text.strip(), at)), str(error))


def _span(line: Line, at: int, text: str) -> tuple[int | str, int | str | None]:
    try:
        return read_span(text)
    except DataError as error:
        fail(line, max(at, line.text.find(text.strip(), at)), str(error))


def _control(line: Line, at: int, name: str) -> str:
    """The control whose name stands at `at`."""
    try:
        return line.code_of(name)
    except DataError as error:
        fail(line, at, str(error))
