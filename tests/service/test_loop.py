"""The loop and the saver, in the test's own thread."""

from __future__ import annotations

import errno
import os
import signal
import subprocess
import sys
import threading
from pathlib import Path

import pytest

from nakrel.protocol import Entry
from nakrel.service.journal import KEPT, Journal
from nakrel.service.loop import Loop, monotonic_us, spin_until
from nakrel.service.worker import Outcome, Worker
from nakrel.storage.files import StorageError
from nakrel.storage.home import Home
from tests.support import pause


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


def test_what_has_time_waits_for_what_has_not(loop: Loop):
    called: list[str] = []
    number = os.eventfd(3, os.EFD_NONBLOCK | os.EFD_SEMAPHORE)

    def read() -> None:
        os.eventfd_read(number)
        called.append("read")

    loop.watch(number, read)
    now = monotonic_us()
    loop.at("due", now, lambda: called.append("due"))
    for name in ("first", "second"):
        loop.when_idle(lambda name=name: called.append(name), now + 60_000_000)
    loop.when_idle(loop.stop, now + 60_000_000)
    loop.run()
    assert sorted(called[:4]) == ["due", "read", "read", "read"]
    assert called[4:] == ["first", "second"]
    loop.close()
    os.close(number)


def test_what_has_waited_too_long_is_done_one_at_a_time(loop: Loop):
    called: list[str] = []

    def read() -> None:
        called.append("read")
        if len(called) == 20:
            loop.stop()

    # Always readable.
    number = os.eventfd(1, os.EFD_NONBLOCK)
    loop.watch(number, read)
    now = monotonic_us()
    for name in ("first", "second"):
        loop.when_idle(lambda name=name: called.append(name), now)
    loop.when_idle(lambda: called.append("never"), now + 60_000_000)
    loop.run()
    # What waited goes on at the end.
    assert called[0:4] == ["first", "read", "second", "read"]
    assert set(called[4:-1]) == {"read"}
    assert called[-1] == "never"
    loop.close()
    os.close(number)


def test_a_timer_comes_in_its_time_while_much_is_read(loop: Loop):
    read_fd, write_fd = os.pipe()
    due, fired, came = monotonic_us() + 90_000, list[int](), list[bytes]()

    def read() -> None:
        # As a mouse does: with each report the next one is on its way.
        came.append(os.read(read_fd, 1))
        os.write(write_fd, b"x")

    loop.watch(read_fd, read)
    loop.at("end", due, lambda: (fired.append(monotonic_us()), loop.stop()))
    os.write(write_fd, b"x")
    loop.run()
    assert fired[0] >= due
    assert len(came) > 100
    loop.forget(read_fd)
    # What isn't watched is not read, and its number may be another's by then.
    loop.at("end", monotonic_us() + 1_000, loop.stop)
    count = len(came)
    loop.run()
    assert len(came) == count
    for handle in (read_fd, write_fd):
        os.close(handle)
    loop.close()


def test_a_number_that_is_another_descriptors_by_now_is_watched(loop: Loop):
    came: list[str] = []
    first, other = os.pipe()
    loop.watch(first, lambda: came.append("first"))
    # It is closed and its number taken by another pipe before anybody forgot it.
    read_fd, write_fd = os.pipe()
    os.close(first)
    os.dup2(read_fd, first)
    loop.watch(first, lambda: (came.append(os.read(first, 1).decode()), loop.stop()))
    os.write(write_fd, b"x")
    loop.run()
    assert came == ["x"]
    for handle in (first, other, read_fd, write_fd):
        os.close(handle)
    loop.close()


def test_a_descriptor_that_epoll_cannot_watch_is_watched_all_the_same(loop: Loop, tmp_path: Path):
    came: list[str] = []
    read_fd, write_fd = os.pipe()
    os.write(write_fd, b"x")
    with open(tmp_path / "file", "w+b") as file:
        loop.watch(read_fd, lambda: came.append(os.read(read_fd, 1).decode()))
        loop.watch(file, lambda: (came.append("file"), loop.forget(file), loop.stop()))
        loop.run()
    assert sorted(came) == ["file", "x"]
    for handle in (read_fd, write_fd):
        os.close(handle)
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


