"""Starting the service at login: a unit of the user's systemd where the desktop starts those, else an entry of the XDG
autostart folder (Desktop Application Autostart Specification 0.5)."""

from __future__ import annotations

import os
import re
import shlex
import shutil
import subprocess
from pathlib import Path

from nakrel.desktop.names import APP_ID, SHARE
from nakrel.desktop.places import Places, for_all_users, own_command
from nakrel.system_errors import reason_of

__all__ = ["LoginError", "is_on", "turn_off", "turn_on", "with_command"]

_UNIT = "nakrel.service"
_TARGET = "graphical-session.target"
_ENTRY = """\
[Desktop Entry]
Type=Application
Name=Nakrel
Comment=Macros on keys and mouse buttons
Exec=nakrel service --with-session
Icon={icon}
Terminal=false
NoDisplay=true
"""
_LIMIT_S = 10


class LoginError(Exception):
    """It can't be changed; the message says why."""


def with_command(text: str, command: str) -> str:
    """A desktop entry, bus service or unit that starts this program in place of the system's."""
    return re.sub(r"^(Exec|ExecStart)=(?:/usr/bin/)?nakrel\b", lambda found: f"{found[1]}={command}", text, flags=re.M)


def is_on(places: Places | None = None) -> bool:
    """Whether the service starts at login."""
    places = places or Places.of_user()
    return _entry(places).exists() or _wanted(places).is_symlink() or _wanted(places).exists()


def turn_on(places: Places | None = None, command: list[str] | None = None) -> str:
    """Let the service start at login; returns by what. Raises `LoginError`."""
    places = places or Places.of_user()
    own = shlex.join(command or own_command())
    try:
        turn_off(places)
        if _systemd_starts_sessions():
            unit = _unit(places)
            if not for_all_users():
                unit.parent.mkdir(parents=True, exist_ok=True)
                text = (SHARE / "systemd" / "user" / _UNIT).read_text(encoding="utf-8")
                unit.write_text(with_command(text, own), encoding="utf-8")
            target = unit if not for_all_users() else Path("/usr/lib/systemd/user") / _UNIT
            _wanted(places).parent.mkdir(parents=True, exist_ok=True)
            _wanted(places).symlink_to(target)
            _systemctl("daemon-reload")
            return "systemd"
        entry = _entry(places)
        entry.parent.mkdir(parents=True, exist_ok=True)
        entry.write_text(with_command(_ENTRY.format(icon=APP_ID), own), encoding="utf-8")
    except OSError as error:
        raise LoginError(f"{error.filename}: {reason_of(error)}") from None
    return "autostart"


def turn_off(places: Places | None = None) -> None:
    """Let nothing start at login any more. Raises `LoginError`."""
    places = places or Places.of_user()
    try:
        _entry(places).unlink(missing_ok=True)
        had_unit = _wanted(places).is_symlink() or _unit(places).exists()
        _wanted(places).unlink(missing_ok=True)
        _unit(places).unlink(missing_ok=True)
    except OSError as error:
        raise LoginError(f"{error.filename}: {reason_of(error)}") from None
    if had_unit:
        _systemctl("daemon-reload")


def _entry(places: Places) -> Path:
    return places.config / "autostart" / f"{APP_ID}.desktop"


def _unit(places: Places) -> Path:
    return places.config / "systemd" / "user" / _UNIT


def _wanted(places: Places) -> Path:
    # What `systemctl --user enable` makes of the unit's [Install] section (systemd.unit(5)).
    return places.config / "systemd" / "user" / f"{_TARGET}.wants" / _UNIT


def _systemd_starts_sessions() -> bool:
    """Whether this session is one that systemd knows of: others never reach its target, and units would never start."""
    return _systemctl("is-active", "--quiet", _TARGET)


def _systemctl(*arguments: str) -> bool:
    found = shutil.which("systemctl")
    if found is None or not os.environ.get("XDG_RUNTIME_DIR"):
        return False
    try:
        command = [found, "--user", *arguments]
        return subprocess.run(command, capture_output=True, timeout=_LIMIT_S, check=False).returncode == 0
    except (OSError, subprocess.TimeoutExpired):
        return False
