"""What is live: the variant in use, with what falls through to Everyday and the profile's own keys for the game's."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence

import msgspec

from nakrel.core.model.cells import Cell, ChangeSpeed, GoTo, Nothing, What
from nakrel.core.model.conditioning import Motion, motion_of
from nakrel.core.model.macro import Play
from nakrel.core.model.profile import EVERYDAY, FairPlay, Layer, Profile, SetUp, keeps_left_click
from nakrel.core.play.operations import Plan
from nakrel.core.play.sheet import NOTCH_US, Sheet
from nakrel.words import order_of

__all__ = ["fall_through", "falling", "motion_now", "next_profile", "next_setup", "next_stage", "sheet_of"]


def falling(profile: Profile, in_use: Mapping[str, str], profiles: Mapping[str, Profile]) -> SetUp | None:
    """The variant of Everyday that empty cells of the profile fall through to; None where they don't."""
    everyday = profiles.get(EVERYDAY)
    if not profile.falls_through or profile.id == EVERYDAY or everyday is None:
        return None
    return everyday.setup(in_use.get(EVERYDAY, ""))


def fall_through(setup: SetUp, below: SetUp | None) -> dict[str, Cell]:
    """The cells without a layer that come from `below`, since the variant has none of its own for their controls.

    A left click that `below` gives to another control stays with Left where that other control isn't free here.
    """
    if below is None:
        return {}
    found = {code: cell for code, cell in below.cells.items() if code not in setup.cells}
    if not keeps_left_click({**found, **setup.cells}):
        found.pop("BTN_LEFT", None)
    return found


def _layers(setup: SetUp, below: SetUp | None) -> Sequence[Layer]:
    names = {layer.name for layer in setup.layers}
    return (*setup.layers, *(layer for layer in (below.layers if below else ()) if layer.name not in names))


def sheet_of(
    profile: Profile,
    in_use: Mapping[str, str],
    profiles: Mapping[str, Profile],
    plan_of: Callable[[str], tuple[Plan, Play] | None],
    notch_us: int = NOTCH_US,
    silent: Collection[str] = (),
) -> Sheet:
    """The sheet that the engine plays by while the profile is live; `in_use` are variants by profile, `notch_us` is
    for how long a notch of the wheel presses what it acts as.

    `silent` controls do nothing, whatever they are given. Where the game allows no macros, everything passes through
    as the devices have it.
    """
    setup = profile.setup(in_use.get(profile.id, ""))
    name = f"{profile.id} {setup.name}"
    if profile.fair_play is FairPlay.NO_MACROS:
        # A sheet of its own, so that what still plays ends when the rule comes.
        return Sheet(f"{name}, {FairPlay.NO_MACROS}", {})
    below = falling(profile, in_use, profiles)
    none: dict[str, Cell] = dict.fromkeys(silent, Nothing())
    cells = {**fall_through(setup, below), **setup.cells, **none}
    layers = [
        msgspec.structs.replace(layer, cells={**layer.cells, **none}) if none else layer
        for layer in _layers(setup, below)
    ]
    return Sheet.build(name, cells, plan_of, layers, profile.key_table(), notch_us)


def next_setup(profile: Profile, now: str, go: GoTo) -> str:
    """The variant that a control goes to, by name; `now` where there is no other."""
    names = [setup.name for setup in profile.setups]
    if go.to:
        return go.to if go.to in names else now
    return names[(names.index(profile.setup(now).name) + go.by) % len(names)]


def motion_now(profile: Profile, stage: str, held: str = "") -> Motion | None:
    """What the profile makes of the pointer's motion while this is its stage and a control holds another, '' for none.

    None where devices are left alone: where no stage changes anything, and where the game allows no macros.
    """
    if profile.fair_play is FairPlay.NO_MACROS:
        return None
    names = [each.name for each in profile.pointer.stages]
    return motion_of(profile.pointer, held if held in names else stage)


def next_stage(profile: Profile, now: str, change: ChangeSpeed) -> str:
    """The pointer speed that a control goes to, by name; `now` where there is no other."""
    names = [stage.name for stage in profile.pointer.stages]
    if change.to or not names:
        return change.to if change.to in names else now
    return names[((names.index(now) if now in names else 0) + change.by) % len(names)]


def next_profile(profiles: Mapping[str, Profile], now: str, go: GoTo) -> str:
    """The profile that a control goes to, by id; `now` where there is no other. Everyday comes first, then all others
    by their names."""
    assert go.what is What.PROFILE
    if go.to:
        return go.to if go.to in profiles else now
    order = sorted(profiles, key=lambda key: (key != EVERYDAY, order_of(profiles[key].name)))
    return order[(order.index(now) + go.by) % len(order)] if now in order else now
