"""Reading a file that anybody may have put there: a pipe that never ends, a device, or one that is too large."""

from __future__ import annotations

import os
import stat

from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["NotReadable", "read_limited"]


class NotReadable(Exception):
    """The file isn't read; the message says why. `damaged` is off where what is in it isn't at fault (no permission, a
    disk that fails)."""

    def __init__(self, reason: str, *, damaged: bool = True, too_large: bool = False) -> None:
        super().__init__(reason)
        self.damaged, self.too_large = damaged, too_large


def read_limited(path: str | os.PathLike[str], most: int) -> bytes:
    """What is in the file, `most` bytes at most; a byte order mark is left out. Never waits. Raises `NotReadable`."""
    try:
        handle = os.open(path, os.O_RDONLY | os.O_NONBLOCK | os.O_NOCTTY | os.O_CLOEXEC)
    except OSError as error:
        raise NotReadable(tr("can't be read: {reason}").format(reason=reason_of(error)), damaged=False) from None
    except ValueError:
        raise NotReadable(tr("can't be read: its name has a NUL in it")) from None
    try:
        told = os.fstat(handle)
        if not stat.S_ISREG(told.st_mode):
            raise NotReadable(tr("it is no ordinary file"))
        # As much at once as it says it has: room for the most that is allowed costs more than the reading.
        at_once = min(max(told.st_size, 4_096), most) + 1
        found = b""
        while len(found) <= most and (more := os.read(handle, at_once)):
            found += more
    except OSError as error:
        raise NotReadable(tr("can't be read: {reason}").format(reason=reason_of(error)), damaged=False) from None
    finally:
        os.close(handle)
    if len(found) > most:
        limit = f"{most // 1024 // 1024} MB" if most >= 1 << 20 else tr("{most} bytes").format(most=most)
        raise NotReadable(tr("larger than {limit}").format(limit=limit), too_large=True)
    return found.removeprefix(b"\xef\xbb\xbf")
