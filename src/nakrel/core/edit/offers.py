"""What a button could do, offered by what is typed: macros, keys, combinations, texts, programs and all else.

Everything that can be understood is offered, so that it can be taken; the best match comes first, and an exact name
before all others.
"""

from __future__ import annotations

import re
import shlex
from collections.abc import Iterable, Iterator, Sequence
from enum import Enum, StrEnum, auto
from functools import lru_cache
from typing import Literal, NamedTuple

from nakrel.core.model.cells import (
    ACTION_LABELS,
    Cell,
    ChangeSpeed,
    GoTo,
    HoldLayer,
    Nothing,
    RunMacro,
    RunSystemAction,
    StartProgram,
    ToChord,
    ToControl,
    TypeText,
    What,
)
from nakrel.core.model.controls import CONTROLS, Kind, game_key, label
from nakrel.core.model.errors import DataError
from nakrel.core.model.game_keys import unused
from nakrel.core.model.limits import MAX_NAME, MAX_TEXT
from nakrel.core.model.macro import Macro, cycle_us, describe_play
from nakrel.core.model.names import rank, read_shown
from nakrel.core.model.profile import Profile, SetUp
from nakrel.core.model.units import shown_rate
from nakrel.words import language, noted, order_of, tr

__all__ = ["Begin", "Beginning", "Group", "Known", "Offer", "Startable", "offers", "read_combination"]


class Group(StrEnum):
    """Under which heading it is offered, in the order in which they stand where nothing fits better."""

    MACROS = noted("Macros", "heading")
    KEYS = noted("Keys and buttons", "heading")
    COMBINATIONS = noted("Combinations", "heading")
    TEXT = noted("Text", "heading")
    PROGRAMS = noted("Programs", "heading")
    SYSTEM = noted("System and media", "heading")
    LAYERS = noted("Layers", "heading")
    PLACES = noted("Variants and profiles", "heading")
    SPEEDS = noted("Pointer speeds", "heading")
    OTHER = noted("Or", "heading")
    NEW = noted("New", "heading")


class Begin(Enum):
    """What can be begun for the button."""

    RAPID_FIRE = auto()
    CLICKS = auto()
    RECORD = auto()
    MACRO = auto()
    LAYER = auto()
    VARIANT = auto()
    PROFILE = auto()
    SPEED = auto()


class Beginning(NamedTuple):
    """Something new, under the name that was typed; '' where none was."""

    what: Begin
    name: str


class Offer(NamedTuple):
    """One line: what it says, softly what else there is to know, and what taking it does. None leaves the button
    unchanged. `program` is what a picture can be found for."""

    group: Group
    text: str
    does: Cell | Beginning | None
    soft: str = ""
    program: str = ""


class Startable(NamedTuple):
    """A program that can be started: what people call it, its command, and whether it runs now."""

    name: str
    command: tuple[str, ...]
    running: bool = False


class Known(NamedTuple):
    """What there is to offer: in the profile and its variant, all macros and profiles by id and name, and programs."""

    profile: Profile
    setup: SetUp
    control: str
    layer: str
    macros: Sequence[Macro]
    profiles: Sequence[tuple[str, str]]
    programs: Sequence[Startable] = ()


