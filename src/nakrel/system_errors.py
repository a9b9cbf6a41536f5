"""Why the system refuses something, in words of the session's language: the system's own are English wherever its
language isn't installed, and "No space left on device" isn't how people say it."""

from __future__ import annotations

import errno

from nakrel.words import noted, tr

__all__ = ["reason_of"]

# By the numbers of errno(3).
_REASONS = {
    errno.ENOENT: noted("it isn't there"),
    errno.EACCES: noted("no permission"),
    errno.EPERM: noted("no permission"),
    errno.ENOSPC: noted("the disk is full"),
    errno.EDQUOT: noted("your share of the disk is used up"),
    errno.EROFS: noted("the disk is read-only"),
    errno.EISDIR: noted("it is a folder"),
    errno.ENOTDIR: noted("a file is where a folder should be"),
    errno.EEXIST: noted("it is there already"),
    errno.ENAMETOOLONG: noted("the name is too long"),
    errno.ELOOP: noted("links lead in a circle there"),
    errno.EIO: noted("reading or writing failed"),
    errno.EMFILE: noted("too many files are open"),
    errno.ENFILE: noted("too many files are open"),
    errno.ENODEV: noted("the device isn't there"),
    errno.ENXIO: noted("the device isn't there"),
    errno.EBUSY: noted("another program uses it"),
    errno.ENOEXEC: noted("it is no program"),
    errno.ENOMEM: noted("no memory is left"),
    errno.ECONNREFUSED: noted("nothing answers there"),
    errno.ECONNRESET: noted("the other side has closed the connection"),
    errno.EPIPE: noted("the other side has closed the connection"),
    errno.ETIMEDOUT: noted("no answer came in time"),
}


def reason_of(error: Exception) -> str:
    """The reason, as it stands behind a colon; the system's own words for what is rare, and what is no error of the
    system as it tells of itself."""
    if not isinstance(error, OSError):
        return str(error)
    known = _REASONS.get(error.errno or 0)
    return tr(known) if known else error.strerror or str(error)
