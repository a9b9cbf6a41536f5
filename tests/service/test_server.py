"""Clients that read too slowly, or have gone: what they lose, and that it is nothing else."""

from __future__ import annotations

import socket

import msgspec

from nakrel import protocol as m
from nakrel.protocol.wire import encode_line
from nakrel.service.loop import Loop
from nakrel.service.server import SLOW, Client


class _Server:
    """As much of a server as one connection needs."""

    def __init__(self) -> None:
        self.dropped: list[Client] = []
        self.requests: list[int] = []

        def fail(error: Exception) -> None:
            raise error

        self.loop = Loop(fail)

    def handle(self, connection: Client, number: int, body: msgspec.Raw) -> None:
        self.requests.append(number)
        connection.answer(number, m.Done())

    def drop(self, connection: Client) -> None:
        self.loop.forget(connection.sock)
        self.dropped.append(connection)


def test_a_slow_client_loses_events_and_is_told_how_many():
    server = _Server()
    ours, theirs = socket.socketpair()
    ours.setblocking(False)
    theirs.settimeout(5)
    connection = Client(ours, server)  # type: ignore[arg-type]
    event = m.SeenEvent("in", "KEY_Q", 1, 1)
    sent, status = 0, m.StatusIs(m.Status("everyday", "", 0.0, "", "", ""))
    while len(connection._out) <= SLOW:
        connection.notify(m.Seen((event,) * 500))
        sent += 500
    connection.notify(m.Seen((event,) * 70))
    connection.notify(m.Seen((event,) * 7))
    connection.notify(status)

    received = bytearray()
    while connection._out or not received.endswith(b"\n"):
        connection.write()
        received += theirs.recv(1 << 20)
    connection.notify(m.Seen((event,)))
    received += theirs.recv(1 << 20)
    notices = [msgspec.json.decode(line, type=m.Note).notice for line in received.splitlines()]
    seen = [notice for notice in notices if isinstance(notice, m.Seen)]
    assert sum(len(notice.events) for notice in seen) == sent + 1
    assert [notice.lost for notice in seen if notice.lost] == [77]
    assert seen[-1].lost == 77
    assert status in notices
    assert not server.dropped
    connection.close()
    assert server.dropped == [connection]
    theirs.close()
    server.loop.close()


def test_what_a_client_sent_before_it_went_is_done_though_it_hears_of_nothing_more():
    server = _Server()
    ours, theirs = socket.socketpair()
    ours.setblocking(False)
    connection = Client(ours, server)  # type: ignore[arg-type]
    for number in (7, 8):
        theirs.sendall(encode_line(m.Request(number, m.GetStatus())))
    theirs.close()
    # Something is told to it before anybody has read that.
    connection.notify(m.StatusIs(m.Status("everyday", "", 0.0, "", "", "")))
    assert not server.dropped
    server.loop.watch(ours, lambda: (connection.read(), server.dropped and server.loop.stop()))
    server.loop.run()
    assert server.requests == [7, 8]
    assert server.dropped == [connection]
    server.loop.close()
