"""What the kernel tells of a process, by its files (proc(5)). Read with as few calls as will do: where much is
compiled beside a game, hundreds of processes start each second."""

from __future__ import annotations

import os
import time

from nakrel.core.model.programs import Program

__all__ = ["now_us", "owner", "pids", "read_program", "started_us"]

_TICKS = os.sysconf("SC_CLK_TCK")
_MOST = 1 << 16
_MOST_ENVIRONMENT = 1 << 20
# What stores and sandboxes put into the environment of the programs that they start (from memory).
_APPLICATION_IDS = (b"FLATPAK_ID", b"SNAP_INSTANCE_NAME", b"SteamAppId")
_DELETED = " (deleted)"


def now_us() -> int:
    """Microseconds since the machine was started, those included in which it slept."""
    return time.clock_gettime_ns(time.CLOCK_BOOTTIME) // 1_000


def pids() -> set[int]:
    """All processes."""
    return {int(name) for name in os.listdir("/proc") if name.isdigit()}


def owner(pid: int) -> int:
    """The user that the process is of, -1 for one that is gone."""
    try:
        return os.stat(f"/proc/{pid}").st_uid
    except OSError:
        return -1


def started_us(pid: int) -> int:
    """When the process was started, in microseconds since the machine was; -1 for one that has ended, also where its
    parent hasn't collected it."""
    try:
        _, fields = _stat(pid)
    except (OSError, ValueError):
        return -1
    return -1 if _has_ended(fields) else _start(fields)


def read_program(pid: int, uid: int, *, application: bool = True) -> Program | None:
    """The program that this user's process is; None for another user's, for the kernel's own, and for one that has
    ended. `application` says whether its environment is looked into for that."""
    try:
        if owner(pid) != uid:
            return None
        name, fields = _stat(pid)
        command = () if _has_ended(fields) else _command(_read(f"/proc/{pid}/cmdline", _MOST))
        if not command:
            return None
        return Program(
            pid,
            name,
            _path(pid),
            command,
            _start(fields),
            parent=int(fields[1]),
            application=_application(pid) if application else "",
        )
    except (OSError, ValueError, IndexError):
        return None


def _read(path: str, most: int) -> bytes:
    handle = os.open(path, os.O_RDONLY | os.O_CLOEXEC)
    try:
        found = part = os.read(handle, most)
        # One read gives a page of some files, whatever is asked for.
        while part and len(found) < most and len(part) >= 4096:
            part = os.read(handle, most - len(found))
            found += part
        return found
    finally:
        os.close(handle)


def _stat(pid: int) -> tuple[str, list[bytes]]:
    """The kernel's name for the process, and the fields of stat from the third on. The name may hold anything."""
    data = _read(f"/proc/{pid}/stat", _MOST)
    end = data.rindex(b")")
    return data[data.index(b"(") + 1 : end].decode("utf-8", "replace"), data[end + 2 :].split()


def _has_ended(fields: list[bytes]) -> bool:
    return fields[0] in (b"Z", b"X", b"x")


def _start(fields: list[bytes]) -> int:
    """The 22nd field of stat, in microseconds."""
    return int(fields[19]) * 1_000_000 // _TICKS


def _command(data: bytes) -> tuple[str, ...]:
    """The arguments; one that writes its own title has put spaces between them."""
    parts = data.rstrip(b"\0").split(b"\0")
    if len(parts) == 1 and b" " in parts[0] and not data.endswith(b"\0"):
        parts = parts[0].split(b" ")
    return tuple(part.decode("utf-8", "replace") for part in parts) if parts != [b""] else ()


def _path(pid: int) -> str:
    try:
        path = os.readlink(f"/proc/{pid}/exe".encode()).decode("utf-8", "replace")
    except OSError:
        return ""
    return path.removesuffix(_DELETED)


def _application(pid: int) -> str:
    """The application's id in the process's environment, with its name; nothing else is kept of it."""
    try:
        variables = _read(f"/proc/{pid}/environ", _MOST_ENVIRONMENT).split(b"\0")
    except OSError:
        return ""
    found = (each for each in variables if each.partition(b"=")[0] in _APPLICATION_IDS)
    return next((each.decode("utf-8", "replace")[:200] for each in found if not each.endswith(b"=")), "")
