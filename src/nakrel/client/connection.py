"""A client's connection, without Qt: blocking `call` for scripts, `send` and `receive` for an event loop."""

from __future__ import annotations

import contextlib
import errno
import os
import select
import socket
import time
from collections.abc import Callable

import msgspec

from nakrel.private import peer_uid, socket_address
from nakrel.protocol import PROTOCOL, AnswerBody, Body, Fault, Hello, Note, Notice, Refused, Request
from nakrel.protocol.wire import BadMessage, decode_body, decode_head, encode_line
from nakrel.system_errors import reason_of
from nakrel.words import plain, tr

__all__ = ["ClientError", "NoService", "ServiceConnection", "ServiceGone", "ServiceRefused"]


class ClientError(Exception):
    """The service can't be used; the message says why and what would help."""


class ServiceGone(ClientError):
    """The connection ended."""


class NoService(ServiceGone):
    """None runs there."""


class ServiceRefused(ClientError):
    """The service refused the request and changed nothing."""


# How long the end of a connection may wait for the service to take the last requests.
_LAST_S = 5.0
# Some libraries make SIGPIPE deadly again, which Python ignores; a service that is gone must be an error all the same.
_AT_ONCE = socket.MSG_DONTWAIT | socket.MSG_NOSIGNAL

_bodies = msgspec.json.Decoder(AnswerBody)
_notes = msgspec.json.Decoder(Note)


class ServiceConnection:
    """Made by `connect`. Notices go to `on_notice`, from within `receive` and `call`; so does a fault where the service
    answers what nobody asked, or tells what can't be read."""

    def __init__(self, sock: socket.socket) -> None:
        self._sock = sock
        self._buffer = bytearray()
        self._out = bytearray()
        self._number = 0
        self._waiting: dict[int, Callable[[AnswerBody], None]] = {}
        self.on_notice: Callable[[Notice], None] = lambda notice: None

    @classmethod
    def connect(cls, path: str | os.PathLike[str], client: str, limit_s: float = 5.0) -> ServiceConnection:
        """Connect and exchange versions; raises `ClientError`."""
        sock = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM)
        try:
            with socket_address(path) as address:
                sock.connect(address)
        except OSError as error:
            sock.close()
            none = error.errno in (errno.ENOENT, errno.ECONNREFUSED)
            raise (NoService if none else ServiceGone)(
                tr("no service answers at {path}: {reason}").format(path=path, reason=reason_of(error))
            ) from None
        if peer_uid(sock) != os.getuid():
            sock.close()
            raise ClientError(
                tr("what answers at {path} is another user's, so nothing is sent to it; remove that file").format(
                    path=path
                )
            )
        connection = cls(sock)
        try:
            connection.call(Hello(client, PROTOCOL), limit_s)
        except ClientError:
            connection.close()
            raise
        return connection

    def fileno(self) -> int:
        """The socket, for an event loop to watch."""
        return self._sock.fileno()

    def send(self, body: Body, answered: Callable[[AnswerBody], None] = lambda answer: None) -> None:
        """Send a request; its answer, `Refused` included, goes to `answered`. Raises `ServiceGone`.

        It never waits: what the service doesn't take at once is kept for `flush`.
        """
        self._number += 1
        self._waiting[self._number] = answered
        self._out += encode_line(Request(self._number, body))
        self.flush()

    @property
    def keeps(self) -> bool:
        """Whether something waits to be sent: call `flush` when the socket can be written to."""
        return bool(self._out)

    def flush(self) -> None:
        """Send of what waits as much as the service takes. Raises `ServiceGone`."""
        while self._out:
            try:
                del self._out[: self._sock.send(self._out, _AT_ONCE)]
            except BlockingIOError:
                return
            except OSError as error:
                raise ServiceGone(tr("the service is gone: {reason}").format(reason=reason_of(error))) from None

    def call(self, body: Body, limit_s: float = 10.0) -> AnswerBody:
        """Send a request and wait for its answer.

        Raises `ServiceRefused`, or `ServiceGone` where no answer comes within `limit_s` seconds.
        """
        answers: list[AnswerBody] = []
        self.send(body, answers.append)
        end = time.monotonic() + limit_s
        while not answers:
            left = end - time.monotonic()
            ready = select.select([self._sock], [self._sock] if self._out else [], [], max(0.0, left))
            if left <= 0 or not (ready[0] or ready[1]):
                raise ServiceGone(tr("the service did not answer within {limit_s} s").format(limit_s=plain(limit_s)))
            self.flush()
            if ready[0]:
                self.receive()
        if isinstance(answers[0], Refused):
            raise ServiceRefused(answers[0].error)
        return answers[0]

    def receive(self) -> None:
        """Take what has arrived and hand out its answers and notices. Raises `ServiceGone`."""
        try:
            data = self._sock.recv(1 << 18)
        except OSError as error:
            raise ServiceGone(tr("the service is gone: {reason}").format(reason=reason_of(error))) from None
        if not data:
            raise ServiceGone(tr("the service has ended"))
        searched = len(self._buffer)
        self._buffer += data
        while (end := self._buffer.find(b"\n", searched)) >= 0:
            line = bytes(self._buffer[:end])
            del self._buffer[: end + 1]
            searched = 0
            self._dispatch(line)

    def close(self) -> None:
        """Send what waits, for a few seconds at most, and close the socket."""
        if self._out:
            with contextlib.suppress(OSError):
                self._sock.settimeout(_LAST_S)
                self._sock.sendall(self._out, socket.MSG_NOSIGNAL)
        self._sock.close()

    def _dispatch(self, line: bytes) -> None:
        try:
            if line.startswith(b'{"notice"'):
                self.on_notice(_notes.decode(line).notice)
                return
            number, raw = decode_head(line)
        except (BadMessage, msgspec.DecodeError, UnicodeDecodeError) as error:
            self.on_notice(Fault(tr("The service said something that can't be read: {reason}.").format(reason=error)))
            return
        answered = self._waiting.pop(number, None)
        try:
            body = decode_body(raw, _bodies)
        except BadMessage as error:
            body = Refused(tr("the service's answer can't be read: {reason}").format(reason=error))
        if answered is not None:
            answered(body)
        else:
            what = body.error if isinstance(body, Refused) else type(body).__name__
            self.on_notice(Fault(tr("The service answered what nobody asked: {what}.").format(what=what)))
