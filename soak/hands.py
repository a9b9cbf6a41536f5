"""A window in which somebody clicks, drags and types at random: nothing breaks, and nothing is lost."""

from __future__ import annotations

import contextlib
import json
import os
import subprocess
import sys
import tempfile
from pathlib import Path

from tests.support import wait_for

from nakrel.client.connection import ClientError, ServiceConnection
from nakrel.protocol import Shutdown
from nakrel.storage.home import Home
from soak.part import Found, Tell

__all__ = ["hands"]

# Actions in one window, which then is looked through.
_ROUND = 500
_LIMIT_S = 600.0
_ROOT = Path(__file__).parent.parent


def hands(count: int, seed: int, tell: Tell) -> Found:
    """So many actions, some hundred in a window; the user's folders are made up."""
    failures = []
    for first in range(0, count, _ROUND):
        with tempfile.TemporaryDirectory() as folder:
            environment = {
                **{name: value for name, value in os.environ.items() if not name.startswith(("XDG_", "DBUS_"))},
                **{f"XDG_{name}_HOME": f"{folder}/{name}" for name in ("CONFIG", "DATA", "STATE", "CACHE")},
                "HOME": folder,
                "PYTHONPATH": os.pathsep.join((str(_ROOT), str(_ROOT / "src"))),
                "QT_QPA_PLATFORM": "offscreen",
            }
            here = seed * 1_000 + first // _ROUND
            acts = min(_ROUND, count - first)
            command = [sys.executable, "-m", "soak.user", f"{folder}/home", str(acts), str(here)]
            try:
                done = subprocess.run(
                    command, env=environment, cwd=folder, capture_output=True, text=True, timeout=_LIMIT_S
                )
            except subprocess.TimeoutExpired:
                failures.append(f"no end within {_LIMIT_S:g} s (window {here})")
                continue
            finally:
                _end_service(Path(folder) / "home")
            if done.returncode:
                said = (done.stdout + done.stderr)[-2_000:]
                failures.append(f"the window ended with {done.returncode} (window {here}): {said}")
            else:
                failures += [f"{line} (window {here})" for line in json.loads(done.stdout.splitlines()[-1])]
        tell(first + acts)
    return Found(failures)


def _end_service(home: Path) -> None:
    """It outlives its window."""
    socket = Home.find(home).socket
    with contextlib.suppress(ClientError):
        connection = ServiceConnection.connect(socket, "soak")
        connection.call(Shutdown())
        connection.close()
    wait_for(lambda: not socket.exists(), "the service's end")
