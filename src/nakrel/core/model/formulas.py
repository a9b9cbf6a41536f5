"""Formulas: numbers in a step that are worked out while the macro runs.

Plain arithmetic, comparisons, and, or, not, and a few functions over the macro's variables; nothing else can be
reached from one. A formula is read once, by Python's own parser (ast), into functions that work it out. Its length is
limited and so is every number on the way, so that working it out always ends, and soon.
"""

from __future__ import annotations

import ast
import contextlib
import functools
import keyword
import operator
import random
import re
from collections.abc import Callable, Iterator
from contextvars import ContextVar
from typing import Annotated, Protocol

import msgspec

from nakrel.core.model.errors import DataError
from nakrel.core.model.limits import (
    MAX_COUNT,
    MAX_FORMULA,
    MAX_FORMULA_NODES,
    MAX_FORMULA_SIGNS,
    MAX_PIXELS,
    MAX_WAIT_US,
    VARIABLE,
)
from nakrel.core.model.names import read_control, spelled_everywhere
from nakrel.words import noted, shown_number, tr

__all__ = [
    "BUILT_IN",
    "FUNCTIONS",
    "Estimate",
    "Formula",
    "FormulaError",
    "FormulaText",
    "Scope",
    "VariableName",
    "check_amount",
    "check_readable",
    "compiled",
    "count",
    "micros",
    "parsing_budget",
    "pixels",
]

# No number in a formula may be larger: floats are exact up to there.
MAX_NUMBER = 10**15
# Everything that the grammar of docs/notation.md has. Python's parser, which reads it, would take much more.
_TOKEN = re.compile(
    r"""\s*(?:(?P<figure>(?:\d+\.?\d*|\.\d+)(?![\w.]))|(?P<name>[A-Za-z_]\w*)|(?P<text>"[^"]*"|'[^']*')"""
    r"""|(?P<sign>//|==|!=|<=|>=|[-+*/%<>(),]))\s*"""
)
_WORDS = ("and", "or", "not")
_NO_NUMBERS = ("nan", "inf", "infinity", "none", "null")

FormulaText = Annotated[str, msgspec.Meta(min_length=1, max_length=MAX_FORMULA)]
VariableName = Annotated[str, msgspec.Meta(pattern=VARIABLE)]

# What a formula can read besides the macro's variables.
BUILT_IN = {
    "run": noted("the number of this run, from 1"),
    "elapsed": noted("milliseconds since the macro started"),
    "x": noted("the pointer's place from the left, in pixels"),
    "y": noted("the pointer's place from the top, in pixels"),
}
FUNCTIONS = {
    "min": noted("the least of some numbers"),
    "max": noted("the greatest of some numbers"),
    "abs": noted("a number without its sign"),
    "round": noted("the nearest whole number, or to so many places"),
    "random": noted("a number between two, both included; whole where both are"),
    "held": noted('whether a key or button is down, as in held("Left Shift")'),
}


_CALLS = {
    "min": "min(a, b)",
    "max": "max(a, b)",
    "abs": "abs(a)",
    "round": "round(a)",
    "random": "random(a, b)",
    "held": 'held("Left Shift")',
}
_ONLY = noted("only arithmetic, comparisons and functions can stand")
_INSTEAD = {
    "True": noted("write 1"),
    "False": noted("write 0"),
    "if": noted("use an if step"),
    "else": noted("use an if step"),
    "=": noted("write == to compare"),
    "**": noted("write a * a for the square of a"),
}


class FormulaError(DataError):
    """The formula can't be read, or has no result; `column` counts from 1, 0 where it is about the whole of `text`."""

    def __init__(self, text: str, column: int, message: str) -> None:
        super().__init__(tr("the formula {text!r} {message}").format(text=text, message=message))
        self.text, self.column = text, column


class Scope(Protocol):
    """What a formula sees of the run that it is worked out in. Without `chance` a random number is the middle one."""

    variables: dict[str, float]
    chance: random.Random | None

    @property
    def run(self) -> int:
        """The number of the present run, from 1."""

    @property
    def elapsed_us(self) -> int:
        """Microseconds since the macro started."""

    def pointer(self) -> tuple[int, int]:
        """The pointer's place on the screen, in pixels; (0, 0) where nobody knows."""

    def held(self, code: str) -> bool:
        """Whether the control is down."""


