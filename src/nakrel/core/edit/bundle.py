"""Bundles: profiles and macros that come from somebody else, looked through before anything lands."""

from __future__ import annotations

import unicodedata
from collections.abc import Callable, Collection, Iterable, Mapping
from enum import StrEnum
from typing import NamedTuple, TypeVar

import msgspec

from nakrel.core.model.cells import Cell, GoTo, RunMacro, StartProgram, ToChord, ToControl, TypeText, What
from nakrel.core.model.controls import label
from nakrel.core.model.macro import Macro, Mode, Play, Section, with_each
from nakrel.core.model.profile import EVERYDAY, Profile, ProgramRule
from nakrel.core.model.programs import Program, describe_rule, is_background
from nakrel.core.model.steps import Chord, Open, Press, Release, Step, Text, branches
from nakrel.words import shown_number, tr

Item = TypeVar("Item", Profile, Macro)

__all__ = ["Bundle", "Clash", "Contents", "Merged", "Opens", "bundle_of", "look_through", "merge", "visible"]


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
    """What is in a bundle, in words and names, with signs that can't be seen made visible (`visible`): nothing of it
    has happened yet. `desktop` is what works the desktop itself, from where any program is in reach."""

    profiles: tuple[str, ...]
    macros: tuple[str, ...]
    programs: tuple[str, ...]
    opens: tuple[Opens, ...]
    types: tuple[tuple[str, str], ...]
    unattended: tuple[tuple[str, str], ...]
    desktop: tuple[tuple[str, str], ...]
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


def visible(text: str) -> str:
    """The text with signs that show nothing, or turn its direction around, written out: what is read is what is
    there."""
    return "".join(sign if unicodedata.category(sign) not in _UNSEEN else f"‹U+{ord(sign):04X}›" for sign in text)


# Control and format signs, and line and paragraph separators (Unicode general categories).
_UNSEEN = ("Cc", "Cf", "Zl", "Zp")


def look_through(bundle: Bundle, profiles: Mapping[str, Profile], macros: Mapping[str, Macro]) -> Contents:
    """What the bundle would bring to a library of these profiles and macros; what is switched off is in it, too."""
    opens, types, unattended, desktop = [], [], [], []
    for macro in bundle.macros:
        name = visible(macro.name)
        for step, off in _steps(macro):
            if isinstance(step, Open):
                opens.append(Opens(tr("{name}, off").format(name=name) if off else name, step.command))
            elif isinstance(step, Text):
                text = _typed(step)
                types.append((tr("{name}, off").format(name=name) if off else name, text))
        unattended += [(name, why) for why in _unattended(macro.play)]
        desktop += [(name, tr("presses {keys}").format(keys=keys)) for keys in _desktop_keys(macro)]
    for profile in bundle.profiles:
        for setup in profile.setups:
            for _, code, cell in setup.every():
                where = tr("{button} in {profile}").format(button=label(code), profile=visible(profile.name))
                if isinstance(cell, StartProgram):
                    opens.append(Opens(where, cell.command))
                elif isinstance(cell, TypeText):
                    types.append((where, _typed(cell)))
                elif isinstance(cell, RunMacro) and cell.play:
                    unattended += [(where, why) for why in _unattended(cell.play)]
                elif isinstance(cell, ToChord | ToControl):
                    codes = cell.controls if isinstance(cell, ToChord) else (cell.control,)
                    desktop += [(where, tr("presses {keys}").format(keys=keys)) for keys in _reaching(set(codes))]
    clashes = [
        *(visible(each.name) for each in bundle.profiles if _same(each, profiles)),
        *(visible(each.name) for each in bundle.macros if _same(each, macros)),
    ]
    return Contents(
        tuple(visible(each.name) for each in bundle.profiles),
        tuple(visible(each.name) for each in bundle.macros),
        tuple(_link(each, rule) for each in bundle.profiles for rule in each.programs),
        tuple(opens),
        tuple(types),
        tuple(unattended),
        tuple(desktop),
        tuple(clashes),
    )


# So many runs of a Counted macro are no longer looked after by anybody.
_MANY_RUNS = 1_000


def _typed(what: Text | TypeText) -> str:
    return tr("the secret {name}").format(name=visible(what.secret)) if what.secret else visible(what.text)


def _unattended(play: Play) -> Iterable[str]:
    if play.mode is Mode.TOGGLE and not (play.limit_runs or play.limit_us):
        yield tr("runs until it is stopped")
    if play.mode is Mode.COUNTED and play.runs > _MANY_RUNS:
        yield tr("plays {runs} times").format(runs=shown_number(play.runs))
    if play.mode is Mode.TOGGLE and play.limit_runs and play.limit_runs > _MANY_RUNS:
        yield tr("plays up to {runs} times").format(runs=shown_number(play.limit_runs))


def _link(profile: Profile, rule: ProgramRule) -> str:
    """A link in words; one to a program that always runs is pointed out."""
    file = rule.value.rpartition("/")[2]
    always = is_background(Program(0, file, rule.value)) or file.startswith(_ALWAYS)
    told = f"{visible(profile.name)}: {visible(describe_rule(rule))}"
    if always:
        return tr("{rule} (it runs nearly all the time, and the profile would be live as long)").format(rule=told)
    return told


