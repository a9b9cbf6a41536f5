"""What all values have in common: one that exists is valid.

The limits stand in the types of the fields (`msgspec.Meta`), where decoding and the schemas find them; `Value` holds
every value to the same ones when it is made in any other way.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from operator import attrgetter
from typing import Any

import msgspec
from msgspec.inspect import (
    DictType,
    IntType,
    LiteralType,
    Metadata,
    StrType,
    StructType,
    TupleType,
    Type,
    UnionType,
    VarTupleType,
    type_info,
)

from nakrel.core.model.errors import LimitError
from nakrel.core.model.limits import COLOUR, COLOUR_OR_NONE, ID, LAYOUT, NO_NUL, VARIABLE
from nakrel.core.model.units import shown_ms
from nakrel.words import noted, shown_number, tr

__all__ = ["Value", "checked_text", "longest", "readable_text"]

# Checks a field's value; raises `LimitError`.
_Check = Callable[[str, Any], None]
_SHOWN = 40


class Value(msgspec.Struct, frozen=True):
    """Refuses to exist outside the limits of its fields' types: raises `LimitError`, which names the field, the value
    and the limit."""

    def __post_init__(self) -> None:
        cls = type(self)
        checks = _CHECKS.get(cls)
        if checks is None:
            _learn(type_info(cls))
            checks = _CHECKS[cls]
        # Macros have thousands of steps: what is left at its default is known to be fine.
        for name, default, read, check in checks:
            value = read(self)
            if value is not default:
                check(name, value)


# By class, its fields that have limits: name, default, getter, check.
_CHECKS: dict[type, tuple[tuple[str, object, Callable[[Any], Any], _Check], ...]] = {}


def _learn(kind: Type) -> None:
    """Note the checks of a value's type, and of all that it can hold: inspecting a type is slow, and goes through those
    anyhow."""
    match kind:
        case StructType(cls=cls):
            if cls in _CHECKS:
                return
            _CHECKS[cls] = _checks_of(kind)
            inner = [field.type for field in kind.fields]
        case Metadata(type=of):
            inner = [of]
        case UnionType(types=types):
            inner = list(types)
        case VarTupleType(item_type=of):
            inner = [of]
        case TupleType(item_types=types):
            inner = list(types)
        case DictType(value_type=of):
            inner = [of]
        case _:
            return
    for each in inner:
        _learn(each)


def _checks_of(info: StructType) -> tuple[tuple[str, object, Callable[[Any], Any], _Check], ...]:
    found = ((field, _check_of(field.type)) for field in info.fields)
    return tuple(
        # What may be left unset has that for its default, which msgspec doesn't tell.
        (
            f.name,
            msgspec.UNSET if not f.required and f.default is msgspec.NODEFAULT else f.default,
            attrgetter(f.name),
            check,
        )
        for f, check in found
        if check is not None
    )


def _check_of(kind: Type) -> _Check | None:
    """The check of a type; None where any value of it will do."""
    match kind:
        case Metadata(type=inner):
            return _check_of(inner)
        case IntType():
            return _int_check(kind)
        case StrType():
            return _str_check(kind)
        case LiteralType(values=values):
            return _literal_check(values)
        case UnionType(types=types):
            return _union_check(types)
        case VarTupleType():
            return _items_check(kind)
        case TupleType(item_types=types):
            return _each_check([_check_of(each) for each in types])
        case DictType(key_type=key_type):
            return _keys_check(_check_of(key_type))
    return None


def _int_check(kind: IntType) -> _Check | None:
    least, most = kind.ge, kind.le
    if least is None and most is None:
        return None
    # Whole numbers compare with whole numbers fastest.
    low = -(1 << 63) if least is None else least
    high = 1 << 63 if most is None else most

    def check(name: str, value: Any) -> None:
        if not low <= value <= high:
            allowed = (
                tr("at least {low}").format(low=_number(name, low))
                if value < low
                else tr("at most {high}").format(high=_number(name, high))
            )
            raise LimitError(
                name, value, tr("is {value}; it can be {allowed}").format(value=_number(name, value), allowed=allowed)
            )

    return check


def _number(name: str, value: float) -> str:
    """A number with its unit."""
    return f"{shown_ms(int(value))} ms" if name.endswith("_us") else str(value)


def _str_check(kind: StrType) -> _Check:
    least, most = kind.min_length or 0, kind.max_length
    pattern = re.compile(kind.pattern) if kind.pattern else None
    high, plain = 1 << 63 if most is None else most, pattern is None
    # Looked up now, so that no pattern is without its words.
    reason = _PATTERNS[kind.pattern] if kind.pattern else ""

    def check(name: str, value: Any) -> None:
        length = len(value)
        if plain and least <= length <= high and value.isascii():
            return
        if length < least:
            raise LimitError(name, value, tr("is empty; write something"))
        if most is not None and length > most:
            raise LimitError(
                name,
                value,
                tr("has {count} characters; it can have {most} at most").format(
                    count=shown_number(length), most=shown_number(most)
                ),
            )
        if not value.isascii():
            checked_text(name, value)
        if pattern is not None and not pattern.search(value):
            raise LimitError(
                name,
                value,
                tr("is {value}; {reason}").format(value=_short(value), reason=tr(reason)),
            )

    return check


def _short(value: str) -> str:
    shown = repr(value)
    return shown if len(shown) <= _SHOWN else shown[: _SHOWN - 1] + "…"


# What a text that must be like a pattern can be.
_PATTERNS = {
    NO_NUL: noted("a program's arguments can't have the character number 0 in them"),
    VARIABLE: noted("it can have up to 40 letters, digits and _, and begins with a letter or _"),
    COLOUR: noted("write a colour as #4A6FA5"),
    COLOUR_OR_NONE: noted("write a colour as #4A6FA5, or nothing"),
    LAYOUT: noted("a layout is written as de or us(intl)"),
    ID: noted("it can't have / or control characters in it"),
}


def checked_text(name: str, value: str) -> str:
    """The text. Raises `LimitError` for one that can't be written as UTF-8: half of a surrogate pair stands in it."""
    try:
        value.encode()
    except UnicodeEncodeError as error:
        raise LimitError(
            name, value, tr("has half a character in it ({value!r}); take that out").format(value=value[error.start])
        ) from None
    return value


