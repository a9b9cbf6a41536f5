"""Every edit as one kind of undoable command: some values before, some values after."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from typing import NamedTuple

import msgspec
from PyQt6.QtGui import QUndoCommand

from nakrel.client.ids import new_id
from nakrel.core import library as rules
from nakrel.core.edit.bundle import Merged
from nakrel.core.library import free_name
from nakrel.core.model.cells import Cell, ChangeSpeed, RunMacro
from nakrel.core.model.conditioning import Pointing
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, Play
from nakrel.core.model.profile import GameKey, Layer, Profile, ProgramRule, SetUp, keeps_left_click
from nakrel.core.model.settings import SettingsPatch
from nakrel.ui.store import Store
from nakrel.ui.widgets.basics import literal
from nakrel.words import tr

__all__ = [
    "Change",
    "add_all",
    "add_macro",
    "attach",
    "delete_macro",
    "delete_profile",
    "duplicate_macro",
    "duplicate_profile",
    "edit_macro",
    "edit_profile",
    "change_settings",
    "copy_macros",
    "give_own",
    "edit_setup",
    "edit_setups",
    "new_layer",
    "new_macro",
    "new_profile",
    "rename_key",
    "reset_profile",
    "rename_setup",
    "set_cell",
    "set_cells",
    "set_keys",
    "set_pointer",
    "set_programs",
    "import_merged",
]

Value = Profile | Macro


class Change(NamedTuple):
    """One value's change; None before is a new one, None after a deletion."""

    before: Value | None
    after: Value | None


class _Edit(QUndoCommand):
    def __init__(self, store: Store, text: str, changes: Iterable[Change]) -> None:
        super().__init__(literal(text))
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
        case None, Profile():
            store.delete_profile(old.id)
        case None, Macro():
            store.delete_macro(old.id)


def _push(store: Store, text: str, *changes: Change) -> None:
    wanted = [change for change in changes if change.before != change.after]
    if wanted:
        store.undo_stack.push(_Edit(store, text, wanted))


# Macros


def edit_macro(store: Store, text: str, after: Macro) -> None:
    """Change a macro."""
    _push(store, text, Change(store.macros.get(after.id), after))


def new_macro(store: Store, name: str = "", play: Play | None = None) -> Macro:
    """Make a macro and return it."""
    names = (x.name for x in store.macros.values())
    macro = Macro(id=new_id(), name=free_name(name or tr("New macro"), names), play=play or Play())
    _push(store, tr("new macro {name}").format(name=macro.name), Change(None, macro))
    return macro


def add_macro(store: Store, macro: Macro) -> Macro:
    """Take a macro that was made elsewhere, under an id of its own and a name that is free, and return it."""
    return _add(store, macro, tr("import {name}"))


def _add(store: Store, macro: Macro, text: str) -> Macro:
    name = free_name(macro.name, (x.name for x in store.macros.values()))
    added = msgspec.structs.replace(macro, id=new_id(), name=name)
    _push(store, text.format(name=macro.name), Change(None, added))
    return added


def import_merged(store: Store, merged: Merged) -> None:
    """Take what a bundle brings, as one edit."""
    names = [*(profile.name for profile in merged.profiles), *(macro.name for macro in merged.macros)]
    changes = [
        *(Change(store.macros.get(macro.id), macro) for macro in merged.macros),
        *(Change(store.profiles.get(profile.id), profile) for profile in merged.profiles),
    ]
    _push(store, tr("import {name}").format(name=names[0]) if names else tr("import nothing"), *changes)


def add_all(store: Store, text: str, profiles: Iterable[Profile], macros: Iterable[Macro]) -> None:
    """Add these, as one edit. What is there already under an id stays as it is, but for a profile that is empty."""
    changes = [Change(None, macro) for macro in macros if macro.id not in store.macros]
    for profile in profiles:
        known = store.profiles.get(profile.id)
        if known is None or not any(True for _ in known.cells()):
            changes.append(Change(known, profile))
    _push(store, text, *changes)


def duplicate_macro(store: Store, macro: Macro) -> Macro:
    """Make a copy under a name of its own and return it."""
    return _add(store, macro, tr("duplicate {name}"))


def delete_macro(store: Store, macro: Macro) -> None:
    """Delete a macro and every attachment of it, as one edit."""
    freed = rules.without_macro(macro.id, store.profiles.values())
    changes = (Change(store.profiles[profile.id], profile) for profile in freed)
    _push(store, tr("delete {name}").format(name=macro.name), *changes, Change(macro, None))


# Profiles


def edit_profile(store: Store, text: str, after: Profile) -> None:
    """Change a profile."""
    _push(store, text, Change(store.profiles.get(after.id), after))


