"""Starting the service: one a session, with the timing that the system grants."""

from __future__ import annotations

import argparse
import contextlib
import ctypes
import dataclasses
import fcntl
import gc
import os
import signal
import sys
from collections.abc import Iterator
from typing import IO

from nakrel.language import use
from nakrel.private import NotPrivate, open_private, private_folder
from nakrel.rights import refusal_reason
from nakrel.service import BACKENDS
from nakrel.service.login_session import LoginSession
from nakrel.service.logs import open_log, start_logging
from nakrel.service.options import Options
from nakrel.service.requests import Requests
from nakrel.service.service import Service
from nakrel.service.systemd import Systemd
from nakrel.service.watchdog import Watchdog
from nakrel.storage.home import Home
from nakrel.system_errors import reason_of
from nakrel.words import tr

__all__ = ["ALREADY_RUNS", "main", "serve", "start_anew", "tune"]

ALREADY_RUNS = 3
REFUSED = 4
# Why the process before this one ended; it is the same process, started anew.
ENDED_BY, HUNG = "NAKREL_ENDED_BY", "hung"
# prctl(2): the slack of this thread's timers, in nanoseconds; its default of 50,000 would make every deadline late.
_PR_SET_TIMERSLACK = 29
# Low among the real-time priorities: above every normal process, below the kernel's own threads.
_PRIORITY = 5
_SWITCH_S = 0.000_5
_SIGNALS = (signal.SIGTERM, signal.SIGINT, signal.SIGHUP)


def main(arguments: list[str] | None = None) -> int:
    """`python -m nakrel.service`: the same as `nakrel service`, without what the command line loads."""
    parser = argparse.ArgumentParser(prog="python -m nakrel.service")
    parser.add_argument("--home", help="keep everything in this folder instead of the XDG folders")
    parser.add_argument("--backend", choices=BACKENDS, default="auto", help="the route to the programs (default: auto)")
    chosen = parser.parse_args(arguments)
    return serve(chosen.home, chosen.backend)


def serve(folder: str | None = None, backend: str = "auto", *, with_session: bool = False) -> int:
    """Run the service until SIGTERM, SIGINT or a request ends it, or `with_session` the end of the login session;
    returns the exit code. `backend` is one of `BACKENDS`."""
    use()
    if refused := refusal_reason():
        print(f"nakrel: {refused}", file=sys.stderr)
        return REFUSED
    # From the moment that others can see the process it ends in order when it is told to, also while it starts.
    asked: list[int] = []
    for number in _SIGNALS:
        signal.signal(number, lambda number, _: asked.append(number))
    home = Home.find(folder)
    try:
        for folder_of_ours in (home.state, home.runtime):
            private_folder(folder_of_ours)
        start_logging(home.log)
        held = open(home.lock, "a+", encoding="utf-8", opener=open_private)  # noqa: SIM115
    except (OSError, NotPrivate) as error:
        return _refuse(error)
    with held as lock:
        before = _lock(lock)
        if before is None:
            lock.seek(0)
            print(
                "nakrel: "
                + tr(
                    "a service already runs for {config} (process {process}); use that one, or end it with: "
                    "nakrel shutdown"
                ).format(config=home.config, process=lock.read().strip() or tr("unknown")),
                file=sys.stderr,
            )
            return ALREADY_RUNS
        use_x11 = backend in ("auto", "x11") and bool(os.environ.get("DISPLAY"))
        guard = None
        if use_x11:
            from nakrel.backends.x11.guard import Guard

            try:
                guard = Guard(None, home.runtime)
            except OSError as error:
                return _refuse(error)
        options = Options(backend, injector_is_xtest=os.environ.get("NAKREL_X11_INJECTOR") == "xtest")
        if guard:
            options = dataclasses.replace(options, holds=guard)
        code = _serve(home, options, asked, before, with_session=with_session)
        if guard:
            guard.close()
        _write_into(lock, "")
    return code


def _refuse(error: OSError | NotPrivate) -> int:
    reason = f"{error.filename}: {reason_of(error)}" if isinstance(error, OSError) else str(error)
    print("nakrel: " + tr("the service can't start: {reason}").format(reason=reason), file=sys.stderr)
    return REFUSED


