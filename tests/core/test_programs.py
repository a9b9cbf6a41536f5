"""Links between profiles and programs, and the choice of the live profile."""

from __future__ import annotations

from nakrel.core.profile import EVERYDAY, MatchBy, ProgramRule
from nakrel.core.programs import Program, choose, matches, suggest_rule

GAME = Program(10, "tidewardens.x86", "/games/tide/tidewardens.x86_64", ("./tidewardens.x86_64", "-w"), 1_000)
OTHER = Program(11, "orrery-post", "/usr/bin/python3.11", ("python3", "/opt/orrery-post"), 2_000)


def by_name(name: str) -> tuple[ProgramRule, ...]:
    return (ProgramRule(MatchBy.NAME, name),)


def test_rules():
    assert matches(ProgramRule(MatchBy.PATH, GAME.path), GAME)
    assert matches(ProgramRule(MatchBy.COMMAND, "/opt/orrery"), OTHER)
    # The kernel cuts a process's name at 15 characters (proc(5), /proc/pid/comm).
    assert matches(*by_name("tidewardens.x86_64"), GAME)
    assert not matches(*by_name("tidewardens"), GAME)
    assert not matches(*by_name("orrery-post-2"), OTHER)


def test_a_suggested_rule_finds_its_program_and_not_its_interpreter():
    assert suggest_rule(GAME) == ProgramRule(MatchBy.PATH, GAME.path)
    assert suggest_rule(OTHER) == ProgramRule(MatchBy.NAME, "orrery-post")
    assert matches(suggest_rule(OTHER), OTHER)


def test_pinned_then_in_front_then_started_last_then_everyday():
    rules = {"tide": by_name("tidewardens.x86_64"), "post": by_name("orrery-post"), EVERYDAY: ()}
    assert choose(rules, [GAME, OTHER], 10, "post")[:2] == ("post", "pinned")
    assert choose(rules, [GAME, OTHER], 10, "").profile == "tide"
    assert choose(rules, [GAME, OTHER], 99, "").profile == "post"
    assert choose(rules, [GAME], 99, "").profile == "tide"
    assert choose(rules, [], 0, "").profile == EVERYDAY
