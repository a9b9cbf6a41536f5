"""The pieces of a timeline: what one step outside of all blocks does, and how long it takes."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from operator import itemgetter
from typing import Any, NamedTuple

from nakrel.core.model.amounts import amount
from nakrel.core.model.controls import OPEN, POINTER, TEXT
from nakrel.core.model.formulas import Estimate, FormulaError, compiled, count
from nakrel.core.model.lengths import holds, length_us, turn_us, weights_of
from nakrel.core.model.steps import (
    BLOCKS,
    Block,
    Branch,
    Chord,
    If,
    Note,
    Open,
    Otherwise,
    PickOne,
    Pointer,
    Press,
    Release,
    Repeat,
    Set,
    Step,
    Tap,
    Text,
    Wait,
    Wheel,
    formulas_of,
)

__all__ = ["OTHERS_BY_STEP", "UNNUMBERED", "Budget", "Mark", "Piece", "piece_of"]

# The kinds of rows that are no action of their own and have no number.
UNNUMBERED: frozenset[type] = frozenset({Wait, Note, Branch, Otherwise})

# How long a wheel notch is drawn; it has no length of its own.
NOTCH_US = 3_000


# A repeat is unrolled no further than this, nor a step drawn in more marks: nobody could tell them apart.
MOST_REPEATS = 2_000


MOST_MARKS = 20_000


OTHERS_BY_STEP: dict[type, str] = {Pointer: POINTER, Text: TEXT, Open: OPEN}


# So many steps of repeats are worked out for one macro: what goes beyond takes longer than anybody waits (200 ms).
MOST_STEPS = 20_000
# To work out a formula takes as long as so many steps without one.
FORMULA_STEPS = 10


class Budget:
    """What may be worked out yet of a macro's repeats, over all of its pieces."""

    def __init__(self) -> None:
        self.left = MOST_STEPS

    @property
    def spent(self) -> bool:
        """Whether something had to be left out."""
        return self.left <= 0


class Mark(NamedTuple):
    """A control goes down (`value` 1) or up (0) at a time of its piece; or, with an end, it does something by itself.
    `row` is counted from the piece's own."""

    at_us: int
    control: str
    value: int
    row: int
    end_us: int = -1


# A mark of its fields, in half the time: a long macro has tens of thousands.
_mark: Callable[[tuple[int, str, int, int, int]], Mark] = partial(tuple.__new__, Mark)


class Piece(NamedTuple):
    """A step outside of all blocks: its rows, how long it takes, whether no formula is in it, and what it does; and
    whether repeats in it are `cut`, since there is too much to work out."""

    rows: int
    numbered: int
    length_us: int
    fixed: bool
    controls: tuple[str, ...]
    starts_us: tuple[int, ...]
    marks: tuple[Mark, ...]
    unsure: tuple[tuple[int, int], ...]
    cut: bool = False


# One of its fields, in less time, as with marks.
_piece: Callable[[tuple[Any, ...]], Piece] = partial(tuple.__new__, Piece)
# One that goes by formulas and isn't laid out yet.
_NOT_LAID_OUT = Piece(1, 0, 0, False, (), (0,), (), ())
_control = itemgetter(Mark._fields.index("control"))


def piece_of(step: Step, budget: Budget, scope: Estimate | None = None) -> Piece:
    """Lay one step out; repeats only as far as the budget goes. Without a `scope` one that goes by formulas is only
    said to be not `fixed`: what they give goes by all that is before it."""
    kind = type(step)
    # The kinds that most macros are made of come first.
    if kind is Wait and not step.off and type(step.wait_us) is int and step.most_us is None:  # type: ignore[union-attr]
        return _piece((1, 0, step.wait_us, True, (), (0,), (), (), False))  # type: ignore[union-attr]
    if kind is Tap and not step.off and type(hold_us := step.hold_us) is int:  # type: ignore[union-attr]
        control = step.control  # type: ignore[union-attr]
        both = _mark((0, control, 1, 0, -1)), _mark((hold_us, control, 0, 0, -1))
        return _piece((1, 1, hold_us, True, (control,), (0,), both, (), False))
    # An if block always does: its condition is one.
    if scope is None and (kind is If or _goes_by_formulas(step)):
        return _NOT_LAID_OUT
    layout = Layout(scope or Estimate(), budget)
    layout.lay((step,))
    starts, marks = layout.starts, layout.marks
    controls = tuple(dict.fromkeys(map(_control, marks)))
    fields = len(starts), layout.numbered, layout.now, layout.fixed, controls, tuple(starts), tuple(marks)
    return _piece((*fields, tuple(layout.unsure), layout.cut))


def _goes_by_formulas(step: Step) -> bool:
    """Whether there is a formula in it, or in what is inside it."""
    if formulas_of(step):
        return True
    formulas: set[str] = set()
    if isinstance(step, Block):
        amount((step,), formulas)
    return bool(formulas)