# How many lines a heading has at most, once something is typed.
_MOST = 6
# Where something in quotes or a command was typed, that is meant and nothing else.
_MEANT = -1
# What the text of a line hardly ever is; it is offered after all that fits.
_LAST = 9
# What people type for keys, beside their names: in English, and in the language of the window.
_MODIFIERS = {
    noted("ctrl", "typed"): "KEY_LEFTCTRL",
    noted("control", "typed"): "KEY_LEFTCTRL",
    # On German keyboards, whatever the language is.
    noted("strg", "typed"): "KEY_LEFTCTRL",
    noted("shift", "typed"): "KEY_LEFTSHIFT",
    noted("alt", "typed"): "KEY_LEFTALT",
    noted("altgr", "typed"): "KEY_RIGHTALT",
    noted("super", "typed"): "KEY_LEFTMETA",
    noted("meta", "typed"): "KEY_LEFTMETA",
    noted("win", "typed"): "KEY_LEFTMETA",
    noted("windows", "typed"): "KEY_LEFTMETA",
    noted("cmd", "typed"): "KEY_LEFTMETA",
}
_ALSO = {
    noted("escape", "typed"): "KEY_ESC",
    noted("return", "typed"): "KEY_ENTER",
    noted("del", "typed"): "KEY_DELETE",
    noted("ins", "typed"): "KEY_INSERT",
    noted("pgup", "typed"): "KEY_PAGEUP",
    noted("pgdn", "typed"): "KEY_PAGEDOWN",
    noted("pgdown", "typed"): "KEY_PAGEDOWN",
    noted("space bar", "typed"): "KEY_SPACE",
    noted("left click", "typed"): "BTN_LEFT",
    noted("click", "typed"): "BTN_LEFT",
    noted("right click", "typed"): "BTN_RIGHT",
    noted("middle click", "typed"): "BTN_MIDDLE",
}
# With a key held beside it these are the arrows; by themselves `left` and `right` are the mouse's buttons.
_ARROWS = {
    noted("left", "typed"): "KEY_LEFT",
    noted("right", "typed"): "KEY_RIGHT",
    noted("up", "typed"): "KEY_UP",
    noted("down", "typed"): "KEY_DOWN",
}
_CLOSING = {'"': '"', "'": "'", "“": "”", "„": "“", "«": "»"}
# What goes on or back by one: a variant, a profile, a pointer speed.
_BY: dict[Literal[-1, 1], tuple[str, str, str]] = {
    1: (noted("next variant"), noted("next profile"), noted("next speed")),
    -1: (noted("previous variant"), noted("previous profile"), noted("previous speed")),
}


def read_combination(text: str) -> tuple[str, ...]:
    """The keys and buttons of a combination as people type it: `ctrl+shift+left`, `Ctrl + C`. Raises `DataError`."""
    names = [part.strip() for part in re.split(r"\+(?!\s*(?:\+|$))|\+\s*(?=\+\s*$)", text)]
    if not all(names):
        raise DataError(tr("a + joins two keys; write one on each side of it"))
    return tuple(_code(name, combined=len(names) > 1) for name in names)


def _code(name: str, *, combined: bool) -> str:
    small = " ".join(name.casefold().split())
    arrows, others = _typed_names(language())
    if combined and small in arrows:
        return arrows[small]
    if small == "+":
        return "KEY_KPPLUS"
    return others.get(small) or read_shown(name)


@lru_cache(maxsize=1)
def _typed_names(language: str) -> tuple[dict[str, str], dict[str, str]]:
    """The arrows, and all others, by what is typed for them in this language, which is the one in use, and in
    English."""
    arrows, others = (
        known | {tr(word, "typed").casefold(): code for word, code in known.items()}
        for known in (_ARROWS, _MODIFIERS | _ALSO)
    )
    return arrows, others


def offers(typed: str, known: Known) -> list[Offer]:
    """All that fits what was typed, in groups, the best first; what the button could do at all where nothing was."""
    text = typed.strip()
    found: dict[Group, list[tuple[int, int, Offer]]] = {}
    for number, (fit, offer) in enumerate(_all(text, known)):
        found.setdefault(offer.group, []).append((fit, number, offer))
    groups = sorted(found, key=lambda group: (_best(found[group], group), list(Group).index(group)))
    result: list[Offer] = []
    for group in groups:
        lines = sorted(found[group], key=lambda line: line[:2])
        most = _MOST if text and group is not Group.NEW else len(lines)
        result += [offer for _, _, offer in lines[:most]]
    return result


def _best(lines: list[tuple[int, int, Offer]], group: Group) -> int:
    return _LAST + 1 if group is Group.NEW else min(fit for fit, _, _ in lines)


