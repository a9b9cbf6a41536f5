"""How long steps take, and what a run makes of them: times, weights and conditions that may be formulas."""

from __future__ import annotations

from nakrel.core.model.formulas import Estimate, FormulaError, Scope, compiled, count, micros
from nakrel.core.model.limits import MAX_RATE, MAX_WEIGHT
from nakrel.core.model.steps import (
    Block,
    Chord,
    If,
    Note,
    PickOne,
    Pointer,
    Press,
    Release,
    Repeat,
    Step,
    Tap,
    Text,
    Wait,
    walk,
)

__all__ = ["LEAST_TURN_US", "holds", "length_us", "turn_us", "weights_of"]

# What a turn of a repeat block takes at least: one without any time in it would never let the machine go.
LEAST_TURN_US = 1_000


def _about(number: int | str, scope: Scope) -> int:
    """A time that may be a formula; nothing where that has no result."""
    try:
        return micros(number, scope)
    except FormulaError:
        return 0


def length_us(step: Step, scope: Scope | None = None) -> int:
    """How long the step takes, in microseconds; on average where chance decides, and 0 when it is switched off.

    Formulas are worked out in `scope`, by default that of a first run.
    """
    if step.off:
        return 0
    match step:
        # The kinds that most macros are made of come first.
        case Wait(wait_us=int() as whole, most_us=None) | Tap(hold_us=int() as whole):
            return whole
        case Press() | Release():
            return 0
    scope = scope or Estimate()
    match step:
        case Wait(wait_us=wait_us, most_us=most_us):
            least = _about(wait_us, scope)
            return least if most_us is None else (least + max(least, _about(most_us, scope))) // 2
        case Tap(hold_us=time) | Chord(hold_us=time) | Pointer(over_us=time):
            return _about(time, scope)
        case Text(text=text, rate=rate):
            try:
                return len(text) * 1_000_000 // max(1, count(rate, scope, MAX_RATE))
            except FormulaError:
                return 0
        case Repeat(times=times):
            try:
                return count(times, scope) * turn_us(step, scope)
            except FormulaError:
                return 0
        case PickOne(branches=options):
            weights = weights_of(step, scope)
            weighed = sum(
                weight * sum(length_us(each, scope) for each in option.steps)
                for weight, option in zip(weights, options, strict=True)
            )
            return weighed // max(1, sum(weights))
        case If():
            return sum(length_us(each, scope) for each in _chosen(step, scope))
    return 0


def weights_of(step: PickOne, scope: Scope) -> list[int]:
    """The weights of the branches; 0 where a formula has no result."""
    found = []
    for option in step.branches:
        try:
            found.append(count(option.weight, scope, MAX_WEIGHT))
        except FormulaError:
            found.append(0)
    return found


def holds(step: If, scope: Scope) -> bool:
    """Whether the condition holds; it doesn't where its formula has no result."""
    try:
        return bool(compiled(step.condition).value(scope))
    except FormulaError:
        return False


def _chosen(step: If, scope: Scope) -> tuple[Step, ...]:
    if holds(step, scope):
        return step.steps
    return step.otherwise.steps if step.otherwise else ()


def turn_us(block: Repeat, scope: Scope | None = None) -> int:
    """How long one turn of the block takes, in microseconds; nothing where it does nothing."""
    acts = any(not isinstance(step, Note | Block) for step in walk(block.steps))
    return max(LEAST_TURN_US if acts else 0, sum(length_us(step, scope) for step in block.steps))
