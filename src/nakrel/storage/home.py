"""Where everything lies: the XDG folders, or one folder given as `--home`."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path

import platformdirs

from nakrel.private import is_mine

__all__ = ["Home"]


@dataclass(frozen=True)
class Home:
    """The folders of one installation of Nakrel's data; two homes never meet."""

    config: Path
    state: Path
    runtime: Path

    @classmethod
    def find(cls, folder: str | os.PathLike[str] | None = None) -> Home:
        """The home in `folder`, else in $NAKREL_HOME, else in the XDG base directories."""
        chosen = folder or os.environ.get("NAKREL_HOME")
        if chosen:
            base = Path(chosen).expanduser().absolute()
            return cls(base / "config", base / "state", base / "run")
        state = Path(platformdirs.user_state_dir("nakrel", appauthor=False))
        return cls(Path(platformdirs.user_config_dir("nakrel", appauthor=False)), state, _runtime(state))

    @property
    def profiles(self) -> Path:
        """The profile files."""
        return self.config / "profiles"

    @property
    def macros(self) -> Path:
        """The macro files."""
        return self.config / "macros"

    @property
    def settings(self) -> Path:
        """The settings file."""
        return self.config / "settings.json"

    @property
    def history(self) -> Path:
        """Earlier versions of profiles and macros."""
        return self.state / "history"

    @property
    def takes(self) -> Path:
        """The recordings of macros as they were made."""
        return self.state / "takes"

    @property
    def tunings(self) -> Path:
        """The searches for the shortest time that works."""
        return self.state / "tunings"

    @property
    def in_use(self) -> Path:
        """Which variants are in use."""
        return self.state / "set-ups.json"

    @property
    def journal(self) -> Path:
        """The journal, a JSON object a line."""
        return self.state / "journal.jsonl"

    @property
    def socket(self) -> Path:
        """The service's socket."""
        return self.runtime / "service.sock"

    @property
    def lock(self) -> Path:
        """The lock that lets only one service run."""
        return self.runtime / "service.lock"

    @property
    def log(self) -> Path:
        """What the service says to developers, tracebacks included."""
        return self.state / "service.log"

    @property
    def window_log(self) -> Path:
        """The same of the window."""
        return self.state / "window.log"


def _runtime(state: Path) -> Path:
    """A folder for the socket that is this user's alone: the session's, or where there is none one beside the state.
    Never one in a place that is shared, where others could have been first."""
    session = os.environ.get("XDG_RUNTIME_DIR", "")
    return Path(session) / "nakrel" if session.startswith("/") and is_mine(session) else state / "run"
