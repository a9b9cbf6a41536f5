"""The client's end of the socket where the service is slow to read."""

from __future__ import annotations

import socket
import threading

import msgspec
import pytest

from nakrel import protocol as m
from nakrel.client.connection import ServiceConnection, ServiceGone
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Wait

LONG = m.PutMacro(Macro(id="long", name="Long", loop=tuple(Wait(wait_us=n) for n in range(40_000))))


@pytest.fixture
def ends():
    ours, theirs = socket.socketpair()
    yield ServiceConnection(ours), theirs
    ours.close()
    theirs.close()


def all_of(theirs: socket.socket, into: bytearray) -> None:
    while part := theirs.recv(1 << 20):
        into += part


def test_sending_never_waits_and_the_rest_goes_when_it_can(ends: tuple[ServiceConnection, socket.socket]):
    connection, theirs = ends
    connection.send(LONG)
    # Nobody reads, and yet we are here.
    assert connection.keeps
    read = bytearray()
    while connection.keeps:
        read += theirs.recv(1 << 20)
        connection.flush()
    connection.send(m.GetStatus())
    connection.close()
    all_of(theirs, read)
    lines = bytes(read).splitlines()
    assert len(lines) == 2
    assert msgspec.json.decode(lines[0], type=m.Request).body == LONG


def test_closing_sends_what_waits(ends: tuple[ServiceConnection, socket.socket]):
    connection, theirs = ends
    connection.send(LONG)
    assert connection.keeps
    read = bytearray()
    reader = threading.Thread(target=all_of, args=(theirs, read))
    reader.start()
    connection.close()
    reader.join(20)
    assert msgspec.json.decode(bytes(read), type=m.Request).body == LONG


def test_a_service_that_has_gone_is_told(ends: tuple[ServiceConnection, socket.socket]):
    connection, theirs = ends
    connection.send(LONG)
    theirs.close()
    with pytest.raises(ServiceGone):
        connection.flush()