_HALVES = re.compile("[\ud800-\udfff]")


def readable_text(text: str) -> str:
    """The text with a replacement character for each byte that isn't UTF-8, as names of files and processes may have
    them, and for each half of a character."""
    return text if text.isascii() else _HALVES.sub("\N{REPLACEMENT CHARACTER}", text)


def _literal_check(values: tuple[Any, ...]) -> _Check:
    def check(name: str, value: Any) -> None:
        if value not in values:
            raise LimitError(
                name,
                value,
                tr("is {value!r}; it can be {values}").format(value=value, values=tr(" or ").join(map(str, values))),
            )

    return check


def _union_check(types: tuple[Type, ...]) -> _Check | None:
    checks: dict[type, _Check] = {}
    for kind in types:
        check = _check_of(kind)
        plain = kind.type if isinstance(kind, Metadata) else kind
        if check is not None and (made := _PYTHON.get(type(plain))):
            checks[made] = check
    if not checks:
        return None

    def check_any(name: str, value: Any) -> None:
        if found := checks.get(type(value)):
            found(name, value)

    return check_any


_PYTHON: dict[type, type] = {IntType: int, StrType: str, VarTupleType: tuple, TupleType: tuple}


def _items_check(kind: VarTupleType) -> _Check | None:
    least, most = kind.min_length or 0, kind.max_length
    each = _check_of(kind.item_type)
    if not least and most is None and each is None:
        return None

    def check(name: str, value: Any) -> None:
        if len(value) < least:
            raise LimitError(name, value, tr("are {count}; {least} at least").format(count=len(value), least=least))
        if most is not None and len(value) > most:
            raise LimitError(
                name,
                value,
                tr("are {count}; {most} at most").format(count=shown_number(len(value)), most=shown_number(most)),
            )
        if each is not None:
            for item in value:
                each(name, item)

    return check


def _each_check(checks: list[_Check | None]) -> _Check:
    def check(name: str, value: Any) -> None:
        for item, check_item in zip(value, checks, strict=True):
            if check_item is not None:
                check_item(name, item)

    return check


def _keys_check(check_key: _Check | None) -> _Check | None:
    if check_key is None:
        return None

    def check(name: str, value: Any) -> None:
        for key in value:
            check_key(name, key)

    return check


def longest(cls: type, field: str) -> int:
    """How many characters the text of a field may have: what an input for it should let pass."""
    info = type_info(cls)
    assert isinstance(info, StructType)
    kind = next(each.type for each in info.fields if each.name == field)
    kinds = kind.types if isinstance(kind, UnionType) else (kind,)
    plain = [each.type if isinstance(each, Metadata) else each for each in kinds]
    found = [each.max_length for each in plain if isinstance(each, StrType) and each.max_length is not None]
    assert found, f"{cls.__name__}.{field} has no limit"
    return max(found)
