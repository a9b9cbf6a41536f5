"""The lines of a text in the notation: splitting them up, and saying where something in them is wrong."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import NamedTuple, NoReturn

from nakrel.core.model.errors import DataError
from nakrel.words import tr

__all__ = ["Line", "NotationError", "closing", "cut_remark", "fail", "outside", "quoted", "remark_text", "split"]


class NotationError(DataError):
    """The text can't be read: `line` and `column` count from 1."""

    def __init__(self, line: int, column: int, message: str) -> None:
        super().__init__(
            tr("line {line}, column {column}: {message}").format(line=line, column=column, message=message)
        )
        self.line, self.column, self.message = line, column, message


class Line(NamedTuple):
    """A line with something in it: its number from 1, how many characters it is indented, and the rest; and what gives
    the code of a control whose name stands there."""

    number: int
    indent: int
    text: str
    code_of: Callable[[str], str]


def split(text: str, code_of: Callable[[str], str]) -> list[Line]:
    lines = []
    for number, raw in enumerate(text.split("\n"), 1):
        stripped = raw.strip()
        if stripped:
            indent = len(raw) - len(raw.lstrip())
            if "\t" in raw[:indent]:
                raise NotationError(number, raw.index("\t") + 1, tr("indent with spaces, not with tabs"))
            lines.append(Line(number, indent, stripped, code_of))
    return lines


def fail(line: Line, at: int, message: str) -> NoReturn:
    raise NotationError(line.number, line.indent + at + 1, message)


def _string_end(text: str, at: int) -> int:
    """The place after the string in quotes that begins at `at`; the next character where none does."""
    try:
        return json.JSONDecoder().raw_decode(text, at)[1] if text[at] == '"' else at + 1
    except json.JSONDecodeError:
        return at + 1


def outside(text: str, word: str) -> int:
    """Where the word stands in the text outside of quotes and parentheses; -1 for nowhere."""
    at = deep = 0
    while at < len(text):
        if not deep and text.startswith(word, at):
            return at
        deep += {"(": 1, ")": -1}.get(text[at], 0)
        at = _string_end(text, at)
    return -1


def closing(text: str, at: int) -> int:
    """The place of the parenthesis that closes the one at `at`; -1 for none."""
    deep = 0
    while at < len(text):
        deep += {"(": 1, ")": -1}.get(text[at], 0)
        if not deep:
            return at
        at = _string_end(text, at)
    return -1


def cut_remark(line: Line, start: int) -> tuple[str, str]:
    """The words from `start` on, and the remark after them."""
    at, text = start, line.text
    while at < len(text) and text[at] != "#":
        at = _string_end(text, at)
    return text[start:at].strip(), remark_text(line, at) if at < len(text) else ""


def remark_text(line: Line, at: int) -> str:
    """The remark whose # is at `at`."""
    body = line.text[at + 1 :].lstrip()
    if not body.startswith('"'):
        return body
    text, end = quoted(line, len(line.text) - len(body))
    if line.text[end:].strip():
        fail(line, end, tr("expected nothing more after the quotes"))
    return text


def quoted(line: Line, at: int) -> tuple[str, int]:
    """The text in quotes at `at`, and the place after it."""
    try:
        text, end = json.JSONDecoder().raw_decode(line.text, at)
    except json.JSONDecodeError as error:
        fail(line, error.pos, _wrong_quotes(line.text, error.pos))
    return text, end


def _wrong_quotes(text: str, at: int) -> str:
    """What is wrong there with a text in quotes, whose signs are those of JSON."""
    if text[at - 1 : at] == "\\" or text[at : at + 1] == "\\":
        return tr('a \\ in quotes stands before ", \\, n or t only; write \\\\ for one that is meant')
    if at < len(text) and text[at] != '"':
        return tr("there is a sign in the quotes that can't stand there; take it out")
    return tr("the quotes are not closed; put them at the end of the text as well")
