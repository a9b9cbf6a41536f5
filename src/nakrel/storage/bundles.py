"""Bundle files: a zip archive of profiles and macros, written to be shared and read with suspicion.

`bundle.json` says what it is; each profile and macro is a file as in the library, under `profiles/` and `macros/`.
"""

from __future__ import annotations

import io
import re
import stat
import zipfile
import zlib
from pathlib import Path

import msgspec

from nakrel.core.edit.bundle import Bundle
from nakrel.core.model.cells import RunMacro
from nakrel.core.model.errors import DataError
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile
from nakrel.storage import files
from nakrel.storage.files import StorageError
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["read_bundle", "write_bundle"]

FORMAT, VERSION = "nakrel-bundle", 1
MAX_ARCHIVE = 64 * 1024 * 1024
# What an archive may hold when unpacked, in all: a small archive that makes a huge one is a trap.
MAX_UNPACKED = 128 * 1024 * 1024
MAX_ENTRIES = 10_000
_ENTRY = re.compile(r"(bundle\.json|(profiles|macros)/[^/\\\x00-\x1f]{1,240}\.json)")
# So that two archives of the same are the same file (zip knows no earlier day).
_DAY = (1980, 1, 1, 0, 0, 0)


class _Head(msgspec.Struct, forbid_unknown_fields=True):
    format: str
    version: int


