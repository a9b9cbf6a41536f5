"""A client that reads too slowly: it loses events, is told how many, and loses nothing else."""

from __future__ import annotations

import socket

import msgspec

from nakrel import protocol as m
from nakrel.service.loop import Loop
from nakrel.service.server import SLOW, Client


class _Server:
    """As much of a server as one connection needs."""

    def __init__(self) -> None:
        self.dropped: list[Client] = []

        def fail(error: Exception) -> None:
            raise error

        self.loop = Loop(fail)

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
