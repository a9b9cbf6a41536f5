"""Game keys: macros and cells name what a game does, and the profile says which key the game has for it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

import msgspec

from nakrel.core.model.cells import Cell, RunMacro, ToChord, ToControl
from nakrel.core.model.controls import CONTROLS, GAME, Kind, control, label
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro, with_each
from nakrel.core.model.names import name_of, read_control
from nakrel.core.model.profile import GameKey, Profile, SetUp
from nakrel.core.model.steps import Chord, Note, Press, Release, Step, Tap, Wait, Wheel, walk
from nakrel.words import tr

__all__ = ["named_in", "read_csv", "renamed", "resolve", "resolve_cell", "unused", "uses_of", "write_csv"]

# Keys that most games leave alone; those beyond F12 are on no usual keyboard, so that nothing else sends them
# (common practice, no published source).
_FREE = [f"KEY_F{n}" for n in range(13, 25)]


def _codes(step: Step) -> tuple[str, ...]:
    if isinstance(step, Chord):
        return step.controls
    return (step.control,) if isinstance(step, Press | Release | Tap) else ()


def named_in(macro: Macro) -> list[str]:
    """The codes of the game keys that the macro names, in the order of first use."""
    sections = (macro.lead_in, macro.loop, macro.lead_out)
    found = (code for steps in sections for step in walk(steps) for code in _codes(step))
    return list(dict.fromkeys(code for code in found if code.startswith(GAME)))


def resolve(macro: Macro, keys: Mapping[str, str], profile: str) -> Macro:
    """The macro with controls in place of game keys; the same object where it names none.

    A tap of what the game has on the wheel is one notch. Raises `DataError` for a game key that `profile` lacks.
    """
    named = named_in(macro)
    if not named:
        return macro
    if missing := [label(code) for code in named if code not in keys]:
        raise DataError(
            tr("{profile} has no game key {names}; add it to the profile's game keys").format(
                profile=profile, names=tr(" and no ").join(missing)
            )
        )

    def plain(step: Step) -> Step:
        codes = tuple(dict.fromkeys(keys.get(code, code) for code in _codes(step)))
        if not codes or codes == _codes(step):
            return step
        wheels = [code for code in codes if control(code).kind is Kind.WHEEL]
        if wheels:
            if isinstance(step, Release):
                return Note(text="the wheel needs no release")
            hold = step.hold_us if isinstance(step, Tap | Chord) else 0
            if len(codes) == 1:
                return Wheel(control=wheels[0], notches=1, remark=step.remark, off=step.off)
            return Wait(wait_us=hold, remark=step.remark, off=step.off)
        if isinstance(step, Chord):
            if len(codes) == 1:
                return Tap(control=codes[0], hold_us=step.hold_us, remark=step.remark, off=step.off)
            return msgspec.structs.replace(step, controls=codes)
        return msgspec.structs.replace(step, control=codes[0])

    return with_each(macro, plain)


def resolve_cell(cell: Cell, keys: Mapping[str, str]) -> Cell | None:
    """The cell with controls in place of game keys; None where the profile lacks one, or has it on the wheel."""
    if not isinstance(cell, ToControl | ToChord):
        return cell
    codes = (cell.control,) if isinstance(cell, ToControl) else cell.controls
    found = tuple(dict.fromkeys(keys.get(code, code) for code in codes))
    if any(code not in CONTROLS or CONTROLS[code].kind is Kind.WHEEL for code in found):
        return None
    if found == codes:
        return cell
    return ToControl(found[0]) if len(found) == 1 else ToChord(found)


def uses_of(code: str, profile: Profile, macros: Mapping[str, Macro]) -> tuple[list[Macro], int]:
    """The macros attached in the profile that name the game key, and how many of its cells do."""
    attached = {cell.macro for *_, cell in profile.cells() if isinstance(cell, RunMacro)}
    found = [macros[key] for key in sorted(attached) if key in macros and code in named_in(macros[key])]
    return found, sum(code in _cell_codes(cell) for *_, cell in profile.cells())


def _cell_codes(cell: Cell) -> tuple[str, ...]:
    if isinstance(cell, ToChord):
        return cell.controls
    return (cell.control,) if isinstance(cell, ToControl) else ()


def renamed(old: str, new: str, profile: Profile, macros: Iterable[Macro]) -> tuple[Profile, list[Macro]]:
    """The profile's cells and the macros with one game key's code in place of another's."""

    def cell_of(cell: Cell) -> Cell:
        if isinstance(cell, ToControl) and cell.control == old:
            return ToControl(new)
        if isinstance(cell, ToChord) and old in cell.controls:
            return ToChord(tuple(new if code == old else code for code in cell.controls))
        return cell

    def step_of(step: Step) -> Step:
        if isinstance(step, Chord) and old in step.controls:
            return msgspec.structs.replace(step, controls=tuple(new if c == old else c for c in step.controls))
        if isinstance(step, Press | Release | Tap) and step.control == old:
            return msgspec.structs.replace(step, control=new)
        return step

    setups: tuple[SetUp, ...] = tuple(setup.with_each(cell_of) for setup in profile.setups)
    return msgspec.structs.replace(profile, setups=setups), [with_each(macro, step_of) for macro in macros]


def unused(profile: Profile) -> list[str]:
    """Keys that the game leaves free, so far as its list of game keys tells: F13 to F24, then letters and digits."""
    taken = {key.control for key in profile.keys}
    rest = [code for code, known in CONTROLS.items() if len(known.label) == 1 and known.label.isalnum()]
    return [code for code in (*_FREE, *(rest if profile.keys else ())) if code not in taken]


def write_csv(keys: Iterable[GameKey]) -> str:
    """The keys as a table with a head (RFC 4180): the game's name for each, and the control's name."""
    import csv
    import io

    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\r\n")
    rows.writerow(("name", "control"))
    rows.writerows((key.name, name_of(key.control)) for key in keys)
    return out.getvalue()


def read_csv(text: str) -> tuple[GameKey, ...]:
    """The keys of such a table; controls may be told by name or code. Raises `DataError` with the line."""
    import csv
    import io

    found: dict[str, GameKey] = {}
    try:
        rows = list(csv.reader(io.StringIO(text.removeprefix("\ufeff")), strict=True))
    except csv.Error as error:
        raise DataError(tr("this is no CSV: {reason}").format(reason=error)) from None
    for number, row in enumerate(rows, 1):
        cells = [cell.strip() for cell in row]
        if not any(cells) or (number == 1 and [cell.casefold() for cell in cells] == ["name", "control"]):
            continue
        if len(cells) != 2:
            raise DataError(
                tr("line {number}: expected a name and a key, found {cells} fields").format(
                    number=number, cells=len(cells)
                )
            )
        try:
            key = GameKey(cells[0], read_control(cells[1]))
        except (DataError, ValueError) as error:
            raise DataError(tr("line {number}: {reason}").format(number=number, reason=error)) from None
        if key.name in found:
            raise DataError(tr("line {number}: {key!r} is there twice").format(number=number, key=key.name))
        found[key.name] = key
    return tuple(found.values())