def _lock(lock: IO[str]) -> str | None:
    """Take the lock and write our process id into it; None where another process has it. Returns the id of one that had
    it before and didn't come to its end, '' for none."""
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        return None
    lock.seek(0)
    before = lock.read(20).strip()
    _write_into(lock, str(os.getpid()))
    return before


def _write_into(lock: IO[str], text: str) -> None:
    # The lock holds without it; a full disk must not keep macros from playing.
    with contextlib.suppress(OSError):
        os.ftruncate(lock.fileno(), 0)
        os.write(lock.fileno(), text.encode())


def _serve(home: Home, options: Options, asked: list[int], before: str, *, with_session: bool) -> int:
    service = Service(home, options)
    if options.backend not in ("auto", "stand-in") and not service.routes.reaches_programs:
        # It was asked for by name: playing into nothing is not what was meant.
        print(
            "nakrel: "
            + tr("the route {backend} can't be had. {note}").format(backend=options.backend, note=service.output.note),
            file=sys.stderr,
        )
        service.close()
        return REFUSED
    systemd = Systemd(service.loop)
    with _end_on_signals(service, asked), open_log(home.log) as log:
        service.serve(home, Requests(service, os.getpid()).handle)
        tune()
        watchdog = Watchdog(lambda: service.loop.turn, start_anew, log)
        service.loop.set_alarm(watchdog)
        if os.environ.pop(ENDED_BY, "") == HUNG:
            service.reporter.fault(
                tr(
                    "The service did not answer any more and was restarted by itself; all macros were ended. Its "
                    "log says what it was doing"
                )
            )
            service.live.notify(tr("Nakrel was restarted"), tr("It did not answer any more; all macros were ended"))
        elif before:
            service.reporter.add(
                "fault",
                tr("the service before this one ended suddenly"),
                tr("it was killed, or memory ran out; its macros ended, and nothing that they held stays down"),
            )
        if with_session:
            LoginSession(service.loop, service.opener, service.loop.stop).watch()
        service.presence.watch()
        systemd.ready()
        service.run()
        systemd.ending()
        service.loop.set_alarm(None)
        watchdog.close()
    return 0


@contextlib.contextmanager
def _end_on_signals(service: Service, asked: list[int]) -> Iterator[None]:
    """Let the signals end the loop in order, holds released; at once where one was `asked` with before."""
    read_fd, write_fd = os.pipe2(os.O_NONBLOCK | os.O_CLOEXEC)
    signal.set_wakeup_fd(write_fd, warn_on_full_buffer=False)
    for number in _SIGNALS:
        signal.signal(number, lambda *_: service.loop.stop())
    if asked:
        service.loop.stop()
    service.loop.watch(read_fd, lambda: os.read(read_fd, 64))
    try:
        yield
    finally:
        signal.set_wakeup_fd(-1)
        os.close(read_fd)
        os.close(write_fd)


def start_anew() -> None:
    """Replace this process by a new service, whatever its threads are at: everything that it had open is closed, and
    with that every grab and every hold of its goes."""
    os.environ[ENDED_BY] = HUNG
    os.execv(sys.executable, [sys.executable, *sys.orig_argv[1:]])


def tune() -> None:
    """Ask for exact timers and a real-time priority; go on without where that isn't granted."""
    with contextlib.suppress(OSError, AttributeError):
        ctypes.CDLL(None).prctl(_PR_SET_TIMERSLACK, 1, 0, 0, 0)
    with contextlib.suppress(OSError):
        os.sched_setscheduler(0, os.SCHED_FIFO | os.SCHED_RESET_ON_FORK, os.sched_param(_PRIORITY))
    # Threads that save and prepare give way to the engine's within this time.
    sys.setswitchinterval(_SWITCH_S)
    gc.collect()
    gc.freeze()
    with contextlib.suppress(OSError, AttributeError):
        # What reading the library took goes back to the system (malloc_trim(3)).
        ctypes.CDLL(None).malloc_trim(0)
