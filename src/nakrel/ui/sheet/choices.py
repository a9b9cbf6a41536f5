"""Choices of whole cells: where a control goes, and which speed it gives the pointer."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from PyQt6.QtWidgets import QComboBox

from nakrel.core.model.cells import Cell, ChangeSpeed, GoTo, What
from nakrel.core.model.profile import Profile
from nakrel.ui.widgets.basics import choice

__all__ = ["CellChoice", "places", "speeds"]

_ROUTES: tuple[tuple[str, Literal[-1, 1]], ...] = (("next", 1), ("previous", -1))
Offer = Sequence[tuple[str, Cell]]


class CellChoice:
    """A list of cells in words, filled anew only where another list is offered."""

    def __init__(self, name: str) -> None:
        self.box: QComboBox = choice(name)
        self._offered: Offer = ()

    def offer(self, cells: Offer, chosen: Cell | None) -> None:
        """List these, and show which is chosen."""
        if list(cells) != list(self._offered):
            self._offered = list(cells)
            self.box.clear()
            self.box.addItems([text for text, _ in cells])
        self.box.setCurrentIndex(next((n for n, (_, cell) in enumerate(self._offered) if cell == chosen), -1))

    def cell(self, number: int) -> Cell:
        """The cell of an entry."""
        return self._offered[number][1]


def places(profile: Profile, profiles: Sequence[tuple[str, str]]) -> Offer:
    """The variants of the profile and all profiles, which come with name and id."""
    several = len(profile.setups) > 1
    found: list[tuple[str, Cell]] = []
    if several:
        found += [(f"variant {each.name}", GoTo(What.SETUP, each.name)) for each in profile.setups]
        found += [(f"{word} variant", GoTo(What.SETUP, by=by)) for word, by in _ROUTES]
    found += [(f"profile {name}", GoTo(What.PROFILE, key)) for name, key in profiles]
    return [*found, *((f"{word} profile", GoTo(What.PROFILE, by=by)) for word, by in _ROUTES)]


def speeds(profile: Profile, *, wheel: bool) -> Offer:
    """The profile's pointer speeds, to go to and to hold; a wheel direction can't be held."""
    found: list[tuple[str, Cell]] = []
    stages = profile.pointer.stages
    if not wheel:
        found += [(f"{each.name} while held, {each.describe()}", ChangeSpeed(each.name, held=True)) for each in stages]
    if len(stages) > 1:
        found += [(f"{word} speed", ChangeSpeed(by=by)) for word, by in _ROUTES]
    return [*found, *((f"speed {each.name}, {each.describe()}", ChangeSpeed(each.name)) for each in stages)]
