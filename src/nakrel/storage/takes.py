"""The takes of macros, a file each: what was recorded, for its user's eyes alone."""

from __future__ import annotations

from nakrel.core.model.steps import Step
from nakrel.core.model.takes import Takes
from nakrel.storage import files
from nakrel.storage.files import LeftAlone, StorageError
from nakrel.storage.home import Home
from nakrel.storage.library import file_name
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["add_take", "takes_of"]


def takes_of(home: Home, macro: str) -> Takes:
    """The takes of the macro with this id. Raises `StorageError`."""
    path = home.takes / f"{file_name(macro)}.json"
    return files.read(path, Takes) if path.exists() else Takes()


def add_take(home: Home, macro: str, steps: tuple[Step, ...], at: float) -> Takes:
    """Keep a recording that ended at this time (seconds since the epoch). A damaged file of earlier ones is set aside,
    and one of a later Nakrel is left alone. Raises `StorageError`."""
    path = home.takes / f"{file_name(macro)}.json"
    try:
        before = takes_of(home, macro)
    except LeftAlone:
        raise
    except StorageError as error:
        before = Takes()
        try:
            files.set_aside(path)
        except OSError as problem:
            raise StorageError(
                tr("{reason}; it can't be set aside: {reason2}").format(reason=error, reason2=reason_of(problem))
            ) from None
    takes = before.with_another(steps, at)
    files.write(path, files.encode(takes))
    return takes