def _all(text: str, known: Known) -> Iterator[tuple[int, Offer]]:
    if quoted := _quoted(text):
        yield _MEANT, Offer(Group.TEXT, tr("types “{text}”").format(text=quoted), TypeText(quoted))
        return
    for offer, names in _named(text, known):
        fits = [fit for name in names if (fit := rank(name, text)) is not None] if text else [0]
        if fits:
            yield min(fits), offer
    yield from _keys(text, known)
    if text:
        yield from _command(text)
    if 0 < len(text) <= MAX_TEXT:
        yield _LAST, Offer(Group.TEXT, tr("types “{text}”").format(text=text), TypeText(text))
    yield from ((_LAST + 1, offer) for offer in _beginnings(text, known))


def _quoted(text: str) -> str:
    """What stands in quotes, also where they aren't closed yet."""
    if len(text) < 2 or text[0] not in _CLOSING:
        return ""
    return text[1:].removesuffix(_CLOSING[text[0]])[:MAX_TEXT]


def _named(text: str, known: Known) -> Iterator[tuple[Offer, tuple[str, ...]]]:
    """All that is found by a name, each with the names that it goes by."""
    for macro in sorted(known.macros, key=lambda each: order_of(each.name)):
        play = macro.play
        rate = shown_rate(cycle_us(macro, play)) if play.mode in ("held", "toggle") else ""
        soft = " · ".join(filter(None, (describe_play(play), rate)))
        yield Offer(Group.MACROS, macro.name, RunMacro(macro.id), soft), (macro.name,)
    if text:
        for each in known.programs:
            soft = tr("running") if each.running else shlex.join(each.command)
            offer = Offer(Group.PROGRAMS, each.name, StartProgram(each.command), soft, each.command[0])
            yield offer, (each.name, each.command[0].rpartition("/")[2])
    for action, words in ACTION_LABELS.items():
        yield Offer(Group.SYSTEM, tr(words), RunSystemAction(action)), (tr(words), words)
    if not _turns(known.control) and not known.layer:
        for layer in known.setup.layers:
            yield Offer(Group.LAYERS, layer.name, HoldLayer(layer.name), tr("while held")), (layer.name, tr("layer"))
    yield from _places(known)
    yield from _speeds(known)
    same = tr("as in base") if known.layer else tr("unchanged")
    yield Offer(Group.OTHER, same, None), (tr("unchanged"), tr("as in base"))
    yield Offer(Group.OTHER, tr("nothing"), Nothing()), (tr("nothing"), tr("off"))


def _places(known: Known) -> Iterator[tuple[Offer, tuple[str, ...]]]:
    profile = known.profile
    if len(profile.setups) > 1:
        for each in profile.setups:
            named = tr("variant {name}").format(name=each.name)
            yield Offer(Group.PLACES, named, GoTo(What.SETUP, each.name)), (each.name, tr("variant"))
        for by, (words, _, _) in _BY.items():
            yield Offer(Group.PLACES, tr(words), GoTo(What.SETUP, by=by)), (tr(words), tr("variant"))
    for key, name in known.profiles:
        named = tr("profile {name}").format(name=name)
        yield Offer(Group.PLACES, named, GoTo(What.PROFILE, key)), (name, tr("profile"))
    for by, (_, words, _) in _BY.items():
        yield Offer(Group.PLACES, tr(words), GoTo(What.PROFILE, by=by)), (tr(words), tr("profile"))


def _speeds(known: Known) -> Iterator[tuple[Offer, tuple[str, ...]]]:
    stages = known.profile.pointer.stages
    for each in stages:
        if not _turns(known.control):
            does = ChangeSpeed(each.name, held=True)
            held = tr("{name} while held").format(name=each.name)
            yield Offer(Group.SPEEDS, held, does, each.describe()), (held, tr("pointer speed"))
        does = ChangeSpeed(each.name)
        named = tr("speed {name}").format(name=each.name)
        yield Offer(Group.SPEEDS, named, does, each.describe()), (each.name, tr("pointer speed"))
    if len(stages) > 1:
        for by, (_, _, words) in _BY.items():
            yield Offer(Group.SPEEDS, tr(words), ChangeSpeed(by=by)), (tr(words), tr("pointer speed"))


