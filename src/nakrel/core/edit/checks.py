"""Checks: what looks like a slip in a macro, each pointing at the row that it is about."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Iterable, Iterator, Mapping
from itertools import chain
from operator import attrgetter, itemgetter

from nakrel.core.edit.findings import NO_FACTS, SHORT_US, Attached, Facts, Finding, finding_of
from nakrel.core.edit.gaps import gaps
from nakrel.core.edit.rows import first_rows_of, size_of
from nakrel.core.model.controls import GAME, label
from nakrel.core.model.fair_play import beyond
from nakrel.core.model.formulas import BUILT_IN, Estimate, FormulaError, compiled
from nakrel.core.model.lengths import weights_of
from nakrel.core.model.limits import MAX_OPENED
from nakrel.core.model.macro import Macro, Mode, Section, cycle_us
from nakrel.core.model.steps import (
    BLOCKS,
    FORMULAS,
    Branch,
    Chord,
    If,
    Line,
    Open,
    Origin,
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
    branches,
    walk,
)
from nakrel.core.model.units import shown_ms
from nakrel.words import tr

__all__ = ["check_by_parts", "check_macro", "circle"]

# With so many rows the checks may take longer than people take for at once.
MANY_ROWS = 5_000

# Kinds are looked up here: `isinstance` and `match` would take as long as the rest of the checks.
_PRESSING = frozenset({Press, Release, Tap, Chord})
_WITH_CONTROLS, _HOLDING, _MAY_BE_EMPTY = _PRESSING | {Wheel}, frozenset({Tap, Chord}), BLOCKS | {Text}
_BY_THE_MACHINE = frozenset({Text, Open, Pointer})
# What stands in a row, after its number.
_Numbered = tuple[int, Line]


def check_macro(
    macro: Macro,
    triggers: Collection[str] = (),
    facts: Facts = NO_FACTS,
    attached: Iterable[Attached] = (),
) -> tuple[Finding, ...]:
    """Everything found, in the order of the rows. `triggers` are the controls that start the macro, `attached` says
    where."""
    *_, (found, _) = check_by_parts(macro, triggers, facts, attached)
    return found


def check_by_parts(
    macro: Macro,
    triggers: Collection[str] = (),
    facts: Facts = NO_FACTS,
    attached: Iterable[Attached] = (),
) -> Iterator[tuple[tuple[Finding, ...], bool]]:
    """What `check_macro` finds, and whether that is all: of a long macro at first what takes no time to find, then what
    needs neither times nor formulas, which take most of the work."""
    places = list(attached)
    on = _rows_on(macro)
    is_long = sum(map(len, on.values())) > MANY_ROWS
    pressing = _of(on, _PRESSING)
    found = [*_pairs(pressing, first_rows_of(macro.lead_in)[-1])]
    if is_long:
        yield _in_order(found), False
    found += [
        *_holds(_of(on, _HOLDING)),
        *_empty(on),
        *(finding for at, step in _of(on, _BY_THE_MACHINE) for finding in _against(at, step, facts)),
        *_feedback(pressing, triggers),
        *_circles(pressing, triggers, places),
        *_beyond(macro, places),
        *_unknown_keys(_of(on, _WITH_CONTROLS), places),
    ]
    if is_long:
        yield _in_order(found), False
    yield _in_order([*_whole(macro, on.keys()), *found, *gaps(macro), *_formulas(on)]), True


def _in_order(found: Iterable[Finding]) -> tuple[Finding, ...]:
    return tuple(sorted(found, key=lambda finding: -1 if finding.row is None else finding.row))


def _rows_on(macro: Macro) -> dict[type, list[_Numbered]]:
    """What stands in the rows that are on, as the blocks around them are, by kind: a long macro is mostly of few, and
    one check looks at few."""
    on: dict[type, list[_Numbered]] = defaultdict(list)
    row = 0
    for section in Section:
        row = _note_rows(on, macro.section(section), row)
    return on


def _note_rows(on: dict[type, list[_Numbered]], steps: Iterable[Step], row: int) -> int:
    """Note the rows of some steps, of which the first is `row`; returns the one after them."""
    for step in steps:
        if step.off:
            row += size_of(step)
            continue
        kind = type(step)
        on[kind].append((row, step))
        row += 1
        if kind not in BLOCKS:
            continue
        if kind is Repeat:
            row = _note_rows(on, step.steps, row)  # type: ignore[union-attr]
        elif isinstance(step, If):
            row = _note_rows(on, step.steps, row)
            if step.otherwise:
                on[Otherwise].append((row, step.otherwise))
                row = _note_rows(on, step.otherwise.steps, row + 1)
        elif isinstance(step, PickOne):
            for branch in step.branches:
                on[Branch].append((row, branch))
                row = _note_rows(on, branch.steps, row + 1)
    return row


def _of(on: Mapping[type, list[_Numbered]], kinds: Collection[type]) -> list[_Numbered]:
    """The rows of some kinds, in their order."""
    found = [on[kind] for kind in kinds if kind in on]
    return found[0] if len(found) == 1 else sorted(chain(*found), key=itemgetter(0))


def _whole(macro: Macro, kinds: Collection[type]) -> Iterable[Finding]:
    """What is wrong with it as a whole; `kinds` are those of its steps that are on."""
    if macro.is_empty:
        return
    play = macro.play
    # It is worked out from each step, so only where it is of account.
    repeats = play.mode is not Mode.SINGLE and macro.loop
    cycle = cycle_us(macro, play) if repeats or Open in kinds else 0
    if repeats and cycle == 0:
        yield Finding(
            None, tr("The loop has no time in it: it runs a thousand times a second. Give it a pause or a wait.")
        )
    if macro.play.mode is not Mode.SINGLE and not macro.loop:
        yield Finding(None, tr("There is nothing in the loop to repeat."))
    if play.mode is Mode.TOGGLE and not (play.limit_runs or play.limit_us):
        if Text in kinds and any(isinstance(step, Text) for step in walk(macro.loop)):
            yield Finding(None, tr("It types a text again and again until it is stopped. Give it a limit."))
        if Open in kinds and any(isinstance(step, Open) for step in walk(macro.loop)):
            yield Finding(None, tr("It opens a program again and again until it is stopped. Give it a limit."))
    opened, cycle = _opened(macro.loop) if Open in kinds else 0, max(1_000, cycle)
    if opened and opened * 1_000_000 > MAX_OPENED * (max(cycle, 1_000_000) if play.mode is Mode.SINGLE else cycle):
        yield Finding(
            None, tr("It opens more than {most} programs a second; the others aren't opened.").format(most=MAX_OPENED)
        )


def _opened(steps: Iterable[Step]) -> int:
    """How many programs the steps open at most, in one go through them."""
    found = 0
    for step in steps:
        if step.off:
            continue
        if isinstance(step, Open):
            found += 1
        times = step.times if isinstance(step, Repeat) and isinstance(step.times, int) else 1
        found += times * sum(map(_opened, branches(step)))
    return found


def _pairs(on: list[_Numbered], lead_in: int) -> Iterable[Finding]:
    """Presses without a release, and releases without a press, as one run of the three sections goes, of which the
    first has `lead_in` rows."""
    down: dict[str, int] = {}
    for at, step in on:
        if isinstance(step, Press):
            if step.control in down:
                yield Finding(
                    at, tr("{control} is down already: this press does nothing.").format(control=label(step.control))
                )
            else:
                down[step.control] = at
        elif isinstance(step, Release):
            if down.pop(step.control, None) is None:
                yield Finding(
                    at,
                    tr("{control} is released, but nothing before it presses it.").format(control=label(step.control)),
                )
        elif down:
            for control in _pressed(step):
                if down.pop(control, None) is not None:
                    yield Finding(
                        at, tr("{control} is down already: this tap releases it.").format(control=label(control))
                    )
    for control, at in down.items():
        if at < lead_in:
            message = tr(
                "{control} is held until the macro ends. If that is meant, release it in the end section, where it "
                "can be seen."
            )
        else:
            message = tr("{control} is never released here; that happens only when the macro ends.")
        yield Finding(at, message.format(control=label(control)))


def _holds(holding: list[_Numbered]) -> Iterable[Finding]:
    """Holds that are so short that games miss them."""
    words: dict[int, str] = {}
    for at, step in holding:
        hold_us = step.hold_us  # type: ignore[union-attr]
        # What a formula gives isn't known before it plays.
        if type(hold_us) is not int or hold_us >= SHORT_US:
            continue
        if hold_us not in words:
            if hold_us:
                words[hold_us] = tr("It is held for {hold} ms only: many games miss that.").format(
                    hold=shown_ms(hold_us)
                )
            else:
                words[hold_us] = tr("It is not held at all: many games miss that.")
        yield finding_of((at, words[hold_us]))


def _empty(on: Mapping[type, list[_Numbered]]) -> Iterable[Finding]:
    """Blocks, waits and texts from which nothing comes."""
    for at, step in on.get(Wait, ()):
        if step.wait_us == 0 and step.most_us is None:  # type: ignore[union-attr]
            yield Finding(at, tr("This wait takes no time."))
    for at, step in chain(*(on.get(kind, ()) for kind in _MAY_BE_EMPTY)):
        kind, wrong = type(step), ""
        if kind is Repeat or kind is If:
            if any(branches(step)):  # type: ignore[arg-type]
                continue
            wrong = tr("There is nothing inside to repeat.") if kind is Repeat else tr("Nothing is inside.")
        match step:
            case PickOne(branches=options) if len(options) == 1:
                wrong = tr("It has one option only, so nothing is random.")
            case PickOne() if not any(weights_of(step, Estimate())):
                wrong = tr("Every option has the weight 0, so none can be chosen.")
            case Text(text="", secret=""):
                wrong = tr("There is no text to type.")
        if wrong:
            yield Finding(at, wrong)


def _formulas(on: Mapping[type, list[_Numbered]]) -> Iterable[Finding]:
    """Formulas without a result in a first run, and variables that nothing sets."""
    scope = Estimate()
    written: list[tuple[int, Line, str]] = []
    for rows, names in ((on[kind], names) for kind, names in FORMULAS.items() if kind in on):
        for read in map(attrgetter, names):
            # Most kinds of steps of a long macro have none.
            numbers = [read(step) for _, step in rows]
            if str in set(map(type, numbers)):
                both = zip(rows, numbers, strict=True)
                written += [(at, step, number) for (at, step), number in both if type(number) is str]
    # The formulas of one row stay as they are in it.
    written.sort(key=itemgetter(0))
    known = {step.variable for _, step, _ in written if isinstance(step, Set)}
    # Those in which nothing is wrong as the variables are now.
    fine: set[str] = set()
    for at, step, text in written:
        if text in fine and type(step) is not Set:
            continue
        formula = compiled(text)
        for name in sorted(formula.names - known):
            those = ", ".join(sorted({*known, *BUILT_IN}))
            yield Finding(
                at, tr("Nothing sets {name!r}, so it is 0; there are {names}.").format(name=name, names=those)
            )
        try:
            value = formula.value(scope)
        except FormulaError as error:
            yield Finding(at, tr("It can't be computed: {reason}. The macro ends here.").format(reason=error))
        else:
            if isinstance(step, Set):
                scope.variables[step.variable] = value
                fine.clear()
            elif formula.names <= known:
                fine.add(text)


def _against(at: int, step: Line, facts: Facts) -> Iterable[Finding]:
    """What goes by the machine at hand."""
    wrong = ""
    match step:
        case Text(secret=""):
            wrong = facts.texts.get(step.text, "")
        case Text(secret=secret):
            wrong = facts.secrets.get(secret, "")
        case Open(command=command):
            wrong = facts.programs.get(command[0], "")
        case Pointer(x=int() as x, y=int() as y, origin=origin, size=size) if origin is not Origin.POINTER:
            width, height = size or (facts.screen if origin is Origin.SCREEN else None) or (x + 1, y + 1)
            if x < 0 or y < 0 or x >= width or y >= height:
                if origin is Origin.SCREEN:
                    wrong = tr("{x}, {y} lies outside the screen of {width} x {height} pixels.")
                else:
                    wrong = tr("{x}, {y} lies outside the window of {width} x {height} pixels.")
                wrong = wrong.format(x=x, y=y, width=width, height=height)
    if wrong:
        yield Finding(at, wrong[0].upper() + wrong[1:])


def _feedback(pressing: list[_Numbered], triggers: Collection[str]) -> Iterable[Finding]:
    for at, step in pressing if triggers else ():
        if own := [code for code in _pressed(step) if code in triggers]:
            yield Finding(
                at,
                tr("{own} starts this macro itself. Only your finger starts it, not its own press.").format(
                    own=label(own[0])
                ),
            )


def _pressed(step: Line) -> tuple[str, ...]:
    kind = type(step)
    if kind is Tap or kind is Press:
        return (step.control,)  # type: ignore[union-attr]
    return step.controls if kind is Chord else ()  # type: ignore[union-attr]


def _all_pressed(macro: Macro, keys: Mapping[str, str]) -> dict[str, str]:
    """All controls that the macro presses, with how it names each: game keys have names of their own."""
    steps = (step for section in Section for step in walk(macro.section(section)))
    return {keys.get(code, code): code for step in steps for code in _pressed(step)}


def _circles(pressing: list[_Numbered], triggers: Collection[str], places: list[Attached]) -> Iterable[Finding]:
    """Presses that start another macro which presses what starts this one."""
    reported = set()
    for at, step in pressing:
        for place in places:
            for code in _pressed(step):
                other = place.others.get(place.keys.get(code, code))
                if other is None or code in triggers or (code, other.id) in reported:
                    continue
                pressed = _all_pressed(other, place.keys)
                back = next((pressed[own] for own in pressed if own in triggers), None)
                if back:
                    reported.add((code, other.id))
                    yield Finding(
                        at,
                        tr(
                            "{code} starts {other} in {profile}, which presses {back}, which starts this one. Only "
                            "fingers start macros, so they don't go round; attach one elsewhere to keep them apart."
                        ).format(code=label(code), other=other.name, profile=place.profile, back=label(back)),
                    )


def circle(control: str, macro: Macro, others: Mapping[str, Macro], keys: Mapping[str, str]) -> str:
    """Where the macro on a control and another one of the sheet would fire each other, in words; '' where none would.

    `others` are the macros of the sheet by their controls, `keys` the profile's game keys by code.
    """
    for code, named_so in _all_pressed(macro, keys).items():
        other = others.get(code)
        if other is not None and code != control and control in _all_pressed(other, keys):
            return tr(
                "It presses {named_so}, which plays {other}, and that presses {control} again. Only fingers "
                "start macros, so they don't go round; attach one to another button to keep them apart."
            ).format(named_so=label(named_so), other=other.name, control=label(control))
    return ""


def _beyond(macro: Macro, places: list[Attached]) -> Iterable[Finding]:
    for place in places:
        if message := beyond(macro, place.play, place.rule):
            yield Finding(
                None,
                tr("In {profile}: {message}").format(profile=place.profile, message=message),
            )


def _unknown_keys(on: list[_Numbered], places: list[Attached]) -> Iterable[Finding]:
    for at, step in on if places else ():
        codes = step.controls if isinstance(step, Chord) else (getattr(step, "control", ""),)
        for place in places:
            for code in codes:
                if code.startswith(GAME) and code not in place.keys:
                    yield Finding(
                        at,
                        tr("{profile} has no game key {code}, so the macro can't play there.").format(
                            profile=place.profile, code=label(code)
                        ),
                    )