def new_profile(store: Store, name: str = "") -> Profile:
    """Make a profile with a colour of its own and return it."""
    used = {p.colour for p in store.profiles.values()}
    colour = next((c for c in _COLOURS if c not in used), _COLOURS[len(store.profiles) % len(_COLOURS)])
    taken = (p.name for p in store.profiles.values())
    profile = Profile(id=new_id(), name=free_name(name or tr("New profile"), taken), colour=colour)
    _push(store, tr("new profile {name}").format(name=profile.name), Change(None, profile))
    return profile


_COLOURS = ("#3E7C8C", "#A3503F", "#6B63A8", "#6F8440", "#B07A2A", "#8C4F77", "#4A6FA5", "#5F6B57")


def duplicate_profile(store: Store, profile: Profile) -> Profile:
    """Make a copy, linked to no program, and return it."""
    copy = rules.duplicate(profile, new_id(), (p.name for p in store.profiles.values()))
    _push(store, tr("duplicate {name}").format(name=profile.name), Change(None, copy))
    return copy


def copy_macros(store: Store, key: str) -> None:
    """Give a profile copies of the macros that it plays, as one edit."""
    if profile := store.profiles.get(key):
        played = dict.fromkeys(cell.macro for *_, cell in profile.cells() if isinstance(cell, RunMacro))
        macros = [store.macros[each] for each in played if each in store.macros]
        _give_copies(store, profile, macros, tr("copy the macros of {name}").format(name=profile.name))


def give_own(store: Store, profile: Profile, macro: Macro) -> None:
    """Let a profile play this in place of the macro with its id, which stays as it is for all others."""
    _give_copies(
        store, profile, [macro], tr("{name} for {profile} alone").format(name=macro.name, profile=profile.name)
    )


def _give_copies(store: Store, profile: Profile, macros: Iterable[Macro], text: str) -> None:
    names = [macro.name for macro in store.macros.values()]
    copies: dict[str, Macro] = {}
    for macro in macros:
        name = free_name(f"{macro.name} ({profile.name})", names)
        names.append(name)
        copies[macro.id] = msgspec.structs.replace(macro, id=new_id(), name=name)

    def own(cell: Cell) -> Cell:
        copied = copies.get(cell.macro) if isinstance(cell, RunMacro) else None
        return msgspec.structs.replace(cell, macro=copied.id) if copied else cell

    setups = tuple(setup.with_each(own) for setup in profile.setups)
    after = msgspec.structs.replace(profile, setups=setups)
    changes = (Change(None, macro) for macro in copies.values())
    _push(store, text, *changes, Change(profile, after))


def reset_profile(store: Store, profile: Profile) -> None:
    """Empty a profile: its name, colour, note and programs stay."""
    after = Profile(
        id=profile.id, name=profile.name, note=profile.note, colour=profile.colour, programs=profile.programs
    )
    _push(store, tr("reset {name}").format(name=profile.name), Change(profile, after))


def delete_profile(store: Store, profile: Profile) -> None:
    """Delete a profile, and every button that goes to it, as one edit; undo brings it back."""
    freed = rules.without_profile(profile.id, store.profiles.values())
    changes = (Change(store.profiles[each.id], each) for each in freed)
    _push(store, tr("delete {name}").format(name=profile.name), *changes, Change(profile, None))


def set_programs(store: Store, profile: Profile, programs: tuple[ProgramRule, ...]) -> None:
    """Link the profile to these programs."""
    after = msgspec.structs.replace(profile, programs=programs)
    _push(store, tr("programs of {name}").format(name=profile.name), Change(profile, after))


def allow(store: Store, key: str) -> None:
    """Let a profile that came from outside go live with its programs."""
    if profile := store.profiles.get(key):
        after = msgspec.structs.replace(profile, allowed=True)
        _push(store, tr("allow {name} to go live").format(name=profile.name), Change(profile, after))


# Attachments


def set_cell(store: Store, profile: Profile, setup: str, code: str, cell: Cell | None, layer: str = "") -> str:
    """Set what a control does in a layer of a variant, '' for none; None is what it does otherwise. Returns the reason
    where that is refused."""
    return set_cells(store, profile, setup, {(layer, code): cell})


def set_cells(
    store: Store, profile: Profile, setup: str, cells: Mapping[tuple[str, str], Cell | None], text: str = ""
) -> str:
    """The same for several, each by its layer and control, as one edit."""
    plain = dict(profile.setup(setup).cells)
    for (layer, code), cell in cells.items():
        if not layer:
            plain.pop(code, None)
            if cell is not None:
                plain[code] = cell
    if not keeps_left_click(plain):
        return tr(
            "That would leave no way to click. Let another button act as Left first, "
            "then this one is free for something else."
        )

    def changed(sheet: SetUp) -> SetUp:
        # The plain ones are put at once: one by one they might leave no way to click meanwhile.
        sheet = msgspec.structs.replace(sheet, cells=plain)
        for (layer, code), cell in cells.items():
            sheet = sheet.with_cell(layer, code, cell) if layer else sheet
        return sheet

    return edit_setup(store, profile, setup, text, changed)


