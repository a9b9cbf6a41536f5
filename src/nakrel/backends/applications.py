"""The installed applications, from their desktop entries (freedesktop.org, Desktop Entry Specification 1.5)."""

from __future__ import annotations

import configparser
import os
import shlex
import shutil
from collections.abc import Iterator
from pathlib import Path

from nakrel.core.model.programs import Application
from nakrel.reading import NotReadable, read_limited
from nakrel.words import order_of

__all__ = ["applications"]

_MOST_BYTES = 1 << 20


def applications(language: str = "") -> tuple[Application, ...]:
    """Every application that menus show, in the order of its name; of entries with one id the first folder's counts."""
    found: dict[str, Application | None] = {}
    for folder in _folders():
        for path in sorted(folder.rglob("*.desktop")):
            key = "-".join(path.relative_to(folder).parts)
            if key not in found:
                found[key] = _read(path, language)
    return tuple(sorted((each for each in found.values() if each), key=lambda each: order_of(each.name)))


def _folders() -> Iterator[Path]:
    home = os.environ.get("XDG_DATA_HOME") or os.path.expanduser("~/.local/share")
    rest = os.environ.get("XDG_DATA_DIRS") or "/usr/local/share:/usr/share"
    for base in (home, *rest.split(":")):
        if base and (folder := Path(base, "applications")).is_dir():
            yield folder


def _read(path: Path, language: str) -> Application | None:
    parser = configparser.RawConfigParser(delimiters=("=",), strict=False, comment_prefixes=("#",), interpolation=None)
    parser.optionxform = str  # type: ignore[assignment, method-assign]
    try:
        parser.read_string(read_limited(path, _MOST_BYTES).decode("utf-8", "replace").replace("\0", ""))
        entry = parser["Desktop Entry"]
    except (NotReadable, configparser.Error, KeyError):
        return None
    if entry.get("Type") != "Application" or "true" in (entry.get("NoDisplay"), entry.get("Hidden")):
        return None
    try:
        command = [part for part in shlex.split(entry.get("Exec", "")) if not _is_field(part)]
    except ValueError:
        return None
    name = entry.get(f"Name[{language}]") or entry.get("Name", "")
    if not command or not name:
        return None
    while command[:1] == ["env"] or (command and "=" in command[0]):
        command.pop(0)
    if not command:
        return None
    program = shutil.which(command[0]) or command[0]
    return Application(
        name, os.path.realpath(program), entry.get("StartupWMClass", ""), entry.get("Icon", ""), _is_script(program)
    )


def _is_field(part: str) -> bool:
    """Whether it stands for files or the like that a menu would put there (`%U`)."""
    return len(part) == 2 and part[0] == "%"


def _is_script(program: str) -> bool:
    try:
        with open(program, "rb") as file:
            return file.read(2) == b"#!"
    except OSError:
        return False
