"""The loop and the saver, in the test's own thread."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import threading

import pytest

from nakrel.protocol import Entry
from nakrel.service.journal import KEPT, Journal
from nakrel.service.loop import Loop, monotonic_us, spin_until
from nakrel.service.worker import Worker
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home


@pytest.fixture
def loop() -> Loop:
    """A loop whose callbacks' errors fail the test."""

    def fail(error: Exception) -> None:
        raise error

    return Loop(fail)


def test_timers_fire_in_their_time_and_never_before(loop: Loop):
    fired: list[tuple[str, int]] = []
    start = monotonic_us()
    for name, after in (("late", 9_000), ("soon", 3_000)):
        loop.at(name, start + after, lambda n=name: fired.append((n, monotonic_us() - start)))
    loop.at("end", start + 12_000, loop.stop)
    loop.run()
    assert [name for name, _ in fired] == ["soon", "late"]
    assert all(at >= due for (_, at), due in zip(fired, (3_000, 9_000), strict=True))
    loop.close()


def test_a_timer_can_be_moved_taken_away_and_set_again_by_its_own_call(loop: Loop):
    fired: list[str] = []
    now = monotonic_us()

    def again() -> None:
        fired.append("again")
        if fired.count("again") < 3:
            loop.at("again", monotonic_us(), again)
        else:
            loop.stop()

    loop.at("never", now, lambda: fired.append("never"))
    loop.at("never", None, lambda: None)
    loop.at("again", now + 60_000_000, again)
    loop.at("again", now, again)
    loop.run()
    assert fired == ["again"] * 3
    assert not loop.pending("again")
    loop.close()


def test_an_early_call_leaves_room_to_meet_the_moment(loop: Loop):
    due = monotonic_us() + 5_000
    came: list[int] = []

    def call() -> None:
        came.append(monotonic_us())
        spin_until(due)
        came.append(monotonic_us())
        loop.stop()

    loop.at("engine", due, call, early_us=300)
    loop.run()
    assert due - 300 <= came[0]
    assert came[1] >= due
    loop.close()


def test_a_failing_callback_is_reported_and_ends_nothing():
    errors: list[Exception] = []
    loop = Loop(errors.append)
    read_fd, write_fd = os.pipe()
    loop.watch(read_fd, lambda: 1 / 0)
    os.write(write_fd, b".")
    loop.at("end", monotonic_us() + 5_000, loop.stop)
    loop.run()
    assert errors
    assert all(isinstance(error, ZeroDivisionError) for error in errors)
    loop.forget(read_fd)
    loop.forget(read_fd)
    loop.close()
    os.close(read_fd)
    os.close(write_fd)


def test_the_saver_works_in_order_on_its_own_thread_and_reports_on_ours():
    saver = Worker()
    done: list[tuple[str, str]] = []
    threads: set[int] = set()

    def work(name: str) -> None:
        threads.add(threading.get_ident())
        if name == "full":
            raise StorageError("M.json: can't be saved: No space left on device")
        if name == "bug":
            raise ValueError("oops")

    for name in ("first", "full", "bug", "last"):
        saver.do(lambda n=name: work(n), lambda error, n=name: done.append((n, error)))
    saver.close()
    assert [name for name, _ in done] == ["first", "full", "bug", "last"]
    assert done[0][1] == done[3][1] == ""
    assert "No space left" in done[1][1]
    assert "oops" in done[2][1]
    assert threading.get_ident() not in threads


def test_the_journal_is_there_after_a_restart_and_skips_what_is_broken(tmp_path):
    home = Home.find(tmp_path)
    for round_ in range(2):
        saver = Worker()
        heard: list[Entry] = []
        journal = Journal(home, saver, heard.append)
        assert len(journal.entries) == 2 * round_
        journal.add("switch", "Tidewardens is live", "it runs")
        journal.add("fault", f"fault {round_}")
        journal.write()
        saver.close()
        assert [entry.what for entry in heard] == ["Tidewardens is live", f"fault {round_}"]
        with open(home.journal, "ab") as file:
            file.write(b"{half a li\n")


def test_the_journal_keeps_its_size(tmp_path, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr("nakrel.service.journal.MAX_BYTES", 100_000)
    saver = Worker()
    journal = Journal(Home.find(tmp_path), saver, lambda entry: None)
    for n in range(KEPT + 500):
        journal.add("run", f"run {n} ended", "finished")
        journal.write()
    saver.close()
    assert len(journal.entries) == KEPT
    lines = Home.find(tmp_path).journal.read_text().splitlines()
    assert KEPT <= len(lines) < KEPT + 500
    assert f"run {KEPT + 499} ended" in lines[-1]


_STALL = """
import faulthandler, signal, sys
from nakrel.service.loop import Loop, monotonic_us

def endless():
    while True:
        pass

faulthandler.register(signal.SIGALRM, file=sys.stderr, chain=True)
loop = Loop(print)
loop.end_when_stalled(0.2)
loop.at("a", monotonic_us() + 400_000, lambda: None)
loop.at("b", monotonic_us() + 1_500_000, {last})
loop.run()
"""


@pytest.mark.parametrize(("last", "code"), [("endless", -signal.SIGALRM), ("loop.stop", 0)])
def test_a_stall_ends_the_process_and_a_long_sleep_does_not(last: str, code: int):
    made = subprocess.run([sys.executable, "-c", _STALL.format(last=last)], capture_output=True, text=True, timeout=30)
    assert made.returncode == code
    # The log gets to know where.
    assert ("in endless" in made.stderr) == (last == "endless")
