"""The takes of macros, a file each: what was recorded, for its user's eyes alone."""

from __future__ import annotations

from nakrel.core.model.steps import Step
from nakrel.core.model.takes import Takes
from nakrel.storage import files
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home
from nakrel.storage.library import file_name

__all__ = ["add_take", "takes_of"]


def takes_of(home: Home, macro: str) -> Takes:
    """The takes of the macro with this id. A file that can't be read counts for none: the steps are in the macro."""
    path = home.takes / f"{file_name(macro)}.json"
    if not path.exists():
        return Takes()
    try:
        return files.read(path, Takes)
    except StorageError:
        return Takes()


def add_take(home: Home, macro: str, steps: tuple[Step, ...], at: float) -> Takes:
    """Keep a recording that ended at this time (seconds since the epoch). Raises `StorageError`."""
    takes = takes_of(home, macro).with_another(steps, at)
    files.write(home.takes / f"{file_name(macro)}.json", files.encode(takes))
    return takes
