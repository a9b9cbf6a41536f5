"""What the window takes of a processor while a macro runs, in front and behind a game; run as a process of its own."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
import time

__all__ = ["shares_while_playing"]

# The strip still shows what went before for three seconds.
_REST_MS = 3_500


def shares_while_playing(seconds: float) -> dict[str, tuple[float, float]]:
    """By page: the percentages of a core in front, and behind another window."""
    environment = {**os.environ, "QT_QPA_PLATFORM": os.environ.get("QT_QPA_PLATFORM", "offscreen")}
    command = [sys.executable, "-m", "bench.playing", str(seconds)]
    told = subprocess.run(command, check=True, env=environment, capture_output=True, text=True).stdout
    return {page: (front, behind) for page, front, behind in json.loads(told)}


def _measure(seconds: float) -> list[tuple[str, float, float]]:
    from msgspec.structs import replace
    from PyQt6.QtTest import QTest
    from PyQt6.QtWidgets import QApplication, QWidget

    from nakrel import protocol as m
    from nakrel.client.launch import ensure_service
    from nakrel.core.model.macro import Mode
    from nakrel.demo.seed import seed
    from nakrel.storage.home import Home
    from nakrel.ui.app import open_window
    from nakrel.ui.store import Store

    home = tempfile.mkdtemp()
    seed(Home.find(home))
    app = QApplication([])
    store = Store(lambda: ensure_service(Home.find(home).socket, home, "bench"))
    store.open()
    window, game = open_window(app, store), QWidget()
    window.resize(1280, 800)
    game.show()
    window.show()
    window.shown.show_profile("tidewardens")
    window.shown.show_macro("reel-in")
    # Some thirty events a second, as long as it takes.
    play = replace(store.macros["reel-in"].play, mode=Mode.COUNTED, runs=10_000)

    def wait(ms: float) -> None:
        QTest.qWait(round(ms))  # type: ignore[arg-type,call-arg]

    def share(active: QWidget) -> float:
        active.activateWindow()
        store.ask(m.Play_("reel-in", play))
        wait(1_000)
        used, began = time.process_time(), time.monotonic()
        wait(seconds * 1_000)
        found = (time.process_time() - used) / (time.monotonic() - began) * 100
        assert store.status.running, "the macro has ended"
        store.ask(m.Stop())
        wait(_REST_MS)
        return found

    found = []
    for page in ("sheet", "macro"):
        window.shown.show_page(page)
        wait(_REST_MS)
        found.append((page, share(window), share(game)))
    store.ask(m.Shutdown())
    window.close()
    return found


if __name__ == "__main__":
    print(json.dumps(_measure(float(sys.argv[1]))))
