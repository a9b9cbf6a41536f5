"""The kernel's own notices of programs that start: the process events connector (linux/cn_proc.h, linux/connector.h).

Root may listen, and from Linux 6.6 on everybody may; elsewhere programs are looked for from time to time.
"""

from __future__ import annotations

import array
import contextlib
import os
import socket
import struct

from nakrel.backends.protocols import BackendUnavailable
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["ProcessEvents"]

_NETLINK_CONNECTOR = 11
_CN_IDX_PROC, _CN_VAL_PROC = 1, 1
_PROC_CN_MCAST_LISTEN = 1
_EXEC, _COMM = 0x2, 0x200
_NLMSG_DONE = 3
# struct nlmsghdr (16 bytes) and struct cn_msg (20 bytes) stand before struct proc_event: what, cpu, time, process.
_WHAT_AT = 36
_EVENT = struct.Struct("=IIQII")
_SO_ATTACH_FILTER = 26
_MOST_AT_ONCE = 1_000


def _filter() -> bytes:
    """A program that lets only starts and renamings pass, so that nothing else wakes us (linux/filter.h)."""
    load_word, jump_equal, give = 0x20, 0x15, 0x06
    # The machine reads the word in network order.
    wanted = [socket.htonl(what) for what in (_EXEC, _COMM)]
    lines = [
        (load_word, 0, 0, _WHAT_AT),
        (jump_equal, 1, 0, wanted[0]),
        (jump_equal, 0, 1, wanted[1]),
        (give, 0, 0, 0xFFFF),
        (give, 0, 0, 0),
    ]
    return b"".join(struct.pack("=HBBI", *line) for line in lines)


class ProcessEvents:
    """Raises `BackendUnavailable` where the kernel doesn't tell."""

    def __init__(self) -> None:
        try:
            self._sock = socket.socket(
                socket.AF_NETLINK, socket.SOCK_DGRAM | socket.SOCK_CLOEXEC | socket.SOCK_NONBLOCK, _NETLINK_CONNECTOR
            )
        except OSError as error:
            raise BackendUnavailable(
                tr("the kernel has no process events: {reason}").format(reason=reason_of(error))
            ) from None
        try:
            program = array.array("B", _filter())
            fprog = struct.pack("HL", len(program) // 8, program.buffer_info()[0])
            self._sock.setsockopt(socket.SOL_SOCKET, _SO_ATTACH_FILTER, fprog)
            self._sock.bind((0, _CN_IDX_PROC))
            body = struct.pack("=I", _PROC_CN_MCAST_LISTEN)
            message = struct.pack("=IIIIHH", _CN_IDX_PROC, _CN_VAL_PROC, 0, 0, len(body), 0) + body
            self._sock.send(struct.pack("=IHHII", 16 + len(message), _NLMSG_DONE, 0, 0, os.getpid()) + message)
        except OSError as error:
            self._sock.close()
            raise BackendUnavailable(
                tr("the kernel tells no process events: {reason}").format(reason=reason_of(error))
            ) from None

    def fileno(self) -> int:
        """A descriptor that is readable when programs have started."""
        return self._sock.fileno()

    def started(self) -> set[int] | None:
        """The processes that began a program or took another name since the last call; None where some were missed."""
        pids: set[int] = set()
        for _ in range(_MOST_AT_ONCE):
            try:
                data = self._sock.recv(4096)
            except BlockingIOError:
                break
            except OSError:
                # More came than the socket holds (ENOBUFS).
                return None
            if len(data) >= _WHAT_AT + _EVENT.size:
                what, _, _, _, process = _EVENT.unpack_from(data, _WHAT_AT)
                if what in (_EXEC, _COMM):
                    pids.add(process)
        return pids

    def close(self) -> None:
        """Close; never raises."""
        with contextlib.suppress(OSError):
            self._sock.close()
