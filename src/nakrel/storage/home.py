"""Where everything lies: the XDG folders, or one folder given as `--home`."""

from __future__ import annotations

import hashlib
import os
import tempfile
import warnings
from dataclasses import dataclass
from pathlib import Path

import platformdirs

__all__ = ["Home"]

# sun_path holds 108 bytes with its closing zero (unix(7)).
_MAX_SOCKET_PATH = 107


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
            return cls(base / "config", base / "state", _short(base / "run"))
        with warnings.catch_warnings():
            # Without $XDG_RUNTIME_DIR it warns of a folder in /tmp; the socket in it is for this user alone.
            warnings.simplefilter("ignore")
            runtime = platformdirs.user_runtime_dir("nakrel", appauthor=False)
        return cls(
            Path(platformdirs.user_config_dir("nakrel", appauthor=False)),
            Path(platformdirs.user_state_dir("nakrel", appauthor=False)),
            Path(runtime),
        )

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
    def in_use(self) -> Path:
        """Which set-ups are in use."""
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


def _short(runtime: Path) -> Path:
    """The folder itself, or a short stand-in for it where a socket's path would get too long."""
    if len(os.fsencode(runtime / "service.sock")) <= _MAX_SOCKET_PATH:
        return runtime
    mark = hashlib.sha256(os.fsencode(runtime)).hexdigest()[:16]
    return Path(tempfile.gettempdir()) / f"nakrel-{os.getuid()}-{mark}"
