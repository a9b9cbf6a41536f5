"""Hypothesis strategies for Nakrel's values, shared by all tests."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

from nakrel.core.model.cells import (
    Cell,
    ChangeSpeed,
    GoTo,
    HoldLayer,
    Nothing,
    RunMacro,
    RunSystemAction,
    StartProgram,
    SystemAction,
    ToChord,
    ToControl,
    TypeText,
    What,
)
from nakrel.core.model.conditioning import Pointing, SpeedStage
from nakrel.core.model.controls import CONTROLS, KNOWN, Kind
from nakrel.core.model.limits import MAX_COUNT, MAX_WAIT_US
from nakrel.core.model.macro import Again, LetGo, Macro, Mode, Play, StartOn
from nakrel.core.model.profile import FairPlay, GameKey, Layer, MatchBy, Profile, ProgramRule, SetUp, keeps_left_click
from nakrel.core.model.steps import (
    Branch,
    Chord,
    If,
    Note,
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
)

SWITCHES = sorted(c.code for c in CONTROLS.values() if c.kind is not Kind.WHEEL)
WHEELS = sorted(c.code for c in CONTROLS.values() if c.kind is Kind.WHEEL)
# Surrogates can't be written to a file; nothing else is ruled out of a name.
names = st.text(st.characters(exclude_categories=["Cs"]), min_size=1, max_size=120)
remarks = st.text(st.characters(exclude_categories=["Cs"]), max_size=20)
words = st.text(st.characters(exclude_categories=["Cs"], exclude_characters="\x00"), min_size=1, max_size=20)
waits_us = st.integers(0, MAX_WAIT_US)
counts = st.integers(1, MAX_COUNT)
ids = st.text(st.characters(exclude_categories=["Cs", "Cc"], exclude_characters="/"), min_size=1, max_size=80)


formulas = st.recursive(
    st.sampled_from(["run", "elapsed", "x", "y", "catch", "2", "0.5", 'held("Left Shift")', "held('KEY_Q')"]),
    lambda inner: st.one_of(
        st.builds("({} {} {})".format, inner, st.sampled_from(["+", "-", "*", "/", "<", "==", "and", "or"]), inner),
        st.builds("{}({}, {})".format, st.sampled_from(["min", "max", "random"]), inner, inner),
        st.builds("(not {})".format, inner),
    ),
    max_leaves=4,
).filter(lambda text: len(text) <= 200)


def steps(
    codes: list[str] = SWITCHES, wait: st.SearchStrategy[int] = waits_us, *, chance: bool = True
) -> st.SearchStrategy[Step]:
    """Any step on these controls, with waits and holds from `wait`; without `chance` none that plays differently."""
    code = st.sampled_from(codes)
    common = {"remark": remarks, "off": st.booleans()}
    chords = st.lists(code, min_size=2, max_size=min(3, len(codes)), unique=True).map(tuple)
    leaves: list[st.SearchStrategy[Any]] = [
        st.builds(Press, control=code, **common),
        st.builds(Release, control=code, **common),
        st.builds(Tap, control=code, hold_us=wait, **common),
        st.builds(Chord, controls=chords, hold_us=wait, **common),
        st.builds(Wait, wait_us=wait, **common),
        st.builds(Wheel, control=st.sampled_from(WHEELS), notches=st.integers(1, 1000), **common),
        st.builds(Note, text=remarks, **common),
    ]
    if chance:
        spans = st.tuples(wait, wait).map(sorted)
        leaves.append(spans.map(lambda span: Wait(wait_us=span[0], most_us=span[1])))
        leaves.append(st.builds(Wait, wait_us=formulas, most_us=st.none() | formulas, **common))
        leaves.append(st.builds(Tap, control=code, hold_us=formulas, **common))
        leaves.append(st.builds(Wheel, control=st.sampled_from(WHEELS), notches=formulas, **common))
        leaves.append(st.builds(Set, variable=st.sampled_from(["catch", "Turns_2"]), value=formulas, **common))
        leaves += _beyond_controls(wait, common)

    def blocks(inner: st.SearchStrategy[Step]) -> st.SearchStrategy[Step]:
        inside = st.lists(inner, max_size=3).map(tuple)
        times: st.SearchStrategy[int | str] = st.integers(1, 3)
        if chance:
            times = times | st.sampled_from(["run % 3", "catch + 1", "random(0, 2)"])
        repeat = st.builds(Repeat, times=times, steps=inside, **common)
        routes = st.lists(st.builds(Branch, weight=st.integers(1, 9), steps=inside), min_size=1, max_size=3).map(tuple)
        others = st.none() | st.builds(Otherwise, steps=inside)
        choice = st.builds(If, condition=formulas, steps=inside, otherwise=others, **common)
        return st.one_of(repeat, choice, st.builds(PickOne, branches=routes, **common)) if chance else repeat

    return st.recursive(st.one_of(leaves), blocks, max_leaves=5)


def _beyond_controls(wait: st.SearchStrategy[int], common: dict[str, st.SearchStrategy]) -> list[st.SearchStrategy]:
    """Pointer, text and open steps."""
    place = st.integers(-100_000, 100_000) | formulas
    side = st.integers(1, 100_000)
    origin = st.sampled_from([Origin.SCREEN, Origin.WINDOW])
    size = st.none() | st.tuples(side, side)
    rate = st.integers(1, 250) | formulas
    return [
        st.builds(Pointer, x=place, y=place, origin=origin, size=size, over_us=wait | formulas, **common),
        st.builds(Pointer, x=place, y=place, origin=st.just(Origin.POINTER), over_us=wait, **common),
        st.builds(Text, text=remarks, rate=rate, **common),
        st.builds(Text, secret=names, rate=rate, **common),
        st.builds(Open, command=st.lists(words, min_size=1, max_size=3).map(tuple), **common),
    ]


def plays(pause: st.SearchStrategy[int] = waits_us, runs: st.SearchStrategy[int] = counts) -> st.SearchStrategy[Play]:
    """Any way to play."""
    return st.builds(
        Play,
        mode=st.sampled_from(Mode),
        runs=runs,
        pause_us=pause,
        start_on=st.sampled_from(StartOn),
        let_go=st.sampled_from(LetGo),
        again=st.sampled_from(Again),
        limit_runs=st.none() | runs,
        limit_us=st.none() | st.integers(1_000, 86_400_000_000),
    )


sections = st.lists(steps(), max_size=6).map(tuple)
macros = st.builds(
    Macro, id=ids, name=names, note=remarks, play=plays(), lead_in=sections, loop=sections, lead_out=sections
)
cells: st.SearchStrategy[Cell] = st.one_of(
    st.just(Nothing()),
    st.builds(ToControl, st.sampled_from(SWITCHES)),
    st.builds(RunMacro, ids, st.none() | plays()),
    st.builds(ToChord, st.lists(st.sampled_from(SWITCHES), min_size=2, max_size=4, unique=True).map(tuple)),
    st.builds(TypeText, names, st.integers(1, 250)),
    st.builds(StartProgram, st.lists(words, min_size=1, max_size=3).map(tuple)),
    st.builds(GoTo, st.sampled_from(What), st.just("") | names, st.sampled_from([-1, 1])),
    st.builds(ChangeSpeed, st.just("") | names, st.sampled_from([-1, 1])),
    st.builds(RunSystemAction, st.sampled_from(SystemAction)),
)
sheets = st.dictionaries(st.sampled_from(sorted(KNOWN)), cells, max_size=8)


@st.composite
def _setups(draw: st.DrawFn) -> SetUp:
    """A variant with layers, each held by a button."""
    layers = draw(st.lists(st.builds(Layer, names, sheets), max_size=2, unique_by=lambda layer: layer.name))
    plain = draw(sheets.filter(keeps_left_click))
    buttons = [code for code in ("BTN_SIDE", "BTN_EXTRA") if draw(st.booleans())]
    held = {code: HoldLayer(layer.name) for code, layer in zip(buttons, layers, strict=False)}
    return SetUp(draw(names), {**plain, **held}, tuple(layers))


setups = _setups()
rules = st.builds(ProgramRule, st.sampled_from(MatchBy), names)
profiles = st.builds(
    Profile,
    id=ids,
    name=names,
    note=remarks,
    colour=st.from_regex(r"#[0-9A-Fa-f]{6}", fullmatch=True),
    programs=st.lists(rules, max_size=3).map(tuple),
    setups=st.lists(setups, min_size=1, max_size=3, unique_by=lambda setup: setup.name).map(tuple),
    keys=st.lists(
        st.builds(
            GameKey, st.sampled_from(["Reload", "Heavy swing", "Run", "Ω"]), st.sampled_from([*SWITCHES, *WHEELS])
        ),
        max_size=3,
        unique_by=lambda key: key.name,
    ).map(tuple),
    pointer=st.builds(
        Pointing,
        st.lists(
            st.builds(SpeedStage, names, st.integers(1, 1_000), st.integers(1, 1_000)),
            max_size=3,
            unique_by=lambda stage: stage.name,
        ).map(tuple),
        st.integers(1, 1_000),
        st.integers(0, 30),
    ),
    fair_play=st.sampled_from(FairPlay),
    falls_through=st.booleans(),
)