# The desktop's own windows and usual terminals, beside what `is_background` knows (common practice, no published
# source).
_ALWAYS = (
    "gnome-shell",
    "kwin",
    "mutter",
    "nautilus",
    "dolphin",
    "xterm",
    "konsole",
    "gnome-terminal",
    "python",
    "sway",
    "weston",
)
_ALT, _CTRL = {"KEY_LEFTALT", "KEY_RIGHTALT"}, {"KEY_LEFTCTRL", "KEY_RIGHTCTRL"}
_META = {"KEY_LEFTMETA", "KEY_RIGHTMETA"}


def _reaching(down: set[str]) -> Iterable[str]:
    """The combinations by which a desktop opens its menus, a line for commands, a terminal or another console."""
    if down & _META:
        yield tr("the Super key")
    if down & _ALT and "KEY_F2" in down:
        yield tr("Alt + F2")
    if down & _ALT and down & _CTRL:
        yield tr("Ctrl + Alt and another key")


def _desktop_keys(macro: Macro) -> list[str]:
    """Which of these the macro may press, whatever is switched off in it."""
    found: dict[str, None] = {}
    down: set[str] = set()
    for step, _ in _steps(macro):
        now = set(step.controls) if isinstance(step, Chord) else {getattr(step, "control", "")}
        if isinstance(step, Release):
            down -= now
            continue
        found.update(dict.fromkeys(_reaching(down | now)))
        if isinstance(step, Press):
            down |= now
    return list(found)


def merge(
    bundle: Bundle,
    profiles: Mapping[str, Profile],
    macros: Mapping[str, Macro],
    clash: Clash,
    new_id: Callable[[], str],
    allowed: Collection[tuple[str, ...]] = (),
    live: Collection[str] = (),
) -> Merged:
    """What to save of the bundle. Steps that open a program are switched off, and so are buttons that do, unless their
    command is among those `allowed`; profiles wait to be allowed to go live, unless their id is among `live`."""
    ids: dict[str, str] = {}
    some_macros = _accepted(bundle.macros, macros, clash, new_id, ids)
    places: dict[str, str] = {}
    some_profiles = _accepted(bundle.profiles, profiles, clash, new_id, places, live)
    back = {now: before for before, now in places.items()}
    return Merged(
        tuple(_landed(profile, ids, places, allowed, back[profile.id] in live) for profile in some_profiles),
        tuple(_without_opens(macro, allowed) for macro in some_macros),
    )


def _steps(macro: Macro) -> Iterable[tuple[Step, bool]]:
    """Every step, also those inside blocks, and whether it is switched off."""
    for section in Section:
        yield from _within(macro.section(section), off=False)


def _within(steps: Iterable[Step], *, off: bool) -> Iterable[tuple[Step, bool]]:
    for step in steps:
        yield step, off or step.off
        for inside in branches(step):
            yield from _within(inside, off=off or step.off)


def _same(item: Profile | Macro, there: Mapping[str, Profile] | Mapping[str, Macro]) -> str:
    """The id of what the item clashes with: the same id, else the same name; '' for nothing. What is equal in all is no
    clash."""
    if item.id in there:
        return "" if there[item.id] == item else item.id
    return next((key for key, other in there.items() if other.name == item.name), "")


def _accepted(
    items: Iterable[Item],
    there: Mapping[str, Item],
    clash: Clash,
    new_id: Callable[[], str],
    ids: dict[str, str],
    live: Collection[str] = (),
) -> list[Item]:
    """The items to be saved; `ids` gets what each one's id has become."""
    found: list[Item] = []
    names = {other.name for other in there.values()}
    for item in items:
        if there.get(item.id) == item:
            # It is there already, and what is allowed of it stays allowed.
            ids[item.id] = item.id
            continue
        same = _same(item, there)
        if same and clash is Clash.SKIP:
            ids[item.id] = same
            continue
        after = item
        # Everyday is live by itself, so another one takes its place only where it is allowed to be live.
        if same and clash is Clash.REPLACE and (EVERYDAY not in (same, item.id) or item.id in live):
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
    profile: Profile,
    ids: Mapping[str, str],
    places: Mapping[str, str],
    allowed: Collection[tuple[str, ...]],
    live: bool,
) -> Profile:
    """The profile with its cells playing the macros, and going to the profiles, under the ids that they have now, and
    opening nothing else."""

    def landed(cell: Cell) -> Cell:
        if isinstance(cell, RunMacro):
            return msgspec.structs.replace(cell, macro=ids.get(cell.macro, cell.macro))
        if isinstance(cell, GoTo) and cell.what is What.PROFILE:
            return msgspec.structs.replace(cell, to=places.get(cell.to, cell.to))
        if isinstance(cell, StartProgram) and cell.command not in allowed:
            return msgspec.structs.replace(cell, off=True)
        return cell

    setups = tuple(setup.with_each(landed) for setup in profile.setups)
    return msgspec.structs.replace(profile, setups=setups, allowed=live or not profile.programs)


def _without_opens(macro: Macro, allowed: Collection[tuple[str, ...]]) -> Macro:
    def inert(step: Step) -> Step:
        if isinstance(step, Open) and step.command not in allowed:
            return msgspec.structs.replace(step, off=True)
        return step

    return with_each(macro, inert)
