"""Hypothesis strategies for Nakrel's values, shared by all tests."""

from __future__ import annotations

from hypothesis import strategies as st

from nakrel.core.controls import CONTROLS, Kind
from nakrel.core.macro import Again, LetGo, Macro, Mode, Play, StartOn
from nakrel.core.profile import (
    Cell,
    MatchBy,
    Nothing,
    Profile,
    ProgramRule,
    RunMacro,
    SetUp,
    ToControl,
    keeps_left_click,
)
from nakrel.core.steps import Press, Release, Step, Tap, Wait, Wheel
from nakrel.core.units import MAX_COUNT, MAX_WAIT_US

SWITCHES = sorted(c.code for c in CONTROLS.values() if c.kind is not Kind.WHEEL)
WHEELS = sorted(c.code for c in CONTROLS.values() if c.kind is Kind.WHEEL)
# Surrogates can't be written to a file; nothing else is ruled out of a name.
names = st.text(st.characters(exclude_categories=["Cs"]), min_size=1, max_size=120)
remarks = st.text(st.characters(exclude_categories=["Cs"]), max_size=20)
waits_us = st.integers(0, MAX_WAIT_US)
counts = st.integers(1, MAX_COUNT)
ids = st.text(st.characters(exclude_categories=["Cs", "Cc"], exclude_characters="/"), min_size=1, max_size=80)


def steps(codes: list[str] = SWITCHES, wait: st.SearchStrategy[int] = waits_us) -> st.SearchStrategy[Step]:
    """Any step on these controls, with waits and holds from `wait`."""
    code = st.sampled_from(codes)
    common = {"remark": remarks, "off": st.booleans()}
    return st.one_of(
        st.builds(Press, control=code, **common),
        st.builds(Release, control=code, **common),
        st.builds(Tap, control=code, hold_us=wait, **common),
        st.builds(Wait, wait_us=wait, **common),
        st.builds(Wheel, control=st.sampled_from(WHEELS), notches=st.integers(1, 1000), **common),
    )


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
)
setups = st.builds(
    SetUp, names, st.dictionaries(st.sampled_from(SWITCHES + WHEELS), cells, max_size=8).filter(keeps_left_click)
)
rules = st.builds(ProgramRule, st.sampled_from(MatchBy), names)
profiles = st.builds(
    Profile,
    id=ids,
    name=names,
    note=remarks,
    colour=st.from_regex(r"#[0-9A-Fa-f]{6}", fullmatch=True),
    programs=st.lists(rules, max_size=3).map(tuple),
    setups=st.lists(setups, min_size=1, max_size=3).map(tuple),
)
