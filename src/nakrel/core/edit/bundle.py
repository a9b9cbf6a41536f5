"""Bundles: profiles and macros that come from somebody else, looked through before anything lands."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping
from enum import StrEnum
from typing import NamedTuple, TypeVar

import msgspec

from nakrel.core.model.cells import Cell, GoTo, Nothing, RunMacro, StartProgram, TypeText, What
from nakrel.core.model.controls import label
from nakrel.core.model.macro import Macro, Mode, Section, with_each
from nakrel.core.model.profile import Profile
from nakrel.core.model.programs import describe_rule
from nakrel.core.model.steps import Open, Step, Text, walk

Item = TypeVar("Item", Profile, Macro)

__all__ = ["Bundle", "Clash", "Contents", "Merged", "Opens", "bundle_of", "look_through", "merge"]


class Bundle(NamedTuple):
    """Profiles, and the macros that they play."""

    profiles: tuple[Profile, ...]
    macros: tuple[Macro, ...]


class Clash(StrEnum):
    """What becomes of something whose id or name is there already: both are kept, the new one takes the old one's
    place, or the old one stays."""

    KEEP = "keep"
    REPLACE = "replace"
    SKIP = "skip"


class Opens(NamedTuple):
    """A macro, or a button of a profile, that would start a program."""

    where: str
    command: tuple[str, ...]


class Contents(NamedTuple):
    """What is in a bundle, in words and names: nothing of it has happened yet."""

    profiles: tuple[str, ...]
    macros: tuple[str, ...]
    programs: tuple[str, ...]
    opens: tuple[Opens, ...]
    types: tuple[tuple[str, str], ...]
    unattended: tuple[tuple[str, str], ...]
    clashes: tuple[str, ...]


class Merged(NamedTuple):
    """What is to be saved."""

    profiles: tuple[Profile, ...]
    macros: tuple[Macro, ...]


def bundle_of(profiles: Iterable[Profile], macros: Mapping[str, Macro]) -> Bundle:
    """These profiles with the macros that they play, each once. Cells that play a macro which is gone are left out."""
    found: dict[str, Macro] = {}

    def whole(cell: Cell) -> Cell | None:
        if isinstance(cell, RunMacro):
            if cell.macro not in macros:
                return None
            found[cell.macro] = macros[cell.macro]
        return cell

    chosen = tuple(
        msgspec.structs.replace(profile, setups=tuple(setup.with_each(whole) for setup in profile.setups))
        for profile in profiles
    )
    return Bundle(chosen, tuple(found.values()))


def look_through(bundle: Bundle, profiles: Mapping[str, Profile], macros: Mapping[str, Macro]) -> Contents:
    """What the bundle would bring to a library of these profiles and macros."""
    opens, types, unattended = [], [], []
    for macro in bundle.macros:
        for step in _steps(macro):
            if isinstance(step, Open):
                opens.append(Opens(macro.name, step.command))
            elif isinstance(step, Text):
                types.append((macro.name, f"the secret {step.secret}" if step.secret else step.text))
        play = macro.play
        if play.mode is Mode.TOGGLE and not (play.limit_runs or play.limit_us):
            unattended.append((macro.name, "goes on until it is switched off"))
    for profile in bundle.profiles:
        for setup in profile.setups:
            for _, code, cell in setup.every():
                where = f"{label(code)} in {profile.name}"
                if isinstance(cell, StartProgram):
                    opens.append(Opens(where, cell.command))
                elif isinstance(cell, TypeText):
                    types.append((where, cell.text))
    clashes = [
        *(each.name for each in bundle.profiles if _same(each, profiles)),
        *(each.name for each in bundle.macros if _same(each, macros)),
    ]
    return Contents(
        tuple(each.name for each in bundle.profiles),
        tuple(each.name for each in bundle.macros),
        tuple(f"{each.name}: {describe_rule(rule)}" for each in bundle.profiles for rule in each.programs),
        tuple(opens),
        tuple(types),
        tuple(unattended),
        tuple(clashes),
    )


def merge(
    bundle: Bundle,
    profiles: Mapping[str, Profile],
    macros: Mapping[str, Macro],
    clash: Clash,
    new_id: Callable[[], str],
    allowed: Collection[tuple[str, ...]] = (),
) -> Merged:
    """What to save of the bundle. Steps that open a program are switched off, and so are buttons that do, unless their
    command is among those `allowed`."""
    ids: dict[str, str] = {}
    some_macros = _accepted(bundle.macros, macros, clash, new_id, ids)
    places: dict[str, str] = {}
    some_profiles = _accepted(bundle.profiles, profiles, clash, new_id, places)
    return Merged(
        tuple(_landed(profile, ids, places, allowed) for profile in some_profiles),
        tuple(_without_opens(macro, allowed) for macro in some_macros),
    )


def _steps(macro: Macro) -> Iterable[Step]:
    for section in Section:
        yield from walk(macro.section(section))


def _same(item: Profile | Macro, there: Mapping[str, Profile] | Mapping[str, Macro]) -> str:
    """The id of what the item clashes with: the same id, else the same name; '' for nothing. What is equal in all is no
    clash."""
    if item.id in there:
        return "" if there[item.id] == item else item.id
    return next((key for key, other in there.items() if other.name == item.name), "")


def _accepted(
    items: Iterable[Item], there: Mapping[str, Item], clash: Clash, new_id: Callable[[], str], ids: dict[str, str]
) -> list[Item]:
    """The items to be saved; `ids` gets what each one's id has become."""
    found: list[Item] = []
    names = {other.name for other in there.values()}
    for item in items:
        same = _same(item, there)
        if same and clash is Clash.SKIP:
            ids[item.id] = same
            continue
        after = item
        if same and clash is Clash.REPLACE:
            after = msgspec.structs.replace(item, id=same)
        elif same:
            key = new_id() if item.id in there else item.id
            after = msgspec.structs.replace(item, id=key, name=_free(item.name, names))
        ids[item.id] = after.id
        names.add(after.name)
        found.append(after)
    return found


def _free(name: str, names: Collection[str]) -> str:
    number = 2
    while f"{name} {number}" in names:
        number += 1
    return name if name not in names else f"{name} {number}"


def _landed(
    profile: Profile, ids: Mapping[str, str], places: Mapping[str, str], allowed: Collection[tuple[str, ...]]
) -> Profile:
    """The profile with its cells playing the macros, and going to the profiles, under the ids that they have now, and
    opening nothing else."""

    def landed(cell: Cell) -> Cell:
        if isinstance(cell, RunMacro):
            return msgspec.structs.replace(cell, macro=ids.get(cell.macro, cell.macro))
        if isinstance(cell, GoTo) and cell.what is What.PROFILE:
            return msgspec.structs.replace(cell, to=places.get(cell.to, cell.to))
        return Nothing() if isinstance(cell, StartProgram) and cell.command not in allowed else cell

    return msgspec.structs.replace(profile, setups=tuple(setup.with_each(landed) for setup in profile.setups))


def _without_opens(macro: Macro, allowed: Collection[tuple[str, ...]]) -> Macro:
    def inert(step: Step) -> Step:
        if isinstance(step, Open) and step.command not in allowed:
            return msgspec.structs.replace(step, off=True)
        return step

    return with_each(macro, inert)
