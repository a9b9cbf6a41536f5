"""Checks: what looks like a slip in a macro, each pointing at the row that it is about."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Iterable, Mapping
from itertools import chain, pairwise
from operator import attrgetter, itemgetter
from typing import NamedTuple

from nakrel.core.edit.rows import first_rows_of, size_of
from nakrel.core.edit.timeline import is_cut, lay_out
from nakrel.core.model.controls import GAME, OTHERS, Kind, label
from nakrel.core.model.controls import control as named
from nakrel.core.model.fair_play import beyond
from nakrel.core.model.formulas import BUILT_IN, Estimate, FormulaError, compiled
from nakrel.core.model.lengths import weights_of
from nakrel.core.model.limits import MAX_OPENED
from nakrel.core.model.macro import Macro, Mode, Play, Section, cycle_us
from nakrel.core.model.profile import FairPlay
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
    formulas_of,
    walk,
)
from nakrel.core.model.units import shown_ms
from nakrel.words import tr

__all__ = ["NO_FACTS", "Attached", "Facts", "Finding", "check_macro", "circle"]

# Press, 5 ms, release works in most games, and 1 ms is too fast for many (common practice, no published source).
SHORT_US = 2_000
# From one press of a mouse button to the next. Window managers that look at each click before a window gets it lose
# some that come sooner. Measured with Openbox beside three busy processes: 120 and 310 of 1,000 lost at 2 ms, 4 of 600
# at 4 and at 6 ms, none of 300 at 10.
CLOSE_CLICKS_US = 10_000

# Kinds are looked up here: `isinstance` and `match` would take as long as the rest of the checks.
_PRESSING = frozenset({Press, Release, Tap, Chord})
_WITH_CONTROLS, _MAY_BE_EMPTY = _PRESSING | {Wheel}, BLOCKS | {Wait, Text}
_BY_THE_MACHINE = frozenset({Text, Open, Pointer})
# What stands in a row, after its number.
_Numbered = tuple[int, Line]


class Finding(NamedTuple):
    """Something to look at: the row of the step list that it is about, None for the macro as a whole, and words."""

    row: int | None
    message: str


class Facts(NamedTuple):
    """What checks may know of this machine: what is wrong with texts to be typed, with programs to be opened, and with
    the names of secrets. One that isn't there is fine, or nobody knows."""

    texts: Mapping[str, str] = {}
    programs: Mapping[str, str] = {}
    secrets: Mapping[str, str] = {}
    # The screen's width and height in pixels, None where nobody knows.
    screen: tuple[int, int] | None = None


NO_FACTS = Facts()


class Attached(NamedTuple):
    """Where the macro is attached: the profile's name, its fair-play rule, its game keys by code, the way the macro is
    played there, and the other macros that it plays, by the control that starts each."""

    profile: str
    rule: FairPlay
    keys: Mapping[str, str]
    play: Play
    others: Mapping[str, Macro]


def check_macro(
    macro: Macro,
    triggers: Collection[str] = (),
    facts: Facts = NO_FACTS,
    attached: Iterable[Attached] = (),
) -> tuple[Finding, ...]:
    """Everything found, in the order of the rows. `triggers` are the controls that start the macro, `attached` says
    where."""
    places = list(attached)
    on = _rows_on(macro)
    pressing = _of(on, _PRESSING)
    found = [
        *_whole(macro, on.keys()),
        *_pairs(pressing, first_rows_of(macro.lead_in)[-1]),
        *_holds(pressing),
        *_empty(_of(on, _MAY_BE_EMPTY)),
        *_gaps(macro),
        *_formulas(on),
        *(finding for at, step in _of(on, _BY_THE_MACHINE) for finding in _against(at, step, facts)),
        *_feedback(pressing, triggers),
        *_circles(pressing, triggers, places),
        *_beyond(macro, places),
        *_unknown_keys(_of(on, _WITH_CONTROLS), places),
    ]
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
    if not any((macro.lead_in, macro.loop, macro.lead_out)):
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


