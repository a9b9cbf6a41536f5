"""Every edit as one kind of undoable command: some values before, some values after."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import NamedTuple

import msgspec
from PyQt6.QtGui import QUndoCommand

from nakrel.core.bundle import Merged
from nakrel.core.cells import Cell, RunMacro
from nakrel.core.errors import DataError
from nakrel.core.macro import Macro, Play
from nakrel.core.messages import Settings
from nakrel.core.profile import Layer, Profile, ProgramRule, SetUp, keeps_left_click
from nakrel.ui.store import Store, new_id

__all__ = [
    "Change",
    "add_macro",
    "attach",
    "delete_macro",
    "delete_profile",
    "duplicate_macro",
    "duplicate_profile",
    "edit_macro",
    "edit_profile",
    "edit_settings",
    "edit_sheet",
    "free_name",
    "new_layer",
    "new_macro",
    "new_profile",
    "set_cell",
    "set_programs",
    "take",
]

Value = Profile | Macro | Settings


class Change(NamedTuple):
    """One value's change; None before is a new one, None after a deletion."""

    before: Value | None
    after: Value | None


class _Edit(QUndoCommand):
    def __init__(self, store: Store, text: str, changes: Iterable[Change]) -> None:
        super().__init__(text)
        self._store = store
        self._changes = tuple(changes)

    def redo(self) -> None:
        """Make the values after the edit the present ones."""
        for change in self._changes:
            _become(self._store, change.before, change.after)

    def undo(self) -> None:
        """Bring the values before the edit back."""
        for change in reversed(self._changes):
            _become(self._store, change.after, change.before)


def _become(store: Store, old: Value | None, new: Value | None) -> None:
    match new, old:
        case Profile(), _:
            store.put_profile(new)
        case Macro(), _:
            store.put_macro(new)
        case Settings(), _:
            store.put_settings(new)
        case None, Profile():
            store.delete_profile(old.id)
        case None, Macro():
            store.delete_macro(old.id)


def _push(store: Store, text: str, *changes: Change) -> None:
    wanted = [change for change in changes if change.before != change.after]
    if wanted:
        store.undo_stack.push(_Edit(store, text, wanted))


def free_name(wanted: str, taken: Iterable[str]) -> str:
    """The name, or the name with the first number that nobody has."""
    names, number, name = set(taken), 1, wanted
    while name in names:
        number += 1
        name = f"{wanted} {number}"
    return name


# Macros


def edit_macro(store: Store, text: str, after: Macro) -> None:
    """Change a macro."""
    _push(store, text, Change(store.macros.get(after.id), after))


def new_macro(store: Store, name: str = "New macro", play: Play | None = None) -> Macro:
    """Make a macro and return it."""
    names = (x.name for x in store.macros.values())
    macro = Macro(id=new_id(), name=free_name(name, names), play=play or Play())
    _push(store, f"new macro {macro.name}", Change(None, macro))
    return macro


def add_macro(store: Store, macro: Macro) -> Macro:
    """Take a macro that was made elsewhere, under an id of its own and a name that is free, and return it."""
    return _add(store, macro, "import")


def _add(store: Store, macro: Macro, words: str) -> Macro:
    name = free_name(macro.name, (x.name for x in store.macros.values()))
    added = msgspec.structs.replace(macro, id=new_id(), name=name)
    _push(store, f"{words} {macro.name}", Change(None, added))
    return added


def take(store: Store, merged: Merged) -> None:
    """Take what a bundle brings, as one edit."""
    names = [*(profile.name for profile in merged.profiles), *(macro.name for macro in merged.macros)]
    changes = [
        *(Change(store.macros.get(macro.id), macro) for macro in merged.macros),
        *(Change(store.profiles.get(profile.id), profile) for profile in merged.profiles),
    ]
    _push(store, f"import {names[0] if names else 'nothing'}", *changes)


def duplicate_macro(store: Store, macro: Macro) -> Macro:
    """Make a copy under a name of its own and return it."""
    return _add(store, macro, "duplicate")


def delete_macro(store: Store, macro: Macro) -> None:
    """Delete a macro and every attachment of it, as one edit."""
    freed = []
    for profile in store.profiles.values():
        freed.append(Change(profile, _without_macro(profile, macro.id)))
    _push(store, f"delete {macro.name}", *freed, Change(macro, None))


