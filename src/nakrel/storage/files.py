"""Reading and writing one file: atomically, and with errors that people can act on."""

from __future__ import annotations

import contextlib
import os
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any, TypeVar

import msgspec

from nakrel.core.model.formulas import parsing_budget
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile
from nakrel.core.model.takes import Takes
from nakrel.reading import NotReadable, read_limited
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["MAX_FILE", "SAVING", "LeftAlone", "StorageError", "decode", "encode", "read", "set_aside", "write"]

# A macro of 200,000 steps takes about 10 MB; a file far above that is not one of ours.
MAX_FILE = 64 * 1024 * 1024

_FORMATS: dict[type, str] = {Macro: "nakrel-macro", Profile: "nakrel-profile", Takes: "nakrel-takes"}
# 1: the first. 2: game keys, fair play, falling through, controls that go to a set-up or profile or do something with
# the desktop; a profile's set-ups have names of their own. 3: the pointer's speed, and controls that change it.
# 4: what a control does with the desktop is told by a key of its own, and no longer by the words of the window.
# 5: a control can type a secret.
VERSION = 5

# How much of a message is kept, and of that how much of its end.
_LONGEST, _LONGEST_END = 500, 150
# How the name of a file begins that is being written.
SAVING = ".saving-"

T = TypeVar("T")


class StorageError(Exception):
    """A file can't be read or written; the message names the file, the reason and the remedy. What a damaged file has
    in place of a name or a figure may have any length: of a long message, the beginning and the end are kept."""

    def __init__(self, message: str) -> None:
        if len(message) > _LONGEST:
            message = f"{message[: _LONGEST - _LONGEST_END]} … {message[-_LONGEST_END:]}"
        super().__init__(message)


class LeftAlone(StorageError):
    """A file can't be read, and nothing is wrong with it: a later Nakrel wrote it, or its permission is missing."""


def encode(value: Macro | Profile | msgspec.Struct) -> bytes:
    """The value as a file's content: readable JSON with its format and version in front."""
    head: dict[str, Any] = {"format": _FORMATS.get(type(value), "nakrel-settings"), "version": VERSION}
    return msgspec.json.format(msgspec.json.encode(head | msgspec.to_builtins(value)), indent=2) + b"\n"


def decode(content: bytes, kind: type[T], file: str) -> T:
    """Read a file's content as a `Macro`, `Profile` or settings.

    Raises `StorageError` with the file, the path inside it (`$.loop[2].hold_us`) and what was expected there.
    """
    try:
        raw = msgspec.json.decode(content)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        raise StorageError(tr("{file}: this is not JSON: {reason}").format(file=file, reason=error)) from None
    if not isinstance(raw, dict):
        raise StorageError(tr("{file}: expected a JSON object, got {name}").format(file=file, name=type(raw).__name__))
    wanted = _FORMATS.get(kind, "nakrel-settings")
    if (found := raw.pop("format", None)) != wanted:
        raise StorageError(
            tr("{file}: expected `format` to be {wanted!r}, got {found!r} - at `$.format`").format(
                file=file, wanted=wanted, found=found
            )
        )
    version = raw.pop("version", None)
    if type(version) is not int or not 1 <= version <= VERSION:
        newer = type(version) is int and version > VERSION
        message = tr("this Nakrel reads version {version} of {wanted}, the file says {version2!r}").format(
            version=VERSION, wanted=wanted, version2=version
        )
        if newer:
            raise LeftAlone(
                tr("{file}: {message} - at `$.version`. A later Nakrel wrote it; update Nakrel to use it").format(
                    file=file, message=message
                )
            )
        raise StorageError(tr("{file}: {message} - at `$.version`").format(file=file, message=message))
    for number in range(version, VERSION):
        raw = _migrated(raw, kind, number)
    try:
        with parsing_budget():
            return msgspec.convert(raw, kind)
    except (msgspec.ValidationError, RecursionError) as error:
        raise StorageError(f"{file}: {error}") from None


def _migrated(raw: dict[str, Any], kind: type, version: int) -> dict[str, Any]:
    """The content of a file of a version as the next version has it; what can't be made out is left to be complained
    of."""
    if kind is Profile and version == 1 and isinstance(setups := raw.get("setups"), list):
        names: set[str] = set()
        for setup in setups:
            if not isinstance(setup, dict) or not isinstance(name := setup.get("name"), str):
                continue
            number, free = 1, name
            while free in names:
                number += 1
                free = f"{name[:110]} {number}"
            names.add(free)
            setup["name"] = free
    if kind is Profile and version == 3:
        for cell in _cells(raw):
            if cell.get("does") == "action" and isinstance(deed := cell.pop("deed", None), str):
                cell["action"] = _ACTIONS.get(deed, deed)
    return raw


# What system actions were called up to version 3.
_ACTIONS = {
    "play or pause": "play",
    "next track": "next",
    "previous track": "previous",
    "stop playing": "stop_playing",
    "louder": "louder",
    "quieter": "quieter",
    "mute": "mute",
    "mute the microphone": "mute_microphone",
    "brighter screen": "brighter",
    "darker screen": "darker",
    "lock the screen": "lock",
    "stop everything": "stop",
    "follow games": "follow",
}


def _cells(raw: object) -> Iterator[dict[str, Any]]:
    """Every object in a profile's content that says what a control does."""
    if isinstance(raw, dict):
        if isinstance(raw.get("does"), str):
            yield raw
        for each in raw.values():
            yield from _cells(each)
    elif isinstance(raw, list):
        for each in raw:
            yield from _cells(each)


def read(path: Path, kind: type[T]) -> T:
    """Read one file; raises `StorageError`."""
    try:
        content = read_limited(path, MAX_FILE)
    except NotReadable as error:
        raise (StorageError if error.damaged else LeftAlone)(f"{path}: {error}") from None
    return decode(content, kind, str(path))


def write(path: Path, content: bytes) -> None:
    """Put `content` at `path`, durably and all or nothing: on failure the old content stays.

    Raises `StorageError`.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        handle, temporary = tempfile.mkstemp(prefix=SAVING, dir=path.parent)
        try:
            with open(handle, "wb") as file:
                file.write(content)
                file.flush()
                os.fsync(file.fileno())
            os.replace(temporary, path)
        except BaseException:
            with contextlib.suppress(OSError):
                os.unlink(temporary)
            raise
        _sync_folder(path.parent)
    except OSError as error:
        wrong = tr("{path}: can't be saved: {reason}")
        if os.path.lexists(path):
            wrong = tr("{path}: can't be saved: {reason}; the earlier version is untouched")
        raise StorageError(wrong.format(path=path, reason=reason_of(error))) from None


def set_aside(path: Path) -> Path:
    """Rename a damaged file beside its place, over nothing; returns where it is now. Raises `OSError`."""
    aside = path.with_name(path.name + ".damaged")
    number = 1
    while aside.exists():
        number += 1
        aside = path.with_name(f"{path.name}.damaged-{number}")
    path.rename(aside)
    return aside


def _sync_folder(folder: Path) -> None:
    """Make a rename durable: the folder is what holds the name (rename(2), fsync(2))."""
    handle = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