def edit_setup(store: Store, profile: Profile, setup: str, text: str, change: Callable[[SetUp], SetUp]) -> str:
    """Change one of the profile's variants; returns the reason where that is refused."""
    before = profile.setup(setup)
    try:
        after = change(before)
    except DataError as error:
        return str(error)
    return edit_setups(store, profile, text, tuple(after if each is before else each for each in profile.setups))


def edit_setups(store: Store, profile: Profile, text: str, setups: tuple[SetUp, ...]) -> str:
    """Give the profile these variants; returns the reason where that is refused."""
    return _change(store, profile, tr("{value} in {name}").format(value=text, name=profile.name), setups=setups)


def _change(store: Store, profile: Profile, text: str, **values: object) -> str:
    try:
        after = msgspec.structs.replace(profile, **values)
        entailed = rules.saved(profile, after, store.profiles, store.macros)
    except DataError as error:
        return str(error)
    macros = (Change(store.macros[macro.id], macro) for macro in entailed.macros)
    _push(store, text, Change(profile, entailed.profile), *macros)
    return ""


def rename_setup(store: Store, profile: Profile, old: str, new: str) -> str:
    """Give a variant another name, and have the controls that go to it follow; returns the reason where that is
    refused."""
    try:
        setups = tuple(msgspec.structs.replace(s, name=new) if s.name == old else s for s in profile.setups)
    except DataError as error:
        return str(error)
    return edit_setups(store, profile, tr("rename {old}").format(old=old), setups)


def new_layer(store: Store, profile: Profile, setup: str) -> str:
    """Add an empty layer under a free name, and return the name."""
    layers = profile.setup(setup).layers
    name = free_name(tr("Layer"), (layer.name for layer in layers))
    added = (*layers, Layer(name))
    edit_setup(store, profile, setup, tr("new layer"), lambda sheet: msgspec.structs.replace(sheet, layers=added))
    return name


def attach(store: Store, profile: Profile, setup: str, code: str, macro: Macro, layer: str = "") -> str:
    """Let the control play the macro; returns the reason where that is refused."""
    return set_cell(store, profile, setup, code, RunMacro(macro.id), layer)


def set_keys(store: Store, profile: Profile, keys: tuple[GameKey, ...], text: str = "") -> str:
    """Give the profile these game keys; returns the reason where that is refused."""
    return _change(
        store, profile, tr("{value} of {name}").format(value=text or tr("game keys"), name=profile.name), keys=keys
    )


def set_pointer(store: Store, profile: Profile, pointer: Pointing, text: str, named: Mapping[str, str]) -> str:
    """Have the profile move the pointer like this; returns the reason where that is refused.

    Cells follow stages that got another name (`named`: the new ones by the old), and those that go to a stage that is
    gone are taken out.
    """
    before = {stage.name for stage in profile.pointer.stages}
    after = {stage.name for stage in pointer.stages}

    def followed(cell: Cell) -> Cell | None:
        if not isinstance(cell, ChangeSpeed) or not cell.to:
            return cell
        name = named.get(cell.to, cell.to)
        return None if name in before - after else msgspec.structs.replace(cell, to=name)

    try:
        setups = tuple(setup.with_each(followed) for setup in profile.setups)
    except DataError as error:
        return str(error)
    return _change(
        store, profile, tr("{value} of {name}").format(value=text, name=profile.name), pointer=pointer, setups=setups
    )


def rename_key(store: Store, profile: Profile, old: str, new: str) -> str:
    """Give a game key another name, and have the profile's cells follow, and the macros that are attached in this
    profile alone; returns the reason where that is refused."""
    try:
        keys = tuple(msgspec.structs.replace(key, name=new) if key.name == old else key for key in profile.keys)
    except DataError as error:
        return str(error)
    return set_keys(store, profile, keys, tr("rename {old}").format(old=old))


class _SettingsEdit(QUndoCommand):
    """A change of some settings; taken back it leaves all others as they are by then."""

    def __init__(self, store: Store, text: str, patch: SettingsPatch) -> None:
        super().__init__(literal(text))
        self._store, self._after = store, patch
        self._before = SettingsPatch.between(patch.applied_to(store.settings), store.settings)

    def redo(self) -> None:
        """Make the change."""
        self._store.change_settings(self._after)

    def undo(self) -> None:
        """Take it back."""
        self._store.change_settings(self._before)


def move_to_thumbs(store: Store) -> None:
    """Move what number keys do to the thumb buttons that send them, in all profiles, as one edit."""
    moved = rules.on_thumb_buttons(store.profiles.values())
    changes = (Change(store.profiles[profile.id], profile) for profile in moved)
    _push(store, tr("move number keys to thumb buttons"), *changes)


def change_settings(store: Store, text: str, patch: SettingsPatch) -> None:
    """Change some of the settings."""
    if patch.applied_to(store.settings) != store.settings:
        store.undo_stack.push(_SettingsEdit(store, text, patch))