class Estimate:
    """The scope of somebody who looks at a macro that doesn't run: the first run, and nothing is held."""

    def __init__(self) -> None:
        self.variables: dict[str, float] = {}
        self.chance: random.Random | None = None
        self.run = 1
        self.elapsed_us = 0

    def pointer(self) -> tuple[int, int]:
        """The top left corner."""
        return 0, 0

    def held(self, code: str) -> bool:
        """No control is."""
        return False


_Work = Callable[[Scope], float]


class Formula:
    """A formula that was read: `names` are the variables it looks at, `controls` those it asks about."""

    def __init__(self, text: str) -> None:
        self.text = text
        self.names: set[str] = set()
        self.controls: set[str] = set()
        # Whether it asks where the pointer is.
        self.asks_pointer = False
        # Its numbers, names and operations.
        self.nodes = 0
        if len(text) > MAX_FORMULA:
            raise FormulaError(text[:20] + "…", 0, tr("is longer than {most} characters").format(most=MAX_FORMULA))
        if text != text.strip() or not text:
            raise FormulaError(text, 0, tr("is empty, or has a space at its beginning or end"))
        if "#" in text or "\\" in text or not text.isprintable():
            raise FormulaError(
                text, 0, tr("has a sign in it that can't stand there; write the code of a key instead of #")
            )
        self._check_tokens()
        try:
            tree = ast.parse(text, mode="eval")
        except (SyntaxError, ValueError, RecursionError, MemoryError) as error:
            column = getattr(error, "offset", 0) or 0
            if column:
                wrong = tr("can't be read at character {column}; write it as 20 + 5 * run").format(column=column)
            else:
                wrong = tr("can't be read; write it as 20 + 5 * run")
            raise FormulaError(text, column, wrong) from None
        self._work = self._read(tree.body)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Formula) and other.text == self.text

    def __hash__(self) -> int:
        return hash(self.text)

    def value(self, scope: Scope) -> float:
        """The result. Raises `FormulaError`."""
        try:
            return self._bounded(self._work(scope))
        except FormulaError:
            raise
        except ZeroDivisionError:
            raise FormulaError(self.text, 0, tr("divides by zero")) from None
        except (OverflowError, ValueError):
            raise FormulaError(self.text, 0, tr("has no result")) from None

    def _bounded(self, number: float) -> float:
        if not -MAX_NUMBER <= number <= MAX_NUMBER:
            raise FormulaError(self.text, 0, tr("gets a number that is too large"))
        return number

    def _check_tokens(self) -> None:
        """Raise `FormulaError` at the first thing that is in no formula, whatever Python would make of it."""
        at = 0
        while at < len(self.text):
            found = _TOKEN.match(self.text, at)
            if found and found["sign"] == "*" and self.text.startswith("**", found.start("sign")):
                at, found = found.start("sign"), None
            if found is None:
                at += len(self.text[at:]) - len(self.text[at:].lstrip())
                part = re.match(r"[\w.]+|\*\*|\S", self.text[at:])
                word = part.group() if part else self.text[at:]
                how = tr(_INSTEAD.get(word, _ONLY))
                if re.match(r"\.?\d", word):
                    how = tr("write a number as 20 or 0.5")
                raise FormulaError(
                    self.text, at + 1, tr("can't have {word!r} in it: {how}").format(word=word[:40], how=how)
                )
            if name := found["name"]:
                self._check_name(name, found.start("name"), self.text[found.end() : found.end() + 1] == "(")
            at = found.end()

    def _check_name(self, name: str, at: int, called: bool) -> None:
        if name in _WORDS:
            return
        message = ""
        if keyword.iskeyword(name):
            message = tr("can't have the word {name!r} in it: {how}").format(
                name=name, how=tr(_INSTEAD.get(name, _ONLY))
            )
        elif name.lower() in _NO_NUMBERS:
            message = tr("can't have {name!r} in it: write a number as 20 or 0.5").format(name=name)
        elif name in FUNCTIONS and not called:
            message = tr("has the function {name!r} without numbers; write it as {example}").format(
                name=name, example=_CALLS[name]
            )
        elif name in BUILT_IN and called:
            message = tr("calls {name!r}, which is a number; write it without parentheses").format(name=name)
        if message:
            raise FormulaError(self.text, at + 1, message)

    def _fail(self, node: ast.AST, message: str) -> FormulaError:
        # Python counts bytes there.
        before = self.text.encode()[: getattr(node, "col_offset", -1)] if hasattr(node, "col_offset") else None
        return FormulaError(self.text, 0 if before is None else len(before.decode()) + 1, message)

    def _read(self, node: ast.expr) -> _Work:
        self.nodes += 1
        match node:
            case ast.Constant(value=int() | float() as number):
                self._bounded(number)
                return lambda scope: number
            case ast.Name(id=name):
                return self._name(name)
            case ast.UnaryOp(op=op, operand=operand) if type(op) in _UNARY:
                return _one(_UNARY[type(op)], self._read(operand))
            case ast.BinOp(left=left, op=op, right=right) if type(op) in _BINARY:
                return self._two(_BINARY[type(op)], self._read(left), self._read(right))
            case ast.BoolOp(op=op, values=values):
                return _logic(isinstance(op, ast.And), [self._read(value) for value in values])
            case ast.Compare(left=left, ops=ops, comparators=others) if all(type(op) in _COMPARE for op in ops):
                parts = [self._read(part) for part in (left, *others)]
                return _compare([_COMPARE[type(op)] for op in ops], parts)
            case ast.Call(func=ast.Name(id=name), args=arguments, keywords=[]):
                return self._call(node, name, arguments)
        source = ast.get_source_segment(self.text, node) or "that"
        raise self._fail(node, tr("can't have {word!r} in it: {how}").format(word=source[:40], how=tr(_ONLY)))

    def _name(self, name: str) -> _Work:
        match name:
            case "run":
                return lambda scope: scope.run
            case "elapsed":
                return lambda scope: scope.elapsed_us / 1_000
            case "x" | "y":
                self.asks_pointer = True
                axis = "xy".index(name)
                return lambda scope: scope.pointer()[axis]
        self.names.add(name)
        return lambda scope: scope.variables.get(name, 0)

    def _two(self, work: Callable[[float, float], float], left: _Work, right: _Work) -> _Work:
        bounded = self._bounded
        return lambda scope: bounded(work(left(scope), right(scope)))

    def _call(self, node: ast.Call, name: str, arguments: list[ast.expr]) -> _Work:
        if name == "held":
            return self._held(node, arguments)
        least, most = _ARGUMENTS.get(name, (0, 0))
        if not most:
            raise self._fail(
                node,
                tr("has no function {name!r}; there are {functions}").format(name=name, functions=", ".join(FUNCTIONS)),
            )
        if not least <= len(arguments) <= most:
            wanted = str(least) if least == most else tr("{least} to {most}").format(least=least, most=most)
            raise self._fail(
                node,
                tr("gives {name} {arguments} numbers; it takes {wanted}").format(
                    name=name, arguments=len(arguments), wanted=wanted
                ),
            )
        parts = [self._read(argument) for argument in arguments]
        if name == "random":
            return lambda scope: _random(scope.chance, parts[0](scope), parts[1](scope))
        if name == "round":
            return lambda scope: _round(*(part(scope) for part in parts))
        work: Callable[..., float] = _PLAIN[name]
        return lambda scope: work(*(part(scope) for part in parts))

    def _held(self, node: ast.Call, arguments: list[ast.expr]) -> _Work:
        match arguments:
            case [ast.Constant(value=str() as name)]:
                try:
                    code = read_control(name)
                except DataError as error:
                    raise self._fail(arguments[0], tr("can't be read: {reason}").format(reason=error)) from None
                self.controls.add(code)
                return lambda scope: scope.held(code)
        raise self._fail(
            node, tr('asks held for something else than one key or button; write it as held("Left Shift")')
        )