def _without_macro(profile: Profile, key: str) -> Profile:
    """The profile without the cells that play a macro, in all its set-ups and layers."""

    def kept(cell: Cell) -> Cell | None:
        return None if isinstance(cell, RunMacro) and cell.macro == key else cell

    setups = tuple(setup.with_each(kept) for setup in profile.setups)
    return profile if setups == profile.setups else msgspec.structs.replace(profile, setups=setups)


# Profiles


def edit_profile(store: Store, text: str, after: Profile) -> None:
    """Change a profile."""
    _push(store, text, Change(store.profiles.get(after.id), after))


def new_profile(store: Store, name: str = "New profile") -> Profile:
    """Make a profile with a colour of its own and return it."""
    used = {p.colour for p in store.profiles.values()}
    colour = next((c for c in _COLOURS if c not in used), _COLOURS[len(store.profiles) % len(_COLOURS)])
    taken = (p.name for p in store.profiles.values())
    profile = Profile(id=new_id(), name=free_name(name, taken), colour=colour)
    _push(store, f"new profile {profile.name}", Change(None, profile))
    return profile


_COLOURS = ("#3E7C8C", "#A3503F", "#6B63A8", "#6F8440", "#B07A2A", "#8C4F77", "#4A6FA5", "#5F6B57")


def duplicate_profile(store: Store, profile: Profile) -> Profile:
    """Make a copy, linked to no program, and return it."""
    name = free_name(profile.name, (p.name for p in store.profiles.values()))
    copy = msgspec.structs.replace(profile, id=new_id(), name=name, programs=())
    _push(store, f"duplicate {profile.name}", Change(None, copy))
    return copy


def delete_profile(store: Store, profile: Profile) -> None:
    """Delete a profile; undo brings it back."""
    _push(store, f"delete {profile.name}", Change(profile, None))


def set_programs(store: Store, profile: Profile, programs: tuple[ProgramRule, ...]) -> None:
    """Link the profile to these programs."""
    after = msgspec.structs.replace(profile, programs=programs)
    _push(store, f"programs of {profile.name}", Change(profile, after))


# Attachments


def set_cell(store: Store, profile: Profile, code: str, cell: Cell | None, layer: str = "") -> str:
    """Set what a control does in a layer, '' for none; None is what it does otherwise. Returns the reason where that
    is refused."""
    plain = {key: old for key, old in profile.sheet.cells.items() if key != code}
    if not layer and not keeps_left_click(plain if cell is None else {**plain, code: cell}):
        return (
            "That would leave no way to click. Let another control act as Left first, "
            "then this one is free for something else."
        )
    return edit_sheet(store, profile, "attachment", lambda sheet: sheet.with_cell(layer, code, cell))


def edit_sheet(store: Store, profile: Profile, words: str, change: Callable[[SetUp], SetUp]) -> str:
    """Change the profile's sheet; returns the reason where that is refused."""
    try:
        sheet = change(profile.sheet)
    except DataError as error:
        return str(error)
    _push(store, f"{words} in {profile.name}", Change(profile, _with_sheet(profile, sheet)))
    return ""


def new_layer(store: Store, profile: Profile) -> str:
    """Add an empty layer under a free name, and return the name."""
    name = free_name("Layer", (layer.name for layer in profile.sheet.layers))
    added = (*profile.sheet.layers, Layer(name))
    edit_sheet(store, profile, "new layer", lambda sheet: msgspec.structs.replace(sheet, layers=added))
    return name


def attach(store: Store, profile: Profile, code: str, macro: Macro, layer: str = "") -> str:
    """Let the control play the macro; returns the reason where that is refused."""
    return set_cell(store, profile, code, RunMacro(macro.id), layer)


def _with_sheet(profile: Profile, sheet: SetUp) -> Profile:
    return profile if sheet == profile.sheet else msgspec.structs.replace(profile, setups=(sheet, *profile.setups[1:]))


def edit_settings(store: Store, text: str, after: Settings) -> None:
    """Change the settings."""
    _push(store, text, Change(store.settings, after))
