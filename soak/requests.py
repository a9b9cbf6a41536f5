"""Requests of any shape to the service's socket, many at once from several clients: each gets exactly one answer."""

from __future__ import annotations

import os
import random
import select
import socket
import tempfile
import threading
from collections import Counter
from pathlib import Path

import msgspec
from tests.requests import HOLD, bodies, broken
from tests.support import ServiceProcess

from nakrel import protocol as m
from soak.part import Found, Tell

__all__ = ["requests"]

_CLIENTS, _AT_ONCE = 4, 100
_LIMIT_S = 30.0


def _ask(path: Path, numbers: range, seed: str, counted: Counter[int], failures: list[str]) -> None:
    """Send these requests, a hundred at a time, and count the answers."""
    chance, kinds = random.Random(seed), bodies()
    buffer = bytearray()
    with socket.socket(socket.AF_UNIX) as sock:
        sock.connect(os.fspath(path))
        for first in range(numbers.start, numbers.stop, _AT_ONCE):
            now = range(first, min(first + _AT_ONCE, numbers.stop))
            lines = []
            for number in now:
                body = chance.choice(kinds)
                body = broken(body, chance) if chance.random() < 0.5 else body
                lines.append(b'{"id":%d,"body":%s}\n' % (number, body))
            sock.sendall(b"".join(lines))
            left = len(now)
            while left > 0:
                if not select.select([sock], [], [], _LIMIT_S)[0] or not (data := sock.recv(1 << 20)):
                    failures.append(f"requests {now.start} to {now.stop}: {left} answers are missing ({seed})")
                    return
                buffer.extend(data)
                *whole, rest = buffer.split(b"\n")
                buffer[:] = rest
                for line in whole:
                    if line.startswith(b'{"id"'):
                        counted[msgspec.json.decode(line, type=m.Answer).id] += 1
                        left -= 1


def requests(count: int, seed: int, tell: Tell) -> Found:
    """So many requests, while a macro holds a key."""
    failures: list[str] = []
    counted: Counter[int] = Counter()
    with tempfile.TemporaryDirectory() as folder:
        service = ServiceProcess(Path(folder) / "home", "--backend", "stand-in")
        service.call(m.PutMacro(HOLD))
        service.call(m.Play_("hold"))
        each = -(-count // _CLIENTS)
        ranges = [range(1 + n * each, 1 + min(count, (n + 1) * each)) for n in range(_CLIENTS)]
        threads = [
            threading.Thread(
                target=_ask, args=(service.home.socket, numbers, f"{seed} {n}", counted, failures), daemon=True
            )
            for n, numbers in enumerate(ranges)
        ]
        for thread in threads:
            thread.start()
        while any(thread.is_alive() for thread in threads):
            threads[0].join(1)
            for thread in threads[1:]:
                thread.join(0.05)
            tell(len(counted))
        if not failures and counted != Counter(range(1, count + 1)):
            wrong = [number for number in range(1, count + 1) if counted[number] != 1]
            failures.append(f"requests {wrong[:10]} have {[counted[number] for number in wrong[:10]]} answers")
        if [run.macro for run in service.status().running] != ["hold"]:
            failures.append("the macro that held a key ended")
        if code := service.end():
            failures.append(f"the service ended with {code}")
    return Found(failures)