def _keys(text: str, known: Known) -> Iterator[tuple[int, Offer]]:
    """Keys and buttons: the profile's game keys, keys that its game leaves free, and by what is typed all others."""
    games = {key.control: key.name for key in known.profile.keys}
    for key in known.profile.keys:
        fit = _fit(text, key.name)
        if fit is not None:
            does = ToControl(game_key(key.name))
            yield fit, Offer(Group.KEYS, f"“{key.name}”", does, tr("game key: {name}").format(name=label(key.control)))
    free = unused(known.profile)[:6] if known.profile.keys else []
    if not text:
        for code in free:
            yield 0, Offer(Group.KEYS, label(code), ToControl(code), tr("not used by the game"))
        return
    for control in CONTROLS.values():
        shown = label(control.code)
        fit = _fit(text, shown)
        if fit is None and len(text) > 2:
            fit = None if rank(control.code, text) is None else 4
        if fit is not None and control.kind is not Kind.WHEEL:
            soft = (
                tr("game key: {name}").format(name=games[control.code])
                if control.code in games
                else _soft_of(control.code)
            )
            yield fit, Offer(Group.KEYS, shown, ToControl(control.code), soft)
    yield from _typed_keys(text)


def _typed_keys(text: str) -> Iterator[tuple[int, Offer]]:
    """What was typed, read as a key or as a combination."""
    try:
        codes = read_combination(text)
        if len(codes) > 1:
            yield _MEANT, Offer(Group.COMBINATIONS, " + ".join(map(label, codes)), ToChord(codes))
        elif label(codes[0]).casefold() != text.casefold() and CONTROLS.get(codes[0]):
            yield 0, Offer(Group.KEYS, label(codes[0]), ToControl(codes[0]), codes[0])
    except DataError:
        return


def _turns(code: str) -> bool:
    """Whether it is a direction of the wheel, which can't be held."""
    return code in CONTROLS and CONTROLS[code].kind is Kind.WHEEL


def _soft_of(code: str) -> str:
    return tr("mouse button") if CONTROLS[code].kind is Kind.BUTTON else code


def _fit(text: str, name: str) -> int | None:
    return rank(name, text) if text else 0


def _command(text: str) -> Iterator[tuple[int, Offer]]:
    """A program with its arguments, where that is what was typed: a path, or `open` and a name."""
    word = next((word for word in ("open ", tr("open ", "typed")) if text.casefold().startswith(word)), "")
    command = text[len(word) :] if word else text if text[0] in "/~" else ""
    try:
        parts = tuple(shlex.split(command))
        if parts:
            program = parts[0].rpartition("/")[2]
            soft = shlex.join(parts)
            yield (
                _MEANT,
                Offer(
                    Group.PROGRAMS, tr("opens {program}").format(program=program), StartProgram(parts), soft, parts[0]
                ),
            )
    except ValueError:
        # A quote that isn't closed yet; or a `DataError`, which is one too.
        return


def _beginnings(text: str, known: Known) -> Iterable[Offer]:
    name = text[:MAX_NAME]
    # Each with and without the name that was typed.
    lines: list[tuple[str, str, Begin]] = [
        (tr("new rapid fire…"), tr("new rapid fire “{name}”…"), Begin.RAPID_FIRE),
        (tr("record now…"), tr("record now into “{name}”…"), Begin.RECORD),
        (tr("new click sequence…"), tr("new click sequence “{name}”…"), Begin.CLICKS),
        (tr("new macro…"), tr("new macro “{name}”…"), Begin.MACRO),
    ]
    if not _turns(known.control) and not known.layer:
        held = tr("new layer “{name}”, held by this button")
        lines.append((tr("new layer, held by this button"), held, Begin.LAYER))
    lines += [
        (tr("new variant, and go to it"), tr("new variant “{name}”, and go to it"), Begin.VARIANT),
        (tr("new profile, and go to it"), tr("new profile “{name}”, and go to it"), Begin.PROFILE),
        (tr("new pointer speed…"), tr("new pointer speed “{name}”…"), Begin.SPEED),
    ]
    return [
        Offer(Group.NEW, named.format(name=name) if name else line, Beginning(what, name))
        for line, named, what in lines
    ]
