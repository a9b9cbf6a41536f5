"""How many steps a macro has, and their formulas: what its limits go by."""

from __future__ import annotations

from operator import attrgetter
from typing import NamedTuple

from nakrel.core.model.alike import shared
from nakrel.core.model.steps import (
    BLOCKS,
    FORMULAS,
    PickOne,
    Press,
    Release,
    Step,
    Tap,
    Wait,
    branches,
    formulas_of,
)

__all__ = ["amount"]

# So many steps are looked at one after the other.
_FEW = 64


def amount(steps: tuple[Step, ...], formulas: set[str]) -> int:
    """How many steps there are, with those inside blocks; `formulas` gets all their formulas."""
    if len(steps) > _FEW:
        return _amount_of_many(steps, formulas)
    count = len(steps)
    for step in steps:
        kind = type(step)
        # The kinds that most macros are made of come first.
        if kind is Wait:
            if type(step.wait_us) is str or type(step.most_us) is str:  # type: ignore[union-attr]
                formulas.update(formulas_of(step))
        elif kind is Tap:
            if type(step.hold_us) is str:  # type: ignore[union-attr]
                formulas.update(formulas_of(step))
        elif kind is not Press and kind is not Release:
            formulas.update(formulas_of(step))
            count += _amount_inside(step, formulas)
    return count


class _Counted(NamedTuple):
    """How many steps there are, with those inside, and their formulas."""

    steps: tuple[Step, ...]
    number: int
    formulas: frozenset[str]


# What was counted last: every edit of a long macro waits until it is counted again, and changes little of it.
_counted: tuple[_Counted, ...] = ()


def _amount_of_many(steps: tuple[Step, ...], formulas: set[str]) -> int:
    global _counted
    found = next((each for before in _counted if (each := _carried_over(before, steps))), None)
    if found is None:
        own: set[str] = set()
        found = _Counted(steps, _count(steps, own), frozenset(own))
    # Bound anew, since other threads may go through it.
    _counted = (found, *(each for each in _counted if each.steps is not steps))[:2]
    formulas |= found.formulas
    return found.number


def _carried_over(before: _Counted, steps: tuple[Step, ...]) -> _Counted | None:
    """The count of steps that are mostly those counted before; None where they aren't, or where formulas went."""
    if before.steps is steps:
        return before
    same, same_end = shared(before.steps, steps)
    gone, new = before.steps[same : len(before.steps) - same_end], steps[same : len(steps) - same_end]
    if len(gone) > _FEW or len(new) > _FEW:
        return None
    lost: set[str] = set()
    got: set[str] = set()
    number = before.number - amount(gone, lost) + amount(new, got)
    # Whether a formula that went stands elsewhere, too, only a count of all can tell.
    return None if lost else _Counted(steps, number, before.formulas | got)


def _count(steps: tuple[Step, ...], formulas: set[str]) -> int:
    """A kind at a time, in loops of C."""
    count = len(steps)
    for kind in set(map(type, steps)):
        names = FORMULAS.get(kind, ())
        if not names and kind not in BLOCKS:
            continue
        alike = [step for step in steps if type(step) is kind]
        for name in names:
            numbers = list(map(attrgetter(name), alike))
            if str in set(map(type, numbers)):
                formulas.update(number for number in numbers if type(number) is str)
        if kind in BLOCKS:
            count += sum(_amount_inside(step, formulas) for step in alike)
    return count


def _amount_inside(step: Step, formulas: set[str]) -> int:
    if type(step) is PickOne:
        for option in step.branches:
            formulas.update(formulas_of(option))
    return sum(amount(inside, formulas) for inside in branches(step))
