"""Damaged and hostile files into every reader, under a limit of memory and time: a clear error each, and nothing else.

The files are what Nakrel itself writes, changed by chance: bytes, pieces, figures, depth, and tricks of each format.
"""

from __future__ import annotations

import io
import os
import random
import resource
import signal
import sys
import tempfile
import warnings
import zipfile
from collections.abc import Callable, Iterator
from pathlib import Path
from types import FrameType

import nakrel.core.notation as notation
from nakrel.backends.applications import applications
from nakrel.core.edit.bundle import Bundle
from nakrel.core.model.errors import DataError
from nakrel.core.model.game_keys import read_csv, write_csv
from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile
from nakrel.core.model.settings import Settings
from nakrel.core.model.tuning import Tuning
from nakrel.core.play.simulate import plan
from nakrel.demo.data import MACROS, PROFILES
from nakrel.storage import files
from nakrel.storage.bundles import read_bundle, write_bundle
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home
from nakrel.storage.recordings import events_csv, read_recording, to_evemu, to_libinput
from nakrel.storage.takes import add_take, takes_of
from soak.part import Found, Tell

__all__ = ["readers"]

_MEMORY = 512 * 1024 * 1024
_LIMIT_S = 2.0
# So many files are read by a process before the next one begins.
_BATCH = 250
_LONGEST_ERROR = 600
_TRICKS = (
    b"\0", b"\xff\xfe", b"\xed\xa0\x80", b"9" * 400, b"-1", b"1e400", b"NaN", b"[" * 3_000, b"{" * 3_000, b"]", b"}",
    b'"', b"\\u0000", b"\\ud800", b"null", b"true", b"*a", b"&a ", b"- [", b": ", b"!!python/object/new:os.system ",
    b"\n\n", b"\r", b"\t", b"=HYPERLINK(1)", b"../" * 40, b"A" * 20_000, b"KEY_Q", b"run ** 9", b"(" * 200, b"%s",
    b"{0}", b"repeat 9 times:\n", b"random choice:\n", b"option:\n",
)  # fmt: skip
Read = Callable[[Path], object]


class _TooLong(Exception):
    """The reader took more time than it may."""


def _samples() -> Iterator[tuple[str, bytes, Read]]:
    """What each reader reads, and the reader: its name says the file's."""
    macro = next(each for each in MACROS if each.id == "weigh-the-catch")
    plain = next(each for each in MACROS if each.id == "reel-in")
    rows = plan(plain, plain.play)
    yield "macro.json", files.encode(macro), lambda path: files.read(path, Macro)
    yield "profile.json", files.encode(PROFILES[-1]), lambda path: files.read(path, Profile)
    yield "settings.json", files.encode(Settings()), lambda path: files.read(path, Settings)
    yield "tuning.json", files.encode(Tuning()), lambda path: files.read(path, Tuning)
    yield "rec.evemu", to_evemu(plain, rows).encode(), read_recording
    yield "rec.yml", to_libinput(plain, rows).encode(), read_recording
    yield "rec.csv", events_csv(plain, rows).encode(), read_recording
    yield "macro.txt", notation.write(macro).encode(), lambda path: notation.read(_text(path))
    keys = next(each.keys for each in PROFILES if each.keys)
    yield "keys.csv", write_csv(keys).encode(), lambda path: read_csv(_text(path))
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder, "bundle.nakrel.zip")
        write_bundle(path, Bundle(tuple(PROFILES), tuple(MACROS)))
        yield "bundle.nakrel.zip", path.read_bytes(), read_bundle
        home = Home.find(Path(folder, "home"))
        add_take(home, "m", plain.loop, 1.0)
        (take,) = home.takes.glob("*.json")
        yield "take.json", take.read_bytes(), _read_take
    entry = b"[Desktop Entry]\nType=Application\nName=Game\nName[de]=Spiel\nExec=game --full %U\nIcon=game\n"
    yield "game.desktop", entry, _read_application


def _text(path: Path) -> str:
    try:
        return path.read_text("utf-8")
    except UnicodeDecodeError:
        # The window says so before it reads on.
        raise DataError("no text") from None


def _read_take(path: Path) -> object:
    home = Home.find(path.parent / "takes-home")
    home.takes.mkdir(parents=True, exist_ok=True)
    os.replace(path, home.takes / "m.json")
    return takes_of(home, "m")


def _read_application(path: Path) -> object:
    place = path.parent / "data" / "applications"
    place.mkdir(parents=True, exist_ok=True)
    os.replace(path, place / "game.desktop")
    os.environ["XDG_DATA_HOME"] = str(path.parent / "data")
    os.environ["XDG_DATA_DIRS"] = str(path.parent / "none")
    return applications("de")


