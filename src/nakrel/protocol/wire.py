"""What all messages have in common, and how they are written and read as lines.

A message is read in two steps: its number first, then its body. So every request can be answered under its own number,
whatever is in it.
"""

from __future__ import annotations

import re
from typing import Any, TypeVar

import msgspec

from nakrel.core.model.formulas import parsing_budget
from nakrel.core.model.value import readable_text
from nakrel.words import tr

__all__ = ["MAX_LINE", "MAX_NUMBER", "PROTOCOL", "BadMessage", "Message", "decode_body", "decode_head", "encode_line"]

# Raised whenever an older end would misread a message; both ends say theirs in the first exchange.
PROTOCOL = 5
# A request longer than this is not one: the largest macro allowed (200,000 steps) takes some 10 MB.
MAX_LINE = 32 * 1024 * 1024
# Requests are numbered from 1; 0 stands for a line without a number that can be read. JSON's numbers are exact up to
# here (RFC 8259, 6).
MAX_NUMBER = 2**53 - 1

_NUMBER = re.compile(rb'\s*\{\s*"id"\s*:\s*(\d{1,16})\s*,')

T = TypeVar("T")


class Message(msgspec.Struct, frozen=True, tag_field="is", tag=True, omit_defaults=True, forbid_unknown_fields=True):
    """A message of either direction; its class name is its tag."""


class BadMessage(Exception):
    """A line, or the body in one, that can't be read; the message says why. `number` is the line's, where it begins
    with that, else 0."""

    def __init__(self, reason: str, number: int = 0) -> None:
        super().__init__(reason)
        self.number = number


class _Head(msgspec.Struct, frozen=True):
    id: int
    body: msgspec.Raw


_heads = msgspec.json.Decoder(_Head)
_encoder = msgspec.json.Encoder()
# What reading a message may raise: msgspec's own errors, text that is no UTF-8, and lists in lists in lists.
_UNREADABLE = (msgspec.DecodeError, UnicodeDecodeError, RecursionError)


def decode_head(line: bytes) -> tuple[int, msgspec.Raw]:
    """The number of a request or an answer, and its body as it came. Raises `BadMessage`."""
    try:
        head = _heads.decode(line)
    except _UNREADABLE as error:
        # What comes after the number may be such that not even its end is found.
        found = _NUMBER.match(line)
        number = int(found[1]) if found else 0
        raise BadMessage(str(error), number if number <= MAX_NUMBER else 0) from None
    if not 0 <= head.id <= MAX_NUMBER:
        raise BadMessage(tr("a message's number is from 1 to {most}").format(most=MAX_NUMBER))
    return head.id, head.body


def decode_body(body: msgspec.Raw, decoder: msgspec.json.Decoder[T]) -> T:
    """Read a body. Raises `BadMessage`, which says where in it and why."""
    try:
        with parsing_budget():
            return decoder.decode(body)
    except _UNREADABLE as error:
        raise BadMessage(str(error)) from None


def encode_line(message: Any) -> bytes:
    """The message as a line. Halves of characters, as the names of files and processes may have them that aren't
    UTF-8, become replacement characters: an answer is never kept back for one."""
    try:
        return _encoder.encode(message) + b"\n"
    except UnicodeEncodeError:
        return _encoder.encode(_replaced(msgspec.to_builtins(message))) + b"\n"


def _replaced(value: Any) -> Any:
    if isinstance(value, str):
        return readable_text(value)
    if isinstance(value, dict):
        return {_replaced(key): _replaced(each) for key, each in value.items()}
    if isinstance(value, list | tuple):
        return [_replaced(each) for each in value]
    return value
