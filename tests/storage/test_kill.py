"""A kill at any moment of saving loses nothing that was acknowledged, and leaves nothing half-written."""

from __future__ import annotations

import random
import signal
import subprocess
import sys
from pathlib import Path

from nakrel.storage.home import Home
from nakrel.storage.library import Library
from tests.support import pause

ROUNDS = 12
_SAVER = """
import sys
from nakrel.core.model.macro import Macro
from nakrel.core.model.steps import Wait
from nakrel.storage.home import Home
from nakrel.storage.library import Library
library = Library(Home.find(sys.argv[1]))
library.load()
n = int(sys.argv[2])
while True:
    n += 1
    # The name changes, too, so that a kill can fall between the new content and the new name.
    library.put_macro(Macro(id="m", name=f"M {n % 3}", note=str(n), loop=(Wait(wait_us=n % 1000),) * 400))
    print(n, flush=True)
"""


def test_kill_while_saving(tmp_path: Path):
    chance = random.Random(11)
    last = 0
    for _ in range(ROUNDS):
        process = subprocess.Popen(
            [sys.executable, "-c", _SAVER, str(tmp_path), str(last)], stdout=subprocess.PIPE, text=True
        )
        assert process.stdout
        first = int(process.stdout.readline())
        pause(chance.uniform(0, 0.08))
        process.send_signal(signal.SIGKILL)
        acknowledged = [first, *map(int, process.stdout.read().split())]
        process.wait()
        process.stdout.close()
        library = Library(Home.find(tmp_path))
        library.load()
        assert not library.faults
        found = int(library.macros["m"].note)
        assert acknowledged[-1] <= found <= acknowledged[-1] + 1
        last = found