# How many numbers each function takes, at least and at most.
_ARGUMENTS = {"min": (2, 20), "max": (2, 20), "abs": (1, 1), "round": (1, 2), "random": (2, 2)}
_PLAIN: dict[str, Callable[..., float]] = {"min": min, "max": max, "abs": abs}
_UNARY: dict[type, Callable[[float], float]] = {
    ast.UAdd: operator.pos,
    ast.USub: operator.neg,
    ast.Not: operator.not_,
}
_BINARY: dict[type, Callable[[float, float], float]] = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
    ast.FloorDiv: operator.floordiv,
    ast.Mod: operator.mod,
}
_COMPARE: dict[type, Callable[[float, float], bool]] = {
    ast.Eq: operator.eq,
    ast.NotEq: operator.ne,
    ast.Lt: operator.lt,
    ast.LtE: operator.le,
    ast.Gt: operator.gt,
    ast.GtE: operator.ge,
}


def _one(work: Callable[[float], float], part: _Work) -> _Work:
    return lambda scope: work(part(scope))


def _logic(every: bool, parts: list[_Work]) -> _Work:
    if every:
        return lambda scope: all(part(scope) for part in parts)
    return lambda scope: any(part(scope) for part in parts)


def _compare(tests: list[Callable[[float, float], bool]], parts: list[_Work]) -> _Work:
    if len(tests) == 1:
        (test,), (one, other) = tests, parts
        return lambda scope: test(one(scope), other(scope))

    def compare(scope: Scope) -> bool:
        left = parts[0](scope)
        for test, part in zip(tests, parts[1:], strict=True):
            right = part(scope)
            if not test(left, right):
                return False
            left = right
        return True

    return compare


