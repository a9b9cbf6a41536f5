"""Programs that run, the rules that link profiles to them, and the choice of the live profile."""

from __future__ import annotations

import shlex
from collections.abc import Iterable, Mapping
from typing import NamedTuple

import msgspec

from nakrel.core.profile import EVERYDAY, MatchBy, ProgramRule

__all__ = ["Choice", "Program", "choose", "describe_rule", "matches", "suggest_rule"]

# Programs that run other programs: their own path says nothing about which game it is.
_INTERPRETERS = ("python", "java", "mono", "wine", "node", "ruby", "perl", "sh", "bash", "love", "electron")


class Program(msgspec.Struct, frozen=True):
    """A running process: `name` is the kernel's name for it (15 characters at most), `started_us` its start in
    microseconds since the epoch, `title` its window's title where one is known."""

    pid: int
    name: str
    path: str = ""
    command: tuple[str, ...] = ()
    started_us: int = 0
    title: str = ""


class Choice(NamedTuple):
    """Which profile is live and why; `pid` is the program that decided it, 0 for none."""

    profile: str
    reason: str
    pid: int


def matches(rule: ProgramRule, program: Program) -> bool:
    """Whether the rule names this program.

    A name is compared with the process's name (which the kernel cuts at 15 characters, proc(5)) and with the file
    names of its executable and of its first argument.
    """
    if rule.match is MatchBy.PATH:
        return program.path == rule.value
    if rule.match is MatchBy.COMMAND:
        return rule.value in shlex.join(program.command)
    files = {program.path.rpartition("/")[2], *(part.rpartition("/")[2] for part in program.command[:1])}
    return (
        program.name == rule.value
        or rule.value in files
        or (len(program.name) == 15 == len(rule.value[:15]) and rule.value.startswith(program.name))
    )


def suggest_rule(program: Program) -> ProgramRule:
    """The rule that most likely finds this program again: its path, or for an interpreted program its name."""
    file = program.path.rpartition("/")[2]
    if not program.path or file.startswith(_INTERPRETERS):
        return ProgramRule(MatchBy.NAME, program.name)
    return ProgramRule(MatchBy.PATH, program.path)


def describe_rule(rule: ProgramRule) -> str:
    """The rule in a few words, for the page's head."""
    return {
        MatchBy.PATH: rule.value.rpartition("/")[2],
        MatchBy.NAME: rule.value,
        MatchBy.COMMAND: f"command with {rule.value!r}",
    }[rule.match]


def choose(
    rules: Mapping[str, Iterable[ProgramRule]], programs: Iterable[Program], front_pid: int, pinned: str
) -> Choice:
    """Which profile should be live.

    A pinned profile stays. Else the linked program in front (`front_pid`, 0 for unknown) wins, else the linked
    program started last, else Everyday.
    """
    if pinned:
        return Choice(pinned, "pinned", 0)
    linked = [(p, key) for p in programs for key, some in rules.items() if any(matches(r, p) for r in some)]
    if not linked:
        return Choice(EVERYDAY, "no linked program runs", 0)
    for program, key in linked:
        if program.pid == front_pid:
            return Choice(key, f"{program.name} is in front", program.pid)
    program, key = max(linked, key=lambda found: (found[0].started_us, found[0].pid))
    return Choice(key, f"{program.name} runs", program.pid)
