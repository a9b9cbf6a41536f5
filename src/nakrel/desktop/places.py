"""Where a user's own programs and their data go (XDG Base Directory Specification, and systemd's file hierarchy)."""

from __future__ import annotations

import os
import sys
from pathlib import Path
from typing import NamedTuple

import platformdirs

__all__ = ["Places", "for_all_users", "own_command"]


class Places(NamedTuple):
    """The folders of a user: programs, data, configuration, and state."""

    programs: Path
    data: Path
    config: Path
    state: Path

    @classmethod
    def of_user(cls) -> Places:
        """Those of who runs this."""
        state = Path(platformdirs.user_state_dir("nakrel", appauthor=False))
        return cls(
            Path.home() / ".local" / "bin",
            Path(platformdirs.user_data_dir()),
            Path(platformdirs.user_config_dir()),
            state,
        )

    @property
    def launcher(self) -> Path:
        """What is typed to start Nakrel."""
        return self.programs / "nakrel"

    @property
    def practice(self) -> Path:
        """The same for the practice game."""
        return self.programs / "nakrel-practice"

    @property
    def manifest(self) -> Path:
        """What was installed, to be taken back."""
        return self.state / "installed.json"


def for_all_users() -> bool:
    """Whether this Nakrel came with a package of the system: then everything is in its place."""
    return Path(__file__).is_relative_to("/usr/lib/nakrel")


def own_command() -> list[str]:
    """What starts this very Nakrel, whatever is in the search path."""
    if for_all_users():
        return ["/usr/bin/nakrel"]
    beside = Path(sys.executable).parent / "nakrel"
    return [str(beside)] if os.access(beside, os.X_OK) else [sys.executable, "-m", "nakrel"]