def _random(chance: random.Random | None, least: float, most: float) -> float:
    if most < least:
        least, most = most, least
    # By their value, not by how they came about: a half of 4 is whole.
    whole = least == int(least) and most == int(most)
    if chance is None:
        return int(least + most) // 2 if whole else (least + most) / 2
    return chance.randint(int(least), int(most)) if whole else chance.uniform(least, most)


def _round(number: float, places: float = 0) -> float:
    return round(number, int(max(-15, min(15, places)))) if places else round(number)


@functools.lru_cache(maxsize=4_096)
def compiled(text: str) -> Formula:
    """The formula, read once however often it is used. Raises `FormulaError`."""
    return Formula(text)


class _Budget:
    """What reading the formulas of one macro may cost, counted while it is made from a file or a message."""

    def __init__(self) -> None:
        self.texts: set[str] = set()
        self.signs = self.nodes = 0


_budget: ContextVar[_Budget | None] = ContextVar("budget", default=None)


@contextlib.contextmanager
def parsing_budget() -> Iterator[None]:
    """Within it no more formulas are read than a macro may have: a file of megabytes can't keep the machine busy."""
    token = _budget.set(_Budget())
    try:
        yield
    finally:
        _budget.reset(token)


def check_readable(text: str) -> str:
    """The formula as it is kept, with names that are read in every language. Raises `FormulaError` for one that can't
    be read, and `DataError` once there are too many of them within a `parsing_budget`."""
    budget = _budget.get()
    if budget is None:
        compiled(text)
    elif text not in budget.texts:
        budget.texts.add(text)
        budget.signs += len(text)
        check_amount(budget.signs, budget.nodes)
        budget.nodes += compiled(text).nodes
    kept = spelled_everywhere(text)
    if kept != text:
        compiled(kept)
    return kept


def check_amount(signs: int, nodes: int) -> None:
    """Raise `DataError` where the formulas of a macro, each different one counted once, are more than it may have."""
    if signs > MAX_FORMULA_SIGNS or nodes > MAX_FORMULA_NODES:
        raise DataError(
            tr(
                "the formulas of this macro are too much: all different ones together may have {signs} "
                "characters and {parts} numbers, names and operations; write some of them as numbers"
            ).format(signs=shown_number(MAX_FORMULA_SIGNS), parts=shown_number(MAX_FORMULA_NODES))
        )


# Results as what a step needs


def _value(number: float | str | Formula, scope: Scope) -> float:
    if isinstance(number, Formula):
        return number.value(scope)
    return compiled(number).value(scope) if isinstance(number, str) else number


def micros(number: int | str | Formula, scope: Scope) -> int:
    """A time in microseconds; a formula gives milliseconds. Raises `FormulaError` for a time that is negative or longer
    than one may be."""
    if isinstance(number, int):
        return number
    ms = _value(number, scope)
    if not 0 <= ms * 1_000 <= MAX_WAIT_US:
        text = number.text if isinstance(number, Formula) else number
        raise FormulaError(
            text,
            0,
            tr("gives {ms:.12g} ms; a time is from 0 to {most} ms").format(
                ms=ms, most=shown_number(MAX_WAIT_US // 1_000)
            ),
        )
    return round(ms * 1_000)


def count(number: int | str | Formula, scope: Scope, most: int = MAX_COUNT) -> int:
    """A number of times, from 0 to `most`."""
    return max(0, min(most, round(_value(number, scope))))


def pixels(number: int | str | Formula, scope: Scope) -> int:
    """A place or a distance in pixels."""
    return max(-MAX_PIXELS, min(MAX_PIXELS, round(_value(number, scope))))