def write_bundle(path: Path, bundle: Bundle) -> None:
    """Write profiles and macros to a bundle file, all or nothing. Raises `StorageError`."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        _add(archive, "bundle.json", msgspec.json.format(msgspec.json.encode(_Head(FORMAT, VERSION)), indent=2))
        for number, profile in enumerate(bundle.profiles, 1):
            _add(archive, f"profiles/{number:04d} {_stem(profile.name)}.json", files.encode(profile))
        for number, macro in enumerate(bundle.macros, 1):
            _add(archive, f"macros/{number:04d} {_stem(macro.name)}.json", files.encode(macro))
    files.write(path, out.getvalue())


def _stem(name: str) -> str:
    return re.sub(r"[^A-Za-z0-9 .+-]", "_", name)[:60].strip() or "unnamed"


def _add(archive: zipfile.ZipFile, name: str, content: bytes) -> None:
    entry = zipfile.ZipInfo(name, _DAY)
    entry.compress_type = zipfile.ZIP_DEFLATED
    entry.external_attr = (stat.S_IFREG | 0o644) << 16
    archive.writestr(entry, content)


def read_bundle(path: Path) -> Bundle:
    """The profiles and macros of a bundle file; nothing is unpacked to the disk.

    Raises `StorageError` with the reason for what is no bundle, damaged, or made to do harm.
    """
    try:
        if path.stat().st_size > MAX_ARCHIVE:
            raise StorageError(
                tr("{path}: larger than {most} MB, so it is not opened").format(
                    path=path, most=MAX_ARCHIVE // 1024 // 1024
                )
            )
        with zipfile.ZipFile(path) as archive:
            return _read(path, archive)
    except OSError as error:
        raise StorageError(tr("{path}: can't be read: {reason}").format(path=path, reason=reason_of(error))) from None
    except DataError as error:
        raise StorageError(f"{path}: {error}") from None
    except (zipfile.BadZipFile, zlib.error, EOFError, UnicodeError, ValueError, RuntimeError):
        # What exactly is wrong in it, such as a header's bytes, helps nobody who has been sent it.
        raise StorageError(
            tr("{path}: this is no zip archive, or it is damaged; have it sent once more").format(path=path)
        ) from None
    except MemoryError:
        raise StorageError(tr("{path}: it is too large to be read").format(path=path)) from None


def _read(path: Path, archive: zipfile.ZipFile) -> Bundle:
    entries = archive.infolist()
    _refuse_hostile(path, entries)
    names = {entry.filename: entry for entry in entries}
    if "bundle.json" not in names:
        raise StorageError(
            tr("{path}: there is no bundle.json in it, so it is no bundle of Nakrel's").format(path=path)
        )
    left = [MAX_UNPACKED]
    try:
        head = msgspec.json.decode(_content(path, archive, names["bundle.json"], left), type=_Head)
    except (msgspec.DecodeError, UnicodeDecodeError, RecursionError) as error:
        raise StorageError(tr("{path}, bundle.json: {reason}").format(path=path, reason=error)) from None
    if head.format != FORMAT or not 1 <= head.version <= VERSION:
        raise StorageError(
            tr("{path}: this Nakrel reads version {version} of {format}, the file says {format2!r}, {version2}").format(
                path=path, version=VERSION, format=FORMAT, format2=head.format, version2=head.version
            )
        )
    profiles: list[Profile] = []
    macros: list[Macro] = []
    for name, entry in sorted(names.items()):
        if name.startswith("profiles/"):
            profiles.append(files.decode(_content(path, archive, entry, left), Profile, f"{path}, {name}"))
        elif name.startswith("macros/"):
            macros.append(files.decode(_content(path, archive, entry, left), Macro, f"{path}, {name}"))
    _refuse_loose_ends(path, profiles, macros)
    return Bundle(tuple(profiles), tuple(macros))


def _refuse_hostile(path: Path, entries: list[zipfile.ZipInfo]) -> None:
    """Refuse what no bundle has: before anything is unpacked."""
    if len(entries) > MAX_ENTRIES:
        raise StorageError(
            tr("{path}: {entries} files are in it, more than the {most} that a bundle can have").format(
                path=path, entries=len(entries), most=MAX_ENTRIES
            )
        )
    seen: set[str] = set()
    for entry in entries:
        shown = entry.filename[:80]
        kind = stat.S_IFMT(entry.external_attr >> 16)
        if kind not in (0, stat.S_IFREG):
            raise StorageError(
                tr("{path}: {shown!r} in it is a link or something else that is no file").format(path=path, shown=shown)
            )
        if not _ENTRY.fullmatch(entry.filename):
            raise StorageError(
                tr("{path}: {shown!r} in it does not belong in a bundle, so nothing of it is imported").format(
                    path=path, shown=shown
                )
            )
        if entry.filename in seen:
            raise StorageError(tr("{path}: {shown!r} is in it twice").format(path=path, shown=shown))
        seen.add(entry.filename)
        if entry.flag_bits & 1:
            raise StorageError(tr("{path}: {shown!r} in it is encrypted").format(path=path, shown=shown))
    if sum(entry.file_size for entry in entries) > MAX_UNPACKED:
        raise StorageError(
            tr("{path}: unpacked it would be larger than {most} MB").format(
                path=path, most=MAX_UNPACKED // 1024 // 1024
            )
        )


def _content(path: Path, archive: zipfile.ZipFile, entry: zipfile.ZipInfo, left: list[int]) -> bytes:
    """One file's content. What the archive says of its size is not believed: no more than is left is unpacked."""
    with archive.open(entry) as file:
        content = file.read(left[0] + 1)
    if len(content) > left[0]:
        raise StorageError(
            tr("{path}: unpacked it would be larger than {most} MB").format(
                path=path, most=MAX_UNPACKED // 1024 // 1024
            )
        )
    left[0] -= len(content)
    return content


def _refuse_loose_ends(path: Path, profiles: list[Profile], macros: list[Macro]) -> None:
    for keys in ([item.id for item in profiles], [item.id for item in macros]):
        twice = next((key for key in keys if keys.count(key) > 1), None) if len(set(keys)) != len(keys) else None
        if twice is not None:
            raise StorageError(tr("{path}: two things in it have the id {twice!r}").format(path=path, twice=twice[:80]))
    known = {macro.id for macro in macros}
    for profile in profiles:
        for setup in profile.setups:
            for _, _, cell in setup.every():
                if isinstance(cell, RunMacro) and cell.macro not in known:
                    raise StorageError(
                        tr("{path}: {profile!r} plays {macro!r}, which isn't in it").format(
                            path=path, profile=profile.name[:80], macro=cell.macro
                        )
                    )