def _damaged(content: bytes, chance: random.Random) -> bytes:
    changed = bytearray(content)
    for _ in range(chance.choice((1, 1, 2, 4, 12))):
        at = chance.randrange(len(changed) + 1)
        match chance.randrange(7):
            case 0 if at < len(changed):
                changed[at] = chance.randrange(256)
            case 1:
                del changed[at : at + chance.choice((1, 7, 60, 2_000))]
            case 2:
                changed[at:at] = chance.choice(_TRICKS)
            case 3:
                piece = changed[at : at + chance.choice((4, 40, 400))]
                changed[at:at] = piece * chance.choice((1, 3, 50))
            case 4:
                del changed[at:]
            case 5:
                changed = bytearray(changed.replace(*_swap(chance)))
            case _:
                other = chance.randrange(len(changed) + 1)
                changed[at : at + 50], changed[other : other + 50] = changed[other : other + 50], changed[at : at + 50]
    return bytes(changed)


def _swap(chance: random.Random) -> tuple[bytes, bytes, int]:
    old = chance.choice((b"KEY_", b"BTN_", b"1", b"0", b'"', b":", b",", b" ", b"loop", b"step", b"version"))
    new = chance.choice((b"", b"-", b"99999999999999999999", b"\n", b"'", b"KEY_NONE", b"[", b"version"))
    return old, new, chance.choice((1, 3, -1))


def _damaged_archive(content: bytes, chance: random.Random) -> bytes:
    """An archive that is whole, with something wrong inside."""
    made = io.BytesIO()
    warnings.simplefilter("ignore", UserWarning)  # of names that are there twice, as they are meant to be
    with zipfile.ZipFile(io.BytesIO(content)) as whole, zipfile.ZipFile(made, "w", zipfile.ZIP_DEFLATED) as new:
        for entry in whole.infolist():
            data = whole.read(entry)
            name = entry.filename
            match chance.randrange(12):
                case 0:
                    data = _damaged(data, chance)
                case 1:
                    name = chance.choice(
                        ("../out.json", "/etc/nakrel", "macros/x/../../y.json", "macros\\z", name * 30)
                    )
                case 2:
                    data = b" " * 3_000_000
                case 3:
                    continue
            new.writestr(name, data)
    return made.getvalue()


def _file(number: int, seed: int, samples: list[tuple[str, bytes, Read]]) -> tuple[str, bytes, Read]:
    chance = random.Random(f"{seed} {number}")
    name, content, read = samples[number % len(samples)]
    archive = name.endswith(".zip") and chance.random() < 0.5
    return name, (_damaged_archive if archive else _damaged)(content, chance), read


def _alarm(signal_number: int, frame: FrameType | None) -> None:
    raise _TooLong


def _read(path: Path, read: Read) -> str:
    """What goes wrong when a file is read; '' for a result, or an error as it should be."""
    signal.setitimer(signal.ITIMER_REAL, _LIMIT_S)
    try:
        read(path)
    except (DataError, StorageError) as error:
        return f"the error has {len(str(error))} characters" if len(str(error)) > _LONGEST_ERROR else ""
    except _TooLong:
        return f"more than {_LIMIT_S:g} s"
    except MemoryError:
        return "more memory than it may have"
    except BaseException as error:  # noqa: BLE001 - whatever comes is what is looked for
        return f"{type(error).__name__}: {str(error)[:200]}"
    finally:
        signal.setitimer(signal.ITIMER_REAL, 0)
    return ""


def _batch(first: int, last: int, seed: int, samples: list[tuple[str, bytes, Read]], out: int) -> None:
    resource.setrlimit(resource.RLIMIT_AS, (_MEMORY, _MEMORY))
    signal.signal(signal.SIGALRM, _alarm)
    with tempfile.TemporaryDirectory() as folder:
        # Deep enough that what goes up from there is seen.
        inside = Path(folder, "a", "b", "in")
        inside.mkdir(parents=True)
        for number in range(first, last):
            os.write(out, f"at {number}\n".encode())
            name, content, read = _file(number, seed, samples)
            path = inside / name
            path.write_bytes(content)
            if wrong := _read(path, read):
                os.write(out, f"file {number} ({name}): {wrong}\n".encode())
            path.unlink(missing_ok=True)
        outside = [path for path in Path(folder).rglob("*") if path.is_file() and inside not in path.parents]
        if outside:
            os.write(out, f"files {first} to {last}: {outside} was written outside\n".encode())


def readers(count: int, seed: int, tell: Tell) -> Found:
    """So many files."""
    samples = list(_samples())
    failures: list[str] = []
    for first in range(0, count, _BATCH):
        last = min(count, first + _BATCH)
        out, into = os.pipe()
        pid = os.fork()
        if pid == 0:
            os.close(out)
            sys.stderr.flush()
            try:
                _batch(first, last, seed, samples, into)
            finally:
                os._exit(0)
        os.close(into)
        at = "none"
        with open(out, encoding="utf-8") as said:
            for line in said:
                if line.startswith("at "):
                    at = line[3:].strip()
                else:
                    failures.append(line.strip())
        _, status = os.waitpid(pid, 0)
        if status or int(at) != last - 1:
            failures.append(f"file {at}: the process ended with {os.waitstatus_to_exitcode(status)}")
        tell(last)
    return Found(failures)
