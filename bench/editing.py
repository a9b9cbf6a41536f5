"""How long an edit of a macro takes in the window, repaint included; run as a process of its own."""

from __future__ import annotations

import json
import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable

__all__ = ["edit_times"]


def edit_times(rounds: int) -> dict[str, tuple[float, float, float]]:
    """For each kind of edit the median in milliseconds with a macro of 20 steps, with one of 10,000, and with one of
    10,000 that are conditions, what they decide on, and waits by a formula."""
    environment = {**os.environ, "QT_QPA_PLATFORM": os.environ.get("QT_QPA_PLATFORM", "offscreen")}
    command = [sys.executable, "-m", "bench.editing", str(rounds)]
    told = subprocess.run(command, check=True, env=environment, capture_output=True, text=True).stdout
    return {name: (small, large, by_formulas) for name, small, large, by_formulas in json.loads(told)}


def _measure(rounds: int) -> list[tuple[str, float, float, float]]:
    from msgspec.structs import replace
    from PyQt6.QtTest import QTest
    from PyQt6.QtWidgets import QApplication

    from nakrel import protocol as m
    from nakrel.client.launch import ensure_service
    from nakrel.core.edit.shaping import Edge
    from nakrel.core.model.steps import If, Step, Tap, Wait
    from nakrel.demo.seed import seed
    from nakrel.storage.home import Home
    from nakrel.ui.app import open_window, spare_the_collector
    from nakrel.ui.store import Store

    home = tempfile.mkdtemp()
    seed(Home.find(home))
    app = QApplication([])
    store = Store(lambda: ensure_service(Home.find(home).socket, home, "bench"))
    store.open()
    window = open_window(app, store)
    window.resize(1280, 800)
    window.show()
    spare_the_collector()
    window.shown.show_macro("reel-in")
    page, found = window.macro, []
    keys = ("KEY_Q", "KEY_W", "KEY_E", "BTN_LEFT", "KEY_R")

    def middle() -> int:
        """The tap that lies next to the middle, outside of all blocks."""
        rows = range(page.model.size() // 2, page.model.size())
        return next(row for row in rows if isinstance(page.model.step(row), Tap) and not page.model.line.row(row).depth)

    def drag(by_us: int) -> None:
        diagram, row = page.diagram, middle()
        diagram.selection.picks = frozenset({Edge(row, True), Edge(row, False)})
        diagram._try(diagram.line, by_us)

    def timed(edit: Callable[[int], object]) -> float:
        took = []
        for number in range(rounds):
            # What an edit leads to later (checks, frame check, the answer of the service) is over by then.
            QTest.qWait(1_500)  # type: ignore[arg-type,call-arg]
            page.select([middle()])
            app.processEvents()
            start = time.perf_counter()
            edit(number)
            app.processEvents()
            took.append((time.perf_counter() - start) * 1_000)
        return statistics.median(took)

    edits: dict[str, Callable[[int], object]] = {
        "a time typed": lambda n: page.model.setData(page.model.index(middle(), 3), str(21 + n)),
        "a step added": lambda n: page.step_actions.insert(Tap(control="KEY_Z", hold_us=5_000)),
        "a step deleted": lambda n: page.step_actions.delete_selected(),
        "undo": lambda n: store.undo_stack.undo(),
        "a hold dragged on": lambda n: drag(1_000 + 100 * n),
    }
    results: dict[str, list[float]] = {name: [] for name in edits}
    for size, by_formulas in ((20, False), (10_000, False), (10_000, True)):
        steps: list[Step] = []
        for number in range(size // (5 if by_formulas else 2)):
            tap, wait = Tap(control=keys[number % 5], hold_us=20_000), Wait(wait_us=30_000)
            steps += [If(condition="run > 1", steps=(tap,)), Wait(wait_us="30 + run"), tap] if by_formulas else [tap]
            steps.append(wait)
        store.put_macro(replace(store.macros["reel-in"], lead_in=(), lead_out=(), loop=tuple(steps)))
        for name, edit in edits.items():
            results[name].append(timed(edit))
    found = [(name, small, large, by_formulas) for name, (small, large, by_formulas) in results.items()]
    store.ask(m.Shutdown())
    window.close()
    return found


if __name__ == "__main__":
    print(json.dumps(_measure(int(sys.argv[1]))))