def _gaps(macro: Macro) -> Iterable[Finding]:
    """Presses that follow so soon on the release before that a game may take both for one."""
    line = lay_out(macro)
    if is_cut(line):
        yield Finding(
            None, tr("It repeats so often that only the beginning of that is drawn and checked; all of it is played.")
        )
    loop, loop_rows = next((zone for zone in line.zones if zone.section is Section.LOOP), None), line.loop_rows
    repeats = macro.play.mode is not Mode.SINGLE and loop is not None
    for control, spans in line.spans.items():
        if control in OTHERS or named(control).kind is Kind.WHEEL:
            continue
        words: dict[int, str] = {}
        for (_, end_us, _, _), (start_us, _, row, _) in pairwise(spans):
            gap = start_us - end_us
            if gap >= SHORT_US or row < 0:
                continue
            if gap not in words:
                words[gap] = _merged(
                    control,
                    gap,
                    tr("{control} goes down at once after its release: many games take both for one press."),
                    tr("{control} goes down only {gap} ms after its release: many games take both for one press."),
                )
            yield Finding(row, words[gap])
        inside = [span for span in spans if span.down in loop_rows and span.up in loop_rows] if repeats else []
        if loop and inside:
            gap = loop.end_us - inside[-1].end_us + macro.play.pause_us + inside[0].start_us - loop.start_us
            if gap < SHORT_US:
                wrong = _merged(
                    control,
                    gap,
                    tr(
                        "Each run presses {control} at once after its release in the run before: many games take both "
                        "for one press. Give it a pause."
                    ),
                    tr(
                        "Each run presses {control} only {gap} ms after its release in the run before: many games "
                        "take both for one press. Give it a pause."
                    ),
                )
                yield Finding(inside[0].down, wrong)
        if named(control).kind is Kind.BUTTON:
            apart = [after.start_us - before.start_us for before, after in pairwise(spans)]
            if loop and inside:
                cycle = loop.end_us - loop.start_us + macro.play.pause_us
                apart.append(inside[0].start_us + cycle - inside[-1].start_us)
            closest = min(apart, default=CLOSE_CLICKS_US)
            if closest < CLOSE_CLICKS_US:
                yield Finding(max(0, spans[0].down), _lost_clicks(control, closest))


def _lost_clicks(control: str, apart_us: int) -> str:
    if apart_us:
        message = tr(
            "{control} is pressed {apart} ms after the press before: under X11, desktops that look at each click first "
            "lose some of those. {enough} ms from press to press are enough."
        )
    else:
        message = tr(
            "{control} is pressed at the time of the press before: under X11, desktops that look at each click first "
            "lose some of those. {enough} ms from press to press are enough."
        )
    return message.format(control=label(control), apart=shown_ms(apart_us), enough=shown_ms(CLOSE_CLICKS_US))


def _merged(control: str, gap_us: int, at_once: str, soon: str) -> str:
    return (soon if gap_us else at_once).format(control=label(control), gap=shown_ms(gap_us))


def _holds(pressing: list[_Numbered]) -> Iterable[Finding]:
    """Holds that are so short that games miss them."""
    words: dict[int, str] = {}
    for at, step in pressing:
        # A press and a release have none, and what a formula gives isn't known before it plays.
        hold_us = getattr(step, "hold_us", "")
        if type(hold_us) is not int or hold_us >= SHORT_US:
            continue
        if hold_us not in words:
            if hold_us:
                words[hold_us] = tr("It is held for {hold} ms only: many games miss that.").format(
                    hold=shown_ms(hold_us)
                )
            else:
                words[hold_us] = tr("It is not held at all: many games miss that.")
        yield Finding(at, words[hold_us])


def _empty(on: list[_Numbered]) -> Iterable[Finding]:
    """Blocks, waits and texts from which nothing comes."""
    for at, step in on:
        kind = type(step)
        if kind is Wait:
            if step.wait_us == 0 and step.most_us is None:  # type: ignore[union-attr]
                yield Finding(at, tr("This wait takes no time."))
            continue
        wrong = ""
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
    fields = [(kind, attrgetter(name)) for kind, names in FORMULAS.items() if kind in on for name in names]
    some = {at: step for kind, read in fields for at, step in on[kind] if type(read(step)) is str}
    written = [(at, some[at], formulas_of(some[at])) for at in sorted(some)]
    known = {step.variable for _, step, _ in written if isinstance(step, Set)}
    # Those in which nothing is wrong as the variables are now.
    fine: set[str] = set()
    for at, step, texts in written:
        sets = type(step) is Set
        for text in texts:
            if text in fine and not sets:
                continue
            formula = compiled(text)
            for name in sorted(formula.names - known):
                names = ", ".join(sorted({*known, *BUILT_IN}))
                yield Finding(
                    at, tr("Nothing sets {name!r}, so it is 0; there are {names}.").format(name=name, names=names)
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
