"""Installing Nakrel for a user, and taking it back: what is put where is kept in a list."""

from __future__ import annotations

import json
import os
import shlex
import shutil
import subprocess
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

from nakrel.desktop import login
from nakrel.desktop.names import SHARE
from nakrel.desktop.places import Places, for_all_users, own_command
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["InstallError", "Installed", "install", "is_installed", "uninstall"]

# How the launchers are told from programs of the same name that came in another way.
_MARK = "# Made by `nakrel install`; `nakrel uninstall` takes it away."
# What keeps lists of entries, file types and icons (desktop-file-utils, shared-mime-info, GTK); where one is missing,
# the desktop looks by itself.
_REFRESH = (
    ("update-desktop-database", "-q", "applications"),
    ("update-mime-database", "mime"),
    ("gtk-update-icon-cache", "-q", "-t", "-f", "icons/hicolor"),
)
_LIMIT_S = 30


class InstallError(Exception):
    """It can't be installed or taken back; the message says why and what would help."""


class Installed(NamedTuple):
    """What was done: the files, and what the user should know of."""

    files: tuple[Path, ...]
    notes: tuple[str, ...] = ()


def is_installed(places: Places | None = None) -> bool:
    """Whether the desktop knows this Nakrel."""
    return for_all_users() or (places or Places.of_user()).manifest.exists()


def install(places: Places | None = None, command: list[str] | None = None) -> Installed:
    """Put Nakrel into the user's menu, and its commands into the search path. Done again it renews all of it. Raises
    `InstallError`."""
    if for_all_users():
        raise InstallError(tr("Nakrel is installed for all users of this computer; everything is in its place"))
    places, command = places or Places.of_user(), command or own_command()
    notes: list[str] = []
    files: list[Path] = []
    try:
        for launcher, own in ((places.launcher, command), (places.practice, _practice(command))):
            if _is_foreign(launcher):
                # pipx and its like make one of the same name.
                notes.append(tr("{launcher} was there already and is left as it is").format(launcher=launcher))
            else:
                _write(launcher, f'#!/bin/sh\n{_MARK}\nexec {shlex.join(own)} "$@"\n', 0o755)
                files.append(launcher)
        for path, text in _data(places, shlex.join(command)):
            _write(path, text)
            files.append(path)
        _write(places.manifest, json.dumps([str(path) for path in files], indent=1))
    except OSError as error:
        raise InstallError(
            tr("{filename}: {reason}; try again when that is mended").format(
                filename=error.filename, reason=reason_of(error)
            )
        ) from None
    _refresh(places.data)
    if str(places.programs) not in os.environ.get("PATH", "").split(os.pathsep):
        notes.append(
            tr("{programs} is not in your search path yet: log out and in, or type the whole path").format(
                programs=places.programs
            )
        )
    return Installed(tuple(files), tuple(notes))


def uninstall(places: Places | None = None) -> Installed:
    """Take back what `install` put there, and the start at login. Raises `InstallError`."""
    if for_all_users():
        raise InstallError(tr("Nakrel came with a package of the system; remove it with:  sudo apt-get remove nakrel"))
    places = places or Places.of_user()
    gone: list[Path] = []
    try:
        login.turn_off(places)
        for path in _listed(places):
            if path in (places.launcher, places.practice) and _is_foreign(path):
                continue
            if path.exists():
                path.unlink()
                gone.append(path)
        places.manifest.unlink(missing_ok=True)
    except OSError as error:
        raise InstallError(
            tr("{filename}: {reason}; try again when that is mended").format(
                filename=error.filename, reason=reason_of(error)
            )
        ) from None
    _refresh(places.data)
    for path in gone:
        _remove_empty(path.parent, places)
    return Installed(tuple(gone))


def _practice(command: list[str]) -> list[str]:
    beside = Path(command[0]).parent / "nakrel-practice"
    return [str(beside)] if len(command) == 1 and beside.exists() else [command[0], "-m", "nakrel.practice"]


def _data(places: Places, command: str) -> Iterator[tuple[Path, bytes | str]]:
    """All files that are shared with the desktop, with this program in place of the system's."""
    for path in sorted(SHARE.rglob("*")):
        inside = path.relative_to(SHARE)
        if path.is_dir() or inside.parts[0] == "systemd":
            # The user unit is the matter of the start at login.
            continue
        data: bytes | str = path.read_bytes()
        if path.suffix in (".desktop", ".service"):
            data = login.with_command(path.read_text(encoding="utf-8"), command)
        yield places.data / inside, data


def _write(path: Path, data: bytes | str, mode: int = 0o644) -> None:
    path.parent.mkdir(parents=True, exist_ok=True)
    beside = path.with_name(f".{path.name}.new")
    beside.write_bytes(data if isinstance(data, bytes) else data.encode())
    beside.chmod(mode)
    beside.replace(path)


def _is_foreign(path: Path) -> bool:
    """Whether there is a program of that name that isn't ours."""
    try:
        return _MARK.encode() not in path.read_bytes()[:200]
    except FileNotFoundError:
        return path.is_symlink()


def _listed(places: Places) -> list[Path]:
    try:
        found = json.loads(places.manifest.read_text(encoding="utf-8"))
    except FileNotFoundError:
        raise InstallError(tr("Nakrel isn't installed for you, so there is nothing to take back")) from None
    except ValueError:
        found = []
    # A list that was damaged, or that names what we would never install, removes nothing else.
    wanted = {places.launcher, places.practice, *(path for path, _ in _data(places, ""))}
    return [path for path in map(Path, found or [str(path) for path in wanted]) if path in wanted]


def _remove_empty(folder: Path, places: Places) -> None:
    """Folders that were made for our files go with the last of them, and with them the lists that tools made there."""
    while folder != places.data and folder.is_relative_to(places.data) and folder.is_dir():
        left = {path.name for path in folder.iterdir()}
        if folder == places.data / "mime" and "packages" not in left:
            # All that is left was made of the packages.
            shutil.rmtree(folder)
        elif left <= {"mimeinfo.cache", "icon-theme.cache"}:
            for name in left:
                (folder / name).unlink()
            folder.rmdir()
        else:
            return
        folder = folder.parent


def _refresh(data: Path) -> None:
    for tool, *arguments, folder in _REFRESH:
        if (found := shutil.which(tool)) and (data / folder).is_dir():
            command = [found, *arguments, str(data / folder)]
            subprocess.run(command, capture_output=True, timeout=_LIMIT_S, check=False)
