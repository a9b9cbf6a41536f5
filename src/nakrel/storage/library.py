"""The library: all profiles and macros on the disk, one file each, and the last versions of every one."""

from __future__ import annotations

import contextlib
import hashlib
import os
import re
from collections.abc import Iterator
from pathlib import Path
from typing import TypeVar

from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import EVERYDAY, Profile, new_everyday
from nakrel.core.model.settings import Settings
from nakrel.core.model.value import readable_text
from nakrel.storage import files
from nakrel.storage.files import SAVING, LeftAlone, StorageError
from nakrel.storage.home import Home
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["KEPT_VERSIONS", "Library", "file_name"]

# Versions kept of each file, the newest included.
KEPT_VERSIONS = 20
# Room for the ending and a number within the 255 bytes that file systems allow a name (path_resolution(7)).
_MAX_STEM = 200

Item = TypeVar("Item", Profile, Macro)


class Library:
    """Reads everything at the start and is the only writer afterwards.

    `faults` holds one line for every file that was set aside: renamed beside its place, never overwritten. With
    `read_only` nothing on the disk is touched: damaged files stay where they are, and nothing may be put.
    """

    def __init__(self, home: Home, *, read_only: bool = False) -> None:
        self.home = home
        self._read_only = read_only
        self.faults: list[str] = []
        self.profiles: dict[str, Profile] = {}
        self.macros: dict[str, Macro] = {}
        self.settings = Settings()
        self._paths: dict[tuple[type, str], Path] = {}
        # Whether the settings' file is one that must not be written over.
        self._settings_left = False

    def load(self) -> None:
        """Read all files; what is damaged is set aside with its reason in `faults`, and the rest is loaded."""
        if not self._read_only:
            self._clean_up()
        self.profiles = {p.id: p for p in self._load_all(self.home.profiles, Profile)}
        self.macros = {m.id: m for m in self._load_all(self.home.macros, Macro)}
        if self.home.settings.exists():
            try:
                self.settings = files.read(self.home.settings, Settings)
            except StorageError as error:
                self._set_aside(self.home.settings, error)
                self._settings_left = isinstance(error, LeftAlone)
        if EVERYDAY not in self.profiles and not self._read_only:
            everyday = new_everyday()
            try:
                self.put_profile(everyday)
            except StorageError as error:
                # Something is to be live. The first of its edits that can be saved makes its file.
                self.profiles[EVERYDAY] = everyday
                self.faults.append(readable_text(f"{error}."))

    def put_profile(self, profile: Profile) -> None:
        """Save a profile; raises `StorageError`, and then nothing has changed."""
        self._put(self.home.profiles, profile)
        self.profiles[profile.id] = profile

    def put_macro(self, macro: Macro) -> None:
        """Save a macro; raises `StorageError`, and then nothing has changed."""
        self._put(self.home.macros, macro)
        self.macros[macro.id] = macro

    def put_settings(self, settings: Settings) -> None:
        """Save the settings; raises `StorageError`, and then nothing has changed."""
        if self._settings_left:
            raise StorageError(
                tr(
                    "{settings}: the settings can't be saved, since a file is there that this Nakrel can't read; "
                    "update Nakrel, or move the file away"
                ).format(settings=self.home.settings)
            )
        files.write(self.home.settings, files.encode(settings))
        self.settings = settings

    def delete_profile(self, key: str) -> None:
        """Delete a profile, its last version staying in the history; raises `StorageError`."""
        self._delete(Profile, key)
        self.profiles.pop(key, None)

    def delete_macro(self, key: str) -> None:
        """Delete a macro, its last version staying in the history; raises `StorageError`."""
        self._delete(Macro, key)
        self.macros.pop(key, None)

    def versions(self, kind: type[Profile] | type[Macro], key: str) -> list[Path]:
        """The kept versions of a profile or macro, the oldest first."""
        folder = self._history(kind, key)
        return _numbered(folder) if folder.is_dir() else []

    def kept(self, kind: type[Item], key: str = "") -> list[tuple[float, Item]]:
        """The kept versions that can be read, each with the time when it was saved, the newest first; without a key the
        last version of each that isn't in the library any more."""
        if key:
            paths = list(reversed(self.versions(kind, key)))
        else:
            folder = self.home.history / f"{kind.__name__.lower()}s"
            there = {file_name(known) for of, known in list(self._paths) if of is kind}
            gone = [each for each in folder.glob("*") if each.name not in there] if folder.is_dir() else []
            paths = [found[-1] for each in gone if (found := _numbered(each))]
        found_items = []
        for path in paths:
            with contextlib.suppress(StorageError, OSError):
                found_items.append((path.stat().st_mtime, files.read(path, kind)))
        return sorted(found_items, key=lambda each: -each[0])

    def _load_all(self, folder: Path, kind: type[Item]) -> Iterator[Item]:
        try:
            names = [name for name in os.listdir(folder) if name.endswith(".json") and not name.startswith(".")]
        except (FileNotFoundError, NotADirectoryError):
            return
        except OSError as error:
            reason = tr("can't be read: {reason}").format(reason=reason_of(error))
            self.faults.append(readable_text(f"{folder}: {reason}."))
            return
        for path in map(folder.joinpath, sorted(names)):
            try:
                item = files.read(path, kind)
                if (kind, item.id) in self._paths:
                    raise StorageError(
                        tr("{path}: has the id {id!r} of {name}").format(
                            path=path, id=item.id, name=self._paths[kind, item.id].name
                        )
                    )
            except StorageError as error:
                self._set_aside(path, error)
            else:
                self._paths[kind, item.id] = path
                yield item

    def _set_aside(self, path: Path, error: StorageError) -> None:
        if self._read_only or isinstance(error, LeftAlone):
            left = "" if self._read_only else tr(" The file was left where it is.")
            self.faults.append(readable_text(f"{error}.{left}"))
            return
        try:
            where = tr("set aside as {name}; mend it and give it its old name, or delete it").format(
                name=files.set_aside(path).name
            )
        except OSError as problem:
            where = tr("left where it is ({reason})").format(reason=reason_of(problem))
        self.faults.append(readable_text(tr("{reason}. The file was {where}.").format(reason=error, where=where)))

    def _put(self, folder: Path, item: Profile | Macro) -> None:
        kind = type(item)
        old = self._paths.get((kind, item.id))
        path = self._place(folder, item, old)
        content = files.encode(item)
        # Under the old name first: so no moment leaves two files of one thing, of which the older might be read.
        files.write(old or path, content)
        self._paths[kind, item.id] = old or path
        if old is not None and old != path:
            with contextlib.suppress(OSError):
                os.replace(old, path)
                self._paths[kind, item.id] = path
        self._keep_version(kind, item.id, content)

    def _place(self, folder: Path, item: Profile | Macro, old: Path | None) -> Path:
        """The file named after the item, or the nearest name that no other file has."""
        stem = _stem(item.name)
        taken = {path for key, path in self._paths.items() if path != old}
        path, number = folder / f"{stem}.json", 1
        while path in taken or (path != old and path.exists()):
            number += 1
            path = folder / f"{stem} {number}.json"
        return path

    def _delete(self, kind: type[Profile] | type[Macro], key: str) -> None:
        path = self._paths.get((kind, key))
        if path is None:
            return
        try:
            path.unlink(missing_ok=True)
        except OSError as error:
            raise StorageError(
                tr("{path}: can't be deleted: {reason}").format(path=path, reason=reason_of(error))
            ) from None
        del self._paths[kind, key]

    def _history(self, kind: type[Profile] | type[Macro], key: str) -> Path:
        return self.home.history / f"{kind.__name__.lower()}s" / file_name(key)

    def _clean_up(self) -> None:
        """Take away what saves that were cut short have left."""
        home = self.home
        for folder, pattern in (
            *((each, f"{SAVING}*") for each in (home.config, home.profiles, home.macros)),
            *((each, f"{SAVING}*") for each in (home.state, home.takes, home.tunings)),
            (home.history, f"*/*/{SAVING}*"),
        ):
            for path in list(folder.glob(pattern)):
                with contextlib.suppress(OSError):
                    path.unlink()

    def _keep_version(self, kind: type[Profile] | type[Macro], key: str, content: bytes) -> None:
        """Keep this version and forget the oldest; a history that can't be written costs no edit."""
        kept = self.versions(kind, key)
        number = int(kept[-1].stem) + 1 if kept else 1
        with contextlib.suppress(StorageError, OSError):
            files.write(self._history(kind, key) / f"{number:08d}.json", content)
            for path in kept[: max(0, len(kept) + 1 - KEPT_VERSIONS)]:
                path.unlink(missing_ok=True)


def _numbered(folder: Path) -> list[Path]:
    """The versions in a history folder, the oldest first; what somebody else has put there is none."""
    return sorted(path for path in folder.glob("*.json") if path.stem.isdecimal())


def file_name(key: str) -> str:
    """What the history and the takes of an id are called: the id itself where it can be a name, else one that no
    other id has."""
    stem = _stem(key)
    return stem if stem == key else f"{stem}~{hashlib.sha256(key.encode('utf-8', 'surrogatepass')).hexdigest()[:8]}"


def _stem(name: str) -> str:
    """A file name for `name` in any script: no separators, nothing hidden, not too long."""
    clean = re.sub(r"[/\\\x00-\x1f\x7f]", "-", name).strip().lstrip(".") or "unnamed"
    while len(clean.encode("utf-8", "surrogatepass")) > _MAX_STEM:
        clean = clean[:-1]
    return clean
