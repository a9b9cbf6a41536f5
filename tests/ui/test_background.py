"""Work beside the window's thread, and windows that go while it is done."""

from __future__ import annotations

import threading
from collections.abc import Callable

import pytest
from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from nakrel import worker_process
from nakrel.ui.background import Background, wait_for_work
from nakrel.worker_process import Unwanted


def test_the_result_comes_on_the_windows_thread(qtbot: QtBot):
    owner, came = QObject(), []
    Background(owner).start(threading.get_ident, lambda found: came.append((found, threading.get_ident())))
    qtbot.waitUntil(lambda: bool(came), timeout=10_000)
    worked, told = came[0]
    assert told == threading.get_ident() != worked


def test_only_the_last_ones_result_counts_and_none_after_a_cancel(qtbot: QtBot):
    owner, came, free = QObject(), [], threading.Event()
    work = Background(owner)
    work.start(lambda: free.wait(10) and "old", came.append)
    work.start(lambda: "new", came.append)
    free.set()
    qtbot.waitUntil(lambda: came == ["new"], timeout=10_000)
    work.start(lambda: "dropped", came.append)
    work.cancel()
    wait_for_work()
    QApplication.processEvents()
    assert came == ["new"]


def test_a_job_is_given_up_when_another_one_follows_and_when_the_window_closes(
    qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
):
    owner, came, asked = QObject(), [], list[Callable[[], bool]]()
    held = threading.Semaphore(0)

    def ask(job: object, answer: type, wanted: Callable[[], bool], so_far: object) -> str:
        asked.append(wanted)
        while wanted():
            held.acquire(timeout=0.01)
        raise Unwanted

    monkeypatch.setattr(worker_process, "ask", ask)
    work, job = Background(owner), worker_process.SketchLoop(())
    work.ask(job, str, came.append)
    qtbot.waitUntil(lambda: len(asked) == 1, timeout=10_000)
    assert asked[0]()
    work.ask(job, str, came.append)
    qtbot.waitUntil(lambda: len(asked) == 2, timeout=10_000)
    assert not asked[0]()
    assert asked[1]()
    # The window doesn't wait for what nobody sees any more.
    wait_for_work(60_000)
    qtbot.wait(10)
    assert not came
    # What has left a window is no reason to give up in the next one.
    assert asked[1]()


def test_an_owner_that_goes_while_work_is_done_hears_nothing_of_it(qapp: QApplication):
    """Many times over: the work ends at the very moment at which its owner is deleted."""
    came: list[object] = []
    for _ in range(300):
        owner, begun = QObject(), threading.Event()
        Background(owner).start(lambda begun=begun: begun.wait(5), came.append)
        begun.set()
        owner.deleteLater()
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
        del owner
    wait_for_work()
    qapp.processEvents()
    # Results that were there in time are told; what counts is that nothing falls over.
    assert all(result is True for result in came)
