"""The searches for the shortest time of macros, a file each."""

from __future__ import annotations

from nakrel.core.model.tuning import Tuning
from nakrel.storage import files
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home
from nakrel.storage.library import file_name
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["put_tuning", "tuning_of"]


def tuning_of(home: Home, macro: str) -> Tuning | None:
    """The search of the macro with this id; None where there is none. Raises `StorageError`."""
    path = home.tunings / f"{file_name(macro)}.json"
    return files.read(path, Tuning) if path.exists() else None


def put_tuning(home: Home, macro: str, tuning: Tuning | None) -> None:
    """Keep the search of this macro, in place of an earlier one; None takes it away. Raises `StorageError`."""
    path = home.tunings / f"{file_name(macro)}.json"
    if tuning is not None:
        files.write(path, files.encode(tuning))
        return
    try:
        path.unlink(missing_ok=True)
    except OSError as error:
        raise StorageError(
            tr("{path}: can't be taken away: {reason}").format(path=path, reason=reason_of(error))
        ) from None