class Layout:
    """Lays steps out one after the other; `now` is where the next one starts."""

    __slots__ = ("budget", "cut", "fixed", "marks", "now", "numbered", "scope", "starts", "unsure")

    def __init__(self, scope: Estimate, budget: Budget) -> None:
        self.now = 0
        self.budget = budget
        self.cut = False
        self.starts: list[int] = []
        self.numbered = 0
        self.marks: list[Mark] = []
        self.unsure: list[tuple[int, int]] = []
        self.fixed = True
        self.scope = scope

    def lay(self, steps: tuple[Step, ...], *, drawn: bool = True, counted: bool = True) -> None:
        """`drawn` steps leave marks; `counted` ones have a row."""
        if not counted:
            self.budget.left -= len(steps)
        starts, marks, row = self.starts, self.marks, -1
        for step in steps:
            kind = type(step)
            # The kinds that most macros are made of come first, as long as no formula is in them.
            if kind is Wait and type(step.wait_us) is int and step.most_us is None:  # type: ignore[union-attr]
                if counted:
                    starts.append(self.now)
                if not step.off:
                    self.now += step.wait_us  # type: ignore[union-attr]
                continue
            if counted:
                row = len(starts)
                starts.append(self.now)
            if kind is Tap and type(step.hold_us) is int:  # type: ignore[union-attr]
                self.numbered += counted
                if not step.off:
                    start, control = self.now, step.control  # type: ignore[union-attr]
                    self.now = end = start + step.hold_us  # type: ignore[union-attr]
                    if drawn:
                        marks += (_mark((start, control, 1, row, -1)), _mark((end, control, 0, row, -1)))
                continue
            if counted:
                self.numbered += kind not in UNNUMBERED
                self.fixed = self.fixed and not formulas_of(step)
            on = drawn and not step.off
            if kind in BLOCKS:
                self._block(step, on, counted)  # type: ignore[arg-type]
                continue
            if on:
                self._draw(step, row)
            self.now += length_us(step, self.scope)

    def _block(self, step: Block, drawn: bool, counted: bool) -> None:
        kind = type(step)
        if kind is If:
            self._if(step, drawn, counted)  # type: ignore[arg-type]
        elif kind is Repeat:
            self._repeat(step, drawn, counted)  # type: ignore[arg-type]
        else:
            self._pick_one(step, drawn, counted)  # type: ignore[arg-type]

    def _repeat(self, step: Repeat, drawn: bool, counted: bool) -> None:
        start, once = self.now, turn_us(step, self.scope)
        try:
            times = count(step.times, self.scope)
        except FormulaError:
            times = 0
        self.lay(step.steps, drawn=drawn and times > 0, counted=counted)
        # Of pick-one blocks inside the likeliest branch is drawn, which may take longer than they do on average.
        once = max(once, self.now - start)
        for turn in range(1, min(times, MOST_REPEATS) if drawn and once else 0):
            if self.budget.spent:
                self.cut = True
                break
            if len(self.marks) > MOST_MARKS:
                break
            self.now = start + turn * once
            self.lay(step.steps, counted=False)
        self.now = start if step.off else start + once * times
        if drawn and isinstance(step.times, str):
            self.unsure.append((start, self.now))

    def _if(self, step: If, drawn: bool, counted: bool) -> None:
        start, holds_now = self.now, holds(step, self.scope)
        self.lay(step.steps, drawn=drawn and holds_now, counted=counted)
        end = self.now if holds_now else start
        if otherwise := step.otherwise:
            self.now = start
            if counted:
                self.starts.append(start)
            self.lay(otherwise.steps, drawn=drawn and not holds_now, counted=counted)
            if not holds_now:
                end = self.now
        self._one_way(start, end, step.off, drawn)

    def _pick_one(self, step: PickOne, drawn: bool, counted: bool) -> None:
        self.fixed = self.fixed and not any(map(formulas_of, step.branches))
        weights = weights_of(step, self.scope)
        start = end = self.now
        chosen = weights.index(max(weights))
        for number, option in enumerate(step.branches):
            self.now = start
            if counted:
                self.starts.append(start)
            self.lay(option.steps, drawn=drawn and number == chosen, counted=counted)
            if number == chosen:
                end = self.now
        self._one_way(start, end, step.off, drawn and len(step.branches) > 1)

    def _one_way(self, start: int, end: int, off: bool, unsure: bool) -> None:
        """Go on behind the option that is drawn, of those that begin at `start`."""
        self.now = start if off else end
        if unsure and end > start:
            self.unsure.append((start, end))

    def _draw(self, step: Step, row: int) -> None:
        now = self.now
        match step:
            case Wait(most_us=None, wait_us=int()):
                return
            case Press(control=control):
                self.marks.append(Mark(now, control, 1, row))
            case Release(control=control):
                self.marks.append(Mark(now, control, 0, row))
            case Tap(control=control):
                self._hold((control,), step, row)
            case Chord(controls=controls):
                self._hold(controls, step, row)
            case Wheel(control=control):
                self.marks.append(Mark(now, control, 1, row, now + NOTCH_US))
            case Pointer() | Text() | Open():
                end = now + max(NOTCH_US, length_us(step, self.scope))
                self.marks.append(Mark(now, OTHERS_BY_STEP[type(step)], 1, row, end))
            case Set(variable=variable, value=value):
                try:
                    self.scope.variables[variable] = compiled(value).value(self.scope)
                except FormulaError:
                    self.scope.variables[variable] = 0
            case Wait(most_us=most_us) if most_us is not None:
                self.budget.left -= FORMULA_STEPS
                self.unsure.append((now, now + length_us(step, self.scope)))
                return
        if not formulas_of(step):
            return
        self.budget.left -= FORMULA_STEPS
        if not isinstance(step, Set) and (length := length_us(step, self.scope)):
            self.unsure.append((now, now + length))

    def _hold(self, controls: tuple[str, ...], step: Step, row: int) -> None:
        end = self.now + length_us(step, self.scope)
        self.marks += [Mark(self.now, control, 1, row) for control in controls]
        self.marks += [Mark(end, control, 0, row) for control in controls]
