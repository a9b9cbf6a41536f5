"""The rules of the library: what saving, renaming and deleting one thing entails for others.

They are the same for every client: the service keeps them, and the window makes its undoable edits by them.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import NamedTuple, Protocol

import msgspec

from nakrel.core.model.cells import Cell, ChangeSpeed, GoTo, RunMacro, What
from nakrel.core.model.controls import game_key
from nakrel.core.model.devices import THUMB_KEYS
from nakrel.core.model.game_keys import renamed
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile, SetUp

__all__ = ["Entailed", "duplicate", "free_name", "on_thumb_buttons", "saved", "without_macro", "without_profile"]

_Change = Callable[[SetUp], SetUp]


class _Named(Protocol):
    @property
    def name(self) -> str: ...


class Entailed(NamedTuple):
    """A profile as it is to be saved, and the macros that change with it."""

    profile: Profile
    macros: tuple[Macro, ...] = ()


def without_macro(key: str, profiles: Iterable[Profile]) -> list[Profile]:
    """The profiles that change when a macro is deleted: the buttons that play it become free."""
    return _changed(profiles, _cells(lambda cell: None if isinstance(cell, RunMacro) and cell.macro == key else cell))


def without_profile(key: str, profiles: Iterable[Profile]) -> list[Profile]:
    """The profiles that change when a profile is deleted: the buttons that go to it become free."""

    def kept(cell: Cell) -> Cell | None:
        return None if isinstance(cell, GoTo) and cell.what is What.PROFILE and cell.to == key else cell

    return _changed((each for each in profiles if each.id != key), _cells(kept))


def saved(
    before: Profile | None, after: Profile, profiles: Mapping[str, Profile], macros: Mapping[str, Macro]
) -> Entailed:
    """What is to be saved when a profile is changed.

    Buttons follow a variant, a pointer speed and a game key that got another name, and those that go to one that is
    gone become free. A game key's new name is followed by the macros that are attached in this profile alone. A new
    name is told by its place: the one that stands where a name stood that is gone, among as many as before.
    """
    if before is None:
        return Entailed(after)
    setups = _names(before.setups, after.setups)
    stages = _names(before.pointer.stages, after.pointer.stages)

    def followed(cell: Cell) -> Cell | None:
        if isinstance(cell, GoTo) and cell.what is What.SETUP and cell.to in setups:
            name = setups[cell.to]
            return msgspec.structs.replace(cell, to=name) if name else None
        if isinstance(cell, ChangeSpeed) and cell.to in stages:
            name = stages[cell.to]
            return msgspec.structs.replace(cell, to=name) if name else None
        return cell

    if setups or stages:
        after = (_changed((after,), _cells(followed)) or [after])[0]
    keys = {old: new for old, new in _names(before.keys, after.keys).items() if new}
    own = _attached_here_alone(after, profiles, macros) if keys else []
    for old, new in keys.items():
        after, own = renamed(game_key(old), game_key(new), after, own)
    return Entailed(after, tuple(macro for macro in own if macro != macros[macro.id]))


def on_thumb_buttons(profiles: Iterable[Profile]) -> list[Profile]:
    """The profiles that change when what number keys do goes to the thumb buttons that send them. A thumb button that
    has something keeps that, and so does its key."""
    return _changed(profiles, lambda setup: setup.with_moved(THUMB_KEYS))


def duplicate(profile: Profile, key: str, names: Iterable[str]) -> Profile:
    """A copy under an id and a name of its own, linked to no program. It plays the same macros as the profile does: a
    macro that both play is changed for both, and a game key's new name changes it for neither."""
    return msgspec.structs.replace(profile, id=key, name=free_name(profile.name, names), programs=())


def free_name(wanted: str, names: Iterable[str]) -> str:
    """The name, or the name with the first number that nobody has, within what a name may have."""
    taken, number, name = set(names), 1, wanted
    while name in taken:
        number += 1
        name = f"{wanted[:110]} {number}"
    return name


def _cells(change: Callable[[Cell], Cell | None]) -> _Change:
    return lambda setup: setup.with_each(change)


def _changed(profiles: Iterable[Profile], change: _Change) -> list[Profile]:
    found = []
    for profile in profiles:
        setups = tuple(map(change, profile.setups))
        if setups != profile.setups:
            found.append(msgspec.structs.replace(profile, setups=setups))
    return found


def _names(before: Sequence[_Named], after: Sequence[_Named]) -> dict[str, str]:
    """What each name that is gone has become, '' for nothing."""
    old, new = [each.name for each in before], [each.name for each in after]
    gone = [name for name in old if name not in new]
    if len(old) != len(new):
        return dict.fromkeys(gone, "")
    return {name: new[at] if new[at] not in old else "" for at, name in enumerate(old) if name in gone}


def _attached_here_alone(profile: Profile, profiles: Mapping[str, Profile], macros: Mapping[str, Macro]) -> list[Macro]:
    own = dict.fromkeys(cell.macro for *_, cell in profile.cells() if isinstance(cell, RunMacro))
    others = {
        cell.macro
        for each in profiles.values()
        if each.id != profile.id
        for *_, cell in each.cells()
        if isinstance(cell, RunMacro)
    }
    return [macros[key] for key in own if key in macros and key not in others]