def test_a_worker_works_in_order_on_its_own_thread_and_reports_on_ours(loop: Loop):
    saver = Worker(loop, "saver")
    done: list[tuple[str, str]] = []
    threads: set[int] = set()

    def work(name: str) -> str:
        threads.add(threading.get_ident())
        if name == "full":
            raise StorageError("M.json: can't be saved: No space left on device")
        if name == "bug":
            raise ValueError("oops")
        return name

    def finished(outcome: Outcome[str]) -> None:
        assert threading.get_ident() not in threads
        done.append((outcome.result or "", str(outcome.error or "")))

    for name in ("first", "full", "bug", "last"):
        saver.do(lambda n=name: work(n), finished)
    saver.close()
    loop.collect()
    assert done == [("first", ""), ("", "M.json: can't be saved: No space left on device"), ("", "oops"), ("last", "")]
    loop.close()


def test_what_is_posted_from_another_thread_wakes_the_loop(loop: Loop):
    threading.Thread(target=lambda: loop.post(loop.stop)).start()
    loop.run()
    loop.post(lambda: None)
    loop.close()
    # Nobody calls it any more, and nobody is harmed by it.
    loop.post(lambda: None)


def test_the_journal_is_there_after_a_restart_and_skips_what_is_broken(tmp_path):
    home = Home.find(tmp_path)
    for round_ in range(2):
        loop = Loop(print)
        saver = Worker(loop, "saver")
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
    loop = Loop(print)
    saver = Worker(loop, "saver")
    journal = Journal(Home.find(tmp_path), saver, lambda entry: None)
    for n in range(KEPT + 500):
        journal.add("run", f"run {n} ended", "finished")
        journal.write()
    saver.close()
    assert len(journal.entries) == KEPT
    lines = Home.find(tmp_path).journal.read_text().splitlines()
    assert KEPT <= len(lines) < KEPT + 500
    assert f"run {KEPT + 499} ended" in lines[-1]


