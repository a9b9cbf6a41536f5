"""Folders, files and sockets that are this user's alone, whatever others have put in their way."""

from __future__ import annotations

import contextlib
import os
import socket
import stat
import struct
from collections.abc import Iterator
from pathlib import Path

from nakrel.words import tr

__all__ = ["NotPrivate", "is_mine", "open_private", "peer_uid", "private_folder", "socket_address"]

# sun_path holds 108 bytes with its closing zero (unix(7)).
_MAX_ADDRESS = 107


class NotPrivate(Exception):
    """Something isn't this user's alone; the message names it, with the remedy."""


def is_mine(path: str | os.PathLike[str]) -> bool:
    """Whether it is a folder of this user's, and no link to one, that nobody else may write to."""
    try:
        found = os.lstat(path)
    except OSError:
        return False
    return stat.S_ISDIR(found.st_mode) and found.st_uid == os.getuid() and not found.st_mode & 0o022


def private_folder(path: Path) -> None:
    """Make the folder where it isn't there, and see to it that it is this user's alone. Raises `NotPrivate`, and
    `OSError` where it can't be made."""
    path.mkdir(mode=0o700, parents=True, exist_ok=True)
    found = os.lstat(path)
    if not stat.S_ISDIR(found.st_mode) or found.st_uid != os.getuid():
        raise NotPrivate(
            tr(
                "{path} isn't a folder of yours (it is a link, or another user's), and somebody might listen "
                "there; remove it, or log in anew so that the system gives you a folder of your own "
                "($XDG_RUNTIME_DIR)"
            ).format(path=path)
        )
    if found.st_mode & 0o077:
        path.chmod(0o700)


def open_private(path: str | os.PathLike[str], flags: int) -> int:
    """Open a file, made for this user alone where it isn't there; a link isn't followed. An `opener` for `open`. Raises
    `OSError`."""
    handle = os.open(path, flags | os.O_NOFOLLOW | os.O_CLOEXEC, 0o600)
    if stat.S_ISREG(os.fstat(handle).st_mode):
        with contextlib.suppress(OSError):
            os.fchmod(handle, 0o600)
    return handle


def peer_uid(sock: socket.socket) -> int:
    """The user at the other end of a connection (SO_PEERCRED, unix(7)): pid, uid, gid."""
    return int(struct.unpack("3i", sock.getsockopt(socket.SOL_SOCKET, socket.SO_PEERCRED, 12))[1])


@contextlib.contextmanager
def socket_address(path: str | os.PathLike[str]) -> Iterator[str]:
    """What to give to bind and connect for a socket at this path, however long that is: by way of its folder's
    descriptor (proc(5)). Raises `OSError` where the folder isn't there."""
    folder, name = os.path.split(os.fspath(path))
    if len(os.fsencode(path)) <= _MAX_ADDRESS:
        yield os.fspath(path)
        return
    handle = os.open(folder, os.O_PATH | os.O_DIRECTORY | os.O_CLOEXEC)
    try:
        yield f"/proc/self/fd/{handle}/{name}"
    finally:
        os.close(handle)
