"""Putting the demo's data into a home."""

from __future__ import annotations

from nakrel.core.model.settings import Settings, WindowState
from nakrel.demo.data import MACROS, PROFILES
from nakrel.storage.home import Home
from nakrel.storage.library import Library

__all__ = ["seed"]


def seed(home: Home) -> None:
    """Fill an empty home with the demo's data; a home that has profiles already is left as it is."""
    if any(home.profiles.glob("*.json")):
        return
    library = Library(home)
    for profile in PROFILES:
        library.put_profile(profile)
    for macro in MACROS:
        library.put_macro(macro)
    library.put_settings(Settings(stand_ins=True, shown=WindowState("tidewardens", "reel-in", "sheet")))