def test_a_full_disk_takes_nothing_from_a_journal_that_is_too_long(tmp_path, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr("nakrel.service.journal.MAX_BYTES", 1_000)
    monkeypatch.setattr("nakrel.storage.files.os.fsync", _no_room)
    loop = Loop(print)
    saver = Worker(loop, "saver")
    journal = Journal(Home.find(tmp_path), saver, lambda entry: None)
    for n in range(30):
        journal.add("run", f"run {n} ended", "finished")
        journal.write()
    saver.close()
    lines = Home.find(tmp_path).journal.read_text().splitlines()
    assert len(lines) == 30
    assert [each.name for each in Home.find(tmp_path).journal.parent.iterdir()] == ["journal.jsonl"]


def _no_room(fd: int) -> None:
    raise OSError(errno.ENOSPC, "No space left on device")


def test_a_clock_that_is_set_back_hides_no_entry(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    loop = Loop(print)
    saver = Worker(loop, "saver")
    journal = Journal(Home.find(tmp_path), saver, lambda entry: None)
    times = iter((5_000.0, 4_000.0, 4_001.0))
    monkeypatch.setattr("nakrel.service.journal.time.time", lambda: next(times))
    for name in ("one", "two", "three"):
        journal.add("run", name)
    journal.write()
    saver.close()
    loop.close()
    assert [entry.what for entry in Journal(Home.find(tmp_path), saver, lambda entry: None).entries] == [
        "one",
        "two",
        "three",
    ]


# A loop with a watchdog, in a process of its own; what `last` does decides what becomes of it.
_WATCHED = """
import os, select, sys, time
from nakrel.service import watchdog
from nakrel.service.loop import Loop, monotonic_us
from nakrel.service.watchdog import Watchdog

watchdog.SUSPICIOUS_S, watchdog.HUNG_S = 0.7, 0.5

def endless():
    while True:
        pass

def blocked():
    select.select([], [], [], 20)

loop = Loop(print)
dog = Watchdog(lambda: loop.turn, lambda: os._exit(7), sys.stderr)
loop.set_alarm(dog)
loop.guard({guarded})
loop.at("a", monotonic_us() + 100_000, lambda: print("ready", flush=True))
loop.at("b", monotonic_us() + {after_ms}_000, {last})
loop.run()
dog.close()
"""


def watched(last: str, *, guarded: bool = True, after_ms: int = 400) -> subprocess.Popen[str]:
    code = _WATCHED.format(last=last, guarded=guarded, after_ms=after_ms)
    pipe = subprocess.PIPE
    return subprocess.Popen([sys.executable, "-c", code], stdout=pipe, stderr=pipe, text=True)


@pytest.mark.parametrize("last", ["endless", "blocked"])
def test_a_hang_is_found_whether_it_runs_or_is_blocked_and_the_log_gets_to_know_where(last: str):
    made = watched(last)
    _, log = made.communicate(timeout=30)
    assert made.returncode == 7
    assert f"in {last}" in log


def test_a_long_sleep_is_no_hang():
    made = watched("loop.stop", after_ms=2_500)
    made.communicate(timeout=30)
    assert made.returncode == 0


def test_nothing_is_ended_while_nothing_dangerous_goes_on():
    made = watched("lambda: (select.select([], [], [], 1.5), loop.stop())", guarded=False)
    made.communicate(timeout=30)
    assert made.returncode == 0


def test_a_stopped_process_does_not_hang():
    """SIGSTOP for longer than a hang takes, in the midst of a turn and between turns."""
    turns = "lambda: (select.select([], [], [], 0.3), loop.at('c', monotonic_us() + 300_000, loop.stop))"
    made = watched(turns)
    assert made.stdout
    assert made.stdout.readline() == "ready\n"
    for _ in range(3):
        made.send_signal(signal.SIGSTOP)
        pause(1.0)
        made.send_signal(signal.SIGCONT)
        pause(0.15)
    made.communicate(timeout=30)
    assert made.returncode == 0


def test_a_process_that_gets_no_processor_does_not_hang():
    """As idle as can be beside busy processes on the same core: the turn takes long, and most of that is waiting."""
    core = min(os.sched_getaffinity(0))
    busy = [subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(4)]
    # A long hang's worth of waiting for a fraction of a second's work; what comes before has the processor.
    turn = (
        f"(os.sched_setaffinity(0, {{{core}}}), os.nice(19), sum(range(800_000)), print(time.monotonic()), loop.stop())"
    )
    made = watched(f"lambda: (print(time.monotonic()), {turn})")
    try:
        for each in busy:
            os.sched_setaffinity(each.pid, {core})
        lines, _ = made.communicate(timeout=100)
        assert made.returncode == 0
        began, ended = (float(line) for line in lines.split()[1:])
        assert ended - began > 1.5, "the turn was no longer than a hang takes: this shows nothing"
    finally:
        for each in busy:
            each.kill()
            each.wait()


@pytest.mark.parametrize("kind", ["descriptor", "timer"])
def test_a_loop_that_finds_no_rest_says_what_keeps_it_busy(loop: Loop, kind: str):
    told: list[str] = []
    loop.on_restless(lambda what: (told.append(what), loop.stop()))
    read_fd, write_fd = os.pipe()
    os.write(write_fd, b".")

    def never_reads() -> None:
        pass

    def sets_itself_anew() -> None:
        loop.at("kernel", monotonic_us(), sets_itself_anew)

    if kind == "descriptor":
        loop.watch(read_fd, never_reads)
    else:
        sets_itself_anew()
    loop.run()
    assert len(told) == 1
    assert {"descriptor": "never_reads", "timer": "kernel"}[kind] in told[0]
    loop.close()
    os.close(read_fd)
    os.close(write_fd)


def test_a_stop_that_comes_before_the_loop_runs_counts():
    """A service is told to end while it starts."""
    loop = Loop(lambda error: None)
    loop.stop()
    loop.run()
    # Another run goes on until it is stopped.
    turns: list[int] = []
    loop.at("soon", 0, lambda: (turns.append(1), loop.stop()))
    loop.run()
    assert turns == [1]
    loop.close()
