"""The names by which the desktop knows Nakrel."""

from __future__ import annotations

from pathlib import Path

__all__ = ["APP_ID", "BUS_PATH", "MIME_TYPE", "SHARE", "icon_file"]

# The desktop entry, the icons, the AppStream data and the name on the session bus are all called so.
APP_ID = "org.nakrel.Nakrel"
BUS_PATH = "/org/nakrel/Nakrel"
MIME_TYPE = "application/vnd.nakrel.profiles+zip"
# What is installed, as it lies below /usr/share, but for paths of the program.
SHARE = Path(__file__).parent / "share"


def icon_file() -> Path:
    """The icon as a file, for what can't look it up by its name."""
    return SHARE / "icons" / "hicolor" / "scalable" / "apps" / f"{APP_ID}.svg"
