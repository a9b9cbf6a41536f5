"""Fair play: whether what a press sets off stays within what the game's rules allow."""

from __future__ import annotations

from collections.abc import Iterable

from nakrel.core.model.cells import Cell, RunMacro, TypeText
from nakrel.core.model.formulas import Estimate, FormulaError, count
from nakrel.core.model.macro import Macro, Mode, Play
from nakrel.core.model.profile import FairPlay
from nakrel.core.model.steps import Chord, If, PickOne, Press, Repeat, Step, Tap, Text, Wheel
from nakrel.words import noted, tr

__all__ = ["FAIR_PLAY_WORDS", "actions_in", "beyond", "cell_beyond"]

FAIR_PLAY_WORDS = {
    FairPlay.ANYTHING: noted("anything"),
    FairPlay.WHILE_HELD: noted("repeats while held"),
    FairPlay.ONE_ACTION: noted("one action a press"),
    FairPlay.NO_MACROS: noted("no macros"),
}
# Nobody needs to know how many there are beyond that.
_MANY = 1_000_000


def actions_in(steps: Iterable[Step]) -> int:
    """How many game actions the steps make, the most where chance decides: each press, tap, combination and
    turn of the wheel is one, and so is each character of a text."""
    total = 0
    for step in steps:
        if step.off:
            continue
        match step:
            case Press() | Tap() | Chord() | Wheel():
                total += 1
            case Text():
                # A secret's length is told to nobody.
                total += max(2 if step.secret else 1, len(step.text))
            case Repeat():
                total += _times(step) * actions_in(step.steps)
            case PickOne():
                total += max(actions_in(branch.steps) for branch in step.branches)
            case If():
                otherwise = step.otherwise.steps if step.otherwise else ()
                total += max(actions_in(step.steps), actions_in(otherwise))
        total = min(total, _MANY)
    return total


def _times(step: Repeat) -> int:
    try:
        return count(step.times, Estimate(), _MANY)
    except FormulaError:
        return 1


def _repeats_inside(steps: Iterable[Step]) -> bool:
    for step in steps:
        if step.off:
            continue
        if isinstance(step, Repeat) and _times(step) > 1 and actions_in(step.steps):
            return True
        inner = [step.steps] if isinstance(step, Repeat | If) else []
        inner += [branch.steps for branch in step.branches] if isinstance(step, PickOne) else []
        inner += [step.otherwise.steps] if isinstance(step, If) and step.otherwise else []
        if any(map(_repeats_inside, inner)):
            return True
    return False


def beyond(macro: Macro, play: Play, rule: FairPlay) -> str:
    """Where the macro, played that way, goes beyond the rule; '' where it doesn't.

    With `WHILE_HELD` whatever repeats must do so only while a button is held. With `ONE_ACTION` a press makes one game
    action.
    """
    allowed = tr("this profile's fair-play rule is: {rule}").format(rule=tr(FAIR_PLAY_WORDS[rule]))
    in_loop = actions_in(macro.loop)
    runs = {Mode.SINGLE: 1, Mode.COUNTED: play.runs}.get(play.mode, _MANY)
    if rule is FairPlay.NO_MACROS:
        return tr("It won't play: {allowed}.").format(allowed=allowed)
    if rule is FairPlay.WHILE_HELD:
        repeats = in_loop and (play.mode is Mode.TOGGLE or (play.mode is Mode.COUNTED and runs > 1))
        if repeats or any(map(_repeats_inside, (macro.lead_in, macro.loop, macro.lead_out))):
            return tr("It repeats by itself, held or not; {allowed}.").format(allowed=allowed)
    elif rule is FairPlay.ONE_ACTION:
        if in_loop and runs > 1:
            return tr("It repeats; {allowed}.").format(allowed=allowed)
        actions = in_loop + actions_in(macro.lead_in) + actions_in(macro.lead_out)
        if actions > 1:
            return tr("A press makes {actions} game actions; {allowed}.").format(actions=actions, allowed=allowed)
    return ""


def cell_beyond(cell: Cell, macro: Macro | None, rule: FairPlay) -> str:
    """Where what a cell does goes beyond the rule; '' where it doesn't. `macro` is the cell's, where it plays one."""
    if isinstance(cell, RunMacro):
        return beyond(macro, cell.play or macro.play, rule) if macro else ""
    if rule is FairPlay.NO_MACROS:
        return tr("Not applied: this profile's fair-play rule is: {rule}.").format(rule=tr(FAIR_PLAY_WORDS[rule]))
    if rule is FairPlay.ONE_ACTION and isinstance(cell, TypeText) and (cell.secret or len(cell.text) > 1):
        # A secret's length is told to nobody.
        many = "several" if cell.secret else len(cell.text)
        return tr("A press types {many} characters; this profile's fair-play rule is: {rule}.").format(
            many=many, rule=tr(FAIR_PLAY_WORDS[rule])
        )
    return ""
