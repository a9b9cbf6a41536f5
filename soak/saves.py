"""Saves that end in their midst: killed before, after or within a call that changes files, or refused by the system
from there on (full disk, no inodes, read-only). What was there before or what was to be there must be there after."""

from __future__ import annotations

import ctypes
import errno
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

from nakrel.core.model.macro import Macro
from nakrel.core.model.profile import Profile
from nakrel.core.model.settings import Settings
from nakrel.core.model.steps import Tap, Wait
from nakrel.core.model.tuning import Tuning
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home
from nakrel.storage.library import Library
from nakrel.storage.takes import add_take, takes_of
from nakrel.storage.tunings import put_tuning, tuning_of
from soak.part import Found, Tell

__all__ = ["saves"]

_HERE = Path(__file__).parent
_BEFORE, _AFTER, _HALF, _ONCE, _EVER = range(1, 6)
_MOST_CALLS = 14
_SAVED, _REFUSED = 0, 7
_STEPS = (Tap(control="KEY_Q", hold_us=20_000), Wait(wait_us=5_000)) * 200
_ERRORS = (errno.ENOSPC, errno.EROFS, errno.EDQUOT, errno.EIO, errno.EACCES)


def saves(count: int, seed: int, tell: Tell) -> Found:
    """So many saves, each stopped somewhere."""
    with tempfile.TemporaryDirectory() as folder:
        library = Path(folder) / "stop.so"
        subprocess.run(["gcc", "-shared", "-fPIC", "-O1", "-o", library, _HERE / "stop.c", "-ldl"], check=True)
        process = subprocess.Popen(
            [sys.executable, "-m", "soak.saves", str(library), str(count), str(seed)],
            env={**os.environ, "LD_PRELOAD": str(library)},
            stdout=subprocess.PIPE,
            text=True,
        )
        assert process.stdout
        failures = []
        for line in process.stdout:
            if line.startswith("done "):
                tell(int(line.split()[1]))
            else:
                failures.append(line.strip())
        if process.wait():
            failures.append(f"the saver ended with {process.returncode}")
    return Found(failures)


# In the process with the calls that can be stopped


def _kept(home: Home) -> tuple[object, ...]:
    """All that is on the disk, as it is read anew; and what is wrong with it."""
    library = Library(home)
    library.load()
    return (
        library.macros.get("m"),
        library.profiles.get("p"),
        library.settings,
        takes_of(home, "m"),
        tuning_of(home, "m"),
        tuple(library.faults),
    )


def _change(home: Home, chance: random.Random, number: int) -> Callable[[], object]:
    """A save of one of the things that are kept."""
    library = Library(home)
    library.load()
    macro = Macro(id="m", name=f"M {chance.randrange(3)}", note=str(number), loop=_STEPS[: 2 * chance.randint(1, 200)])
    settings = Settings(notch_us=1_000 * chance.randint(1, 90))
    profile = Profile(id="p", name=f"P {chance.randrange(3)}", note=str(number))
    return chance.choice(
        [
            lambda: library.put_macro(macro),
            lambda: library.put_macro(macro),
            lambda: library.put_profile(profile),
            lambda: library.put_settings(settings),
            lambda: library.delete_macro("m") if "m" in library.macros else library.put_macro(macro),
            lambda: add_take(home, "m", _STEPS[:40], float(number)),
            lambda: put_tuning(home, "m", Tuning(row=number)),
        ]
    )


def _stopped(home: Home, stop: ctypes.CDLL, chance: random.Random, number: int) -> int:
    """Change something in a process of its own, which is stopped in it; returns how that ended, negative where it was
    killed."""
    change = _change(home, chance, number)
    at, how = chance.randint(1, _MOST_CALLS), chance.choice((_BEFORE, _AFTER, _HALF, _ONCE, _EVER, _EVER))
    pid = os.fork()
    if pid == 0:
        stop.stop_at(at, how, chance.choice(_ERRORS))
        try:
            change()
        except StorageError:
            os._exit(_REFUSED)
        except BaseException as error:  # noqa: BLE001 - told by the exit code; nothing else may be thrown
            sys.stderr.write(f"{type(error).__name__}: {error}\n")
            os._exit(9)
        os._exit(_SAVED)
    _, status = os.waitpid(pid, 0)
    return os.waitstatus_to_exitcode(status)


def _wanted(home: Home, chance: random.Random, number: int, folder: Path) -> tuple[object, ...]:
    """What is there when nothing stops the same change."""
    copy = folder / "unstopped"
    shutil.rmtree(copy, ignore_errors=True)
    shutil.copytree(folder / "home", copy)
    other = Home.find(copy)
    _change(other, chance, number)()
    return _kept(other)


def _round(home: Home, folder: Path, stop: ctypes.CDLL, seed: str, number: int) -> str:
    """One save; what is wrong, '' for nothing."""
    old = _kept(home)
    new = _wanted(home, random.Random(seed), number, folder)
    ended = _stopped(home, stop, random.Random(seed), number)
    found = _kept(home)
    if ended not in (_SAVED, _REFUSED, -9):
        return f"it ended with {ended}"
    if found[:-1] not in (old[:-1], new[:-1]) or found[-1]:
        return f"neither what was there nor what was to be there ({ended}): {found[-1]}"
    if ended == _SAVED and found[:-1] != new[:-1]:
        return "confirmed, and not there"
    if left := [path.name for path in folder.joinpath("home").rglob(".saving-*")]:
        return f"{left} is left"
    return ""


def _main(library: str, count: int, seed: str) -> None:
    stop = ctypes.CDLL(library)
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        home = Home.find(folder / "home")
        for number in range(count):
            if wrong := _round(home, folder, stop, f"{seed} {number}", number):
                sys.stdout.write(f"save {number}: {wrong}\n")
            if number % 10 == 9:
                sys.stdout.write(f"done {number + 1}\n")
                sys.stdout.flush()


if __name__ == "__main__":
    _main(sys.argv[1], int(sys.argv[2]), sys.argv[3])
