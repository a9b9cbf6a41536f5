"""What shells offer for the names of macros, profiles and variants: those that there are."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING

import click
from click.shell_completion import CompletionItem

from nakrel.storage.home import Home

if TYPE_CHECKING:
    from nakrel.storage.library import Library

__all__ = ["macro_names", "profile_names", "variant_names"]


def _library(context: click.Context) -> Library:
    """The library of the home that was typed; what is damaged is of no matter here."""
    # No other command waits until what reads files is loaded.
    from nakrel.storage.library import Library

    library = Library(Home.find(context.find_root().params.get("home")), read_only=True)
    library.load()
    return library


def _beginning(names: Iterable[str], typed: str) -> list[CompletionItem]:
    found = {name for name in names if name.casefold().startswith(typed.casefold())}
    return [CompletionItem(name) for name in sorted(found, key=str.casefold)]


def macro_names(context: click.Context, parameter: click.Parameter, typed: str) -> list[CompletionItem]:
    """The macros whose names begin so."""
    return _beginning((each.name for each in _library(context).macros.values()), typed)


def profile_names(context: click.Context, parameter: click.Parameter, typed: str) -> list[CompletionItem]:
    """The profiles whose names begin so."""
    return _beginning((each.name for each in _library(context).profiles.values()), typed)


def variant_names(context: click.Context, parameter: click.Parameter, typed: str) -> list[CompletionItem]:
    """The variants of all profiles whose names begin so."""
    profiles = _library(context).profiles.values()
    return _beginning((setup.name for profile in profiles for setup in profile.setups), typed)
