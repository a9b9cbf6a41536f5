"""The socket: one line a message, bounded in both directions.

Every request gets exactly one answer, under its own number. A client that reads too slowly loses its oldest notices of
events and is told how many; one that sends lines without a number gets an error a line and, if it keeps on, is dropped.
Neither ever makes the engine wait.
"""

from __future__ import annotations

import logging
import os
import select
import socket
from collections.abc import Callable

import msgspec

from nakrel.private import peer_uid, socket_address
from nakrel.protocol import MAX_LINE, Answer, AnswerBody, Note, Notice, Refused, Seen
from nakrel.protocol.wire import BadMessage, decode_head, encode_line
from nakrel.service.loop import Loop, monotonic_us
from nakrel.storage.home import Home
from nakrel.words import tr

__all__ = ["Client", "Server"]

log = logging.getLogger(__name__)

# Beyond this many bytes unread by the client, event notices are left out for it.
SLOW = 256 * 1024
# Beyond this many it is taken for dead.
DEAD = 64 * 1024 * 1024
MAX_BAD_LINES = 20
MAX_CLIENTS = 32
_AT_ONCE = 1 << 16
# So often a client is read at the end of the service; whoever still sends then sends without end.
_LAST_READS = MAX_LINE // _AT_ONCE + 1


class Client:
    """One client."""

    def __init__(self, sock: socket.socket, server: Server) -> None:
        self.sock = sock
        self.subscribed = False
        self.wants_seen = False
        self.closed = False
        # It has gone, but something of what it sent before may be left to read.
        self.gone = False
        # When it last said something, 0 for never (monotonic).
        self.heard_us = 0
        self._server = server
        self._in = bytearray()
        self._out = bytearray()
        self._bad = 0
        self._lost = 0

    def answer(self, number: int, body: AnswerBody) -> None:
        """Answer the request of this number."""
        self.send(encode_line(Answer(number, body)))

    def notify(self, notice: Notice) -> None:
        """Send a notice; one of events is left out, and counted, while the client is slow."""
        if isinstance(notice, Seen):
            if len(self._out) > SLOW:
                self._lost += len(notice.events)
                return
            notice = Seen(notice.events, self._lost)
            self._lost = 0
        self.send(encode_line(Note(notice)))

    def read(self) -> None:
        """Take what has arrived and handle every whole line of it."""
        try:
            data = self.sock.recv(_AT_ONCE)
        except BlockingIOError:
            return
        except OSError:
            data = b""
        if not data:
            self.close()
            return
        searched = len(self._in)
        self._in += data
        while not self.closed and (end := self._in.find(b"\n", searched)) >= 0:
            line = bytes(self._in[:end])
            del self._in[: end + 1]
            searched = 0
            self._line(line)
        if len(self._in) > MAX_LINE:
            self.answer(0, Refused(tr("a message may have {most} bytes at most").format(most=MAX_LINE)))
            self.close()

    def write(self) -> None:
        """Send what is waiting, as far as the client takes it."""
        try:
            sent = self.sock.send(self._out)
        except BlockingIOError:
            sent = 0
        except OSError:
            # The end of what it sent comes after the last edit of a window that is closed.
            self.gone, sent = True, len(self._out)
        del self._out[:sent]
        self._server.loop.watch(self.sock, self.read, self.write if self._out else None)

    def close(self) -> None:
        """Drop the client."""
        if not self.closed:
            self.closed = True
            self._server.drop(self)
            self.sock.close()

    def _line(self, line: bytes) -> None:
        self.heard_us = monotonic_us()
        try:
            number, body = decode_head(line)
        except BadMessage as error:
            if error.number:
                self.answer(error.number, Refused(str(error)))
                return
            self._bad += 1
            self.answer(0, Refused(tr("this line is no request: {reason}").format(reason=error)))
            if self._bad >= MAX_BAD_LINES:
                self.close()
            return
        self._server.handle(self, number, body)

    def send(self, message: bytes) -> None:
        """Send a line that is written already."""
        if self.closed or self.gone:
            return
        waiting = bool(self._out)
        self._out += message
        if len(self._out) > DEAD:
            log.info("a client reads nothing and is dropped")
            self.close()
        elif not waiting:
            self.write()


class Server:
    """Listens in the home's runtime folder; only the same user may connect."""

    def __init__(
        self,
        home: Home,
        loop: Loop,
        handle: Callable[[Client, int, msgspec.Raw], None],
        dropped: Callable[[Client], None],
    ) -> None:
        self.loop = loop
        self.handle = handle
        self.connections: list[Client] = []
        self._dropped = dropped
        self._path = home.socket
        self._path.unlink(missing_ok=True)
        self._sock = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM | socket.SOCK_NONBLOCK)
        old = os.umask(0o177)
        try:
            with socket_address(self._path) as address:
                self._sock.bind(address)
        finally:
            os.umask(old)
        self._sock.listen(16)
        loop.watch(self._sock, self._accept)

    def broadcast(self, notice: Notice, but: Client | None = None) -> None:
        """Send a notice to every client that asked for notices, except for one."""
        for connection in list(self.connections):
            if connection.subscribed and connection is not but:
                connection.notify(notice)

    def drop(self, connection: Client) -> None:
        """Forget a connection."""
        self.loop.forget(connection.sock)
        if connection in self.connections:
            self.connections.remove(connection)
            self._dropped(connection)

    def take_last(self) -> None:
        """Read what clients have sent by now: edits that are on their way when the service ends are no less made."""
        for _ in range(_LAST_READS):
            ready, _, _ = select.select([each.sock for each in self.connections], (), (), 0)
            if not ready:
                break
            for connection in list(self.connections):
                if connection.sock in ready:
                    connection.read()

    def close(self) -> None:
        """Drop all clients and take the socket away."""
        for connection in list(self.connections):
            connection.close()
        self.loop.forget(self._sock)
        self._sock.close()
        self._path.unlink(missing_ok=True)

    def _accept(self) -> None:
        try:
            sock, _ = self._sock.accept()
        except OSError:
            return
        sock.setblocking(False)
        if peer_uid(sock) != os.getuid():
            sock.close()
            return
        if len(self.connections) >= MAX_CLIENTS:
            # Whoever comes may want to stop everything. One that says nothing makes room first, then one that wants no
            # notices; of these the one that has been silent for longest.
            quietest = min(self.connections, key=lambda each: (each.heard_us > 0, each.subscribed, each.heard_us))
            log.info("too many clients: the quietest of them is dropped")
            quietest.close()
        connection = Client(sock, self)
        self.connections.append(connection)
        self.loop.watch(sock, connection.read)
